# Every target does the set-up it needs; a second run finds it done.
SHELL := /bin/bash
PYTHON ?= python3
BIN := .venv/bin
export UV_PYTHON_DOWNLOADS := never
export PYTHONWARNINGS := ignore::DeprecationWarning
# What Python compiles is kept, also where the surroundings say not to: a server starts in half the time.
export PYTHONDONTWRITEBYTECODE :=
PORT ?= 8000
PACKAGES_RUN := python3-venv ca-certificates
PACKAGES_TEST := chromium fonts-dejavu-core redis-server

# Page, Python and packages of the system are set up side by side.
TOGETHER := --no-print-directory -j 3

.PHONY: demo ready test soak lint bench screenshots api clean

demo:
	@$(MAKE) $(TOGETHER) .setup/static .setup/kernels
	@$(BIN)/gondola demo --port $(PORT)

ready:
	@$(MAKE) $(TOGETHER) .setup/static .setup/apt-test .setup/kernels

# The quick ones; what takes minutes is tagged "long" and run by `make soak`.
test: ready
	$(BIN)/python -m unittest discover -s core/tests -p "test_[a-ep-z]*.py" & early=$$!; \
	$(BIN)/python -m unittest discover -s core/tests -p "test_[f-o]*.py"; late=$$?; wait $$early && exit $$late
	cd web && npm test
	$(BIN)/python server/manage.py test --parallel 2 --exclude-tag long gondola_server people keeping scenes shapes answers jobs bench documents stock learning log look studio library e2e

# The long ones, with a seed; writes docs/reliability.md. SOAK="--minutes 1" makes it shorter.
soak: ready
	$(BIN)/python -m soak.run $(SOAK)

lint: .setup/python .setup/node
	$(BIN)/ruff check .
	$(BIN)/mypy --config-file core/mypy.ini
	$(BIN)/lint-imports
	cd web && npm run --silent lint && npm run --silent typecheck
	scripts/check-api-types

bench: .setup/static .setup/apt-test
	$(BIN)/python benchmarks/run.py

screenshots: .setup/static .setup/apt-test
	$(BIN)/python scripts/screenshots.py

api: .setup/python .setup/node
	GONDOLA_SECRET_KEY=unused $(BIN)/python server/manage.py openapi web/openapi.json
	cd web && npm run --silent api-types
	$(BIN)/python scripts/web-fixture

clean:
	rm -rf .setup web/dist server/static_collected

.setup:
	@mkdir -p .setup

.setup/apt-run: | .setup
	scripts/apt-packages $(PACKAGES_RUN)
	@touch $@

.setup/apt-test: | .setup/apt-run
	scripts/apt-packages $(PACKAGES_TEST)
	@touch $@

.setup/venv: requirements/uv.txt | .setup/apt-run
	$(PYTHON) -m venv .venv
	$(BIN)/python -m pip install --quiet --require-hashes -r requirements/uv.txt
	@touch $@

.setup/python: .setup/venv requirements/dev.txt core/pyproject.toml server/pyproject.toml
	$(BIN)/uv pip install --quiet --python $(BIN)/python --require-hashes -r requirements/dev.txt
	$(BIN)/uv pip install --quiet --python $(BIN)/python --no-deps -e core -e server
	@touch $@

.setup/node: web/package-lock.json web/package.json | .setup
	@scripts/check-node
	cd web && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

.setup/web: .setup/node $(shell find web/src web/public -type f) web/vite.config.ts web/index.html
	cd web && npm run --silent build
	@touch $@

.setup/static: .setup/web .setup/python
	GONDOLA_SECRET_KEY=unused $(BIN)/python server/manage.py collectstatic --noinput --clear --verbosity 0
	@touch $@

# Compile the kernels once, so that the first page need not wait for them. Those that call others are kept by their
# own file alone: none of the old ones may stay.
.setup/kernels: .setup/python $(shell grep -rl njit core/gondola_core --include=*.py)
	@find core/gondola_core -name "*.nb[ic]" -delete
	$(BIN)/gondola prepare --only heat > /dev/null & first=$$!; \
	$(BIN)/gondola prepare --only pictures stills > /dev/null; second=$$?; \
	wait $$first && exit $$second
	@touch $@
