"""What the back plate has always been: its figures, checks and route as stored.

A change of the model behind it must not change any of them. Where one is meant to
change, `python -m tests.frozen` writes them anew, and the difference is read.
"""

import json
from pathlib import Path

from machinon.core.job.plan import Plan
from tests.scenario import CHUCK, NOSE, back_plate, planned, with_cuts

STORED = Path(__file__).parent / "store" / "samples" / "back_plates.jsonl"

INCH_NOSE = {
    **NOSE,
    "register": ("micrometer", 31.75, 31.751),
    "thread-major": ("micrometer", 28.50),
    "thread-pitch": ("thread-gauge", 25.4 / 12),
    "nose-length": ("depth-gauge", 34.0),
}
SMALL_CHUCK = {
    **CHUCK,
    "body": ("caliper", 100.0),
    "recess": ("bore-gauge", 72.01, 72.012),
    "recess-depth": ("depth-gauge", 3.6),
    "bolt-span": ("caliper", 80.62),
}


def plates() -> dict[str, Plan]:
    """Plates that differ in what they are made to fit, in size and in fixing."""
    return {
        "as in the sample": planned(),
        "screws from the chuck": planned(back_plate({"bolts.bolting": "into"})),
        "wide flange": planned(
            back_plate({"flange.diameter": "150", "stock.diameter": "160"})
        ),
        "short hub": planned(back_plate({"hub.length": "9.5", "stock.length": "38"})),
        "thin flange": planned(back_plate({"flange.thickness": "10"})),
        "thin hub": planned(back_plate({"hub.diameter": "56"})),
        "steel, four M6": planned(
            back_plate({"chuck.bolts": "4", "bolts.screw": "M6"}, "mild steel")
        ),
        "spigot drawn too large": planned(back_plate({"spigot.diameter": "95.05"})),
        "register drawn by hand": planned(back_plate({"register.diameter": "46.2"})),
        "deep spigot": planned(back_plate({"spigot.height": "4.5"})),
        "inch nose": planned(nose=INCH_NOSE),
        "small chuck": planned(
            back_plate(
                {
                    "flange.diameter": "100",
                    "stock.diameter": "106",
                    "hub.diameter": "60",
                    "spigot.height": "3",
                }
            ),
            chuck=SMALL_CHUCK,
        ),
        "recess not read": planned(
            chuck={key: read for key, read in CHUCK.items() if key != "recess"}
        ),
        "half cut": planned(with_cuts(back_plate(), 96.0, (0.1, 95.81), (0.3, 95.4))),
    }


def rounded(value):
    """Plain values with floats to a tenth of a micrometre."""
    if isinstance(value, float):
        return round(value, 4) + 0.0
    if isinstance(value, tuple | list):
        return [rounded(inner) for inner in value]
    return value


def told(plan: Plan) -> dict:
    """A plan as plain values."""
    return rounded_all(
        {
            "missing": [
                f"{wanted.mate.words}: {wanted.words}" for wanted in plan.missing
            ],
            "fits": [
                [f.choice.number, f.lower, f.upper, f.made, f.contradiction, f.problem]
                for f in plan.fits
            ],
            "checks": [
                [c.key, c.place, c.passed, c.grave, c.says] for c in plan.checks
            ],
            "route": [
                [up.key, up.title, up.reason, [told_step(step) for step in up.steps]]
                for up in plan.route
            ],
            "passes": [[a.action, a.dial, a.infeed, a.predicted] for a in plan.passes],
            "open": {stage: list(items) for stage, items in plan.open.items()},
        }
    )


def told_step(step) -> list:
    return [
        step.key,
        step.title,
        step.tool,
        step.note,
        step.caution,
        step.fit,
        step.hold,
        step.drill,
        step.tap,
        step.speed["rpm"] if step.speed else None,
    ]


def rounded_all(told: dict) -> dict:
    return {
        key: rounded_all(value) if isinstance(value, dict) else rounded(value)
        for key, value in told.items()
    }


def everything() -> dict[str, object]:
    """All of it, by plate and part, as it comes back from JSON."""
    found = {
        f"{name}: {key}": value
        for name, plan in plates().items()
        for key, value in told(plan).items()
    }
    return json.loads(json.dumps(found))


def stored() -> dict[str, object]:
    with STORED.open() as lines:
        return dict(json.loads(line) for line in lines)


if __name__ == "__main__":
    with STORED.open("w") as out:
        for part in everything().items():
            out.write(json.dumps(part, ensure_ascii=False) + "\n")
