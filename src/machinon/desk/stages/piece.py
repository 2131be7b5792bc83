"""Piece, for the back plate."""

from PySide6.QtCore import QRectF
from PySide6.QtWidgets import QComboBox, QGridLayout

from machinon.core.materials import materials
from machinon.core.piece.back_plate import PARAMETERS
from machinon.core.quantity import length_text
from machinon.core.threads.screws import cap_screws
from machinon.desk.bench import Bench
from machinon.desk.narrow import Combo
from machinon.desk.stages.sized_sheet import SizedSheet
from machinon.desk.widgets import button, label
from machinon.draw.drawing import Drawing
from machinon.draw.plate_drawing import plate_drawing


class PieceView(SizedSheet):
    """The back plate's: its screws, metal and stock stand above the checks."""

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench, "Follow the fit again")
        self.material = self._combo("Material", list(materials()))
        self.bolts = self._combo("Bolts", ["", "2", "3", "4", "6", "8"])
        self.bolt_size = self._combo("Screw", list(cap_screws()))
        self.bolting = self._combo("Bolted", ["through", "into"])
        self.bolting.setItemText(0, "through the plate")
        self.bolting.setItemText(1, "into the plate, tapped")
        self.stock = button("", lambda: self._on_spot_chosen("stock_diameter", None))
        self.stock_length = button(
            "", lambda: self._on_spot_chosen("stock_length", None)
        )
        for one in (self.stock, self.stock_length):
            one.setProperty("part", "size")
        self.drawing.setMinimumHeight(self.look.px(300))
        self._lay_out()

    def _combo(self, name: str, words: list[str]) -> QComboBox:
        combo = Combo()
        combo.setAccessibleName(name)
        for word in words:
            combo.addItem(word, word)
        return combo

    def _lay_out(self) -> None:
        px = self.look.px
        for combo, key in (
            (self.material, "material"),
            (self.bolts, "bolts"),
            (self.bolt_size, "bolt_size"),
            (self.bolting, "bolting"),
        ):
            combo.activated.connect(
                lambda _at, combo=combo, key=key: self.job.set_size(
                    key, combo.currentData()
                )
            )
        goes = QGridLayout()
        goes.setVerticalSpacing(px(4))
        for row, (name, widget) in enumerate(
            (
                ("Material", self.material),
                ("Screws", self.bolt_size),
                ("How many", self.bolts),
                ("Bolted", self.bolting),
                ("Stock ⌀", self.stock),
                ("Stock length", self.stock_length),
            )
        ):
            goes.addWidget(label(name, "faint"), row, 0)
            goes.addWidget(widget, row, 1)
        goes.setColumnStretch(1, 1)
        self.beside.addLayout(goes)

    # -- showing ---------------------------------------------------------

    def refresh(self) -> None:
        plate = self.job.job.plate
        assert plate is not None
        for combo, word in (
            (self.material, plate.material),
            (self.bolts, "" if plate.bolts is None else str(plate.bolts)),
            (self.bolt_size, plate.bolt_size),
            (self.bolting, plate.bolting),
        ):
            if combo.findData(word) < 0:
                combo.addItem(word, word)
            combo.setCurrentIndex(combo.findData(word))
        for one, key in (
            (self.stock, "stock_diameter"),
            (self.stock_length, "stock_length"),
        ):
            value = getattr(plate, key)
            one.setText(length_text(value, 0.1, self.job.inch))
            one.setToolTip(length_text(value, 0.1, not self.job.inch))
        self._show_sheet()

    def _hint(self) -> None:
        plan = self.job.plan
        if plan.plate is None:
            self._tell(
                "Nothing can be drawn yet. Still to measure or decide: "
                + ", ".join(plan.missing)
                + ".",
                "stop",
            )
        else:
            self._tell(
                "Choose a size on the drawing and type. Orange sizes are ruled by "
                "the fit whose number they carry."
            )

    def begin(self) -> None:
        self.drawing.setFocus()

    def _drawing(self, width: float, height: float, size: float) -> Drawing:
        return plate_drawing(self.job.plan, width, height, size, self.job.inch)

    # -- doing -----------------------------------------------------------

    def _on_spot_chosen(self, tie: str, place: QRectF | None) -> None:
        self._fit = {"thread": 2, "bolts": 4}.get(tie, 0)
        if tie in PARAMETERS:
            self._fit = PARAMETERS[tie].fit
            self.begin_edit(tie, place)
        elif self._fit:
            self.bench.go("fits", self._fit)

    def begin_edit(self, key: str, place: QRectF | None = None) -> None:
        """Open the entry on a size of the drawing."""
        self._key = key
        one = PARAMETERS[key]
        plate = self.job.plan.plate or self.job.job.plate
        value = getattr(plate, key)
        text = "" if value is None else length_text(value, 0.001, self.job.inch)
        self.edit.open_over(place or self.drawing.rect_of(key), text)
        self._tell(f"{one.name.capitalize()}: type a size, then Enter.")
        self._offer_fit(one.fit)
        if one.fit:
            own = getattr(self.job.job.plate, key) is not None
            self.follow.setVisible(own)
            if not own:
                self.says.setText(
                    f"{one.name.capitalize()} follows fit {one.fit}. A size "
                    "typed here takes its place and is checked against the mate."
                )
