"""`machinon simulate`: a stand-in for a read-out or a gauge, from the command line."""

import argparse
import math
import sys
import threading
import time
from collections.abc import Sequence

from machinon.core.errors import BadInput
from machinon.devices.line_form import FORMS
from machinon.devices.stand_in import Misbehaving, StandIn


def simulate_command(arguments: Sequence[str]) -> int:
    """`machinon simulate ...`. Returns the exit code: 0, or 2 for bad input."""
    parser = argparse.ArgumentParser(
        prog="machinon simulate",
        description="A simulated device: it speaks over a socket of this machine and a "
        "pseudo-terminal until it is ended by Ctrl+C.",
    )
    parser.add_argument("kind", choices=("readout", "gauge"))
    parser.add_argument("--form", choices=tuple(FORMS), help="form of its lines")
    parser.add_argument("--port", type=int, default=0, help="of the socket; 0 for any")
    parser.add_argument("--size", type=float, default=25.0, help="a gauge's, mm")
    parser.add_argument("--drop", type=float, default=0.0, metavar="SECONDS",
                        help="between two drop-outs")  # fmt: skip
    parser.add_argument("--garble", type=float, default=0.0, metavar="SHARE",
                        help="of the lines that are damaged, up to 1")  # fmt: skip
    parser.add_argument("--flood", type=float, default=0.0, metavar="LINES",
                        help="a second")  # fmt: skip
    parser.add_argument("--drift", type=float, default=0.0, metavar="MM",
                        help="a minute")  # fmt: skip
    parser.add_argument("--seconds", type=float, default=math.inf,
                        help="after which it ends")  # fmt: skip
    given = parser.parse_args(list(arguments))
    try:
        fault = Misbehaving(given.drop, given.garble, given.flood, given.drift)
        device = StandIn(given.kind, given.form or "", given.port, fault)
        device.start()
    except (BadInput, OverflowError) as error:
        print(f"{getattr(error, 'key', 'port')}: {error}", file=sys.stderr)
        return 2
    print(f"simulated {given.kind}: {device.url} {device.terminal}", flush=True)
    if given.kind == "gauge":
        print("Enter sends a reading; type another size first.", flush=True)
    try:
        _run(device, given.size, time.monotonic() + given.seconds)
    except KeyboardInterrupt:
        pass
    finally:
        device.stop()
    return 0


def _run(device: StandIn, size: float, until: float) -> None:
    if device.kind == "gauge":
        # it may wait for a line for ever, and ends with the program
        threading.Thread(target=_press, args=(device, size), daemon=True).start()
    begun = time.monotonic()
    while (now := time.monotonic()) < until:
        if device.kind == "readout":
            # a table that goes to and fro, slowly
            device.show(X=40 * math.sin((now - begun) / 7), Y=25 * math.sin(now / 11))
        time.sleep(0.05)


def _press(device: StandIn, size: float) -> None:
    """Each line that is typed sends a reading."""
    for typed in sys.stdin:
        size = _size(typed, size)
        device.send(size)


def _size(typed: str, before: float) -> float:
    try:
        size = float(typed.replace(",", ".")) if typed.strip() else before
    except ValueError:
        print(f"{typed.strip()} is no size: type mm, as 46.010.", flush=True)
        return before
    if not math.isfinite(size) or abs(size) > 2000:
        print("From -2000 to 2000 mm is allowed.", flush=True)
        return before
    return size
