"""Bought parts that a piece is put together with: counted, and as long as they need."""

from fractions import Fraction
from typing import Any

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.quantity import INCH, fraction_text
from machinon.core.reckoning import reckon
from machinon.core.threads.screw_thread import Thread, thread_of
from machinon.core.threads.screws import stock_lengths

# mm: that a 64th of an inch is met this closely makes it an inch size
SAME = 0.0006
INTO = 1.5  # diameters that a screw goes into a thread, where that is deep enough
CLEAR = 1.0  # mm that it stays off the floor of a blind one


def called(thread: Thread) -> str:
    """A thread as one asks for its screws: coarse ones by their size alone.

    >>> called(thread_of("M8")), called(thread_of("M8x1"))
    ('M8', 'M8 × 1')
    """
    size = f"M{thread.major:g}"
    coarse = thread.form_name == "metric" and thread_of(size).pitch == thread.pitch
    return size if coarse else thread.says


class Hardware(Struct, frozen=True):
    """Parts of one kind."""

    kind: str  # as on the shop's shelf
    name: str  # as one asks for them
    size: float  # of the thread or across, mm
    length: float  # mm, 0 where the mate decides it
    count: int
    use: str  # what they are for
    thread: str = ""  # of screws
    # the feature that they are in, or what several that are numbered are called, where
    # a drawing shows them
    at: str = ""
    asked: dict[str, Any] = {}  # what the reckoning of their length was

    @property
    def says(self) -> str:
        """The line in a list: 3 × cap screw M8 × 25, for the chuck."""
        return f"{self.count} × {self.name}, {self.use}"


def cap_screws(
    thread: str,
    count: float,
    use: str,
    through: float = 0.0,
    into: float = 0.0,
    head: str = "cap",
    blind: bool = True,
    at: str = "",
) -> Hardware:
    """Screws with a head. through: what they clamp, mm, 0 where that is not known;
    into: the thread that there is for them, mm, 0 where that is not known; blind: they
    must not go further; at: the feature whose holes they go through."""
    sizes = thread_of(thread)
    asked = _asked(sizes, through, into, blind) if through else {}
    long = _long_enough(sizes, asked) if asked else 0.0
    found = _screws("screw", f"{head} screw", sizes, long, count, use)
    return replace(found, at=at, asked=asked)


def _asked(thread: Thread, through: float, into: float, blind: bool) -> dict[str, Any]:
    """The inputs of the reckoning `screw-length`."""
    engagement = INTO * thread.major
    if into:
        engagement = min(engagement, into - CLEAR * blind)
    asked = {"grip": through, "screw": thread.name, "engagement": engagement}
    return asked | ({"thread_depth": into, "clear": CLEAR} if into and blind else {})


def _long_enough(thread: Thread, asked: dict[str, Any]) -> float:
    """The length to take, mm: where none that is sold goes in as deep as it should and
    stays off the floor of its hole, the longest that does the latter; 0 for none."""
    try:
        found = reckon("screw-length", asked)
    except BadInput:
        return 0.0  # a check of its family says so
    if found["stock"]:
        return float(found["stock"][0])
    longest = float(found.results.get("most", 0.0)) + 1e-9
    short = [size for size in stock_lengths(thread) if size <= longest]
    return short[-1] if short else 0.0


def set_screws(
    thread: str, count: float, use: str, most: float = 0.0, at: str = ""
) -> Hardware:
    """Screws without a head, the longest that lie within `most`, mm; 0 where the mate
    decides it; at: the feature that they are in."""
    sizes = thread_of(thread)
    fits = [size for size in stock_lengths(sizes, True) if size <= most + 1e-9]
    long = fits[-1] if fits else 0.0
    return replace(_screws("set screw", "set screw", sizes, long, count, use), at=at)


def _screws(
    kind: str, words: str, thread: Thread, long: float, count: float, use: str
) -> Hardware:
    tail = f" × {sold_as(long)}" if long else ""
    name = called(thread)
    full = f"{words} {name}{tail}"
    return Hardware(kind, full, thread.major, long, int(count), use, name)


def by_thread(
    kind: str, words: str, thread: str, use: str, length: float = 0.0
) -> Hardware:
    """One nut or screw that is asked for by its thread, and by its length, mm, where
    that is known."""
    tail = f" × {sold_as(length)}" if length else ""
    sizes = thread_of(thread)
    return Hardware(kind, f"{words} {called(sizes)}{tail}", sizes.major, length, 1, use)


def plain_parts(
    kind: str, size: float, count: float, use: str, length: float = 0.0
) -> Hardware:
    """Dowels, balls, keys and the like, by their size across and their length, mm."""
    tail = f" × {sold_as(length)}" if length else ""
    name = f"{kind} {sold_as(size)}{tail}"
    return Hardware(kind, name, size, length, int(count), use)


def sold_as(size: float) -> str:
    """A size in mm as one asks for it: by the fraction of an inch where it is one.

    >>> sold_as(6.0), sold_as(4.7625), sold_as(25.4), sold_as(6.024)
    ('6', '3/16 in', '1 in', '6.024')
    """
    parts = size / INCH * 64
    if abs(parts - round(parts)) * INCH / 64 < SAME:
        return f"{fraction_text(Fraction(round(parts), 64))} in"
    return f"{round(size, 3):g}"


def with_unit(size: float) -> str:
    """The same with its unit in either system.

    >>> with_unit(6.0), with_unit(4.7625)
    ('6 mm', '3/16 in')
    """
    sold = sold_as(size)
    return sold if sold.endswith(" in") else f"{sold} mm"
