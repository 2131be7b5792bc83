"""The working of an answer is true: each sum, read as written, gives its figure."""

import ast
import math
import random
import re
import unittest

from machinon.core.errors import BadInput
from machinon.core.quantity import COUNT, PERCENT
from machinon.core.reckoning import DRILLS, FLAG, OBJECT, TEXT, WorkingStep, reckonings

POWERS = {"²": "**2", "³": "**3", "⁴": "**4"}
NAMES = {
    "π": math.pi,
    "abs": abs,
    "root": math.sqrt,
    "ln": math.log,
    "sin": lambda a: math.sin(math.radians(a)),
    "cos": lambda a: math.cos(math.radians(a)),
    "tan": lambda a: math.tan(math.radians(a)),
    "cot": lambda a: 1 / math.tan(math.radians(a)),
    "atan": lambda a: math.degrees(math.atan(a)),
    "asin": lambda a: math.degrees(math.asin(a)),
    "acos": lambda a: math.degrees(math.acos(a)),
}
FUNCTIONS = "root|sin|cos|tan|cot|atan|asin|acos|ln"
NUMBER = re.compile(r"(?<![\w.])\d+(?:\.\d+)?(?:e[-+]?\d+)?")


def as_sum(text: str) -> str | None:
    """A line of working as Python reads it; None where it is in words."""
    text = text.replace("−", "-").replace("×", "*").replace("√", " root ")
    text = re.sub(r"\|([^|]+)\|", r"abs(\1)", text.replace("°", ""))
    text = re.sub(r"([\d.]+) %", r"(\1/100)", text)
    for sign, power in POWERS.items():
        text = text.replace(sign, power)
    # "sin 30", "root 2": a function of the one number after it
    text = re.sub(rf"\b({FUNCTIONS}) +([\d.]+(?:e-?\d+)?|π)", r"\1(\2)", text)
    text = re.sub(rf"\b({FUNCTIONS}) +\(", r"\1(", text)
    # "2 cos(30)", "2 (a + b)", "2π": what stands beside each other is multiplied
    text = re.sub(rf"(?<![\w.])([\d.]+) *(?=\(|π|abs|(?:{FUNCTIONS})\()", r"\1*", text)
    text = re.sub(rf"\) +(?=\(|π|(?:{FUNCTIONS})\()", r")*", text)
    try:
        tree = ast.parse(text.strip(), mode="eval")
    except SyntaxError:
        return None
    names = {node.id for node in ast.walk(tree) if isinstance(node, ast.Name)}
    return text.strip() if names <= NAMES.keys() else None


def worth(text: str) -> float:
    return float(eval(text, {"__builtins__": {}}, NAMES))


def rounding(text: str) -> float:
    """By how much the sum may be off, as its numbers are rounded to what is shown."""
    whole, off = worth(text), 0.0
    for found in NUMBER.finditer(text):
        number = found.group()
        digits = number.split("e")[0]
        if "." in digits:
            half = 0.5 * 10.0 ** -len(digits.partition(".")[2])
        else:  # noughts after the point are not written
            half = 0.5 * 10.0 ** (len(digits) - 4)
        if "e" in number:
            half *= 10.0 ** int(number.split("e")[1])
        for moved in (float(number) + half, float(number) - half):
            try:
                there = worth(text[: found.start()] + repr(moved) + text[found.end() :])
            except (ValueError, ZeroDivisionError):
                continue
            off += abs(there - whole) / 2
    return off


def is_true(step: WorkingStep) -> bool | None:
    """Whether a line's sum gives its figure; None where it is in words."""
    text = as_sum(step.expression)
    if text is None:
        return None
    value = step.value / 100 if step.kind is PERCENT else step.value
    try:
        found = worth(text)
    except (ValueError, ZeroDivisionError):
        return False
    return abs(found - value) <= 1.05 * rounding(text) + 1e-9 + 1e-6 * abs(value)


def nearby(value, chance):
    """A reckoning's usual inputs, each size a little larger or smaller."""
    kinds = {given.key: given.kind for given in value.inputs}
    return {
        key: round(value * chance.uniform(0.75, 1.3), 3)
        if type(value) in (int, float) and kinds[key] is not COUNT
        else value
        for key, value in value.usual.items()
    }


def questions(reckoning, chance):
    """Ways to ask a reckoning: other sizes, each choice, each entry one may leave."""
    yield reckoning.usual
    for _ in range(12):
        yield nearby(reckoning, chance)
    for given in reckoning.inputs:
        if given.many or given.columns:
            continue
        if given.choices:
            others = list(given.choices)
        elif given.kind is FLAG:
            others = [True, False]
        elif not given.required and given.kind not in (TEXT, OBJECT, DRILLS):
            others = [0.01, 0.5, 2, 8, 30, 120]
        else:
            continue
        for other in others:
            yield {**nearby(reckoning, chance), given.key: other}


class Working(unittest.TestCase):
    def test_sums_are_read_as_a_machinist_reads_them(self):
        for text, value in (
            ("2 √(10² − 8²)", 12.0),
            ("√2 × 10", 14.142135623730951),
            ("|50 − 44| / 2 / 1", 3.0),
            ("8 − 1.6 × 75 %", 6.8),
            ("1.5 / (2 cos 60°)", 1.5),
            ("10 × (1 + cot 45°)", 20.0),
            ("π/4 × 20² × 100", 31415.926535897932),
            ("2 × atan(1 / 1)", 90.0),
        ):
            with self.subTest(text):
                self.assertAlmostEqual(worth(as_sum(text)), value)
        for words in ("mean of 3", "middle of the band", "IT7 at 46 mm"):
            self.assertIsNone(as_sum(words))

    def test_what_is_counted_is_whole_and_all_else_is_said_in_its_digits(self):
        """40 turns for 7 divisions are 5.71 each, and not 6."""
        for reckoning in reckonings().values():
            for step in reckoning.answer(reckoning.usual).working:
                if step.kind is COUNT:
                    with self.subTest(reckoning.name, step=step.what):
                        self.assertEqual(step.value, round(step.value))

    def test_every_sum_that_is_shown_gives_its_figure(self):
        chance, sums = random.Random(8), 0
        for reckoning in reckonings().values():
            for inputs in questions(reckoning, chance):
                try:
                    answer = reckoning.answer(inputs)
                except BadInput:
                    continue  # outside what the shop allows
                for step in answer.working:
                    true = is_true(step)
                    sums += true is not None
                    self.assertIsNot(
                        true,
                        False,
                        f"{reckoning.name}: {step.what} = {step.expression} is not "
                        f"{step.value} with {inputs}",
                    )
        self.assertGreater(sums, 1500)
