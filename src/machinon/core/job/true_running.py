"""The run-out to expect of a job's pieces, from the play of their fits and seats."""

import math
from typing import Any

from msgspec import Struct

from machinon.core.families import family_for
from machinon.core.job.fit_plan import FitPlan
from machinon.core.job.job import Work
from machinon.core.job.plan import Plan
from machinon.core.quantity import small_text
from machinon.core.setting_out.runout import resolve
from machinon.core.setting_out.runout_stack import Element, best_clocking, together
from machinon.core.sizes.fit import FLAT_JOINTS
from machinon.core.survey.surface_kinds import form_key


class Station(Struct, frozen=True):
    """A piece where it runs: how far it is out on the indicator at `most`, with all of
    it in line, and at a `typical` mounting, by chance; mm."""

    name: str
    parts: tuple[Element, ...]  # what lets it lie off, one on the other
    carried: bool = False  # it is what the piece at hand carries, not that itself

    @property
    def most(self) -> float:
        return 2 * together([element.amplitude for element in self.parts])[0]

    @property
    def typical(self) -> float:
        return 2 * together([element.amplitude for element in self.parts])[1]

    @property
    def clocked(self) -> tuple[float, float] | None:
        """The best turn on its bolts, degrees from mark to mark, and the largest
        run-out then, mm; None where fewer than two high sides are known, or where it
        does not turn."""
        known = [element for element in self.parts if element.phase is not None]
        if len(known) < 2 or known[-1].clockings < 2 or known[-1] != self.parts[-1]:
            return None
        best = best_clocking(known)
        free = [element.amplitude for element in self.parts if element.phase is None]
        return best.turned[-1], 2 * (best.left + sum(free))

    @property
    def asked(self) -> dict[str, Any]:
        """The inputs of the reckoning `runout-stack`."""
        return {
            "elements": [
                {
                    "name": element.name,
                    "eccentricity": round(element.eccentricity, 5),
                    **(
                        {} if element.phase is None else {"phase": round(element.phase)}
                    ),
                    **(
                        {"clockings": element.clockings}
                        if element.clockings > 1
                        else {}
                    ),
                }
                for element in self.parts
            ]
        }


def stations(plan: Plan) -> tuple[Station, ...]:
    """The piece at hand each time it is mounted, then what it carries, which lies off
    by all that carries it as well.

    Without the former where nothing is known to let it lie off; none of a piece that
    has not to run true.
    """
    work = plan.job.work
    if plan.made is None or not plan.made.family.runs or work.making is None:
        return ()
    seat = _seat(plan, work)
    own = _as_it_ran(work) or seat
    found = [Station(plan.made.family.name, seat)] if seat else []
    for id in _mates(work)[1]:
        if play := _plays(plan, id):
            parts = (*own, *play, *_itself(plan, id))
            found.append(Station(plan.standing[id].name, parts, carried=True))
    return tuple(found)


def expected_says(plan: Plan, inch: bool) -> str:
    """The run-out to expect; of a piece that was read, what that says of its seat.
    Empty where nothing is known."""
    said = []
    for station in stations(plan):
        if station.carried:
            said.append(
                f"{station.name} on it: {_range(station, inch)}."
                f"{_turned(station, inch)}"
            )
        elif plan.runout is None:
            limit = plan.job.proof.runout_limit
            said.append(f"Each time it is mounted: {_range(station, inch)}.")
            if station.most > limit:
                said[-1] += (
                    f" More than the {small_text(limit, inch)} allowed: a closer fit, "
                    "or set it true by indicator each time."
                )
        elif plan.runout["tir"] <= station.most:
            said.append(
                f"Its seat alone allows up to {small_text(station.most, inch)}."
            )
        else:
            said.append(
                f"Its seat allows no more than {small_text(station.most, inch)}: look "
                "for a chip or a bruise there, mount it again; what stays is in the "
                "piece."
            )
    return "\n".join(said)


def _range(station: Station, inch: bool) -> str:
    most = small_text(station.most, inch)
    if len(station.parts) == 1:
        return f"up to {most}"
    return f"up to {most}, about {small_text(station.typical, inch)} as a rule"


def _turned(station: Station, inch: bool) -> str:
    if station.clocked is None:
        return ""
    angle, most = station.clocked
    way = (
        f"turned {angle:.0f}° from mark to mark" if angle else "with the marks in line"
    )
    return f" Best {way}: up to {small_text(most, inch)}."


def _mates(work: Work) -> tuple[str | None, list[str]]:
    """The id of what a piece goes on, where it has that, and of what it carries.

    The first mate is its seat, unless that stands further along the piece and does not
    face it.
    """
    making = work.making
    assert making is not None
    first, *others = family_for(making).mates or (None,)
    if first is None:
        return None, []
    on = first.turned or first.seats in ("", "0")
    roles = [mate.role for mate in (others if on else (first, *others))]
    carried = [making.mates[role] for role in roles if role in making.mates]
    return making.mates.get(first.role) if on else None, carried


def _seat(plan: Plan, work: Work) -> tuple[Element, ...]:
    """The play of a piece on its seat."""
    seat, _ = _mates(work)
    if seat is None:
        return ()
    under = next((work for work in plan.job.works if work.as_mate == seat), None)
    if under is None or under.making is None:
        carries = _itself(plan, seat)
    else:
        carries = _as_it_ran(under) or _seat(plan, under)
    return (*carries, *_plays(plan, seat))


def _itself(plan: Plan, id: str) -> tuple[Element, ...]:
    """The run-out of a shop's piece by itself, as it was read last."""
    piece = plan.standing.get(id)
    if piece is None:
        return ()
    clockings = _clockings(plan, id)
    if piece.runs:
        turn = resolve(piece.runs[-1].readings)
        off, high = turn.eccentricity, turn.phase
        return (Element(f"{piece.name}, as read", off, high, clockings=clockings),)
    swings = [
        found.size
        for surface in piece.surfaces
        if form_key(surface) == "runout"
        and (found := plan.measured.get((id, surface.id)))
    ]
    return tuple(
        Element(f"{piece.name}, as read", swing / 2, clockings=clockings)
        for swing in sorted(swings)[-1:]
    )


def _as_it_ran(work: Work) -> tuple[Element, ...]:
    """A piece that is made here, by its run-out in the proof, seat and all."""
    if len(work.proof.runout) < 3 or work.making is None:
        return ()
    found = resolve(work.proof.runout)
    name = f"{family_for(work.making).name}, as read"
    return (Element(name, found.eccentricity, found.phase),)


def _clockings(plan: Plan, id: str) -> int:
    """Number of positions in which a piece bolts on."""
    circles = [
        fit.circle
        for fit in plan.fits
        if fit.choice.kind == "bolts" and fit.choice.piece == id
    ]
    counts = [
        int(answer.inputs.get("holes", 1)) for answer in circles if answer is not None
    ]
    return max(counts, default=1)


def _plays(plan: Plan, id: str) -> tuple[Element, ...]:
    """The play of a mate's fits: of the closest one, as the others do not come to
    bear."""
    closed = {
        number
        for work in plan.job.works
        if work.making is not None
        for slot, number in work.fits.items()
        if slot in family_for(work.making).grips
    }
    plays = [
        (_play(plan, fit), fit)
        for fit in plan.fits
        if fit.choice.piece == id
        and fit.play is not None
        and fit.choice.joint not in FLAT_JOINTS
        and fit.choice.number not in closed
    ]
    if not plays:
        return ()
    play, fit = min(plays, key=lambda pair: pair[0])
    if play <= 0:
        return ()
    return (Element(f"Play of fit {fit.choice.number}", play / 2),)


def _play(plan: Plan, fit: FitPlan) -> float:
    """The most play of a fit on the diameter, mm: as both halves were measured, else as
    it is allowed."""
    assert fit.play is not None
    assert fit.mate is not None
    line = next((line for line in plan.proof if line.fit == fit.choice.number), None)
    if line is None or line.size is None:
        return 2 * float(fit.play["offset"])
    play = fit.mate.size - line.size
    if fit.choice.exists == "shaft":
        play = -play
    return max(play + math.hypot(line.doubt, fit.mate.uncertainty), 0.0)
