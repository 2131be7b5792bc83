"""What the shop's shelf has for the drills and taps of a route."""

import unittest

from msgspec.structs import replace

from machinon.core.families import families
from machinon.core.piece.made import make
from machinon.core.route.own_tools import own_collet, own_tool
from machinon.core.route.steps import route_told
from machinon.core.shop.belongings import STARTER_SETS, Belongings, Item, with_items
from tests.scenario import planned

STEP = planned().route[-1].steps[-1]  # by hand: it takes neither drill nor tap


def shelf(*sets: str, items: tuple[Item, ...] = ()) -> Belongings:
    made = Belongings("tools", "Tools", items)
    for starter in STARTER_SETS:
        if starter.key in sets:
            made = with_items(made, starter.items())
    return made


class InInches(unittest.TestCase):
    def test_a_piece_in_inches_is_made_with_inch_tools(self):
        """1/4-20 goes through 0.281, which is 9/32, and is tapped after a #7."""
        keeper = make(families()["keeper"], {}, round_inch=True)
        knob = make(families()["knob"], {"stud.thread": "1/4-20"}, round_inch=True)
        own = shelf("inch-drills", "number-drills", "inch-taps")
        said = {
            step.title: getattr(own_tool(step, own, True).item, "name", "")
            for made in (keeper, knob)
            for up in route_told(made)
            for step in up.steps
        }
        self.assertEqual(said["Drill 2 holes 9/32 in, holes 1"], "drill 9/32")
        self.assertEqual(said["Drill the hole, #7"], "drill #7")
        self.assertEqual(said["Tap 1/4-20 UNC"], "1/4-20 UNC taper")


class OwnCollets(unittest.TestCase):
    def test_the_collet_that_closes_on_the_shank_is_named(self):
        """A shank of 19.98: one that closes from 20 to 19 has it, 16 is too small."""
        arbor = make(families()["collet-arbor"], {})
        wide = arbor.body.feature("shank").diameter
        self.assertAlmostEqual(wide, 19.98)
        right = Item("collet", "collet 20", 19.0, second=20.0)
        small = Item("collet", "collet 16", 15.0, second=16.0)
        for items, says in (
            ((small, right), "Your collet 20 holds"),
            ((small,), "collet 16 is nearest"),
        ):
            held = Belongings("holding", "Holding", items)
            self.assertIn(says, own_collet(arbor, held, False))
        self.assertEqual(own_collet(arbor, Belongings("holding", "H", ()), False), "")
        self.assertEqual(own_collet(make(families()["stud"], {}), held, False), "")


class OwnTools(unittest.TestCase):
    def says(self, where, inch=False, **needs):
        return own_tool(replace(STEP, **needs), where, inch).says

    def test_the_drill_that_is_there_is_named_with_what_is_known_of_it(self):
        self.assertEqual(self.says(shelf("drills"), drill=9.0), "yours: drill 9 mm")
        worn = Item("drill", "the long one", 9.0, note="cuts 9.1")
        self.assertIn("cuts 9.1", self.says(shelf(items=(worn,)), drill=9.0))

    def test_look_alikes_in_the_rack_are_pointed_out(self):
        """A number 13 is 4.699 mm, a tenth under 4.8: the eye takes it for it."""
        says = self.says(shelf("drills-fine", "number-drills"), drill=4.8)
        self.assertIn("yours: drill 4.8 mm; measure it", says)
        self.assertIn("drill #13", says)

    def test_what_is_missing_is_said_with_what_lies_next_to_it(self):
        says = self.says(shelf("drills"), drill=6.8)
        self.assertEqual(
            says, "6.8 mm is not on the shelf; next to it drill 6.5 mm and drill 7 mm"
        )
        self.assertIn("6.8 mm (0.2677 in)", self.says(shelf("drills"), True, drill=6.8))

    def test_beyond_the_largest_one_bores(self):
        says = self.says(shelf("drills"), drill=25.0)
        self.assertIn("up to drill 13 mm, bore from there", says)

    def test_every_tap_of_the_thread_counts_and_another_pitch_does_not(self):
        has = shelf("taps")
        self.assertEqual(
            self.says(has, tap="M8"), "yours: M8 taper, M8 plug, M8 bottoming"
        )
        self.assertEqual(self.says(has, tap="M8x1"), "no M8x1 tap on the shelf")

    def test_a_die_of_the_thread_finishes_what_is_begun_true(self):
        """M8 coarse is 1.25: a die of M8 × 1 is another thread, and none is missed."""
        dies = Item("die", "die M8", 8.0, 1.25), Item("die", "die M8 × 1", 8.0, 1.0)
        both, fine = shelf(items=dies), shelf(items=dies[1:])
        made = make(families()["stud"], {"upper.thread": "M8", "lower.thread": "M8"})
        steps = [s for up in route_told(made) for s in up.steps]
        step = next(s for s in steps if s.operation == "thread")
        says = own_tool(step, both, False).says
        self.assertIn("yours: die M8,", says)
        self.assertEqual(own_tool(step, fine, False).says, "")

    def of_step(self, has, family, key, **given):
        """What is said of a step of a piece."""
        sizes = {name.replace("_", ".", 1): text for name, text in given.items()}
        made = make(families()[family], sizes)
        steps = [s for up in route_told(made) for s in up.steps]
        return own_tool(next(s for s in steps if s.key == key), has, False).says

    def test_a_slot_takes_the_widest_mill_that_goes_in(self):
        """14 wide: the 12 goes in and is 2 narrower."""
        slot = {"parts": "slot", "slot1_width": "14"}
        has = shelf("end-mills")
        says = self.of_step(has, "plate-block", "mill-slot1", **slot)
        self.assertIn("end mill 12", says)
        self.assertIn("2.00 mm narrower", says)
        slot |= {"slot1_width": "2", "slot1_length": "20"}
        says = self.of_step(has, "plate-block", "mill-slot1", **slot)
        self.assertIn("no end mill goes into 2.00 mm", says)

    def test_a_slit_that_is_open_at_its_ends_takes_the_saw_that_reaches(self):
        """1.6 of ⌀63 on 16 reaches (63 - 24) / 2 = 19.5: 18 deep, and not 22."""
        saw = Item("slitting saw", "saw 63 × 1.6", 63, 16, 1.6)
        has = Belongings("tools", "Tools", (saw,))
        slit = {"parts": "slot", "slot1_width": "2", "slot1_depth": "18"}
        says = self.of_step(has, "plate-block", "saw-slot1", **slit)
        self.assertIn("saw 63 × 1.6", says)
        slit["slot1_depth"] = "22"
        says = self.of_step(has, "plate-block", "saw-slot1", **slit)
        self.assertIn("no slitting saw for", says)

    def test_what_a_cutter_really_cuts_is_remembered(self):
        mill = Item("end mill", "the blue one", 10.0, note="cuts 10.03")
        slot = {"parts": "slot", "slot1_width": "10"}
        says = self.of_step(shelf(items=(mill,)), "plate-block", "mill-slot1", **slot)
        self.assertEqual(says, "yours: the blue one (cuts 10.03)")

    def test_a_reamer_is_of_its_size_and_one_like_it_is_warned_of(self):
        """A quarter inch is 6.35: easily taken for 6 in a drawer."""
        inch = Item("reamer", "reamer 1/4in", 6.35)
        has = shelf("reamers", items=(inch,))
        hole = {"parts": "hole", "hole1_kind": "reamed", "hole1_screw": "M6"}
        says = self.of_step(has, "plate-block", "ream-hole1", **hole)
        self.assertIn("yours: reamer 6", says)
        self.assertIn("1/4in looks like it", says)

    def test_a_usual_reamer_does_where_its_usual_hole_takes_the_size_in(self):
        """H7 at 8 is 8.000 to 8.015: a pivot's hole of 8.009 comes out of it, one of
        8.020 does not, but out of one of 8.01."""
        has = shelf("reamers")
        says = self.of_step(has, "hinged-arm", "ream-pivot", pivot_diameter="8.009")
        self.assertIn("yours: reamer 8 mm", says)
        says = self.of_step(has, "hinged-arm", "ream-pivot", pivot_diameter="8.020")
        self.assertIn("no reamer of 8.02 mm on the shelf", says)
        self.assertIn("reamer 8 mm leaves up to 8.015 mm", says)
        has = shelf("reamers", items=(Item("reamer", "reamer 8.01 mm", 8.01),))
        says = self.of_step(has, "hinged-arm", "ream-pivot", pivot_diameter="8.020")
        self.assertIn("reamer 8.01 mm, H7 leaves 8.010 mm to 8.025 mm", says)

    def test_a_boring_bar_goes_in_and_reaches(self):
        """Opened to 39.5 before it is bored: the stoutest that goes in and is long
        enough."""
        bars = tuple(
            Item("boring bar", f"bar {size}", size, least, reach)
            for size, least, reach in ((8, 10, 40), (16, 20, 70), (25, 45, 120))
        )
        bore = {"parts": "step bore", "step1_length": "50", "step1_diameter": "60",
                "bore1_diameter": "40"}  # fmt: skip
        says = self.of_step(shelf(items=bars), "turned-piece", "bore-bore1", **bore)
        self.assertEqual(says, "yours: bar 16")

    def test_a_t_slot_cutter_goes_in_below_the_lips(self):
        """Head 23 × 9 below a neck of 14: 25 goes in nowhere, 21 × 9 does and leaves
        the sides; one on a neck of 14 does not pass the lips."""
        cutters = tuple(
            Item("T-slot cutter", f"T {size}", size, neck, 9)
            for size, neck in ((25, 12), (21, 10), (23, 14))
        )
        slot = {"parts": "tee", "tee1_neck": "14"}
        has = shelf(items=cutters)
        says = self.of_step(has, "plate-block", "head-tee1", **slot)
        self.assertEqual(says, "yours: T 21, smaller than the head: widen it after")
        has = shelf(items=cutters[::2])
        says = self.of_step(has, "plate-block", "head-tee1", **slot)
        self.assertIn("no T-slot cutter", says)

    def test_a_saw_is_as_thin_as_its_cut_and_reaches_through(self):
        """A strip 21.2 high cut 1.6 wide: 40 across on a bore of 16 reaches 8, 80 on 22
        reaches 23; one of 2 is too thick."""
        saws = (
            Item("slitting saw", "saw 40", 40, 16, 1.0),
            Item("slitting saw", "saw 80", 80, 22, 1.5),
            Item("slitting saw", "saw 100", 100, 22, 2.0),
        )
        made = make(families()["t-nut-strip"], {})
        steps = [s for up in route_told(made) for s in up.steps]
        cut = next(s for s in steps if s.operation == "saw")
        self.assertEqual(cut.cut[0].kerf, 1.6)
        own = own_tool(cut, shelf(items=saws), False)
        self.assertEqual((own.says, own.item), ("yours: saw 80", saws[1]))

    def test_nothing_is_said_where_nothing_is_known(self):
        self.assertEqual(self.says(None, drill=9.0), "")
        self.assertEqual(self.says(shelf("taps"), drill=9.0), "")
        self.assertEqual(self.says(shelf("drills"), tap="M8"), "")
        self.assertEqual(self.says(shelf("drills", "taps")), "", "no drill, no tap")
