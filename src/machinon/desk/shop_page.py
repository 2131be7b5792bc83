"""The shop: machines, pieces, instruments and shelves, to be seen and changed."""

from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import Literal

from msgspec.structs import replace
from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import (
    QFileDialog,
    QHBoxLayout,
    QMenu,
    QPushButton,
    QTreeWidget,
    QTreeWidgetItem,
    QVBoxLayout,
    QWidget,
)

from machinon.core.errors import MachinonError
from machinon.core.job.job import Job
from machinon.core.reckoning import Answer
from machinon.core.shop.belongings import (
    SHELF_NAMES,
    SHELVES,
    Belongings,
    Shelf,
    StarterSet,
    starter_sets,
    with_items,
)
from machinon.core.shop.entry import with_instrument
from machinon.core.shop.machines import MACHINE_KINDS, Machine, MachineKind
from machinon.core.shop.things import (
    CHUCK_SURFACES,
    Lathe,
    Piece,
    starter_instruments,
)
from machinon.core.wording import begun
from machinon.desk.bench import Bench
from machinon.desk.daybook import WorkingWindow
from machinon.desk.machine_cards import LatheCard, MachineCard, PictureCard
from machinon.desk.open_job import OpenPiece
from machinon.desk.shop_acts import move_in_shop, read_with
from machinon.desk.shop_cards import Card, InstrumentCard, PieceCard, ShelfCard
from machinon.desk.stages.survey import SurveyView
from machinon.desk.widgets import (
    Look,
    button,
    clear_layout,
    label,
    panel,
    scrolled,
    set_ink,
)
from machinon.store.documents import Document
from machinon.store.lists import (
    export_instruments,
    export_machines,
    export_pieces,
    export_shelf,
    import_instruments,
    import_machines,
    import_pieces,
    import_shelf,
)
from machinon.store.shop_file import Damaged, ShopFile


class ShopPage(QWidget):
    """The shop's belongings at the left, the chosen thing at the right.

    Signals: left() to go back; job_wanted(piece_id: str) to make what goes with it.
    """

    left = Signal()
    job_wanted = Signal(str)
    context = "shop"  # whose acts are taken back here

    def __init__(self, look: Look, file: ShopFile) -> None:
        super().__init__()
        self.look, self.file = look, file
        self._at = ("lathe", "")
        self.card: QWidget | None = None
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
        self.done = button("Done measuring", self.end_measuring, "main")
        self.done.hide()
        head.addWidget(self.done)
        for words, menu in (
            ("New …", self.new_menu),
            ("Add a set …", self.set_menu),
            ("CSV …", self.list_menu),
        ):
            head.addWidget(self._opening(words, menu))
        head.addWidget(button("Undo", self.undo))
        head.addWidget(button("Back", self.left.emit))
        row = QHBoxLayout()
        row.addWidget(self.tree, 24)
        right = QVBoxLayout()
        right.setContentsMargins(px(18), px(12), px(18), px(10))
        right.addLayout(self.body, 1)
        right.addWidget(self.says)
        row.addWidget(panel(right, True), 76)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(px(20), px(12), px(20), px(12))
        whole.addLayout(head)
        whole.addLayout(row, 1)
        self._fill("lathe", "")

    # -- the list --------------------------------------------------------

    def _groups(self) -> tuple[tuple[str, list[tuple[str, str, str]]], ...]:
        """Everything there is, by group: kind, id and name."""

        def found(*kinds: str) -> list[tuple[str, str, str]]:
            return [(k, e.id, e.name) for k in kinds for e in self.file.entries(k)]

        instruments = self.file.shop().instruments
        return (
            ("Machines", found("lathe", "machine")),
            (
                "Instruments",
                [
                    ("instrument", instrument.id, instrument.name)
                    for instrument in instruments
                ],
            ),
            ("Shelves", [("shelf", shelf, SHELF_NAMES[shelf]) for shelf in SHELVES]),
            ("Pieces", found("piece")),
        )

    def _fill(self, kind: str, id: str) -> None:
        """List what there is, and choose one; the first of its kind without an id."""
        self.tree.blockSignals(True)
        self.tree.clear()
        chosen = None
        for title, things in self._groups():
            top = QTreeWidgetItem([title])
            top.setFlags(Qt.ItemFlag.ItemIsEnabled)
            bold = self.tree.font()
            bold.setBold(True)
            top.setFont(0, bold)
            self.tree.addTopLevelItem(top)
            for group, thing, name in things:
                item = QTreeWidgetItem([name])
                item.setData(0, Qt.ItemDataRole.UserRole, (group, thing))
                top.addChild(item)
                if group == kind and (thing == id or not id) and chosen is None:
                    chosen = item
            top.setExpanded(True)
        self.tree.blockSignals(False)
        if chosen is not None:
            self.tree.setCurrentItem(chosen)

    @property
    def at(self) -> tuple[str, str]:
        """The kind and the id of the thing that is shown."""
        return self._at

    @at.setter
    def at(self, at: tuple[str, str]) -> None:
        self._fill(*at)

    def choose(self, kind: str, id: str) -> None:
        """Bring a thing into view."""
        self._fill(kind, id)

    def shelf(self, id: Shelf) -> Belongings:
        """A shelf of the shop, empty before anything was put on it."""
        found = self.file.get(id)
        if isinstance(found, Belongings):
            return found
        return Belongings(id, SHELF_NAMES[id])

    def _on_chosen(self, item: QTreeWidgetItem | None) -> None:
        at = item.data(0, Qt.ItemDataRole.UserRole) if item else None
        if not at:
            return
        self._at = kind, id = tuple(at)
        try:
            self._show(self._card(kind, id))
        except Damaged as error:
            self.say(f"{error} The start page offers the one before.", wrong=True)

    def _card(self, kind: str, id: str) -> QWidget:
        """The card of a thing that the list names. Raises Damaged."""
        if kind == "instrument":
            return InstrumentCard(self, self.file.shop().instrument(id))
        if kind == "shelf":
            return ShelfCard(self, self.shelf(id))
        thing = self.file.get(id)
        if isinstance(thing, Lathe):
            return LatheCard(self, thing)
        if isinstance(thing, Machine):
            return MachineCard(self, thing, thing.kind)
        assert isinstance(thing, Piece)
        return PieceCard(self, thing)

    def _show(self, card: QWidget) -> None:
        self.tree.show()
        self.done.hide()
        clear_layout(self.body)
        self.card = card
        # a survey lays itself out; a card may be long
        whole = isinstance(card, SurveyView)
        self.body.addWidget(card if whole else scrolled(card))

    def stand_on(self, key: str) -> None:
        """Go on from a figure of the machine in view, for the next one."""
        if isinstance(self.card, PictureCard):
            self.card.picture.stand_on(key)

    def say(self, text: str, wrong: bool = False) -> None:
        self.says.setText(text)
        set_ink(self.says, "stop" if wrong else "")

    # -- doing -----------------------------------------------------------

    def keep(self, says: str, kind: str, id: str, *documents: Document) -> None:
        """Keep what a card made, and show it again as it now is."""
        self.file.act("shop", says, *documents)
        self._fill(kind, id)
        self.say(says)

    def _opening(self, words: str, menu: Callable[[], QMenu]) -> QPushButton:
        """A button under which a menu opens, made for what is then there."""
        opener = button(
            words,
            lambda: menu().popup(opener.mapToGlobal(opener.rect().bottomLeft())),
        )
        return opener

    def list_menu(self) -> QMenu:
        """The acts on the list of the chosen thing."""
        menu = QMenu(self)
        menu.addAction(f"Import {self._list}…", self._import)
        menu.addAction(f"Export {self._list}…", self._export)
        return menu

    def new_menu(self) -> QMenu:
        """The things that can be entered."""
        menu = QMenu(self)
        for kind in MACHINE_KINDS:
            menu.addAction(begun(kind), lambda kind=kind: self.new_machine(kind))
        menu.addAction("Lathe", self.new_lathe)
        menu.addSeparator()
        menu.addAction("Piece", self.new_piece)
        menu.addAction("Chuck", self.new_chuck)
        menu.addAction("Instrument", self.new_instrument)
        return menu

    def new_machine(self, kind: MachineKind) -> None:
        self._open_new(MachineCard(self, None, kind))

    def new_instrument(self) -> None:
        self._open_new(InstrumentCard(self, None))

    def _open_new(self, card: QWidget) -> None:
        self.tree.setCurrentItem(None)
        self._show(card)
        self._begin()

    def _begin(self) -> None:
        """Give the keys to the first entry of what was just made."""
        if isinstance(self.card, Card):
            first = next(iter(self.card.fields.values())).edit
            first.setFocus()
            first.selectAll()

    def new_lathe(self) -> None:
        """A further lathe; its nose becomes a piece when it is kept."""
        self._open_new(LatheCard(self, None))

    def new_piece(self) -> None:
        """A piece to be named and measured."""
        self._enter(Piece(self.file.new_id("piece"), "New piece", "other", "steel"))

    def new_chuck(self) -> None:
        """A chuck with what a back plate asks of it, to be named and measured."""
        id = self.file.new_id("chuck")
        self._enter(Piece(id, "New chuck", "chuck", "cast iron", CHUCK_SURFACES))

    def _enter(self, made: Piece) -> None:
        self.keep(f"Piece entered: {made.name}.", "piece", made.id, made)
        self._begin()

    def measure_piece(self, piece_id: str) -> None:
        """Take readings of a piece here, without a job."""
        job = OpenPiece(self.file, piece_id)
        bench = Bench(
            self.look,
            job,
            self._open_working,
            lambda _stage, _number: None,
            lambda _name, _given: None,
        )
        view = SurveyView(bench)
        view.more_piece.hide()
        job.changed = view.refresh
        view.refresh()
        self._show(view)
        self._at = ("piece", piece_id)
        # a survey wants the whole width
        self.tree.hide()
        self.done.show()
        view.begin()

    def end_measuring(self) -> None:
        """Goes back from measuring to the piece as it now is."""
        self._fill(*self._at)

    def _open_working(self, answer: Answer) -> None:
        WorkingWindow(self, self.look, answer).show()

    def remove(self, kind: str, id: str) -> None:
        """Take a thing out of the shop; not while something rests on it."""
        needed = self._needed_by(kind, id)
        if needed:
            self.say(f"It stays: {needed}.", wrong=True)
            return
        if kind == "instrument":
            shop = self.file.shop()
            name = shop.instrument(id).name
            kept = tuple(
                instrument for instrument in shop.instruments if instrument.id != id
            )
            self.file.act("shop", f"{name} removed.", replace(shop, instruments=kept))
        else:
            thing = self.file.get(id)
            assert thing is not None
            name = thing.name
            self.file.remove("shop", f"{name} removed.", id)
        self._fill("lathe", "")
        self.say(f"{name} removed; Undo brings it again.")

    def _needed_by(self, kind: str, id: str) -> str:
        """Things that would be left without one that they rest on; empty for none."""
        jobs = self.file.all_of(Job)
        if kind == "piece":
            job = next((job.name for job in jobs if id in job.pieces), "")
            seat = next((m.name for m in self._machines() if m.seat == id), "")
            nose = next((m.name for m in self.file.all_of(Lathe) if m.nose == id), "")
            return " and ".join(
                f"{name} has it" for name in (job, seat or nose) if name
            )
        if kind == "lathe":
            job = next((job.name for job in jobs if job.lathe == id), "")
            if job:
                return f"{job} is made on it"
            return "" if len(self.file.entries("lathe")) > 1 else "it is the only lathe"
        if kind == "instrument" and read_with(self.file, id):
            return "readings were taken with it"
        return ""

    # -- sets and lists ----------------------------------------------------

    def set_menu(self) -> QMenu:
        """Sets that are added with one action."""
        menu, inch = QMenu(self), self.file.shop().inch
        menu.addAction("The usual instruments", self.add_starters)
        others = QMenu("In millimetres" if inch else "In inches", menu)
        for part, of_inches in ((menu, inch), (others, not inch)):
            for id in SHELVES:
                part.addSeparator()
                for starter in starter_sets(id, of_inches):
                    part.addAction(starter.name, partial(self.add_set, starter))
        menu.addSeparator()
        menu.addMenu(others)
        return menu

    def add_starters(self) -> None:
        """Adds those of the usual instruments that the shop does not have yet."""
        shop = self.file.shop()
        have = {instrument.id for instrument in shop.instruments}
        added = [
            instrument
            for instrument in starter_instruments(shop.inch)
            if instrument.id not in have
        ]
        for instrument in added:
            shop = with_instrument(shop, instrument)
        if added:
            self.file.act("shop", f"{len(added)} starter instruments added.", shop)
        self._fill("instrument", "")
        self.say(
            f"{len(added)} added; change each to what yours really does."
            if added
            else "The starter instruments are all there."
        )

    def add_set(self, starter: StarterSet) -> None:
        """Put a starter set on its shelf."""
        items = starter.items()
        shelf = with_items(self.shelf(starter.shelf), items)
        self.keep(f"{starter.name}: {len(items)} added.", "shelf", starter.shelf, shelf)

    @property
    def _list(self) -> str:
        """The list that import and export speak of: that of the chosen thing."""
        kind, id = self._at
        return {"lathe": "machines", "machine": "machines", "piece": "pieces"}.get(
            kind, id if kind == "shelf" else "instruments"
        )

    def import_from(self, path: Path) -> None:
        """Take a list in, all of it or nothing; which one, the chosen thing says."""
        name = self._list
        try:
            documents: tuple[Document, ...]
            if name == "instruments":
                shop, count = import_instruments(self.file.shop(), path)
                documents = (shop,)
            elif name == "machines":
                documents, count = import_machines(
                    self._all_machines(), path, self.file.new_id
                )
            elif name == "pieces":
                documents, count = import_pieces(
                    self._pieces(), self.file.shop(), path, self.file.new_id
                )
            else:
                shelf, count = import_shelf(self.shelf(self._at[1]), path)  # type: ignore[arg-type]
                documents = (shelf,)
        except MachinonError as error:
            self.say(str(error), wrong=True)
            return
        if not documents:
            self.say(f"Nothing in {path.name} is new.")
            return
        self.file.act("shop", f"{count} {name} imported from {path.name}.", *documents)
        self._fill(*self._at)
        self.say(f"{count} imported from {path.name}.")

    def export_to(self, path: Path) -> None:
        """Write the list of the chosen thing."""
        name = self._list
        try:
            if name == "instruments":
                export_instruments(self.file.shop(), path)
            elif name == "machines":
                export_machines(self._all_machines(), path)
            elif name == "pieces":
                export_pieces(
                    self._pieces(),
                    {
                        instrument.id: instrument.name
                        for instrument in self.file.shop().instruments
                    },
                    path,
                )
            else:
                export_shelf(self.shelf(self._at[1]), path)  # type: ignore[arg-type]
        except MachinonError as error:
            self.say(str(error), wrong=True)
        else:
            self.say(f"Written: {path}")

    def _machines(self) -> list[Machine]:
        return self.file.all_of(Machine)

    def _all_machines(self) -> list[Machine | Lathe]:
        return [*self.file.all_of(Lathe), *self._machines()]

    def _pieces(self) -> list[Piece]:
        return self.file.all_of(Piece)

    def _import(self) -> None:
        path, _ = QFileDialog.getOpenFileName(self, f"Import {self._list}", "", "*.csv")
        if path:
            self.import_from(Path(path))

    def _export(self) -> None:
        path, _ = QFileDialog.getSaveFileName(
            self, f"Export {self._list}", f"{self._list}.csv", "*.csv"
        )
        if path:
            self.export_to(Path(path))

    def undo(self) -> None:
        """Undo the last change of the shop."""
        self._move("undo", "Undone")

    def redo(self) -> None:
        """Do again what was taken back last."""
        self._move("redo", "Redone")

    def _move(self, which: Literal["undo", "redo"], done: str) -> None:
        try:
            says = move_in_shop(self.file, which)
        except MachinonError as error:
            self.say(str(error), wrong=True)
            return
        kind, id = self._at
        gone = kind not in ("instrument", "shelf") and self.file.get(id) is None
        if self.tree.isHidden() and not gone:
            self.measure_piece(id)  # still measuring, with one reading less
        else:
            self._fill("lathe" if gone else kind, "" if gone else id)
        self.say(f"{done}: {says}" if says else "Nothing to undo here.")
