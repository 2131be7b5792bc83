"""Work that takes no metal off: bond, press, harden, weld, and blue against rust."""

from collections.abc import Mapping

from machinon.core.cutting.tempering import temper_colours
from machinon.core.piece.shown import Shown
from machinon.core.quantity import TEMPERATURE
from machinon.core.reckoning import TEXT, Answer, reckon
from machinon.core.route.steps import StepTold
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
BY_SHEET = ("", "its sheet")
TO_TEMPER = (NOT_SAID, ("1800", "30 min"), ("3600", "1 h"), ("7200", "2 h"))
TO_CASE = (NOT_SAID, ("300", "5 min"), ("1800", "30 min"), ("7200", "2 h"))
QUENCHED, CASED = ("steel", "alloy steel", "tool steel"), ("mild steel",)
TO_COOL = (NOT_SAID, ("1800", "30 min"), ("3600", "1 h"), ("43200", "a night"))
TO_DARKEN = (NOT_SAID, ("60", "1 min"), ("120", "2 min"), ("300", "5 min"))
RUSTS = ("mild steel", "steel", "alloy steel", "tool steel", "cast iron")
AGAINST_RUST = (
    ("oil", "oil alone"),
    ("chemical", "blued, by a chemical"),
    ("heat", "blued, by heat"),
)


def by_hand_list(step: StepTold, ways: Mapping[str, str]) -> WorkList | None:
    """The lines of a step that is done by hand, with its clocks; None for another."""
    match step.operation:
        case "bond":
            return _bonded(step, ways)
        case "press":
            return _pressed(step, ways)
        case "harden":
            return _hardened(step, ways)
        case "weld":
            return _welded(step, ways)
        case "deburr" if not step.features and step.material in RUSTS:
            return _kept_from_rust(step, ways)
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
    """Quenched and tempered, or its skin alone, as its metal allows. Source: temper
    colours; of mild steel and the rest, shop practice."""
    if step.material in CASED:
        return _cased(step, ways)
    if step.material not in QUENCHED:
        says = "Leave it as it is, or make it of tool steel."
        return WorkList(
            (WorkLine("whole", f"Heat hardens no {step.material}", note=says),)
        )
    temper = way("harden.temper", "Temper for, by the steel's sheet", TO_TEMPER, ways)
    # said short: each with the first thing that it suits
    known = (
        (one.name, f"{one.name}: {one.suits.partition(',')[0]}")
        for one in temper_colours()
    )
    by = way("harden.colour", "Temper to", (BY_SHEET, *known), ways)
    asked = [reckon("temper-colour", {"colour": by.chosen})] if by.chosen else []
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
                tuple(figure for told in asked for figure in _coloured(told)),
                "Clean a place bright first: its colour tells the heat. Stop it in oil "
                "as the colour comes to the edge, before the next one does.",
                seconds=_seconds(temper),
            ),
        ),
        (by, temper),
        tuple(asked),
    )


def _cased(step: StepTold, ways: Mapping[str, str]) -> WorkList:
    """The skin of mild steel, which has not the carbon to harden through."""
    hold = way("harden.case", "In the compound, by its maker", TO_CASE, ways)
    return WorkList(
        (
            WorkLine(
                "ready",
                "Tongs, the compound and clean water at hand",
                note="Mild steel takes a hard skin only: it hardens right through in "
                "no oil and no water.",
            ),
            WorkLine(
                "heat",
                "Bright red, right through",
                note=f"{step.note} About 900 °C: in dim light, a clear red.".strip(),
            ),
            WorkLine(
                "case",
                "Into the compound, covered, and hot again",
                note="All that shall be hard. Once more for a deeper skin; each time "
                "gives it a tenth or two.",
                seconds=_seconds(hold),
            ),
            WorkLine(
                "quench",
                "Straight from the red into the water, and keep it moving",
                note="Stand back: the compound spits.",
            ),
            WorkLine(
                "file",
                "Try a file on it",
                note="It skates off. The skin is a few tenths deep: a wheel may take "
                "a part of that, no more.",
            ),
        ),
        (hold,),
    )


def _coloured(told: Answer) -> tuple[Shown, ...]:
    """The colour that plain steel is tempered to, and its heat."""
    return (
        Shown("Plain steel to", str(told["colour"]), TEXT),
        Shown("from", float(told["least"]), TEMPERATURE),
        Shown("to", float(told["most"]), TEMPERATURE),
    )


def _welded(step: StepTold, ways: Mapping[str, str]) -> WorkList:
    cool = way("weld.cool", "Let it cool for", TO_COOL, ways)
    return WorkList(
        (
            WorkLine(
                "ready",
                "Bright metal, a bevel on both edges",
                note="No plating, paint or oil: their smoke is poison. What burns is "
                "carried away, screens are up.",
            ),
            WorkLine(
                "warm",
                "Warm it first, if its steel asks for it",
                note="By the steel's sheet: what hardens cracks beside a cold weld.",
            ),
            WorkLine(
                "tack",
                "Tack it at four places, opposite ones in turn",
                note="Try it by square or indicator after each: a tack still bends.",
            ),
            WorkLine(
                "weld",
                step.title,
                note=f"{step.note} Short runs opposite each other, so that it draws "
                "evenly.".strip(),
            ),
            WorkLine(
                "cool",
                "Let it cool slowly",
                note="In dry sand or ash, never in water.",
                seconds=_seconds(cool),
            ),
            WorkLine(
                "read",
                "Read how far it moved",
                step.figures,
                "Between centres or in the four-jaw, before anything is cut: it must "
                "be less than what was left over.",
            ),
        ),
        (cool,),
    )


def _kept_from_rust(step: StepTold, ways: Mapping[str, str]) -> WorkList:
    """The last step of what rusts. Source: temper colours of plain steel, blue about
    300 °C; the rest is shop practice."""
    kept = way("rust", "Against rust", AGAINST_RUST, ways)
    whole = WorkLine("whole", step.title, step.figures, step.note)
    if kept.chosen == "chemical":
        return _blued_cold(whole, kept, ways)
    if kept.chosen == "heat":
        return _blued_hot(whole, kept)
    return WorkList((whole,), (kept,))


def _blued_cold(whole: WorkLine, kept: Way, ways: Mapping[str, str]) -> WorkList:
    time = way("rust.time", "It darkens in, by its maker", TO_DARKEN, ways)
    return WorkList(
        (
            whole,
            WorkLine(
                "clean",
                "Degrease it, and touch it no more",
                note="A finger's mark stays bright.",
            ),
            WorkLine(
                "blue",
                "Wipe it on or dip it, until all of it is dark",
                note="Gloves, eyes covered, air, and the maker's sheet. It moves "
                "nothing and adds nothing that a fit would feel.",
                seconds=_seconds(time),
            ),
            WorkLine(
                "oil",
                "Rinse, dry and oil it at once",
                note="Or it rusts worse than bright. Oil it again the next day.",
            ),
        ),
        (kept, time),
    )


def _blued_hot(whole: WorkLine, kept: Way) -> WorkList:
    return WorkList(
        (
            whole,
            WorkLine(
                "may",
                "See that it may be heated at all",
                note="About 300 °C bows what is finished to a band, lets hardened "
                "steel down, and loosens what is bonded: blue those by a chemical.",
            ),
            WorkLine(
                "clean",
                "Bright all over, and free of oil",
                note="Where it is not, the colour is not.",
            ),
            WorkLine(
                "heat",
                "Heat it evenly: straw, purple, then blue",
                note="In hot sand or on a thick plate, its thick parts first. It goes "
                "on by itself: take it off as it turns.",
            ),
            WorkLine(
                "oil",
                "Into the oil, moving it, then wipe it",
                note="Tongs, eyes covered, a lid for the oil at hand: it flares.",
            ),
        ),
        (kept,),
    )
