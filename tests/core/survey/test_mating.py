import unittest

from machinon.core.shop.things import Piece, Reading, Surface
from machinon.core.survey.mating import links_of, mates_of
from machinon.core.survey.measuring import measure
from tests.core.survey.test_surfaces import surface
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
        first, two = self.ask(shaft, saw)[0], self.ask(saw, shaft)[0]
        self.assertAlmostEqual(first.play, two.play)
        self.assertAlmostEqual(first.doubt, two.doubt)

    def test_a_tight_one_is_pressed_and_a_doubtful_one_is_tried(self):
        shaft = piece("shaft", ("end", "outside", 22.0))
        pressed = self.ask(shaft, piece("hub", ("bore", "inside", 21.95)))[0]
        tried = self.ask(shaft, piece("hub", ("bore", "inside", 22.003)))[0]
        self.assertIn("pressed", pressed.says)
        self.assertIn("try it", tried.says)

    def test_bolt_holes_and_flats_are_no_seats(self):
        bar = piece("bar", ("bore", "inside", 8.02))
        chuck = piece("chuck", ("bolt-hole", "outside", 7.9))
        key = piece("key", ("flats", "outside", 8.0))
        self.assertEqual(self.ask(bar, chuck, key), ())

    def test_crests_of_a_thread_are_no_register(self):
        nose = piece("nose", ("thread-major", "outside", 45.0))
        self.assertEqual(self.ask(nose, piece("hub", ("bore", "inside", 45.1))), ())


class WhatLinks(unittest.TestCase):
    def test_threads_tapers_and_what_an_adapter_would_join(self):
        def cone(id, key, large, ratio):
            gauge = {"instrument": "bore-gauge"} if key == "taper-in" else {}
            made = surface(key, (large, "0 mm"), (large - 50 * ratio, "50 mm"), **gauge)
            return Piece(id, id, "other", "steel", (made,))

        def threaded(id, key, size):
            gauge = {"instrument": "caliper"}
            pitch = surface("thread-pitch", 1.5, instrument="thread-gauge")
            made = (surface(key, size, **gauge), pitch)
            return Piece(id, id, "other", "steel", made)

        socket = cone("socket", "taper-in", 23.83, 1 / 19.922)
        pieces = (
            socket,
            cone("shank-3", "taper-out", 23.82, 1 / 19.922),
            cone("shank-2", "taper-out", 17.78, 1 / 20.020),
            threaded("screw", "thread-major", 9.85),
            threaded("nut", "thread-minor", 8.55),
        )
        measured = {
            (p.id, s.id): measure(s, SHOP, p.material)
            for p in pieces
            for s in p.surfaces
        }
        links = links_of(socket, pieces, measured)
        self.assertEqual(
            [(o.piece.id, o.direct) for o in links],
            [("shank-3", True), ("shank-2", False)],
        )
        self.assertIn("sleeve between, MT3 to MT2", links[1].says)
        (screw,) = links_of(pieces[3], pieces, measured)
        self.assertEqual((screw.piece.id, screw.direct), ("nut", True))
        self.assertIn("M10", screw.says)
