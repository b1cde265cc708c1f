# Kessik: everything a fresh machine needs is made here. `make help` lists the targets.
SHELL := /bin/bash
.DEFAULT_GOAL := help
BIN := .venv/bin
WEB := web/node_modules/.bin
PAGES := src/kessik/web_dist/index.html
PYTHON_SOURCES := $(shell find src/kessik -name '*.py' -not -path '*/web_dist/*')
GUIDE_SOURCES := tools/guide.py $(wildcard docs/guide/*.md)
WEB_SOURCES := $(shell find web/src web/public -type f -not -name '*.gen.ts' 2>/dev/null) web/index.html web/vite.config.ts web/tsconfig.json web/package.json

help: ## list the targets
	@grep -hE '^[a-z-]+:.*##' $(MAKEFILE_LIST) | sed -E 's/^([a-z-]+):.*## (.*)/  make \1\t\2/' | expand -t 18

.stamps/python: requirements.lock pyproject.toml
	@mkdir -p .stamps
	test -x $(BIN)/python || python3 -m venv .venv
	test -x $(BIN)/uv || $(BIN)/python -m pip install --quiet --disable-pip-version-check uv
	$(BIN)/uv pip sync --quiet --compile-bytecode --require-hashes requirements.lock --python $(BIN)/python
	$(BIN)/uv pip install --quiet --python $(BIN)/python --no-deps --no-build-isolation -e .
	$(BIN)/python -m compileall -q src/kessik
	@touch $@

.stamps/web: web/package.json web/pnpm-lock.yaml
	@mkdir -p .stamps
	cd web && npm exec --yes -- pnpm@10 install --frozen-lockfile --silent
	@touch $@

.stamps/browser:
	@mkdir -p .stamps
	@if command -v chromium >/dev/null && command -v chromedriver >/dev/null; then true; \
	elif [ "$$(id -u)" = 0 ] && command -v apt-get >/dev/null; then apt-get update -qq && apt-get install -y -qq chromium chromium-driver >/dev/null; \
	else echo "The browser tests need Chromium: install the packages chromium and chromium-driver, then run this again."; exit 1; fi
	@touch $@

web/src/api/schema.gen.ts: .stamps/python .stamps/web $(PYTHON_SOURCES) $(GUIDE_SOURCES)
	$(BIN)/python -m kessik.api.contract > web/openapi.json
	$(BIN)/python -m kessik.api.contract --limits > web/src/domain/limits.gen.ts
	$(BIN)/python -m kessik.api.contract --words > web/src/domain/words.gen.ts
	$(BIN)/python -m tools.guide > web/src/domain/guide.gen.ts
	$(BIN)/python -m tools.guide --index > web/src/domain/guideIndex.gen.ts
	cd web && node_modules/.bin/openapi-typescript ./openapi.json --default-non-nullable false -o src/api/schema.gen.ts > /dev/null

$(PAGES): web/src/api/schema.gen.ts $(WEB_SOURCES)
	cd web && node_modules/.bin/vite build --logLevel warn

.PHONY: help build demo dev test check check-python check-web words lint lint-python lint-web unit unit-python unit-web bench format lock screenshots wheel manual clean

build: $(PAGES) ## everything `make demo` needs, without starting; leaves .venv/bin/kessik

demo: build ## set up, build and start with demo data on http://127.0.0.1:8737
	$(BIN)/kessik demo

dev: build ## both servers with reload: pages on http://127.0.0.1:5173, API on 8737
	@trap 'kill 0' EXIT; \
	KESSIK_DATA=$${KESSIK_DATA:-.dev-data} $(BIN)/uvicorn kessik.api.development:app --factory --reload --reload-dir src/kessik --port 8737 & \
	cd web && node_modules/.bin/vite

lint: build lint-python lint-web ## linters, formatters, type checks, boundaries

lint-python: build
	$(BIN)/ruff check src tests benchmarks tools
	$(BIN)/ruff format --check --quiet src tests benchmarks tools
	$(BIN)/mypy src
	$(BIN)/lint-imports --no-cache

lint-web: build
	cd web && node_modules/.bin/tsc --noEmit
	cd web && node_modules/.bin/biome check --error-on-warnings .
	cd web && node_modules/.bin/depcruise src --config .dependency-cruiser.cjs

unit: build .stamps/browser ## all tests, those of the pages beside the others
	@$(MAKE) --no-print-directory --jobs 2 unit-python unit-web

unit-python: build .stamps/browser
	$(BIN)/pytest -n 3 --dist worksteal --durations=15

unit-web: build
	cd web && node_modules/.bin/vitest run --silent

check: build ## linters, types, and the tests of the core and of the pages' own logic, side by side
	@$(MAKE) --no-print-directory --jobs 2 check-python check-web

check-python: lint-python
	$(BIN)/pytest -n 3 tests/core tests/interchange tests/instruments tests/test_vocabulary.py tests/test_limits.py tests/test_documents.py

check-web: lint-web unit-web

words: build ## print every sentence that a tester can read, with where it stands
	$(BIN)/python -m tools.sentences

test: lint unit ## set up whatever is missing; linters, types, boundaries and all tests

bench: build ## accuracy, coverage and speed against references measured in the same run
	$(BIN)/python -m benchmarks

format: build ## put both sides in their formatter's shape
	$(BIN)/ruff check --fix --quiet src tests benchmarks
	$(BIN)/ruff format --quiet src tests benchmarks
	cd web && node_modules/.bin/biome check --write .

lock: .stamps/python ## renew requirements.lock from pyproject.toml
	$(BIN)/uv pip compile --quiet pyproject.toml --extra dev --python-version 3.11 --generate-hashes --no-header --no-emit-index-url -o requirements.lock

screenshots: build .stamps/browser ## take the pictures of docs/screenshots anew from the demo data
	$(BIN)/python -m tests.browser.screenshots

wheel: build ## the package to install anywhere with pip, in dist/
	$(BIN)/python -m hatchling build -t wheel

manual: .stamps/python ## write docs/kessik.1 anew from what the commands say
	$(BIN)/kessik manual > docs/kessik.1

clean: ## remove what was built
	rm -rf .stamps .venv web/node_modules src/kessik/web_dist web/openapi.json web/src/api/schema.gen.ts web/src/domain/*.gen.ts
