"""A long run of wires that flood, drop out and garble: `make soak`.

usage: soak.py [MINUTES] [SEED]

Prints counts and memory each minute. Ends with 1 where a reading was lost or came
twice, or where memory grew.
"""

import random
import sys
import time

from machinon.devices.device import Device
from machinon.devices.line_form import FORMS
from machinon.devices.link import Link
from machinon.devices.stand_in import Misbehaving, StandIn

GROWS = 6.0  # MB after the first half minute that are no leak yet
BETWEEN = (0.06, 0.3)  # seconds between two presses of the gauge
HANGS = 0.02  # chance that it hangs up after a press


def memory() -> float:
    """What the program holds, MB."""
    with open("/proc/self/statm") as file:
        return int(file.read().split()[1]) * 4096 / 1e6


def main() -> int:
    minutes = float(sys.argv[1]) if len(sys.argv) > 1 else 10.0
    chance = random.Random(int(sys.argv[2]) if len(sys.argv) > 2 else 1)
    fault = Misbehaving(drop=7.0, garble=0.1, flood=3000.0, drift=0.01)
    readout, gauge = StandIn("readout", fault=fault), StandIn("gauge")
    heard: list[float] = []
    shown = 0

    def show(_heard: object) -> None:
        nonlocal shown
        shown += 1

    for device in (readout, gauge):
        device.start()
    links = (
        Link(Device("r", "read-out", "readout", readout.url, FORMS["named"]), show),
        Link(
            Device("g", "gauge", "gauge", gauge.url, FORMS["number"]),
            lambda message: heard.append(message.values[""]),
        ),
    )
    for link in links:
        link.start()
    begun = time.monotonic()
    settled, told, sent = 0.0, 0.0, 0
    while (now := time.monotonic() - begun) < 60 * minutes:
        if gauge.listened_to:
            sent += 1
            gauge.send(sent / 1000)
            if chance.random() < HANGS:
                gauge.hang_up()
        time.sleep(chance.uniform(*BETWEEN))
        if not settled and now > min(30.0, 30 * minutes):
            settled = memory()
        if now - told > 60:
            told = now
            flood = links[0].counts
            print(
                f"{now / 60:4.0f} min  {flood.lines} lines flooded, {flood.lost} drop-"
                f"outs, {shown} shown; gauge {sent} sent, {len(heard)} heard; "
                f"{memory():.1f} MB",
                flush=True,
            )
    time.sleep(1.0)
    for link in links:
        link.stop()
    for device in (readout, gauge):
        device.stop()
    wanted = [i / 1000 for i in range(1, sent + 1)]
    lost = len(set(wanted) - set(heard))
    doubled = len(heard) - len(set(heard))
    grew = memory() - settled
    print(
        f"gauge: {sent} sent, {lost} lost, {doubled} doubled, in order: "
        f"{heard == sorted(heard)}, {links[1].counts.lost} hang-ups; read-out: "
        f"{links[0].counts.lines} lines, {links[0].counts.lost} drop-outs; memory grew "
        f"by {grew:.1f} MB"
    )
    return int(bool(lost or doubled or heard != sorted(heard) or grew > GROWS))


if __name__ == "__main__":
    sys.exit(main())
