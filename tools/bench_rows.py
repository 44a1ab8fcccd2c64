"""How a benchmark is timed and printed."""

import statistics
import time
from collections.abc import Callable


def row(what: str, found: list[float], asked: str, unit: str = "ms") -> None:
    found.sort()
    p95 = found[min(len(found) - 1, int(0.95 * len(found)))]
    print(
        f"{what:46} {statistics.median(found):7.1f} {unit}   95 %: {p95:7.1f} {unit}   asked: {asked}", flush=True
    )


def timed(work: Callable[[int], object], times: int) -> list[float]:
    out = []
    for i in range(times):
        start = time.perf_counter()
        work(i)
        out.append((time.perf_counter() - start) * 1e3)
    return out
