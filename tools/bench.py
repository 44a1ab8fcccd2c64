"""Speed, shown: engine, plan, event to a second browser, first view. Prints what was found against what is asked."""

import gc
import math
import statistics
import subprocess
import sys
from dataclasses import replace
from datetime import UTC, datetime
from pathlib import Path

import numpy as np
from scipy.integrate import solve_ivp
from scipy.sparse import diags

sys.path.insert(0, str(Path(__file__).parent.parent))
from bench_app import app
from bench_day import days
from bench_lighthouse import lighthouse
from bench_load import load
from bench_rows import row, timed
from tests.conftest import cooks_of, make_lollipops, make_plan

from umber_pebble.core.colour.look import Medium
from umber_pebble.core.colour.recipe import recipe
from umber_pebble.core.colour.spaces import lab_of_hex
from umber_pebble.core.filigree.bending import lifted
from umber_pebble.core.filigree.check import checked
from umber_pebble.core.filigree.mend import mends
from umber_pebble.core.heat.conduction import Face, Layer, conduct
from umber_pebble.core.heat.convection import h_convection_w_m2k, h_radiation_w_m2k
from umber_pebble.core.heat.times import growing_times_s
from umber_pebble.core.heat.vessel import base_case
from umber_pebble.core.heat.windows import windows_s
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import Belief, Bowl, Burst, Look, School, next_burst
from umber_pebble.core.melts.hold import Held, Stood, Story, spot_of
from umber_pebble.core.melts.keeps import keeps
from umber_pebble.core.melts.oven import Microwave
from umber_pebble.core.moulds.cutting import CutSheet, cutting_plans
from umber_pebble.core.moulds.outline import heart, star
from umber_pebble.core.moulds.traced import Line, Traced
from umber_pebble.core.plan.compile import compile_plan
from umber_pebble.core.plan.cooks import casting_of, path_of
from umber_pebble.core.plan.summary import summary_of
from umber_pebble.core.spread import exact
from umber_pebble.core.temper.guide import after_seed
from umber_pebble.core.temper.schools import Tempering
from umber_pebble.core.temper.seed import Bowl as SeedBowl
from umber_pebble.core.temper.seed import plan_seed
from umber_pebble.services.planning import warm_up


def engine() -> None:
    warm_up()
    for name, plan in (("isomalt", make_plan()), ("coating", make_lollipops())):
        [cook] = cooks_of(plan, [[(0, 8)]])
        [line], [way], [key] = plan.lines, plan.ways.values(), plan.ways
        compile_plan(plan)
        hot = cook.window.open_degc.likely

        def part(i: int, plan=plan, line=line, cook=cook, hot=hot) -> object:  # type: ignore[no-untyped-def]
            # a new pour temperature each time, so that nothing is remembered
            path = path_of(plan, line, 8)
            return windows_s(casting_of(plan, line, exact(hot - i / 2), cook.flow, path))

        def warmer(i: int, plan=plan, way=way, key=key) -> object:  # type: ignore[no-untyped-def]
            air = 20 + i / 16
            warm = replace(
                way,
                pot=replace(way.pot, air_degc=air),
                poured_on=replace(way.poured_on, air_degc=air),
                sets_in=replace(way.sets_in, air_degc=way.sets_in.air_degc + i / 16),
            )
            return summary_of(compile_plan(replace(plan, room_degc=air, ways={key: warm})))

        row(f"one part with spread, {name}", timed(part, 40), "7 ms, aim 5")
        row(f"this plan recomputed, {name}", timed(warmer, 40), "80 ms")

        def many(i: int, plan=plan, line=line, cook=cook, hot=hot) -> None:  # type: ignore[no-untyped-def]
            one = casting_of(plan, line, exact(hot), cook.flow, path_of(plan, line, 8))
            for k in range(200):
                windows_s(replace(one, wall_m=0.002 + k * 1e-5 + i * 1e-7))

        row(f"200 parts with spread, {name}", timed(many, 3), "2000 ms")


def colours() -> None:
    """A recipe from six colours at hand, on ivory and in clear isomalt."""
    six = ("e102", "e110", "e129", "e122", "e133", "e151")
    for name, medium in (
        ("ivory", Medium(material("bases", "white_chocolate"), 1235.0)),
        ("clear", Medium(material("bases", "clear_isomalt"), 1430.0)),
    ):
        recipe(medium, lab_of_hex("#808080"), six, 500.0)
        row(
            f"colour recipe from six, {name}",
            timed(
                lambda i, medium=medium: recipe(
                    medium, lab_of_hex(f"#{40 + i:02x}8{i % 10}5{i % 10}"), six, 500.0
                ),
                30,
            ),
            "100 ms",
        )


def against_a_library() -> None:
    """Isomalt in a mould on wood, 60 nodes, air on both faces: the engine and scipy's BDF with a banded Jacobian, at the
    same error against a fine run of the latter."""
    n, k = np.array([30, 15, 15]), np.array([0.34, 0.25, 0.14])
    thick, rho, cp = np.array([0.004, 0.003, 0.02]), np.array([1430.0, 1150, 600]), np.array([1950.0, 1400, 1700])
    contact, end, air = np.array([np.inf, np.inf, 200.0]), 1800.0, 22.0
    layers = [
        Layer(f"l{i}", thick[i], int(n[i]), k[i], rho[i], cp[i], cp[i], 0.0, 135.0 if i == 0 else air, contact[i])
        for i in range(3)
    ]
    top, bottom = Face(air, 1, 0.015, 0.9), Face(air, 2, 0.06, 0.9)
    times = growing_times_s(end)
    dx, kk, c = np.repeat(thick / n, n), np.repeat(k, n), np.repeat(rho * cp * thick / n, n)
    join = np.zeros(60)
    join[np.cumsum(n)[:-1]] = 1 / contact[1:]
    g = 1 / (0.5 * dx[:-1] / kk[:-1] + join[1:] + 0.5 * dx[1:] / kk[1:])
    start = np.repeat([layer.start_degc for layer in layers], n)

    def face(t: float, half: float, length: float, facing: int) -> float:
        """Heat out of a face whose surface is where both sides agree."""
        surface = t
        for _ in range(4):
            h = h_convection_w_m2k(surface, air, length, facing) + h_radiation_w_m2k(surface, air, 0.9)
            surface = (half * t + h * air) / (half + h)
        return half * (t - surface)

    def rate(_: float, t: np.ndarray) -> np.ndarray:  # type: ignore[type-arg]
        flow = g * (t[:-1] - t[1:])
        out = np.zeros(60)
        out[:-1] -= flow
        out[1:] += flow
        out[0] -= face(t[0], 2 * kk[0] / dx[0], 0.015, 1)
        out[-1] -= face(t[-1], 2 * kk[-1] / dx[-1], 0.06, 2)
        return out / c

    banded = diags([1.0, 1.0, 1.0], [-1, 0, 1], shape=(60, 60))
    looked = np.array([60.0, 300.0, 900.0, 1800.0])

    def bdf(rtol: float) -> np.ndarray:  # type: ignore[type-arg]
        return solve_ivp(rate, (0, end), start, "BDF", looked, rtol=rtol, atol=rtol, jac_sparsity=banded).y

    def ours(_: int = 0) -> np.ndarray:  # type: ignore[type-arg]
        return conduct(layers, top, bottom, times).temps_degc

    fine, found = bdf(1e-9), ours()
    at = np.array([[np.interp(s, times, node) for s in looked] for node in found.T])
    error = float(np.abs(at - fine).max())
    rtol = next(r for r in np.logspace(-2, -8, 40) if np.abs(bdf(r) - fine).max() <= error)
    ours_ms, theirs_ms = statistics.median(timed(ours, 60)), statistics.median(timed(lambda _: bdf(rtol), 8))
    print(
        f"60 nodes, both {error:.2f} K off: engine {ours_ms:.2f} ms, BDF {theirs_ms:.1f} ms   "
        f"ratio {theirs_ms / ours_ms:.0f}   asked: 40, aim 50",
        flush=True,
    )


def bowls() -> None:
    """What is told at the bowl: bursts after a look, seed after a reading, six bags held."""
    coating = material("melts", "coating")
    pot = make_lollipops().ways["coating"].pot

    def bowl(i: int) -> Bowl:
        case = base_case(pot, coating, 0.2 + i / 1000)
        return Bowl(case, Microwave(900.0, 15.0), 20.0, 43.0, coating.spread("wafer"), School())

    bursts = [Burst(0.0, 30.0, 1.0)]
    row(
        "next burst after a look",
        timed(lambda i: next_burst(Belief(bowl(i), bursts, [Look(45.0, "half")]), bursts, 45.0), 40),
        "30 ms",
    )
    held = [Held(coating, 0.04 + i / 100, exact(38.0), "bag", 21.0, tip_m=0.004) for i in range(6)]
    story = Story((Stood(0.0, spot_of("towel", 21.0)),))
    row(
        "six held bags, how long each flows",
        timed(lambda i: [keeps(h, story, float(i)) for h in held], 30),
        "live",
    )
    dark = material("melts", "dark")
    seeding = Tempering(dark, "seed", 0.5, 45.0, 20.0, SeedBowl(0.35, 840.0)).seeding
    row(
        "seed and the act after a reading",
        timed(lambda i: (plan_seed(seeding), after_seed(seeding, 0.2, 31.0 + i / 100)), 40),
        "30 ms",
    )


def sheets() -> None:
    """A cutting plan: of sixty pieces of twelve kinds, and of one kind as it is edited."""
    kinds = tuple(star(0.03 + 0.002 * i, 5, 0.45).points() for i in range(12))
    large, small = CutSheet(0.5, 0.4, 0.004, 0.006), CutSheet(0.3, 0.2, 0.004, 0.006)
    row(
        "a cutting plan of 60 pieces of twelve kinds",
        timed(lambda _: list(cutting_plans(large, kinds, (5,) * 12)), 3),
        "3000 ms",
    )
    row(
        "a sheet of one kind, every way",
        timed(lambda i: list(cutting_plans(small, (heart(0.04 + i * 1e-4).points(),), (500,))), 3),
        "1000 ms",
    )


def lace(lines: int, bore_m: float = 0.002) -> Traced:
    """Rows of arcs, each across its neighbours."""
    side, step_m, radius_m = math.ceil(math.sqrt(lines)), 0.022, 0.014
    made = []
    for k in range(lines):
        x, y = (k % side - side / 2) * step_m, (k // side - side / 2) * step_m
        turns = [0.3 * k + t / 2 for t in range(11)]
        made.append(Line(tuple((x + radius_m * math.cos(t), y + radius_m * math.sin(t)) for t in turns)))
    return Traced(tuple(made), bore_m)


def drawings() -> None:
    """Whether a drawing holds, of as many lines as one draws, and of many; its memory settled, as the app's is once it has begun."""
    gc.collect()
    gc.freeze()
    dark = lifted(material("melts", "dark"))
    row("a drawing of 500 lines checked", timed(lambda i: checked(lace(500, 0.002 + i * 1e-6), dark), 7), "300 ms")
    row("one of 60 lines, as one is drawn", timed(lambda i: checked(lace(60, 0.002 + i * 1e-6), dark), 9), "30 ms")
    of = checked(lace(60), dark)
    row("what mends one of 60 lines", timed(lambda _: mends(of, dark), 5), "500 ms")


def machine() -> None:
    """How fast this machine is just now: what else is shown is to be read beside it."""
    row("a million additions in plain Python", timed(lambda _: sum(i for i in range(1_000_000)), 9), "about 40 ms")


def main() -> None:
    cores = subprocess.run(["nproc"], capture_output=True, text=True, check=True).stdout.strip()
    print(f"{datetime.now(UTC):%Y-%m-%d}, {cores} cores, Python {sys.version.split()[0]}")
    machine()
    engine()
    colours()
    bowls()
    sheets()
    drawings()
    against_a_library()
    days()
    app()
    lighthouse()
    load()
    machine()


if __name__ == "__main__":
    main()
