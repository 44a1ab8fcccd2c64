"""What a cast's times rest on: what would help, which reading would narrow them, and what it risks."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

from umber_pebble.core.heat.casting import Casting
from umber_pebble.core.heat.piece import COARSE, Case, base, run_all
from umber_pebble.core.heat.stress import CoolingStress
from umber_pebble.core.heat.windows import FAT_MARKS, PieceWindows
from umber_pebble.core.materials.load import Material, material

# what one reading says of each input: the share of its spread that it takes away (assumption)
NARROWS: dict[str, dict[str, float]] = {
    "melt as it is poured": {"pour_degc": 0.9},
    "thickness, or weight": {"depth_m": 0.9},
    "air where it lies": {"air_off_share": 0.9},
    "the cast as it cools": dict.fromkeys(
        (
            "pour_degc",
            "depth_m",
            "cp_melt",
            "conductivity",
            "density",
            "wall_conductivity",
            "contact",
            "air_side",
            "emissivity",
            "stream",
            "air_off_share",
        ),
        0.8,
    ),
    "when it is seen to turn": dict.fromkeys(
        ("glass", "limit", "half_factor", "melts_at", "set_at_start", "latent"), 0.7
    ),
}
COLDER_K, THINNER, WALL_FACTOR = 5.0, 0.8, 0.5
Level = Literal["low", "some", "high", "certain"]
"""How likely something goes wrong."""


@dataclass(frozen=True, slots=True)
class Help:
    """A change of the cast or its place, and how much sooner it may leave the mould with it [s]."""

    change: str
    sooner_s: float


@dataclass(frozen=True, slots=True)
class Sticks:
    """That it stays in its mould: how much it shrinks, and how much a stiff mould asks for [frac]."""

    level: Level
    why: Literal["contraction", "mould bends", "mould gives", "nothing comes out"]
    contraction_frac: float
    lets_go_frac: float
    sources: tuple[str, ...]
    kind: Literal["sticks"] = field(default="sticks", init=False)


@dataclass(frozen=True, slots=True)
class Chills:
    """That it cracks from cold: from when it is too cold, and when it is out at the latest [s]."""

    level: Level
    from_s: float
    out_s: float
    sources: tuple[str, ...]
    kind: Literal["chills"] = field(default="chills", init=False)


@dataclass(frozen=True, slots=True)
class Strains:
    """That it cracks from its own stress: built in, or of its chilled skin [Pa]; how fast it cools through its annealing range, and
    how fast is safe [K/s]."""

    level: Level
    why: Literal["built in", "chilled skin"]
    stress_pa: float
    safe_pa: float
    rate_k_s: float
    safe_rate_k_s: float
    sources: tuple[str, ...]
    kind: Literal["strains"] = field(default="strains", init=False)


@dataclass(frozen=True, slots=True)
class Blooms:
    """That it blooms: poured over a temperature [degC], out of temper, or in need of none."""

    level: Level
    why: Literal["overheated", "temper", "needs no temper"]
    spoils_degc: float
    sources: tuple[str, ...]
    kind: Literal["blooms"] = field(default="blooms", init=False)


Risk = Sticks | Chills | Strains | Blooms


def best_reading(shares: Mapping[str, float]) -> tuple[str, float] | None:
    """The one reading that would narrow a time most, and the share of its spread that it takes away [frac].

    Args:
        shares: of the time's spread, by input
    Source: assumption
    """
    found = {name: sum(shares.get(i, 0.0) * part for i, part in says.items()) for name, says in NARROWS.items()}
    best = max(found, key=lambda name: found[name])
    return (best, found[best]) if found[best] > 0 else None


def _unmoulds_s(cases: Sequence[Case], limit_degc: float) -> list[float]:
    casting = cases[0].casting
    conditions: list[tuple[str, float]] = [("hottest_degc", limit_degc)]
    if casting.tg is None:
        prop, series = FAT_MARKS["unmould"]
        conditions.append((series, casting.melt.value(prop)))
    out = run_all(cases, COARSE[casting.kind]).until_all(*conditions)
    return [min(float(v), casting.horizon_s) for v in out]


def helps(casting: Casting, windows: PieceWindows) -> list[Help]:
    """What would let a cast leave its mould sooner, each reckoned by itself, what helps most first.

    Args:
        casting: as it is
        windows: its windows
    Source: patankar-1980
    """
    case = base(casting)
    limit = windows.limits["unmould_degc" if casting.tg is None else "unmould"]
    last = casting.path[-1]
    fan = material("kitchen", "desk_fan", "air").spread("speed")
    changed = {
        "a fan on it": [*casting.path[:-1], replace(last, place=replace(last.place, air_m_s=fan))],
        "a place 5 K colder": [
            *casting.path[:-1],
            replace(
                last,
                place=replace(
                    last.place,
                    air_degc=last.place.air_degc - COLDER_K,
                    surface_degc=last.place.surface_degc - COLDER_K,
                ),
            ),
        ],
    }
    rows = {name: replace(case, casting=replace(casting, path=tuple(path))) for name, path in changed.items()}
    if last.place.air_m_s.likely > 0:
        rows.pop("a fan on it")
    rows["a fifth thinner"] = replace(case, depth_m=THINNER * case.depth_m)
    rows["a mould wall half as thick"] = replace(
        case, casting=replace(casting, wall_m=WALL_FACTOR * casting.wall_m)
    )
    now, *then = _unmoulds_s([case, *rows.values()], limit)
    saved = [Help(name, now - at) for name, at in zip(rows, then, strict=True)]
    return sorted((h for h in saved if h.sooner_s > 1.0), key=lambda h: -h.sooner_s)


def _sticks(casting: Casting, temper: str) -> Sticks:
    """A mould that bends is pushed out of; a thin one gives, so that what needs no temper comes right out; of a stiff one nothing
    comes that has not shrunk."""
    melt, mould = casting.melt, casting.mould
    given, asked = melt.spread("contraction"), melt.spread("contraction_lets_go")
    gives = mould.flags.get("gives", False)
    level: Level = "low" if given.low >= asked.high else "high" if given.high < asked.likely else "some"
    why: Literal["contraction", "mould bends", "mould gives", "nothing comes out"] = "contraction"
    if mould.flags.get("bends", False):
        level, why = "low", "mould bends"
    elif gives and temper == "tempered":
        level, why = "low", "mould gives"
    elif temper == "unseeded" and melt.has("work_at") and not gives:
        level, why = "certain", "nothing comes out"
    sources = ("common-practice", melt["contraction"].source, "assumption")
    return Sticks(level, why, given.likely, asked.likely, sources)


def _chills(windows: PieceWindows) -> Chills:
    chilled, out = windows.at["over_chilled"], windows.at["unmould"]
    level: Level = "low" if windows.never("over_chilled") else "high" if chilled.likely < out.high else "some"
    return Chills(level, chilled.likely, out.high, ("common-practice", "assumption"))


def _blooms(melt: Material, temper: str, pour_degc: float) -> Blooms:
    hot = pour_degc > melt.value("spoils_at")
    level: Level = "high" if hot or temper == "unseeded" else "some" if temper == "under" else "low"
    why: Literal["temper", "needs no temper"] = "temper" if melt.has("work_at") else "needs no temper"
    return Blooms(
        level, "overheated" if hot else why, melt.value("spoils_at"), ("beckett-2009", "common-practice")
    )


def risks(casting: Casting, windows: PieceWindows, temper: str, stress: CoolingStress | None) -> list[Risk]:
    """What a cast on this path risks, and what each judgement rests on.

    Args:
        casting, windows: the cast
        temper: of a couverture, "tempered" for what needs none
        stress: of a sugar glass
    Source: beckett-2009, timoshenko-goodier-1970, common-practice
    """
    if stress is None:
        return [
            _sticks(casting, temper),
            _chills(windows),
            _blooms(casting.melt, temper, casting.pour.likely),
        ]
    levels: dict[str, Level] = {"safe": "low", "may crack": "some", "cracks": "high"}
    return [
        Strains(
            levels[stress.risk],
            "built in" if stress.residual_pa >= stress.skin_pa else "chilled skin",
            max(stress.residual_pa, stress.skin_pa),
            stress.safe_pa,
            stress.rate_k_s,
            stress.safe_rate_k_s,
            ("timoshenko-goodier-1970", "assumption"),
        )
    ]
