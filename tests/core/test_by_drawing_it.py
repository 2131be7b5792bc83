"""Answers checked against circles and lines laid out and touched by search.

Nothing here knows the formula of what it checks: a pin is pushed until it touches,
a keyway is cut into points of a circle, a slot is filled with its tongue.
"""

import math
import unittest
from itertools import pairwise, product

from machinon.core.reckoning import reckon


def pushed(touches, low: float, high: float) -> float:
    """Where something just touches, between where it does and where it does not."""
    for _ in range(200):
        middle = (low + high) / 2
        if touches(middle):
            low = middle
        else:
            high = middle
    return (low + high) / 2


def off_line(x: float, y: float, degrees: float) -> float:
    """Distance of a point from the line through the corner at an angle."""
    a = math.radians(degrees)
    return abs(x * math.sin(a) - y * math.cos(a))


class Dovetails(unittest.TestCase):
    def centre(self, pin: float, angle: float) -> float:
        """How far from its corner a pin stops that lies on the floor."""
        radius = pin / 2
        return pushed(lambda x: off_line(x, radius, angle) < radius, 0.0, 40 * pin)

    def test_over_and_between_pins_is_where_the_pins_stop(self):
        for angle, pin in product((45, 55, 60, 70), (4, 6.35, 10)):
            stop = self.centre(pin, angle)
            asked = {"angle": angle, "pin": pin, "width_bottom": 90}
            with self.subTest(angle=angle, pin=pin):
                male = reckon("dovetail", asked)["over_pins"]
                self.assertAlmostEqual(male, 90 + 2 * (stop + pin / 2), 6)
                female = reckon("dovetail", {**asked, "internal": True})
                self.assertAlmostEqual(
                    female["between_pins"], 90 - 2 * (stop + pin / 2), 6
                )

    def test_the_largest_pin_is_the_one_whose_touch_lies_at_the_flank_s_end(self):
        for angle, depth in product((45, 55, 60), (8, 12.5)):
            most = reckon(
                "dovetail",
                {"angle": angle, "pin": 1, "width_bottom": 90, "depth": depth},
            )["pin_max"]

            def touch_height(pin: float, angle: float = angle) -> float:
                x, a = self.centre(pin, angle), math.radians(angle)
                # the foot of the perpendicular from the pin's middle on the flank
                along = x * math.cos(a) + pin / 2 * math.sin(a)
                return along * math.sin(a)

            with self.subTest(angle=angle, depth=depth):
                self.assertAlmostEqual(touch_height(most), depth, 2)

    def test_the_other_half_goes_in_and_has_the_play_that_was_asked(self):
        """Slot and tongue laid over each other where they bear, at three heights."""
        for exists, depth, new, angle in product(
            ("slot", "tongue"), (10.0, 12.0), (10.0, 11.5, 13.0), (55, 60)
        ):
            slot_deep, tongue_deep = (depth, new) if exists == "slot" else (new, depth)
            answer = reckon(
                "dovetail-mate",
                {
                    "bottom": 80,
                    "depth": depth,
                    "new_depth": new,
                    "internal": exists == "slot",
                    "angle": angle,
                    "pin": 5,
                    "play_least": 0.02,
                    "play_most": 0.06,
                },
            )
            lean = 1 / math.tan(math.radians(angle))
            for end, play in (("lower", 0.06), ("upper", 0.02)):
                made = answer[f"bottom_{end}"]
                floor, root = (80, made) if exists == "slot" else (made, 80)
                if exists == "tongue":
                    play = 0.08 - play  # a wider slot is the looser one
                for share in (0.1, 0.5, 0.9):
                    up = share * min(slot_deep, tongue_deep)
                    # up from the slot's floor; the top on it, or shoulders on it
                    lies = up + (
                        0 if tongue_deep >= slot_deep else slot_deep - tongue_deep
                    )
                    slot_wide = floor - 2 * lies * lean
                    from_root = (
                        tongue_deep - up
                        if tongue_deep >= slot_deep
                        else slot_deep - lies
                    )
                    tongue_wide = root + 2 * from_root * lean
                    with self.subTest(exists, d=depth, n=new, angle=angle, end=end):
                        self.assertAlmostEqual(slot_wide - tongue_wide, play, 6)


class Keyways(unittest.TestCase):
    def test_corners_and_feed_are_where_a_flat_tool_meets_the_round(self):
        for diameter, tool in ((12, 4), (25, 8), (25, 5), (63, 18)):
            radius = diameter / 2

            def inside(x: float, r: float = radius, w: float = tool) -> bool:
                """Whether the corner of a tool with its edge at x is in the bore."""
                return math.hypot(x, w / 2) < r

            corner = pushed(inside, 0.0, radius)
            asked = {"shaft_diameter": diameter, "tool_width": tool}
            hub = reckon("keyway", asked)
            with self.subTest(diameter, tool=tool):
                floor = radius + hub["hub_depth"]
                self.assertAlmostEqual(hub["corner_drop"], radius - corner, 6)
                self.assertAlmostEqual(hub["feed_from_contact"], floor - corner, 6)
                self.assertAlmostEqual(hub["across"], floor + radius, 6)
                shaft = reckon("keyway", {**asked, "bore": False})
                floor = radius - shaft["shaft_depth"]
                self.assertAlmostEqual(shaft["feed_from_contact"], radius - floor, 6)
                self.assertAlmostEqual(shaft["across"], radius + floor, 6)

    def test_the_key_stands_clear_of_the_hub_by_a_few_tenths(self):
        """Both depths together hold the key's height and 0.2 to 0.5 mm more."""
        for diameter in (7, 9, 11, 15, 20, 25, 35, 40, 48, 55, 60, 70, 80, 90, 100):
            answer = reckon("keyway", {"shaft_diameter": diameter})
            clear = answer["shaft_depth"] + answer["hub_depth"] - answer["key_height"]
            with self.subTest(diameter):
                self.assertGreater(clear, 0.15)
                self.assertLess(clear, 0.55)
                self.assertLess(answer["key_width"], diameter / 2)


class BallsAndRollers(unittest.TestCase):
    def test_a_taper_bore_is_where_two_balls_sink_to(self):
        """A bore 30 at its mouth, 1 in 20: each ball let down till it rests."""
        mouth, lean = 30.0, 1 / 40  # on the radius

        def rests(ball: float) -> float:
            """Depth of its middle at which the ball touches the wall."""
            slant = math.hypot(1, lean)
            return pushed(
                lambda z: (mouth / 2 - lean * z) / slant > ball / 2, 0.0, 590.0
            )

        large, small = 29.0, 27.0
        answer = reckon(
            "taper-balls",
            {
                "large": large,
                "small": small,
                "depth_large": rests(large) - large / 2,
                "depth_small": rests(small) - small / 2,
            },
        )
        self.assertAlmostEqual(answer["half_angle"], math.degrees(math.atan(lean)), 5)
        self.assertAlmostEqual(answer["diameter"], mouth, 5)

    def test_a_ball_in_a_dimple_touches_all_round_its_rim(self):
        for ball, rim in ((6, 4), (8, 5.5)):

            def smaller(deep: float, r: float = ball / 2, rim: float = rim) -> bool:
                """Whether the ball is still smaller than the rim so deep down."""
                return math.sqrt(r**2 - (r - deep) ** 2) < rim / 2

            deep = pushed(smaller, 0.0, ball / 2)
            sat = reckon("arc-chord", {"chord": rim, "height": deep})
            self.assertAlmostEqual(sat["diameter"], ball, 6)


class Wires(unittest.TestCase):
    def test_wires_lie_where_they_touch_both_flanks(self):
        """A groove of the thread's angle, as wide as half the pitch at pitch line."""
        for thread, wire in (("M10", 0.9), ("M20", 1.5)):
            found = reckon("thread", {"thread": thread})
            pitch, effective = found["pitch"], found["pitch_diameter"]

            def touches(y: float, p: float = pitch, w: float = wire) -> bool:
                """Whether a wire this high over the pitch line rests on the flanks."""
                half = math.radians(30)
                room = (p / 4 + y * math.tan(half)) * math.cos(half)
                return room > w / 2

            high = pushed(lambda y: not touches(y), -pitch, 2 * pitch)
            over = effective + 2 * high + wire
            asked = {"thread": thread, "wire": wire}
            with self.subTest(thread):
                read = reckon("thread-wires", asked)
                # the helix lifts the wires by a few micrometres, never lets them down
                self.assertGreaterEqual(read["over_wires"] - over, -1e-6)
                self.assertLess(read["over_wires"] - over, 0.006)


class Holes(unittest.TestCase):
    def test_the_span_over_two_neighbours_is_theirs_on_the_circle(self):
        for holes, circle, hole in ((3, 110, 8), (6, 80, 6.5), (8, 98.4, 10)):
            x = circle / 2 * (1 - math.cos(2 * math.pi / holes))
            y = circle / 2 * math.sin(2 * math.pi / holes)
            span = math.hypot(x, y) + hole
            found = reckon("hole-span", {"span": span, "hole": hole, "holes": holes})
            self.assertAlmostEqual(found["diameter"], circle, 6)

    def test_points_of_a_circle_are_as_far_from_each_other_as_it_says(self):
        for holes in (3, 5, 7, 12):
            found = reckon("bolt-circle", {"holes": holes, "diameter": 62})
            points = found["points"]
            for point, other in zip(points, points[1:] + points[:1], strict=True):
                self.assertAlmostEqual(math.dist(point, other), found["chord"], 6)
                self.assertAlmostEqual(math.hypot(*point), 31, 6)


class FlatsAndEdges(unittest.TestCase):
    def test_a_flat_is_a_chord_whichever_of_its_sizes_is_given(self):
        for diameter, depth in ((12.1, 2.0), (20, 6), (25.4, 0.5)):
            radius = diameter / 2

            def inside(x: float, r: float = radius, d: float = depth) -> bool:
                return math.hypot(x, r - d) < r

            wide = 2 * pushed(inside, 0.0, radius)
            whole = {"depth": depth, "width": wide, "across": diameter - depth}
            for key, value in whole.items():
                found = reckon("flat", {"diameter": diameter, key: value})
                for other, wanted in whole.items():
                    with self.subTest(diameter, given=key, found=other):
                        self.assertAlmostEqual(found[other], wanted, 5)

    def test_a_hole_near_an_edge_opens_by_the_chord_it_loses(self):
        for bore, offset, half in ((20, 12, 15), (20, 4, 15), (16, 25, 30)):
            found = reckon(
                "break-out", {"bore": bore, "offset": offset, "half_width": half}
            )
            edge = half - offset
            with self.subTest(bore, offset=offset):
                self.assertAlmostEqual(found["wall"], edge - bore / 2)
                self.assertAlmostEqual(found["other_wall"], half + offset - bore / 2)
                if edge >= bore / 2:
                    self.assertEqual(found["opening"], 0)
                    continue
                end = pushed(
                    lambda y, e=edge, r=bore / 2: math.hypot(e, y) < r, 0.0, bore / 2
                )
                self.assertAlmostEqual(found["opening"], 2 * end, 6)

    def test_an_edge_found_is_half_a_tip_away(self):
        """The tip touches with its rim: its middle stands half a tip outside."""
        for direction, sign in (("+", 1), ("-", -1)):
            found = reckon(
                "edge-find",
                {
                    "edge_reading": 40,
                    "tip_diameter": 6,
                    "offset": 15,
                    "direction": direction,
                },
            )
            edge = 40 + sign * 3
            self.assertAlmostEqual(found["position"], edge + sign * 15)

    def test_a_polygon_from_round_has_its_corners_on_the_round(self):
        for sides, across in ((4, 12.7), (6, 17), (8, 30)):
            found = reckon("polygon", {"sides": sides, "across_flats": across})
            radius = found["round_needed"] / 2
            corners = [
                (
                    radius * math.cos(2 * math.pi * i / sides),
                    radius * math.sin(2 * math.pi * i / sides),
                )
                for i in range(sides)
            ]
            middle = [
                (before + other) / 2
                for before, other in zip(corners[0], corners[1], strict=True)
            ]
            self.assertAlmostEqual(2 * math.hypot(*middle), across, 6)
            self.assertAlmostEqual(
                found["depth_per_flat"], radius - math.hypot(*middle), 6
            )


class LengthsInARow(unittest.TestCase):
    LINKS = (
        {"name": "housing", "length": 40, "tolerance": 0.1, "sign": "+"},
        {"name": "bearing", "length": 12, "tolerance": 0.12, "sign": "-"},
        {"name": "spacer", "length": 15.9, "tolerance": 0.05, "sign": "-"},
        {"name": "ring", "length": 12, "tolerance": 0.12, "sign": "-"},
    )

    def test_the_worst_gap_is_the_worst_of_every_way_the_links_can_fall(self):
        found = reckon("length-chain", {"links": list(self.LINKS)})
        gaps = []
        for way in product((-1, 1), repeat=len(self.LINKS)):
            gaps.append(
                sum(
                    (1 if link["sign"] == "+" else -1)
                    * (link["length"] + off * link["tolerance"])
                    for link, off in zip(self.LINKS, way, strict=True)
                )
            )
        self.assertAlmostEqual(found["worst_least"], min(gaps))
        self.assertAlmostEqual(found["worst_most"], max(gaps))
        self.assertAlmostEqual(found["total"], sum(gaps) / len(gaps))
        self.assertLess(found["likely"], max(gaps) - found["total"])

    def test_the_link_to_be_made_keeps_the_gap_at_both_its_limits(self):
        links = [dict(link) for link in self.LINKS]
        asked = {
            "links": links, "unknown": "spacer", "gap_least": -0.3, "gap_most": 0.6
        }  # fmt: skip
        band = reckon("length-chain", asked)
        for end, key, wanted in (
            ("lower", "worst_most", 0.6),
            ("upper", "worst_least", -0.3),
        ):
            made = [dict(link) for link in self.LINKS]
            made[2] |= {"length": band[end], "tolerance": 0}
            gap = reckon("length-chain", {"links": made})
            with self.subTest(end):
                self.assertAlmostEqual(gap[key], wanted)

    def test_a_strip_is_long_enough_for_all_its_pieces_and_cuts(self):
        found = reckon(
            "strip-length",
            {"pieces": 5, "length": 20, "kerf": 1.5, "clean_up": 0.3, "ends": 2},
        )
        at = 2.0
        for number, centre in enumerate(found["centres"]):
            if number:
                at += 1.5 + 2 * 0.3  # the cut, and both faces cleaned up
            self.assertAlmostEqual(centre, at + 10)
            at += 20
        self.assertAlmostEqual(found["strip"], at + 2)

    def test_saw_cuts_leave_nothing_of_the_slot_and_nothing_beside_it(self):
        for width, saw in ((7, 2), (6, 2), (3.3, 3), (3, 3)):
            found = reckon("saw-slot", {"depth": 10, "width": width, "saw": saw})
            edges = sorted(found["positions"])
            with self.subTest(width, saw=saw):
                self.assertEqual(len(edges), found["passes"])
                self.assertAlmostEqual(edges[0], 10)
                self.assertAlmostEqual(edges[-1] + saw, 10 + width)
                for edge, other in pairwise(edges):
                    self.assertLessEqual(other - edge, saw + 1e-9)

    def test_a_screw_from_stock_holds_and_does_not_reach_the_floor(self):
        found = reckon(
            "screw-length",
            {"grip": 12, "washer": 1.6, "screw": "M6", "engagement": 6,
             "thread_depth": 14},
        )  # fmt: skip
        for length in found["stock"]:
            into = length - 12 - 1.6
            self.assertGreaterEqual(into, 6)
            self.assertLessEqual(into, 14 - 1.0)
        self.assertTrue(found["stock"])


class Lines(unittest.TestCase):
    def test_the_best_line_leaves_the_least_squares_of_all_lines_tried(self):
        readings = [0.0, 0.021, 0.055, 0.058, 0.083, 0.09]
        found = reckon("straightness", {"readings": readings, "spacing": 50})
        slope = found["slope"] / 100

        def left(rise: float) -> float:
            lines = [y - rise * 50 * i for i, y in enumerate(readings)]
            mean = sum(lines) / len(lines)
            return sum((line - mean) ** 2 for line in lines)

        for other in (slope * 0.9, slope * 1.1, slope + 1e-5, slope - 1e-5):
            self.assertLess(left(slope), left(other))
        self.assertAlmostEqual(math.degrees(math.atan(slope)), found["angle"], 6)

    def test_gaps_at_two_heights_are_the_lean_between_them(self):
        found = reckon(
            "squareness-gaps",
            {"gaps": [{"at": 10, "gap": 0.02}, {"at": 90, "gap": 0.06}], "length": 80},
        )
        self.assertAlmostEqual(found["error"], 0.04)
        lean = math.tan(math.radians(found["angle"])) * 80
        self.assertAlmostEqual(lean, 0.04, 6)

    def test_each_way_to_set_a_taper_turns_the_same_cone(self):
        for taper in ("MT3", "1:20", "24/20/80", "7/24"):
            compound = reckon("taper-setup", {"taper": taper})
            half = math.radians(compound["angle"])
            needle = reckon(
                "taper-setup", {"taper": taper, "method": "indicator", "travel": 40}
            )
            slips = reckon(
                "taper-setup", {"taper": taper, "method": "sine", "sine_length": 100}
            )
            with self.subTest(taper):
                # along the axis the tool gains as much as the cone does
                cone = math.tan(half) * 40
                self.assertAlmostEqual(needle["indicator_reading"], cone, 6)
                self.assertAlmostEqual(slips["sine_stack"], 100 * math.sin(half), 6)


class Dividing(unittest.TestCase):
    PLATES = (15, 16, 17, 18, 19, 20, 21, 23, 27, 29, 31, 33)

    def test_every_setting_called_exact_comes_round_and_none_is_missed(self):
        """Tried by turning: so many holes, as often as there are divisions."""
        for divisions in (7, 12, 13, 18, 60):
            found = reckon(
                "dividing",
                {"divisions": divisions, "worm": 40, "plates": list(self.PLATES)},
            )
            exact = {
                setting["circle"]
                for setting in found["settings"]
                if abs(setting["error"]) < 1e-9
            }
            with self.subTest(divisions):
                for setting in found["settings"]:
                    if setting["circle"] not in exact:
                        continue
                    holes = setting["turns"] * setting["circle"] + setting["holes"]
                    self.assertEqual(holes * divisions, 40 * setting["circle"])
                able = {c for c in self.PLATES if 40 * c % divisions == 0}
                # one setting of whole turns stands for every circle
                self.assertTrue(exact <= able)
                self.assertEqual(bool(exact), bool(able))


class Centring(unittest.TestCase):
    def test_the_moves_it_gives_leave_a_piece_that_runs_true(self):
        """A round off by (x, y), read every 90°, moved as told, read again."""
        for x, y in ((0.03, 0.0), (-0.02, 0.05), (0.011, -0.007)):
            readings = [
                x * math.cos(math.radians(a)) + y * math.sin(math.radians(a))
                for a in (0, 90, 180, 270)
            ]
            found = reckon("centring", {"readings": readings})
            for move in found["moves"]:
                towards = math.radians(move["towards"])
                x += move["move"] * math.cos(towards)
                y += move["move"] * math.sin(towards)
            with self.subTest(readings):
                self.assertAlmostEqual(math.hypot(x, y), 0, 9)

    def test_one_high_spot_alone_is_not_called_an_offset_to_be_moved_out(self):
        for at in range(4):
            readings = [10.0] * 4
            readings[at] = 22.0
            found = reckon("centring", {"readings": readings})
            with self.subTest(at):
                self.assertEqual(found["high_spot"], 90 * at)
                self.assertAlmostEqual(found["high_spot_height"], 12)


if __name__ == "__main__":
    unittest.main()
