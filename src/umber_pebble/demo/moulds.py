"""Demo moulds, and a sheet that is cut: an observatory's first-light night, all names made up."""

import math

from umber_pebble.services.documents import Mat, Mould, MouldMaterial
from umber_pebble.services.shape_docs import (
    BarShape,
    Cavity,
    DrawnLine,
    EllipsoidShape,
    HalfBallShape,
    HeartShape,
    LinesShape,
    OutlineShape,
    RoundShape,
    StarShape,
)
from umber_pebble.services.sheet_docs import Sheet


def _disc(name: str, count: int, diameter_m: float, depth_m: float, water_kg: float | None = None) -> Cavity:
    shape = RoundShape(kind="round", diameter_m=diameter_m, depth_m=depth_m, draft_rad=0.087266, edge_m=0.0)
    return Cavity(name=name, count=count, shape=shape, water_kg=water_kg)


def _mould(
    name: str,
    material: MouldMaterial,
    wall_m: float,
    bears_degc: float,
    *cavities: Cavity,
    mat: Mat | None = None,
    sheet: Sheet | None = None,
) -> Mould:
    return Mould(
        name=name,
        material=material,
        wall_m=wall_m,
        bears_degc=bears_degc,
        owned=1 if sheet is None else 2,
        detail_m=None,
        oiled=False,
        sheet=sheet,
        base=None,
        cavities=list(cavities),
        mat=mat,
    )


def _silicone(name: str, *cavities: Cavity, wall_m: float = 0.003) -> Mould:
    return _mould(name, "silicone", wall_m, 230.0, *cavities)


def _star(
    name: str, count: int, diameter_m: float, depth_m: float, draft_rad: float, edge_m: float = 0.0
) -> Cavity:
    shape = StarShape(
        kind="star",
        diameter_m=diameter_m,
        tips=5,
        inner_frac=0.5,
        depth_m=depth_m,
        draft_rad=draft_rad,
        edge_m=edge_m,
    )
    return Cavity(name=name, count=count, water_kg=None, shape=shape)


def _crescent(outer_m: float, inner_m: float, aside_m: float, steps: int = 24) -> list[list[float]]:
    """A disc less another one that lies a little aside."""
    tip = (outer_m**2 - inner_m**2 + aside_m**2) / (2 * aside_m)
    far, near = math.acos(tip / outer_m), math.acos((tip - aside_m) / inner_m)
    back = [far + (2 * math.pi - 2 * far) * i / steps for i in range(steps + 1)]
    front = [2 * math.pi - near - (2 * math.pi - 2 * near) * i / steps for i in range(1, steps)]
    rim = [[outer_m * math.cos(a), outer_m * math.sin(a)] for a in back]
    return rim + [[aside_m + inner_m * math.cos(a), inner_m * math.sin(a)] for a in front]


STARS = {
    "a": (-0.022, 0.020),
    "b": (-0.008, 0.008),
    "c": (0.006, 0.014),
    "d": (0.020, 0.004),
    "e": (0.012, -0.012),
    "f": (-0.010, -0.014),
}
LINKS = (("a", "b"), ("b", "c"), ("c", "d"), ("d", "e"), ("e", "f"), ("f", "b"))
STAR_M, HOOP_M = 0.0035, 0.036


def _hoop(x: float, y: float, radius_m: float, corners: int) -> DrawnLine:
    turns = [2 * math.pi * i / corners for i in range(corners + 1)]
    return DrawnLine(
        points=[[round(x + radius_m * math.cos(t), 5), round(y + radius_m * math.sin(t), 5)] for t in turns],
        twice=False,
    )


def _link(a: tuple[float, float], b: tuple[float, float], to_m: float) -> DrawnLine:
    """From the edge of a star, so far towards another [m]."""
    long = math.dist(a, b)
    at = [(a[0] + (b[0] - a[0]) * s / long, a[1] + (b[1] - a[1]) * s / long) for s in (STAR_M, to_m)]
    return DrawnLine(points=[[round(x, 5), round(y, 5)] for x, y in at], twice=False)


def _constellation() -> LinesShape:
    """Six stars, what joins them, a hoop round them and what holds them in it."""
    stars = [_hoop(x, y, STAR_M, 18) for x, y in STARS.values()]
    links = [_link(STARS[a], STARS[b], math.dist(STARS[a], STARS[b]) - STAR_M) for a, b in LINKS]
    held = [
        _link(at, (10 * at[0], 10 * at[1]), HOOP_M - math.hypot(*at)) for name, at in STARS.items() if name != "b"
    ]
    lines = [_hoop(0.0, 0.0, HOOP_M, 72), *stars, *links, *held]
    return LinesShape(kind="lines", lines=lines, bore_m=0.0025)


MOULDS = {
    "mould-disc": _silicone("Star-glass disc, 50 mm", _disc("Disc", 14, 0.050, 0.006, 0.0113)),
    "mould-lens": _silicone("Comet lens, 80 mm", _disc("Lens", 6, 0.080, 0.005), wall_m=0.004),
    "mould-planet": _mould(
        "Planet lollipop, 55 mm", "thermoformed", 0.0006, 60.0, _disc("Planet", 8, 0.055, 0.007)
    ),
    "mould-sky": _silicone(
        "Night sky sampler",
        _star("Star", 6, 0.045, 0.008, 0.0873, 0.001),
        Cavity(name="Meteorite", count=6, water_kg=None, shape=HalfBallShape(kind="half_ball", diameter_m=0.03)),
        Cavity(
            name="Heart of the dome",
            count=3,
            water_kg=None,
            shape=HeartShape(kind="heart", width_m=0.04, depth_m=0.009, draft_rad=0.0873, edge_m=0.002),
        ),
    ),
    "mould-pane": _mould(
        "Pane bars on a mat",
        "steel",
        0.002,
        300.0,
        Cavity(
            name="Pane",
            count=4,
            water_kg=None,
            shape=BarShape(
                kind="bar", length_m=0.12, width_m=0.08, corner_m=0.0, depth_m=0.004, draft_rad=0.0, edge_m=0.0
            ),
        ),
        mat=Mat(material="silicone", thickness_m=0.001),
    ),
    "mould-pop": _silicone(
        "Night-sky pop, 70 x 40 mm",
        Cavity(
            name="Pop",
            count=8,
            water_kg=None,
            shape=EllipsoidShape(kind="ellipsoid", length_m=0.07, width_m=0.04, depth_m=0.018),
        ),
    ),
    "mould-leaf": _silicone(
        "Textured leaf mat",
        Cavity(
            name="Leaf",
            count=4,
            water_kg=None,
            shape=EllipsoidShape(kind="ellipsoid", length_m=0.07, width_m=0.032, depth_m=0.0035),
        ),
        wall_m=0.004,
    ),
    "mould-mat": _mould(
        "Bars on a mat, 24 places",
        "steel",
        0.002,
        300.0,
        Cavity(
            name="Place",
            count=24,
            water_kg=None,
            shape=BarShape(
                kind="bar", length_m=0.06, width_m=0.06, corner_m=0.0, depth_m=0.02, draft_rad=0.0, edge_m=0.0
            ),
        ),
        mat=Mat(material="silicone", thickness_m=0.001),
    ),
    "mould-moon": _mould(
        "Moon, two halves, 72 mm",
        "thermoformed",
        0.0006,
        60.0,
        Cavity(name="Half", count=4, water_kg=None, shape=HalfBallShape(kind="half_ball", diameter_m=0.072)),
    ),
    "mould-strips": _mould(
        "Strips of film, 210 by 40 mm",
        "acetate",
        0.0002,
        70.0,
        Cavity(
            name="Strip",
            count=6,
            water_kg=None,
            shape=BarShape(
                kind="bar", length_m=0.21, width_m=0.04, corner_m=0.0, depth_m=0.003, draft_rad=0.0, edge_m=0.0
            ),
        ),
    ),
    "mould-leaves": _mould(
        "Film for leaves, 12",
        "acetate",
        0.0002,
        70.0,
        Cavity(
            name="Place",
            count=12,
            water_kg=None,
            shape=BarShape(
                kind="bar", length_m=0.09, width_m=0.04, corner_m=0.0, depth_m=0.004, draft_rad=0.0, edge_m=0.0
            ),
        ),
    ),
    "mould-tiles": _mould(
        "Tiles, 300 by 145 mm",
        "acetate",
        0.0002,
        70.0,
        Cavity(
            name="Tile",
            count=200,
            water_kg=None,
            shape=BarShape(
                kind="bar", length_m=0.04, width_m=0.04, corner_m=0.0, depth_m=0.01, draft_rad=0.0, edge_m=0.0
            ),
        ),
        sheet=Sheet(length_m=0.3, width_m=0.145, web_m=0.0015, margin_m=0.006, turned=True),
    ),
    "mould-aurora": _mould(
        "Aurora sheet, 300 by 145 mm",
        "paper",
        0.0002,
        220.0,
        Cavity(
            name="Crescent",
            count=28,
            water_kg=None,
            shape=OutlineShape(
                kind="outline", corners=_crescent(0.019, 0.017, 0.011), depth_m=0.01, draft_rad=0.0, edge_m=0.0
            ),
        ),
        _star("Star", 200, 0.018, 0.01, 0.0),
        sheet=Sheet(length_m=0.3, width_m=0.145, web_m=0.004, margin_m=0.006, turned=False),
    ),
    "mould-constellation": _mould(
        "Constellation board",
        "acetate",
        0.0001,
        70.0,
        Cavity(name="Constellation", count=6, water_kg=None, shape=_constellation()),
    ).model_copy(update={"owned": 2}),
}
