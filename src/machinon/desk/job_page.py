"""The open job: the stack on top, the six stages, the line of notes below."""

import functools
from collections.abc import Mapping
from typing import Any

from msgspec import Struct
from PySide6.QtCore import QRectF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import (
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QResizeEvent,
)
from PySide6.QtWidgets import (
    QBoxLayout,
    QHBoxLayout,
    QVBoxLayout,
    QWidget,
)

from machinon.core.families import family_of
from machinon.core.job.fit_plan import FitPlan
from machinon.core.job.job import MADE_HERE, STAGES, Stage
from machinon.core.quantity import length_range, length_text
from machinon.core.sizes.fit import FLAT_JOINTS
from machinon.desk.bench import LEAST_STAGE, Bench, StageView
from machinon.desk.faults import painted
from machinon.desk.joint_part import band_text
from machinon.desk.narrow import OnePage
from machinon.desk.painter import paint_mark
from machinon.desk.stages.cut import CutView
from machinon.desk.stages.fits import FitsView
from machinon.desk.stages.piece import PieceView
from machinon.desk.stages.proof import ProofView
from machinon.desk.stages.route import RouteView
from machinon.desk.stages.survey import SurveyView
from machinon.desk.theme import font
from machinon.desk.widgets import (
    DrawingView,
    EmptyPage,
    Look,
    MarkView,
    OneLine,
    WayOn,
    button,
    clear_layout,
    label,
    scrolled,
    set_ink,
)
from machinon.draw.drawing import Drawing, Mark, MarkKind
from machinon.draw.stack_drawing import stack_drawing

VIEWS: dict[Stage, type[StageView]] = {
    "survey": SurveyView,
    "fits": FitsView,
    "piece": PieceView,
    "route": RouteView,
    "cut": CutView,
    "proof": ProofView,
}
# what a job can do before its kind of piece is built into Machinon
BEFORE_PIECE: tuple[Stage, ...] = ("survey", "fits")
# what a piece of any family goes through
MADE: tuple[Stage, ...] = ("survey", "fits", "piece", "route")


class RailState(Struct, frozen=True):
    """The rail: the stage at hand, what is open, what the job has not, what is
    grave."""

    stage: Stage
    open: Mapping[Stage, int]
    missing: tuple[Stage, ...]
    grave: tuple[Stage, ...]


TARGETS = 0.36  # of the width: what the fits may take of the head
# of a stage that the job has not: in full, and where room is short
NOT_HERE = ("not in this job", "not here")
NOT_YET = ("nothing yet", "not yet")  # of one that it may come to


class StageRail(QWidget):
    """The six stages on one scribed line; each says what is still open in it.

    Signals: stage_chosen(stage: str).
    """

    stage_chosen = Signal(str)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self.state = RailState("survey", {}, (), ())
        self.setFixedHeight(look.px(50))
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setAccessibleName("Stages of the job")
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def show_state(self, state: RailState) -> None:
        if state != self.state:
            self.state = state
            self.update()

    def place_of(self, stage: Stage) -> QRectF:
        width = self.width() / len(STAGES)
        return QRectF(STAGES.index(stage) * width, 0, width, self.height())

    def _why_off(self, stage: Stage) -> tuple[str, str]:
        return NOT_YET if stage in ("cut", "proof") else NOT_HERE

    def says(self, stage: Stage) -> str:
        if stage in self.state.missing:
            return self._why_off(stage)[0]
        count = self.state.open.get(stage, 0)
        return f"{count} open" if count else "nothing open"

    @painted
    def paintEvent(self, painter: QPainter, event: QPaintEvent) -> None:
        look = self._look
        px, theme = look.px, look.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        y = self.height() - px(3)
        painter.setPen(QPen(theme.ink("thin"), 1.2))
        painter.drawLine(0, y, self.width(), y)
        for stage in STAGES:
            place = self.place_of(stage)
            here = stage == self.state.stage
            off = stage in self.state.missing
            left = place.left() + px(30)
            # ticks of a rule: where a stage begins
            painter.setPen(QPen(theme.ink("thin"), 1.2))
            painter.drawLine(
                round(place.left()), y, round(place.left()), y - px(12 if here else 7)
            )
            if here:
                painter.setPen(QPen(theme.ink("cut"), px(4)))
                painter.drawLine(round(place.left()), y, round(place.right()), y)
            mark: MarkKind = "cut" if self.state.open.get(stage) else "proved"
            if stage in self.state.grave:
                mark = "stop"
            if not off:
                paint_mark(
                    painter,
                    Mark(
                        (place.left() + px(17), px(16)),
                        mark,
                        px(13),
                    ),
                    theme,
                )
            painter.setFont(font(17 * look.scale, bold=here))
            painter.setPen(QPen(theme.ink("faint" if off else "text")))
            painter.drawText(
                QRectF(left, px(3), place.width(), px(24)),
                int(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter),
                stage.capitalize(),
            )
            painter.setFont(font(12.5 * look.scale))
            painter.setPen(QPen(theme.ink("faint")))
            says, room = self.says(stage), place.width() - px(30)
            if painter.fontMetrics().horizontalAdvance(says) > room and off:
                says = self._why_off(stage)[1]
            painter.drawText(
                QRectF(left, px(25), room, px(18)),
                int(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter),
                says,
            )
            if here and self.hasFocus():
                painter.setPen(QPen(theme.ink("centre"), 1.5))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawRect(place.adjusted(2, 1, -2, -px(8)))

    def mousePressEvent(self, event: QMouseEvent) -> None:
        at = int(event.position().x() / max(self.width(), 1) * len(STAGES))
        self.stage_chosen.emit(STAGES[min(at, len(STAGES) - 1)])

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = {Qt.Key.Key_Right: 1, Qt.Key.Key_Left: -1}.get(Qt.Key(event.key()))
        if step is None:
            super().keyPressEvent(event)
            return
        at = (STAGES.index(self.state.stage) + step) % len(STAGES)
        self.stage_chosen.emit(STAGES[at])


def _shortened(words: str, item: QWidget, room: int) -> str:
    """A name and its figure: the name is shortened, the figure never."""
    measure = item.fontMetrics()
    name, colon, figure = words.rpartition(": ")
    if not colon:
        return measure.elidedText(words, Qt.TextElideMode.ElideRight, room)
    left = room - measure.horizontalAdvance(f"{colon}{figure}")
    return (
        measure.elidedText(name, Qt.TextElideMode.ElideRight, max(left, 0))
        + colon
        + figure
    )


class JobPage(QWidget):
    """One open job.

    Signals: left() for the list of jobs; full_screen_left() when that is touched;
    more_wished() to add a piece that is made, less_wished() to take this one out;
    mates_wished() to choose what it goes with.
    """

    left = Signal()
    more_wished = Signal()
    less_wished = Signal()
    mates_wished = Signal()
    full_screen_left = Signal()

    def __init__(self, bench: Bench, stage: Stage) -> None:
        super().__init__()
        self.bench = bench
        self.job = bench.job
        self.look = bench.look
        self.views: dict[Stage, StageView] = {}
        self.stage: Stage = stage
        self.stack = DrawingView(
            self.look,
            self._stack,
            "The stack: what exists and what is made, to scale",
            12,
            "ground",
        )
        self.stack.spot_chosen.connect(self._on_stack_chosen)
        self.rail = StageRail(self.look)
        self.rail.stage_chosen.connect(lambda stage: self.show_stage(stage))
        self.unready = EmptyPage(self.look)
        self.pages = OnePage(self.unready)
        self.fits = QWidget()
        self.targets = QVBoxLayout()
        self.targets.setSpacing(0)
        self._gave_way: tuple[Stage, int, int] | None = None
        self._targets_shown: tuple[int, dict[int, str]] = (0, {})
        self.whose = QBoxLayout(QBoxLayout.Direction.TopToBottom)
        self.name = OneLine("head")
        self.reason = label("", "faint", wrap=True)
        self.reason.setMinimumHeight(1)
        self.works = QWidget()
        self._works_shown: tuple[str, list[tuple[str, str]]] | None = None
        self.work_line = QHBoxLayout(self.works)
        self.work_line.setContentsMargins(0, 0, 0, 0)
        self.work_line.setSpacing(self.look.px(14))
        self.more = button("+ piece", self.more_wished.emit, "link")
        self.more.setToolTip("Make another piece in this job")
        self.open_mark = MarkView(self.look, None, 14)
        self.open_says = OneLine()
        self.onward = button("", self.go_onward, "main")
        self.leave = button("Leave full screen", self.full_screen_left.emit)
        self.leave.hide()
        self.caution = label("", "faint", wrap=True)
        self.saved = label("", "faint")
        self._lay_out()
        self.refresh()

    def _lay_out(self) -> None:
        px = self.look.px
        who = QVBoxLayout()
        who.setSpacing(px(3))
        self.whose.addWidget(
            button("‹ Jobs and shop", self.left.emit, "link"),
            0,
            Qt.AlignmentFlag.AlignLeft,
        )
        self.whose.addWidget(self.name, 1)
        who.addLayout(self.whose)
        who.addWidget(self.reason)
        who.addStretch(1)
        who.addWidget(self.works)
        top = QHBoxLayout()
        top.setContentsMargins(px(14), px(4), px(14), 0)
        top.setSpacing(px(12))
        top.addLayout(who, 30)
        top.addWidget(self.stack, 44)
        fits = QVBoxLayout(self.fits)
        fits.setContentsMargins(0, 0, 0, 0)
        fits.addStretch(1)
        fits.addLayout(self.targets)
        fits.addStretch(1)
        top.addWidget(self.fits, 34)
        self.head = QWidget()
        self.head.setLayout(top)
        notes = QHBoxLayout()
        notes.setContentsMargins(px(14), 0, px(14), px(4))
        notes.addWidget(self.open_mark)
        notes.addWidget(self.open_says, 9)
        notes.addWidget(self.onward)
        notes.addSpacing(px(16))
        notes.addWidget(self.caution, 7)
        notes.addWidget(self.saved)
        notes.addWidget(self.leave)
        self.notes = QWidget()
        self.notes.setLayout(notes)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(px(4))
        whole.addWidget(self.head)
        whole.addWidget(self.rail)
        body = QVBoxLayout()
        body.setContentsMargins(px(10), px(4), px(10), 0)
        # where large figures need more room than there is, the stage scrolls
        body.addWidget(scrolled(self.pages))
        whole.addLayout(body, 1)
        whole.addWidget(self.notes)

    def sizeHint(self) -> QSize:
        return QSize(1280, 800)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit_foot()
        self._fit_head()
        self._fill_targets()
        # what the stage needs is known once it has its place
        QTimer.singleShot(0, self, self._fit_head_anew)

    def _fit_head(self) -> None:
        """The strip gives way when figures are large or the screen is low."""
        px = self.look.px
        view = self.view()
        least = 0
        if view is not None:
            least = max(view.minimumSizeHint().height(), view.minimumHeight())
        foot = self.notes.heightForWidth(self.width())
        around = self.rail.height() + foot + px(16)
        left = self.height() - around - max(least, px(LEAST_STAGE))
        # once it gave way it does so at this size, or what it frees would bring it back
        here = self.stage, self.width(), self.height()
        low = left < px(110) or self._gave_way == here
        self._gave_way = here if low else None
        for widget in (self.stack, self.fits, self.reason, self.works):
            widget.setVisible(not low)
        ways = QBoxLayout.Direction
        self.whose.setDirection(ways.LeftToRight if low else ways.TopToBottom)
        self.whose.setSpacing(px(16 if low else 3))
        self.head.setFixedHeight(px(36) if low else min(px(158), left))

    def _fit_foot(self) -> None:
        """Hides the foot where a caution needs the room; trouble always shows."""
        trouble = self.saved.property("ink") == "stop"
        self.saved.setVisible(trouble or self.width() > self.look.px(1100))

    # -- showing ---------------------------------------------------------

    @property
    def at(self) -> Any:
        """The choice in the stage that is shown."""
        view = self.view()
        return view.at if view is not None else None

    @at.setter
    def at(self, at: Any) -> None:
        view = self.view()
        if view is not None:
            view.at = at
            view.refresh()

    def view(self) -> StageView | None:
        """The stage that is shown; None where this piece has none yet."""
        if self.stage in self._absent():
            return None
        if self.stage not in self.views:
            self.views[self.stage] = VIEWS[self.stage](self.bench)
        return self.views[self.stage]

    def _why_not(self) -> tuple[str, str, *tuple[WayOn, ...]]:
        """The sentence of a stage that this piece does not go through, and where to
        go."""
        missing, ways = self.bench.still_wanted()
        if missing:
            to_do = "prove" if self.stage == "proof" else "cut"
            title = f"Nothing to {to_do} yet: this is still to be known"
            return title, missing, *ways
        fits = ("To the fits and their sheet", lambda: self.show_stage("fits"))
        no_piece = self.job.job.making is None
        if self.stage in ("cut", "proof") and (self.job.plan.fits or no_piece):
            return (
                "Nothing is at the machine yet",
                "Decide a fit and choose Cut it: its new half is worked to its band "
                "here, with its own log, and proved after it.",
                fits,
            )
        if not no_piece:
            return (
                f"Nothing for {self.stage.capitalize()} here",
                "No mate rules a size of this piece. Its steps are ticked off in "
                "Route, and any diameter can be cut by the dial from there.",
                ("To the route", lambda: self.show_stage("route")),
            )
        return (
            "This job draws no piece",
            "It measures, decides fits, and cuts their new halves to their bands: "
            "Cut it, in Fits. For a drawing and a route as well, add the piece that is "
            "to be made.",
            ("Add a piece", self.more_wished.emit),
        )

    def _absent(self) -> tuple[Stage, ...]:
        """The stages that the job does not go through as it stands."""
        job, plan = self.job.job, self.job.plan
        built = BEFORE_PIECE if job.making is None else MADE
        if plan.route or plan.at_machine is not None or plan.next_to_cut is not None:
            built = (*built, "cut")
        if self.job.plan.verdict_says:
            built = (*built, "proof")
        return tuple(stage for stage in STAGES if stage not in built)

    def refresh(self) -> None:
        """Show the plan as it is: the strip, the rail, the stage, the notes."""
        plan = self.job.plan
        self.name.setText(self.job.job.name)
        self.reason.setText(self.job.job.reason)
        self.stack.refresh_later()
        self._fill_works()
        self._fill_targets()
        self.rail.show_state(
            RailState(
                self.stage,
                {stage: len(plan.open.get(stage, ())) for stage in STAGES},
                self._absent(),
                plan.grave_stages,
            )
        )
        view = self.view()
        if view is None:
            self.unready.say(*self._why_not())
            self.pages.show_page(self.unready)
        else:
            view.refresh()
            self.pages.show_page(view)
        self._fit_head()
        notes = self.job.notes(self.stage)
        self.open_mark.set_kind("stop" if notes.grave else None)
        self.open_mark.setVisible(notes.grave)
        self.open_says.setText(notes.open_checks)
        self.open_says.setToolTip("\n".join(plan.open.get(self.stage, ())))
        set_ink(self.open_says, "stop" if notes.grave else "")
        self.onward.setText(self.next_step())
        self.onward.setVisible(bool(self.onward.text()))
        self.caution.setText(notes.caution)
        self.caution.setToolTip(
            "Local codes, the maker's limits and qualified people come first."
        )
        self.saved.setText(notes.saved)
        set_ink(self.saved, "stop" if notes.unsaved else "")
        self._fit_foot()

    def _fill_works(self) -> None:
        """The pieces that are made, where there are several; the way to one more."""
        job = self.job.job
        makings = ((work.key, work.making) for work in job.works)
        works = [(key, making.family) for key, making in makings if making is not None]
        if self._works_shown == (job.at, works):
            return
        self._works_shown = (job.at, works)
        clear_layout(self.work_line, keep=self.more)
        for key, family in works if len(works) > 1 else ():
            name = family_of(family).name
            link = button(name, lambda key=key: self.job.choose_work(key), "link")
            chosen = key == job.at
            link.setAccessibleName(f"{name}, at hand" if chosen else name)
            set_ink(link, "cut" if chosen else "measured")
            self.work_line.addWidget(link)
        self.work_line.addWidget(self.more)
        if len(works) > 1:
            less = button("− piece", self.less_wished.emit, "link")
            less.setToolTip("Take this piece out of the job; Undo brings it back")
            self.work_line.addWidget(less)
        if self.job.has_mates():
            mates = button("mates", self.mates_wished.emit, "link")
            mates.setToolTip("What it goes with, to be changed or added")
            self.work_line.addWidget(mates)
        self.work_line.addStretch(1)

    def _fill_targets(self) -> None:
        """A line for each fit that leads to it."""
        room = round(self.width() * TARGETS)
        says = {fit.choice.number: self._target(fit) for fit in self.job.plan.fits}
        if self._targets_shown == (room, says):
            return
        if list(self._targets_shown[1]) != list(says):
            clear_layout(self.targets)
            for number in says:
                act = functools.partial(self.bench.go, "fits", number)
                link = button("", act, "link")
                link.setProperty("target", number)
                self.targets.addWidget(link)
        self._targets_shown = (room, says)
        for i, (number, target) in enumerate(says.items()):
            line = self.targets.itemAt(i).widget()
            words = f"{number}   {target}"
            line.setText(_shortened(words, line, room))  # type: ignore[attr-defined]
            line.setToolTip(f"{words}: open this fit")

    def _target(self, fit: FitPlan) -> str:
        inch = self.job.inch
        if fit.problem:
            return f"{fit.choice.name}: not known yet"
        if fit.contradiction:
            return f"{fit.choice.name}: contradicts its mate"
        if fit.choice.kind == "thread" and fit.thread is not None:
            return f"{fit.choice.name}: {fit.thread.says}"
        if fit.choice.kind == "bolts" and fit.circle is not None:
            size = length_text(fit.made or fit.circle["diameter"], 0.01, inch)
            return f"{fit.choice.name}: circle ⌀{size}"
        if fit.spent or fit.lower is None or fit.upper is None:
            return f"{fit.choice.name}: nothing left"
        if fit.joined is not None and fit.joined.first is not None:
            return f"{fit.choice.name}: {band_text(fit.joined.first, inch)}"
        sign = "" if fit.choice.joint in FLAT_JOINTS else "⌀"
        band = length_range(fit.lower, fit.upper, inch=inch)
        return f"{fit.choice.name}: {sign}{band}"

    def _stack(self, width: float, height: float, size: float) -> Drawing:
        return stack_drawing(self.job.plan, width, height, size)

    # -- doing -----------------------------------------------------------

    def show_stage(self, stage: Stage, fit: int = 0) -> None:
        """Go to a stage, in Fits to a fit; where one was is remembered."""
        self.stage = stage
        self.job.file.leave_at(self.job.job.id, stage)
        self.refresh()
        view = self.view()
        if view is not None:
            view.begin()
            if fit:
                view.show_fit(fit)
        # what it needs is known once it has its place
        QTimer.singleShot(0, self, self._fit_head_anew)

    def _fit_head_anew(self) -> None:
        self._gave_way = None
        self._fit_head()

    def next_step(self) -> str:
        """The words of the next step once nothing is open here; empty while something
        is."""
        if self.job.plan.open.get(self.stage):
            return ""
        if self._ends_in_fits and self.stage == BEFORE_PIECE[-1]:
            return "Print the fit sheet…"
        if self.view() is None:
            return ""
        after = self._after()
        return f"On to {after.capitalize()}" if after else "Done: back to the jobs"

    def _after(self) -> Stage | None:
        """The next stage that this piece goes through; None after the last."""
        later = STAGES[STAGES.index(self.stage) + 1 :]
        return next((stage for stage in later if stage not in self._absent()), None)

    @property
    def _ends_in_fits(self) -> bool:
        """Whether nothing is drawn or made in this job."""
        return self.job.job.making is None

    def go_onward(self) -> None:
        """Take the next step."""
        view = self.view()
        after = self._after()
        if self._ends_in_fits and isinstance(view, FitsView):
            view.ask_sheet()
        elif after is None:
            self.left.emit()
        else:
            self.show_stage(after)

    def _on_stack_chosen(self, tie: str, _place: QRectF) -> None:
        kind, _, number = tie.partition(".")
        if kind == "fit":
            self.show_stage("fits", int(number))
            return
        if tie.startswith(MADE_HERE):
            key = tie.removeprefix(MADE_HERE)
            if key != self.job.job.at:
                self.job.choose_work(key)
            else:
                self.show_stage("piece")
            return
        self.show_stage("survey")
        view = self.views["survey"]
        piece = self.job.pieces.get(tie)
        if isinstance(view, SurveyView) and piece is not None:
            view.choose(piece.id, piece.surfaces[0].id)

    def at_the_machine(self) -> None:
        """Leave only the stage, its notes, and the way back."""
        self.head.hide()
        self.rail.hide()
        self.leave.show()
