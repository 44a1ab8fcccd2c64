"""A build laid pass by pass, into its cavity or onto its body: what each takes, how thick it is, and what cannot be."""

import math
from collections.abc import Callable
from functools import lru_cache

from umber_pebble.core.families.known import family_of
from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.moulds.traced import traced_of
from umber_pebble.core.pieces.body import Body, profile
from umber_pebble.core.pieces.faults import BuildFault, ImpossiblePass
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import LaidPass
from umber_pebble.core.pieces.melt_ref import OwnMelts
from umber_pebble.core.pieces.passes.base import InMould, OnBody, PassKind

PLANES = 12
ANGLES = tuple(math.pi * (i + 0.5) / PLANES for i in range(PLANES))
Passes = tuple[PassKind, ...]
Lay = Callable[[int, tuple[LaidPass, ...]], LaidPass]


def lay(
    cavity: Cavity, passes: Passes, bears_degc: float = math.inf, own: OwnMelts = ()
) -> tuple[list[LaidPass], list[BuildFault]]:
    """A build laid into its cavity, pass by pass; one that cannot be is left out and told.

    Args:
        cavity: the cavity
        passes: in their order
        bears_degc: what the mould bears [degC]
        own: melts of the workshop's own
    Raises: OutOfRange: a number that no pass may have.
    Source: geometry, common-practice
    """
    laid, faults = _laid_in(cavity, passes, bears_degc, own)
    return list(laid), list(faults)


def lay_on(
    body: Body, passes: Passes, bears_degc: float = math.inf, own: OwnMelts = ()
) -> tuple[list[LaidPass], list[BuildFault]]:
    """A build laid on a body, pass by pass; one that cannot be is left out and told.

    Args:
        body: what is coated
        passes, bears_degc, own: as for a cavity
    Raises: OutOfRange: a number that no pass may have.
    Source: geometry, landau-levich-1942
    """
    laid, faults = _laid_on(body, passes, bears_degc, own)
    return list(laid), list(faults)


def lay_by_hand(passes: Passes) -> tuple[list[LaidPass], list[BuildFault]]:
    """What is modelled by hand, of no mould and no melt; what cannot be is left out and told.

    Args:
        passes: in their order
    Source: geometry, common-practice
    """
    laid, faults = _all(passes, math.inf, (), lambda i, _: passes[i].lay_by_hand(i))
    return list(laid), list(faults)


@lru_cache(maxsize=256)
def _laid_in(
    cavity: Cavity, passes: Passes, bears_degc: float, own: OwnMelts
) -> tuple[tuple[LaidPass, ...], tuple[BuildFault, ...]]:
    hollow = Hollow(cavity)

    def one(i: int, laid: tuple[LaidPass, ...]) -> LaidPass:
        nonlocal hollow
        at = InMould(i, passes, laid, own, hollow)
        if "drawing" not in passes[i].ON and traced_of(cavity.shape) is not None:
            raise ImpossiblePass("wants_walls", "nothing holds it: over a drawing lines are piped")
        if hollow.closed and not _goes_on_closed(at):
            raise ImpossiblePass("closed", "the casting is full and level: nothing more goes in")
        made, hollow = passes[i].lay(at)
        return made

    return _all(passes, bears_degc, own, one)


@lru_cache(maxsize=256)
def _laid_on(
    body: Body, passes: Passes, bears_degc: float, own: OwnMelts
) -> tuple[tuple[LaidPass, ...], tuple[BuildFault, ...]]:
    outer = (profile(body.shape, body.diameter_m, body.high_m),) * PLANES

    def one(i: int, laid: tuple[LaidPass, ...]) -> LaidPass:
        nonlocal outer
        made, outer = passes[i].lay_on(OnBody(i, passes, laid, own, body, outer, ANGLES))
        return made

    return _all(passes, bears_degc, own, one)


def _all(
    passes: Passes, bears_degc: float, own: OwnMelts, one: Lay
) -> tuple[tuple[LaidPass, ...], tuple[BuildFault, ...]]:
    laid, faults = tuple[LaidPass, ...](), list[BuildFault]()
    for i, of in enumerate(passes):
        try:
            _bears(of, bears_degc, own)
            if of.AFTER and not all(one.AFTER for one in passes[i:]):
                words = "it is put on once the piece is out of its mould: move it down, after all that is cast"
                raise ImpossiblePass("after_finish", words)
            laid = (*laid, one(i, laid))
        except ImpossiblePass as wrong:
            faults.append(wrong.at(i))
    return laid, tuple(faults)


def _goes_on_closed(at: InMould) -> bool:
    one = at.passes[at.i]
    return one.ON_TOP or (one.pushed_in_m3 is not None and at.before is not None and at.before.SOLID)


def _bears(one: PassKind, bears_degc: float, own: OwnMelts) -> None:
    """Nothing where what it is cast in or on bears the melts of a pass."""
    for ref, _ in one.melts():
        melt = ref.of(own)
        runs = family_of(melt).coolest_degc(melt)
        if runs > bears_degc:
            words = f"it does not bear the heat: {melt.name} is hotter while it runs"
            raise ImpossiblePass("mould_too_weak", words, runs, bears_degc, "degC")
