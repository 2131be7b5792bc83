# Every target sets up what it needs first; nothing has to be installed by hand.
PYTHON ?= python3
BIN := .venv/bin

.PHONY: setup demo run install uninstall test lint bench trials soak screenshots lock

setup:
	@PYTHON="$(PYTHON)" sh scripts/setup.sh

demo: setup
	$(BIN)/machinon --demo

run: setup
	$(BIN)/machinon

# Into the desktop's menu, for this person alone; uninstall leaves their shop.
install: setup
	sh scripts/install.sh

uninstall:
	sh scripts/install.sh --remove

# compiled modules are kept: the programs that tests start need them too; one process
# more than there are cores, as some tests wait for a program or a wire
test: setup
	QT_QPA_PLATFORM=offscreen PYTHONDONTWRITEBYTECODE= $(BIN)/unittest-parallel -j $$(($$(nproc) + 1)) --start-directory tests --top-level-directory . --level class

lint: setup
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/mypy
	$(BIN)/lint-imports

bench: setup
	QT_QPA_PLATFORM=offscreen $(BIN)/python scripts/bench.py

# Kills, failing writes, damaged files and chance, many times over: minutes.
trials: setup
	$(BIN)/python scripts/trials.py

# Ten minutes of wires that flood, drop out and garble.
soak: setup
	$(BIN)/python scripts/soak.py

screenshots: setup
	QT_QPA_PLATFORM=offscreen $(BIN)/machinon --shoot docs/screenshots

# After a change of the dependencies in pyproject.toml.
lock: setup
	$(BIN)/python -m pip install --quiet pip-tools
	$(BIN)/pip-compile --quiet --extra dev --strip-extras --no-emit-index-url --no-emit-find-links \
		--no-header --no-annotate --output-file requirements.lock pyproject.toml
	echo "setuptools==$$($(BIN)/python -c 'import setuptools; print(setuptools.__version__)')" >> requirements.lock
