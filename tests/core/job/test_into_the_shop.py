"""A piece that was made here as a mate for the next."""

import unittest

from msgspec.structs import replace

from machinon.core.families import families
from machinon.core.job.made_piece import named_surfaces
from machinon.core.piece.made import make
from machinon.core.shop.things import Piece
from machinon.core.survey.mating import links_of
from machinon.core.survey.measuring import measure
from tests.core.survey.test_surfaces import surface
from tests.scenario import SHOP


class Threads(unittest.TestCase):
    def test_what_is_screwed_outside_goes_into_what_is_tapped_alike(self):
        """A stud of M10 and M8 into a nut of M8; neither thread has been read."""
        stud = self.piece(
            "step thread step thread", {"thread1.thread": "M10", "thread2.thread": "M8"}
        )
        nut = self.piece("step nut", {"step1.diameter": "20", "nut1.thread": "M8"})
        self.assertEqual(
            [(it.id, it.given) for it in (*stud.surfaces, *nut.surfaces)],
            [
                ("thread-major", "M10x1.5"),
                ("thread-pitch", "M10x1.5"),
                ("thread-major-2", "M8x1.25"),
                ("thread-pitch-2", "M8x1.25"),
                ("thread-minor", "M8x1.25"),
                ("thread-pitch", "M8x1.25"),
            ],
        )
        measured = {
            (piece.id, it.id): measure(it, SHOP, piece.material)
            for piece in (stud, nut)
            for it in piece.surfaces
        }
        (link,) = links_of(stud, (nut,), measured)
        self.assertEqual((link.direct, link.says), (True, "goes on by its M8 × 1.25"))

    def piece(self, parts, sizes):
        made = make(families()["turned-piece"], {"parts": parts, **sizes})
        return Piece(parts, "Piece", "other", "steel", named_surfaces(made))


class Tapers(unittest.TestCase):
    def test_it_goes_on_by_the_named_tapers_it_was_made_with(self):
        """Of a free piece a Morse 3 outside and a Morse 2 inside; the third has the
        angle of a Morse 2 at half its size, and goes into nothing."""
        parts = "step taper taper socket"
        sizes = {"taper1.taper": "MT3", "socket1.taper": "MT2",
                 "taper2.taper": "MT2", "taper2.length": "20",
                 "taper2.left": "9", "step1.diameter": "30"}  # fmt: skip
        made = make(families()["turned-piece"], {"parts": parts, **sizes})
        found = named_surfaces(made)
        self.assertEqual(
            {surface.id: surface.given for surface in found},
            {"taper-out": "MT3", "taper-in": "MT2"},
        )
        sleeve = Piece("sleeve", "Sleeve", "other", "steel", found)
        quill = replace(surface("taper-in"), given="MT3")
        tailstock = Piece("tailstock", "Tailstock", "other", "steel", (quill,))
        measured = {
            (piece.id, it.id): measure(it, SHOP, piece.material)
            for piece in (sleeve, tailstock)
            for it in piece.surfaces
        }
        (link,) = links_of(sleeve, (tailstock,), measured)
        self.assertEqual((link.direct, link.says), (True, "goes on by its MT3"))
