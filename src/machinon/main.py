"""Start: reads the options, opens the shop file, shows the desk."""

import argparse
import gc
import os
import signal
import socket
import sys
import tempfile
from collections.abc import Sequence
from importlib import import_module
from pathlib import Path
from typing import TYPE_CHECKING

from machinon import __version__
from machinon.core.errors import MachinonError

if TYPE_CHECKING:
    from PySide6.QtWidgets import QApplication


def _options(arguments: Sequence[str]) -> argparse.Namespace:
    parser = argparse.ArgumentParser(
        prog="machinon",
        description="The bench companion of a machinist who builds tooling.",
        epilog="machinon ask answers what one would say, machinon reckon works out "
        "single reckonings, machinon coach advises at the dial, machinon simulate "
        "stands in for a read-out or gauge: see their --help.",
    )
    parser.add_argument("file", nargs="?", help="open this shop file")
    parser.add_argument("--shop", metavar="FILE", help="the same")
    parser.add_argument(
        "--demo", action="store_true", help="open a throw-away copy of the demo shop"
    )
    parser.add_argument(
        "--shoot",
        metavar="DIR",
        help="write a picture of every main view of the demo shop, and exit",
    )
    parser.add_argument(
        "--version", action="version", version=f"Machinon {__version__}"
    )
    options = parser.parse_args(arguments)
    if options.file is not None:
        if options.shop is not None:
            parser.error("one shop file is opened at a time")
        options.shop = options.file
    if options.shop is not None and not options.shop.strip():
        parser.error("the name of a shop file is missing")
    if options.shop and (options.demo or options.shoot):
        parser.error("a file is your own; --demo and --shoot open the demo shop")
    return options


def own_shop() -> Path:
    """The person's own shop file: in the XDG data folder."""
    from platformdirs import user_data_path

    return user_data_path("machinon") / "shop.machinon"


def own_settings() -> Path:
    from platformdirs import user_config_path

    return user_config_path("machinon") / "settings.ini"


ICON = Path(__file__).parent / "desk" / "launcher" / "machinon.svg"
ENDS = (signal.SIGTERM, signal.SIGINT, signal.SIGHUP)
ended: list[int] = []  # each time that the program was told to end


def reports() -> Path:
    """Folder of fault reports: in the XDG state folder."""
    from platformdirs import user_state_path

    return user_state_path("machinon") / "reports"


# what is told on the terminal, by the module that tells it
COMMANDS = {
    "ask": ("machinon.commandline", "ask_command"),
    "coach": ("machinon.commandline", "coach_command"),
    "reckon": ("machinon.commandline", "reckon_command"),
    "piece": ("machinon.piece_command", "piece_command"),
    "simulate": ("machinon.devices.command", "simulate_command"),
}


def _told(command: tuple[str, str], given: Sequence[str]) -> int:
    module, name = command
    try:
        code: int = getattr(import_module(module), name)(given)
        sys.stdout.flush()
    except BrokenPipeError:
        # whoever reads it has read enough; nothing more is flushed at the end
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 128 + signal.SIGPIPE
    except KeyboardInterrupt:
        return 128 + signal.SIGINT
    except OSError as error:
        print(f"machinon: {error.strerror or error}", file=sys.stderr)
        return 1
    return code


def main(arguments: Sequence[str] | None = None) -> int:
    """Run Machinon. Returns the exit code: 0, or 2 for what cannot be opened."""
    given = list(sys.argv[1:] if arguments is None else arguments)
    if given and given[0] in COMMANDS:
        return _told(COMMANDS[given[0]], given[1:])
    options = _options(given)
    # until the window's loop hears it, being told to end is only noted: raised into the
    # middle of an import it would be lost
    for number in ENDS:
        signal.signal(number, lambda number, _: ended.append(number))
    with tempfile.TemporaryDirectory(prefix="machinon-") as scratch:
        return _run(options, Path(scratch))


def _run(options: argparse.Namespace, scratch: Path) -> int:
    gc.disable()  # what is made at the start stays: clearing memory only delays it
    from PySide6.QtGui import QIcon
    from PySide6.QtWidgets import QApplication, QMessageBox

    from machinon.desk.faults import faults
    from machinon.desk.settings import Settings
    from machinon.desk.theme import load_fonts
    from machinon.desk.window import MainWindow

    app = QApplication(sys.argv[:1])
    app.setApplicationName("machinon")
    app.setDesktopFileName("machinon")
    app.setWindowIcon(QIcon(str(ICON)))
    load_fonts()
    throw_away = bool(options.demo or options.shoot)
    window = MainWindow(Settings(None if throw_away else own_settings()), scratch)
    if not options.shoot:
        window.show()
        app.processEvents()  # on the screen before the shop is read
    sys.excepthook = faults.hook
    notices = _end_when_told(app)
    faults.folder = None if throw_away else reports()
    try:
        from machinon.store.demo_shop import DAY, demo_shop
        from machinon.store.opening import ShopBusy, open_shop
        from machinon.store.shop_file import local_time

        if throw_away:
            path = demo_shop(scratch)
        else:
            path = Path(options.shop) if options.shop else own_shop()
        try:
            # pictures carry one time, so that they are the same at each shooting
            clock = (lambda: f"{DAY}T12:00:00+00:00") if options.shoot else local_time
            file = open_shop(path, durable=not throw_away, clock=clock)
        except ShopBusy as busy:
            if not _may_look(str(busy)):
                return 2
            file = open_shop(path, look_only=True)
        if options.shoot:
            from machinon.desk.shoot import shoot

            shoot(file, scratch, Path(options.shoot))
            return 0
        window.open_file(file)
        gc.freeze()  # what stands now is not gone through at each clearing either
    except (MachinonError, OSError) as error:
        print(f"machinon: {error}", file=sys.stderr)
        if os.environ.get("QT_QPA_PLATFORM") != "offscreen":
            QMessageBox.critical(None, "Machinon", str(error))
        return 2
    gc.enable()
    # told to end while the shop was read: a loop that begins after that would not hear
    code = 0 if ended else int(app.exec())
    notices.close()
    file = getattr(window, "file", None)
    if file is not None:
        file.close()
    return code


def _end_when_told(app: "QApplication") -> socket.socket:
    """End in order on SIGTERM, SIGINT and SIGHUP, so that nothing is left behind.

    Returns what the signals are heard through; it is closed at the end.
    """
    from PySide6.QtCore import QSocketNotifier

    heard, told = socket.socketpair()
    for connection in (heard, told):
        connection.setblocking(False)
    signal.set_wakeup_fd(told.fileno())

    def end(*_: object) -> None:
        ended.append(0)
        app.quit()

    for number in ENDS:
        signal.signal(number, end)
    notifier = QSocketNotifier(heard.fileno(), QSocketNotifier.Type.Read, app)
    # what is told before the loop begins is heard in it as well
    notifier.activated.connect(lambda *_: (heard.recv(64), end()))
    app.told = told  # type: ignore[attr-defined]  # kept open while it runs
    return heard


def _may_look(why: str) -> bool:
    """Whether a shop that another Machinon writes shall be looked at only."""
    from PySide6.QtWidgets import QMessageBox

    print(f"machinon: {why}", file=sys.stderr)
    if os.environ.get("QT_QPA_PLATFORM") == "offscreen":
        return False
    box = QMessageBox(QMessageBox.Icon.Question, "Machinon", why)
    look = box.addButton("Open to Read Only", QMessageBox.ButtonRole.AcceptRole)
    box.addButton(QMessageBox.StandardButton.Close)
    box.exec()
    return box.clickedButton() is look
