"""The sheet as DXF: views in millimetres on layers, with dimensions one can measure."""

from pathlib import Path
from typing import Any

from machinon.core.errors import MachinonError
from machinon.core.piece.made import Made
from machinon.draw.drawing import OPEN, Circle, Drawing, Line, Shape, Text
from machinon.draw.sheet_in_mm import MeasuredLine, WrittenNote, sheet_in_mm

# layer, colour by the index of DXF, line type
LAYERS = (
    ("outline", 7, "CONTINUOUS"),
    ("thin", 8, "CONTINUOUS"),
    ("hidden", 4, "DASHED"),
    ("centre", 1, "CENTER"),
    ("hatch", 8, "CONTINUOUS"),
    ("dimensions", 3, "CONTINUOUS"),
    ("notes", 2, "CONTINUOUS"),
)
HIGH = 3.0  # mm: the figures
STYLE = "MACHINON"
LOOK = {
    "dimtxt": HIGH,
    "dimasz": 2.5,  # arrows, and no ticks for them
    "dimtsz": 0.0,
    "dimblk": "",
    "dimexe": 1.0,
    "dimexo": 0.6,
    "dimgap": 0.8,
    "dimtad": 1,  # figures over their line
    "dimlfac": 1.0,  # what is measured is what is said, to a micron
    "dimdec": 3,
    "dimzin": 8,
    "dimdsep": ord("."),
}
ROLES = {"outline": "outline", "thin": "thin", "hidden": "hidden", "centre": "centre"}


def write_dxf(made: Made, path: Path, first_angle: bool = False) -> None:
    """Write the sheet. Raises MachinonError where it cannot be written."""
    from ezdxf import units
    from ezdxf.filemanagement import new

    drawing, lines, notes = sheet_in_mm(made, first_angle)
    document: Any = new("R2010", setup=True)
    document.units = units.MM
    for name, colour, kind in LAYERS:
        document.layers.add(name, color=colour, linetype=kind)
    document.dimstyles.new(STYLE, dxfattribs=LOOK)
    space = document.modelspace()
    _add_items(space, drawing)
    for line in lines:
        _add_dimension(space, line)
    for note in notes:
        _add_note(space, note)
    try:
        document.saveas(path)
    except OSError as error:
        raise MachinonError(f"{path} could not be written: {error.strerror}.") from None


def _add_items(space: Any, drawing: Drawing) -> None:
    for item in drawing.items:
        layer = ROLES.get(getattr(item, "role", ""), "")
        if not layer:
            continue
        attributes = {"layer": layer}
        match item:
            case Line():
                space.add_line(item.start, item.end, dxfattribs=attributes)
            case Circle() if item.open:
                space.add_arc(item.centre, item.radius, *OPEN, dxfattribs=attributes)
            case Circle():
                space.add_circle(item.centre, item.radius, dxfattribs=attributes)
            case Shape():
                space.add_lwpolyline(
                    item.points, close=item.closed, dxfattribs=attributes
                )
                if item.hatch:
                    hatch = space.add_hatch(dxfattribs={"layer": "hatch"})
                    hatch.set_pattern_fill("ANSI31", scale=0.5)
                    hatch.paths.add_polyline_path(item.points, is_closed=True)
            case Text():
                continue


def _add_note(space: Any, note: WrittenNote) -> None:
    """Words, and the leader from them: an arrow on an outline, a dot within one."""
    from ezdxf.render.arrows import ARROWS

    on_notes = {"layer": "notes"}
    at = {**on_notes, "insert": note.at}
    space.add_text(note.text, height=HIGH, dxfattribs=at)
    if note.led_to is None:
        return
    x, y = note.at
    look = {}
    if note.inside:
        look["dimldrblk"] = ARROWS.create_block(space.doc.blocks, ARROWS.dot_small)
    ends = [note.led_to, (x - 1.0, y + HIGH / 2)]
    space.add_leader(ends, dimstyle=STYLE, override=look, dxfattribs=on_notes)


def _add_dimension(space: Any, line: MeasuredLine) -> None:
    """A dimension of what lies in the drawing: its length is measured there."""
    dimension = space.add_linear_dim(
        base=line.base,
        p1=line.a,
        p2=line.b,
        angle=line.angle,
        text=line.text,
        dimstyle=STYLE,
        dxfattribs={"layer": "dimensions"},
    )
    dimension.render()
