"""What follows in a run to its end, as it is told to benches that may lose the network."""

import threading
from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import islice

from umber_pebble.core.bench.acts import Call, calls
from umber_pebble.core.bench.ahead import chain
from umber_pebble.core.bench.events import Body
from umber_pebble.core.bench.passes import Act
from umber_pebble.core.bench.state import RunState
from umber_pebble.services.bench import ActView, act_view, acts_of
from umber_pebble.services.interpreted import FrozenPlan, Interpreted, interpret
from umber_pebble.services.runs import RunService
from umber_pebble.services.told import payload_of

AT_ONCE = 80
"""So many acts reach to the end of most orders, and are reckoned in a moment; of the largest the rest follows."""
SAYS_OF_WHAT = ("cook", "round", "batch", "place", "test", "step")


@dataclass(frozen=True, slots=True)
class KnownBy:
    """By what an event is known that tells an act: its kind, and what of its payload says of what."""

    kind: str
    says: dict[str, int | str]


@dataclass(frozen=True, slots=True)
class LinkView:
    """An act to come: after which other of the chain its window is reckoned, when it is done in this forecast [s since the run
    started], what event tells so, and when to call for it."""

    act: ActView
    after: int | None
    at_s: float
    told: KnownBy | None
    calls: list[Call]


@dataclass(frozen=True, slots=True)
class Ahead:
    """The acts to the end of a run, as of its newest event; not whole: there are more, asked for again."""

    run_id: str
    seq: int
    links: list[LinkView]
    whole: bool


class Foresight:
    """What follows in a run, for benches that cannot ask: it is reckoned for one of them at a time, and for all alike."""

    def __init__(self, service: RunService) -> None:
        self.service = service
        self._one = threading.Lock()
        self._key: tuple[str, int, bool, str] | None = None
        self._links: list[LinkView] = []
        self._more: Iterator[LinkView] = iter(())

    def ahead(self, run_id: str, actor: str) -> Ahead:
        """The acts to the end if each is done as early as it may be; so many more each time it is asked.

        Raises: NotFound. Unreadable.
        """
        with self._one:
            run, frozen, seen, _ = self.service.look(run_id)
            # nothing but the caution is somebody's own, unless the day was planned for several
            key = (run_id, seen.seq, actor in seen.state.acknowledged, actor if frozen.whose else "")
            if self._key != key:
                elapsed = (self.service.workshop.clock.now() - run.started_at).total_seconds()
                self._key, self._links, self._more = key, [], _links(frozen, seen, actor, elapsed)
            more = list(islice(self._more, AT_ONCE))
            self._links += more
            return Ahead(run_id, seen.seq, list(self._links), len(more) < AT_ONCE)


def _known_by(told: Body | None) -> KnownBy | None:
    if told is None:
        return None
    return KnownBy(told.KIND, {key: value for key, value in payload_of(told).items() if key in SAYS_OF_WHAT})


def _links(frozen: FrozenPlan, seen: Interpreted, actor: str, elapsed: float) -> Iterator[LinkView]:
    # what is tried out leaves no trace in what is kept
    trial = replace(frozen, kept=dict(frozen.kept))

    def tried(state: RunState, now: float) -> list[Act]:
        return acts_of(trial, interpret(trial, state, seen.seq), actor, now)

    before_s = frozen.plan.paces.call_before_s
    for of in chain(seen.state, elapsed, actor, tried):
        yield LinkView(
            act_view(of.act, frozen, seen), of.after, of.at_s, _known_by(of.told), calls([of.act], before_s)
        )
