# Everything that is done with Zarabanda, from a fresh clone on. `make help` lists it.
PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
STATIC := src/zarabanda/web/static/index.html
FRONT := frontend/index.html $(shell find frontend/src -type f 2>/dev/null) frontend/vite.config.ts

# sources are compiled once, not at each start of a process
unexport PYTHONDONTWRITEBYTECODE

.DEFAULT_GOAL := help
.PHONY: help setup demo check test thorough fuzz lint types imports bench screenshots api answers chromium clean

help: ## list the targets
	@grep -hE '^[a-z-]+:.*## ' $(MAKEFILE_LIST) | sed 's/:.*## /|/' | awk -F'|' '{printf "  make %-14s %s\n", $$1, $$2}'

$(VENV)/.done: pyproject.toml requirements.lock
	test -x $(BIN)/python || $(PYTHON) -m venv $(VENV)
	$(BIN)/pip install -q --disable-pip-version-check -r requirements.lock
	$(BIN)/pip install -q --disable-pip-version-check --no-deps -e .
	@touch $@

frontend/node_modules/.done: frontend/package.json frontend/package-lock.json
	cd frontend && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

$(STATIC): frontend/node_modules/.done $(FRONT)
	cd frontend && npm run --silent build
	@touch $@

setup: $(VENV)/.done $(STATIC) ## install and build everything into this folder

demo: setup ## run the demo show and open it
	@exec $(BIN)/zarabanda demo

check: setup chromium ## the checks for every commit: quick tests, lint, types
	@$(BIN)/python -m tests.run check

test: setup chromium ## pass every check
	@$(BIN)/python -m tests.run test

thorough: setup chromium ## every check with ten times as many examples, new ones each time: for the night
	@$(BIN)/python -m tests.run thorough

lint: setup
	$(BIN)/ruff check src tests
	$(BIN)/ruff format --check src tests
	cd frontend && npm run --silent lint

types: setup
	$(BIN)/mypy

imports: setup
	$(BIN)/lint-imports

fuzz: setup ## send odd requests and messages for some minutes
	FUZZ_EXAMPLES=100 $(BIN)/pytest tests/alone/test_fuzz.py

chromium:
	@test -x /usr/bin/chromium || { echo "Installing Debian's chromium"; apt-get update -qq && apt-get install -y -qq chromium >/dev/null; }

bench: setup ## measure frame times, jitter and reaction
	$(BIN)/zarabanda bench --universes 8 --universes 64 --universes 256 --seconds 20 --live --load

screenshots: setup chromium ## renew the pictures in docs/screenshots
	$(BIN)/zarabanda screenshots

api: setup ## renew the front end's types from the API
	$(BIN)/python -m zarabanda.web.openapi frontend/src/api/openapi.json
	cd frontend && npm run --silent api

answers: setup ## record anew what the demo answers, for the tests of the front end
	$(BIN)/python -m tests.answers

clean: ## remove what was installed and built
	rm -rf $(VENV) frontend/node_modules src/zarabanda/web/static
