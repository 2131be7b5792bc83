import unittest

from machinon.core.errors import BadInput
from machinon.core.shop.lessons import lesson_said, lessons_at
from machinon.core.shop.things import Lesson, Shop


def lesson(says="Broke.", family="t-nut-strip", step="tap-thread", **more) -> Lesson:
    said = {"operation": "tap", "tool": "tap M10 × 1.5", "job": "T-nuts", "at": ""}
    return Lesson(says, family, step, **said | more)


class WhatWentWrongBefore(unittest.TestCase):
    def at(self, *lessons, family="keeper", step="tap-hole1", operation="tap",
           tool="tap M10 × 1.5"):  # fmt: skip
        found = lessons_at(Shop(lessons=lessons), family, step, operation, tool)
        return [lesson.says for lesson in found]

    def test_a_broken_tap_is_remembered_wherever_that_tap_is_used(self):
        self.assertEqual(self.at(lesson()), ["Broke."])
        self.assertEqual(self.at(lesson(), tool="tap M8 × 1.25"), [])

    def test_a_wrong_shoulder_only_at_the_step_where_it_happened(self):
        short = lesson("Short.", "knob", "turn-body", operation="turn", tool="knife")
        at = {"operation": "turn", "tool": "knife"}
        self.assertEqual(self.at(short, family="stud", step="turn-end", **at), [])
        found = self.at(short, family="knob", step="turn-body", **at)
        self.assertEqual(found, ["Short."])

    def test_the_newest_two_are_said(self):
        three = (lesson("First."), lesson("Second."), lesson("Third."))
        self.assertEqual(self.at(*three), ["Third.", "Second."])

    def test_it_is_a_sentence_and_no_essay(self):
        self.assertEqual(lesson_said("  Chips\n packed. "), "Chips packed.")
        for typed in (" ", "so " * 100):
            with self.assertRaises(BadInput):
                lesson_said(typed)
