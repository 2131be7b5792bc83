"""The start: jobs and shop; in an empty shop one page that explains itself."""

import datetime

from msgspec.structs import replace
from PySide6.QtCore import QPointF, Qt, Signal
from PySide6.QtGui import QPainter, QPaintEvent, QPen, QShowEvent
from PySide6.QtWidgets import (
    QComboBox,
    QGridLayout,
    QHBoxLayout,
    QMenu,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from machinon.core.errors import BadInput
from machinon.core.job.job import STAGES, Job
from machinon.core.quantity import LENGTH
from machinon.core.shop.entry import words
from machinon.core.shop.machines import lathe_figures, lathe_so_far
from machinon.core.shop.things import Lathe, Piece
from machinon.desk.faults import painted
from machinon.desk.name_dialog import ask_name
from machinon.desk.narrow import Abreast, narrow_combo
from machinon.desk.set_up import enter_first_machine
from machinon.desk.shop_acts import move_in_shop
from machinon.desk.theme import font
from machinon.desk.widgets import (
    ROOMY,
    DrawingView,
    EmptyPage,
    EnterButton,
    Field,
    Look,
    MarkView,
    OneLine,
    bring_into_view,
    button,
    label,
    panel,
    scrolled,
)
from machinon.draw.drawing import Drawing, Role
from machinon.draw.machine_drawing import machine_drawing
from machinon.store.shop_file import Entry, ShopFile, ShopFileError


def day_text(at: str) -> str:
    """A moment of the daybook as a person says it."""
    moment = datetime.datetime.fromisoformat(at)
    return moment.strftime("%-d %b %Y, %H:%M")


# figures of a lathe that its picture has room for here, sizes first
DRAWN = ("centre_height", "between_centres", "swing_over_slide", "speeds")


MOST = 30  # jobs and pieces that are listed; older ones are found by name

# what the entries of the first machine show, in millimetres and in inches
EXAMPLES = {
    "name": ("Centre lathe 165 × 700", "Centre lathe 6 1/2 × 28"),
    "centre_height": ("165", "6.5"),
    "between_centres": ("700", "28"),
    "swing_over_slide": ("190", "7.5"),
    "dial_division": ("0.02, or .001in", ".001, or 0.02mm"),
    "lead_screw": ("4", "8tpi"),
}


class JobRow(EnterButton):
    """A job in the list: its name, its reason, the stage it was left in."""

    def __init__(
        self, look: Look, entry: Entry, reason: str, more: EnterButton
    ) -> None:
        """more: the button in its corner that opens what else can be done."""
        super().__init__()
        self._look, self._entry, self._reason = look, entry, reason
        self._more = more
        corner = QHBoxLayout(self)
        corner.addStretch(1)
        corner.addWidget(more, 0, Qt.AlignmentFlag.AlignTop)
        self.setProperty("part", "entry")
        self.setMinimumHeight(look.px(116))
        self.setAccessibleName(f"Open {entry.name}, at {entry.stage}")

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        self._paint_entry(event)

    @painted
    def _paint_entry(self, painter: QPainter, event: QPaintEvent) -> None:
        px, theme = self._look.px, self._look.theme
        scale = self._look.scale
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)

        def say(y: float, text: str, size: float, role: Role, bold: bool) -> None:
            painter.setFont(font(size * scale, bold))
            painter.setPen(QPen(theme.ink(role)))
            beside = self._more.geometry()
            right = beside.left() if px(y) - px(size) < beside.bottom() else wide
            room = right - px(24)
            painter.drawText(
                QPointF(px(16), px(y)),
                painter.fontMetrics().elidedText(
                    text, Qt.TextElideMode.ElideRight, room
                ),
            )

        wide = self.width()
        say(28, self._entry.name, 17, "text", True)
        say(49, self._reason, 13, "faint", False)
        part = (wide - px(32)) / len(STAGES)
        painter.setFont(font(13 * scale, True))
        longest = max(map(painter.fontMetrics().horizontalAdvance, STAGES))
        fitted = 13 * scale * min((part - px(8)) / longest, 1.0)
        y = px(90)
        painter.setPen(QPen(theme.ink("thin"), 1.2))
        painter.drawLine(QPointF(px(16), y), QPointF(self.width() - px(16), y))
        for i, stage in enumerate(STAGES):
            here = stage == self._entry.stage
            x = px(16) + i * part
            painter.setPen(QPen(theme.ink("thin"), 1.2))
            painter.drawLine(QPointF(x, y), QPointF(x, y - px(6)))
            if here:
                painter.setPen(QPen(theme.ink("cut"), px(4)))
                painter.drawLine(QPointF(x, y), QPointF(x + part, y))
            painter.setFont(font(fitted, here))
            painter.setPen(QPen(theme.ink("text" if here else "faint")))
            painter.drawText(QPointF(x + px(6), y - px(8)), stage.capitalize())
        say(106, f"last touched {day_text(self._entry.touched_at)}", 12, "faint", False)


class StartPage(QWidget):
    """The jobs at the left, the shop at the right.

    Signals: job_chosen(id: str); new_job_requested(); daybook_requested();
    reckoner_requested(); practice_requested(); shop_requested(); changed() when a job
    was renamed, put away, brought back or deleted.
    """

    job_chosen = Signal(str)
    new_job_requested = Signal()
    daybook_requested = Signal()
    reckoner_requested = Signal()
    practice_requested = Signal()
    shop_requested = Signal()
    changed = Signal()

    def __init__(self, look: Look, file: ShopFile) -> None:
        super().__init__()
        self.look, self.file = look, file
        px = look.px
        shop = file.shop()
        self._away = False
        self.jobs: list[QWidget] = []
        left = QVBoxLayout()
        left.setSpacing(px(8))
        heading = label("Jobs", "title")
        heading.setMinimumHeight(px(40))
        ways = QWidget()
        row = QHBoxLayout(ways)
        row.setContentsMargins(0, 0, 0, 0)
        row.addStretch(1)
        row.addWidget(button("Practice", self.practice_requested.emit))
        row.addWidget(button("Reckoner", self.reckoner_requested.emit))
        self.new = button("New job", self.new_job_requested.emit, "main")
        row.addWidget(self.new)
        level = Qt.AlignmentFlag.AlignVCenter
        left.addWidget(Abreast(2, heading, ways, even=False, held=level))
        entries = file.entries("job")
        if not entries:
            first = EmptyPage(look)
            first.say(
                "No job yet",
                "A job is one thing to be built, with its reason: it takes you from "
                "the readings of what exists to a piece that is proved.",
                ("Begin the first job", self.new_job_requested.emit),
            )
            first.setSizePolicy(
                QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Expanding
            )
            left.addWidget(first, 1)
            self.new.hide()
            self.new = first.start
        listed = QWidget()
        column = QVBoxLayout(listed)
        column.setContentsMargins(0, 0, px(4), 0)
        self.find = Field("Find a job", None)
        self.find.edit.textChanged.connect(lambda _: self._list_jobs(entries))
        self._column = column
        self.older = label("", "faint", wrap=True)
        column.addWidget(self.older)
        self.put_away = button("", self._show_other, "link")
        column.addWidget(self.put_away, 0, Qt.AlignmentFlag.AlignLeft)
        self._list_jobs(entries)
        column.addStretch(1)
        left.addWidget(self.find)
        left.addWidget(scrolled(listed), 1)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(px(28), px(20), px(28), px(16))
        whole.setSpacing(px(26))
        whole.addLayout(left, 5)
        whole.addLayout(self._shop_column(shop.name), 4)
        self.find.setVisible(len(entries) > MOST)

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        # what Enter does next: go on with the job touched last, or begin one
        (self.jobs[0] if self.jobs else self.new).setFocus()

    def _list_jobs(self, entries: list[Entry]) -> None:
        """The jobs touched last, of those whose name has what is typed."""
        for row in self.jobs:
            row.hide()
            row.deleteLater()
        self.jobs = []
        typed = self.find.text().strip().lower()
        found = [entry for entry in entries if typed in entry.name.lower()]
        shown, other = 0, 0
        for entry in found:
            if shown == MOST:
                break
            job = self._job(entry.id)
            if (job is not None and job.put_away) != self._away:
                other += 1
                continue
            self._column.insertWidget(shown, self._job_row(entry, job))
            shown += 1
        older = max(len(found) - shown - other, 0)
        self.put_away.setText(
            "Back to the jobs under way" if self._away else f"{other} put away"
        )
        self.put_away.setVisible(bool(other) or self._away)
        self.older.setText(f"{older} older ones: type what they are called.")
        self.older.setVisible(bool(older))

    def _job(self, id: str) -> Job | None:
        """A job of the list; None where it cannot be read."""
        try:
            found = self.file.get(id)
        except ShopFileError:
            return None
        return found if isinstance(found, Job) else None

    def _show_other(self) -> None:
        """Lists the jobs put away in place of those under way, or back."""
        self._away = not self._away
        self._list_jobs(self.file.entries("job"))

    def _job_row(self, entry: Entry, job: Job | None) -> QWidget:
        reason = "cannot be read: open it to see what can be done"
        more = button("…", lambda: self._open_menu(row, entry.id))
        more.setAccessibleName(f"Rename, put away or delete {entry.name}")
        more.setToolTip("Rename, put away or delete")
        row = JobRow(self.look, entry, job.reason if job else reason, more)
        row.clicked.connect(lambda: self.job_chosen.emit(entry.id))
        row.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        row.customContextMenuRequested.connect(
            lambda at: self.job_menu(entry.id).popup(row.mapToGlobal(at))
        )
        self.jobs.append(row)
        return row

    def _open_menu(self, row: QWidget, id: str) -> None:
        self.job_menu(id).popup(row.mapToGlobal(row.rect().topRight()))

    def job_menu(self, id: str) -> QMenu:
        """The acts on a job of the list besides opening it."""
        menu = QMenu(self)
        job = self._job(id)
        if job is None:
            return menu
        menu.addAction(
            "Rename…",
            lambda: ask_name(
                self,
                self.look,
                "What the job is called",
                job.name,
                lambda name: self._keep(job, name=name),
            ),
        )
        menu.addAction(
            "Its Reason…",
            lambda: ask_name(
                self,
                self.look,
                "Why it is made, in a sentence",
                job.reason,
                lambda reason: self._keep(job, reason=reason.strip()),
            ),
        )
        menu.addAction(
            "Bring Back" if job.put_away else "Put Away",
            lambda: self._keep(job, put_away=not job.put_away),
        )
        menu.addAction("Delete", lambda: self._delete(job))
        return menu

    def _keep(self, job: Job, **made: object) -> None:
        """Keep a job renamed, with another reason, put away or brought back. Raises
        BadInput on `name`."""
        if "name" in made:
            made = {"name": words({"name": str(made["name"])}, "name", "its name")}
        if "name" in made:
            says = f"Job renamed: {made['name']}."
        elif "reason" in made:
            says = f"{job.name}, its reason: {made['reason'] or 'none'}."
        else:
            word = "put away" if made["put_away"] else "brought back"
            says = f"Job {word}: {job.name}."
        self.file.act(job.id, says, replace(job, **made))
        self.changed.emit()

    def _delete(self, job: Job) -> None:
        """Deletes a job from the list; every line of it stays in the daybook."""
        self.file.remove("shop", f"Job deleted: {job.name}.", job.id)
        self.changed.emit()

    @property
    def context(self) -> str:
        """The acts that can be undone here: the shop's own, a deleted job among
        them."""
        return "shop"

    def undo(self) -> None:
        if move_in_shop(self.file, "undo"):
            self.changed.emit()

    def redo(self) -> None:
        if move_in_shop(self.file, "redo"):
            self.changed.emit()

    def _shop_column(self, name: str) -> QVBoxLayout:
        px = self.look.px
        column = QVBoxLayout()
        column.setSpacing(px(8))
        head = QHBoxLayout()
        heading = label(name or "Shop", "title")
        heading.setMinimumHeight(px(40))
        head.addWidget(heading, 1)
        head.addWidget(button("What it owns", self.shop_requested.emit))
        column.addLayout(head)
        for lathe in self.file.all_of(Lathe):
            column.addWidget(self._lathe_card(lathe))
        known = QWidget()
        inside = QVBoxLayout(known)
        inside.setContentsMargins(0, 0, 0, 0)
        inside.setSpacing(px(3))
        inside.addWidget(label("Pieces", "head"))
        entries = self.file.entries("piece")
        for piece in self.file.all_of(Piece, MOST):
            inside.addWidget(self._piece_row(piece))
        if len(entries) > MOST:
            more = f"and {len(entries) - MOST} more: see what it owns"
            inside.addWidget(label(more, "faint"))
        inside.addSpacing(px(8))
        inside.addWidget(label("Lately", "head"))
        for line in self.file.daybook(most=3):
            inside.addWidget(
                label(f"{day_text(line.at)}   {line.says}", "faint", wrap=True)
            )
        inside.addStretch(1)
        column.addWidget(scrolled(known), 1)
        column.addWidget(
            button("Open the daybook", self.daybook_requested.emit),
            0,
            Qt.AlignmentFlag.AlignLeft,
        )
        return column

    def _lathe_card(self, lathe: Lathe) -> QWidget:
        """The lathe as its picture, which leads to it in the shop."""
        px = self.look.px
        shown = lathe_figures(lathe, self.file.shop().inch)
        drawn = {key: shown[key] for key in DRAWN[:3]}
        picture = DrawingView(
            self.look,
            lambda w, h, s: machine_drawing("lathe", drawn, w, h, s),
            f"Picture of {lathe.name}",
        )
        # its figures shrink with it rather than being cut off
        picture.setMinimumHeight(px(190 if self.look.scale < ROOMY else 125))
        picture.setMaximumHeight(px(200))
        picture.spot_chosen.connect(lambda *_: self.shop_requested.emit())
        box = QVBoxLayout()
        box.setContentsMargins(px(14), px(10), px(14), px(4))
        box.setSpacing(px(4))
        box.addWidget(label(lathe.name, "head"))
        box.addWidget(picture)
        return panel(box)

    def _piece_row(self, piece: Piece) -> QWidget:
        row = QWidget()
        line = QHBoxLayout(row)
        line.setContentsMargins(0, 0, self.look.px(10), 0)
        measured = sum(
            any(not r.struck for r in surface.readings) for surface in piece.surfaces
        )
        whole = measured == len(piece.surfaces)
        line.addWidget(MarkView(self.look, "measured" if whole else "cut", 13))
        name = OneLine()
        name.setText(piece.name)
        name.setToolTip(piece.name)
        line.addWidget(name, 1)
        line.addWidget(label(f"{measured} of {len(piece.surfaces)} measured", "faint"))
        return row


class FormPage(QWidget):
    """A page of a few entries with one thing to do at its foot.

    Signals: finished(id: str); left() when it is given up.
    """

    finished = Signal(str)
    left = Signal()

    def __init__(self, look: Look, file: ShopFile) -> None:
        super().__init__()
        self.look, self.file = look, file
        self.fields: dict[str, Field] = {}
        self.combos: dict[str, QComboBox] = {}

    def field(self, key: str, name: str, size: str = "", hint: str = "") -> Field:
        """An entry; of a length where an example of its size is given."""
        made = Field(
            name, LENGTH if size else None, self.inch, placeholder=hint or size
        )
        made.taken.connect(lambda _: self._next_after(key))
        self.fields[key] = made
        return made

    def combo(self, key: str, choices: list[tuple[str, str]]) -> QComboBox:
        made = narrow_combo("")
        for word, data in choices:
            made.addItem(word, data)
        self.combos[key] = made
        return made

    def named(self, name: str, widget: QWidget) -> QWidget:
        """A widget with its name above it, aligned with the fields."""
        widget.setAccessibleName(name)
        box = QWidget()
        column = QVBoxLayout(box)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(2)
        column.addWidget(label(name, "faint"))
        column.addWidget(widget)
        return box

    def inch(self) -> bool:
        return False

    def typed(self) -> dict[str, str]:
        return {
            **{key: field.text() for key, field in self.fields.items()},
            **{key: combo.currentData() for key, combo in self.combos.items()},
        }

    def _next_after(self, key: str) -> None:
        """Enter goes to the next entry, and finishes from the last one."""
        wrong = self.fields[key].misread()
        if wrong:
            self.fields[key].refuse(wrong)
            return
        order = [k for k, field in self.fields.items() if field.isEnabled()]
        at = order.index(key)
        if at + 1 < len(order):
            after = self.fields[order[at + 1]]
            after.edit.setFocus()
            bring_into_view(after)
        else:
            self.finish()

    def finish(self) -> None:
        """Take what is typed; a refusal stays at its entry."""
        try:
            self.finished.emit(self.take())
        except BadInput as error:
            field = self.fields.get(error.key)
            if field is not None:
                field.refuse(error.message)
                bring_into_view(field)
            elif not self.refuse_choice(error.key, error.message):
                raise

    def refuse_choice(self, key: str, message: str) -> bool:
        """Say what is wrong with a choice, the keys on it; whether it has it."""
        combo = self.combos.get(key)
        if combo is not None:
            combo.setFocus()
            combo.setToolTip(message)
            bring_into_view(combo)
        return combo is not None

    def take(self) -> str:
        raise NotImplementedError


class WelcomePage(FormPage):
    """An empty shop: what this is, the first machine, or the demo.

    Signals: demo_requested(), besides those of FormPage.
    """

    demo_requested = Signal()

    def __init__(self, look: Look, file: ShopFile) -> None:
        super().__init__(look, file)
        px = look.px
        left = QVBoxLayout()
        left.setSpacing(px(12))
        left.addWidget(label("Machinon", "title"))
        for text in (
            "The bench companion for tooling you build for your own machines.",
            "It holds what your machines and bought parts really measure, works out "
            "the fits from those readings, draws the piece, plans the set-ups, and "
            "coaches the last cuts at the dial.",
            "Change a reading and everything follows. Nothing needs saving, anything "
            "can be undone, every number opens to its working.",
            'Type sizes as you say them: 54, 1 3/8in, .0015", 50 thou, 2 tenths, '
            "28+6.35/2.",
        ):
            left.addWidget(label(text, wrap=True))
        left.addSpacing(px(10))
        left.addWidget(
            label("Or look first at a made-up shop with a job under way:", "faint")
        )
        left.addWidget(
            button("Open the demo shop", self.demo_requested.emit),
            0,
            Qt.AlignmentFlag.AlignLeft,
        )
        # the lathe as it is typed, each figure leading to its entry
        self.picture = DrawingView(
            look, self._draw, "Picture of the lathe", 14, "ground"
        )
        self.picture.spot_chosen.connect(lambda key, _: self.go_to(key))
        left.addWidget(self.picture, 1)

        self.combo("units", [("millimetres", "mm"), ("inches", "in")])
        self.combo(
            "dial_reads",
            [("the diameter", "diameter"), ("the radius", "radius")],
        )
        grid = QGridLayout()
        grid.setHorizontalSpacing(px(18))
        grid.setVerticalSpacing(px(2))
        rows: tuple[tuple[QWidget, QWidget], ...] = (
            (
                self.field("shop", "Shop's name", hint="what it says over the door"),
                self.named("Sizes first in", self.combos["units"]),
            ),
            (
                self.field("name", "Lathe", hint=EXAMPLES["name"][0]),
                self.field("centre_height", "Centre height over the bed", "165"),
            ),
            (
                self.field("between_centres", "Between centres", "700"),
                self.field("swing_over_slide", "Swings over the cross slide", "190"),
            ),
            (
                self.field("speeds", "Speeds, rpm", hint="45, 70, 110, 180"),
                self.field(
                    "dial_division",
                    "One line of the cross dial",
                    "0.02",
                    EXAMPLES["dial_division"][0],
                ),
            ),
        )
        for i, (widget, other) in enumerate(rows):
            grid.addWidget(widget, i, 0, Qt.AlignmentFlag.AlignTop)
            grid.addWidget(other, i, 1, Qt.AlignmentFlag.AlignTop)
        counts = self.named("The cross dial counts on", self.combos["dial_reads"])
        grid.addWidget(counts, 4, 0, Qt.AlignmentFlag.AlignTop)
        grid.addWidget(
            self.field("lead_screw", "Lead screw, pitch or 8tpi", hint="4"), 4, 1
        )
        grid.addWidget(
            self.field(
                "wheels",
                "Change wheels, teeth (may stay empty)",
                hint="20, 25, 30, 127",
            ),
            5,
            0,
            1,
            2,
        )
        for field in self.fields.values():
            field.edit.textChanged.connect(lambda _: self.picture.refresh())
        self.combos["units"].currentIndexChanged.connect(lambda _: self._change_units())
        form = QVBoxLayout()
        form.setContentsMargins(px(22), px(16), px(22), px(16))
        form.addWidget(label("Your first machine: the lathe", "head"))
        form.addWidget(
            label(
                "A threaded spindle nose for now; it is measured in the first job.",
                "faint",
                wrap=True,
            )
        )
        form.addLayout(grid)
        form.addStretch(1)
        self.go = button("Set up the shop", self.finish, "main")
        form.addWidget(self.go, 0, Qt.AlignmentFlag.AlignRight)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(px(36), px(30), px(36), px(24))
        whole.setSpacing(px(36))
        whole.addLayout(left, 4)
        whole.addWidget(panel(form), 6)

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.fields["shop"].edit.setFocus()

    def _change_units(self) -> None:
        for key, examples in EXAMPLES.items():
            self.fields[key].edit.setPlaceholderText(examples[self.inch()])
        self.picture.refresh()

    def _draw(self, width: float, height: float, size: float) -> Drawing:
        known = lathe_so_far(self.typed(), self.inch())
        drawn = {key: known[key] for key in DRAWN}
        return machine_drawing("lathe", drawn, width, height, size)

    def go_to(self, key: str) -> None:
        """Go to the entry of a figure."""
        self.fields[key].edit.setFocus()

    def inch(self) -> bool:
        return self.combos["units"].currentData() == "in" if self.combos else False

    def take(self) -> str:
        return enter_first_machine(self.file, self.typed(), self.inch()).id
