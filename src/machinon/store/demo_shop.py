"""The demo shop, Ottermere Lane: built from the core, nothing real in it."""

import random
from collections.abc import Callable
from pathlib import Path
from typing import Literal, NamedTuple

from msgspec.structs import replace

from machinon.core.cutting.cut_state import CutEntry
from machinon.core.fits.joints import is_inside, joint_forms
from machinon.core.job.job import CutLog, Job, ProofLog, Stage, Trial
from machinon.core.job.made_piece import made_job, proof_surface
from machinon.core.job.plan import Plan
from machinon.core.job.planning import plan_of
from machinon.core.job.since_cut import with_done
from machinon.core.practice.lathe import Habits, PracticeLathe
from machinon.core.shop.belongings import (
    SHELF_NAMES,
    SHELVES,
    STARTER_SETS,
    Belongings,
    Item,
    Shelf,
    with_items,
)
from machinon.core.shop.machines import Machine
from machinon.core.shop.making import Making
from machinon.core.shop.things import (
    CHUCK_SURFACES,
    NOSE_SURFACES,
    STARTER_INSTRUMENTS,
    Lathe,
    Lesson,
    Piece,
    Reading,
    Shop,
    Surface,
)
from machinon.core.sizes.fit import FitChoice
from machinon.core.survey.surface_kinds import likely_joint, surface_forms
from machinon.store.opening import open_shop
from machinon.store.shop_file import ShopFile

DAY = "2026-03-14"  # every line of the demo's past is dated to one made-up week
# the demo's lathe takes 0.98 of what stands before its tool; nothing else goes wrong
HABITS = Habits(
    compliance=1 / 0.98 - 1,
    push_off=0.0,
    rubs=0.001,
    touch=0.0,
    seating=0.0,
    finds=0.0,
    zero=0.0,
    warm=0.0,
    reads=0.0,
    slips=0.0,
)


class _Clock:
    """Minutes of a made-up Saturday, so that the demo's daybook reads true."""

    def __init__(self) -> None:
        self.minute = 9 * 60

    def __call__(self) -> str:
        self.minute += 4
        hour, minute = divmod(self.minute, 60)
        return f"{DAY}T{hour:02d}:{minute:02d}:00+00:00"


def _read(
    surfaces: tuple[Surface, ...],
    id: str,
    instrument: str,
    *sizes: float,
    temperature: float | None = 20.0,
) -> Surface:
    surface = next(surface for surface in surfaces if surface.id == id)
    return replace(
        surface,
        readings=tuple(
            Reading(
                size,
                instrument,
                f"{size:g}",
                temperature=temperature,
                at=f"{DAY}T09:00:00+00:00",
            )
            for size in sizes
        ),
    )


def _nose() -> Piece:
    s = NOSE_SURFACES
    return Piece(
        "lathe-nose",
        "Spindle nose M45 × 4.5",
        "nose",
        "steel",
        (
            _read(s, "register", "micrometer", 45.992, 45.994, 45.992, 45.993),
            _read(s, "register-length", "depth-gauge", 12.02, 12.01),
            _read(s, "thread-major", "micrometer", 44.861, 44.868, 44.864),
            _read(s, "thread-pitch", "thread-gauge", 4.5),
            _read(s, "nose-length", "depth-gauge", 36.05, 36.04),
        ),
        note="The lathe's own spindle",
    )


def _chuck() -> Piece:
    s = CHUCK_SURFACES
    recess = _read(s, "recess", "bore-gauge", 95.018, 95.022, 95.519, 95.019, 95.02)
    slip = replace(recess.readings[2], struck="half a millimetre off, thimble misread")
    recess = replace(
        recess, readings=(*recess.readings[:2], slip, *recess.readings[3:])
    )
    return Piece(
        "chuck-130",
        "Three-jaw chuck 130 mm",
        "chuck",
        "cast iron",
        (
            _read(s, "body", "caliper", 130.02, 130.01),
            recess,
            _read(s, "recess-depth", "depth-gauge", 4.21, 4.2, 4.22),
            _read(s, "bolt-hole", "caliper", 7.88, 7.9),
            _read(s, "bolt-span", "caliper", 103.14, 103.16, 103.15),
        ),
        note="Taken from a scrapped dividing head",
    )


def _cuts(job: Job, work: Callable[[Job], Plan], count: int) -> list[CutEntry]:
    """The cuts of following the coach on a lathe that takes a little less."""
    entries: list[CutEntry] = []
    lathe: PracticeLathe | None = None
    for _ in range(count):
        plan = work(job.with_log(replace(job.log, entries=tuple(entries))))
        advice, state = plan.advice, plan.cut_state
        if advice is None or state is None or advice.infeed <= 0:
            break
        if lathe is None:
            kind: Literal["external", "internal"] = (
                "external" if state.external else "internal"
            )
            lathe = PracticeLathe(kind, job.log.start or 0.0, HABITS, random.Random(0))
        lathe.cut_to(advice.dial)
        entries.append(
            CutEntry(
                round(advice.dial, 4),
                lathe.read(),
                instrument=job.log.instrument,
                at=f"{DAY}T11:00:00+00:00",
            )
        )
    return entries


def _keep_cuts(
    file: ShopFile, job: Job, work: Callable[[Job], Plan], count: int
) -> Job:
    """Each pass kept as it was taken, as at the machine."""
    cuts = _cuts(job, work, count)
    for i, entry in enumerate(cuts):
        job = job.with_log(replace(job.log, entries=tuple(cuts[: i + 1])))
        file.act(
            job.id,
            f"Cut to {entry.dial:.2f} mm from touch, measured {entry.measured:.3f} mm.",
            job,
        )
    return job


def fill_demo(file: ShopFile) -> None:
    """Write the Ottermere Lane shop into an empty shop file."""
    shop = Shop(
        name="Ottermere Lane",
        instruments=STARTER_INSTRUMENTS,
        lessons=(
            Lesson(
                "The tap broke in the last nut, packed with chips: half a turn back at "
                "every turn, and clear it twice.",
                "t-nut-strip",
                "tap-thread",
                "tap",
                "tap M10 × 1.5",
                "T-nuts for the rotary table",
                "2026-02-14T16:20:00",
            ),
        ),
    )
    lathe = Lathe(
        "lathe",
        "Centre lathe 165 × 700",
        165,
        700,
        190,
        (45, 70, 110, 180, 290, 460, 740, 1200),
        "lathe-nose",
        tailstock="MT3",
        figures={"power": "1.1", "spindle_bore": "26", "tool_height": "22"},
        wheels=(20, 25, 30, 35, 40, 45, 50, 55, 60, 65, 70, 75, 80, 100, 127),
    )
    nose, chuck = _nose(), _chuck()
    file.act("shop", "Shop set up: Ottermere Lane.", shop)
    file.act("shop", "Lathe entered: Centre lathe 165 × 700.", lathe, nose)
    file.act("shop", "Mill, drill, table and grinder entered.", *_machines())
    file.act("shop", "Tools, packing and stock entered.", *_shelves())
    _other_jobs(file, shop, lathe)
    job = made_job(
        "back-plate-130",
        "Back plate for the 130 mm three-jaw",
        "The small chuck is truer than the big one and fits no nose here.",
        "lathe",
        Making("back-plate", {"chuck.bolts": "3"}),
        {"nose": nose, "chuck": chuck},
    )
    file.act(job.id, "Job begun: " + job.name + ".", job)
    file.act(job.id, "Chuck measured: recess, depth, bolts.", chuck)
    file.note(
        job.id,
        "A reading of the recess struck: half a millimetre off, thimble misread.",
    )
    file.act(job.id, "Fit 1 decided: slides by hand without shake.", job)
    file.act(job.id, "Fit 3 decided: slides by hand without shake.", job)
    job = job.with_work(
        done=(
            "face-hub",
            "hub",
            "drill",
            "bore",
            "register",
            "thread",
            "prove-nose",
            "mount",
            "flange",
            "rough-spigot",
            "seat",
        ),
    )
    file.act(job.id, "Nose side proved with the plug before unchucking.", job)
    file.leave_at(job.id, "cut")
    job = job.with_work(cutting=3).with_log(CutLog())
    file.act(job.id, "To the machine: Plate spigot in chuck.", job)
    job = job.with_log(CutLog(start=96.02, touch=1.2))
    file.act(
        job.id, "Touched at 1.20 on the dial, 96.020 mm before the first cut.", job
    )
    pieces = {nose.id: nose, chuck.id: chuck}
    _keep_cuts(file, job, lambda job: plan_of(job, shop, lathe, pieces), 3)


def _machines() -> tuple[Machine, ...]:
    return (
        Machine(
            "mill",
            "Knee mill",
            "mill",
            {
                "spindle": "ISO30",
                "travel_x": "560",
                "vise_opens": "100",
                "travel_y": "200",
                "travel_z": "380",
                "table_length": "900",
                "table_width": "230",
                "tee_slots": "3",
                "tee_slot": "14",
                "tee_pitch": "63",
                "under_spindle": "420",
                "speeds": "80,125,200,325,510,810,1300,2100",
                "power": "1.5",
                "dial_division": "0.02",
                "readout_axes": "3",
                "readout_step": "0.005",
            },
            "spindle-top",
        ),
        Machine(
            "pillar-drill",
            "Pillar drill",
            "drill",
            {
                "spindle": "MT2",
                "throat": "180",
                "travel_z": "85",
                "under_spindle": "480",
                "largest": "16",
                "speeds": "300,500,850,1400,2300",
                "power": "0.55",
            },
        ),
        Machine(
            "rotary-table",
            "Rotary table 150",
            "rotary table",
            {
                "table": "150",
                "worm": "90",
                "bore_taper": "MT2",
                "centre_height": "105",
                "height": "80",
                "tee_slots": "4",
                "tee_slot": "11",
                "plates": "15,16,17,18,19,20,21,23,27,29,31,33",
            },
            "worm-shaft",
        ),
        Machine(
            "grinder",
            "Small cylindrical grinder",
            "grinder",
            {
                "centre_height": "75",
                "between_centres": "300",
                "head_taper": "MT2",
                "wheel": "150",
                "wheel_bore": "20",
                "wheel_speed": "3400",
                "swivel": "8",
                "dial_division": "0.005",
            },
        ),
    )


SETS = (
    "drills",
    "taps",
    "end-mills",
    "slips",
    "parallels",
    "collets",
    "screws",
    "nuts",
    "washers",
    "bars",
)


def _shelves() -> tuple[Belongings, ...]:
    """The sets that Ottermere Lane bought, and what it has besides."""
    found = {id: Belongings(id, SHELF_NAMES[id]) for id in SHELVES}
    for starter in STARTER_SETS:
        if starter.key in SETS:
            found[starter.shelf] = with_items(found[starter.shelf], starter.items())
    own: dict[Shelf, Item] = {
        "tools": Item("slitting saw", "saw 80 × 22 × 1.6", 80, 22, 1.6),
        "holding": Item("vise", "machine vise 100", 100, 120),
        "stock": Item(
            "casting", "back-plate casting 150", 152, 0, 62, 1, "cast iron", "skimmed"
        ),
    }
    for id, item in own.items():
        found[id] = with_items(found[id], (item,))
    return tuple(found.values())


# piece: id, name, material, note, and its surfaces as
# form, name (empty: the usual), instrument, readings (none: still to be measured; a
# taper's with the distance from its large end), and the aids of its sum
_Reading = float | tuple[float, float]
_Surface = tuple[str, str, str, tuple[_Reading, ...], dict[str, float]]
_PIECES: tuple[tuple[str, str, str, str, tuple[_Surface, ...]], ...] = (
    (
        "worm-shaft",
        "Rotary table's worm shaft",
        "steel",
        "Ratio 90 to 1",
        (
            ("shaft", "Shaft end", "micrometer", (11.985, 11.987, 11.986), {}),
            ("shoulder", "Shaft end, length", "depth-gauge", (22.34, 22.36), {}),
            ("key-width", "Keyway", "slips", (4.02, 4.02), {}),
            ("key-across", "Keyway, floor to far side", "caliper", (9.52,), {}),
        ),
    ),
    (
        "graduated-dial",
        "Graduated dial",
        "brass",
        "From the scrap box",
        (
            ("shaft", "Graduated rim", "caliper", (62.02, 62.0), {}),
            ("bore", "Bore", "bore-gauge", (30.012, 30.016, 30.013), {}),
            ("thickness", "", "caliper", (11.98, 12.0), {}),
        ),
    ),
    (
        "slitting-saw",
        "Slitting saw 80 mm",
        "tool steel",
        "",
        (
            ("shaft", "Over the teeth", "caliper", (79.84, 79.9), {}),
            ("bore", "Bore", "bore-gauge", (22.009, 22.011, 22.01), {}),
            ("thickness", "Thickness at the hub", "caliper", (1.61, 1.6), {}),
        ),
    ),
    (
        "collet-20",
        "Collet 20 mm",
        "steel",
        "Closes from 20 to 19.5",
        (
            (
                "bore",
                "Bore, open",
                "bore-gauge",
                (20.006, 20.004, 20.007),
                {},
            ),
        ),
    ),
    (
        "round-die",
        "Round die 25 mm",
        "tool steel",
        "",
        (
            ("shaft", "Outside of the die", "micrometer", (24.962, 24.958, 24.961), {}),
            ("thickness", "Thickness", "caliper", (9.01, 9.0), {}),
        ),
    ),
    (
        "tailstock",
        "Tailstock of the centre lathe",
        "steel",
        "Its socket was reamed once",
        (
            (
                "taper-in",
                "Socket",
                "bore-gauge",
                ((23.852, 0), (23.851, 0), (21.344, 50), (21.343, 50)),
                {},
            ),
        ),
    ),
    (
        "chuck-arbor",
        "Drill chuck on a Morse 2 arbor",
        "steel",
        "In the pillar drill as a rule",
        (
            (
                "taper-out",
                "Arbor",
                "micrometer",
                ((17.778, 0), (17.779, 0), (15.781, 40), (15.78, 40)),
                {},
            ),
        ),
    ),
    (
        "guide-bar",
        "Ground bar 16 mm",
        "steel",
        "The die holder slides on it",
        (("shaft", "Bar", "micrometer", (15.992, 15.991, 15.993), {}),),
    ),
    (
        "mill-table",
        "Mill table",
        "cast iron",
        "Three slots; the middle one is worn least",
        (
            (
                "tee-neck",
                "Middle slot's neck",
                "slips",
                (14.02, 14.035, 14.025),
                {},
            ),
            ("tee-head", "", "caliper", (24.1, 24.15), {}),
            ("tee-head-depth", "", "caliper", (10.05, 10.1), {}),
            ("tee-lip", "", "depth-gauge", (12.11, 12.09), {}),
        ),
    ),
    (
        "bronze-bush",
        "Bronze bush 30 mm",
        "bronze",
        "One of a dozen, the tightest",
        (
            ("shaft", "Outside", "micrometer", (38.058, 38.061, 38.059), {}),
            ("bore", "Bore", "bore-gauge", (30.013, 30.016, 30.013), {}),
            ("thickness", "Length", "caliper", (25.02, 25.04), {}),
        ),
    ),
    (
        "table-way",
        "Dovetail of the mill's table way",
        "cast iron",
        "60°, read over pins of 10 mm",
        (
            (
                "over-pins",
                "",
                "micrometer",
                (137.314, 137.309, 137.317),
                {"pin": 10.0, "angle": 60.0, "depth": 14.0},
            ),
        ),
    ),
    (
        "spindle-top",
        "Top of the mill's spindle",
        "steel",
        "30 taper, drawn up through it",
        (
            ("register", "", "micrometer", (37.984, 37.986), {}),
            ("register-length", "", "depth-gauge", (18.05, 18.03), {}),
            ("bore", "Bore for the draw bar", "bore-gauge", (17.52, 17.516), {}),
        ),
    ),
)
# job: id, name, reason, stage, pieces, and its fits as
# name, piece, surface, joint (empty: the likely one), want, and what it asks
_Fit = tuple[str, str, str, str, str, dict[str, str]]
_JOBS: tuple[tuple[str, str, str, Stage, tuple[str, ...], tuple[_Fit, ...]], ...] = (
    (
        "drawbar-cap",
        "Draw-bar cap for the mill",
        "The old one is a washer, and the bar wanders.",
        "cut",
        ("spindle-top",),
        (
            ("Cap on the spindle", "spindle-top", "register", "", "slides", {}),
            ("Draw bar's collar in the bore", "spindle-top", "bore", "", "runs", {}),
        ),
    ),
    (
        "indicator-carrier",
        "Dovetail carrier for a dial indicator",
        "It has to sit on the table way and go back to the same place.",
        "fits",
        ("table-way",),
        (
            (
                "Carrier on the way, with a gib",
                "table-way",
                "over-pins",
                "",
                "dove-slides",
                {"new_depth": "14.3", "pin": "8", "gib": "4"},
            ),
        ),
    ),
    (
        "expanding-arbor",
        "Expanding arbor for 30 mm bronze bushes",
        "A dozen bushes to turn true to their bores.",
        "proof",
        ("bronze-bush",),
        (
            (
                "Arbor in the bush, before it is spread",
                "bronze-bush",
                "bore",
                "",
                "runs",
                {},
            ),
        ),
    ),
    (
        "die-holder",
        "Sliding die holder on a Morse 3 shank",
        "Threads cut with the hand stock start crooked.",
        "cut",
        ("tailstock", "guide-bar", "round-die"),
        (
            (
                "Shank in the tailstock",
                "tailstock",
                "taper-in",
                "",
                "",
                {"taper": "MT3", "length": "60"},
            ),
            (
                "Bar in the shank",
                "guide-bar",
                "shaft",
                "bond",
                "bond-thin",
                {"length": "30"},
            ),
            ("Holder on the guide bar", "guide-bar", "shaft", "", "moves", {}),
            (
                "Die in its holder",
                "round-die",
                "shaft",
                "dimple",
                "",
                {"screw": "M5", "wall": "9", "around": "7.5", "screws": "3"},
            ),
        ),
    ),
    (
        "dial-hub",
        "Hub for the rotary table's dial",
        "The dial from the scrap box has a larger bore than the worm shaft.",
        "fits",
        ("worm-shaft", "graduated-dial"),
        (
            ("Worm shaft in hub", "worm-shaft", "shaft", "", "locates", {}),
            ("Hub in dial", "graduated-dial", "bore", "", "moves", {}),
            (
                "Key of the worm shaft",
                "worm-shaft",
                "key-width",
                "",
                "glides",
                {"diameter": "12", "length": "14"},
            ),
        ),
    ),
)


# pieces that were made here: id, name, material, family, what was typed of them and of
# what they were made to, and what they came to
_FINISHED: tuple[
    tuple[str, str, str, str, dict[str, str], tuple[_Surface, ...]], ...
] = (
    (
        "boring-bar-20",
        "Boring bar 20 mm, bits of 8",
        "tool steel",
        "single-point-bar",
        {"holder.bore": "20.012mm", "bit.diameter": "8mm", "work.bore": "34mm"},
        (
            ("shaft", "The bar", "micrometer", (19.993, 19.992, 19.993), {}),
            ("hole", "Hole for a bit", "bore-gauge", (8.018,), {}),
        ),
    ),
    (
        "post-stud",
        "Stud of the tool post",
        "mild steel",
        "stud",
        {
            "below.thread": "M12",
            "below.depth": "14mm",
            "below.floor": "18mm",
            "held.height": "78mm",
            "held.hole": "13mm",
            "nut.thread": "M12",
            "nut.height": "10mm",
            "washer.thickness": "3mm",
        },
        (("length", "Length of the stud", "caliper", (109.2,), {}),),
    ),
    (
        "chuck-key-8",
        "Key for the three-jaw chuck",
        "tool steel",
        "socket-key",
        {
            "socket.across": "8.06mm",
            "socket.depth": "14mm",
            "socket.sides": "4",
            "socket.torque": "25",
            "machine.clear": "120mm",
        },
        (("flats", "Point across flats", "micrometer", (8.031, 8.03), {}),),
    ),
    (
        "stop-knob",
        "Knob of the carriage stop",
        "brass",
        "knob",
        {"stud.thread": "M6", "stud.size": "5.95mm", "stud.length": "9mm"},
        (("shaft", "Boss", "micrometer", (12.01, 12.01), {}),),
    ),
    (
        "chuck-drill-plate",
        "Drill plate, three on 110",
        "mild steel",
        "drill-plate",
        {
            "part.bore": "95.02mm",
            "part.depth": "4.2mm",
            "pattern.count": "3",
            "pattern.circle": "110mm",
            "pattern.drill": "6.8mm",
            "spigot.length": "3mm",
        },
        (
            ("register", "Spigot", "micrometer", (94.998, 94.997, 94.998), {}),
            (
                "bolt-circle",
                "Circle",
                "caliper",
                (102.06,),
                {"hole": 6.8, "holes": 3.0},
            ),
        ),
    ),
    (
        "quill-keeper",
        "Keeper of the quill stop's rod",
        "mild steel",
        "keeper",
        {"round.diameter": "16mm", "round.stands": "6.5mm", "block.height": "20mm"},
        (("length", "Length", "caliper", (60.02,), {}),),
    ),
    (
        "gap-spacer",
        "Spacer of the worm's thrust",
        "mild steel",
        "spacer-sleeve",
        {
            "shaft.diameter": "11.986mm",
            "gap.between": "22.35mm",
            "gap.least": "0.03mm",
            "gap.most": "0.08mm",
        },
        (
            ("bore", "Bore", "bore-gauge", (12.01, 12.012), {}),
            ("length", "Length", "micrometer", (22.296, 22.297), {}),
        ),
    ),
)


def _piece_of(
    id: str, name: str, material: str, note: str, surfaces: tuple[_Surface, ...]
) -> Piece:
    piece = Piece(id, name, "other", material, (), note)
    for key, words, instrument, sizes, aids in surfaces:
        readings = tuple(_reading(size, instrument) for size in sizes)
        surface = surface_forms()[key].surface(key, words, readings, aids)
        piece = piece.with_surface(surface)
    return piece


def _reading(size: _Reading, instrument: str) -> Reading:
    value, at = size if isinstance(size, tuple) else (size, None)
    place = "" if at is None else f"{at:g} mm"
    return Reading(value, instrument, f"{value:g}", place, temperature=20.0)


def _other_jobs(file: ShopFile, shop: Shop, lathe: Lathe) -> None:
    pieces = {row[0]: _piece_of(*row) for row in _PIECES}
    used = {id for job in _JOBS for id in job[4]}
    used |= {id for row in _MADE for id in row.mates.values()}
    loose = [piece for id, piece in pieces.items() if id not in used]
    file.act("shop", "Pieces measured that no job needs yet.", *loose)
    finished = [
        replace(
            _piece_of(id, name, metal, "Made in this shop.", surfaces),
            making=Making(family, sizes),
        )
        for id, name, metal, family, sizes, surfaces in _FINISHED
    ]
    file.act("shop", "Pieces made and proved here.", *finished)

    def work(job: Job) -> Plan:
        return plan_of(job, shop, lathe, {piece: pieces[piece] for piece in job.pieces})

    for id, name, reason, stage, own, fits in _JOBS:
        choices = [_fit_of(pieces, number, *fit) for number, fit in enumerate(fits, 1)]
        job = Job(id, name, reason, "lathe", own, tuple(choices))
        file.act(id, f"Job begun: {name}.", *(pieces[name] for name in own), job)
        if id in _AT_MACHINE:
            _at_machine(file, job, work)
        file.leave_at(id, stage)
    for made in _MADE:
        _begin_made(file, made, pieces, work)


def _fit_of(
    pieces: dict[str, Piece],
    number: int,
    words: str,
    piece_id: str,
    surface_id: str,
    joint: str,
    want: str,
    given: dict[str, str],
) -> FitChoice:
    surface = pieces[piece_id].surface(surface_id)
    assert surface is not None
    form = next(
        form
        for form in joint_forms().values()
        if form.key == (joint or likely_joint(surface))
    )
    return FitChoice(
        number,
        words,
        piece_id,
        surface_id,
        "hole" if is_inside(surface) else "shaft",
        want,
        joint=form.key,
        given=given,
    )


# jobs with a fit at the machine: its number, the gauge, the size before the first cut,
# the dial at touch, how many passes are taken, and how the mate went on
_AT_MACHINE: dict[str, tuple[int, str, float, float, int, Literal["", Trial]]] = {
    "drawbar-cap": (1, "bore-gauge", 37.22, 3.4, 2, ""),
    "expanding-arbor": (1, "micrometer", 30.805, 0.6, 20, "goes on"),
    "die-holder": (3, "bore-gauge", 15.41, 2.0, 1, ""),
}


def _at_machine(file: ShopFile, job: Job, work: Callable[[Job], Plan]) -> None:
    number, gauge, start, touch, count, trial = _AT_MACHINE[job.id]
    fit = job.fit(number)
    job = job.with_work(
        cutting=number, proof=ProofLog(surfaces=(proof_surface(fit),))
    ).with_log(CutLog(start=start, touch=touch, instrument=gauge))
    file.act(job.id, f"To the machine: {fit.name}.", job)
    job = _keep_cuts(file, job, work, count)
    if trial:
        job = job.with_log(replace(job.log, trial=trial))
        file.act(job.id, f"The mate tried: {trial}.", job)


class _Made(NamedTuple):
    """A job that makes a piece of a family."""

    id: str
    name: str
    reason: str
    family: str
    mates: dict[str, str]
    sizes: dict[str, str]
    steps: int  # how many of its first are done
    stage: Stage


_MADE = (
    _Made(
        "saw-arbor",
        "Slitting-saw arbor 22 mm",
        "Saws are held in the drill chuck now, and they wander.",
        "collet-arbor",
        {"collet": "collet-20", "cutter": "slitting-saw"},
        {},
        0,
        "survey",
    ),
    # squared, and the first rebate milled
    _Made(
        "t-nuts",
        "Eight T-nuts for the table slots",
        "The bought ones rock and mark the slots.",
        "t-nut-strip",
        {"slot": "mill-table"},
        {"nuts.count": "8"},
        2,
        "route",
    ),
)


def _begin_made(
    file: ShopFile, row: _Made, pieces: dict[str, Piece], work: Callable[[Job], Plan]
) -> None:
    mates = {role: pieces[id] for role, id in row.mates.items()}
    making = Making(row.family, row.sizes)
    job = made_job(row.id, row.name, row.reason, "lathe", making, mates)
    file.act(job.id, f"Job begun: {job.name}.", *mates.values(), job)
    plan = work(job)
    for step in plan.route[0].steps[: row.steps] if plan.route else ():
        job = with_done(job, plan.made, plan.route, [step.key])
        file.act(job.id, f"Step done: {step.title}.", job)
    file.leave_at(job.id, row.stage)


def demo_shop(folder: Path) -> Path:
    """A fresh demo shop in a folder; returns its path."""
    path = folder / "ottermere-lane.machinon"
    file = open_shop(path, _Clock(), durable=False)
    try:
        with file.together():
            fill_demo(file)
    finally:
        file.close()
    return path
