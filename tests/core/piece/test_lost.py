"""Nothing that is drawn may be cut away whole, or lie in the air."""

import unittest

from machinon.core.families import families
from machinon.core.piece.lost import lost
from machinon.core.piece.made import make
from tests.core.families.failing import check, made


class Lost(unittest.TestCase):
    def test_a_feature_that_others_take_away_is_named(self):
        for family, given, gone in (
            # wider than the journal that it is sunk into
            ("collet-spindle", {"clamp_width": "10", "clamp_diameter": "43"}, "clamp"),
            # thicker than the seats that it lies between
            ("draw-in-spindle", {"spacer_diameter": "44"}, "spacer"),
            # narrower than the hole behind it
            ("slit-arbor", {"taper_mouth": "4"}, "taper"),
            ("housing-cover", {"groove_diameter": "13"}, "groove"),
            ("housing-cover", {"hole_diameter": "38"}, "hollow"),
            # outside of the flange that it is cut in
            ("housing-cover", {"trepan_depth": "2", "trepan_inner": "100"}, "trepan"),
            # wider across than the round, or longer round than the metal is wide
            ("socket-key", {"point_round": "3.3"}, "point"),
            ("socket-key", {"shank_diameter": "24"}, "shank"),
            ("hexagon-screw", {"groove_width": "3", "groove_diameter": "20"}, "groove"),
            ("hub-adapter", {"bolts_circle": "70", "flange_diameter": "61"}, "bolts"),
            ("hub-adapter", {"key_width": "21"}, "key"),
        ):
            with self.subTest(family, gone=gone):
                piece = made(family, **given)
                self.assertIn(gone, lost(piece.body))
                self.assertTrue(check(piece, f"gone-{gone}").grave)

    def test_of_every_feature_of_a_whole_piece_something_is_left(self):
        for family in families().values():
            for given in (family.full, *family.ways):
                with self.subTest(family.key, given=given):
                    self.assertEqual(lost(make(family, given).body), [])
