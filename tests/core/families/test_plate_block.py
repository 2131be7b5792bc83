import math
import unittest

from machinon.core.errors import BadInput
from machinon.core.families import family_of
from machinon.core.piece.made import make
from machinon.core.route.steps import route_told


def block(parts, **given):
    """100 × 60 × 30, unless said."""
    sizes = {name.replace("_", ".", 1): text for name, text in given.items()}
    return make(family_of("plate-block"), {"parts": parts, **sizes})


def failed(made):
    return {check.key for check in made.checks if not check.passed}


def taken(made):
    """What its features take out of the bare block, mm³."""
    return 180_000 - made.body.volume


class PlateBlocks(unittest.TestCase):
    def test_each_feature_takes_out_what_it_says(self):
        """A circle is a polygon of 120 sides in a solid: 0.05 % less."""
        for parts, given, wanted in (
            ("slot", {}, 100 * 10 * 5),
            ("slot", {"slot1_runs": "across", "slot1_face": "top"}, 60 * 10 * 5),
            ("slot", {"slot1_length": "30"}, (30 * 10 + math.pi * 25) * 5),
            ("pocket", {"pocket1_radius": "0"}, 30 * 20 * 30),
            ("pocket", {"pocket1_depth": "6"}, (600 - (4 - math.pi) * 16) * 6),
            ("rebate", {}, 100 * 10 * 8),
            ("rebate rebate", {}, 2 * 100 * 10 * 8),
            ("bore", {"bore1_depth": "12"}, math.pi * 100 * 12),
            ("corner", {}, (4 - math.pi) * 25 * 30),
            ("edge", {"edge1_which": "upright", "edge1_leg": "2"}, 4 * 2 * 30),
            # two along and two across less the corners that they share: leg³ / 3 each
            ("edge", {"edge1_leg": "3"}, 4.5 * (2 * 100 + 2 * 60) - 4 * 9),
            ("edge", {"edge1_which": "bottom", "edge1_leg": "3"}, 4.5 * 320 - 4 * 9),
            ("seat", {}, math.pi / 2 * 8**2 * 60),
            ("seat", {"seat1_runs": "along", "seat1_at": "30"}, 32 * math.pi * 100),
        ):
            with self.subTest(parts, **given):
                self.assertAlmostEqual(taken(block(parts, **given)) / wanted, 1, 2)

    def test_a_dovetail_is_as_wide_as_its_pins_say(self):
        """14 between pins of 6 at 60°: 14 + 6 (1 + cot 30°) = 30.392 on the floor, less
        16 / tan 60° at the mouth, 21.155: 25.774 × 8 in the mean, along 100."""
        made = block("dovetail")
        self.assertAlmostEqual(taken(made) / (25.774 * 8 * 100), 1, 3)
        rough, flanks = (
            s for up in route_told(made) for s in up.steps if "dovetail1" in s.features
        )
        self.assertEqual(rough.tool, "end mill")
        self.assertEqual(flanks.tool, "dovetail cutter 60°")
        with self.assertRaisesRegex(BadInput, "dovetail 1: The flanks meet") as refused:
            block("dovetail", dovetail1_depth="25", dovetail1_pins="8")
        self.assertEqual(refused.exception.key, "dovetail1.depth")

    def test_a_male_dovetail_is_as_wide_as_it_reads_over_its_pins(self):
        """40 over pins of 6 at 60°: 40 - 6 (1 + cot 30°) = 23.608 at its foot, 16 /
        tan 60° more on top, 32.845: 60 less 28.227 in the mean, 8 deep, along 100."""
        male = {"dovetail1_form": "male"}
        made = block("dovetail", **male)
        self.assertEqual(failed(made), set())
        self.assertAlmostEqual(taken(made) / (31.773 * 8 * 100), 1, 3)
        rough, _ = (
            s for up in route_told(made) for s in up.steps if "dovetail1" in s.features
        )
        self.assertAlmostEqual(rough.cut[0].mouth, 33.845, 3, "no wider than its top")
        slim = block("dovetail", dovetail1_pins="22", **male)
        self.assertEqual(failed(slim), {"dovetail1-foot"})

    def test_a_hole_is_in_the_floor_of_a_slot_or_beside_it(self):
        """A head of 16 about 30: M8, 9 wide, is in its neck at 30, cut by its flank at
        24, and clear of it from 30 - 8 - 4.5 = 17.5 on."""
        for at, wanted in (("30", set()), ("24", {"hole1-beside-tee1"}), ("17", set())):
            hole = {"hole1_kind": "through", "hole1_from_front": at}
            with self.subTest(at):
                self.assertEqual(failed(block("tee hole", **hole)), wanted)

    def test_an_edge_that_was_cut_away_is_not_chamfered(self):
        """A rebate took the front edge: 50 of two sides and 100 of one are left."""
        left = taken(block("rebate edge")) - taken(block("rebate"))
        self.assertAlmostEqual(left / (0.5**2 / 2 * (100 + 2 * 50)), 1, 1)

    def test_a_t_slot_is_the_standard_one_of_its_neck(self):
        """For 14, ISO 299: head 23 × 9, 23 deep, so lips of 14: 14 × 14 + 23 × 9 is a
        section of 403, along 100."""
        made = block("tee", tee1_neck="14")
        self.assertEqual(failed(made), set())
        self.assertAlmostEqual(taken(made) / (403 * 100), 1, 3)
        neck, head = (
            s for up in route_told(made) for s in up.steps if "tee1" in s.features
        )
        self.assertEqual((neck.tool, head.tool), ("end mill", "T-slot cutter"))
        self.assertAlmostEqual(neck.cut[0].depth, 22.7, msg="the floor is left")
        thin = block("tee", tee1_neck="14", tee1_lip="8", block_height="24")
        self.assertEqual(failed(thin), {"tee1-lips"})
        with self.assertRaisesRegex(BadInput, "T-slot 1: the head must") as refused:
            block("tee", tee1_neck="14", tee1_head="14")
        self.assertEqual(refused.exception.key, "tee1.head")

    def test_what_goes_into_a_t_slot_finds_it_by_its_surfaces(self):
        surfaces = block("tee tee", tee1_at="15", tee2_at="45").family.surfaces
        for form, size in (("neck", "neck"), ("head", "head"), ("lip", "lip"),
                           ("head-depth", "height")):  # fmt: skip
            self.assertEqual(surfaces[f"tee-{form}"], f"tee1.{size}")
            self.assertEqual(surfaces[f"tee-{form}-2"], f"tee2.{size}")

    def test_two_t_slots_leave_metal_between_them(self):
        """Heads of 16, their middles 20 apart: 4 are left, half a neck is 5."""
        made = block("tee tee", tee1_at="20", tee2_at="40")
        self.assertEqual(failed(made), {"tee1-apart"})

    def test_holes_lie_from_a_corner_or_from_the_middle(self):
        corner = block("hole", hole1_from_side="20", hole1_from_front="10")
        self.assertEqual(corner.body.feature("hole1").points, [(20, 10)])
        middle = block(
            "hole", hole1_datum="centre", hole1_from_side="20", hole1_from_front="10"
        )
        self.assertEqual(middle.body.feature("hole1").points, [(30, 20)])
        row = block("row", row1_across="5")
        self.assertEqual([x for x, _ in row.body.feature("row1").points],
                         [15, 32.5, 50, 67.5, 85])  # fmt: skip

    def test_a_hole_is_as_wide_as_its_screw_asks_until_it_is_typed(self):
        """M8: 6.8 before the tap, 9 to clear it; a drill of 7 leaves 62 % of thread:
        (8 − 7) / (1.299 × 1.25)."""
        made = block("hole holes", hole1_diameter="7")
        self.assertEqual(made.values["holes1.diameter"], 9)
        self.assertEqual(block("hole").values["hole1.diameter"], 6.8)
        drilled = made.body.feature("hole1").hole
        self.assertEqual((drilled.diameter, drilled.thread), (7, "M8x1.25"))
        (share,) = (check.have for check in made.checks if check.key == "hole1-drill")
        self.assertAlmostEqual(share, 100 / (1.299038 * 1.25), places=3)

    def test_holes_are_tapped_for_fine_screws_too(self):
        made = block("holes", holes1_kind="tapped", holes1_screw="10-32")
        hole = made.body.feature("holes1").hole
        self.assertEqual(hole.thread, "#10-32 UNF")
        self.assertAlmostEqual(hole.diameter, 4.039, delta=0.001)
        taps = [step.tap for up in route_told(made) for step in up.steps if step.tap]
        self.assertEqual(taps, ["#10-32 UNF"])

    def test_holes_in_the_front_are_measured_on_the_front(self):
        """The front is 100 × 30: a row 15 up, 15 in; M6 clear is 6.6, 60 deep."""
        made = block("row", row1_face="front", row1_from_front="15")
        self.assertEqual(failed(made), set())
        wanted = 3 * math.pi * 3.3**2 * 60
        self.assertAlmostEqual(taken(made) / wanted, 1, 2)
        machines = [up.title for up in route_told(made)]
        self.assertIn("front face up", machines[1])

    def test_what_usually_goes_wrong_is_said_before_metal_is_lost(self):
        for parts, given, key in (
            ("holes", {"holes1_from_side": "6"}, "holes1-edge"),
            ("row", {"row1_across": "14"}, "row1-apart"),
            ("holes", {"block_height": "12"}, "holes1-under-head"),
            ("hole", {"hole1_depth": "29"}, "hole1-floor"),
            ("bore", {"bore1_depth": "29.5"}, "bore1-floor"),
            ("bore", {"bore1_from_front": "9"}, "bore1-wall"),
            (
                "bore",
                {"bore1_counterbore": "30", "bore1_counterbore_depth": "29"},
                "bore1-pinch",
            ),
            ("slot", {"slot1_depth": "28"}, "slot1-floor"),
            ("pocket", {"pocket1_from_side": "2"}, "pocket1-wall"),
            ("pocket", {"pocket1_radius": "11"}, "pocket1-corners"),
            ("pocket", {"pocket1_depth": "29"}, "pocket1-floor"),
            ("pocket", {"pocket1_radius": "3"}, "pocket1-reach"),
            ("slot", {"slot1_width": "5", "slot1_depth": "24"}, "slot1-reach"),
            ("seat", {"seat1_diameter": "54"}, "seat1-floor"),
            ("seat", {"seat1_depth": "8.5"}, "seat1-half"),
            ("holes", {"holes1_diameter": "12.5"}, "holes1-seat"),
            ("hole", {"hole1_diameter": "7.5"}, "hole1-drill"),
            ("holes", {"holes1_from_front": "29"}, "holes1-apart"),
            ("hole bore", {"bore1_from_side": "42"}, "hole1-clear"),
            ("bore bore", {"bore2_from_side": "50"}, "bore1-clear"),
            ("slot", {"slot1_at": "5"}, "slot1-sides"),
            ("slot", {"slot1_at": "70"}, "slot1-sides"),
            ("slot", {"slot1_length": "90"}, "slot1-ends"),
            ("vee", {"vee1_at": "8"}, "vee1-sides"),
            ("seat", {"seat1_at": "6"}, "seat1-sides"),
            ("slot vee", {"vee1_width": "48"}, "slot1-between"),
            ("slot pocket", {"slot1_at": "25"}, "slot1-between"),
            ("rebate", {"rebate1_width": "58"}, "rebate1-floor"),
            ("edge", {"edge1_leg": "31"}, "edge1-room"),
        ):
            with self.subTest(key):
                self.assertEqual(failed(block(parts.split()[0])), set())
                self.assertIn(key, failed(block(parts, **given)))

    def test_a_slot_in_a_side_is_held_against_what_comes_from_other_faces(self):
        """5 deep in the front of a block 30 high, 10 wide about half its height: a
        pocket through 6 behind the front leaves 1, a slot 8 deep from below 30 − 8 − 20
        = 2, one in the left end meets it at their corner."""
        side = {"slot1_face": "front", "slot1_at": "15", "slot1_depth": "5"}
        below = {"slot2_at": "6", "slot2_width": "8", "slot2_depth": "8"}
        end = {"slot2_face": "left", "slot2_at": "15", "slot2_depth": "4"}
        for parts, given, left in (
            ("slot pocket", {"pocket1_from_front": "6"}, 1.0),
            ("slot slot", below, 2.0),
            ("slot slot", end, -4.0),
        ):
            with self.subTest(left):
                made = block(parts, **side, **given)
                (check,) = [c for c in made.checks if c.key == "slot1-between"]
                self.assertAlmostEqual(check.have, left, 6)
                self.assertFalse(check.grave)

    def test_a_groove_that_lies_beside_the_block_is_no_window(self):
        """A slot of 10 whose middle is 2 from the edge opens it; 66 across a block of
        60 it cuts nothing."""
        for at, grave in (("2", False), ("66", True)):
            made = block("slot", slot1_at=at)
            (sides,) = [c for c in made.checks if c.key == "slot1-sides"]
            self.assertEqual((sides.passed, sides.grave), (False, grave))

    def test_a_tapped_hole_is_tapped_in_the_holding_of_its_drill(self):
        for up in route_told(block("hole row slot", row1_kind="tapped")):
            for a, b in zip(up.steps, up.steps[1:], strict=False):
                if b.operation == "tap":
                    self.assertEqual((a.operation, a.features), ("drill", b.features))

    def test_a_tap_stops_three_threads_short_of_its_drill(self):
        """M10 × 1.5 drilled 20 deep: 15.5 of thread; drilled 12 deep, 7.5 of the 10
        that a screw wants in mild steel; drilled 4 deep, none."""
        says = {}
        for deep in ("20", "12", "4"):
            made = block(
                "hole", hole1_kind="tapped", hole1_screw="M10", hole1_depth=deep
            )
            hole = made.body.feature("hole1").hole
            (check,) = (check for check in made.checks if check.key == "hole1-thread")
            says[deep] = (hole.threaded(30), check.passed, check.grave)
        self.assertEqual(
            says,
            {"20": (15.5, True, False), "12": (7.5, False, False),
             "4": (0.0, False, True)},
        )  # fmt: skip
        made = block("hole", hole1_kind="tapped", hole1_screw="M10", hole1_depth="20")
        says = made.body.feature("hole1").hole.says()
        self.assertEqual(says, "M10 × 1.5 × 15.5 deep, drill 8.5 × 20 deep")

    def test_what_is_as_deep_as_the_block_goes_through(self):
        for deep, through in (("29", False), ("30", True), ("35", True)):
            made = block("hole", hole1_kind="tapped", hole1_depth=deep)
            hole = made.body.feature("hole1").hole
            self.assertEqual(hole.depth is None, through)
            self.assertEqual(hole.threaded(30) == 30, through)
            self.assertEqual("hole1-floor" in failed(made), not through)
            window = block("pocket", pocket1_depth=deep)
            self.assertEqual(window.body.feature("pocket1").depth is None, through)
            self.assertEqual("pocket1-floor" in failed(window), not through)

    def test_a_thread_that_ends_at_a_slot_goes_all_the_way(self):
        """M8 × 1.25 in a lip of 10, above a slot of 12 and one of 4 that has no room
        for 3.75 of run-out and a point of 2: a screw must come out of it below."""
        told = {}
        for wide, at in (("12", "14"), ("4", "18"), ("12", "9")):
            made = block(
                "hole slot", hole1_kind="tapped", hole1_depth="10",
                hole1_from_side="50", hole1_from_front="6", slot1_face="front",
                slot1_at=at, slot1_width=wide, slot1_depth="15",
            )  # fmt: skip
            hole = made.body.feature("hole1").hole
            told[wide, at] = (hole.threaded(30), hole.depth)
        self.assertEqual(
            told,
            {("12", "14"): (10, 13.75), ("4", "18"): (6.25, 10),
             ("12", "9"): (6.25, 10)},
        )  # fmt: skip

    def test_holes_on_a_floor_count_from_there(self):
        """A slot of 12 by 8 in 30: M5 is sunk 5.4 into the 22 below it and has 16.6
        under its heads, so the slot is milled before. Heads of 10 that a slot of 9 does
        not take begin in the face."""
        for wide, begins, under, first in (
            ("12", 8, 16.6, "slot1"), ("9", 0, 24.6, "row1"),
        ):  # fmt: skip
            made = block(
                "row slot", row1_kind="counterbored", row1_screw="M5",
                row1_from_front="30", slot1_face="top", slot1_width=wide,
                slot1_depth="8",
            )  # fmt: skip
            self.assertEqual(made.body.feature("row1").sunk, begins)
            (left,) = (c.have for c in made.checks if c.key == "row1-under-head")
            self.assertAlmostEqual(left, under)
            steps = (step for up in route_told(made) for step in up.steps)
            cut = [name for step in steps for name in step.features]
            self.assertEqual(min(("row1", "slot1"), key=cut.index), first)

    def test_holes_of_an_angle_bracket_go_through_its_legs(self):
        """A rebate of 30 by 38 leaves legs of 12 in 42 × 50: M6 sunk 6.4 has 5.6 under
        its head, so 12 of 1.5 × 6 stand in the other piece: 16 or more."""
        made = make(family_of("plate-block"), {
            "parts": "rebate hole hole hole", "block.width": "42",
            "block.height": "50", "rebate1.side": "back", "rebate1.width": "30",
            "rebate1.depth": "38", **{f"hole{n}.kind": "counterbored" for n in (1, 2)},
            **{f"hole{n}.screw": "M6" for n in (1, 2, 3)},
            **{f"hole{n}.from_side": f"{20 * n}" for n in (1, 2, 3)},
            "hole1.face": "front", "hole1.from_front": "30", "hole2.from_front": "27",
            "hole3.face": "back", "hole3.from_front": "30",
        })  # fmt: skip
        holes = [made.body.feature(f"hole{n}") for n in (1, 2, 3)]
        self.assertEqual([(it.sunk, it.through) for it in holes],
                         [(0, 12), (38, 12), (30, 12)])  # fmt: skip
        self.assertEqual({it.says.split(",")[0] for it in made.hardware},
                         {"1 × cap screw M6 × 16"})  # fmt: skip

    def test_a_pattern_on_two_levels_is_to_be_two_patterns(self):
        """Three holes along a block: a slot along it has all of them in it, one across
        its middle only the second."""
        for runs, at, told in (("along", "30", False), ("across", "50", True)):
            made = block(
                "row slot", row1_screw="M5", row1_from_side="10", row1_from_front="30",
                slot1_face="top", slot1_runs=runs, slot1_at=at, slot1_width="12",
            )  # fmt: skip
            self.assertEqual("row1-level" in failed(made), told)

    def test_a_ring_stands_on_the_ledge_of_a_counterbore(self):
        """Holes of 4.2 on a circle of 55 about a bore of 40: 27.5 − 2.1 − 20."""
        made = block(
            "bore ring", block_width="100", bore1_diameter="40", bore1_from_side="50",
            bore1_from_front="50", bore1_counterbore="70", bore1_counterbore_depth="8",
            ring1_circle="55", ring1_from_side="50", ring1_from_front="50",
        )  # fmt: skip
        self.assertEqual(made.body.feature("ring1").sunk, 8)
        (clear,) = (c.have for c in made.checks if c.key == "bore1-clear")
        self.assertAlmostEqual(clear, 5.4)

    def test_a_bore_moves_with_the_tool_post_it_is_tied_to(self):
        made = make(family_of("plate-block"), {"parts": "bore", "post.width": "90"})
        self.assertEqual(made.values["bore1.from_side"], 45)


class BoltedDown(unittest.TestCase):
    def test_edges_that_other_cuts_took_are_told_to_be_gone(self):
        """A male of a dovetail along the block takes two of the upper edges, one across
        it the others."""
        male = {"edge1_which": "top", "dovetail1_form": "male",
                "dovetail1_runs": "along"}  # fmt: skip
        self.assertNotIn("gone-edge1", failed(block("edge dovetail", **male)))
        both = {**male, "dovetail2_form": "male", "dovetail2_runs": "across"}
        self.assertIn("gone-edge1", failed(block("edge dovetail dovetail", **both)))

    def test_holes_in_a_vee_are_drilled_before_it(self):
        """No drill starts on a flank: in the middle of a vee along 60, and of a round
        seat across 100; 20 beside it the order does not matter."""

        def order(part, **at):
            given = {"hole1_face": "top", "hole1_kind": "through",
                     "hole1_datum": "centre", **at}  # fmt: skip
            steps = [s for up in route_told(block(f"{part} hole", **given))
                     for s in up.steps]  # fmt: skip
            return [s for s in steps if s.features in ((f"{part}1",), ("hole1",))]

        for part in ("vee", "seat"):
            drill, cut = order(part, hole1_from_side="0", hole1_from_front="0")
            self.assertEqual((drill.operation, cut.operation), ("drill", "mill"))
            self.assertIn("a flat to start on", drill.note)
            beside = {"hole1_from_side": "20", "hole1_from_front": "20"}
            cut, drill = order(part, **beside)
            self.assertEqual((cut.operation, drill.operation), ("mill", "drill"))
            self.assertNotIn("flat", drill.note)

    def test_screws_go_into_t_nuts_and_stay_off_the_slots_floor(self):
        """M8 in 30 less 8.6 of counterbore: 21.4 and 1.5 × 8 ask for 33.4, so 35. Slots
        of 12.1 + 10.1 have 20.7 of thread; in 5 + 4 an M12 has 7.5 of it."""
        (screw,) = block("holes", slot_lip="12.1", slot_head_depth="10.1").hardware
        self.assertEqual(screw.says, "4 × cap screw M8 × 35, in holes 1, into T-nuts")
        shallow = block("holes", slot_lip="5", slot_head_depth="4", holes1_screw="M12")
        (check,) = [c for c in shallow.checks if c.key == "holes1-bolts"]
        self.assertEqual((check.have, check.need, check.passed), (7.5, 12, False))
        (screw,) = shallow.hardware
        self.assertLessEqual(
            screw.length - (30 - shallow.body.feature("holes1").hole.bore_depth), 8
        )

    def test_it_stands_out_past_its_slide_by_less_than_half_its_height(self):
        """60 across on a slide of 40: 10 a side, 15 would do; of 25: 17.5."""
        for slide, fault in (("40", set()), ("25", {"overhang"}), ("70", set())):
            self.assertEqual(failed(block("hole", lathe_slide=slide)), fault)

    def test_screws_that_come_out_elsewhere_meet_no_slot(self):
        made = block("hole", hole1_face="front", hole1_kind="through", slot_lip="5",
                     slot_head_depth="4")  # fmt: skip
        self.assertNotIn("hole1-bolts", {c.key for c in made.checks})


class OnAnyFace(unittest.TestCase):
    def test_a_hole_starts_in_the_middle_of_its_face(self):
        """100 × 60 × 30: its front is 100 × 30, its left end 60 × 30."""
        for face, along, across in (
            ("top", 50, 30),
            ("front", 50, 15),
            ("left", 30, 15),
        ):
            for datum, at in (("corner", (along, across)), ("centre", (0, 0))):
                given = {"hole1.face": face, "hole1.datum": datum}
                made = block("hole", **given)
                with self.subTest(face, datum=datum):
                    found = (
                        made.values["hole1.from_side"],
                        made.values["hole1.from_front"],
                    )
                    self.assertEqual(found, at)
                    self.assertEqual(
                        made.body.feature("hole1").points, [(along, across)]
                    )

    def test_what_is_sunk_from_another_face_takes_as_much(self):
        """The block behind each face is as long, as wide or as high as it is there."""
        deep = {
            "top": 30,
            "bottom": 30,
            "front": 60,
            "back": 60,
            "left": 100,
            "right": 100,
        }
        for face, behind in deep.items():
            on = {
                "pocket1_face": face,
                "pocket1_from_front": "4",
                "pocket1_radius": "0",
            }
            made = block("pocket", pocket1_depth="7", **on)
            self.assertAlmostEqual(taken(made), 30 * 20 * 7, delta=1e-3)
            through = block("pocket", **on)
            self.assertAlmostEqual(taken(through), 30 * 20 * behind, delta=1e-3)
            bored = block("bore", bore1_face=face, bore1_depth="12")
            self.assertAlmostEqual(taken(bored) / (math.pi * 100 * 12), 1, 3)
            self.assertNotIn("bore1-wall", failed(bored), face)
            self.assertIn(face, [up.key for up in route_told(bored)])
        for part in ("vee", "dovetail", "tee", "seat"):
            above, below = (
                block(part, **{f"{part}1_face": f}) for f in ("top", "bottom")
            )
            self.assertAlmostEqual(taken(above), taken(below), delta=1e-3)
        for side, long in (("front", 100), ("back", 100), ("left", 60), ("right", 60)):
            for face in ("top", "bottom"):
                made = block("rebate", rebate1_side=side, rebate1_face=face)
                self.assertAlmostEqual(taken(made), long * 10 * 8, delta=1e-3)

    def test_what_is_sunk_from_two_faces_leaves_metal_between(self):
        """Pockets of 12 from above and below leave 6 of 30, and of 15 nothing."""
        below = {"pocket2_face": "bottom", "pocket1_radius": "0", "pocket2_radius": "0"}
        for deep, fails in (("12", False), ("15", True)):
            sunk = {"pocket1_depth": deep, "pocket2_depth": deep}
            made = block("pocket pocket", **below, **sunk)
            self.assertEqual("pocket1-between" in failed(made), fails, deep)

    def test_a_circle_and_a_slot_keep_to_their_face(self):
        """A circle of 0.6 of what is narrower, a slot along the middle."""
        made = block("ring slot", **{"ring1.face": "left", "slot1.face": "front"})
        self.assertEqual(made.values["ring1.circle"], 18)
        self.assertEqual(made.values["slot1.at"], 15)
        self.assertEqual(failed(made), set())


class Aslant(unittest.TestCase):
    def test_a_hole_that_leans_is_as_long_as_its_slope(self):
        """⌀9 through 30 at 30° off square: 30 / cos 30° = 34.64 along it, whichever way
        it leans; blind, its depth is along it, with the point 2.70 past that."""
        for way in ("right", "up", "left", "down"):
            made = block("hole", hole1_kind="through", hole1_lean="30", hole1_leans=way)
            self.assertAlmostEqual(taken(made) / (math.pi * 4.5**2 * 34.641), 1, 2)
            self.assertEqual(failed(made), set())
        blind = block("hole", hole1_kind="through", hole1_lean="30", hole1_depth="15")
        self.assertAlmostEqual(
            taken(blind) / (math.pi * 4.5**2 * (15 + 2.704 / 3)), 1, 2
        )

    def test_one_that_comes_out_of_the_side_is_noticed(self):
        """60 across and 15 from the back, 45° through 30: it ends 30 further on."""
        sizes = {"hole1_from_front": "45", "hole1_lean": "45", "hole1_leans": "up"}
        self.assertEqual(failed(block("hole", **sizes)), {"hole1-edge"})
        self.assertEqual(
            failed(block("hole", **sizes | {"hole1_leans": "down"})), set()
        )

    def test_two_that_lean_towards_each_other_meet(self):
        """30 apart on one face: at 10° each they are 5.3 nearer below, at 20° 10.9: 8.2
        apart, and both wider than that."""
        sizes = {"hole1_from_side": "35", "hole2_from_side": "65",
                 "hole1_kind": "through", "hole2_kind": "through",
                 "hole2_leans": "left"}  # fmt: skip
        for lean, fault in (("10", set()), ("20", {"hole1-wall-to"})):
            made = block("hole hole", hole1_lean=lean, hole2_lean=lean, **sizes)
            self.assertEqual(failed(made), fault)

    def test_it_has_a_set_up_of_its_own_after_those_that_stand_square(self):
        made = block("hole row", hole1_lean="30")
        titles = [up.title for up in made.holdings]
        self.assertIn("Leant by 30°", titles[2])
        self.assertIn(
            "row1", [name for s in made.holdings[1].steps for name in s.features]
        )

    def test_a_slot_is_turned_about_its_first_end_or_its_middle(self):
        """10 wide and 5 deep: round-ended 30 long it takes as much as straight; at 45°
        from side to side of 60 it is 84.85 long."""
        for given, wanted in (
            ({"slot1_length": "30", "slot1_turn": "20"}, (300 + math.pi * 25) * 5),
            ({"slot1_turn": "45"}, 84.853 * 10 * 5),
            ({"slot1_turn": "-30", "slot1_runs": "across"}, 60 / 0.866 * 10 * 5),
        ):
            with self.subTest(**given):
                made = block("slot", **given)
                self.assertAlmostEqual(taken(made) / wanted, 1, 2)
                self.assertEqual(failed(made), set())
        out = block("slot", slot1_length="40", slot1_turn="60")
        self.assertEqual(failed(out), {"slot1-ends"})


class Slits(unittest.TestCase):
    def test_a_pinch_clamp_is_slit_once_its_bore_and_its_screw_are_in(self):
        """From its left end 28 deep into a bore of 20 at 35: the two open into each
        other, and the saw comes last."""
        made = block(
            "bore slot hole", block_length="60", block_width="40", block_height="20",
            bore1_diameter="20", bore1_from_side="35", slot1_face="left",
            slot1_runs="across", slot1_width="2", slot1_depth="28",
            hole1_face="front", hole1_from_side="12", hole1_screw="M5",
        )  # fmt: skip
        self.assertEqual(failed(made), set())
        steps = [s for up in route_told(made) for s in up.steps]
        order = [(s.operation, name) for s in steps for name in s.features]
        self.assertGreater(order.index(("saw", "slot1")), order.index(("tap", "hole1")))
        saw = next(s for s in steps if s.operation == "saw")
        self.assertEqual(saw.tool, "slitting saw")

    def test_a_slot_through_from_end_to_end_parts_the_block(self):
        """Between its ends it is a long hole: (40 × 10 + π 25) × 30."""
        long = block("slot", slot1_depth="0", slot1_length="40")
        self.assertAlmostEqual(taken(long) / ((400 + math.pi * 25) * 30), 1, 2)
        self.assertEqual(failed(long), set())
        self.assertEqual(failed(block("slot", slot1_depth="0")), {"slot1-parts"})


class NothingLeft(unittest.TestCase):
    def test_cuts_that_leave_nothing_are_refused(self):
        for key, given in (
            ("plate-block", {"parts": "bore", "bore1.diameter": "160"}),
            ("plate-block", {"parts": "holes", "holes1.diameter": "47",
                             "holes1.from_side": "0", "holes1.across": "4",
                             "holes1.up": "8"}),
            ("turned-piece", {"parts": "step ring", "ring1.diameter": "90",
                              "ring1.depth": "0"}),
            ("turned-piece", {"parts": "step keyway", "keyway1.from_end": "0",
                              "keyway1.width": "40", "keyway1.depth": "40",
                              "keyway1.length": "80"}),
        ):  # fmt: skip
            with self.subTest(key), self.assertRaisesRegex(BadInput, "Nothing is left"):
                make(family_of(key), given)

    def test_a_bore_too_small_to_be_opened_by_much_is_drilled_nearly_whole(self):
        """⌀2: an eighth a side is left to bore."""
        drill = next(
            s
            for up in route_told(block("bore", bore1_diameter="2"))
            for s in up.steps
            if s.operation == "drill"
        )
        self.assertEqual(drill.drill, 1.5)


class Listed(unittest.TestCase):
    def test_places_are_drilled_once_more_beyond_the_middle(self):
        """A hole on the line itself is its own mirror image."""
        sizes = {"pattern1_datum": "centre", "pattern1_places": "30,20 0,10"}
        for way, places in (
            ("no", {(80, 50), (50, 40)}),
            ("left-right", {(80, 50), (20, 50), (50, 40)}),
            ("both", {(80, 50), (20, 50), (80, 10), (20, 10), (50, 40), (50, 20)}),
        ):
            made = block("pattern", pattern1_mirrored=way, **sizes)
            self.assertEqual(set(made.body.feature("pattern1").points), places)

    def test_the_two_nearest_of_them_are_looked_at(self):
        """⌀6.6 at 10 from each other, a quarter of 6.6 wanted: 3.4; at 7 only 0.4."""
        for last, fault in (("30,10", set()), ("27,10", {"pattern1-apart"})):
            made = block("pattern", pattern1_places=f"20,10 80,40 {last}")
            self.assertEqual(failed(made), fault)

    def test_what_is_no_place_is_refused(self):
        for text, says in (("10", "is no place"), ("5,5 5,5", "is there twice"),
                           ("5,", "is no place"), ("5,x", "A number")):  # fmt: skip
            with self.subTest(text), self.assertRaisesRegex(BadInput, says) as refused:
                block("pattern", pattern1_places=text)
            self.assertEqual(refused.exception.key, "pattern1.places")

    def test_an_inch_shop_is_shown_inches_that_read_back_the_same(self):
        made = block("pattern outline", pattern1_places="25.4,12.7 50.8,12.7")
        for key, text in (
            ("pattern1.places", "1,0.5 2,0.5"),
            ("outline1.points", "0,0 3.937008,0 3.937008,1.181102 1.968504,2.362205 "
             "0,2.362205"),
        ):  # fmt: skip
            known = made.sizes[key]
            self.assertEqual(known.size.word_again(known.value, inch=True), text)


class Outlined(unittest.TestCase):
    def test_a_corner_cut_off_takes_its_triangle_away(self):
        """100 × 60 × 30 less a triangle of 50 × 30 at its right back corner."""
        made = block("outline")
        self.assertAlmostEqual(made.body.volume, (6000 - 750) * 30, delta=0.5)

    def test_a_round_corner_is_tangent_to_both_its_sides(self):
        """A square corner rounded by 5 loses (1 − π/4) × 25."""
        square = "0,0 40,0 40,40r5 0,40"
        given = {"parts": "outline", "block.length": "40", "block.width": "40",
                 "block.height": "10", "outline1.points": square}  # fmt: skip
        made = make(family_of("plate-block"), given)
        lost = (1 - math.pi / 4) * 25
        self.assertAlmostEqual(made.body.volume, (1600 - lost) * 10, delta=0.3)

    def test_a_hole_that_an_outline_cuts_off_is_noticed(self):
        """The counterbore of the hole at 85, 45 lies over the corner that is cut."""
        whole = {check.key: check for check in block("holes").checks}
        cut = {check.key: check for check in block("holes outline").checks}
        self.assertTrue(whole["holes1-edge"].passed)
        self.assertFalse(cut["holes1-edge"].passed)

    def test_a_corner_is_also_so_far_from_the_one_before_it(self):
        """An even triangle of 40: √3 / 4 × 40² = 692.8 mm²."""
        given = {"parts": "outline", "outline1.points": "0,0 40@0 40@120",
                 "block.height": "10"}  # fmt: skip
        made = make(family_of("plate-block"), given)
        self.assertAlmostEqual(made.body.volume, 6928.2, delta=0.5)
        self.assertEqual(made.values["outline1.points"], "0,0 40,0 20,34.641016")

    def test_what_is_no_outline_is_refused_with_what_would_do(self):
        for text, says in (
            ("0,0 10", "is no corner"),
            ("40@30 0,0 10,0", "is no corner"),
            ("0,0 40,0", "three corners"),
            ("0,0 40,40 40,0 0,40", "crosses itself"),
            ("0,0 10,0r12 10,10 0,10", "up to 10.00"),
        ):
            given = {"parts": "outline", "outline1.points": text}
            with self.subTest(text), self.assertRaisesRegex(BadInput, says):
                make(family_of("plate-block"), given)


if __name__ == "__main__":
    unittest.main()
