# Dot Stack. `make demo` and `make test` do all their set-up; the second time they are quick.

PORT ?= 8412
DATA := demo-data
PYTHON := .venv/bin/python
UV_VERSION := 0.13.9
STATIC := dotstack/web/static/index.html
SHIPPED := dotstack/fonts/files/.ready
# Each process has a browser and a server of databases of its own.
PYTEST := $(PYTHON) -m pytest --numprocesses=auto --maxprocesses=4
UNCOMPILED := echo "== Running the engine's tests uncompiled, bounds of arrays looked at"; \
	PYTEST_PLUGINS=tools.uncompiled $(PYTEST) --hypothesis-profile=few tests/core/arrangement
HEADERS = $(shell python3 -c "import sysconfig; print(sysconfig.get_path('include'))")
FRONTEND_SOURCES := $(shell find frontend/src frontend/public -type f 2>/dev/null) \
	frontend/index.html frontend/vite.config.ts frontend/package.json

# What does not wait for each other is done side by side.
MAKEFLAGS += --jobs=2

.PHONY: demo test uncompiled dev bench sweep lint types lint-python lint-frontend compiled compiler packages clean

demo: compiled $(STATIC) $(SHIPPED)
	@test -z "$(RESET)" || { echo "== Starting afresh: removing $(DATA)"; rm -rf $(DATA); }
	@echo "== Starting Dot Stack"
	@.venv/bin/dotstack demo --port $(PORT) --folder $(DATA)

test: compiled $(STATIC) $(SHIPPED) packages
	@echo "== Running the front end's own tests"
	@cd frontend && npm run --silent test
	@echo "== Running all tests"
	@$(PYTEST)
	@$(UNCOMPILED)

uncompiled: compiled
	@$(UNCOMPILED)

lint: lint-python lint-frontend

lint-python: compiled
	@echo "== Python: style, types, arrows"
	@.venv/bin/ruff check .
	@.venv/bin/ruff format --check .
	@.venv/bin/mypy
	@.venv/bin/lint-imports
	@echo "== Generated files: the API's description, the schemas and the ranges"
	@.venv/bin/dotstack openapi | diff -u docs/openapi.json - || { echo "Run 'make types'."; exit 1; }
	@for kind in drawing kit; do .venv/bin/dotstack schema $$kind \
		| diff -u docs/$$kind-file.schema.json - || { echo "Run 'make types'."; exit 1; }; done
	@.venv/bin/dotstack ranges | diff -u frontend/src/api/ranges.json - \
		|| { echo "Run 'make types'."; exit 1; }

lint-frontend: frontend/node_modules/.ready
	@echo "== Front end: style, types, and those of the API"
	@cd frontend && npm run --silent types -- --check
	@cd frontend && npm run --silent lint && npm run --silent check

types: compiled frontend/node_modules/.ready
	@.venv/bin/dotstack openapi > docs/openapi.json
	@for kind in drawing kit; do .venv/bin/dotstack schema $$kind > docs/$$kind-file.schema.json; done
	@.venv/bin/dotstack ranges > frontend/src/api/ranges.json
	@cd frontend && npm run --silent types

dev: compiled frontend/node_modules/.ready $(SHIPPED)
	@echo "== The server, and the front end rebuilt as you write: http://127.0.0.1:5173/"
	@trap 'kill 0' EXIT; .venv/bin/dotstack demo --folder $(DATA) & cd frontend && npm run dev

bench: compiled $(STATIC) $(SHIPPED) packages
	@$(PYTHON) -m bench.engine
	@$(PYTHON) -m bench.desk
	@$(PYTHON) -m bench.combining
	@$(PYTHON) -m bench.following
	@$(PYTHON) -m bench.refining
	@$(PYTHON) -m bench.lettering
	@$(PYTHON) -m bench.painting
	@$(PYTHON) -m bench.repeating
	@$(PYTHON) -m bench.shelf
	@$(PYTHON) -m bench.waits

sweep: compiled frontend/node_modules/.ready $(STATIC) $(SHIPPED) packages
	@$(PYTHON) -m bench.fuzz
	@$(PYTHON) -m bench.calls
	@$(PYTHON) -m bench.calls --postgresql
	@$(PYTHON) -m bench.kills
	@$(PYTHON) -m bench.load
	@$(PYTHON) -m bench.commands
	@$(PYTHON) -m bench.sweep --seconds 400 --keep build/sweep

compiled: .venv/.ready
	@$(PYTHON) setup.py --quiet build_ext --inplace

compiler:
	@echo '#include <Python.h>' | cc -fsyntax-only -x c -I "$(HEADERS)" - 2>/dev/null || { \
		echo "== Installing a C compiler and Python's headers, to compile the engine's inner loops"; \
		sh tools/apt.sh gcc libc6-dev python3-dev; }

.venv/.ready: requirements.lock pyproject.toml | compiler
	@echo "== Setting up Python in .venv"
	@command -v python3 >/dev/null || { echo "Python 3.11 is wanted: apt-get install python3"; exit 1; }
	@test -x $(PYTHON) || python3 -m venv .venv || { \
		echo "== Installing Debian's venv package"; sh tools/apt.sh python3-venv; python3 -m venv .venv; }
	@$(PYTHON) -m pip install --quiet --disable-pip-version-check uv==$(UV_VERSION)
	@.venv/bin/uv pip sync --quiet --python $(PYTHON) --require-hashes --compile-bytecode requirements.lock
	@.venv/bin/uv pip install --quiet --python $(PYTHON) --no-deps --no-build-isolation --editable .
	@touch $@

frontend/node_modules/.ready: frontend/package-lock.json frontend/package.json
	@echo "== Setting up the front end's packages"
	@cd frontend && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

$(STATIC): frontend/node_modules/.ready $(FRONTEND_SOURCES)
	@echo "== Building the front end"
	@cd frontend && npm run --silent build -- --logLevel warn
	@touch $@

$(SHIPPED): .venv/.ready frontend/node_modules/.ready tools/gather_fonts.py
	@echo "== Gathering the fonts that ship"
	@$(PYTHON) -m tools.gather_fonts
	@touch $@

# At once, and after what else may install something.
packages: | .venv/.ready
	@test -x /usr/bin/chromium-headless-shell \
		-a -e /usr/share/fonts/truetype/inter-vf/Inter-roman.var.ttf \
		-a -e /usr/share/fonts/truetype/dejavu/DejaVuSerif.ttf \
		&& ls /usr/lib/postgresql/*/bin/postgres >/dev/null 2>&1 || { \
		echo "== Installing what the tests need: Chromium, two fonts whose glyphs they combine,"; \
		echo "== and PostgreSQL, of which they start a server of their own"; \
		sh tools/apt.sh chromium-headless-shell fonts-inter-variable fonts-dejavu-core postgresql; }

clean:
	rm -rf .venv build frontend/node_modules dotstack/web/static dotstack/fonts/files $(DATA)
	find dotstack -name "*.so" -delete
