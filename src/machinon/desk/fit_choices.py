"""The decision on a fit, by its kind, with what it means beside it."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QButtonGroup,
    QComboBox,
    QGridLayout,
    QHBoxLayout,
    QRadioButton,
    QVBoxLayout,
    QWidget,
)

from machinon.core.errors import BadInput
from machinon.core.fit import characters, words_for
from machinon.core.joints import (
    JointForm,
    form_of,
    given_values,
    joint_forms,
    joints_on,
)
from machinon.core.meeting import Band, Effect
from machinon.core.plan import FitPlan
from machinon.core.quantity import (
    ANGLE,
    LENGTH,
    NUMBER,
    angle_text,
    length_text,
    other_text,
    plain,
    rough_text,
    small_range,
    small_text,
)
from machinon.core.reckoning import TEXT, Input
from machinon.desk.bench import Bench
from machinon.desk.widgets import Field, Figure, label, set_ink


class Choice(QWidget):
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


def band_text(band: Band, inch: bool) -> str:
    """A band from its smallest to its largest."""
    if band.kind is ANGLE:
        return f"{angle_text(band.lower, 3)} to {angle_text(band.upper, 3)}"
    low = length_text(band.lower, 0.001, inch, unit=False)
    return f"{band.sign}{low} to {length_text(band.upper, 0.001, inch)}"


def show_effect(figure: Figure, effect: Effect, inch: bool) -> None:
    """What follows from a fit, as a figure with its working."""
    figure.set_name(effect.name)
    ink = "stop" if effect.grave else ""
    value = effect.value
    if isinstance(value, str) or effect.kind is TEXT:
        figure.show_text(str(value), "", "", ink, effect.answer)
    elif effect.small:
        figure.show_text(
            small_text(value, inch), "", small_text(value, not inch), ink, effect.answer
        )
    elif effect.kind is LENGTH:
        figure.show_length(value, 0.01, inch, ink, effect.answer)
    elif effect.kind is NUMBER:
        figure.show_text(plain(value, 1), "", "", ink, effect.answer)
    else:
        figure.show_text(
            rough_text(value, effect.kind),
            "",
            other_text(value, effect.kind),
            ink,
            effect.answer,
        )


def narrow_combo(name: str) -> QComboBox:
    """A list that takes the width there is, not that of its longest line."""
    made = QComboBox()
    made.setAccessibleName(name)
    made.setSizeAdjustPolicy(
        QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon
    )
    made.setMinimumContentsLength(10)
    return made


class Figures(QWidget):
    """As many figures, two abreast unless said, as there is to show."""

    def __init__(self, bench: Bench, abreast: int = 2) -> None:
        super().__init__()
        self.bench = bench
        self.abreast = abreast
        self.grid = QGridLayout(self)
        self.grid.setContentsMargins(0, 0, 0, 0)
        self.grid.setVerticalSpacing(bench.look.px(5))
        self.all: list[Figure] = []

    def show_count(self, count: int) -> list[Figure]:
        """The first `count` figures, made where there are not that many yet."""
        while len(self.all) < count:
            figure = Figure("")
            figure.opened.connect(self.bench.open_working)
            row, column = divmod(len(self.all), self.abreast)
            self.grid.addWidget(figure, row, column, Qt.AlignmentFlag.AlignTop)
            self.grid.setColumnStretch(column, 1)
            self.all.append(figure)
        for i, figure in enumerate(self.all):
            figure.setVisible(i < count)
        return self.all[:count]

    def texts(self) -> dict[str, str]:
        """What is shown, by name."""
        return {f.name(): f.text() for f in self.all if not f.isHidden()}


class JointPart(QWidget):
    """What a joint asks besides, what follows from it, and the schools there are."""

    def __init__(self, bench: Bench) -> None:
        super().__init__()
        self.bench = bench
        self.job = bench.job
        self.fit: FitPlan | None = None
        self._form: JointForm | None = None
        self.fields: dict[str, Field | QComboBox] = {}
        px = bench.look.px
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, 0, 0, 0)
        self.column.setSpacing(px(5))
        self.effects = Figures(bench)
        self.advice = label("", "", "cut", wrap=True)
        self.unsaid = label("", "", "cut", wrap=True)
        self.asked = QWidget()
        self.grid = QGridLayout(self.asked)
        self.grid.setContentsMargins(0, 0, 0, 0)
        self.grid.setHorizontalSpacing(px(10))
        self.schools = label("", "faint", wrap=True)
        self.caution = label("", "", "cut", wrap=True)
        for one in (
            self.effects,
            self.unsaid,
            self.advice,
            self.asked,
            self.caution,
            self.schools,
        ):
            self.column.addWidget(one)

    def show_fit(self, fit: FitPlan) -> None:
        self.fit = fit
        form = form_of(fit.choice)
        if form is not self._form:
            self._ask(form)
        given = given_values(fit.choice)
        for ask in form.asks:
            self._put(ask, given.get(ask.key))
        joined = fit.joined
        effects = joined.effects if joined else ()
        figures = self.effects.show_count(len(effects))
        for figure, effect in zip(figures, effects, strict=True):
            show_effect(figure, effect, self.job.inch)
        self.effects.setVisible(bool(effects))
        self.unsaid.setText(fit.unsaid)
        self.unsaid.setVisible(bool(fit.unsaid))
        self.advice.setText("\n".join(joined.advice) if joined else "")
        self.advice.setVisible(bool(self.advice.text()))
        known = characters().get(fit.choice.want)
        self.caution.setText((known.caution if known else "") or form.caution)
        self.caution.setVisible(bool(self.caution.text()))
        self.schools.setText(form.schools)

    def _ask(self, form: JointForm) -> None:
        """The entries of a joint, two abreast."""
        for widget in self.fields.values():
            self.grid.removeWidget(widget)
            widget.hide()
            widget.deleteLater()
        self.fields = {}
        self._form = form
        for i, ask in enumerate(form.asks):
            made: Field | QComboBox
            if ask.choices:
                made = narrow_combo(ask.meaning)
                for word in ask.choices:
                    made.addItem(f"{ask.meaning} {word}", word)
                made.activated.connect(
                    lambda _, key=ask.key, box=made: self._give(key, box.currentData())
                )
            else:
                made = Field(
                    ask.meaning[0].upper() + ask.meaning[1:],
                    None if ask.kind is TEXT else ask.kind,
                    lambda: self.job.inch,
                    placeholder=self._usual(ask),
                )
                made.taken.connect(lambda text, key=ask.key: self._give(key, text))
            self.fields[ask.key] = made
            self.grid.addWidget(made, i // 2, i % 2, Qt.AlignmentFlag.AlignBottom)
            self.grid.setColumnStretch(i % 2, 1)

    def _usual(self, ask: Input) -> str:
        """What stands in for an entry until it is typed."""
        if ask.required or ask.default is None:
            return ""
        return self._said(ask, ask.default)

    def _said(self, ask: Input, value: object) -> str:
        if isinstance(value, str):
            return value
        number = float(value)  # type: ignore[arg-type]
        if ask.kind is LENGTH:
            if self.job.inch:
                return length_text(number, 0.001, True)
            return f"{number:.4f}".rstrip("0").rstrip(".") + " mm"
        unit = f" {ask.kind.unit}" if ask.kind.unit else ""
        return f"{number:g}{unit}"

    def _put(self, ask: Input, value: object) -> None:
        entry = self.fields[ask.key]
        if isinstance(entry, QComboBox):
            entry.setCurrentIndex(max(entry.findData(value or ask.default), 0))
        elif not entry.refused:
            entry.put("" if value is None else self._said(ask, value))
            entry.hint("")

    def _give(self, key: str, text: str) -> None:
        assert self.fit is not None
        entry = self.fields[key]
        if isinstance(entry, Field):
            entry.hint("")
            entry.accept()
        try:
            self.job.give(self.fit.choice.number, key, text)
        except BadInput as error:
            if isinstance(entry, Field):
                entry.refuse(error.message)
            return
        self._next(key)

    def _next(self, key: str) -> None:
        """On to the entry after the one that was taken."""
        keys = list(self.fields)
        after = keys[keys.index(key) + 1 :] if key in keys else []
        for one in after:
            entry = self.fields[one]
            if isinstance(entry, Field):
                entry.edit.setFocus()
                entry.edit.selectAll()
                return


class PlainChoice(Choice):
    """A fit by what it is for, then plain words, a code, or one's own play."""

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        self.head = label("How shall it go together?", "head")
        self.box.addWidget(self.head)
        self.joint = narrow_combo("What the fit is for")
        self.joint.activated.connect(
            lambda _: self.job.set_joint(self.number(), self.joint.currentData())
        )
        self.box.addWidget(self.joint)
        self.group = QButtonGroup(self)
        self.radios: dict[str, QRadioButton] = {}
        for one in characters().values():
            radio = QRadioButton(f"{one.words[0].upper()}{one.words[1:]}")
            zone = f" ({one.zone})" if one.letter else ""
            radio.setToolTip(one.meaning + zone)
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
            "H7/g6 is the whole range of both; g6 or G6 alone is laid on the mate; "
            "a thou, or 25um, is about so much play"
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
        self.own = QWidget()
        row = QHBoxLayout(self.own)
        row.setContentsMargins(0, 0, 0, 0)
        for field in (self.code, self.least, self.most):
            row.addWidget(field, 1, Qt.AlignmentFlag.AlignTop)
        self.box.addWidget(self.own)
        self.play = Figure("Play, least to most")
        self.runout = Figure("Needle it allows")
        self.band = Figure("Band left to land in")
        self.aim = Figure("Aim at")
        self.plain = (self.play, self.runout, self.aim, self.band)
        self.figures(self.aim, self.band)
        self.figures(self.play, self.runout)
        self.bands = Figures(bench, abreast=1)
        self.box.addWidget(self.bands)
        self.advice = label("", "", "stop", wrap=True)
        self.box.addWidget(self.advice)
        self.part = JointPart(bench)
        self.box.addWidget(self.part)
        self.box.addStretch(1)

    def show_fit(self, fit: FitPlan) -> None:
        self.fit = fit
        self._fill_joints(fit)
        want = fit.choice.want
        words = words_for(fit.choice.joint)
        offered = {one.key for one in words}
        self.group.setExclusive(False)
        for key, radio in self.radios.items():
            radio.setVisible(key in offered)
            radio.setChecked(key == want)
        self.group.setExclusive(True)
        self._say_meaning(want)
        self.meaning.setVisible(bool(words))
        self.own.setVisible(bool(words))
        known = want in characters()
        self.code.put("" if known or want == "own" else want)
        if want == "own":
            inch = self.job.inch
            self.least.put(length_text(fit.choice.clearance_min, 0.001, inch))
            self.most.put(length_text(fit.choice.clearance_max, 0.001, inch))
        else:
            self.least.clear()
            self.most.clear()
        alone = fit.choice.kind == "cylinder"
        for figure in self.plain:
            figure.setVisible(alone)
        self.bands.setVisible(not alone)
        self.advice.hide()
        if alone:
            self._show_band(fit)
        else:
            self._show_bands(fit)
        self.part.show_fit(fit)

    def _fill_joints(self, fit: FitPlan) -> None:
        """The kinds of fit that make sense on the surface."""
        ruled = self.job.plate_rests_on(fit.choice.number)
        self.head.setVisible(ruled)
        self.joint.setVisible(not ruled)
        piece = self.job.pieces.get(fit.choice.piece)
        surface = piece.surface(fit.choice.surface) if piece else None
        forms = list(joints_on(surface)) if surface else []
        own = joint_forms()[fit.choice.joint]
        if own not in forms:
            forms.append(own)
        if [self.joint.itemData(i) for i in range(self.joint.count())] != [
            one.key for one in forms
        ]:
            self.joint.clear()
            for one in forms:
                self.joint.addItem(one.name, one.key)
        self.joint.setCurrentIndex(self.joint.findData(own.key))

    def _say_meaning(self, want: str) -> None:
        known = characters().get(want)
        if known is not None and known.letter:
            self.meaning.setText(f"{known.meaning} Zone {known.zone}, on the mate.")
        elif known is not None:
            self.meaning.setText(known.meaning)
        elif want == "own":
            self.meaning.setText("Your own play, below.")
        else:
            self.meaning.setText(f"By code: {want}.")

    def _show_band(self, fit: FitPlan) -> None:
        """The one band of a plain fit."""
        inch = self.job.inch
        if fit.band is None:
            for figure in self.plain:
                figure.show_text("–")
            return
        low, high = fit.band["clearance_min"], fit.band["clearance_max"]
        grips = high <= 0
        self.runout.setVisible(not grips)
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
        slot = fit.choice.joint == "slot"
        self.runout.set_name("Shake it allows" if slot else "Needle it allows")
        if fit.play is not None:
            self.runout.show_text(
                small_range(max(low, 0.0), fit.play["tir"], inch),
                "",
                small_range(max(low, 0.0), fit.play["tir"], not inch),
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
        sign = "" if slot else "⌀"
        self.aim.show_length(fit.aim, 0.001, inch, "cut", fit.band, sign)
        gauge = fit.gauge.name if fit.gauge else ""
        self.advice.setText(fit.advice or f"It can be proved with: {gauge}.")
        ink = "stop" if left <= 0 else "cut"
        set_ink(self.advice, ink if fit.advice else "")
        self.advice.show()

    def _show_bands(self, fit: FitPlan) -> None:
        """The bands of a joint that has several, each with what can prove it."""
        inch = self.job.inch
        made = [
            one for one in (fit.joined.bands if fit.joined else ()) if not one.measured
        ]
        for figure, band in zip(self.bands.show_count(len(made)), made, strict=True):
            figure.set_name(band.name)
            if band.width <= 0:
                figure.show_text("nothing left", "", "", "stop", band.answer)
            else:
                figure.show_text(
                    band_text(band, inch),
                    "",
                    "" if band.kind is ANGLE else band_text(band, not inch),
                    "cut",
                    band.answer,
                )
                figure.setToolTip(
                    f"The {band.gauge.name} can prove it." if band.gauge else ""
                )
        lines = [one for one in made if one.width > 0 and one.kind is not ANGLE]
        without = [one.name.lower() for one in lines if one.gauge is None]
        proved = [
            f"{one.name.lower()} with {one.gauge.name}" for one in lines if one.gauge
        ]
        if without:
            self.advice.setText(
                f"No instrument in the shop can prove the {', '.join(without)}: keep "
                "the mate, or a plug turned to size, at hand and finish by trial."
            )
        elif proved:
            self.advice.setText(f"It can be proved: {', '.join(proved)}.")
        set_ink(self.advice, "cut" if without else "")
        self.advice.setVisible(bool(without or proved))

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


class ThreadChoice(Choice):
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
        self.part = JointPart(bench)
        self.box.addWidget(self.part)
        self.box.addStretch(1)

    def show_fit(self, fit: FitPlan) -> None:
        self.fit = fit
        self.part.show_fit(fit)
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


class BoltChoice(Choice):
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
        self.part = JointPart(bench)
        self.box.addWidget(self.part)
        self.box.addStretch(1)

    def show_fit(self, fit: FitPlan) -> None:
        self.fit = fit
        ruled = self.job.plate_rests_on(fit.choice.number)
        self.part.setVisible(not ruled)
        if not ruled:
            self.part.show_fit(fit)
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
        ink = "" if ok else "stop"
        self.room.show_length(fit.bolt_room, 0.01, inch, ink, fit.room)
        self.need.show_length(fit.bolt_need, 0.01, inch, "", fit.room)
