"""Speeds, as ratios within one run where that is possible: `make bench`."""

import gc
import os
import random
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from functools import partial
from itertools import pairwise
from pathlib import Path
from typing import TYPE_CHECKING, Any, NamedTuple

from msgspec.structs import replace

if TYPE_CHECKING:
    from machinon.desk.open_job import OpenJob

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

BARE = """
from PySide6.QtWidgets import QApplication, QMainWindow, QLabel
app = QApplication([])
window = QMainWindow()
window.setCentralWidget(QLabel("bare"))
window.resize(1280, 800)
window.show()
app.processEvents()
print("painted", flush=True)
"""
OURS = """
import gc
import sys
gc.disable()  # as main does
from pathlib import Path
from PySide6.QtWidgets import QApplication
from machinon.desk.settings import Settings
from machinon.desk.theme import load_fonts
from machinon.desk.window import MainWindow
app = QApplication([])
load_fonts()
settings = Settings(None)
settings.put("last_job", sys.argv[2])
window = MainWindow(settings, Path("."))
window.show()
app.processEvents()
if sys.argv[1]:
    from machinon.store.opening import open_shop
    window.open_file(open_shop(Path(sys.argv[1])))
    app.processEvents()
print("painted", flush=True)
"""


def until_painted(*arguments: str) -> float:
    """Seconds from the start of the process to its first painted window."""
    start = time.perf_counter()
    child = subprocess.Popen(
        [sys.executable, "-c", *arguments],
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
        text=True,
        # as it starts for a person: with the compiled modules kept
        env={k: v for k, v in os.environ.items() if k != "PYTHONDONTWRITEBYTECODE"},
    )
    assert child.stdout is not None
    line = child.stdout.readline()
    took = time.perf_counter() - start
    child.wait()
    assert line.strip() == "painted", "the window did not come up"
    return took


def large_shop(folder: Path) -> Path:
    """A shop of 2,000 jobs, as many pieces, and 500,000 readings."""

    from machinon.core.job.job import Job
    from machinon.core.shop.things import Piece
    from machinon.store.demo_shop import demo_shop
    from machinon.store.opening import open_shop

    folder.mkdir()
    path = demo_shop(folder)
    file = open_shop(path, durable=False)
    job, saw = file.get("saw-arbor"), file.get("slitting-saw")
    assert isinstance(job, Job)
    assert isinstance(saw, Piece)
    many = tuple(replace(s, readings=40 * s.readings[:2]) for s in saw.surfaces)
    with file.together():
        for i in range(2000):
            piece = replace(saw, id=f"saw-{i}", name=f"Saw {i}", surfaces=many)
            made = replace(job, id=f"job-{i}", name=f"Job {i}", pieces=(piece.id,))
            file.act(made.id, f"{made.name} begun.", piece, replace(made, fits=()))
    file.close()
    return path


def start_up(folder: Path) -> None:
    from machinon.store.demo_shop import demo_shop

    shop = str(demo_shop(folder))
    many = str(large_shop(folder / "large"))
    cases = {
        "bare PySide6 window": (BARE,),
        "window painted": (OURS, "", ""),
        "jobs and shop painted": (OURS, shop, ""),
        "2000 jobs painted": (OURS, many, ""),
        "job in Cut painted": (OURS, shop, "back-plate-130"),
    }
    took: dict[str, list[float]] = {name: [] for name in cases}
    for _ in range(7):  # in turns, so that the machine's mood falls on all alike
        for name, arguments in cases.items():
            took[name].append(until_painted(*arguments))
    base = statistics.median(took["bare PySide6 window"])
    for name, times in took.items():
        median = statistics.median(times)
        print(
            f"start to {name:<22}{median * 1000:6.0f} ms   "
            f"{median / base:.2f} × bare (target 2)"
        )


EDIT = 16  # ms from an edit to its repaint
YARDSTICK = 3.2  # ms that the work below takes on a shop laptop


def yardstick() -> float:
    """How many times longer than on a shop laptop this machine takes just now, for
    work like ours: many small objects, sorted and compared."""
    ms = 0.0
    for _ in range(2):  # the second counts: the first is slowed by what went before
        begun, chance = time.perf_counter(), random.Random(1)
        by_tag: dict[str, list[tuple[float, float]]] = {}
        for i in range(4000):
            at = chance.random(), chance.random()
            by_tag.setdefault(f"tag {i % 97}", []).append(at)
        for points in by_tag.values():
            points.sort(key=lambda point: point[1])
            max(abs(a[0] - b[0]) + a[1] for a, b in pairwise(points))
        ms = (time.perf_counter() - begun) * 1000
    return ms / YARDSTICK


class Timed(NamedTuple):
    """Median and 95th percentile, ms; and the latter on a shop laptop."""

    p50: float
    p95: float
    there: float

    @classmethod
    def of(cls, took: list[tuple[float, float]]) -> "Timed":
        """Of times here and on a shop laptop."""
        here, there = (sorted(times) for times in zip(*took, strict=True))
        late = int(len(took) * 0.95)
        return cls(here[len(took) // 2], here[late], there[late])

    def told(self, target: int, figures: int = 1) -> str:
        """The three in words, beside what was to be reached."""
        return (
            f"{self.p50:6.{figures}f} ms p50 {self.p95:6.{figures}f} ms p95, on a shop "
            f"laptop {self.there:.1f} (target {target})"
        )


def measured(work: Callable[[], None]) -> tuple[float, float]:
    """How long `work` takes here, and would on a shop laptop, ms. Other programs make
    this machine slower and faster from one moment to the next: the yardstick is laid on
    right before it and after it."""
    before = yardstick()
    start = time.perf_counter()
    work()
    ms = (time.perf_counter() - start) * 1000
    return ms, 2 * ms / (before + yardstick())


def timed(work: Callable[[int], None], count: int) -> Timed:
    """Times `work`, after a warm-up: each of its `count` rounds is done three times
    and goes by its middle time, so that what other programs take of this machine now
    and then does not stand for a slow edit."""
    for i in range(5):
        work(i)
    took = [measured(partial(work, i % count)) for i in range(3 * count)]
    rounds = [zip(*took[i::count], strict=True) for i in range(count)]
    return Timed.of([tuple(map(statistics.median, times)) for times in rounds])


def edits(folder: Path) -> None:
    from PySide6.QtWidgets import QApplication

    from machinon.desk.settings import Settings
    from machinon.desk.theme import load_fonts
    from machinon.desk.window import MainWindow
    from machinon.store.demo_shop import demo_shop
    from machinon.store.opening import open_shop

    app = QApplication([])
    load_fonts()
    file = open_shop(demo_shop(folder))
    window = MainWindow(Settings(None), folder)
    window.open_file(file)
    gc.freeze()  # as main does
    window.show()
    window.open_job("back-plate-130")
    job = window.job
    assert job is not None
    for stage in ("piece", "route", "cut"):
        window.go(stage)  # type: ignore[arg-type]
        app.processEvents()

        def edit(i: int) -> None:
            job.set_size("hub.diameter", f"{70 + i % 7}")
            app.processEvents()

        print(f"edit of a size to repainted {stage:<6}{timed(edit, 60).told(EDIT)}")
    ids = ("t-nuts", "back-plate-130")

    def opened(i: int) -> None:
        window.open_job(ids[i % 2])
        app.processEvents()

    took = timed(opened, 20)
    print(f"opening a job               {took.p50:6.1f} ms p50 {took.p95:6.1f} ms p95")
    window.close()


def families_edited(folder: Path) -> None:
    """Edit to repainted for a piece of each family, each mate new and just measured."""
    from PySide6.QtWidgets import QApplication

    from machinon.core.families import families
    from machinon.core.quantity import LENGTH
    from machinon.desk.begin import begin_job
    from machinon.desk.settings import Settings
    from machinon.desk.window import MainWindow
    from machinon.store.demo_shop import demo_shop
    from machinon.store.opening import open_shop

    app = QApplication.instance() or QApplication([])
    folder.mkdir()
    file = open_shop(demo_shop(folder))
    window = MainWindow(Settings(None), folder)
    window.open_file(file)
    gc.freeze()  # as main does
    window.show()
    quick = dict.fromkeys(("piece", "route", "cut"), 0)
    for family in families().values():
        name = f"{family.key} to be timed"
        begun = begin_job(file, {"what": family.key, "name": name})
        assert begun.making is not None
        usual = {
            key: f"{mate.usual:g}{'mm' if mate.kind is LENGTH else ''}"
            if isinstance(mate.usual, float)
            else f"{mate.usual}"
            for key, mate in family.mate_keys.items()
        }
        making = replace(begun.making, sizes=usual)
        file.act(begun.id, "Mates taken as usual.", begun.with_work(making=making))
        window.open_job(begun.id)
        job = window.job
        assert job is not None
        made = job.plan.made
        assert made is not None, (family.key, job.plan.missing, job.plan.problem)
        # the length that has the most room to be another
        known = max(
            (
                known
                for known in made.sizes.values()
                if known.size.kind is LENGTH and known.by == "rule"
            ),
            key=lambda known: float(known.value),
        )
        edit = partial(_one_edit, job, known.size.key, float(known.value))
        for stage in quick:
            if stage == "cut":
                _to_the_machine(job)
            window.go(stage)  # type: ignore[arg-type]
            app.processEvents()
            took = timed(edit, 30)
            quick[stage] += took.there < EDIT
            whole, page = "", window.job_page()
            assert page is not None
            if stage == "route":  # the other frames of the film follow one by one
                edit(30)
                begun = time.perf_counter()
                while page.views["route"].painting:
                    app.processEvents()
                rest = (time.perf_counter() - begun) * 1000
                whole = f"; the rest of the film {rest:.0f} ms"
            print(
                f"{family.key:<16} edit to repainted {stage:<6}{took.told(EDIT)}{whole}"
            )
    told = ", ".join(f"{stage} {count}" for stage, count in quick.items())
    print(f"of {len(families())} families under {EDIT} ms there: {told}")
    window.close()


def _to_the_machine(job: "OpenJob") -> None:
    """Its first size that is cut by the dial, else its first step."""
    steps = [step for up in job.plan.route for step in up.steps]
    sizes = [size for step in steps for size in job.sizes_at_dial(step)]
    if sizes:
        job.cut_size(sizes[0])
    else:
        job.work_at(steps[0].key)


def _one_edit(job: "OpenJob", key: str, size: float, i: int) -> None:
    from PySide6.QtWidgets import QApplication

    job.set_size(key, f"{size + i % 40 * 0.13:.2f}mm")
    QApplication.processEvents()


def a_thousand_bodies(folder: Path) -> None:
    """Built, checked and written as DXF: the rate of each."""
    from machinon.core.families import families
    from machinon.core.piece.made import make
    from machinon.draw.export.sheet_dxf import write_dxf

    kinds = list(families().values())
    begun = time.perf_counter()
    made = []
    for i in range(1000):
        family = kinds[i % len(kinds)]
        metal = ("mild steel", "cast iron", "brass")[i % 3]
        made.append(make(family, {"material": metal}))
    built = time.perf_counter()
    for piece in made[:100]:
        write_dxf(piece, folder / "piece.dxf")
    written = time.perf_counter()
    print(
        f"bodies built and checked    {1000 / (built - begun):6.0f} a second; "
        f"DXF {100 / (written - built):.0f} a second"
    )


def reckonings() -> None:
    """Change gears against their bare enumeration, random stacks, the command line."""
    import numpy as np

    from machinon.core.setting_out.runout_stack import likely
    from machinon.core.threads.change_gears import trains

    wheels = [20, 24, 25, 28, 30, 32, 35, 36, 40, 42]
    wheels += [44, 45, 48, 50, 55, 60, 65, 70, 80, 127]
    teeth = np.array(wheels)

    def bare(_i: int) -> None:
        first, two = np.triu_indices(len(teeth), 1)
        product = (teeth[first] * teeth[two]).astype(float)
        np.abs(product[:, None] / product[None, :] / 0.3175 - 1).argmin()

    ours, *_ = timed(lambda _i: void(trains(1.27, 4, wheels, 10)), 20)
    base, *_ = timed(bare, 20)
    print(
        f"change gears of 20 wheels   {ours:6.1f} ms   {ours / base:.1f} × the bare "
        "enumeration (targets 100 ms, 3)"
    )
    stack, *_ = timed(lambda _i: void(likely([0.005, 0.01, 0.015, 0.003, 0.007])), 5)
    print(f"a million random stacks     {stack:6.0f} ms (target 300)")
    command = [sys.executable, "-m", "machinon", "reckon", "iso-fit"]
    command += ["nominal=46", "fit=H7/g6"]
    start = []
    for _ in range(5):
        begun = time.perf_counter()
        subprocess.run(command, check=True, stdout=subprocess.DEVNULL)
        start.append(time.perf_counter() - begun)
    cold = statistics.median(start)
    print(f"machinon reckon, cold       {cold * 1000:6.0f} ms (target 500)")
    lines = [
        '{"reckoner": "iso-limits", "inputs": {"nominal": %d, "zone": "H7"}}',
        '{"reckoner": "keyway", "inputs": {"shaft_diameter": %d}}',
        '{"reckoner": "bolt-circle", "inputs": {"holes": 5, "diameter": %d}}',
        '{"reckoner": "runout", "inputs": {"readings": [0, 0.01, 0.02, %d]}}',
    ]
    asked = "\n".join(lines[i % 4] % (20 + i % 90) for i in range(1000))
    begun = time.perf_counter()
    subprocess.run(
        [sys.executable, "-m", "machinon", "reckon", "--stream"],
        input=asked,
        text=True,
        check=True,
        stdout=subprocess.DEVNULL,
    )
    took = time.perf_counter() - begun
    print(f"1000 streamed, with start   {took * 1000:6.0f} ms (target 2000)")


def at_the_dial(count: int = 400) -> None:
    """Who lands in the band on the practice lathe: the coach and two hands, by band;
    and how long the coach takes."""
    from machinon.core.cutting.coaching import advice_for
    from machinon.core.practice.hands import (
        BANDS,
        bench,
        by_care,
        by_the_coach,
        by_the_remainder,
    )
    from machinon.core.practice.lathe import FAIR, SNUG, WORN

    took: list[tuple[float, float]] = []

    def asked(state: dict[str, Any]) -> dict[str, Any]:
        advice: dict[str, Any] = {}
        took.append(measured(lambda: advice.update(advice_for(state))))
        return advice

    for seed in range(count, count + 60):
        by_the_coach(bench(seed), asked)
    print(f"one coach answer            {Timed.of(took).told(5, 2)}")
    for name, hand, zero, slide in (
        *(
            (f"coach, {kind} slide{and_zero}", by_the_coach, zero, slide)
            for kind, slide in (("worn", WORN), ("fair", FAIR), ("snug", SNUG))
            for and_zero, zero in (("", False), (", zero checked", True))
        ),
        ("careful hand", by_care, False, WORN),
        ("dials the remainder", by_the_remainder, False, WORN),
    ):
        found = [hand(bench(seed, zero, slide)) for seed in range(count)]
        inside = sum(outcome.inside for outcome in found) / count
        past = sum(outcome.past for outcome in found) / count
        error = (inside * (1 - inside) / count) ** 0.5
        stops = sum(outcome.stops for outcome in found) / count
        bands = ", ".join(
            f"{1000 * band:.0f} µm "
            f"{100 * statistics.mean(outcome.inside for outcome in those):.0f}"
            for band in BANDS
            if (
                those := [
                    outcome for outcome in found if abs(outcome.band - band) < 1e-9
                ]
            )
        )
        told = [outcome for outcome in found if outcome.said is not None]
        said = ""
        if told:
            are = statistics.mean(outcome.inside for outcome in told)
            chance = statistics.mean(outcome.said or 0.0 for outcome in told)
            said = f"; says {100 * chance:.0f} % at the end, {100 * are:.0f} are"
            off = [error for job in told for error in job.off]
            rms = statistics.mean(error**2 for error in off) ** 0.5
            said += f"; errors {rms:.2f} of its sigma (target 0.85 to 1.15)"
        print(
            f"{name:<32} in band {100 * inside:.1f} ± {100 * error:.1f} %, scrapped "
            f"{100 * past:.1f} %, {stops:.1f} stops ({bands}){said}"
        )


def practice_levels(seeds: int = 28) -> None:
    """Three hands at the exercises of each level: a thousand jobs in all."""
    from machinon.core.practice.levels import LEVELS
    from machinon.core.practice.playing import by_care, by_haste, by_the_coach
    from machinon.core.practice.sneak_up import WORDS, begin

    for level in LEVELS:
        for name, hand in (
            ("coach", by_the_coach),
            ("careful hand", by_care),
            ("hasty hand", by_haste),
        ):
            found = [
                hand(begin(kind, level, seed))
                for kind in WORDS
                for seed in range(seeds)
            ]
            count = len(found)
            inside = sum(outcome.inside for outcome in found) / count
            past = sum(outcome.past for outcome in found) / count
            stops = statistics.mean(outcome.stops for outcome in found)
            print(
                f"practice, {level:<6}{name:<13} in band {100 * inside:.0f} %, scrap "
                f"{100 * past:.0f} %, {stops:.1f} stops ({count} jobs)"
            )


def void(_value: object) -> None:
    """Throw a result away."""


def main() -> None:
    with tempfile.TemporaryDirectory() as folder:
        start_up(Path(folder))
    with tempfile.TemporaryDirectory() as folder:
        edits(Path(folder))
        at_the_dial()
        practice_levels()
        reckonings()
        families_edited(Path(folder) / "families")
        a_thousand_bodies(Path(folder))


if __name__ == "__main__":
    main()
