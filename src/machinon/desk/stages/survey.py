"""Survey: what exists, measured: readings in, size and doubt out."""

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QIcon, QPainter, QPixmap
from PySide6.QtWidgets import (
    QFileDialog,
    QHBoxLayout,
    QMenu,
    QSizePolicy,
    QTreeWidgetItem,
    QVBoxLayout,
    QWidget,
)

from machinon.core.errors import BadInput, MachinonError
from machinon.core.materials import materials
from machinon.core.quantity import (
    LENGTH,
    TEMPERATURE,
    both_text,
    length_text,
    small_text,
    typed_again,
)
from machinon.core.shop.things import Reading, Surface
from machinon.core.survey.as_made import example_for, takes_standard
from machinon.core.survey.as_typed import read_typed
from machinon.core.survey.disagreeing import Doubt
from machinon.core.survey.measuring import Measured, measured_text
from machinon.core.survey.surface_kinds import is_tapered, surface_groups
from machinon.core.survey.surface_sums import sum_of
from machinon.core.wording import begun
from machinon.desk.bench import Bench, StageView
from machinon.desk.name_dialog import ask_name
from machinon.desk.narrow import Abreast, Combo, FiguresTree, narrow_combo
from machinon.desk.painter import paint_mark
from machinon.desk.sheet import write_measuring_sheet
from machinon.desk.size_panel import SizePanel
from machinon.desk.widgets import (
    EmptyPage,
    Field,
    LineEntry,
    Look,
    MarkView,
    button,
    clear_layout,
    label,
    panel,
    scrolled,
    set_ink,
)
from machinon.draw.drawing import Mark, MarkKind


def mark_icon(look: Look, kind: MarkKind | None) -> QIcon:
    """A state's sign as an icon for a list."""
    side = look.px(18)
    picture = QPixmap(QSize(side, side))
    picture.fill(Qt.GlobalColor.transparent)
    if kind is not None:
        painter = QPainter(picture)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_mark(painter, Mark((side / 2, side / 2), kind, side * 0.75), look.theme)
        painter.end()
    return QIcon(picture)


class SurveyView(StageView):
    """Surfaces at the left, the readings of one in the middle, the size right."""

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        self.at: tuple[str, str] | None = None
        self._shown: tuple[str, str] | None = None
        self.tree = FiguresTree()
        self.tree.setIndentation(self.look.px(10))
        self.tree.setAccessibleName("Surfaces to measure")
        self.tree.currentItemChanged.connect(self._on_surface_chosen)

        self.more_surface = button("Add a surface", self.ask_surface)
        self.more_piece = button("Add a piece", self.ask_piece)
        self.old_piece = button("Measure the old piece", self.measure_old_piece)
        self.new_piece = Field("The new piece's name, then Enter", None)
        self.new_piece.taken.connect(self._on_new_piece)
        self.new_material = Combo()
        self.new_material.setAccessibleName("What the new piece is made of")
        for name in materials():
            self.new_material.addItem(name, name)
        self.new_material.setCurrentIndex(self.new_material.findData("steel"))
        self.asks_piece = QWidget()
        asks = QVBoxLayout(self.asks_piece)
        asks.setContentsMargins(0, 0, 0, 0)
        asks.addWidget(label("Made of", "faint"))
        asks.addWidget(self.new_material)
        asks.addWidget(self.new_piece)
        self.asks_piece.hide()
        self.empty = EmptyPage(self.look)
        self.as_made = Field("Or take it by its standard, then Enter", None)
        self.as_made.taken.connect(self._on_as_made)
        self.title = label("", "head")
        self.how = label("", "faint", wrap=True)
        self.reading = Field(
            "Reading, then Enter",
            None,
            lambda: self._instrument_inch(),
            large=True,
        )
        self.reading.edit.setPlaceholderText("Enter: next")
        self.reading.from_wire = True
        self.reading.taken.connect(self._on_reading_taken)
        self.aids: dict[str, Field] = {}
        self.aid_row = QHBoxLayout()
        self.place = Field("Place (if it matters)", None)
        self.place.taken.connect(lambda _: self.reading.edit.setFocus())
        self.reading.edit.textChanged.connect(self._on_reading_typed)
        self._carried = self._follows = False
        self.instrument = narrow_combo("Instrument")
        self.instrument.currentIndexChanged.connect(self._on_instrument_chosen)
        self.instrument_says = label("", "faint", wrap=True)
        self.temperature = Field("Temperature, °C or F", TEMPERATURE)
        self.temperature.put("20")
        self.temperature.setToolTip("Of the part and the gauge, lying together")
        self.temperature.taken.connect(lambda _: self.reading.edit.setFocus())
        self.next = button("Next surface to measure", self._next_surface)
        self.rows = QVBoxLayout()
        self.rows.setSpacing(self.look.px(4))

        self.more = button("Rename or remove…", self.ask_more)
        self.sheet = button("Measuring sheet…", self.ask_sheet)
        self.says = SizePanel(bench)
        self.size, self.nominal = self.says.size, self.says.nominal
        self._lay_out()

    def _lay_out(self) -> None:
        px = self.look.px
        tool = QWidget()
        side = QVBoxLayout(tool)
        side.setContentsMargins(0, 0, 0, 0)
        side.setSpacing(px(2))
        side.addWidget(label("Instrument", "faint"))
        side.addWidget(self.instrument)
        side.addWidget(self.instrument_says)
        side.addStretch(1)
        self.reading.setMinimumWidth(px(170))
        entry = Abreast(2, self.reading, tool)
        entry.grid.setHorizontalSpacing(px(14))
        middle = QVBoxLayout()
        middle.setContentsMargins(px(16), px(10), px(16), px(8))
        middle.addWidget(self.title)
        middle.addWidget(self.how)
        middle.addSpacing(px(6))
        middle.addLayout(self.aid_row)
        middle.addWidget(entry)
        middle.addWidget(self.as_made)
        readings = QWidget()
        holder = QVBoxLayout(readings)
        holder.setContentsMargins(0, 0, 0, 0)
        holder.addLayout(self.rows)
        holder.addStretch(1)
        middle.addWidget(scrolled(readings), 1)
        where, onward = QWidget(), QWidget()
        fields = QHBoxLayout(where)
        fields.setContentsMargins(0, 0, 0, 0)
        for field, least in ((self.place, 74), (self.temperature, 90)):
            field.setMinimumWidth(px(least))
            fields.addWidget(field, 1, Qt.AlignmentFlag.AlignTop)
        buttons = QVBoxLayout(onward)
        buttons.setContentsMargins(0, 0, 0, 0)
        buttons.addWidget(self.next)
        buttons.addWidget(self.more)
        middle.addWidget(Abreast(2, where, onward, even=False))

        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        more = QHBoxLayout()
        more.addWidget(self.more_surface, 1)
        more.addWidget(self.more_piece, 1)
        left = QVBoxLayout()
        left.setContentsMargins(0, 0, 0, 0)
        left.addWidget(self.tree, 1)
        left.addWidget(self.asks_piece)
        left.addWidget(self.old_piece)
        left.addLayout(more)
        left.addWidget(self.sheet)
        side = QWidget()
        side.setLayout(left)
        side.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Expanding)
        whole.addWidget(side, 32)
        self.middle = panel(middle, True)
        whole.addWidget(self.middle, 48)
        whole.addWidget(self.empty, 48)
        right = QVBoxLayout()
        right.setContentsMargins(px(16), px(10), px(16), px(8))
        right.addWidget(self.says)
        whole.addWidget(panel(right, True), 36)

    # -- showing ---------------------------------------------------------

    def begin(self) -> None:
        self.reading.edit.setFocus()

    def refresh(self) -> None:
        sizes = self.job.old_sizes
        self.old_piece.setVisible(bool(sizes))
        self.old_piece.setToolTip(
            f"{len(sizes)} of its sizes stay as they are: read them, and the drawing "
            "follows"
        )
        self._fill_tree()
        self._show_surface()

    def _fill_tree(self) -> None:
        self.tree.blockSignals(True)
        self.tree.clear()
        chosen = None
        for piece in self.job.pieces.values():
            top = QTreeWidgetItem([piece.name])
            top.setFlags(Qt.ItemFlag.ItemIsEnabled)
            bold = self.tree.font()
            bold.setBold(True)
            top.setFont(0, bold)
            top.setFirstColumnSpanned(True)
            self.tree.addTopLevelItem(top)
            top.setFirstColumnSpanned(True)
            for surface in piece.surfaces:
                found = self.job.plan.measured[piece.id, surface.id]
                item = self.tree.add(top, surface.name, self._short(surface, found))
                item.setData(0, Qt.ItemDataRole.UserRole, (piece.id, surface.id))
                kind: MarkKind = "measured" if found and found.count else "cut"
                if found is not None and found.doubts:
                    kind = "stop"
                item.setIcon(0, mark_icon(self.look, None if found is None else kind))
                if self.at is None and found is None:
                    self.at = (piece.id, surface.id)
                if self.at == (piece.id, surface.id):
                    chosen = item
            top.setExpanded(True)
        first = self.tree.topLevelItem(0)
        empty = self.at is not None and self.at[1] == ""
        if chosen is None and first is not None and first.childCount() and not empty:
            chosen = first.child(0)
        if chosen is not None:
            self.at = chosen.data(0, Qt.ItemDataRole.UserRole)
            self.tree.setCurrentItem(chosen)
        self.tree.blockSignals(False)
        self.tree.fit()

    def _short(self, surface: Surface, found: Measured | None) -> str:
        if found is None:
            return "to measure"
        return measured_text(surface, found, self.job.inch)

    def _found(self) -> Measured | None:
        return self.job.plan.measured.get(self.at) if self.at else None

    def _surface(self) -> Surface | None:
        if self.at is None or self.at[0] not in self.job.pieces:
            return None
        # none while a piece has no surface yet, or one was taken back
        return self.job.pieces[self.at[0]].surface(self.at[1])

    def _show_surface(self) -> None:
        surface, found = self._surface(), self._found()
        self.middle.setVisible(surface is not None)
        self.empty.setVisible(surface is None)
        self.more_surface.setEnabled(bool(self.job.pieces))
        if self.at is not None and self.at[0] in self.job.pieces:
            name = self.job.pieces[self.at[0]].name
            self.more_surface.setToolTip(f"It is added to {name}")
        if surface is None or self.at is None:
            self._show_empty()
            self.says.hide()
            return
        self.says.show()
        if self._shown != self.at:
            self._follows = self._shown is not None
            # where a reading was taken belongs to its own surface
            self._shown = self.at
            self.as_made.clear()
            self.place.clear()
            self._carry()
        self.title.setText(surface.name)
        self.how.setText(surface.how)
        self._fill_aids(surface)
        tapered = is_tapered(surface)
        self.place.name.setText(
            "How far from its large end" if tapered else "Place (if it matters)"
        )
        self.place.edit.setPlaceholderText("0" if tapered else "back 90")
        self._fill_instruments(surface)
        self._fill_rows(surface, found)
        self._offer_standard(surface)
        self.says.show_surface(self.at[0], surface, found)

    def _show_empty(self) -> None:
        """Shows the page with nothing to measure, and the button that starts it."""
        if not self.job.pieces:
            self.empty.say(
                "Nothing to measure yet",
                "This stage holds what exists: the spindle nose, the chuck, the shaft, "
                "the slot that the new part must fit. Add the first piece, then the "
                "surfaces that matter on it.",
                ("Add the first piece", self.ask_first_piece),
            )
            return
        piece = self.job.pieces.get(self.at[0]) if self.at else None
        piece = piece or next(iter(self.job.pieces.values()))
        self.empty.say(
            f"No surface on {piece.name} yet",
            "Add the faces that the new part must fit: a bore, a shaft, a slot, a "
            "thread, a taper. Only what matters needs a reading.",
            ("Add the first surface", self.ask_first_surface),
        )

    def ask_first_piece(self) -> None:
        """The shop's pieces to choose from; with none, straight to a new one."""
        if len(self.piece_menu().actions()) == 1:
            self._ask_new_piece()
        else:
            self._pop(self.piece_menu())

    def ask_first_surface(self) -> None:
        """The kinds of surface, beside the button that asked for one."""
        self._pop(self.surface_menu())

    def _pop(self, menu: QMenu) -> None:
        start = self.empty.start
        menu.popup(start.mapToGlobal(start.rect().bottomLeft()))

    def _offer_standard(self, surface: Surface) -> None:
        """Offers the standard of a surface where nothing is read."""
        read = any(not reading.struck for reading in surface.readings)
        takes = takes_standard(surface)
        self.as_made.setVisible(takes and not read)
        example = example_for(surface, self.job.inch) if takes else ""
        self.as_made.edit.setPlaceholderText(example)
        if not self.as_made.refused:
            self.as_made.put(surface.given)

    def _on_as_made(self, typed: str) -> None:
        assert self.at is not None
        self.as_made.accept()
        try:
            self.job.take_as_made(*self.at, typed)
        except BadInput as error:
            self.as_made.refuse(error.message)

    def _carry(self) -> None:
        """Say what stands from the surface before: the temperature."""
        warm = self.temperature.text().strip()
        usual = f"{self.job.shop.temperature:g}"
        self.temperature.name.setText(
            "Temperature, °C or F"
            if warm in ("", usual)
            else "Temperature, °C: as on the surface before"
        )

    def _fill_aids(self, surface: Surface) -> None:
        """Fills the entries of the sizes that stand in the readings."""
        its_sum = sum_of(surface)
        asks = its_sum.asks if its_sum else ()
        if list(self.aids) != [ask.key for ask in asks]:
            for field in self.aids.values():
                self.aid_row.removeWidget(field)
                field.hide()
                field.deleteLater()
            self.aids = {}
            for ask in asks:
                field = Field(
                    f"{begun(ask.key)}, {ask.meaning}",
                    ask.kind,
                    lambda: self.job.inch,
                )
                field.taken.connect(lambda text, key=ask.key: self._on_aid(key, text))
                self.aids[ask.key] = field
                self.aid_row.addWidget(field, 1, Qt.AlignmentFlag.AlignBottom)
        for ask in asks:
            value = surface.aids.get(ask.key)
            field = self.aids[ask.key]
            if field.refused:
                continue
            if value is None:
                usual = "" if ask.required or not ask.default else f"{ask.default:g}"
                field.edit.setPlaceholderText(usual)
                field.put("")
            elif ask.kind is LENGTH:
                field.put(f"{typed_again(value)} mm")
            else:
                field.put(typed_again(value))
            field.hint("")

    def _on_aid(self, key: str, typed: str) -> None:
        assert self.at is not None
        field = self.aids[key]
        field.accept()
        try:
            self.job.set_aid(*self.at, key, typed)
        except BadInput as error:
            field.refuse(error.message)
            return
        keys = list(self.aids)
        after = keys[keys.index(key) + 1 :] if key in keys else []
        nearest = self.aids[after[0]].edit if after else self.reading.edit
        nearest.setFocus()

    def more_menu(self) -> QMenu:
        """The further acts on the surface at hand, and its piece."""
        menu = QMenu(self)
        surface = self._surface()
        if surface is None or self.at is None:
            return menu
        piece_id, surface_id = self.at
        piece = self.job.pieces[piece_id]
        menu.addAction(
            "Rename this surface…",
            lambda: ask_name(
                self,
                self.look,
                "What the surface is called",
                surface.name,
                lambda name: self.job.rename_surface(piece_id, surface_id, name),
            ),
        )
        menu.addAction(
            "Rename this piece…",
            lambda: ask_name(
                self,
                self.look,
                "What the piece is called",
                piece.name,
                lambda name: self.job.rename_piece(piece_id, name),
            ),
        )
        to = menu.addMenu("Move it to")
        for other in self.job.pieces.values():
            if other.id != piece_id:
                to.addAction(
                    other.name, lambda id=other.id: self._try(self.job.move_surface, id)
                )
        to.setEnabled(not to.isEmpty())
        menu.addAction("Remove this surface", lambda: self._try(self.job.drop_surface))
        return menu

    def ask_more(self) -> None:
        """Open the menu of what else can be done."""
        self.more_menu().popup(self.more.mapToGlobal(self.more.rect().topLeft()))

    def _try(self, act: Callable[..., object], *more: str) -> None:
        """Do an act on the surface that is looked at; a refusal is said there."""
        assert self.at is not None
        try:
            act(*self.at, *more)
        except BadInput as error:
            self.reading.refuse(error.message)

    def ask_sheet(self) -> None:
        """Ask where the measuring sheet shall be written, and write it."""
        path, _ = QFileDialog.getSaveFileName(
            self, "Measuring sheet", f"{self.job.job.id}-to-measure.pdf", "*.pdf"
        )
        if path:
            self.print_sheet(Path(path))

    def print_sheet(self, path: Path) -> None:
        """A sheet with boxes to take to the machine."""
        try:
            write_measuring_sheet(self.job.job.name, self.job.pieces.values(), path)
        except MachinonError as error:
            self.how.setText(str(error))
            set_ink(self.how, "stop")
        else:
            self.how.setText(f"Written: {path}")

    def _fill_instruments(self, surface: Surface) -> None:
        before = self.instrument.currentData()
        gauges = self.job.gauges(surface)
        self.instrument.blockSignals(True)
        self.instrument.clear()
        for gauge in gauges:
            self.instrument.addItem(gauge.name, gauge.id)
        last = surface.readings[-1].instrument if surface.readings else before
        at = self.instrument.findData(last)
        self._carried = self._follows and not surface.readings and at >= 0
        self.instrument.setCurrentIndex(max(at, 0))
        self.instrument.blockSignals(False)
        self._on_instrument_chosen()

    def _fill_rows(self, surface: Surface, found: Measured | None) -> None:
        clear_layout(self.rows)
        doubts = {d.index: d for d in found.doubts} if found else {}
        counted = sum(not reading.struck for reading in surface.readings)
        apart = found is not None and counted > found.count
        for i, reading in enumerate(surface.readings):
            self.rows.addWidget(self._row(i, reading, doubts.get(i), apart))

    def _row(
        self, index: int, reading: Reading, doubt: Doubt | None, apart: bool
    ) -> QWidget:
        """One reading: its figure, who read it, and what can be done with it.

        apart: whether readings that disagree are left out of the size.
        """
        tool = self.job.shop.instrument(reading.instrument)
        wrong = bool(reading.struck) or doubt is not None
        row = QWidget()
        column = QVBoxLayout(row)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        head = QWidget()
        line = QHBoxLayout(head)
        line.setContentsMargins(0, 0, 0, 0)
        line.addWidget(MarkView(self.look, "stop" if wrong else "measured"))
        number = label(f"{index + 1}", "faint")
        number.setMinimumWidth(self.look.px(18))
        line.addWidget(number)
        figure = label(
            self._reading_text(reading),
            "head",
            "stop" if wrong else "measured",
        )
        if reading.struck:
            crossed = figure.font()
            crossed.setStrikeOut(True)
            figure.setFont(crossed)
        line.addWidget(figure)
        line.addStretch(1)
        tail = QWidget()
        line = QHBoxLayout(tail)
        line.setContentsMargins(0, 0, 0, 0)
        warm = (
            "temperature not looked at"
            if reading.temperature is None
            else f"{reading.temperature:g} °C"
        )
        where = f", {reading.place}" if reading.place else ""
        line.addWidget(label(f"{tool.name}{where}, {warm}", "faint", wrap=True), 1)
        why = LineEntry()
        why.setAccessibleName(f"Why reading {index + 1} is struck or kept")
        why.setPlaceholderText("why (for the record)")
        cause = doubt.cause if doubt else ""
        ways = Abreast(2)
        if wrong:
            ways.put(button("Count it", lambda: self._let_count(index, why.text())))
        if not reading.struck:
            ways.put(button("Strike", lambda: self._strike(index, why.text() or cause)))
        line.addWidget(ways)
        level = Qt.AlignmentFlag.AlignVCenter
        column.addWidget(Abreast(2, head, tail, even=False, held=level))
        says = ""
        if reading.struck:
            says = f"Struck: {reading.struck}"
        elif doubt is not None:
            off = small_text(doubt.off, tool.inch, signed=True)
            says = f"{off} from the others: {doubt.cause}"
            if apart:
                says = f"Set apart until you decide. {says}"
        elif reading.kept:
            column.addWidget(label(f"Kept: {reading.kept}", "faint", wrap=True))
        if says:
            column.addWidget(label(says, "", "stop", wrap=True))
        if doubt is not None:
            column.addWidget(why)
        return row

    def _reading_text(self, reading: Reading) -> str:
        tool = self.job.shop.instrument(reading.instrument)
        return length_text(reading.value, tool.resolution, tool.inch)

    def _strike(self, index: int, why: str) -> None:
        if self.at:
            self.job.strike(*self.at, index, why)
            self.reading.edit.setFocus()

    def _let_count(self, index: int, why: str) -> None:
        if self.at:
            self.job.let_count(*self.at, index, why)
            self.reading.edit.setFocus()

    # -- doing -----------------------------------------------------------

    def choose(self, piece_id: str, surface_id: str) -> None:
        """Bring a surface into view."""
        self.at = (piece_id, surface_id)
        self.refresh()

    def surface_menu(self) -> QMenu:
        """The kinds of surface that can be added to the piece that is chosen."""
        piece_id = self.at[0] if self.at else next(iter(self.job.pieces))
        menu = QMenu(self)
        menu.setTitle(self.job.pieces[piece_id].name)
        parts: dict[str, QMenu] = {}
        for group in surface_groups().values():
            if group.part not in parts:
                parts[group.part] = menu.addMenu(group.part)
            parts[group.part].addAction(
                group.name, lambda key=group.key: self.add_surface(piece_id, key)
            )
        return menu

    def add_surface(self, piece_id: str, key: str) -> None:
        """Add a surface and go to measure it."""
        self.at = (piece_id, self.job.add_surface(piece_id, key))
        self.refresh()
        self.reading.edit.setFocus()

    def measure_old_piece(self) -> None:
        """A surface for each size that the piece it is made from has already."""
        self.at = self.job.measure_old_piece()
        self.refresh()
        self.reading.edit.setFocus()

    def piece_menu(self) -> QMenu:
        """The shop's pieces that are not in the job, and a new one."""
        menu = QMenu(self)
        menu.addAction("A new piece …", self._ask_new_piece)
        for entry in self.job.file.entries("piece"):
            if entry.id not in self.job.pieces:
                menu.addAction(entry.name, lambda id=entry.id: self.job.take_piece(id))
        return menu

    def ask_surface(self) -> None:
        """Open the menu of surfaces."""
        if self.job.pieces:
            at = self.more_surface.mapToGlobal(self.more_surface.rect().topLeft())
            self.surface_menu().popup(at)

    def ask_piece(self) -> None:
        """Open the menu of pieces."""
        at = self.more_piece.mapToGlobal(self.more_piece.rect().topLeft())
        self.piece_menu().popup(at)

    def _ask_new_piece(self) -> None:
        self.asks_piece.show()
        self.new_piece.show()
        self.new_piece.edit.setFocus()

    def _on_new_piece(self, name: str) -> None:
        try:
            piece = self.job.new_piece(name, self.new_material.currentData())
        except BadInput as error:
            self.new_piece.refuse(error.message)
            return
        self.new_piece.clear()
        self.asks_piece.hide()
        self.at = (piece.id, "")
        self.refresh()

    def _on_surface_chosen(
        self, item: QTreeWidgetItem | None, _before: QTreeWidgetItem | None
    ) -> None:
        at = item.data(0, Qt.ItemDataRole.UserRole) if item else None
        if at:
            self.at = tuple(at)
            self.reading.clear()
            self._show_surface()

    def _instrument_inch(self) -> bool:
        id = self.instrument.currentData()
        return bool(id) and self.job.shop.instrument(id).inch

    def use_instrument(self, id: str) -> None:
        """Read with this instrument from now on, where it can read the surface."""
        at = self.instrument.findData(id)
        if at >= 0:
            self.instrument.setCurrentIndex(at)

    def _on_instrument_chosen(self) -> None:
        id = self.instrument.currentData()
        if not id:
            self.instrument_says.setText(
                "No instrument in the shop measures this kind of surface."
            )
            return
        tool = self.job.shop.instrument(id)
        unit = "inches" if tool.inch else "mm"
        checked = f", checked {tool.checked}" if tool.checked else ""
        carried = "As on the surface before. " if self._carried else ""
        self._carried = False
        self.instrument_says.setText(
            f"{carried}± {small_text(tool.uncertainty, tool.inch)}{checked}. "
            f"A bare number is {unit}."
        )

    def _on_reading_typed(self, text: str) -> None:
        if self.reading.refused or not text.strip():
            return
        surface = self._surface()
        if surface is None:
            return
        try:
            value = read_typed(text, surface, self._instrument_inch())
        except BadInput:
            self.reading.hint("")
        else:
            self.reading.hint(both_text(value))

    def _on_reading_taken(self, typed: str) -> None:
        id = self.instrument.currentData()
        if self.at is None or not id:
            return
        if not typed.strip() and self._found() is not None:
            self._next_surface()
            return
        try:
            self.job.add_reading(
                *self.at, typed, id, self.temperature.text(), self.place.text()
            )
        except BadInput as error:
            own = {"temperature": self.temperature, "place": self.place, **self.aids}
            own.get(error.key, self.reading).refuse(error.message)
            return
        self.reading.clear()
        self.reading.edit.setFocus()

    def _next_surface(self) -> None:
        """The next surface without a reading, else the next in the list."""
        order = [
            (piece.id, surface.id)
            for piece in self.job.pieces.values()
            for surface in piece.surfaces
        ]
        if not order:
            return
        start = order.index(self.at) + 1 if self.at in order else 0
        turned = order[start:] + order[:start]
        bare = [key for key in turned if self.job.plan.measured[key] is None]
        self.choose(*(bare or turned)[0])
        self.reading.clear()
        self.reading.edit.setFocus()
