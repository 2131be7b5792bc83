"""Work set true in a chuck: from what the indicator read to the jaw that pushes.

Jaws are counted from where the first reading was taken, the way the readings went.
Source: the centring reckoning; a shim under one of three jaws that close alike moves
the middle by two thirds of it, geometry.
"""

from collections.abc import Mapping, Sequence

from machinon.core.errors import BadInput
from machinon.core.piece.shown import Shown
from machinon.core.quantity import length_text
from machinon.core.reckoning import TEXT, Answer, reckon
from machinon.core.route.work.lines import Way, WorkLine, way
from machinon.core.wording import begun

CHUCKS = (
    ("four", "four jaws, each by itself"),
    ("three", "three jaws that close alike, by shims"),
    ("plate", "on a faceplate, by taps"),
)
SHIM = 1.5  # of how far its middle is to move


def chuck_of(ways: Mapping[str, str]) -> Way:
    """The chuck that the work is held in."""
    return way("chuck", "Held in", CHUCKS, ways)


def set_true(
    readings: Sequence[float], limit: float, chuck: str, inch: bool = False
) -> tuple[WorkLine, Answer | None]:
    """The next move after a turn of readings, equally spaced; none before the first.

    limit: of the needle, mm.
    """
    if len(readings) < 3:
        where = "at each jaw" if chuck == "four" else "at four places round it"
        return WorkLine(
            "read",
            f"Read it {where}",
            (),
            "Turn it by hand, the indicator on a turned place. Set it to 0 at the "
            "first jaw; a reading is plus where the metal stands nearer.",
        ), None
    answer = reckon("centring", {"readings": list(readings)})
    swing, rest = float(answer["tir"]), float(answer["residual"])
    said = Shown("Indicator swing", swing, step=0.001)
    if swing <= limit + 1e-9:
        text = length_text(limit, 0.001, inch)
        return WorkLine(
            "true",
            "It is true",
            (said,),
            f"Within {text}. Tighten all round evenly, read it once more.",
        ), answer
    if rest > limit:
        text = length_text(rest, 0.001, inch)
        return WorkLine(
            "round",
            "It is not round there",
            (said, Shown("Residual", rest, step=0.001)),
            f"{text} of the reading is shape, not position: read on another diameter, "
            "or be content with less.",
        ), answer
    if chuck == "three":
        offset = float(answer["offset"])
        return WorkLine(
            "shim",
            "A shim under the high jaw",
            (
                said,
                Shown("Shim", SHIM * offset, step=0.01),
                Shown("High side at", f"{float(answer['direction']):.0f}°", TEXT),
            ),
            "Turn the work until its high side lies at a jaw, and shim that one: the "
            "middle moves by two thirds of the shim.",
        ), answer
    figures = [said]
    names = []
    for move in answer["moves"]:
        high, low = _jaw(move["from"]), _jaw(move["towards"])
        name = f"Jaw {high} pushes" if chuck == "four" else f"From {move['from']:g}°"
        figures.append(Shown(name, float(move["move"]), step=0.001))
        names.append(f"loosen jaw {low}, push with jaw {high}")
    how = "; ".join(names)
    note = f"{begun(how)}. The larger first, then read a turn again."
    if chuck == "plate":
        note = "Bolts just nipped, tap it over with a soft hammer, the larger first."
    return WorkLine("move", "Move it", tuple(figures), note), answer


def _jaw(angle: float) -> int:
    return round(angle / 90) % 4 + 1


def read_round(typed: Sequence[float]) -> tuple[float, ...]:
    """A turn of readings. Raises BadInput on `readings` for too few."""
    if len(typed) < 3:
        raise BadInput(
            "readings",
            "A turn is three readings or more, one after another with a blank between: "
            "0 0.12 0.30 0.18.",
        )
    return tuple(typed)
