"""The record of practice: the result of each exercise, and the trend."""

from collections.abc import Sequence

import msgspec

MOST = 500  # exercises that are remembered
LATELY = 10  # of them that say how it goes now


class Record(msgspec.Struct, frozen=True):
    """One exercise."""

    kind: str
    level: str
    seed: int
    coached: str  # on, off or after
    inside: bool
    past: bool
    stops: int
    at: str = ""  # the day


def kept(records: Sequence[Record]) -> str:
    """Records as they are kept, the last `MOST`."""
    return msgspec.json.encode(list(records)[-MOST:]).decode()


def kept_records(text: str) -> tuple[Record, ...]:
    """The records that were kept; none where that cannot be read."""
    try:
        return tuple(msgspec.json.decode(text or "[]", type=list[Record]))
    except msgspec.MsgspecError:
        return ()


def running(records: Sequence[Record]) -> list[float]:
    """After each exercise, the share of the last `LATELY` that ended in the band."""
    return [
        sum(record.inside for record in records[max(i + 1 - LATELY, 0) : i + 1])
        / min(i + 1, LATELY)
        for i in range(len(records))
    ]


def says(records: Sequence[Record]) -> str:
    """The trend in a sentence."""
    if not records:
        return "Nothing tried yet. Metal costs nothing here."
    last = records[-LATELY:]
    inside = sum(record.inside for record in last)
    scrap = sum(record.past for record in last)
    stops = sum(record.stops for record in last) / len(last)
    return (
        f"Of the last {len(last)}: {inside} in the band, {scrap} scrapped, "
        f"{stops:.0f} stops each."
    )
