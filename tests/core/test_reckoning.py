import doctest
import importlib
import io
import json
import math
import pkgutil
import random
import unittest
from contextlib import redirect_stderr, redirect_stdout

import machinon.core
import machinon.draw
from machinon.commandline import reckon_command, reckoned, stream
from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon, reckonings


class Examples(unittest.TestCase):
    def test_the_examples_in_the_docstrings_are_true(self):
        for package in (machinon.core, machinon.draw):
            for found in pkgutil.iter_modules(package.__path__):
                module = importlib.import_module(f"{package.__name__}.{found.name}")
                with self.subTest(module.__name__):
                    failed, _ = doctest.testmod(module)
                    self.assertEqual(failed, 0)


class Registry(unittest.TestCase):
    def test_every_reckoning_says_its_inputs_results_and_source(self):
        for reckoning in reckonings().values():
            with self.subTest(reckoning.name):
                self.assertTrue(reckoning.sources)
                self.assertTrue(reckoning.results)
                self.assertTrue(all(given.meaning for given in reckoning.inputs))
                keys = [given.key for given in reckoning.inputs]
                self.assertEqual(len(keys), len(set(keys)))

    def test_of_inputs_that_say_the_same_so_many_are_given_and_the_rest_is_refused(
        self,
    ):
        """Too few or too many are told at one of them, with what is allowed."""
        groups = [
            (known, some) for known in reckonings().values() for some in known.given
        ]
        self.assertGreater(len(groups), 20)
        for known, some in groups:
            usual = {key: v for key, v in known.usual.items() if key not in some.keys}
            samples = {given.key: given for given in known.inputs}
            typed = {
                key: samples[key].choices[0] if samples[key].choices else "2"
                for key in some.keys
            }
            if "thread" in typed:
                typed["thread"] = "M8"
            with self.subTest(known.name, keys=some.keys):
                self.assertTrue(all(samples[key].default is None for key in some.keys))
                wrong = [typed] + [{}] * some.needed
                for given in wrong:
                    with self.assertRaisesRegex(BadInput, some.words) as refused:
                        known.read({**usual, **given})
                    self.assertIn(refused.exception.key, some.keys)
        chamfer = reckonings()["chamfer"].given[0]
        self.assertEqual(chamfer.words, "Give one of leg, face and depth")

    def test_an_answer_carries_its_working_and_units(self):
        answer = reckon("iso-limits", {"nominal": "46", "zone": "H7"})
        self.assertTrue(answer.working)
        self.assertEqual(set(answer.units), set(answer.results))

    def test_a_sum_with_figures_below_nothing_is_written_as_one_writes_it(self):
        """A light press takes more than nothing off; a zone at nothing has no sign."""
        asked = {"existing": [12.0], "instrument_uncertainty": 0.004, "kind": "shaft"}
        smallest = {
            want: reckon("fit-target", {**asked, "want": want}).working[1].expression
            for want in ("press", "locates")
        }
        self.assertEqual(smallest["press"], "12.0000 + 0.0040 + (−0.0340)")
        self.assertEqual(smallest["locates"], "12.0000 + 0.0040 + 0.0000")
        warm = reckon("fit-warm", dict(reckonings()["fit-warm"].usual)).working[0]
        self.assertIn("0.000023 − 0.0000115", warm.expression)

    def test_a_near_name_is_offered(self):
        with self.assertRaisesRegex(BadInput, "did you mean iso-limits") as no:
            reckon("iso-limit", {})
        self.assertEqual(no.exception.key, "reckoner")


class CommandLine(unittest.TestCase):
    def said(self, *arguments):
        out, err = io.StringIO(), io.StringIO()
        with redirect_stdout(out), redirect_stderr(err):
            code = reckon_command(arguments)
        return code, out.getvalue(), err.getvalue()

    def test_a_readable_answer_has_its_working_and_source(self):
        code, out, _ = self.said("iso-limits", "nominal=46", "zone=H7")
        self.assertEqual(code, 0)
        self.assertIn("46.0250 mm", out)
        self.assertIn("Source: ISO 286", out)

    def test_a_place_is_a_line_and_a_table_has_its_columns(self):
        """Six holes on 80: the second lies 20 and 40 sin 60° from the centre."""
        _, out, _ = self.said("bolt-circle", "holes=6", "diameter=80")
        self.assertRegex(out, r"points \(mm\) +1: 40, 0\n +2: 20, 34.641\n")
        _, out, _ = self.said("thread-passes", "thread=M16", "--inch")
        self.assertRegex(out, r"\n    radial \(in\) +compound \(in\)\n    0\.\d+ ")

    def test_json_is_one_object_of_plain_values(self):
        code, out, _ = self.said(
            "iso-limits", "nominal=1.5", "zone=h6", "--inch", "--json"
        )
        self.assertEqual(code, 0)
        answer = json.loads(out)
        self.assertAlmostEqual(answer["inputs"]["nominal"], 38.1)
        self.assertEqual(answer["units"]["lower"], "mm")
        self.assertAlmostEqual(answer["results"]["lower"], 38.084)

    def test_bad_input_is_exit_code_2_and_names_the_input(self):
        for arguments, key in (
            (("iso-limits", "nominal=abc", "zone=H7"), "nominal"),
            (("iso-limits", "nominal=20", "zone=H7", "odd=1"), "odd"),
            (("iso-limits", "nominal=20"), "zone"),
            (("no-such",), "reckoner"),
            (("iso-limits", "nominal"), "nominal"),
        ):
            with self.subTest(arguments):
                code, out, _ = self.said(*arguments, "--json")
                self.assertEqual(code, 2)
                self.assertEqual(json.loads(out)["error"]["input"], key)

    def test_a_stream_answers_every_line_and_goes_on_after_a_bad_one(self):
        lines = [
            '{"reckoner": "iso-limits", "inputs": {"nominal": 46, "zone": "H7"}}',
            "not json",
            '{"reckoner": "iso-limits", "inputs": {"nominal": NaN, "zone": "H7"}}',
            '{"reckoner": "bolt-circle", "inputs": {"holes": 3, "diameter": "110mm"}}',
            "[]",
            '{"inputs": {}}',
        ]
        out = io.StringIO()
        stream(io.StringIO("\n".join(lines)), out, reckoned)
        answers = [json.loads(line) for line in out.getvalue().splitlines()]
        self.assertEqual(len(answers), 6)
        self.assertEqual(answers[0]["results"]["upper"], 46.025)
        self.assertEqual(answers[2]["error"]["input"], "nominal")
        self.assertAlmostEqual(
            answers[3]["results"]["chord"], 110 * math.sin(math.pi / 3)
        )
        self.assertEqual(answers[5]["error"]["input"], "reckoner")

    def test_no_line_ends_the_stream_or_keeps_it_waiting(self):
        requests = [
            {"reckoner": "iso-limits", "inputs": {"nominal": 10**400, "zone": "H7"}},
            {"reckoner": "thread-dial", "inputs": {"thread": "M8", "leadscrew": 1e-6}},
            {
                "reckoner": "boring-bar",
                "inputs": {"bar_diameter": 16, "overhang": 1e-300},
            },
            {"reckoner": "runout", "inputs": {"readings": [0.01] * 200_000}},
            {"reckoner": "thread-passes", "inputs": {"thread": "M8", "first": 1.7e-8}},
            {
                "reckoner": "tailstock",
                "inputs": {
                    "diameter_a": 30,
                    "diameter_b": 30.05,
                    "apart": 5e-324,
                    "length": 200,
                },
            },
        ]
        lines = [json.dumps(request) for request in requests]
        lines.append("9" * 5000)
        lines.append('{"id": "\\ud800", "reckoner": "sine", "inputs": {}}')
        lines.append("[" * 100_000)
        lines.append(
            '{"reckoner": "iso-limits", "inputs": {"nominal": 46, "zone": "H7"}}'
        )
        out = io.StringIO()
        stream(io.StringIO("\n".join(lines)), out, reckoned)
        answers = [json.loads(line) for line in out.getvalue().splitlines()]
        self.assertEqual(len(answers), len(lines))
        self.assertTrue(all("error" in answer for answer in answers[:-1]))
        self.assertEqual(answers[3]["error"]["input"], "readings")
        self.assertEqual(answers[-1]["results"]["upper"], 46.025)
        out.getvalue().encode()

    def test_answers_are_finite_and_sizes_above_nothing(self):
        """Figures of every size put into every reckoning."""
        rng = random.Random(8)
        for reckoning in reckonings().values():
            for _ in range(12):
                given = dict(reckoning.usual)
                for asked in reckoning.inputs:
                    usual = given.get(asked.key)
                    if isinstance(usual, int | float) and not isinstance(usual, bool):
                        factor = rng.choice((1, 1, 0.01, 0.5, 2, 100, 1e-7, 1e9, -1))
                        given[asked.key] = usual * factor
                try:
                    answer = reckoning.answer(given)
                except BadInput:
                    continue
                for result in reckoning.results:
                    value = answer.results.get(result.key)
                    if isinstance(value, float):
                        with self.subTest(
                            reckoning.name, result=result.key, given=given
                        ):
                            self.assertTrue(math.isfinite(value))
                            if result.is_size:
                                self.assertGreaterEqual(value, -1e-9)

    def test_list_and_help_follow_from_the_registry(self):
        _, listed, _ = self.said()
        for name in reckonings():
            self.assertIn(name, listed)
            self.assertEqual(self.said(name, "--help")[0], 0)
