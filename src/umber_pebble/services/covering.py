"""Whether a thin coloured layer hides what is behind it, and whether white between them would help."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from umber_pebble.core.colour.layers import CoatOfColour, seen_over, smooth_reflectance
from umber_pebble.core.colour.look import base_reflectance
from umber_pebble.core.colour.recipe import FAR_OFF
from umber_pebble.core.colour.spaces import Array, delta_e_2000, hex_of_lab, lab_of_hex, lab_of_spectrum
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.base import PassKind, Thin
from umber_pebble.services.built import Built
from umber_pebble.services.colouring import BASES_OF, NEARER
from umber_pebble.services.piece_docs import Pass

WHITE = MeltRef("cocoa_butter", "#ffffff")
AS_LARGE = 0.999
"""What is behind a layer covers so much of it at least [frac]."""


@dataclass(frozen=True, slots=True)
class Covering:
    """How a thin coloured layer looks over what is behind it, and how far off its own colour that is [CIEDE2000]; the same with white
    behind it; white: that pass, None where it needs none."""

    wanted: str
    seen: str
    off: float
    with_white: str
    with_white_off: float
    white: Pass | None


def coverings(built: Built, relatives: Mapping[str, str]) -> dict[int, Covering]:
    """Of a part's thin coloured layers, by their place; relatives: which melt of the tables one of the workshop's own is like."""
    out: dict[int, Covering] = {}
    for i, one in enumerate(built.passes):
        thin = one.thin
        base = None if thin is None else base_of(thin.melt, relatives)
        behind = None if thin is None else _behind(built, i, thin, relatives)
        if thin is not None and thin.melt.colour is not None and base is not None and behind is not None:
            out[i] = _covering(one, _coat(thin, base), thin.melt.colour, *behind)
    return out


def _covering(
    one: PassKind, mine: CoatOfColour, colour: str, coats: list[CoatOfColour], ground: Array
) -> Covering:
    wanted, white = lab_of_hex(colour), one.with_behind("White behind", WHITE)
    assert white.thin is not None
    between = _coat(white.thin, _white_base())
    bare, over_white = seen_over([mine, *coats], ground), seen_over([mine, between, *coats], ground)
    off, then = float(delta_e_2000(bare, wanted)), float(delta_e_2000(over_white, wanted))
    needs = off > FAR_OFF and then < off - NEARER
    return Covering(colour, hex_of_lab(bare), off, hex_of_lab(over_white), then, white if needs else None)


def _behind(
    built: Built, i: int, front: Thin, relatives: Mapping[str, str]
) -> tuple[list[CoatOfColour], Array] | None:
    """The thin layers behind a layer and what hides all behind them; None where nothing is, or nothing that is opaque."""
    coats = list[CoatOfColour]()
    for later in built.passes[i + 1 :]:
        refs = [ref for ref, _ in later.melts()]
        base = base_of(refs[0], relatives) if refs else None
        if base is None:
            if refs:
                return None
        elif (thin := later.thin) is None:
            return coats, np.array(hiding(refs[0], base))
        elif _as_large(thin, front):
            coats.append(_coat(thin, base))
    return None


def _as_large(later: Thin, front: Thin) -> bool:
    if later.outline is None:
        return later.share_frac >= AS_LARGE * front.share_frac
    return later.outline == front.outline


def _coat(one: Thin, base: Material) -> CoatOfColour:
    return CoatOfColour(hiding(one.melt, base), base.value("scatter"), one.thick_m)


def hiding(ref: MeltRef, base: Material) -> tuple[float, ...]:
    """What a melt gives back where it is thick."""
    if ref.colour is None or base is _white_base():
        return tuple(float(v) for v in base_reflectance(base))
    return smooth_reflectance(ref.colour)


def base_of(ref: MeltRef, relatives: Mapping[str, str]) -> Material | None:
    """What a melt in a colour is of: the base that looks like it by itself, else the usual one; None of what is clear."""
    bases = [material("bases", key) for key in BASES_OF.get(relatives.get(ref.material, ref.material), [])]
    opaque = [base for base in bases if not base.flags.get("clear", False)]
    if not opaque or ref.colour is None:
        return next(iter(opaque), None)
    return next(_alike(opaque, ref.colour), opaque[0])


def _alike(bases: list[Material], colour: str) -> Iterator[Material]:
    wanted = lab_of_hex(colour)
    for base in bases:
        if float(delta_e_2000(lab_of_spectrum(base_reflectance(base)), wanted)) <= FAR_OFF:
            yield base


def _white_base() -> Material:
    return material("bases", "white_cocoa_butter")
