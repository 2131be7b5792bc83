"""A step's work as lines: what to do, the figures to set, and what to mind."""

from collections.abc import Mapping

from msgspec import Struct

from machinon.core.cutting.cut_state import Dial
from machinon.core.piece.shown import Shown
from machinon.core.piece.solid_cuts import Point
from machinon.core.reckoning import TEXT, Answer
from machinon.core.shop.machines import Machine
from machinon.core.shop.things import Lathe

SINE_BARS = (
    ("100", "a hundred millimetres long"),
    ("200", "two hundred millimetres long"),
    ("127", "five inches long"),
    ("254", "ten inches long"),
)
FROM_LEFT = "From the left end"
CARRIAGE = "Carriage stops at"  # mm from the end of the work
# what figures are of the axes of a read-out
AXES = {"X": "X", "Y": "Y", "Z": "Z", CARRIAGE: "Z"}


class WorkLine(Struct, frozen=True):
    """One thing to do."""

    key: str  # stays while the step does
    head: str
    figures: tuple[Shown, ...] = ()
    note: str = ""
    # where on the face that is worked on, mm from its low left corner or the axis of
    # what turns, for the picture
    at: Point | None = None
    # the length that is read at the machine there, by its name among what was read, and
    # in words; empty for none
    asks: tuple[str, str] = ("", "")
    seconds: float = 0.0  # that it may take, for its clock; 0 for as long as it takes


class Way(Struct, frozen=True):
    """A choice of how it is done: key, what is asked, its answers, the one chosen."""

    key: str
    asks: str
    answers: tuple[tuple[str, str], ...]
    chosen: str


class WorkList(Struct, frozen=True):
    """The lines of a step, the choices that shape them, and what opens the sums."""

    lines: tuple[WorkLine, ...]
    ways: tuple[Way, ...] = ()
    answers: tuple[Answer, ...] = ()
    # where on the face the zero of the figures stands, as `Line.at`
    zero: Point = (0.0, 0.0)


class Machines(Struct, frozen=True):
    """The machines that a step may be worked on; None for one the shop has not."""

    lathe: Lathe | None = None
    divider: Machine | None = None
    pins: tuple[float, ...] = ()  # the gauge pins that it has, mm
    mill: Machine | None = None
    grinder: Machine | None = None
    marks_out: bool = False  # there is no mill, so that holes are laid out by hand
    inch: bool = False  # what is measured over is round in inches


def way(
    key: str,
    asks: str,
    answers: tuple[tuple[str, str], ...],
    ways: Mapping[str, str],
) -> Way:
    """A choice as it was made; the first answer until then."""
    chosen = ways.get(key, "")
    known = [answer for answer, _ in answers]
    return Way(key, asks, answers, chosen if chosen in known else known[0])


def dialled(name: str, to: float, dial: Dial | None) -> Shown:
    """The setting of a slide: in the dial's own unit where the dial is known."""
    return Shown(name, to) if dial is None else Shown(name, dial.text(to), TEXT)
