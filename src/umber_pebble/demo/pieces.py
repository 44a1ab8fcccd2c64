"""Demo pieces: an observatory's first-light night, all names made up."""

from umber_pebble.core.pieces.dipped import Dipped
from umber_pebble.core.pieces.joining.base import Join
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.close import Close
from umber_pebble.core.pieces.passes.cluster import Cluster
from umber_pebble.core.pieces.passes.detail import Detail
from umber_pebble.core.pieces.passes.dip import Dip
from umber_pebble.core.pieces.passes.drizzle import Drizzle
from umber_pebble.core.pieces.passes.dust import Dust
from umber_pebble.core.pieces.passes.dusted import GOLD, DryDust
from umber_pebble.core.pieces.passes.extra import Extra
from umber_pebble.core.pieces.passes.fill import Fill
from umber_pebble.core.pieces.passes.filling import Filling
from umber_pebble.core.pieces.passes.lacquered import Lacquered
from umber_pebble.core.pieces.passes.lines import Lines
from umber_pebble.core.pieces.passes.painted import Painted
from umber_pebble.core.pieces.passes.paste import Paste
from umber_pebble.core.pieces.passes.printed import Print
from umber_pebble.core.pieces.passes.ribbon import PasteRibbon
from umber_pebble.core.pieces.passes.rolled import Rolled
from umber_pebble.core.pieces.passes.rope import Rope
from umber_pebble.core.pieces.passes.rose import Rose
from umber_pebble.core.pieces.passes.shell import Shell
from umber_pebble.core.pieces.passes.stick import Stick
from umber_pebble.core.pieces.passes.trim import Trim
from umber_pebble.core.pieces.passes.turned import Turned
from umber_pebble.core.pieces.passes.wire import Wire
from umber_pebble.demo.made import DUSK, MOON, NIGHT_BLUE, OCHRE, built, fill, melt, part, share
from umber_pebble.demo.sheet_pieces import SHEET_PIECES
from umber_pebble.services.piece_docs import Part, Pass, Piece, Spot, Stand


def _modelled(name: str, one: Pass, count: int = 1) -> Part:
    """A part of paste, of no mould."""
    return part(name, None, [one], count=count)


def _glued(part: int, to: int, count: int = 1, seam_m: float = 0.0, dots: int = 0) -> Join:
    return Join(part, to, "glue", melt("coating"), count, seam_m, dots, 0.004, 0.0, 0.0, 0)


def _dipped(name: str, body: Dipped, passes: list[Pass]) -> Piece:
    """A piece that is a body with its coats."""
    part = Part(
        name=name,
        count=1,
        mould_id=None,
        body=body,
        seen="mould",
        cavity=0,
        passes=passes,
        bent=False,
        released=False,
        stays=[],
    )
    return Piece(name=name, parts=[part], joins=[], stand=None)


def _dip(of: MeltRef, line_m: float | None = None, slant_rad: float = 0.0) -> Dip:
    return Dip(melt=of, line_m=line_m, slant_rad=slant_rad, thick_m=None, others=())


def _bead(part: int, to: int, melt: MeltRef, count: int, seam_m: float, props: int) -> Join:
    return Join(
        part=part,
        to=to,
        by="melt",
        melt=melt,
        count=count,
        seam_m=seam_m,
        dots=0,
        bead_m=0.004,
        gap_m=0.0,
        deep_m=0.0,
        props=props,
    )


def _solid(
    name: str,
    of: str,
    mould: str,
    level_m: float,
    cavity: int = 0,
    bent: bool = False,
    stick: Stick | None = None,
) -> Piece:
    """A piece that is one solid cast, with a stick put in or not."""
    return built(name, mould, [fill(of, level_m), *([stick] if stick else [])], cavity, bent=bent)


TOPPER_PARTS: dict[str, tuple[str, int, list[Pass]]] = {
    "Star": ("mould-sky", 0, [fill("coating", 0.006)]),
    "Meteorite": ("mould-sky", 1, [fill("dark", 0.012)]),
    "Heart": ("mould-sky", 2, [Fill(melt=melt("coating", DUSK), level_m=0.006, others=(), stripes_m=None)]),
    "Constellation": ("mould-constellation", 0, [Lines(melt=melt("dark"))]),
}


def _topper(name: str, **counts: int) -> Piece:
    """Of so many of each of the parts that all toppers are made of."""
    parts = [
        part(key, mould, passes, cavity, count)
        for key, (mould, cavity, passes) in TOPPER_PARTS.items()
        if (count := counts.get(key.lower(), 0))
    ]
    return Piece(name=name, parts=parts, joins=[], stand=None)


TOPPERS = {
    "piece-topper-north": _topper("Northern topper", star=1, constellation=1),
    "piece-topper-south": _topper("Southern topper", star=2, meteorite=1),
    "piece-topper-dome": _topper("Dome topper", star=1, heart=1),
    "piece-topper-fall": _topper("Falling topper", meteorite=2, constellation=1),
    "piece-topper-dusk": _topper("Dusk topper", heart=1, constellation=1),
    "piece-topper-belt": _topper("Belt topper", star=3),
    "piece-topper-crater": _topper("Crater topper", meteorite=1, heart=1),
}
"""Seven toppers out of four parts."""

PIECES = {
    **TOPPERS,
    **SHEET_PIECES,
    "piece-praline": _dipped(
        "Comet praline",
        Dipped(
            name="Praline centre",
            made_of="ganache",
            shape="ball",
            diameter_m=0.026,
            high_m=0.02,
            degc=20.0,
            tray=24,
        ),
        [
            _dip(melt("coating", NIGHT_BLUE)),
            Print(name="Comet print", on_wet=True, of="transfer", made_for="food", in_row=6, laid="flat"),
        ],
    ),
    "piece-swirled": built(
        "Nebula bonbon",
        "mould-sky",
        [
            Shell(
                melt=melt("coating", NIGHT_BLUE),
                thick_m=0.0018,
                emptied=True,
                sides=False,
                dwell_s=20.0,
                others=(share(DUSK, 0.3), share(MOON, 0.2)),
            ),
            Filling(filling="ganache", gap_m=0.002, kg=None, degc=26.0, loss_frac=0.08),
            Close(melt=melt("coating", NIGHT_BLUE)),
        ],
        cavity=1,
    ),
    "piece-disc": _solid("Star-glass disc", "isomalt", "mould-disc", 0.004),
    "piece-lens": _solid("Comet lens, bent", "isomalt", "mould-lens", 0.003, bent=True),
    "piece-lollipop": _solid(
        "Ringed-planet lollipop",
        "coating",
        "mould-planet",
        0.006,
        stick=Stick(diameter_m=0.004, inside_m=0.03, use="stays"),
    ),
    "piece-star": _solid("Sampler star", "coating", "mould-sky", 0.0075),
    "piece-meteorite": _solid("Meteorite", "coating", "mould-sky", 0.0145, cavity=1),
    "piece-bonbon": _solid("Meteorite, dark", "dark", "mould-sky", 0.0145, cavity=1),
    "piece-pane": _solid("Dome pane", "isomalt", "mould-pane", 0.003),
    "piece-pop": built(
        "Night-sky pop",
        "mould-pop",
        [
            Detail(
                name="Moon cap",
                melt=melt("coating", MOON),
                share_frac=0.16,
                thick_m=0.0012,
                outline=None,
                by="piped",
            ),
            Shell(
                melt=melt("coating", NIGHT_BLUE),
                thick_m=0.0016,
                emptied=False,
                sides=False,
                dwell_s=0.0,
                others=(),
            ),
            Stick(diameter_m=0.004, inside_m=0.045, use="reseated"),
            Filling(filling="cake", gap_m=0.0022, kg=None, degc=20.0, loss_frac=0.05),
            Close(melt=melt("coating", NIGHT_BLUE)),
        ],
    ),
    "piece-filled": built(
        "Filled meteorite",
        "mould-sky",
        [
            Detail(
                name="Ochre streak",
                melt=melt("coating", OCHRE),
                share_frac=0.1,
                thick_m=0.0006,
                outline=None,
                by="finger",
            ),
            Shell(melt=melt("dark"), thick_m=0.0018, emptied=True, sides=False, dwell_s=20.0, others=()),
            Filling(filling="ganache", gap_m=0.002, kg=None, degc=26.0, loss_frac=0.08),
            Close(melt=melt("dark")),
        ],
        cavity=1,
    ),
    "piece-moon": Piece(
        name="Hollow moon",
        parts=[
            part(
                "Ball",
                "mould-moon",
                [
                    Detail(
                        name="Craters",
                        melt=melt("coating", DUSK),
                        share_frac=0.12,
                        thick_m=0.0008,
                        outline=None,
                        by="piped",
                    ),
                    Turned(melt=melt("coating", MOON), ball_kg=0.113),
                ],
            ),
        ],
        joins=[],
        stand=None,
    ),
    "piece-dome": Piece(
        name="Dome of panes",
        parts=[
            part("Pane", "mould-pane", [fill("isomalt", 0.003)], count=8),
            part("Hatch", "mould-disc", [fill("isomalt", 0.004)]),
        ],
        joins=[_bead(0, 0, melt("isomalt"), 8, 0.12, 2), _bead(1, 0, melt("isomalt"), 1, 0.15, 2)],
        stand=Stand(
            spots=[Spot(x_m=0.0, z_m=0.06), Spot(x_m=0.0, z_m=0.12)],
            base_m=0.2,
            base_deep_m=0.2,
            foot_wide_m=0.08,
            foot_thick_m=0.003,
            wire_m=0.0005,
            wire_in_m=0.01,
        ),
    ),
    "piece-berry": _dipped(
        "Comet strawberry",
        Dipped(
            name="Strawberry", made_of="fruit", shape="cone", diameter_m=0.034, high_m=0.042, degc=21.0, tray=20
        ),
        [
            _dip(melt("coating", NIGHT_BLUE), 0.032, 0.3),
            Drizzle(melt=melt("coating", MOON), length_m=0.25, bore_m=0.0015),
        ],
    ),
    "piece-cup": _dipped(
        "Crater cup",
        Dipped(
            name="Balloon, 80 mm", made_of="balloon", shape="ball", diameter_m=0.08, high_m=0.09, degc=21.0, tray=8
        ),
        [_dip(melt("coating", MOON), 0.035), _dip(melt("coating", MOON), 0.03)],
    ),
    "piece-leaf": built("Laurel leaf", "mould-leaf", [fill("isomalt", 0.0018)], bent=True),
    "piece-cluster": built(
        "Asteroid cluster",
        "mould-mat",
        [
            Cluster(name="Roasted nuts", melt=melt("dark"), inside_kg=0.012, melt_frac=0.35),
            Dust(name="Salt flakes", kg=0.0003, on_wet=True, status="food"),
        ],
    ),
    "piece-nebula": built(
        "Nebula heart",
        "mould-sky",
        [
            Fill(
                melt=melt("coating", DUSK),
                level_m=0.0085,
                others=(share(MOON, 0.25),),
                stripes_m=None,
            ),
        ],
        cavity=2,
    ),
    "piece-basket": Piece(
        name="Comet basket",
        parts=[
            _modelled("Wall", Rolled("fondant", 0.003, 0.19, 0.04, 1, True, None)),
            _modelled("Floor", Rolled("fondant", 0.004, 0.06, 0.06, 1, True, None)),
            _modelled("Handle", Rope("gum_paste", 0.006, 0.16, 2, True, None)),
            _modelled("Star rose", Rose("gum_paste", 7, 0.02, 0.0012, True, OCHRE), count=3),
            _modelled("Bow", PasteRibbon("gum_paste", 0.0012, 0.018, 0.06, "bow", False, OCHRE)),
        ],
        joins=[
            _glued(0, 1, seam_m=0.19),
            _glued(2, 0, count=2, dots=1),
            _glued(3, 0, count=3, dots=1),
            _glued(4, 2, dots=1),
        ],
        stand=None,
    ),
    "piece-pick": Piece(
        name="Comet pick",
        parts=[
            part(
                "Star",
                "mould-sky",
                [
                    Fill(melt=melt("coating", OCHRE), level_m=0.006, others=(), stripes_m=None),
                    Wire("Covered wire", 24, 1, 0.08, 0.012, 0.004, 0.003, "unknown"),
                    Extra("Sugar pearls", "pearls", 3, 0.00008, 0.004, True, "food"),
                ],
            ),
            part("Lace", None, [Trim("Sugar lace", "lace", 1, 0.07, 0.005, 0.02, "food")]),
            part("Board", None, [Extra("Cake board", "board", 1, 0.03, 0.1, True, "contact")]),
        ],
        joins=[],
        stand=None,
    ),
    "piece-gilded": Piece(
        name="Gilded stars",
        parts=[
            part(
                "Gilded star",
                "mould-sky",
                [
                    Fill(melt=melt("coating", OCHRE), level_m=0.006, others=(), stripes_m=None),
                    Wire("Covered wire", 24, 1, 0.06, 0.012, 0.004, 0.003, "unknown"),
                    DryDust("Gold dust", "highlighter", GOLD, 1.0, 2, "food"),
                    Lacquered("Edible lacquer", 1.0, 1, "food"),
                ],
            ),
            part(
                "Dark star",
                "mould-sky",
                [
                    fill("dark", 0.006),
                    Painted("Gold paint", "highlighter", GOLD, 0.3, 2, 0.4, 0.5, "non_toxic"),
                ],
            ),
        ],
        joins=[],
        stand=None,
    ),
    "piece-constellation": built("Constellation", "mould-constellation", [Lines(melt=melt("dark"))]),
    "piece-badge": built(
        "Observatory badge",
        "mould-disc",
        [
            Paste(paste="fondant", kg=0.012, colour=None),
        ],
    ),
}
