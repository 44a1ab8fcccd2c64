#!/usr/bin/env bash
# Every check, quickest first: format, lint, types, import rules, front end, then all tests.
set -euo pipefail
cd "$(dirname "$0")/.."
PY=${PY:-.venv/bin/python}
CHROMIUM=/usr/bin/chromium

if [ ! -x "$CHROMIUM" ]; then
  if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
    echo "Chromium is missing: installing Debian's"
    apt-get update -qq
    DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends chromium >/dev/null
  else
    echo "The browser tests need Chromium at $CHROMIUM. As root: apt-get install --no-install-recommends chromium" >&2
    exit 1
  fi
fi

$PY -m ruff format --check --quiet src tests tools
$PY -m ruff check --quiet src tests tools
# the front end beside mypy; each says all it has to say before either ends it
(cd web && npx --no-install biome check . && npx --no-install tsc --noEmit && npx --no-install vitest run --reporter=dot) &
web=$!
$PY -m mypy || { wait $web || true; exit 1; }
.venv/bin/lint-imports --no-logo 2>/dev/null || .venv/bin/lint-imports
wait $web
# the files that take longest come first by name, so no worker is left alone with them at the end
exec $PY -m pytest -n auto --dist loadfile --no-loadscope-reorder
