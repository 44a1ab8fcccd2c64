"""How many faults the tests see: cosmic-ray's mutants of a seeded sample, each tried on the tests that run its line."""

import argparse
import math
import os
import random
import shutil
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from queue import SimpleQueue
from xml.etree import ElementTree

import parso.python.tree  # noqa: F401  cosmic-ray's operators are found only once this is there
from cosmic_ray.ast import ast_nodes, get_ast
from cosmic_ray.mutating import mutate_code
from cosmic_ray.plugins import get_operator, operator_names

ROOT = Path(__file__).parent.parent
COVER = ROOT / ".venv-mutants/cover"
sys.path.append(str(COVER))

from coverage import CoverageData  # noqa: E402

WHERE = ("core/plan", "core/bench", "core/melts", "services", "store")
# a union in an annotation is no code, and some need to be told a variable
NO_FAULTS = ("BitOr", "ExceptionReplacer", "VariableReplacer", "VariableInserter")
# of words and small numbers what is equal is the same
ALIKE = ("_Eq_Is", "_NotEq_IsNot")
# that a thing cannot be changed is for the one who writes, what is kept is only quicker: no fault of what is shown
NO_FAULT_LINES = ("@dataclass", "@cache", "@lru_cache", "kind: Literal", "code: Literal")
TESTS = (
    "tests/core",
    "tests/services",
    "tests/api/test_api.py",
    "tests/api/test_access.py",
    "tests/store",
    "tests/formats",
    "tests/answers",
)
# what is run when the program is read is in the published types, which a process of their own prints
OF_TYPES = "tests/api/test_api.py::test_document_and_types_are_not_stale"
# what no test has seen in this time counts as not seen: the share found is a lower bound
TESTS_S = 90.0


@dataclass(frozen=True)
class Mutant:
    """One change of one file."""

    path: Path
    operator: str
    occurrence: int
    line: int


def mutants() -> Iterator[Mutant]:
    operators = {
        name: get_operator(name)
        for name in operator_names()
        if not any(part in name for part in NO_FAULTS) and not name.endswith(ALIKE)
    }
    for path in sorted(p for where in WHERE for p in (ROOT / "src/umber_pebble" / where).glob("*.py")):
        text = path.read_text("utf-8")
        nodes, lines = list(ast_nodes(get_ast(text))), text.splitlines()
        for name, operator in operators.items():
            made = operator()
            at = [start for node in nodes for start, _ in made.mutation_positions(node)]
            yield from (
                Mutant(path.relative_to(ROOT), name, i, line)
                for i, (line, _) in enumerate(at)
                if not lines[line - 1].lstrip().startswith(NO_FAULT_LINES)
            )


def command(copy: Path, *args: str) -> tuple[list[str], dict[str, str]]:
    environment = {**os.environ, "PYTHONPATH": f"{copy / 'src'}:{COVER}"}
    return [str(ROOT / ".venv/bin/python"), "-m", *args], environment


class Reach:
    """Which tests run which line, and how long each takes: read from one run of them all, unchanged."""

    def __init__(self, copy: Path) -> None:
        words, environment = command(
            copy,
            "pytest",
            "-q",
            "-p",
            "no:cacheprovider",
            "--cov=umber_pebble",
            "--cov-context=test",
            "--cov-report=",
            "--junitxml=took.xml",
            "-n",
            str(os.cpu_count() or 1),
            "--dist",
            "loadfile",
            *TESTS,
        )
        if subprocess.run(words, cwd=copy, env=environment, stdout=subprocess.DEVNULL, check=False).returncode:
            raise SystemExit("the tests do not pass as they are: nothing would be shown")
        self._copy = copy
        self._data = CoverageData(str(copy / ".coverage"))
        self._data.read()
        self._took: dict[str, float] = {}
        for case in ElementTree.parse(copy / "took.xml").iter("testcase"):
            at = f"{case.get('classname')}.{case.get('name')}".replace(".", "/")
            self._took[at] = float(case.get("time", "0"))

    def _took_s(self, test: str) -> float:
        return self._took.get(test.replace(".py", "").replace("::", "/").replace(".", "/"), 0.0)

    def tests(self, mutant: Mutant) -> list[str]:
        """Those that run its line, the quickest first, as many as fit the time; of the file if it runs at import."""
        lines = self._data.contexts_by_lineno(str(self._copy / mutant.path))
        # a line within a longer statement is known by the line it begins on
        near = max((line for line in lines if line <= mutant.line), default=None)
        named = {name for name in lines.get(near or 0, ()) if name}
        fit, sum_s = [], 0.0
        if not named:
            named, fit = {name for names in lines.values() for name in names}, [OF_TYPES]
        for test in sorted({name.split("|")[0] for name in named if name}, key=self._took_s):
            sum_s += self._took_s(test)
            if sum_s > TESTS_S:
                break
            fit.append(test)
        return fit


def survives(mutant: Mutant, copy: Path, tests: list[str]) -> bool:
    """Whether all these tests pass with it; one that makes them endless does not survive."""
    file = copy / mutant.path
    text = file.read_text("utf-8")
    changed = mutate_code(text, get_operator(mutant.operator)(), mutant.occurrence)
    if changed is None:
        return False
    if not tests:
        return True
    kept = file.stat()
    file.write_text(changed, "utf-8")
    (copy / "tried").write_text("\n".join(tests), "utf-8")
    words, environment = command(
        copy, "pytest", "-x", "-q", "-p", "no:cacheprovider", "-p", "no:pytest_cov", "@tried"
    )
    try:
        return (
            subprocess.run(
                words,
                cwd=copy,
                env={**environment, "PYTHONDONTWRITEBYTECODE": "1"},
                timeout=3 * TESTS_S,
                stdout=subprocess.DEVNULL,
                stderr=subprocess.DEVNULL,
                check=False,
            ).returncode
            == 0
        )
    except subprocess.TimeoutExpired:
        return False
    finally:
        file.write_text(text, "utf-8")
        os.utime(file, ns=(kept.st_atime_ns, kept.st_mtime_ns))


def interval(killed: int, of: int) -> tuple[float, float]:
    """The 95 % interval of a share. Source: Wilson 1927"""
    z, p = 1.96, killed / of
    middle, half = p + z * z / (2 * of), z * math.sqrt(p * (1 - p) / of + z * z / (4 * of * of))
    return (middle - half) / (1 + z * z / of), (middle + half) / (1 + z * z / of)


def copied(folder: Path) -> Path:
    """The program and its tests in a folder of their own, with their numbers compiled."""
    shutil.copytree(ROOT, folder, ignore=shutil.ignore_patterns(".venv*", "node_modules", ".git", "var"))
    for name in (".venv", "web/node_modules"):
        (folder / name).symlink_to(ROOT / name)
    words, environment = command(folder, "umber_pebble.cli", "compile")
    subprocess.run(words, env=environment, stdout=subprocess.DEVNULL, check=True)
    return folder


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--sample", type=int, default=150)
    asked.add_argument("--seed", type=int, default=1)
    asked.add_argument("--workers", type=int, default=os.cpu_count() or 1)
    args = asked.parse_args()
    begun = time.monotonic()
    every = list(mutants())
    sample = random.Random(args.seed).sample(every, min(args.sample, len(every)))
    print(f"{len(every)} mutants, {len(sample)} of them tried", flush=True)
    free: SimpleQueue[Path] = SimpleQueue()
    with tempfile.TemporaryDirectory() as folder, ThreadPoolExecutor(args.workers) as pool:
        copies = list(pool.map(copied, [Path(folder) / str(i) for i in range(args.workers)]))
        reach = Reach(copies[0])
        chosen = [reach.tests(mutant) for mutant in sample]
        for copy in copies:
            free.put(copy)

        def tried(mutant: Mutant, tests: list[str]) -> bool:
            copy = free.get()
            started = time.monotonic()
            alive = survives(mutant, copy, tests)
            free.put(copy)
            print(
                f"{'LIVES ' if alive else 'killed'} {time.monotonic() - started:4.0f} s of {len(tests)} tests  "
                f"{mutant.path}:{mutant.line}  {mutant.operator} {mutant.occurrence}",
                flush=True,
            )
            return alive

        killed = sum(not alive for alive in pool.map(tried, sample, chosen))
    low, high = interval(killed, len(sample))
    print(
        f"{killed} of {len(sample)} killed: {killed / len(sample):.0%} ({low:.0%} to {high:.0%} at 95 %); "
        f"asked: 80 %; {(time.monotonic() - begun) / 60:.0f} minutes"
    )


if __name__ == "__main__":
    main()
