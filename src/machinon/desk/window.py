"""The main window: menus from the table of commands, pages, the ways between.

The pages, and the shop file with all that reads it, are imported when they are
first shown: the window itself is up before that.
"""

from collections.abc import Callable, Mapping
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Any

from msgspec.structs import replace
from PySide6.QtCore import QByteArray, Qt, QTimer
from PySide6.QtGui import QAction, QCloseEvent, QKeyEvent, QKeySequence
from PySide6.QtWidgets import (
    QApplication,
    QFileDialog,
    QMainWindow,
    QMessageBox,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from machinon import __version__
from machinon.core.errors import BadInput, MachinonError
from machinon.core.quantity import LENGTH
from machinon.core.reckoning import Answer
from machinon.desk.commands import COMMANDS, Command
from machinon.desk.faults import faults
from machinon.desk.keeping import Keeping
from machinon.desk.keys_sheet import show_keys
from machinon.desk.settings import SCALES, Settings
from machinon.desk.theme import THEMES, dress
from machinon.desk.widgets import LineEntry, Look, label
from machinon.desk.wires.wired import Wired

if TYPE_CHECKING:
    from machinon.core.ask.own_figures import OwnFigures
    from machinon.core.job.job import Stage
    from machinon.core.shop.things import Lathe, Piece
    from machinon.desk.job_page import JobPage
    from machinon.desk.open_job import OpenJob
    from machinon.desk.start_page import FormPage
    from machinon.store.searching import Hit
    from machinon.store.shop_file import ShopFile


ALL_LINES = 1_000_000  # of a daybook that goes out whole
FULL_WIDTH, FULL_HEIGHT = 1180, 560  # px that a stage alone wants at 100 %


def typed_in(page: QWidget) -> dict[str, str]:
    """The text that is typed and not yet taken, by the name of its entry."""
    return {
        entry.accessibleName(): entry.text()
        for entry in page.findChildren(LineEntry)
        if entry.isModified() and entry.text() and entry.accessibleName()
    }


def keep_form() -> None:
    """A form that is being filled keeps what is typed through a change of look."""


# commands that only make sense while a job is open
IN_JOB = (
    "stage.",
    "survey.",
    "fits.",
    "job.sheet",
    "route.sheet",
    "step.lesson",
    "job.drawing",
    "job.files",
    "job.json",
    "job.more",
    "job.less",
    "job.mates",
    "view.machine",
)


class MainWindow(QMainWindow):
    """The desk: one shop file, at most one job open."""

    file: "ShopFile"

    def __init__(self, settings: Settings, scratch: Path) -> None:
        """An empty desk; `open_file` puts a shop on it.

        scratch: a folder for the demo shop, where it is asked for later.
        """
        super().__init__()
        self.settings = settings
        self._scratch = scratch
        self.look = Look(
            THEMES[settings.get("theme")], settings.get("font_scale") / 100
        )
        self.job: OpenJob | None = None
        self._job_page: JobPage | None = None
        self._refresh_page = self.show_start
        self.actions_by_id: dict[str, QAction] = {}
        self._machine = False
        self._leaving = False
        self._closed = ""  # the job whose beginning was taken back last
        self._start: QWidget | None = None
        self.pages = QStackedWidget()
        self.pages.setObjectName("page")
        self.keeping = Keeping(self)
        whole = QWidget()
        column = QVBoxLayout(whole)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.keeping.bar)
        column.addWidget(self.pages, 1)
        self.wired = Wired(self, column)
        self.setCentralWidget(whole)
        faults.tell = self.tell
        self.setMinimumSize(900, 600)
        self._make_menus()
        self._dress()
        geometry = settings.get("geometry")
        if not (isinstance(geometry, QByteArray) and self.restoreGeometry(geometry)):
            self.resize(1280, 800)
        opening = label("Opening the shop …", "title")
        opening.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.pages.addWidget(opening)
        self.setWindowTitle("Machinon")

    def open_file(self, file: "ShopFile") -> None:
        """Put a shop on the desk, with the job that was open last.

        A job that cannot be opened leads to the start page, which says why.
        """
        self.file = file
        self.keeping.watch()
        file.mend_shop()
        last = self.settings.get("last_job")
        if last and any(entry.id == last for entry in file.entries("job")):
            self.open_job(last)
        else:
            self.show_start()
        self.keeping.offer_left_over()
        self.keeping.on_trouble()
        self.wired.begin()

    # -- commands --------------------------------------------------------

    def _make_menus(self) -> None:
        handlers = self.handlers()
        for command in COMMANDS:
            action = QAction(command.words, self)
            if command.keys:
                action.setShortcuts(
                    [QKeySequence(keys) for keys in command.keys.split(", ")]
                )
            action.triggered.connect(
                lambda _=False, command=command: self._do(command, handlers[command.id])
            )
            self.actions_by_id[command.id] = action
            self.addAction(action)
        for name in dict.fromkeys(command.menu for command in COMMANDS):
            menu = self.menuBar().addMenu(name)
            for command in COMMANDS:
                if command.menu == name:
                    menu.addAction(self.actions_by_id[command.id])
            menu.aboutToShow.connect(self._enable)

    def handlers(self) -> dict[str, object]:
        """The act of each command, by its id."""
        return {
            "job.new": self.new_job,
            "job.more": self.add_made,
            "job.less": self.drop_made,
            "job.mates": self.choose_mates,
            "job.list": self.show_start,
            "job.daybook": self.show_daybook,
            "reckoner": self.show_reckoner,
            "set_up": self.show_set_up_bench,
            "practice": self.show_practice,
            "devices": self.show_devices,
            "devices.take": self.wired.take_in_hand,
            "shop.open": self.show_shop,
            "job.sheet": lambda: self._on_proof("sheet"),
            "job.drawing_svg": lambda: self._on_proof("svg"),
            "job.drawing_pdf": lambda: self._on_proof("pdf"),
            "job.files": lambda: self._on_proof("files"),
            "survey.sheet": lambda: self._in_stage("survey", "ask_sheet"),
            "survey.piece": lambda: self._in_stage("survey", "ask_piece"),
            "survey.surface": lambda: self._in_stage("survey", "ask_surface"),
            "fits.sheet": lambda: self._in_stage("fits", "ask_sheet"),
            "route.sheet": lambda: self._in_stage("route", "ask_sheet"),
            "fits.fit": lambda: self._in_stage("fits", "ask_fit"),
            "job.json": self.save_job,
            "step.lesson": self.note_lesson,
            "desk.quit": self.close,
            "file.open": lambda: self.keeping.open_another(),
            "file.recent": lambda: self.keeping.show_recent(),
            "file.backup": lambda: self.keeping.back_up(),
            "file.restore": lambda: self.keeping.restore(),
            "file.copy": lambda: self.keeping.save_copy(),
            "edit.undo": lambda: self._move("undo"),
            "edit.redo": lambda: self._move("redo"),
            **{
                command.id: lambda id=command.id: self.go(id.partition(".")[2])
                for command in COMMANDS
                if command.id.startswith("stage.")
            },
            "view.units": self.swap_units,
            "view.angle": self.swap_angle,
            "view.theme": self.swap_theme,
            "view.larger": lambda: self._scale_by(1),
            "view.smaller": lambda: self._scale_by(-1),
            "view.machine": self.at_the_machine,
            "help.keys": lambda: show_keys(self, self.look),
            "help.about": self.show_about,
        }

    def _enable(self) -> None:
        """Enables the possible commands when a menu opens."""
        in_job = self.job_page() is not None
        for id, action in self.actions_by_id.items():
            if id.startswith(IN_JOB):
                action.setEnabled(in_job)
        fills = hasattr(self.pages.currentWidget(), "at_the_machine")
        self.actions_by_id["view.machine"].setEnabled(fills)
        self.actions_by_id["job.new"].setEnabled(bool(self.file.entries("lathe")))
        for id, words, says in (
            ("edit.undo", "Undo", self._says("undoable")),
            ("edit.redo", "Redo", self._says("redoable")),
        ):
            self.actions_by_id[id].setText(f"{words}: {says}" if says else words)
            self.actions_by_id[id].setEnabled(bool(says))

    def _says(self, which: str) -> str:
        context = getattr(self.pages.currentWidget(), "context", "")
        if which == "redoable" and self.pages.currentWidget() is self._start:
            context = self._closed
        if self.job is not None and self.job_page() is not None:
            context = self.job.job.id
        if not context:
            return ""
        says = getattr(self.file, which)(context)
        return says if len(says) < 60 else says[:57] + "…"

    # -- pages -----------------------------------------------------------

    def _show_page(self, page: QWidget) -> None:
        while self.pages.count():
            old = self.pages.widget(0)
            self.pages.removeWidget(old)
            if hasattr(old, "close_run"):
                old.close_run()
            old.deleteLater()
        if self.job is not None:
            # the page that followed it is gone
            self.job.changed = lambda: None
        self.pages.addWidget(page)
        self.pages.setCurrentWidget(page)
        for action in self.actions_by_id.values():
            action.setEnabled(True)

    def job_page(self) -> "JobPage | None":
        """The page of the open job, while it is shown."""
        page = self.pages.currentWidget()
        return page if page is self._job_page else None  # type: ignore[return-value]

    def show_start(self) -> None:
        """The jobs and the shop; the page that explains itself in an empty shop."""
        from machinon.desk.start_page import StartPage, WelcomePage

        self._leave_machine()
        self.job = None
        self.settings.put("last_job", "")
        self.setWindowTitle(f"{self.file.shop().name or 'New shop'} · Machinon")
        if not self.file.entries("lathe"):
            welcome = WelcomePage(self.look, self.file)
            welcome.finished.connect(lambda _: self.show_start())
            welcome.demo_requested.connect(self.open_demo)
            self._show_page(welcome)
            self._refresh_page = keep_form
            return
        page = StartPage(self.look, self.file)
        page.job_chosen.connect(self.open_job)
        page.new_job_requested.connect(self.new_job)
        page.daybook_requested.connect(self.show_daybook)
        page.reckoner_requested.connect(self.show_reckoner)
        page.practice_requested.connect(self.show_practice)
        page.shop_requested.connect(self.show_shop)
        page.changed.connect(self.show_start)
        self._start = page
        self._show_page(page)
        self._refresh_page = self.show_start
        self.keeping.offer_damaged()

    def new_job(self) -> None:
        """The page for a new job, once there is a lathe."""
        if not self.file.entries("lathe"):
            self.show_start()
            return
        self._ask_for_job(self.show_start)

    def new_job_for(self, piece_id: str) -> None:
        """The page for a new job that makes what goes with a piece of the shop."""
        from machinon.core.shop.things import Piece

        piece = self.file.get(piece_id)
        if isinstance(piece, Piece):
            back = partial(self.see_in_shop, "piece", piece_id)
            self._ask_for_job(back, piece=piece)

    def add_made(self) -> None:
        """The page for one piece more that the open job makes."""
        if self.job is None or self.job_page() is None:
            return
        self._ask_for_job(partial(self.open_job, self.job.job.id), self.job)

    def _ask_for_job(
        self,
        back: Callable[[], None],
        job: "OpenJob | None" = None,
        piece: "Piece | None" = None,
    ) -> None:
        """The page on what is made: in a new job, in this one besides, for a piece."""
        from machinon.desk.new_job_page import NewJobPage

        self._show_form(NewJobPage(self.look, self.file, job, piece), back)

    def choose_mates(self) -> None:
        """The page on what the piece goes with."""
        from machinon.desk.mates_page import MatesPage

        if self.job is None or self.job_page() is None:
            return
        if not self.job.has_mates():
            self.tell("What is made here goes with nothing that its family asks for.")
            return
        back = partial(self.open_job, self.job.job.id)
        self._show_form(MatesPage(self.look, self.file, self.job), back)

    def _show_form(self, page: "FormPage", back: Callable[[], None]) -> None:
        """A page to be filled in on a job; back: where it leads when it is given up."""
        self._leave_machine()
        page.finished.connect(self.open_job)
        page.left.connect(back)
        self._show_page(page)
        self._refresh_page = keep_form

    def drop_made(self) -> None:
        """Take the piece that is spoken of out of the open job."""
        if self.job is None:
            return
        try:
            self.job.drop_work(self.job.job.at)
        except BadInput as error:
            self.tell(error.message)

    def open_job(self, job_id: str) -> None:
        """Open a job in the stage it was left in."""
        from machinon.desk.open_job import OpenJob
        from machinon.store.shop_file import Damaged

        faults.doing = "opening a job"
        try:
            job = OpenJob(self.file, job_id)
            stage = next(
                (e.stage for e in self.file.entries("job") if e.id == job_id), "survey"
            )
            self.job = job
            self.settings.put("last_job", job_id)
            self.setWindowTitle(f"{job.job.name} · Machinon")
            self._show_job(stage)  # type: ignore[arg-type]
            if job.stayed:
                first, more = job.stayed[:4], len(job.stayed) - 4
                sizes = ", ".join(first) + (f" and {more} more" if more > 0 else "")
                self.tell(
                    "Rules of the program have changed since this job was last kept. "
                    f"These sizes stay as they were: {sizes}. Empty one in Piece to "
                    "have it by its rule."
                )
        except Damaged as error:
            self.keeping.offer_earlier(error, lambda: self.open_job(job_id))
            self.show_start()
        except MachinonError as error:
            self.show_start()
            self.tell(str(error))
        except Exception as error:
            self.show_start()
            faults.report(error)

    def _show_job(self, stage: "Stage") -> None:
        from machinon.desk.bench import Bench
        from machinon.desk.job_page import JobPage

        assert self.job is not None
        bench = Bench(
            self.look, self.job, self.open_working, self.go, self.show_reckoner
        )
        page = JobPage(bench, stage)
        page.left.connect(self.show_start)
        page.full_screen_left.connect(self.at_the_machine)
        page.more_wished.connect(self.add_made)
        page.less_wished.connect(self.drop_made)
        page.mates_wished.connect(self.choose_mates)
        self._job_page = page
        self._show_page(page)
        self.job.changed = page.refresh
        self._refresh_page = lambda: self._show_job(page.stage)
        view = page.view()
        if view is not None:
            view.begin()
        if self._machine:
            page.at_the_machine()

    def go(self, stage: "Stage", fit: int = 0) -> None:
        """Goes to a stage of the open job, from anywhere."""
        page = self.job_page()
        if page is not None:
            page.show_stage(stage, fit)

    def show_daybook(self) -> None:
        """The daybook of the open job, or of the shop."""
        from machinon.desk.daybook import DaybookPage

        self._leave_machine()
        job_id = self.job.job.id if self.job else ""
        page = DaybookPage(self.look, self.file, job_id)
        page.left.connect(
            lambda: self.open_job(job_id) if job_id else self.show_start()
        )
        self._show_page(page)
        self._refresh_page = self.show_daybook

    def show_shop(self) -> None:
        """Machines, pieces and instruments; the page that sets up an empty shop."""
        if not self.file.entries("lathe"):
            self.show_start()
            return
        from machinon.desk.shop_page import ShopPage

        self._leave_machine()
        job = self.job
        page = ShopPage(self.look, self.file)
        page.job_wanted.connect(self.new_job_for)
        page.left.connect(
            lambda: self.open_job(job.job.id) if job else self.show_start()
        )
        self._show_page(page)
        self._refresh_page = self.show_shop

    def see_in_shop(self, kind: str, id: str) -> None:
        """The shop, with one of its things in view."""
        self.show_shop()
        page = self.pages.currentWidget()
        page.choose(kind, id)  # type: ignore[attr-defined]

    def show_devices(self) -> None:
        """Shows the devices on a wire, and how they are read."""
        self._leave_machine()
        job = self.job
        page = self.wired.page()
        page.left.connect(
            lambda: self.open_job(job.job.id) if job else self.show_start()
        )
        self._show_page(page)
        self._refresh_page = self.show_devices

    def show_practice(self) -> None:
        """The simulated lathe; what was under way there goes on."""
        from machinon.desk.practice.practice_page import PracticePage

        before = self.pages.currentWidget()
        if not isinstance(before, PracticePage):
            self._leave_machine()
            self.job = None
        page = PracticePage(
            self.look,
            self._scratch,
            (
                lambda: self.settings.get("practice"),
                lambda text: self.settings.put("practice", text),
            ),
        )
        if isinstance(before, PracticePage):
            page.go_on_from(before)
        page.left.connect(self.show_start)
        page.full_screen_left.connect(self.at_the_machine)
        page.measured.connect(lambda size: self.wired.speak("gauge", size))
        page.dialled.connect(lambda at: self.wired.speak("readout", at))
        self.setWindowTitle("Practice · Machinon")
        self._show_page(page)
        self._refresh_page = self.show_practice
        if self._machine:
            page.at_the_machine()
        if page.cut is not None:
            page.cut.begin()

    def show_set_up_bench(self) -> None:
        """The sums of setting up, first that of centring."""
        self.show_reckoner("centring", ahead="Setting up")

    def show_reckoner(
        self,
        name: str = "",
        given: Mapping[str, Any] | None = None,
        ahead: str = "",
    ) -> None:
        """The Reckoner; from a job its answers can be noted there.

        given: all inputs, in place of the usual question; ahead: the group of sums
        that stands first.
        """
        from machinon.desk.reckoner import ReckonerPage
        from machinon.store.searching import search

        self._leave_machine()
        job = self.job

        def use(key: str, size: str) -> None:
            assert job is not None
            try:
                job.set_size(key, size)
            except MachinonError as error:
                page.say(str(error), wrong=True)
            else:
                page.say(f"{size} is in the piece now; take it back there with Ctrl+Z.")

        page = ReckonerPage(
            self.look,
            self.file.shop().inch,
            job.job.name if job else "",
            _lengths_of(job) if job is not None else {},
            name or "iso-fit",
            self._own_figures(),
            given,
            lambda text: search(self.file, text),
            ahead,
        )
        page.found_wished.connect(self.go_to_found)
        page.left.connect(
            lambda: self.open_job(job.job.id) if job else self.show_start()
        )
        if job is not None:
            page.note_wished.connect(lambda text: self.file.note(job.job.id, text))
            page.size_wished.connect(lambda key, size: use(key, size))
        self._show_page(page)
        page.search.edit.setFocus()
        self._refresh_page = lambda: self.show_reckoner(
            *(
                (page.question.reckoning.name, page.question.given, ahead)
                if page.question
                else ("", None, ahead)
            )
        )

    def go_to_found(self, hit: "Hit") -> None:
        """Go to what was found in the shop."""
        if hit.kind == "job":
            self.open_job(hit.id)
            return
        if hit.kind == "line":
            jobs = {entry.id for entry in self.file.entries("job")}
            if hit.id in jobs:
                self.open_job(hit.id)
            self.show_daybook()
            page = self.pages.currentWidget()
            page.find.put(hit.name[:60])  # type: ignore[attr-defined]
            return
        kind = {"belongings": "shelf", "surface": "piece"}.get(hit.kind, hit.kind)
        self.see_in_shop(kind, hit.id)

    def _own_figures(self) -> "OwnFigures":
        """The shop's machines and shelves, which a reckoning starts from."""
        from machinon.core.ask.own_figures import OwnFigures
        from machinon.core.shop.belongings import Belongings
        from machinon.core.shop.machines import Machine

        return OwnFigures(
            self._first_lathe(),
            tuple(self.file.all_of(Machine)),
            {shelf.id: shelf for shelf in self.file.all_of(Belongings)},
        )

    def _first_lathe(self) -> "Lathe | None":
        """The open job's lathe, else the shop's first."""
        if self.job is not None and self.job.lathe is not None:
            return self.job.lathe
        from machinon.core.shop.things import Lathe

        return next(iter(self.file.all_of(Lathe, 1)), None)

    def open_working(self, answer: Answer) -> None:
        """Open a number to its formula, inputs and source."""
        from machinon.desk.daybook import WorkingWindow

        WorkingWindow(self, self.look, answer).show()

    def open_demo(self) -> None:
        """Go over to a throw-away copy of the demo shop."""
        from machinon.store.demo_shop import demo_shop
        from machinon.store.opening import open_shop

        self.file.close()
        self.settings = Settings(None)
        self.open_file(open_shop(demo_shop(self._scratch), durable=False))

    # -- doing -----------------------------------------------------------

    def _do(self, command: Command, handler: Callable[[], object]) -> None:
        faults.doing = f"doing “{command.words.rstrip('…')}”"
        handler()

    def ask(self, text: str, yes: str, then: Callable[[], object]) -> None:
        """Ask a question that may be left; `then` is done where the answer is yes."""
        box = QMessageBox(self)
        box.setWindowTitle("Machinon")
        box.setTextFormat(Qt.TextFormat.PlainText)
        box.setText(text)
        done = box.addButton(yes, QMessageBox.ButtonRole.AcceptRole)
        box.addButton("Cancel", QMessageBox.ButtonRole.RejectRole)
        box.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        done.clicked.connect(lambda: QTimer.singleShot(0, then))
        box.open()

    def _move(self, which: str) -> None:
        page = self.pages.currentWidget()
        at_job = self.job_page() is not None
        try:
            if at_job and self.job is not None:
                self.job.undo() if which == "undo" else self.job.redo()
                if self.job.gone:
                    self._closed = self.job.job.id
                    self.show_start()
            elif which == "redo" and self._closed and page is self._start:
                if self.file.redo(self._closed):
                    self.open_job(self._closed)
            elif hasattr(page, which):  # the shop takes back by itself
                getattr(page, which)()
        except MachinonError as error:
            self.tell(str(error))

    def _in_stage(self, stage: "Stage", ask: str) -> None:
        """Go to a stage of the open job and ask there for something new."""
        page = self.job_page()
        if page is None:
            return
        page.show_stage(stage)
        view = page.view()
        if view is not None:  # else the page says why there is nothing there
            getattr(view, ask)()

    def save_job(self) -> None:
        """Ask where to, and write the open job for other programs."""
        if self.job is None:
            return
        name = f"{self.job.job.id}.json"
        path, _ = QFileDialog.getSaveFileName(self, "Save", name, "*.json")
        if path:
            self.write_job(Path(path))

    def write_job(self, path: Path) -> None:
        """Write the open job as JSON; says where, or why not."""
        from machinon.store.job_json import write_job

        assert self.job is not None
        lines = self.file.daybook(self.job.job.id, ALL_LINES)[::-1]
        try:
            write_job(self.job.plan, lines, path)
        except MachinonError as error:
            self.tell(str(error))
        else:
            self.tell(f"Written: {path}")

    def note_lesson(self) -> None:
        """Ask what went wrong at the step at hand, else at one that is chosen."""
        page = self.job_page()
        view = page.view() if page is not None else None
        if view is not None and view.step_here() is not None:
            view.ask_lesson()
        else:
            self._in_stage("route", "ask_lesson")

    def _on_proof(self, what: str) -> None:
        page = self.job_page()
        if page is None:
            return
        from machinon.desk.stages.proof import ProofView

        page.show_stage("proof")
        view = page.view()
        if isinstance(view, ProofView):
            if what == "sheet":
                view.save_sheet()
            elif what == "files":
                view.save_file()
            else:
                view.save_drawing(what)

    def swap_units(self) -> None:
        """Millimetres or inches first, for the whole shop."""
        inch = not self.file.shop().inch
        self._shop_has(f"{'Inches' if inch else 'Millimetres'} first.", inch=inch)

    def swap_angle(self) -> None:
        """Drawings in first or third angle, for the whole shop."""
        first = not self.file.shop().first_angle
        said = f"Drawings in {'first' if first else 'third'} angle."
        self._shop_has(said, first_angle=first)
        self.tell(said)

    def _shop_has(self, says: str, **changed: bool) -> None:
        self.file.act("shop", says, replace(self.file.shop(), **changed))
        if self.job is not None:
            self.job.load(self.job.job.id)
        self._show_anew()

    def _show_anew(self) -> None:
        """The page at hand in its new look; what is chosen and half typed stays."""
        before = self.pages.currentWidget()
        at, typed = getattr(before, "at", None), typed_in(before)
        self._refresh_page()
        page = self.pages.currentWidget()
        if page is before or type(page) is not type(before):
            return
        if at is not None:
            page.at = at  # type: ignore[attr-defined]
        for entry in page.findChildren(LineEntry):
            if entry.accessibleName() in typed:
                entry.setText(typed[entry.accessibleName()])
                entry.setModified(True)

    def swap_theme(self) -> None:
        key = "paper" if self.settings.get("theme") == "blued" else "blued"
        self.settings.put("theme", key)
        self._dress()
        self._show_anew()

    def _scale_by(self, step: int) -> None:
        at = SCALES.index(self.settings.get("font_scale")) + step
        self.settings.put("font_scale", SCALES[max(0, min(at, len(SCALES) - 1))])
        self._dress()
        self._show_anew()

    def _dress(self) -> None:
        self.look.theme = THEMES[self.settings.get("theme")]
        self.look.scale = self.settings.get("font_scale") / 100
        if self._machine:
            # at the lathe the stage has the whole screen, and is read from afar
            room = self.screen().size()
            fills = min(room.width() / FULL_WIDTH, room.height() / FULL_HEIGHT)
            self.look.scale = max(self.look.scale, fills)
        app = QApplication.instance()
        assert isinstance(app, QApplication)
        dress(app, self, self.look.theme, self.look.scale)

    def at_the_machine(self) -> None:
        """Full screen, the stage alone; the same key leads back."""
        if self._machine:
            self._leave_machine()
            return
        if not hasattr(self.pages.currentWidget(), "at_the_machine"):
            return
        self._machine = True
        self._dress()
        self._show_anew()
        self.menuBar().hide()
        self.showFullScreen()

    def _leave_machine(self) -> None:
        if not self._machine:
            return
        self._machine = False
        self._dress()
        self.menuBar().show()
        self.showNormal()
        if hasattr(self.pages.currentWidget(), "at_the_machine"):
            self._show_anew()

    def show_about(self) -> None:
        self.tell(
            f"Machinon {__version__}, under the MIT licence. Its fonts, B612 and "
            "Routed Gothic, under the SIL Open Font Licence.\n\nA companion, not an "
            "authority: local codes, the machine maker's limits and qualified people "
            "come first."
        )

    def tell(self, text: str) -> None:
        """Say something that needs no answer."""
        box = QMessageBox(self)
        box.setWindowTitle("Machinon")
        box.setTextFormat(Qt.TextFormat.PlainText)
        box.setText(text)
        box.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        box.open()

    # -- Qt --------------------------------------------------------------

    def _close_anyway(self) -> None:
        self._leaving = True
        self.close()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape and self._machine:
            self._leave_machine()
            return
        super().keyPressEvent(event)

    def closeEvent(self, event: QCloseEvent) -> None:
        file = getattr(self, "file", None)
        lost = file is not None and bool(file.trouble) and file.sheltered_in is None
        if lost and not self._leaving and not file.retry():
            event.ignore()
            self.ask(
                "Entries are not on disk yet and would be lost. Save a copy elsewhere "
                "first, or close all the same?",
                "Close and Lose Them",
                self._close_anyway,
            )
            return
        self.wired.stop()
        self.settings.put("geometry", self.saveGeometry())
        if hasattr(self, "file"):
            self.file.close()
        super().closeEvent(event)


def _lengths_of(job: "OpenJob") -> dict[str, str]:
    """The lengths of a job's piece that can be set, with their words."""
    made = job.plan.made
    if made is None:
        return {}
    return {
        key: known.size.words
        for key, known in made.sizes.items()
        if known.size.kind is LENGTH
    }
