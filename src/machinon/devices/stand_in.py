"""Simulated devices: small servers that speak the lines of a read-out or a gauge.

They listen on this machine alone, by a socket and by a pseudo-terminal at once, and can
misbehave as real wires do.
"""

import contextlib
import os
import random
import select
import socket
import threading
import time
from dataclasses import dataclass, field

from msgspec import Struct

from machinon.core.errors import BadInput
from machinon.devices.device import DeviceKind
from machinon.devices.line_form import FORMS

STREAM = 0.1  # seconds between two lines of a read-out
AWAY = 1.5  # seconds that a drop-out lasts
_NOISE = "0123456789.+-XYZ#?~ "


class Misbehaving(Struct, frozen=True):
    """The faults of a wire."""

    drop: float = 0.0  # seconds between two drop-outs, 0 for none
    garble: float = 0.0  # share of the lines that arrive damaged
    flood: float = 0.0  # lines a second instead of the usual, 0 for those
    drift: float = 0.0  # mm a minute that what it shows creeps

    def __post_init__(self) -> None:
        for name, low, high in (
            ("drop", 0.0, 3600.0),
            ("garble", 0.0, 1.0),
            ("flood", 0.0, 20_000.0),
            ("drift", -10.0, 10.0),
        ):
            if not low <= getattr(self, name) <= high:
                raise BadInput(name, f"From {low:g} to {high:g} is allowed.")


def line_of(form: str, values: dict[str, float]) -> str:
    """Figures as a line of one of the plain forms, mm. Raises BadInput on `form`."""
    if form not in FORMS:
        raise BadInput("form", f"{form} is no form: {', '.join(FORMS)} are.")
    ordered = sorted(values.items())
    match form:
        case "number":
            return f"{ordered[0][1]:+.3f} mm"
        case "named":
            return " ".join(f"{axis or 'A'}{value:+.3f}" for axis, value in ordered)
    return "; ".join(f"{value:.3f}" for _, value in ordered)


@dataclass
class StandIn:
    """A simulated read-out or gauge; `values` are what it shows, mm by axis.

    `sent` counts the readings that a gauge has sent, whether anybody listened or not.
    """

    kind: DeviceKind
    form: str = ""
    port: int = 0  # of the socket, 0 for any that is free
    fault: Misbehaving = field(default_factory=Misbehaving)
    seed: int = 0

    def __post_init__(self) -> None:
        self.form = self.form or ("named" if self.kind == "readout" else "number")
        self.values: dict[str, float] = (
            {"X": 0.0, "Y": 0.0, "Z": 0.0} if self.kind == "readout" else {"": 0.0}
        )
        line_of(self.form, self.values)
        self.sent = 0
        self._chance = random.Random(self.seed)
        self._ended = threading.Event()
        self._lock = threading.Lock()
        self._clients: list[socket.socket] = []
        self._began = time.monotonic()
        self._threads: list[threading.Thread] = []

    # -- where it is -------------------------------------------------------

    def start(self) -> None:
        """Open socket and pseudo-terminal, and serve them. Raises BadInput on `port`
        where it is taken."""
        self._server = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
        self._server.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            self._server.bind(("127.0.0.1", self.port))
        except OSError as error:
            self._server.close()
            raise BadInput(
                "port", f"Port {self.port} cannot be had: {error.strerror}."
            ) from None
        self._server.listen(1)
        self._server.settimeout(0.1)
        self._master, self._slave = os.openpty()
        import tty

        tty.setraw(self._slave)
        os.set_blocking(self._master, False)
        for work in (self._accept, self._serve):
            thread = threading.Thread(target=work, name="stand-in", daemon=True)
            thread.start()
            self._threads.append(thread)

    @property
    def url(self) -> str:
        """Address of its socket."""
        return f"socket://127.0.0.1:{self._server.getsockname()[1]}"

    @property
    def terminal(self) -> str:
        """Path of its pseudo-terminal."""
        return os.ttyname(self._slave)

    def stop(self) -> None:
        self._ended.set()
        for thread in self._threads:
            thread.join(timeout=1.0)
        self.hang_up()
        self._server.close()
        for end in (self._master, self._slave):
            with contextlib.suppress(OSError):
                os.close(end)

    # -- what it does ------------------------------------------------------

    def show(self, **values: float) -> None:
        """Move it: axes by name."""
        with self._lock:
            self.values.update(values)

    def send(self, value: float) -> None:
        """A gauge sends a reading, as when its button is pressed."""
        with self._lock:
            self.values[""] = value
            self.sent += 1
        self._put(self._line())

    def hang_up(self) -> None:
        """Drop everybody who listens on the socket."""
        with self._lock:
            clients, self._clients = self._clients, []
        for connection in clients:
            with contextlib.suppress(OSError):
                connection.shutdown(socket.SHUT_RDWR)
            connection.close()

    @property
    def listened_to(self) -> bool:
        """Whether somebody listens on the socket."""
        return bool(self._clients)

    def _accept(self) -> None:
        while not self._ended.is_set():
            try:
                client, _ = self._server.accept()
            except TimeoutError:
                continue
            except OSError:
                return
            if self._away():
                client.close()
                continue
            client.settimeout(0.5)
            with self._lock:
                self._clients.append(client)

    def _away(self) -> bool:
        """Whether it is in a drop-out now."""
        if not self.fault.drop:
            return False
        passed = (time.monotonic() - self._began) % (self.fault.drop + AWAY)
        return passed > self.fault.drop

    def _serve(self) -> None:
        every = 1 / self.fault.flood if self.fault.flood else STREAM
        due = time.monotonic()
        while not self._ended.is_set():
            if self._away():
                self.hang_up()
                self._ended.wait(0.05)
                due = time.monotonic()
                continue
            asked = self._asked()
            now = time.monotonic()
            # a gauge speaks when it is asked or pressed, unless it floods
            lines = ""
            if self.kind == "readout" or self.fault.flood:
                many = min(int((now - due) / every) + 1, 500) if now >= due else 0
                lines = "".join(self._line() for _ in range(many))
                due += many * every
            if asked and not lines:
                lines = self._line()
            if lines:
                self._put(lines)
            self._ended.wait(min(every, 0.01))

    def _asked(self) -> bool:
        """Whether anything was sent to it: whatever it is, it asks for a line."""
        with self._lock:
            there: list[int | socket.socket] = [*self._clients, self._master]
        try:
            ready, _, _ = select.select(there, [], [], 0)
        except (OSError, ValueError):
            return False
        asked = False
        for connection in ready:
            try:
                got = (
                    os.read(connection, 256)
                    if isinstance(connection, int)
                    else connection.recv(256)
                )
            except OSError:
                got = b""
            if got:
                asked = True
            elif not isinstance(connection, int):
                self._forget(connection)
        return asked

    def _line(self) -> str:
        with self._lock:
            values = dict(self.values)
        crept = self.fault.drift * (time.monotonic() - self._began) / 60
        said = line_of(
            self.form, {axis: value + crept for axis, value in values.items()}
        )
        if self.fault.garble and self._chance.random() < self.fault.garble:
            at = self._chance.randrange(len(said))
            noise = "".join(self._chance.choices(_NOISE, k=3))
            said = said[:at] + noise if self._chance.random() < 0.5 else said[at:]
        return said + "\r\n"

    def _put(self, text: str) -> None:
        data = text.encode()
        with self._lock:
            clients = list(self._clients)
        for connection in clients:
            try:
                connection.sendall(data)
            except OSError:
                self._forget(connection)
        # nobody may be reading the terminal: what does not fit is lost, as on a wire
        with contextlib.suppress(OSError):
            os.write(self._master, data)

    def _forget(self, client: socket.socket) -> None:
        with self._lock:
            if client in self._clients:
                self._clients.remove(client)
        client.close()
