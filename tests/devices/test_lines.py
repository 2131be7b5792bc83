"""What a line of a device says, and how a form is taught from one."""

import unittest

from machinon.core.errors import BadInput
from machinon.devices.line_form import (
    FORMS,
    LineForm,
    NotUnderstood,
    axes_told,
)
from machinon.devices.mirror import Mirror
from machinon.devices.stand_in import line_of
from machinon.devices.teaching import parts_of, taught


class Forms(unittest.TestCase):
    def test_plain_forms_read_figures_units_and_axes(self):
        for form, line, values in (
            ("number", " 46.010 ", {"": 46.01}),
            ("number", "-0.5 in", {"": -12.7}),
            ("number", "12 µm", {"": 0.012}),
            ("number", "12,5 mm", {"": 12.5}),
            ("named", "X 12.345 Y-3.2", {"X": 12.345, "Y": -3.2}),
            ("named", "x:+1.0in; z=2.0", {"X": 25.4, "Z": 2.0}),
            ("columns", "1.0; -2.5; 3", {"X": 1.0, "Y": -2.5, "Z": 3.0}),
            ("columns", "1.0 -2.5", {"X": 1.0, "Y": -2.5}),
        ):
            with self.subTest(line):
                found = FORMS[form].read(line)
                self.assertEqual(found.keys(), values.keys())
                for axis, value in values.items():
                    self.assertAlmostEqual(found[axis], value)

    def test_what_is_no_figure_is_refused_with_its_reason(self):
        for form, line, says in (
            ("number", "NaN", "not of the form"),
            ("number", "inf", "not of the form"),
            ("number", "46.0", None),
            ("number", "46.0.1", "not of the form"),
            ("number", "99999999", "no length"),
            ("number", "", "empty"),
            ("number", "7" * 500, "letters long"),
            ("named", "X 1 X 2", "twice"),
            ("named", "X 1 and then", "and then"),
            ("columns", "1.0", "not of the form"),
        ):
            with self.subTest(line[:20]):
                if says is None:
                    self.assertEqual(FORMS[form].read(line), {"": 46.0})
                    continue
                with self.assertRaises(NotUnderstood) as caught:
                    FORMS[form].read(line)
                self.assertIn(says, str(caught.exception))

    def test_axes_are_called_and_turned_as_the_machine_has_them(self):
        form = LineForm("own", FORMS["named"].pattern, "in", {"a": "X"}, ("X",))
        self.assertEqual(form.read("a 1.0"), {"X": -25.4})

    def test_axes_are_told_as_one_writes_them(self):
        self.assertEqual(axes_told("A=X, b=-y"), ({"A": "X", "b": "Y"}, ("Y",)))
        self.assertEqual(axes_told("  "), ({}, ()))
        for wrong in ("A", "A=", "A=12", "up is Z"):
            with self.assertRaises(BadInput):
                axes_told(wrong)

    def test_a_stand_in_speaks_what_its_form_reads(self):
        for name, form in FORMS.items():
            values = {"": -1.25} if name == "number" else {"X": -1.25, "Y": 300.5}
            self.assertEqual(form.read(line_of(name, values)), values)


class Teaching(unittest.TestCase):
    def teach(self, line, **told):
        """told: by what it is, the text of the part."""
        places = [part.text for part in parts_of(line)]
        return taught(line, {places.index(text): name for name, text in told.items()})

    def test_a_padded_figure_with_a_unit_and_words_round_it(self):
        form = self.teach("N01A  -00012.345 mm OK", value="00012.345", unit="mm")
        self.assertEqual(form.read("N01A  -00012.345 mm OK"), {"": -12.345})
        self.assertEqual(form.read("N17A +00000.010mm OK"), {"": 0.01})
        self.assertAlmostEqual(form.read("N01A  0.5 in OK")[""], 12.7)
        for other in ("N01A  -00012.345 mm LOW", "N01B 1.0 mm OK", "12.345"):
            with self.assertRaises(NotUnderstood):
                form.read(other)

    def test_two_axes_by_their_places(self):
        form = self.teach("pos=12.5/-3.25/0", x="12.5", y="3.25")
        self.assertEqual(form.read("pos=-1.0/7.75/9"), {"X": -1.0, "Y": 7.75})

    def test_an_axis_that_the_line_names(self):
        form = self.teach("W: 4.125", axis="W", value="4.125")
        self.assertEqual(form.read("Z: -4.0"), {"Z": -4.0})

    def test_what_cannot_be_taught_is_said(self):
        for told in ({}, {0: "value", 2: "value"}, {1: "unit"}):
            with self.assertRaises(BadInput):
                taught("1.0 furlongs 2.0", told)


class Mirrored(unittest.TestCase):
    def test_zero_preset_and_half_are_ours(self):
        """Touched at 10.5 and at 50.5: the middle lies 20 from either."""
        ours = Mirror()
        ours.hear({"X": 10.5}, 0.0)
        ours.set_to("X", 0)
        ours.hear({"X": 50.5}, 5.0)
        self.assertEqual(ours.shown, {"X": 40.0})
        ours.halve("X")
        self.assertEqual(ours.shown, {"X": 20.0})
        ours.hear({"X": 30.5}, 9.0)
        self.assertEqual(ours.shown, {"X": 0.0})

    def test_an_axis_that_jumps_is_not_trusted_until_it_was_looked_at(self):
        ours = Mirror()
        ours.hear({"X": 1.0, "Y": 1.0}, 0.0)
        ours.hear({"X": 900.0, "Y": 2.0}, 0.1)
        self.assertEqual(ours.jumped, {"X"})
        ours.trust()
        self.assertEqual(ours.jumped, set())
        ours.hear({"X": 100.0}, 60.0)
        self.assertEqual(ours.jumped, set(), "there was time to wind it there")


if __name__ == "__main__":
    unittest.main()
