"""The route of a piece step by step: what is cut, by which tool, drill and speed."""

import functools
from collections.abc import Callable, Collection, Iterable, Iterator, Mapping, Sequence
from typing import Any

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.in_inches import in_inches
from machinon.core.materials import material
from machinon.core.piece.bands import FitBand
from machinon.core.piece.body import Body
from machinon.core.piece.family import Holding, Step
from machinon.core.piece.feature import Feature, Side
from machinon.core.piece.hole_features import Hole
from machinon.core.piece.made import Made
from machinon.core.piece.milled_features import Keyway
from machinon.core.piece.shown import Shown, from_to
from machinon.core.piece.turned_features import (
    Ball,
    Bore,
    Cone,
    Cylinder,
    End,
    Groove,
    NutThread,
    Screw,
    TaperBore,
)
from machinon.core.reckoning import Answer, reckon
from machinon.core.route.drills import drill_of, drilled_width, hole_of, travel
from machinon.core.route.in_process import (
    BESIDE,
    Standing,
    beyond_drill,
    gone_past,
    in_process,
)
from machinon.core.route.no_mill import NoMill, corners_of, without_mill
from machinon.core.route.operations import BY_HAND, END_MILL, OPERATIONS, cutter_of
from machinon.core.route.order import NO_METAL, in_order, keyed
from machinon.core.route.own_steps import with_own
from machinon.core.route.slide import slide_set
from machinon.core.route.step_words import caution_of, note_of, title_of, tool_of
from machinon.core.shop.making import Moved, OwnStep
from machinon.core.sizes.reamers import nearest_reamer
from machinon.core.threads.drill_steps import ladder

THIN = 0.01  # mm: what is thinner has no speed, as where cuts leave nothing
PARTED = 25.0  # mm deep: more of it jams the blade; shop rule
SAWN_OFF = 1.5  # mm that a saw leaves to be faced
NEARLY = 1.25  # of a hole that is there: so wide it is bored at once; shop rule
BORED_OUT = 6.0  # mm: a hole no wider than the stock's by this is bored at once


AXIAL = Bore | NutThread | TaperBore  # holes along the axis


class StepTold(Struct, frozen=True, dict=True):
    """A step as it is worked from.

    The speed is worked out when it is asked for.
    """

    key: str
    operation: str
    features: tuple[str, ...]
    title: str
    tool: str
    note: str
    caution: str
    drill: float  # of a drilled hole, mm
    drills: tuple[float, ...]  # that open the hole one after the other, it is the last
    tap: str  # its thread
    hold: bool
    fit: int  # number in the job of the fit it is for
    before: Body  # the piece as it stands
    after: Body  # the piece as it stands
    material: str  # its metal
    speeds: tuple[float, ...] | None  # those of the machine, rpm, None for any
    leaves: float = 0.0  # metal for a later cut, mm to a side
    banded: bool = False  # it brings a size into its band
    out: Side | None = None  # the end that stands out of the holding, where it is known
    stacked: int = 1  # how many lie on each other
    figures: tuple[Shown, ...] = ()  # what is set or read, where no feature tells
    finished: tuple[float, float] = (0.0, 0.0)  # stations of a turned piece's ends
    reamer: float = 0.0  # that is sold for its hole, mm
    drawn: tuple[Feature, ...] = ()  # its features, as they are when all is done
    # degrees that the compound was set to in its holding; 0 for none
    slide: float = 0.0
    # what the drawing lets the sizes be that have limits of their own, by feature and
    # measure, mm
    limits: Mapping[str, tuple[float, float]] = {}
    floored: bool = False  # its drill opens a hole that gets a flat floor
    # corner to corner of a block that is faced in a chuck, mm; 0 for none
    corners: float = 0.0
    light: bool = False  # a lathe's slide has the work, which bears less than a table

    @functools.cached_property
    def cut(self) -> tuple[Feature, ...]:
        """The features that it cuts, as it leaves them: of an inside thread that is
        bored for, the bore."""
        there = {feature.name: feature for feature in self.after.features}
        found = (there[name] for name in self.features if name in there)
        if self.operation != "bore":
            return tuple(found)
        return tuple(it.hole if isinstance(it, NutThread) else it for it in found)

    @functools.cached_property
    def speed(self) -> Answer | None:
        """None where nothing turns."""
        kind = "face" if self.corners else OPERATIONS[self.operation].speed
        if self.tool == BY_HAND:
            return None
        if any(isinstance(feature, Keyway) and feature.inside for feature in self.cut):
            return None  # pulled or pushed through its bore
        wide = self.drill or self.diameter
        if not kind or wide < THIN:
            return None
        return self.speed_at(kind, wide)

    def speed_at(self, operation: str, diameter: float) -> Answer:
        """The speed of one of its cuts, with its working."""
        asked: dict[str, Any] = {
            "material": self.material,
            "tool": material(self.material).tool,
            "operation": operation,
            "diameter": diameter,
        }
        if self.speeds:
            asked["machine_speeds"] = list(self.speeds)
        return reckon("speeds", asked)

    def rpm_at(self, operation: str, diameter: float) -> float:
        """The speed of one of its cuts, to the nearest ten where there is any."""
        rpm = float(self.speed_at(operation, diameter)["rpm"])
        return rpm if self.speeds else round(rpm, -1)

    @functools.cached_property
    def diameter(self) -> float:
        """The diameter that meets the tool, mm."""
        if self.corners:
            return self.corners
        return _diameter(self.cut[0] if self.cut else None, self.before, self.after)

    @property
    def follows(self) -> float:
        """The hole that its drill follows, mm; 0 for none."""
        before = self.drills[:-1]
        return before[-1] if before else self.opened

    @property
    def opened(self) -> float:
        """The hole that its first drill finds, mm; 0 for none."""
        return _open(self.cut[0] if self.cut else None, self.before)

    def past(self, end: float, inside: bool) -> float:
        """How far a cut goes on past its end, a station, mm: where that is an end of
        the piece and the metal behind it is parted or faced off later."""
        for finished, now in zip(self.finished, self.after.ends, strict=True):
            behind = abs(now - finished)
            if abs(end - finished) < BESIDE < behind:
                return gone_past(behind, inside)
        return 0.0

    @property
    def close(self) -> bool:
        """Whether it is told to a tenth of a thou: for a band, or by a reamer's own."""
        return self.banded or self.operation == "ream"

    @property
    def rpm(self) -> float:
        """0 where nothing turns."""
        return float(self.speed["rpm"]) if self.speed else 0.0


class HoldingTold(Struct, frozen=True):
    """One holding with its steps as they are worked from; held as the family says."""

    key: str
    machine: str
    title: str
    reason: str
    steps: tuple[StepTold, ...]
    held: str = ""
    usual: str = ""  # the machine for it where the shop has each


def route_told(
    made: Made,
    speeds: Sequence[float] | None = None,
    fits: Mapping[str, int] | None = None,
    moved: Sequence[Moved] = (),
    mill_speeds: Sequence[float] = (),
    there: Collection[str] = (),
    own: Sequence[OwnStep] = (),
    no_mill: NoMill | None = None,
) -> tuple[HoldingTold, ...]:
    """The route of a piece.

    speeds: those of the lathe, rpm; any where not said; fits: numbers of its fits in a
    job, by slot; moved: steps that the person moved; mill_speeds: those of the mill;
    there: features that are on the piece before the first step; own: steps that the
    person added; no_mill: what is used in place of a mill, of which there is none then.
    """
    turning = {"lathe": tuple(speeds or ()), "mill": tuple(mill_speeds)}
    usual = planned(made, there, own)
    machines = {holding.key: holding.machine for holding in usual}
    if no_mill is not None:
        usual = without_mill(usual, made.body.stock, no_mill)
        press = no_mill.drill_press
        turning["drill"] = press.numbers("speeds") if press is not None else ()
        turning["mill"] = turning["lathe"]
    on_slide = no_mill is not None and no_mill.lathe is not None
    holdings = in_order(usual, moved)
    out = []
    for holding, standing in in_process(made, holdings):
        speeds_here = turning.get(holding.machine) or None
        steps, slide = [], 0.0
        light = on_slide and holding.machine == "mill"
        for stands in standing:
            fit = (fits or {}).get(stands.step.fit, 0)
            steps.append(_told(made, holding, stands, speeds_here, fit, slide, light))
            slide = stands.step.slide or slide
        out.append(
            HoldingTold(
                holding.key,
                holding.machine,
                holding.title,
                holding.reason,
                tuple(steps),
                holding.held,
                machines.get(holding.key, holding.machine),
            )
        )
    return tuple(out)


def planned(
    made: Made, there: Collection[str], own: Sequence[OwnStep]
) -> tuple[Holding, ...]:
    """The holdings of a piece with named steps, before any is moved: without what is
    there already, with what the person added."""
    holdings = _sawn_off(made, _not_in_stock(made, keyed(made.holdings)))
    holdings = _drilled_once(made, holdings)
    return with_own(still_cut(holdings, there), own)


def _sawn_off(made: Made, holdings: tuple[Holding, ...]) -> tuple[Holding, ...]:
    """The holdings with the saw for what is deeper than a blade parts off."""

    def told(step: Step) -> Step:
        end = made.body.found(step.features[0]) if step.operation == "part" else None
        if not isinstance(end, End):
            return step
        inside = end.z + BESIDE if end.side == "left" else end.z - BESIDE
        inner, outer = made.body.radii(inside)
        if outer - inner <= PARTED:
            return step
        return replace(step, operation="saw-off", leaves=max(step.leaves, SAWN_OFF))

    return tuple(
        replace(holding, steps=tuple(map(told, holding.steps))) for holding in holdings
    )


def _not_in_stock(made: Made, holdings: tuple[Holding, ...]) -> tuple[Holding, ...]:
    """The holdings without the drills that the hole in the stock spares."""
    bore = made.body.stock.bore
    if not bore:
        return holdings

    def left(step: Step) -> bool:
        first = made.body.found(step.features[0]) if step.features else None
        if step.operation != "drill" or hole_of(first) is not None:
            return True
        spares = BORED_OUT if step.leaves else 0.0
        return drill_of(step, first, made.values["inch"]) > bore + spares

    return _with_those(holdings, left)


def _drilled_once(made: Made, holdings: tuple[Holding, ...]) -> tuple[Holding, ...]:
    """The holdings without the drills that find their hole as wide and as deep, or
    nearly so where a bar opens it: a bore round the mouth of a deeper hole is opened by
    that one's drill."""
    inch = made.values["inch"]
    opened: list[tuple[float, float, float]] = []

    def left(step: Step) -> bool:
        first = made.body.found(step.features[0]) if step.features else None
        if step.operation not in ("drill", "bore") or not isinstance(first, AXIAL):
            return True
        drilled = step.operation == "drill"
        wide = drill_of(step, first, inch) if drilled else drilled_width(first)
        nearly = NEARLY if step.leaves else 1.0
        begin, stop = travel(first)
        there = any(
            start <= begin and stop <= end and wide <= nearly * hole
            for start, end, hole in opened
        )
        opened.append((begin, stop, wide))
        return not (drilled and there)

    return _with_those(holdings, left)


def _with_those(
    holdings: Iterable[Holding], left: Callable[[Step], bool]
) -> tuple[Holding, ...]:
    """The holdings with those of their steps that are left."""
    return tuple(
        replace(holding, steps=tuple(filter(left, holding.steps)))
        for holding in holdings
    )


def still_cut(
    holdings: Sequence[Holding], there: Collection[str]
) -> tuple[Holding, ...]:
    """The holdings without the cutting of what is there already."""
    if not there:
        return tuple(holdings)

    def left(step: Step) -> Step | None:
        names = tuple(feature for feature in step.features if feature not in there)
        if step.operation in NO_METAL or names == step.features:
            return step
        return replace(step, features=names) if names else None

    return tuple(
        replace(holding, steps=tuple(s for step in holding.steps if (s := left(step))))
        for holding in holdings
    )


def route_in_inches(
    route: Iterable[HoldingTold], own: Collection[str] = ()
) -> tuple[HoldingTold, ...]:
    """A route whose steps speak of inches; done once, as inches are no millimetres.
    own: steps whose words a person typed, which stay."""

    def told(step: StepTold) -> StepTold:
        mine = step.key in own
        return replace(
            step,
            title=step.title if mine else in_inches(step.title, step.close),
            tool=in_inches(step.tool),
            note=in_inches(step.note),
            caution=in_inches(step.caution),
        )

    return tuple(
        replace(up, reason=in_inches(up.reason), steps=tuple(map(told, up.steps)))
        for up in route
    )


def _told(
    made: Made,
    holding: Holding,
    standing: Standing,
    speeds: tuple[float, ...] | None,
    fit: int,
    slide: float,
    light: bool,
) -> StepTold:
    step = standing.step
    operation = OPERATIONS[step.operation]
    features = [made.body.feature(name) for name in step.features if _is(made, name)]
    first = features[0] if features else None
    drill = drill_of(step, first, made.values["inch"])
    drills = _drills(drill, first, standing.before)
    tap = _tap_of(step, first)
    reamer = _reamer(first, made) if step.operation == "ream" else 0.0
    return StepTold(
        step.key,
        step.operation,
        step.features,
        step.title or title_of(step, operation, features, drills, tap, reamer),
        step.tool or tool_of(operation, first, drill, tap, reamer, standing.before),
        note_of(step, drills),
        step.caution
        or caution_of(step, holding.machine, first, made.body, standing.before),
        drill,
        drills,
        tap,
        step.hold,
        fit,
        standing.before,
        standing.after,
        made.material,
        speeds,
        step.leaves,
        _banded(made, step),
        standing.out,
        holding.stacked,
        slide_set(step.slide, made.values["inch"])
        if step.slide
        else step.figures or _left_by_reamer(step, first, made),
        made.body.ends if made.body.turns else (0.0, 0.0),
        reamer,
        tuple(features),
        slide,
        _limits(made, step),
        step.operation == "drill" and step.leaves > 0 and _floored(made.body, first),
        corners_of(made.body.stock)
        if step.operation == "square" and holding.machine == "lathe"
        else 0.0,
        light,
    )


def _floored(body: Body, feature: Feature | None) -> bool:
    """Whether a bore ends at a floor, flat, once all is done."""
    if not isinstance(feature, Bore | NutThread) or not body.turns:
        return False
    if getattr(feature, "pointed", False):
        return False
    inside = drilled_width(feature) / 2 - BESIDE
    return any(body.radii(z)[0] < inside for z in beyond_drill(feature, body))


def _limits(made: Made, step: Step) -> dict[str, tuple[float, float]]:
    """The limits of the sizes that a step cuts or proves, as `StepTold.limits`."""
    return {
        place: ends
        for place, ends in made.drawn_limits.items()
        if place.partition(".")[0] in step.features
    }


def _banded(made: Made, step: Step) -> bool:
    """Whether a step is the one that brings a size into the band of its fit."""
    ruled = {fit_band.slot.rules.partition(".")[0] for fit_band in made.fits}
    return bool(ruled.intersection(step.features)) and not step.leaves


def _drills(drill: float, feature: Feature | None, before: Body) -> tuple[float, ...]:
    """The drills that open a hole; along the axis they follow what is open already."""
    return ladder(drill, _open(feature, before)) if drill else ()


def _open(feature: Feature | None, before: Body) -> float:
    """The hole that a drill finds all the way, mm: one along the axis."""
    if not before.turns or hole_of(feature) is not None:
        return 0.0
    if not isinstance(feature, Bore | NutThread):
        return before.hollow
    first, last = feature.drilled
    places = first + BESIDE, (first + last) / 2, last - BESIDE
    return max(before.hollow, 2 * min(before.radii(z)[0] for z in places))


def _is(made: Made, name: str) -> bool:
    return any(feature.name == name for feature in made.body.features)


def _tap_of(step: Step, feature: Feature | None) -> str:
    if step.operation != "tap":
        return ""
    hole = hole_of(feature)
    if hole is not None:
        return hole.thread
    return feature.thread if isinstance(feature, NutThread | Screw) else ""


def _diameter(feature: Feature | None, before: Body, after: Body) -> float:
    """The diameter that meets the tool: as it turns, or of the cutter."""
    hole = hole_of(feature)
    if hole is not None:
        return hole.bore or hole.diameter
    if isinstance(feature, Bore | Groove):
        return feature.diameter
    if isinstance(feature, NutThread):
        return feature.bore
    if feature is not None and (cutter := cutter_of(feature)):
        return cutter
    if isinstance(feature, Cylinder | Cone | Ball | Screw):
        _, radius = before.radii((feature.start + feature.end) / 2)
        if radius:
            return 2 * radius
    if before.turns:
        taken = before.region.difference(after.region)
        if not taken.is_empty:
            return 2 * float(taken.bounds[3])
        return before.largest if before.features else _stock_width(before)
    return END_MILL


def _stock_width(body: Body) -> float:
    return float(
        getattr(body.stock, "diameter", 0.0) or getattr(body.stock, "corners", 0)
    )


def _reamer(feature: Feature | None, made: Made) -> float:
    """The reamer that is sold for a hole, mm; 0 where none leaves it so."""
    hole = hole_of(feature)
    if hole is None or not hole.ream:
        return 0.0
    inch = bool(made.values["inch"])
    bands = _bands_of(hole, made)
    ruled = next((found for b in bands if (found := b.reamed(inch))), None)
    if ruled is None:
        reamer = nearest_reamer(hole.diameter, inch)
        ruled = reamer, reamer.makes(hole.diameter)
    reamer, does = ruled
    return reamer.size if does else 0.0


def _bands_of(hole: Hole, made: Made) -> Iterator[FitBand]:
    """The bands of the fits that rule its diameter."""
    for band in made.fits:
        known = made.sizes[band.slot.rules]
        if known.by == "fit" and known.value == hole.diameter:
            yield band


def _left_by_reamer(
    step: Step, feature: Feature | None, made: Made
) -> tuple[Shown, ...]:
    """The sizes that a reamed hole is proved to lie between: nobody aims a reamer at
    their middle."""
    hole = hole_of(feature)
    if step.operation != "prove" or hole is None or not hole.ream:
        return ()
    for band in _bands_of(hole, made):
        if band.lower is not None and band.upper is not None:
            return from_to("⌀", band.lower, band.upper)
    return ()
