"""Pictures of every main view, made from the demo shop."""

from pathlib import Path

from PySide6.QtWidgets import QApplication

from machinon.core.job.job import STAGES
from machinon.core.shop.things import Piece
from machinon.desk.begin import begin_job
from machinon.desk.open_job import OpenJob
from machinon.desk.settings import Settings
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
    """Write start.png and a picture of each stage into a folder."""
    folder.mkdir(parents=True, exist_ok=True)
    settings = Settings(None)
    settings.put("theme", theme)
    settings.put("font_scale", scale)
    window = MainWindow(settings, scratch)
    window.open_file(file)
    window.resize(*size)
    window.show()

    def take(name: str) -> None:
        for _ in range(3):
            QApplication.processEvents()
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
    finish(window.job)
    window.go("proof")
    take("proof")
    window.show_daybook()
    take("daybook")
    window.open_job("dial-hub")
    window.job.set_joint(1, "press")
    # more would make the thin hub yield
    window.job.give(1, "hub_outside", "36")
    window.job.own_play(1, "-0.016", "-0.003")
    window.go("fits")
    take("fits-press")
    window.open_job("t-nuts")
    window.go("piece")
    take("piece-t-nuts")
    for like, name in (
        ("boring-bar-20", "piece-boring-bar"),
        ("chuck-drill-plate", "piece-drill-plate"),
    ):
        window.open_job(_one_more(file, like))
        window.go("piece")
        take(name)
    window.open_job("die-holder")
    window.go("survey")
    take("survey-taper")
    window.show_start()
    window.show_shop()
    page = window.pages.currentWidget()
    for kind, id, name in (
        ("piece", "chuck-130", "shop"),
        ("machine", "mill", "shop-machine"),
        ("shelf", "tools", "shop-shelf"),
    ):
        page.choose(kind, id)  # type: ignore[attr-defined]
        take(name)
    window.show_reckoner()
    window.pages.currentWidget().search.put("1.25 pitch 4mm leadscrew")  # type: ignore[attr-defined]
    take("reckoner")
    window.close()


def _one_more(file: ShopFile, like: str) -> str:
    """A job that makes a piece of the shop once more; its id."""
    piece = file.get(like)
    assert isinstance(piece, Piece)
    assert piece.making is not None
    typed = {"what": piece.making.family, "name": piece.name, "like": like}
    return begin_job(file, typed).id


def finish(job: OpenJob) -> None:
    """Carry the demo's job to its end as a person would, on this copy only."""
    while job.plan.advice is not None and job.plan.advice.action != "stop":
        advice = job.plan.advice
        if advice.infeed > 0:
            job.cut_made()
        size = advice.predicted if advice.predicted is not None else 0.0
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
