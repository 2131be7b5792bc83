"""Pictures of every main view, made from the demo shop."""

import time
from pathlib import Path

from PySide6.QtWidgets import QApplication

from machinon.core.job.job import STAGES
from machinon.core.shop.things import Piece
from machinon.desk.begin import begin_job
from machinon.desk.open_job import OpenJob
from machinon.desk.settings import Settings
from machinon.desk.widgets import LATER
from machinon.desk.window import MainWindow
from machinon.store.shop_file import ShopFile

JOB = "back-plate-130"


def shoot(
    file: ShopFile,
    scratch: Path,
    folder: Path,
    size: tuple[int, int] = (1280, 800),
    theme: str = "blued",
    scale: int = 100,
) -> None:
    """Write a picture of every main view into a folder."""
    folder.mkdir(parents=True, exist_ok=True)
    QApplication.setCursorFlashTime(0)  # each time alike
    settings = Settings(None)
    settings.put("theme", theme)
    settings.put("font_scale", scale)
    window = MainWindow(settings, scratch)
    window.open_file(file)
    window.resize(*size)
    window.show()

    def take(name: str) -> None:
        _wait(5 * LATER / 1000)  # until what was laid out twice stands
        window.grab().save(str(folder / f"{name}.png"))

    window.show_start()
    take("start")
    window.new_job()
    take("new-job")
    window.open_job(JOB)
    assert window.job is not None
    for stage in STAGES[:-1]:
        window.go(stage)
        page = window.job_page()
        view = page.view() if page else None
        if view is not None:
            view.show_fit(3)
        if stage == "survey":
            view.choose("chuck-130", "recess")  # type: ignore[union-attr]
        take(stage)
        if stage == "piece" and view is not None:
            view.as_solid.click()  # type: ignore[attr-defined]
            take("piece-solid")
            view.as_solid.click()  # type: ignore[attr-defined]
    window.job.mark_step("thread", False)
    _work(window, "thread", 8)
    take("cut-thread")
    window.job.mark_step("flange", False)
    _work(window, "flange", 0)
    view = window.job_page().view()  # type: ignore[union-attr]
    view.lines.true.click()  # type: ignore[union-attr]
    window.job.read_round("0 0.12 0.30 0.18")
    take("cut-true")
    window.job.cut_fit(3)
    for step in ("thread", "flange"):
        window.job.mark_step(step, True)
    finish(window.job)
    window.go("proof")
    take("proof")
    window.show_daybook()
    take("daybook")
    window.open_job("t-nuts")
    window.go("piece")
    take("piece-t-nuts")
    window.open_job(_one_more(file, "boring-bar-20"))
    window.go("piece")
    take("piece-boring-bar")
    window.open_job(_one_more(file, "chuck-drill-plate"))
    holes = next(
        step.key
        for up in window.job.plan.route
        for step in up.steps
        if step.operation == "drill" and len(step.cut[0].cuts()) > 2
    )
    _work(window, holes, 3)
    take("cut-holes")
    window.show_start()
    window.show_shop()
    page = window.pages.currentWidget()
    page.choose("piece", "chuck-130")  # type: ignore[attr-defined]
    take("shop")
    _practise(window)
    take("practice")
    _listen(window)
    take("devices")
    window.wired.hub.stop()
    window.show_reckoner()
    window.pages.currentWidget().search.put("1.25 pitch 4mm leadscrew")  # type: ignore[attr-defined]
    take("reckoner")
    window.close()


def _work(window: MainWindow, step: str, lines: int) -> None:
    """Put a step of the open job at the machine, its first lines done."""
    assert window.job is not None
    window.job.work_at(step)
    for line in window.job.lines.lines[:lines]:
        window.job.tick_line(line.key)
    window.go("cut")


def _practise(window: MainWindow) -> None:
    """An exercise half way, as the coach would have it."""
    window.show_practice()
    page = window.pages.currentWidget()
    page.seed.put("7")  # type: ignore[attr-defined]
    page.begin_one()  # type: ignore[attr-defined]
    job = page.job  # type: ignore[attr-defined]
    job.measure_start(f"{job.gauge}")
    job.touch_at("0")
    for _ in range(2):
        job.cut_made()
        job.measured_cut(f"{job.gauge}")
    job.cut_made()


def _listen(window: MainWindow) -> None:
    """A simulated gauge and a read-out, whose lines are shown."""
    window.show_devices()
    page = window.pages.currentWidget()
    page.simulate("gauge")  # type: ignore[attr-defined]
    page.simulate("readout")  # type: ignore[attr-defined]
    gauge, readout = window.wired.hub.stand_ins.values()
    readout.show(X=42.425, Y=-17.58, Z=3.0)
    for wait in (0.4, 1.0):
        _wait(wait)
        gauge.send(46.01)


def _wait(seconds: float) -> None:
    """Go on for a while: what is beside the work at hand follows a moment later."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        QApplication.processEvents()


def _one_more(file: ShopFile, like: str) -> str:
    """A job that makes a piece of the shop once more; its id."""
    piece = file.get(like)
    assert isinstance(piece, Piece)
    assert piece.making is not None
    typed = {"what": piece.making.family, "name": piece.name, "like": like}
    return begin_job(file, typed).id


def finish(job: OpenJob) -> None:
    """Carry the demo's job to its end as a person would, on this copy only: each cut
    comes out as was thought, and the last one at its aim."""
    while (advice := job.plan.advice) is not None and advice.action != "stop":
        if advice.infeed > 0:
            job.cut_made()
        state = job.plan.cut_state
        assert advice.predicted is not None
        assert state is not None
        size = state.aim if advice.inside > 0.3 else advice.predicted
        job.measured_cut(f"{size:.3f}")
    job.answer_trial("goes on")
    for size in ("46.009", "46.01", "46.01"):
        job.add_proof_reading("fit.1", size, "bore-gauge")
    for size in ("104.28", "104.25", "104.27"):
        job.add_proof_reading("fit.4", size, "caliper")
    for key in ("fit.1", "fit.4"):
        job.try_mate(key, "goes on")
    job.set_thread_tried(True)
    for set_up in job.plan.route:
        for step in set_up.steps:
            if step.key not in job.job.done:
                job.mark_step(step.key, True)
    job.set_runout("0.004 0.006 0.006 0.003 -0.001 -0.004 -0.003 0.001")
