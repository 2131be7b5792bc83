"""The likely nominal of a measured size: nominal sizes and standards."""

import functools
import math
from collections.abc import Iterable
from fractions import Fraction

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.quantity import INCH
from machinon.core.tables import rows
from machinon.core.tapers.tapers import named_tapers


class Likely(Struct, frozen=True):
    """A standard or nominal size that readings could be, and how likely; 0 to 1."""

    name: str
    off: float  # measured less nominal, mm; of a taper per length
    chance: float
    note: str = ""  # what else has that size


LITTLE = 0.02  # below this chance a candidate is not worth a line
MOST = 4


def _inch_words(size: float, step: float) -> str:
    """A size as inches and a fraction, in steps of `step` mm."""
    part = Fraction(round(size / step), round(INCH / step))
    whole, rest = divmod(part.numerator, part.denominator)
    words = (str(whole) if whole else "", f"{rest}/{part.denominator}" if rest else "")
    return " ".join(word for word in words if word) + " in"


# steps of nominal sizes, how far each reaches, and how usual it is; a shop rule
_LADDER = (
    (1.0, 1.0, 1.0),
    (0.5, 0.8, 0.25),
    (INCH / 16, 0.7, 0.3),
    (INCH / 64, 0.35, 0.05),
)


def _reach(size: float, doubt: float) -> float:
    return max(3 * doubt, 0.0007 * size + 0.012)


def likely_nominal(size: float, doubt: float, kind: str) -> tuple[float, str]:
    """The nominal size a measured one was most likely made to: (mm, words).

    size, doubt: mm. Whole millimetres first, halves next, then inch
    sixteenths and sixty-fourths; (0, "") where none is close. A shop rule.

    >>> likely_nominal(15.985, 0.006, "outside")[1]
    '16 mm shaft'
    """
    word = {"outside": "shaft", "inside": "bore"}.get(kind, "")
    for step, share, _usual in _LADDER:
        nearest = round(size / step) * step
        if nearest > 0 and abs(size - nearest) <= _reach(size, doubt) * share:
            said = (
                _inch_words(nearest, step)
                if step not in (1.0, 0.5)
                else (f"{nearest:g} mm")
            )
            return nearest, f"{said} {word}".strip()
    return 0.0, ""


def likely_standards(
    form: str,
    kind: str,
    size: float,
    doubt: float,
    ratio: float | None = None,
    ratio_doubt: float = 0.0,
) -> tuple[Likely, ...]:
    """Standards that a surface could have been made to, likeliest first; mm.

    form: the kind of surface it was added as; ratio: of a taper. The chances
    weigh how far off the reading is against its doubt and against how true
    such things are usually made; a shop rule.
    """
    if form in ("taper-out", "taper-in"):
        if ratio is None:
            return ()
        return _ranked(_tapers(size, abs(ratio), ratio_doubt))
    if form in _SPECIAL:
        return _ranked(_special(form, size, doubt))
    if kind not in ("outside", "inside", "gap") or form.startswith("thread"):
        return ()
    return tuple(
        replace(named, note=bearing_note(form, size)) if at == 0 else named
        for at, named in enumerate(_ranked(_plain(form, kind, size, doubt)))
    )


def _ranked(found: Iterable[tuple[str, float, float]]) -> tuple[Likely, ...]:
    """Names with how far off and what weight, as chances; likeliest first."""
    best: dict[str, tuple[float, float]] = {}
    for name, off, weight in found:
        if weight > best.get(name, (0.0, 1e-9))[1]:
            best[name] = (off, weight)
    whole = sum(weight for _, weight in best.values())
    ranked = sorted(best.items(), key=lambda pair: -pair[1][1])
    return tuple(
        Likely(name, off, weight / whole)
        for name, (off, weight) in ranked[:MOST]
        if weight / whole >= LITTLE
    )


def _bell(off: float, sigma: float) -> float:
    return math.exp(-0.5 * (off / sigma) ** 2)


def _plain(
    form: str, kind: str, size: float, doubt: float
) -> Iterable[tuple[str, float, float]]:
    word = {"outside": "shaft", "inside": "bore", "gap": ""}[kind]
    word = {"ball": "ball", "dowel": "dowel"}.get(form, word)
    if form in ("slot", "tongue", "groove", "square", "flats", "tee-head"):
        word = ""
    for step, share, usual in _LADDER:
        nearest = round(size / step) * step
        reach = _reach(size, doubt) * share
        if nearest <= 0 or abs(size - nearest) > reach:
            continue
        metric = step in (1.0, 0.5)
        said = f"{nearest:g} mm" if metric else _inch_words(nearest, step)
        off = size - nearest
        yield f"{said} {word}".strip(), off, usual * _bell(off, reach / 2)


def bearing_note(form: str, size: float) -> str:
    """Whether a ball bearing of the usual series goes there; size: mm."""
    sizes = {"shaft": BEARING_BORES, "bore": BEARING_OUTSIDES}.get(form, ())
    near = next((listed for listed in sizes if abs(size - listed) <= 0.06), None)
    return f"a bearing of {near} mm goes there" if near is not None else ""


# usual metric ball bearings of the series 60, 62 and 63; ISO 15:2017
BEARING_BORES = (10, 12, 15, 17, *range(20, 105, 5))
BEARING_OUTSIDES = (
    26, 28, 30, 32, 35, 37, 40, 42, 47, 52, 55, 62, 68, 72, 75, 80, 85, 90, 95, 100,
    110, 115, 120, 125, 130, 140, 150, 160, 170, 180,
)  # fmt: skip

_SPECIAL = ("key-width", "tee-neck", "hexagon")


@functools.cache
def _special_sizes(form: str) -> tuple[tuple[str, float], ...]:
    """Standard sizes of a form: what each is called, and the size in mm."""
    if form == "key-width":
        return tuple(
            (
                f"{r['width']} {r['unit']} key, shafts over {r['above']} to {r['to']}",
                float(r["width"]) * (INCH if r["unit"] == "in" else 1.0),
            )
            for r in rows("keys")
        )
    if form == "tee-neck":
        return tuple(
            (f"{r['neck_mm']} mm T-slot, studs {r['stud']}", float(r["neck_mm"]))
            for r in rows("tee_slots")
        )
    return tuple(
        (f"{r['key']} mm hexagon, as of {r['size']}", float(r["key"]))
        for r in rows("screw_heads")
        if r["head"] == "hex"
    )


def _special(
    form: str, size: float, doubt: float
) -> Iterable[tuple[str, float, float]]:
    # slots wear wide and hexagons are rolled small: a tenth or two is usual
    sigma = max(doubt, 0.12 if form == "hexagon" else 0.05)
    for name, nominal in _special_sizes(form):
        off = size - nominal
        if abs(off) <= 3 * sigma:
            yield name, off, _bell(off, sigma)


def _tapers(
    size: float, ratio: float, doubt: float
) -> Iterable[tuple[str, float, float]]:
    # a good taper is made to a few tenths of a per cent
    sigma = max(doubt / 2, 0.002 * ratio)
    for taper in named_tapers().values():
        off = ratio - taper.ratio
        if abs(off) > 4 * sigma:
            continue
        # a Morse socket is mostly read near its large end
        near = _bell((size - taper.large) / taper.large, 0.1) if taper.large else 0.3
        usual = SHORT if taper.name in _cut_short() else 1.0
        yield taper.name, off, _bell(off, sigma) * near * usual


SHORT = 0.25  # how usual a drill chuck's cone is beside the Morse one it is part of


@functools.cache
def _cut_short() -> frozenset[str]:
    """Tapers that are the large end of a longer one, as B18 is that of Morse 2."""
    whole = named_tapers().values()
    return frozenset(
        one.name
        for one in whole
        for other in whole
        if one.large
        and one.large == other.large
        and abs(one.ratio - other.ratio) < 1e-6
        and (one.length or 0) < (other.length or 0)
    )
