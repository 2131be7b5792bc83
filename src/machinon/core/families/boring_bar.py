"""Single-point bar: carries one bit or several across it, for a holder or between two
supports.

z = 0 is the end in the holder; the bits stand along the bar towards its right end, each
held by a set screw that meets it square from the side.
"""

import math
from collections.abc import Iterable

from machinon.core.errors import BadInput
from machinon.core.families._between_centres import dog_on, each_end
from machinon.core.families._tapped import tapped, thread_within
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    Check,
    Family,
    FitSlot,
    Holding,
    Mate,
    MateSize,
    Ring,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.feature import Feature
from machinon.core.piece.hardware import Hardware, set_screws
from machinon.core.piece.hole_features import CrossHoles, Hole
from machinon.core.piece.milled_features import Flats
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Bevel, Centre, Cylinder, End
from machinon.core.quantity import COUNT
from machinon.core.reckoning import TEXT, reckon
from machinon.core.threads.screw_thread import thread_of

OVER = 2.0  # mm: stock over each end
FLAT_AT = 3.0  # mm: where the flat for the holder's screws begins
SLIM = 0.5  # of the bar: the largest bit that leaves it its stiffness
LONG_FREE = 4.0  # diameters that a steel bar stands out before it chatters
LONG_BETWEEN = 12.0  # diameters between two supports


def _bits(s: Values) -> list[float]:
    """Stations of the bits, z, the outermost first."""
    count = int(s["bits.count"])
    last = s["bar.length"] - s["bits.from_end"]
    return [last - i * s["bits.pitch"] for i in range(count)]


def _between(s: Values) -> bool:
    """Whether a pilot at the far end runs in a bushing."""
    return bool(s["pilot.length"])


def _grub(s: Values) -> Hole:
    return tapped(str(s["grubs.thread"]))


def _grub_size(s: Values) -> str:
    """A screw about half as thick as the bit."""
    return thread_within(0.6 * s["bits.diameter"], "M8", "M6", "M5", "M4", "M3")


def _square(s: Values) -> bool:
    return bool(s["bits.shape"] == "square")


def _bit_hole(s: Values) -> Hole:
    """Reamed for a round bit; drilled and broached for a square one."""
    if not _square(s):
        return Hole(s["bits.diameter"], ream=True)
    pilot = reckon("square-hole", {"size": s["bits.diameter"]})["drill"]
    return Hole(float(pilot), square=s["bits.diameter"])


def _front_centre(s: Values) -> Centre:
    pilot = s["pilot.length"]
    tip = s["pilot.diameter"] if pilot else s["bar.diameter"]
    end = s["bar.length"] + pilot
    return Centre("front_centre", end, "right", round(0.3 * tip, 1))


def build(s: Values) -> Body:
    long, wide = s["bar.length"], s["bar.diameter"]
    pilot = s["pilot.length"]
    features: list[Feature] = [
        End("rear", 0.0, "left"),
        Cylinder("bar", 0.0, long, wide),
        End("front", long + pilot, "right"),
        Bevel("rear_edge", 0.0, wide, 0.5, "left"),
    ]
    features += [
        Centre("rear_centre", 0.0, "left", round(0.3 * wide, 1)),
        _front_centre(s),
    ]
    if pilot:
        features.append(
            Cylinder("pilot", long, long + pilot, s["pilot.diameter"], "length", "left")
        )
    else:
        features.append(Bevel("front_edge", long, wide, 0.5, "right"))
    if s["flat.length"]:
        if s["flat.depth"] >= wide:
            says = f"The flat takes the whole bar away: less than {wide:g} mm does."
            raise BadInput("flat.depth", says)
        across = 2 * (wide / 2 - s["flat.depth"])
        end = FLAT_AT + s["flat.length"]
        features.append(Flats("flat", FLAT_AT, end, across, 1, wide))
    stations = _bits(s)
    for i, z in enumerate(stations, 1):
        bit = _bit_hole(s)
        # the outermost from the end, each other from the one outside of it
        beyond = stations[i - 2] if i > 1 else None
        features.append(
            CrossHoles(f"bit{i}", z, wide, bit, wide, end_at=long, beside=beyond)
        )
        features.append(CrossHoles(f"grub{i}", z, wide, _grub(s), wide / 2, 1, 180.0))
    return Body(
        Round(s["stock.diameter"], -OVER, s["stock.length"] - OVER), tuple(features)
    )


def checks(s: Values) -> Iterable[Check]:
    wide, bit = s["bar.diameter"], s["bits.diameter"]
    yield at_least(
        "bar-beside-bit",
        "bar",
        SLIM * wide,
        bit,
        "Half of the bar, which is the thickest bit it carries",
    )
    yield from _bit_checks(s)
    yield at_least(
        "held",
        "bar",
        s["bar.length"] - s["bits.from_end"] - s["bar.overhang"],
        2.0 * wide,
        "Length of the bar in its holder (two diameters)",
        grave=False,
    )
    yield _stiffness(s)
    if _between(s):
        yield at_least(
            "pilot-passes",
            "pilot",
            wide - s["pilot.diameter"],
            1.0,
            "Pilot thinner than the bar, so that the bits pass where it ran",
        )
    if s["flat.length"]:
        yield at_least(
            "flat-left",
            "flat",
            s["bar.diameter"] - s["flat.depth"],
            0.75 * s["bar.diameter"],
            "Bar left under the flat (three quarters)",
        )
        yield at_least(
            "flat-clear",
            "flat",
            _bits(s)[-1] - bit / 2 - FLAT_AT - s["flat.length"],
            bit,
            "Round left between the flat and the first bit",
        )


def _bit_checks(s: Values) -> Iterable[Check]:
    wide, bit = s["bar.diameter"], s["bits.diameter"]
    grub = thread_of(str(s["grubs.thread"]))
    if _square(s):
        yield at_least(
            "corner-wall",
            "bit1",
            (wide - math.sqrt(2) * bit) / 2,
            0.15 * wide,
            "Wall of the bar beside the corners of a square bit (0.15 of it)",
        )
    yield at_least(
        "grub-thread",
        "grub1",
        (wide - bit) / 2 - s["grubs.sunk"],
        3.5 * grub.pitch,
        "Thread that holds a set screw over its bit, once it is sunk "
        "(three and a half turns)",
    )
    yield at_least(
        "bit-enters",
        "bar",
        (s["work.bore"] - wide) / 2,
        1.0,
        "Room between bar and bore for the chips, to a side",
    )
    out = (s["work.bore"] - wide) / 2
    yield Check(
        "bit-out",
        "bit1",
        out <= 1.5 * bit,
        f"The bit stands out {out:.2f} mm to cut ⌀{s['work.bore']:g}; up to "
        f"{1.5 * bit:.2f} mm, one and a half times its thickness, stays stiff.",
        grave=False,
        have=out,
        need=1.5 * bit,
    )
    yield at_least(
        "end-of-bar",
        "bit1",
        s["bits.from_end"] - bit / 2,
        bit / 2,
        "Metal between the last bit and the end of the bar (half the bit)",
    )
    if not s["pilot.length"]:
        yield at_least(
            "bit-centre",
            "bit1",
            s["bits.from_end"] - bit / 2,
            _front_centre(s).depth + 0.5,
            "Bar between the last bit and its end, deeper than the centre there",
        )
    if int(s["bits.count"]) > 1:
        yield at_least(
            "between-bits",
            "bit1",
            s["bits.pitch"] - bit,
            bit,
            "Metal between two bits (the bit's thickness)",
        )


def _stiffness(s: Values) -> Check:
    wide = s["bar.diameter"]
    between = _between(s)
    kind = "steadied" if between else "free"
    most = LONG_BETWEEN if between else LONG_FREE
    # from the holder to the bit, or on to the middle of the pilot's bushing
    span = s["bar.overhang"]
    if between:
        span += s["bits.from_end"] + s["pilot.length"] / 2
    bar = reckon(
        "boring-bar",
        {"bar_diameter": wide, "overhang": span, "support": kind},
    )
    give = float(bar["deflection"])
    return Check(
        "stiffness",
        "bar",
        span <= most * wide + 1e-9,
        f"It stands out {span / wide:.1f} diameters, up to {most:g} is wanted; 100 N "
        f"at the cut bend it {give * 1000:.0f} µm.",
        grave=False,
        have=span,
        need=most * wide,
    )


def _bit_steps(s: Values) -> Iterable[Step]:
    for i, z in enumerate(_bits(s), 1):
        yield Step(
            "drill",
            (f"bit{i}",),
            note=f"{z:.1f} mm from the rear end. "
            + ("" if _square(s) else "Drill it under size. ")
            + "The bar stays on its jacks or vees."
            + (
                " Shifted along them it must not roll: a pin in the first hole against "
                "a square keeps them in line."
                if i > 1
                else ""
            ),
            key=f"drill-bit{i}",
        )
        if not _square(s):
            yield Step("ream", (f"bit{i}",), key=f"ream-bit{i}")


def _broached(s: Values) -> tuple[Holding, ...]:
    """The squares, pushed through one after the other under the press."""
    if not _square(s):
        return ()
    holes = range(1, int(s["bits.count"]) + 1)
    return (
        Holding(
            "broach",
            "bench",
            "Under the press, in vee blocks",
            "A square hole follows its pilot: its flats stand along the bar by a "
            "square on the first teeth.",
            tuple(
                Step("broach", (f"bit{i}",), title=f"Broach the square of bit {i}",
                     key=f"broach-bit{i}")
                for i in holes
            ),
        ),
    )  # fmt: skip


def route(s: Values) -> tuple[Holding, ...]:
    between = _between(s)
    numbers = range(1, int(s["bits.count"]) + 1)
    turned = (
        dog_on("the rear end", "right"),
        Step("turn", ("bar",), leaves=0.25, title="Rough the bar, 0.5 mm over",
             note="Up to the dog; then end for end, the dog over copper, and what it "
             "covered."),
        *((Step("turn", ("pilot",), fit="pilot"),) if between else ()),
        Step("turn", ("bar",), title="Finish the bar to its band", fit="bar",
             note="Equal light cuts; measure at both ends: it turns tapered. What the "
             "dog covers is finished end for end, at the same reading of the dial."),
    )  # fmt: skip
    edges = ("rear_edge",) if between else ("rear_edge", "front_edge")
    mount = Step(
        "mount",
        (),
        title="Lay the bar in the vise, jacks under what stands out",
        tool="vee block, jacks",
        note="The jacks a hair below the vise: they carry, they do not lift. Set the "
        "bar level and its middle by the indicator.",
        key="lay-down",
    )
    deep = f"Mill the flat for the holder's screws, {s['flat.depth']:g} deep"
    flat = (Step("mill", ("flat",), title=deep),) if s["flat.length"] else ()
    return (
        each_end(
            "Both ends get a centre first: everything after is turned between them.",
            (
                Step("face", ("rear",)),
                Step("centre", ("rear_centre",)),
                Step("face", ("front",), title="Turn it round, face to length"),
                Step("centre", ("front_centre",)),
            ),
        ),
        Holding(
            "turning",
            "lathe",
            "Between centres, with a dog",
            "The bar's outside is one diameter from end to end: what it slides in is "
            "proved along all of it.",
            (
                *turned,
                Step("bevel", edges),
                Step("prove", ("bar",), title="Try it in its holder", hold=True,
                     tool="the holder", fit="bar"),
            ),
            "centres",
        ),
        Holding(
            "bits",
            "mill",
            "In the vise, on its side",
            "All bits in one set-up, so that they stand in one line.",
            (mount, *flat, *_bit_steps(s)),
        ),
        *_broached(s),
        Holding(
            "grubs",
            "mill",
            "A quarter turn on, square by the flat or a pin in the bit's hole",
            "Each set screw meets its bit square and in its middle. Where the bar is "
            "shifted along, a pin in the last hole sets it again.",
            (
                *(Step("drill", (f"grub{i}",), key=f"drill-grub{i}",
                       caution="It breaks into the bit's hole: ease the feed.")
                  for i in numbers),
                *(Step("tap", (f"grub{i}",), key=f"tap-grub{i}",
                       note="In the set-up of its drill.") for i in numbers),
                Step("deburr", (), note="The tap raises a burr in the bits' holes: "
                     + ("file it off, and try a bit in each." if _square(s)
                        else "ream them by hand once more.")),
            ),
        ),
    )  # fmt: skip


def hardware(s: Values) -> Iterable[Hardware]:
    over = (s["bar.diameter"] - s["bits.diameter"]) / 2 - s["grubs.sunk"]
    yield set_screws(
        str(s["grubs.thread"]), s["bits.count"], "over the bits", over, "grub"
    )


FAMILY = Family(
    "single-point-bar",
    "Boring bar",
    "Carries tool bits across it, free in a holder or between two supports.",
    "for a holder of 20 mm and bits of 8 mm, to cut a bore of 32 mm",
    also="line boring bar fly cutter single point tool holder between centres pilot",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(bar.diameter + 2, 1)",
             "a clean-up", 4, 200),
        Size("stock.length", "stock length", "up(bar.length + pilot.length + 4, 1)",
             "both faces", 20, 1500),
        Size("bar.diameter", "the bar", "holder.bore", low=4, high=150),
        Size("bar.overhang", "from the holder to the outermost bit", "3*bar.diameter",
             "as the work asks", 5, 1400, step=1),
        Size("bar.length", "length of the bar",
             "up(bar.overhang + bits.from_end + 2*bar.diameter, 1)",
             "and two diameters in the holder", 20, 1500),
        Size("bits.count", "bits along the bar", "1", "", 1, 6, COUNT),
        Size("bits.shape", "bits are", "round", "", kind=TEXT,
             choices=("round", "square")),
        Size("bits.diameter", "hole for a bit", "bit.diameter", low=2, high=40,
             at="bit1.diameter"),
        Size("bits.from_end", "outermost bit from the end", "up(1.5*bit.diameter, 1)",
             "one and a half times the bit", 2, 500, at="bit1.from_end"),
        Size("bits.pitch", "from bit to bit", "up(3*bit.diameter, 1)",
             "three times the bit", 3, 700, at="bit2.pitch"),
        Size("grubs.thread", "set screws", _grub_size, "about half the bit",
             kind=TEXT, rests=("bits.diameter",), at="grub1.thread"),
        Size("grubs.sunk", "set screw sunk below the bar", "0.5",
             "so that nothing catches", 0, 20),
        Size("flat.length", "flat for the holder's screws", "2*bar.diameter",
             "0 for none", 0, 300, step=1),
        Size("flat.depth", "depth of the flat", "up(bar.diameter/20, 0.5)",
             "a twentieth", 0.2, 20),
        Size("pilot.length", "pilot at the far end", "0", "0 where the bar is free",
             0, 300),
        Size("pilot.diameter", "diameter of the pilot", "bushing.bore", low=3,
             high=140),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=hardware,
    mates=(
        Mate("holder", "the holder", (
            MateSize("bore", "its bore", 20.01, ("bore",)),
        ), around=(
            Ring("bar.begins", "bar.ends - bits.from_end - bar.overhang",
                 "holder.bore"),
        )),
        Mate("bit", "the tool bit", (
            MateSize("diameter", "its shank", 8.0, ("shaft", "thickness")),
        ), around=(
            Ring("bar.ends - bits.from_end - bits.diameter/2",
                 "bar.ends - bits.from_end + bits.diameter/2", "bar.diameter",
                 "work.bore"),
        )),
        Mate("bushing", "the bushing at the far end", (
            MateSize("bore", "its bore", 16.01, ("bore",), True),
        ), around=(
            Ring("pilot.begins", "pilot.ends", "bushing.bore"),
        )),
        Mate("work", "what is bored", (
            MateSize("bore", "diameter to be cut", 32.0),
        )),
    ),
    fits=(
        FitSlot("bar", "Bar in its holder", "bar.diameter", "holder.bore", "hole",
                "shaft", "moves"),
        FitSlot("bits", "Bit in the bar", "bits.diameter", "bit.diameter", "shaft",
                "shaft", "reamed"),
        FitSlot("pilot", "Pilot in its bushing", "pilot.diameter", "bushing.bore",
                "hole", "shaft", "runs"),
    ),
    material="tool steel",
    full={"pilot.length": "40", "bits.count": "2", "bar.overhang": "140",
          "bar.length": "210"},
    ways=(
        {"pilot.length": "0", "bits.count": "1", "bar.overhang": "70",
         "bar.length": "125"},
        {"bits.shape": "square", "bits.count": "1"},
    ),
    surfaces={"shaft": "bar.diameter", "hole": "bits.diameter"},
    cautions={
        "cut": "Turn the spindle by hand through one full turn before the power is on.",
    },
)  # fmt: skip
