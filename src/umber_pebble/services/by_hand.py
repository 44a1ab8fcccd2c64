"""Amounts for what is piped, dropped, joined, dipped or mixed by hand."""

import math
from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.families.known import family_of
from umber_pebble.core.materials.load import material
from umber_pebble.core.pieces.films import ball_kg, bead_kg, dab, dip_film_m, line_kg
from umber_pebble.core.pieces.ratios import Feel, Mixed, feel_of, mixed_of, usual_first_frac
from umber_pebble.core.spread import Spread, combine
from umber_pebble.services.doc_base import Doc, Id, Whole
from umber_pebble.services.explorer import melt_of
from umber_pebble.services.workshop import Workshop

Nozzle = Literal["no_3", "no_5"]


class HandRequest(Doc):
    """What is made by hand of a melt: lines through a nozzle, dollops, a seam with its gap, a hollow ball, dipped pieces."""

    material: Id
    nozzle: Nozzle
    lines_m: float = Field(ge=0, le=1000)
    dollops: Whole = Field(ge=0, le=5000)
    dollop_m: float
    seam_m: float = Field(ge=0, le=100)
    gap_m: float = Field(ge=0, le=0.02)
    deep_m: float = Field(ge=0, le=0.05)
    ball_m: float = Field(ge=0.01, le=0.3)
    wall_m: float
    dipped: Whole = Field(ge=0, le=5000)
    dip_m: float = Field(ge=0.003, le=0.2)
    high_m: float = Field(ge=0.003, le=0.2)
    mixture: Literal[
        "ganache", "ganache_milk", "ganache_white", "cake", "modelling_chocolate", "gum_paste", "marzipan"
    ]
    mixed_kg: float = Field(ge=0, le=50)
    at_hand_kg: float | None = Field(
        ge=0, le=50, description="of the first part, all of which is used; None: as much as mixed_kg says"
    )
    first_frac: float | None = Field(ge=0, le=1, description="of the first part; None: the usual")


@dataclass(frozen=True, slots=True)
class HandAmounts:
    """Grams of each, all of them together, and the coat on a dipped piece [kg, m]; what a filling is mixed of, what is added to it by feel,
    and the usual share of its first part."""

    lines: Explained
    dollops: Explained
    bead: Explained
    ball: Explained
    dip: Explained
    coat_m: Spread
    mixed: Mixed
    feel: Feel
    usual_frac: float


def by_hand(workshop: Workshop, asked: HandRequest) -> HandAmounts:
    """Grams of a melt for what is made by hand.

    Raises: OutOfRange: a size that cannot be, or a melt that is no fat where it is dipped.
    """
    melt = melt_of(workshop, asked.material)
    if not family_of(melt).skins:
        raise OutOfRange("films and dollops are known of fats: choose a fat", path="material", got=asked.material)
    density, bore = melt.value("density_melt"), material("kitchen", asked.nozzle, "nozzle")["bore"].spread
    film = material("kitchen", "usual", "film")

    def over(
        value: Spread, kg: float, words: str, *inputs: tuple[str, float, str], source: str = "geometry"
    ) -> Explained:
        return explained(
            value if kg else Spread(0.0, 0.0, 0.0), "kg", words, *(given(*i) for i in inputs), sources=(source,)
        )

    lines = bore.map(lambda b: line_kg(asked.lines_m, b, density))
    bead = bore.map(lambda b: bead_kg(asked.seam_m, 2 * b, asked.gap_m, asked.deep_m, density))
    drop = dab(melt, asked.dollop_m, tapped=True).volume.times(density * asked.dollops)
    coat = dip_film_m(melt, asked.high_m, film.value("drains"), film.value("drawn"))
    area = math.pi * asked.dip_m * asked.high_m + math.pi * asked.dip_m**2 / 4
    usual = usual_first_frac(asked.mixture)
    share = usual if asked.first_frac is None else asked.first_frac
    mixed_kg = asked.mixed_kg if asked.at_hand_kg is None or not share else asked.at_hand_kg / share
    return HandAmounts(
        over(
            lines,
            asked.lines_m,
            "length x bore of the nozzle x density",
            ("length", asked.lines_m, "m"),
            ("bore", bore.likely, "m"),
        ),
        over(
            drop,
            asked.dollops,
            "as it spreads on its yield value, tapped, x how many",
            ("dollops", asked.dollops, "count"),
            ("wide", asked.dollop_m, "m"),
            source="roussel-coussot-2005",
        ),
        over(
            bead,
            asked.seam_m,
            "half a round bead twice as wide as the bore, and the gap under it",
            ("seam", asked.seam_m, "m"),
            ("gap", asked.gap_m, "m"),
            ("deep", asked.deep_m, "m"),
        ),
        explained(
            ball_kg(asked.wall_m, asked.ball_m, density),
            "kg",
            "the ball less its hollow x density",
            given("ball", asked.ball_m, "m"),
            given("wall", asked.wall_m, "m"),
            sources=("geometry",),
        ),
        over(
            combine(0.0, [[0.0]]) if not asked.dipped else coat.times(area * density * asked.dipped),
            asked.dipped,
            "wall and tip of a round piece x coat that stays after draining x how many",
            ("coat", coat.likely, "m"),
            ("dipped", asked.dipped, "count"),
            source="casson-1959",
        ),
        coat,
        mixed_of(asked.mixture, mixed_kg, share),
        feel_of(asked.mixture, mixed_kg, share),
        usual,
    )
