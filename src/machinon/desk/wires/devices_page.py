"""Devices: what is on a wire, what it sends and what was understood of it."""

from collections.abc import Callable

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from machinon.core.errors import BadInput
from machinon.core.quantity import length_text
from machinon.core.shop.things import Shop
from machinon.desk.narrow import Abreast, Combo, narrow_combo
from machinon.desk.widgets import (
    Field,
    Look,
    button,
    clear_layout,
    label,
    panel,
    scrolled,
    set_ink,
)
from machinon.desk.wires.hub import Hub
from machinon.devices.device import ASKED, PARITIES, RATES, Device, device_of
from machinon.devices.line_form import (
    FORMS,
    LineForm,
    NotUnderstood,
    axes_told,
)
from machinon.devices.stand_in import Misbehaving, StandIn
from machinon.devices.teaching import LinePart, parts_of, taught

SHOWN = 14  # lines
FAULTS = {
    "it behaves": Misbehaving(),
    "it drops out now and then": Misbehaving(drop=6.0),
    "a third of its lines is damaged": Misbehaving(garble=0.3),
    "it floods: 2000 lines a second": Misbehaving(flood=2000.0),
    "it creeps by a hundredth a minute": Misbehaving(drift=0.01),
}
KINDS = {
    "gauge": "a gauge: each line is a reading",
    "readout": "a read-out: its last line counts",
}
IS = {
    "": "–", "value": "the value", "x": "X", "y": "Y", "z": "Z", "unit": "its unit",
    "axis": "the axis",
}  # fmt: skip


class DevicesPage(QWidget):
    """Signals: left(). keep: keeps the devices that there are."""

    left = Signal()

    def __init__(
        self, look: Look, hub: Hub, shop: Shop, keep: Callable[[list[Device]], None]
    ) -> None:
        super().__init__()
        self.look, self.hub, self._keep = look, hub, keep
        self._at = next(iter(hub.on_wire), "")
        px = look.px
        head = QHBoxLayout()
        head.addWidget(button("‹ Jobs and shop", self.left.emit, "link"))
        head.addWidget(label("Devices on a wire", "title"), 1)
        self.list = QVBoxLayout()
        listed = QWidget()
        listed.setLayout(self.list)
        column = QVBoxLayout()
        column.setContentsMargins(px(14), px(10), px(14), px(10))
        column.addWidget(scrolled(listed), 1)
        self.tries = Abreast(
            2,
            button("Simulated gauge", lambda: self.simulate("gauge")),
            button("Simulated read-out", lambda: self.simulate("readout")),
        )
        column.addWidget(label("To try it with nothing plugged in", "faint", wrap=True))
        self.fault = narrow_combo("How the simulated wire behaves")
        for words, fault in FAULTS.items():
            self.fault.addItem(words, fault)
        column.addWidget(self.fault)
        column.addWidget(self.tries)
        middle = QVBoxLayout()
        middle.setContentsMargins(px(14), px(10), px(14), px(10))
        self.state = label("", "head", wrap=True)
        middle.addWidget(self.state)
        self.lines = QVBoxLayout()
        self.lines.setSpacing(px(2))
        raw = QWidget()
        raw.setLayout(self.lines)
        middle.addWidget(scrolled(raw), 1)
        self.teaching = QVBoxLayout()
        middle.addLayout(self.teaching)
        self.says = label("", "", "stop", wrap=True)
        self.press = button("Press its button", self._press)
        self.move = Field("Move it: X 12.5 Y -3", None)
        self.move.taken.connect(self._move)
        self.teach = button("Teach it from the last line", self._teach)
        self.forget = button("Stop listening to it", self._forget)
        middle.addWidget(self.says)
        middle.addWidget(self.move)
        middle.addWidget(Abreast(2, self.teach, self.forget, self.press))
        whole = QHBoxLayout()
        whole.addWidget(panel(column, True), 30)
        whole.addWidget(panel(middle, True), 40)
        whole.addWidget(panel(self._form(shop), True), 30)
        page = QVBoxLayout(self)
        page.setContentsMargins(px(12), px(6), px(12), px(8))
        page.addLayout(head)
        page.addLayout(whole, 1)
        self._ticking = QTimer(self, interval=200)
        self._ticking.timeout.connect(self._show_lines)
        self._ticking.start()
        self.parts: list[LinePart] = []
        self.chosen: dict[int, Combo] = {}
        self._taught_line = ""
        hub.changed.connect(self.refresh)
        self.refresh()

    def _form(self, shop: Shop) -> QVBoxLayout:
        px = self.look.px
        column = QVBoxLayout()
        column.setContentsMargins(px(14), px(10), px(14), px(10))
        column.addWidget(label("Add one", "head"))
        self.kind = narrow_combo("What it is")
        self.form = narrow_combo("Form of its lines")
        self.rate, self.parity = narrow_combo("Rate"), narrow_combo("Parity")
        self.unit, self.instrument = narrow_combo("Unit"), narrow_combo("Instrument")
        self.name = Field("Name", None)
        self.port = Field("Where: /dev/ttyUSB0 or socket://HOST:PORT", None)
        self.ask = Field("What asks it for a figure; empty: it sends by itself", None)
        self.every = narrow_combo("How often it is asked")
        for seconds, words in ASKED.items():
            self.every.addItem(f"asked {words}", seconds)
        self.every.setCurrentIndex(self.every.findData(0.2))
        self.every.hide()
        self.ask.edit.textChanged.connect(
            lambda text: self.every.setVisible(bool(text.strip()))
        )
        self.axes = Field("Axes called or counted otherwise: A=X, B=-Y", None)
        for key, words in KINDS.items():
            self.kind.addItem(words, key)
        for key, form in FORMS.items():
            self.form.addItem(form.name, key)
        for rate in RATES:
            self.rate.addItem(f"{rate} baud", rate)
        self.rate.setCurrentIndex(self.rate.findData(9600))
        for key, words in PARITIES.items():
            self.parity.addItem(f"parity {words}", key)
        for key, words in (("mm", "figures are mm"), ("in", "figures are inches")):
            self.unit.addItem(words, key)
        self.instrument.addItem("no instrument of the shop", "")
        for gauge in shop.instruments:
            self.instrument.addItem(gauge.name, gauge.id)
        self.add = button("Listen to it", self.add_one, "main")
        inside = QWidget()
        fields = QVBoxLayout(inside)
        fields.setContentsMargins(0, 0, px(6), 0)
        line = Abreast(2, self.rate, self.parity)
        top = (self.name, self.kind, self.port, self.form, self.unit)
        for form in (*top, line, self.axes, self.ask, self.every, self.instrument):
            fields.addWidget(form)
        fields.addStretch(1)
        column.addWidget(scrolled(inside), 1)
        column.addWidget(self.add)
        return column

    # -- showing -----------------------------------------------------------

    def refresh(self) -> None:
        """The devices there are, and the state of the one at hand."""
        ids = list(self.hub.on_wire)
        if self._at not in ids:
            self._at = ids[0] if ids else ""
        named = [
            (device.device.id, device.device.name)
            for device in self.hub.on_wire.values()
        ]
        if getattr(self, "_listed", None) != (named, self._at):
            self._listed = (named, self._at)
            clear_layout(self.list)
            for id, name in named:
                tile = button(name, lambda id=id: self._choose(id))
                tile.setCheckable(True)
                tile.setChecked(id == self._at)
                self.list.addWidget(tile)
            if not named:
                words = (
                    "Nothing is on a wire yet. A gauge or a read-out that is plugged "
                    "in enters its figures by itself, so that none is typed wrong. "
                    "Gauges that type like a keyboard need nothing here."
                )
                self.list.addWidget(label(words, "", wrap=True))
            self.list.addStretch(1)
        on = self.hub.on_wire.get(self._at)
        for widget in (self.teach, self.forget):
            widget.setVisible(on is not None)
        simulated = self._at in self.hub.stand_ins and on is not None
        gauge = on is not None and on.device.kind == "gauge"
        self.press.setVisible(simulated and gauge)
        self.move.setVisible(simulated and not gauge)
        if on is None:
            self.state.setText("")
            return
        self.state.setText(f"{on.device.port}: {on.says}")
        set_ink(self.state, "stop" if on.stale(self.hub.now()) else "measured")

    def _choose(self, id: str) -> None:
        self._at = id
        self._end_teaching()
        self.refresh()
        self._show_lines()

    def _show_lines(self) -> None:
        """The last lines as they came, with what was understood."""
        on = self.hub.on_wire.get(self._at)
        told = on.link.lines[-SHOWN:] if on else []
        if getattr(self, "_told", None) == told:
            return
        self._told = told
        clear_layout(self.lines)
        for heard in told:
            row = QWidget()
            line = QHBoxLayout(row)
            line.setContentsMargins(0, 0, 0, 0)
            text = label(heard.text[:60], wrap=True)
            text.setTextFormat(Qt.TextFormat.PlainText)
            line.addWidget(text, 1)
            if heard.values is None:
                line.addWidget(label(heard.says, "faint", "stop", wrap=True), 1)
            else:
                several = len(heard.values) > 1
                said = "  ".join(
                    f"{axis} {length_text(value, 0.001, unit=not several)}".strip()
                    for axis, value in heard.values.items()
                )
                line.addWidget(label(said, "", "measured", wrap=True), 1)
            self.lines.addWidget(row)
        self.lines.addStretch(1)

    # -- adding ------------------------------------------------------------

    def add_one(self) -> None:
        """Listen to the device that was typed."""
        for field in (self.name, self.port, self.ask):
            field.accept()
        self.axes.accept()
        form = FORMS[self.form.currentData()]
        try:
            axes, turned = axes_told(self.axes.text())
            unit = self.unit.currentData()
            form = LineForm(form.name, form.pattern, unit, axes, turned)
            device = device_of(
                self._new_id(),
                self.name.text(),
                self.kind.currentData(),
                self.port.text(),
                form,
                rate=self.rate.currentData(),
                parity=self.parity.currentData(),
                ask=self.ask.text().strip(),
                every=self.every.currentData(),
                instrument=self.instrument.currentData(),
            )
        except BadInput as error:
            fields = {"port": self.port, "axes": self.axes}
            fields.get(error.key, self.name).refuse(error.message)
            return
        self.name.clear()
        self.port.clear()
        self._listen(device)

    def _new_id(self) -> str:
        number = 1
        while f"device-{number}" in self.hub.on_wire:
            number += 1
        return f"device-{number}"

    def _listen(self, device: Device, kept: bool = True) -> None:
        self._at = device.id
        self.hub.listen(device)
        if kept:
            self._keep_all()
        self.refresh()

    def _keep_all(self) -> None:
        """Keeps the devices; simulated ones are gone with the program."""
        self._keep([d for d in self.hub.devices if d.id not in self.hub.stand_ins])

    def simulate(self, kind: str) -> None:
        """Start a stand-in and listen to it."""
        fault = self.fault.currentData()
        stand_in = StandIn(kind, fault=fault)  # type: ignore[arg-type]
        stand_in.start()
        id = self._new_id()
        words = "Simulated gauge" if kind == "gauge" else "Simulated read-out"
        form = FORMS[stand_in.form]
        self.hub.stand_ins[id] = stand_in
        self._listen(Device(id, words, stand_in.kind, stand_in.url, form), False)

    def _press(self) -> None:
        """The button of the simulated gauge."""
        stand_in = self.hub.stand_ins.get(self._at)
        if stand_in is not None:
            stand_in.send(stand_in.values[""] or 25.0)

    def _move(self, typed: str) -> None:
        """Move the axes of the simulated read-out."""
        stand_in = self.hub.stand_ins.get(self._at)
        if stand_in is None:
            return
        try:
            stand_in.show(**FORMS["named"].read(typed))
        except NotUnderstood as error:
            self.move.refuse(f"Axis and number, as X 12.5 Y -3: {error}.")
            return
        self.move.clear()

    def _forget(self) -> None:
        self.hub.forget(self._at)
        self._keep_all()
        self._end_teaching()
        self.refresh()

    # -- teaching ----------------------------------------------------------

    def _teach(self) -> None:
        """Ask which part of the last line is which."""
        on = self.hub.on_wire.get(self._at)
        lines = on.link.lines if on else []
        if not lines:
            self.says.setText("Nothing came yet: press its button, or move an axis.")
            return
        self._end_teaching()
        self._taught_line = lines[-1].text
        self.parts = parts_of(self._taught_line)
        self.teaching.addWidget(label("Which part of it is which?", "head"))
        row = QHBoxLayout()
        for at, part in enumerate(self.parts):
            if not part.can_be:
                continue
            cell = QVBoxLayout()
            text = label(part.text, "head", "measured")
            text.setTextFormat(Qt.TextFormat.PlainText)
            combo = Combo()
            combo.setAccessibleName(f"What {part.text} is")
            for key in ("", *part.can_be):
                combo.addItem(IS[key], key)
            self.chosen[at] = combo
            cell.addWidget(text)
            cell.addWidget(combo)
            row.addLayout(cell)
        holder = QWidget()
        holder.setLayout(row)
        self.teaching.addWidget(holder)
        self.taught = button("Read its lines so", self.take_taught, "main")
        self.teaching.addWidget(self.taught)

    def take_taught(self) -> None:
        """Read the device's lines as they were taught."""
        on = self.hub.on_wire.get(self._at)
        told = {at: combo.currentData() for at, combo in self.chosen.items()
                if combo.currentData()}  # fmt: skip
        if on is None:
            return
        try:
            form = taught(self._taught_line, told, self.unit.currentData())
        except BadInput as error:
            self.says.setText(error.message)
            return
        from msgspec.structs import replace

        device = replace(on.device, form=form)
        simulated = self._at in self.hub.stand_ins
        self._end_teaching()
        self._listen(device, not simulated)

    def _end_teaching(self) -> None:
        self.says.setText("")
        self.chosen = {}
        clear_layout(self.teaching)
