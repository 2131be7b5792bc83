"""The command line beside the desk: reckonings by name, one at a time or streamed."""

import json
import math
import sys
import traceback
from collections.abc import Callable, Iterable, Sequence
from typing import Any, TextIO

from machinon.core.errors import BadInput
from machinon.core.quantity import INCH, LENGTH, Kind, length_text, other_text, text_of
from machinon.core.reckoning import (
    Answer,
    Reckoning,
    Result,
    reckon,
    reckonings,
)
from machinon.draw.answer_rows import columns, in_rows

Answering = Callable[[dict[str, Any]], dict[str, Any]]

USAGE = """\
machinon reckon                      list all reckonings
machinon reckon NAME --help          its inputs, results and source
machinon reckon NAME key=value ...   an answer with its working
  --json     one JSON object instead
  --inch     bare lengths are inches, feeds in a turn, surface speeds ft/min
machinon reckon --stream             JSON lines in, one JSON line out for each
machinon coach --stream              JSON lines: where a cut stands, what to do next
machinon ask WORDS... [--inch] [--json]   a question as one would say it
"""


def reckon_command(arguments: Sequence[str]) -> int:
    """`machinon reckon ...`. Returns the exit code: 0, or 2 for bad input."""
    flags = {argument for argument in arguments if argument.startswith("--")}
    words = [argument for argument in arguments if not argument.startswith("--")]
    unknown = flags - {"--json", "--inch", "--stream", "--help"}
    as_json = "--json" in flags
    try:
        if unknown:
            raise BadInput(
                sorted(unknown)[0], "That option is not known.\n" + USAGE.rstrip()
            )
        if "--stream" in flags:
            return stream(sys.stdin, sys.stdout, reckoned)
        if not words:
            print(USAGE if "--help" in flags else _listed())
            return 0
        name, pairs = words[0], words[1:]
        if "--help" in flags:
            print(_help(_find(name)))
            return 0
        answer = reckon(name, _inputs(name, pairs), "--inch" in flags)
    except BadInput as error:
        if as_json:
            print(json.dumps(error_object(error), ensure_ascii=False))
        else:
            print(f"{error.key}: {error.message}", file=sys.stderr)
        return 2
    if as_json:
        print(json.dumps(answer.as_json(), ensure_ascii=False, default=list))
    else:
        print(readable(answer, "--inch" in flags))
    return 0


def coach_command(arguments: Sequence[str]) -> int:
    """`machinon coach --stream`. Returns the exit code: 0, or 2 for bad input."""
    from machinon.core.cutting.coaching import advice_for

    if list(arguments) == ["--stream"]:
        return stream(sys.stdin, sys.stdout, advice_for)
    asked = list(arguments) == ["--help"]
    print(USAGE.rstrip(), file=sys.stdout if asked else sys.stderr)
    return 0 if asked else 2


def ask_command(arguments: Sequence[str]) -> int:
    """`machinon ask ...`. Returns the exit code: 0, or 2 for what is not answered."""
    from machinon.core.ask.asking import found_with, understand

    flags = {
        argument for argument in arguments if argument in ("--json", "--inch", "--help")
    }
    words = [argument for argument in arguments if argument not in flags]
    if "--help" in flags or not words:
        print(USAGE.rstrip(), file=sys.stdout if "--help" in flags else sys.stderr)
        return 0 if "--help" in flags else 2
    inch = "--inch" in flags
    told = understand(" ".join(words), inch)
    answer = told.answer
    if "--json" in flags:
        said = {
            "understood": told.understood,
            "reckoner": told.found.reckoning.name if told.found else "",
            "inputs": dict(told.found.inputs) if told.found else {},
            "sentence": told.sentence,
            "results": dict(answer.results) if answer else {},
            "cautions": list(answer.cautions) if answer else [],
            "unused": list(told.unused),
            "offered": [] if answer else list(told.offered),
        }
        print(json.dumps(said, ensure_ascii=False, default=list))
        return 0 if answer else 2
    if answer is None:
        print(told.sentence or "That was not understood.", file=sys.stderr)
        print("Try: " + " · ".join(told.offered), file=sys.stderr)
        for found in found_with(told)[:2]:
            known = found.reckoning
            print(f"Or: machinon reckon {known.name}  {known.title}", file=sys.stderr)
        return 2
    print(told.sentence)
    kinds = {result.key: result.kind for result in _find(answer.reckoner).results}
    for key, places in answer.results.items():
        if isinstance(places, list) and places and isinstance(places[0], list):
            print(in_rows(places, kinds[key], inch))
    print(f"Understood: {told.understood}")
    for caution in answer.cautions:
        print(f"Caution: {caution}")
    if told.unused:
        print("Not understood: " + ", ".join(told.unused))
    return 0


def _find(name: str) -> Reckoning:
    known = reckonings()
    if name not in known:
        reckon(name, {})  # refuses, offering the nearest name
    return known[name]


def _inputs(name: str, pairs: Iterable[str]) -> dict[str, str]:
    reckoning = _find(name)
    given: dict[str, str] = {}
    for pair in pairs:
        key, equals, value = pair.partition("=")
        if not equals:
            keys = ", ".join(given.key for given in reckoning.inputs)
            raise BadInput(pair, f"Write inputs as key=value; {name} takes {keys}.")
        if key in given:
            raise BadInput(key, f"{key} is given twice.")
        given[key] = value
    return given


def error_object(error: BadInput) -> dict[str, Any]:
    """The refusal as the contract's JSON object."""
    return {"error": {"input": error.key, "message": error.message}}


def stream(lines: TextIO, out: TextIO, answer: Answering) -> int:
    """Answer each line of JSON with one line; a bad one with an error line.

    An `id` in a request comes back with its answer.
    """
    for line in lines:
        if line.strip():
            out.write(_written(_answered(line, answer)) + "\n")
            out.flush()
    return 0


def _answered(line: str, answer: Answering) -> dict[str, Any]:
    request: Any = None
    try:
        request = json.loads(line)
        if not isinstance(request, dict):
            raise BadInput("", "A request is one JSON object on one line.")
        out = answer(request)
    except BadInput as error:
        out = error_object(error)
    except (ValueError, RecursionError) as error:
        if request is not None:  # the line was read: the fault is ours
            out = _our_fault(error)
        else:
            out = error_object(BadInput("", "That line is no JSON object."))
    except Exception as error:
        out = _our_fault(error)
    if isinstance(request, dict) and "id" in request:
        out = {**out, "id": request["id"]}
    return out


def _our_fault(error: Exception) -> dict[str, Any]:
    """A fault of ours as an answer: one line never ends the stream."""
    print("".join(traceback.format_exception(error)), file=sys.stderr)
    return error_object(
        BadInput("", "That could not be worked out: a fault of Machinon's own.")
    )


def _written(said: dict[str, Any]) -> str:
    """An answer as one line that any terminal or file can hold."""
    text = json.dumps(said, ensure_ascii=False, default=list, allow_nan=False)
    try:
        text.encode()
    except UnicodeEncodeError:  # half of a pair of signs, as an id
        text = json.dumps(said, default=list)
    return text


def reckoned(request: dict[str, Any]) -> dict[str, Any]:
    """Answer one request of `reckon --stream`. Raises BadInput on its input."""
    name, inputs = request.get("reckoner"), request.get("inputs", {})
    if not isinstance(name, str):
        raise BadInput("reckoner", 'Say which: {"reckoner": "iso-limits", …}.')
    if not isinstance(inputs, dict):
        raise BadInput("inputs", "Inputs are a JSON object of keys and values.")
    return reckon(name, inputs).as_json()


def _listed() -> str:
    out: list[str] = []
    group = ""
    for reckoning in reckonings().values():
        if reckoning.group != group:
            group = reckoning.group
            out += ["", group] if out else [group]
        out.append(f"  {reckoning.name:<22} {reckoning.title}")
    return "\n".join(out)


def _unit(kind: Kind) -> str:
    return kind.unit or kind.name


def _help(reckoning: Reckoning) -> str:
    out = [f"{reckoning.name}: {reckoning.title}", "", "Inputs"]
    for given in reckoning.inputs:
        allowed = []
        if given.choices:
            allowed.append("one of " + ", ".join(given.choices))
        if given.above is not None:
            allowed.append(f"above {given.above:g}")
        if given.low is not None:
            allowed.append(f"from {given.low:g}")
        if given.high is not None:
            allowed.append(f"up to {given.high:g}")
        if given.many:
            allowed.append("a list")
        if given.required:
            allowed.append("needed")
        elif given.default is None:
            allowed.append("may be left out")
        else:
            allowed.append(f"{given.default} if left out")
        if given.inch_default is not None:
            allowed.append(f"{given.inch_default / INCH:g} in with --inch")
        out.append(
            f"  {given.key:<24} {given.meaning} ({_unit(given.kind)}); "
            + ", ".join(allowed)
        )
    out += [f"  {group.words}." for group in reckoning.given]
    out += ["", "Results"]
    out += [f"  {r.key:<24} {r.meaning} ({_unit(r.kind)})" for r in reckoning.results]
    out += ["", "Source", *(f"  {source}" for source in reckoning.sources)]
    return "\n".join(out)


def readable(answer: Answer, inch: bool = False) -> str:
    """An answer as a person reads it: results, working, notes, sources.

    inch: the unit of lengths in lists and tables, which have one only.
    """
    results = {result.key: result for result in reckonings()[answer.reckoner].results}
    out = [answer.title]
    for key, value in answer.results.items():
        out += _result(results[key], value, inch)
    if answer.working:
        out.append("Working")
        out += [
            f"  {step.what}: {step.expression} = {_said(step.value, step.kind)}"
            for step in answer.working
        ]
    out += [f"Caution: {text}" for text in answer.cautions]
    out += [f"Note: {text}" for text in answer.notes]
    out += [f"Source: {text}" for text in answer.sources]
    return "\n".join(out)


def _result(result: Result, value: Any, inch: bool) -> list[str]:
    """The lines of a result; none for one that says nothing."""
    if value in ("", None, []):
        return []
    if not isinstance(value, list | tuple):
        return [f"  {result.words:<28} {_said(value, result.kind)}"]
    if not isinstance(value[0], dict):
        unit = f" ({'in' if inch else 'mm'})" if result.kind is LENGTH else ""
        first, *more = in_rows(list(value), result.kind, inch).split("\n")
        lines = [f"  {result.words + unit:<28} {first}"]
        return lines + [f"{'':<31}{line}" for line in more]
    told = columns(result, value, inch)
    rows = zip(*told, strict=True)
    wide = [max(map(len, column)) for column in told]
    table = [
        "   ".join(f"{text:<{w}}" for text, w in zip(row, wide, strict=True)).rstrip()
        for row in rows
    ]
    return [f"  {result.words}", *(f"    {line}" for line in table)]


def _said(value: Any, kind: Kind) -> str:
    if value is None:
        return "–"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, int | float) and math.isfinite(value):
        if kind is LENGTH:
            inch = length_text(value, 0.0001, inch=True)
            return f"{length_text(value, 0.0001)}  ({inch})"
        other = other_text(value, kind)
        return text_of(float(value), kind) + (f"  ({other})" if other else "")
    if isinstance(value, list | tuple):
        return "; ".join(_said(item, kind) for item in value)
    if isinstance(value, dict):
        return ", ".join(f"{key} {_said(item, kind)}" for key, item in value.items())
    return str(value)
