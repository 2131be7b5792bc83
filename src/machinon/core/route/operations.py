"""Operations: what is said and needed when a feature is cut, from the feature itself.

So that words cannot contradict the picture: title, tool, drill, tap, speed, time and
caution come from what is cut, unless a family says more.
"""

import functools
from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from typing import Any

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.in_inches import in_inches
from machinon.core.materials import material
from machinon.core.piece.bands import FitBand
from machinon.core.piece.block_features import (
    EdgeBevels,
    Flanked,
    MaleDovetail,
    Pocket,
    RoundSeat,
    SawCuts,
    SixFaces,
    Slot,
    TeeSlot,
)
from machinon.core.piece.body import Body
from machinon.core.piece.family import Holding, Step, spoken
from machinon.core.piece.feature import Feature, Side
from machinon.core.piece.hardware import sold_as, with_unit
from machinon.core.piece.hole_features import CrossHoles, Hole, Holes
from machinon.core.piece.made import Made
from machinon.core.piece.shown import Shown, from_to
from machinon.core.piece.turned_features import (
    Ball,
    Bevel,
    Bore,
    Centre,
    Cone,
    CrossSlot,
    Cylinder,
    EdgeRound,
    Flats,
    Groove,
    Keyway,
    Knurl,
    NutThread,
    Screw,
    Slits,
    TaperBore,
)
from machinon.core.quantity import plain
from machinon.core.reckoning import Answer, reckon
from machinon.core.route.drills import LADDER, drill_of, hole_of, ladder
from machinon.core.route.in_process import BESIDE, Standing, gone_past, in_process
from machinon.core.route.order import NO_METAL, in_order, keyed
from machinon.core.route.own_steps import with_own
from machinon.core.route.slide import slide_set
from machinon.core.shop.making import Moved, OwnStep
from machinon.core.sizes.centre_drills import centre_drill_for
from machinon.core.sizes.reamers import LEAVES, nearest_reamer
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.tapping import drill_named

END_MILL, FACE_MILL, SAW = 20.0, 50.0, 80.0  # mm: cutters of a usual size
NAMED = ("end mill", "slot drill")  # are called by their size
BY_HAND = "saw and files"
CLEAR_OF = "Clamp it well; keep clear of the turning cutter."
THIN = 0.01  # mm: what is thinner has no speed, as where cuts leave nothing
BORED_OUT = 6.0  # mm: a hole no wider than the stock's by this is bored at once


class Operation(Struct, frozen=True):
    """A kind of work. machine_words: how the speeds are asked for; empty for none."""

    key: str
    verb: str
    tool: str
    speed: str = ""
    caution: str = ""


OPERATIONS: Mapping[str, Operation] = {
    operation.key: operation
    for operation in (
        Operation("mount", "Mount", "by hand"),
        Operation("face", "Face", "facing tool", "face"),
        Operation("turn", "Turn", "knife tool", "turn"),
        Operation("centre", "Centre-drill", "centre drill", "drill"),
        Operation(
            "drill",
            "Drill",
            "drill",
            "drill",
            "The drill grabs as it breaks through: ease the feed.",
        ),
        Operation("bore", "Bore", "boring bar", "bore"),
        Operation("ream", "Ream", "reamer", "ream", "Never turn a reamer backwards."),
        Operation(
            "thread",
            "Cut",
            "threading tool",
            "thread",
            "Never reach into a turning thread.",
        ),
        Operation("tap", "Tap", "tap"),
        Operation("groove", "Turn", "grooving tool", "part"),
        Operation("taper", "Turn the taper", "knife tool, compound set over", "turn"),
        Operation(
            "part",
            "Part off at",
            "parting tool",
            "part",
            "It jams and throws: slow, near the jaws, never catch it by hand.",
        ),
        Operation("bevel", "Chamfer", "chamfer tool", "turn"),
        Operation(
            "knurl",
            "Knurl",
            "knurling wheels",
            "knurl",
            "It presses hard: support the work, keep fingers and rags away.",
        ),
        Operation(
            "grind",
            "Grind",
            "grinding wheel",
            "",
            "Ring-test the wheel, guard on, eyes covered; stand aside at the start.",
        ),
        Operation(
            "harden",
            "Harden and temper",
            "furnace or torch",
            "",
            "Hot steel and oil flare: gloves, face shield, a lid for the oil at hand.",
        ),
        Operation(
            "weld",
            "Weld",
            "welding set",
            "",
            "Eyes, skin and air: shield, gloves, a clear floor, no coated metal.",
        ),
        Operation(
            "press",
            "Press in",
            "arbor press",
            "",
            "Press square, guarded, within the press's rating.",
        ),
        Operation(
            "bond",
            "Bond",
            "compound, cloth, a stop",
            "",
            "Compounds irritate the skin: gloves, air, and the maker's sheet.",
        ),
        Operation(
            "broach",
            "Broach",
            "broach and bush",
            "",
            "It is brittle and flies: straight in, supported, out of the press's line.",
        ),
        Operation(
            "mill",
            "Mill",
            "end mill",
            "mill",
            CLEAR_OF,
        ),
        Operation("square", "Square up", "face mill", "mill", CLEAR_OF),
        Operation(
            "counterbore",
            "Counterbore",
            "counterbore",
            "countersink",
            "It grabs as it enters: clamp the work, and ease it in.",
        ),
        Operation("countersink", "Countersink", "countersink", "countersink"),
        Operation("keyway", "Cut", "slot drill", "mill", CLEAR_OF),
        Operation(
            "saw", "Saw", "slitting saw", "saw", "Hold both sides: no piece may fall."
        ),
        Operation(
            "deburr",
            "Break every edge, clean",
            "by hand",
            caution="Burrs cut: scrape away from the hand.",
        ),
        Operation("mark", "Mark out", "height gauge"),
        Operation("other", "Do", "by hand"),
        Operation("prove", "Prove", "gauge or mate"),
    )
}


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

    @functools.cached_property
    def cut(self) -> tuple[Feature, ...]:
        """The features that it cuts, as it leaves them."""
        there = {feature.name: feature for feature in self.after.features}
        return tuple(there[name] for name in self.features if name in there)

    @functools.cached_property
    def speed(self) -> Answer | None:
        """None where nothing turns."""
        kind = OPERATIONS[self.operation].speed
        if self.tool == BY_HAND:
            return None
        if any(isinstance(feature, Keyway) and feature.inside for feature in self.cut):
            return None  # pulled or pushed through its bore
        wide = self.drill or self.diameter
        if not kind or wide < THIN:
            return None
        asked: dict[str, Any] = {
            "material": self.material,
            "tool": material(self.material).tool,
            "operation": kind,
            "diameter": wide,
        }
        if self.speeds:
            asked["machine_speeds"] = list(self.speeds)
        return reckon("speeds", asked)

    @functools.cached_property
    def diameter(self) -> float:
        """The diameter that meets the tool, mm."""
        return _diameter(self.cut[0] if self.cut else None, self.before, self.after)

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


def route_told(
    made: Made,
    speeds: Sequence[float] | None = None,
    fits: Mapping[str, int] | None = None,
    moved: Sequence[Moved] = (),
    mill_speeds: Sequence[float] = (),
    there: Collection[str] = (),
    own: Sequence[OwnStep] = (),
) -> tuple[HoldingTold, ...]:
    """The route of a piece.

    speeds: those of the lathe, rpm; any where not said; fits: numbers of its fits in a
    job, by slot; moved: steps that the person moved; mill_speeds: those of the mill;
    there: features that are on the piece before the first step; own: steps that the
    person added.
    """
    turning = {"lathe": tuple(speeds or ()), "mill": tuple(mill_speeds)}
    holdings = in_order(planned(made, there, own), moved)
    out = []
    for holding, standing in in_process(made, holdings):
        speeds_here = turning.get(holding.machine) or None
        steps, slide = [], 0.0
        for stands in standing:
            fit = (fits or {}).get(stands.step.fit, 0)
            steps.append(_told(made, holding, stands, speeds_here, fit, slide))
            slide = stands.step.slide or slide
        out.append(
            HoldingTold(
                holding.key,
                holding.machine,
                holding.title,
                holding.reason,
                tuple(steps),
                holding.held,
            )
        )
    return tuple(out)


def planned(
    made: Made, there: Collection[str], own: Sequence[OwnStep]
) -> tuple[Holding, ...]:
    """The holdings of a piece with named steps, before any is moved: without what is
    there already, with what the person added."""
    holdings = _not_in_stock(made, keyed(made.holdings))
    return with_own(still_cut(holdings, there), own)


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
        step.title or _title(step, operation, features, drills, tap, reamer),
        step.tool or _tool(operation, first, drill, tap, reamer, standing.before),
        _note(step, drills),
        step.caution or _caution(step, holding.machine, first),
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
        slide_set(step.slide)
        if step.slide
        else step.figures or _left_by_reamer(step, first, made),
        made.body.ends if made.body.turns else (0.0, 0.0),
        reamer,
        tuple(features),
        slide,
        _limits(made, step),
    )


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
    if not drill:
        return ()
    along = before.turns and hole_of(feature) is None
    return ladder(drill, before.hollow if along else 0.0)


def _note(step: Step, drills: Sequence[float]) -> str:
    if len(drills) < 2:
        return step.note
    said = ", ".join(map(drill_named, drills)).replace(" mm,", ",")
    return f"{step.note} One after the other: {said}.".strip()


def _caution(step: Step, machine: str, feature: Feature | None) -> str:
    if step.tool == BY_HAND:
        return "A bare tang goes into the hand: no file without its handle."
    hole = hole_of(feature)
    blind = hole.depth is not None if hole else getattr(feature, "pointed", False)
    if step.operation == "drill" and blind and machine == "lathe":
        return "A drill that grabs turns in the tailstock: seat its taper well."
    if step.operation == "drill" and blind:
        return "A drill that grabs spins the work: clamp it."
    return OPERATIONS[step.operation].caution


def _is(made: Made, name: str) -> bool:
    return any(feature.name == name for feature in made.body.features)


def _many(feature: Feature) -> int:
    """Number of holes of a feature; none for what is no hole."""
    return feature.many if isinstance(feature, Holes | CrossHoles) else 0


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
    if feature is not None and (cutter := _cutter(feature)):
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


def _cutter(feature: Feature) -> float:
    """Width of the cutter that mills or saws a feature; 0 where it is none of its
    own."""
    match feature:
        case SawCuts() | Slits():
            return SAW
        case SixFaces():
            return FACE_MILL
        case Slot() if feature.sawn:
            return SAW
        case Slot() | CrossSlot():
            return min(feature.width, END_MILL)
        case Keyway():
            return feature.width
        case Pocket():
            (a, b), (c, d) = feature.low, feature.high
            return min(2 * feature.radius or END_MILL, c - a, d - b)
        case Flats():
            return END_MILL
    return 0.0


def _stock_width(body: Body) -> float:
    return float(
        getattr(body.stock, "diameter", 0.0) or getattr(body.stock, "corners", 0)
    )


def _size(value: float) -> str:
    return plain(value, 3).rstrip("0").rstrip(".")


def _named(step: Step, feature: Feature) -> str:
    """A feature as one speaks of it: `the collar`, `groove 2`."""
    name = spoken(feature.name)
    return step.of or (name if name[-1].isdigit() else f"the {name}")


def _words(step: Step, feature: Feature) -> str:
    """A feature as it is called in a title, with its main figure."""
    name = _named(step, feature)
    match feature:
        case Holes() | CrossHoles():
            return f"{name}: {feature.hole.says(feature.many)}"
        case Cylinder() | Bore() | Groove():
            return f"{name} to ⌀{_size(feature.diameter)}"
        case Screw() | NutThread():
            if "thread" not in name:
                name = f"{name} thread"
            return f"{name} {thread_of(feature.thread).says}"
        case Cone() | TaperBore() if feature.taper:
            return f"{name}, {feature.taper}"
        case Keyway():
            return f"{name}, {_size(feature.width)} wide, {_size(feature.depth)} deep"
        case Flats():
            return f"{name}, {_size(feature.read)} {feature.says}"
        case MaleDovetail():
            wide, high = (_size(round(x, 2)) for x in (feature.wide, feature.depth))
            return f"{name}, {wide} on top, {high} high"
        case Flanked():
            wide, deep = (_size(round(x, 2)) for x in (feature.mouth, feature.depth))
            return f"{name}, {wide} at its mouth, {deep} deep"
        case TeeSlot() if not feature.undercut:
            return f"{name}, {_size(feature.neck)} wide, {_size(feature.depth)} deep"
        case TeeSlot():
            head = f"{_size(feature.head)} × {_size(feature.height)}"
            return f"{name}, neck {_size(feature.neck)}, head {head}"
        case CrossSlot():
            return f"{name} right through, {_size(feature.width)} wide"
        case Slits():
            return f"{name}: {feature.count} × {_size(feature.width)} wide"
        case Knurl():
            form = "crossed" if feature.crossed else "straight"
            return f"{name}, {form}, pitch {_size(feature.pitch)}"
        case RoundSeat():
            wide, deep = _size(feature.diameter), _size(round(feature.depth, 2))
            return f"{name} to ⌀{wide}, {deep} deep"
        case Bevel():
            apart = "," if name[-1].isdigit() else ""
            return f"{name}{apart} {_size(feature.leg)} × {_size(feature.angle)}°"
        case Ball():
            return f"{name}, ⌀{_size(feature.diameter)}"
        case EdgeRound():
            apart = "," if name[-1].isdigit() else ""
            return f"{name}{apart} R{_size(feature.radius)}"
        case Centre():
            return f"{name}, mouth ⌀{_size(feature.mouth)}"
    return name


def _title(
    step: Step,
    operation: Operation,
    features: Sequence[Feature],
    drills: Sequence[float],
    tap: str,
    reamer: float,
) -> str:
    hole = hole_of(features[0]) if features else None
    if tap and features:
        return f"Tap {thread_of(tap).says}{_for_what(step, features[0])}"
    if drills and features:
        stages = len(drills) > 1 and drills[-1] > LADDER
        wide = f"{drill_named(drills[-1])}{' in stages' if stages else ''}"
        if hole is None:
            return f"Drill {_named(step, features[0])}, {wide}"
        count = _many(features[0])
        many = f"{count} holes " if count > 1 else ""
        return f"Drill {many}{wide}{_for_what(step, features[0])}"
    if hole is not None and operation.key in ("counterbore", "countersink"):
        count = _many(features[0])
        many = f"{count} holes" if count > 1 else "the hole"
        to = f"⌀{_size(hole.sink)}"
        if operation.key == "counterbore":
            to = f"⌀{_size(hole.bore)}, {_size(hole.bore_depth)} deep"
        return f"{operation.verb} {many} to {to}"
    if hole is not None and operation.key == "ream":
        to = f"{sold_as(reamer)} {LEAVES}" if reamer else f"⌀{_size(hole.diameter)}"
        return f"Ream {_named(step, features[0])} to {to}"
    if operation.key in ("deburr", "mount"):
        return operation.verb
    said = ", ".join(_words(step, feature) for feature in features)
    own = said.removeprefix("the ")
    if own.lower().startswith(operation.verb.lower()):
        said = own[len(operation.verb) :].lstrip()  # not "bore the bore"
    # on a diameter there are two sides, on a length one
    metal = step.leaves if operation.key in ("part", "face") else 2 * step.leaves
    left = f", leave {_size(metal)} mm" if metal else ""
    return f"{operation.verb} {said}{left}".strip()


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


def _for_what(step: Step, feature: Feature) -> str:
    """The purpose of holes, where their name does not tell it: ` for the bolts`, `,
    holes 2`."""
    name = spoken(feature.name)
    if name in ("hole", "holes", "thread"):
        return ""
    return f", {name}" if name.startswith("hole") else f" for {_named(step, feature)}"


def _bored_at(body: Body, centre: Centre) -> bool:
    """Whether a hole is there already where a centre is sunk."""
    bores = (f for f in body.features if isinstance(f, Bore | NutThread))
    ends = (b.end if centre.side == "right" else b.start for b in bores)
    return any(abs(end - centre.z) < BESIDE for end in ends)


def _tool(
    operation: Operation,
    feature: Feature | None,
    drill: float,
    tap: str,
    reamer: float,
    before: Body,
) -> str:
    if tap:
        return f"tap {thread_of(tap).says}"
    if drill:
        return f"drill {drill_named(drill).removesuffix(' mm')}"
    if isinstance(feature, Centre):
        sold = f"{operation.tool} {centre_drill_for(feature.mouth)}".rstrip()
        return f"60° countersink or {sold}" if _bored_at(before, feature) else sold
    hole = hole_of(feature)
    if operation.key == "ream" and hole is not None:
        return f"{operation.tool} {sold_as(reamer)} {LEAVES}" if reamer else "reamer"
    if operation.key == "counterbore" and hole is not None:
        return f"counterbore {sold_as(hole.bore)}"
    if isinstance(feature, TaperBore):
        return operation.tool.replace("knife tool", "boring bar")
    if isinstance(feature, EdgeBevels):
        return "90° cutter"
    if (
        isinstance(feature, Slot | Pocket | Keyway | CrossSlot)
        and operation.tool in NAMED
    ):
        return f"{operation.tool} {with_unit(_cutter(feature))}"
    return operation.tool
