"""The rules of sizes: expressions over other sizes, their order, and loops.

An expression is what a person types after "=": numbers, sizes and mates by name,
`+ - * /`, brackets, and a few functions. Lengths may carry their unit.

>>> Expression("= bore.diameter + 2*3mm").value({"bore.diameter": 20.0})
26.0
"""

import ast
import functools
import math
import re
from collections.abc import Callable, Iterable, Mapping

from msgspec import Struct

from machinon.core.errors import BadInput
from machinon.core.piece.round_sizes import INCH_ROUNDINGS, ROUNDINGS
from machinon.core.quantity import RATIOS, parse

FUNCTIONS: Mapping[str, Callable[..., float]] = {
    "min": min,
    "max": max,
    "sqrt": math.sqrt,
    **RATIOS,
    **ROUNDINGS,
}
INCH_FUNCTIONS: Mapping[str, Callable[..., float]] = {**FUNCTIONS, **INCH_ROUNDINGS}
LONGEST = 200  # signs of an expression
_UNIT = re.compile(r"(?<![\w.])(\d+(?:\.\d+)?)\s*(mm|cm|in|thou|um|µm)\b")
_SIGNS: Mapping[type, Callable[[float, float], float]] = {
    ast.Add: lambda a, b: a + b,
    ast.Sub: lambda a, b: a - b,
    ast.Mult: lambda a, b: a * b,
    ast.Div: lambda a, b: a / b,
}
ALLOWED = (
    "An expression has numbers, sizes by name, + - * / and brackets, and "
    f"{', '.join(FUNCTIONS)}: = bore.diameter + 2*wall."
)


class Expression(Struct, frozen=True, dict=True):
    """An expression as it was typed; `key` is where a refusal points."""

    text: str
    key: str = "link"

    @property
    def _tree(self) -> ast.expr:
        return _parsed(self.text, self.key)

    @property
    def names(self) -> tuple[str, ...]:
        """The sizes and mates it speaks of, each once, in order."""
        return _names(self.text, self.key)

    def value(self, known: Mapping[str, float], inch: bool = False) -> float:
        """Its value. Raises BadInput for a name that is not known.

        inch: it rounds to inches where it says a step in millimetres.
        """
        functions = INCH_FUNCTIONS if inch else FUNCTIONS
        try:
            found = self._work(self._tree, known, functions)
        except ZeroDivisionError:
            raise BadInput(self.key, f"{self.text}: it divides by zero.") from None
        except (TypeError, ValueError, OverflowError) as error:
            raise BadInput(self.key, f"{self.text}: {error}. {ALLOWED}") from None
        if not math.isfinite(found):
            raise BadInput(self.key, f"{self.text} is no finite size.")
        return found

    def _work(
        self,
        node: ast.expr,
        known: Mapping[str, float],
        functions: Mapping[str, Callable[..., float]],
    ) -> float:
        name = _name(node)
        if name:
            if name not in known:
                raise BadInput(
                    self.key, f"{name} is no size, mate or fit of this piece."
                )
            return float(known[name])
        match node:
            case ast.Constant(value=int() | float() as value):
                return float(value)
            case ast.BinOp(left=left, op=op, right=right) if type(op) in _SIGNS:
                return _SIGNS[type(op)](
                    self._work(left, known, functions),
                    self._work(right, known, functions),
                )
            case ast.UnaryOp(op=ast.USub(), operand=operand):
                return -self._work(operand, known, functions)
            case ast.Call(func=ast.Name(id=word), args=parts, keywords=[]) if (
                word in FUNCTIONS
            ):
                values = (self._work(part, known, functions) for part in parts)
                return functions[word](*values)
        raise BadInput(self.key, f"{self.text} cannot be read. {ALLOWED}")


@functools.lru_cache(maxsize=1024)
def _parsed(text: str, key: str) -> ast.expr:
    plain = text.strip().removeprefix("=").strip()
    plain = plain.replace("×", "*").replace("−", "-")
    if not plain or len(plain) > LONGEST:
        raise BadInput(key, f"{text[:LONGEST]!r} is no expression. {ALLOWED}")
    plain = _UNIT.sub(lambda found: repr(parse(found.group(0), key=key)), plain)
    try:
        return ast.parse(plain, mode="eval").body
    except (SyntaxError, ValueError, RecursionError, MemoryError):
        raise BadInput(key, f"{text} cannot be read. {ALLOWED}") from None


@functools.lru_cache(maxsize=1024)
def _names(text: str, key: str) -> tuple[str, ...]:
    found = (_name(node) for node in _walk(_parsed(text, key)))
    return tuple(dict.fromkeys(name for name in found if name))


def _name(node: ast.AST) -> str:
    """`bore.diameter` as one name; empty for anything else."""
    match node:
        case ast.Attribute(value=ast.Name(id=first), attr=last):
            return f"{first}.{last}"
        case ast.Name(id=word) if word not in FUNCTIONS:
            return word
    return ""


def _walk(node: ast.AST) -> Iterable[ast.AST]:
    """Every node, the name of a size as one."""
    yield node
    if not _name(node):
        for child in ast.iter_child_nodes(node):
            yield from _walk(child)


def in_order(wanted: Mapping[str, Iterable[str]]) -> tuple[str, ...]:
    """Names in an order in which each comes after those it rests on.

    wanted: by name, the names it rests on; those not among them are known. Raises
    BadInput on the first of a loop, naming all of it.
    """
    done: dict[str, None] = {}
    under_way: list[str] = []

    def visit(name: str) -> None:
        if name in done or name not in wanted:
            return
        if name in under_way:
            loop = [*under_way[under_way.index(name) :], name]
            raise BadInput(
                name, f"Each depends on the next: {', '.join(loop)}. Type one of them."
            )
        under_way.append(name)
        for other in wanted[name]:
            visit(other)
        under_way.pop()
        done[name] = None

    for name in wanted:
        visit(name)
    return tuple(done)
