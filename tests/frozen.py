"""What the back plate has always been: figures, checks, route and drawings as stored.

A change of the model behind it must not change any of them. Where one is meant to
change, `python -m tests.frozen` writes them anew, and the difference is read.
"""

import json
from pathlib import Path

from machinon.core.job.plan import Plan
from machinon.draw.drawing import Drawing, Shape, Text
from machinon.draw.film_drawing import film_drawing
from machinon.draw.plate_drawing import plate_drawing
from machinon.draw.stack_drawing import stack_drawing
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
        "screws from the chuck": planned(back_plate(bolting="into")),
        "wide flange": planned(back_plate(flange_diameter=150, stock_diameter=160)),
        "short hub": planned(back_plate(hub_length=9.5, stock_length=38)),
        "thin flange": planned(back_plate(flange_thickness=10)),
        "thin hub": planned(back_plate(hub_diameter=56)),
        "steel, four M6": planned(
            back_plate(material="mild steel", bolts=4, bolt_size="M6")
        ),
        "spigot drawn too large": planned(back_plate(spigot_diameter=95.05)),
        "register drawn by hand": planned(back_plate(register_bore=46.2)),
        "deep spigot": planned(back_plate(spigot_height=4.5)),
        "inch nose": planned(nose=INCH_NOSE),
        "small chuck": planned(
            back_plate(
                flange_diameter=100,
                stock_diameter=106,
                hub_diameter=60,
                spigot_height=3,
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
        return [rounded(one) for one in value]
    return value


def drawn(drawing: Drawing) -> dict:
    """What a drawing says and where, and its outlines; to a tenth of a pixel."""

    def place(*values: float) -> list[float]:
        return [round(value, 1) + 0.0 for value in values]

    return {
        "texts": sorted(
            [i.text, *place(*i.at)] for i in drawing.items if isinstance(i, Text)
        ),
        "spots": sorted([one.tie, *place(*one.rect)] for one in drawing.spots),
        "outlines": sorted(
            sorted(place(*point) for point in {*i.points})
            for i in drawing.items
            if isinstance(i, Shape) and i.role == "outline"
        ),
    }


def told(plan: Plan) -> dict:
    """A plan as plain values."""
    return rounded_all(
        {
            "missing": plan.missing,
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


def pictures(plan: Plan) -> dict:
    """Every drawing of a plate: the sheet, the strip and the film of its route."""
    made = {"stack": drawn(stack_drawing(plan, 540, 150))}
    if plan.plate is not None:
        made["plate"] = drawn(plate_drawing(plan, 880, 500))
        for up in plan.route:
            for step in up.steps:
                made[f"film {step.key}"] = drawn(
                    film_drawing(plan.plate, step, 148, 140)
                )
    return made


def everything() -> dict[str, object]:
    """All of it, by plate and part, as it comes back from JSON."""
    found = {
        f"{name}: {key}": value
        for name, plan in plates().items()
        for key, value in {**told(plan), **pictures(plan)}.items()
    }
    return json.loads(json.dumps(found))


def stored() -> dict[str, object]:
    with STORED.open() as lines:
        return dict(json.loads(line) for line in lines)


if __name__ == "__main__":
    with STORED.open("w") as out:
        for part in everything().items():
            out.write(json.dumps(part, ensure_ascii=False) + "\n")
