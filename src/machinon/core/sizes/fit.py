"""Fits: the band a new surface must land in, worked from the measured mate."""

import functools
import re
from collections.abc import Mapping
from typing import Any, Literal

import msgspec
from msgspec import Struct

from machinon.core.errors import BadInput, unknown
from machinon.core.quantity import INCH, LENGTH, parse, small_text
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.sizes import limits
from machinon.core.sizes.inch_limits import inch_fit, inch_fits
from machinon.core.sizes.likely import likely_nominal
from machinon.core.tables import rows

Side = Literal["hole", "shaft"]
Joint = Literal[
    "thread",
    "register",
    "shaft",
    "slot",
    "press",
    "shrink",
    "bond",
    "bearing",
    "taper",
    "bolts",
    "dowels",
    "key",
    "tee",
    "dovetail",
    "detent",
    "dimple",
]
# joints whose size is a width between flats or pins, not a diameter
FLAT_JOINTS: tuple[Joint, ...] = ("slot", "key", "tee", "dovetail")
FitKind = Literal["cylinder", "thread", "bolts", "joined"]
# joints that come down to one band of a diameter or a width
BAND_JOINTS: tuple[Joint, ...] = (
    "register",
    "shaft",
    "slot",
    "press",
    "shrink",
    "bond",
    "bearing",
)


class FitChoice(msgspec.Struct, frozen=True):
    """The person's decision about one fit."""

    number: int  # as shown in the stack
    name: str
    piece: str  # the existing half
    surface: str  # the existing half
    exists: Side = "shaft"  # whether that half is the hole or the shaft
    # a character in plain words, an ISO code, or "own" with clearance_min and
    # clearance_max (mm, negative is interference); for a thread its class, empty for
    # the usual one
    want: str = "slides"
    clearance_min: float = 0.0
    clearance_max: float = 0.0
    # the thread as decided by the person, else found from the readings
    thread: str = ""
    reason: str = ""
    # what it is for, which words it is chosen by, what follows from it
    joint: Joint = "register"
    # what that joint asks besides, by input, as it was typed
    given: dict[str, str] = {}

    @property
    def kind(self) -> FitKind:
        """The way it is worked out, and its gauge picture."""
        if self.joint in BAND_JOINTS:
            return "cylinder"
        return self.joint if self.joint in ("thread", "bolts") else "joined"


class Character(Struct, frozen=True):
    """A fit in plain words and the zone, or the play in mm, behind it."""

    key: str
    joint: Joint
    words: str
    letter: str
    grade: int
    meaning: str
    caution: str
    source: str
    least: float = 0.0
    most: float = 0.0

    @property
    def zone(self) -> str:
        """The shaft's zone; the hole's is its mirror in capitals."""
        return f"{self.letter}{self.grade}"


@functools.cache
def characters() -> Mapping[str, Character]:
    """The fits in plain words, those of one joint together."""
    return {
        r["key"]: Character(
            r["key"],
            r["joint"],  # type: ignore[arg-type]
            r["words"],
            r["letter"],
            int(r["grade"] or 0),
            r["meaning"],
            r["caution"],
            r["source"],
            float(r["least_um"] or 0) / 1000,
            float(r["most_um"] or 0) / 1000,
        )
        for r in rows("fit_characters")
    }


# joints that are chosen by the words of another
_WORDS_OF: Mapping[Joint, Joint] = {"tee": "slot", "key": "slot"}


def words_for(joint: Joint) -> tuple[Character, ...]:
    """The plain words that a joint is chosen by, loosest first; empty for none."""
    of = _WORDS_OF.get(joint, joint)
    return tuple(
        character for character in characters().values() if character.joint == of
    )


class Play(Struct, frozen=True):
    """A wanted range of play, mm on diameter; negative is interference."""

    least: float
    most: float
    says: str


def wanted_play(want: str, nominal: float, exists: Side) -> Play:
    """The play that a character or code asks for at a nominal size.

    A word or a single zone is laid on the mate's real size: only the new
    surface spends tolerance. A pair such as H7/g6, or an inch fit such as RC4,
    is taken at its full range.
    Raises BadInput on `want`.
    """
    try:
        if want in characters():
            character = characters()[want]
            if not character.letter:
                return Play(character.least, character.most, character.words)
            zone = limits.limits_of_size(nominal, character.zone)
            return Play(
                -zone.upper_deviation,
                -zone.lower_deviation,
                f"{character.zone} laid on the mate",
            )
        if want.strip().upper() in inch_fits():
            line = inch_fit(nominal, want)
            return Play(
                -line.shaft_upper,
                line.hole_upper - line.shaft_lower,
                f"full range of {want.strip().upper()} at {nominal / INCH:.4g} in",
            )
        if "/" in want:
            hole, shaft = limits.split_fit(want, "want")
            a, b = (limits.limits_of_size(nominal, z) for z in (hole, shaft))
            return Play(
                a.lower_deviation - b.upper_deviation,
                a.upper_deviation - b.lower_deviation,
                f"full range of {want} at {nominal:g} mm",
            )
        if not any(sign.isdigit() for sign in want):
            raise unknown("want", want, [*characters(), "H7/g6", "g5"])
        letter, _ = limits.split_zone(want, "want")
        zone = limits.limits_of_size(nominal, want)
        new_is_hole = exists == "shaft"
        if letter.isupper() != new_is_hole:
            raise BadInput(
                "want",
                f"{want} is for a {'hole' if letter.isupper() else 'shaft'}"
                f", but the {'hole' if new_is_hole else 'shaft'} is to be made.",
            )
        if new_is_hole:
            return Play(
                zone.lower_deviation, zone.upper_deviation, f"{want} on the mate"
            )
        return Play(-zone.upper_deviation, -zone.lower_deviation, f"{want} on the mate")
    except BadInput as error:
        if error.key == "want":
            raise
        if nominal > limits.LARGEST or nominal <= 0:
            raise BadInput("want", error.message) from None
        raise unknown(
            "want", want, [*characters(), "H7/g6", "H7/h6", "g5", "G6"]
        ) from None


_ABOUT = re.compile(r"^(?:an?|one)\s+(?=thou|tenth)", re.IGNORECASE)


def about_play(want: str) -> tuple[float, float] | None:
    """Least and most play of `a thou` or `25um`; None for what is no such size.

    Said as one size, a play is meant give or take half of it: a shop rule.

    >>> about_play("a thou")
    (0.0127, 0.0381)
    """
    text = _ABOUT.sub("1 ", want.strip())
    if not re.search(r"\d\s*(thou|tenths?|um|µm|mm|in)$", text, re.IGNORECASE):
        return None
    try:
        size = parse(text, LENGTH, key="want", above=0, high=1)
    except BadInput:
        return None
    return round(size / 2, 6), round(size * 1.5, 6)


def rising_play(
    least: float, most: float, key: str = "play_most", inch: bool = False
) -> None:
    """Refuses a most play that is not more than the least, mm. Raises BadInput on
    `key`."""
    if not least < most:
        said = small_text(least, inch)
        raise BadInput(key, f"The most play must be more than the least ({said}).")


def nothing_left(varies: float, doubt: float) -> str:
    """Why a band is empty: the play that is wanted varies by less than the mate's
    doubt, two sigma, takes at both ends; mm."""
    return (
        f"Nothing is left of the band: the play wanted varies by {varies:.4f} mm, and "
        f"the mate's uncertainty takes {2 * doubt:.4f} mm."
    )


@reckoning(
    "fit-target",
    group="Fits and materials",
    title="The band for the new half of a fit",
    usual={
        "existing": [95.018, 95.022, 95.02],
        "instrument_uncertainty": 0.003,
        "kind": "hole",
        "want": "slides",
    },
    inputs=(
        Input(
            "existing", LENGTH, "readings of the half that exists", above=0, many=True
        ),
        Input(
            "instrument_uncertainty", LENGTH, "uncertainty of its size (2 sigma)", low=0
        ),
        Input("kind", TEXT, "what exists", choices=("hole", "shaft")),
        Input(
            "want", TEXT, "the fit: words, a zone or a pair such as H7/g6", default=None
        ),
        Input("clearance_min", LENGTH, "least play wanted", default=None),
        Input("clearance_max", LENGTH, "most play wanted", default=None),
        Input(
            "nominal",
            LENGTH,
            "nominal size; else the likely one",
            default=None,
            above=0,
            high=limits.LARGEST,
        ),
    ),
    results=(
        Result("lower", LENGTH, "smallest the new half may be"),
        Result("upper", LENGTH, "largest the new half may be"),
        Result("aim", LENGTH, "size to aim at"),
        Result("band", LENGTH, "width that is left to land in"),
        Result("clearance_min", LENGTH, "least play wanted"),
        Result("clearance_max", LENGTH, "most play wanted"),
        Result("warning", TEXT, "where nothing is left, else empty"),
    ),
    sources=(
        limits.SOURCE,
        "the mate's uncertainty is taken off both ends of the band",
    ),
)
def _fit_target(
    trail: Trail,
    existing: tuple[float, ...],
    instrument_uncertainty: float,
    kind: Side,
    want: str | None,
    clearance_min: float | None,
    clearance_max: float | None,
    nominal: float | None,
) -> dict[str, Any]:
    size = trail.step(
        "The mate", f"mean of {len(existing)}", sum(existing) / len(existing)
    )
    if want is not None:
        if nominal is None:
            found, words = likely_nominal(
                size, instrument_uncertainty, "inside" if kind == "hole" else "outside"
            )
            nominal = found or size
            trail.notes.append(
                f"Zone taken at {words or f'{size:.3f} mm as measured'}."
            )
        play = wanted_play(want, nominal, kind)
        trail.notes.append(f"Play wanted: {play.says}.")
        least, most = play.least, play.most
    elif clearance_min is None or clearance_max is None:
        raise BadInput("want", "Say the fit, or both the least and the most play.")
    else:
        least, most = clearance_min, clearance_max
    rising_play(least, most, "clearance_max")
    doubt = instrument_uncertainty
    if kind == "hole":
        upper = trail.step(
            "Largest", f"{size:.4f} − {doubt:.4f} − {least:.4f}", size - doubt - least
        )
        lower = trail.step(
            "Smallest", f"{size:.4f} + {doubt:.4f} − {most:.4f}", size + doubt - most
        )
    else:
        lower = trail.step(
            "Smallest", f"{size:.4f} + {doubt:.4f} + {least:.4f}", size + doubt + least
        )
        upper = trail.step(
            "Largest", f"{size:.4f} − {doubt:.4f} + {most:.4f}", size - doubt + most
        )
    band = trail.step("Band left", f"{upper:.4f} − {lower:.4f}", upper - lower)
    warning = ""
    if band <= 0:
        warning = nothing_left(most - least, doubt)
        trail.cautions.append(warning)
    return {
        "lower": lower,
        "upper": upper,
        "aim": trail.step("Aim", "middle of the band", (lower + upper) / 2),
        "band": band,
        "clearance_min": least,
        "clearance_max": most,
        "warning": warning,
    }


@reckoning(
    "play-runout",
    group="Fits and materials",
    title="Run-out that play allows",
    usual={"play": 0.03},
    inputs=(Input("play", LENGTH, "play on the diameter"),),
    results=(
        Result("offset", LENGTH, "how far the centre may lie off"),
        Result("tir", LENGTH, "run-out the indicator would show"),
    ),
    sources=(
        "geometry: the centre moves by half the play, the indicator by twice that",
    ),
)
def _play_runout(trail: Trail, play: float) -> dict[str, Any]:
    loose = max(play, 0.0)
    offset = trail.step("Offset", f"{loose:.4f} / 2", loose / 2)
    return {
        "offset": offset,
        "tir": trail.step("Run-out", f"2 × {offset:.4f}", 2 * offset),
    }
