"""Sheets and solids of every family: nothing missing, nothing crowded, true sizes."""

import math
import random
import re
import struct
import tempfile
import unittest
import zipfile
from itertools import product
from pathlib import Path

from ezdxf.filemanagement import readfile
from shapely import LineString, MultiPoint, bounds, box

from machinon.core.errors import BadInput, MachinonError
from machinon.core.families import families
from machinon.core.piece.made import make
from machinon.core.piece.shadow import VIEWS
from machinon.core.quantity import COUNT, LENGTH
from machinon.core.reckoning import FLAG, TEXT
from machinon.draw.block_views import draw_block_view
from machinon.draw.drawing import Board, Circle, Line, Mark, Shape, Text
from machinon.draw.end_view import draw_end_view
from machinon.draw.export.hole_list import hole_rows, write_holes
from machinon.draw.export.sheet_dxf import write_dxf
from machinon.draw.export.solids import write_3mf, write_stl
from machinon.draw.half_section import draw_half_section, mouth_seen, turned_in
from machinon.draw.piece_sheet import piece_sheet
from machinon.draw.sheet_figures import figure_of, places_of, said_with


def pieces():
    for family in families().values():
        yield make(family, {})
        if family.full:
            yield make(family, family.full)
        yield from (make(family, way) for way in family.ways if "parts" in way)


def whole():
    """A piece of each family with every feature that it can have."""
    return (make(family, family.full) for family in families().values())


def ways():
    """Pieces of a family with the sizes that bring something else."""
    for family in families().values():
        for way in family.ways:
            if "parts" not in way:
                yield make(family, {**family.full, **way})


def random_pieces(count, seed):
    """Valid pieces of every family whose sizes were changed at will."""
    chance = random.Random(seed)
    for family in families().values():
        usual, found = make(family, {}), 0
        while found < count:
            given = {
                key: f"{known.value * chance.uniform(0.7, 1.4):.2f}"
                for key, known in usual.sizes.items()
                if known.size.kind not in (TEXT, FLAG, COUNT) and chance.random() < 0.3
            }
            try:
                yield make(family, given)
            except BadInput:
                continue
            found += 1


def block_view(made, view):
    """What is drawn of a block in a view, in mm."""
    board = Board(500, 500)
    draw_block_view(board, made.body, view, lambda x, y: (x, y))
    return board.items


def texts(drawing):
    return [item for item in drawing.items if isinstance(item, Text)]


class Sheets(unittest.TestCase):
    def test_every_size_that_counts_stands_once_and_none_on_another(self):
        for made in pieces():
            for width, height, size, first in (
                (980, 620, 13, False),
                (640, 520, 13, True),
                (760, 640, 19, False),
                (900, 600, 15, True),
            ):
                drawing = piece_sheet(made, width, height, size, first_angle=first)
                with self.subTest(made.family.key, width=width):
                    self.assertEqual(list(drawing.troubles()), [])
                    ties = [spot.tie for spot in drawing.spots]
                    self.assertEqual(len(ties), len(set(ties)))
                    found = {
                        figure.key for tie in ties for figure in said_with(made, tie)
                    }
                    there = {feature.name for feature in made.body.features}
                    first: dict[str, str] = {}
                    for key, known in made.sizes.items():
                        name = known.size.feature
                        brings = first.setdefault(name, key)
                        # a feature that is not there is brought by its first size
                        absent = name not in there and brings in found
                        self.assertTrue(key in found or absent, key)

    def test_every_sheet_says_what_the_piece_measures_over_all(self):
        """It is what one saws: on a line of its own, or along the foot."""
        for made in pieces():
            if made.body.turns:
                first, last = made.body.ends
                spans = {"along": (first, last)}
            else:
                box = made.body.shadow.box
                spans = {way: (box[n], box[n + 3]) for n, way in enumerate("xyz")}
            said = {
                (
                    dimension.kind,
                    *(
                        round(end, 1)
                        for end in sorted((dimension.start, dimension.end))
                    ),
                )
                for dimension in places_of(made).values()
            }
            for way, (low, high) in spans.items():
                span = way, round(low, 1), round(high, 1)
                with self.subTest(made.family.key, way=way):
                    self.assertIn(span, said)

    def test_what_only_repeats_the_others_stands_in_brackets(self):
        """A collet spindle of 60, 12 and 16.5: 88.5 in all; a block is as long as it
        is written."""
        spindle = piece_sheet(make(families()["collet-spindle"], {}), 980, 620)
        self.assertIn("(88.5)", [text.text for text in texts(spindle)])
        block = piece_sheet(make(families()["plate-block"], {}), 980, 620)
        self.assertNotIn("(", "".join(text.text for text in texts(block)))

    def test_the_corners_of_an_outline_have_their_lines(self):
        """A corner cut off from 50 along to 30 up: both stand on the sheet, and no
        corner of the block does."""
        corners = {"parts": "outline", "outline1.points": "0,0 100,0 100,30 50,60 0,60"}
        plate = make(families()["plate-block"], corners)
        lines = {
            (dimension.kind, dimension.start, dimension.end)
            for dimension in places_of(plate).values()
        } - {("x", 0, 100), ("y", 0, 60), ("z", 0, plate.values["block.height"])}
        self.assertEqual(lines, {("x", 0, 50), ("y", 0, 30)})

    def test_one_can_make_it_from_the_sheet_alone(self):
        """The groove that a thread runs out in (2 × 1.5 wide, 0.3 under the root), a
        screw's clearance hole, what a hexagon is cut from (24 / cos 30°), the flats of
        a key, and what a dovetail is read over."""
        for family, words in (
            ("collet-spindle", ("groove 3 × ⌀29.86",)),
            ("slit-arbor", ("⌀8.2",)),
            ("hexagon-screw", ("⌀27.71",)),
            ("socket-key", ("4 flats, 8.03",)),
            ("dovetail-stop", ("between pins of ⌀8, flanks at 60°",)),
            (
                "ring-nut-spanner",
                ("arc of radius 22.80, 130° round the nut (22.60 to 23.10)",),
            ),
        ):
            sheet = piece_sheet(make(families()[family], {}), 980, 620)
            said = "\n".join(text.text for text in texts(sheet))
            for word in words:
                self.assertIn(word, said)

    def test_a_line_is_as_long_as_its_figure_says(self):
        """That of a circle's place goes to its centre, not to its first hole."""
        for made in (*pieces(), *ways(), *random_pieces(4, 11)):
            for key, line in places_of(made).items():
                known = made.sizes.get(key)
                if (
                    known is None
                    or line.kind == "hole"
                    or known.size.kind is not LENGTH
                ):
                    continue
                wide = line.kind == "diameter"
                long = 2 * line.at[0] if wide else abs(line.end - line.start)
                with self.subTest(made.family.key, size=key):
                    self.assertAlmostEqual(long, known.value, delta=0.006)

    def test_random_sizes_leave_no_sheet_crowded(self):
        for n, made in enumerate(random_pieces(10, 3)):
            drawing = piece_sheet(made, 980, 620, first_angle=bool(n % 2))
            with self.subTest(made.family.key, given=made.given):
                self.assertEqual(list(drawing.troubles()), [])

    def test_no_leader_runs_through_what_is_written_elsewhere(self):
        for family in families().values():
            made = make(family, {})
            for *size, first in product((860, 1100), (500, 700), (False, True)):
                drawing = piece_sheet(made, *size, first_angle=first)
                words = [(*spot.rect, spot.tie) for spot in drawing.figures]
                slanting = (
                    LineString((line.start, line.end))
                    for line in drawing.items
                    if isinstance(line, Line)
                    and line.role == "dimension"
                    and min(
                        abs(a - b) for a, b in zip(line.start, line.end, strict=True)
                    )
                )
                for lead, (x, y, w, h, tie) in product(slanting, words):
                    met = lead.intersects(box(x + 4, y + 4, x + w - 4, y + h - 4))
                    self.assertFalse(met, (family.key, size, tie))

    def test_a_leader_ends_with_an_arrow_on_an_outline_and_a_dot_within_one(self):
        """ISO 128-2: on the rim of the hole, on the face of the knurl."""

        def ends(family):
            drawing = piece_sheet(make(families()[family], {}), 980, 620)
            heads = [
                shape.points[0]
                for shape in drawing.items
                if isinstance(shape, Shape) and shape.fill == "dimension"
            ]
            dots = [
                circle.centre
                for circle in drawing.items
                if isinstance(circle, Circle) and circle.fill == "dimension"
            ]
            rims = [
                circle
                for circle in drawing.items
                if isinstance(circle, Circle) and circle.role == "outline"
            ]
            on_rim = [
                head
                for head, rim in product(heads, rims)
                if abs(math.dist(head, rim.centre) - rim.radius) < 1e-6
            ]
            return on_rim, dots

        on_rim, dots = ends("plate-block")
        self.assertEqual((len(on_rim), len(dots)), (1, 0))
        on_rim, dots = ends("knob")
        self.assertEqual((len(on_rim), len(dots)), (0, 1))

    def test_words_stand_next_to_the_view_that_they_are_of(self):
        """The dovetail's and the stop screw's words stand over the end view, and no
        leader to it runs through the view from above."""
        for width in (860, 1100):
            drawing = piece_sheet(make(families()["dovetail-stop"], {}), width, 560)
            plan = next(
                shape.points
                for shape in drawing.items
                if isinstance(shape, Shape) and shape.closed and shape.fill == "panel"
            )
            across, up = zip(*plan, strict=True)
            above = box(min(across), min(up), max(across), max(up))
            leaders = [
                LineString((line.start, line.end))
                for line in drawing.items
                if isinstance(line, Line)
                and line.role == "dimension"
                and line.start[0] != line.end[0]
                and line.start[1] != line.end[1]
            ]
            self.assertEqual(len(leaders), 3)
            for leader in leaders:
                self.assertFalse(leader.intersects(above))

    def test_a_narrow_length_has_its_figure_where_no_line_comes_down(self):
        """The register is 13 deep from the left face; at its right the lines of 18 and
        37.5 come down: the 13 stands left of them all, the 3.5 right."""
        made = make(families()["back-plate"], {})
        for width in (860, 1100):
            drawing = piece_sheet(made, width, 500)
            rects = {spot.tie: spot.rect for spot in drawing.figures}
            lines = {
                line.start[0]
                for line in drawing.items
                if isinstance(line, Line)
                and line.role == "dimension"
                and line.start[0] == line.end[0]
                and line.end[1] > rects["register.depth"][1] > line.start[1]
            }
            left, _, wide, _ = rects["register.depth"]
            self.assertLess(left + wide, min(lines))
            self.assertGreater(rects["spigot.height"][0], max(lines))

    def test_a_slot_s_width_stands_clear_of_the_line_to_its_middle(self):
        """10 wide, its middle 17 from the foot: that line passes where 10 would be."""
        drawing = piece_sheet(make(families()["vee-block"], {}), 862, 500)
        rects = {spot.tie: spot.rect for spot in drawing.figures}
        x, y, wide, high = rects["slot1.width"]
        level = [
            line.start[1]
            for line in drawing.items
            if isinstance(line, Line)
            and line.role == "dimension"
            and line.start[1] == line.end[1]
            and min(line.start[0], line.end[0]) < x + wide / 2
        ]
        self.assertTrue(level)
        self.assertFalse([at for at in level if y + 4 < at < y + high - 4])

    def test_sizes_that_lead_to_the_same_place_have_one_line(self):
        """A carriage stop's screw lies in the middle of its vee: both are 30 from its
        front. Half a millimetre apart each has its own."""
        for offset, at in (("", ["30"]), ("30.5", ["30", "30.5"])):
            given = {"hole1.from_side": offset} if offset else {}
            made = make(families()["carriage-stop"], given)
            written = self.written(made)
            self.assertEqual([text for text in written if text.startswith("30")], at)
            said = [figure.key for figure in said_with(made, "hole1.from_side")]
            both = ["vee1.at", "hole1.from_side"]
            self.assertEqual(sorted(said), sorted(both if not offset else both[1:]))

    def test_a_taper_begins_on_the_line_of_the_step_that_it_goes_on_from(self):
        family = families()["turned-piece"]
        made = make(family, family.full)
        self.assertEqual(self.written(made).count("⌀24"), 1)
        said = [figure.key for figure in said_with(made, "taper1.left")]
        self.assertEqual(said, ["step1.diameter", "taper1.left"])
        # two ends of a stud are as thick, and each has its line
        stud = make(families()["stud"], {})
        self.assertEqual(self.written(stud).count("M10"), 2)

    def test_a_taper_says_its_angle_by_its_name_or_by_its_ends(self):
        """From 20 to 16 over 25 the side falls by 2 in 25, 4.574°."""
        for taper, says in (("none", "4.574°"), ("MT2", "MT2, 1.431°")):
            given = {"parts": "taper", "taper1.taper": taper}
            made = make(families()["turned-piece"], given)
            self.assertIn(f"taper 1: {says} a side", self.written(made))

    def test_inches_have_as_many_digits_as_the_size_is_close(self):
        """A fourth digit asks for tenths: it is for bands, parts of 64 and what was
        typed."""
        for typed, text in (
            ({}, "3.937"),  # 100 mm by its rule
            ({"block.length": "3.9372in"}, "3.9372"),
            ({"block.length": "3 15/16in"}, "3.9375"),
            ({"block.length": "4in"}, "4.000"),
        ):
            with self.subTest(typed):
                made = make(families()["plate-block"], typed)
                figure = figure_of(made, made.sizes["block.length"], True)
                self.assertEqual(figure.text, text)

    def test_holes_in_rows_are_written_with_the_way_from_one_to_the_next(self):
        """Four at 15 from the edges of 100 x 60; six nuts of 22, a saw of 1.6 and 0.3
        left at either end of each: every 24.2."""
        for key, inch, apart in (
            ("plate-block", False, "70 × 30 apart"),
            ("plate-block", True, "2.756 × 1.181 apart"),
            ("t-nut-strip", False, "24.2 apart"),
            ("detent-plate", False, "on ⌀45, 30° apart"),
        ):
            written = self.written(make(families()[key], {}), inch)
            self.assertTrue(any(text.endswith(apart) for text in written), written)

    def written(self, made, inch=False):
        items = piece_sheet(made, 980, 620, inch=inch).items
        return [item.text for item in items if isinstance(item, Text)]

    def test_what_has_no_line_is_written_where_it_is_cut(self):
        made = make(
            families()["plate-block"],
            {"parts": "slot slot pocket corner edge", "slot2.length": "30"},
        )
        said = {text.text for text in texts(piece_sheet(made, 980, 620))}
        for words in (
            "slot 1: from end to end",
            "slot 2: round ends",
            "pocket 1: through, R4",
            "corners R5",
            "upper edges 0.5 × 45°",
        ):
            self.assertIn(words, said)
        keys = [figure.key for figure in said_with(made, "edge1.leg")]
        self.assertEqual(keys, ["edge1.leg", "edge1.which"])

    def test_what_only_follows_from_the_sizes_has_its_line_as_well(self):
        """Six nuts of 22, five saws of 1.6 and ten clean ends of 0.3: a strip of 143;
        pins in the middle of a collar of 12 behind a journal of 60; a spigot's screw is
        drilled four of its pitches deeper than 20."""
        for key, line, length in (
            ("t-nut-strip", "strip.length", "143"),
            ("t-nut-strip", "thread.from_side", "11"),
            ("collet-spindle", "pins.from_end", "66"),
            ("taper-arbor", "screw_hole.depth", "26"),
        ):
            made = make(families()[key], {})
            drawing = piece_sheet(made, 980, 620)
            self.assertIn(line, [spot.tie for spot in drawing.spots])
            self.assertIn(length, self.written(made))
        spacer = make(families()["spacer-sleeve"], {})
        ties = [spot.tie for spot in piece_sheet(spacer, 980, 620).spots]
        self.assertEqual([tie for tie in ties if tie not in spacer.sizes], [])

    def test_edges_and_centres_that_are_no_sizes_are_said_under_the_title(self):
        """The nose's edge is as wide as its thread's pitch of 1.5."""
        for key, says in (
            ("collet-spindle", "Nose edge 1.5 × 45°, rear edge 0.5 × 45°"),
            ("single-point-bar", "Edges 0.5 × 45°, centre ⌀6"),
            ("dovetail-stop", "Upper edges 0.5 × 45°"),
            ("hinged-arm", "Ends R9"),
            ("turned-piece", ""),  # there each is a size of its own
        ):
            self.assertIn(says, self.written(make(families()[key], {})))

    def test_the_round_under_a_square_is_said_with_its_flats(self):
        """Square heads stand with their corners out of the paper: 24 √2 is 33.94, and
        no line of a view is so far out. A hexagon's corners are seen, and dimensioned.
        """
        for sides, says, across in (
            ("4", "4 flats, 24 across, from ⌀33.94", False),
            ("6", "6 flats, 24 across", True),
        ):
            screw = make(families()["hexagon-screw"], {"head.sides": sides})
            written = self.written(screw)
            self.assertIn(says, written)
            self.assertEqual("⌀27.71" in written, across)
            self.assertNotIn("⌀33.94", written)

    def test_a_set_screw_that_meets_each_bit_is_drawn_and_written(self):
        """Three bits, three M4 screws a quarter turn on: they look out of the half that
        is not cut, and are written once for all."""
        made = make(families()["single-point-bar"], {"bits.count": "3"})
        written = self.written(made)
        self.assertIn("3 × M4 × 0.7, drill 3.3", written)
        self.assertTrue(any(text.startswith("3 × ⌀8 H7, reamed") for text in written))
        board = Board(400, 200)
        draw_half_section(board, made.body, lambda z, r: (z, -r))
        mouths = [
            shape
            for shape in board.items
            if isinstance(shape, Shape)
            and not shape.closed
            and max(x for x, _ in shape.points) - min(x for x, _ in shape.points) < 3.4
        ]
        middles = sorted(sum(x for x, _ in shape.points[::12]) / 2 for shape in mouths)
        stations = [made.body.feature(f"grub{i}").z for i in (3, 2, 1)]
        for middle, station in zip(middles, stations, strict=True):
            self.assertAlmostEqual(middle, station)
        self.assertTrue(all(y >= -1e-9 for shape in mouths for _, y in shape.points))

    def test_a_block_s_lines_stand_once_and_end_where_the_metal_ends(self):
        for made in pieces():
            if made.body.turns:
                continue
            for view in VIEWS:
                found = block_view(made, view)
                with self.subTest(made.family.key, view=view):
                    self.assertEqual(len(found), len(set(found)))
                    shapes = [item for item in found if isinstance(item, Shape)]
                    whole, outline = (
                        bounds(MultiPoint(sum((shape.points for shape in some), ())))
                        for some in (
                            shapes,
                            [shape for shape in shapes if shape.closed],
                        )
                    )
                    for wide, out in zip(whole, outline, strict=True):
                        self.assertAlmostEqual(wide, out, 3)

    def test_a_hole_through_a_block_is_one_circle_that_one_sees_through(self):
        made = make(families()["plate-block"], {})
        circles = [item for item in block_view(made, "top") if isinstance(item, Circle)]
        through = [circle for circle in circles if circle.fill == "ground"]
        self.assertEqual(
            sorted(circle.centre for circle in through),
            [(15, 15), (15, 45), (85, 15), (85, 45)],
        )
        self.assertEqual({round(2 * circle.radius, 4) for circle in through}, {9.0})
        # and above each its counterbore
        self.assertEqual({2 * circle.radius for circle in circles}, {9.0, 15.0})

    def test_the_corners_of_an_outline_are_edges_from_its_sides(self):
        """An L of 80 x 50, its inner corner at 30, 20, its far corner cut off: from the
        front both hide behind the foot; from the right the foot's edge at 20 is seen,
        that of the cut at 40 hides behind the leg."""
        corners = "0,0 80,0 80,20 30,20 30,50 10,50 0,40"
        made = make(
            families()["plate-block"],
            {"parts": "outline", "outline1.points": corners, "block.width": "50",
             "block.length": "80"},
        )  # fmt: skip
        seen = {
            (view, line.role, line.points[0][0])
            for view in ("front", "right")
            for line in block_view(made, view)
            if isinstance(line, Shape) and not line.closed
        }
        edges = {
            ("front", "hidden", 30.0),
            ("front", "hidden", 10.0),
            ("right", "outline", 20.0),
            ("right", "hidden", 40.0),
        }
        self.assertEqual(seen, edges)

    def test_the_foot_of_a_male_dovetail_is_seen_from_its_side(self):
        """8 deep into 30: its foot at 22 lies before the dovetail; a female's floor
        hides behind the block's side."""
        for form, role in (("male", "outline"), ("female", "hidden")):
            given = {"parts": "dovetail", "dovetail1.form": form}
            made = make(families()["plate-block"], given)
            foot = next(
                line
                for line in block_view(made, "front")
                if isinstance(line, Shape)
                and not line.closed
                and {y for _, y in line.points} == {22.0}
            )
            self.assertEqual(foot.role, role)

    def test_a_hole_that_leans_is_longer_by_its_lean_and_comes_out_dashed(self):
        """⌀9 at an angle: its rim is 9 across and 9 / cos long, the far one 10 × tan
        aside."""
        given = {"swing.screw": "M8", "place.opens": "60"}
        made = make(families()["hinged-arm"], given)
        lean = math.radians(made.body.feature("swing").leans[1])
        near, far = (
            shape
            for shape in block_view(made, "top")
            if isinstance(shape, Shape) and len(shape.points) == 48
        )
        self.assertEqual((near.role, far.role), ("outline", "hidden"))
        for rim in (near, far):
            (left, low, right, high) = MultiPoint(rim.points).bounds
            self.assertAlmostEqual(right - left, 9 / math.cos(lean))
            self.assertAlmostEqual(high - low, 9)
        aside = far.points[0][0] - near.points[0][0]
        self.assertAlmostEqual(aside, 10 * math.tan(lean))

    def test_flats_are_seen_as_they_are_cut(self):
        """On ⌀30 a square of 22 is 11 high where it is cut, not at its corners; a flat
        5 deep is 2 × √(15² − 10²) wide; a hexagon's edge is 13/√3 off the axis."""
        for count, across, high, wide in (
            ("4", "22", 11, math.sqrt(15**2 - 11**2)),
            ("1", "25", 15, math.sqrt(15**2 - 10**2)),
            ("6", "25.98", 15, 12.99 / math.sqrt(3)),
        ):
            given = {
                "parts": "step flat",
                "step1.diameter": "30",
                "step1.length": "40",
                "flat1.from_end": "10",
                "flat1.length": "20",
                "flat1.count": count,
                "flat1.across": across,
            }
            board = Board(100, 100)
            made = make(families()["turned-piece"], given)
            draw_half_section(board, made.body, lambda z, r: (z, r))
            cut = next(item for item in board.items if isinstance(item, Shape))
            self.assertTrue(cut.hatch)
            middle = LineString(cut.points).intersection(
                LineString([(20, 1), (20, 99)])
            )
            self.assertAlmostEqual(middle.y, high, places=2)
            edges = {
                round(line.start[1], 2)
                for line in board.items
                if isinstance(line, Line)
                and (line.start[0], line.end[0]) == (10, 30)
                and line.role == "outline"
            }
            self.assertIn(round(-wide, 2), edges)

    def test_threads_and_face_grooves_are_seen_from_the_end(self):
        """A screw's root and a nut's crest are open circles, three quarters of one; the
        chamfer of a thread has none; a face groove has both of its rims."""

        def circles(parts, **sizes):
            given = {"parts": parts, "step1.diameter": "50", "step1.length": "40"}
            given |= {key.replace("_", "."): text for key, text in sizes.items()}
            board = Board(100, 100)
            body = make(families()["turned-piece"], given).body
            draw_end_view(board, body, (0.0, 0.0), 1.0)
            return {
                (round(2 * item.radius, 2), item.open)
                for item in board.items
                if isinstance(item, Circle)
            }

        self.assertEqual(
            circles("step trepan"), {(50, False), (12, False), (16, False)}
        )
        nut = circles("step nut", nut1_thread="M8")
        self.assertEqual(nut, {(50, False), (8, True), (6.8, False)})
        screw = circles("step step thread edge", step2_diameter="20")
        root = 20 - 2 * 0.613435 * 2.5
        self.assertEqual(screw, {(50, False), (20, False), (round(root, 2), True)})

    def test_a_head_with_flats_all_along_is_no_round_from_its_end(self):
        """A hexagon of 24 across flats has six corners of 13.856 and no circle."""
        made = make(families()["hexagon-screw"], {})
        board = Board(100, 100)
        draw_end_view(board, made.body, (0.0, 0.0), 1.0)
        ring = next(item for item in board.items if isinstance(item, Shape))
        self.assertEqual(len(ring.points), 6)
        for corner in ring.points:
            self.assertAlmostEqual(math.hypot(*corner), 24 / math.sqrt(3), places=6)
        widest = max(c.radius for c in board.items if isinstance(c, Circle))
        self.assertLess(widest, 12)

    def test_what_turns_is_seen_through_its_bore_and_open_where_its_key_goes(self):
        # dowels and screws on one circle have one centre line
        board = Board(500, 500)
        made = make(families()["hub-adapter"], families()["hub-adapter"].full)
        draw_half_section(board, made.body, lambda z, r: (z, r))
        draw_end_view(board, made.body, (500, 0), 1.0)
        self.assertEqual(len(board.items), len(set(board.items)))
        board = Board(500, 500)
        made = make(families()["hub-adapter"], {})
        draw_end_view(board, made.body, (0, 0), 1.0)
        circles = [item for item in board.items if isinstance(item, Circle)]
        self.assertEqual(len(circles), len(set(circles)))
        through = {
            round(2 * circle.radius, 3) for circle in circles if circle.fill == "ground"
        }
        self.assertEqual(through, {20.014, 5.0})  # the bore, and M6 drilled
        (key,) = (
            shape.points
            for shape in board.items
            if isinstance(shape, Shape) and shape.role == "outline"
        )
        # 6 wide, 2.8 into the bore's top; its sides begin where the bore is 6 wide
        self.assertEqual({x for x, _ in key}, {-3.0, 3.0})
        ends = {round(-y, 3) for _, y in key}
        self.assertEqual(ends, {12.807, round((10.007**2 - 3**2) ** 0.5, 3)})

    def test_of_holes_on_one_circle_the_section_shows_those_that_lie_in_it(self):
        """The middle recess of a detent plate is on top, 0.9 of its 5 deep; the screws
        on the same circle are turned away from it."""
        body = make(families()["detent-plate"], {}).body
        names = [feature.name for feature in turned_in(body)]
        self.assertEqual(names, ["recesses"])
        board = Board(500, 500)
        draw_half_section(board, body, lambda z, r: (z, r))
        cut = [item for item in board.items if getattr(item, "hatch", "")]
        floors = {round(z, 3) for item in cut for z, r in item.points if 22 < r < 23}
        self.assertEqual(min(floors), 4.1)

    def test_of_holes_from_the_side_at_one_place_the_section_shows_the_upper_one(self):
        """⌀40: one on top, the other 30° below the side that is looked at: its mouth is
        seen at 20 sin 30° = 10 under the axis, and its note leads there."""
        given = {"parts": "step cross cross", "step1.diameter": "40",
                 "step1.length": "50", "cross1.from_end": "20", "cross1.start": "210",
                 "cross1.depth": "14", "cross2.from_end": "20"}  # fmt: skip
        made = make(families()["turned-piece"], given)
        names = [feature.name for feature in turned_in(made.body)]
        self.assertEqual(names, ["cross2"])
        self.assertAlmostEqual(mouth_seen(made.body.feature("cross1")), -10)
        items = piece_sheet(made, 900, 600, 13.0).items
        written = {item.text for item in items if isinstance(item, Text)}
        self.assertIn("⌀5 × 14 deep, 120° from cross 2", written)

    def test_no_circle_is_seen_on_a_cone_that_goes_on(self):
        """A seat of 16° from ⌀33 to 25.13, 28 deep, behind a thread with its groove:
        from the right its mouth, its small end and the bore of 24 are edges, and no
        more."""
        block = {"parts": "step step thread bore socket", "step1.diameter": "50",
                 "step1.length": "60", "step2.diameter": "40", "step2.length": "16",
                 "thread1.thread": "M40x1.5", "bore1.diameter": "24",
                 "bore1.depth": "0", "socket1.taper": "16° included",
                 "socket1.mouth": "33", "socket1.depth": "28"}  # fmt: skip
        board = Board(500, 500)
        draw_end_view(board, make(families()["turned-piece"], block).body, (0, 0), 1.0)
        edges = {
            round(2 * item.radius, 2)
            for item in board.items
            if isinstance(item, Circle) and item.role == "outline" and not item.open
        }
        self.assertEqual(edges, {24.0, 25.13, 33.0, 40.0, 50.0})

    def test_the_section_of_a_tapped_hole_has_its_crests_thin(self):
        """M6 right through a flange from 25 to 32 on a circle of 46: from 20 to 26.
        M8 from the side of a sleeve of ⌀40 ends at its bore of 18."""
        flange = self.thin(make(families()["hub-adapter"], {}))
        for crest in (20.0, 26.0):
            self.assertIn((32.0, crest, 25.0, crest), flange)
        sleeve = {"parts": "step cross bore", "step1.diameter": "40",
                  "step1.length": "60", "cross1.thread": "M8",
                  "bore1.diameter": "18"}  # fmt: skip
        sides = self.thin(make(families()["turned-piece"], sleeve))
        self.assertEqual(sides, {(26.0, 20.0, 26.0, 9.0), (34.0, 20.0, 34.0, 9.0)})
        # M16 behind a recess of 22 by 10: none in the air
        nut = {"parts": "step nut bore", "step1.diameter": "40", "step1.length": "40",
               "nut1.thread": "M16", "nut1.depth": "30",
               "bore1.diameter": "22", "bore1.depth": "10"}  # fmt: skip
        crest = self.thin(make(families()["turned-piece"], nut))
        self.assertEqual(crest, {(10.0, 8.0, 30.0, 8.0)})

    def thin(self, made):
        board = Board(500, 500)
        draw_half_section(board, made.body, lambda z, r: (z, r))
        return {
            (*line.start, *line.end)
            for line in board.items
            if isinstance(line, Line) and line.role == "thin"
        }

    def test_what_metal_stands_before_is_dashed_from_the_end(self):
        """A keyway behind the seat of the shaft's own screw; the flat of a bar; slits
        from the left in ⌀20, behind a head of ⌀30."""
        slit = {"parts": "step step slit", "step1.diameter": "20",
                "step2.diameter": "30", "slit1.end": "left"}  # fmt: skip
        for key, given in (("hub-adapter", families()["hub-adapter"].full),
                           ("single-point-bar", {}),
                           ("turned-piece", slit)):  # fmt: skip
            board = Board(500, 500)
            draw_end_view(board, make(families()[key], given).body, (0, 0), 1.0)
            straight = [item for item in board.items if isinstance(item, Shape | Line)]
            roles = {item.role for item in straight} - {"centre"}
            self.assertEqual(roles, {"hidden"}, key)

    def test_a_countersink_is_as_wide_as_it_is_written_from_above_and_the_side(self):
        made = make(families()["t-nut-strip"], {})
        written = {
            feature.hole.sink
            for feature in made.body.features
            if hasattr(feature, "hole")
        }
        self.assertEqual(written, {13.0})
        above = {
            round(2 * item.radius, 3)
            for item in block_view(made, "top")
            if isinstance(item, Circle)
        }
        # its thread's drill, the thread M12, the mouth
        self.assertEqual(above, {10.3, 12.0, 13.0})
        hidden = [
            shape.points
            for shape in block_view(made, "front")
            if isinstance(shape, Shape) and shape.role == "hidden"
        ]
        # the first nut's hole in 22 mm of it, its mouth 6.5 to both sides of 11
        mouths = {round(x, 3) for points in hidden for x, _ in points}
        self.assertLessEqual({4.5, 17.5}, mouths)
        self.assertFalse({3.5, 18.5} & mouths)

    def test_a_round_end_runs_out_without_an_edge(self):
        made = make(families()["hinged-arm"], {})
        edges = [
            shape.points
            for shape in block_view(made, "front")
            if isinstance(shape, Shape) and not shape.closed and shape.role == "outline"
        ]
        self.assertEqual(edges, [])

    def test_first_angle_has_the_view_from_above_below_and_the_right_one_left(self):
        """The holes of a block are circles where it is seen from above; those of a
        flange where its end is seen."""

        def holes(key, first):
            items = piece_sheet(
                make(families()[key], {}), 980, 620, first_angle=first
            ).items
            circles = [item.centre for item in items if isinstance(item, Circle)]
            return max(circles), max(y for _, y in circles)

        third, first = holes("plate-block", False), holes("plate-block", True)
        self.assertGreater(first[1], third[1])
        third, first = holes("back-plate", False), holes("back-plate", True)
        self.assertLess(first[0], third[0])

    def test_a_size_with_a_band_carries_its_limits(self):
        for made in pieces():
            said = [
                item.text
                for item in piece_sheet(made, 980, 620).items
                if isinstance(item, Text)
            ]
            for band in made.fits:
                there = {feature.name for feature in made.body.features}
                name = made.sizes[band.slot.rules].size.drawn_at.split(".")[0]
                if band.lower is not None and name in there:
                    with self.subTest(made.family.key, fit=band.slot.key):
                        # to a thou, or all to a hundredth where they are such
                        limits = {
                            f"{band.lower:.{digits}f} to {band.upper:.{digits}f}"
                            for digits in (2, 3)
                        }
                        self.assertTrue(
                            any(ends in text for text in said for ends in limits), said
                        )

    def test_what_meets_a_mate_without_a_fit_has_limits_too(self):
        """A shank for a collet of 20 that closes half a millimetre, an arm in a fork of
        10.1, the mouth of a seat 1:4 on a nose of 63.513 that is to stand 0.005 to 0.05
        off: 63.513 − 0.05 / 4 = 63.5005 to 63.51175."""
        for key, size, limits in (
            ("collet-arbor", "shank.diameter", "19.50 to 19.99"),
            ("hinged-arm", "arm.thickness", "9.85 to 10.05"),
            ("taper-plate", "seat.diameter", "63.501 to 63.511"),
        ):
            made = make(families()[key], {})
            figure = figure_of(made, made.sizes[size], inch=False)
            self.assertEqual(figure.small, limits)
        thin = make(families()["hinged-arm"], {"arm.thickness": "9.5"})
        self.assertEqual(figure_of(thin, thin.sizes["arm.thickness"], False).small, "")
        self.assertEqual(thin.allowed("arm.thickness"), (9.3, 9.7))

    def test_the_sign_of_what_is_wrong_stands_before_the_limits(self):
        made = make(families()["spacer-sleeve"], {})
        items = piece_sheet(made, 980, 620, stale={"sleeve.length"}).items
        (limits,) = [i for i in items if isinstance(i, Text) and "44.934 to" in i.text]
        (sign,) = [i for i in items if isinstance(i, Mark)]
        self.assertLess(sign.at[0] + sign.size / 2, limits.at[0])

    def test_a_sheet_in_inches_says_inches(self):
        made = make(families()["plate-block"], {})
        said = [
            i.text
            for i in piece_sheet(made, 980, 620, inch=True).items
            if isinstance(i, Text)
        ]
        self.assertIn("3.937", said)  # 100 mm

    def test_paper_leaves_out_what_the_piece_has_not(self):
        made = make(families()["taper-arbor"], {"draw.thread": "none"})
        screen, paper = (piece_sheet(made, 980, 620, paper=on) for on in (False, True))
        self.assertIsNotNone(screen.spot("draw.thread"))
        self.assertIsNone(paper.spot("draw.thread"))
        # nor what only a draw-bar thread would have
        self.assertIsNone(paper.spot("draw.depth"))

    def test_paper_leaves_out_the_choices_that_the_drawing_shows(self):
        """From which end a bore goes in is seen, as that it goes through."""
        made = make(families()["turned-piece"], {"parts": "step bore edge centre"})
        screen, paper = (piece_sheet(made, 980, 620, paper=on) for on in (False, True))
        for key in ("bore1.end", "bore1.depth", "bore1.floor"):
            self.assertIsNotNone(screen.spot(key))
            self.assertIsNone(paper.spot(key))
        said = {text.text for text in texts(paper)}
        self.assertLessEqual({"0.5 × 45°", "centre ⌀5"}, said)


class Written(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def test_a_dxf_opens_again_with_every_dimension_true(self):
        for made in whole():
            path = self.folder / "sheet.dxf"
            write_dxf(made, path)
            document = readfile(path)
            self.assertFalse(document.audit().has_errors)
            for entity in document.modelspace().query("DIMENSION"):
                # it says what it measures, not a hundred times that
                (said,) = entity.get_geometry_block().query("MTEXT")
                if "<>" in entity.dxf.text:  # and not a thread's name
                    measured = f"{round(entity.get_measurement(), 3):g}"
                    self.assertIn(measured, said.text)
            found = sorted(
                round(entity.get_measurement(), 3)
                for entity in document.modelspace().query("DIMENSION")
            )
            texts = {entity.dxf.text for entity in document.modelspace().query("TEXT")}
            for known in made.sizes.values():
                size, value = known.size, known.value
                if size.kind in (TEXT, FLAG, COUNT):
                    continue
                drawn = any(abs(value - figure) < 2e-3 for figure in found)
                written = any(size.words in text for text in texts)
                told = f"{value:g}".replace("-", "−")
                noted = any(re.search(rf"(?<![\d.]){told}0*(?!\d)", t) for t in texts)
                # a reamed hole goes by the name of what leaves it
                noted |= any(f"{value:.0f} H7, reamed" in t for t in texts)
                unused = size.measure == "circle" and size.by == "rule"
                absent = (
                    unused
                    or value == 0
                    or size.feature
                    not in {feature.name for feature in made.body.features}
                )
                with self.subTest(made.family.key, size=size.key):
                    self.assertTrue(drawn or written or noted or absent)

    def test_the_end_view_of_a_dxf_stands_upright(self):
        """A detent's recesses are above its axis, where the section is cut."""
        path = self.folder / "sheet.dxf"
        write_dxf(make(families()["detent-plate"], {}), path)
        circles = readfile(path).modelspace().query("CIRCLE")
        recesses = [c.dxf.center for c in circles if 2 < c.dxf.radius < 2.2]
        self.assertEqual(len(recesses), 3)
        self.assertTrue(all(centre.y > 0 for centre in recesses))

    def test_the_words_of_a_dxf_are_led_to_their_place(self):
        """Of two kinds of holes each is told by its leader, on the rim of a hole."""
        path = self.folder / "sheet.dxf"
        write_dxf(make(families()["hub-adapter"], {}), path)
        space = readfile(path).modelspace()
        tips = [leader.vertices[0] for leader in space.query("LEADER")]
        self.assertEqual(len(tips), 3)
        rims = [
            math.dist(tip[:2], circle.dxf.center.vec2) - circle.dxf.radius
            for tip, circle in product(tips, space.query("CIRCLE"))
        ]
        self.assertAlmostEqual(min(map(abs, rims)), 0, places=6)

    def test_an_stl_is_closed_and_has_the_piece_s_volume(self):
        for made in pieces():
            path = self.folder / "solid.stl"
            write_stl(made, path)
            data = path.read_bytes()
            (count,) = struct.unpack_from("<I", data, 80)
            self.assertEqual(len(data), 84 + 50 * count)
            volume, edges = 0.0, {}
            for i in range(count):
                numbers = struct.unpack_from("<12f", data, 84 + 50 * i)
                a, b, c = (numbers[n : n + 3] for n in (3, 6, 9))
                volume += (
                    a[0] * (b[1] * c[2] - b[2] * c[1])
                    - a[1] * (b[0] * c[2] - b[2] * c[0])
                    + a[2] * (b[0] * c[1] - b[1] * c[0])
                ) / 6
                for edge in ((a, b), (b, c), (c, a)):
                    edges[edge] = edges.get(edge, 0) + 1
            with self.subTest(made.family.key):
                self.assertAlmostEqual(volume / made.body.volume, 1, places=4)
                # each edge is walked once each way
                self.assertTrue(
                    all(edges.get((b, a)) == n for (a, b), n in edges.items())
                )

    def test_a_3mf_holds_the_same_triangles(self):
        made = next(pieces())
        path = self.folder / "solid.3mf"
        write_3mf(made, path)
        with zipfile.ZipFile(path) as archive:
            self.assertIsNone(archive.testzip())
            model = archive.read("3D/3dmodel.model").decode()
        self.assertIn('unit="millimeter"', model)
        self.assertEqual(model.count("<triangle "), made.body.solid.num_tri())

    def test_holes_are_listed_where_they_are(self):
        made = make(families()["plate-block"], {})
        rows = hole_rows(made)
        self.assertEqual(
            [(row[3], row[4]) for row in rows],
            [
                ("15.000", "15.000"),
                ("85.000", "15.000"),
                ("15.000", "45.000"),
                ("85.000", "45.000"),
            ],
        )
        write_holes(made, self.folder / "holes.csv")
        text = (self.folder / "holes.csv").read_text()
        self.assertTrue(text.startswith("feature,number,face,x,y"))

    def test_holes_are_listed_as_their_face_is_looked_at(self):
        """10 from the front of a side 60 wide: 10 from the left of the right face, 50
        from the left of the left one, which is looked at from the other side."""
        given = {"parts": "hole hole"}
        for name, face in (("hole1", "right"), ("hole2", "left")):
            given |= {f"{name}.face": face, f"{name}.from_side": "10",
                      f"{name}.depth": "20"}  # fmt: skip
        rows = hole_rows(make(families()["plate-block"], given))
        self.assertEqual([row[3] for row in rows], ["10.000", "50.000"])
        ring = {"parts": "step ring", "ring1.end": "left", "ring1.count": "2",
                "step1.diameter": "50", "ring1.circle": "30"}  # fmt: skip
        rows = hole_rows(make(families()["turned-piece"], ring))
        self.assertEqual([row[5] for row in rows], ["90.0000", "270.0000"])

    def test_a_folder_that_is_not_there_is_said(self):
        made = next(pieces())
        for write in (write_stl, write_3mf, write_dxf, write_holes):
            with self.assertRaisesRegex(MachinonError, "could not be written"):
                write(made, self.folder / "none" / "file")
