import unittest

from machinon.core.mating import mates_of
from machinon.core.measuring import measure
from machinon.core.shop import Piece, Reading, Surface
from tests.scenario import SHOP


def piece(id, *surfaces):
    """A piece with (surface id, kind, size) each read once with its surest gauge."""
    made = []
    for name, kind, size in surfaces:
        gauge = "micrometer" if kind == "outside" else "bore-gauge"
        made.append(Surface(name, name, kind, "", (Reading(size, gauge),)))
    return Piece(id, id.capitalize(), "other", "steel", tuple(made))


class WhatFits(unittest.TestCase):
    def ask(self, first, *others):
        pieces = (first, *others)
        measured = {
            (p.id, s.id): measure(s, SHOP, p.material)
            for p in pieces
            for s in p.surfaces
        }
        return mates_of(first, pieces, measured)

    def test_a_shaft_finds_the_bores_it_goes_into_closest_first(self):
        shaft = piece("shaft", ("end", "outside", 22.0))
        mates = self.ask(
            shaft,
            piece("hub", ("bore", "inside", 22.3)),
            piece("saw", ("bore", "inside", 22.02)),
            piece("ring", ("bore", "inside", 25.0)),
            piece("other", ("end", "outside", 22.0)),
        )
        self.assertEqual([m.piece.id for m in mates], ["saw", "hub"])
        self.assertAlmostEqual(mates[0].play, 0.02, places=6)
        self.assertIn("slides", mates[0].says)
        self.assertIn("loosely", mates[1].says)

    def test_seen_from_the_bore_the_play_is_the_same(self):
        shaft, saw = (
            piece("shaft", ("end", "outside", 22)),
            piece("saw", ("bore", "inside", 22.02)),
        )
        one, two = self.ask(shaft, saw)[0], self.ask(saw, shaft)[0]
        self.assertAlmostEqual(one.play, two.play)
        self.assertAlmostEqual(one.doubt, two.doubt)

    def test_a_tight_one_is_pressed_and_a_doubtful_one_is_tried(self):
        shaft = piece("shaft", ("end", "outside", 22.0))
        pressed = self.ask(shaft, piece("hub", ("bore", "inside", 21.95)))[0]
        tried = self.ask(shaft, piece("hub", ("bore", "inside", 22.003)))[0]
        self.assertIn("pressed", pressed.says)
        self.assertIn("try it", tried.says)

    def test_crests_of_a_thread_are_no_register(self):
        nose = piece("nose", ("thread-major", "outside", 45.0))
        self.assertEqual(self.ask(nose, piece("hub", ("bore", "inside", 45.1))), ())
