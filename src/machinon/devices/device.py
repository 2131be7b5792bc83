"""A device as the person set it up: what it is, where it is, how it speaks."""

from typing import Literal

import msgspec

from machinon.core.errors import BadInput
from machinon.devices.line_form import FORMS, LineForm, compiled

DeviceKind = Literal["readout", "gauge"]
RATES = (1200, 2400, 4800, 9600, 19200, 38400, 57600, 115200)
# seconds between two askings of a device that does not send by itself
ASKED = {
    0.05: "20 times a second",
    0.2: "5 times a second",
    1.0: "once a second",
    5.0: "every 5 seconds",
}
MOST_NAMED = 60  # letters of its name
PARITIES = {"N": "none", "E": "even", "O": "odd"}


class Device(msgspec.Struct, frozen=True):
    """A read-out, whose last line counts, or a gauge, each line a reading."""

    id: str
    name: str
    kind: DeviceKind
    port: str  # `/dev/ttyUSB0`, `socket://localhost:5000`, `loop://`
    form: LineForm = FORMS["number"]
    rate: int = 9600
    parity: str = "N"
    ask: str = ""  # what is sent for each figure, empty where it sends by itself
    every: float = 0.2  # seconds between two of them
    # id of the shop's instrument that it is, empty where that is not said
    instrument: str = ""


def device_of(
    id: str, name: str, kind: DeviceKind, port: str, form: LineForm, **more: object
) -> Device:
    """A device from what was typed. Raises BadInput naming the entry."""
    port = port.strip()
    if not name.strip():
        raise BadInput("name", "Give it a name: the mill's read-out.")
    if not port:
        raise BadInput("port", "Say where it is: /dev/ttyUSB0 or socket://HOST:PORT.")
    if "://" not in port and not port.startswith("/"):
        raise BadInput(
            "port", f"{port} is no port: /dev/ttyUSB0 or socket://HOST:PORT is one."
        )
    compiled(form.pattern)
    if len(name.strip()) > MOST_NAMED:
        raise BadInput("name", f"Up to {MOST_NAMED} letters are allowed.")
    made = Device(id, name.strip(), kind, port, form)
    made = msgspec.structs.replace(made, **more)
    if made.rate not in RATES:
        allowed = ", ".join(str(rate) for rate in RATES)
        raise BadInput("rate", f"{made.rate} is no rate: {allowed} are.")
    if made.parity not in PARITIES:
        raise BadInput("parity", "Parity is N, E or O.")
    if not 0.02 <= made.every <= 60:
        raise BadInput("every", "From 0.02 to 60 seconds are allowed.")
    return made


def kept(devices: list[Device]) -> str:
    """Devices as they are kept in the settings."""
    return msgspec.json.encode(devices).decode()


def kept_devices(text: str) -> list[Device]:
    """The devices that were kept; none where that cannot be read."""
    try:
        found = msgspec.json.decode(text or "[]", type=list[Device])
        for device in found:
            compiled(device.form.pattern)
    except (msgspec.MsgspecError, BadInput):
        return []
    return found
