"""Work that takes no metal off but must not be held up: bond, press, harden."""

from collections.abc import Mapping

from machinon.core.route.operations import StepTold
from machinon.core.route.work.lines import Way, WorkLine, WorkList, way

NOT_SAID = ("", "not said")
TO_PLACE = (
    NOT_SAID,
    ("15", "15 s"),
    ("30", "30 s"),
    ("60", "1 min"),
    ("120", "2 min"),
    ("300", "5 min"),
)
TO_HOLD = (
    NOT_SAID,
    ("600", "10 min"),
    ("1800", "30 min"),
    ("3600", "1 h"),
    ("86400", "a day"),
)
PRESSED_OR_SHRUNK = (("pressed", "pressed in cold"), ("shrunk", "shrunk on"))
TO_SHRINK = (NOT_SAID, ("5", "5 s"), ("10", "10 s"), ("20", "20 s"), ("40", "40 s"))
TO_TEMPER = (NOT_SAID, ("1800", "30 min"), ("3600", "1 h"), ("7200", "2 h"))


def by_hand_list(step: StepTold, ways: Mapping[str, str]) -> WorkList | None:
    """The lines of a step that is done by hand, with its clocks; None for another."""
    match step.operation:
        case "bond":
            return _bonded(step, ways)
        case "press":
            return _pressed(step, ways)
        case "harden":
            return _hardened(step, ways)
    return None


def _seconds(chosen: Way) -> float:
    return float(chosen.chosen or 0)


def _bonded(step: StepTold, ways: Mapping[str, str]) -> WorkList:
    place = way("bond.place", "Time to place it, by its maker", TO_PLACE, ways)
    hold = way("bond.hold", "It holds after", TO_HOLD, ways)
    return WorkList(
        (
            WorkLine(
                "ready",
                "All of it lies ready",
                note="Both parts, the compound, a clean cloth, and a stop to place it "
                "against. Nothing must call you away.",
            ),
            WorkLine(
                "dry",
                "Try it dry",
                note="It goes home by hand, meets its stop and does not tip. Mark how "
                "it stands.",
            ),
            WorkLine(
                "clean",
                "Degrease both, let them dry",
                note="Bare fingers leave grease again.",
            ),
            WorkLine(
                "place",
                "Compound on, home in one go",
                note=f"{step.note} Once it grips, leave it as it is.".strip(),
                seconds=_seconds(place),
            ),
            WorkLine(
                "hold",
                "Leave it until it holds",
                note="No cut, no clamp and no heat until then.",
                seconds=_seconds(hold),
            ),
        ),
        (place, hold),
    )


def _pressed(step: StepTold, ways: Mapping[str, str]) -> WorkList:
    how = way("press.how", "How it goes together", PRESSED_OR_SHRUNK, ways)
    if how.chosen == "shrunk":
        return _shrunk(step, ways, how)
    return WorkList(
        (
            WorkLine(
                "ready",
                "Burrs off, a lead-in, oil on both",
                note="Read both once more: what is too tight bursts or bends, what is "
                "too loose turns.",
            ),
            WorkLine(
                "start",
                "Start it square, by hand or by a light push",
                note="Look from two sides. If it leans, take it out and begin again.",
            ),
            WorkLine(
                "home", step.title, note=f"{step.note} In one go, to the stop.".strip()
            ),
            WorkLine(
                "look",
                "Look whether it sits",
                note="No light under it all round; what runs on it still runs.",
            ),
        ),
        (how,),
    )


def _shrunk(step: StepTold, ways: Mapping[str, str], how: Way) -> WorkList:
    hand = way(
        "press.seconds", "In hand, by the reckoning of a shrink fit", TO_SHRINK, ways
    )
    return WorkList(
        (
            WorkLine(
                "ready",
                "A stop to drop it against, thick gloves, both parts clean",
                note="Try the way without heat: where you stand, how you turn it.",
            ),
            WorkLine(
                "heat",
                "Heat the outer part right through, or chill the inner one",
                note="Over the heat that frees it, under the heat that hurts its metal "
                "or a seal beside it. Try it with a gauge a little over the fit.",
            ),
            WorkLine(
                "home",
                step.title,
                note=f"{step.note} In one go to the stop, and hold it there: it creeps "
                "back as it grips.".strip(),
                seconds=_seconds(hand),
            ),
            WorkLine(
                "cool",
                "Let it cool in still air",
                note="Never quench it: the outside would grip before the inside. Read "
                "it cold.",
            ),
        ),
        (how, hand),
    )


def _hardened(step: StepTold, ways: Mapping[str, str]) -> WorkList:
    temper = way("harden.temper", "Temper for, by the steel's sheet", TO_TEMPER, ways)
    return WorkList(
        (
            WorkLine(
                "ready",
                "Tongs, oil and its lid at hand",
                note="A wire to hang it by, a dry floor, the way to the oil clear.",
            ),
            WorkLine(
                "heat",
                "Heat it through, to the heat of its steel's sheet",
                note=f"{step.note} Evenly, thin parts away from the flame.".strip(),
            ),
            WorkLine(
                "quench",
                "Straight down into the oil, and keep it moving",
                note="Long parts hang upright, or they bow.",
            ),
            WorkLine(
                "file", "Try a file on it", note="It skates off where it is hard."
            ),
            WorkLine(
                "temper",
                "Temper at once, before it is cold",
                note="Clean a place bright first: its colour tells the heat.",
                seconds=_seconds(temper),
            ),
        ),
        (temper,),
    )
