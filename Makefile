# The two commands of the README are `make demo` and `make test`; both work from a fresh clone.
SHELL := /bin/bash
PY := .venv/bin/python
STAMP := .stamp
export PIP_DISABLE_PIP_VERSION_CHECK := 1
# What is compiled once is there for every process that is started; most of a start would go into it.
export PYTHONDONTWRITEBYTECODE :=

.PHONY: demo serve test ready lint lint-python lint-web pytest types types-check unit browser torture bench mutants shots build wheel dev clean

demo: $(STAMP)/run $(STAMP)/web
	@$(PY) -m ausblick demo $(ARGS)

serve: $(STAMP)/run $(STAMP)/web
	@$(PY) -m ausblick serve $(ARGS)

# Leaves .venv/bin/ausblick with the page in it.
build: $(STAMP)/run $(STAMP)/web

# One file for a machine without Node: dist/ausblick-VERSION-py3-none-any.whl
wheel: build
	@rm -rf build dist
	@$(PY) -m pip wheel -q --no-deps --no-build-isolation -w dist .
	@ls dist/*.whl

# The page with hot reload, the server started again when Python changes.
dev: $(STAMP)/run $(STAMP)/node
	@$(PY) scripts/dev.py

# Lint beside the tests: what it takes then is free at their end. Each says its part in one piece.
test: ready
	@$(MAKE) --no-print-directory -j 3 --output-sync=target pytest lint-python lint-web

# uv is ten times faster where it is there; pip does the same everywhere.
define install
	@if command -v uv >/dev/null 2>&1; then VIRTUAL_ENV=.venv uv pip install -q --no-deps --require-hashes -r $(1); \
	else $(PY) -m pip install -q --no-deps --require-hashes -r $(1); fi
endef

$(STAMP)/venv:
	@mkdir -p $(STAMP)
	python3 -m venv .venv
	@touch $@

$(STAMP)/run: requirements.txt pyproject.toml | $(STAMP)/venv
	$(call install,requirements.txt)
	@$(PY) -m pip install -q --no-deps --no-build-isolation -e .
	@$(PY) -m compileall -q src
	@touch $@

$(STAMP)/dev: requirements-dev.txt $(STAMP)/run
	$(call install,requirements-dev.txt)
	@touch $@

$(STAMP)/node: web/package-lock.json web/package.json
	@mkdir -p $(STAMP)
	cd web && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

$(STAMP)/web: $(STAMP)/node $(STAMP)/run scripts/write_notices.py $(shell find web/src web/public -type f 2>/dev/null) web/index.html web/vite.config.ts
	cd web && npx vite build --logLevel warn
	@$(PY) scripts/write_notices.py
	@touch $@

$(STAMP)/chromium:
	@mkdir -p $(STAMP)
	@command -v chromium >/dev/null 2>&1 || \
	  (echo "Installing Chromium for the browser tests" && apt-get update -qq && \
	   apt-get install -y -qq --no-install-recommends chromium >/dev/null)
	@touch $@

types: $(STAMP)/dev $(STAMP)/node
	$(PY) scripts/write_docs.py
	cd web && npx openapi-typescript ../docs/api/openapi.json -o src/lib/schema.generated.d.ts >/dev/null

types-check: $(STAMP)/dev $(STAMP)/node
	$(PY) scripts/write_docs.py --check
	@cd web && npx openapi-typescript ../docs/api/openapi.json -o ../.stamp/schema.d.ts >/dev/null && \
	  cmp -s ../.stamp/schema.d.ts src/lib/schema.generated.d.ts || \
	  { echo "stale: web/src/lib/schema.generated.d.ts; run 'make types'"; exit 1; }

# Everything that must be there before tests begin, so that what runs side by side does not install twice.
ready: $(STAMP)/dev $(STAMP)/web $(STAMP)/chromium

lint-python: $(STAMP)/dev
	.venv/bin/ruff check .
	.venv/bin/ruff format --check -q .
	.venv/bin/mypy

lint-web: $(STAMP)/node types-check
	cd web && npm run --silent lint
	cd web && npm run --silent check
	cd web && npm run --silent test

lint: lint-python lint-web

# Three workers on two cores, each with one thread for arithmetic (tests/conftest.py): tests wait as well.
pytest: ready
	+$(PY) -m pytest -n 3 tests || $(PY) scripts/second_look.py

unit: $(STAMP)/dev
	$(PY) -m pytest -n 2 tests --ignore tests/browser

browser: ready
	$(PY) -m pytest -n 2 tests/browser

torture: ready
	HYPOTHESIS_PROFILE=long $(PY) -m pytest -n 2 -m torture tests

# Small faults put into the code one by one: does a test notice? ARGS="--sample 12" tries some.
mutants: ready
	$(PY) scripts/mutants.py $(ARGS)

bench: $(STAMP)/dev
	$(PY) benchmarks/run.py

shots: $(STAMP)/dev $(STAMP)/web $(STAMP)/chromium
	$(PY) scripts/shots.py

clean:
	rm -rf .venv $(STAMP) build dist web/.svelte-check web/node_modules src/ausblick/web/static src/*.egg-info
