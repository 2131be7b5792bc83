"""A small window that asks for a name, and keeps what was typed until it is taken."""

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QHBoxLayout, QVBoxLayout, QWidget

from machinon.core.errors import BadInput
from machinon.desk.widgets import Field, Look, button


class NameDialog(QDialog):
    """Asks for one name. take: called with it; a refusal stays at the entry."""

    def __init__(
        self,
        parent: QWidget,
        look: Look,
        title: str,
        start: str,
        take: Callable[[str], object],
    ) -> None:
        super().__init__(parent)
        self.setWindowTitle(title)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self._take = take
        self.field = Field(title, None)
        self.field.put(start)
        self.field.edit.selectAll()
        self.field.taken.connect(lambda _: self.take())
        row = QHBoxLayout()
        row.addStretch(1)
        row.addWidget(button("Cancel", self.close))
        row.addWidget(button("OK", self.take, "main"))
        column = QVBoxLayout(self)
        column.addWidget(self.field)
        column.addLayout(row)
        self.setMinimumWidth(look.px(420))
        self.field.edit.setFocus()

    def take(self) -> None:
        """Hand the name over, and close where it is taken."""
        try:
            self._take(self.field.text())
        except BadInput as error:
            self.field.refuse(error.message)
        else:
            self.close()


def ask_name(
    parent: QWidget, look: Look, title: str, start: str, take: Callable[[str], object]
) -> NameDialog:
    """Open the window; it does not stop the others."""
    dialog = NameDialog(parent, look, title, start, take)
    dialog.open()
    return dialog
