import math
import unittest
from itertools import pairwise, product

from msgspec.structs import replace
from shapely import Point, box

from machinon.core.errors import BadInput
from machinon.core.families import families
from machinon.core.piece.around import rings_of
from machinon.core.piece.made import make
from machinon.core.route.steps import route_told
from machinon.core.route.work.listed import work_list
from machinon.core.setting_out.runout import resolve
from machinon.draw.block_views import view_lines
from machinon.draw.body_film import body_film
from machinon.draw.charts import readings_drawing, rose_drawing, sneak_up_drawing
from machinon.draw.drawing import Circle, Line, Mark, Shape, Text
from machinon.draw.gauge_drawing import gauge_drawing
from machinon.draw.hatching import hatch_lines
from machinon.draw.lettering import text_width
from machinon.draw.piece_sheet import piece_sheet
from machinon.draw.proof_drawing import band_drawing
from machinon.draw.stack_drawing import stack_drawing
from machinon.draw.work_picture import work_picture
from tests.scenario import (
    BOLTS,
    CHUCK,
    REGISTER,
    SPIGOT,
    THREAD,
    back_plate,
    planned,
    with_cuts,
)

WIDTH, HEIGHT = 880.0, 500.0


def texts(drawing) -> list[str]:
    return [item.text for item in drawing.items if isinstance(item, Text)]


def points(drawing):
    for item in drawing.items:
        match item:
            case Line():
                yield from (item.start, item.end)
            case Shape():
                yield from item.points
            case Circle():
                yield (item.centre[0] - item.radius, item.centre[1] - item.radius)
                yield (item.centre[0] + item.radius, item.centre[1] + item.radius)
            case Text() | Mark():
                yield item.at


class OnThePage(unittest.TestCase):
    def test_nothing_is_drawn_off_the_page(self):
        plan = planned(with_cuts(back_plate(), 96.0, (0.1, 95.81)))
        step = plan.route[1].steps[4]
        made = {
            "sheet": piece_sheet(plan.made, WIDTH, HEIGHT),
            "stack": stack_drawing(plan, 540, 150),
            "film": body_film(step, 148, 140),
            "sneak": sneak_up_drawing(plan.cut_state, plan.advice, WIDTH, HEIGHT),
            "rose": rose_drawing((0.01, 0, -0.01, 0), None, 0.02, 400, 300),
            "proof": band_drawing(plan.proof[0], 400, 74),
        }
        for number in (REGISTER, THREAD, SPIGOT, BOLTS):
            made[f"gauge {number}"] = gauge_drawing(
                plan.fit(number), (95.02,), WIDTH, HEIGHT
            )
        for name, drawing in made.items():
            with self.subTest(name):
                self.assertTrue(drawing.items)
                for x, y in points(drawing):
                    self.assertTrue(math.isfinite(x) and math.isfinite(y))
                    self.assertTrue(-1 <= x <= drawing.width + 1, (x, y))
                    self.assertTrue(-1 <= y <= drawing.height + 1, (x, y))


class Film(unittest.TestCase):
    def test_a_frame_lights_the_holes_that_its_step_drills(self):
        """In the half section one of them, and where a disc has room for it each of
        the three beside, on their circle of 110 mm."""
        plan = planned()
        drilled = next(
            step
            for up in plan.route
            for step in up.steps
            if "bolts" in step.features and step.operation == "drill"
        )
        square, wide = body_film(drilled, 148, 140), body_film(drilled, 340, 140)
        for drawing, rings in ((square, 0), (wide, 3)):
            lit = [item for item in drawing.items if getattr(item, "role", "") == "cut"]
            self.assertEqual(sum(isinstance(item, Shape) for item in lit), 1)
            found = [item.centre for item in lit if isinstance(item, Circle)]
            self.assertEqual(len(found), rings)
        sides = [math.dist(a, b) for a, b in pairwise(found)]
        body = next(item for item in wide.items if isinstance(item, Circle))
        scale = 2 * body.radius / drilled.after.largest
        for side in sides:
            self.assertAlmostEqual(side / scale, 110 * math.sin(math.pi / 3), places=3)

    def test_every_step_that_cuts_lights_what_it_cut(self):
        """Flats, knurls, slits and threads as well, and what is milled in a block; a
        step that tries a surface lights that surface."""
        for family in families().values():
            for up in route_told(make(family, {})):
                for step in up.steps:
                    tried = step.operation == "prove" and step.features
                    if step.before == step.after and not tried:
                        continue
                    with self.subTest(family.key, step=step.title):
                        lit = [
                            item
                            for item in body_film(step, 300, 200).items
                            if getattr(item, "role", "") == "cut"
                        ]
                        self.assertTrue(lit)

    def test_what_is_cut_from_a_side_is_looked_at_from_there(self):
        """A bore in a side is a circle in the view of that side, and in no other."""
        for face in ("front", "back", "left", "right"):
            given = {"parts": "bore", "bore1.face": face, "bore1.depth": "12"}
            made = make(families()["plate-block"], given)
            steps = (step for up in route_told(made) for step in up.steps)
            bored = next(step for step in steps if step.operation == "bore")
            lit = [
                item
                for item in body_film(bored, 300, 200).items
                if isinstance(item, Circle) and item.role == "cut"
            ]
            self.assertEqual(len(lit), 1, face)

    def test_a_chamfer_is_drawn_as_wide_as_its_leg(self):
        """The upper edges by 2 and the lower by 3 of 30: lines at 28 and at 3 from the
        front, at 2 and 3 from each side from above."""
        given = {"parts": "edge edge", "edge1.leg": "2", "edge2.leg": "3"}
        given["edge2.which"] = "bottom"
        body = make(families()["plate-block"], given).body
        lines = view_lines(body, "front")[1:]
        heights = {round(y, 6) for line in lines for _, y in line}
        self.assertEqual(heights - {0.0, 30.0}, {3.0, 28.0})
        across = {round(x, 6) for line in view_lines(body, "top")[1:] for x, _ in line}
        self.assertLessEqual({2.0, 3.0, 97.0, 98.0}, across)
        self.assertFalse({1.0, 4.0, 96.0, 99.0} & across)

    def test_a_block_lights_no_more_than_the_cut(self):
        """A vee along a block: its two flanks in the end view, three lines above."""
        made = make(families()["vee-block"], {})
        steps = (step for up in route_told(made) for step in up.steps)
        vee = next(step for step in steps if step.features == ("vee1",))
        lit = [
            item
            for item in body_film(vee, 300, 200).items
            if getattr(item, "role", "") == "cut"
        ]
        level = [line for line in lit if line.start[1] == line.end[1]]
        self.assertEqual((len(lit), len(level)), (5, 3))


class HolesAtHand(unittest.TestCase):
    def test_a_number_stands_in_its_hole_or_clear_of_every_ring_and_figure(self):
        """Whichever hole of any family's is next, those before it ticked."""
        for family in families().values():
            for up in route_told(make(family, {})):
                for step in up.steps:
                    listed = work_list(step)
                    drilled = [line for line in listed.lines if line.at is not None]
                    for n, line in enumerate(drilled):
                        done = {earlier.key for earlier in drilled[:n]}
                        picture = work_picture(
                            step, listed, done, line.key, 415, 525, 13
                        )
                        with self.subTest(family.key, step=step.key, hole=n + 1):
                            self.clear(picture.items)

    def clear(self, items) -> None:
        said = [item for item in items if isinstance(item, Text)]
        rings = [item for item in items if isinstance(item, Circle) and
                 item.fill == "ground"]  # fmt: skip
        boxes = {text: framed(text) for text in said}
        for text, room in boxes.items():
            for other, taken in boxes.items():
                if text is not other:
                    self.assertFalse(room.intersects(taken), (text, other))
            for ring in rings:
                hole = Point(ring.centre).buffer(ring.radius)
                self.assertTrue(
                    hole.contains(room) or not hole.intersects(room), (text, ring)
                )


def framed(text: Text):
    """The rectangle that a text's figures fill: they stand 0.7 of its size high."""
    wide = text_width(text.text, text.size)
    left = text.at[0] - {"left": 0.0, "centre": 0.5, "right": 1.0}[text.anchor] * wide
    half = 0.35 * text.size
    return box(left, text.at[1] - half, left + wide, text.at[1] + half)


class SheetOfAPlate(unittest.TestCase):
    def test_sizes_ruled_by_a_fit_carry_its_number_and_limits(self):
        drawing = piece_sheet(planned().made, WIDTH, HEIGHT)
        said = texts(drawing)
        for size in ("⌀94.997", "94.992 to 95.002", "⌀46.010", "M45 × 4.5"):
            self.assertIn(size, said)
        for number in "1234":
            self.assertIn(number, said)
        self.assertTrue(any("on ⌀110 (109.090 to 110.903)" in text for text in said))

    def test_the_section_is_to_scale(self):
        """An upright dimension is as long as its size, all at one scale."""
        made = planned().made
        drawing = piece_sheet(made, WIDTH, HEIGHT)
        uprights = sorted(
            abs(i.start[1] - i.end[1])
            for i in drawing.items
            if isinstance(i, Line) and i.role == "dimension" and i.start[0] == i.end[0]
        )
        scale = uprights[-1] / made.values["flange.diameter"]
        for key in ("core.diameter", "spigot.diameter", "hub.diameter"):
            size = made.values[key]
            self.assertTrue(
                any(abs(upright / scale - size) < 0.01 for upright in uprights), key
            )

    def test_a_contradiction_is_red_and_marked_at_the_size_itself(self):
        made = planned(back_plate({"spigot.diameter": "95.4"})).made
        drawing = piece_sheet(made, 880, 500)
        item = next(
            i for i in drawing.items if isinstance(i, Text) and i.text == "⌀95.400"
        )
        self.assertEqual(item.role, "stop")
        self.assertTrue(
            any(isinstance(i, Mark) and i.kind == "stop" for i in drawing.items)
        )
        height = next(
            i for i in drawing.items if isinstance(i, Text) and i.text == "3.5"
        )
        self.assertEqual(height.role, "dimension", "only the size at fault")

    def test_every_size_can_be_chosen_where_it_stands(self):
        drawing = piece_sheet(planned().made, WIDTH, HEIGHT)
        for tie in ("hub.diameter", "spigot.diameter", "flange.thickness"):
            spot = drawing.spot(tie)
            self.assertTrue(spot.holds(spot.rect[0] + 2, spot.rect[1] + 2))


class GaugePictures(unittest.TestCase):
    def test_bands_are_to_scale(self):
        """What is left is the frame less twice the doubt of the mate."""
        fit = planned().fit(SPIGOT)
        drawing = gauge_drawing(fit, (95.018, 95.022), WIDTH, HEIGHT)
        heights = {
            i.role: i.points[2][1] - i.points[0][1]
            for i in drawing.items
            if isinstance(i, Shape) and i.closed and len(i.points) == 4
        }
        frame, left = heights["faint"], heights["cut"]
        self.assertAlmostEqual(
            left / frame, fit.band["band"] / (0.034 - 0.012), places=6
        )

    def test_readings_stand_on_the_mates_band(self):
        drawing = gauge_drawing(planned().fit(SPIGOT), (95.018, 95.022), 880, 500)
        dots = [i for i in drawing.items if isinstance(i, Circle)]
        self.assertEqual(len(dots), 2)
        self.assertGreater(dots[0].centre[1], dots[1].centre[1], "bigger is higher")

    def test_nothing_left_is_said_in_the_picture(self):
        chuck = {**CHUCK, "recess": ("caliper", 95.02)}
        drawing = gauge_drawing(planned(chuck=chuck).fit(SPIGOT), (95.02,), 880, 500)
        self.assertIn("nothing left", texts(drawing))

    def test_words_about_bolts_stand_below_them_where_that_makes_them_larger(self):
        """No word is cut, and 352 wide and 430 tall there is room below for letters of
        19.5, which beside the screw would be 13."""
        for wide, tall, least in ((352, 430, 19), (352, 300, 13), (880, 500, 19)):
            with self.subTest(wide=wide, tall=tall):
                drawing = gauge_drawing(planned().fit(BOLTS), (), wide, tall, 19.5)
                words = [item for item in drawing.items if isinstance(item, Text)]
                for item in words:
                    end = item.at[0] + text_width(item.text, item.size)
                    self.assertLess(end, wide, item.text)
                self.assertGreater(max(item.size for item in words), least)


class StackStrip(unittest.TestCase):
    def test_pieces_and_fits_can_be_chosen(self):
        drawing = stack_drawing(planned(), 540, 150)
        ties = {spot.tie for spot in drawing.spots}
        self.assertLessEqual({"nose", "chuck", "made:1", "fit.1", "fit.4"}, ties)

    def test_what_is_made_stands_between_its_mates_as_it_will_be(self):
        """The chuck seats on the flange: hub 17 and flange 18, 35 from the shoulder."""
        drawing = stack_drawing(planned(), 540, 150)
        rects = {spot.tie: spot.rect for spot in drawing.spots}
        nose, plate, chuck = (rects[tie] for tie in ("nose", "made:1", "chuck"))
        scale = plate[2] / (17 + 18 + 3.5)
        self.assertAlmostEqual((chuck[0] - plate[0]) / scale, 35.0, places=6)
        # the nose ends 36.05 from its shoulder, inside the plate
        self.assertAlmostEqual((nose[0] + nose[2] - plate[0]) / scale, 36.05, places=6)

    def test_what_stands_about_a_piece_stands_clear_of_its_metal(self):
        """Threads bite and a ring is pinched by hundredths; no ring stands in metal."""
        in_metal = {
            # its taper in the seat, drawn as a round
            ("collet-spindle", "collet"),
            ("collet-chuck", "collet"),
            ("nose-chuck", "collet"),
            ("hub-adapter", "key_bar"),  # in the keyway, which is no part of the region
        }
        found = []
        for family in families().values():
            for way in ({}, family.full, *family.ways):
                made = make(family, way)
                for mate in family.mates:
                    try:
                        rings = rings_of(mate, made)
                    except BadInput:  # the bushing of a bar without a pilot
                        continue
                    found += rings
                    for ring in (
                        rings if (family.key, mate.role) not in in_metal else ()
                    ):
                        metal = box(ring.start, ring.inner, ring.end, ring.outer)
                        met = made.body.region.intersection(metal).area
                        self.assertLess(met, 0.07 * metal.area, (family.key, mate.role))
        self.assertGreater(len(found), 50)

    def test_a_stud_stands_through_all_that_it_holds(self):
        """12 in the T-nut, 75 of tool post, a washer of 2 and a nut of 8.4."""
        family = families()["stud"]
        made = make(family, {})
        spans = {
            mate.role: [(ring.start, ring.end) for ring in rings_of(mate, made)]
            for mate in family.mates
        }
        self.assertEqual(spans["below"], [(0, 12)])
        self.assertEqual(spans["held"], [(12, 87)])
        self.assertEqual(spans["washer"], [(87, 89)])
        self.assertEqual(spans["nut"], [(89, 97.4)])

    def test_a_screw_stands_on_its_seat_and_in_the_chuck(self):
        """Flange 18 from 17: its counterbore of 8.6 ends at 25.6; an M8 of 25 goes on
        to 50.6, 15.6 into the chuck, its axis 55 from that of the plate."""
        drawing = stack_drawing(planned(), 540, 150)
        plate = {spot.tie: spot.rect for spot in drawing.spots}["made:1"]
        scale = plate[2] / (17 + 18 + 3.5)
        _, shank = (i for i in drawing.items
                    if isinstance(i, Shape) and i.role == "measured")  # fmt: skip
        along = [(x - plate[0]) / scale for x, _ in shank.points]
        self.assertAlmostEqual(min(along), 25.6, places=4)
        self.assertAlmostEqual(max(along), 50.6, places=4)
        high = [y for _, y in shank.points]
        self.assertAlmostEqual((max(high) - min(high)) / scale, 8, places=4)

    def test_what_is_not_measured_is_named_instead_of_drawn(self):
        drawing = stack_drawing(planned(chuck={}), 540, 150)
        self.assertIn("Back plate, to make", texts(drawing))


class Charts(unittest.TestCase):
    def test_cuts_come_down_on_the_band_of_a_shaft(self):
        job = with_cuts(back_plate(), 96.0, (0.1, 95.81), (0.2, 95.62))
        plan = planned(job)
        drawing = sneak_up_drawing(plan.cut_state, plan.advice, 600, 400)
        marks = [i for i in drawing.items if isinstance(i, Mark)]
        heights = [m.at[1] for m in marks if m.kind == "measured"]
        self.assertEqual(heights, sorted(heights))
        self.assertEqual(len(heights), 3)

    def test_the_rose_points_to_the_high_side(self):
        readings = tuple(0.02 * math.cos(math.radians(45 * i - 90)) for i in range(8))
        drawing = rose_drawing(readings, resolve(readings), 0.02, 400, 400)
        needle = [i for i in drawing.items if isinstance(i, Line) and i.role == "stop"]
        self.assertAlmostEqual(needle[0].end[0], 200, places=3)
        self.assertLess(needle[0].end[1], 200, "90° is up the page")

    def test_a_struck_reading_stays_in_the_picture(self):
        drawing = readings_drawing(
            [95.018, 95.519, 95.02],
            [False, True, False],
            [False] * 3,
            95.019,
            0.005,
            400,
            300,
        )
        self.assertIn("95.519 struck", texts(drawing))

    def test_a_proof_line_shows_its_verdict_by_mark(self):
        line = planned().proof[0]
        loose = replace(line, size=line.upper + 0.1, verdict="failed")
        kinds = [
            i.kind for i in band_drawing(loose, 400, 74).items if isinstance(i, Mark)
        ]
        self.assertEqual(kinds, ["stop", "stop"])  # in its corner and on its size

    def test_a_proof_line_keeps_its_name_its_figure_and_its_mark_apart(self):
        line = replace(planned().proof[2], size=110.0, doubt=0.041, verdict="proved")
        for width, inch in product((250, 400), (False, True)):
            drawn = band_drawing(line, width, 74, 20, inch)
            name = next(i for i in drawn.items if getattr(i, "text", "") == line.name)
            figure = next(i for i in drawn.items if " ± " in getattr(i, "text", ""))
            mark = next(i for i in drawn.items if isinstance(i, Mark))
            ends = name.at[0] + text_width(name.text, name.size)
            self.assertLess(ends, figure.at[0] - text_width(figure.text, figure.size))
            self.assertLess(figure.at[0], mark.at[0] - mark.size / 2)

    def test_what_is_said_of_a_size_without_a_band_is_not_cut_off(self):
        says = "not measured yet: over M6 screws in two neighbours"
        line = replace(
            planned().proof[0],
            size=None,
            lower=None,
            upper=None,
            verdict="open",
            says=says,
        )
        drawn = band_drawing(line, 340, 74).items
        rows = [i for i in drawn if isinstance(i, Text) and i.text in says]
        self.assertEqual(" ".join(row.text for row in rows), says)
        for row in rows:
            self.assertLess(row.at[0] + text_width(row.text, row.size), 340)
            self.assertLess(row.at[1], 74)


class Sections(unittest.TestCase):
    def test_the_hatch_covers_the_cut_face_evenly(self):
        """Line length times spacing is the area of the face."""
        ring = ((0, 20), (0, 36), (17, 36), (17, 65), (35, 65), (35, 20))
        area = 0.0
        for (ax, ay), (bx, by) in zip(ring, (*ring[1:], ring[0]), strict=True):
            area += (ax * by - bx * ay) / 2
        lines = hatch_lines(ring, 0.25, "left")
        self.assertAlmostEqual(
            sum(math.dist(a, b) for a, b in lines) * 0.25 / abs(area), 1, delta=0.01
        )
