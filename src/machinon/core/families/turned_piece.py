"""Turned piece: any round, its features added one by one.

z = 0 is the left end. Steps and tapers stand side by side from there, in their order;
everything else lies on or in them.
"""

import re
from collections.abc import Collection, Iterable, Sequence

from machinon.core.families import _turned_checks
from machinon.core.families._between_centres import (
    COPPER,
    CORNERS,
    HOLES_AND_CENTRES,
    dog_on,
    each_end,
    end_for_end,
)
from machinon.core.families._opening import on_floor
from machinon.core.families._tapers import large_end, socket_depth
from machinon.core.families._tapped import thread_checks
from machinon.core.families._turned_axis import (
    ALONG,
    AT_MOUTH,
    LEAST_BALL,
    OVER,
    SIDES_OF,
    Axis,
    ball_of,
    bore_for,
    bored_already,
    end_face,
    feature_of_part,
    hole_of_part,
    holes_between,
    is_tapped,
    ledge_under,
    named_taper,
    necks,
)
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    STOCK_BORE,
    Check,
    Family,
    FreePart,
    Holding,
    OfPart,
    Size,
    Step,
    Values,
    grown,
    kind_of,
    spoken,
)
from machinon.core.piece.feature import Feature, Side
from machinon.core.piece.hole_features import CrossHoles, Holes
from machinon.core.piece.milled_features import Flats
from machinon.core.piece.round_sizes import step_in, upwards
from machinon.core.piece.stock import Bar, Round
from machinon.core.piece.turned_features import (
    BarAsItIs,
    Bevel,
    Cone,
    Cylinder,
    EdgeRound,
    End,
)
from machinon.core.piece.walls import in_metal, wall_checks
from machinon.core.quantity import ANGLE, COUNT
from machinon.core.reckoning import FLAG, TEXT
from machinon.core.setting_out.ball_turning import FILING
from machinon.core.tapers.tapers import by_angle, taper_of
from machinon.core.threads.drill_steps import SAWN
from machinon.core.threads.screw_thread import known_threads, thread_of

OF_BAR = 80.0  # mm: what is wider is no bar, but a blank that is held by its rim
PARTED = 8.0  # mm over the length from which a bar is parted off
FILED = 0.05  # mm to a side that a ball's blank is over it
UNDER = 0.5  # mm to a side that is left on a named taper for its last cuts
# a wall under so much of its diameter gives at the cut: what is left to a side, mm,
# until it is bored; a shop rule
THIN, SPRINGY = 0.08, 0.25
DRILLED = 13.0  # mm: up to here a drilled hole needs no boring bar
GIVES = (
    "The wall gives: a keen tool and light cuts, a plug pushed into the bore by hand "
    "so that it stays round."
)
COARSE = re.compile(r"M\d+")  # a usual size, by its coarse pitch
# what breaks an end lies beside its holes, and a hole may go through to the other
AT_ENDS = (End, Bevel, EdgeRound)
SIDES: tuple[Side, Side] = ("right", "left")
_OTHER: dict[Side, Side] = {"left": "right", "right": "left"}
# what is cut in an end, and so not between centres
IN_THE_END = ("centre", "bore", "socket", "nut", "undercut", "trepan")


def build(s: Values) -> Body:
    axis = Axis(s)
    features: list[Feature] = [End("left_end", 0.0, "left")]
    for at, (name, start, stop, a, b) in enumerate(axis.steps):
        if kind_of(name) == "step":
            side = axis.shoulder(at)
            features.append(Cylinder(name, start, stop, a, shoulder=side))
        elif name in axis.balls:
            features.append(axis.balls[name])
        elif kind_of(name) == "bar":
            across = s[f"{name}.across"]
            features.append(
                Flats(name, start, stop, across, axis.sides)
                if axis.sides
                else BarAsItIs(name, start, stop, across)
            )
        else:
            features.append(Cone(name, start, stop, a, b, named_taper(s, name)))
    features.append(End("right_end", axis.length, "right"))
    features += [
        feature_of_part(s, axis, n) for n in axis.names if kind_of(n) not in ALONG
    ]
    # what is longer is for the jaws, and parted off
    long, end = s["stock.length"], axis.length + OVER
    start = -OVER if axis.first == "left" else end - long
    wide = s["stock.diameter"]
    stock = (
        Bar(axis.sides, wide, start, start + long)
        if axis.sides
        else Round(wide, start, start + long)
    )
    return Body(stock, tuple(features))


def _stock(s: Values) -> float:
    """Across the bar that is left in places, else over the widest that is turned."""
    axis = Axis(s)
    bars = [float(s[f"{name}.across"]) for name in axis.of("bar")]
    return max(bars, default=upwards(axis.largest + 2, step_in(1.0, s["inch"])))


def _long_enough(s: Values) -> float:
    """Both faces; a step alone, which has no other to be held by, has besides what the
    jaws hold and a blade takes."""
    axis = Axis(s)
    alone = [kind_of(name) for name, *_ in axis.steps] == ["step"]
    centred = len(axis.of("centre")) == len(SIDES)
    if alone and not centred and axis.largest <= OF_BAR:
        return 1.25 * axis.length + 10
    return axis.length + 3


def _bored(s: Values, name: str) -> list[Step]:
    """A bore drilled, and bored where a drill does not finish it."""
    wide, flat = s[f"{name}.diameter"], s[f"{name}.floor"] == "flat"
    if wide <= DRILLED and not flat:
        return [Step("drill", (name,))]
    return [Step("drill", (name,), leaves=0.25), Step("bore", (name,))]


def _is_tapped(s: Values, name: str) -> bool:
    return is_tapped(thread_of(str(s[f"{name}.thread"])))


def _tapered(s: Values, name: str, a: float, b: float, long: float) -> list[Step]:
    """A taper: by its ends at once, or to the blue of the one that it has the name
    of."""
    known = named_taper(s, name)
    if not known:
        title = f"Turn taper {name[5:]}, ⌀{a:g} to ⌀{b:g} over {long:g}"
        return [Step("taper", (name,), title=title)]
    half = taper_of(known).half_angle
    if by_angle(known):
        title = f"Turn {spoken(name)}, {known}, compound at {half:g}°"
        return [Step("taper", (name,), title=title)]
    return [
        Step("taper", (name,), leaves=UNDER, key=f"rough-{name}",
             title=f"Rough {spoken(name)} to {known}, compound at {half:.4f}°"),
        Step("taper", (name,), title=f"Finish {spoken(name)} to its blue",
             note="Contact all along, a little stronger at the large end."),
    ]  # fmt: skip


def _opened(s: Values, axis: Axis, name: str) -> list[Step]:
    """A bore, or the hole of an inside thread: drilled for its tap, or bored for it
    where no tap is that large; where it is cut in a bore, there is nothing to drill."""
    if kind_of(name) == "bore":
        return _bored(s, name)
    bore = bored_already(s, axis, name)
    if bore and s[f"{bore}.end"] in (s[f"{name}.end"], axis.first):
        return []
    if _is_tapped(s, name):
        return [Step("drill", (name,))]
    return [Step("drill", (name,), leaves=0.5), Step("bore", (name,))]


def _opened_to(s: Values, name: str) -> float:
    """How wide a bore is, or the hole of an inside thread, mm."""
    bore = kind_of(name) == "bore"
    return s[f"{name}.diameter"] if bore else bore_for(str(s[f"{name}.thread"]))


def _thin(s: Values, axis: Axis, side: Side) -> set[str]:
    """The steps that stand over a thin wall once they are bored from this end; none
    that is knurled, since the wheels want it thick."""
    if any(axis.side_of(s[f"{n}.from_end"]) == side for n in axis.of("knurl")):
        return set()
    found = set()
    for name, start, stop, wide, _ in axis.steps:
        inside = (
            _opened_to(s, hole)
            for hole in holes_between(s, axis, start, stop)
            if s[f"{hole}.end"] == side
        )
        inner = max(inside, default=0.0)
        if kind_of(name) == "step" and inner and wide - inner < 2 * THIN * wide:
            found.add(name)
    return found


def _undercut_from(s: Values, axis: Axis, name: str) -> Side:
    """The end that a groove inside is cut from: that of the widest bore that ends
    behind it, else the nearer one."""
    first = float(s[f"{name}.from_end"])
    last = first + float(s[f"{name}.width"])
    found: list[tuple[float, Side]] = []
    for hole in (*axis.of("bore"), *axis.of("nut")):
        side, start, stop, through = axis.inside(s, hole)
        if not through and start - AT_MOUTH < first and last < stop + AT_MOUTH:
            found.append((_opened_to(s, hole), side))
    if found:
        return max(found)[1]
    return "left" if first + last < axis.length else "right"


def _from(s: Values, axis: Axis, side: Side, thin: Collection[str] = ()) -> list[Step]:
    """Everything that is cut from one end, in its order; thin: the steps that are
    finished after their bore."""
    title = "" if side == axis.first else "Face to length"
    steps = [Step("face", (f"{side}_end",), title=title)]

    def here(kind: str) -> list[str]:
        if kind == "undercut":
            return [n for n in axis.of(kind) if _undercut_from(s, axis, n) == side]
        if kind in ("groove", "knurl"):
            return [
                n for n in axis.of(kind) if axis.side_of(s[f"{n}.from_end"]) == side
            ]
        if kind == "thread":  # where its step is turned
            return [n for n in axis.of(kind) if _threaded_from(s, axis, n) == side]
        return [n for n in axis.of(kind) if s[f"{n}.end"] == side]

    steps += [Step("centre", (name,)) for name in here("centre")]
    # the narrow ones first: a drill follows the hole that is there
    narrow = sorted((*here("bore"), *here("nut")), key=lambda name: _opened_to(s, name))
    if side == "right":
        along = axis.steps[axis.middle :]
    else:
        along = axis.steps[: axis.middle][::-1]
    for name, _, _, a, _ in along:
        if kind_of(name) == "step":
            title = f"Turn step {name[4:]} to ⌀{a:g}"
            note = CORNERS if axis.sides else ""
            if name not in thin:
                steps.append(Step("turn", (name,), title=title, note=note))
                continue
            title = f"{title}, leave {2 * SPRINGY:g} mm"
            steps.append(
                Step("turn", (name,), leaves=SPRINGY, title=title, note=note,
                     key=f"rough-{name}")
            )  # fmt: skip
        elif kind_of(name) == "bar":
            continue  # no tool comes to it
        elif name in axis.balls:
            wide = axis.balls[name].diameter + 2 * FILED
            title = f"Turn the blank of {spoken(name)} to ⌀{wide:g}"
            steps.append(
                Step("turn", (name,), leaves=FILED, title=title, key=f"blank-{name}")
            )
    # a taper starts at its small end: what lies beyond that is turned before
    for name, start, stop, a, b in along:
        if kind_of(name) == "taper":
            steps += _tapered(s, name, a, b, stop - start)
    steps += [
        Step(
            "knurl",
            (name,),
            note="In at once by half its depth, plenty of oil, then along; slow.",
        )
        for name in here("knurl")
    ]
    for name in narrow:
        steps += _opened(s, axis, name)
    steps += [
        Step(
            "bevel",
            (name,),
            title=f"Turn {spoken(name)} in steps and file it to ⌀{ball.diameter:g}",
            tool="pointed tool both ways, file and ring",
            caution=FILING,
        )
        for name, *_ in along
        if (ball := axis.balls.get(name))
    ]
    for name in here("socket"):
        taper = taper_of(str(s[f"{name}.taper"]))
        half = taper.half_angle
        if by_angle(taper.name):
            title = f"Bore {spoken(name)}, {taper.name}, compound at {half:g}°"
            steps.append(Step("taper", (name,), title=title))
            continue
        steps += [
            Step("taper", (name,), leaves=UNDER, key=f"rough-{name}",
                 title=f"Bore {spoken(name)} under size, compound at {half:.4f}°"),
            Step("taper", (name,), title=f"Finish {spoken(name)} to its blue",
                 note="Contact all along, a little stronger at the mouth."),
        ]  # fmt: skip
    steps += [
        Step("turn", (name,), title=f"Finish step {name[4:]} to ⌀{a:g}", note=GIVES)
        for name, _, _, a, _ in along
        if name in thin
    ]
    steps += [
        Step("tap", (name,), note="Started in the tailstock: it stands straight.")
        for name in here("nut")
        if _is_tapped(s, name)
    ]
    for kind in ("undercut", "groove", "trepan"):
        steps += [Step("groove", (name,)) for name in here(kind)]
    # a thread is cut last: its tool runs out in a groove
    large = [n for n in here("nut") if not _is_tapped(s, n)]
    steps += [Step("thread", (name,)) for name in (*large, *here("thread"))]
    steps += [Step("bevel", (name,)) for name in here("edge")]
    steps += [
        Step(
            "bevel",
            (name,),
            title=f"Round the {side} edge, R{s[f'{name}.radius']:g}",
            tool="radius tool, or file and gauge",
        )
        for name in here("round")
    ]
    return steps


def _last(s: Values, axis: Axis) -> list[Step]:
    """The last steps, in which the piece does not turn."""
    steps = []
    for name in (*axis.of("ring"), *axis.of("cross")):
        hole, note = hole_of_part(s, name), ""
        if kind_of(name) == "ring":
            part, down = ledge_under(s, axis, name)
            what = "shoulder" if kind_of(part) in ALONG else "floor"
            note = on_floor(part, down, what)
        steps.append(Step("drill", (name,), note=note))
        if hole.thread:
            steps.append(Step("tap", (name,), note="In the set-up of the drill."))
        if hole.ream:
            steps.append(Step("ream", (name,)))
        if hole.bore > hole.diameter:
            steps.append(Step("counterbore", (name,)))
    steps += [Step("mill", (name,)) for name in axis.of("flat")]
    steps += [Step("keyway", (name,)) for name in axis.of("keyway")]
    steps += [Step("saw", (name,)) for name in axis.of("slit")]
    return [*steps, Step("deburr", ())]


def _keyed(s: Values, axis: Axis) -> tuple[Holding, ...]:
    """The keyways that go through a bore; none where there are none."""
    steps = tuple(
        Step(
            "keyway",
            (name,),
            title=f"Broach or slot {spoken(name)}, {s[f'{name}.width']:g} wide",
            tool="broach and bush",
            caution="Stand clear of the press; oil the broach, keep it upright.",
        )
        for name in axis.of("bore_keyway")
    )
    if not steps:
        return ()
    return (
        Holding(
            "keyed",
            "bench",
            "Under the press, on a guide bush, or in the lathe with a slotting tool",
            "The keyway follows the bore: measure to the far wall of it.",
            steps,
        ),
    )


def _chucked(s: Values, axis: Axis) -> tuple[Holding, ...]:
    """One end and then the other, each in the chuck."""
    first, other = axis.first, _OTHER[axis.first]
    opened = _from(s, axis, first, _thin(s, axis, first))
    if s["stock.length"] - axis.length >= PARTED:
        opened.append(Step("part", (f"{other}_end",), leaves=OVER))
    return (
        Holding(
            first,
            "lathe",
            f"In the chuck, {first} end out",
            "What must run true together is cut in one chucking: bores, threads and "
            "the steps of this end.",
            tuple(opened),
            "jaws",
        ),
        Holding(
            other,
            "lathe",
            "Turned round, in soft jaws or a collet",
            "Set by the indicator on a finished step, then to length.",
            tuple(_from(s, axis, other, _thin(s, axis, other))),
            "jaws",
        ),
    )


def _centred(s: Values, axis: Axis) -> bool:
    """Whether it has a centre at each end of stock that is no longer than it needs."""
    ends = {s[f"{name}.end"] for name in axis.of("centre")}
    return len(ends) == len(SIDES) and s["stock.length"] - axis.length < PARTED


def _threaded_from(s: Values, axis: Axis, name: str) -> Side:
    """The end that an outside thread is cut from."""
    end: Side = s[f"{name}.end"]
    if not s[f"{name}.from_end"]:
        return end
    middle = s[f"{name}.from_end"] + s[f"{name}.length"] / 2
    return axis.side_of(axis.length - middle if end == "right" else middle)


def _threads(steps: Sequence[Step]) -> bool:
    return any(step.operation == "thread" for step in steps)


def _between_centres(s: Values, axis: Axis) -> tuple[Holding, ...]:
    """The ends in the chuck, and what is outside between their centres."""
    first, other = axis.first, _OTHER[axis.first]
    in_the_end: dict[Side, list[Step]] = {first: [], other: []}
    outside: dict[Side, list[Step]] = {first: [], other: []}
    for side in (first, other):
        for step in _from(s, axis, side):
            ends = step.operation == "face" or kind_of(step.features[0]) in IN_THE_END
            (in_the_end if ends else outside)[side].append(step)
    one, two = first, other
    if _threads(outside[one]) and outside[two] and not _threads(outside[two]):
        one, two = two, one  # no dog stands on a thread then
    turned = [dog_on(f"the bar's {two} end", one), *outside[one]]
    if outside[two]:
        turned += [end_for_end(f"what is turned{COPPER}", two), *outside[two]]
    return (
        each_end(
            HOLES_AND_CENTRES,
            (*in_the_end[first], *in_the_end[other]),
        ),
        Holding(
            "centres",
            "lathe",
            "Between centres, with a dog",
            "All of it runs true to the same two centres: turned end for end, and put "
            "back as often as it asks.",
            tuple(turned),
            "centres",
        ),
    )


def route(s: Values) -> tuple[Holding, ...]:
    axis = Axis(s)
    last = _last(s, axis)
    milled = len(last) > 1
    turned = _between_centres if _centred(s, axis) else _chucked
    return (
        *turned(s, axis),
        *_keyed(s, axis),
        Holding(
            "last",
            "mill" if milled else "lathe",
            "In a vee block or a dividing head" if milled else "Off the machine",
            "What does not turn comes last: a hole spoils a cut that runs over it.",
            tuple(last),
        ),
    )


def _at_its_end(name: str, s: Values) -> float:
    """The diameter at the end that a part is cut from."""
    return end_face(s, Axis(s), name)[2]


def _circle(name: str, s: Values) -> float:
    return 0.7 * _at_its_end(name, s)


def _across_flats(name: str, s: Values) -> float:
    """Most of the round, as deep as a flat for a set screw or a spanner is."""
    middle = float(s[f"{name}.from_end"] + s[f"{name}.length"] / 2)
    return max(0.85 * Axis(s).round_at(middle), 1.0)


def _coarse(name: str, s: Values) -> str:
    """The largest coarse metric thread that its step can carry."""
    axis, away = Axis(s), float(s[f"{name}.from_end"])
    at = axis.length - away if s[f"{name}.end"] == "right" else away
    inside = AT_MOUTH if s[f"{name}.end"] == "left" else -AT_MOUTH
    wide = axis.round_at(at + inside) + 1e-6
    sizes = [
        thread for thread in known_threads().values() if COARSE.fullmatch(thread.name)
    ]
    least = min(sizes, key=lambda thread: thread.major)
    fits = [thread for thread in sizes if thread.major <= wide]
    return max(fits, key=lambda thread: thread.major, default=least).name


def _mouth(name: str, s: Values) -> float:
    return large_end(str(s[f"{name}.taper"]), f"{name}.taper")


def _floor(name: str, s: Values) -> str:
    """What is less deep than wide is a recess, with a flat floor, as is what no drill
    opens."""
    deep, wide = s[f"{name}.depth"], s[f"{name}.diameter"]
    return "flat" if 0 < deep < wide or wide > SAWN else "drilled"


def _face_up(name: str, s: Values) -> float:
    """The turn that the first of holes from the side stands at, degrees: on top, where
    of a hexagon's bar there is a corner; beside that, in the middle of a flat."""
    axis, z = Axis(s), float(s[f"{name}.from_end"])
    bars = [
        (start, stop) for part, start, stop, *_ in axis.steps if axis.has_corners(part)
    ]
    on_a_bar = any(start <= z <= stop for start, stop in bars)
    return 60.0 if on_a_bar and axis.sides == 6 else 90.0


def _long(name: str, s: Values) -> float:
    return socket_depth(str(s[f"{name}.taper"]), f"{name}.taper")


def _taper_length(name: str, s: Values) -> float:
    known = named_taper(s, name)
    return (known and taper_of(known).length) or 25.0


def _taper_left(name: str, s: Values) -> float:
    known = named_taper(s, name)
    if not known:
        return 20.0
    large = taper_of(known).large or 20.0
    return large - _falls(name, s) if _narrows_left(name, s) else large


def _taper_right(name: str, s: Values) -> float:
    if not named_taper(s, name):
        return 16.0
    falls = -_falls(name, s) if _narrows_left(name, s) else _falls(name, s)
    return float(s[f"{name}.left"] - falls)


def _narrows_left(name: str, s: Values) -> bool:
    """Whether the left end of a named taper is its small one, as it goes into its
    socket there."""
    along = [part for part in s["parts"] if kind_of(part) in ALONG]
    return len(along) > 1 and along[0] == name


def _falls(name: str, s: Values) -> float:
    """By how much a named taper gets smaller over its length."""
    return float(taper_of(named_taper(s, name)).ratio * s[f"{name}.length"])


def _ball_diameter(name: str, s: Values) -> float:
    """A good half over what it stands on."""
    return 1.6 * max(necks(s, name)) or 20.0


def _ball_length(name: str, s: Values) -> float:
    return sum(ball_of(s, name).sides)


def _end(usual: str = "right") -> Size:
    return Size("end", "end that {} is cut from", usual, "", kind=TEXT, choices=SIDES)


def _thread(usual: str) -> Size:
    return Size("thread", "thread of {}", usual, "", kind=TEXT)


_START = Size("start", "angle of the first of {}", "90", "on top", -360, 360, ANGLE)

PARTS = (
    FreePart("step", "A step", (
        Size("length", "length of {}", "20", "", 0, 1000),
        Size("diameter", "{}", "10 + 10*{n}", "", 1, 500),
    ), along=("diameter",), surfaces=(("shaft", "diameter"),)),
    FreePart("taper", "A taper", (
        Size("taper", "taper of {}", "none", "none: by its two ends", kind=TEXT),
        Size("length", "length of {}", OfPart(_taper_length), "as its standard has it",
             0.5, 1000, rests=("{}.taper",)),
        Size("left", "{} at its left", OfPart(_taper_left), "as its standard has it",
             1, 500, step=0.001, rests=("{}.taper", "{}.length")),
        Size("right", "{} at its right", OfPart(_taper_right), "by its taper", 1, 500,
             step=0.001,
             rests=("{}.taper", "{}.length", "{}.left")),
    ), along=("left", "right")),
    FreePart("ball", "A ball", (
        Size("diameter", "{}", OfPart(_ball_diameter), "half over its neck", 2, 400,
             up=1, rests=("{across}",)),
        Size("length", "length of {}", OfPart(_ball_length), "from neck to neck or tip",
             LEAST_BALL, 500, step=0, rests=("{}.diameter", "{across}")),
    ), along=("diameter",)),
    FreePart("bar", "The bar as it is", (
        Size("length", "length of {}", "10", "", 0, 1000),
        Size("across", "across {}", "32", "as it is bought", 1, 500),
    ), along=("across",)),
    FreePart("bore", "A bore", (
        _end(),
        Size("diameter", "{}", "8", "", 1, 400),
        Size("depth", "depth of {}", "0", "0 goes through", 0, 1500),
        Size("floor", "floor of {}", OfPart(_floor), "flat in a recess",
             kind=TEXT, choices=("drilled", "flat"),
             rests=("{}.depth", "{}.diameter")),
    ), surfaces=(("bore", "diameter"), ("recess", "diameter"),
                 ("recess-depth", "depth"))),
    FreePart("socket", "A taper inside", (
        _end(),
        Size("taper", "taper of {}", "MT2", "", kind=TEXT),
        Size("mouth", "mouth of {}", OfPart(_mouth), "as its standard has it", 2, 200,
             step=0.001, rests=("{}.taper",)),
        Size("depth", "depth of {}", OfPart(_long), "past its gauge", 2, 400,
             step=0.5, rests=("{}.taper",)),
    )),
    FreePart("thread", "A thread outside", (
        _end(),
        Size("thread", "thread of {}", OfPart(_coarse), "what its step carries",
             kind=TEXT, rests=("{}.end", "{}.from_end", "{along}")),
        Size("length", "length of {}", "12", "", 2, 500),
        Size("from_end", "{} from its end", "0", "0 is at its end", 0, 1500),
    )),
    FreePart("nut", "A thread inside", (
        _end(), _thread("M8"), Size("depth", "depth of {}", "16", "0 goes through",
                                    0, 500),
    )),
    FreePart("groove", "A groove outside", (
        Size("from_end", "{} from the left end", "{all}/2", "the middle", 0, 1500),
        Size("width", "width of {}", "3", "", 0.3, 200),
        Size("diameter", "floor of {}", "{widest} - 4", "two deep", 0.5, 500),
    )),
    FreePart("undercut", "A groove in a bore", (
        Size("from_end", "{} from the left end", "{all}/2", "the middle", 0, 1500),
        Size("width", "width of {}", "2", "", 0.3, 200),
        Size("diameter", "floor of {}", "12", "", 1, 400),
    )),
    FreePart("trepan", "A groove in a face", (
        _end(),
        Size("inner", "{} inside", "12", "", 1, 480),
        Size("outer", "{} outside", "16", "", 1.5, 490),
        Size("depth", "depth of {}", "3", "", 0.2, 200),
    )),
    FreePart("cross", "Holes from the side", (
        Size("from_end", "{} from the left end", "{all}/2", "the middle", 0, 1500),
        Size("diameter", "hole of {}", "5", "", 0.5, 100),
        Size("count", "how many holes {} has", "1", "", 1, 24, COUNT),
        Size("depth", "depth of {}", "0", "0 goes through, or several to the axis",
             0, 500),
        Size("start", "angle of the first of {}", OfPart(_face_up),
             "on top, of a hexagon on a flat", -360, 360, ANGLE,
             rests=("stock.shape", "{}.from_end", "{along}")),
        _thread("none"),
        Size("reamed", "{} reamed", "no", kind=FLAG),
    )),
    FreePart("ring", "Holes in a face, on a circle", (
        _end(),
        Size("count", "how many holes {} has", "4", "", 1, 60, COUNT),
        Size("circle", "circle of {}", OfPart(_circle), "well inside", 2, 480,
             step=0.5, rests=("{}.end", "{along}")),
        _START,
        Size("diameter", "hole of {}", "5", "", 0.5, 100),
        Size("depth", "depth of {}", "12", "0 goes through", 0, 1000),
        _thread("none"),
        Size("reamed", "{} reamed", "no", kind=FLAG),
        Size("counterbore", "counterbore of {}", "0", "0 for none", 0, 200),
        Size("counterbore_depth", "depth of that counterbore, {}", "{}.diameter",
             "as deep as the hole is wide", 0.2, 200),
    )),
    FreePart("flat", "Flats", (
        Size("from_end", "{} from the left end", "0", "the end", 0, 1500),
        Size("length", "length of {}", "10", "", 0.5, 1000),
        Size("across", "across {}, or to the far side", OfPart(_across_flats),
             "0.85 of its round", 1, 490, step=0.5,
             rests=("{}.from_end", "{}.length", "{along}")),
        Size("count", "how many flats {} has", "2", "", 1, 12, COUNT),
    )),
    FreePart("keyway", "A keyway", (
        Size("from_end", "{} from the left end", "5", "", 0, 1500),
        Size("length", "length of {}", "15", "", 1, 1000),
        Size("width", "width of {}", "5", "", 0.5, 100),
        Size("depth", "depth of {}", "3", "from the round", 0.2, 60),
    )),
    FreePart("bore_keyway", "A keyway through the bore", (
        Size("width", "width of {}", "3", "", 1, 100),
        Size("depth", "depth of {}", "1.4", "from the round", 0.2, 60),
    )),
    FreePart("centre", "A centre hole", (
        _end("right|left"), Size("mouth", "mouth of {}", "5", "", 0.5, 60),
    )),
    FreePart("edge", "A chamfer", (
        _end("right|left"), Size("leg", "{}", "0.5", "", 0.05, 50),
        Size("of", "edge of {}", "outside", "", kind=TEXT, choices=("outside", "bore")),
        Size("angle", "angle of {} to the axis", "45", "", 5, 85, ANGLE),
    )),
    FreePart("round", "A rounded edge", (
        _end("right|left"), Size("radius", "radius of {}", "2", "", 0.1, 100),
    )),
    FreePart("slit", "Saw slits from an end", (
        _end(),
        Size("count", "how many slits {} has", "2", "", 1, 12, COUNT),
        Size("width", "width of {}", "1.5", "a slitting saw", 0.3, 10),
        Size("length", "length of {}", "{all}/3", "", 1, 1000, step=0.5),
    )),
    FreePart("knurl", "A knurl", (
        Size("from_end", "{} from the left end", "1", "", 0, 1500),
        Size("length", "length of {}", "15", "", 1, 500),
        Size("pitch", "pitch of {}", "1", "as the wheels have", 0.3, 3),
        Size("crossed", "{} crossed", "yes", kind=FLAG),
    )),
)  # fmt: skip


def checks(s: Values) -> Iterable[Check]:
    yield from _turned_checks.checks(s)
    every = [it for it in build(s).features if not isinstance(it, AT_ENDS)]
    left = list(every)
    for holes in [it for it in left if isinstance(it, Holes | CrossHoles)]:
        left.remove(holes)  # of two holes the first says it
        yield from wall_checks(holes, left)
        if isinstance(holes, CrossHoles) and holes.hole.thread:
            metal = str(s["material"])
            engaged = _engaged(holes, [it for it in every if it is not holes])
            yield from thread_checks(holes.name, holes.hole, metal, engaged)


def _engaged(holes: CrossHoles, others: Sequence[Feature]) -> float:
    """The thread that a screw from the side has, mm: as far as the axis, where a bore
    ends it there, else all of it."""
    deep = holes.hole.threaded(holes.through)
    near = min(deep, holes.diameter / 2)
    left = in_metal(holes, near, others)
    return left if left < 0.99 * near else in_metal(holes, deep, others)


FAMILY = grown(
    Family(
        "turned-piece",
        "Turned piece",
        "Any round: steps, tapers, balls, bores, threads, grooves, holes, one by one.",
        "as a stub of two steps with broken edges",
        also="shaft axle spindle roller stub bush bushing stepped round bar pin dowel "
        "clevis hinge pivot stud boss hub arbor knob adapter collar dial ball handle "
        "free shoulder set screw feed leadscrew lead punch drift plunger piston plug "
        "ring gauge test alignment bar mandrel between centres dead half centre "
        "Morse reducing sleeve extension drill chuck die tap reamer broach holder "
        "guide tailstock faceplate catch drive plate gear blank hexagon square bar "
        "nut hex acme spider steady rest finger tip protector cap edge finder",
        free=True,
        sizes=(
            Size("stock.shape", "the bar is", "round", "", kind=TEXT,
                 choices=tuple(SIDES_OF)),
            Size("stock.diameter", "stock diameter", _stock,
                 "a clean-up, or the bar as it is", 2, 520,
                 rests=("{along}", "stock.shape")),
            Size("stock.length", "stock length", _long_enough,
                 "both faces, and of one step alone what the jaws hold", 3, 1500,
                 rests=("{along}",), up=1),
            STOCK_BORE,
        ),
        parts=PARTS,
        build=build,
        route=route,
        checks=checks,
        full={
            "parts": "step taper step bore bore nut thread groove undercut trepan edge",
            "step1.length": "30",
            "step1.diameter": "24",
            "taper1.left": "24",
            "taper1.right": "30",
            "step2.length": "40",
            "step2.diameter": "30",
            "bore1.diameter": "6",
            "bore2.end": "left",
            "bore2.diameter": "11",
            "bore2.depth": "20",
            "bore2.floor": "flat",
            "nut1.thread": "M10",
            "thread1.thread": "M30",
            "groove1.from_end": "62",
            "groove1.diameter": "26",
            "undercut1.from_end": "12",
            "undercut1.diameter": "14",
            "trepan1.inner": "16",
            "trepan1.outer": "20",
            "trepan1.end": "left",
            "edge1.leg": "1",
        },
        ways=(
            {
                "parts": "ball step step nut edge",
                "ball1.diameter": "18",
                "step1.diameter": "10",
                "step1.length": "40",
                "step2.diameter": "12",
                "nut1.thread": "M6",
                "edge1.end": "right",
            },
            {
                "parts": "step step bore knurl round edge slit bore_keyway",
                "bore1.diameter": "6",
                "bore_keyway1.width": "2",
                "bore_keyway1.depth": "1",
                "step1.length": "22",
                "step1.diameter": "24.83",
                "step2.length": "12",
                "step2.diameter": "14",
                "edge1.end": "left",
                "knurl1.crossed": "no",
            },
            {
                "parts": "bar step nut edge edge",
                "stock.shape": "hexagon",
                "bar1.across": "24",
                "bar1.length": "13",
                "step1.diameter": "18",
                "nut1.thread": "M12",
                "nut1.depth": "0",
                "edge2.leg": "1.5",
            },
            {
                "parts": "step bar step bore cross",
                "bar1.across": "32",
                "bar1.length": "30",
                "step2.diameter": "16",
                "cross1.from_end": "40",
            },
            {
                "parts": "step taper bore socket edge",
                "step1.length": "20",
                "step1.diameter": "40",
                "taper1.taper": "MT4",
                "bore1.diameter": "13",
                "socket1.end": "left",
                "edge1.end": "right",
                "edge1.of": "bore",
                "edge1.angle": "30",
            },
            {
                "parts": "step step step cross ring flat keyway centre edge edge",
                "step1.diameter": "24",
                "step1.length": "40",
                "step2.diameter": "60",
                "step3.diameter": "30",
                "cross1.from_end": "50",
                "cross1.start": "45",
                "cross1.depth": "16",
                "ring1.circle": "20",
                "ring1.diameter": "4",
                "ring1.counterbore": "7",
                "ring1.counterbore_depth": "3",
                "flat1.length": "8",
                "flat1.across": "22",
                "keyway1.from_end": "16",
                "keyway1.width": "3",
                "keyway1.depth": "1.5",
            },
        ),
    ),
    ("step1", "step2", "edge1", "edge2"),
)  # fmt: skip
