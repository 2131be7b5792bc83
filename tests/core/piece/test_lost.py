"""Nothing that is drawn may be cut away whole, or lie in the air."""

import random
import unittest

from machinon.core.errors import BadInput
from machinon.core.families import families
from machinon.core.piece.body import Body
from machinon.core.piece.lost import lost
from machinon.core.piece.made import make
from machinon.core.quantity import LENGTH
from tests.core.families.failing import check, made
from tests.trials import SEED, TIMES

COUNT = 8  # pieces that pass their checks
SHARES = (0.3, 0.5, 0.7, 1.4, 1.8, 2.5)


def idle(body):
    """The features without which its solid is as large."""
    without = (
        (gone.name, Body(body.stock, tuple(f for f in body.features if f is not gone)))
        for gone in body.features
    )
    return {name for name, rest in without if rest.volume - body.volume < 0.01}


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
            # shorter stock than the piece
            ("detent-plate", {"stock_length": "9", "plate_thickness": "12.5"}, "back"),
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


class ByChance(unittest.TestCase):
    def test_a_piece_whose_checks_pass_has_all_that_is_drawn(self):
        """Two sizes of it typed at random, a third to two and a half times as large as
        usual; told by its solid, and not by its section."""
        chance = random.Random(SEED)
        # a free piece may hide one part in another, a knob's hole lies in its thread
        kinds = [f for f in families().values() if not f.free and f.key != "knob"]
        left = COUNT * TIMES
        while left:
            family = chance.choice(kinds)
            usual = chance.choice([family.full, *family.ways])
            sizes = [
                known
                for known in make(family, usual).sizes.values()
                if known.size.kind is LENGTH and float(known.value) > 0
            ]
            given = {
                known.size.key: f"{known.value * chance.choice(SHARES):.3f}"
                for known in chance.sample(sizes, 2)
            }
            try:
                piece = make(family, {**usual, **given})
            except BadInput:
                continue
            if all(check.passed for check in piece.checks):
                left -= 1
                new = idle(piece.body) - idle(make(family, usual).body)
                self.assertEqual(new, set(), (family.key, usual, given))
