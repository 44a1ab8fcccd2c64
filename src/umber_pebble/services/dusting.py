"""How a dust looks on what it lies on, tilted to the light, and how on a base of its own colour."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from umber_pebble.core.colour.flakes import TILTS_RAD, Dusted, looks
from umber_pebble.core.colour.layers import smooth_reflectance
from umber_pebble.core.colour.recipe import FAR_OFF
from umber_pebble.core.colour.spaces import Array, delta_e_2000, hex_of_lab, lab_of_spectrum
from umber_pebble.core.pieces.finishes import Finish, lies_kg_m2
from umber_pebble.services.built import Built
from umber_pebble.services.covering import base_of, hiding


@dataclass(frozen=True, slots=True)
class Swatches:
    """A surface bare, and under a dust: towards the light, a little aside and far from it, as hex; the same on a base of the dust's own colour,
    and how far apart the two are, far from the light [CIEDE2000]; swallowed: so far that the base swallows it."""

    bare: str
    here: tuple[str, ...]
    matching: tuple[str, ...]
    apart: float
    swallowed: bool


def swatches(built: Built, relatives: Mapping[str, str]) -> dict[int, Swatches]:
    """Of a part's finishes that are of dust, by their place; relatives: which melt of the tables one of the workshop's own is like."""
    out: dict[int, Swatches] = {}
    for row in built.laid:
        of = built.passes[row.index].finish(row.area_m2)
        base = _seen(built, relatives)
        if of is not None and of.dust is not None and of.colour is not None and base is not None:
            out[row.index] = _swatches(of, base)
    return out


def _swatches(of: Finish, base: Array) -> Swatches:
    assert of.dust is not None and of.colour is not None
    dust = Dusted(of.dust, of.colour, lies_kg_m2(of))
    own = np.array(smooth_reflectance(of.colour))
    here, there = ([looks(dust, on, tilt) for tilt in TILTS_RAD] for on in (base, own))
    apart = float(delta_e_2000(here[-1], there[-1]))
    return Swatches(
        hex_of_lab(lab_of_spectrum(base)),
        tuple(hex_of_lab(lab) for lab in here),
        tuple(hex_of_lab(lab) for lab in there),
        apart,
        apart > 2 * FAR_OFF,
    )


def _seen(built: Built, relatives: Mapping[str, str]) -> Array | None:
    """What most of the part gives back: its last melt that is no thin layer; None of what is clear."""
    for one in reversed(built.passes):
        melts = [ref for ref, _ in one.melts()]
        if melts and one.thin is None:
            base = base_of(melts[0], relatives)
            return None if base is None else np.array(hiding(melts[0], base))
    return None
