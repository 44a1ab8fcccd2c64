"""What a thing cannot bear or hold: the only refusals of an event that rest on more than the log."""

import logging

from umber_pebble.core.bench.batch_events import Decanted, Parted
from umber_pebble.core.bench.events import Body, Burst, Heated, Poured
from umber_pebble.core.bench.payload import refuse
from umber_pebble.core.bench.state import RunState
from umber_pebble.core.bench.track import temperature_at_degc
from umber_pebble.core.bench.vessel_acts import heater_free_s
from umber_pebble.core.errors import MouldTooWeak, OutOfRange
from umber_pebble.core.materials.load import material
from umber_pebble.services.interpreted import FrozenPlan, Interpreted, interpret

LOG = logging.getLogger(__name__)


def check_things(frozen: FrozenPlan, state: RunState, new: Body) -> None:
    """Whether moulds, holders and heaters bear and hold what a new event does, with it in the state.

    Raises: MouldTooWeak, NotInSequence, OutOfRange.
    """
    if isinstance(new, Heated | Burst):
        _heater_free(frozen, state, new)
        _by_its_heat(frozen, state, new)
    if not isinstance(new, Poured | Decanted | Parted):
        return
    try:
        seen = interpret(frozen, state, 0)
    except Exception:
        # what no model can follow is no reason to refuse what was done
        LOG.exception("how hot it is is not known: %s is taken as it is", new.KIND)
        return
    if isinstance(new, Poured):
        _mould_bears(frozen, seen, new.round)
    else:
        _holders_bear(frozen, seen, len(new.into))


def _mould_bears(frozen: FrozenPlan, seen: Interpreted, number: int) -> None:
    """No pour that is hotter than its mould bears.

    Raises: MouldTooWeak.
    """
    target = seen.state.rounds[number]
    cook = frozen.cooks[target.cook]
    assert target.poured_s is not None
    now = temperature_at_degc(seen.rests[(target.cook, target.rest)], target.poured_s)
    bears = cook.pours[target.line][0].mould_bears_degc
    if now.likely > bears:
        raise MouldTooWeak(
            f"the pot is at {now.likely:.0f} degC and the mould bears {bears:g} degC: "
            "let it rest, or use silicone or metal",
            path="payload.round",
            got=now.likely,
            limits={"high": bears},
        )


def _heater_free(frozen: FrozenPlan, state: RunState, new: Heated | Burst) -> None:
    """A ring, a bath place and a microwave hold one vessel.

    Raises: NotInSequence.
    """
    cooks = frozen.cooks
    cook = cooks[new.cook]
    at = (
        state.cooks[cook.number].bursts[-1].at_s
        if isinstance(new, Burst)
        else state.cooks[cook.number].heated_s or 0.0
    )
    if heater_free_s(cooks, state, cook) > at:
        raise refuse("something else is on this heater: one at a time", "heater_taken", cook=cook.number)


def _by_its_heat(frozen: FrozenPlan, state: RunState, new: Heated | Burst) -> None:
    """A bowl for the microwave is not put on as a pot, but warmed again over a bath where a burst would be too much; older runs, which did,
    are read by their plan.

    Raises: NotInSequence.
    """
    cook = frozen.cooks[new.cook]
    melts = state.cooks[cook.number].anew
    if isinstance(new, Heated) and melts and frozen.layout.bursts[cook.rounds[0].line]:
        raise refuse("this bowl is melted in a microwave: tell each burst", "by_bursts", cook=cook.number)


def _holders_bear(frozen: FrozenPlan, seen: Interpreted, made: int) -> None:
    """No hot sugar into a bag or bowl that does not bear it.

    Raises: OutOfRange.
    """
    for batch in seen.state.batches[-made:]:
        bears = material("kitchen", batch.holder, "holder").value("bears")
        rests = seen.state.cooks[batch.cook].rests
        degc = temperature_at_degc(seen.rests[(batch.cook, len(rests) - 1)], batch.at_s).likely
        if batch.parent is None and degc > bears:
            raise OutOfRange(
                f"a {batch.holder} bears {bears:g} degC and this is at {degc:.0f}: silicone cups or a heat-proof jug",
                path="payload.into",
                got=degc,
                limits={"high": bears},
            )
