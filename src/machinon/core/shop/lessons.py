"""Mistakes noted once, told again where they may happen again."""

from machinon.core.errors import BadInput
from machinon.core.shop.things import Lesson, Shop

# goes wrong alike on whatever piece, with the same tool; other work only at its step
ALIKE = (
    *("drill", "ream", "tap", "thread", "part", "knurl", "saw", "broach", "keyway"),
    *("harden", "grind", "weld", "bond", "press"),
)
SHOWN = 2  # of a step, the newest: more would not be read
MOST = 200  # letters of one


def lessons_at(
    shop: Shop, family: str, step: str, operation: str, tool: str
) -> tuple[Lesson, ...]:
    """Lessons that warn of a step, the newest first."""

    def concerns(lesson: Lesson) -> bool:
        if (lesson.family, lesson.step) == (family, step):
            return True
        return operation in ALIKE and (lesson.operation, lesson.tool) == (
            operation,
            tool,
        )

    return tuple(lesson for lesson in reversed(shop.lessons) if concerns(lesson))[
        :SHOWN
    ]


def lesson_said(typed: str) -> str:
    """A lesson as typed. Raises BadInput on `lesson`."""
    says = " ".join(typed.split())
    if not says:
        raise BadInput(
            "lesson", "Say in a sentence what went wrong, and what to do instead."
        )
    if len(says) > MOST:
        raise BadInput("lesson", f"{MOST} letters are allowed: it is read at the dial.")
    return says


def warning_of(lesson: Lesson) -> str:
    """A lesson as it stands at the step."""
    return f"Went wrong before: {lesson.says} ({lesson.job}, {lesson.at[:10]})"
