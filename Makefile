# make demo: set up and run with demo data. make test: every check. Both work on a fresh machine.
PY := .venv/bin/python
STAMPS := var/stamps
DEMO_DATA := var/demo
PORT ?= 8722

.PHONY: demo dev test wheel answers bench fuzz mutants screenshots types format setup backup

setup: $(STAMPS)/python $(STAMPS)/node

$(STAMPS)/python: requirements.lock pyproject.toml
	@mkdir -p $(STAMPS)
	test -d .venv || python3 -m venv .venv
	$(PY) -m pip install --quiet --disable-pip-version-check --require-hashes -r requirements.lock
	$(PY) -m pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation -e .
	.venv/bin/umber-pebble compile
	@touch $@

$(STAMPS)/node: web/package-lock.json
	@mkdir -p $(STAMPS)
	cd web && npm ci --silent --no-progress
	@touch $@

WEB := src/umber_pebble/web_dist/index.html
WEB_SOURCES := $(shell find web/src web/index.html web/vite.config.ts web/public -type f 2>/dev/null)
$(WEB): $(STAMPS)/node $(WEB_SOURCES)
	cd web && npm run --silent build

demo: setup $(WEB)
	.venv/bin/umber-pebble --data $(DEMO_DATA) serve --demo --port $(PORT)

dev: setup
	.venv/bin/umber-pebble --data $(DEMO_DATA) serve --demo --port $(PORT) & \
	trap "kill $$!" EXIT; cd web && UMBER_PEBBLE_PORT=$(PORT) npm run dev

types: setup
	.venv/bin/umber-pebble openapi > docs/openapi.json
	.venv/bin/umber-pebble schema > docs/workshop.schema.json
	.venv/bin/umber-pebble passes > docs/passes.md
	cd web && npx --no-install openapi-typescript ../docs/openapi.json -o src/api/schema.d.ts --default-non-nullable=false

format: setup
	$(PY) -m ruff format src tests tools
	$(PY) -m ruff check --fix --quiet src tests tools
	cd web && npx --no-install biome check --write .

test: setup $(WEB)
	PY=$(PY) tools/check.sh

wheel: setup $(WEB)
	rm -rf build dist
	$(PY) -m pip wheel --quiet --no-deps --no-build-isolation --wheel-dir dist .

bench: setup $(WEB)
	$(PY) tools/bench.py

answers: setup
	rm -rf tests/answers/kept
	KEEP_ANSWERS=1 $(PY) -m pytest tests/answers

fuzz: setup
	UMBER_PEBBLE_CASES=40000 HISTORY_STEPS=10000 KILLS=100 BROWSER_STEPS=400 $(PY) -m pytest tests/api/test_attack.py tests/api/test_killed.py \
		tests/services/test_any_history.py tests/browser/test_two.py

mutants: setup
	test -d .venv-mutants || python3 -m venv .venv-mutants
	.venv-mutants/bin/python -m pip install --quiet --disable-pip-version-check -r requirements-mutants.txt
	test -d .venv-mutants/cover || .venv-mutants/bin/python -m pip install --quiet --disable-pip-version-check --no-deps \
		--target .venv-mutants/cover coverage==7.17.5 pytest-cov==7.1.0
	.venv-mutants/bin/python tools/mutants.py

screenshots: setup $(WEB)
	$(PY) tools/screenshots.py
