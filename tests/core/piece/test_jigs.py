"""A jig laid on its face has its guides over the holes."""

import math
import unittest

import numpy as np

from machinon.core.errors import MachinonError
from machinon.core.families import families
from machinon.core.piece.hole_features import Holes
from machinon.core.piece.jigs import drill_jig, face_size
from machinon.core.piece.made import make


def body(key, **given):
    sizes = {name.replace("_", ".", 1): text for name, text in given.items()}
    return make(families()[key], sizes).body


def holes_of(made):
    """Where the holes go in, and the way out of their face."""
    found = [f for f in made.features if isinstance(f, Holes)]
    points = [np.array(f.frame.at(*at)) for f in found for at in f.points]
    return points, -np.array(found[0].frame.into)


def turn(points, out):
    """How far round, and which way, the third lies of the first two, seen from out."""
    a, b, c = points[:3]
    return float(np.cross(b - a, c - a) @ out)


class Jigs(unittest.TestCase):
    def uneven(self, face, **given):
        """Three holes that no turn and no mirror brings onto each other."""
        places = (("20", "12"), ("70", "15"), ("35", "24"))
        for number, (side, front) in enumerate(places, 1):
            given |= {
                f"hole{number}_face": face,
                f"hole{number}_from_side": side,
                f"hole{number}_from_front": front,
            }
        return body("plate-block", parts="hole hole hole", block_width="90",
                    block_height="40", **given)  # fmt: skip

    def test_turned_over_onto_its_face_every_guide_is_over_its_hole(self):
        for face in ("top", "bottom", "front", "back", "left", "right"):
            with self.subTest(face):
                piece = self.uneven(face)
                jig = drill_jig(piece)
                own, out = holes_of(piece)
                guides, seat = holes_of(jig)
                for i, j in ((0, 1), (1, 2), (2, 0)):
                    self.assertAlmostEqual(
                        math.dist(own[i], own[j]), math.dist(guides[i], guides[j])
                    )
                # face to face: what goes round left on one goes right on the other
                self.assertAlmostEqual(turn(own, out), -turn(guides, seat))
                self.assertNotAlmostEqual(turn(own, out), 0)

    def test_a_block_s_edges_lie_in_the_rim(self):
        """100 × 90 with 0.2 of play, in a rim of 4: 108.2 × 98.2, a hole 20 from the
        left edge lies 20.1 from the rim, seen mirrored 80.1."""
        jig = drill_jig(self.uneven("top"))
        self.assertEqual(jig.stock.size, (108.2, 98.2, 12.0))
        guides, _ = holes_of(jig)
        self.assertAlmostEqual(guides[0][0] - 4, 80.1)
        self.assertAlmostEqual(guides[0][1] - 4, 12.1)

    def test_a_plate_s_jig_goes_over_its_hub(self):
        """The hub stands up from the flange: the jig's bore is 0.2 over it."""
        plate = body("back-plate")
        jig = drill_jig(plate)
        seat = next(feature for feature in jig.features if feature.name == "seat")
        hub = plate.feature("hub")
        self.assertAlmostEqual(seat.diameter, hub.diameter + 0.2)
        self.assertEqual(jig.stock.diameter, face_size(plate, "left")[0])

    def test_a_flat_end_is_taken_in_a_rim(self):
        disc = body("turned-piece", parts="step ring", step1_diameter="60")
        seat = next(
            feature for feature in drill_jig(disc).features if feature.name == "seat"
        )
        self.assertEqual((seat.diameter, seat.end - seat.start), (60.2, 4.0))

    def test_holes_of_a_recess_have_a_disc_that_goes_into_it(self):
        """A recess of 70: the jig is 0.2 less. On a plate, holes below the face have
        none: a jig lies on that."""
        disc = body(
            "turned-piece", parts="step bore ring", step1_diameter="100",
            bore1_diameter="70", bore1_depth="8", bore1_end="right", ring1_end="right",
            ring1_circle="55",
        )  # fmt: skip
        jig = drill_jig(disc)
        self.assertAlmostEqual(jig.stock.diameter, 69.8)
        self.assertEqual([f.name for f in jig.features], ["ring1"])
        low = body("plate-block", parts="slot row", slot1_face="top",
                   slot1_width="20", row1_from_front="30")  # fmt: skip
        with self.assertRaises(MachinonError):
            drill_jig(low)

    def test_it_is_a_closed_solid_with_a_guide_for_every_hole(self):
        """A disc of 145 with holes for three M8: guides of 3.1 through 8."""
        for piece in (body("back-plate"), self.uneven("top")):
            jig = drill_jig(piece)
            self.assertEqual(jig.solid.status().name, "NoError")
            self.assertEqual(jig.solid.genus() >= 3, True)
            own = [f for f in jig.features if isinstance(f, Holes)]
            self.assertTrue(all(f.hole.diameter == 3.1 for f in own))

    def test_without_holes_there_is_none(self):
        with self.assertRaises(MachinonError):
            drill_jig(body("spacer-sleeve"))


if __name__ == "__main__":
    unittest.main()
