"""Sentences in millimetres as an inch shop says them."""

import re
import unittest

from machinon.core.errors import BadInput
from machinon.core.families import families
from machinon.core.in_inches import (
    in_inches,
    length_in_inches,
    part_with_units,
    sizes_in_inches,
)
from machinon.core.piece.family import at_least
from machinon.core.piece.made import make
from machinon.core.quantity import INCH
from machinon.core.reckoning import reckon
from machinon.core.route.steps import route_told
from machinon.core.route.work.lines import Machines
from machinon.core.route.work.listed import lines_in_inches, work_list

# what stays in millimetres: what a thread, a screw, a drill or a cutter is called
NAMED = re.compile(
    r"(?:\bM\d\S*(?: × [\d.]+)?|[Pp]itch [\d.]+|One after the other: [\d., ]+ mm"
    r"|(?:[Dd]rill(?: of| \d+ holes)?|Drill [a-z][a-z' -]*(?:\d+)?,|cutter(?: of)?"
    r"|pin reamer"
    r"|end mill(?: of)?|counterbore|pins of|pegs to) [\d.]+ mm)"
)
MILLIMETRES = re.compile(r"\d mm\b(?![²³])|µm")


def said_of(made):
    """Every sentence of a piece and its route."""
    for check in made.checks:
        yield check.says
    for up in route_told(made):
        yield up.reason
        for step in up.steps:
            yield from (step.title, step.tool, step.note, step.caution)


def said_at_the_machine(made):
    """Every word of the lines of its steps, done in any way."""
    for step in (step for up in route_told(made) for step in up.steps):
        ways = work_list(step, Machines(), {}).ways
        done = [{}, *({way.key: key} for way in ways for key, _ in way.answers)]
        for chosen in done:
            found = lines_in_inches(work_list(step, Machines(), chosen))
            for line in found.lines:
                yield from (line.head, line.note, line.asks[1])
                yield from (shown.name for shown in line.figures)
                yield from (shown.value for shown in line.figures)
            for way in found.ways:
                yield from (says for _, says in way.answers)


class InInches(unittest.TestCase):
    def test_what_is_allowed_is_said_in_inches_throughout(self):
        """No limit of it stays behind in millimetres without a word."""
        for name, given, said in (
            ("circlip", {"diameter": "4"},
             "4 in is outside what is allowed: above 0 and up to 3.937 in."),
            ("ream-drill", {"reamer": "2.5"}, "from 0.0394 and up to 1.9685 in."),
            ("thread-wires", {"thread": "M20x2.5", "wire": "1.5"},
             "1.5 in cannot touch the flanks of M20x2.5: from 0.0497 and up to "
             "0.0994 in can."),
            # a ring is called by its millimetres wherever it is sold
            ("circlip", {"diameter": "0.9"}, "next to it are rings of 22 and 24 mm;"),
            ("gauge-stack", {"target": "1.2346", "pieces": ["1.2345"]},
             "1.2346 in cannot be made of up to 5 of these pieces: 1.2345 in can be;"),
        ):  # fmt: skip
            with self.subTest(said), self.assertRaises(BadInput) as refusal:
                reckon(name, given, True)
            self.assertIn(said, refusal.exception.message)

    def test_lengths_are_turned_and_names_stay(self):
        for metric, inch in (
            ("Counterbore 3 holes to ⌀12.7, 6.35 deep",
             "Counterbore 3 holes to ⌀0.500, 0.2500 deep"),
            ("taper pin reamer 3 mm, 1:50", "taper pin reamer 3 mm, 1:50"),
            ("2 × ⌀6.6, counterbore ⌀11 × 6.4",
             "2 × ⌀0.260, counterbore ⌀0.433 × 0.252"),
            ("M6 × 1 × 6 deep, drill 5 × 9 deep",
             "M6 × 1 × 0.236 deep, drill 5 mm × 0.354 deep"),
            ("Chamfer the rear edge 0.5 × 45°", "Chamfer the rear edge 0.020 × 45°"),
            ("Round the left edge, R2", "Round the left edge, R0.079"),
            ("Turn taper 1, ⌀24 to ⌀30 over 25",
             "Turn taper 1, ⌀0.945 to ⌀1.181 over 0.984"),
            ("25/20.503/16", "0.984/0.8072/0.630"),
            ("pressed: 10 to 20 µm under", "pressed: 0.4 to 0.8 thou under"),
            ("Drill bore 1, 6 mm", "Drill bore 1, 6 mm"),
            ("Drill the handle's screw, 3.3 mm", "Drill the handle's screw, 3.3 mm"),
            ("Bore socket 1 under size", "Bore socket 1 under size"),
            ("the mate wants 46.006 to 46.014 mm.",
             "the mate wants 1.8113 to 1.8116 in."),
            ("Cut the thread M45 × 4.5", "Cut the thread M45 × 4.5"),
            ("Drill the draw-bar hole, 19 mm in stages",
             "Drill the draw-bar hole, 19 mm in stages"),
            ("Drill through, 10 mm", "Drill through, 10 mm"),
            ("Drill the core, 1 in in stages", "Drill the core, 1 in in stages"),
            ("Drill 2 holes 1 1/4 in", "Drill 2 holes 1 1/4 in"),
            # a tenth is a tenth of a thou there
            ("By a boring head, a few tenths a pass",
             "By a boring head, ten thou or so a pass"),
            ("A few hundredths deep only.", "A thou or two deep only."),
            ("good to a tenth or two.", "good to a few thou."),
            ("within a tenth of a pitch", "within a tenth of a pitch"),
            ("Knurl the head, crossed, 1 mm pitch",
             "Knurl the head, crossed, 0.039 in pitch"),
            ("dovetail cutter 60°", "dovetail cutter 60°"),
            ("end mill 8 mm", "end mill 8 mm"),
            ("100 N at the cut bend it 4 µm.", "100 N at the cut bend it 0.2 thou."),
            ("up to 315 N/mm² does", "up to 315 N/mm² does"),
            (at_least("", "", -2.54, 0.25, "Room").says,
             "Room: −0.1000 in, at least 0.0098 in wanted."),
            ("Bore the taper, compound at 10°", "Bore the taper, compound at 10°"),
        ):  # fmt: skip
            self.assertEqual(in_inches(metric), inch)
        self.assertEqual(in_inches("Bore to ⌀62.5", fine=True), "Bore to ⌀2.4606")
        self.assertEqual(sizes_in_inches("⌀127 × 50.8"), "⌀5.000 × 2.000 in")
        # 7/16 round, sawn to 3 3/8
        self.assertEqual(sizes_in_inches("⌀11.1125 × 85.725"), "⌀0.4375 × 3.375 in")

    def test_parts_of_an_inch_are_rounded_alike(self):
        """21/32 is 0.65625, 2 17/32 is 2.53125: both to the even digit."""
        for inches, said in (
            (21 / 32, "0.6562"),
            (81 / 32, "2.5312"),
            (3.001, "3.001"),
        ):
            self.assertEqual(length_in_inches(inches * 25.4), said)

    def test_a_bought_part_of_metric_make_has_its_unit(self):
        for name, inch in (
            ("key 3/16 in × 30", "key 3/16 in × 30 mm"),
            ("bearing, bore 30, 16 wide", "bearing, bore 30 mm, 16 mm wide"),
            ("cap screw M8 × 25", "cap screw M8 × 25"),
            ("set screw #8-32 UNC × 3/16 in", "set screw #8-32 UNC × 3/16 in"),
            ("cap screw 1/4-20 UNC × 1 1/4 in", "cap screw 1/4-20 UNC × 1 1/4 in"),
            ("nut M27 × 1.5", "nut M27 × 1.5"),
            ("spring of 20 N", "spring of 20 N"),
            ("taper pin #2/0 × 7/8 in", "taper pin #2/0 × 7/8 in"),
            ("taper pin 4 × 24", "taper pin 4 mm × 24 mm"),
        ):
            self.assertEqual(part_with_units(name), inch)

    def test_a_check_says_what_stands_on_the_drawing(self):
        """13/16 less 11 to 16 µm is 0.8119 to 0.8121; of 20.626 it would be 0.8120."""
        bar = make(families()["single-point-bar"], {"holder.bore": "13/16in"})
        says = {check.key: check.says_in_inches for check in bar.checks}
        self.assertIn("wants 0.8119 to 0.8121 in.", says["fit-bar"])
        room = at_least("", "", 7.9375, 1.5875, "Floor")
        self.assertEqual(
            room.says_in_inches, "Floor: 0.3125 in, at least 0.0625 in wanted."
        )

    def test_no_family_speaks_of_millimetres_in_an_inch_shop(self):
        for family in families().values():
            for says in said_of(make(family, {})):
                with self.subTest(family=family.key, says=says):
                    told = NAMED.sub("", in_inches(says))
                    self.assertIsNone(MILLIMETRES.search(told), told)

    def test_no_line_at_the_machine_speaks_of_millimetres_in_an_inch_shop(self):
        for family in families().values():
            for says in said_at_the_machine(make(family, {})):
                if isinstance(says, str):
                    told = NAMED.sub("", says)
                    self.assertIsNone(MILLIMETRES.search(told), (family.key, says))

    def test_a_size_is_as_long_in_either_unit(self):
        """Each ⌀ of each family to a tenth of a thou, half of that either way, where it
        has hundredths of a millimetre, else to a thou."""
        count = 0
        for family in families().values():
            for says in said_of(make(family, {})):
                sizes, turned = (
                    re.findall(r"⌀(\d+(?:\.\d+)?)", text)
                    for text in (says, in_inches(says))
                )
                self.assertEqual(len(sizes), len(turned), says)
                for metric, inch in zip(sizes, turned, strict=True):
                    hundredths = len(metric.partition(".")[2]) > 1
                    off = float(inch) * INCH - float(metric)
                    self.assertLess(abs(off), 0.0013 if hundredths else 0.0128, says)
                    count += 1
        self.assertGreater(count, 30)


if __name__ == "__main__":
    unittest.main()
