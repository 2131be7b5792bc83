"""Practice: what to try and how bad the lathe is; the exercise; the look back."""

import random
from collections.abc import Callable
from pathlib import Path
from typing import get_args

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from machinon.core.errors import BadInput
from machinon.core.practice.debrief import debrief
from machinon.core.practice.judged import (
    Exercise,
    Judged,
    JudgedKind,
    begin_judged,
)
from machinon.core.practice.levels import (
    ALLOWED,
    LEVEL_WORDS,
    HabitRanges,
    Level,
    own_settings,
)
from machinon.core.practice.record import Record, kept, kept_records, says
from machinon.core.practice.sneak_up import WORDS, Coached, SneakKind, begin
from machinon.core.quantity import COUNT, NUMBER, length_text, parse
from machinon.desk.bench import Bench
from machinon.desk.narrow import Combo, OnePage
from machinon.desk.practice.judged_page import TITLES, JudgedPage
from machinon.desk.practice.look_back import LookBack
from machinon.desk.practice.practice_cut import PracticeCut
from machinon.desk.practice.practice_job import PracticeJob, practice_shop
from machinon.desk.widgets import (
    DrawingView,
    Field,
    Look,
    button,
    label,
    panel,
    scrolled,
    set_part,
)
from machinon.draw.drawing import Drawing
from machinon.draw.practice_drawing import progress_drawing
from machinon.store.shop_file import local_time

COACHED: dict[Coached, str] = {
    "on": "The coach says what to do",
    "off": "Alone, told at the end",
    "after": "Alone; the coach step by step afterwards",
}
HABITS = {
    "band": "Band of the size, µm",
    "takes": "Share of a cut that the tool takes, a shaft's",
    "bar": "The same of a boring bar",
    "push_off": "What the edge pushes off, µm a side",
    "rubs": "It only rubs under, µm a side",
    "touch": "Touch, one sigma, µm",
    "seating": "Each setting, one sigma, µm",
    "gauge": "A reading, one sigma, µm",
    "lies": "Zero error of the gauge, in its own sigmas",
    "slips": "Slips in a hundred readings",
    "warm": "Degrees that a millimetre of cut heats it",
    "backlash": "Play in the screw, mm",
    "wear": "What the edge loses in a pass, µm",
    "division": "Lines of the dial, µm",
}
Kept = tuple[Callable[[], str], Callable[[str], None]]
Kind = SneakKind | JudgedKind
Asked = tuple[Kind, Level, int, HabitRanges | None, Coached]


class PracticePage(QWidget):
    """All of practice. Nothing here touches the shop that is open.

    Signals: left(); full_screen_left(); measured(size: float) when the gauge was
    picked up, and dialled(at: float) when the dial was wound, mm as it shows, so that
    simulated devices can say it on their wires.
    """

    left = Signal()
    full_screen_left = Signal()
    measured = Signal(float)
    dialled = Signal(float)

    def __init__(
        self,
        look: Look,
        folder: Path,
        remembered: Kept,
        clock: Callable[[], str] = local_time,
    ) -> None:
        """folder: for what is thrown away; remembered: reads and keeps the records."""
        super().__init__()
        self.look = look
        self._folder, self._clock = folder, clock
        self._read, self._keep = remembered
        self.records = kept_records(self._read())
        self.job: PracticeJob | None = None
        self.cut: PracticeCut | None = None
        self.asked: Asked | None = None
        self.kind: Kind = "shaft"
        self.choosing = self._choosing()
        self.pages = OnePage(self.choosing)
        self.run: QWidget | None = None
        self.back = button("‹ Jobs and shop", self._leave, "link")
        # with the focus on it its words are bold
        self.back.setMinimumWidth(self.back.sizeHint().width() + look.px(16))
        self.title = label("Practice", "title")
        self.leave_machine = button("Full screen off", self.full_screen_left.emit)
        self.leave_machine.hide()
        head = QHBoxLayout()
        head.addWidget(self.back)
        head.addWidget(self.title, 1)
        head.addWidget(self.leave_machine)
        whole = QVBoxLayout(self)
        px = look.px
        whole.setContentsMargins(px(12), px(6), px(12), px(8))
        whole.addLayout(head)
        whole.addWidget(self.pages, 1)
        self.pages.show_page(self.choosing)

    # -- choosing ----------------------------------------------------------

    def _choosing(self) -> QWidget:
        px = self.look.px
        page = QWidget()
        left = QVBoxLayout()
        left.setContentsMargins(px(14), px(10), px(14), px(10))
        left.addWidget(label("What to try", "head"))
        self.kinds = {}
        tiles = QWidget()
        column = QVBoxLayout(tiles)
        column.setContentsMargins(0, 0, px(4), 0)
        for key, words in (*WORDS.items(), *TITLES.items()):
            tile = button(words, lambda key=key: self._choose(key))
            tile.setCheckable(True)
            tile.setMinimumWidth(1)  # its words go into more lines instead
            self.kinds[key] = tile
            column.addWidget(tile)
        column.addStretch(1)
        left.addWidget(scrolled(tiles), 1)
        self.level = Combo()
        self.level.setAccessibleName("How bad the lathe is")
        for level, words in LEVEL_WORDS.items():
            self.level.addItem(words, level)
        self.level.setCurrentIndex(1)
        self.level.currentIndexChanged.connect(lambda _: self._show_own())
        self.coached = Combo()
        self.coached.setAccessibleName("The coach")
        for coached, words in COACHED.items():
            self.coached.addItem(words, coached)
        self.seed = Field("Number of the lathe; empty for any", COUNT)
        self.start = button("To the lathe", self.begin_one, "main")
        self.start.setMinimumHeight(px(46))
        right = QVBoxLayout()
        right.setContentsMargins(px(14), px(10), px(14), px(10))
        right.addWidget(label("The lathe", "head"))
        for widget in (self.level, self.coached, self.seed):
            right.addWidget(widget)
        self.own: dict[str, Field] = {}
        self.habits = QWidget()
        grid = QGridLayout(self.habits)
        grid.setContentsMargins(0, 0, 0, 0)
        for i, (key, words) in enumerate(HABITS.items()):
            low, high = ALLOWED[key]
            field = Field(words, NUMBER, placeholder=f"{low:g} to {high:g}")
            self.own[key] = field
            grid.addWidget(field, i // 2, i % 2)
        self.own_area = scrolled(self.habits)
        right.addWidget(self.own_area, 3)
        self.progress = DrawingView(self.look, self._progress, "How it goes", 14.0)
        right.addWidget(self.progress, 2)
        self.goes = label(says(self.records), "faint", wrap=True)
        right.addWidget(self.goes)
        right.addWidget(self.start)
        whole = QHBoxLayout(page)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addWidget(panel(left, True), 44)
        whole.addWidget(panel(right, True), 56)
        self._choose(self.kind)
        self._show_own()
        return page

    def _choose(self, key: str) -> None:
        self.kind = key  # type: ignore[assignment]
        for name, tile in self.kinds.items():
            tile.setChecked(name == key)

    def _show_own(self) -> None:
        own = self.level.currentData() == "own"
        self.own_area.setVisible(own)
        self.progress.setVisible(not own)

    def _progress(self, width: float, height: float, size: float) -> Drawing:
        return progress_drawing(self.records, width, height, size)

    def _settings(self) -> HabitRanges | None:
        """The habits as they were typed. Raises BadInput on one of them."""
        if self.level.currentData() != "own":
            return None
        typed = {
            key: parse(field.text(), NUMBER, key=key)
            for key, field in self.own.items()
            if field.text().strip()
        }
        return own_settings(typed)

    def begin_one(self) -> None:
        """Begin what was chosen, on the lathe of that number or on any."""
        try:
            text = self.seed.text().strip()
            seed = random.randrange(1, 10_000)
            if text:
                seed = int(parse(text, COUNT, key="seed", low=1, high=999_999))
            settings = self._settings()
        except BadInput as error:
            field = self.own.get(error.key, self.seed)
            field.refuse(error.message)
            return
        level, coached = self.level.currentData(), self.coached.currentData()
        self.asked = self.kind, level, seed, settings, coached
        self.again()

    # -- an exercise -------------------------------------------------------

    def again(self) -> None:
        """Begin what was asked, the same lathe as before."""
        assert self.asked is not None
        kind, level, seed, settings, coached = self.asked
        self._over()
        if kind in get_args(SneakKind):
            exercise = begin(kind, level, seed, settings)  # type: ignore[arg-type]
            file = practice_shop(exercise, self._folder)
            self.job = PracticeJob(file, exercise, coached, self._clock)
            self.show_run()
            return
        self._judge(begin_judged(kind, level, seed, settings))  # type: ignore[arg-type]

    def _named(self) -> None:
        assert self.asked is not None
        kind, _, seed, *_ = self.asked
        self.title.setText(f"{({**WORDS, **TITLES})[kind]}: lathe {seed}")

    def _judge(self, judged: Exercise) -> None:
        assert self.asked is not None
        kind, level, seed, _, coached = self.asked
        self._named()

        def ended(told: Judged) -> None:
            self._remember(
                Record(
                    kind, level, seed, coached, told.inside, told.past, told.stops,
                    self._clock()[:10],
                )
            )  # fmt: skip

        page = JudgedPage(self.look, judged, coached, ended, self.again, self.choose)
        self._show(page)
        page.begin()

    def show_run(self) -> None:
        """The page of Cut for the job under way, with the lathe below it."""
        job = self.job
        assert job is not None
        self._named()
        bench = Bench(
            self.look, job, lambda _: None, lambda _stage, _fit: None,
            lambda _name, _given: None,
        )  # fmt: skip
        cut = self.cut = PracticeCut(bench)
        cut.measure_wished.connect(self.measure)
        cut.try_wished.connect(self.try_mate)
        px = self.look.px
        self.heard = label("", "say", wrap=True)
        self.gauge = label("", "large", "measured")
        self.gauge_button = button("Measure  +", self.measure)
        self.try_button = button("Try the mate  *", self.try_mate)
        self.wind = Field("")
        self.wind.name.hide()
        self.wind.edit.setPlaceholderText("wind the dial to")
        self.wind.edit.setAccessibleName("Wind the dial without a cut")
        self.wind.taken.connect(self._wind_to)
        self.cool = button("Wait five minutes", job.wait)
        self.end = button("End it", self.finish)
        shown = QHBoxLayout()
        shown.addWidget(self.heard, 1)
        shown.addWidget(label("the gauge shows", "faint"))
        shown.addWidget(self.gauge)
        doings = QHBoxLayout()
        doings.addWidget(self.wind, 3)
        for widget in (self.gauge_button, self.try_button, self.cool, self.end):
            doings.addWidget(widget, 2)
        strip = QVBoxLayout()
        strip.setContentsMargins(px(12), px(2), px(12), px(6))
        strip.setSpacing(px(2))
        strip.addLayout(shown)
        strip.addLayout(doings)
        page = QWidget()
        column = QVBoxLayout(page)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(scrolled(cut), 1)
        column.addWidget(panel(strip, True))
        job.changed = self.refresh
        self._show(page)
        self.refresh()
        cut.begin()

    def refresh(self) -> None:
        """The lathe after an act; the gauge is picked up where a reading is asked."""
        job, cut = self.job, self.cut
        if job is None or cut is None:
            return
        cut.refresh()
        if cut.wants_reading and job.gauge is None:
            self.measure()
        ready = cut.screen is not None and cut.screen.asks in ("trial", "done")
        set_part(self.try_button, "main" if ready else "")
        self.heard.setText(job.heard or "The work turns true in the chuck.")
        self._show_gauge()
        self.dialled.emit(job.dial.shows(job.exercise.lathe.setting, job.touch))

    def _show_gauge(self) -> None:
        assert self.job is not None
        gauge = self.job.gauge
        shown = "–" if gauge is None else length_text(gauge, 0.001, self.job.inch)
        self.gauge.setText(shown)

    def measure(self) -> None:
        """Pick up the gauge: what it shows, and says on its wire."""
        job = self.job
        if job is not None:
            job.measure()
            self._show_gauge()
            self.measured.emit(job.gauge)

    def _wind_to(self, typed: str) -> None:
        job = self.job
        assert job is not None
        try:
            seen = parse(typed, inch=job.dial.inch, key="dial", low=-500, high=500)
        except BadInput as error:
            self.wind.refuse(error.message)
            return
        self.wind.clear()
        position = job.dial.position(seen, job.touch)
        job.exercise.lathe.wind_to(position)
        job.heard = f"The dial stands at {job.dial.text(seen)}."
        self.refresh()

    def try_mate(self) -> None:
        """Try the mate; what is decided by it ends the exercise."""
        job = self.job
        assert job is not None
        job.try_it_on()
        goes = job.job.log.trial
        job.heard = f"The mate: {goes}."
        self.refresh()
        if goes != "tight":
            self.finish()

    def finish(self) -> None:
        """Look back on it."""
        job = self.job
        if job is None:
            return
        self._remember(job.record())
        told = debrief(job.exercise, job.inch)
        self._over()
        self._show(LookBack(self.look, job, told, self.again, self.choose))

    def choose(self) -> None:
        """Goes back to the choice of exercises."""
        self._over()
        self.title.setText("Practice")
        self.goes.setText(says(self.records))
        self.progress.refresh()
        self.pages.show_page(self.choosing)
        self.start.setFocus()

    def go_on_from(self, before: "PracticePage") -> None:
        """Takes over the exercise of another page of practice: after a change of the
        look."""
        self.asked, self.records = before.asked, before.records
        self._choose(before.kind)
        for mine, other in (
            (self.level, before.level),
            (self.coached, before.coached),
        ):
            mine.setCurrentIndex(other.currentIndex())
        for key, field in self.own.items():
            field.put(before.own[key].text())
        self.job, before.job = before.job, None
        run = before.run if before.pages.page is before.run else None
        if self.job is not None:
            self.show_run()
        elif isinstance(run, JudgedPage) and not run.exercise.over:
            self._judge(run.exercise)
        elif isinstance(run, LookBack):
            self._named()
            told = LookBack(self.look, run.job, run.told, self.again, self.choose)
            self._show(told)

    def close_run(self) -> None:
        """Let go of what is thrown away."""
        self._over()

    def at_the_machine(self) -> None:
        """Leave only the exercise, and the way back."""
        self.back.hide()
        self.leave_machine.show()

    # -- keeping -----------------------------------------------------------

    def _remember(self, record: Record) -> None:
        self.records = (*self.records, record)
        self._keep(kept(self.records))

    def _over(self) -> None:
        job, self.job, self.cut = self.job, None, None
        if job is not None:
            job.changed = lambda: None
            job.file.close()

    def _show(self, page: QWidget) -> None:
        before, self.run = self.run, page
        self.pages.show_page(page)
        if before is not None:
            before.deleteLater()

    def _leave(self) -> None:
        self._over()
        self.left.emit()
