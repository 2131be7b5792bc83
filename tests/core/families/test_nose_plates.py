import math
import unittest

from machinon.core.errors import BadInput
from machinon.core.families import family_of
from machinon.core.route.steps import route_told
from tests.core.families.failing import check, each_is_said, failed, made

PLATES = ("flange-plate", "taper-plate")


def order(piece):
    return [
        (step.operation, step.features) for up in route_told(piece) for step in up.steps
    ]


class NosePlates(unittest.TestCase):
    """Plates for a flanged nose: screws on 78 in the spindle, on 110 in the chuck."""

    def test_a_register_slides_on_the_nose_that_was_measured(self):
        """g6 at 64 is 10 to 29 µm of play, the nose good to 2 µm: 63.990 + 0.002 +
        0.010 = 64.002 to 63.990 − 0.002 + 0.029 = 64.017."""
        piece = made(
            "flange-plate",
            spindle_register="63.990",
            **{"spindle_register.doubt": ".002mm"},
        )
        self.assertAlmostEqual(piece.fits[0].lower, 64.002, places=3)
        self.assertAlmostEqual(piece.fits[0].upper, 64.017, places=3)

    def test_a_short_taper_bears_before_the_flange_does(self):
        """1:4, 0.02 off the flange by hand: the mouth is 0.02/4 = 0.005 under the
        nose's 63.513. With 0.1 no screw draws it home; flush, the taper hangs free."""
        piece = made("taper-plate", spindle_large="63.513")
        self.assertAlmostEqual(piece.values["seat.diameter"], 63.508, places=3)
        for off, wrong in (("0.1", {"stands-off"}), ("0", {"stands-off"})):
            loose = made("taper-plate", seat_stands_off=off)
            self.assertEqual(failed(loose), wrong)
        seat = piece.body.feature("seat")
        angle = math.degrees(
            math.atan((seat.start_diameter - seat.end_diameter) / 2 / seat.end)
        )
        self.assertAlmostEqual(angle, 7 + 7 / 60 + 30 / 3600, places=3)

    def test_it_is_screwed_to_its_nose_before_the_spigot_is_finished(self):
        for key in PLATES:
            for given in ({}, family_of(key).ways[0]):
                done = order(
                    made(key, **{k.replace(".", "_"): v for k, v in given.items()})
                )
                drilled = done.index(("drill", ("nose",)))
                self.assertLess(drilled, done.index(("turn", ("spigot",))))
                self.assertLess(
                    done.index(("prove", ("spigot",))),
                    done.index(("drill", ("bolts",))),
                )

    def test_screws_of_the_two_circles_keep_off_each_other_and_off_the_edges(self):
        """On 78 and 110 at the same angle they are 16 apart: M8 and the seat of a head,
        (8 + 15)/2 = 11.5, leave 4.5 of it; on 100, 11 apart, they meet."""
        same = made("flange-plate", nose_turn="0")
        self.assertAlmostEqual(check(same, "circles-apart").have, 4.5, delta=0.01)
        for key in PLATES:
            each_is_said(
                self,
                key,
                (
                    ({"nose_turn": "0", "nose_circle": "100"}, "circles-apart"),
                    ({"nose_circle": "95"}, "nose-spigot"),
                    ({"nose_circle": "70"}, "nose-mouth"),
                    ({"bolts_circle": "100"}, "bolts-spigot"),
                    ({"plate_diameter": "125"}, "bolts-edge"),
                    ({"plate_thickness": "6"}, "bolts-under-head"),
                    (
                        {"plate_thickness": "9", "bolts_bolting": "into"},
                        "bolts-engagement",
                    ),
                    (
                        {"nose_bolting": "through", "plate_thickness": "8"},
                        "nose-under-head",
                    ),
                    ({"hole_diameter": "20"}, "hole-passes"),
                    (
                        {"nose_bolting": "through", "spindle_flange": "94"},
                        "chuck-goes-on",
                    ),
                    ({"spigot_height": "4.2"}, "spigot-recess"),
                    ({"spindle_flange": "70"}, "seats-wide"),
                ),
            )
        each_is_said(
            self,
            "flange-plate",
            (
                ({"register_depth": "4"}, "register-clears"),
                ({"spindle_register_length": "2"}, "register-guides"),
                ({"plate_thickness": "8"}, "web"),
            ),
        )
        each_is_said(self, "taper-plate", (({"seat_depth": "10"}, "seat-clears"),))

    def test_a_taper_that_runs_out_in_the_hole_is_refused(self):
        with self.assertRaises(BadInput) as refused:
            made("taper-plate", hole_diameter="62")
        self.assertEqual(refused.exception.key, "seat.depth")
