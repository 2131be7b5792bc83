"""The shape of a piece as far as its readings tell; lengths in mm.

A piece that turns is a row of steps along its axis and what its end shows; one
with a slot or a dovetail is cut across it.
"""

import math
from collections.abc import Callable, Mapping

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.shop.things import Piece, Surface
from machinon.core.survey.measuring import Measured
from machinon.core.survey.surface_kinds import beside, form_key
from machinon.draw.across_shape import section_of
from machinon.draw.drawing import Point

Readings = Mapping[str, Measured | None]  # what each surface measures, by its id

TRACE = 0.1  # mm: the least that is drawn of a surface
UNKNOWN = 40.0  # mm: what is drawn where nothing is measured yet
SHARE = 0.6  # of its diameter that a step of unknown length is drawn long

_SECTIONS = ("tee-neck", "over-pins", "between-pins", "slot", "tongue", "key-width")
# round, but no step of the axis
_ASIDE = ("hole", "bolt-hole", "detent", "groove-diameter", "flats")
_STEP_LENGTHS = ("register-length", "shoulder")
_BORE_LENGTHS = ("recess-depth", "depth")
_WHOLE = ("thickness", "length")  # from end to end
_FLATS = {"square": 4, "hexagon": 6}


class ShapeStep(Struct, frozen=True):
    """A surface along the axis: its profile as (z, r) corners."""

    points: tuple[Point, ...]
    id: str = ""  # empty where nothing of it was measured
    ended: bool = False  # whether its far end is where a reading puts it

    @property
    def start(self) -> float:
        return self.points[0][0]

    @property
    def end(self) -> float:
        return self.points[-1][0]

    @property
    def widest(self) -> float:
        return max(r for _, r in self.points)

    @property
    def narrowest(self) -> float:
        return min(r for _, r in self.points)

    @property
    def middle(self) -> Point:
        """A point of the profile to point at."""
        if len(self.points) % 2:
            return self.points[len(self.points) // 2]
        (a, r), (b, e) = self.points[0], self.points[-1]
        return (a + b) / 2, (r + e) / 2


class Along(Struct, frozen=True):
    """A measured length: from, to, the radius it is taken off, its surface."""

    start: float
    end: float
    radius: float
    id: str


class TurnedShape(Struct, frozen=True):
    """A piece that turns: steps outside and in the bore, left to right."""

    outer: tuple[ShapeStep, ...]
    inner: tuple[ShapeStep, ...]
    lengths: tuple[Along, ...]
    # the floors of those that are cut into its outer steps
    grooves: tuple[ShapeStep, ...] = ()
    zero: float = 0.0  # where its own measures along start

    @property
    def long(self) -> float:
        return max(step.end for step in self.outer)

    @property
    def radius(self) -> float:
        return max(step.widest for step in self.outer)

    @property
    def upper_half(self) -> tuple[Point, ...]:
        """The half above the axis as a closed shape of (z, r)."""
        face = [point for step in self.outer for point in step.points]
        back = [point for step in reversed(self.inner) for point in step.points[::-1]]
        start, end = self.outer[0].start, self.outer[-1].end
        if not back:
            back = [(end, 0.0), (start, 0.0)]
        elif self.inner[-1].end < end:  # blind
            back = [(end, 0.0), (self.inner[-1].end, 0.0), *back]
        return (*face, *back)


class PieceOutline(Struct, frozen=True):
    """A piece as it is drawn beside others; its left end at 0."""

    # of the upper half of what turns, of the whole section of what does not
    points: tuple[Point, ...]
    turns: bool  # which
    cut: bool  # whether it is drawn cut, as what is solid is not
    places: Mapping[str, Point]  # where each surface lies, by its id
    zero: float = 0.0  # where its own measures along start

    @property
    def size(self) -> tuple[float, float]:
        """Its length and height."""
        return max(x for x, _ in self.points), max(y for _, y in self.points)


def outline_of(piece: Piece, measured: Readings) -> PieceOutline:
    """The outline of a piece, drawn from what it measures."""
    section = sectioned(piece)
    if section is not None:
        points = section_of(section, sizes(measured)).points
        left, low = min(x for x, _ in points), min(y for _, y in points)
        shifted = tuple((x - left, y - low) for x, y in points)
        high = max(y for _, y in shifted)
        return PieceOutline(shifted, False, True, {section.id: (-left, high)})
    turned = turned_of(piece, measured)
    places = {
        step.id: step.middle for step in (*turned.outer, *turned.inner) if step.id
    }
    cut = bool(turned.inner)
    return PieceOutline(turned.upper_half, True, cut, places, turned.zero)


def sizes(measured: Readings) -> Callable[[str, float], float]:
    """A surface's size by its id, or what stands for it."""

    def size(id: str, other: float) -> float:
        found = measured.get(id)
        # places typed wrongly can leave nothing: it is drawn as a trace of itself
        return max(found.size, TRACE) if found is not None else other

    return size


def is_round(surface: Surface) -> bool:
    """Whether a surface is a step along the axis of its piece."""
    form = form_key(surface)
    if form == "taper-balls":
        return True
    return form not in (*_SECTIONS, *_ASIDE) and surface.kind in ("outside", "inside")


def sectioned(piece: Piece) -> Surface | None:
    """The surface that a piece is cut across at; None for one drawn along its axis."""
    if any(is_round(surface) for surface in piece.surfaces):
        return None
    return next(
        (surface for surface in piece.surfaces if form_key(surface) in _SECTIONS), None
    )


# -- along the axis -----------------------------------------------------------


def turned_of(piece: Piece, measured: Readings) -> TurnedShape:
    """The steps of a piece along its axis.

    Lengths that are not measured are a share of the diameter; a bore with
    nothing measured round it gets a wall as thick as half its radius.
    """
    size = sizes(measured)
    if piece.role in ("nose", "chuck"):
        family = _nose if piece.role == "nose" else _chuck
        return _only_of(piece, family(size, measured))
    lengths: list[Along] = []
    outer = _outer_steps(piece, measured, lengths)
    whole = next((s for s in piece.surfaces if form_key(s) in _WHOLE), None)
    long = measured.get(whole.id) if whole is not None else None
    bores = [s for s in piece.surfaces if is_round(s) and not is_outside(s)]
    if not outer:
        widest = max((size(surface.id, UNKNOWN) for surface in bores), default=UNKNOWN)
        found = [measured.get(surface.id) for surface in bores]
        slopes = [
            measured.slope.apart for measured in found if measured and measured.slope
        ]
        end = max(slopes) if slopes else SHARE * 1.5 * widest
        outer = [_cylinder(0.0, end, 1.5 * widest, "", False)]
    if whole is not None and long is not None and long.size > outer[-1].start:
        last = outer[-1]
        r = last.points[-1][1]
        outer[-1] = ShapeStep((*last.points[:-1], (long.size, r)), last.id, True)
        lengths.append(Along(0.0, long.size, outer[0].widest, whole.id))
    end = outer[-1].end
    grooves = _grooves(piece, measured, outer, lengths)
    least = min(step.narrowest for step in outer)
    # a bore wider than what is around it belongs to another end: left out
    bores = [surface for surface in bores if size(surface.id, UNKNOWN) / 2 < least]
    inner = _inner_steps(piece, bores, measured, end, lengths)
    drawn = tuple(length for length in lengths if length.start < length.end)
    return TurnedShape(tuple(outer), tuple(inner), drawn, grooves)


def is_outside(surface: Surface) -> bool:
    return surface.kind == "outside"


def _cylinder(a: float, b: float, diameter: float, id: str, ended: bool) -> ShapeStep:
    return ShapeStep(((a, diameter / 2), (b, diameter / 2)), id, ended)


def _only_of(piece: Piece, turned: TurnedShape) -> TurnedShape:
    """A family's shape without the names of surfaces that this piece has not."""

    def named(steps: tuple[ShapeStep, ...]) -> tuple[ShapeStep, ...]:
        return tuple(s if piece.surface(s.id) else replace(s, id="") for s in steps)

    lengths = tuple(length for length in turned.lengths if piece.surface(length.id))
    return replace(
        turned, outer=named(turned.outer), inner=named(turned.inner), lengths=lengths
    )


def _nose(size: Callable[[str, float], float], measured: Readings) -> TurnedShape:
    register = size("register", UNKNOWN)
    guide = size("register-length", 0.3 * register)
    end = size("nose-length", 0.8 * register)
    crests = size("thread-major", 0.97 * register)
    shoulder = 0.4 * register
    known = {id for id, found in measured.items() if found is not None}
    lengths = (("register-length", guide), ("nose-length", end))
    return TurnedShape(
        (
            _cylinder(0.0, shoulder, register * 1.36, "", False),
            _cylinder(
                shoulder,
                shoulder + guide,
                register,
                "register",
                "register-length" in known,
            ),
            _cylinder(
                shoulder + guide,
                shoulder + max(end, guide + TRACE),
                crests,
                "thread-major",
                "nose-length" in known,
            ),
        ),
        (),
        tuple(
            Along(shoulder, shoulder + long, register / 2, id)
            for id, long in lengths
            if id in known
        ),
        zero=shoulder,
    )


def _chuck(size: Callable[[str, float], float], measured: Readings) -> TurnedShape:
    body = size("body", 3 * UNKNOWN)
    recess = min(size("recess", 0.72 * body), 0.96 * body)
    deep = size("recess-depth", 0.04 * body)
    long = max(0.45 * body, 2 * deep)
    known = measured.get("recess-depth") is not None
    return TurnedShape(
        (_cylinder(0.0, long, body, "body", False),),
        (
            _cylinder(0.0, deep, recess, "recess", known),
            _cylinder(deep, long, min(0.32 * body, 0.9 * recess), "", False),
        ),
        (Along(0.0, deep, recess / 2, "recess-depth"),) if known else (),
    )


def _outer_steps(
    piece: Piece, measured: Readings, lengths: list[Along]
) -> list[ShapeStep]:
    """Outside steps in the order of the survey; `lengths` takes those measured."""
    outer: list[ShapeStep] = []
    for surface in piece.surfaces:
        at = outer[-1].end if outer else 0.0
        found = measured.get(surface.id)
        form = form_key(surface)
        if is_round(surface) and is_outside(surface):
            outer.append(_step(form, at, surface.id, found))
        elif form in _STEP_LENGTHS and outer and found is not None:
            last = outer[-1]
            (a, r), (_, e) = last.points[0], last.points[-1]
            end = a + max(found.size, TRACE)
            outer[-1] = ShapeStep(((a, r), (end, e)), last.id, True)
            lengths.append(Along(a, end, r, surface.id))
    return outer


def _grooves(
    piece: Piece, measured: Readings, outer: list[ShapeStep], lengths: list[Along]
) -> tuple[ShapeStep, ...]:
    """Cut the grooves that are measured into the middle of the step before each."""
    made = []
    for surface in piece.surfaces:
        floor_id = beside(surface, "groove-diameter")
        width, floor = measured.get(surface.id), measured.get(floor_id)
        host = host_of(piece, surface, measured)
        at = next((i for i, s in enumerate(outer) if host and s.id == host.id), None)
        if (
            form_key(surface) != "groove"
            or width is None
            or floor is None
            or at is None
        ):
            continue
        step = outer[at]
        (a, r), (b, e) = step.points[0], step.points[-1]
        low, high = (a + b - width.size) / 2, (a + b + width.size) / 2
        deep = floor.size / 2
        if len(step.points) > 2 or not (a < low and deep < min(r, e)):
            continue
        cut = ((low, r), (low, deep), (high, deep), (high, e))
        outer[at] = ShapeStep(
            (step.points[0], *cut, step.points[-1]), step.id, step.ended
        )
        made.append(ShapeStep(((low, deep), (high, deep)), floor_id))
        lengths.append(Along(low, high, min(r, e), surface.id))
    return tuple(made)


def host_of(piece: Piece, surface: Surface, measured: Readings) -> Surface | None:
    """The round surface, measured, that another is cut into: the last before it."""
    before = piece.surfaces[: piece.surfaces.index(surface)]
    rounds = [r for r in before if is_round(r) and measured.get(r.id) is not None]
    return rounds[-1] if rounds else None


def _step(form: str, at: float, id: str, found: Measured | None) -> ShapeStep:
    """A cylinder a share of its diameter long, a taper as far as it was read."""
    d = max(found.size, TRACE) if found is not None else UNKNOWN
    if form == "ball":
        turns = [math.radians(angle) for angle in range(180, -1, -10)]
        return ShapeStep(
            tuple((at + d / 2 * (1 + math.cos(a)), d / 2 * math.sin(a)) for a in turns),
            id,
            True,
        )
    if found is None or found.slope is None:
        return _cylinder(at, at + SHARE * d, d, id, False)
    long = found.slope.apart
    far = max(d + found.slope.ratio * long, TRACE)
    return ShapeStep(((at, d / 2), (at + long, far / 2)), id, True)


def _inner_steps(
    piece: Piece,
    bores: list[Surface],
    measured: Readings,
    end: float,
    lengths: list[Along],
) -> list[ShapeStep]:
    """The bore from its mouth inward: each step narrower than the one before."""
    deep: dict[str, tuple[float, str]] = {}  # how deep a bore is, and who says so
    last = ""
    for surface in piece.surfaces:
        found = measured.get(surface.id)
        if surface in bores:
            last = surface.id
        elif form_key(surface) in _BORE_LENGTHS and last and found is not None:
            deep[last] = (max(found.size, TRACE), surface.id)
    inner: list[ShapeStep] = []
    size = sizes(measured)
    for surface in sorted(bores, key=lambda surface: -size(surface.id, UNKNOWN)):
        at = inner[-1].end if inner else 0.0
        step = _step(form_key(surface), at, surface.id, measured.get(surface.id))
        to, says = deep.get(surface.id, (0.0, ""))
        if says:
            to = min(to, end)
            lengths.append(Along(0.0, to, step.points[0][1], says))
        elif len(step.points) == 2 and step.points[0][1] != step.points[1][1]:
            to = min(step.end, end)  # a taper, as far as it was read
        else:
            others = len(bores) - len(inner) - 1
            to = at + (end - at) * (0.3 if others else 1.0)
        if to > at:
            (_, r), (_, e) = step.points[0], step.points[-1]
            inner.append(ShapeStep(((at, r), (to, e)), surface.id, bool(says)))
    return inner


def sides_of(surface: Surface) -> int:
    """Number of flats round a surface; 0 for a round one."""
    return _FLATS.get(form_key(surface), 0)
