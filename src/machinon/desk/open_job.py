"""The open job with every act on it, and a piece that is measured by itself.

Plain Python, no window: the views show `plan` and call the acts; each act is
on disk when it returns and leaves a line in the daybook.
"""

from machinon.core.errors import BadInput
from machinon.core.job.job import Job
from machinon.core.shop.things import Piece
from machinon.desk.acts.fits import FitActs
from machinon.desk.acts.pieces import PieceActs
from machinon.desk.acts.proof import ProofActs
from machinon.desk.acts.steps import StepActs
from machinon.desk.acts.survey import SurveyActs


class OpenJob(SurveyActs, FitActs, PieceActs, StepActs, ProofActs):
    """One job with everything that can be done to it."""


class OpenPiece(OpenJob):
    """A piece of the shop that is measured by itself, for no job.

    Its acts belong to the shop, and are taken back there.
    """

    def load(self, job_id: str) -> None:
        """Read the piece from the shop file. Raises BadInput on `piece`."""
        piece = self.file.get(job_id)
        if not isinstance(piece, Piece):
            raise BadInput("piece", "That piece is not in this shop.")
        self.job = Job("shop", piece.name, pieces=(piece.id,))
        self.shop = self.file.shop()
        self.lathe = None
        self.pieces = {piece.id: piece}
        self._work_out()
