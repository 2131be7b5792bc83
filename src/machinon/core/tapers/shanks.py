"""What stands behind the taper of a shank, by its standard."""

import functools
from collections.abc import Mapping

from msgspec import Struct

from machinon.core.tables import rows

FREE = 0.1  # mm: a round that much under its bore is not guided by it


class ShankEnd(Struct, frozen=True):
    """What a shank has behind its taper, and how it stands in its socket, mm: the tang
    that a drift presses on, the thread that a draw bar screws into, the round that
    guides a steep taper. Noughts for what its standard has none of."""

    across: float
    diameter: float
    length: float
    reach: float  # from the taper's gauge line to the end of the tang
    off: float  # from the socket's face to what stands in front of it
    draw: str = ""  # the draw bar's thread; empty where the standard has none
    guide: float = 0.0  # diameter of the round behind a taper that lets go by itself
    guide_length: float = 0.0
    bore: float = 0.0  # of the spindle, that the guide goes into
    source: str = ""

    @property
    def guides(self) -> bool:
        """Whether the bore guides the round behind the taper, which else stands free
        in it."""
        return 0 < self.bore - self.guide < FREE


_LENGTHS = set(ShankEnd.__struct_fields__) - {"draw", "source"}


@functools.cache
def shank_ends() -> Mapping[str, ShankEnd]:
    """By the name of the taper, where its standard says."""
    return {
        r["taper"]: ShankEnd(
            **{key: float(r[key] or 0) for key in r if key in _LENGTHS},
            draw=r["draw"],
            source=r["source"],
        )
        for r in rows("taper_shanks")
    }
