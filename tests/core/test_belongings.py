"""Machines and shelves: what may be typed, the sets, and what reckonings take."""

import unittest

from machinon.core.belongings import (
    SHELF_NAMES,
    STARTER_SETS,
    Belongings,
    item_of,
    typed_item,
    with_items,
    without_item,
)
from machinon.core.errors import BadInput
from machinon.core.gauge_stack import stack
from machinon.core.machines import MACHINE_KINDS, figure_forms, machine_of
from machinon.core.own_figures import own_question
from machinon.core.reckoning import reckonings
from machinon.draw.machine_drawing import OUTLINES, machine_drawing


def shelf(id: str, *sets: str) -> Belongings:
    made = Belongings(id, SHELF_NAMES[id])
    for one in STARTER_SETS:
        if one.key in sets:
            made = with_items(made, one.items())
    return made


class Shelves(unittest.TestCase):
    def test_every_set_goes_on_its_shelf_and_out_again_by_typing(self):
        for one in STARTER_SETS:
            for item in one.items():
                for inch in (False, True):
                    back = item_of(typed_item(item, inch), one.shelf, inch)
                    self.assertEqual((back.kind, back.name), (item.kind, item.name))
                    self.assertAlmostEqual(back.size, item.size, places=6)

    def test_forty_seven_slip_gauges_make_every_hundredth(self):
        slips = [one.size for one in shelf("holding", "slips").items]
        self.assertEqual(len(slips), 47)
        for target in (3.47, 38.95, 61.785, 99.99):
            found = stack(target, slips, 5, 0.0)
            self.assertAlmostEqual(sum(found), target, places=6)

    def test_sets_of_drills_have_what_their_name_says(self):
        fine = shelf("tools", "drills-fine").items
        self.assertEqual(len(fine), 121)
        self.assertEqual((fine[0].size, fine[-1].size), (1, 13))
        numbers = shelf("tools", "number-drills").items
        self.assertEqual(len(numbers), 80)
        self.assertAlmostEqual(numbers[-1].size, 0.228 * 25.4, places=3)  # #1

    def test_what_is_put_on_twice_is_there_once(self):
        twice = with_items(shelf("tools", "reamers"), shelf("tools", "reamers").items)
        self.assertEqual(len(twice.items), 7)
        self.assertEqual(len(without_item(twice, twice.items[0]).items), 6)

    def test_a_wrong_item_is_refused_by_its_entry(self):
        for typed, key in (
            ({"kind": "hammer", "size": "3"}, "kind"),
            ({"kind": "drill", "size": ""}, "size"),
            ({"kind": "drill", "size": "-3"}, "size"),
            ({"kind": "drill", "size": "3", "length": "50"}, "length"),
            ({"kind": "drill", "size": "3", "count": "1.5"}, "count"),
            ({"kind": "drill", "size": "3", "material": "cheese"}, "material"),
        ):
            with self.subTest(typed), self.assertRaises(BadInput) as refused:
                item_of(typed, "tools", False)
            self.assertEqual(refused.exception.key, key)
        with self.assertRaisesRegex(BadInput, "from small to large"):
            item_of({"kind": "collet", "size": "6", "second": "5"}, "holding", False)


class Machines(unittest.TestCase):
    def test_each_kind_has_figures_and_a_picture_to_scale(self):
        for kind in (*MACHINE_KINDS, "lathe"):
            forms = figure_forms(kind)
            self.assertGreater(len(forms), 4, kind)
            self.assertIn(kind, OUTLINES)
            drawing = machine_drawing(kind, {}, 600, 300)
            texts = [i.text for i in drawing.items if hasattr(i, "text")]
            self.assertIn("not said yet", texts, "an unknown figure is said to be")

    def test_figures_are_typed_in_any_unit_and_refused_by_entry(self):
        mill = machine_of(
            {
                "name": "Mill",
                "travel_x": "20in",
                "spindle": "mt3",
                "speeds": "510; 80, 200",
            },
            "mill",
            "mill",
            False,
        )
        self.assertEqual(mill.number("travel_x"), 508)
        self.assertEqual(mill.figures["spindle"], "MT3")
        self.assertEqual(mill.numbers("speeds"), (80, 200, 510))
        self.assertEqual(mill.number("travel_y"), 0, "what is not said is not known")
        for key, text in (("travel_x", "0"), ("spindle", "MT22"), ("tee_slots", "2.5")):
            with self.assertRaises(BadInput) as refused:
                machine_of({"name": "Mill", key: text}, "mill", "mill", False)
            self.assertEqual(refused.exception.key, key)


class OwnQuestions(unittest.TestCase):
    def test_the_shop_s_own_things_are_put_in(self):
        table = machine_of(
            {"name": "Table", "worm": "90", "plates": "15, 20"},
            "rotary table",
            "t",
            False,
        )
        shelves = {
            "holding": shelf("holding", "slips"),
            "tools": shelf("tools", "drills"),
        }
        known = reckonings()

        def ask(name):
            question = own_question(known[name], None, [table], shelves)
            known[name].answer(question)  # it can be answered
            return question

        self.assertEqual(
            (ask("dividing")["worm"], ask("dividing")["plates"]), (90, [15, 20])
        )
        self.assertEqual(len(ask("gauge-stack")["pieces"]), 47)
        self.assertIn("10.5", ask("tap-drill")["series"])
