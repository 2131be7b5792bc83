"""Keyways, flats and slits of what turned: how deep at each pass, and turned by how
much. Source: geometry; how deep a pass goes is a shop rule.
"""

import math
from collections.abc import Mapping

from machinon.core.piece.milled_features import Flats, Keyway, Slits
from machinon.core.piece.shown import Shown
from machinon.core.reckoning import Answer, reckon
from machinon.core.route.steps import StepTold
from machinon.core.route.work.lines import FROM_LEFT, Machines, WorkLine, WorkList
from machinon.core.route.work.milling import down
from machinon.core.route.work.turns import turned_on

SHAPED = 0.1  # mm a pass of a keyway that is pulled through a bore


def _where(step: StepTold, feature: Keyway | Flats) -> tuple[Shown, ...]:
    """Its place along the work; empty where it goes from end to end."""
    first, last = step.after.ends
    if feature.start <= first and feature.end >= last:
        return ()
    return Shown(FROM_LEFT, feature.start - first), Shown(
        "Length", feature.end - feature.start
    )


def keyway_list(step: StepTold, keyway: Keyway) -> WorkList:
    """A keyway from its first touch to the size read across it."""
    asked = {
        "shaft_diameter": keyway.diameter,
        "key": f"{keyway.width:g}",
        "bore": keyway.inside,
        "depth": keyway.depth,
    }
    told = reckon("keyway", asked)
    feed = told["feed_from_contact"]
    steps = (
        [feed * n / math.ceil(feed / SHAPED) for n in
         range(1, math.ceil(feed / SHAPED) + 1)]
        if keyway.inside
        else down(feed, keyway.width, step.light)
    )  # fmt: skip
    first = WorkLine(
        "touch",
        "Feel for contact, dial to 0",
        (
            Shown("Corner drop", told["corner_drop"], step=0.001),
            Shown("Feed in all", feed),
            *(() if keyway.inside else _where(step, keyway)),
        ),
        "Its corners touch first in a bore: their drop comes on top of the depth."
        if keyway.inside
        else "Over the middle of the shaft: touch both sides and halve. Its crown "
        "touches first.",
    )
    passes = [
        WorkLine(
            f"pass-{n}",
            f"Pass {n} of {len(steps)}",
            (Shown("Dial to", deep),),
            "Twice at each setting towards the end." if keyway.inside else "",
        )
        for n, deep in enumerate(steps, 1)
    ]
    last = (
        WorkLine(
            "across",
            "Read the size across",
            (Shown("To its floor", told["across"]),),
            "From the far wall of the bore to the floor of the keyway."
            if keyway.inside
            else "From the floor of the keyway to the far side of the shaft.",
        ),
        WorkLine(
            "sides",
            "Widen it to its key",
            (Shown("Width", keyway.width),),
            "A little off one side, as much off the other, until the key goes in by "
            "hand.",
        ),
    )
    return WorkList((first, *passes, *last), answers=(told,))


def flats_list(
    step: StepTold, flats: Flats, at: Machines, ways: Mapping[str, str]
) -> WorkList:
    """Flats round a turned piece, each as deep as the first one showed."""
    _, radius = step.before.radii((flats.start + flats.end) / 2)
    told = reckon("flat", {"diameter": 2 * radius, "across": radius + flats.across / 2})
    deep, far = told["depth"], told["across"]
    key = f"{step.key}.far"
    read = float(ways.get(key) or 0.0)
    # what the first left too much, all go deeper by
    others = deep + (read - far if read else 0.0)
    answers = [told]
    arms, places = turned_on(flats.count, at.divider, "Turned to", answers)
    lines = [
        WorkLine(
            "touch",
            "Touch the top of the round, dial to 0",
            (Shown("Depth in all", deep), *_where(step, flats)),
            "Measure the round first: a hundredth on it is a hundredth on the flats.",
        ),
        *arms,
    ]
    for n, turned in enumerate(places):
        figures = [*turned, Shown("Down", others if n else deep)]
        note, asks = "", ("", "")
        if n == 0:
            figures.append(Shown("Flat to far side", far))
            note = "Measure after the first: the others go by what it reads."
            asks = key, "It reads, flat to far side"
        elif 2 * n >= flats.count and flats.count % 2 == 0:
            figures.append(Shown("Across two", flats.across))
            first = n + 1 - flats.count // 2
            note = f"Opposite flat {first}: now it is read across both."
        lines.append(
            WorkLine(
                f"flat-{n + 1}",
                f"Flat {n + 1} of {flats.count}",
                tuple(figures),
                note,
                asks=asks,
            )
        )
    return WorkList(tuple(lines), answers=tuple(answers))


def slits_list(slits: Slits, at: Machines) -> WorkList:
    """Saw cuts evenly round an end."""
    answers: list[Answer] = []
    arms, places = turned_on(slits.count, at.divider, "Turned to", answers)
    lines = [
        WorkLine(
            "middle",
            "The saw over the middle of the round",
            (
                Shown("Saw", slits.width),
                Shown("Length of cut", slits.end - slits.start),
            ),
            "Touch the side of the round with the saw, go up by half the round and "
            "half the saw.",
        ),
        *arms,
    ]
    for n, turned in enumerate(places):
        lines.append(
            WorkLine(f"slit-{n + 1}", f"Slit {n + 1} of {slits.count}", turned,
                 "Stop at its length: a slit too long loses its spring.")
        )  # fmt: skip
    return WorkList(tuple(lines), answers=tuple(answers))
