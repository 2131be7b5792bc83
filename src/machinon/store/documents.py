"""Documents as they are stored: numbered, packed, and read with care.

A stored document may have been damaged or made up: sizes are limited before it
is unpacked, every value is of its kind, every number one that a shop can hold.
"""

import functools
import math
import zlib
from collections.abc import Iterator
from typing import Any

import msgspec

from machinon.core.errors import BadInput
from machinon.core.fits.joints import given_values
from machinon.core.job.job import Job
from machinon.core.shop.belongings import SHELVES, Belongings
from machinon.core.shop.machines import Machine, figure_forms
from machinon.core.shop.things import Lathe, Piece, Shop
from machinon.store.upgrades import FORMAT, upgraded

Document = Shop | Lathe | Machine | Piece | Belongings | Job

MOST_BYTES = 64 * 1024 * 1024  # of an unpacked document
MOST_SIZE = 1e7  # mm and all other numbers
MOST_WORDS = 20_000  # letters of one text


class Unreadable(Exception):
    """A stored document that cannot be read, and why."""


class _Stored(msgspec.Struct):
    format: int
    document: msgspec.Raw


_stored = msgspec.json.Decoder(_Stored)
_document = msgspec.json.Decoder(Document)


def packed(document: Document) -> bytes:
    """A document as it is stored, with the number of its format."""
    body = msgspec.json.encode(document)
    return zlib.compress(
        b'{"format":' + str(FORMAT).encode() + b',"document":' + body + b"}"
    )


# what is read again and again is mostly as it was; the same bytes say the same
@functools.lru_cache(maxsize=512)
def unpacked(body: bytes) -> Document:
    """A stored document of this or an older format. Raises Unreadable."""
    try:
        return _sound(_decoded(_inflated(body)))
    except (
        msgspec.MsgspecError,
        zlib.error,
        RecursionError,
        UnicodeDecodeError,
        AttributeError,
        BadInput,
        KeyError,
        TypeError,
        ValueError,
    ) as error:
        raise Unreadable(f"it is damaged ({error})") from error


def _inflated(body: bytes) -> bytes:
    unpacker = zlib.decompressobj()
    text = unpacker.decompress(body, MOST_BYTES)
    if unpacker.unconsumed_tail:
        raise Unreadable(f"it is larger than {MOST_BYTES >> 20} MB when unpacked")
    if not unpacker.eof:
        raise Unreadable("its end is missing")
    return text


def _decoded(text: bytes) -> Document:
    if text.startswith(b'{"format":'):
        stored = _stored.decode(text)
        if stored.format == FORMAT:
            found: Document = _document.decode(stored.document)
            return found
        if stored.format > FORMAT:
            raise Unreadable(
                f"it is of format {stored.format}, made by a newer Machinon; this one "
                f"knows formats up to {FORMAT}"
            )
        return _of(stored.document, stored.format)
    # before formats had a number
    return _of(text, 1)


def _of(text: bytes | msgspec.Raw, written: int) -> Document:
    plain = upgraded(msgspec.json.decode(text), written)
    document: Document = msgspec.convert(plain, Document)
    return document


def _sound(document: Document) -> Document:
    """The document itself. Raises ValueError for what no shop can hold."""
    for value in _values(document):
        if isinstance(value, float) and not (
            math.isfinite(value) and abs(value) <= MOST_SIZE
        ):
            raise ValueError(f"{value:g} is no size a shop can hold")
        if isinstance(value, int) and abs(value) > MOST_SIZE:
            raise ValueError(f"{value} is no number a shop can hold")
        if isinstance(value, str) and len(value) > MOST_WORDS:
            raise ValueError("a text is too long")
    if isinstance(document, Belongings) and document.id not in SHELVES:
        raise ValueError(f"{document.id!r} is no shelf")
    if isinstance(document, Lathe) and not document.speeds:
        raise ValueError("a lathe without speeds")
    if isinstance(document, Machine | Lathe):
        kind = document.kind if isinstance(document, Machine) else "lathe"
        for form in figure_forms(kind):
            form.read(document.figures.get(form.key, ""), False)
    if isinstance(document, Piece):
        _distinct("surfaces", [surface.id for surface in document.surfaces])
    if isinstance(document, Job):
        for fit in document.fits:
            given_values(fit)
        _distinct("fits", [fit.number for fit in document.fits])
        _distinct("works", [work.key for work in document.works])
        if document.at not in [work.key for work in document.works]:
            raise ValueError("a job that speaks of a piece it does not make")
        for work in document.works:
            _distinct("surfaces", [surface.id for surface in work.proof.surfaces])
    return document


def _distinct(name: str, keys: list[Any]) -> None:
    if len(set(keys)) != len(keys):
        raise ValueError(f"two {name} of the same name")


def _values(value: Any) -> Iterator[Any]:
    """Every plain value in a document."""
    if isinstance(value, msgspec.Struct):
        for name in value.__struct_fields__:
            yield from _values(getattr(value, name))
    elif isinstance(value, tuple | list):
        for inner in value:
            yield from _values(inner)
    elif isinstance(value, dict):
        for key, inner in value.items():
            yield key
            yield from _values(inner)
    else:
        yield value
