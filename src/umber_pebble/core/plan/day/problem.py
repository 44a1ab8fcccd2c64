"""A day to be scheduled, whatever it is made of: what is to be done, what lies between, what is held meanwhile, what is poured out of
which melt. All times in whole seconds."""

from dataclasses import dataclass
from typing import Literal

Edge = Literal["start", "end"]


@dataclass(frozen=True, slots=True)
class Task:
    """Something to be done: how long it takes [s], if hands are bound to it all that time, and whose may be (nobody named: anybody's)."""

    lasts_s: int
    hands: bool = True
    able: frozenset[int] = frozenset()


@dataclass(frozen=True, slots=True)
class Lag:
    """From an edge of one thing to an edge of another: at least so long, and at most so long where that counts [s]."""

    first: int
    first_edge: Edge
    then: int
    then_edge: Edge
    least_s: int
    most_s: int | None = None


@dataclass(frozen=True, slots=True)
class Stay:
    """So much of something is taken, from an edge of one thing until so long after an edge of another [s]."""

    of: str
    amount: int
    first: int
    first_edge: Edge
    then: int
    then_edge: Edge
    after_s: int = 0


@dataclass(frozen=True, slots=True)
class Draw:
    """What a thing takes out of a melt [mg]: so long after the melt is ready it may begin, and so long after it must be done [s]."""

    task: int
    melt: int
    mg: int
    opens_s: int
    closes_s: int


@dataclass(frozen=True, slots=True)
class Bound:
    """A thing begins at the earliest, and is over at the latest, at a moment; None: whenever [s]."""

    task: int
    not_before_s: int | None = None
    over_by_s: int | None = None


@dataclass(frozen=True, slots=True)
class Heating:
    """How long it takes until a melt is ready, for how long of that its heater is taken, and from when to when hands are at it [s]."""

    lasts_s: int
    on_s: int
    hands: tuple[tuple[int, int], ...]


@dataclass(frozen=True, slots=True)
class Portion:
    """How the first batch of a melt comes out of another's vessel: by which thing, and as how long ago it then is as if it had been made
    by itself, since it comes in cooler [s]."""

    task: int
    stood_s: int


@dataclass(frozen=True, slots=True)
class Melt:
    """One material in one colour, as it is made: its vessel and heater, what of a batch may be poured at most [mg]; weighed and heated
    the first time, warmed again within so long of being ready [s], melted again after that; how often at most, and how long it may
    have been made at most when the last is poured [s]; whose hands may be at its heats (nobody named: anybody's); leads_on: what may
    be put into its vessel as it is, wash_s: how long hands clean that for anything else, soaks_s: how long water stands in it first;
    portion: how its first batch comes out of another melt, None: it is weighed and heated too."""

    vessel: str
    heater: str
    pours_mg: int
    weigh_s: int
    first: Heating
    warm: Heating
    again: Heating
    fluid_s: int
    warmings: int
    life_s: int
    able: frozenset[int] = frozenset()
    wash_s: int = 0
    soaks_s: int = 0
    leads_on: frozenset[int] = frozenset()
    portion: Portion | None = None

    @property
    def made_s(self) -> int:
        """How long it takes to be weighed and heated the first time [s]."""
        return self.weigh_s + self.first.lasts_s

    def heating(self, stood_s: int) -> Heating:
        """How it is heated again when it has stood for so long since it was ready [s]."""
        return self.warm if stood_s <= self.fluid_s else self.again


@dataclass(frozen=True, slots=True)
class InVessel:
    """A batch of a melt that is in its vessel already: when it was ready last and first, until when it was poured from [s], how often it
    was warmed, and what was poured of it [mg]; until when its heater is taken, 0 where it is off it [s]."""

    melt: int
    ready_s: int
    first_s: int
    used_s: int
    warmings: int
    poured_mg: int
    heater_s: int = 0


@dataclass(frozen=True, slots=True)
class Soiled:
    """A vessel with nothing more to be poured out of it: what melt was in it, and since when water may stand in it [s]."""

    vessel: str
    melt: int
    since_s: int


@dataclass(frozen=True, slots=True)
class Day:
    """All of it; people: how many pairs of hands; closed: from when to when somebody's hands are away, by person [s]; capacity: of
    what is stayed in, of vessels and heaters: as many as there are; done: what has to be over when all is ready; bounds: what is
    wished of single things; begun: what is in its vessel when the day goes on in its middle, soiled: which other vessels are not clean,
    and from_s: when that is [s]."""

    tasks: tuple[Task, ...]
    lags: tuple[Lag, ...]
    stays: tuple[Stay, ...]
    draws: tuple[Draw, ...]
    melts: tuple[Melt, ...]
    capacity: dict[str, int]
    done: tuple[int, ...]
    people: int = 1
    closed: tuple[tuple[int, int, int], ...] = ()
    bounds: tuple[Bound, ...] = ()
    begun: tuple[InVessel, ...] = ()
    from_s: int = 0
    soiled: tuple[Soiled, ...] = ()

    def inside(self) -> dict[str, int]:
        """Which melt is in a vessel at the beginning, or was, by vessel."""
        soiled = {of.vessel: of.melt for of in self.soiled}
        return soiled | {self.melts[of.melt].vessel: of.melt for of in self.begun}

    def cleaned_of(self, before: int | None, then: int) -> Melt | None:
        """The melt that a vessel has to be cleaned of before another goes into it; None where that may go in as it is."""
        if before is None or before == then or then in self.melts[before].leads_on:
            return None
        return self.melts[before]

    def there(self, melt: int) -> InVessel | None:
        """What is in its vessel already of a melt."""
        return next((b for b in self.begun if b.melt == melt), None)

    @property
    def on_until_s(self) -> dict[str, int]:
        """What is on a heater in turns is on it until the last of it is off, by heater [s]."""
        until: dict[str, int] = {}
        for begun in self.begun:
            heater = self.melts[begun.melt].heater
            until[heater] = max(until.get(heater, 0), begun.heater_s)
        return until

    @property
    def differ(self) -> bool:
        """Whether it matters whose hands they are."""
        return bool(self.closed) or any(t.able for t in self.tasks) or any(m.able for m in self.melts)

    def able(self, task: int) -> frozenset[int]:
        """Who may do a thing."""
        return self.tasks[task].able or frozenset(range(self.people))

    def able_at_heat(self, melt: int) -> frozenset[int]:
        """Who may make a melt."""
        return self.melts[melt].able or frozenset(range(self.people))


@dataclass(frozen=True, slots=True)
class Heat:
    """A melt put on the heat at a moment [s]: weighed first where it is new, else what is left of the batch before; then poured into
    these draws, in order. who: whose hands, for each time that hands are at it. The first of a melt that comes out of another is no
    heat: it is as if that had been ready at that moment."""

    melt: int
    start_s: int
    new: bool
    who: tuple[int, ...]
    draws: tuple[int, ...]


def heated_before(day: Day, there: InVessel, draws: tuple[int, ...]) -> Heat:
    """How what is in its vessel was heated, as a heat of the day, and what is still poured of it. Source: definition"""
    melt = day.melts[there.melt]
    spans = len(melt.first.hands) + (melt.weigh_s > 0)
    return Heat(there.melt, there.ready_s - melt.made_s, True, (0,) * spans, draws)


@dataclass(frozen=True, slots=True)
class Timetable:
    """When each thing begins [s], whose hands it takes (None: nobody's), and the heats of every melt, in order."""

    start_s: tuple[int, ...]
    who: tuple[int | None, ...]
    heats: tuple[Heat, ...]

    def edge_s(self, day: Day, task: int, edge: Edge) -> int:
        """When a thing begins or ends [s]. Source: definition"""
        return self.start_s[task] + (day.tasks[task].lasts_s if edge == "end" else 0)

    def end_s(self, day: Day) -> int:
        """When all is ready [s]. Source: definition"""
        return max((self.start_s[i] + day.tasks[i].lasts_s for i in day.done), default=0)

    @property
    def batches(self) -> int:
        """How many times a melt is made anew."""
        return sum(heat.new for heat in self.heats)


@dataclass(frozen=True, slots=True)
class Placed:
    """A heat with its times [s]: how long its vessel is washed first, on its heater, off it, ready, and when hands are at it."""

    heat: Heat
    wash_s: int
    on_s: int
    off_s: int
    ready_s: int
    hands: tuple[tuple[int, int], ...]


def placed(day: Day, heats: tuple[Heat, ...]) -> list[Placed]:
    """When each heat is on and ready, by how long its melt has stood and what was in its vessel before [s].

    Args:
        day: what is asked
        heats: in the order in which they begin
    Source: definition
    """
    ready: dict[int, int] = {}
    inside = day.inside()
    out = []
    for heat in heats:
        melt = day.melts[heat.melt]
        if melt.portion and heat.melt not in ready:
            inside[melt.vessel], ready[heat.melt] = heat.melt, heat.start_s
            out.append(Placed(heat, 0, heat.start_s, heat.start_s, heat.start_s, ()))
            continue
        was = day.cleaned_of(inside.get(melt.vessel), heat.melt) if heat.new else None
        inside[melt.vessel] = heat.melt
        washed = ((heat.start_s - was.wash_s, heat.start_s),) if was and was.wash_s else ()
        how = melt.first if heat.new else melt.heating(heat.start_s - ready[heat.melt])
        on = heat.start_s + (melt.weigh_s if heat.new else 0)
        ready[heat.melt] = on + how.lasts_s
        weighed = ((heat.start_s, on),) if heat.new and melt.weigh_s else ()
        hands = (*washed, *weighed, *((on + a, on + b) for a, b in how.hands))
        out.append(Placed(heat, was.wash_s if was else 0, on, on + how.on_s, ready[heat.melt], hands))
    return out


def fits(day: Day, table: Timetable) -> bool:
    """Whether a timetable is of a day at all: as many things, heats of its melts, somebody of its people for each [1].

    Source: definition
    """
    known = range(len(day.tasks))
    if len(table.start_s) != len(known) or len(table.who) != len(known):
        return False
    made: set[int] = set()
    for heat in table.heats:
        here = heat.melt < len(day.melts) and all(d < len(day.draws) for d in heat.draws)
        if not here or not (heat.new or heat.melt in made):
            return False
        made.add(heat.melt)
    people = [person for heat in table.heats for person in heat.who] + [
        who for who in table.who if who is not None
    ]
    spans = [len(one.hands) for one in placed(day, table.heats)]
    return all(person < day.people for person in people) and spans == [len(heat.who) for heat in table.heats]
