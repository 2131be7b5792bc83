"""Fits in plain words, held against the standard's own pairs."""

import unittest

from machinon.core.fits.joints import joint_forms
from machinon.core.reckoning import reckon
from machinon.core.shop.things import Piece
from machinon.core.sizes.fit import characters, wanted_play, words_for
from machinon.core.survey.surface_kinds import likely_joint, new_surfaces, surface_forms


def middle(want: str, size: float) -> float:
    play = wanted_play(want, size, "hole")
    return (play.least + play.most) / 2


class PlainWords(unittest.TestCase):
    def test_a_press_by_words_grips_as_the_standard_s_pair_does_on_average(self):
        """Laid on a measured bore, n6 stands for H7/p6 and r6 for H7/s6."""
        for size in (12, 30, 50):
            self.assertAlmostEqual(
                middle("light-press", size), middle("H7/p6", size), delta=0.005
            )
            self.assertAlmostEqual(
                middle("press", size), middle("H7/s6", size), delta=0.005
            )

    def test_each_joint_is_offered_from_loose_to_tight(self):
        for joint in joint_forms():
            plays = [middle(character.key, 16) for character in words_for(joint)]
            self.assertEqual(plays, sorted(plays, reverse=True), joint)
        self.assertEqual(
            [character.key for character in words_for("key")],
            ["free", "glides", "snug", "driven"],
        )

    def test_what_presses_or_strikes_carries_a_caution(self):
        for character in characters().values():
            grips = character.joint in ("register", "press", "shrink", "bond")
            if grips or middle(character.key, 20) < 0:
                self.assertTrue(character.caution, character.key)

    def test_the_same_words_rule_hole_and_shaft_alike(self):
        """A light press on a 12 mm half: n6 is +12 to +23 µm, either way round."""
        for kind, sign in (("hole", 1), ("shaft", -1)):
            answer = reckon(
                "fit-target",
                {
                    "existing": [12.0],
                    "instrument_uncertainty": 0,
                    "kind": kind,
                    "want": "light-press",
                },
            )
            edges = sorted(12 + sign * away for away in (0.012, 0.023))
            self.assertAlmostEqual(answer["lower"], edges[0], places=6)
            self.assertAlmostEqual(answer["upper"], edges[1], places=6)


class SurfacesToAdd(unittest.TestCase):
    def test_what_a_fit_is_for_follows_from_the_surface(self):
        piece = Piece("vise", "Vise", "other", "cast iron", (), "")
        for key, joint in (
            ("bore", "shaft"),
            ("recess", "register"),
            ("slot", "slot"),
            ("shoulder", "slot"),
        ):
            for _ in range(2):  # the second of a kind carries a number
                surface = new_surfaces(piece, key)[0]
                self.assertEqual(likely_joint(surface), joint)
                piece = piece.with_surface(surface)

    def test_every_form_says_how_it_is_measured(self):
        for form in surface_forms().values():
            self.assertTrue(form.how.endswith("."), form.key)
