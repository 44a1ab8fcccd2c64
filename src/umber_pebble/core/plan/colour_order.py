"""What may be mixed into what: the same material, as it comes or lighter, into one that is darker."""

from umber_pebble.core.colour.spaces import lab_of_hex
from umber_pebble.core.plan.problem import MeltWay

LIGHTER_L = 8.0
"""By so much lighter at least is what a darker melt swallows [L*]. Source: assumption"""


def is_same_material(way: MeltWay, other: MeltWay) -> bool:
    """Whether two melts are of one material, in whatever colour. Source: definition"""
    return way.melt.key == other.melt.key


def swallows(taker: MeltWay, left: MeltWay) -> bool:
    """Whether a melt takes what is left of another unseen: the same, or so much darker; what has no colour is coloured with the rest.

    Source: common-practice
    """
    if not is_same_material(taker, left):
        return False
    if taker.colour is None or left.colour is None:
        return left.colour is None
    return left.colour == taker.colour or lightness(left.colour) - lightness(taker.colour) >= LIGHTER_L


def lightness(colour: str) -> float:
    """How light a colour is, 0 black to 100 white [L*]. Source: cie-015-2018"""
    return float(lab_of_hex(colour)[..., 0])
