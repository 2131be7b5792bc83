"""A piece of the shop as its picture, drawn and dimensioned from its readings."""

from collections.abc import Set

from machinon.core.shop.things import Piece
from machinon.draw.across_drawing import AcrossPicture
from machinon.draw.drawing import Board, Drawing, uncrowded
from machinon.draw.piece_shape import Readings, sectioned
from machinon.draw.turned_drawing import TurnedPicture


def piece_drawing(
    piece: Piece,
    measured: Readings,
    width: float,
    height: float,
    size: float = 13.0,
    inch: bool = False,
) -> Drawing:
    """Half section and end view of a piece, or the section of what is cut across.

    measured: by surface id; ties are the ids of the surfaces. What has no place
    in the picture stands along its foot.
    """
    section = sectioned(piece)

    def laid_out(share: float, _: Set[str]) -> tuple[Board, bool]:
        board = Board(width, height, size * share)
        picture = (
            TurnedPicture(piece, measured, board, inch)
            if section is None
            else AcrossPicture(piece, section, measured, board, inch)
        )
        large = picture.lay_out()
        return board, large

    return uncrowded(laid_out)
