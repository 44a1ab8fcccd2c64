"""A first timetable at once: what hangs together is put, piece by piece, where it first fits."""

import math
from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import replace

from umber_pebble.core.plan.day.batches import Batch, batches_of
from umber_pebble.core.plan.day.blocks import Block, alike, between, blocks_of, tails_s
from umber_pebble.core.plan.day.bounded import Bounded
from umber_pebble.core.plan.day.lines import EVER_S, Line, apart, whose
from umber_pebble.core.plan.day.needs import LOOK_S, LOOKS, Found, How, NoPlace, Take, Wish
from umber_pebble.core.plan.day.problem import Day, Draw, Heat, Stay, Timetable, heated_before


def first_timetable(
    day: Day, rank: Sequence[float] | None = None, bias: float = 0.0, keeps: bool = True
) -> Timetable:
    """A timetable that keeps all windows, found without search [s].

    Args:
        day: what is asked
        rank: per thing, what is lower goes first where several may be next; None: what is followed by most
        bias: how much later something may begin for each of its rank that is lower, and still go first [1]
        keeps: whether what is not poured for long is warmed meanwhile, so as not to be melted again
    Raises: NoPlace: it finds none; there may be one.
    Source: definition
    """
    return _Greedy(day, rank or tails_s(day), bias, keeps).table()


class _Greedy:
    def __init__(self, day: Day, rank: Sequence[float], bias: float, keeps: bool) -> None:
        self.day, self.rank, self.bias, self.keeps = day, rank, bias, keeps
        self.people = [Line(1) for _ in range(day.people)]
        for person, line in enumerate(self.people):
            for start, end in apart([(s, e) for who, s, e in day.closed if who == person]):
                line.take(start, end)
        self.lines: dict[str, Line] = {}
        self.start: dict[int, int] = {}
        self.who: dict[int, int] = {}
        self.heats: list[Heat] = []
        self.inside = day.inside()
        self.draw = {d.task: i for i, d in enumerate(day.draws)}
        self.divides = {melt.portion.task: m for m, melt in enumerate(day.melts) if melt.portion}
        self.batches = [batches_of(day, m, self.rank) for m in range(len(day.melts))]
        self.batch_of = {d: batch for batches in self.batches for batch in batches for d in batch.draws}
        self.blocks = blocks_of(day)
        self.bounded = Bounded(day, self.blocks, self.people)
        self.alike = alike(day, self.blocks)
        self.of = {i: block for block in self.blocks for i in block.tasks}
        self.before, self.followers = between(day, self.of)
        self.enters = defaultdict[int, list[Stay]](list)
        for stay in day.stays:
            self.enters[stay.first].append(stay)
        for there in day.begun:
            if any(batch.made for batch in self.batches[there.melt]):
                # its vessel is taken, and it was ready when it was
                self._line(day.melts[there.melt].vessel).take(0, math.inf)
                self.heats.append(heated_before(day, there, ()))
        for heater, until in day.on_until_s.items():
            self._line(heater).take(0, until)
        for soiled in day.soiled:
            self._line(soiled.vessel).take(-EVER_S, soiled.since_s)
        self.unended = defaultdict[int, list[tuple[Stay, int]]](list)
        """Stays with no end yet, by what ends them: with their start."""
        self.needs = {block.tasks[0]: frozenset(self._needed(block)) for block in self.blocks}
        self.own = {block.tasks[0]: self._own(block) for block in self.blocks}
        self.freed = set[str | int]()
        """What is over, and which melts were heated, by what was put last."""
        self.stuck = set[int]()

    def table(self) -> Timetable:
        waiting, found = {block.tasks[0]: block for block in self.blocks}, dict[int, Found]()
        while waiting:
            best = self._best(waiting, found)
            if best is None:
                if not self._close_a_batch():
                    raise NoPlace
                found.clear()
                self.stuck.clear()
                continue
            self.freed.clear()
            self._put(best)
            del waiting[best.block.tasks[0]], found[best.block.tasks[0]]
            for i in best.block.tasks:
                self.unended.pop(i, None)
            # nothing gets sooner but by a melt that is there now, and by what is over
            for first in waiting:
                if not self.freed.isdisjoint(self.needs[first]):
                    found.pop(first, None)
                    self.stuck.discard(first)
            self.stuck -= self.followers[best.block.tasks[0]]
        tasks = range(len(self.day.tasks))
        return Timetable(
            tuple(self.start[i] for i in tasks),
            tuple(self.who.get(i) for i in tasks),
            tuple(sorted(self.heats, key=lambda h: h.start_s)),
        )

    def _best(self, waiting: dict[int, Block], found: dict[int, Found]) -> Found | None:
        """What may be put first of all; what was found before is looked at anew only when its turn has come, and of what is alike only the
        first."""
        fresh, looked = set[int](), set[int]()
        for first, block in waiting.items():
            if self.alike[first] in looked or first in self.stuck:
                continue
            if first not in found:
                self._find(block, 0, found)
                fresh.add(first)
            if first in found:
                looked.add(self.alike[first])
        while found:
            best = min(found.values(), key=lambda of: of.key)
            first = best.block.tasks[0]
            if first in fresh:
                return best
            del found[first]
            self._find(best.block, best.at, found)
            fresh.add(first)
        return None

    def _find(self, block: Block, from_s: int, found: dict[int, Found]) -> None:
        earliest = self._earliest(block)
        self.bounded.lend(block)
        place = None if earliest is None else self._place(block, max(earliest, from_s))
        self.bounded.save_again(block)
        if place is None:
            self.stuck.add(block.tasks[0])
        else:
            at, wish = place
            begins = at + min((s for _, s, _ in wish.heats), default=0)
            rank = min(self.rank[i] for i in block.tasks)
            found[block.tasks[0]] = Found((begins + self.bias * rank, rank, block.tasks[0]), at, block, wish)

    def _needed(self, block: Block) -> Iterator[str | int]:
        """What it stays in, its melts and their vessels."""
        for i in block.tasks:
            yield from (stay.of for stay in self.enters[i])
            if i in self.draw:
                m = self.day.draws[self.draw[i]].melt
                yield from (m, self.day.melts[m].vessel)

    def _earliest(self, block: Block) -> int | None:
        """Not before what it follows; None while that is not placed."""
        at = self.bounded.soonest_s(block)
        for i in block.tasks:
            for first, shift in self.before[i]:
                if first not in self.start:
                    return None
                at = max(at, self.start[first] + shift - block.at_s[i])
        return at

    def _lasts(self, task: int) -> int:
        return self.day.tasks[task].lasts_s

    def _takes(self, block: Block) -> list[Take]:
        """What it stays in; with no end where the end of the stay is not in it."""
        out = []
        for i in block.tasks:
            for stay in self.enters[i]:
                start = block.edge_s(self.day, stay.first, stay.first_edge)
                inside = stay.then in block.at_s
                end = block.edge_s(self.day, stay.then, stay.then_edge) + stay.after_s if inside else math.inf
                out.append(Take(stay.of, (start, end), stay.amount))
            if i in self.divides:
                out.append(Take(self.day.melts[self.divides[i]].vessel, (block.at_s[i], math.inf), 1))
        return out

    def _own(self, block: Block) -> Wish:
        """What it needs but its melts."""
        by_hand = (i for i in block.tasks if self.day.tasks[i].hands and self._lasts(i))
        hands = ((((at := block.at_s[i]), at + self._lasts(i)), self.day.able(i)) for i in by_hand)
        return Wish(tuple(((span,), able) for span, able in hands), tuple(self._takes(block)))

    def _place(self, block: Block, from_s: int) -> tuple[int, Wish] | None:
        wish = self.own[block.tasks[0]]
        draws = [self.draw[i] for i in block.tasks if i in self.draw]
        # as its melts stand, else warmed, else melted again, else made anew
        ways: tuple[How, ...] = ("ready", "warm", "kept", "again", "new") if draws else ("ready",)
        for how in ways:
            if (made := self._with_melts(block, draws, wish, from_s, how)) is not None:
                return made
        return None

    def _with_melts(
        self, block: Block, draws: list[int], wish: Wish, from_s: int, how: How
    ) -> tuple[int, Wish] | None:
        until, cold = self.bounded.latest_s(block), defaultdict[int, list[int]](list)
        if how != "ready" and not any(self.batch_of[d].made for d in draws):
            return None
        if how == "kept" and (not self.keeps or len({self.day.draws[d].melt for d in draws}) > 1):
            return None
        for d in draws:
            draw, batch = self.day.draws[d], self.batch_of[d]
            if not batch.made or how != "ready":
                cold[draw.melt].append(d)
                continue
            begins, ends = (block.edge_s(self.day, draw.task, edge) for edge in ("start", "end"))
            from_s = max(from_s, batch.ready_s + draw.opens_s - begins, batch.used_s - begins)
            closes = min(batch.ready_s + draw.closes_s, batch.first_s + self.day.melts[draw.melt].life_s)
            until = min(until, closes - ends)
        # the heat comes right before, so that its window opens with the first draw
        begin = min((block.at_s[self.day.draws[d].task] for ds in cold.values() for d in ds), default=0)
        for ds in cold.values():
            heated = self._heated(block, [self.day.draws[d] for d in ds], self.batch_of[ds[0]], how, begin)
            if heated is None:
                return None
            more, begin, soonest, latest = heated
            wish = wish.with_more(more)
            from_s, until = max(from_s, soonest), min(until, latest)
        at = None if from_s > until else self._fits(wish, from_s, until)
        return None if at is None else (at, wish)

    def _heated(
        self, block: Block, draws: list[Draw], batch: Batch, how: How, begin: int
    ) -> tuple[Wish, int, int, float] | None:
        """What a heat before a block needs, when it begins in it, and from when until when the block may then begin [s]."""
        m = draws[0].melt
        melt, new = self.day.melts[m], not batch.made or how == "new"
        if not new and batch.warmings >= melt.warmings:
            return None
        kept = self._kept(m, batch) if how == "kept" else ()
        if kept is None:
            return None
        heating = melt.first if new else (melt.again if how == "again" else melt.warm)
        ready = min([begin, *(block.at_s[d.task] - d.opens_s for d in draws)])
        if any(block.edge_s(self.day, d.task, "end") - ready > d.closes_s for d in draws):
            return None
        on = ready - heating.lasts_s
        start = on - (melt.weigh_s if new else 0)
        was = None if batch.made else self.day.cleaned_of(self.inside.get(melt.vessel), m)
        begins = start - (was.wash_s if was else 0)
        at_it = (
            *(((begins, start),) if was else ()),
            *(((start, on),) if new else ()),
            *((on + a, on + b) for a, b in heating.hands),
        )
        takes = [Take(melt.heater, (on, on + heating.on_s), 1)]
        warmed_s = kept[-1][1] + melt.warm.lasts_s if kept else batch.ready_s
        soonest, latest = max(batch.used_s, self.day.from_s) - begins, math.inf
        if kept:
            # what else belongs to the block comes after that too
            soonest = max(soonest, warmed_s - min(start, 0))
        if not batch.made:
            takes.append(Take(melt.vessel, (start, math.inf), 1))
        if was:
            takes.append(Take(melt.vessel, (begins - was.soaks_s, start), 1))
        if not new:
            # what has stood too long to be warmed is melted again, and not before
            stood = warmed_s + melt.fluid_s - start
            soonest = max(soonest, stood + 1) if how == "again" else soonest
            last = max(block.edge_s(self.day, d.task, "end") for d in draws)
            latest = min(math.inf if how == "again" else stood, batch.first_s + melt.life_s - last)
        return (
            Wish(((at_it, self.day.able_at_heat(m)),), tuple(takes), ((m, start, new),), kept),
            begins,
            soonest,
            latest,
        )

    def _kept(self, m: int, batch: Batch) -> tuple[tuple[int, int, int], ...] | None:
        """One warming meanwhile, as late as it may be; None where none fits, or melting again is as quick."""
        melt = self.day.melts[m]
        how, until = melt.warm, batch.ready_s + melt.fluid_s
        if batch.warmings + 2 > melt.warmings or 2 * how.lasts_s >= melt.again.lasts_s:
            return None
        for at in range(
            until, max(batch.used_s, batch.ready_s, self.day.from_s, until - LOOKS * LOOK_S) - 1, -LOOK_S
        ):
            if self._line(melt.heater).free(at, at + how.on_s):
                for person in sorted(self.day.able_at_heat(m)):
                    if all(self.people[person].free(at + a, at + b) for a, b in how.hands):
                        return ((m, at, person),)
        return None

    def _fits(self, wish: Wish, from_s: int, until_s: float) -> int | None:
        """The first start at which all it needs is free."""
        at: float = from_s
        before = -1.0
        while at != before:
            before = at
            for take in wish.takes:
                at = self._line(take.of).fits(int(at), [take.span], take.amount)
                if at > until_s or at == math.inf:
                    return None
            for spans, able in wish.hands:
                at = min(self.people[person].fits(int(at), spans) for person in able)
                if at > until_s or at == math.inf:
                    return None
            if at == before and whose(self.people, wish.hands, int(at)) is None:
                at += 1
        return int(at) if at <= until_s else None

    def _line(self, of: str) -> Line:
        if of not in self.lines:
            self.lines[of] = Line(self.day.capacity.get(of, 1))
        return self.lines[of]

    def _put(self, found: Found) -> None:
        block, at, wish = found.block, found.at, found.wish
        self.bounded.lend(block)
        people = whose(self.people, wish.hands, at)
        assert people is not None
        for (spans, _), person in zip(wish.hands, people, strict=True):
            for a, b in spans:
                self.people[person].take(at + a, at + b)
        for m, start, person in wish.meanwhile:
            how = self.day.melts[m].warm
            for a, b in how.hands:
                self.people[person].take(start + a, start + b)
            self._line(self.day.melts[m].heater).take(start, start + how.on_s)
            self._heat(m, start, False, person, block)
        own = len(people) - len(wish.heats)
        for (m, start, new), person in zip(wish.heats, people[own:], strict=True):
            self._heat(m, at + start, new, person, block)
        hands = iter(people[:own])
        for i in block.tasks:
            self.start[i] = at + block.at_s[i]
            if self.day.tasks[i].hands:
                self.who[i] = next(hands) if self._lasts(i) else min(self.day.able(i))
        for take in wish.takes:
            a, b = take.span
            self._line(take.of).take(at + a, at + b, take.amount)
        for i in block.tasks:
            for stay in self.enters[i]:
                if stay.then not in block.at_s:
                    start = at + block.edge_s(self.day, stay.first, stay.first_edge)
                    self.unended[stay.then].append((stay, start))
            for stay, start in self.unended[i]:
                end = at + block.edge_s(self.day, i, stay.then_edge) + stay.after_s
                self._line(stay.of).give(start, math.inf, stay.amount, end)
                self.freed.add(stay.of)
            if i in self.draw:
                self._drawn(self.draw[i], self.start[i] + self._lasts(i))
            if i in self.divides:
                self._divided(self.divides[i], self.start[i], self.start[i] + self._lasts(i))

    def _divided(self, m: int, start: int, end: int) -> None:
        """A melt that came out of another's vessel."""
        melt, batch = self.day.melts[m], self.batches[m][0]
        assert melt.portion is not None
        batch.ready_s, batch.first_s, batch.used_s, batch.held_s = end - melt.portion.stood_s, end, end, start
        self.inside[melt.vessel] = m
        self.heats.append(Heat(m, batch.ready_s, True, (), ()))
        self.freed.add(m)

    def _heat(self, m: int, start: int, new: bool, who: int, block: Block) -> None:
        melt = self.day.melts[m]
        d = next(self.draw[i] for i in block.tasks if i in self.draw and self.day.draws[self.draw[i]].melt == m)
        batch = self.batch_of[d]
        if new and batch.made:
            batch = self._anew(m, batch)
        on = start + (melt.weigh_s if new else 0)
        how = melt.first if new else melt.heating(start - batch.ready_s)
        batch.ready_s = on + how.lasts_s
        batch.warmings += not new
        if new:
            batch.first_s = batch.ready_s
            batch.held_s = start if batch.held_s < 0 else batch.held_s
        was = self.day.cleaned_of(self.inside.get(melt.vessel), m) if new else None
        self.inside[melt.vessel] = m
        spans = len(how.hands) + (new and melt.weigh_s > 0) + (was is not None and was.wash_s > 0)
        self.heats.append(Heat(m, start, new, (who,) * spans, ()))
        self.freed.add(m)

    def _drawn(self, d: int, end: int) -> None:
        m, batch = self.day.draws[d].melt, self.batch_of[d]
        batch.used_s = max(batch.used_s, end)
        last = max(i for i, heat in enumerate(self.heats) if heat.melt == m)
        self.heats[last] = replace(self.heats[last], draws=(*self.heats[last].draws, d))
        if batch.held_s >= 0 and all(self.day.draws[other].task in self.start for other in batch.draws):
            self._empty(m, batch)

    def _empty(self, m: int, batch: Batch) -> None:
        self._line(self.day.melts[m].vessel).give(batch.held_s, math.inf, 1, batch.used_s)
        self.freed.add(self.day.melts[m].vessel)
        batch.held_s = -1

    def _anew(self, m: int, batch: Batch) -> Batch:
        """What is not poured of a batch yet is made for itself, in the same vessel."""
        done = tuple(d for d in batch.draws if self.day.draws[d].task in self.start)
        rest = Batch(tuple(d for d in batch.draws if d not in done), used_s=batch.used_s, held_s=batch.held_s)
        batch.draws = done
        self.batches[m].append(rest)
        self.batch_of.update(dict.fromkeys(rest.draws, rest))
        return rest

    def _close_a_batch(self) -> bool:
        """Frees a vessel that holds what cannot be poured yet: the rest of that batch is made anew."""
        for m, batches in enumerate(self.batches):
            for batch in batches:
                done = [d for d in batch.draws if self.day.draws[d].task in self.start]
                if batch.made and done and len(done) < len(batch.draws):
                    rest = self._anew(m, batch)
                    rest.held_s = -1
                    self._empty(m, batch)
                    return True
        return False
