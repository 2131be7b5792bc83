"""The bar of what the devices say: the value in hand, the axes, how far to go."""

from collections.abc import Callable, Mapping

from PySide6.QtWidgets import QHBoxLayout, QMenu, QWidget

from machinon.core.quantity import length_text
from machinon.desk.name_dialog import ask_name
from machinon.desk.widgets import Look, MarkView, button, clear_layout, label, set_ink
from machinon.desk.wires.hub import Hub, OnWire

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
        self.row = QHBoxLayout(self)
        self._shape: tuple[object, ...] = ()
        self._labels: dict[str, object] = {}
        self.setAccessibleName("Devices")
        self.hide()
        hub.changed.connect(self.refresh)

    def refresh(self) -> None:
        """Show what there is; the parts are made anew only where others are there."""
        shape = tuple(
            (one.device.id, one.device.kind, tuple(one.mirror.shown))
            for one in self.hub.on_wire.values()
        )
        if (shape, self.look.scale, self.look.theme) != self._shape:
            self._shape = (shape, self.look.scale, self.look.theme)
            self._build()
        self.setVisible(bool(shape))
        now = self.hub.now()
        for one in self.hub.on_wire.values():
            self._show(one, now)

    def _build(self) -> None:
        px = self.look.px
        clear_layout(self.row)
        self.row.setContentsMargins(px(12), px(3), px(12), px(3))
        self.row.setSpacing(px(10))
        self.names: dict[str, QWidget] = {}
        self.figures: dict[tuple[str, str], QWidget] = {}
        self.to_go: dict[tuple[str, str], QWidget] = {}
        self.marks: dict[str, MarkView] = {}
        for one in self.hub.on_wire.values():
            id = one.device.id
            mark = self.marks[id] = MarkView(self.look, "measured", 15)
            self.row.addWidget(mark)
            name = self.names[id] = label(one.device.name, "faint")
            self.row.addWidget(name)
            if one.device.kind == "gauge":
                figure = self.figures[id, ""] = label("–", "head", "measured")
                self.row.addWidget(figure)
                take = button("Take  F8", lambda id=id: self.take(id))
                self.row.addWidget(take)
                continue
            for axis in one.mirror.shown:
                figure = button(
                    "", lambda id=id, axis=axis: self._ask(id, axis), "link"
                )
                figure.setAccessibleName(f"Axis {axis}")
                self.figures[id, axis] = figure
                self.row.addWidget(figure)
                self.to_go[id, axis] = label("", "large", "cut")
                self.row.addWidget(self.to_go[id, axis])
        self.row.addStretch(1)

    def _show(self, one: OnWire, now: float) -> None:
        id, stale = one.device.id, one.stale(now)
        name = self.names.get(id)
        if name is None:
            return
        said = "" if one.state == "live" and not one.says.startswith(("sent", "over")) \
            else f": {one.says}"  # fmt: skip
        name.setText(f"{one.device.name}{said}")  # type: ignore[attr-defined]
        self.marks[id].set_kind("stop" if stale else "measured")
        if one.device.kind == "gauge":
            hand = one.hand if one.hand is not None else one.last
            text = "–" if hand is None else length_text(hand, 0.001, self._inch())
            self.figures[id, ""].setText(text)  # type: ignore[attr-defined]
            set_ink(self.figures[id, ""], "faint" if one.hand is None else "measured")
            return
        wanted = self._wanted()
        for axis, shown in one.mirror.shown.items():
            text = f"{axis} {self._signed(shown)}"
            if stale:
                text += f", {now - one.mirror.at.get(axis, now):.0f} s old"
            if axis in one.mirror.jumped:
                text += ", it jumped: look"
            self.figures[id, axis].setText(text)  # type: ignore[attr-defined]
            to_go = self.to_go[id, axis]
            goal = wanted.get(axis)
            left = None if goal is None else goal - shown
            there = left is not None and abs(left) < FINE
            words = (
                ""
                if left is None
                else "there"
                if there
                else f"{self._signed(left)} to go"
            )
            to_go.setText(words)  # type: ignore[attr-defined]
            set_ink(to_go, "proved" if there else "faint" if stale else "cut")

    def _signed(self, size: float) -> str:
        said = length_text(abs(size), 0.001, self._inch(), unit=False)
        return f"{'−' if size < 0 else '+'}{said}"

    def take(self, id: str) -> None:
        """Put what a gauge sent last into the reading that has the focus."""
        one = self.hub.on_wire.get(id)
        if one is None:
            return
        hand = one.hand if one.hand is not None else one.last
        if hand is not None and self._take(hand):
            self.hub.taken(id)

    def take_any(self) -> None:
        """What is in hand of the first device that has something."""
        for one in self.hub.on_wire.values():
            if one.device.kind == "gauge" and one.last is not None:
                self.take(one.device.id)
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
        """What can be done with an axis; nothing of it is sent to the device."""
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

        ask_name(self, self.look, f"What {axis} shall show", "0", put)
