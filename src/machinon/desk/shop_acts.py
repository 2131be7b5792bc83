"""Acts of the shop taken back or done again, but for what readings rest on."""

from typing import Literal

from machinon.core.errors import BadInput
from machinon.core.job.job import Job
from machinon.core.shop.things import Piece
from machinon.store.shop_file import ShopFile


def read_with(file: ShopFile, id: str) -> bool:
    """Whether readings or cuts of the shop were taken with an instrument."""
    jobs = file.all_of(Job)
    surfaces = [surface for piece in file.all_of(Piece) for surface in piece.surfaces]
    surfaces += [surface for j in jobs for w in j.works for surface in w.proof.surfaces]
    used = {reading.instrument for surface in surfaces for reading in surface.readings}
    logs = (log for job in jobs for log in job.cuts.values())
    return id in used or any(log.instrument == id and log.entries for log in logs)


def move_in_shop(file: ShopFile, which: Literal["undo", "redo"]) -> str:
    """Undo or redo the shop's last act; says which, empty for none.

    Raises BadInput on `instrument` where it would take one away that readings were
    taken with: without it they say nothing.
    """
    move, back = file.undo, file.redo
    if which == "redo":
        move, back = back, move
    before = {instrument.id: instrument.name for instrument in file.shop().instruments}
    says = move("shop")
    gone = before.keys() - {instrument.id for instrument in file.shop().instruments}
    for id in sorted(gone):
        if read_with(file, id):
            back("shop")
            raise BadInput(
                "instrument", f"{before[id]} stays: readings were taken with it."
            )
    return says
