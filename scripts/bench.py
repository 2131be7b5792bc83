"""Speeds, as ratios within one run where that is possible: `make bench`."""

import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

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
import sys
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
    from machinon.store.shop_file import open_shop
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


def start_up(folder: Path) -> None:
    from machinon.store.demo_shop import demo_shop

    shop = str(demo_shop(folder))
    cases = {
        "bare PySide6 window": (BARE,),
        "window painted": (OURS, "", ""),
        "jobs and shop painted": (OURS, shop, ""),
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


def timed(work: Callable[[int], None], count: int) -> tuple[float, float]:
    """Median and 95th percentile of `work`, in ms, after a warm-up."""
    took = []
    for i in range(count + 5):
        start = time.perf_counter()
        work(i)
        took.append((time.perf_counter() - start) * 1000)
    took = sorted(took[5:])
    return took[len(took) // 2], took[int(len(took) * 0.95)]


def edits(folder: Path) -> None:
    from PySide6.QtWidgets import QApplication

    from machinon.core.coach import advise
    from machinon.desk.settings import Settings
    from machinon.desk.theme import load_fonts
    from machinon.desk.window import MainWindow
    from machinon.store.demo_shop import demo_shop
    from machinon.store.shop_file import open_shop

    app = QApplication([])
    load_fonts()
    file = open_shop(demo_shop(folder))
    window = MainWindow(Settings(None), folder)
    window.open_file(file)
    window.show()
    window.open_job("back-plate-130")
    job = window.job
    assert job is not None
    for stage in ("piece", "route", "cut"):
        window.go(stage)  # type: ignore[arg-type]
        app.processEvents()

        def edit(i: int) -> None:
            job.set_size("hub_diameter", f"{70 + i % 7}")
            app.processEvents()

        p50, p95 = timed(edit, 60)
        print(
            f"edit of a size to repainted {stage:<6}"
            f"{p50:6.1f} ms p50 {p95:6.1f} ms p95 (target 16)"
        )
    state = job.plan.cut_state
    assert state is not None
    p50, p95 = timed(lambda _i: void(advise(state)), 400)
    print(f"one coach answer            {p50:6.2f} ms p50 {p95:6.2f} ms p95 (target 5)")
    window.close()


def void(_value: object) -> None:
    """Throw a result away."""


def main() -> None:
    with tempfile.TemporaryDirectory() as folder:
        start_up(Path(folder))
    with tempfile.TemporaryDirectory() as folder:
        edits(Path(folder))


if __name__ == "__main__":
    main()
