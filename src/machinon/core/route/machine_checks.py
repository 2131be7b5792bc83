"""Whether the machine takes the piece, and each holding holds it.

Source: geometry; how much must be held and how far a bar sticks out are shop rules.
"""

from collections.abc import Iterator, Mapping, Sequence
from itertools import chain

from machinon.core.cutting.machining import QUIET, QUIET_STEEL
from machinon.core.materials import material
from machinon.core.piece.body import Body
from machinon.core.piece.family import Check, at_least, spoken
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import CrossHoles, Holes
from machinon.core.piece.made import Made
from machinon.core.piece.stock import Block
from machinon.core.piece.turned_features import (
    Ball,
    Bore,
    Centre,
    Cone,
    Cylinder,
    End,
    Groove,
    NutThread,
    Screw,
    TaperBore,
)
from machinon.core.quantity import FOOT, POWER, in_both_texts
from machinon.core.route.bars import bar_of, end_of, otherwise
from machinon.core.route.drills import travel
from machinon.core.route.motor import motor_of
from machinon.core.route.no_mill import CLEAR
from machinon.core.route.steps import HoldingTold, StepTold
from machinon.core.route.work.drilling import tip
from machinon.core.shop.machines import Machine
from machinon.core.shop.things import Lathe
from machinon.core.wording import within

IN_THE_JAWS = 50.0  # mm of a bar that a chuck takes up
LEAST_HELD = 5.0  # mm in the jaws
HELD_SHARE = 0.2  # of what sticks out
ALONE = 5.0  # diameters that a bar may stick out of the jaws
CUTTER = 20.0  # mm: it runs off the metal at both ends by half of it
OVER_TABLE = 130.0  # mm that a small vise and a tool in its holder take
OVER_A_HOLE = 5.0  # mm that a drill starts over its hole
BY_HALF = 2.0  # times the motor: at half of the usual feed or depth it still cuts
SUPPORTED = 12.0  # diameters with a centre at its end, or between two
GRIP = 1000.0  # N of each jaw, gently
THIN = 0.12  # of its diameter: a thinner wall gives in the jaws
# how far a ring is out of round by three equal forces, of F · r³ / (E · I): in beneath
# each, and out between them; Timoshenko, Strength of Materials II, rings
THREE_LOBES = 0.01594 + 0.01426
ROUND = 0.010  # mm out of round in the jaws that most work bears
ROUNDS = Cylinder | Cone | Screw | Bore | NutThread | TaperBore  # what must be round


def on_the_lathe(made: Made, lathe: Lathe | None) -> Iterator[Check]:
    """Whether the lathe swings a piece that turns, and is long enough for it."""
    stock = made.body.stock
    if lathe is None or isinstance(stock, Block):
        return
    wide = stock.widest
    yield at_least(
        "swing",
        "stock",
        2 * lathe.centre_height - wide,
        CLEAR,
        f"Room for the stock to swing over the bed of {lathe.name}",
    )
    yield at_least(
        "swing-slide",
        "stock",
        lathe.swing_over_slide - made.body.largest,
        4.0,
        "Room for the piece to swing over the cross slide",
        grave=False,
    )
    yield at_least(
        "between-centres",
        "stock",
        lathe.between_centres - (stock.end - stock.start),
        0.0,
        "Room between the centres for the stock",
    )
    out = stock.end - stock.start - IN_THE_JAWS
    if 0 < lathe.spindle_bore < wide < out:
        most = ALONE * wide
        yield Check(
            "spindle-bore",
            "stock",
            out <= most,
            f"⌀{wide:.4g} does not go into the spindle of {lathe.name}, which takes "
            f"⌀{lathe.spindle_bore:g}: {out:.0f} mm stand out while an end is faced, "
            f"up to {most:.0f} mm without a steady.",
            grave=False,
            have=most,
            need=out,
        )
    metal = material(made.material)
    fastest = max(lathe.speeds, default=0.0)
    if metal.rim and fastest:
        limit = metal.rim_rpm(made.body.largest)
        runs = (
            f"A rim of {metal.name} runs {{}} at most, that is "
            f"{10 * int(limit / 10)} rpm for this one; {lathe.name} turns up to "
            f"{fastest:.0f}."
        )
        yield Check(
            "rim",
            "stock",
            fastest <= limit,
            runs.format(f"{metal.rim:g} m/s"),
            grave=False,
            form=runs.format(f"{metal.rim / FOOT:.0f} ft/s"),
        )


def on_the_mill(made: Made, mill: Machine | None) -> Iterator[Check]:
    """Whether the vise takes a block, and the table's travel and the spindle's height
    let the cutter over all of it; of what is known of the mill."""
    stock = made.body.stock
    if mill is None or not isinstance(stock, Block):
        return
    long, wide, high = stock.size
    known = (
        ("vise_opens", "vise", min(wide, high), "Opening of the vise", ""),
        ("travel_x", "travel-x", long + CUTTER, "Travel of the table", " lengthwise"),
        ("travel_y", "travel-y", wide + CUTTER, "Travel of the saddle", " across"),
        (
            "under_spindle",
            "under-spindle",
            high + OVER_TABLE,
            "Room under the spindle",
            " with vise and tool",
        ),
    )
    for figure, key, need, words, how in known:
        have = mill.number(figure)
        if have:
            says = f"{words} of {mill.name} for the stock{how}"
            yield at_least(key, "stock", have, need, says, grave=False)


def on_the_drill_press(
    route: Sequence[HoldingTold], drill_press: Machine | None
) -> Iterator[Check]:
    """Whether a drill press takes the holes that are drilled off the lathe: their
    drills and, in one go of its quill, their depth; of what is known of it."""
    if drill_press is None:
        return
    holes = [
        (step, feature)
        for up in route
        if up.machine == "drill"
        for step in up.steps
        if step.operation == "drill"
        for feature in step.cut
        if isinstance(feature, Holes | CrossHoles)
    ]
    if not holes:
        return
    widest, hole = max(holes, key=lambda found: found[0].drill)
    if most := drill_press.number("largest"):
        says = f"Largest drill of {drill_press.name}, for {spoken(hole.name)}"
        yield at_least(
            "largest-drill", hole.name, most, widest.drill, says, grave=False
        )
    deep = {
        hole.name: (hole.hole.depth or hole.through * step.stacked)
        + tip(step.drill)
        + OVER_A_HOLE
        for step, hole in holes
    }
    deepest = max(deep, key=lambda name: deep[name])
    if quill := drill_press.number("travel_z"):
        says = f"Travel of the quill of {drill_press.name}, for {spoken(deepest)}"
        yield at_least("quill", deepest, quill, deep[deepest], says, grave=False)


def on_the_grinder(
    made: Made, route: Sequence[HoldingTold], grinder: Machine | None
) -> Iterator[Check]:
    """Whether a cylindrical grinder swings what is ground on it and is long enough for
    it; of what is known of it."""
    if grinder is None or not any(up.machine == "grinder" for up in route):
        return
    first, last = made.body.ends
    known = (
        ("swing", 2 * grinder.number("centre_height"), made.body.largest, "to swing"),
        ("centres", grinder.number("between_centres"), last - first, "between centres"),
    )
    for key, have, need, words in known:
        if have:
            says = f"Room {words} on {grinder.name}"
            yield at_least(f"grinder-{key}", "stock", have, need, says, grave=False)


def by_the_motor(
    route: Sequence[HoldingTold], machines: Mapping[str, Machine | Lathe | None]
) -> Iterator[Check]:
    """Whether the motor of each machine drives the heaviest of the cuts made on it, at
    a usual feed; machines by their names in a route, those whose motor is known.

    Source: the reckoning of a cut's power.
    """
    for name, machine in machines.items():
        if machine is None or not machine.power:
            continue
        has = machine.power
        steps = [step for up in route if up.machine == name for step in up.steps]
        cuts = [(motor_of(step), step) for step in _heaviest(steps)]
        needs, step = max(cuts, key=lambda cut: cut[0], default=(0.0, None))
        if step is None or not needs:
            continue
        place = step.features[0]
        passed = needs <= has * BY_HALF
        instead = ""
        if needs > has and step.drill:
            other = "." if passed else ", or put one more drill before it."
            instead = f" Feed it gently{other}"
        elif needs > has:
            instead = f" Take {has / needs:.0%} of a usual pass at most."
        metric, inches = (
            f"Motor of {machine.name} to {step.operation} {spoken(place)}: {there}; "
            f"at a usual feed it takes about {wanted}.{instead}"
            for there, wanted in (
                [in_both_texts(power, POWER, inch)[0] for power in (has, needs)]
                for inch in (False, True)
            )
        )
        yield Check(f"motor-{name}", place, passed, metric, False, form=inches)


def _heaviest(steps: Sequence[StepTold]) -> Iterator[StepTold]:
    """The widest drill, and a cut of the lathe's: at the speed of its surface each of
    those takes the same."""
    drills = [step for step in steps if step.operation == "drill"]
    if drills:
        yield max(drills, key=lambda step: step.drill)
    yield from [s for s in steps if s.operation == "turn" and s.before.turns][:1]


# what is done with high-speed steel in a home shop
NOT_IN_HARD = ("drill", "tap", "ream", "thread", "knurl", "saw", "broach")


def along_the_route(route: Sequence[HoldingTold]) -> Iterator[Check]:
    """All that is checked of a route by itself."""
    yield from hard_metal(route)
    yield from held_well(route)
    yield from bars_reach(route)


def hard_metal(route: Sequence[HoldingTold]) -> Iterator[Check]:
    """Steps that are impossible once the metal is hard, and must have been done
    before."""
    steps = [s for up in route for s in up.steps if s.operation in NOT_IN_HARD]
    for step in steps:
        if not material(step.material).hard:
            return
        yield Check(
            f"hard-{step.key}",
            step.features[0] if step.features else "stock",
            False,
            f"{step.title}: not in {step.material}. Do it before it is hardened, or "
            "soften that place; only light carbide cuts and the wheel go on.",
            grave=step.operation in ("tap", "knurl", "broach"),
        )


def bars_reach(route: Sequence[HoldingTold]) -> Iterator[Check]:
    """Whether the thickest bar that goes into a deep bore is stiff enough to cut."""
    told: set[str] = set()  # a roughed one says it once
    for step in (step for up in route for step in up.steps):
        bar = bar_of(step)
        if bar is None or bar.slender <= QUIET_STEEL or step.features[0] in told:
            continue
        told.add(step.features[0])
        most = QUIET["carbide"]
        # a reamer or a tap does a taper or a thread instead; a bore is of any size
        passed = bar.slender <= bar.most or step.operation != "bore"
        says = (
            f"Boring bar for {spoken(step.features[0])}: ⌀{{}} at most, {{}} out, "
            f"{bar.slender:.1f} times as long as thick; up to {QUIET_STEEL:g} in steel "
            f"and {most:g} in carbide stay quiet."
        )
        says += otherwise(step, bar)
        thick, out = f"{bar.thick:.1f} mm", f"{bar.out:.0f} mm"
        yield Check(
            f"bar-{step.key}",
            step.features[0],
            passed,
            says.format(thick, out),
            grave=False,
            have=most * bar.thick,
            need=bar.out,
            form=says.replace("{}", "{} in"),
            lengths=(bar.thick, bar.out),
        )


def held_well(route: Sequence[HoldingTold]) -> Iterator[Check]:
    """The grip of the jaws, and whether the work stays straight under the tool."""
    for up in route:
        body = up.steps[-1].after
        there = {feature.name: feature for feature in body.features}
        names = dict.fromkeys(chain.from_iterable(step.features for step in up.steps))
        cut = [there[name] for name in names if name in there]
        if up.held == "jaws":
            yield from _in_the_jaws(up, body, cut)
        elif up.held == "centres":
            yield from _straight(up, cut, end_of(body, "left"), end_of(body, "right"))


def _in_the_jaws(
    up: HoldingTold, body: Body, cut: Sequence[Feature]
) -> Iterator[Check]:
    # the first end that is faced sticks out; another is parted off
    ends = [feature for feature in cut if isinstance(feature, End)]
    side = ends[0].side if ends else "right"
    tip = end_of(body, side)
    held_end = end_of(up.steps[0].before, "left" if side == "right" else "right")
    stations = [end.z for end in ends]
    stations += [z for feature in cut for z in _outside(feature)[:2]]
    root = (min if side == "right" else max)(stations, default=tip)
    yield at_least(
        f"grip-{up.key}",
        "stock",
        max(0.0, root - held_end if side == "right" else held_end - root),
        max(LEAST_HELD, HELD_SHARE * abs(tip - root)),
        f"Left for the jaws ({within(up.title)})",
        grave=False,
    )
    if any(isinstance(feature, ROUNDS) for feature in cut):
        yield from _squeezed(up, body, (held_end + root) / 2, abs(tip - held_end))
    centred = any(
        isinstance(feature, Centre) and feature.side == side
        for feature in body.features
    )
    if abs(tip - root):
        yield from _straight(up, cut, root, tip, centred)


def _squeezed(up: HoldingTold, body: Body, z: float, long: float) -> Iterator[Check]:
    """How far the jaws press a thin wall out of round, at a station that they grip:
    what is cut round in them springs back to three lobes."""
    holes = (travel(it) for it in body.features if isinstance(it, Bore | NutThread))
    if not body.stock.bore and not any(start < z < end for start, end in holes):
        return  # told by the features alone: a section is dear
    inner, outer = body.radii(z)
    wall, radius = outer - inner, (outer + inner) / 2
    if not inner or wall > 2 * THIN * outer:
        return
    bears = min(long, 2 * radius)  # what is further off does not help
    stiff = material(up.steps[-1].material).modulus * bears * wall**3 / 12
    lobes = THREE_LOBES * GRIP * radius**3 / stiff
    yield Check(
        f"squeeze-{up.key}",
        "stock",
        lobes <= ROUND,
        f"A wall of {wall:.2f} mm: three jaws at {GRIP / 1000:g} kN each press it "
        f"{1000 * lobes:.0f} µm out of round ({within(up.title)}), up to "
        f"{1000 * ROUND:.0f} µm is wanted. Jaws that go all round it, or a plug in it.",
        grave=False,
        have=ROUND,
        need=lobes,
    )


def _straight(
    up: HoldingTold,
    cut: Sequence[Feature],
    held: float,
    tip: float,
    centred: bool | None = None,
) -> Iterator[Check]:
    """The thinnest place by what it carries: from it to the tip that sticks out of the
    jaws, or as the middle of a bar between centres (centred None)."""
    worst: tuple[float, float, float, str] | None = None
    for feature in cut:
        found = _outside(feature)
        if not found or found[2] <= 0:  # what comes to a point carries nothing there
            continue
        start, end, thin = found
        if centred is None:
            out = 2 * min(end - held, tip - start, (tip - held) / 2)
        else:
            out = max(abs(tip - start), abs(tip - end))
        if worst is None or out / thin > worst[0]:
            worst = (out / thin, out, thin, feature.name)
    if worst is None:
        return
    _, out, thin, place = worst
    most = thin * (ALONE if centred is False else SUPPORTED)
    where = "between centres" if centred is None else "out of the jaws"
    without = "the tailstock" if centred is False else "a steady"
    yield Check(
        f"straight-{up.key}",
        place,
        out <= most,
        f"Bends as {out:.0f} mm of ⌀{thin:.4g} {where}: up to {most:.0f} mm without "
        f"{without}.",
        grave=False,
        have=most,
        need=out,
    )


def _outside(ball: Feature) -> tuple[float, ...]:
    """Stations and least diameter of what is turned outside; empty for others."""
    match ball:
        case Cone():
            return ball.start, ball.end, min(ball.start_diameter, ball.end_diameter)
        case Ball():  # it carries by its necks, whatever its tip is like
            necks = ball.at(ball.start), ball.at(ball.end)
            return ball.start, ball.end, min(filter(None, necks), default=ball.diameter)
        case Screw():
            return ball.start, ball.end, ball.of.minor_external
        case Cylinder() | Groove() if not getattr(ball, "inside", False):
            return ball.start, ball.end, ball.diameter
    return ()
