"""Pieces of the shop are drawn as they measure."""

import math
import random
import tempfile
import unittest
from pathlib import Path

from msgspec.structs import replace

from machinon.core.shop.things import (
    CHUCK_SURFACES,
    NOSE_SURFACES,
    STARTER_INSTRUMENTS,
    Piece,
    Reading,
    Shop,
    Surface,
)
from machinon.core.survey.measuring import measure
from machinon.core.survey.surface_kinds import (
    new_surfaces,
    surface_forms,
    surface_groups,
)
from machinon.core.survey.surface_sums import sum_of
from machinon.draw.across_shape import pins_of, section_of
from machinon.draw.drawing import Shape, Text
from machinon.draw.end_shape import flats_of, notches_of, patterns_of
from machinon.draw.piece_drawing import piece_drawing
from machinon.draw.piece_shape import sizes, turned_of
from machinon.store.demo_shop import demo_shop
from machinon.store.opening import open_shop
from tests.draw.test_drawings import points

SHOP = Shop(instruments=STARTER_INSTRUMENTS)
TOOLS = {
    "outside": "micrometer",
    "inside": "bore-gauge",
    "length": "depth-gauge",
    "gap": "slips",
    "span": "caliper",
    "pitch": "thread-gauge",
    "runout": "indicator",
}


def read(key: str, *sizes: float, number: int = 1, **aids: float) -> Surface:
    """A surface of a kind with its readings."""
    form = surface_forms()[key]
    readings = tuple(
        Reading(size, TOOLS[form.kind], f"{size:g}", temperature=20.0) for size in sizes
    )
    id = key if number == 1 else f"{key}-{number}"
    return Surface(id, form.name, form.kind, form.how, readings, dict(aids))


def piece_of(*surfaces: Surface):
    """A steel piece and what its surfaces measure."""
    piece = Piece("piece", "Piece", "other", "steel", surfaces)
    return piece, {s.id: measure(s, SHOP, piece.material) for s in surfaces}


class AlongTheAxis(unittest.TestCase):
    def test_a_length_read_is_where_a_step_ends(self):
        turned = turned_of(
            *piece_of(
                read("shaft", 20.0),
                read("shoulder", 30.0),
                read("shaft", 35.0, number=2),
                read("shoulder", 12.0, number=2),
            )
        )
        self.assertEqual([(s.start, s.end) for s in turned.outer], [(0, 30), (30, 42)])
        self.assertTrue(all(step.ended for step in turned.outer))

    def test_a_saw_is_as_thin_as_it_measures(self):
        turned = turned_of(
            *piece_of(read("shaft", 80.0), read("bore", 22.0), read("thickness", 1.6))
        )
        self.assertEqual((turned.long, turned.radius), (1.6, 40.0))
        self.assertEqual(turned.inner[0].end, 1.6)

    def test_a_length_nobody_read_is_not_said_to_be_one(self):
        turned = turned_of(*piece_of(read("shaft", 16.0)))
        self.assertFalse(turned.outer[0].ended)
        self.assertEqual(turned.lengths, ())

    def test_a_counterbore_stands_before_its_bore_whichever_was_read_first(self):
        turned = turned_of(
            *piece_of(
                read("shaft", 60.0),
                read("bore", 20.0),
                read("recess", 35.0),
                read("recess-depth", 8.0),
                read("thickness", 25.0),
            )
        )
        self.assertEqual(
            [(s.id, s.start, s.end) for s in turned.inner],
            [("recess", 0, 8), ("bore", 8, 25)],
        )

    def test_a_blind_bore_has_a_floor(self):
        turned = turned_of(
            *piece_of(
                read("shaft", 40.0),
                read("shoulder", 50.0),
                read("bore", 20.0),
                read("depth", 30.0),
            )
        )
        self.assertIn((30.0, 0.0), turned.upper_half)
        self.assertIn((50, 0.0), turned.upper_half)

    def test_a_bore_wider_than_what_is_round_it_is_left_out(self):
        piece, measured = piece_of(read("shaft", 20.0), read("bore", 25.0))
        self.assertEqual(turned_of(piece, measured).inner, ())
        # its figure is not lost
        self.assertIsNotNone(piece_drawing(piece, measured, 700, 400).spot("bore"))

    def test_a_groove_is_as_wide_and_as_deep_as_it_was_read(self):
        turned = turned_of(
            *piece_of(
                read("shaft", 20.0),
                read("shoulder", 40.0),
                read("groove", 3.0),
                read("groove-diameter", 17.0),
            )
        )
        (floor,) = turned.grooves
        self.assertEqual(floor.points, ((18.5, 8.5), (21.5, 8.5)))
        self.assertEqual(turned.outer[0].narrowest, 8.5)
        self.assertEqual(turned.long, 40)

    def test_a_taper_narrows_by_its_ratio_over_what_was_read(self):
        form = surface_forms()["taper-out"]
        readings = tuple(
            Reading(size, "micrometer", f"{size:g}", place, temperature=20.0)
            for size, place in ((24.0, "0 mm"), (22.0, "40 mm"))
        )
        taper = Surface("taper-out", form.name, "outside", form.how, readings)
        step = turned_of(*piece_of(taper)).outer[0]
        (start, wide), (end, narrow) = step.points
        self.assertAlmostEqual(end - start, 40)
        self.assertAlmostEqual(2 * (wide - narrow), 2.0)


class FromTheEnd(unittest.TestCase):
    def test_six_holes_stand_on_their_circle(self):
        # the chord of a sixth is the radius: 61.5 − 6.5 = 55, so a circle of 110
        piece, measured = piece_of(
            read("bore", 40.0),
            read("hole", 6.5),
            read("bolt-circle", 61.5, hole=6.5, holes=6),
        )
        (pattern,) = patterns_of(piece, measured)
        self.assertAlmostEqual(pattern.circle, 110)
        self.assertAlmostEqual(math.dist(*pattern.centres[:2]), 55)

    def test_three_uneven_holes_are_as_far_apart_as_they_were_read(self):
        piece, measured = piece_of(
            read("hole", 6.5),
            read("hole-three", 86.5, hole=6.5, span_12=66.5, span_23=56.5),
        )
        (pattern,) = patterns_of(piece, measured)
        first, two, three = pattern.centres
        self.assertAlmostEqual(math.dist(first, two), 60)
        self.assertAlmostEqual(math.dist(two, three), 50)
        self.assertAlmostEqual(math.dist(three, first), 80)
        self.assertAlmostEqual(2 * math.hypot(*first), pattern.circle)

    def test_a_keyways_floor_is_half_the_round_short_of_the_reading(self):
        across = read("key-across", 9.5)
        for host, bore in ((read("shaft", 12.0), False), (read("bore", 12.0), True)):
            with self.subTest(host.id):
                (notch,) = notches_of(*piece_of(host, read("key-width", 4.0), across))
                self.assertAlmostEqual(notch.floor, 9.5 - 6)
                self.assertIs(notch.bore, bore)

    def test_flats_are_chords_of_their_round(self):
        for key, size, ends in (
            ("flats", 16.0, ((-6, 8), (6, 8), (-6, -8), (6, -8))),
            ("flat", 18.0, ((-6, 8), (6, 8))),
        ):
            with self.subTest(key):
                (flats,) = flats_of(*piece_of(read("shaft", 20.0), read(key, size)))
                found = [end for chord in flats.chords() for end in chord]
                for point, other in zip(found, ends, strict=True):
                    self.assertAlmostEqual(math.dist(point, other), 0)

    def test_what_is_no_flat_of_this_round_is_not_drawn_on_it(self):
        for key, size in (("flats", 21.0), ("flat", 9.0), ("flat", 20.5)):
            with self.subTest(key, size=size):
                piece, measured = piece_of(read("shaft", 20.0), read(key, size))
                self.assertEqual(flats_of(piece, measured), ())
                drawing = piece_drawing(piece, measured, 700, 400)
                self.assertIsNotNone(drawing.spot(key), "its figure is not lost")


class CutAcross(unittest.TestCase):
    def test_the_pins_touch_floor_and_flank_and_span_the_reading(self):
        for key, reading, side in (("over-pins", 137.313, 1), ("between-pins", 40, -1)):
            with self.subTest(key):
                surface = read(key, reading, pin=10.0, angle=60.0, depth=14.0)
                _, measured = piece_of(surface)
                section = section_of(surface, sizes(measured))
                (x, y, pin), _ = pins_of(surface, section)
                (top_x, top), (corner, floor) = section.edge
                self.assertAlmostEqual(y - floor, pin / 2)
                # distance of the pin's centre from the line of the flank
                leg = math.dist((top_x, top), (corner, floor))
                off = (x - corner) * (top - floor) - (y - floor) * (top_x - corner)
                self.assertAlmostEqual(abs(off) / leg, pin / 2)
                self.assertAlmostEqual(2 * x + side * pin, reading)

    def test_a_tee_slot_is_its_neck_lip_and_head(self):
        surface = read("tee-neck", 14.0)
        _, measured = piece_of(
            surface,
            read("tee-head", 24.0),
            read("tee-head-depth", 10.0),
            read("tee-lip", 12.0),
        )
        section = section_of(surface, sizes(measured))
        self.assertEqual(section.edge, ((7, 0), (7, -12), (12, -12), (12, -22)))


class ThePicture(unittest.TestCase):
    def test_every_kind_of_surface_has_its_figure_on_the_page(self):
        for group in surface_groups():
            piece = Piece("piece", "Piece", "other", "steel")
            for surface in new_surfaces(piece, group):
                piece = piece.with_surface(surface)
            unread = {surface.id: None for surface in piece.surfaces}
            for width, height in ((900, 380), (620, 300)):
                drawing = piece_drawing(piece, unread, width, height)
                for surface in piece.surfaces:
                    with self.subTest(group, surface=surface.id, width=width):
                        spot = drawing.spot(surface.id)
                        self.assertIsNotNone(spot)
                        x, y, w, h = spot.rect
                        self.assertTrue(x >= 0 and x + w <= width)
                        self.assertTrue(y >= 0 and y + h <= height)

    def test_whatever_was_read_the_piece_is_drawn_with_every_figure(self):
        chance = random.Random(45)
        for number in range(150):
            piece = Piece("piece", "Piece", "other", "steel")
            for group in chance.sample(list(surface_groups()), 4):
                for surface in new_surfaces(piece, group):
                    asked = sum_of(surface).asks if sum_of(surface) else ()
                    sizes = [10 ** chance.uniform(-1.5, 2.7) for _ in range(2)]
                    readings = tuple(
                        Reading(size, TOOLS[surface.kind], place=f"{50 * i} mm")
                        for i, size in enumerate(sizes)
                    )
                    aids = {ask.key: chance.choice((3, 10, 60.0)) for ask in asked}
                    piece = piece.with_surface(
                        replace(surface, readings=readings, aids=aids)
                    )
            measured = {s.id: measure(s, SHOP, "steel") for s in piece.surfaces}
            drawing = piece_drawing(piece, measured, 800, 380)
            with self.subTest(number, surfaces=[s.id for s in piece.surfaces]):
                for surface in piece.surfaces:
                    self.assertIsNotNone(drawing.spot(surface.id), surface.id)
                for x, y in points(drawing):
                    self.assertTrue(math.isfinite(x) and math.isfinite(y))

    def test_no_figure_of_the_demo_shop_lies_on_another(self):
        with tempfile.TemporaryDirectory() as folder:
            file = open_shop(demo_shop(Path(folder)))
            self.addCleanup(file.close)
            for entry in file.entries("piece"):
                piece = file.get(entry.id)
                measured = {
                    s.id: measure(s, file.shop(), piece.material)
                    for s in piece.surfaces
                }
                for inch in (False, True):
                    drawing = piece_drawing(piece, measured, 900, 380, inch=inch)
                    figures = [i for i in drawing.items if isinstance(i, Text)]
                    for at, text in enumerate(figures):
                        for other in figures[at + 1 :]:
                            apart = abs(text.at[1] - other.at[1])
                            with self.subTest(piece.name, one=text.text, to=other.text):
                                self.assertTrue(
                                    apart > 0.4 * (text.size + other.size)
                                    or not _side_by_side(text, other)
                                )

    def test_a_chuck_may_lack_any_of_its_usual_surfaces(self):
        for role, usual in (("chuck", CHUCK_SURFACES), ("nose", NOSE_SURFACES)):
            for gone in usual:
                kept = tuple(surface for surface in usual if surface is not gone)
                piece = Piece(role, role, role, "steel", kept)
                drawing = piece_drawing(
                    piece, dict.fromkeys(s.id for s in kept), 800, 400
                )
                for surface in kept:
                    with self.subTest(role, without=gone.id, surface=surface.id):
                        self.assertIsNotNone(drawing.spot(surface.id))

    def test_what_was_read_is_drawn_thick(self):
        bar = piece_drawing(*piece_of(read("shaft", 16.0)), 700, 400)
        thick = [i for i in bar.items if isinstance(i, Shape) and i.width > 1.5]
        self.assertTrue(thick)
        unread = Piece("bar", "Bar", "other", "steel", (read("shaft"),))
        drawing = piece_drawing(unread, {"shaft": None}, 700, 400)
        self.assertFalse(
            [i for i in drawing.items if isinstance(i, Shape) and i.width > 1.5]
        )


def _side_by_side(text: Text, other: Text) -> bool:
    """Whether two texts of one line run into each other."""

    def ends(text: Text) -> tuple[float, float]:
        # the page has no font to ask: most signs are a little over half as wide
        wide = 0.55 * text.size * len(text.text)
        start = text.at[0] - {"left": 0, "centre": wide / 2, "right": wide}[text.anchor]
        return start, start + wide

    (a, b), (c, d) = ends(text), ends(other)
    return a < d and c < b


if __name__ == "__main__":
    unittest.main()
