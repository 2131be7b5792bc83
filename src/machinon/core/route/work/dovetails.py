"""Dovetails: one flank by the edge, the other by what pins say, then the mate.

Source: geometry; which pins are taken is a shop rule.
"""

from collections.abc import Mapping

from msgspec import Struct

from machinon.core.piece.block_features import Flanked, MaleDovetail
from machinon.core.piece.shown import Shown
from machinon.core.reckoning import Answer, reckon
from machinon.core.route.steps import StepTold
from machinon.core.route.work.lines import Machines, Way, WorkLine, WorkList, way

PINS = (2.0, 3.0, 4.0, 5.0, 6.0, 8.0, 10.0, 12.0, 16.0, 20.0)  # mm, as dowels come
PIN_SHARE = 0.8  # of the largest pin that sits in the corner
TRIED = "Burrs off first; with its gib in the play that was wanted."


class OverPins(Struct, frozen=True):
    """A dovetail's pins and what they should read."""

    way: Way  # which pins
    across: Shown  # their diameter
    wanted: Shown  # over or between them
    answer: Answer


def over_pins(
    step: StepTold, flanked: Flanked, at: Machines, ways: Mapping[str, str]
) -> OverPins:
    """A dovetail's pins, those of the shop where it has some, and what they should
    read."""
    slot = not isinstance(flanked, MaleDovetail)
    asked = {
        "angle": 90.0 - flanked.half_angle,
        "width_bottom": flanked.floor,
        "depth": flanked.depth,
        "internal": slot,
    }
    most = float(reckon("dovetail", {**asked, "pin": 1.0})["pin_max"])
    owned = sorted(set(at.pins)) or PINS
    sizes = [pin for pin in owned if pin <= PIN_SHARE * most][-8:] or [PINS[0]]
    if flanked.pin:  # those that it is proved over come first
        sizes = [*(pin for pin in sizes if pin != flanked.pin), flanked.pin]
    pins = way(
        f"{step.key}.pins",
        "Pins",
        tuple((f"{pin:g}", f"pins of {pin:g} mm") for pin in reversed(sizes)),
        ways,
    )
    answer = reckon("dovetail", {**asked, "pin": float(pins.chosen)})
    by = "Between them" if slot else "Over them"
    wanted = float(answer["between_pins" if slot else "over_pins"])
    return OverPins(
        pins,
        Shown("Pins ⌀", float(pins.chosen)),
        Shown(f"{by} it should read", wanted, step=0.001),
        answer,
    )


def dovetail_list(
    step: StepTold, flanked: Flanked, at: Machines, ways: Mapping[str, str]
) -> WorkList:
    """A dovetail: its first flank by the edge, its second by what the pins say."""
    slot = not isinstance(flanked, MaleDovetail)
    pins = over_pins(step, flanked, at, ways)
    wanted = float(pins.wanted.value)
    key = f"{step.key}.between"
    read = float(ways.get(key) or 0.0)
    off = wanted - read if slot else read - wanted
    left = [Shown("Still to come off", off)] if read else []
    lines = (
        WorkLine(
            "depth",
            "Cutter down to depth, its height locked",
            (Shown("Depth", flanked.depth),),
            "One depth for both flanks. A cutter that is lower than the form leaves a "
            "flat: look before it is deep.",
        ),
        WorkLine(
            "first",
            "The first flank, against the feed",
            (Shown("Its foot from the edge", flanked.at - flanked.floor / 2),),
            "Then lock that side: everything else is measured from it.",
        ),
        WorkLine(
            "pins",
            "The second flank, by what the pins say",
            (
                pins.across,
                pins.wanted,
                *left,
            ),
            "Read when it is nearly there, both pins wiped and pressed home. What is "
            "missing is what the slide goes: one for one.",
            asks=(key, f"Read {'between' if slot else 'over'} the pins"),
        ),
        WorkLine(
            "climb",
            "The last pass, climbing, a few hundredths",
            note="Table nearly locked: it leaves a smooth flank. Read once more.",
        ),
        WorkLine(
            "try",
            "Its mate goes in while it is held",
            note=TRIED,
        ),
    )
    return WorkList(lines, (pins.way,), (pins.answer,))


def proved_dovetail(
    step: StepTold, flanked: Flanked, at: Machines, ways: Mapping[str, str]
) -> WorkList:
    """A dovetail that is cut: the pins once more, then its mate."""
    pins = over_pins(step, flanked, at, ways)
    lines = (
        WorkLine(
            "pins",
            "Read the pins once more",
            (pins.across, pins.wanted),
            "At both ends: where they differ, the slide goes tight half-way.",
        ),
        WorkLine(
            "whole",
            step.title,
            (Shown("Depth", flanked.depth),),
            step.note or TRIED,
        ),
    )
    return WorkList(lines, (pins.way,), (pins.answer,))
