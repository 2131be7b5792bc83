"""A list whose entries have several values each, typed as rows."""

from collections.abc import Callable, Iterable, Mapping
from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QDialog,
    QHBoxLayout,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from machinon.core.errors import BadInput
from machinon.core.quantity import LENGTH, length_text, parse, typed_again
from machinon.core.reckoning import TEXT, Input, plain_name
from machinon.core.wording import begun
from machinon.desk.widgets import Look, button, label

SPARE = 1  # empty rows below what is there, to type on into


class RowsDialog(QDialog):
    """Asks for the rows of one input; what is wrong is said, and nothing lost.

    take: called with the rows; a BadInput it raises is shown here.
    """

    def __init__(
        self,
        parent: QWidget,
        look: Look,
        given: Input,
        rows: Iterable[Mapping[str, Any]],
        inch: bool,
        take: Callable[[list[dict[str, Any]]], object],
    ) -> None:
        super().__init__(parent)
        self.setWindowTitle(begun(plain_name(given.key)))
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self._columns, self._inch, self._take = given.columns, inch, take
        self.table = QTableWidget(0, len(given.columns))
        self.table.setHorizontalHeaderLabels(
            [plain_name(key) for key, _ in given.columns]
        )
        self.table.setAccessibleName(f"Rows of {plain_name(given.key)}")
        for row in rows:
            self._add(row)
        for _ in range(SPARE):
            self._add({})
        self.table.cellChanged.connect(self._on_cell_changed)
        self.says = label("", "", "stop", wrap=True)
        unit = "inches" if inch else "mm"
        buttons = QHBoxLayout()
        buttons.addWidget(button("Add a Row", lambda: self._add({})))
        buttons.addWidget(button("Remove the Row", self._drop))
        buttons.addStretch(1)
        buttons.addWidget(button("Cancel", self.close))
        buttons.addWidget(button("OK", self.take, "main"))
        column = QVBoxLayout(self)
        column.addWidget(
            label(
                f"One row for each; a cell may stay empty. A bare length is {unit}.",
                "faint",
                wrap=True,
            )
        )
        column.addWidget(self.table, 1)
        column.addWidget(self.says)
        column.addLayout(buttons)
        self.resize(look.px(140) * len(given.columns) + look.px(60), look.px(380))
        self.table.horizontalHeader().setSectionResizeMode(
            self.table.horizontalHeader().ResizeMode.Stretch
        )

    def _add(self, row: Mapping[str, Any]) -> None:
        at = self.table.rowCount()
        self.table.insertRow(at)
        for place, (key, kind) in enumerate(self._columns):
            value = row.get(key)
            if value is None or isinstance(value, str):
                text = value or ""
            elif kind is LENGTH:
                text = length_text(float(value), 0.0001, self._inch, unit=False)
                text = text if self._inch else typed_again(float(value))
            else:
                text = typed_again(float(value))
            self.table.setItem(at, place, QTableWidgetItem(text))

    def _drop(self) -> None:
        self.table.removeRow(self.table.currentRow())

    def _on_cell_changed(self, row: int, _column: int) -> None:
        if row == self.table.rowCount() - 1 and self._text(row, _column):
            self._add({})

    def _text(self, row: int, column: int) -> str:
        item = self.table.item(row, column)
        return item.text().strip() if item else ""

    def rows(self) -> list[dict[str, Any]]:
        """The rows as values in base units. Raises BadInput naming the cell."""
        made = []
        for at in range(self.table.rowCount()):
            row: dict[str, Any] = {}
            for place, (key, kind) in enumerate(self._columns):
                text = self._text(at, place)
                if not text:
                    continue
                if kind is TEXT:
                    row[key] = text
                    continue
                try:
                    row[key] = parse(text, kind, inch=self._inch)
                except BadInput as error:
                    self.table.setCurrentCell(at, place)
                    where = f"{plain_name(key)} of row {at + 1}"
                    raise BadInput(key, f"{where}: {error.message}") from None
            if row:
                made.append(row)
        return made

    def take(self) -> None:
        """Hand the rows over, and close where they are taken."""
        try:
            self._take(self.rows())
        except BadInput as error:
            self.says.setText(error.message)
        else:
            self.close()
