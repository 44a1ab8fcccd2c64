"""The pastes of an order, each in its colours: how much is to be ready, what is left of it, and into which other that may go."""

from dataclasses import dataclass, replace

from umber_pebble.core.colour.spaces import lab_of_hex
from umber_pebble.core.materials.load import material
from umber_pebble.core.pieces.ratios import Feel, Mixed, feel_of, mixed_of, mixtures
from umber_pebble.core.plan.problem import PlanInput


@dataclass(frozen=True, slots=True)
class PasteNeed:
    """A paste in a colour, as hex, None as it comes: all that is pressed or modelled of it, with what stays on pin, board and hands and the
    off-cuts of the last it is cut out of [kg]; what of that comes out of another's off-cuts [kg]; what is left in the end [kg], and into which
    colour of it that may be kneaded, None: into none; what it is mixed of, and what is added by feel, if that is known."""

    key: str
    name: str
    colour: str | None
    kg: float
    of_others_kg: float
    left_kg: float
    into: str | None
    of: Mixed
    feel: Feel | None

    @property
    def fresh_kg(self) -> float:
        """What is taken anew [kg]."""
        return self.kg - self.of_others_kg


def pastes_of(plan: PlanInput) -> list[PasteNeed]:
    """What pastes an order takes, each once, the lightest colour of each first: off-cuts are kneaded in again, and in the end into the next
    darker colour, since no colour is ever taken out.

    Args:
        plan: the order
    Source: common-practice
    """
    usual = material("kitchen", "usual", "paste")
    totals: dict[tuple[str, str | None], float] = {}
    off_cuts: dict[tuple[str, str | None], float] = {}
    for step in plan.by_hand:
        for share in step.pastes:
            key, kg = (share.of.key, share.of.colour), step.count * share.kg
            totals[key] = totals.get(key, 0.0) + kg * (1 + usual.value("stays"))
            at_once = min(kg, usual.value("at_once")) if share.of.cut_out else 0.0
            off_cuts[key] = max(off_cuts.get(key, 0.0), at_once * usual.value("surplus"))
    out = list[PasteNeed]()
    for paste in dict.fromkeys(key for key, _ in totals):
        out += _handed_on([_need(paste, colour, totals, off_cuts) for colour in _by_lightness(paste, totals)])
    return out


def _by_lightness(paste: str, totals: dict[tuple[str, str | None], float]) -> list[str | None]:
    """The colours of a paste, as it comes first, then from light to dark."""
    colours = [colour for key, colour in totals if key == paste]
    return sorted(colours, key=lambda c: (c is not None, 0.0 if c is None else -float(lab_of_hex(c)[0])))


def _need(
    paste: str,
    colour: str | None,
    totals: dict[tuple[str, str | None], float],
    off_cuts: dict[tuple[str, str | None], float],
) -> PasteNeed:
    left = off_cuts[paste, colour]
    kg = totals[paste, colour] + left
    known = mixtures()
    mixed, feel = (mixed_of(paste, kg), feel_of(paste, kg)) if paste in known else ((), None)
    return PasteNeed(paste, material("pastes", paste).name, colour, kg, 0.0, left, None, mixed, feel)


def _handed_on(needs: list[PasteNeed]) -> list[PasteNeed]:
    """Off-cuts of each into the next darker, as far as that takes them; what is mixed anew is less by that."""
    for i in range(len(needs) - 1):
        one, then = needs[i], needs[i + 1]
        gives = min(one.left_kg, then.kg)
        if gives > 0:
            needs[i] = replace(one, into=then.colour, left_kg=one.left_kg - gives)
            share = 1 - gives / then.kg
            mixed = mixed_of(then.key, then.kg * share) if then.of else ()
            needs[i + 1] = replace(then, of_others_kg=gives, of=mixed)
    return needs
