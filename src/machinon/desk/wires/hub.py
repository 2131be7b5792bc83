"""All devices of the desk: their threads, what they said last, where it goes.

What a link hears in its thread is handed over by signals, and taken in the thread of
the window.
"""

import time
from dataclasses import dataclass, field

from PySide6.QtCore import QObject, QTimer, Signal

from machinon.devices.device import Device
from machinon.devices.link import SILENT, Heard, Link, State
from machinon.devices.mirror import Mirror
from machinon.devices.stand_in import StandIn

TWICE = 0.35  # seconds within which the same reading is one that was sent twice


@dataclass
class OnWire:
    """A device as it stands."""

    device: Device
    link: Link
    state: State = "opening"
    says: str = ""  # of its state
    at: float = 0.0
    mirror: Mirror = field(default_factory=Mirror)
    hand: float | None = None  # of a gauge, what it sent last and nobody took yet, mm
    last: float | None = None

    def stale(self, now: float) -> bool:
        """Whether what it showed last is no longer its word; a gauge's reading is."""
        silent = self.device.kind == "readout" and now - self.at > SILENT
        return self.state != "live" or silent


class Hub(QObject):
    """The devices that are listened to.

    Signals: reading(id: str, size: float) for each reading of a gauge, mm; changed()
    when something shown is otherwise.
    """

    reading = Signal(str, float)
    changed = Signal()
    _heard = Signal(object)
    _stated = Signal(str, str, str)

    def __init__(self) -> None:
        super().__init__()
        self.on_wire: dict[str, OnWire] = {}
        self.stand_ins: dict[str, StandIn] = {}
        self._heard.connect(self._on_heard)
        self._stated.connect(self._on_state)
        # what goes stale changes without a word from anybody
        self._ageing = QTimer(self, interval=500)
        self._ageing.timeout.connect(self.changed.emit)

    @property
    def devices(self) -> list[Device]:
        return [device.device for device in self.on_wire.values()]

    def listen(self, device: Device) -> None:
        """Begin to listen to a device, or begin anew."""
        self._let_go(device.id)
        id = device.id
        link = Link(
            device,
            self._heard.emit,
            lambda state, says: self._stated.emit(id, state, says),
        )
        self.on_wire[id] = OnWire(device, link)
        self._ageing.start()
        link.start()
        self.changed.emit()

    def forget(self, id: str) -> None:
        """Listen to a device no longer; a stand-in of it ends."""
        self._let_go(id)
        stand_in = self.stand_ins.pop(id, None)
        if stand_in is not None:
            stand_in.stop()
        self.changed.emit()

    def _let_go(self, id: str) -> None:
        before = self.on_wire.pop(id, None)
        if before is not None:
            before.link.stop()
        if not self.on_wire:
            self._ageing.stop()

    def stop(self) -> None:
        """Let go of every port."""
        for id in list(self.on_wire):
            self.forget(id)

    def _on_heard(self, heard: Heard) -> None:
        device = self.on_wire.get(heard.device.id)
        if device is None or device.device != heard.device:
            return  # it was let go of meanwhile
        before, device.at = device.at, heard.at
        if device.device.kind == "readout":
            device.mirror.hear(heard.values, heard.at)
            self.changed.emit()
            return
        size = next(iter(heard.values.values()))
        if size == device.last and heard.at - before < TWICE:
            device.says = "sent twice: taken once"
            self.changed.emit()
            return
        device.last = device.hand = size
        self.changed.emit()
        self.reading.emit(device.device.id, size)

    def _on_state(self, id: str, state: str, says: str) -> None:
        device = self.on_wire.get(id)
        if device is not None:
            device.state, device.says = state, says  # type: ignore[assignment]
            self.changed.emit()

    def taken(self, id: str) -> None:
        """Forgets a gauge's last reading, which has gone where it belongs."""
        device = self.on_wire.get(id)
        if device is not None and device.hand is not None:
            device.hand = None
            self.changed.emit()

    @property
    def readout(self) -> OnWire | None:
        """The first read-out there is."""
        kinds = (
            device
            for device in self.on_wire.values()
            if device.device.kind == "readout"
        )
        return next(kinds, None)

    def now(self) -> float:
        """Seconds of the clock that readings are stamped by."""
        return time.monotonic()
