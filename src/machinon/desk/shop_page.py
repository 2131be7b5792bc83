"""The shop: machines, pieces and instruments, each as it is and to be changed."""

from pathlib import Path

from PySide6.QtCore import QRectF, Qt, Signal
from PySide6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QFileDialog,
    QGridLayout,
    QHBoxLayout,
    QTreeWidget,
    QTreeWidgetItem,
    QVBoxLayout,
    QWidget,
)

from machinon.core.errors import BadInput, MachinonError
from machinon.core.mating import mates_of
from machinon.core.measuring import measure
from machinon.core.quantity import small_text
from machinon.core.shop import STARTER_INSTRUMENTS, Instrument, Lathe, Piece
from machinon.core.shop_entry import (
    KIND_WORDS,
    KINDS,
    instrument_of,
    lathe_of,
    typed_instrument,
    typed_lathe,
    with_instrument,
)
from machinon.desk.widgets import (
    DrawingView,
    Field,
    Look,
    button,
    clear_layout,
    label,
    panel,
    scrolled,
    set_ink,
)
from machinon.draw.drawing import Drawing
from machinon.draw.piece_drawing import piece_drawing
from machinon.store.lists import (
    export_instruments,
    import_instruments,
    new_instrument_id,
)
from machinon.store.shop_file import ShopFile


class ShopPage(QWidget):
    """What the shop owns at the left, the chosen thing at the right.

    Signals: left() to go back.
    """

    left = Signal()

    def __init__(self, look: Look, file: ShopFile) -> None:
        super().__init__()
        self.look, self.file = look, file
        px = look.px
        self.tree = QTreeWidget()
        self.tree.setHeaderHidden(True)
        self.tree.setRootIsDecorated(False)
        self.tree.setIndentation(px(12))
        self.tree.setAccessibleName("What the shop owns")
        self.tree.currentItemChanged.connect(lambda item, _: self._on_chosen(item))
        self.body = QVBoxLayout()
        self.body.setContentsMargins(0, 0, 0, 0)
        self.says = label("", "", wrap=True)
        head = QHBoxLayout()
        head.addWidget(label(file.shop().name or "Shop", "title"), 1)
        for words, act in (
            ("New instrument", self.new_instrument),
            ("Add the starter instruments", self.add_starters),
            ("Import instruments…", self._import),
            ("Export instruments…", self._export),
            ("Take back", self.undo),
            ("Back", self.left.emit),
        ):
            head.addWidget(button(words, act))
        row = QHBoxLayout()
        row.addWidget(self.tree, 28)
        right = QVBoxLayout()
        right.setContentsMargins(px(18), px(12), px(18), px(10))
        right.addLayout(self.body, 1)
        right.addWidget(self.says)
        row.addWidget(panel(right, True), 72)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(px(20), px(12), px(20), px(12))
        whole.addLayout(head)
        whole.addLayout(row, 1)
        self._fill("lathe", "")

    # -- the list --------------------------------------------------------

    def _fill(self, kind: str, id: str) -> None:
        """List what there is, and choose one; the first of its kind without an id."""
        self.tree.blockSignals(True)
        self.tree.clear()
        chosen = None
        groups: tuple[tuple[str, str, list[tuple[str, str]]], ...] = (
            ("Machines", "lathe", [(e.id, e.name) for e in self.file.entries("lathe")]),
            ("Pieces", "piece", [(e.id, e.name) for e in self.file.entries("piece")]),
            (
                "Instruments",
                "instrument",
                [(one.id, one.name) for one in self.file.shop().instruments],
            ),
        )
        for title, group, things in groups:
            top = QTreeWidgetItem([title])
            top.setFlags(Qt.ItemFlag.ItemIsEnabled)
            bold = self.tree.font()
            bold.setBold(True)
            top.setFont(0, bold)
            self.tree.addTopLevelItem(top)
            for thing, name in things:
                item = QTreeWidgetItem([name])
                item.setData(0, Qt.ItemDataRole.UserRole, (group, thing))
                top.addChild(item)
                if group == kind and (thing == id or not id) and chosen is None:
                    chosen = item
            top.setExpanded(True)
        self.tree.blockSignals(False)
        if chosen is not None:
            self.tree.setCurrentItem(chosen)

    def choose(self, kind: str, id: str) -> None:
        """Bring a thing into view."""
        self._fill(kind, id)

    def _on_chosen(self, item: QTreeWidgetItem | None) -> None:
        at = item.data(0, Qt.ItemDataRole.UserRole) if item else None
        if not at:
            return
        kind, id = at
        self.say("")
        if kind == "instrument":
            self._show(InstrumentCard(self, self.file.shop().instrument(id)))
            return
        thing = self.file.get(id)
        if isinstance(thing, Lathe):
            self._show(LatheCard(self, thing))
        elif isinstance(thing, Piece):
            self._show(PieceCard(self, thing))

    def _show(self, card: QWidget) -> None:
        clear_layout(self.body)
        self.body.addWidget(card)

    def say(self, text: str, wrong: bool = False) -> None:
        self.says.setText(text)
        set_ink(self.says, "stop" if wrong else "")

    # -- doing -----------------------------------------------------------

    def keep_instrument(self, one: Instrument) -> None:
        shop = with_instrument(self.file.shop(), one)
        self.file.act("shop", f"Instrument entered: {one.name}.", shop)
        self._fill("instrument", one.id)
        self.say(f"{one.name} is kept.")

    def new_instrument(self) -> None:
        self.tree.setCurrentItem(None)
        self.say("")
        self._show(InstrumentCard(self, None))

    def add_starters(self) -> None:
        """Those of the usual set that the shop does not have yet."""
        shop = self.file.shop()
        have = {one.id for one in shop.instruments}
        added = [one for one in STARTER_INSTRUMENTS if one.id not in have]
        for one in added:
            shop = with_instrument(shop, one)
        if added:
            self.file.act("shop", f"{len(added)} starter instruments added.", shop)
        self._fill("instrument", "")
        self.say(
            f"{len(added)} added; change each to what yours really does."
            if added
            else "The starter instruments are all there."
        )

    def import_from(self, path: Path) -> None:
        """Take a list of instruments in, all of it or nothing."""
        try:
            shop, count = import_instruments(self.file.shop(), path)
        except MachinonError as error:
            self.say(str(error), wrong=True)
            return
        self.file.act("shop", f"{count} instruments imported from {path.name}.", shop)
        self._fill("instrument", "")
        self.say(f"{count} instruments imported.")

    def export_to(self, path: Path) -> None:
        try:
            export_instruments(self.file.shop(), path)
        except MachinonError as error:
            self.say(str(error), wrong=True)
        else:
            self.say(f"Written: {path}")

    def _import(self) -> None:
        path, _ = QFileDialog.getOpenFileName(self, "Import instruments", "", "*.csv")
        if path:
            self.import_from(Path(path))

    def _export(self) -> None:
        path, _ = QFileDialog.getSaveFileName(
            self, "Export instruments", "instruments.csv", "*.csv"
        )
        if path:
            self.export_to(Path(path))

    def undo(self) -> None:
        """Take back the last change of the shop."""
        try:
            says = self.file.undo("shop")
        except MachinonError as error:
            self.say(str(error), wrong=True)
            return
        self._fill("instrument", "")
        self.say(f"Taken back: {says}" if says else "Nothing to take back here.")


class Card(QWidget):
    """The entries of one thing, refused and kept together."""

    def __init__(self, page: ShopPage) -> None:
        super().__init__()
        self.page = page
        self.look = page.look
        self.fields: dict[str, Field] = {}
        self.box = QVBoxLayout(self)
        self.box.setContentsMargins(0, 0, 0, 0)
        self.box.setSpacing(self.look.px(8))

    def entries(
        self, names: tuple[tuple[str, str], ...], typed: dict[str, str]
    ) -> None:
        """Entries two abreast; Enter keeps the whole card."""
        grid = QGridLayout()
        grid.setHorizontalSpacing(self.look.px(18))
        for i, (key, name) in enumerate(names):
            field = Field(name, None)
            field.put(typed.get(key, ""))
            field.taken.connect(lambda _: self.keep())
            self.fields[key] = field
            grid.addWidget(field, i // 2, i % 2, Qt.AlignmentFlag.AlignTop)
        self.box.addLayout(grid)

    def typed(self) -> dict[str, str]:
        return {key: field.text() for key, field in self.fields.items()}

    def keep(self) -> None:
        """Keep what is typed; a refusal stays at its entry."""
        for field in self.fields.values():
            field.hint("")
        try:
            self.take()
        except BadInput as error:
            if error.key in self.fields:
                self.fields[error.key].refuse(error.message)
            else:
                self.page.say(error.message, wrong=True)

    def take(self) -> None:
        raise NotImplementedError

    def foot(self, words: str) -> None:
        self.box.addStretch(1)
        self.box.addWidget(
            button(words, self.keep, "main"), 0, Qt.AlignmentFlag.AlignRight
        )


class InstrumentCard(Card):
    """An instrument: what it shows, how sure it is, what it measures."""

    def __init__(self, page: ShopPage, one: Instrument | None) -> None:
        super().__init__(page)
        self.one = one
        self.box.addWidget(label(one.name if one else "A new instrument", "head"))
        typed = typed_instrument(one) if one else {"reads": "mm"}
        self.reads = QComboBox()
        self.reads.setAccessibleName("It reads in")
        self.reads.addItem("It reads in millimetres", "mm")
        self.reads.addItem("It reads in inches", "in")
        self.reads.setCurrentIndex(self.reads.findData(typed["reads"]))
        self.entries(
            (
                ("name", "Name"),
                ("resolution", "It shows steps of"),
                ("uncertainty", "Doubt of one reading, two sigma, with its zero"),
                ("repeatability", "It repeats to, one sigma"),
                ("checked", "Last checked against what"),
            ),
            typed,
        )
        self.box.addWidget(self.reads, 0, Qt.AlignmentFlag.AlignLeft)
        self.kinds: dict[str, QCheckBox] = {}
        row = QHBoxLayout()
        row.addWidget(label("It measures", "faint"))
        for kind in KINDS:
            box = QCheckBox(KIND_WORDS[kind])
            box.setChecked(bool(one) and kind in one.suits)  # type: ignore[union-attr]
            self.kinds[kind] = box
            row.addWidget(box)
        row.addStretch(1)
        self.box.addLayout(row)
        self.box.addWidget(
            label(
                "Be honest with the doubt: read a setting ring or slip gauge ten times "
                "on different days. A dearer digit is no surer one.",
                "faint",
                wrap=True,
            )
        )
        self.foot("Keep it")

    def take(self) -> None:
        typed = {
            **self.typed(),
            "reads": self.reads.currentData(),
            "suits": ",".join(k for k, box in self.kinds.items() if box.isChecked()),
        }
        shop = self.page.file.shop()
        id = self.one.id if self.one else new_instrument_id(shop, typed["name"])
        self.page.keep_instrument(instrument_of(typed, id))


class LatheCard(Card):
    """A lathe: what the work needs to know of it."""

    def __init__(self, page: ShopPage, one: Lathe) -> None:
        super().__init__(page)
        self.one = one
        self.inch = page.file.shop().inch
        self.box.addWidget(label(one.name, "head"))
        typed = typed_lathe(one, self.inch)
        self.entries(
            (
                ("name", "Name"),
                ("centre_height", "Centre height over the bed"),
                ("between_centres", "Between centres"),
                ("swing_over_slide", "Swings over the cross slide"),
                ("speeds", "Speeds, rpm"),
                ("dial_division", "One line of the cross dial"),
                ("lead_screw", "Lead screw, pitch or 8tpi"),
                ("wheels", "Change wheels, teeth"),
            ),
            typed,
        )
        self.reads = QComboBox()
        self.reads.setAccessibleName("The cross dial counts on")
        self.reads.addItem("The cross dial counts on the diameter", "diameter")
        self.reads.addItem("The cross dial counts on the radius", "radius")
        self.reads.setCurrentIndex(self.reads.findData(one.dial_reads))
        self.box.addWidget(self.reads, 0, Qt.AlignmentFlag.AlignLeft)
        self.foot("Keep it")

    def take(self) -> None:
        typed = {**self.typed(), "dial_reads": self.reads.currentData()}
        made = lathe_of(typed, self.inch, self.one)
        self.page.file.act("shop", f"Lathe changed: {made.name}.", made)
        self.page.choose("lathe", made.id)
        self.page.say(f"{made.name} is kept; jobs on it follow.")


class PieceCard(Card):
    """A piece as its picture, and what of the shop goes with it."""

    def __init__(self, page: ShopPage, piece: Piece) -> None:
        super().__init__(page)
        self.piece = piece
        shop = page.file.shop()
        self.inch = shop.inch
        found = (page.file.get(entry.id) for entry in page.file.entries("piece"))
        pieces = [one for one in found if isinstance(one, Piece)]
        self.measured = {
            (one.id, surface.id): measure(surface, shop, one.material)
            for one in pieces
            for surface in one.surfaces
        }
        self.box.addWidget(label(f"{piece.name}, {piece.material}", "head"))
        if piece.note:
            self.box.addWidget(label(piece.note, "faint", wrap=True))
        picture = DrawingView(self.look, self._draw, f"Picture of {piece.name}")
        picture.spot_chosen.connect(self._on_surface_chosen)
        self.box.addWidget(picture, 3)
        self.box.addWidget(label("What fits on it", "head"))
        mates = mates_of(piece, pieces, self.measured)
        lines = QWidget()
        column = QVBoxLayout(lines)
        column.setContentsMargins(0, 0, 0, 0)
        for mate in mates:
            text = (
                f"{mate.surface.name}: {mate.mate.name.lower()} of {mate.piece.name} "
                f"{mate.says}, play {small_text(mate.play, self.inch)} "
                f"± {small_text(mate.doubt, self.inch)}"
            )
            column.addWidget(label(text, wrap=True))
        if not mates:
            column.addWidget(
                label(
                    "No measured diameter of another piece goes with it directly: an "
                    "adapter has to be made.",
                    "faint",
                    wrap=True,
                )
            )
        column.addStretch(1)
        self.box.addWidget(scrolled(lines), 1)

    def _draw(self, width: float, height: float, size: float) -> Drawing:
        mine = {
            surface.id: self.measured[self.piece.id, surface.id]
            for surface in self.piece.surfaces
        }
        return piece_drawing(self.piece, mine, width, height, size, self.inch)

    def _on_surface_chosen(self, id: str, _place: QRectF) -> None:
        surface = self.piece.surface(id)
        if surface is not None:
            count = sum(not one.struck for one in surface.readings)
            self.page.say(
                f"{surface.name}: {count} readings count. {surface.how} New readings "
                "are taken in the Survey of a job."
            )
