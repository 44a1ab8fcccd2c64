"""Shared fixtures: a kitchen's worth of core objects, a workshop in a folder, a driven clock."""

import itertools
import math
from collections.abc import Iterable, Iterator
from dataclasses import replace
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import pytest

from umber_pebble.config import Config
from umber_pebble.core.bench.again import numbered
from umber_pebble.core.heat.casting import Place
from umber_pebble.core.heat.vessel import Pot
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.melts.oven import Microwave
from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.moulds.outline import Circle
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.pieces.cast import amounts
from umber_pebble.core.pieces.passes.fill import Fill
from umber_pebble.core.plan.cooks import PotCook, make_cooks
from umber_pebble.core.plan.fat_melt import FatMelt
from umber_pebble.core.plan.handwork import Inclusion, SoftWork
from umber_pebble.core.plan.problem import MeltWay, Mould, Named, Paces, PlanInput, PlanLine
from umber_pebble.core.plan.spares import BreakRate
from umber_pebble.core.plan.sugar_cook import Ring, SugarCook
from umber_pebble.core.plan.tasks import Task
from umber_pebble.core.spread import Spread, exact
from umber_pebble.services.clock import DrivenClock
from umber_pebble.services.piece_docs import Piece
from umber_pebble.services.start import open_workshop
from umber_pebble.services.workshop import Workshop

BEND, STICK = (SoftWork("bend"),), (SoftWork("stick", (Inclusion("stick", "stick", 0.0, 5.0),)),)
START = datetime(2031, 5, 2, 13, 0, tzinfo=UTC)


@pytest.fixture(scope="session")
def isomalt() -> Material:
    return material("melts", "isomalt")


@pytest.fixture(scope="session")
def pot() -> Pot:
    return make_pot()


def make_pot(
    diameter_m: float = 0.16,
    mass_kg: float = 1.0,
    stand: str = "wood",
    loss: Spread | None = None,
    height_m: float = 0.09,
) -> Pot:
    return Pot(
        diameter_m,
        height_m,
        mass_kg,
        material("kitchen", "steel", "pot"),
        material("surfaces", stand),
        22.0,
        22.0,
        loss or exact(1.0),
    )


PACES = Paces(120.0, 6.0, 10.0, 5.0, 12.0, 10.0, 15.0, 8.0, 240.0, 0.0, 20.0)
WOOD = Place(material("surfaces", "wood"), 0.02, 22.0, 22.0)
FRIDGE = Place(material("surfaces", "trivet"), 0.005, 4.0, 4.0, air_unsure_k=2.0)


def make_disc(diameter_m: float, depth_m: float, draft_rad: float = 0.0) -> Cavity:
    return Cavity(Walled(Circle(diameter_m), depth_m, draft_rad))


def refilled(line: PlanLine, fill_m: float, cavity: Cavity | None = None) -> PlanLine:
    """A line of isomalt filled to another level, in another cavity if one is given."""
    mould = replace(line.mould, cavity=cavity) if cavity else line.mould
    return replace(line, mould=mould, cast=amounts(mould.cavity, fill_m, material("melts", "isomalt")))


def make_plan(way: dict[str, Any] | None = None, **changes: object) -> PlanInput:
    """24 discs of 50 mm, 4 mm deep, from one mould of 14, in a heavy pot; way changes how the isomalt is cooked."""
    disc = make_disc(0.05, 0.006, 0.0873)
    mould = Mould("mould", 0, material("moulds", "silicone"), 0.003, disc, 14, 1, 230.0)
    pot = make_pot(mass_kg=1.4, loss=Spread(0.8, 1.0, 1.25), height_m=0.1)
    cook = SugarCook(True, None, 160.0, Ring(1800.0, Spread(0.45, 0.6, 0.7)))
    isomalt = MeltWay(
        material("melts", "isomalt"),
        pot,
        "pot",
        cook,
        WOOD,
        "bench",
        WOOD,
        "bench",
        "bench",
        Spread(0.7, 1.0, 1.4),
    )
    base = PlanInput(
        lines=(
            PlanLine(
                Named("Disc"),
                24,
                "isomalt",
                mould,
                amounts(disc, 0.004, material("melts", "isomalt")),
                BreakRate(),
            ),
        ),
        ways={"isomalt": replace(isomalt, **(way or {}))},
        due_s=5 * 3600.0,
        paces=PACES,
        room_degc=22.0,
        humidity_frac=0.45,
        altitude_m=100.0,
        confidence_frac=0.9,
        reserve_frac=0.05,
    )
    return replace(base, **changes)  # type: ignore[arg-type]


def make_lollipops(quantity: int = 16, **way: Any) -> PlanInput:
    """Coating lollipops of 55 mm with a stick, poured at the bench, set in a fridge."""
    disc = make_disc(0.055, 0.007, 0.1745)
    mould = Mould("planets", 0, material("moulds", "thermoformed"), 0.0006, disc, 8, 1, 60.0)
    bowl = replace(make_pot(0.14, 0.11, loss=Spread(0.8, 1.0, 1.25)), metal=material("kitchen", "plastic", "pot"))
    coating = MeltWay(
        material("melts", "coating"),
        bowl,
        "bowl",
        FatMelt(43.0, Microwave(900.0, 15.0), "oven"),
        WOOD,
        "bench",
        FRIDGE,
        "fridge",
        "bench",
        Spread(0.7, 1.0, 1.4),
    )
    cast = amounts(disc, 0.006, material("melts", "coating"), math.pi * 0.002**2 * 0.03)
    line = PlanLine(
        Named("Lollipop"),
        quantity,
        "coating",
        mould,
        cast,
        BreakRate(),
        works=STICK,
    )
    return make_plan(lines=(line,), ways={"coating": replace(coating, **way)})


def at_level(piece: Piece, level_m: float) -> Piece:
    """A piece of one solid cast, filled to another level."""
    [part] = piece.parts
    fill, *rest = part.passes
    assert isinstance(fill, Fill)
    passes = [replace(fill, level_m=level_m), *rest]
    return piece.model_copy(update={"parts": [part.model_copy(update={"passes": passes})]})


@pytest.fixture
def clock() -> DrivenClock:
    return DrivenClock(START)


@pytest.fixture
def workshop(tmp_path: Path, clock: DrivenClock) -> Iterator[Workshop]:
    made = open_workshop(Config(tmp_path), clock)
    yield made
    made.engine.dispose()


def cooks_of(plan: PlanInput, groups: list[list[tuple[int, int]]]) -> list[PotCook]:
    """Cooks whose rounds are told as (line, castings), numbered cook by cook."""
    return make_cooks(plan, numbered(plan.lines, groups, [], 0))


def clashes(tasks: Iterable[Task]) -> list[tuple[Task, Task]]:
    """Pairs of tasks that would need the same hands at the same time."""
    busy = sorted((t for t in tasks if t.who is not None), key=lambda t: (t.who, t.start_s))
    return [(a, b) for a, b in itertools.pairwise(busy) if a.who == b.who and b.start_s < a.end_s - 1e-6]
