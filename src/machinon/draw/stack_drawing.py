"""The stack strip: the pieces of a job and what is made between them, to scale."""

from collections.abc import Iterator, Sequence
from itertools import combinations, pairwise
from typing import Literal, NamedTuple

from msgspec.structs import replace

from machinon.core.families import family_for
from machinon.core.job.fit_plan import FitPlan
from machinon.core.job.plan import Plan
from machinon.core.piece.family import Chain
from machinon.core.piece.made import Made
from machinon.core.piece.shadow import VIEWS
from machinon.core.piece.shown import limits_said
from machinon.core.piece.solid_cuts import rectangle
from machinon.core.quantity import length_text
from machinon.draw.block_views import draw_block_view
from machinon.draw.drawing import Board, Drawing, Place, Point, Role, Shape, Spot
from machinon.draw.half_section import draw_upper_half
from machinon.draw.lettering import cut_short, text_width
from machinon.draw.stack_hardware import draw_screws
from machinon.draw.stack_parts import TO_MAKE, StackPart, groups_of, meets

SHARE = 0.8  # of its columns that the longest group takes
LANE = 1.5  # figure heights from one line of a chain to the next
TOUCH = 0.5  # mm that neighbours in a chain may reach into each other
LETTERS = 0.85  # of a figure's height: what is written beside the pieces


class _Link(NamedTuple):
    """A link of a chain: the tie of its piece, its length, as said and in mm, whether
    that is measured or ruled by the others, and from where to where it goes on its
    piece, where that is known."""

    tie: str
    text: str
    long: float
    role: Role
    span: tuple[float, float] | None = None

    def ends(self, parts: Sequence[StackPart]) -> tuple[float, float] | None:
        """Start and end of a chain along the whole, if its piece is there: between the
        faces that are as far apart, else over all of it."""
        part = next((part for part in parts if part.tie == self.tie), None)
        if part is None:
            return None
        faces = sorted(z for ring in part.rings for z in (ring.start, ring.end))
        span = self.span or min(
            combinations(faces, 2),
            key=lambda ends: abs(ends[1] - ends[0] - self.long),
            default=None,
        )
        return part.ends if span is None else (part.at + span[0], part.at + span[1])


def stack_drawing(
    plan: Plan, width: float, height: float, size: float = 12.0
) -> Drawing:
    """The set-up in section, from above the axis of what turns.

    Pieces that say where they seat stand together as they will be, the others beside
    them, to one scale. Ties are the ids of pieces, of made ones what stands for them,
    and `fit.N` for the numbered fits.
    """
    board = Board(width, height, size)
    pieces = list(plan.stack)
    made = any(made is not None for made in plan.bodies.values())
    if all(piece.surfaces for piece in pieces) and (pieces or made):
        _in_a_row(board, plan, groups_of(plan))
    else:
        _unknown(board, plan)
    return board.done()


def _in_a_row(board: Board, plan: Plan, groups: list[list[StackPart]]) -> None:
    """The groups side by side to one scale, on one axis; a column for each part."""
    size = board.size
    step = board.width / sum(map(len, groups))
    axis = board.height - 1.9 * size
    chains = list(_chains(plan))
    rows = len(chains)
    for _ in range(2):  # how many lines the chains take is known where the parts are
        scale = _scale(groups, step, axis - (1.2 + LANE * rows) * size)
        parts = _placed(groups, step, scale)
        lanes = [_lanes(links, parts) for links in chains]
        rows = sum(map(len, lanes))
    column = 0
    for group in groups:
        middle = (column + len(group) / 2) * step
        apart = _long(group) * scale / len(group)
        _names_under(board, group, (middle, axis), (apart, step))
        if not group[0].known:
            _not_known(board, group[0], middle, axis, step)
        column += len(group)

    # what exists stands behind what is made, and the piece at hand before all
    for part in sorted(parts, key=lambda part: (part.lit, part.made is not None)):
        _draw(board, part, lambda z, r: (z * scale, axis - r * scale))
    for fit in plan.fits:
        spot = meets(parts, fit)
        if spot is not None:
            _number(board, fit, (spot[0] * scale, axis - spot[1] * scale))
    if any(part.turns for part in parts):
        board.line((4, axis), (board.width - 4, axis), "centre", 1.0)
    y = LANE * size
    for each in lanes:
        for links in each:
            _chain(board, links, parts, scale, y)
            y += LANE * size


def _scale(groups: Sequence[Sequence[StackPart]], step: float, room: float) -> float:
    """Pixels a mm at which every group has room in its columns and under a height."""
    known = [part for group in groups for part in group if part.known]
    found = [room / max(part.high for part in known)]
    longs = [(len(group), long) for group in groups if (long := _long(group))]
    found += [SHARE * step * many / long for many, long in longs]
    return min(found)


def _long(group: Sequence[StackPart]) -> float:
    """Length of a group, mm; of its known parts."""
    there = [part.ends for part in group if part.known]
    if not there:
        return 0.0
    return max(end for _, end in there) - min(start for start, _ in there)


def _placed(
    groups: Sequence[Sequence[StackPart]], step: float, scale: float
) -> list[StackPart]:
    """The known parts, each along the row as if all were one whole."""
    found: list[StackPart] = []
    column = 0
    for group in groups:
        middle = (column + len(group) / 2) * step / scale
        column += len(group)
        there = [part for part in group if part.known]
        first = min((part.ends[0] for part in there), default=0.0)
        last = max((part.ends[1] for part in there), default=0.0)
        off = middle - (first + last) / 2
        found += [replace(part, at=part.at + off) for part in there]
    return found


def _draw(board: Board, part: StackPart, place: Place) -> None:
    """A part, where it lies along the whole."""
    points: list[Point] = []
    if part.rings:
        for ring in part.rings:
            a, b = part.at + ring.start, part.at + ring.end
            corners = rectangle(a, ring.inner, b, ring.outer)
            shape = tuple(place(z, r) for z, r in corners)
            lean: Literal["", "left"] = "left" if ring.inner else ""
            board.items.append(
                Shape(shape, "outline", 1.4, "panel", lean, tie=part.tie)
            )
            points += shape
    elif part.outline is not None:
        points = [place(part.along(x), y) for x, y in part.outline.points]
        hatch: Literal["", "left"] = "left" if part.outline.cut else ""
        board.items.append(
            Shape(tuple(points), "outline", 1.4, "panel", hatch, tie=part.tie)
        )
    elif part.made is not None:
        body = part.made.body
        role: Role = "cut" if part.lit else "measured"

        def own(z: float, r: float) -> Point:
            return place(part.at + z, r)

        if body.turns:
            draw_upper_half(board, body, own, role)
            points = [own(z, r) for z, r in body.rings()[0]]
            draw_screws(board, part.made, own)
        else:
            view = "right" if part.endways else "front"
            across, _, _ = VIEWS[view]
            left, low = body.shadow.box[across], body.shadow.box[2] - part.up

            def seen(x: float, z: float) -> Point:
                return own(x - left, z - low)

            draw_block_view(board, body, view, seen, role)
            if not part.endways:
                draw_screws(board, part.made, seen)
            points = [own(0, part.up), own(part.ends[1] - part.at, part.high)]
    _spot(board, points, part.tie, part.name)


def _chains(plan: Plan) -> Iterator[list[_Link]]:
    """The chains of lengths of what is made."""
    inch = plan.shop.inch
    for work in plan.job.works:
        made = plan.bodies.get(work.key)
        if made is None or work.making is None:
            continue
        for band in made.fits:
            if not isinstance(band.slot, Chain) or band.lower is None:
                continue
            links: list[_Link] = []
            for name, _ in band.slot.links:
                tie = work.making.mates.get(name.partition(".")[0], work.as_mate)
                if tie == work.as_mate:
                    continue  # its own, and drawn on its sheet
                value = float(made.values[name])
                text = length_text(value, inch=inch)
                links.append(_Link(tie, text, value, "measured"))
            told = limits_said(band.lower, band.upper or band.lower, inch)
            rules = band.slot.rules
            long, span = float(made.values[rules]), _span(made, rules)
            yield [*links, _Link(work.as_mate, told, long, "cut", span)]


def _span(made: Made, key: str) -> tuple[float, float] | None:
    """Start and end of a size along its piece, if it is drawn there."""
    name, _, measure = made.sizes[key].size.drawn_at.partition(".")
    feature = made.body.found(name)
    line = feature.dimensions().get(measure) if feature is not None else None
    if line is None or line.kind != "along":
        return None
    return min(line.start, line.end), max(line.start, line.end)


def _lanes(links: Sequence[_Link], parts: Sequence[StackPart]) -> list[list[_Link]]:
    """A chain on as many lines as keep its lengths off each other."""
    lanes: list[list[_Link]] = []
    for link in links:
        ends = link.ends(parts)
        if ends is None:
            continue
        for row in lanes:
            taken = [other for o in row if (other := o.ends(parts))]
            if all(
                ends[1] < low + TOUCH or ends[0] > high - TOUCH for low, high in taken
            ):
                row.append(link)
                break
        else:
            lanes.append([link])
    return lanes


def _chain(
    board: Board,
    links: Sequence[_Link],
    parts: Sequence[StackPart],
    scale: float,
    y: float,
) -> None:
    """Links of a chain, each over its piece, and one line through them all; what is
    written stands in their order, past what stands already."""
    known = [(ends, link) for link in links if (ends := link.ends(parts))]
    spans, taken, letters = [], 0.0, LETTERS * board.size
    for ends, link in sorted(known, key=lambda item: item[0]):
        left, right = (end * scale for end in ends)
        for x in (left, right):
            board.line((x, y - 4), (x, y + 4), link.role, 1.2)
        board.line((left, y), (right, y), link.role, 1.6)
        half = text_width(link.text, letters) / 2
        at = max((left + right) / 2, taken + half)
        at = min(at, board.width - half)
        taken = at + half + 0.5 * board.size
        board.text((at, y - 0.8 * board.size), link.text, letters, link.role)
        spans.append((left, right))
    for (_, start), (stop, _) in pairwise(spans):
        board.line((start, y), (stop, y), "faint", 1.0)


def _not_known(
    board: Board, part: StackPart, middle: float, axis: float, step: float
) -> None:
    """Draws the outline of a piece to make, while its sizes are not known."""
    half, high = 0.3 * step, axis - 2.4 * board.size
    points = rectangle(middle - half, axis - high, middle + half, axis)
    board.items.append(Shape(points, "cut", 1.4, "panel"))
    _spot(board, points, part.tie, part.name)


def _spot(board: Board, points: Sequence[Point], tie: str, name: str) -> None:
    xs, ys = [x for x, _ in points], [y for _, y in points]
    rect = (min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys))
    board.spots.append(Spot(rect, tie, name))


def _names_under(
    board: Board, group: Sequence[StackPart], at: Point, apart: tuple[float, float]
) -> None:
    """The names of a group in its order, about a place on the axis; apart: at least and
    at most, px."""
    small = LETTERS * board.size
    widest = max(text_width(part.name, small) for part in group) + 2 * small
    step = min(max(apart[0], widest), apart[1])
    for n, part in enumerate(group):
        exists = part.outline is not None or part.rings
        role: Role = "cut" if part.lit else "faint" if exists else "measured"
        x = at[0] + (n - (len(group) - 1) / 2) * step
        place = x, at[1] + board.size
        board.text(place, _cut(part.name, step, small), small, role)


def _cut(name: str, room: float, size: float) -> str:
    """A name as far as there is room for it: its colour too says that it is made."""
    room -= size
    if text_width(name, size) > room:
        name = name.removesuffix(TO_MAKE)
    return cut_short(name, size, room)


def _number(board: Board, fit: FitPlan, at: Point) -> None:
    """A fit's number where its surfaces meet."""
    size = board.size
    bad = bool(fit.problem or fit.contradiction or fit.spent)
    # two fits on one surface stand side by side
    while any(
        abs(spot.rect[0] + size - at[0]) < size
        for spot in board.spots
        if spot.tie.startswith("fit.")
    ):
        at = (at[0] + 1.4 * size, at[1])
    board.numbered(at, fit.choice.number, "stop" if bad else "cut")
    board.spots.append(
        Spot(
            (at[0] - size, at[1] - size, 2 * size, 2 * size),
            f"fit.{fit.choice.number}",
            fit.choice.name,
        )
    )


def _unknown(board: Board, plan: Plan) -> None:
    """The pieces by name in a row, until their sizes are known."""
    names = list(_names(plan))
    if not names:
        return
    step = board.width / len(names)
    for i, (name, made) in enumerate(names):
        left, right = i * step + 6, (i + 1) * step - 6
        top, bottom = board.height * 0.28, board.height * 0.72
        points = rectangle(left, top, right, bottom)
        role: Role = "cut" if made else "outline"
        board.items.append(Shape(points, role, 1.4, "panel"))
        board.text(
            ((left + right) / 2, (top + bottom) / 2),
            _cut(name, step - 16 + board.size, board.size),
            role="cut" if made else "text",
        )
    y = board.height / 2
    for i in range(1, len(names)):
        board.line((i * step - 6, y), (i * step + 6, y), "centre", 1.2)


def _names(plan: Plan) -> Iterator[tuple[str, bool]]:
    """The pieces by name, and whether each is made here; those after the first."""
    names = [(piece.name, False) for piece in plan.stack]
    for work in reversed(plan.job.works):
        if work.making is not None:
            names.insert(1, (f"{family_for(work.making).name}{TO_MAKE}", True))
    yield from names
