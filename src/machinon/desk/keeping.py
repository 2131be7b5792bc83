"""The shop file as the person sees it: on disk or not, backups, other shops."""

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QTimer, Signal
from PySide6.QtWidgets import QFileDialog, QFrame, QHBoxLayout, QMenu

from machinon.core.errors import MachinonError
from machinon.desk.widgets import Look, MarkView, button, label

if TYPE_CHECKING:
    from machinon.desk.window import MainWindow
    from machinon.store.shop_file import Damaged

RETRY_EVERY = 2000  # ms between tries to write what is not on disk
RECENT = 8  # shops that are remembered


class TroubleBar(QFrame):
    """A bar over everything while entries are not on disk.

    Signals: retry_wished(), copy_wished().
    """

    retry_wished = Signal()
    copy_wished = Signal()

    def __init__(self, look: Look) -> None:
        super().__init__()
        self.setProperty("trouble", True)
        self.says = label("", "say", "stop", wrap=True)
        self.again = button("Try Now", self.retry_wished.emit)
        self.copy = button("Save a Copy Elsewhere…", self.copy_wished.emit)
        row = QHBoxLayout(self)
        row.setContentsMargins(look.px(14), look.px(6), look.px(14), look.px(6))
        row.addWidget(MarkView(look, "stop", 22))
        row.addWidget(self.says, 1)
        row.addWidget(self.again)
        row.addWidget(self.copy)
        self.hide()

    def show_trouble(self, why: str, kept_in: Path | None, look_only: bool) -> None:
        """Say why entries are not on disk and where they are; nothing to hide it."""
        self.again.setVisible(bool(why))
        self.copy.setVisible(bool(why))
        if why:
            kept = f"kept in {kept_in}" if kept_in else "kept in memory only"
            self.says.setText(
                f"Not on disk: {why}. Every entry is {kept} and is written as soon as "
                "it can be."
            )
        elif look_only:
            self.says.setText(
                "Another Machinon has this shop open: here it can only be read."
            )
        self.setVisible(bool(why) or look_only)


class Keeping:
    """Watches over the window's shop file and changes it for another."""

    def __init__(self, window: "MainWindow") -> None:
        self.window = window
        self._offered: set[str] = set()  # damaged documents, each spoken of once
        self.bar = TroubleBar(window.look)
        self.bar.retry_wished.connect(self._try_again)
        self.bar.copy_wished.connect(self.save_copy)
        self._retry = QTimer(window, interval=RETRY_EVERY)
        self._retry.timeout.connect(self._try_again)

    def watch(self) -> None:
        """Watch over the file that the window has just opened."""
        self.window.file.on_trouble = self.on_trouble
        self._offered.clear()
        self.remember()

    def on_trouble(self) -> None:
        """The file cannot be written, or can again: said at once and large."""
        file = self.window.file
        self.bar.show_trouble(file.trouble, file.sheltered_in, file.look_only)
        if file.trouble:
            self._retry.start()
        else:
            self._retry.stop()
        page = self.window.job_page()
        if page is not None:
            page.refresh()

    def _try_again(self) -> None:
        self.window.file.retry()

    def remember(self) -> None:
        before = self.window.settings.get("recent_shops").split("\n")
        own = str(self.window.file.path.resolve())
        kept = [path for path in before if path and path != own][: RECENT - 1]
        self.window.settings.put("recent_shops", "\n".join([own, *kept]))

    def offer_left_over(self) -> None:
        """Entries that an earlier run could not write: bring them in now?"""
        count = self.window.file.left_over()
        if not count:
            return
        self.window.ask(
            f"{count} {'entry' if count == 1 else 'entries'} of an earlier run could "
            "not be written to this shop then. Bring them in now?",
            "Bring Them In",
            self._bring_back,
        )

    def _bring_back(self) -> None:
        if self.window.file.bring_back():
            self.window.show_start()
        else:
            self.window.tell(
                f"They cannot be brought in: {self.window.file.trouble}. What is shown "
                "now is the shop with those entries: save a copy of it elsewhere."
            )
            self.on_trouble()

    def offer_damaged(self) -> None:
        """The next of what lists had to leave out, unless that was offered before."""
        for damaged in self.window.file.damaged.values():
            if damaged.id not in self._offered:
                self.offer_earlier(damaged, self.window.show_start)
                return

    def offer_earlier(self, damaged: "Damaged", then: Callable[[], None]) -> None:
        self._offered.add(damaged.id)
        if not damaged.earlier:
            self.window.tell(f"{damaged} Nothing before it can be read either.")
            return

        def go_back() -> None:
            self.window.file.go_back(damaged)
            then()

        self.window.ask(
            f"{damaged}\n\nThe revision before it can be read. Use that one again?",
            "Use the One Before",
            go_back,
        )

    def open_another(self) -> None:
        """Ask for another shop file, or a name for a new one, and open it."""
        path, _ = QFileDialog.getSaveFileName(
            self.window,
            "Open another shop, or name a new one",
            str(self.window.file.path.parent),
            "Shops (*.machinon)",
            options=QFileDialog.Option.DontConfirmOverwrite,
        )
        if path:
            self.open_path(Path(path))

    def recent_menu(self) -> QMenu:
        """The shops opened lately."""
        menu = QMenu(self.window)
        for name in self.window.settings.get("recent_shops").split("\n"):
            path = Path(name)
            if name and path != self.window.file.path.resolve() and path.exists():
                menu.addAction(name, lambda path=path: self.open_path(path))
        if menu.isEmpty():
            menu.addAction("No other shop was opened yet").setEnabled(False)
        return menu

    def show_recent(self) -> None:
        self.recent_menu().popup(self.window.mapToGlobal(self.window.rect().center()))

    def open_path(self, path: Path, look_only: bool = False) -> None:
        """Open another shop in place of this one; this one stays where it fails."""
        from machinon.store.opening import ShopBusy, open_shop

        if not look_only and path.resolve() == self.window.file.path.resolve():
            return
        try:
            file = open_shop(path, look_only=look_only)
        except ShopBusy as error:
            self.window.ask(
                str(error), "Open to Read Only", lambda: self.open_path(path, True)
            )
            return
        except MachinonError as error:
            self.window.tell(str(error))
            return
        self.window.file.close()
        self.window.settings.put("last_job", "")
        self.window.open_file(file)

    def back_up(self) -> None:
        """Ask where a backup shall go, and write it."""
        from machinon.store.opening import backup_name

        near = self.window.file.path.with_name(backup_name(self.window.file.path))
        self._save_as("Back up the shop", near)

    def save_copy(self) -> None:
        """Everything as it is now, in a file elsewhere."""
        self._save_as("Save a copy elsewhere", Path.home() / self.window.file.path.name)

    def _save_as(self, title: str, near: Path) -> None:
        path, _ = QFileDialog.getSaveFileName(
            self.window, title, str(near), "Shops (*.machinon)"
        )
        if not path:
            return
        target = Path(path)
        try:
            self.window.file.save_copy(target)
        except MachinonError as error:
            self.window.tell(str(error))
        else:
            self.window.tell(f"Written: {path}")

    def restore(self) -> None:
        """Ask for a backup and put it in this shop's place; what was is kept."""
        path, _ = QFileDialog.getOpenFileName(
            self.window,
            "Restore a backup",
            str(self.window.file.path.parent),
            "Shops (*.machinon)",
        )
        if path:
            self.restore_from(Path(path))

    def restore_from(self, backup: Path) -> None:
        """Put a backup in this shop's place; the shop before is kept beside it."""
        from machinon.store.opening import open_shop, restore

        path = self.window.file.path
        self.window.file.close()
        says = ""
        try:
            kept = restore(backup, path)
            says = f"The shop as it was before is kept in {kept}."
        except MachinonError as error:
            says = str(error)
        self.window.settings.put("last_job", "")
        self.window.open_file(open_shop(path))
        self.window.tell(says)
