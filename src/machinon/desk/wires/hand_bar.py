"""The bar of what the devices say: the value in hand, the axes, how far to go."""

from collections.abc import Callable, Mapping

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QLabel, QMenu, QPushButton, QWidget

from machinon.core.quantity import length_text
from machinon.desk.name_dialog import ask_name
from machinon.desk.narrow import Abreast
from machinon.desk.widgets import Look, MarkView, button, label, set_ink
from machinon.desk.wires.hub import Hub, OnWire

ABREAST = 8  # cells in a row
FINE = 0.005  # mm: an axis that is nearer is there


class HandBar(QWidget):
    """Hidden while nothing is on a wire. take: puts a figure into the focused reading;
    wanted: by axis, where the page at hand wants to be, mm."""

    def __init__(
        self,
        look: Look,
        hub: Hub,
        take: Callable[[float], bool],
        wanted: Callable[[], Mapping[str, float]],
        inch: Callable[[], bool] = lambda: False,
    ) -> None:
        super().__init__()
        self.look, self.hub, self._inch = look, hub, inch
        self._take, self._wanted = take, wanted
        self.cells = Abreast(ABREAST, even=False, held=Qt.AlignmentFlag.AlignVCenter)
        row = QHBoxLayout(self)
        row.setContentsMargins(look.px(12), look.px(2), look.px(12), look.px(2))
        row.addWidget(self.cells)
        self._shape: tuple[object, ...] = ()
        self.setAccessibleName("Devices")
        self.hide()
        hub.changed.connect(self.refresh)

    def refresh(self) -> None:
        """Show what there is; the parts are made anew only where others are there."""
        shape = tuple(
            (device.device.id, device.device.kind, tuple(device.mirror.shown))
            for device in self.hub.on_wire.values()
        )
        if (shape, self.look.scale, self.look.theme) != self._shape:
            self._shape = (shape, self.look.scale, self.look.theme)
            self._build()
        self.setVisible(bool(shape))
        now = self.hub.now()
        for device in self.hub.on_wire.values():
            self._show(device, now)

    def _build(self) -> None:
        """Each device's name with its reading, its axes after it, abreast."""
        self.names: dict[str, QLabel] = {}
        self.marks: dict[str, MarkView] = {}
        self.gauges: dict[str, QLabel] = {}
        self.figures: dict[tuple[str, str], QPushButton] = {}
        self.to_go: dict[tuple[str, str], QLabel] = {}
        self.axes: dict[tuple[str, str], QWidget] = {}
        self.cells.clear()
        for device in self.hub.on_wire.values():
            id = device.device.id
            mark = self.marks[id] = MarkView(self.look, "measured", 15)
            name = self.names[id] = label(device.device.name, "faint", wrap=True)
            if device.device.kind == "gauge":
                figure = self.gauges[id] = label("–", "head", "measured")
                take = button("Take  F8", lambda id=id: self.take(id))
                self._cell(mark, name, figure, take)
                continue
            self._cell(mark, name)
            for axis in device.mirror.shown:
                shown = button("", lambda id=id, axis=axis: self._ask(id, axis), "link")
                shown.setAccessibleName(f"Axis {axis}")
                self.figures[id, axis] = shown
                self.to_go[id, axis] = label("", "large", "cut")
                self.axes[id, axis] = self._cell(shown, self.to_go[id, axis])

    def _cell(self, *parts: QWidget) -> QWidget:
        cell = QWidget()
        row = QHBoxLayout(cell)
        row.setContentsMargins(0, 0, 0, 0)
        for part in parts:
            row.addWidget(part)
        row.addStretch(1)
        self.cells.put(cell)
        return cell

    def _show(self, device: OnWire, now: float) -> None:
        id, stale = device.device.id, device.stale(now)
        name = self.names.get(id)
        if name is None:
            return
        odd = device.state != "live" or device.says.startswith(("sent", "over"))
        said = f": {device.says}" if odd else ""
        name.setText(f"{device.device.name}{said}")
        self.marks[id].set_kind("stop" if stale else "measured")
        if device.device.kind == "gauge":
            hand = device.hand if device.hand is not None else device.last
            text = "–" if hand is None else length_text(hand, 0.001, self._inch())
            self.gauges[id].setText(text)
            set_ink(self.gauges[id], "faint" if device.hand is None else "measured")
            return
        wanted = self._wanted()
        for axis, shown in device.mirror.shown.items():
            text = f"{axis} {self._signed(shown)}"
            if stale:
                text += f", {now - device.mirror.at.get(axis, now):.0f} s old"
            if axis in device.mirror.jumped:
                text += ", it jumped: look"
            self.figures[id, axis].setText(text)
            to_go = self.to_go[id, axis]
            goal = wanted.get(axis)
            # on the way somewhere, only what leads there counts
            going = bool(set(wanted) & set(device.mirror.shown))
            self.axes[id, axis].setVisible(goal is not None or not going)
            left = None if goal is None else goal - shown
            there = left is not None and abs(left) < FINE
            words = "" if left is None else "there" if there else self._to_go(left)
            to_go.setText(words)
            set_ink(to_go, "proved" if there else "faint" if stale else "cut")

    def _to_go(self, left: float) -> str:
        return f"{self._signed(left)} to go"

    def _signed(self, size: float) -> str:
        said = length_text(abs(size), 0.001, self._inch(), unit=False)
        return f"{'−' if size < 0 else '+'}{said}"

    def take(self, id: str) -> None:
        """Put what a gauge sent last into the reading that has the focus."""
        device = self.hub.on_wire.get(id)
        if device is None:
            return
        hand = device.hand if device.hand is not None else device.last
        if hand is not None and self._take(hand):
            self.hub.taken(id)

    def take_any(self) -> None:
        """Takes the reading of the first device that has one in hand."""
        for device in self.hub.on_wire.values():
            if device.device.kind == "gauge" and device.last is not None:
                self.take(device.device.id)
                return
        readout = self.hub.readout
        if readout is not None and not readout.stale(self.hub.now()):
            shown = readout.mirror.shown
            if shown:
                self._take(next(iter(shown.values())))

    def _ask(self, id: str, axis: str) -> None:
        self.axis_menu(id, axis).popup(
            self.figures[id, axis].mapToGlobal(self.rect().topLeft())
        )

    def axis_menu(self, id: str, axis: str) -> QMenu:
        """The acts on an axis; nothing of it is sent to the device."""
        menu = QMenu(self)
        mirror = self.hub.on_wire[id].mirror

        def do(act: Callable[[], None]) -> Callable[[], None]:
            def then() -> None:
                act()
                mirror.trust()
                self.hub.changed.emit()

            return then

        menu.addAction("Zero here", do(lambda: mirror.set_to(axis, 0.0)))
        menu.addAction("Half of it: the middle", do(lambda: mirror.halve(axis)))
        menu.addAction("Set to…", lambda: self._set_to(id, axis))
        menu.addAction("Take it into the reading",
                       lambda: self._take(mirror.shown[axis]))  # fmt: skip
        menu.addAction("It is right as it stands", do(lambda: None))
        return menu

    def _set_to(self, id: str, axis: str) -> None:
        from machinon.core.quantity import parse

        def put(typed: str) -> None:
            value = parse(typed, key="name", low=-10_000, high=10_000)
            self.hub.on_wire[id].mirror.set_to(axis, value)
            self.hub.changed.emit()

        ask_name(self, self.look, f"What {axis} is to show", "0", put)
