"""Machines and shelves: what may be typed, the sets, and what reckonings take."""

import unittest

from machinon.core.ask.asking import found_with, understand
from machinon.core.ask.own_figures import OwnFigures
from machinon.core.errors import BadInput
from machinon.core.quantity import INCH
from machinon.core.reckoning import reckonings
from machinon.core.setting_out.gauge_stack import stack
from machinon.core.shop.belongings import (
    SHELF_NAMES,
    SHELVES,
    STARTER_SETS,
    Belongings,
    item_of,
    starter_sets,
    typed_item,
    with_items,
    without_item,
)
from machinon.core.shop.machines import (
    MACHINE_KINDS,
    MachineFigure,
    figure_forms,
    lathe_figures,
    machine_of,
    shown_figures,
)
from machinon.core.shop.things import Lathe
from machinon.draw.drawing import Shape, Text
from machinon.draw.machine_drawing import OUTLINES, machine_drawing


def shelf(id: str, *sets: str) -> Belongings:
    made = Belongings(id, SHELF_NAMES[id])
    for starter in STARTER_SETS:
        if starter.key in sets:
            made = with_items(made, starter.items())
    return made


class Shelves(unittest.TestCase):
    def test_every_set_goes_on_its_shelf_and_out_again_by_typing(self):
        for starter in STARTER_SETS:
            for item in starter.items():
                for inch in (False, True):
                    back = item_of(typed_item(item, inch), starter.shelf, inch)
                    self.assertEqual((back.kind, back.name), (item.kind, item.name))
                    self.assertAlmostEqual(back.size, item.size, places=6)

    def test_forty_seven_slip_gauges_make_every_hundredth(self):
        slips = [item.size for item in shelf("holding", "slips").items]
        self.assertEqual(len(slips), 47)
        for target in (3.47, 38.95, 61.785, 99.99):
            found = stack(target, slips, 5, 0.0)
            self.assertAlmostEqual(sum(found), target, places=6)

    def test_an_inch_shop_finds_sets_of_its_own(self):
        """81 slips make every tenth; all kinds of tool can be had in inches."""
        slips = [item.size for item in shelf("holding", "inch-slips").items]
        self.assertEqual(len(slips), 81)
        found = stack(1.2345 * INCH, slips, 5, 0.0001)
        self.assertAlmostEqual(sum(found) / INCH, 1.2345, places=6)
        kinds = {
            inch: {
                item.kind
                for id in SHELVES
                for starter in starter_sets(id, inch)
                for item in starter.items()
            }
            for inch in (False, True)
        }
        self.assertEqual(kinds[False], kinds[True])

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


def _upright(drawing, tie: str) -> float:
    """How long the dimension of a height is: between its two arrow tips."""
    left, _, width, _ = drawing.spot(tie).rect
    tips = [
        i.points[0][1]
        for i in drawing.items
        if isinstance(i, Shape) and len(i.points) == 3
        if abs(i.points[0][0] - left - width / 2) < 0.5
    ]
    return max(tips) - min(tips)


class Machines(unittest.TestCase):
    def test_each_kind_has_figures_and_a_picture_to_scale(self):
        for kind in (*MACHINE_KINDS, "lathe"):
            forms = figure_forms(kind)
            self.assertGreater(len(forms), 4, kind)
            self.assertIn(kind, OUTLINES)
            drawing = machine_drawing(kind, shown_figures(kind, {}, False), 900, 450)
            texts = [i.text for i in drawing.items if isinstance(i, Text)]
            self.assertEqual(texts.count("not said yet"), len(forms))
            for form in forms:
                self.assertIsNotNone(drawing.spot(form.key), "and can be typed there")
            self.assertFalse(drawing.crowded, kind)

    def test_large_figures_go_to_the_foot_before_they_get_smaller(self):
        for kind in (*MACHINE_KINDS, "lathe"):
            with self.subTest(kind):
                shown = shown_figures(kind, {}, False)
                drawing = machine_drawing(kind, shown, 620, 450, 20)
                heights = {i.size for i in drawing.items if isinstance(i, Text)}
                self.assertGreaterEqual(max(heights), 0.7 * 20)
                self.assertEqual(set(shown), {spot.tie for spot in drawing.spots})
                self.assertFalse(drawing.crowded)

    def test_an_outline_is_to_scale(self):
        def between(drawing):
            # the two arrow heads of the dimension are a centre distance apart
            spot = drawing.spot("between_centres")
            y = spot.rect[1] + 0.8 * 13
            tips = [
                i.points[0][0]
                for i in drawing.items
                if isinstance(i, Shape) and len(i.points) == 3
                if abs(i.points[0][1] - y) < 0.5
            ]
            return max(tips) - min(tips)

        drawings = [
            machine_drawing(
                "lathe",
                {
                    "centre_height": MachineFigure("Centre height", f"{high} mm", high),
                    "between_centres": MachineFigure(
                        "Between centres", f"{long} mm", long
                    ),
                },
                900,
                450,
            )
            for high, long in ((100, 300), (100, 600))
        ]
        heights = [_upright(drawing, "centre_height") for drawing in drawings]
        ratios = [
            between(drawing) / h for drawing, h in zip(drawings, heights, strict=True)
        ]
        # the nose stands 0.14 of the centre height into what lies between
        self.assertAlmostEqual((ratios[0] + 0.14) * 100, 300, places=0)
        self.assertAlmostEqual((ratios[1] + 0.14) * 100, 600, places=0)

    def test_a_lathes_figures_are_read_in_the_shops_unit(self):
        lathe = Lathe(
            "l", "L", 114.3, 508, 60, (60, 120, 240, 480, 960), "", lead_screw=3.175
        )
        shown = lathe_figures(lathe, inch=True)
        self.assertEqual(shown["centre_height"].text, "4.5 in")
        self.assertEqual(shown["swing_over_slide"].text, "60 mm")
        self.assertEqual(shown["speeds"].text, "60, 120 … 960 (5)")
        self.assertEqual(shown["lead_screw"].text, "8 tpi")
        self.assertEqual(shown["dial_division"].text, "0.02 mm on ⌀")
        self.assertEqual(shown["wheels"].text, "")
        self.assertEqual(shown["spindle_bore"].text, "", "not known is not nought")

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
            own = OwnFigures(None, (table,), shelves)
            question = own.of(known[name]).with_usual(known[name])
            known[name].answer(question)  # it can be answered
            return question

        self.assertEqual(
            (ask("dividing")["worm"], ask("dividing")["plates"]), (90, [15, 20])
        )
        self.assertEqual(len(ask("gauge-stack")["pieces"]), 47)
        self.assertIn("10.5mm", ask("tap-drill")["series"])

    def test_own_drills_keep_their_unit_for_an_inch_thread(self):
        own = OwnFigures(None, (), {"tools": shelf("tools", "drills")})
        for thread, drill in (("5/16-18", "6.5 mm"), ("M8", "7 mm")):
            with self.subTest(thread):
                found = found_with(understand(f"{thread} tap", own=own))[0]
                self.assertEqual(found.answer["drill"], drill)
                self.assertIn("your drills", found.whose[0])

    def test_a_sentence_starts_from_the_shop_s_own_as_the_list_does(self):
        lathe = Lathe(
            "lathe",
            "Old lathe",
            100,
            400,
            120,
            (60, 110, 200, 360),
            "nose",
            lead_screw=25.4 / 8,
            wheels=(20, 30, 40, 50, 60, 127),
        )
        table = machine_of(
            {"name": "Table", "worm": "90", "plates": "15, 20"},
            "rotary table",
            "t",
            False,
        )
        own = OwnFigures(lathe, (table,))
        for said, key, value in (
            ("speed mild steel 40", "machine_speeds", [60, 110, 200, 360]),
            ("divide 7", "worm", 90),
            ("gears 2", "leadscrew", 25.4 / 8),
        ):
            with self.subTest(said):
                found = found_with(understand(said, own=own))[0]
                self.assertEqual(found.inputs[key], value)
                opened = own.of(found.reckoning).with_usual(found.reckoning)
                self.assertEqual(opened[key], value)
                self.assertTrue(found.whose)
