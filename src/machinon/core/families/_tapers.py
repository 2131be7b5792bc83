"""What a named taper is by its standard, for shanks and sockets."""

from machinon.core.errors import BadInput
from machinon.core.tapers.tapers import taper_of


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
