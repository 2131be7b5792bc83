"""The figures on a piece's sheet: each size as written, the places of its line, and
sizes that only follow from others."""

from collections import Counter
from collections.abc import Container, Iterable, Mapping, Sequence

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.in_inches import length_in_inches
from machinon.core.job.made_piece import ruled_by_fits
from machinon.core.piece.block_features import (
    CornerRounds,
    EdgeBevels,
    EndToEnd,
    Outline,
)
from machinon.core.piece.family import spoken
from machinon.core.piece.feature import Dimension, Feature, along_axis
from machinon.core.piece.made import Known, Made
from machinon.core.piece.milled_features import Flats
from machinon.core.piece.stock import DRAWN, Bar, stock_said
from machinon.core.piece.turned_features import (
    Ball,
    Bevel,
    Bore,
    Centre,
    Cylinder,
    Groove,
    NutThread,
    Screw,
    Sloping,
)
from machinon.core.quantity import COUNT, LENGTH, length_text, text_of, trimmed
from machinon.core.wording import begun
from machinon.draw.drawing import MarkKind, Role
from machinon.draw.half_section import round_lost, round_under

# begin why of a size that may go through, or from end to end, or of a stock's bore
GOES, IS = "0 goes ", "0 is "
# choices that the drawing shows
SHOWN = (
    *("end", "floor", "face", "runs", "side", "which", "form", "datum", "bolting"),
    *("mirrored", "leans"),
)
ALONG = ("along", "x", "y", "z")  # kinds of lines that lead from place to place
# measures that have a line where nothing else tells them, and how they are called
FOLLOW = {
    "from_end": "from the end",
    "from_side": "from the side",
    "from_front": "from the front",
    "at": "from the front",
    "length": "length",
    "width": "width",
    "depth": "depth",
    "drilled": "drilled depth",
    "height": "height",
    "diameter": "diameter",
    "middle_x": "middle of the arc from the left",
    "middle_y": "middle of the arc from the front",
    "x": "corner from the left",
    "y": "corner from the front",
}
WHOLE = "whole"  # what a piece measures over all


class SheetFigure(Struct, frozen=True):
    """A size as it stands on the sheet."""

    key: str
    text: str
    small: str
    name: str
    role: Role
    number: int = 0  # of the fit that rules it, 0: none
    aside: bool = False  # it only repeats what the others say, and stands in brackets

    @property
    def in_a_row(self) -> str:
        """It with its limits beside it, as it stands along the foot."""
        return f"{self.text} ({self.small})" if self.small else self.text

    @property
    def mark(self) -> MarkKind | None:
        """The mark of a size that is at fault."""
        return "stop" if self.role == "stop" else None

    def room(self, size: float) -> float:
        """Width of its number and mark beside it."""
        return 1.5 * size * bool(self.number) + 1.2 * size * bool(self.mark)


def places_of(made: Made) -> dict[str, Dimension]:
    """The place of each size that has one in the drawing."""
    by_feature = {feature.name: feature.dimensions() for feature in made.body.features}
    found = {}
    for key, known in made.sizes.items():
        name, _, measure = known.size.drawn_at.partition(".")
        dimension = by_feature.get(name, {}).get(measure)
        # nought is said, it has no line: a depth that goes through
        if dimension is not None and (known.value != 0 or dimension.kind == "hole"):
            found[key] = dimension
    found |= _following(made, found)
    return found | _rounds_left(made, found) | _over_all(made, found)


def _following(made: Made, said: Mapping[str, Dimension]) -> dict[str, Dimension]:
    """Sizes that follow from others and are not told by their lines: a line of its own
    for each place that no line leads to; by `feature.measure`."""
    joined: dict[tuple[str, float], tuple[str, float]] = {}

    def ends_of(dimension: Dimension) -> list[tuple[str, float]]:
        """The two places of a line; those that lines join have one and the same."""
        found: list[tuple[str, float]] = []
        for at in (dimension.start, dimension.end):
            place: tuple[str, float] = (dimension.kind, round(at, 4))
            while place in joined:
                place = joined[place]
            found.append(place)
        return found

    def joins(dimension: Dimension) -> bool:
        a, b = ends_of(dimension)
        if a != b:
            joined[a] = b
        return a != b

    for dimension in said.values():
        if dimension.kind in ALONG:
            joins(dimension)
    told = {known.size.drawn_at for known in made.sizes.values()}
    found = {}
    for feature in made.body.features:
        first = feature.name.rstrip("0123456789") + "1"  # of some that are alike
        for measure, dimension in feature.dimensions().items():
            key = f"{feature.name}.{measure}"
            if (
                key in told
                or dimension.kind not in ALONG
                or not _follows(feature, measure)
            ):
                continue
            if not joins(dimension) or f"{first}.{measure}" in told:
                continue
            listed = isinstance(feature, Outline) or measure[-1].isdigit()
            if listed or _is_to_be_said(made, dimension):
                found[key] = dimension
    return found


def _rounds_left(made: Made, said: Mapping[str, Dimension]) -> dict[str, Dimension]:
    """The diameters that no line tells and no thread in their bore: a clearance hole,
    the round that a hexagon is cut from; by `feature.diameter`."""
    told = {
        round(dimension.at[0], 3)
        for dimension in said.values()
        if dimension.kind == "diameter"
    }
    features = made.body.features
    told |= {
        round(feature.bore / 2, 3)
        for feature in features
        if isinstance(feature, NutThread)
    }
    # the flats that it takes the corners of say it
    told |= {round(round_under(f, made.body), 3) for f in _on_lost_rounds(made)}
    found = {}
    for feature in features:
        if isinstance(feature, Cylinder | Bore | Groove):
            line = feature.dimensions()["diameter"]
            if round(line.at[0], 3) not in told:
                told.add(round(line.at[0], 3))
                found[f"{feature.name}.diameter"] = line
    return found


def _on_lost_rounds(made: Made) -> list[Flats]:
    """Flats of whose round nothing is seen from the side, and no size tells it."""
    sizes = {
        round(known.value, 3)
        for known in made.sizes.values()
        if known.size.measure == "diameter" and isinstance(known.value, float)
    }
    stock = made.body.stock
    of_bar = stock.across if isinstance(stock, Bar) else 0.0  # they never had a round
    flats = (
        f
        for f in made.body.features
        if isinstance(f, Flats) and abs(f.across - of_bar) > DRAWN
    )
    return [
        f
        for f in flats
        if round_lost(f, made.body)
        and round(2 * round_under(f, made.body), 3) not in sizes
    ]


def lost_round(made: Made, flats: Flats) -> float:
    """The diameter that such flats are cut on, mm; 0 where it is told otherwise."""
    lost = any(f.name == flats.name for f in _on_lost_rounds(made))
    return 2 * round_under(flats, made.body) if lost else 0.0


def _over_all(made: Made, said: Mapping[str, Dimension]) -> dict[str, Dimension]:
    """The overall sizes of the piece, where no line of its own gives them: one saws to
    them."""
    body = made.body
    if body.turns:
        first, last = body.ends
        radius = min(outer for _, outer in body.radii_at(body.ends))
        spans = {"length": along_axis(first, last, (radius, 0.0))}
    else:
        box = body.shadow.box
        spans = {
            "length": Dimension("x", box[0], box[3]),
            "width": Dimension("y", box[1], box[4]),
            "height": Dimension("z", box[2], box[5]),
        }

    def says(dimension: Dimension, span: Dimension) -> bool:
        off = max(abs(dimension.start - span.start), abs(dimension.end - span.end))
        return dimension.kind == span.kind and off < 0.01

    return {
        f"{WHOLE}.{measure}": span
        for measure, span in spans.items()
        if not any(says(dimension, span) for dimension in said.values())
    }


def _is_to_be_said(made: Made, dimension: Dimension) -> bool:
    """Whether a line of a block says more than is seen: metal still reaches both its
    ends, which an outline may have taken off, and neither is the block's middle."""
    if dimension.kind == "along":
        return True
    axis, box = "xyz".index(dimension.kind), made.body.shadow.box
    low, high = box[axis], box[axis + 3]
    middle = min(abs(at - (low + high) / 2) for at in (dimension.start, dimension.end))
    return bool(
        low < dimension.start + 1e-3 and dimension.end < high + 1e-3 and middle > 1e-3
    )


def _follows(feature: Feature, measure: str) -> bool:
    """Whether a measure has a line where nothing else tells it; what slopes is told by
    its angle."""
    if isinstance(feature, EndToEnd):
        return measure == "at"
    return _kind_of(measure) in FOLLOW and not isinstance(feature, Sloping)


def _kind_of(measure: str) -> str:
    """The common name of numbered corners' measures."""
    return measure.rstrip("0123456789")


def figures_of(
    made: Made, inch: bool, places: Mapping[str, Dimension]
) -> dict[str, SheetFigure]:
    """Every size as it stands on the sheet, by key, and what else has a place there."""
    numbers = {key: number for number, key in ruled_by_fits(made).items()}
    wrong = _at_fault(made)
    follow = {f"{b.name}.length" for b in made.body.features if isinstance(b, Ball)}
    found = {}
    for key, known in made.sizes.items():
        figure = figure_of(made, known, inch)
        role: Role = "stop" if key in wrong else figure.role
        if known.by == "rule" and known.size.drawn_at in follow:
            # no tape reads it: it follows from the ball and its necks
            said = following_said(float(known.value), inch)
            figure = replace(figure, text=f"({said})")
        found[key] = replace(figure, number=numbers.get(key, 0), role=role)
    for key, line in places.items():
        if key not in found:
            name, _, measure = key.partition(".")
            words = f"{spoken(name)} {FOLLOW[_kind_of(measure)]}"
            across = line.kind == "diameter"
            value = 2 * line.at[0] if across else line.end - line.start
            text = following_said(value, inch)
            over_all = name == WHOLE
            text = f"({text})" if over_all else text
            found[key] = SheetFigure(key, text, "", words, "dimension", aside=over_all)
    return found


def figure_of(made: Made, known: Known, inch: bool) -> SheetFigure:
    """A size as it is written, with the ends of its band under it."""
    value, size = known.value, known.size
    ends = made.limits(size.key)
    ruled = ends is not None or known.by in ("fit", "copy", "chain", "read")
    role: Role = "measured" if ruled else "dimension"
    small = ""
    if isinstance(value, bool):
        text = "yes" if value else "no"
    elif isinstance(value, str):
        text = size.word_again(value, inch)
        text = text.replace("x", " × ") if size.measure == "thread" else text
        small = _groove_said(made, size.drawn_at, inch)
    elif size.kind is LENGTH:
        text = length_said(value, inch, given=known.by in ("typed", "read", "copy"))
        if value == 0 and size.why.startswith((GOES, IS)):
            text = size.why.removeprefix(GOES).removeprefix(IS)
        if ends is not None:
            step = 0.001 if inch else _step((value, *ends))
            text = length_said(value, inch, step)
            small = " to ".join(length_said(end, inch, step) for end in ends)
    elif size.kind is COUNT:
        text = f"{value:.0f}"
    else:
        text = text_of(value, size.kind, inch)
    return SheetFigure(size.key, text, small, size.words, role)


def _step(lengths: Sequence[float]) -> float:
    """How fine a size with limits is told, mm: to a hundredth where all are such."""
    hundredths = all(abs(100 * x - round(100 * x)) < 1e-6 for x in lengths)
    return 0.01 if hundredths else 0.001


def _groove_said(made: Made, drawn_at: str, inch: bool) -> str:
    """The groove that an outside thread runs out in, as it stands under the thread."""
    name, _, measure = drawn_at.partition(".")
    screw = made.body.found(name)
    if not isinstance(screw, Screw) or measure != "thread" or not screw.runs_out:
        return ""
    wide, floor = (round(screw.groove_width, 2), round(screw.groove, 2))
    return f"groove {length_said(wide, inch)} × ⌀{length_said(floor, inch)}"


def _at_fault(made: Made) -> set[str]:
    """The sizes that a failed check points at: that of a fit, or of a whole feature."""
    failed = [c for c in made.checks if not c.passed and c.grave]
    ruled = {f"fit-{band.slot.key}": band.slot.rules for band in made.fits}
    places = {c.place for c in failed if c.key not in ruled}
    found = {key for key, known in made.sizes.items() if known.size.feature in places}
    return found | {ruled[c.key] for c in failed if c.key in ruled}


def length_said(
    value: float, inch: bool, step: float = 0.0, given: bool = False
) -> str:
    """The length in as few digits as say it: 46.01, 18, 0.5; in inches as
    `length_in_inches` says."""
    if step:
        return length_text(value, step, inch, unit=False)
    if inch:
        return length_in_inches(value, given)
    return trimmed(length_text(value, 0.001, unit=False))


def following_said(value: float, inch: bool) -> str:
    """A length that only follows from others: to a hundredth, as no more is kept of it;
    in inches as any, for a hundredth off it would be no sixteenth any more."""
    return length_said(value if inch else round(value, 2), inch)


def on_one_line(
    places: Mapping[str, Dimension], figures: Mapping[str, SheetFigure]
) -> Iterable[list[str]]:
    """Sizes that would have the same line with the same figure, as a hole in the middle
    of a vee has that of the vee, and a taper the end of the step that it goes on from.
    """
    lines: dict[object, list[str]] = {}
    for key, dimension in places.items():
        figure = figures[key]
        same = dimension.kind, figure.text, figure.small, figure.number, figure.role
        if dimension.kind in ALONG:
            ends = round(dimension.start, 4), round(dimension.end, 4)
            lines.setdefault((ends, *same), []).append(key)
        elif dimension.kind == "diameter":
            line = (round(dimension.at[0], 4), dimension.inside, *same)
            alike = lines.setdefault(line, [])
            if not alike or any(_touch(dimension, places[other]) for other in alike):
                alike.append(key)
            else:  # one as wide elsewhere has a line of its own
                lines[key] = [key]
    return lines.values()


def _touch(dimension: Dimension, other: Dimension) -> bool:
    """Whether two diameters are of the same place along the axis."""
    return max(dimension.start, other.start) <= min(dimension.end, other.end) + 1e-6


def said_with(made: Made, key: str, inch: bool = False) -> list[SheetFigure]:
    """The sizes that are written in one line with a size, at its hole, or have one line
    with it; else itself."""
    places = places_of(made)
    figures = figures_of(made, inch, places)
    where = {
        at: feature_of(made.sizes[at].size.drawn_at)
        for at, place in places.items()
        if place.kind == "hole"
    }
    alike = next((k for k in on_one_line(places, figures) if key in k), [key])
    if key in where:
        alike = [other for other, feature in where.items() if feature == where[key]]
    return [figures[other] for other in alike if other in made.sizes or other == key]


def title_said(made: Made, inch: bool = False) -> str:
    """The title: its name, how many, its metal and its stock."""
    stock = stock_said(made.body.stock, inch)
    return f"{made.title}: {made.material}, from {stock}"


def edges_said(made: Made, inch: bool = False) -> str:
    """The broken edges, rounds and centre holes that no size is of, in one line."""
    sizes = {feature_of(known.size.drawn_at) for known in made.sizes.values()}
    own = [feature for feature in made.body.features if feature.name not in sizes]

    def about(value: float) -> str:
        """The length to the thou: nobody measures an edge."""
        return length_said(value, inch, 0.05 if inch else 0.0)

    bevels = {
        bevel.name: f"{about(round(bevel.leg, 2))} × {bevel.angle:g}°"
        for bevel in own
        if isinstance(bevel, Bevel)
    }
    found = []
    if bevels:
        usual, many = Counter(bevels.values()).most_common(1)[0]
        found = [f"edges {usual}"] if many > 1 else []
        found += [
            f"{spoken(name)} {says}"
            for name, says in bevels.items()
            if says != usual or many == 1
        ]
    for feature in own:
        if isinstance(feature, EdgeBevels):
            found.append(f"{feature.called} {about(feature.leg)} × 45°")
        elif isinstance(feature, CornerRounds):
            found.append(f"{spoken(feature.name)} R{about(feature.radius)}")
    centres = (about(feature.mouth) for feature in own if isinstance(feature, Centre))
    found += [f"centre ⌀{diameter}" for diameter in dict.fromkeys(centres)]
    return begun(", ".join(found))


def on_the_sheet(
    made: Made,
    figures: Mapping[str, SheetFigure],
    places: Mapping[str, Dimension],
    paper: bool,
) -> dict[str, SheetFigure]:
    """The figures without those of features that the piece has not; on paper also
    without the size that would bring one, and choices that the drawing shows."""
    without = left_out(made, places)
    kept = set() if paper else set(without.values())
    seen = seen_in_it(made) - places.keys() if paper else set()
    return {
        key: figure
        for key, figure in figures.items()
        if (key in kept or feature_of(key) not in without) and key not in seen
    }


def left_out(made: Made, places: Container[str]) -> dict[str, str]:
    """Features that the piece could have and has not, each with the size that would
    bring it: the first that says none."""
    there = {feature.name for feature in made.body.features}
    there.add("stock")
    there |= {feature_of(key) for key in made.sizes if key in places}
    brings: dict[str, str] = {}
    for key in made.sizes:
        name = feature_of(key)
        if name not in there and made.values[key] in (0, "none"):
            brings.setdefault(name, key)
    return brings


def seen_in_it(made: Made) -> set[str]:
    """Sizes that are choices which the drawing shows, or that go through."""
    return {
        key
        for key, known in made.sizes.items()
        if known.size.measure in SHOWN
        or (known.value == 0 and known.size.why.startswith((GOES, IS)))
    }


def feature_of(key: str) -> str:
    """The feature that a size or a place is of, by its name."""
    return key.partition(".")[0]
