"""What the coach says where a machinist looking on would say something."""

import io
import json
import random
import unittest

from machinon.commandline import stream
from machinon.core.cutting.coaching import advice_for

SHAFT = {
    "feature": {"kind": "external", "lower": 49.990, "upper": 50.006},
    "dial": {"reads": "radius", "division": 0.005},
    "limits": {"deepest": 0.5, "least": 0.01},
    "instrument": {"resolution": 0.001, "sigma": 0.001},
    "start_diameter": 52.0,
}
BORE = {"feature": {**SHAFT["feature"], "kind": "internal"}, "start_diameter": 48.0}
SLIM = {"bar": {"diameter": 12, "overhang": 84}}
SPRUNG = ((0.5, 48.8), (0.9, 49.6), (1.0, 49.9))  # a slim bar, 0.15 still standing
TWO = ((0.5, 51.03), (0.8, 50.43))  # two good cuts, 0.42 left
LIGHT = (*TWO, (0.98, 50.08), (0.985, 50.08))
CUTS = ("cut", "trial")


def dial(division, reads="radius"):
    return {"dial": {"reads": reads, "division": division}}


def gauge(sigma, resolution=0.001, **zero):
    return {"instrument": {"resolution": resolution, "sigma": sigma, **zero}}


def start(size):
    return {"start_diameter": size}


# what it is, the log, what is otherwise, the action, words of its sentence
SITUATIONS = (
    ("far from size", (), {}, "cut", "Roughing"),
    ("very far from size", (), start(150), "cut", "Roughing"),
    ("a rigid lathe", (), {"machine": {"ratio": 1.0}}, "cut", "Roughing"),
    ("a bore by a slim bar", (), {**BORE, **SLIM}, "cut", "Roughing"),
    ("a light deepest cut", (), {"limits": {"deepest": 0.01}}, "cut", "Roughing"),
    ("deepest under a line", (), {"limits": {"deepest": 0.002}}, "cut", "Roughing"),
    ("no least depth", (), {"limits": {"least": 0, "deepest": 0.5}}, "cut", ""),
    ("close from the start", (), start(50.3), "trial", "tells what the tool takes"),
    ("a line from size at the start", (), start(50.012), "trial", "One division"),
    ("at size from the start", (), start(49.998), "measure", "nothing left to cut"),
    ("and so again", ((0, 49.998),), start(49.998), "stop", "in the band"),
    ("past from the start", (), start(49.9), "measure", "nothing left to cut"),
    ("and so twice", ((0, 49.9),) * 2, start(49.9), "scrapped", "past the band"),
    ("a first cut not read", ((0.5, None),), {}, "measure", "Measure now"),
    ("two not read", ((0.5, None), (0.7, None)), {}, "measure", "Measure now"),
    ("two good cuts", TWO, {}, "trial", "leaves a little"),
    ("95 µm left of them", (*TWO, (0.95, 50.135)), {}, "trial", "leaves a little"),
    ("last cut between lines", ((0.503, 51.03), (0.807, 50.42)), {}, "trial", ""),
    (
        "four lines left",
        (*TWO, (0.98, 50.075), (1.0, 50.036)),
        {},
        "trial",
        "The last cut, scaled",
    ),
    (
        "a line left",
        (*TWO, (0.98, 50.075), (1.015, 50.008)),
        {},
        "trial",
        "One division",
    ),
    ("in the band", (*TWO, (1.01, 49.998)), {}, "stop", "Break the edge"),
    ("at its edge, not past", (*TWO, (1.01, 49.993)), {}, "stop", "in the band"),
    ("2 µm short", (*TWO, (1.005, 50.008)), {}, "measure", "cannot tell"),
    ("and from a line less", (*TWO, (1.0, 50.008)), {}, "measure", "not where the"),
    ("2 µm past, once", (*TWO, (1.012, 49.988)), {}, "measure", "read again"),
    ("and twice", (*TWO, *((1.012, 49.987),) * 2), {}, "scrapped", "second instrument"),
    ("80 µm past, once", (*TWO, (1.0, 49.95)), {}, "measure", "does not go with"),
    ("and twice", (*TWO, *((1.0, 49.95),) * 2), {}, "scrapped", "second instrument"),
    ("larger after a cut", ((0.5, 51.03), (0.6, 51.05)), {}, "measure", "wipe"),
    (
        "and again",
        ((0.5, 51.03), *((0.6, 51.05),) * 2),
        {},
        "measure",
        "larger than before the cut",
    ),
    ("twice the dial", ((0.2, 51.2),), {}, "measure", "radius or diameter"),
    ("and again", ((0.2, 51.2),) * 2, {}, "cut", "2 times what was dialled"),
    ("half the dial", ((0.2, 51.8),), {}, "measure", "radius or diameter"),
    ("and again", ((0.2, 51.8),) * 2, {}, CUTS, "0.5 times what was dialled"),
    ("a cut that took nothing", LIGHT, {}, "trial", ""),
    ("a third", (*LIGHT, (0.99, 50.08)), {}, "trial", "may come off at once"),
    ("a start misread by 1 mm", ((0.2, 52.62),), {}, "measure", "does not go with"),
    ("half a millimetre misread", (*TWO, (0.9, 50.73)), {}, "measure", "wipe"),
    (
        "then read right",
        (*TWO, (0.9, 50.73), (0.9, 50.233)),
        {},
        CUTS,
        "takes",
    ),
    ("lines wider than the band", (), dial(0.02), "cut", "set the compound over"),
    ("and near it", (*TWO, (0.98, 50.07)), dial(0.02), CUTS, "wider than the band"),
    ("a line deeper than what is left", (), dial(5), "stop", "set the compound over"),
    ("a gauge too coarse", (), gauge(0.01, 0.02), "cut", "too coarse"),
    ("a gauge not checked", (), gauge(0.002), "cut", "ring or standard"),
    ("a gauge that reads long", TWO, gauge(0.001, zero={"offset": 0.2}), CUTS, ""),
    ("warm work", (*TWO, (1.013, 50.0089, 0, 40)), {}, "stop", "in the band"),
    ("what a slim bar left", SPRUNG, {**BORE, **SLIM}, "trial", "sprang away"),
    (
        "and a pass without infeed",
        SPRUNG,
        {**BORE, **SLIM, "school": {"spring_pass": "free"}},
        ("spring", "trial"),
        "sprang away",
    ),
    (
        "a bore past its band",
        ((0.5, 48.97), *((1.02, 50.02),) * 2),
        BORE,
        "scrapped",
        "",
    ),
    ("a wide band", TWO, {"feature": {**SHAFT["feature"], "lower": 49.8}}, "trial", ""),
)


def said(log, changes):
    keys = ("dial", "measured", "spring", "temperature")
    history = [dict(zip(keys, line, strict=False)) for line in log]
    return advice_for({**SHAFT, **changes, "history": history})


class Situations(unittest.TestCase):
    def test_what_to_do_and_the_sense_of_the_sentence(self):
        self.assertGreaterEqual(len(SITUATIONS), 40)
        for name, log, changes, action, words in SITUATIONS:
            with self.subTest(name, log=log):
                advice = said(log, changes)
                allowed = (action,) if isinstance(action, str) else action
                self.assertIn(advice["action"], allowed, advice["why"])
                self.assertIn(words, advice["why"])

    def test_advice_is_possible_wherever_the_work_stands(self):
        """Whole divisions, never deeper than allowed, chances that are chances."""
        for name, log, changes, *_ in SITUATIONS:
            with self.subTest(name, log=log):
                advice = said(log, changes)
                division = changes.get("dial", SHAFT["dial"])["division"]
                deepest = changes.get("limits", SHAFT["limits"]).get("deepest", 1.0)
                if advice["infeed"]:
                    lines = advice["dial"] / division
                    self.assertAlmostEqual(lines, round(lines), places=4)
                    most = max(deepest, division)
                    self.assertLessEqual(advice["infeed"], most + 1e-9)
                    self.assertGreater(advice["infeed"], 0)
                both = advice["chance_in_band"] + advice["chance_past"]
                self.assertTrue(0 <= both <= 1 + 1e-9)
                self.assertGreater(advice["sigma"], 0)


class Garbage(unittest.TestCase):
    def test_each_of_2000_broken_lines_gets_one_answer(self):
        """Characters dropped, doubled or changed, figures gone wild, lines cut off."""
        chance = random.Random(3)
        logs = [log for _, log, *_ in SITUATIONS]
        lines = []
        for i in range(2000):
            log = [{"dial": d, "measured": m} for d, m, *_ in chance.choice(logs)]
            text = list(json.dumps({**SHAFT, "history": log, "id": i}))
            for _ in range(chance.randint(1, 6)):
                at = chance.randrange(len(text))
                text[at] = chance.choice(('"', "", "9", "-", "e", "{", "]", "NaN", "é"))
            lines.append("".join(text)[: chance.choice((None, None, 40))])
        out = io.StringIO()
        stream(io.StringIO("\n".join(lines)), out, advice_for)
        answers = [json.loads(line) for line in out.getvalue().splitlines()]
        self.assertEqual(len(answers), 2000)
        for answer in answers:
            self.assertTrue("error" in answer or "action" in answer)

    def test_a_log_of_a_thousand_lines_is_read_through(self):
        log = [(0.3 + 0.0001 * i, 51.4 - 0.0002 * i) for i in range(1000)]
        self.assertIn(said(log, {})["action"], ("measure", "trial", "cut"))
