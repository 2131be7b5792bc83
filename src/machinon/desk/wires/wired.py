"""The readings of devices on a wire, and where the window takes them."""

from collections.abc import Mapping
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QVBoxLayout

from machinon.core.quantity import typed_again
from machinon.desk.widgets import Field

if TYPE_CHECKING:
    from machinon.desk.window import MainWindow
    from machinon.desk.wires.devices_page import DevicesPage
    from machinon.desk.wires.hub import Hub


class Wired:
    """The devices of a window: what they read goes where the keyboard stands.

    Nothing of it is imported before a device is there or asked for.
    """

    def __init__(self, window: "MainWindow", foot: QVBoxLayout) -> None:
        """foot: what the bar of the devices is put under."""
        self._window, self._foot = window, foot
        self._hub: Hub | None = None

    @property
    def hub(self) -> "Hub":
        """The devices on a wire, with the bar that shows them; made when first used."""
        if self._hub is None:
            from machinon.desk.wires.hand_bar import HandBar
            from machinon.desk.wires.hub import Hub
            from machinon.devices.device import kept_devices

            window = self._window
            self._hub = Hub()
            self.hand = HandBar(
                window.look,
                self._hub,
                self.take_size,
                self._wanted,
                lambda: window.file.shop().inch,
            )
            self._foot.addWidget(self.hand)
            self._hub.reading.connect(self._on_reading)
            for device in kept_devices(window.settings.get("devices")):
                self._hub.listen(device)
        return self._hub

    def begin(self) -> None:
        """Listen to what was set up before."""
        if self._window.settings.get("devices"):
            self.hub  # noqa: B018  made when it is first asked for

    def stop(self) -> None:
        if self._hub is not None:
            self._hub.stop()

    def page(self) -> "DevicesPage":
        """Shows the devices on a wire, and how they are read."""
        from machinon.desk.wires.devices_page import DevicesPage
        from machinon.devices.device import kept

        settings = self._window.settings
        return DevicesPage(
            self._window.look,
            self.hub,
            self._window.file.shop(),
            lambda devices: settings.put("devices", kept(devices)),
        )

    def take_size(self, size: float) -> bool:
        """Put a size from a device into the reading that has the focus, mm; whether
        there was one."""
        field = self._window.focusWidget()
        while field is not None and not isinstance(field, Field):
            field = field.parentWidget()
        if field is None or not field.from_wire or not field.isVisible():
            return False
        field.take(f"{typed_again(round(size, 5))} mm")
        return True

    def take_in_hand(self) -> None:
        """Takes a device's reading into the focused entry."""
        if self._hub is not None:
            self.hand.take_any()

    def speak(self, kind: str, size: float) -> None:
        """The practice lathe's gauge and dial speak through simulated devices, where
        there are any."""
        stand_ins = self._hub.stand_ins.values() if self._hub is not None else ()
        device = next((device for device in stand_ins if device.kind == kind), None)
        if device is not None and kind == "gauge":
            device.send(size)
        elif device is not None:
            device.show(X=size)

    def _on_reading(self, id: str, size: float) -> None:
        device = self.hub.on_wire[id].device
        page = self._window.job_page()
        view = page.view() if page is not None else None
        # what it was read with is the gauge that sent it
        if device.instrument and hasattr(view, "use_instrument"):
            view.use_instrument(device.instrument)
        if self.take_size(size):
            self.hub.taken(id)

    def _wanted(self) -> Mapping[str, float]:
        """The axis positions that the page at hand asks for, mm."""
        page = self._window.job_page()
        view = page.view() if page is not None else None
        return getattr(view, "wanted", {})
