#!/bin/sh
# Make .venv complete for this checkout: system libraries, Python packages,
# Machinon itself. Does nothing where nothing has changed; either everything
# is there at the end or it says exactly what to type.
set -eu
cd "$(dirname "$0")/.."

PACKAGES="libgl1 libegl1 libglib2.0-0 libfontconfig1 libdbus-1-3 libxkbcommon0 \
libxkbcommon-x11-0 libxcb-cursor0 libxcb-icccm4 libxcb-image0 libxcb-keysyms1 \
libxcb-randr0 libxcb-render-util0 libxcb-shape0 libxcb-xinerama0 xvfb"

python=${PYTHON:-python3}
if ! "$python" -c 'import sys; sys.exit(sys.version_info < (3, 11))' 2>/dev/null; then
    echo "Machinon needs Python 3.11 or newer; '$python' is not that." >&2
    echo "Install it, or name it: make PYTHON=/path/to/python3.11" >&2
    exit 1
fi
if ! "$python" -c 'import ensurepip, venv' 2>/dev/null; then
    PACKAGES="$PACKAGES python3-venv"
fi

missing=""
if command -v dpkg-query >/dev/null 2>&1; then
    for package in $PACKAGES; do
        # newer releases rename libraries (libglib2.0-0t64): what provides it counts
        if ! dpkg-query -W -f='${db:Status-Abbrev} ${Provides}\n' "$package" "${package}t64" \
                2>/dev/null | grep -q '^ii'; then
            missing="$missing $package"
        fi
    done
fi
if [ -n "$missing" ]; then
    if [ "$(id -u)" = 0 ]; then
        echo "Installing system libraries:$missing"
        DEBIAN_FRONTEND=noninteractive apt-get -qq update
        # shellcheck disable=SC2086
        DEBIAN_FRONTEND=noninteractive apt-get -qq install -y --no-install-recommends $missing >/dev/null
    else
        echo "Machinon needs some system libraries. Type this, then try again:" >&2
        echo "    sudo apt-get install --no-install-recommends$missing" >&2
        exit 1
    fi
fi

stamp=.venv/.machinon-setup
wanted=$(cat requirements.lock pyproject.toml scripts/setup.sh | cksum)
if [ "$(cat "$stamp" 2>/dev/null || true)" != "$wanted" ]; then
    echo "Setting up .venv (a minute or two, once)"
    [ -x .venv/bin/python ] || "$python" -m venv .venv
    .venv/bin/python -m pip install --quiet --disable-pip-version-check --requirement requirements.lock
    .venv/bin/python -m pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation --editable .
    echo "$wanted" > "$stamp"
fi
