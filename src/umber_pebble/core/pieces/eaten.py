"""What of a piece may be eaten: each part takes the worst of what stays on it, and what can be taken off is named."""

from collections.abc import Sequence
from dataclasses import dataclass

from umber_pebble.core.pieces.bought import InIt
from umber_pebble.core.pieces.passes.base import PassKind


@dataclass(frozen=True, slots=True)
class EatenPart:
    """A part: whether it is eaten, what makes it not, and what is taken off it before, by their names."""

    name: str
    eaten: bool
    spoilt_by: tuple[InIt, ...]
    comes_off: tuple[InIt, ...]


@dataclass(frozen=True, slots=True)
class Eaten:
    """A piece, part by part, and the text for its label, "" where all of it is food."""

    parts: tuple[EatenPart, ...]
    label: str


def eaten(parts: Sequence[tuple[str, Sequence[PassKind]]]) -> Eaten:
    """What of a piece may be eaten. Strict: what is only said to be non-toxic is not food.

    Args:
        parts: their names, and their passes
    Source: common-practice
    """
    told = tuple(_part(name, passes) for name, passes in parts)
    off = dict.fromkeys(f"{of.name} ({part.name})" for part in told if part.eaten for of in part.comes_off)
    not_eaten = [
        f"{part.name} ({', '.join(dict.fromkeys(of.name for of in part.spoilt_by or part.comes_off))})"
        for part in told
        if not part.eaten
    ]
    words = [
        *([f"Remove before eating: {', '.join(off)}."] if off else []),
        *([f"Not for eating: {', '.join(not_eaten)}."] if not_eaten else []),
    ]
    return Eaten(told, " ".join(words))


def _part(name: str, passes: Sequence[PassKind]) -> EatenPart:
    things = [of for one in passes for of in one.in_it()]
    spoilt = tuple(of for of in things if of.status != "food" and not of.comes_off)
    off = tuple(of for of in things if of.status != "food" and of.comes_off)
    # a part that is only what is bought, as a board, is not eaten itself
    alone = bool(off) and all(one.in_it() for one in passes)
    return EatenPart(name, not spoilt and not alone, spoilt, off)
