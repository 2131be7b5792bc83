"""Shanks and sockets of named tapers by their standards."""

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.piece.round_sizes import downwards
from machinon.core.tapers.shanks import ShankEnd, shank_ends
from machinon.core.tapers.tapers import taper_of

CLOSE = 0.012  # mm that a bore is over the round that it guides, or that under it
PAST = 3.0  # mm: a socket is bored past its gauge, for the tang or the draw bar


def shank_end_of(name: str) -> ShankEnd:
    """The end of a taper's shank by its standard; in proportion where it has none."""
    taper = taper_of(name)
    found = shank_ends().get(taper.name)
    if found is not None and found.across:
        return found
    large = taper.large or 25.0
    across, wide, long = (round(share * large, 1) for share in (0.35, 0.75, 0.9))
    reach = (taper.length or 2.5 * large) + 0.2 * large
    if found is not None:  # one without a tang, that only a draw bar holds
        return replace(found, diameter=wide, length=long, reach=round(reach, 1))
    return ShankEnd(across, wide, long, round(reach, 1), 5.0)


def large_end(name: str, key: str) -> float:
    """Its large end, mm. Raises BadInput on `key` where it has no size of its own."""
    found = taper_of(name)
    if found.large is None:
        raise BadInput(key, f"{found.name} has no size of its own: type it.")
    return found.large


def usual_length(name: str, key: str) -> float:
    """Its length, mm, else two and a half of its large end. Raises BadInput on `key`
    where it has neither."""
    return taper_of(name).length or 2.5 * large_end(name, key)


def socket_depth(name: str, key: str) -> float:
    """Depth to which a taper's socket is bored, past its gauge line, mm; of one with a
    bore behind it, to that bore. Raises BadInput on `key` where it has no size of its
    own."""
    if bore := shank_end_of(name).bore:
        return downwards((large_end(name, key) - bore) / taper_of(name).ratio, 0.5)
    return usual_length(name, key) + PAST


def inner_end(large: float, ratio: float, deep: float, key: str, words: str) -> float:
    """Small end of a taper bored so deep, mm. Raises BadInput on `key`, whose words are
    said, where it ends in a point before."""
    small = large - ratio * deep
    if small <= 0:
        raise BadInput(key, f"{words}: it ends in a point at {large / ratio:.1f} mm.")
    return small
