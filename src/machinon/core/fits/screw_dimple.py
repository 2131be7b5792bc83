"""A set screw in a dimple: how deep, how long a screw, what it holds."""

from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import COUNT, FORCE, LENGTH, TORQUE
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import stock_lengths


@reckoning(
    "screw-dimple",
    group="Fits and materials",
    title="A cone-point screw in a drilled dimple",
    usual={"screw": "M6", "wall": 8, "around": 12, "body": 60},
    inputs=(
        Input("screw", TEXT, "the screw, such as M6 or 1/4-20"),
        Input("body", LENGTH, "diameter that the dimple is drilled in", above=0),
        Input("wall", LENGTH, "of the body under the dimple", above=0),
        Input("around", LENGTH, "wall that the screw goes through", above=0),
        Input("screws", COUNT, "how many", 3, low=1, high=12),
        Input("torque", TORQUE, "it is tightened with; else by hand", None, above=0),
        Input("draw", LENGTH, "dimple off towards the shoulder", 0.15, low=0, high=1),
    ),
    results=(
        Result("depth_lower", LENGTH, "shallowest dimple"),
        Result("depth_upper", LENGTH, "deepest dimple"),
        Result("mouth", LENGTH, "of the dimple across, at the middle depth"),
        Result("length", LENGTH, "of the screw to buy"),
        Result("engaged", LENGTH, "thread of it in the wall, least"),
        Result("push", FORCE, "of one screw on the body"),
        Result("hold", FORCE, "of all against being pulled out"),
        Result("carries", TORQUE, "of all against being turned"),
        Result("offset", LENGTH, "dimple nearer to the shoulder than the screw"),
        Result("warning", TEXT, "where wall or thread is short, else empty"),
    ),
    sources=(
        "a 90° cone climbs out at the force that pushes it in, friction left out; push "
        "= torque / (0.2 × diameter); depth by the screw's diameter: shop rules",
    ),
)
def _screw_dimple(
    trail: Trail,
    screw: str,
    body: float,
    wall: float,
    around: float,
    screws: int,
    torque: float | None,
    draw: float,
) -> dict[str, Any]:
    thread = thread_of(screw, "screw")
    d = thread.major
    lower = trail.step("Shallowest", f"0.2 × {d:g}", 0.2 * d)
    # the cone is half its diameter long, and the body must keep half its wall
    upper = trail.step(
        "Deepest", f"least of 0.4 × {d:g} and {wall:g} / 2", min(0.4 * d, wall / 2)
    )
    if not upper > lower:
        raise BadInput(
            "wall",
            f"Above {2 * lower:.2f} mm of wall is needed for a dimple under {screw}.",
        )
    if not around > thread.pitch:
        raise BadInput("around", f"More than one turn, {thread.pitch:g} mm, is needed.")
    middle = (lower + upper) / 2
    most = around + upper  # no longer, or it stands out and catches
    sold = stock_lengths(thread, set_screw=True)
    length = max((stock for stock in sold if stock <= most), default=sold[0])
    engaged = trail.step(
        "Thread in the wall",
        f"least of {length:g} − {d / 2:g} of cone, and {around:g}",
        min(length - d / 2, around),
    )
    warning = ""
    if engaged < 0.8 * d:
        warning = (
            f"Only {max(engaged, 0):.1f} mm of thread holds: a thicker wall or a "
            "smaller screw."
        )
        trail.cautions.append(warning)
    turned = 0.1 * d**2 if torque is None else torque
    push = trail.step(
        "Push of one",
        f"{turned:.3g} / (0.2 × {d:g}) × 1000",
        turned / (0.2 * d) * 1000,
        FORCE,
    )
    hold = trail.step("Hold of all", f"{screws:g} × {push:.5g}", screws * push, FORCE)
    trail.notes.append(
        "Spot the dimples through the carrier's own tapped holes, then move over by "
        "the offset: the cones pull the body against its shoulder."
    )
    return {
        "depth_lower": lower,
        "depth_upper": upper,
        "mouth": trail.step("Mouth", f"2 × {middle:.3f}", 2 * middle),
        "length": length,
        "engaged": engaged,
        "push": push,
        "hold": hold,
        "carries": trail.step(
            "Turning", f"{hold:.5g} × {body:g} / 2000", hold * body / 2000, TORQUE
        ),
        "offset": draw,
        "warning": warning,
    }
