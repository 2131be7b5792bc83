"""The inputs of a joint, its consequences, and the schools there are."""

from collections.abc import Sequence

from PySide6.QtWidgets import (
    QComboBox,
    QVBoxLayout,
    QWidget,
)

from machinon.core.errors import BadInput
from machinon.core.fits.joints import (
    JointForm,
    form_of,
    given_values,
)
from machinon.core.fits.meeting import Band, Effect
from machinon.core.job.fit_plan import FitPlan
from machinon.core.quantity import (
    ANGLE,
    LENGTH,
    NUMBER,
    angle_text,
    in_both_texts,
    length_range,
    length_text,
    plain,
    small_text,
    trimmed,
)
from machinon.core.reckoning import TEXT, Input
from machinon.core.sizes.fit import characters
from machinon.core.wording import begun
from machinon.desk.bench import Bench
from machinon.desk.narrow import Abreast, narrow_combo
from machinon.desk.widgets import Field, Figure, label


def band_text(band: Band, inch: bool) -> str:
    """A band from its smallest to its largest."""
    if band.kind is ANGLE:
        return f"{angle_text(band.lower, 3)} to {angle_text(band.upper, 3)}"
    return f"{band.sign}{length_range(band.lower, band.upper, inch=inch)}"


def show_effect(figure: Figure, effect: Effect, inch: bool) -> None:
    """Shows a consequence of a fit, as a figure with its working."""
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
        said, other = in_both_texts(value, effect.kind, inch)
        figure.show_text(
            said,
            "",
            other,
            ink,
            effect.answer,
        )


class Figures(Abreast):
    """As many figures as needed, two abreast unless said."""

    def __init__(self, bench: Bench, abreast: int = 2) -> None:
        super().__init__(abreast)
        self.bench = bench
        self.grid.setVerticalSpacing(bench.look.px(5))
        self.all: list[Figure] = []

    def show_count(self, count: int) -> list[Figure]:
        """The first `count` figures, made where there are not that many yet."""
        while len(self.all) < count:
            figure = Figure("")
            figure.opened.connect(self.bench.open_working)
            self.put(figure)
            self.all.append(figure)
        for i, figure in enumerate(self.all):
            figure.setVisible(i < count)
        return self.all[:count]

    def show_effects(self, effects: Sequence[Effect], inch: bool) -> None:
        """What follows from a fit; nothing where nothing does."""
        for figure, effect in zip(self.show_count(len(effects)), effects, strict=True):
            show_effect(figure, effect, inch)
        self.setVisible(bool(effects))

    def texts(self) -> dict[str, str]:
        """The texts shown, by name."""
        return {f.name(): f.text() for f in self.all if not f.isHidden()}


class JointPart(QWidget):
    """The inputs of a joint, its consequences, and the schools there are."""

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
        self.asked = Abreast(2)
        self.asked.grid.setHorizontalSpacing(px(10))
        self.schools = label("", "faint", wrap=True)
        self.caution = label("", "", "cut", wrap=True)
        for widget in (
            self.effects,
            self.unsaid,
            self.advice,
            self.asked,
            self.caution,
            self.schools,
        ):
            self.column.addWidget(widget)

    def show_fit(self, fit: FitPlan) -> None:
        self.fit = fit
        form = form_of(fit.choice)
        if form is not self._form:
            self._ask(form)
        given = given_values(fit.choice)
        for ask in form.asks:
            self._put(ask, given.get(ask.key))
        joined = fit.joined
        self.effects.show_effects(joined.effects if joined else (), self.job.inch)
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
        self.asked.clear()
        self.fields = {}
        self._form = form
        for ask in form.asks:
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
                    begun(ask.meaning),
                    None if ask.kind is TEXT else ask.kind,
                    lambda: self.job.inch,
                    placeholder=self._usual(ask),
                )
                made.taken.connect(lambda text, key=ask.key: self._give(key, text))
            self.fields[ask.key] = made
            self.asked.put(made)

    def _usual(self, ask: Input) -> str:
        """The value that stands in for an entry until it is typed."""
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
            return f"{trimmed(f'{number:.4f}')} mm"
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
        """Moves on to the entry after the one that was taken."""
        keys = list(self.fields)
        after = keys[keys.index(key) + 1 :] if key in keys else []
        for later in after:
            entry = self.fields[later]
            if isinstance(entry, Field):
                entry.edit.setFocus()
                entry.edit.selectAll()
                return
