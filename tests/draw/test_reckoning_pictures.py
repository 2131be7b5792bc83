"""The pictures of the reckonings are to scale and say what the answer says."""

import math
import re
import unittest
from itertools import pairwise

from machinon.core.ask.inch_question import inch_question
from machinon.core.quantity import INCH
from machinon.core.reckoning import reckonings
from machinon.draw.answer_rows import columns
from machinon.draw.drawing import Circle, Line, Shape, Text
from machinon.draw.pictures import picture_of


def drawn(name, inch=False, width=700, height=480, size=14, **inputs):
    """A reckoning's picture with its answer."""
    reckoning = reckonings()[name]
    asked = {**(reckoning.usual if not inputs else {}), **inputs}
    values, answer = reckoning.read(asked, inch), reckoning.answer(asked, inch)
    drawing = picture_of(
        reckoning, values, answer.results, {}, width, height, size, inch=inch
    )
    return drawing, answer


def circles(drawing, fill=None):
    return [
        circle
        for circle in drawing.items
        if isinstance(circle, Circle) and (fill is None or circle.fill == fill)
    ]


def shapes(drawing, role="outline", closed=True):
    return [
        shape
        for shape in drawing.items
        if isinstance(shape, Shape) and shape.role == role and shape.closed == closed
    ]


def texts(drawing):
    return [item.text for item in drawing.items if isinstance(item, Text)]


def sides(shape):
    """Lengths of a polygon's sides, in px."""
    points = [*shape.points, shape.points[0]]
    return [math.dist(a, b) for a, b in pairwise(points)]


def extent(shape):
    xs, ys = zip(*shape.points, strict=True)
    return max(xs) - min(xs), max(ys) - min(ys)


class Patterns(unittest.TestCase):
    def test_holes_stand_evenly_on_their_circle(self):
        for count in (3, 5, 6, 8):
            drawing, _ = drawn("bolt-circle", holes=count, diameter=80)
            ring = next(
                circle for circle in circles(drawing) if circle.role == "centre"
            )
            holes = circles(drawing, "panel")
            self.assertEqual(len(holes), count)
            for hole in holes:
                self.assertAlmostEqual(
                    math.dist(hole.centre, ring.centre), ring.radius, places=6
                )
            gaps = [math.dist(a.centre, b.centre) for a, b in pairwise(holes)]
            chord = 2 * ring.radius * math.sin(math.pi / count)
            for gap in gaps:
                self.assertAlmostEqual(gap, chord, places=6)

    def test_every_hole_has_its_coordinates_beside_it(self):
        drawing, answer = drawn("bolt-circle", holes=4, diameter=100, start=45)
        said = [text for text in texts(drawing) if re.match(r"\d: ", text)]
        self.assertEqual(len(said), 4)
        for text, (x, y) in zip(said, answer["points"], strict=True):
            numbers = text.replace("−", "-").split(": ")[1].split(", ")
            self.assertAlmostEqual(float(numbers[0]), x, places=3)
            self.assertAlmostEqual(float(numbers[1]), y, places=3)

    def test_a_span_is_drawn_from_outside_to_outside(self):
        drawing, answer = drawn("hole-span", holes=3, span=103.15, hole=7.89)
        span = next(
            line
            for line in drawing.items
            if isinstance(line, Line) and line.role == "measured" and line.width > 2
        )
        ring = next(circle for circle in circles(drawing) if circle.role == "centre")
        scale = 2 * ring.radius / answer["diameter"]
        self.assertAlmostEqual(
            math.dist(span.start, span.end) / scale, 103.15, places=3
        )

    def test_three_unlike_spans_draw_an_unlike_pattern(self):
        drawing, _ = drawn("hole-pattern", hole=8, span_12=58, span_23=48, span_31=68)
        holes = sorted(circles(drawing), key=lambda circle: circle.radius)[:3]
        scale = 2 * holes[0].radius / 8
        found = sorted(
            round(math.dist(a.centre, b.centre) / scale, 3)
            for a, b in (
                (holes[0], holes[1]),
                (holes[1], holes[2]),
                (holes[2], holes[0]),
            )
        )
        self.assertEqual(found, [40, 50, 60])


class Sections(unittest.TestCase):
    def test_a_polygon_has_its_sides_alike_and_fits_its_round(self):
        for count in (3, 4, 6, 8):
            drawing, _ = drawn("polygon", sides=count, across_flats=20)
            shape = next(s for s in shapes(drawing) if len(s.points) == count)
            lengths = sides(shape)
            self.assertAlmostEqual(min(lengths), max(lengths), places=6)
            corners = max(circles(drawing), key=lambda circle: circle.radius)
            for point in shape.points:
                self.assertAlmostEqual(
                    math.dist(point, corners.centre), corners.radius, places=3
                )

    def test_a_taper_narrows_by_its_rate(self):
        drawing, _ = drawn("taper-angle", large=30, small=20, length=60)
        plug = max(shapes(drawing), key=lambda shape: extent(shape)[0])
        (long, tall), points = extent(plug), plug.points
        self.assertAlmostEqual(tall / long, 30 / 60, places=6)
        left = min(x for x, _ in points)
        ends = [y for x, y in points if abs(x - left) < 1e-6]
        self.assertAlmostEqual((max(ends) - min(ends)) / long, 20 / 60, places=6)

    def test_a_hexagon_s_drawing_grows_with_its_page(self):
        small, _ = drawn("polygon", width=420, height=300, sides=6, across_flats=20)
        large, _ = drawn("polygon", width=1200, height=900, sides=6, across_flats=20)
        across = [
            extent(next(s for s in shapes(drawing) if len(s.points) == 6))[0]
            for drawing in (small, large)
        ]
        self.assertGreater(across[1], 2 * across[0])


class Figures(unittest.TestCase):
    def test_every_figure_of_a_picture_is_one_of_the_answer_s(self):
        """No number stands in a picture that is neither an input nor a result."""
        for reckoning in reckonings().values():
            if reckoning.name in ("dividing", "change-gears", "thread-passes", "knurl"):
                continue  # these write out tables of their own
            values, answer = (
                reckoning.read(reckoning.usual),
                reckoning.answer(reckoning.usual),
            )
            drawing = picture_of(reckoning, values, answer.results, {}, 900, 600)
            known = set(numbers_of({**values, **answer.results}))
            bold = [
                item
                for item in drawing.items
                if isinstance(item, Text) and item.bold
                if not item.text.endswith("given")  # how many of a list
            ]
            for text in bold:
                for number in re.findall(r"(?<![\w.])[−-]?\d+(?:\.\d+)?", text.text):
                    value = abs(float(number.replace("−", "-")))
                    with self.subTest(reckoning.name, text=text.text):
                        self.assertTrue(
                            any(near(value, other, number) for other in known),
                            f"{value} of {sorted(known)[:40]}",
                        )

    def test_an_inch_shop_s_pictures_are_in_inches(self):
        metric = {  # what is in millimetres in every shop
            *("convert", "metal", "knurl", "taper-pipe-thread", "gear"),
            *("change-gears", "expanding-arbor", "pitch", "thread-dial"),  # a pitch
        }
        for name in reckonings().keys() - metric:
            reckoning = reckonings()[name]
            asked = inch_question(reckoning)
            values, answer = reckoning.read(asked, True), reckoning.answer(asked, True)
            said = texts(
                picture_of(reckoning, values, answer.results, {}, 700, 480, inch=True)
            )
            with self.subTest(name):
                self.assertFalse([text for text in said if re.search(r"\bmm\b", text)])
                if any(answer.units[key] == "mm" for key in answer.results):
                    self.assertTrue(
                        any(re.search(r"\d( in$|\.\d{3}|/\d+ in)", t) for t in said)
                    )
        self.assertIn("10.3187 mm", texts(drawn("convert", True)[0]))
        drawing, answer = drawn("passes", True, start="2in", finish="1.75in")
        for row in answer["passes"]:
            self.assertIn(f"{row['dial'] / INCH:.3f}", texts(drawing))

    def test_the_lengths_of_a_column_are_said_to_the_same_place(self):
        reckoning = reckonings()["passes"]
        answer = reckoning.answer({"start": "2in", "finish": "1.75in"}, inch=True)
        result = next(one for one in reckoning.results if one.key == "passes")
        size, dial = columns(result, answer["passes"], inch=True)
        self.assertEqual(size[:3], ["diameter (in)", "1.940", "1.879"])
        self.assertEqual(dial[-2:], ["0.242", "0.250"])

    def test_a_bare_force_is_newtons_and_its_answer_in_an_inch_shop_pounds(self):
        reckoning = reckonings()["lever"]
        asked = {"force": "100", "arm": "10"}
        values, answer = reckoning.read(asked, True), reckoning.answer(asked, True)
        said = texts(
            picture_of(reckoning, values, answer.results, asked, 700, 480, inch=True)
        )
        self.assertIn("100 N", said)
        self.assertIn("18.7 lbf·ft", said)

    def test_what_was_typed_is_shown_as_it_was_typed(self):
        reckoning = reckonings()["polygon"]
        asked = {"sides": "6", "across_flats": "11/16"}
        values, answer = reckoning.read(asked, True), reckoning.answer(asked, True)
        drawing = picture_of(
            reckoning, values, answer.results, asked, 700, 480, inch=True
        )
        self.assertIn("11/16", texts(drawing))

    def test_every_input_can_be_chosen_and_every_result_is_told_or_listed(self):
        for reckoning in reckonings().values():
            values, answer = (
                reckoning.read(reckoning.usual),
                reckoning.answer(reckoning.usual),
            )
            drawing = picture_of(reckoning, values, answer.results, {}, 700, 480)
            # a bar is not asked the sizes of tubes and blocks
            asked = [
                g.key
                for g in reckoning.inputs
                if g.required or g.key in reckoning.usual
            ]
            if reckoning.name != "mass":
                asked = [given.key for given in reckoning.inputs]
            with self.subTest(reckoning.name):
                self.assertLessEqual(set(asked), {spot.tie for spot in drawing.spots})

    def test_without_an_answer_the_inputs_stand_there_to_be_typed(self):
        for reckoning in reckonings().values():
            drawing = picture_of(reckoning, {}, {}, {}, 700, 480)
            with self.subTest(reckoning.name):
                self.assertEqual(
                    {given.key for given in reckoning.inputs},
                    {spot.tie for spot in drawing.spots},
                )
                self.assertIn("–", texts(drawing))

    def test_larger_figures_are_larger_where_there_is_room(self):
        for name in ("polygon", "taper-angle", "sine", "lever"):
            heights = []
            for size in (12, 18):
                drawing, _ = drawn(name, width=1400, height=900, size=size)
                heights.append(
                    max(t.size for t in drawing.items if isinstance(t, Text))
                )
            with self.subTest(name):
                self.assertAlmostEqual(heights[1] / heights[0], 1.5)


def numbers_of(values):
    """Every number among some values, also those within their texts and lists."""
    for value in values.values() if isinstance(values, dict) else values:
        if isinstance(value, dict | list | tuple):
            yield from numbers_of(value)
        elif isinstance(value, bool):
            continue
        elif isinstance(value, int | float):
            yield abs(value)
            # N as kN, seconds as minutes, mm as µm
            yield from (abs(value) / 1000, abs(value) / 60, abs(value) * 1000)
        elif isinstance(value, str):
            for number in re.findall(r"\d+(?:\.\d+)?", value):
                yield float(number)


def near(value, other, written):
    """Whether a written number is another, rounded to what is written."""
    digits = len(written.partition(".")[2])
    return abs(value - other) <= 0.51 * 10.0**-digits + 0.0051 * abs(other) * (
        not digits
    )
