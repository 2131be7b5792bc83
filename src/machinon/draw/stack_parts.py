"""The pieces of a job as they stand together: which of them, and where along it."""

from collections.abc import Mapping, Sequence

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.families import family_for
from machinon.core.job.fit_plan import FitPlan
from machinon.core.job.job import Work
from machinon.core.job.made_piece import ruled_by_fits
from machinon.core.job.plan import Plan
from machinon.core.piece.around import RingSection, rings_of, seat_of
from machinon.core.piece.family import Mate
from machinon.core.piece.hole_features import HoleCircle, Holes
from machinon.core.piece.made import Made
from machinon.core.piece.turned_features import Sloping
from machinon.core.shop.things import Piece
from machinon.draw.drawing import Point
from machinon.draw.piece_shape import PieceOutline, is_outside, is_round, outline_of

TO_MAKE = ", to make"  # after the name of a piece that is made here


class StackPart(Struct, frozen=True):
    """A piece that exists, by its outline or as it stands about another, or one that is
    made here."""

    tie: str
    name: str
    outline: PieceOutline | None = None
    made: Made | None = None
    rings: tuple[RingSection, ...] = ()
    at: float = 0.0  # where its own zero lies along the whole
    up: float = 0.0  # how far over the foot of the whole; mm
    turned: bool = False  # end for end
    endways: bool = False  # a block that is looked at along its length
    lit: bool = False  # it is the one that is spoken of

    @property
    def ends(self) -> tuple[float, float]:
        """Start and end along the whole."""
        if self.rings:
            first = min(ring.start for ring in self.rings)
            last = max(ring.end for ring in self.rings)
        elif self.outline is not None:
            first, last = sorted(map(self.along, (0.0, self.outline.size[0])))
            return first, last
        elif self.made is not None and self.made.body.turns:
            first, last = self.made.body.ends
        else:
            first, last = 0.0, self._box[0]
        return self.at + first, self.at + last

    def along(self, x: float) -> float:
        """Place along the whole of a place along its outline."""
        assert self.outline is not None
        own = x - self.outline.zero
        return self.at + (-own if self.turned else own)

    @property
    def high(self) -> float:
        """Height of its drawing, mm: of what turns, the half above the axis."""
        if self.rings:
            return max(ring.outer for ring in self.rings)
        if self.outline is not None:
            return self.outline.size[1]
        if self.made is not None and self.made.body.turns:
            return self.made.body.largest / 2
        return self.up + self._box[1]

    @property
    def turns(self) -> bool:
        if self.outline is not None:
            return self.outline.turns
        return bool(self.rings) or (self.made is not None and self.made.body.turns)

    @property
    def known(self) -> bool:
        """Whether it can be drawn."""
        return self.outline is not None or self.made is not None or bool(self.rings)

    @property
    def _box(self) -> tuple[float, float]:
        """Length and height of a block, as it is looked at."""
        assert self.made is not None
        x0, y0, z0, x1, y1, z1 = self.made.body.shadow.box
        return (y1 - y0 if self.endways else x1 - x0), z1 - z0


def groups_of(plan: Plan) -> list[list[StackPart]]:
    """The parts of a job: those together that say where they seat on each other, each
    of the others by itself."""
    parts = _parts(plan)
    works = {work.as_mate: work for work in plan.job.works if work.making is not None}
    mates = {
        id
        for work in works.values()
        if work.making
        for id in work.making.mates.values()
    }
    groups: list[list[StackPart]] = []
    # each from a piece that no other is a mate of
    for tie in works:
        if tie not in mates and parts[tie].known:
            seated = _seated(plan, works, parts, tie)
            if len(seated) > 1:
                groups.append(list(seated.values()))
                parts = {key: part for key, part in parts.items() if key not in seated}
    return groups + [[part] for part in parts.values()]


def _parts(plan: Plan) -> dict[str, StackPart]:
    """Every piece by its tie, what is made second."""
    found = [
        StackPart(
            piece.id,
            piece.name,
            outline_of(
                piece, {s.id: plan.measured[piece.id, s.id] for s in piece.surfaces}
            ),
        )
        for piece in plan.stack
    ]
    made = [
        StackPart(
            work.as_mate,
            f"{family_for(work.making).name}{TO_MAKE}",
            made=plan.bodies.get(work.key),
            lit=work.key == plan.job.at,
        )
        for work in plan.job.works
        if work.making is not None
    ]
    return {part.tie: part for part in (*found[:1], *made, *found[1:])}


def _seated(
    plan: Plan, works: Mapping[str, Work], parts: Mapping[str, StackPart], root: str
) -> dict[str, StackPart]:
    """The parts that seat on a piece and on each other, by their ties, in the order
    along the whole."""
    found: dict[str, StackPart] = {}

    def seat(part: StackPart) -> None:
        found[part.tie] = part
        work = works.get(part.tie)
        if work is None or part.made is None:
            return
        if not part.turns:
            found.update(_in_section(parts, part, _mates_of(work, part.made)))
            return
        for mate, tie in _mates_of(work, part.made):
            other = parts.get(tie)
            if other is not None and tie not in found:
                stands = _stands(plan, mate, other, part)
                if stands is not None:
                    seat(stands)

    seat(parts[root])
    return dict(sorted(found.items(), key=lambda item: sum(item[1].ends)))


def _mates_of(work: Work, made: Made) -> list[tuple[Mate, str]]:
    """The mates of a piece that are pieces themselves, with their ties."""
    assert work.making is not None
    chosen = work.making.mates
    return [
        (mate, chosen[mate.role]) for mate in made.family.mates if mate.role in chosen
    ]


def _in_section(
    parts: Mapping[str, StackPart], part: StackPart, mates: Sequence[tuple[Mate, str]]
) -> dict[str, StackPart]:
    """A block in the slot or on the slide that it is made for, both cut across; nothing
    where it has none."""
    assert part.made is not None
    for mate, tie in mates:
        on = parts.get(tie)
        if not mate.seats or on is None or on.outline is None or on.outline.turns:
            continue
        seen = replace(part, endways=True)
        ((x, high),) = on.outline.places.values()
        # its middle over that of the slot, its foot as far under the slot's mouth
        middle = (seen.ends[0] + seen.ends[1]) / 2
        lifted = replace(seen, up=high - seat_of(mate, part.made))
        return {part.tie: lifted, tie: replace(on, at=middle - x)}
    return {}


def _stands(
    plan: Plan, mate: Mate, other: StackPart, part: StackPart
) -> StackPart | None:
    """A mate where it stands on a piece; None where that is not said, or not known."""
    assert part.made is not None
    try:
        if mate.around and other.made is None:
            piece = next(piece for piece in plan.stack if piece.id == other.tie)
            rings = rings_of(mate, part.made, _read_outside(plan, piece))
            if rings:
                return replace(other, outline=None, rings=rings, at=part.at)
        elif mate.seats and other.turns:
            seat = seat_of(mate, part.made)
            if other.made is not None and (tapers := _tapers(part.made, other.made)):
                return _in_taper(other, part.at + seat, seat, *tapers)
            return replace(other, at=part.at + seat, turned=mate.turned)
    except BadInput:
        pass  # it rests on a size that this piece has not
    return None


def _tapers(made: Made, other: Made) -> tuple[Sloping, Sloping] | None:
    """The tapers of one name by which two pieces go into each other."""
    mine, theirs = (
        [it for it in body.features if isinstance(it, Sloping) and it.taper]
        for body in (made.body, other.body)
    )
    pairs = ((a, b) for a in mine for b in theirs if a.taper == b.taper)
    sides = (pair for pair in pairs if len({type(it) for it in pair}) == 2)
    return next(sides, None)


def _in_taper(
    other: StackPart, at: float, seat: float, mine: Sloping, theirs: Sloping
) -> StackPart | None:
    """A piece that is made here where its taper is as wide as the other's; None where
    it would have to be turned end for end. at: of that place along the whole."""
    wide = mine.start_diameter + mine.widens * (seat - mine.start)
    if mine.widens * theirs.widens <= 0:
        return None
    there = theirs.start + (wide - theirs.start_diameter) / theirs.widens
    return replace(other, at=at - there)


def _read_outside(plan: Plan, piece: Piece) -> float:
    """The largest outside diameter that was read on a piece, mm."""
    found = (
        plan.measured[piece.id, surface.id]
        for surface in piece.surfaces
        if is_round(surface) and is_outside(surface)
    )
    return max(
        (measured.size for measured in found if measured is not None), default=0.0
    )


def meets(parts: Sequence[StackPart], fit: FitPlan) -> Point | None:
    """The place where the halves of a fit meet along the whole, (z, r)."""
    for part in parts:
        if part.tie == fit.choice.piece and part.outline is not None:
            at = part.outline.places.get(fit.choice.surface)
            if at is not None:
                return part.along(at[0]), at[1]
    for part in parts:
        if part.made is not None:
            at = _ruled_at(part.made, fit.choice.number)
            if at is not None:
                return part.at + at[0], at[1]
    return None


def _ruled_at(made: Made, number: int) -> Point | None:
    """The middle of what a fit rules on a piece, (z, r)."""
    key = ruled_by_fits(made).get(number, "")
    name, _, measure = key.partition(".")
    holes = made.body.found(name)
    if isinstance(holes, Holes) and isinstance(holes.pattern, HoleCircle):
        into = holes.through / 2 if holes.face == "left" else -holes.through / 2
        return holes.level + into, holes.pattern.diameter / 2
    at = holes.dimensions().get(measure) if holes is not None else None
    if at is None or at.kind != "diameter":
        return None
    return (at.start + at.end) / 2, at.at[0]
