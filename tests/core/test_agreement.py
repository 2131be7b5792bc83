"""Two reckonings that speak of the same thing say the same of it."""

import itertools
import math
import statistics
import unittest

from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon


class Tapers(unittest.TestCase):
    NAMES = ("MT1", "MT3", "MT5", "B&S9", "JT3", "R8", "7/24", "1:20", "1:50 pin",
             "16° included", "8 deg half", "3/4 in/ft")  # fmt: skip

    def test_a_taper_by_its_angle_is_that_of_its_standard(self):
        """Collets of ER go in at 8° a side, 3/4 to the foot is 1:16; an angle alone may
        be the whole or the half of it."""
        whole, half, collet = (
            reckon("taper", {"name": name})["half_angle"]
            for name in ("16° included", "8° a side", "ER25")
        )
        self.assertAlmostEqual(whole, collet)
        self.assertAlmostEqual(half, collet)
        per_foot, ratio = (
            reckon("taper", {"name": name})["ratio"] for name in ("3/4 tpf", "1:16")
        )
        self.assertAlmostEqual(per_foot, ratio)
        for said in ("16°", "16 degrees", "0° half", "130° included"):
            with self.subTest(said), self.assertRaises(BadInput):
                reckon("taper", {"name": said})

    def test_the_four_ways_to_set_a_taper_set_the_same_taper(self):
        for name in self.NAMES:
            with self.subTest(name):
                half = reckon("taper", {"name": name})["half_angle"]

                def setting(method, taper=name, **given):
                    return reckon(
                        "taper-setup", {"taper": taper, "method": method, **given}
                    )

                self.assertAlmostEqual(setting("compound")["angle"], half, places=9)
                needle = setting("indicator", travel=50)["indicator_reading"]
                self.assertAlmostEqual(needle, 50 * math.tan(math.radians(half)))
                stack = setting("sine", sine_length=127)["sine_stack"]
                by_itself = reckon("sine", {"angle": half, "length": 127})["stack"]
                self.assertAlmostEqual(stack, by_itself)
                over = setting("tailstock", length_between_centres=300)
                # a bar turned with the tailstock so far over has two diameters
                turned = reckon(
                    "tailstock",
                    {
                        "diameter_a": 30,
                        "diameter_b": 30 - 2 * over["tailstock_offset"] * 100 / 300,
                        "apart": 100,
                        "length": 300,
                    },
                )
                self.assertAlmostEqual(
                    abs(turned["move"]), over["tailstock_offset"], places=6
                )

    def test_what_is_wiped_off_by_going_in_further_is_its_taper(self):
        for name in self.NAMES:
            with self.subTest(name):
                ratio = reckon("taper", {"name": name})["ratio"]
                change = reckon("taper-advance", {"taper": name, "advance": 7.5})
                self.assertAlmostEqual(change["diameter_change"], 7.5 * ratio)
                found = reckon(
                    "taper-angle",
                    {
                        "large": 25,
                        "small": 25 - change["diameter_change"],
                        "length": 7.5,
                    },
                )
                self.assertAlmostEqual(found["ratio"], ratio)

    def test_a_pin_is_as_thick_in_the_middle_as_its_slope_says(self):
        pin = reckon("taper-pin", {"pin": "8", "length": 40})
        slope = reckon("taper", {"name": "1:50 pin"})["ratio"]
        self.assertAlmostEqual(
            pin["large_diameter"] - pin["small_diameter"], 40 * slope
        )


class Patterns(unittest.TestCase):
    def test_a_chord_read_over_pins_gives_back_the_circle_it_came_from(self):
        for holes in (3, 4, 5, 7, 12):
            with self.subTest(holes):
                asked = {"holes": holes, "diameter": 96.5}
                over = reckon("chord-check", {**asked, "pin": 6.35})["over_pins"]
                back = reckon("hole-span", {"span": over, "hole": 6.35, "holes": holes})
                self.assertAlmostEqual(back["diameter"], 96.5)
                chord = reckon("bolt-circle", asked)["chord"]
                self.assertAlmostEqual(over - 6.35, chord)

    def test_neighbours_of_a_bolt_circle_are_a_chord_apart(self):
        asked = {"holes": 7, "diameter": 62, "start": 12, "x": 5, "y": -3}
        made = reckon("bolt-circle", asked)
        points = made["points"]
        for point, other in zip(points, points[1:] + points[:1], strict=True):
            self.assertAlmostEqual(math.dist(point, other), made["chord"])

    def test_the_land_of_an_index_ring_is_what_lies_between_its_holes(self):
        for holes in (24, 36, 60):
            asked = {"holes": holes, "diameter": 100}
            ring = reckon("index-ring", {**asked, "hole_diameter": 4})
            between = reckon("chord-check", {**asked, "pin": 4})["inside_pins"]
            self.assertAlmostEqual(ring["land"], between)

    def test_divisions_and_their_angle_ask_for_the_same_turns(self):
        plates = list(range(15, 34))
        for divisions in (3, 7, 9, 11, 24):
            with self.subTest(divisions):
                asked = {"worm": 40, "plates": plates}
                answer = reckon("dividing", {**asked, "divisions": divisions})
                angle = f"{360 / divisions:.12f}deg"
                other = reckon("dividing", {**asked, "angle": angle})
                first, same = answer["settings"][0], other["settings"][0]
                turns = first["turns"] + first["holes"] / first["circle"]
                self.assertAlmostEqual(turns, 40 / divisions)
                self.assertAlmostEqual(
                    turns, same["turns"] + same["holes"] / same["circle"]
                )


class Forms(unittest.TestCase):
    def test_a_square_from_round_is_the_square_hole_turned_out(self):
        polygon = reckon("polygon", {"sides": 4, "across_flats": 12})
        hole = reckon("square-hole", {"size": 12})
        self.assertAlmostEqual(polygon["across_corners"], hole["corner_distance"])
        self.assertAlmostEqual(polygon["round_needed"], 12 * math.sqrt(2))

    def test_a_flat_tool_meets_the_wall_by_the_arc_over_its_width(self):
        """The arc's own height over a chord as wide as the tool."""
        for shaft, wide in ((12, 4), (25, 8), (50, 14)):
            with self.subTest(shaft):
                key = reckon("keyway", {"shaft_diameter": shaft, "tool_width": wide})
                drop = key["corner_drop"]
                arc = reckon("arc-chord", {"height": drop, "chord": wide})
                self.assertAlmostEqual(arc["diameter"], shaft, places=6)

    def test_hub_and_shaft_hold_the_whole_height_of_the_key(self):
        """What the two depths leave above the key is the table's play."""
        for shaft in (12, 22, 38, 60):
            with self.subTest(shaft):
                hub = reckon("keyway", {"shaft_diameter": shaft})
                room = hub["shaft_depth"] + hub["hub_depth"] - hub["key_height"]
                self.assertGreater(room, 0)
                self.assertLess(room, 0.51)
                self.assertAlmostEqual(hub["across"], shaft + hub["hub_depth"])
                cut = reckon("keyway", {"shaft_diameter": shaft, "bore": False})
                self.assertAlmostEqual(cut["across"], shaft - cut["shaft_depth"])

    def test_a_chamfer_is_a_right_angled_triangle(self):
        for angle in (15, 30, 45, 60):
            answer = reckon("chamfer", {"leg": 3, "angle": angle})
            self.assertAlmostEqual(
                math.hypot(answer["leg"], answer["depth"]), answer["face"]
            )
            by_face = reckon("chamfer", {"face": answer["face"], "angle": angle})
            by_depth = reckon("chamfer", {"depth": answer["depth"], "angle": angle})
            self.assertAlmostEqual(by_face["leg"], 3)
            self.assertAlmostEqual(by_depth["leg"], 3)

    def test_an_arc_is_the_same_from_any_two_of_its_parts(self):
        """Found again from each pair; its length is that of a fine chain of chords."""
        parts = ("radius", "chord", "height", "angle")
        for radius, angle in ((50, 30), (12.5, 120), (80, 4)):
            whole = reckon("arc", {"radius": radius, "angle": angle})
            for pair in itertools.combinations(parts, 2):
                again = reckon("arc", {part: whole[part] for part in pair})
                for part in (*parts, "length"):
                    self.assertAlmostEqual(again[part], whole[part], places=6)
            steps = 2000
            link = 2 * radius * math.sin(math.radians(angle / steps / 2))
            self.assertAlmostEqual(whole["length"], steps * link, places=5)
        more = reckon("arc", {"radius": 10, "height": 15})
        self.assertAlmostEqual(more["angle"], 240)
        with self.assertRaises(BadInput):
            reckon("arc", {"radius": 10, "chord": 20.1})

    def test_a_round_in_a_vee_touches_both_flanks(self):
        """A flank is as far from its axis as it is thick; and twice that thick its top
        stands higher by as much as the rise tells."""
        for diameter, angle in ((20, 90), (33, 60), (8, 120)):
            lies = reckon("vee", {"diameter": diameter, "angle": angle, "mouth": 80})
            half = math.radians(angle / 2)
            self.assertAlmostEqual(lies["axis"] * math.sin(half), diameter / 2)
            up = 40 / math.tan(half) - lies["touches"]
            self.assertAlmostEqual(lies["apart"] / 2, up * math.tan(half))
            to_axis = math.hypot(lies["apart"] / 2, lies["axis"] - up)
            self.assertAlmostEqual(to_axis, diameter / 2)
            thicker = reckon("vee", {"diameter": 2 * diameter, "angle": angle})
            self.assertAlmostEqual(
                thicker["top"] - lies["top"], diameter * lies["rise"]
            )
        with self.assertRaises(BadInput):
            reckon("vee", {"diameter": 60, "mouth": 30})

    def test_pieces_from_a_bar_make_the_strip_they_are_sawn_from(self):
        """As long as the strip of so many it gives so many, a hair shorter one less."""
        for count, length, kerf in ((8, 24, 1.5), (3, 40, 2), (26, 35, 3)):
            asked = {"length": length, "kerf": kerf, "clean_up": 0.5}
            # both ends of a strip are sawn as well, and cleaned up
            bar = reckon("strip-length", {**asked, "pieces": count, "ends": 0.5})
            found = reckon("pieces", {**asked, "bar": bar["strip"]})
            self.assertEqual((found["pieces"], round(found["left"], 9)), (count, 0))
            shorter = reckon("pieces", {**asked, "bar": bar["strip"] - 0.01})
            self.assertEqual(shorter["pieces"], count - 1)
            held = reckon("pieces", {**asked, "bar": bar["strip"], "held": 1})
            self.assertEqual(held["pieces"], count - 1, "the last is cut off as well")

    def test_the_speed_that_is_told_for_a_diameter_has_the_surface_speed_asked(self):
        told = reckon("speeds", {"material": "brass", "diameter": 40})
        again = reckon("surface-speed", {"diameter": 40, "rpm": told["rpm_ideal"]})
        self.assertAlmostEqual(again["surface_speed"], told["surface_speed"])

    def test_a_ball_sits_as_deep_as_the_arc_of_its_rim(self):
        seat = reckon("detent", {"ball": 6, "land_diameter": 4})
        arc = reckon("arc-chord", {"height": seat["depth"], "chord": 4})
        self.assertAlmostEqual(arc["diameter"], 6)


class Heat(unittest.TestCase):
    def test_a_hub_heated_as_told_has_just_the_room_asked_for(self):
        for hub, shaft in (("steel", "steel"), ("aluminium", "steel")):
            with self.subTest(hub):
                told = reckon(
                    "shrink-fit",
                    {
                        "diameter": 40,
                        "interference": 0.04,
                        "assembly_clearance": 0.02,
                        "hub_material": hub,
                        "shaft_material": shaft,
                    },
                )
                self.assertAlmostEqual(told["total_expansion"], 0.06)
                cold = 40 - 0.04
                hot = cold + 0.06
                back = reckon(
                    "thermal-size",
                    {
                        "size": hot,
                        "temperature": told["hub_temperature"],
                        "material": hub,
                    },
                )
                # cold it is the hub's own bore again, within what heat does to 0.04
                self.assertAlmostEqual(back["size_at_reference"], cold, places=3)

    def test_what_is_warm_is_read_too_large_by_as_much_as_it_grew(self):
        inputs = {"size": 100, "temperature": 35, "material": "aluminium"}
        grown = reckon("thermal-size", inputs)
        self.assertAlmostEqual(grown["size_at_reference"] + grown["change"], 100)
        again = {**inputs, "size": grown["size_at_reference"], "temperature": 20}
        self.assertAlmostEqual(reckon("thermal-size", again)["change"], 0)


class RunOut(unittest.TestCase):
    READINGS = (0.0, 0.012, 0.031, 0.044, 0.041, 0.028, 0.011, -0.002)

    def test_centring_moves_by_the_offset_that_run_out_finds(self):
        runout = reckon("runout", {"readings": self.READINGS})
        centring = reckon("centring", {"readings": self.READINGS})
        self.assertAlmostEqual(centring["offset"], runout["eccentricity"])
        self.assertAlmostEqual(centring["direction"], runout["phase"])
        self.assertAlmostEqual(centring["tir"], runout["tir"])
        self.assertAlmostEqual(
            math.hypot(centring["offset_x"], centring["offset_y"]), centring["offset"]
        )

    def test_once_moved_nothing_is_left_but_what_centring_cannot_take_out(self):
        found = reckon("centring", {"readings": self.READINGS})
        moved = [
            reading
            - found["offset_x"] * math.cos(2 * math.pi * i / 8)
            - found["offset_y"] * math.sin(2 * math.pi * i / 8)
            for i, reading in enumerate(self.READINGS)
        ]
        again = reckon("centring", {"readings": moved})
        self.assertAlmostEqual(again["offset"], 0)
        self.assertAlmostEqual(again["tir"], found["residual"])

    def test_a_stack_of_one_runs_out_as_its_piece_does(self):
        stack = reckon("runout-stack", {"elements": [{"eccentricity": 0.011}]})
        for key in ("worst", "rss", "mean", "percentile_95"):
            self.assertAlmostEqual(stack[key], 0.011)
            self.assertAlmostEqual(stack[f"{key}_tir"], 0.022)

    def test_two_alike_are_a_chord_of_their_circle(self):
        """Two equal offsets at random: 2 e |cos(turn / 2)|, 4 e / π on average."""
        two = {"elements": [{"eccentricity": 0.01}, {"eccentricity": 0.01}]}
        stack = reckon("runout-stack", two)
        self.assertAlmostEqual(stack["worst"], 0.02)
        self.assertAlmostEqual(stack["rss"], 0.01 * math.sqrt(2))
        self.assertAlmostEqual(stack["mean"], 0.04 / math.pi, delta=3e-5)
        nineteen = 0.02 * math.cos(math.radians(0.05 * 90))
        self.assertAlmostEqual(stack["percentile_95"], nineteen, delta=3e-5)


class Threads(unittest.TestCase):
    NAMES = ("M6", "M12", "M24x2", "1/4-20", "3/8-24", "1 1/8-12 W", "2BA")

    def test_the_drill_for_the_whole_thread_is_its_minor_diameter(self):
        """100 % of thread is the flanks' whole height at either side."""
        for name, share in (("M12", 0.649519), ("1/4-20", 0.649519)):
            thread = reckon("thread", {"thread": name})
            drill = reckon("tap-drill", {"thread": name, "engagement": "100%"})
            whole = thread["major"] - 2 * share * thread["pitch"]
            self.assertAlmostEqual(drill["ideal"], whole, places=4)

    def test_wires_at_their_best_touch_where_thread_and_gap_are_alike(self):
        for name in self.NAMES:
            with self.subTest(name):
                thread = reckon("thread", {"thread": name})
                wires = reckon("thread-wires", {"thread": name})
                half = math.radians(thread["flank_angle"] / 2)
                # the best wire's centre lies on the pitch line's flanks' bisector
                self.assertAlmostEqual(
                    wires["best_wire"], thread["pitch"] / (2 * math.cos(half)), places=6
                )
                back = reckon(
                    "thread-wires",
                    {"thread": name, "measured": wires["over_wires"]},
                )
                self.assertAlmostEqual(
                    back["pitch_diameter"], thread["pitch_diameter"], places=6
                )

    def test_a_thread_is_found_again_from_its_own_figures(self):
        for name in self.NAMES:
            with self.subTest(name):
                thread = reckon("thread", {"thread": name})
                found = reckon(
                    "thread-identify",
                    {
                        "measured_major": thread["major"] - 0.05,
                        "pitch": thread["pitch"],
                    },
                )
                sizes = [
                    reckon("thread", {"thread": candidate["thread"]})
                    for candidate in found["candidates"][:3]
                ]
                self.assertTrue(
                    any(
                        math.isclose(s["major"], thread["major"], abs_tol=1e-3)
                        and math.isclose(s["pitch"], thread["pitch"], abs_tol=1e-3)
                        for s in sizes
                    )
                )

    def test_the_lead_climbs_one_pitch_in_a_turn_of_the_pitch_line(self):
        for name in self.NAMES:
            thread = reckon("thread", {"thread": name})
            climb = math.tan(math.radians(thread["lead_angle"]))
            around = math.pi * thread["pitch_diameter"]
            self.assertAlmostEqual(climb * around, thread["pitch"], places=6)

    def test_passes_get_lighter_to_the_end_and_no_deeper_than_the_first(self):
        for thread in ("M3", "M20", "M39x4", "3/8 BSW", "Tr20x4"):
            for first in (0.1, 0.2, 0.3):
                for least in (0.02, 0.05, 0.1):
                    asked = {"thread": thread, "first": first, "least": least}
                    made = reckon("thread-passes", {**asked, "spring": 0})
                    cuts = [cut["radial"] for cut in made["passes"]]
                    with self.subTest(asked):
                        self.assertAlmostEqual(math.fsum(cuts), made["total_depth"])
                        self.assertLessEqual(cuts[0], first + 1e-9)
                        for cut, after in itertools.pairwise(cuts):
                            self.assertLessEqual(after, cut + 1e-9)
                        self.assertTrue(all(c >= least - 1e-9 for c in cuts[:-1]))

    def test_passes_of_every_school_end_at_the_same_depth(self):
        for school in ("plunge", "flank", "alternate"):
            made = reckon("thread-passes", {"thread": "M20", "school": school})
            deep = math.fsum(cut["radial"] for cut in made["passes"])
            self.assertAlmostEqual(deep, 0.613435 * 2.5, places=4)
            # the compound goes the long way, down the flank
            along = made["compound_total"] * math.cos(math.radians(29.5))
            if school == "flank":
                self.assertAlmostEqual(along, deep, places=4)


class Fits(unittest.TestCase):
    CODES = ("H7/g6", "H7/h6", "H7/k6", "H7/p6", "H8/f7", "G7/h6", "P7/h6")

    def test_a_fit_is_its_two_zones(self):
        for code in self.CODES:
            with self.subTest(code):
                hole, shaft = code.split("/")
                fit = reckon("iso-fit", {"nominal": 46, "fit": code})
                answer = reckon("iso-limits", {"nominal": 46, "zone": hole})
                two = reckon("iso-limits", {"nominal": 46, "zone": shaft})
                self.assertEqual(fit["hole_upper"], answer["upper"])
                self.assertEqual(fit["shaft_lower"], two["lower"])
                self.assertAlmostEqual(
                    fit["clearance_max"], answer["upper"] - two["lower"]
                )
                self.assertAlmostEqual(
                    fit["clearance_min"], answer["lower"] - two["upper"]
                )

    def test_a_hole_in_the_middle_of_its_zone_gets_the_shaft_of_the_code(self):
        """With no doubt, the play wanted is that of the code about the mean hole."""
        for code in ("H7/g6", "H7/h6"):
            with self.subTest(code):
                fit = reckon("iso-fit", {"nominal": 46, "fit": code})
                hole = statistics.fmean((fit["hole_lower"], fit["hole_upper"]))
                target = reckon(
                    "fit-target",
                    {
                        "existing": [hole],
                        "instrument_uncertainty": 0,
                        "kind": "hole",
                        "clearance_min": fit["clearance_min"],
                        "clearance_max": fit["clearance_max"],
                    },
                )
                self.assertAlmostEqual(hole - target["upper"], fit["clearance_min"])
                self.assertAlmostEqual(hole - target["lower"], fit["clearance_max"])

    def test_a_press_turns_by_what_it_takes_to_push(self):
        """Friction holds alike along and round: torque = force × half the diameter."""
        press = reckon(
            "press-fit",
            {
                "diameter": 30,
                "length": 25,
                "hub_outside": 60,
                "interference": 0.03,
                "hub_material": "steel",
                "shaft_material": "steel",
            },
        )
        self.assertAlmostEqual(
            press["torque"], press["press_force"] * 30 / 2 / 1000, places=6
        )
        pressure = press["press_force"] / (0.12 * math.pi * 30 * 25)
        self.assertAlmostEqual(press["pressure"], pressure, places=6)


class Cutting(unittest.TestCase):
    def test_a_bar_bends_by_its_force_over_its_stiffness(self):
        bar = reckon("boring-bar", {"bar_diameter": 16, "overhang": 64, "force": 250})
        self.assertAlmostEqual(bar["deflection"] * bar["stiffness"], 250, places=6)
        self.assertAlmostEqual(bar["length_to_diameter"], 4)

    def test_a_tube_is_its_bar_less_its_bore(self):
        steel = {"material": "steel", "length": 120}
        bar = reckon("mass", {**steel, "shape": "bar", "diameter": 50})
        core = reckon("mass", {**steel, "shape": "bar", "diameter": 30})
        tube = reckon(
            "mass", {**steel, "shape": "tube", "outside_diameter": 50, "bore": 30}
        )
        for key in ("mass", "volume"):
            self.assertAlmostEqual(tube[key], bar[key] - core[key])
        # a hexagon, six even triangles, lies between its two rounds
        hexagon = reckon("mass", {**steel, "shape": "hexagon", "across_flats": 30})
        side = 30 / math.sqrt(3)
        self.assertAlmostEqual(hexagon["volume"] / 120, 6 * side * 15 / 2)
        self.assertTrue(core["mass"] < hexagon["mass"] < core["mass"] * 4 / 3)

    def test_the_ideal_speed_runs_the_rim_at_the_surface_speed(self):
        asked = {
            "material": "mild steel",
            "tool": "hss",
            "operation": "turn",
            "diameter": 40,
        }
        made = reckon("speeds", asked)
        rim = math.pi * 40 / 1000 * made["rpm_ideal"]
        self.assertAlmostEqual(rim, made["surface_speed"], places=6)

    def test_no_pass_is_deeper_than_was_allowed(self):
        for finish_cut in (0.0, 0.1, 0.4):
            for most in (0.25, 0.3, 1.0):
                for division, dial in ((0.02, "diameter"), (0.025, "radius")):
                    asked = {
                        "start": 60,
                        "finish": 52.34,
                        "finish_cut": finish_cut,
                        "most": most,
                        "division": division,
                        "dial": dial,
                    }
                    made = reckon("passes", asked)
                    sizes = [60, *(cut["diameter"] for cut in made["passes"])]
                    with self.subTest(asked):
                        self.assertAlmostEqual(sizes[-1], 52.34)
                        for size, next_one in itertools.pairwise(sizes):
                            self.assertLessEqual((size - next_one) / 2, most + 1e-9)

    def test_more_passes_than_anyone_takes_are_refused_with_what_is_allowed(self):
        asked = {"start": 60, "finish": 40, "most": 0.001}
        with self.assertRaisesRegex(BadInput, "0.005 mm or more") as refused:
            reckon("passes", asked)
        self.assertEqual(refused.exception.key, "most")
        self.assertTrue(reckon("passes", {**asked, "most": 0.005})["count"])

    def test_roughing_and_finishing_take_off_all_there_is(self):
        made = reckon("passes", {"start": 60, "finish": 52.34, "finish_cut": 0.15})
        self.assertAlmostEqual(made["passes"][-1]["diameter"], 52.34, delta=0.01)
        self.assertEqual(made["count"], len(made["passes"]))


if __name__ == "__main__":
    unittest.main()
