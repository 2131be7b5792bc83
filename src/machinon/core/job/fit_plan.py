"""A fit worked out: from the half that exists to the band of the half to be made."""

import math
from collections.abc import Mapping
from typing import Any

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.fits.joints import form_of, given_values
from machinon.core.fits.meeting import Effect, Joined, Meeting, turned_by
from machinon.core.job.made_piece import (
    drawn_surface,
    gauged_by,
    ruled_by_fits,
    wish_of,
)
from machinon.core.piece.bands import FitBand, bolt_band, plain_band, thread_band
from machinon.core.piece.block_features import SixFaces
from machinon.core.piece.family import FitSlot
from machinon.core.piece.hole_features import CrossHoles, Holes
from machinon.core.piece.made import Made
from machinon.core.piece.milled_features import Flats
from machinon.core.piece.turned_features import End
from machinon.core.quantity import TORQUE, as_kept
from machinon.core.reckoning import Answer, reckon
from machinon.core.setting_out.bolt_circle import circle_band
from machinon.core.shop.things import (
    Instrument,
    Lathe,
    Piece,
    Shop,
    Surface,
    SurfaceKind,
)
from machinon.core.sizes.fit import FLAT_JOINTS, FitChoice, Side
from machinon.core.survey.measuring import Measured
from machinon.core.survey.surface_kinds import beside
from machinon.core.survey.thread_find import SURE, candidates, undecided
from machinon.core.threads.screw_thread import Thread, thread_of
from machinon.core.threads.thread_limits import usual_class

# measures that a slide is fed to; the others say where a thing stands
FED = ("length", "width", "depth", "height", "across", "land")


class FitPlan(Struct, frozen=True):
    """One fit worked out; mm."""

    choice: FitChoice
    mate: Measured | None = None  # the existing half
    # the `fit-target` answer (`thread` for a thread, `clearance-hole` for bolts)
    band: Answer | None = None
    play: Answer | None = None
    joined: Joined | None = None  # what its joint makes of it
    unsaid: str = ""  # what the joint still asks
    nominal: float = 0.0
    made: float | None = None  # the size the drawing has for the new half
    contradiction: str = ""
    problem: str = ""  # why there is no band
    could_be: tuple[str, ...] = ()  # the threads that the readings leave
    advice: str = ""  # what would help
    gauge: Instrument | None = None
    thread: Thread | None = None
    circle: Answer | None = None
    circle_doubt: float = 0.0
    hole: float | None = None  # what was measured in or over the holes of a bolt circle
    room: Answer | None = None

    @property
    def lower(self) -> float | None:
        """Smallest the new half may be, where there is a band to land in."""
        return self._limit("lower", "min", -1)

    @property
    def upper(self) -> float | None:
        return self._limit("upper", "max", 1)

    def thread_limit(self, part: str, end: str) -> float | None:
        """A limit of the thread to be made, mm; None where none are kept.

        part: pitch, or crest for what is turned or bored before threading;
        end: min or max.
        """
        if self.band is None:
            return None
        side = "internal" if self.choice.exists == "shaft" else "external"
        if part == "crest":
            part = "minor" if side == "internal" else "major"
        found = self.band.results.get(f"{side}_{part}_{end}")
        return None if found is None else float(found)

    @property
    def thread_class(self) -> str:
        """The class of the thread to be made; empty where none is kept."""
        if self.thread is None:
            return ""
        return self.choice.want or usual_class(
            self.thread, self.choice.exists == "shaft"
        )

    @property
    def bolt_room(self) -> float:
        """Room round a screw, mm."""
        return float(self.room["room"]) if self.room else 0.0

    @property
    def bolt_need(self) -> float:
        return float(self.room["need"]) if self.room else 0.0

    @property
    def spent(self) -> bool:
        """Whether nothing is left of a band, though its mate is measured."""
        if self.joined is not None and self.joined.bands:
            return any(b.width <= 0 for b in self.joined.bands if not b.measured)
        if self.choice.kind == "bolts":
            return self.room is not None and self.lower is None
        return self.choice.kind == "cylinder" and (
            self.band is not None and self.lower is None
        )

    def _limit(self, cylinder: str, end: str, side: int) -> float | None:
        if self.choice.kind == "bolts":
            if self.circle is None:
                return None
            if self.room is None:
                return None
            ends = circle_band(float(self.circle["diameter"]), self.room)
            return ends[max(side, 0)] if ends else None
        if self.choice.kind == "joined":
            first = self.joined.first if self.joined else None
            if first is None or first.width <= 0:
                return None
            return first.lower if side < 0 else first.upper
        if self.band is None:
            return None
        if self.choice.kind == "thread":
            return self.thread_limit("crest", end)
        if self.band["band"] <= 0:
            return None
        return float(self.band[cylinder])

    def band_for(self, slot: FitSlot) -> FitBand | None:
        """The band of a family's slot that this fit decides; None while it has none."""
        want = wish_of(self.choice)
        first = self.joined.first if self.joined and not self.problem else None
        if self.choice.kind == "joined" and first is not None:
            return FitBand(
                slot, want, first.lower, first.upper, first.answer, first.aim
            )
        if self.problem or self.band is None:
            return None
        if self.choice.kind == "thread":
            return thread_band(slot, want, self.band)
        if self.choice.kind == "cylinder":
            return plain_band(slot, want, self.band)
        if self.circle is None or self.room is None:
            return None
        return bolt_band(slot, want, float(self.circle["diameter"]), self.room)

    def mate_for(self, slot: FitSlot) -> dict[str, str]:
        """The mate's size, where more than one reading tells it: the thread, or the
        circle; as a family is told it."""
        if self.thread is not None:
            return {slot.mate: self.thread.name}
        if self.circle is not None:
            size, doubt = float(self.circle["diameter"]), self.circle_doubt
            return {
                slot.mate: as_kept(size),
                f"{slot.mate}.doubt": as_kept(doubt),
            }
        return {}

    @property
    def measured_as(self) -> SurfaceKind:
        """The kind of size that the new half is measured as while it is cut."""
        return cut_kind(self.choice)

    @property
    def read_by(self) -> tuple[SurfaceKind, ...]:
        """The kinds of instrument that read it."""
        return (self.measured_as,)

    @property
    def straight(self) -> bool:
        """Whether it is a length between faces, not a diameter."""
        return self.choice.joint in FLAT_JOINTS

    @property
    def aim(self) -> float | None:
        low, high = self.lower, self.upper
        return None if low is None or high is None else (low + high) / 2

    @property
    def could_fit(self) -> tuple[float, float] | None:
        """Limits from surely too tight to surely too loose, where the uncertainties
        leave nothing of the band and the mate itself can tell; None otherwise."""
        if self.choice.kind != "cylinder" or not self.spent or self.band is None:
            return None
        least, most = (float(self.band[f"clearance_{end}"]) for end in ("min", "max"))
        if least < 0:
            return None  # a press does not go on by hand
        wider = most - least
        return float(self.band["upper"]) - wider, float(self.band["lower"]) + wider


class DrawnSize(FitPlan, frozen=True):
    """A size that no fit rules, cut to its drawing."""

    ends: tuple[float, float] = (0.0, 0.0)  # its limits, mm
    kind: SurfaceKind = "outside"  # what it is measured as
    reads: tuple[SurfaceKind, ...] = ("outside",)

    @property
    def measured_as(self) -> SurfaceKind:
        return self.kind

    @property
    def read_by(self) -> tuple[SurfaceKind, ...]:
        return self.reads

    @property
    def straight(self) -> bool:
        return self.kind not in ("outside", "inside")

    @property
    def lower(self) -> float | None:
        return self.ends[0]

    @property
    def upper(self) -> float | None:
        return self.ends[1]


def cut_as_drawn(made: Made, key: str, shop: Shop) -> DrawnSize | None:
    """A size of the drawing as it is cut at the dial, within what the drawing allows;
    None for what no slide is fed to, or what a fit rules."""
    if key not in made.sizes or key in ruled_by_fits(made).values():
        return None
    surface = drawn_surface(made, key)
    name, _, measure = made.sizes[key].size.drawn_at.partition(".")
    feature = made.body.found(name)
    if surface is None or feature is None:
        return None
    shrinks = surface.kind == "outside"
    if surface.kind not in ("outside", "inside"):
        if measure not in FED or isinstance(feature, Holes | CrossHoles):
            return None
        # metal comes off its ends; else a cut goes on into the metal
        shrinks = isinstance(feature, End | SixFaces | Flats)
    size = float(made.values[key])
    if size <= 0:
        return None
    reads = gauged_by(made, surface)
    suits = shop.instruments_for(*reads, size=size)
    return DrawnSize(
        FitChoice(
            0,
            surface.name,
            "",
            "",
            "hole" if shrinks else "shaft",
        ),
        made=size,
        gauge=suits[0] if suits else None,
        ends=made.allowed(key),
        kind=surface.kind,
        reads=reads,
    )


def fit_plan(
    choice: FitChoice,
    told: Mapping[int, Mapping[str, Any]],
    shop: Shop,
    lathe: Lathe | None,
    pieces: Mapping[str, Piece],
    measured: Mapping[tuple[str, str], Measured | None],
) -> FitPlan:
    mate = measured.get((choice.piece, choice.surface))
    piece = pieces.get(choice.piece)
    surface = piece.surface(choice.surface) if piece else None
    if mate is None or piece is None or surface is None:
        name = piece.names(surface) if piece and surface else "Its half"
        return FitPlan(choice, problem=f"{name}: measure it in Survey first.")
    if mate.refused:
        return FitPlan(choice, mate, problem=mate.refused)
    try:
        if choice.kind == "bolts":
            return _bolt_fit(choice, told.get(choice.number, {}), measured, mate)
        form = form_of(choice)
        meeting = Meeting(
            choice,
            piece,
            surface,
            mate,
            measured,
            # what the piece says of itself goes before what was typed of the fit
            {**given_values(choice), **told.get(choice.number, {})},
            shop,
            lathe,
            form.asks,
        )
        if choice.kind == "joined":
            return FitPlan(choice, mate, joined=form.work(meeting))
        if choice.kind == "thread":
            plan = _thread_fit(choice, surface, measured, mate)
        else:
            plan = _cylinder_fit(choice, shop, mate)
    except BadInput as error:
        return FitPlan(choice, mate, problem=error.message)
    if plan.band is None:
        return plan
    try:
        joined = form.work(replace(meeting, band=plan.band))
    except BadInput as error:
        # the band stands without what follows from it
        return replace(plan, unsaid=error.message)
    return replace(plan, joined=joined)


def _cylinder_fit(choice: FitChoice, shop: Shop, mate: Measured) -> FitPlan:
    if choice.joint == "slot":
        # what goes along a worn slot is ruled by its tightest place
        size, doubt = mate.tightest
    else:
        # what sits still must suit the tight and the loose place both
        size, doubt = mate.size, mate.uncertainty + mate.shape / 2
    inputs = {
        "existing": [size],
        "instrument_uncertainty": doubt,
        "kind": choice.exists,
    }
    if choice.want == "own":
        inputs |= {
            "clearance_min": choice.clearance_min,
            "clearance_max": choice.clearance_max,
        }
    else:
        inputs["want"] = choice.want
    band = reckon("fit-target", inputs)
    suits = shop.instruments_for(cut_kind(choice), size=mate.size)
    gauge = suits[0] if suits else None
    advice = ""
    if band["band"] <= 0:
        wanted = float(band["clearance_max"]) - float(band["clearance_min"])
        advice = _what_helps(choice, shop, mate, wanted)
    elif gauge is None or not gauge.proves(band["band"]):
        advice = (
            "No instrument in the shop can prove this band: keep the mate at hand "
            "and finish by trial."
        )
    return FitPlan(
        choice,
        mate,
        band,
        reckon("play-runout", {"play": band["clearance_max"]}),
        advice=advice,
        gauge=gauge,
    )


def _what_helps(choice: FitChoice, shop: Shop, mate: Measured, wanted: float) -> str:
    """The causes that eat up the band of a fit, and ways to keep some of it.

    wanted: by how much the play may vary, mm.
    """
    kind = _half_kind(choice, choice.exists)

    def um(value: float) -> str:
        return f"{value * 1000:.0f} µm"

    # half of the band left is enough to work to
    room = wanted / 4
    parts = {
        key: float(mate.answer.results.get(f"from_{key}", 0.0))
        for key in ("instrument", "scatter", "warmth")
    }
    if not mate.count:
        return (
            f"The standard's own band takes it: ±{um(mate.uncertainty)}, where the fit "
            f"lets the play vary by {um(wanted)}. What helps: measure the piece "
            "itself, or cut to the mate by trial."
        )
    parts["shape"] = mate.shape / 2 if choice.joint != "slot" else 0.0
    eats = max(parts, key=lambda key: parts[key])
    says = {
        "instrument": f"The gauge takes it: ±{um(parts['instrument'])} of its own, "
        f"where the fit lets the play vary by {um(wanted)}. ",
        "scatter": f"Readings that scatter take it: ±{um(parts['scatter'])} of the "
        f"±{um(mate.uncertainty)}, where the fit lets the play vary by {um(wanted)}. ",
        "warmth": f"Warmth takes it: a part and a gauge one degree apart are "
        f"±{um(parts['warmth'])} at this size. ",
        "shape": f"The mate's own shape takes it: it differs by {um(mate.shape)} from "
        "place to place, which no reading mends. ",
    }[eats]
    helps = []
    better = [
        instrument
        for instrument in shop.instruments_for(kind, size=mate.size)
        if instrument.uncertainty < parts["instrument"] * 0.7
    ]
    if eats == "instrument":
        if better:
            helps.append(
                f"the {better[0].name} is good to ±{um(better[0].uncertainty)}"
            )
        else:
            helps.append(f"a gauge good to ±{um(room)} would leave half of the band")
    elif eats == "scatter":
        again = math.ceil(mate.count * (parts["scatter"] / max(room, 1e-6)) ** 2)
        if again <= 12:
            helps.append(f"{again} readings at one place would leave half of the band")
        else:
            helps.append("wipe and read again at one place: something moves")
    elif eats == "warmth":
        helps.append("lay part and gauge together until both are of one warmth")
    else:
        helps.append("true the mate up")
    doubt = mate.uncertainty + parts["shape"]
    helps.append(f"a fit whose play may vary by {um(4 * doubt)} would leave half")
    helps.append("or cut to the mate by trial")
    return says + "What helps: " + "; ".join(helps) + "."


def _thread_fit(
    choice: FitChoice,
    surface: Surface,
    measured: Mapping[tuple[str, str], Measured | None],
    mate: Measured,
) -> FitPlan:
    internal = choice.exists == "hole"
    pitch = measured.get((choice.piece, beside(surface, "thread-pitch")))
    if choice.thread:
        thread = thread_of(choice.thread, "want")
    elif surface.given and not mate.count and not (pitch and pitch.count):
        thread = thread_of(surface.given)  # by its standard: nobody has read it
    elif pitch is None:
        return FitPlan(choice, mate, problem="The thread's pitch is not measured yet.")
    else:
        ranked = candidates(mate.size, internal, internal, pitch.size, mate.uncertainty)
        thread, problem = ranked[0].thread, undecided(ranked)
        if ranked[0].misfit > SURE:
            problem = (
                f"{mate.size:.2f} mm across the crests with a pitch of "
                f"{pitch.size:.2f} mm is no thread known here; {thread.says} is "
                "nearest. Measure both again, or say which it is."
            )
        if problem:
            near = ranked[:2] if undecided(ranked) else ()
            could_be = tuple(candidate.thread.name for candidate in near)
            return FitPlan(choice, mate, problem=problem, could_be=could_be)
        if thread.form_name == "metric":
            thread = thread_of(f"M{thread.major:g}x{thread.pitch:g}")
    inputs = {"thread": thread.name}
    if choice.want:
        inputs["external_class" if internal else "internal_class"] = choice.want
    band = reckon("thread", inputs)
    plan = FitPlan(choice, mate, band, nominal=thread.major, thread=thread)
    if plan.lower is None:
        plan = replace(
            plan,
            advice=f"No limits are kept for {thread.name}: cut it to the mate, or to "
            "a plug made to the mate. Its basic sizes stand in the working.",
        )
    return plan


def _bolt_fit(
    choice: FitChoice,
    told: Mapping[str, Any],
    measured: Mapping[tuple[str, str], Measured | None],
    span: Measured,
) -> FitPlan:
    """told: what the piece to be made tells of the screws and their holes."""
    said = {**given_values(choice), **told}
    word = choice.want if choice.want in ("close", "normal", "loose") else "normal"
    size = str(said.get("thread", "M8"))
    band = reckon("clearance-hole", {"thread": size, "fit": word})
    if "diameter" in span.answer.results:
        # surveyed as a circle: the sum of span and hole is done there
        read = span.answer.inputs.get("hole")
        read = float(read) if isinstance(read, int | float) else None
        return FitPlan(
            choice,
            span,
            band,
            circle=span.answer,
            circle_doubt=span.uncertainty,
            hole=read,
        )
    hole = measured.get((choice.piece, "bolt-hole"))
    if hole is None:
        return FitPlan(
            choice,
            span,
            problem="A screw in a bolt hole is not measured yet: the span needs it.",
        )
    holes = said.get("holes")
    if holes is None:
        return FitPlan(
            choice,
            span,
            problem="Say how many holes the circle has: the span alone does not tell.",
        )
    circle = reckon("hole-span", {"span": span.size, "hole": hole.size, "holes": holes})
    doubt = math.hypot(span.uncertainty, hole.uncertainty) / math.sin(math.pi / holes)
    return FitPlan(
        choice, span, band, circle=circle, circle_doubt=doubt, hole=hole.size
    )


def with_bolts(
    fit: FitPlan,
    told: Mapping[int, Mapping[str, Any]],
    fits: tuple[FitPlan, ...],
    lathe: Lathe | None,
) -> FitPlan:
    """The bolts' room and need, which rest on the play of what centres as well, and
    what they carry."""
    if fit.choice.kind != "bolts" or fit.circle is None or fit.band is None:
        return fit
    said = {**given_values(fit.choice), **told.get(fit.choice.number, {})}
    asked: dict[str, Any] = {
        "thread": "M8",
        "circle_doubt": fit.circle_doubt,
        "fit": fit.band.inputs["fit"],
    }
    if fit.hole is not None:
        asked["measured"] = fit.hole
    centred = next(
        (fit for fit in fits if fit.choice.number == said.get("centred")), None
    )
    if centred is not None and centred.band is not None:
        asked["play"] = max(float(centred.band["clearance_max"]), 0.0)
    asked |= {key: said[key] for key in said if key not in ("holes", "centred")}
    try:
        room = reckon("bolt-room", asked)
    except BadInput as error:
        return replace(fit, problem=error.message)
    advice = str(room["mismatch"] or room["warning"])
    carries = _carried(fit.circle, str(asked["thread"]), said.get("holes"), lathe)
    return replace(fit, room=room, advice=advice, joined=carries)


def _carried(
    circle: Answer, thread: str, holes: object, lathe: Lathe | None
) -> Joined | None:
    """The torque that the screws of a circle carry; None where it is not known how
    many they are, or how strong."""
    bolts = circle.inputs.get("holes") or holes
    if not bolts:
        return None
    asked = {"bolts": bolts, "thread": thread, "circle": circle["diameter"]}
    try:
        answer = reckon("bolts-carry", asked)
    except BadInput:
        return None
    carries = Effect("The screws carry", answer["carries"], TORQUE, answer)
    return Joined(
        effects=(carries, *turned_by(lathe, answer)),
        advice=_driven(answer, lathe.torque if lathe is not None else 0.0),
    )


def _driven(answer: Answer, torque: float) -> tuple[str, ...]:
    """Whether screws hold what a lathe turns; nothing where they do twice over, or
    where it is not known. torque: N·m."""
    if torque <= float(answer["carries"]):
        return ()
    if torque <= float(answer["slips_at"]):
        return (
            "The screws hold what the lathe turns, but not twice over: tighten them "
            "evenly, and take light cuts at its lowest speeds.",
        )
    return (
        "Where the lathe drives through these screws they slip before its belt does: "
        "more or larger ones, or drive pins.",
    )


def against(fit: FitPlan, made: float) -> FitPlan:
    """The fit with the size that the drawing has for it, and whether they disagree."""
    low, high = fit.lower, fit.upper
    if low is None or high is None or low <= made <= high:
        return replace(fit, made=made)
    side = "over" if made > high else "under"
    off = made - high if made > high else low - made
    return replace(
        fit,
        made=made,
        contradiction=(
            f"Drawn {made:.3f} mm, but the mate as measured wants {low:.3f} to "
            f"{high:.3f} mm: {off * 1000:.0f} µm {side} the band."
        ),
    )


def cut_kind(choice: FitChoice) -> SurfaceKind:
    """The kind of size that a fit's new half is measured as while it is cut."""
    return _half_kind(choice, "shaft" if choice.exists == "hole" else "hole")


def _half_kind(choice: FitChoice, half: Side) -> SurfaceKind:
    """The kind of size that one half of a fit is measured as."""
    if half == "shaft":
        return "outside"
    return "gap" if choice.joint in FLAT_JOINTS else "inside"


def can_be_cut(fit: FitPlan) -> bool:
    """Whether the coach can work to a plain fit: to its band, or by trial."""
    if fit.choice.kind != "cylinder" or (fit.mate is not None and fit.mate.drawn):
        return False
    return fit.aim is not None or fit.could_fit is not None
