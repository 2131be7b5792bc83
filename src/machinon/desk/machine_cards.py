"""Machines as cards: a picture whose figures are changed where they stand."""

from collections.abc import Callable

from msgspec.structs import replace
from PySide6.QtCore import QRectF, Qt
from PySide6.QtWidgets import QVBoxLayout, QWidget

from machinon.core.errors import BadInput
from machinon.core.shop.entry import NO_LATHE, lathe_of, typed_lathe, with_nose
from machinon.core.shop.machines import (
    LATHE_ENTRIES,
    Machine,
    MachineFigure,
    MachineKind,
    figure_forms,
    lathe_figures,
    machine_of,
    read_figures,
    shown_figures,
)
from machinon.core.shop.things import Lathe, Piece
from machinon.desk.narrow import Combo
from machinon.desk.shop_cards import Card, Page
from machinon.desk.size_edit import SizeEdit
from machinon.desk.widgets import ROOMY, DrawingView, label
from machinon.draw.drawing import Drawing
from machinon.draw.machine_drawing import machine_drawing

SEAT = "seat"  # tie of the piece that is a machine's nose, spindle or table


class PictureCard(Card):
    """A machine as its picture, whose figures are changed where they stand.

    The same figures can be typed in a list, as those of a new machine are.
    """

    def __init__(self, page: Page, head: str, known: bool, seat: str) -> None:
        """seat: the id of the piece that is its nose, spindle or table, if any."""
        super().__init__(page)
        self.inch = page.file.shop().inch
        self._key = ""
        self.known = known
        found = page.file.get(seat) if seat else None
        self.seat = found if isinstance(found, Piece) else None
        self.box.addWidget(label(head, "head"))
        self.picture = DrawingView(
            self.look, self.draw, f"Picture of {head}", shrinks=True
        )
        # its figures shrink with it rather than being cut off
        least = 280 if self.look.scale < ROOMY else 215
        self.picture.setMinimumHeight(self.look.px(least if known else 150))
        self.picture.spot_chosen.connect(self.begin_edit)
        self.edit = SizeEdit(self.picture, self.look)
        self.edit.setAccessibleName("Figure")
        self.edit.returnPressed.connect(self._on_entered)
        self.box.addWidget(self.picture, 1)
        self.list = QWidget()
        self.box.addWidget(self.list)
        self.list.setVisible(not known)
        # the entries that follow go into the list
        self.whole, self.box = self.box, QVBoxLayout(self.list)
        self.box.setContentsMargins(0, 0, 0, 0)

    def figures(self) -> dict[str, MachineFigure]:
        """The figures of the picture, by the key of their entry."""
        raise NotImplementedError

    def kind(self) -> str:
        """The kind of machine that the picture is of."""
        raise NotImplementedError

    def draw(self, width: float, height: float, size: float) -> Drawing:
        shown = self.figures() if self.known else {}
        if self.seat is not None:
            shown[SEAT] = MachineFigure("a measured piece", self.seat.name)
        return machine_drawing(self.kind(), shown, width, height, size)

    def begin_edit(self, key: str, place: QRectF | None = None) -> None:
        """Open the entry on a figure of the picture, or the piece it speaks of."""
        if key == SEAT and self.seat is not None:
            self.page.choose("piece", self.seat.id)
            return
        self._key = key
        field = self.fields[key]
        place = place or self.picture.rect_of(key)
        text = field.text()
        self.edit.open_over(place, text, self.look.px(14) * len(text))
        hint = field.edit.placeholderText()
        such = f", such as {hint}" if hint and not text else ""
        self.page.say(f"{self.figures()[key].name}: type it{such}, then Enter.")

    def _on_entered(self) -> None:
        field = self.fields[self._key]
        before = field.text()
        field.put(self.edit.text())
        try:
            self.take()
        except BadInput as error:
            field.put(before)
            self.edit.refuse()
            self.page.say(error.message, wrong=True)
        else:
            self.page.stand_on(self._key)

    def show_list(self) -> None:
        """Every entry in a list, and back to the picture alone."""
        self.list.setVisible(self.list.isHidden())
        self.keeper.setVisible(not self.list.isHidden())

    def feet(self, *more: tuple[str, Callable[[], object]]) -> None:
        """The acts on the machine; the list opens for one that is known."""
        if self.known:
            more = (("As a list", self.show_list), *more)
        self.box = self.whole
        self.foot("Keep it", *more)
        self.keeper.setVisible(not self.known)
        self.page.say(
            "Choose a figure in the picture, type, and Enter keeps it."
            if self.known
            else "Enter, or Keep it, keeps all of it; what is not known yet can wait."
        )


class LatheCard(PictureCard):
    """A lathe as its picture, and what the work needs to know of it."""

    def __init__(self, page: Page, lathe: Lathe | None) -> None:
        self.machine = lathe or NO_LATHE
        machine, forms = self.machine, figure_forms("lathe")
        super().__init__(page, machine.name or "A new lathe", bool(lathe), machine.nose)
        typed = typed_lathe(machine, self.inch) if lathe else {}
        for form in forms:
            typed[form.key] = form.typed(machine.figures.get(form.key, ""), self.inch)
        self.entries(
            (*LATHE_ENTRIES, *((form.key, form.name) for form in forms)),
            typed,
            abreast=4,
            hints={form.key: form.hint for form in forms},
        )
        self.reads = Combo()
        self.reads.setAccessibleName("The cross dial counts on")
        self.reads.addItem("The cross dial counts on the diameter", "diameter")
        self.reads.addItem("The cross dial counts on the radius", "radius")
        self.reads.setCurrentIndex(self.reads.findData(machine.dial_reads))
        self.box.addWidget(self.reads, 0, Qt.AlignmentFlag.AlignLeft)
        more: tuple[tuple[str, Callable[[], object]], ...] = ()
        if machine.nose and isinstance(page.file.get(machine.nose), Piece):
            more = (
                ("Remove it", lambda: page.remove("lathe", machine.id)),
                ("Measure its nose", lambda: page.measure_piece(machine.nose)),
            )
        self.feet(*more)

    def kind(self) -> str:
        return "lathe"

    def figures(self) -> dict[str, MachineFigure]:
        return lathe_figures(self.machine, self.inch)

    def take(self) -> None:
        typed = {**self.typed(), "dial_reads": self.reads.currentData()}
        made = replace(
            lathe_of(typed, self.inch, self.machine),
            figures=read_figures("lathe", typed, self.inch),
        )
        if self.known:
            self.page.keep(f"Lathe changed: {made.name}.", "lathe", made.id, made)
            return
        nose, made = with_nose(made, self.page.file.new_id)
        self.page.keep(f"Lathe entered: {made.name}.", "lathe", made.id, nose, made)


class MachineCard(PictureCard):
    """A machine as its picture, and the figures that the work asks of it."""

    def __init__(self, page: Page, machine: Machine | None, kind: MachineKind) -> None:
        self.machine, self._kind = machine, kind
        name, seat = (machine.name, machine.seat) if machine else (f"A new {kind}", "")
        super().__init__(page, name, machine is not None, seat)
        typed = {
            "name": machine.name if machine else "",
            "note": machine.note if machine else "",
        }
        forms = figure_forms(kind)
        for form in forms:
            kept = machine.figures.get(form.key, "") if machine else ""
            typed[form.key] = form.typed(kept, self.inch)
        self.entries(
            (("name", "Name"), *((f.key, f.name) for f in forms), ("note", "Note")),
            typed,
            abreast=4,
            hints={f.key: f.hint for f in forms},
        )
        more: tuple[tuple[str, Callable[[], object]], ...] = (
            ("Measure its seat", self.measure_seat),
        )
        if machine:
            more = (("Remove it", lambda: page.remove("machine", machine.id)), *more)
        self.feet(*more)

    def kind(self) -> str:
        return self._kind

    def figures(self) -> dict[str, MachineFigure]:
        kept = self.machine.figures if self.machine else {}
        return shown_figures(self._kind, kept, self.inch)

    def take(self) -> None:
        typed = self.typed()
        file = self.page.file
        id = (
            self.machine.id
            if self.machine
            else file.new_id(typed["name"] or self._kind)
        )
        seat = self.machine.seat if self.machine else ""
        made = machine_of(typed, self._kind, id, self.inch, seat)
        self.page.keep(f"Machine entered: {made.name}.", "machine", made.id, made)

    def measure_seat(self) -> None:
        """The spindle or table as a piece of its own, to be measured."""
        if self.machine is None:
            self.page.say("Keep the machine first, then measure its seat.", wrong=True)
            return
        if not self.machine.seat:
            name = f"{self.machine.name}: seat"
            piece = Piece(self.page.file.new_id(name), name, "other", "steel")
            kept = replace(self.machine, seat=piece.id)
            self.page.file.act("shop", f"To be measured: {name}.", piece, kept)
            self.machine = kept
        self.page.measure_piece(self.machine.seat)
