"""What the work is read with and fed by at the dial, and what is to be minded of it."""

import functools

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QMenu, QSizePolicy, QVBoxLayout, QWidget

from machinon.core.cutting.coach import warnings_of
from machinon.core.errors import BadInput
from machinon.core.quantity import small_text
from machinon.core.shop.things import Instrument
from machinon.desk.acts.dial import off_said
from machinon.desk.narrow import Combo
from machinon.desk.open_job import OpenJob
from machinon.desk.widgets import Field, button, label

FEEDS = {
    0: "The cross slide",
    2: "The compound at 30°: half of its line a side",
    10: "The compound at 5.74°: a tenth of its line a side",
    20: "The compound at 2.87°: a tenth of its line on the diameter",
}  # by how far it is wound for a radial mm
ALONG = "The compound goes along as it feeds: keep it off the shoulder."


class CuttingTools(QWidget):
    """Signal: left(), when something was typed here and the entry is wanted again."""

    left = Signal()

    def __init__(self, job: OpenJob) -> None:
        super().__init__()
        self.job = job
        # as wide as its panel: the names of instruments give way
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        self._gauges: tuple[Instrument, ...] = ()  # as they are listed
        self.instrument = Combo()
        self.instrument.setAccessibleName("Instrument")
        self.instrument.activated.connect(
            lambda _: self.job.set_cutting("instrument", self.instrument.currentData())
        )
        self.school = Combo()
        self.school.setAccessibleName("Spring passes")
        for key, words in (
            ("never", "no spring passes"),
            ("always", "always a spring pass"),
            ("free", "spring pass if it helps"),
        ):
            self.school.addItem(words, key)
        self.school.setToolTip(
            "Same conditions every time is what matters. A spring pass takes about "
            "two thirds of what the work pushed off; carbide may chatter on one."
        )
        self.school.activated.connect(
            lambda _: self.job.set_cutting("school", self.school.currentData())
        )
        self.minded = label("", "", wrap=True)
        self.check_gauge = button("check the gauge", self._ask_check, "link")
        self.check_gauge.setToolTip("Read a standard of about this size with it")
        self.check = Field("Standard, then what it reads on it, then Enter", None)
        self.check.edit.setPlaceholderText("25 25.002 25.001")
        self.check.taken.connect(self._take_check)
        self.check.hide()
        self.feed = button("the compound", self._ask_feed, "link")
        self.feed.setToolTip("Feed by the compound set over: a line takes less")
        self.shown = Field("", None)
        self.shown.taken.connect(self._take_shown)
        self.shown.hide()
        self._feeds_by = 0
        self._lay_out()

    def _lay_out(self) -> None:
        how = QHBoxLayout()
        how.addWidget(self.instrument, 3)
        how.addWidget(self.school, 3)
        links = QVBoxLayout()
        links.addWidget(self.check_gauge, 0, Qt.AlignmentFlag.AlignRight)
        links.addWidget(self.feed, 0, Qt.AlignmentFlag.AlignRight)
        links.addStretch(1)
        minded = QHBoxLayout()
        minded.addWidget(self.minded, 1)
        minded.addLayout(links)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addLayout(how)
        column.addLayout(minded)
        column.addWidget(self.shown)
        column.addWidget(self.check)

    # -- showing ---------------------------------------------------------

    def refresh(self) -> None:
        log = self.job.job.log
        self._show_instruments()
        self.school.setCurrentIndex(self.school.findData(log.school))
        self.feed.setVisible(not self.job.dial.straight)
        found, check = [], log.checked
        if check is not None:
            gauge = self.job.shop.instrument(check.instrument)
            found = [f"It read {off_said(check, gauge)}: taken off."]
        along = [ALONG] if self.job.dial.over else []
        self.minded.setText(" ".join([*found, *along, *self._warnings()]))

    def _show_instruments(self) -> None:
        fit = self.job.plan.at_machine
        kinds = fit.read_by if fit is not None else ("outside",)
        gauges = self.job.shop.instruments_for(*kinds)
        self.instrument.blockSignals(True)
        if gauges != self._gauges:
            self._gauges = gauges
            self.instrument.clear()
            for gauge in gauges:
                self.instrument.addItem(gauge.name, gauge.id)
                self.instrument.setItemData(
                    self.instrument.count() - 1,
                    f"± {small_text(gauge.uncertainty, gauge.inch)}",
                    Qt.ItemDataRole.ToolTipRole,
                )
        at = self.instrument.findData(self.job.job.log.instrument)
        self.instrument.setCurrentIndex(max(at, 0))
        self.instrument.blockSignals(False)

    def _warnings(self) -> list[str]:
        """What an experienced machinist would say of dial and gauge; by trial the mate
        is the gauge."""
        plan, fit = self.job.plan, self.job.plan.at_machine
        if plan.cut_state is None or plan.advice is None or (fit and fit.could_fit):
            return []
        checked = self.job.job.log.checked is not None
        return warnings_of(plan.cut_state, plan.advice.action, checked)

    # -- doing -----------------------------------------------------------

    def use_instrument(self, id: str) -> None:
        """Read with this instrument from now on, where it can read the surface."""
        if self.instrument.findData(id) >= 0 and id != self.job.job.log.instrument:
            self.job.set_cutting("instrument", id)

    def feed_menu(self) -> QMenu:
        """The slides that can feed."""
        menu = QMenu(self)
        for over, words in FEEDS.items():
            menu.addAction(words, functools.partial(self._feed_by, over))
        return menu

    def _ask_feed(self) -> None:
        self.feed_menu().popup(self.feed.mapToGlobal(self.feed.rect().topLeft()))

    def _feed_by(self, over: int) -> None:
        """Ask where that dial stands, once the tool has touched."""
        if self.job.job.log.touch is None:
            self.job.feed_by(over)
            return
        self._feeds_by = over
        which = "compound's" if over else "cross"
        self.shown.name.setText(f"The {which} dial reads now, then Enter")
        self.shown.put("0")
        self.shown.show()
        self.shown.edit.setFocus()
        self.shown.edit.selectAll()

    def _take_shown(self, typed: str) -> None:
        try:
            self.job.feed_by(self._feeds_by, typed)
        except BadInput as error:
            self.shown.refuse(error.message)
            return
        self.shown.hide()
        self.left.emit()

    def _ask_check(self) -> None:
        self.check.setVisible(not self.check.isVisible())
        if self.check.isVisible():
            self.check.edit.setFocus()

    def _take_check(self, typed: str) -> None:
        try:
            self.job.check_gauge(typed)
        except BadInput as error:
            self.check.refuse(error.message)
            return
        self.check.clear()
        self.check.hide()
        self.left.emit()
