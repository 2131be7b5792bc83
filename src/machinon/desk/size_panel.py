"""The size of a surface by its readings, and how they are taken."""

from PySide6.QtWidgets import (
    QVBoxLayout,
    QWidget,
)

from machinon.core.quantity import (
    INCH,
    LENGTH,
    angle_text,
    small_text,
)
from machinon.core.shop.things import Surface
from machinon.core.sizes.likely import Likely
from machinon.core.survey.measuring import Measured, laid_back, measured_text
from machinon.core.survey.reseating import reseating
from machinon.core.survey.surface_kinds import form_key
from machinon.core.wording import begun
from machinon.desk.bench import Bench
from machinon.desk.narrow import Abreast
from machinon.desk.widgets import (
    DrawingView,
    Figure,
    label,
)
from machinon.draw.charts import readings_drawing
from machinon.draw.drawing import Drawing
from machinon.draw.how_to_measure import measuring_drawing


class SizePanel(QWidget):
    """The size of the surface at hand with all that goes with it."""

    def __init__(self, bench: Bench) -> None:
        super().__init__()
        self.job, self.look = bench.job, bench.look
        self.piece_id = ""
        self.surface: Surface | None = None
        self.found: Measured | None = None
        px = bench.look.px
        self.size = Figure("Size at 20 °C", "large")
        self.doubt = Figure("Uncertainty (2 sigma)")
        self.spread = Figure("Spread")
        self.nominal = Figure("Likely made as")
        self.likely = label("", "faint", wrap=True)
        self.shape = Figure("Taper, back less front")
        self.round = Figure("Out of round")
        self.advice = label("", "", wrap=True)
        for widget in (self.nominal, self.likely, self.shape, self.round, self.advice):
            widget.hide()  # until something is known
        for figure in (self.size, self.doubt, self.spread):
            figure.opened.connect(bench.open_working)
        self.chart = DrawingView(
            self.look, self._chart, "Readings about their mean", shrinks=True
        )
        self.chart.setMinimumHeight(px(84))
        self.picture = DrawingView(
            self.look, self._how, "How to measure it", 12.0, shrinks=True
        )
        self.picture.setMinimumHeight(px(90))
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.size)
        column.addWidget(Abreast(2, self.doubt, self.spread))
        column.addWidget(self.nominal)
        column.addWidget(self.likely)
        column.addWidget(Abreast(2, self.shape, self.round))
        column.addWidget(self.advice)
        column.addWidget(self.chart, 3)
        column.addWidget(self.picture, 4)

    def show_surface(
        self, piece_id: str, surface: Surface, found: Measured | None
    ) -> None:
        """Show a surface of a piece as it is measured."""
        self.piece_id, self.surface, self.found = piece_id, surface, found
        self._show_size(found)
        self._show_shape(surface, found)
        # a standard's own size without a band has nothing to be drawn about
        self.chart.setVisible(found is None or found.count > 0 or found.uncertainty > 0)
        self.chart.refresh()
        self.picture.refresh()

    def _show_size(self, found: Measured | None) -> None:
        inch = self.job.inch
        self.nominal.setVisible(found is not None and bool(self._likely()))
        self.likely.hide()
        if found is None:
            self.size.set_name("Size at 20 °C")
            self.size.show_text("not measured yet", ink="cut")
            for figure in (self.doubt, self.spread):
                figure.show_text("–")
            return
        answer = found.answer
        runs = self.surface is not None and self.surface.kind == "runout"
        usual = "Run-out, mean" if runs else "Size at 20 °C"
        self.size.set_name(found.says or usual)
        if found.refused:
            self.size.show_text("cannot be", "", "", "stop")
            self.doubt.show_text("–")
            self.spread.show_text("–")
            self.likely.setText(found.refused)
            self.likely.show()
            return
        assert self.surface is not None
        text = measured_text(self.surface, found, inch)
        if self.surface.kind == "pitch":
            per_inch = f"{INCH / found.size:.2f} to the inch"
            self.size.show_text(text, "", per_inch, "measured", answer)
        elif found.kind is LENGTH:
            self.size.show_length(found.size, found.step, inch, "measured", answer)
        else:
            self.size.show_text(text, "", "", "measured", answer)
        if found.kind is LENGTH:
            self.doubt.show_text(
                "± " + small_text(found.uncertainty, inch),
                "",
                "± " + small_text(found.uncertainty, not inch),
                "",
                answer,
            )
        else:
            self.doubt.show_text(f"± {found.uncertainty:.2g}°", "", "", "", answer)
        count = f"{found.count} reading{'s' if found.count != 1 else ''}"
        aside = (
            sum(not reading.struck for reading in self.surface.readings) - found.count
        )
        if aside > 0:
            count += f", {aside} set apart"
        self.spread.show_text(small_text(found.spread, inch), "", count)
        if not found.count:
            self.size.set_name("As its standard has it, not read")
            self.spread.show_text("–")
            if not found.uncertainty:
                by = "prove it with blue" if found.slope else "try its mate"
                self.doubt.show_text("not counted", "", by)
        likely = self._likely()
        if likely:
            first = likely[0]
            sure = f"{first.chance * 100:.0f} %" if first.chance < 0.995 else ""
            self.nominal.show_text(first.name, "", sure)
            others = [
                f"{likely.name}, {likely.chance * 100:.0f} %" for likely in likely[1:]
            ]
            text = "or " + "; ".join(others) if others else ""
            text = ". ".join(part for part in (text, first.note) if part)
            self.likely.setText(f"{begun(text)}." if text else "")
            self.likely.setVisible(bool(text))

    def _likely(self) -> tuple[Likely, ...]:
        if self.surface is None:
            return ()
        return self.job.likely(self.piece_id, self.surface.id)

    def _show_shape(self, surface: Surface, found: Measured | None) -> None:
        """Taper and out-of-round where places differ; a taper's own slope."""
        inch = self.job.inch
        self.shape.hide()
        self.round.hide()
        self.advice.setText(
            reseating(found, inch) if form_key(surface) == "reseat" else ""
        )
        self.advice.setVisible(bool(self.advice.text()))
        if found is None:
            return
        if found.slope is not None:
            slope = found.slope
            ratio = abs(slope.ratio)
            self.shape.set_name("Taper on the diameter")
            self.shape.show_text(
                f"1 : {1 / ratio:.3f}" if ratio else "none",
                "",
                f"± {slope.doubt / ratio * 100:.2g} %" if ratio else "",
            )
            self.round.set_name("Half angle")
            self.round.show_text(
                angle_text(abs(slope.half_angle), 3),
                "",
                f"± {slope.half_angle_doubt * 60:.1f}′",
            )
            self.shape.show()
            self.round.show()
            return
        for figure, name, value in (
            (self.shape, "Taper, back less front", found.taper),
            (self.round, "Out of round", found.out_of_round),
        ):
            if value is not None:
                figure.set_name(name)
                figure.show_text(
                    small_text(value, inch, signed=figure is self.shape),
                    "",
                    small_text(value, not inch, signed=figure is self.shape),
                )
                figure.show()

    def _how(self, width: float, height: float, size: float) -> Drawing:
        surface = self.surface
        if surface is None:
            return Drawing(width, height, ())
        return measuring_drawing(surface, width, height, size)

    def _chart(self, width: float, height: float, size: float) -> Drawing:
        surface, found = self.surface, self.found
        if surface is None or found is None:
            return Drawing(width, height, ())
        doubted = {d.index for d in found.doubts}
        return readings_drawing(
            [laid_back(r, found.slope) for r in surface.readings],
            [bool(r.struck) for r in surface.readings],
            [i in doubted for i in range(len(surface.readings))],
            found.mean,
            found.mean_doubt,
            width,
            height,
            size,
            self.job.inch,
        )
