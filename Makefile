# `make help` lists what there is to do. Needs Python 3.11 or newer, Node 20 or newer, and a package registry for each.
unexport PYTHONDONTWRITEBYTECODE
MAKEFLAGS += --no-builtin-rules -j2
SHELL := /bin/bash
.ONESHELL:
.SHELLFLAGS := -eu -o pipefail -c
.DEFAULT_GOAL := help
.PHONY: help setup demo test test-heart lint types unit page-tests bench soak soak-edits soak-jobs soak-letters soak-more soak-mutants soak-server screens pictures prints api lock clean

PYTHON ?= python3
PORT ?= 8000
SHEETS ?= ../lean-notch-screens
BIN := .venv/bin
UV := .tools/bin/uv
MANAGE := $(BIN)/python server/manage.py
NPM := npm --prefix web --loglevel error --no-update-notifier
PAGE_SOURCES := $(shell find web/src web/public -type f 2>/dev/null) web/index.html web/vite.config.ts

# The demo does without what only checks need; two installs at once would take each other's files away.
NPM_STAMP := $(if $(filter test lint types unit page-tests bench soak soak-edits soak-jobs soak-letters soak-more soak-server screens pictures prints api,$(MAKECMDGOALS)),.stamps/npm-dev,.stamps/npm)

help: ## lists these
	@grep -hE '^[a-z-]+:.*## ' Makefile | sed -E 's/:.*## /\t/' | expand -t 14

demo: .stamps/venv .stamps/page ## sets everything up and starts the app with its demo data
	@$(MANAGE) migrate -v0
	$(MANAGE) seed_demo
	echo "Lean Notch: http://localhost:$(PORT) (Ctrl-C ends it)"
	LEAN_NOTCH_DEMO=1 exec $(BIN)/lean-notch-server start --port $(PORT)

setup: .stamps/venv ## installs the command line into .venv/bin
	@echo "$(BIN)/lean-notch is ready: see docs/command-line.md"

test: lint types unit page-tests ## everything that checks the project, Chromium included
	@echo "All checks passed."

lint: .stamps/dev .stamps/npm-dev ## formatters, linters and the import rule
	@$(BIN)/ruff format --check -q .
	$(BIN)/ruff check -q .
	$(BIN)/lint-imports --no-logo 2>/dev/null >.stamps/imports.log || { cat .stamps/imports.log; exit 1; }
	$(NPM) run -s lint
	$(PYTHON) scripts/check_locks.py

types: .stamps/dev .stamps/npm-dev ## strict type checks of Python and TypeScript
	@$(BIN)/mypy --no-error-summary -p lean_notch -p config -p upkeep -p accounts -p workshop -p designs -p tasks -p demo -p results -p ground
	$(NPM) run -s check

test-heart: .stamps/dev ## the core's tests of proof, joints, making, basis and geometry; ends at the first failure
	@$(BIN)/pytest tests/heart tests/references -x -n 2 --dist=loadgroup

unit: .stamps/dev .stamps/page .stamps/chromium ## Python tests: core, server, browser
	@$(BIN)/pytest -n 2 --dist=loadgroup

page-tests: .stamps/npm-dev ## tests of the page's own code
	@$(NPM) run -s test

soak: .stamps/dev ## random shapes (SHAPES=n) and recipes of joined parts (CASES=n a recipe; STATE=file to go on from there)
	@$(BIN)/pytest tests/soak/test_soak.py tests/soak/test_joint_soak.py -n 2

soak-edits: .stamps/dev ## random edits of all verbs (EDITS=n, 5000 if left out): memory against none, inverses, merges, undo and redo
	@$(BIN)/pytest tests/soak/test_edit_soak.py -n 2 -s

soak-jobs: .stamps/dev ## random jobs of all recipes, boards and tools (JOBS=n, 300 if left out): written and proved
	@$(BIN)/pytest tests/soak/test_jobs_soak.py -n 2

soak-letters: .stamps/dev ## every letter of every font, cut at many heights through many boards
	@$(BIN)/pytest tests/soak/test_letters_soak.py -n 2

soak-more: .stamps/dev .stamps/page .stamps/chromium ## what `make test` leaves out: longer walks through the page, more of the same random cases
	@$(BIN)/pytest -m rare -n 2 --dist=loadgroup

soak-mutants: .stamps/dev ## small changes of the heart, one at a time: which of them no test notices (MUTANTS=n, STATE=file to go on from there)
	@$(BIN)/python scripts/mutants.py --listed $(if $(STATE),--state $(STATE))
	$(BIN)/python scripts/mutants.py --changes $(or $(MUTANTS),60) $(if $(STATE),--state $(STATE))

soak-server: .stamps/dev ## kills the server and its children 100 times at any moment; ROUNDS=n for more
	@$(BIN)/pytest tests/soak/test_server_soak.py -s

bench: .stamps/dev .stamps/page .stamps/chromium ## benchmarks; see docs/benchmarks.md
	@$(BIN)/pytest tests/bench --benchmark-enable --benchmark-only --benchmark-timer=time.process_time --benchmark-columns=median,stddev,max,rounds -s

screens: .stamps/dev .stamps/page .stamps/chromium ## contact sheets of all views, themes and widths, in SHEETS=folder
	@$(BIN)/python scripts/screens.py --sheets $(SHEETS)

pictures: .stamps/dev .stamps/page .stamps/chromium ## retakes docs/screenshots/
	@$(BIN)/python scripts/screens.py

prints: .stamps/dev ## writes tests/files/prints.json anew: what files every job of the tests gives
	@$(BIN)/python scripts/take_prints.py

api: .stamps/dev .stamps/npm-dev ## the API's schema, and the page's types made from it
	@$(MANAGE) export_openapi_schema --api config.api.api --sorted --indent 1 --output docs/openapi.json
	$(NPM) run -s types
	cd web && npx prettier --log-level warn --write src/api/schema.d.ts

lock: $(UV) ## makes the lock files anew, without addresses
	@for set in requirements requirements-dev; do
		$(UV) pip compile -q --universal --no-header --no-annotate --python-version 3.11 $$set.in -o $$set.txt
	done
	$(NPM) install --package-lock-only
	$(PYTHON) scripts/check_locks.py --mend

clean: ## takes away what was installed and built; the data stays
	@rm -rf .venv .tools .stamps web/node_modules web/dist

$(UV):
	@$(PYTHON) -c 'import sys; sys.exit("Lean Notch needs Python 3.11 or newer.") if sys.version_info < (3, 11) else None'
	$(PYTHON) -m pip install -q --disable-pip-version-check --root-user-action=ignore --target .tools uv==0.13.9

.stamps/venv: requirements.txt pyproject.toml | $(UV)
	@mkdir -p .stamps
	[ -d .venv ] || $(UV) venv -q --python $(PYTHON) .venv
	$(UV) pip install -q -p .venv -r requirements.txt
	$(UV) pip install -q -p .venv --no-deps -e .
	touch $@

.stamps/dev: requirements-dev.txt .stamps/venv
	@$(UV) pip install -q -p .venv -r requirements-dev.txt
	touch $@

.stamps/npm: web/package-lock.json
	@mkdir -p .stamps
	$(NPM) ci --omit=dev
	touch $@

.stamps/npm-dev: web/package-lock.json
	@mkdir -p .stamps
	$(NPM) ci
	touch .stamps/npm $@

.stamps/page: $(PAGE_SOURCES) web/package-lock.json | $(NPM_STAMP) .stamps/venv
	@$(NPM) run -s build -- --logLevel warn
	$(BIN)/python -m whitenoise.compress -q web/dist
	touch $@

.stamps/chromium:
	@mkdir -p .stamps
	if ! [ -x /usr/bin/chromium ]; then
		as_root=$$([ "$$(id -u)" = 0 ] || echo sudo)
		$$as_root apt-get update -qq
		$$as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium >/dev/null
	fi
	touch $@
