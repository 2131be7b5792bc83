"""The usual question of a reckoning as an inch shop would ask it.

A reckoning declares its usual question in millimetres, and what of it is another thing
in an inch shop, as a diametral pitch is for a module; the rest becomes round inches.
"""

from collections.abc import Mapping
from typing import Any

from machinon.core.piece.round_sizes import inch_screw, round_inches, to_nearest
from machinon.core.quantity import FEED, INCH, LENGTH, Kind
from machinon.core.reckoning import TEXT, Reckoning

CLOSE = 1.2  # mm: under it a size is said to one figure, as a reading is
LONG = 75.0  # mm: from it on a size is said to half an inch


def inch_question(reckoning: Reckoning) -> dict[str, Any]:
    """Its usual question in round inches, lengths in mm.

    >>> from machinon.core.reckoning import reckonings
    >>> inch_question(reckonings()["nut"])
    {'thread': '3/8-16 UNC'}
    """
    inputs = {asked.key: asked for asked in reckoning.inputs}
    rounded = {
        key: _in_inches(value, inputs[key].kind, dict(inputs[key].columns))
        for key, value in reckoning.usual.items()
    }
    asked = {**rounded, **reckoning.usual_inch}
    return {key: value for key, value in asked.items() if value is not None}


def _in_inches(value: Any, kind: Kind, columns: Mapping[str, Kind]) -> Any:
    if isinstance(value, list | tuple):
        return [_in_inches(part, kind, columns) for part in value]
    if isinstance(value, dict):
        return {k: _in_inches(v, columns.get(k, kind), {}) for k, v in value.items()}
    if kind is TEXT and isinstance(value, str):
        return inch_screw(value)
    if kind in (LENGTH, FEED) and isinstance(value, int | float) and value:
        return _rounded(value)
    return value


def _rounded(size: float) -> float:
    """Round inches; what stands beside a round size stands beside that one too."""
    if abs(size) < CLOSE:
        return _one_figure(size)
    whole = round(2 * size) / 2
    if whole < LONG:
        near = round_inches(whole, 0.0, LONG)
    else:
        near = to_nearest(whole, INCH / 2)
    return near + _one_figure(size - whole)


def _one_figure(size: float) -> float:
    return float(f"{size / INCH:.1g}") * INCH if abs(size) > 1e-9 else 0.0
