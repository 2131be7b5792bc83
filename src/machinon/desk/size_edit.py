"""The entry that opens on a figure of a picture, to change it where it stands."""

from PySide6.QtCore import QRect, QRectF, Qt
from PySide6.QtGui import QKeyEvent

from machinon.desk.widgets import DrawingView, LineEntry, Look

WIDE, HIGH = 150, 34  # px at 100 %: of the entry of a size


class SizeEdit(LineEntry):
    """Lies on a picture's figure while it is typed; Escape leaves it as it was."""

    def __init__(self, picture: DrawingView, look: Look) -> None:
        super().__init__(picture)
        self.picture, self.look = picture, look
        self._tie, self._wide = "", 0
        picture.resized.connect(self._go_along)
        self.hide()

    def open_over(
        self,
        place: QRectF | None,
        text: str,
        wide: float | None = None,
        tie: str = "",
    ) -> None:
        """Open on a place of the picture, at its corner where there is none.

        wide: px, as wide as a size where it is not said; never wider than the
        picture. tie: what it goes along with where the picture is laid out anew.
        """
        self._tie = tie
        self._wide = round(max(wide or 0, self.look.px(WIDE)))
        self._lie_over(place)
        self.setText(text)
        self._mark(False)
        self.show()
        self.setFocus()
        self.selectAll()

    def _lie_over(self, place: QRectF | None) -> None:
        width = min(self._wide, self.picture.width())
        height = self.look.px(HIGH)
        place = place or QRectF(self.picture.width() - width, 0, width, height)
        left = min(
            max(round(place.center().x()) - width // 2, 0),
            self.picture.width() - width,
        )
        top = min(max(round(place.top()) - 4, 0), self.picture.height() - height)
        self.setGeometry(QRect(left, top, width, height))

    def _go_along(self) -> None:
        """Stay on its figure where the picture was laid out anew."""
        place = self.picture.rect_of(self._tie) if self.isVisible() else None
        if place is not None:
            self._lie_over(place)

    def refuse(self) -> None:
        """Keep what was typed, marked as wrong."""
        self._mark(True)
        self.selectAll()

    def close_over(self) -> None:
        """Put it away; the picture has the keys again."""
        self.hide()
        self.picture.setFocus()

    def _mark(self, wrong: bool) -> None:
        self.setProperty("wrong", wrong)
        self.style().unpolish(self)
        self.style().polish(self)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.close_over()
            return
        super().keyPressEvent(event)
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            # else the picture under it takes the key as a choice of its own
            event.accept()
