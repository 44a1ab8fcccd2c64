"""Shared fixtures: a kitchen's worth of core objects, a workshop in a folder, a driven clock."""

from collections.abc import Iterator
from dataclasses import replace
from datetime import UTC, datetime
from pathlib import Path

import pytest

from umber_pebble.config import Config
from umber_pebble.core.heat.piece import Place
from umber_pebble.core.heat.vessel import Pot
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.moulds.disc import fit_disc
from umber_pebble.core.plan.problem import CookChoice, Line, Mould, Paces, PlanInput, Ring
from umber_pebble.core.plan.spares import BreakRate
from umber_pebble.core.spread import Spread, exact
from umber_pebble.services.clock import DrivenClock
from umber_pebble.services.start import open_workshop
from umber_pebble.services.workshop import Workshop

START = datetime(2031, 5, 2, 13, 0, tzinfo=UTC)


@pytest.fixture(scope="session")
def isomalt() -> Material:
    return material("isomalt", "isomalt")


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


def make_plan(**changes: object) -> PlanInput:
    """24 discs of 50 mm, 4 mm deep, from one mould of 14, in a heavy pot."""
    wood = material("surfaces", "wood")
    disc = fit_disc(diameter_m=0.05, depth_m=0.006, draft_rad=0.0873, water_kg=None).disc
    mould = Mould("mould", material("moulds", "silicone"), 0.003, disc, 14, 1, 230.0)
    base = PlanInput(
        lines=(Line("Disc", 24, mould, 0.004, False, BreakRate()),),
        due_s=5 * 3600.0,
        melt=material("isomalt", "isomalt"),
        cook=CookChoice(True, None, 160.0),
        pot=make_pot(mass_kg=1.4, loss=Spread(0.8, 1.0, 1.25), height_m=0.1),
        ring=Ring(1800.0, Spread(0.45, 0.6, 0.7)),
        place=Place(wood, 0.02, 22.0, 22.0),
        paces=Paces(120.0, 6.0, 10.0, 8.0, 240.0, 20.0),
        room_degc=22.0,
        humidity_frac=0.45,
        altitude_m=100.0,
        confidence_frac=0.9,
        reserve_frac=0.05,
        residue_factor=Spread(0.7, 1.0, 1.4),
    )
    return replace(base, **changes)  # type: ignore[arg-type]


@pytest.fixture
def clock() -> DrivenClock:
    return DrivenClock(START)


@pytest.fixture
def workshop(tmp_path: Path, clock: DrivenClock) -> Iterator[Workshop]:
    made = open_workshop(Config(tmp_path), clock)
    yield made
    made.engine.dispose()
