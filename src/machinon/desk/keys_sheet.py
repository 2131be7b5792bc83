"""Every command with its keys, to be looked up."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QGridLayout, QVBoxLayout, QWidget

from machinon.desk.commands import COMMANDS
from machinon.desk.widgets import Look, button, label

# what keys do that are no commands
BESIDES = (
    ("Take what is typed, or the cut advised", "Enter"),
    ("Walk over the sizes of a drawing", "Arrows, Enter"),
    ("A line of a step is done: the next one", "Enter or Space"),
    ("Undo the last line", "Backspace"),
    ("Leave a size as it was", "Escape"),
)


def show_keys(over: QWidget, look: Look) -> None:
    """Show them in a window of their own."""
    sheet = QDialog(over)
    sheet.setWindowTitle("Keys")
    sheet.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    grid = QGridLayout()
    grid.setHorizontalSpacing(look.px(24))
    lines = [(command.words, command.keys) for command in COMMANDS if command.keys]
    for row, (words, keys) in enumerate((*lines, *BESIDES)):
        grid.addWidget(label(words), row, 0)
        grid.addWidget(label(keys, "head"), row, 1)
    column = QVBoxLayout(sheet)
    column.addLayout(grid)
    column.addWidget(button("Close", sheet.close), 0, Qt.AlignmentFlag.AlignRight)
    sheet.show()
