import os
import subprocess
import tempfile
import unittest
import xml.etree.ElementTree as ET
from pathlib import Path

import machinon

ROOT = Path(__file__).parents[2]
LAUNCHER = Path(machinon.__file__).parent / "desk" / "launcher"


class InTheMenu(unittest.TestCase):
    def install(self, home: Path, *words: str) -> None:
        env = {**os.environ, "HOME": str(home), "XDG_DATA_HOME": str(home / "share")}
        subprocess.run(
            ["sh", str(ROOT / "scripts" / "install.sh"), *words],
            check=True,
            capture_output=True,
            env=env,
        )

    def test_it_is_put_there_whole_and_taken_away_without_a_trace(self):
        with tempfile.TemporaryDirectory() as folder:
            home = Path(folder)
            self.install(home)
            entry = (home / "share/applications/machinon.desktop").read_text()
            self.assertIn(f'Exec="{ROOT}/.venv/bin/machinon" %f', entry)
            self.assertTrue((home / ".local/bin/machinon").is_symlink())
            self.install(home, "--remove")
            left = [path.name for path in home.rglob("*machinon*")]
            self.assertEqual(left, [])

    def test_a_shop_file_is_known_by_its_ending(self):
        kind = ET.parse(LAUNCHER / "machinon.mime.xml").getroot()
        named = {
            element.get("pattern") for element in kind.iter() if element.get("pattern")
        }
        self.assertEqual(named, {"*.machinon"})
        entry = (LAUNCHER / "machinon.desktop").read_text()
        self.assertIn(kind[0].get("type"), entry)

    def test_what_software_centres_show_is_of_this_version(self):
        about = ET.parse(LAUNCHER / "machinon.metainfo.xml").getroot()
        newest = about.find("releases/release").get("version")
        self.assertEqual(newest, machinon.__version__)
