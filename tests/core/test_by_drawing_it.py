"""Answers checked against circles and lines laid out and touched by search.

Nothing here knows the formula of what it checks: a pin is pushed until it touches,
a keyway is cut into points of a circle, a slot is filled with its tongue.
"""

import math
import unittest
from itertools import product

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
            one = reckon("keyway", {"shaft_diameter": diameter})
            clear = one["shaft_depth"] + one["hub_depth"] - one["key_height"]
            with self.subTest(diameter):
                self.assertGreater(clear, 0.15)
                self.assertLess(clear, 0.55)
                self.assertLess(one["key_width"], diameter / 2)


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
            for one, other in zip(points, points[1:] + points[:1], strict=True):
                self.assertAlmostEqual(math.dist(one, other), found["chord"], 6)
                self.assertAlmostEqual(math.hypot(*one), 31, 6)


if __name__ == "__main__":
    unittest.main()
