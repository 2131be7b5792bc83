"""Fits: where surfaces meet, how they shall go together, the band that is left."""

import functools
from pathlib import Path
from typing import TypeVar

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QFileDialog,
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QMenu,
    QSizePolicy,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from machinon.core.errors import BadInput, MachinonError
from machinon.core.fits.joints import takes_fit
from machinon.core.job.as_made import as_cut
from machinon.core.job.fit_plan import FitPlan, can_be_cut
from machinon.core.job.fit_sheet import fit_readings
from machinon.core.job.job import MADE_HERE
from machinon.core.piece.family import Chain
from machinon.core.piece.shown import limits_said
from machinon.core.quantity import length_range, length_text
from machinon.core.reckoning import Answer, reckonings
from machinon.core.survey.as_made import example_for, takes_standard
from machinon.core.threads.thread_limits import with_class
from machinon.core.wording import within
from machinon.desk.bench import Bench, StageView
from machinon.desk.fit_choices import BoltChoice, Choice, PlainChoice, ThreadChoice
from machinon.desk.fit_paper import write_fit_sheet
from machinon.desk.joint_part import band_text
from machinon.desk.name_dialog import ask_name
from machinon.desk.narrow import Abreast, InLines
from machinon.desk.stages.run_out_line import RunOutLine
from machinon.desk.stages.survey import mark_icon
from machinon.desk.widgets import (
    DrawingView,
    Field,
    button,
    label,
    panel,
    scrolled,
    set_ink,
)
from machinon.draw.drawing import Drawing, MarkKind
from machinon.draw.gauge_drawing import gauge_drawing
from machinon.draw.pictures import picture_of

ChoiceT = TypeVar("ChoiceT", bound=Choice)


class FitsView(StageView):
    """The fits at the left, the gauge picture in the middle, the decision right."""

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        self.list = QListWidget()
        self.list.setAccessibleName("Fits of this job")
        self.list.setWordWrap(True)
        self.list.setResizeMode(QListWidget.ResizeMode.Adjust)  # its lines anew
        self.list.setItemDelegate(InLines(self.list))
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.currentRowChanged.connect(lambda _: self._show_fit())
        self.picture = DrawingView(self.look, self._gauge, "Gauge picture of the fit")
        self.picture.setMinimumHeight(self.look.px(170))
        self.joint = DrawingView(self.look, self._joint, "The joint in section", 12.0)
        self.joint.setMinimumHeight(self.look.px(150))
        self.joint.spot_chosen.connect(lambda key, _: self._ask(key))
        self.title = label("", "head", wrap=True)
        self.how = label("", "", wrap=True)
        self.how.hide()
        self.problem = label("", "", "stop", wrap=True)
        self.written = label("", "faint", wrap=True)
        self.written.hide()
        self.measure = button("Measure it in Survey", lambda: bench.go("survey", 0))
        self.as_made = Field("Or take it by its standard, then Enter", None)
        self.as_made.taken.connect(self._on_as_made)
        self.standard = button("", self._take_standard)
        self.choices = QStackedWidget()
        self.reason = Field("Reason (for the daybook)", None)
        self.reason.taken.connect(
            lambda text: bench.job.give_reason(self.number(), text)
        )

        self.cut_it = button("Cut it", self._cut_it)
        self.cut_it.setToolTip("Work to this band at the dial, with its own log")
        self.as_cut = label("", "", wrap=True)
        self.turn = button(
            "Make the other half first", lambda: bench.job.turn_fit(self.number())
        )
        self.turn.setToolTip("What is made first is measured; the other is cut to that")
        self.first_fit = button("Add the first fit", self.ask_first_fit, "main")
        self.sheet = button("Fit sheet…", self.ask_sheet)
        self.expected = RunOutLine(bench)
        self.more = button("Add a fit", self.ask_fit)
        self.rename = button("Rename…", self.ask_rename)
        self.drop = button("Remove it", lambda: bench.job.drop_fit(self.number()))

        px = self.look.px
        middle = QVBoxLayout()
        middle.setContentsMargins(px(14), px(10), px(14), px(8))
        middle.addWidget(self.title)
        middle.addWidget(self.how)
        middle.addWidget(self.problem)
        middle.addWidget(self.measure, 0, Qt.AlignmentFlag.AlignLeft)
        middle.addWidget(self.as_made)
        middle.addWidget(self.standard, 0, Qt.AlignmentFlag.AlignLeft)
        middle.addWidget(self.first_fit, 0, Qt.AlignmentFlag.AlignLeft)
        middle.addWidget(self.picture, 1)
        middle.addWidget(self.joint, 1)
        self.ways = QWidget()
        row = QHBoxLayout(self.ways)
        row.setContentsMargins(0, 0, 0, 0)
        row.addStretch(1)
        row.addWidget(self.turn)
        row.addWidget(self.cut_it)
        self.as_cut.setMinimumWidth(px(150))
        middle.addWidget(Abreast(2, self.as_cut, self.ways, held=Qt.AlignmentFlag(0)))
        middle.addWidget(self.reason)
        right = QVBoxLayout()
        right.setContentsMargins(px(14), px(10), px(8), px(8))
        right.addWidget(scrolled(self.choices), 1)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        left = QVBoxLayout()
        left.setContentsMargins(0, 0, 0, 0)
        left.addWidget(self.list, 1)
        for pair in ((self.more, self.sheet), (self.rename, self.drop)):
            left.addWidget(Abreast(2, *pair))
        left.addWidget(self.expected)
        left.addWidget(self.written)
        side = QWidget()
        side.setLayout(left)
        side.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Expanding)
        whole.addWidget(side, 27)
        whole.addWidget(panel(middle, True), 43)
        whole.addWidget(panel(right, True), 49)

    # each way to decide a fit is made once there is one of its kind

    @functools.cached_property
    def cylinder(self) -> PlainChoice:
        return self._put_in(PlainChoice(self.bench))

    @functools.cached_property
    def thread(self) -> ThreadChoice:
        return self._put_in(ThreadChoice(self.bench))

    @functools.cached_property
    def bolts(self) -> BoltChoice:
        return self._put_in(BoltChoice(self.bench))

    def _put_in(self, choice: ChoiceT) -> ChoiceT:
        self.choices.addWidget(choice)
        return choice

    def begin(self) -> None:
        self.list.setFocus()

    def ask_rename(self) -> None:
        """Ask what the chosen fit shall be called."""
        if self.job.job.fits:
            number = self.number()
            ask_name(
                self,
                self.look,
                "What the fit is called",
                self.job.job.fit(number).name,
                lambda name: self.job.rename_fit(number, name),
            )

    @property
    def at(self) -> int:
        return self.number()

    @at.setter
    def at(self, number: int) -> None:
        self.show_fit(number)

    def number(self) -> int:
        """The number of the fit that is shown; 0 where the job has none."""
        item = self.list.currentItem()
        return int(item.data(Qt.ItemDataRole.UserRole)) if item else 0

    def show_fit(self, number: int) -> None:
        for row in range(self.list.count()):
            if self.list.item(row).data(Qt.ItemDataRole.UserRole) == number:
                self.list.setCurrentRow(row)

    def refresh(self) -> None:
        row = max(self.list.currentRow(), 0)
        self.list.blockSignals(True)
        self.list.clear()
        for fit in self.job.plan.fits:
            item = QListWidgetItem(
                f"{fit.choice.number}   {fit.choice.name}\n{_short(fit, self.job.inch)}"
            )
            item.setData(Qt.ItemDataRole.UserRole, fit.choice.number)
            item.setIcon(mark_icon(self.look, _state(fit)))
            self.list.addItem(item)
        self.list.setCurrentRow(min(row, self.list.count() - 1))
        self.list.blockSignals(False)
        self.expected.refresh()
        self._show_fit()

    def fit_menu(self) -> QMenu:
        """The job's surfaces that something can go into or over."""
        menu = QMenu(self)
        for piece in self.job.plan.standing.values():
            made = ", made here" if piece.id.startswith(MADE_HERE) else ""
            for surface in piece.surfaces:
                if takes_fit(surface):
                    menu.addAction(
                        f"{surface.name} of {piece.name}{made}",
                        lambda at=(piece.id, surface.id): self.add_fit(*at),
                    )
        if menu.isEmpty():
            menu.addAction("Measure a diameter or a slot in Survey first")
        return menu

    def add_fit(self, piece_id: str, surface_id: str) -> None:
        """Add a fit on a surface and bring it into view."""
        number = self.job.add_fit(piece_id, surface_id)
        self.refresh()
        self.show_fit(number)

    def ask_first_fit(self) -> None:
        """Asks for a measured surface first, where none takes a fit."""
        if any(takes_fit(s) for p in self.job.pieces.values() for s in p.surfaces):
            menu, at = self.fit_menu(), self.first_fit
            menu.popup(at.mapToGlobal(at.rect().bottomLeft()))
        else:
            self.bench.go("survey", 0)

    def ask_sheet(self) -> None:
        """Ask where the fit sheet shall be written, and write it."""
        path, _ = QFileDialog.getSaveFileName(
            self,
            "Fit sheet",
            f"{self.job.job.id}-fits.pdf",
            "Page (*.pdf);;List (*.csv)",
        )
        if path:
            self.print_sheet(Path(path))

    def print_sheet(self, path: Path) -> None:
        """The fits on paper, or as a list where the name ends in .csv."""
        try:
            write_fit_sheet(self.job.plan, path)
        except MachinonError as error:
            self._written(str(error), "stop")
        else:
            self._written(f"Written: {path}", "")

    def _written(self, text: str, ink: str) -> None:
        self.written.setText(text)
        set_ink(self.written, ink)
        self.written.show()

    def ask_fit(self) -> None:
        """Open the menu of surfaces that a fit can be added on."""
        self.fit_menu().popup(self.more.mapToGlobal(self.more.rect().topLeft()))

    def _show_fit(self) -> None:
        number = self.number()
        self.choices.setVisible(bool(number))
        self.reason.setVisible(bool(number))
        self.drop.setEnabled(bool(number) and self.job.slot_of(number) is None)
        if not number:
            for widget in (self.problem, self.measure, self.as_made, self.standard):
                widget.hide()
            self._show_first()
            self.cut_it.hide()
            self.turn.hide()
            self.as_cut.hide()
            self.picture.refresh()
            self.joint.hide()
            return
        fit = self.job.plan.fit(self.number())
        self.title.setText(f"Fit {fit.choice.number}: {fit.choice.name}")
        text = fit.problem or fit.contradiction
        self.how.hide()
        self.first_fit.hide()
        self.joint.setVisible(self._shown_joint(fit) is not None)
        self.joint.refresh()
        self.problem.setText(text)
        self.problem.setVisible(bool(text))
        self.measure.setVisible(bool(fit.problem) and fit.mate is None)
        self._offer_standard(fit)
        self._offer_cut(fit)
        self.reason.put(fit.choice.reason)
        shown: Choice
        match fit.choice.kind:
            case "thread":
                shown = self.thread
            case "bolts":
                shown = self.bolts
            case _:
                shown = self.cylinder
        self.choices.setCurrentWidget(shown)
        shown.show_fit(fit)
        self.picture.refresh()

    def _offer_cut(self, fit: FitPlan) -> None:
        """Shows the cut size of its new half, and the way to the machine."""
        by_trial = fit.could_fit is not None
        self.cut_it.setVisible(can_be_cut(fit) and self.job.can_dial(fit))
        self.turn.setVisible(self.job.can_turn(fit.choice.number))
        self.ways.setHidden(self.cut_it.isHidden() and self.turn.isHidden())
        line = as_cut(self.job.plan, fit, str(fit.choice.number))
        drawn = fit.mate is not None and fit.mate.drawn
        # of bolts without a slot it stands in the joint's own part
        bolted = fit.choice.kind == "bolts" and self.job.slot_of(fit.choice.number)
        driven = fit.joined.advice if bolted and fit.joined else ()
        self.as_cut.setVisible(line is not None or drawn or bool(driven))
        if driven:
            self.as_cut.setText(" ".join(driven))
            set_ink(self.as_cut, "cut")
        if drawn:
            mate = within(self.job.plan.standing[fit.choice.piece].name)
            self.as_cut.setText(f"As the {mate} is drawn: make and measure that first.")
            set_ink(self.as_cut, "cut")
        if line is not None and line.size is not None:
            size = length_text(line.size, 0.001, self.job.inch)
            self.as_cut.setText(f"Cut to {size}: {line.says}.")
            inks = {"proved": "proved", "failed": "stop"}
            set_ink(self.as_cut, inks.get(line.verdict, "cut"))
            self.cut_it.setText("Back to the machine")
        else:
            self.cut_it.setText("Cut it by trial" if by_trial else "Cut it")

    def _cut_it(self) -> None:
        """Put the new half of this fit at the machine."""
        self.job.cut_fit(self.number())
        self.bench.go("cut", 0)

    def _show_first(self) -> None:
        """Shows the page without a fit, and the button that starts one."""
        chains = self._chains()
        self.title.setText("Ruled by a chain" if chains else "No fit yet")
        ready = any(takes_fit(s) for p in self.job.pieces.values() for s in p.surfaces)
        self.how.setText(
            "".join(f"{chain} " for chain in chains)
            + "A fit is where something new goes into, or over, a surface that exists. "
            + (
                "Choose the surface, then how the two should go together: the band for "
                "the new half stands here."
                if ready
                else "Enter the piece and the surface in Survey first: a bore, a "
                "shaft, a slot, a thread."
            )
        )
        self.how.show()
        self.first_fit.setText("Add the first fit" if ready else "On to Survey")
        self.first_fit.show()

    def _chains(self) -> list[str]:
        """The bands that chains leave of the piece's lengths, a sentence each."""
        made = self.job.plan.made
        inch = self.job.inch
        said = []
        for band in made.fits if made else ():
            low, high = band.lower, band.upper
            if isinstance(band.slot, Chain) and low is not None and high is not None:
                ends = limits_said(low, high, inch)
                said.append(f"{band.slot.words}: {ends}, proved at the end.")
        return said

    def _offer_standard(self, fit: FitPlan) -> None:
        """Offers the standard of a mate in place of its readings, in one action."""
        surface = self.job.plan.existing(fit)
        bare = fit.mate is None and surface is not None and takes_standard(surface)
        self.as_made.setVisible(bare)
        if not self.as_made.refused:
            self.as_made.clear()
        if bare and surface is not None:
            self.as_made.edit.setPlaceholderText(example_for(surface, self.job.inch))
        likely = fit.mate.likely[:1] if fit.mate else ()
        taper = fit.choice.joint == "taper" and not fit.choice.given.get("taper")
        self.standard.setVisible(bool(taper and likely))
        if likely:
            self.standard.setText(f"Make it to {likely[0].name}")

    def _on_as_made(self, typed: str) -> None:
        choice = self.job.job.fit(self.number())
        self.as_made.accept()
        try:
            self.job.take_as_made(choice.piece, choice.surface, typed)
        except BadInput as error:
            self.as_made.refuse(error.message)

    def _take_standard(self) -> None:
        fit = self.job.plan.fit(self.number())
        if fit.mate is not None and fit.mate.likely:
            self.job.give(self.number(), "taper", fit.mate.likely[0].name)

    def _gauge(self, width: float, height: float, size: float) -> Drawing:
        if not self.number():
            return Drawing(width, height, ())
        fit = self.job.plan.fit(self.number())
        readings = fit_readings(self.job.plan, fit)
        return gauge_drawing(fit, readings, width, height, size, self.job.inch)

    @staticmethod
    def _shown_joint(fit: FitPlan) -> Answer | None:
        """The answer whose picture shows the joint; None for a plain fit."""
        return fit.joined.picture if fit.joined else None

    def _joint(self, width: float, height: float, size: float) -> Drawing:
        fit = self.job.plan.fit(self.number()) if self.number() else None
        answer = self._shown_joint(fit) if fit else None
        if answer is None:
            return Drawing(width, height, ())
        return picture_of(
            reckonings()[answer.reckoner],
            answer.inputs,
            answer.results,
            {},
            width,
            height,
            size,
            self.job.inch,
            chips=False,
        )

    def _ask(self, key: str) -> None:
        """A figure in the joint's picture was chosen: go to its entry."""
        entry = self.cylinder.part.fields.get(key)
        if entry is not None:
            entry.setFocus()
            if isinstance(entry, Field):
                entry.edit.setFocus()
                entry.edit.selectAll()


def _state(fit: FitPlan) -> MarkKind:
    if fit.problem or fit.contradiction or fit.spent:
        return "stop"
    return "cut"


def _short(fit: FitPlan, inch: bool) -> str:
    """One line for the list: the band, or what keeps it from being known."""
    low, high = fit.lower, fit.upper
    if fit.problem:
        return "not known yet"
    if fit.choice.kind == "thread" and fit.thread is not None:
        return with_class(fit.thread, fit.thread_class)
    if fit.choice.kind == "bolts" and fit.circle is not None:
        return "circle ⌀" + length_text(fit.circle["diameter"], 0.01, inch)
    if fit.spent or low is None or high is None:
        return "nothing left of the band"
    if fit.joined is not None and fit.joined.first is not None:
        first = fit.joined.first
        return f"{within(first.name)} {band_text(first, inch)}"
    return length_range(low, high, inch=inch)
