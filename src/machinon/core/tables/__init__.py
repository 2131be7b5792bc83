"""The standards' tables: CSV files, a row a fact, each row with its source."""

import csv
import functools
from importlib import resources


@functools.cache
def rows(name: str) -> tuple[dict[str, str], ...]:
    """The rows of a table as printed text. Loaded on first use."""
    file = resources.files(__name__).joinpath(f"{name}.csv")
    with file.open(encoding="utf-8") as lines:
        return tuple(csv.DictReader(lines))
