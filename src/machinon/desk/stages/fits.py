"""Fits: where surfaces meet, how they shall go together, the band that is left."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QButtonGroup,
    QComboBox,
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QMenu,
    QRadioButton,
    QSizePolicy,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from machinon.core.errors import BadInput
from machinon.core.fit import characters
from machinon.core.plan import FitPlan
from machinon.core.quantity import length_text, small_range, small_text
from machinon.core.thread_limits import with_class
from machinon.desk.bench import Bench, StageView
from machinon.desk.open_job import JOINTS
from machinon.desk.stages.survey import mark_icon
from machinon.desk.widgets import (
    DrawingView,
    Field,
    Figure,
    button,
    label,
    panel,
    scrolled,
    set_ink,
)
from machinon.draw.drawing import Drawing, MarkKind
from machinon.draw.gauge_drawing import gauge_drawing


class FitsView(StageView):
    """The fits at the left, the gauge picture in the middle, the decision right."""

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        self.list = QListWidget()
        self.list.setAccessibleName("Fits of this job")
        self.list.setWordWrap(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.currentRowChanged.connect(lambda _: self._show_fit())
        self.picture = DrawingView(self.look, self._gauge, "Gauge picture of the fit")
        self.picture.setMinimumHeight(self.look.px(230))
        self.title = label("", "head", wrap=True)
        self.problem = label("", "", "stop", wrap=True)
        self.measure = button("Measure it in Survey", lambda: bench.go("survey", 0))
        self.cylinder = CylinderChoice(bench)
        self.thread = ThreadChoice(bench)
        self.bolts = BoltChoice(bench)
        self.choices = QStackedWidget()
        for one in (self.cylinder, self.thread, self.bolts):
            self.choices.addWidget(one)
        self.reason = Field("Why so (for the daybook)", None)
        self.reason.taken.connect(
            lambda text: bench.job.give_reason(self.number(), text)
        )

        self.more = button("Add a fit", self._choose_surface)
        self.drop = button("Drop it", lambda: bench.job.drop_fit(self.number()))

        px = self.look.px
        middle = QVBoxLayout()
        middle.setContentsMargins(px(14), px(10), px(14), px(8))
        middle.addWidget(self.title)
        middle.addWidget(self.problem)
        middle.addWidget(self.measure, 0, Qt.AlignmentFlag.AlignLeft)
        middle.addWidget(self.picture, 1)
        middle.addWidget(self.reason)
        right = QVBoxLayout()
        right.setContentsMargins(px(14), px(10), px(8), px(8))
        right.addWidget(scrolled(self.choices), 1)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        left = QVBoxLayout()
        left.setContentsMargins(0, 0, 0, 0)
        left.addWidget(self.list, 1)
        row = QHBoxLayout()
        row.addWidget(self.more, 1)
        row.addWidget(self.drop, 1)
        left.addLayout(row)
        side = QWidget()
        side.setLayout(left)
        side.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Expanding)
        whole.addWidget(side, 27)
        whole.addWidget(panel(middle, True), 46)
        whole.addWidget(panel(right, True), 46)

    def begin(self) -> None:
        self.list.setFocus()

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
        self._show_fit()

    def fit_menu(self) -> QMenu:
        """The job's surfaces that something can go into or over."""
        menu = QMenu(self)
        for piece in self.job.pieces.values():
            for surface in piece.surfaces:
                if surface.kind in ("outside", "inside"):
                    menu.addAction(
                        f"{surface.name} of {piece.name}",
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

    def _choose_surface(self) -> None:
        self.fit_menu().popup(self.more.mapToGlobal(self.more.rect().topLeft()))

    def _show_fit(self) -> None:
        number = self.number()
        self.choices.setVisible(bool(number))
        self.drop.setEnabled(bool(number) and not self.job.plate_rests_on(number))
        if not number:
            self.title.setText("No fit yet: add one on a surface that is measured.")
            for one in (self.problem, self.measure):
                one.hide()
            self.picture.refresh()
            return
        fit = self.job.plan.fit(self.number())
        self.title.setText(f"Fit {fit.choice.number}: {fit.choice.name}")
        text = fit.problem or fit.contradiction
        self.problem.setText(text)
        self.problem.setVisible(bool(text))
        self.measure.setVisible(bool(fit.problem))
        self.reason.put(fit.choice.reason)
        at = {"cylinder": 0, "thread": 1, "bolts": 2}[fit.choice.kind]
        self.choices.setCurrentIndex(at)
        (self.cylinder, self.thread, self.bolts)[at].show_fit(fit)
        self.picture.refresh()

    def _gauge(self, width: float, height: float, size: float) -> Drawing:
        if not self.number():
            return Drawing(width, height, ())
        fit = self.job.plan.fit(self.number())
        piece = self.job.pieces.get(fit.choice.piece)
        surface = piece.surface(fit.choice.surface) if piece else None
        readings = tuple(
            r.value for r in (surface.readings if surface else ()) if not r.struck
        )
        return gauge_drawing(fit, readings, width, height, size, self.job.inch)


def _state(fit: FitPlan) -> MarkKind:
    if fit.problem or fit.contradiction:
        return "stop"
    if fit.choice.kind == "cylinder" and fit.lower is None:
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
    if low is None or high is None:
        return "nothing left of the band"
    return f"{length_text(low, 0.001, inch, unit=False)} to " + length_text(
        high, 0.001, inch
    )


class _Choice(QWidget):
    """The decision on one kind of fit and what it means."""

    def __init__(self, bench: Bench) -> None:
        super().__init__()
        self.bench = bench
        self.job = bench.job
        self.fit: FitPlan | None = None
        self.box = QVBoxLayout(self)
        self.box.setContentsMargins(0, 0, bench.look.px(8), 0)
        self.box.setSpacing(bench.look.px(5))

    def number(self) -> int:
        assert self.fit is not None
        return self.fit.choice.number

    def figures(self, *figures: Figure) -> QHBoxLayout:
        row = QHBoxLayout()
        for figure in figures:
            figure.opened.connect(self.bench.open_working)
            row.addWidget(figure, 1)
        self.box.addLayout(row)
        return row

    def try_to(self, field: Field, act: object, *given: object) -> None:
        try:
            act(*given)  # type: ignore[operator]
        except BadInput as error:
            field.refuse(error.message)


class CylinderChoice(_Choice):
    """A plain fit: what it is for, then plain words, a code, or one's own play."""

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        self.head = label("How shall it go together?", "head")
        self.box.addWidget(self.head)
        self.joint = QComboBox()
        self.joint.setAccessibleName("What the fit is for")
        for key, words in JOINTS.items():
            self.joint.addItem(words[0].upper() + words[1:], key)
        self.joint.activated.connect(
            lambda _: self.job.set_joint(self.number(), self.joint.currentData())
        )
        self.box.addWidget(self.joint)
        self.group = QButtonGroup(self)
        self.radios: dict[str, QRadioButton] = {}
        for one in characters().values():
            radio = QRadioButton(f"{one.words[0].upper()}{one.words[1:]}")
            radio.setToolTip(f"{one.meaning} ({one.zone})")
            radio.clicked.connect(
                lambda _=False, key=one.key: self.job.choose_fit(self.number(), key)
            )
            self.group.addButton(radio)
            self.radios[one.key] = radio
            self.box.addWidget(radio)
        self.meaning = label("", "faint", wrap=True)
        self.box.addWidget(self.meaning)
        self.code = Field("or by code", None, placeholder="H7/g6")
        self.code.setToolTip(
            "H7/g6 is the whole range of both; g6 or G6 alone is laid on the mate"
        )
        self.code.taken.connect(
            lambda text: self.try_to(
                self.code, self.job.choose_fit, self.number(), text
            )
        )
        inch = lambda: self.job.inch  # noqa: E731
        self.least = Field("or play: least", inch=inch)
        self.most = Field("most", inch=inch)
        for field in (self.least, self.most):
            field.taken.connect(lambda _: self._own_play())
        row = QHBoxLayout()
        for field in (self.code, self.least, self.most):
            row.addWidget(field, 1, Qt.AlignmentFlag.AlignTop)
        self.box.addLayout(row)
        self.play = Figure("Play, least to most")
        self.runout = Figure("Needle it allows")
        self.band = Figure("Band left to land in")
        self.aim = Figure("Aim at")
        self.press = button("Press force", self._press)
        self.figures(self.play, self.runout).addWidget(
            self.press, 1, Qt.AlignmentFlag.AlignTop
        )
        self.figures(self.aim, self.band)
        self.advice = label("", "", "stop", wrap=True)
        self.box.addWidget(self.advice)
        self.caution = label("", "", "cut", wrap=True)
        self.box.addWidget(self.caution)
        self.box.addStretch(1)

    def show_fit(self, fit: FitPlan) -> None:
        self.fit = fit
        want, inch = fit.choice.want, self.job.inch
        joint = fit.choice.joint
        self.joint.setCurrentIndex(self.joint.findData(joint))
        ruled = self.job.plate_rests_on(fit.choice.number)
        self.head.setVisible(ruled)
        self.joint.setVisible(not ruled)
        self.group.setExclusive(False)
        for key, radio in self.radios.items():
            radio.setVisible(characters()[key].joint == joint)
            radio.setChecked(key == want)
        self.group.setExclusive(True)
        known = characters().get(want)
        if known is not None:
            self.meaning.setText(f"{known.meaning} Zone {known.zone}, on the mate.")
        elif want == "own":
            self.meaning.setText("Your own play, below.")
        else:
            self.meaning.setText(f"By code: {want}.")
        self.caution.setText(known.caution if known else "")
        self.caution.setVisible(bool(self.caution.text()))
        grips = fit.band is not None and fit.band["clearance_max"] <= 0
        self.runout.setHidden(grips)
        self.press.setVisible(grips)
        self.code.put("" if known is not None or want == "own" else want)
        if want == "own":
            self.least.put(length_text(fit.choice.clearance_min, 0.001, inch))
            self.most.put(length_text(fit.choice.clearance_max, 0.001, inch))
        else:
            self.least.clear()
            self.most.clear()
        if fit.band is None:
            for figure in (self.play, self.runout, self.band, self.aim):
                figure.show_text("–")
            self.advice.hide()
            return
        low, high = fit.band["clearance_min"], fit.band["clearance_max"]
        if grips:
            low, high = -high, -low
        self.play.show_text(
            small_range(low, high, inch),
            "",
            small_range(low, high, not inch),
            "",
            fit.band,
        )
        self.play.set_name(
            "Play, least to most"
            if low >= 0 and not grips
            else ("Interference" if grips else "Play (− is interference)")
        )
        self.runout.set_name(
            "Shake it allows" if joint == "slot" else "Needle it allows"
        )
        if fit.play is not None:
            self.runout.show_text(
                small_text(fit.play["tir"], inch),
                "",
                small_text(fit.play["tir"], not inch),
                "",
                fit.play,
            )
        left = fit.band["band"]
        self.band.show_text(
            small_text(left, inch) if left > 0 else "nothing left",
            "",
            small_text(left, not inch) if left > 0 else "",
            "cut" if left > 0 else "stop",
            fit.band,
        )
        sign = "" if joint == "slot" else "⌀"
        self.aim.show_length(fit.aim, 0.001, inch, "cut", fit.band, sign)
        self.advice.setText(fit.advice)
        self.advice.setVisible(bool(fit.advice))
        set_ink(self.advice, "stop" if left <= 0 else "cut")

    def _press(self) -> None:
        """The tightest press in the Reckoner; the hub's measures are still asked."""
        fit = self.fit
        assert fit is not None
        assert fit.mate is not None
        assert fit.band is not None
        size = round(fit.mate.size, 3)
        piece = self.job.pieces[fit.choice.piece]
        self.bench.reckon(
            "press-fit",
            {
                "diameter": size,
                "length": size,
                "hub_outside": 2 * size,
                "interference": -fit.band["clearance_min"],
                "hub_material": piece.material,
                "shaft_material": piece.material,
            },
        )

    def _own_play(self) -> None:
        if not self.least.text().strip():
            self.least.edit.setFocus()
            return
        if not self.most.text().strip():
            self.most.edit.setFocus()
            return
        try:
            self.job.own_play(self.number(), self.least.text(), self.most.text())
        except BadInput as error:
            field = self.least if error.key == "clearance_min" else self.most
            field.refuse(error.message)


class ThreadChoice(_Choice):
    """A thread: as the readings say, or as the person says, and its class."""

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        self.box.addWidget(label("Which thread is it?", "head"))
        self.found = Figure("By the readings", "large")
        self.box.addWidget(self.found)
        self.name = Field(
            "Say it yourself (empty: by the readings)", None, placeholder="M45x4.5"
        )
        self.name.taken.connect(
            lambda text: self.try_to(
                self.name, self.job.name_thread, self.number(), text
            )
        )
        self.grade = Field("Class (empty: the usual)", None)
        self.grade.taken.connect(
            lambda text: self.try_to(
                self.grade, self.job.choose_fit, self.number(), text
            )
        )
        self.box.addWidget(self.name)
        self.box.addWidget(self.grade)
        self.means = label("", "head")
        self.box.addWidget(self.means)
        self.bore = Figure("Bore before threading")
        self.bore_to = Figure("at most")
        self.pitch = Figure("Pitch diameter, least")
        self.pitch_to = Figure("at most")
        self.figures(self.bore, self.bore_to)
        self.figures(self.pitch, self.pitch_to)
        self.advice = label("", "", "stop", wrap=True)
        self.box.addWidget(self.advice)
        self.box.addWidget(
            label(
                "A thread only pulls home; a register or a face must centre. Cut it to "
                "a plug or ring made to the mate, or to the mate itself.",
                "faint",
                wrap=True,
            )
        )
        self.box.addStretch(1)

    def show_fit(self, fit: FitPlan) -> None:
        self.fit = fit
        inch = self.job.inch
        self.name.put(fit.choice.thread)
        self.grade.put(fit.choice.want)
        self.advice.setText(fit.advice)
        self.advice.setVisible(bool(fit.advice))
        nut = fit.choice.exists == "shaft"
        self.bore.set_name("Bore before threading" if nut else "Over the crests, least")
        if fit.thread is None or fit.band is None:
            self.found.show_text("not known yet", ink="stop")
            for figure in (self.bore, self.bore_to, self.pitch, self.pitch_to):
                figure.show_text("–")
            return
        self.found.set_name("As said" if fit.choice.thread else "By the readings")
        self.found.show_text(fit.thread.says, ink="measured")
        named = f", class {fit.thread_class}" if fit.thread_class else ""
        self.means.setText(
            f"What that means for the {'nut' if nut else 'screw'}{named}"
        )
        for figure, part, end in (
            (self.bore, "crest", "min"),
            (self.bore_to, "crest", "max"),
            (self.pitch, "pitch", "min"),
            (self.pitch_to, "pitch", "max"),
        ):
            size = fit.thread_limit(part, end)
            figure.show_length(size, 0.001, inch, "cut", fit.band, "⌀")


class BoltChoice(_Choice):
    """The bolts: how free they sit, and whether they find their holes."""

    WORDS = (
        ("close", "Close: laid out by read-out, nothing to spare"),
        ("normal", "Normal: what most work wants"),
        ("loose", "Loose: laid out by hand"),
    )

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        self.box.addWidget(label("How free are the screws?", "head"))
        self.group = QButtonGroup(self)
        self.radios: dict[str, QRadioButton] = {}
        for key, words in self.WORDS:
            radio = QRadioButton(words)
            radio.clicked.connect(
                lambda _=False, key=key: self.job.choose_fit(self.number(), key)
            )
            self.group.addButton(radio)
            self.radios[key] = radio
            self.box.addWidget(radio)
        self.box.addWidget(
            label(
                "The spigot centres the chuck; the screws only hold it. Their holes "
                "must leave room for drilling and for the spigot's play.",
                "faint",
                wrap=True,
            )
        )
        self.hole = Figure("Clearance hole")
        self.circle = Figure("Bolt circle by span and screw")
        self.room = Figure("Room round a screw")
        self.need = Figure("Room wanted")
        self.box.addWidget(label("What that means", "head"))
        self.figures(self.hole, self.circle)
        self.figures(self.room, self.need)
        self.advice = label("", "", "stop", wrap=True)
        self.box.addWidget(self.advice)
        self.box.addStretch(1)

    def show_fit(self, fit: FitPlan) -> None:
        self.fit = fit
        inch = self.job.inch
        for key, radio in self.radios.items():
            radio.setChecked(key == fit.choice.want)
        self.advice.setText(fit.advice)
        if fit.band is None or fit.circle is None:
            for figure in (self.hole, self.circle, self.room, self.need):
                figure.show_text("–")
            return
        self.hole.show_length(fit.band["diameter"], 0.1, inch, "cut", fit.band, "⌀")
        self.circle.show_length(
            fit.circle["diameter"], 0.01, inch, "measured", fit.circle, "⌀"
        )
        ok = fit.bolt_room >= fit.bolt_need
        self.room.show_length(fit.bolt_room, 0.01, inch, "" if ok else "stop")
        self.need.show_length(fit.bolt_need, 0.01, inch)
