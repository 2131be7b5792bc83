"""The things of the shop as cards: entries that are refused and kept together."""

import time
from collections.abc import Callable
from typing import Protocol

from msgspec.structs import replace
from PySide6.QtCore import QRectF, Qt, QTimer, SignalInstance
from PySide6.QtWidgets import (
    QCheckBox,
    QHBoxLayout,
    QTreeWidget,
    QTreeWidgetItem,
    QVBoxLayout,
    QWidget,
)

from machinon.core.errors import BadInput
from machinon.core.families import family_for
from machinon.core.materials import material as material_named
from machinon.core.quantity import length_text, small_text
from machinon.core.shop.belongings import (
    Belongings,
    Item,
    item_forms,
    item_of,
    typed_item,
    with_items,
    without_item,
)
from machinon.core.shop.entry import (
    KIND_WORDS,
    KINDS,
    bare,
    instrument_of,
    remark,
    typed_instrument,
    with_instrument,
    words,
)
from machinon.core.shop.things import Instrument, Piece, Runs
from machinon.core.survey.mating import links_of, mates_of
from machinon.core.survey.measuring import Measured, measure
from machinon.core.survey.run_history import runs_said, turn_of
from machinon.core.wording import begun, within
from machinon.desk.narrow import Abreast, Combo
from machinon.desk.widgets import DrawingView, Field, Look, button, label, scrolled
from machinon.draw.drawing import Drawing
from machinon.draw.piece_drawing import piece_drawing
from machinon.store.documents import Document
from machinon.store.lists import new_instrument_id
from machinon.store.shop_file import ShopFile, local_time


class Page(Protocol):
    """The services that a card needs of its page."""

    look: Look
    file: ShopFile
    job_wanted: SignalInstance

    def say(self, text: str, wrong: bool = False) -> None: ...

    def keep(self, says: str, kind: str, id: str, *documents: Document) -> None: ...

    def measure_piece(self, piece_id: str) -> None: ...

    def choose(self, kind: str, id: str) -> None: ...

    def stand_on(self, key: str) -> None: ...

    def remove(self, kind: str, id: str) -> None: ...


class Card(QWidget):
    """The entries of one thing, refused and kept together."""

    def __init__(self, page: Page) -> None:
        super().__init__()
        self.page = page
        page.say("")  # what was said of another card
        self.look = page.look
        self.fields: dict[str, Field] = {}
        self.box = QVBoxLayout(self)
        self.box.setContentsMargins(0, 0, 0, 0)
        self.box.setSpacing(self.look.px(8))

    def entries(
        self,
        names: tuple[tuple[str, str], ...],
        typed: dict[str, str],
        abreast: int = 2,
        hints: dict[str, str] | None = None,
    ) -> None:
        """Entries abreast, as far as there is room; Enter keeps the whole card."""
        fields = [
            self.entry(key, name, typed.get(key, ""), (hints or {}).get(key, ""))
            for key, name in names
        ]
        whole = Abreast(abreast, *fields, held=Qt.AlignmentFlag.AlignBottom)
        whole.grid.setHorizontalSpacing(self.look.px(18))
        self.box.addWidget(whole)

    def entry(self, key: str, name: str, typed: str = "", hint: str = "") -> Field:
        """One entry, which has yet to be placed."""
        field = Field(name, None, placeholder=hint)
        field.put(typed)
        field.taken.connect(lambda _: self.keep())
        self.fields[key] = field
        return field

    def typed(self) -> dict[str, str]:
        return {key: field.text() for key, field in self.fields.items()}

    def keep(self) -> None:
        """Keep what is typed; a refusal stays at its entry."""
        for field in self.fields.values():
            field.accept()
        try:
            self.take()
        except BadInput as error:
            if error.key in self.fields:
                self.fields[error.key].refuse(error.message)
            else:
                self.page.say(error.message, wrong=True)

    def take(self) -> None:
        raise NotImplementedError

    def foot(self, words: str, *more: tuple[str, Callable[[], object]]) -> None:
        """The acts on the card: keep it, and others."""
        row = QHBoxLayout()
        row.addStretch(1)
        for text, act in more:
            row.addWidget(button(text, act))
        self.keeper = button(words, self.keep, "main")
        row.addWidget(self.keeper)
        self.box.addLayout(row)


class InstrumentCard(Card):
    """An instrument: what it shows, how sure it is, what it measures."""

    def __init__(self, page: Page, instrument: Instrument | None) -> None:
        super().__init__(page)
        self.instrument = instrument
        self.box.addWidget(
            label(instrument.name if instrument else "A new instrument", "head")
        )
        typed = typed_instrument(instrument) if instrument else {"reads": "mm"}
        self.reads = Combo()
        self.reads.setAccessibleName("It reads in")
        self.reads.addItem("It reads in millimetres", "mm")
        self.reads.addItem("It reads in inches", "in")
        self.reads.setCurrentIndex(self.reads.findData(typed["reads"]))
        self.entries(
            (
                ("name", "Name"),
                ("resolution", "Resolution"),
                ("uncertainty", "Uncertainty of one reading (2 sigma), with its zero"),
                ("repeatability", "It repeats to, one sigma"),
                ("checked", "Last checked against what"),
                ("least", "It measures from (may be empty)"),
                ("most", "to"),
            ),
            typed,
        )
        self.box.addWidget(self.reads, 0, Qt.AlignmentFlag.AlignLeft)
        self.kinds: dict[str, QCheckBox] = {}
        self.box.addWidget(label("It measures", "faint"))
        for kind in KINDS:
            box = QCheckBox(KIND_WORDS[kind])
            box.setChecked(bool(instrument) and kind in instrument.suits)  # type: ignore[union-attr]
            self.kinds[kind] = box
        left = Qt.AlignmentFlag.AlignLeft
        self.box.addWidget(Abreast(4, *self.kinds.values(), held=left))
        self.box.addWidget(
            label(
                "Be honest about the uncertainty: read a setting ring or slip gauge "
                "ten times on different days. One more digit on the display does not "
                "make it more accurate.",
                "faint",
                wrap=True,
            )
        )
        self.box.addStretch(1)
        more = ()
        if instrument:
            more = (("Remove it", lambda: page.remove("instrument", instrument.id)),)
        self.foot("Keep it", *more)

    def take(self) -> None:
        typed = {
            **self.typed(),
            "reads": self.reads.currentData(),
            "suits": ",".join(k for k, box in self.kinds.items() if box.isChecked()),
        }
        shop = self.page.file.shop()
        id = (
            self.instrument.id
            if self.instrument
            else new_instrument_id(shop, typed["name"])
        )
        made = instrument_of(typed, id)
        self.page.keep(
            f"Instrument entered: {made.name}.",
            "instrument",
            id,
            with_instrument(shop, made),
        )


MOMENT = 0.05  # s that the window may wait while the shop is looked through


class PieceCard(Card):
    """A piece as its picture, and what of the shop goes with it."""

    def __init__(self, page: Page, piece: Piece) -> None:
        super().__init__(page)
        self.piece = piece
        self.shop = page.file.shop()
        self.inch = self.shop.inch
        self.pieces: list[Piece] = []
        self.measured: dict[tuple[str, str], Measured | None] = {}
        self._take_in(piece)
        known = [e.id for e in page.file.entries("piece") if e.id != piece.id]
        self._to_see = known[::-1]  # the one touched last is seen first
        self.box.addWidget(label(f"{piece.name}, {piece.material}", "head"))
        picture = DrawingView(
            self.look, self._draw, f"Picture of {piece.name}", shrinks=True
        )
        picture.setMinimumHeight(self.look.px(170))
        picture.spot_chosen.connect(self._on_surface_chosen)
        self.box.addWidget(picture, 3)
        head = QHBoxLayout()
        head.addWidget(label("What fits on it", "head"), 1)
        head.addWidget(
            button("Make something for it", lambda: page.job_wanted.emit(piece.id))
        )
        self.box.addLayout(head)
        self.fits = label("", wrap=True)
        self.fits.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.box.addWidget(scrolled(self.fits), 1)
        names = [("name", "Name"), ("material", "Material"), ("note", "Note")]
        if self._turns():
            said = runs_said(piece.runs, self.inch)
            self.box.addWidget(
                label(said or "Its run-out was not read yet.", wrap=True)
            )
            names.append(("runs", "Its run-out read again, round a turn"))
        self.entries(
            tuple(names),
            {"name": piece.name, "material": piece.material, "note": piece.note},
            abreast=len(names),
            hints={"runs": "0.002 0.004 0.001 -0.002"},
        )
        self.foot(
            "Keep it",
            ("Remove it", lambda: page.remove("piece", piece.id)),
            ("Measure it", lambda: page.measure_piece(piece.id)),
        )
        self._more = QTimer(self, interval=0)
        self._more.timeout.connect(self._look_further)
        self._more.start()
        self._look_further()

    def _take_in(self, piece: Piece) -> None:
        """Keep what a piece measures; its readings are not needed any more."""
        for surface in piece.surfaces:
            found = measure(surface, self.shop, piece.material)
            self.measured[piece.id, surface.id] = found
        bare = tuple(replace(surface, readings=()) for surface in piece.surfaces)
        self.pieces.append(replace(piece, surfaces=bare))

    def _look_further(self) -> None:
        """Go on through the pieces of the shop, a moment at a time."""
        until = time.monotonic() + MOMENT
        while self._to_see and time.monotonic() < until:
            piece = self.page.file.get(self._to_see.pop())
            if isinstance(piece, Piece):
                self._take_in(piece)
        if self._to_see:
            self.fits.setText(f"Looking through the shop, {len(self._to_see)} to go …")
            return
        self._more.stop()
        self.fits.setText("\n".join(self._what_fits(self.pieces)))

    def _what_fits(self, pieces: list[Piece]) -> list[str]:
        """Lists the pieces that go with it, directly or with a part between."""
        found = [
            f"{mate.surface.name}: {within(mate.mate.name)} of {mate.piece.name} "
            f"{mate.says}, play {small_text(mate.play, self.inch)} "
            f"± {small_text(mate.doubt, self.inch)}"
            for mate in mates_of(self.piece, pieces, self.measured)
        ]
        links = links_of(self.piece, pieces, self.measured)
        found = [
            f"{link.piece.name} {link.says}" for link in links if link.direct
        ] + found
        found += [f"{link.piece.name} {link.says}" for link in links if not link.direct]
        return found or [
            "Nothing that is measured goes on it, not with a back plate or a sleeve "
            "between either: an adapter has to be made."
        ]

    def _turns(self) -> bool:
        """Whether its run-out is read, again and again."""
        making = self.piece.making
        runs = making is not None and family_for(making).runs
        return runs or bool(self.piece.runs) or self.piece.role != "other"

    def take(self) -> None:
        typed = self.typed()
        runs = self.piece.runs
        if typed.get("runs", "").strip():
            turn = turn_of(typed["runs"], self.inch)
            runs = (*runs, Runs(turn, local_time()))
        made = replace(
            self.piece,
            runs=runs,
            name=words(typed, "name", "what the piece is"),
            material=material_named(typed["material"].strip(), "material").name,
            note=remark(typed),
        )
        self.page.keep(f"Piece changed: {made.name}.", "piece", made.id, made)

    def _draw(self, width: float, height: float, size: float) -> Drawing:
        mine = {
            surface.id: self.measured[self.piece.id, surface.id]
            for surface in self.piece.surfaces
        }
        return piece_drawing(self.piece, mine, width, height, size, self.inch)

    def _on_surface_chosen(self, id: str, _place: QRectF) -> None:
        surface = self.piece.surface(id)
        if surface is not None:
            count = sum(not reading.struck for reading in surface.readings)
            self.page.say(f"{surface.name}: {count} readings count. {surface.how}")


class ShelfCard(Card):
    """A shelf as a list; the item that is chosen, or a new one, is typed below."""

    def __init__(self, page: Page, shelf: Belongings) -> None:
        super().__init__(page)
        self.shelf = shelf
        self.inch = page.file.shop().inch
        self.chosen: Item | None = None
        self.box.addWidget(label(f"{shelf.name}: {len(shelf.items)}", "head"))
        self.find = Field("Find on this shelf", None)
        self.find.edit.textChanged.connect(lambda _: self._fill())
        self.box.addWidget(self.find)
        self.list = QTreeWidget()
        self.list.setHeaderLabels(
            ["Kind", "Name", "Size", "Second", "Length", "Count", "Material, note"]
        )
        self.list.setRootIsDecorated(False)
        self.list.setUniformRowHeights(True)
        self.list.setAccessibleName(shelf.name)
        self.list.setMinimumHeight(self.look.px(150))
        for column, width in enumerate((120, 230, 100, 90, 90, 60)):
            self.list.setColumnWidth(column, self.look.px(width))
        self.list.currentItemChanged.connect(lambda item, _: self._on_chosen(item))
        self.box.addWidget(self.list, 1)
        self.kind = Combo()
        self.kind.setAccessibleName("Kind")
        for form in item_forms(shelf.id).values():
            self.kind.addItem(form.kind, form.kind)
        self.kind.currentIndexChanged.connect(lambda _: self._name_sizes())
        self.box.addWidget(self.kind, 0, Qt.AlignmentFlag.AlignLeft)
        row = [self.entry("name", "Name", hint="by its size")]
        for key in ("size", "second", "length", "count", "material", "note"):
            row.append(self.entry(key, key.capitalize()))
        for field in row:
            field.setMinimumWidth(self.look.px(96))
        self.box.addWidget(Abreast(len(row), *row, held=Qt.AlignmentFlag.AlignBottom))
        self.foot("Keep it", ("New item", self.clear), ("Remove it", self.remove))
        self._fill()
        self._name_sizes()

    def _fill(self) -> None:
        wanted = self.find.text().strip().lower()
        self.list.blockSignals(True)
        self.list.clear()
        rows = []
        for item in self.shelf.items:
            if wanted and wanted not in f"{item.kind} {item.name} {item.note}".lower():
                continue
            sizes = [
                _shown(value, self.inch) if value else ""
                for value in (item.size, item.second, item.length)
            ]
            told = ", ".join(part for part in (item.material, item.note) if part)
            row = QTreeWidgetItem([item.kind, item.name, *sizes, str(item.count), told])
            row.setData(0, Qt.ItemDataRole.UserRole, item)
            rows.append(row)
        self.list.addTopLevelItems(rows)
        self.list.blockSignals(False)

    def _on_chosen(self, item: QTreeWidgetItem | None) -> None:
        owned = item.data(0, Qt.ItemDataRole.UserRole) if item else None
        if owned is None:
            return
        self.chosen = owned
        self.kind.setCurrentIndex(self.kind.findData(owned.kind))
        for key, text in typed_item(owned, self.inch).items():
            if key in self.fields:
                self.fields[key].put(text)
                self.fields[key].accept()

    def _name_sizes(self) -> None:
        """Each entry says what it is of that kind; what it has not is shut."""
        form = item_forms(self.shelf.id)[self.kind.currentData()]
        for key in ("size", "second", "length"):
            name = getattr(form, key)
            self.fields[key].name.setText(begun(name) or "–")
            self.fields[key].edit.setEnabled(bool(name))
            if not name:
                self.fields[key].put("")

    def clear(self) -> None:
        """Empty entries for a new item."""
        self.chosen = None
        self.list.setCurrentItem(None)
        for field in self.fields.values():
            field.clear()
        self.fields["size"].edit.setFocus()

    def remove(self) -> None:
        if self.chosen is None:
            self.page.say("Choose an item of the list first.", wrong=True)
            return
        self.page.keep(
            f"{self.shelf.name}: {self.chosen.name} removed.",
            "shelf",
            self.shelf.id,
            without_item(self.shelf, self.chosen),
        )

    def take(self) -> None:
        typed = {**self.typed(), "kind": self.kind.currentData()}
        made = item_of(typed, self.shelf.id, self.inch)
        shelf = self.shelf
        if self.chosen is not None:
            shelf = without_item(shelf, self.chosen)
        self.page.keep(
            f"{self.shelf.name}: {made.name} kept.",
            "shelf",
            self.shelf.id,
            with_items(shelf, (made,)),
        )


def _shown(size: float, inch: bool) -> str:
    """A size in a list, no longer than it has to be."""
    if inch:
        return length_text(size, 0.001, True)
    return f"{bare(round(size, 4), False)} mm"
