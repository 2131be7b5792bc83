"""Writes docs/job.schema.json anew, after a change of a job's documents."""

import inspect
import json
import re
import typing
from pathlib import Path
from typing import Any

import msgspec
from msgspec import Struct

from machinon.store.job_json import JobFile

SCHEMA = Path(__file__).parents[1] / "docs" / "job.schema.json"


def job_schema() -> dict[str, Any]:
    """The JSON Schema of such a file; a field is described by the comment at it."""
    schema = msgspec.json.schema(JobFile)
    for document in _documents(JobFile):
        listed = schema["$defs"][document.__name__]["properties"]
        for field, comment in _comments(document).items():
            listed[field]["description"] = comment
    return schema


def _documents(kind: Any, found: frozenset[Any] = frozenset()) -> frozenset[Any]:
    """A kind of document, and those that it holds; found: known already."""
    if kind in found:
        return found
    inner = typing.get_args(kind)
    if isinstance(kind, type) and issubclass(kind, Struct):
        found |= {kind}
        inner = tuple(typing.get_type_hints(kind).values())
    for held in inner:
        found = _documents(held, found)
    return found


def _comments(document: type[Struct]) -> dict[str, str]:
    """What its source says over its fields and beside them."""
    found: dict[str, str] = {}
    above: list[str] = []
    for line in inspect.getsource(document).splitlines():
        code, _, comment = line.strip().partition("# ")
        field = re.match(r"(\w+): ", code)
        if field and (above or comment):
            found[field[1]] = " ".join([*above, *([comment] if comment else ())])
        above = [*above, comment] if comment and not code else []
    return found


if __name__ == "__main__":
    SCHEMA.write_text(json.dumps(job_schema(), indent=1, ensure_ascii=False) + "\n")
