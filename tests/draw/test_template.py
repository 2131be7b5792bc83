import math
import tempfile
import unittest
from pathlib import Path

import pypdf

from machinon.core.errors import MachinonError
from machinon.core.families import families
from machinon.core.piece.made import make
from machinon.core.reckoning import reckon
from machinon.desk.piece_paper import write_template, write_wrapped
from machinon.draw.drawing import Circle, Line, Shape
from machinon.draw.template import marked_faces, template, wrapped

PAGE = (190.0, 277.0, 1.0)  # mm, drawn in mm


def made(key, **given):
    sizes = {name.replace("_", ".", 1): text for name, text in given.items()}
    return make(families()[key], sizes)


class Wrapped(unittest.TestCase):
    def test_a_pipe_s_template_is_as_long_as_the_pipe_is_round(self):
        """25 is 78.54 round; square on 42 it is 21 − √(21² − 12.5²) = 4.13 deep."""
        answer = reckon("pipe-joint", {"pipe": 25, "on": 42})
        drawing = wrapped(answer, *PAGE)
        shape = next(item for item in drawing.items if isinstance(item, Shape))
        xs, ys = zip(*shape.points, strict=True)
        self.assertAlmostEqual(max(xs) - min(xs), 25 * math.pi)
        curve = ys[:-2]
        self.assertAlmostEqual(max(curve) - min(curve), 21 - math.sqrt(441 - 12.5**2))

    def test_one_longer_than_the_page_says_so(self):
        answer = reckon("pipe-joint", {"pipe": 80, "on": 100})
        with self.assertRaisesRegex(MachinonError, "251 mm long"):
            wrapped(answer, *PAGE)

    def test_it_is_written_as_a_page(self):
        answer = reckon("pipe-joint", {"pipe": 25, "on": 42, "angle": 60})
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "pipe.pdf"
            write_wrapped(answer, path)
            text = pypdf.PdfReader(path).pages[0].extract_text()
        self.assertIn("measure it before you trust it", " ".join(text.split()))


class Templates(unittest.TestCase):
    def holes(self, drawing, diameter):
        return [
            item.centre
            for item in drawing.items
            if isinstance(item, Circle) and abs(item.radius - diameter / 2) < 1e-6
        ]

    def test_holes_lie_as_far_apart_as_on_the_piece(self):
        """Three on a circle of 110: 110 sin 60° = 95.263 mm from hole to hole."""
        plate = made("back-plate")
        (face,) = marked_faces(plate.body)
        a, b, c = self.holes(template(plate, face, *PAGE), 9)
        for point, other in ((a, b), (b, c), (c, a)):
            self.assertAlmostEqual(math.dist(point, other), 95.263, places=3)

    def test_a_face_is_drawn_as_it_is_seen_from_outside(self):
        """A hole 20 from the left, seen from above; from below it lies at the right."""
        for face, wanted in (("top", 20), ("bottom", 80), ("front", 20), ("back", 80)):
            block = made("plate-block", parts="hole", hole1_face=face,
                         hole1_from_side="20", hole1_from_front="12")  # fmt: skip
            drawing = template(block, face, *PAGE)
            (hole,) = self.holes(drawing, 6.8)
            left = PAGE[0] / 2 - 50
            self.assertAlmostEqual(hole[0] - left, wanted, places=6)

    def test_slots_and_pockets_are_marked_out_as_far_as_they_lie_on_the_face(self):
        """A pocket of 30 × 20 from 15 in the front of 100 × 30; a slot from end to end
        that is turned ends at the edges."""
        block = made("plate-block", parts="pocket slot", pocket1_face="front",
                     pocket1_from_front="5", pocket1_radius="0", slot1_face="top",
                     slot1_turn="30")  # fmt: skip
        self.assertEqual(marked_faces(block.body), ["front", "top"])
        front, top = (template(block, face, *PAGE) for face in ("front", "top"))
        _, pocket = (item for item in front.items if isinstance(item, Shape))
        left = PAGE[0] / 2 - 50
        xs, ys = zip(*pocket.points, strict=True)
        self.assertAlmostEqual(min(xs) - left, 15)
        self.assertAlmostEqual(max(xs) - min(xs), 30)
        self.assertAlmostEqual(max(ys) - min(ys), 20)
        face, slot = (item for item in top.items if isinstance(item, Shape))
        highest, lowest = (pick(y for _, y in face.points) for pick in (max, min))
        self.assertTrue(
            all(lowest - 1e-6 <= y <= highest + 1e-6 for _, y in slot.points)
        )

    def test_it_has_a_line_to_be_measured(self):
        drawing = template(made("plate-block"), "top", *PAGE)
        self.assertTrue(
            any(
                isinstance(item, Line)
                and abs(item.end[0] - item.start[0] - 50) < 1e-9
                and item.start[1] == item.end[1]
                for item in drawing.items
            )
        )

    def test_what_no_page_holds_is_refused_with_both_sizes(self):
        with self.assertRaisesRegex(MachinonError, r"300 × 60 mm.*190 × 255 mm"):
            template(made("plate-block", block_length="300"), "top", *PAGE)
        with self.assertRaisesRegex(MachinonError, "nothing to mark out"):
            marked_faces(made("spacer-sleeve").body)

    def test_each_face_with_holes_is_a_page(self):
        block = made("plate-block", parts="holes row", row1_face="front",
                     row1_from_front="15")  # fmt: skip
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "template.pdf"
            write_template(block, path)
            pages = pypdf.PdfReader(path).pages
            self.assertEqual(len(pages), 2)
            self.assertIn(
                "front as seen from outside", " ".join(pages[1].extract_text().split())
            )
            width = float(pages[0].mediabox.width) / 72 * 25.4
            self.assertAlmostEqual(width, 210, delta=0.5)


if __name__ == "__main__":
    unittest.main()
