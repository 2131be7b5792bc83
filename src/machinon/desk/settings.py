"""Settings of the desk between starts: one table, kept in an ini file."""

from pathlib import Path
from typing import Any

from msgspec import Struct
from PySide6.QtCore import QByteArray, QSettings


class Setting(Struct, frozen=True):
    """One setting: key, default, what is allowed (empty: anything), meaning."""

    key: str
    default: Any
    allowed: tuple[Any, ...]
    meaning: str


SCALES = (100, 115, 130, 150, 175, 200)

SETTINGS = {
    setting.key: setting
    for setting in (
        Setting("theme", "blued", ("blued", "paper"), "the theme of the screen"),
        Setting("font_scale", 100, SCALES, "size of all text and figures, percent"),
        Setting("geometry", QByteArray(), (), "place and size of the window"),
        Setting("last_job", "", (), "the job that was open last"),
        Setting("practice", "", (), "how each exercise ended"),
        Setting("devices", "", (), "read-outs and gauges on a wire"),
        Setting("recent_shops", "", (), "shop files opened lately, one a line"),
    )
}


class Settings:
    """Reads and writes the table; what is not allowed falls back to the default."""

    def __init__(self, path: Path | None) -> None:
        # a throw-away shop leaves no trace in the person's settings
        self._file = QSettings(str(path), QSettings.Format.IniFormat) if path else None
        self._memory: dict[str, Any] = {}

    def get(self, key: str) -> Any:
        setting = SETTINGS[key]
        value = self._memory.get(key)
        if value is None and self._file is not None:
            value = self._file.value(key)
        if value is None:
            return setting.default
        try:
            value = type(setting.default)(value)
        except (TypeError, ValueError):
            return setting.default
        return (
            value
            if not setting.allowed or value in setting.allowed
            else setting.default
        )

    def put(self, key: str, value: Any) -> None:
        self._memory[SETTINGS[key].key] = value
        if self._file is not None:
            self._file.setValue(key, value)
            self._file.sync()
