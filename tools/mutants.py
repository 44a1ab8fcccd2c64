"""How many faults the tests see: cosmic-ray's mutants of a seeded sample, each tried on the tests nearest to it."""

import argparse
import math
import os
import random
import re
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

import parso.python.tree  # noqa: F401  cosmic-ray's operators are found only once this is there
from cosmic_ray.ast import ast_nodes, get_ast
from cosmic_ray.mutating import mutate_code
from cosmic_ray.plugins import get_operator, operator_names

ROOT = Path(__file__).parent.parent
WHERE = ("core/plan", "core/bench", "core/melts", "services", "store")
# a union in an annotation is no code, and some need to be told a variable
NO_FAULTS = ("BitOr", "ExceptionReplacer", "VariableReplacer", "VariableInserter")
NEXT = ("tests/services", "tests/api/test_api.py", "tests/api/test_access.py", "tests/store", "tests/formats")
LAST = ("tests/services/test_any_history.py", "tests/services/test_led.py")
LONGEST_S = 420.0


@dataclass(frozen=True)
class Mutant:
    """One change of one file."""

    path: Path
    operator: str
    occurrence: int
    line: int


def mutants() -> Iterator[Mutant]:
    operators = {
        name: get_operator(name) for name in operator_names() if not any(part in name for part in NO_FAULTS)
    }
    for path in sorted(p for where in WHERE for p in (ROOT / "src/umber_pebble" / where).glob("*.py")):
        nodes = list(ast_nodes(get_ast(path.read_text("utf-8"))))
        for name, operator in operators.items():
            made = operator()
            at = [start for node in nodes for start, _ in made.mutation_positions(node)]
            yield from (Mutant(path.relative_to(ROOT), name, i, line) for i, (line, _) in enumerate(at))


def tests_of(mutant: Mutant) -> list[str]:
    """Those that name its module first, then those of its topic, then the rest that runs without a browser."""
    module = mutant.path.stem
    named = re.compile(rf"import (?:.*\b)?{module}\b|\.{module} import")
    files = sorted((ROOT / "tests").rglob("test_*.py"), key=lambda file: file.stat().st_size)
    near = [
        str(f.relative_to(ROOT)) for f in files if "browser" not in f.parts and named.search(f.read_text("utf-8"))
    ]
    topic = [f"tests/core/{mutant.path.parts[3]}"] if "core" in mutant.path.parts else []
    first = [name for name in dict.fromkeys((*near, *topic, *NEXT)) if name not in LAST]
    return [*first, *(f"--deselect={name}" for name in LAST)]


def passes(copy: Path, tests: list[str]) -> bool:
    """Whether all of these pass in a copy; one that never ends does not."""
    environment = {**os.environ, "PYTHONPATH": str(copy / "src"), "PYTHONDONTWRITEBYTECODE": "1"}
    command = [str(ROOT / ".venv/bin/python"), "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", *tests]
    try:
        return subprocess.run(
            command, cwd=copy, env=environment, timeout=LONGEST_S, stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL, check=False,
        ).returncode == 0  # fmt: skip
    except subprocess.TimeoutExpired:
        return False


def survives(mutant: Mutant, copy: Path) -> bool:
    """Whether all tests pass with it."""
    file = copy / mutant.path
    text = file.read_text("utf-8")
    changed = mutate_code(text, get_operator(mutant.operator)(), mutant.occurrence)
    if changed is None:
        return False
    kept = file.stat()
    file.write_text(changed, "utf-8")
    try:
        return passes(copy, tests_of(mutant)) and passes(copy, list(LAST))
    finally:
        file.write_text(text, "utf-8")
        os.utime(file, ns=(kept.st_atime_ns, kept.st_mtime_ns))


def interval(killed: int, of: int) -> tuple[float, float]:
    """The 95 % interval of a share. Source: Wilson 1927"""
    z, p = 1.96, killed / of
    middle, half = p + z * z / (2 * of), z * math.sqrt(p * (1 - p) / of + z * z / (4 * of * of))
    return (middle - half) / (1 + z * z / of), (middle + half) / (1 + z * z / of)


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--sample", type=int, default=150)
    asked.add_argument("--seed", type=int, default=1)
    asked.add_argument("--workers", type=int, default=os.cpu_count() or 1)
    args = asked.parse_args()
    every = list(mutants())
    sample = random.Random(args.seed).sample(every, min(args.sample, len(every)))
    print(f"{len(every)} mutants, {len(sample)} of them tried", flush=True)
    copies: SimpleQueue[Path] = SimpleQueue()
    with tempfile.TemporaryDirectory() as folder:
        for i in range(args.workers):
            copy = Path(folder) / str(i)
            shutil.copytree(ROOT, copy, ignore=shutil.ignore_patterns(".venv*", "node_modules", ".git", "var"))
            for name in (".venv", "web/node_modules"):
                (copy / name).symlink_to(ROOT / name)
            copies.put(copy)
        if not (
            passes(copy, ["tests/core", *NEXT, *(f"--deselect={name}" for name in LAST)])
            and passes(copy, list(LAST))
        ):
            raise SystemExit("the tests do not pass as they are: nothing would be shown")

        def tried(mutant: Mutant) -> bool:
            copy = copies.get()
            begun = time.monotonic()
            alive = survives(mutant, copy)
            copies.put(copy)
            word = "LIVES " if alive else "killed"
            took = time.monotonic() - begun
            print(
                f"{word} {took:5.0f} s  {mutant.path}:{mutant.line}  {mutant.operator} {mutant.occurrence}",
                flush=True,
            )
            return alive

        with ThreadPoolExecutor(args.workers) as pool:
            killed = sum(not alive for alive in pool.map(tried, sample))
    low, high = interval(killed, len(sample))
    print(
        f"{killed} of {len(sample)} killed: {killed / len(sample):.0%} ({low:.0%} to {high:.0%} at 95 %); asked: 80 %"
    )


if __name__ == "__main__":
    sys.exit(main())
