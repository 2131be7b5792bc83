"""Nothing that is drawn may be cut away whole, lie in the air, or break into what lies
beside it."""

import random
import unittest

from machinon.core.errors import BadInput
from machinon.core.families import families
from machinon.core.piece.block_features import EdgeBevels
from machinon.core.piece.body import Body
from machinon.core.piece.hole_features import CrossHoles, Holes
from machinon.core.piece.lost import lost
from machinon.core.piece.made import make
from machinon.core.piece.turned_features import Bevel, Centre, EdgeRound, Knurl
from machinon.core.piece.walls import wall
from machinon.core.quantity import LENGTH
from tests.core.families.failing import check, made
from tests.trials import SEED, TIMES

COUNT = 8  # pieces that pass their checks
SHARES = (0.3, 0.5, 0.7, 1.4, 1.8, 2.5)


def idle(body):
    """The features without which its solid is as large. A centre has served once it is
    bored away, a knurl takes nothing."""
    without = (
        (gone.name, Body(body.stock, tuple(f for f in body.features if f is not gone)))
        for gone in body.features
        if not isinstance(gone, Centre | Knurl)
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

    def test_parts_of_a_free_piece_may_not_hide_each_other(self):
        for family, given, gone in (
            # both rounds as they are usual, at the same end
            ("turned-piece", {"parts": "step round round", "round1.end": "right",
                              "round2.end": "right"}, ("round1", "round2")),
            # the drill before the thread is as wide
            ("turned-piece", {"parts": "step bore nut", "bore1.depth": "12",
                              "bore1.diameter": "6"}, ("bore1",)),
            # on the floor of the groove, which is as long
            ("turned-piece", {"parts": "step groove knurl", "groove1.from_end": "5",
                              "groove1.width": "10", "knurl1.from_end": "5",
                              "knurl1.length": "10"}, ("knurl1",)),
            # the pocket is wider, and goes deeper
            ("plate-block", {"parts": "slot pocket", "slot1.face": "top",
                             "slot1.from_end": "30", "slot1.length": "20",
                             "slot1.at": "30", "pocket1.from_side": "20",
                             "pocket1.length": "40", "pocket1.depth": "8"}, ("slot1",)),
            # one of the row starts where the slot from the top has left nothing
            ("plate-block", {"parts": "row slot", "row1.face": "front",
                             "row1.across": "2", "row1.depth": "12",
                             "row1.from_side": "10", "row1.kind": "reamed",
                             "row1.from_front": "20", "slot1.face": "top",
                             "slot1.runs": "across", "slot1.at": "10",
                             "slot1.width": "14", "slot1.depth": "28"}, ("row1",)),
        ):  # fmt: skip
            with self.subTest(family, parts=given["parts"]):
                checks = make(families()[family], given).checks
                told = [c.place for c in checks if c.key.startswith("gone-")]
                self.assertEqual(tuple(told), gone)


def by_chance(kinds):
    """Pieces of these families whose checks pass: what each is made from, and two sizes
    of it typed at random, a third to two and a half times as large as usual."""
    chance = random.Random(SEED)
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
            yield family, usual, given, piece


def broken_into(body):
    """What holes break into the side of, or nearly."""
    holes = [it for it in body.features if isinstance(it, Holes | CrossHoles)]
    return {
        (hole.name, other.name)
        for hole in holes
        for other in body.features
        if other is not hole and not isinstance(other, EdgeBevels | Bevel | EdgeRound)
        if wall(hole, other) < 0.2
    }


class ByChance(unittest.TestCase):
    def test_a_piece_whose_checks_pass_has_all_that_is_drawn(self):
        """Told by its solid, and not by its section."""
        # a knob's hole lies in its thread
        kinds = [family for family in families().values() if family.key != "knob"]
        for family, usual, given, piece in by_chance(kinds):
            new = idle(piece.body) - idle(make(family, usual).body)
            self.assertEqual(new, set(), (family.key, usual, given))

    def test_no_hole_of_it_breaks_into_the_side_of_another_cut(self):
        drilled = [
            family
            for family in families().values()
            if any(
                isinstance(it, Holes | CrossHoles)
                for it in make(family, family.full).body.features
            )
        ]
        for family, usual, given, piece in by_chance(drilled):
            new = broken_into(piece.body) - broken_into(make(family, usual).body)
            self.assertEqual(new, set(), (family.key, usual, given))
