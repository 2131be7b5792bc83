#!/bin/sh
# Put Machinon into the menu of this person's desktop: its command, its entry, icon,
# and the kind of its shop files. Nothing outside of their home is touched.
# `install.sh --remove` takes all of it away again; shops stay.
set -eu
cd "$(dirname "$0")/.."

data=${XDG_DATA_HOME:-$HOME/.local/share}
bin=$HOME/.local/bin
from=src/machinon/desk/launcher
command=$PWD/.venv/bin/machinon
entry=$data/applications/machinon.desktop
icon=$data/icons/hicolor/scalable/apps/machinon.svg
kind=$data/mime/packages/machinon.xml
about=$data/metainfo/machinon.metainfo.xml

if [ "${1:-}" = --remove ]; then
    rm -f "$bin/machinon" "$entry" "$icon" "$kind" "$about"
else
    mkdir -p "$bin" "$(dirname "$entry")" "$(dirname "$icon")" \
        "$(dirname "$kind")" "$(dirname "$about")"
    ln -sf "$command" "$bin/machinon"
    sed "s|^Exec=machinon|Exec=\"$command\"|" "$from/machinon.desktop" > "$entry"
    cp "$from/machinon.svg" "$icon"
    cp "$from/machinon.mime.xml" "$kind"
    cp "$from/machinon.metainfo.xml" "$about"
fi
for tell in "update-mime-database $data/mime" "update-desktop-database $data/applications"; do
    if command -v "${tell%% *}" >/dev/null 2>&1 && [ -d "${tell#* }" ]; then
        $tell
    fi
done
