"""What a family starts from is sound, whatever size its mates are of: small and large
ones as they are met."""

import unittest

from machinon.core.families import families, family_of
from machinon.core.piece.made import make
from machinon.core.route.machine_checks import along_the_route
from machinon.core.route.steps import route_told

# by family, the sizes of its mates that differ, and rows of them
MET = {
    "back-plate": (
        ("nose.register", "nose.register_length", "nose.thread", "nose.length",
         "chuck.recess", "chuck.recess_depth", "chuck.body", "chuck.bolt_circle",
         "chuck.hole", "chuck.screw"),
        (25.5, 8, "1-8", 25, 56.02, 3.2, 80, 66, 6.6, "M6"),
        (38.5, 10, "1 1/2-8", 35, 95.02, 4.2, 125, 108, 9, "M8"),
        (40, 8, "M39x4", 30, 72.02, 3.7, 100, 84, 8.5, "M8"),
        (57.5, 14, "2 1/4-8", 45, 125.02, 4.5, 160, 140, 11, "M10"),
    ),
    "collet-spindle": (
        ("nut.thread", "nut.length", "collet.large", "collet.taper_length",
         "collet.largest", "tube.bore"),
        ("M19x1", 10, 11.5, 9.2, 7, 17),
        ("M25x1.5", 12, 17, 13.6, 10, 23),
        ("M40x1.5", 16, 33, 26, 20, 38),
        ("M50x1.5", 18, 41, 33, 26, 48),
    ),
    "draw-in-spindle": (
        ("front_bearing.bore", "rear_bearing.bore", "locknut.thread", "shank.taper",
         "draw_bar.diameter"),
        (20, 20, "M18x1", "MT1", 6),
        (35, 35, "M33x1.5", "MT3", 12),
        (45, 45, "M42x1.5", "MT4", 16),
    ),
    "slit-arbor": (
        ("work.bore", "work.length", "collet.bore"),
        (10, 10, 10), (16, 16, 16), (30, 30, 20), (50, 50, 25),
    ),
    "single-point-bar": (
        ("holder.bore", "bit.diameter", "work.bore"),
        (10, 3, 14), (12, 5, 20), (16, 6, 24), (25, 10, 45), (32, 12, 60),
    ),
    "dovetail-stop": (
        ("slide.bottom", "slide.depth", "slide.angle", "slide.pin"),
        (30, 6, 60, 5), (45, 8, 55, 6), (80, 15, 60, 10), (100, 18, 50, 12),
    ),
    "hinged-arm": (
        ("pin.diameter", "fork.gap", "place.centres", "place.opens", "place.clear"),
        (5, 6.1, 40, 60, 50), (6, 8.1, 45, 45, 60), (12, 16.1, 100, 120, 120),
    ),
    "housing-cover": (
        ("housing.bore", "housing.ring_bore", "housing.inner_ring", "housing.circle",
         "housing.bolts", "shaft.diameter"),
        (26, 22, 16, 35, 3, 10), (47, 41, 30, 60, 4, 20), (80, 72, 55, 98, 6, 40),
    ),
    "hexagon-screw": (
        ("nut.thread", "hole.diameter"),
        ("M8", 8.5), ("M10", 10.5), ("M20", 21), ("M24", 25),
    ),
    "collet-arbor": (
        ("collet.bore", "cutter.bore", "cutter.width"),
        (12, 10, 1), (16, 13, 1.6), (20, 27, 4), (25, 32, 6),
    ),
    # slots of no standard among them: their stud leaves the tongue a wall
    "t-nut-strip": (
        ("slot.neck", "slot.head", "slot.head_depth", "slot.lip"),
        (10.02, 17, 7.2, 9), (16.8, 28, 11, 14), (21, 35, 15, 18), (22.02, 38, 16, 20),
    ),
    "carrier": (
        ("held.outside", "held.length", "held.wall"),
        (16, 20, 3), (25, 25, 4), (80, 50, 10), (130, 75, 12),
    ),
    "detent-plate": (
        ("shaft.diameter", "ball.diameter", "lever.places", "lever.throw"),
        (8, 4, 2, 40), (10, 5, 4, 25), (20, 8, 5, 20), (25, 10, 6, 30),
    ),
    "drill-plate": (
        ("part.bore", "part.depth", "pattern.count", "pattern.circle",
         "pattern.drill"),
        (10, 8, 3, 25, 3.3), (60, 15, 8, 90, 8.5), (100, 20, 6, 130, 10.2),
    ),
    "strap-clamp": (
        ("stud.across", "stud.thread", "stud.torque"),
        (6, "M6", 6), (8, "M8", 14), (12, "M12", 45), (20, "M20", 200),
    ),
    "stud": (
        ("below.thread", "below.depth", "below.floor", "held.height", "held.hole",
         "nut.thread", "nut.height", "washer.thickness"),
        ("M6", 8, 11, 20, 6.6, "M6", 5.2, 1.6),
        ("M12", 16, 22, 60, 13.5, "M12", 10.8, 2.5),
        ("M20", 26, 36, 150, 22, "M20", 18, 3),
    ),
    "keeper": (
        ("round.diameter", "round.stands"), (6, 2.4), (12, 5), (30, 12), (40, 16),
    ),
    "knob": (
        ("stud.thread", "stud.size", "stud.length"),
        ("M4", 4, 7), ("M5", 5, 8), ("M8", 8, 12), ("M12", 12, 18),
    ),
    "taper-arbor": (
        ("socket.taper", "cutter.bore", "cutter.width"),
        ("MT2", 16.01, 2), ("MT2", 22.01, 1.6), ("MT3", 27.01, 5), ("MT4", 32.01, 8),
    ),
    "spacer-sleeve": (
        ("shaft.diameter", "gap.between", "gap.least", "gap.most"),
        (5.99, 10, 0.02, 0.06), (30, 12, 0.05, 0.1), (50, 80, 0.05, 0.1),
    ),
    "ring-nut-spanner": (
        ("nut.diameter", "nut.slot", "nut.slot_depth", "nut.thick", "nut.pitch",
         "nut.hole", "nut.torque"),
        (25, 4, 2, 7, 18, 3.2, 8), (58, 6, 3, 11, 45, 5.2, 50),
        (80, 8, 3.5, 13, 62, 6.2, 90),
    ),
    "taper-plate": (
        ("spindle.large", "spindle.taper_length", "spindle.flange", "spindle.bolts",
         "spindle.bolt_circle", "spindle.hole", "spindle.screw", "spindle.bore",
         "chuck.body", "chuck.recess", "chuck.recess_depth", "chuck.bolts",
         "chuck.bolt_circle", "chuck.hole", "chuck.screw"),
        (53.975, 10, 92, 3, 75, 11, "M10", 20, 125, 95.02, 4, 3, 108, 9, "M8"),
        (82.563, 13, 133, 4, 104.8, 11.5, "M10", 40, 200, 160.02, 5, 3, 176, 13,
         "M12"),
        (106.375, 14, 165, 6, 133.4, 13.5, "M12", 50, 250, 200.02, 5.5, 3, 224, 17,
         "M16"),
    ),
    "draw-tube-sleeve": (
        ("tube.diameter", "spindle.bore", "spindle.between"),
        (10, 16, 31), (14, 22, 43), (25, 40, 80), (40, 64, 124),
    ),
    "socket-key": (
        ("socket.across", "socket.depth", "socket.torque"),
        (4, 8, 3), (6, 10, 10), (10, 16, 50), (11.27, 19.6, 50),
    ),
    "hub-adapter": (
        ("shaft.diameter", "shaft.length", "wheel.bore", "wheel.circle", "wheel.hole",
         "wheel.screw", "key_bar.width", "machine.clear"),
        (12, 18, 20, 30, 4.5, "M4", 4, 200), (25, 37, 40, 60, 6.6, "M6", 8, 200),
        (40, 60, 73, 110, 11, "M10", 12, 200),
    ),
    "vee-block": (("rounds.least", "rounds.largest"), (6, 20), (10, 60), (20, 100)),
    "carriage-stop": (
        ("bed.angle", "bed.height", "bed.crest"),
        (90, 8, 2), (70, 10, 3), (90, 20, 5),
    ),
}  # fmt: skip


class SmallAndLarge(unittest.TestCase):
    def test_nothing_is_to_be_mended_in_what_it_starts_from(self):
        for key, (names, *rows) in MET.items():
            for row in rows:
                given = dict(zip(names, map(str, row), strict=True))
                with self.subTest(key, **given):
                    made = make(family_of(key), given)
                    checks = (*made.checks, *along_the_route(route_told(made)))
                    wrong = [check.says for check in checks if not check.passed]
                    self.assertEqual(wrong, [])

    def test_nor_in_what_it_starts_from_in_round_inches(self):
        met = [
            (key, dict(zip(names, map(str, row), strict=True)))
            for key, (names, *rows) in MET.items()
            for row in rows
        ]
        for key, given in (*((key, {}) for key in families()), *met):
            with self.subTest(key, **given):
                made = make(family_of(key), given, round_inch=True)
                checks = (*made.checks, *along_the_route(route_told(made)))
                wrong = [check.says for check in checks if not check.passed]
                self.assertEqual(wrong, [])
