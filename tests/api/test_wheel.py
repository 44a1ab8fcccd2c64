"""The package by itself: built, put into a folder of its own, and served away from the checkout."""

import os
import re
import shutil
import subprocess
import sys
import time
import urllib.request
from pathlib import Path
from urllib.error import URLError

from tests.http import call, free_port

ROOT = Path(__file__).parent.parent.parent


def test_the_wheel_serves_the_app_away_from_its_sources(tmp_path: Path) -> None:
    pip = [sys.executable, "-m", "pip", "--quiet", "--disable-pip-version-check"]
    build = [*pip, "wheel", "--no-deps", "--no-build-isolation", "--wheel-dir", str(tmp_path)]
    # sources are copied first: what is built leaves no trace beside them
    copy = tmp_path / "copy"
    shutil.copytree(ROOT / "src", copy / "src", ignore=shutil.ignore_patterns("__pycache__", "*.egg-info"))
    for name in ("pyproject.toml", "README.md"):
        shutil.copy(ROOT / name, copy / name)
    subprocess.run([*build, str(copy)], check=True)
    [wheel] = tmp_path.glob("*.whl")
    site = tmp_path / "site"
    subprocess.run([*pip, "install", "--no-deps", "--target", str(site), str(wheel)], check=True)
    port = free_port()
    # what is compiled elsewhere need not be compiled again to be served
    env = {**os.environ, "PYTHONPATH": str(site), "NUMBA_DISABLE_JIT": "1"}
    command = [sys.executable, "-m", "umber_pebble.cli", "--data", "data", "serve", "--port", str(port)]
    with subprocess.Popen(
        command, cwd=tmp_path, env=env, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL
    ) as app:
        try:
            page = _answer(f"http://127.0.0.1:{port}/", app)
            assert '<div id="root">' in page
            scripts = re.findall(r'"(/assets/[^"]+[.]js)"', page)
            assert sum(len(_answer(f"http://127.0.0.1:{port}{script}", app)) for script in scripts) > 10_000
            assert '"version"' in _answer(f"http://127.0.0.1:{port}/api/kitchen", app)
            # the tables of every room go with it
            status, found = call(f"http://127.0.0.1:{port}", "POST", "/api/find", {"said": "unmould"})
            assert (status, found["found"]["understood"]["read"]["question"]) == (200, "unmould")
        finally:
            app.terminate()


def _answer(address: str, app: "subprocess.Popen[bytes]") -> str:
    for _ in range(1200):
        assert app.poll() is None, "it ended by itself"
        try:
            with urllib.request.urlopen(address) as answer:
                return str(answer.read().decode())
        except URLError:
            time.sleep(0.1)
    raise AssertionError(f"no answer from {address}")
