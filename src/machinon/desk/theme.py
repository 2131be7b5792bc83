"""The two themes, the fonts and the style sheet: scribed lines on blued steel."""

import functools
from collections.abc import Mapping
from importlib import resources

from msgspec import Struct
from msgspec.structs import replace
from PySide6.QtGui import QColor, QFont, QFontDatabase, QPalette
from PySide6.QtWidgets import QApplication, QWidget

from machinon.draw.drawing import Role

FAMILIES = ["B612", "Routed Gothic"]  # the second has the drafting signs
FONT_FILES = ("B612-Regular.otf", "B612-Bold.otf", "routed-gothic.ttf")


class Theme(Struct, frozen=True, eq=False):  # one of each: told by identity
    """A set of inks: one colour for each role that a drawing or a text names."""

    key: str
    name: str
    inks: Mapping[Role, str]
    raised: str  # fields and buttons, a step above the ground
    line: str  # edges of panels

    def ink(self, role: Role) -> QColor:
        return _color(self.inks[role])


@functools.cache
def _color(code: str) -> QColor:
    return QColor(code)


BLUED = Theme(
    "blued",
    "Blued Steel",
    {
        "outline": "#e6edf5",
        "thin": "#a9bad0",
        "centre": "#7fa3cc",
        "hidden": "#8ea3bd",
        "hatch": "#6f8bad",
        "dimension": "#a9bad0",
        "text": "#eef3f8",
        "faint": "#b3c2d4",
        "cut": "#ffb550",
        "measured": "#73d5ea",
        "proved": "#93dd8b",
        "stop": "#ff8074",
        "ground": "#0d1930",
        "panel": "#15253f",
        "lit": "#ffb550",
        "none": "#00000000",
    },
    raised="#1d3152",
    line="#37507a",
)
PAPER = Theme(
    "paper",
    "Paper",
    {
        "outline": "#14264a",
        "thin": "#3f5170",
        "centre": "#3d6396",
        "hidden": "#55657f",
        "hatch": "#7587a3",
        "dimension": "#3f5170",
        "text": "#121f3a",
        "faint": "#4c5a72",
        "cut": "#9a4f00",
        "measured": "#00606f",
        "proved": "#256628",
        "stop": "#ad1c16",
        "ground": "#f7f2e6",
        "panel": "#fdfbf4",
        "lit": "#c96a00",
        "none": "#00000000",
    },
    raised="#ffffff",
    line="#b9b29d",
)
THEMES: Mapping[str, Theme] = {theme.key: theme for theme in (BLUED, PAPER)}
PRINT = replace(PAPER, inks={**PAPER.inks, "ground": "#ffffff", "panel": "#ffffff"})


def load_fonts() -> None:
    """Make the shipped fonts known to this application."""
    folder = resources.files("machinon.desk").joinpath("fonts")
    for name in FONT_FILES:
        QFontDatabase.addApplicationFontFromData(folder.joinpath(name).read_bytes())


def font(size: float, bold: bool = False) -> QFont:
    """The interface's font at a height in pixels."""
    return _font(max(round(size), 6), bold)


@functools.cache
def _font(pixels: int, bold: bool) -> QFont:
    made = QFont()
    made.setFamilies(FAMILIES)
    made.setPixelSize(pixels)
    made.setBold(bold)
    return made


def dress(app: QApplication, window: QWidget, theme: Theme, scale: float) -> None:
    """Put the theme on the application and its window. scale: 1.0 is 100 %."""
    sheet = style_sheet(theme, scale)
    if window.styleSheet() == sheet:
        return  # every widget would be styled anew for nothing
    app.setFont(font(14 * scale))
    palette = QPalette()
    for part, role in (
        (QPalette.ColorRole.Window, "ground"),
        (QPalette.ColorRole.Base, "panel"),
        (QPalette.ColorRole.Text, "text"),
        (QPalette.ColorRole.WindowText, "text"),
        (QPalette.ColorRole.ButtonText, "text"),
        (QPalette.ColorRole.PlaceholderText, "faint"),
        (QPalette.ColorRole.Highlight, "centre"),
        (QPalette.ColorRole.HighlightedText, "ground"),
    ):
        palette.setColor(part, theme.ink(role))  # type: ignore[arg-type]
    palette.setColor(QPalette.ColorRole.Button, QColor(theme.raised))
    app.setPalette(palette)
    window.setStyleSheet(sheet)


def style_sheet(theme: Theme, scale: float) -> str:
    """The Qt style sheet of a theme at a font scale."""

    def px(size: float) -> str:
        return f"{max(round(size * scale), 1)}px"

    ink = theme.inks
    return f"""
* {{ font-family: "B612", "Routed Gothic"; font-size: {px(14)}; }}
QWidget {{ color: {ink["text"]}; }}
QMainWindow, QDialog, #page {{ background: {ink["ground"]}; }}
QMenuBar, QMenu {{ background: {ink["ground"]}; color: {ink["text"]}; }}
QMenuBar::item {{ padding: {px(3)} {px(9)}; }}
QMenuBar::item:selected, QMenu::item:selected {{ background: {theme.raised}; }}
QMenu {{ border: 1px solid {theme.line}; padding: {px(4)}; }}
QMenu::item {{ padding: {px(5)} {px(22)}; }}
QMenu::item:disabled {{ color: {ink["hidden"]}; }}
QToolTip {{ background: {theme.raised}; color: {ink["text"]};
  border: 1px solid {theme.line}; padding: {px(3)}; }}
QFrame[panel="true"] {{ background: {ink["panel"]}; border: 1px solid {theme.line}; }}
QFrame[trouble="true"] {{ background: {ink["ground"]};
  border: 3px solid {ink["stop"]}; }}
QLabel[part="title"] {{ font-size: {px(22)}; font-weight: bold; }}
QLabel[part="head"] {{ font-size: {px(16)}; font-weight: bold; }}
QLabel[part="faint"] {{ color: {ink["faint"]}; }}
QLabel[part="say"] {{ font-size: {px(18)}; }}
QLabel[part="figure"] {{ font-size: {px(19)}; font-weight: bold; }}
QLabel[part="answer"] {{ font-size: {px(24)}; font-weight: bold; }}
QLabel[part="large"] {{ font-size: {px(30)}; font-weight: bold; }}
QLabel[ink="cut"] {{ color: {ink["cut"]}; }}
QLabel[ink="measured"] {{ color: {ink["measured"]}; }}
QLabel[ink="proved"] {{ color: {ink["proved"]}; }}
QLabel[ink="stop"] {{ color: {ink["stop"]}; }}
QLineEdit, QComboBox, QPlainTextEdit {{ background: {theme.raised};
  color: {ink["text"]}; border: 1px solid {ink["hatch"]};
  padding: {px(5)} {px(7)}; font-size: {px(16)}; }}
QLineEdit:focus, QComboBox:focus, QPlainTextEdit:focus {{
  border: 2px solid {ink["centre"]}; padding: {px(4)} {px(6)}; }}
QLineEdit[wrong="true"] {{ border: 2px solid {ink["stop"]}; }}
QLineEdit[lettering="large"] {{ font-size: {px(30)}; font-weight: bold; }}
QComboBox QAbstractItemView {{ background: {theme.raised}; color: {ink["text"]};
  border: 1px solid {theme.line}; selection-background-color: {ink["centre"]};
  selection-color: {ink["ground"]}; outline: none; }}
QComboBox::drop-down {{ border: none; width: {px(22)}; }}
QPushButton {{ background: {theme.raised}; border: 1px solid {ink["hatch"]};
  padding: {px(7)} {px(14)}; }}
QPushButton:hover {{ border-color: {ink["centre"]}; }}
QPushButton:focus {{ border: 2px solid {ink["centre"]};
  padding: {px(6)} {px(13)}; }}
QPushButton:disabled {{ color: {ink["hidden"]}; border-style: dashed; }}
QPushButton:checked {{ border: 2px solid {ink["cut"]}; font-weight: bold; }}
QPushButton[part="main"] {{ background: {ink["cut"]}; color: {ink["ground"]};
  border: 1px solid {ink["cut"]}; font-weight: bold; font-size: {px(16)}; }}
QPushButton[part="main"]:focus {{ border: 2px solid {ink["text"]}; }}
QPushButton[part="main"]:disabled {{ background: {theme.raised};
  color: {ink["hidden"]}; border: 1px dashed {theme.line}; }}
QPushButton[part="link"] {{ background: transparent;
  border: 1px solid transparent; color: {ink["faint"]};
  text-decoration: underline; padding: {px(1)} {px(3)}; text-align: left; }}
QPushButton[part="link"][ink="cut"] {{ color: {ink["cut"]}; font-weight: bold; }}
QPushButton[part="link"][ink="measured"] {{ color: {ink["measured"]}; }}
QPushButton[part="link"]:focus {{ border: 1px solid {ink["centre"]}; }}
QPushButton[part="pad"] {{ font-size: {px(26)}; font-weight: bold;
  padding: {px(4)}; }}
QPushButton[part="size"] {{ padding: {px(5)} {px(3)}; }}
QPushButton[part="entry"] {{ background: {ink["panel"]}; text-align: left;
  padding: {px(12)} {px(14)}; font-size: {px(16)}; }}
QRadioButton, QCheckBox {{ spacing: {px(8)}; padding: {px(2)} 0;
  border: 2px solid transparent; }}
QRadioButton::indicator, QCheckBox::indicator {{ width: {px(15)};
  height: {px(15)}; border: 2px solid {ink["thin"]};
  background: {theme.raised}; }}
QRadioButton::indicator {{ border-radius: {(round(15 * scale) + 4) // 2}px; }}
QRadioButton::indicator:checked, QCheckBox::indicator:checked {{
  background: {ink["cut"]}; border-color: {ink["text"]}; }}
QRadioButton:focus, QCheckBox:focus {{ border-color: {ink["centre"]}; }}
QScrollArea, QScrollArea > QWidget > QWidget {{ border: none;
  background: transparent; }}
QScrollBar:vertical {{ width: {px(11)}; background: {ink["ground"]}; }}
QScrollBar:horizontal {{ height: {px(11)}; background: {ink["ground"]}; }}
QScrollBar::handle {{ background: {theme.line}; min-width: {px(30)};
  min-height: {px(30)}; }}
QScrollBar::add-line, QScrollBar::sub-line {{ width: 0; height: 0; }}
QTableWidget {{ background: {ink["panel"]}; border: 1px solid {theme.line};
  gridline-color: {theme.line}; }}
QHeaderView, QTableCornerButton::section {{ background: transparent; }}
QHeaderView::section {{ background: {ink["ground"]}; color: {ink["faint"]};
  border: none; border-bottom: 1px solid {theme.line}; padding: {px(4)}; }}
QTreeWidget, QListWidget {{ background: {ink["panel"]};
  border: 1px solid {theme.line}; outline: none; padding: 0 {px(3)}; }}
QTreeWidget::item, QListWidget::item {{ padding: {px(5)} 0; }}
QTreeWidget:focus, QListWidget:focus {{ border: 2px solid {ink["centre"]}; }}
QTreeWidget::item:selected, QListWidget::item:selected {{
  background: {theme.raised}; color: {ink["text"]};
  border-top: 2px solid {ink["centre"]}; border-bottom: 2px solid {ink["centre"]};
  padding: {px(3)} 0; }}
"""
