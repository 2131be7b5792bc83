"""`machinon piece`: any family from the command line, told, as JSON, or written."""

import functools
import json
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import Any

import msgspec

from machinon.commandline import error_object
from machinon.core.errors import BadInput, MachinonError
from machinon.core.families import families, family_of
from machinon.core.in_inches import in_inches
from machinon.core.materials import material
from machinon.core.piece.family import Family
from machinon.core.piece.made import Known, Made, make
from machinon.core.piece.stock import stock_said
from machinon.core.quantity import LENGTH, length_text, text_of
from machinon.core.reckoning import FLAG, TEXT
from machinon.core.route.duration import minutes_of
from machinon.core.route.machine_checks import along_the_route
from machinon.core.route.own_hardware import own_hardware
from machinon.core.route.steps import (
    HoldingTold,
    StepTold,
    route_in_inches,
    route_told,
)

USAGE = """\
machinon piece                             all families, a line each
machinon piece FAMILY --help               mates, sizes, fits, checks
machinon piece FAMILY key=value ...        a piece with its sizes, checks and route
  role.surface=VALUE                         a mate's measured size
  fit.SLOT=WISH                              how a fit shall go
  feature.measure=VALUE or "= EXPRESSION"    a size
  count=NUMBER                               how many alike
  --json     one JSON object instead
  --inch     bare lengths are inches
  --round-inch   what follows a rule is round in inches, with inch screws
  --svg F, --pdf F, --png F, --dxf F         its sheet
  --stl F, --3mf F                           its solid
  --holes F                                  its holes as CSV
  --template F                               its faces at 1:1 to mark them out, PDF
  --jig F                                    a jig to drill them through, STL
"""
WRITERS = ("svg", "pdf", "png", "dxf", "stl", "3mf", "holes", "template", "jig")


def piece_command(arguments: Sequence[str]) -> int:
    """`machinon piece ...`. Returns the exit code: 0, or 2 for bad input."""
    as_json = "--json" in arguments
    try:
        flags, files, words = _taken_apart(arguments)
        if not words:
            print(USAGE.rstrip() if "--help" in flags else _listed())
            return 0
        family = family_of(words[0])
        if "--help" in flags:
            print(_help(family))
            return 0
        given = _given(words[1:])
        made = make(family, given, "--inch" in flags, "--round-inch" in flags)
        for kind, path in files.items():
            from machinon.desk.piece_paper import write_piece

            write_piece(made, kind, path, "--inch" in flags)
    except BadInput as error:
        if "--inch" in arguments:
            told = in_inches(error.message, fine=True, short=True)
            error = BadInput(error.key, told)
        if as_json:
            print(json.dumps(error_object(error), ensure_ascii=False))
        else:
            print(f"{error.key}: {error.message}", file=sys.stderr)
        return 2
    except MachinonError as error:
        print(error, file=sys.stderr)
        return 2
    if as_json:
        print(json.dumps(as_object(made), ensure_ascii=False))
    else:
        print(_readable(made, "--inch" in flags))
    return 0


def _taken_apart(
    arguments: Sequence[str],
) -> tuple[set[str], dict[str, Path], list[str]]:
    """Flags, files to write by their kind, and the rest. Raises BadInput."""
    flags: set[str] = set()
    files: dict[str, Path] = {}
    words: list[str] = []
    rest = iter(arguments)
    for argument in rest:
        if argument in ("--json", "--inch", "--round-inch", "--help"):
            flags.add(argument)
        elif argument.startswith("--"):
            kind = argument[2:]
            path = next(rest, "")
            if kind not in WRITERS or not path or path.startswith("--"):
                raise BadInput(argument, "That option is not known.\n" + USAGE.rstrip())
            files[kind] = Path(path)
        else:
            words.append(argument)
    return flags, files, words


def _given(pairs: Sequence[str]) -> dict[str, str]:
    given: dict[str, str] = {}
    for pair in pairs:
        key, equals, value = pair.partition("=")
        if not equals:
            raise BadInput(pair, "Write what is given as key=value.")
        if key in given:
            raise BadInput(key, f"{key} is given twice.")
        given[key] = value
    return given


def as_object(made: Made) -> dict[str, Any]:
    """A piece as the contract's JSON object."""
    metal = material(made.material)
    route = route_told(made)
    volume = made.body.volume
    return {
        "family": made.family.key,
        "sizes": {key: _size(known) for key, known in made.sizes.items()},
        "features": [
            {"name": feature.name, "kind": feature.kind, **_plain(feature)}
            for feature in made.body.features
        ],
        "faces": {
            name: {"kind": face.kind, "inside": face.inside, **face.at}
            for name, face in made.body.faces.items()
        },
        "fits": [
            {
                "slot": band.slot.key,
                "size": band.slot.rules,
                "wish": band.want,
                "lower": band.lower,
                "upper": band.upper,
            }
            for band in made.fits
        ],
        "checks": [
            {
                "key": check.key,
                "place": check.place,
                "passed": check.passed,
                "grave": check.grave,
                "have": check.have,
                "need": check.need,
                "says": check.says,
            }
            for check in (*made.checks, *along_the_route(route))
        ],
        "route": [_holding(holding) for holding in route],
        "hardware": [msgspec.to_builtins(hardware) for hardware in made.hardware],
        "material": made.material,
        "stock": {
            "kind": made.body.stock.__struct_config__.tag,
            "says": made.body.stock.says,
            **_plain(made.body.stock),
        },
        "volume": volume,
        "mass": volume * metal.density * 1e-9,
        "removed": made.body.stock_volume - volume,
    }


def _plain(value: msgspec.Struct) -> dict[str, Any]:
    """A feature's or stock's own sizes; its name and kind stand beside them."""
    found: dict[str, Any] = msgspec.to_builtins(value)
    return {key: value for key, value in found.items() if key not in ("name", "type")}


def _size(known: Known) -> dict[str, Any]:
    unit = known.size.kind.unit if known.size.kind is not TEXT else ""
    return {
        "value": known.value,
        "unit": unit,
        "by": known.by,
        "because": known.because,
    }


def _holding(holding: HoldingTold) -> dict[str, Any]:
    return {
        "holding": holding.title,
        "machine": holding.machine,
        "reason": holding.reason,
        "steps": [_step(step) for step in holding.steps],
    }


def _step(step: StepTold) -> dict[str, Any]:
    return {
        "key": step.key,
        "operation": step.operation,
        "features": list(step.features),
        "title": step.title,
        "tool": step.tool,
        "drill": step.drill or None,
        "tap": step.tap or None,
        "rpm": round(step.rpm) or None,
        "minutes": minutes_of(step),
        "caution": step.caution,
        "hold": step.hold,
    }


def _listed() -> str:
    return "\n".join(
        f"  {family.key:<18} {family.purpose}" for family in families().values()
    )


def _help(family: Family) -> str:
    out = [
        f"{family.key}: {family.purpose}",
        f"Without mates it is built {family.example}.",
    ]
    if family.mates:
        out += ["", "Mates"]
    for mate in family.mates:
        for mate_size in mate.sizes:
            key = f"{mate.role}.{mate_size.key}"
            out.append(
                f"  {key:<24} {mate.words}: {mate_size.words}; {mate_size.usual}"
            )
    out += ["", "Sizes"]
    for size in family.sizes:
        kind = size.kind.unit or size.kind.name
        allowed = (
            "one of " + ", ".join(size.choices)
            if size.choices
            else ""
            if size.kind in (TEXT, FLAG)
            else f"from {size.low:g} to {size.high:g}"
        )
        rule = size.why or (size.rule if isinstance(size.rule, str) else "its standard")
        slot = next((f for f in family.slots if f.rules == size.key), None)
        if slot is not None:
            rule = f"by the fit {slot.key}"
        parts = "; ".join(
            part for part in (f"{size.words} ({kind})", rule, allowed) if part
        )
        out.append(f"  {size.key:<24} {parts}")
    if family.parts:
        named = " ".join(name.rstrip("0123456789") for name in family.names)
        begins = f'Parts: it begins as parts="{named}", each as often as it is named'
        out += ["", begins]
    for part in family.parts:
        measures = ", ".join(size.key for size in part.sizes)
        out.append(f"  {part.key:<24} {part.words}: {measures}")
    if family.fits:
        out += ["", "Fits"]
    for slot in family.fits:
        key = f"fit.{slot.key}"
        out.append(f"  {key:<24} {slot.words}; {slot.want}, rules {slot.rules}")
    out += ["", "Checks"]
    out += [
        f"  {check.key:<24} {check.says.split(':')[0]}"
        for check in make(family, {}).checks
    ]
    return "\n".join(out)


def _readable(made: Made, inch: bool) -> str:
    stock = stock_said(made.body.stock, inch)
    out = [f"{made.title}, {made.material}, from {stock}"]
    in_unit = functools.partial(in_inches, fine=True) if inch else str
    for key, known in made.sizes.items():
        value = known.value
        if isinstance(value, bool):
            said = "yes" if value else "no"
        elif isinstance(value, str):
            said = known.size.word_again(value, inch)
        elif known.size.kind is LENGTH:
            said = length_text(value, 0.001, inch)
        else:
            said = text_of(float(value), known.size.kind, inch)
        because = in_unit(known.because)
        if known.ends is not None:
            because += f", {_band(*known.ends, inch)}"
        out.append(f"  {key:<22} {said:<16} {known.by}: {because}")
    for band in made.fits:
        out.append(f"Fit {band.slot.key}: {_band(band.lower, band.upper, inch)}")
    out += [f"With it: {says}" for says in own_hardware(made, None, inch)]
    route = route_told(made)
    for check in (*made.checks, *along_the_route(route)):
        mark = "good" if check.passed else "STOP" if check.grave else "mind"
        out.append(f"  {mark}  {check.says_in_inches if inch else check.says}")
    for holding in route_in_inches(route) if inch else route:
        out.append(f"{holding.title} ({holding.machine}): {holding.reason}")
        for step in holding.steps:
            speed = f", {step.rpm:.0f} rpm" if step.rpm else ""
            out.append(f"  {step.title}; {step.tool}{speed}, {minutes_of(step):g} min")
            if step.caution:
                out.append(f"      Caution: {step.caution}")
    return "\n".join(out)


def _band(lower: float | None, upper: float | None, inch: bool) -> str:
    if lower is None or upper is None:
        return "nothing is left of its band"
    return f"{length_text(lower, 0.001, inch)} to {length_text(upper, 0.001, inch)}"
