"""The wire to a device: read in a thread of its own, never in anybody's way.

What is heard is handed over by plain calls from that thread. A port that is lost is
opened again by itself, after pauses that grow.
"""

import collections
import contextlib
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Literal

from msgspec import Struct

from machinon.devices.device import Device
from machinon.devices.line_form import LONGEST, NotUnderstood

State = Literal["opening", "live", "silent", "lost", "closed"]
PAUSES = (0.5, 1.0, 2.0, 4.0, 8.0, 15.0)  # seconds before it is opened again
SILENT = 3.0  # seconds without a line: what it showed last is no longer its word
SHOWN = 0.04  # seconds between two figures of a read-out: no eye is quicker
MOST_READINGS = 20  # a second that a gauge can send; more is a fault of the wire
KEPT = 40  # lines that can be looked at
WAIT = 0.05  # seconds that a read waits for more
FEW, CHUNK = 512, 16384  # letters of a socket that are read one by one, at once
BACK = 8  # lines that are gone back over for one of a read-out that is whole
UNFINISHED = 20 * LONGEST  # letters without an end: thrown away


class Heard(Struct, frozen=True):
    """Figures from a device, mm by axis."""

    device: Device
    values: dict[str, float]
    line: str
    at: float  # seconds of the monotonic clock


class RawLine(Struct, frozen=True):
    """A line as it came, and what was made of it or why nothing was."""

    text: str
    values: dict[str, float] | None
    says: str


@dataclass(slots=True)
class Counts:
    """Counts of a wire: complete lines, understood ones, handed over ones, those set
    aside because they came too fast, and times that the port was lost."""

    lines: int = 0
    understood: int = 0
    handed: int = 0
    too_fast: int = 0
    lost: int = 0


@dataclass(slots=True)
class _Gate:
    """Counts a gauge's readings in the running second."""

    since: float = 0.0
    count: int = 0

    def lets(self, now: float) -> bool:
        if now - self.since >= 1.0:
            self.since, self.count = now, 0
        self.count += 1
        return self.count <= MOST_READINGS


@dataclass
class Link:
    """One device on its wire.

    Both are called from the link's own thread.
    """

    device: Device
    # each reading of a gauge, once and in order; of a read-out the newest figures, at
    # most every `SHOWN` seconds
    on_heard: Callable[[Heard], None]
    # the state and a sentence
    on_state: Callable[[State, str], None] = lambda _state, _says: None
    opener: Callable[[Device], Any] | None = None  # opens the port, for tests
    counts: Counts = field(default_factory=Counts)

    def __post_init__(self) -> None:
        self._ended = threading.Event()
        self._port: Any = None
        self._thread: threading.Thread | None = None
        self._raw: collections.deque[RawLine] = collections.deque(maxlen=KEPT)
        self._said: tuple[str, str] = ("", "")
        self._held: Heard | None = None
        self._shown = 0.0
        self._gate = _Gate()

    @property
    def lines(self) -> list[RawLine]:
        """The last lines, the newest last."""
        return list(self._raw)

    def start(self) -> None:
        """Open the port and listen, in a thread."""
        name = f"device {self.device.name}"
        self._thread = threading.Thread(target=self._run, name=name, daemon=True)
        self._thread.start()

    def stop(self) -> None:
        """Let go of the port. Comes back within a moment, whatever the port does."""
        self._ended.set()
        port = self._port
        if port is not None and hasattr(port, "cancel_read"):
            with contextlib.suppress(Exception):
                port.cancel_read()
        if self._thread is not None and self._thread is not threading.current_thread():
            self._thread.join(timeout=1.0)

    # -- in the thread -----------------------------------------------------

    def _run(self) -> None:
        tries = 0
        while not self._ended.is_set():
            self._tell("opening", f"Opening {self.device.port}")
            heard = self.counts.lines
            try:
                self._port = (self.opener or open_port)(self.device)
                self._listen()
                why = "the port was closed"
            except Exception as error:  # whatever a driver throws, the desk stays up
                why = _reason(error)
            finally:
                self._let_go()
            if self._ended.is_set():
                break
            # what spoke is tried again soon
            tries = 0 if self.counts.lines > heard else tries + 1
            self.counts.lost += 1
            pause = PAUSES[min(tries, len(PAUSES) - 1)]
            self._tell("lost", f"{why}; tried again in {pause:g} s")
            self._ended.wait(pause)
        self._tell("closed", "not listened to")

    def _let_go(self) -> None:
        port, self._port = self._port, None
        if port is not None:
            with contextlib.suppress(Exception):
                port.close()

    def _tell(self, state: State, says: str) -> None:
        if (state, says) != self._said:
            self._said = (state, says)
            self.on_state(state, says)

    def _listen(self) -> None:
        rest = b""  # half a line never outlives its port
        asked, heard = 0.0, time.monotonic()
        if self.device.kind == "gauge":
            self._tell("live", "listening")  # it speaks when its button is pressed
        ask = self.device.ask.encode("ascii", "replace")
        while not self._ended.is_set():
            now = time.monotonic()
            if ask and now - asked >= self.device.every:
                self._port.write(ask + b"\r\n")
                asked = now
            chunk = self._heard_now()
            now = time.monotonic()
            if chunk:
                *lines, rest = (rest + chunk).replace(b"\r", b"\n").split(b"\n")
                rest = rest if len(rest) <= UNFINISHED else b""
                if self._take([line for line in lines if line.strip()], now):
                    heard = now
            elif now - heard >= SILENT and self.device.kind == "readout":
                self._tell("silent", f"nothing for {SILENT:g} s")
            self._show(now)

    def _heard_now(self) -> bytes:
        """The text that has come, after up to `WAIT` seconds."""
        port = self._port
        if "://" not in self.device.port:
            return bytes(port.read(max(int(port.in_waiting), 1)))
        # a socket does not say how much is there, and a long read that ends in a
        # hang-up would take with it what came just before: letter by letter, then
        found = bytearray(port.read(1))
        # where it hangs up meanwhile, the next read says so
        with contextlib.suppress(OSError):
            while found and port.in_waiting and len(found) < FEW:
                found += port.read(1)
            if len(found) == FEW:
                found += port.read(CHUNK)  # a flood: nobody can miss its last line
        return bytes(found)

    def _take(self, lines: list[bytes], now: float) -> bool:
        """Read complete lines; whether there were any."""
        self.counts.lines += len(lines)
        if self.device.kind == "readout":
            # the newest figures are all that counts of it
            for line in reversed(lines[-BACK:]):
                self._held = self._read(line, now) or self._held
                if self._held is not None and self._held.at == now:
                    self._tell("live", "it sends")
                    break
            return bool(lines)
        for line in lines:
            heard = self._read(line, now)
            if heard is None:
                continue
            if self._gate.lets(now):
                self.counts.handed += 1
                self._tell("live", "it sends")
                self.on_heard(heard)
            else:
                self.counts.too_fast += 1
                says = f"over {MOST_READINGS} readings a second: set aside"
                self._tell("live", says)
        return bool(lines)

    def _read(self, line: bytes, now: float) -> Heard | None:
        text = line[: 2 * LONGEST].decode("ascii", "replace").strip()
        try:
            values = self.device.form.read(text)
        except NotUnderstood as error:
            self._raw.append(RawLine(text, None, str(error)))
            return None
        self.counts.understood += 1
        self._raw.append(RawLine(text, values, ""))
        return Heard(self.device, values, text, now)

    def _show(self, now: float) -> None:
        if self._held is not None and now - self._shown >= SHOWN:
            held, self._held, self._shown = self._held, None, now
            self.counts.handed += 1
            self.on_heard(held)


def open_port(device: Device) -> Any:
    """The port of a device, open. Raises what the driver raises."""
    import serial

    more: dict[str, Any] = {}
    url = "://" in device.port
    if not url:
        more["exclusive"] = True  # one program on a port
    made = serial.serial_for_url(
        device.port,
        do_not_open=True,
        baudrate=device.rate,
        parity=device.parity,
        timeout=WAIT,
        write_timeout=1.0,
        **more,
    )
    if url:
        # what a socket brings at once is new; only a serial port keeps what is old
        made.reset_input_buffer = lambda: None
    made.open()
    return made


def _reason(error: Exception) -> str:
    """Why a port is not there, in a few words."""
    text = str(error)
    number = getattr(error, "errno", None)
    if "exclusively lock" in text or number in (11, 16):
        return "another program has the port"
    if number == 2 or "No such file" in text:
        return "there is no such port: is it plugged in?"
    if number == 13 or "ermission" in text:
        return "this account may not open the port"
    if "refused" in text:
        return "nobody answers there"
    if "disconnected" in text or "returned no data" in text:
        return "the device went away"
    return text.splitlines()[0][:120] if text else type(error).__name__
