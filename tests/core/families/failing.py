"""What a family's own checks say of a piece, for the tests of the families."""

from machinon.core.families import family_of
from machinon.core.piece.made import make


def made(family, **given):
    """given: sizes and mates, the first _ of a name for its dot."""
    sizes = {name.replace("_", ".", 1): text for name, text in given.items()}
    return make(family_of(family), sizes)


def failed(piece):
    return {check.key for check in piece.checks if not check.passed}


def check(piece, key):
    return next(check for check in piece.checks if check.key == key)


def each_is_said(case, family, wrongs):
    """Every (given, check): sound as usual, and said once it is wrong."""
    usual = failed(made(family))
    for given, key in wrongs:
        with case.subTest(family, check=key):
            case.assertNotIn(key, usual)
            case.assertIn(key, failed(made(family, **given)))
