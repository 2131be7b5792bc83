import itertools
import unittest

from msgspec.structs import replace
from PySide6.QtCore import Qt
from PySide6.QtGui import QColor
from PySide6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QLabel,
    QLineEdit,
    QPushButton,
    QRadioButton,
    QWidget,
)

from machinon.core.families import families
from machinon.core.job.job import STAGES
from machinon.core.piece.made import make
from machinon.core.reckoning import reckonings
from machinon.core.route.steps import route_told
from machinon.core.route.work.lines import Machines
from machinon.core.route.work.listed import work_list
from machinon.desk.begin import begin_job
from machinon.desk.painter import lying_on_each_other
from machinon.desk.theme import THEMES, style_sheet
from machinon.desk.widgets import EnterButton, area_of
from machinon.draw.drawing import Drawing, Text
from machinon.draw.large_figures import figures_drawing
from tests.desk.bench import WindowCase

NEVER = Qt.ScrollBarPolicy.ScrollBarAlwaysOff


def _light(code: str) -> float:
    """Relative luminance of a colour; WCAG 2."""
    parts = QColor(code).getRgbF()[:3]
    r, g, b = (
        c / 12.92 if c <= 0.03928 else ((c + 0.055) / 1.055) ** 2.4 for c in parts
    )
    return 0.2126 * r + 0.7152 * g + 0.0722 * b


def contrast(ink: str, other: str) -> float:
    low, high = sorted((_light(ink), _light(other)))
    return (high + 0.05) / (low + 0.05)


class Contrast(unittest.TestCase):
    def test_words_and_edges_stand_out_in_both_themes(self):
        """Words 4.5 to 1; edges of entries, of what is chosen or has the keys 3."""
        for theme in THEMES.values():
            grounds = (theme.inks["ground"], theme.inks["panel"], theme.raised)
            for role, ground in itertools.product(
                ("text", "faint", "cut", "measured", "proved", "stop"), grounds
            ):
                with self.subTest(theme.key, role=role, ground=ground):
                    self.assertGreaterEqual(contrast(theme.inks[role], ground), 4.5)
            for role, ground in itertools.product(("hatch", "centre"), grounds):
                with self.subTest(theme.key, role=role, ground=ground):
                    self.assertGreaterEqual(contrast(theme.inks[role], ground), 3.0)

    def test_what_is_chosen_in_a_list_and_what_has_the_keys_is_edged(self):
        for theme in THEMES.values():
            sheet, edge = style_sheet(theme, 1.0), theme.inks["centre"]
            for rule in (
                "QTreeWidget::item:selected, QListWidget::item:selected",
                "QTreeWidget:focus, QListWidget:focus",
                "QRadioButton:focus, QCheckBox:focus",
                "QLineEdit:focus, QComboBox:focus",
            ):
                body = sheet.partition(rule)[2].partition("}")[0]
                self.assertIn(edge, body, rule)


class FiguresStayWhole(WindowCase):
    def test_words_that_meet_or_are_cut_off_are_found(self):
        apart = Text((50, 20), "12.5 mm", 14), Text((50, 60), "hole", 14)
        self.assertEqual(list(lying_on_each_other(Drawing(100, 80, apart))), [])
        meeting = *apart, Text((60, 24), "aim", 14)
        found = list(lying_on_each_other(Drawing(100, 80, meeting)))
        self.assertEqual(found, [("aim", "12.5 mm")])
        cut = (Text((95, 20), "12.5 mm", 14),)
        self.assertEqual(
            list(lying_on_each_other(Drawing(100, 80, cut))), [("12.5 mm",)]
        )

    def test_every_reckoning_is_read_in_full_in_a_small_window(self):
        self.window.resize(1024, 700)
        self.window.show_reckoner()
        page = self.window.pages.currentWidget()
        for key in reckonings():
            page.open(key)
            self.settle()
            found = list(lying_on_each_other(page.picture.drawing()))
            self.assertEqual(found, [], key)

    def test_what_to_set_at_every_step_of_every_family_is_read_in_full(self):
        """On pages of 1280x800, and of 1024x700 with letters of 150 %."""
        rooms = (
            *((430, 270, 15.0), (340, 240, 15.0), (340, 230, 22.5)),
            (540, 150, 22.5),
        )
        told = {
            str(line.figures): (line.figures, family.key, line.head)
            for family in families().values()
            for up in route_told(make(family, {}))
            for step in up.steps
            for line in work_list(step, Machines(), {}).lines
        }
        for figures, *of in told.values():
            for room, inch in itertools.product(rooms, (False, True)):
                drawn = figures_drawing(figures, *room, inch)
                found = list(lying_on_each_other(drawn))
                self.assertEqual(found, [], (of, room))

    def open_one_of(self, family: str, mates: dict[str, str]) -> None:
        """A new job of a family, with what there is of its mates."""
        job = begin_job(self.window.file, {"what": family, "name": "One more"})
        making = replace(job.making, sizes=mates)
        self.window.file.act(job.id, "As usual.", job.with_work(making=making))
        self.window.open_job(job.id)

    def test_the_links_of_a_chain_are_read_in_full(self):
        """Two bearings, a spacer and what the nut has to clamp, side by side."""
        mates = {
            key: f"{mate_size.usual}"
            if isinstance(mate_size.usual, str)
            else f"{mate_size.usual:g}mm"
            for key, mate_size in families()["draw-in-spindle"].mate_keys.items()
        }
        self.open_one_of("draw-in-spindle", mates)
        for size in ((1280, 800), (1024, 700)):
            self.window.resize(*size)
            self.settle()
            stack = self.window.job_page().stack
            self.assertTrue(stack.isVisible())
            self.assertEqual(list(lying_on_each_other(stack.drawing())), [])

    def test_names_are_shortened_and_figures_are_not(self):
        """At 150 % on 1280x800 and 1024x700 a target still ends in its figure."""
        for size, scale in (((1280, 800), 150), ((1024, 700), 150)):
            with self.subTest(size=size, scale=scale):
                self.window.settings.put("font_scale", scale)
                self.window._dress()
                self.window.open_job("back-plate-130")
                self.window.resize(*size)
                self.settle()
                page = self.window.job_page()
                whole = {f.choice.number: page._target(f) for f in self.job.plan.fits}
                for button in page.head.findChildren(QPushButton):
                    number = button.property("target")
                    if number and ": " in whole[number]:
                        figure = whole[number].rpartition(": ")[2]
                        self.assertTrue(button.text().endswith(figure), button.text())

    def test_the_stage_has_the_room_it_needs_before_the_strip_has(self):
        self.window.settings.put("font_scale", 150)
        self.window._dress()
        self.window.open_job("back-plate-130")
        self.window.resize(1280, 800)
        for stage in STAGES:
            self.window.go(stage)
            self.settle()
            page = self.window.job_page()
            self.assertFalse(page.stack.isVisible(), stage)
        self.window.settings.put("font_scale", 100)
        self.window._dress()
        self.window.open_job("back-plate-130")
        self.settle()
        self.assertTrue(self.window.job_page().stack.isVisible())

    def test_on_a_low_screen_no_words_and_no_entry_are_squeezed(self):
        """1024x700: the strip gives way, then the stage scrolls."""
        self.window.resize(1024, 700)
        for scale, job in ((100, "back-plate-130"), (150, "t-nuts")):
            self.window.settings.put("font_scale", scale)
            self.window._dress()
            self.window.open_job(job)
            for stage in STAGES:
                self.window.go(stage)
                self.settle()
                self.settle()  # words in more lines have made room
                view = self.window.job_page().view()
                for widget in view.findChildren(QWidget) if view else ():
                    wraps = isinstance(widget, QLabel) and widget.wordWrap()
                    if not widget.isVisible() or not (
                        wraps or isinstance(widget, QLineEdit | QComboBox)
                    ):
                        continue
                    least = widget.minimumSizeHint().height()
                    if wraps:
                        least = widget.heightForWidth(widget.width())
                    says = (
                        stage,
                        scale,
                        widget.accessibleName(),
                        wraps and widget.text(),
                    )
                    self.assertGreaterEqual(widget.height(), least - 2, says)

    def test_on_a_low_screen_what_is_to_be_pressed_is_seen_without_scrolling(self):
        """At 150 % on 1024x700 the film is lower, and the keys come after the button;
        in a larger window both are as they were."""
        self.window.settings.put("font_scale", 150)
        self.window._dress()
        self.window.open_job("back-plate-130")
        for size, low in (((1024, 700), True), ((1900, 1400), False)):
            self.window.resize(*size)
            for stage, name in (("route", "go"), ("cut", "enter_button")):
                self.window.go(stage)
                for _ in range(4):  # what is found too low moves after that
                    self.settle()
                view = self.window.job_page().view()
                widget, around = getattr(view, name), area_of(view).viewport()
                under = widget.mapTo(around, widget.rect().bottomLeft()).y()
                self.assertLessEqual(under, around.height(), (stage, size))
            keys = view.pad.mapTo(around, view.pad.rect().topLeft()).y()
            self.assertEqual(keys > under, low)

    def cut_off(self, widget: QWidget) -> bool:
        """Whether the words of a label, a button or a box have no room."""
        around = area_of(widget)
        if (
            around is not None
            and around.widget().isAncestorOf(widget)
            and around.horizontalScrollBarPolicy() == NEVER
            and widget.mapTo(around.viewport(), widget.rect().topRight()).x()
            > around.viewport().width()
        ):
            return True  # it goes on beyond what is shown of it
        lines, room = [], widget.width()
        if isinstance(widget, EnterButton):
            lines, room = widget._lines(), widget._room()
        elif isinstance(widget, QCheckBox | QRadioButton):
            lines = widget.text().split("\n")
        elif (
            isinstance(widget, QLabel)
            and widget is not self.window.job_page().open_says
        ):
            if widget.wordWrap():
                return widget.heightForWidth(room) > widget.height() + 3
            lines = widget.text().split("\n")
        wide = map(widget.fontMetrics().horizontalAdvance, lines)
        return max(wide, default=0) > room + 1

    def words_are_whole(self, *where: str) -> None:
        for _ in range(6):  # what needs more room asks from panel to page to window
            self.settle()
        # what is worked out a moment later asks for its room after that
        self.until(lambda: not self.all_cut_off(), 2.0)
        self.assertEqual(self.all_cut_off(), [], where)

    def all_cut_off(self) -> list[str]:
        """The words on the page that have no room."""
        shown = self.window.job_page().findChildren(QWidget)
        return [
            getattr(widget, "text", str)()
            for widget in shown
            if widget.isVisible() and widget.width() > 1 and self.cut_off(widget)
        ]

    def test_in_a_small_window_no_words_are_cut_off(self):
        """At 150 % on 1024x700 names, figures and buttons go into lines."""
        self.window.resize(1024, 700)
        self.window.settings.put("font_scale", 150)
        self.window._dress()
        for job in ("back-plate-130", "expanding-arbor", "t-nuts"):
            self.window.open_job(job)
            for stage in STAGES:
                self.window.go(stage)
                self.words_are_whole(job, stage)
        for step in ("mill-rebate_front", "mark-thread", "drill-thread", "tap-thread"):
            self.job.work_at(step)
            self.window.go("cut")
            self.words_are_whole(step)
        self.window.go("survey")
        tree = self.window.job_page().view().tree
        self.assertTrue(tree.figures_beneath)
        self.window.resize(1800, 1000)
        self.settle()
        self.assertFalse(tree.figures_beneath)

    def test_the_list_of_a_step_has_all_the_room_there_is(self):
        """1024x700: beside a page that is full and does not scroll it ends at the
        foot."""
        self.window.resize(1024, 700)
        mates = {"socket.taper": "MT3", "chuck.taper": "JT33"}
        self.open_one_of("chuck-arbor", mates)
        self.job.work_at("taper-shank")
        self.window.go("cut")
        for line in self.job.lines.lines[:2]:
            self.job.tick_line(line.key)
        self.words_are_whole()
        work = self.window.job_page().view().lines
        self.assertGreater(work.back.geometry().bottom(), 0.9 * work.height())

    def test_full_screen_has_a_way_out_by_touch_and_keeps_what_is_typed(self):
        self.window.open_job("back-plate-130")
        self.window.go("cut")
        before = self.window.look.scale
        self.type(self.window.job_page().view().field.edit, "2.2", enter=False)
        self.window.actions_by_id["view.machine"].trigger()
        page = self.window.job_page()
        self.assertTrue(page.leave.isVisible())
        self.assertFalse(page.rail.isVisible())
        self.assertEqual(page.view().field.text(), "2.2")
        self.click(page.leave)
        page = self.window.job_page()
        self.assertTrue(page.rail.isVisible())
        self.assertEqual(self.window.look.scale, before)
        self.assertEqual(page.view().field.text(), "2.2")

    def test_the_reckoner_is_reached_from_full_screen_and_leads_back(self):
        self.window.open_job("back-plate-130")
        self.window.go("cut")
        self.window.actions_by_id["view.machine"].trigger()
        self.window.actions_by_id["reckoner"].trigger()
        page = self.window.pages.currentWidget()
        self.assertEqual(type(page).__name__, "ReckonerPage")
        self.assertTrue(self.window.menuBar().isVisible())
        page.left.emit()
        self.settle()
        self.assertEqual(self.window.job_page().stage, "cut")
