"""Pour cards: for each filling of a mould, pass by pass, what goes into a cavity, how high, and where it lies until the next."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.melts.dip import Dipped
from umber_pebble.core.pieces.stripes import Piped
from umber_pebble.core.pieces.transfers import LaidBy
from umber_pebble.core.plan.cooks import PotCook, Round, ready_for_next, route_of
from umber_pebble.core.plan.dips import bath_of
from umber_pebble.core.plan.handwork import Inclusion, SoftWork
from umber_pebble.core.plan.problem import Named, PlanInput, PouredAs
from umber_pebble.core.plan.sheets import SheetOf, sheet_of
from umber_pebble.core.spread import Spread


@dataclass(frozen=True, slots=True)
class CardRow:
    """A pass on a card: its cook and line; its melt and how it is laid on; what goes into each cavity, and of that stays [kg]; to
    which height and how thick [m]; what hands put in before and do after; the places it lies in; how long it sets [s]; of a dip
    into fat, its bath; piped: how, where it is; with_next: the next follows at once, in its vessel or beside it."""

    cook: int
    line: int
    named: Named
    material: str
    colour: str | None
    kind: PouredAs
    each_kg: float
    stays_kg: float
    fill_m: float
    thick_m: float
    first: tuple[Inclusion, ...]
    works: tuple[SoftWork, ...]
    with_next: bool
    place_ids: tuple[str, ...]
    sets: Spread
    bath: Dipped | None
    piped: Piped | None
    laid_by: LaidBy


@dataclass(frozen=True, slots=True)
class Card:
    """One filling of a mould: which of the order's lines, in which mould, how many cavities, its passes in order; of pieces that are cut, the
    sheets they are cut out of, with others where these are too."""

    item: int
    mould: str
    casts: int
    rows: tuple[CardRow, ...]
    sheets: SheetOf | None

    @property
    def cut(self) -> bool:
        """Whether it is of pieces that are cut out of a sheet."""
        return any(of.kind == "cut" for row in self.rows for of in row.works)


def pour_cards(plan: PlanInput, cooks: Sequence[PotCook], windows: dict[int, PieceWindows]) -> list[Card]:
    """The cards of a plan, in the order in which the mould fillings are begun.

    Args:
        plan, cooks: of the order
        windows: per round
    Source: definition
    """
    rounds = {r.number: r for cook in cooks for r in cook.rounds}
    last = [r for r in rounds.values() if plan.lines[r.line].last]
    chains = [_chain(r, rounds) for r in last]
    return [
        Card(
            plan.lines[chain[0].line].item,
            plan.lines[chain[0].line].mould.name,
            chain[0].casts,
            tuple(_row(plan, cooks[r.cook], r, windows[r.number]) for r in chain),
            sheet_of([(plan.lines[r.line].mould, r.casts) for r in _with_it(plan, chain[0], rounds.values())]),
        )
        for chain in sorted(chains, key=lambda c: c[0].number)
    ]


def _with_it(plan: PlanInput, r: Round, rounds: Iterable[Round]) -> list[Round]:
    """With what is cut out of the same sheets."""
    mould = plan.lines[r.line].mould
    if not mould.shares:
        return [r]
    return [of for of in rounds if (of.stay, of.cook) == (r.stay, r.cook) and plan.lines[of.line].mould.shares]


def _chain(r: Round, rounds: dict[int, Round]) -> list[Round]:
    below = [] if r.on is None else _chain(rounds[r.on], rounds)
    return [*below, r]


def _row(plan: PlanInput, cook: PotCook, r: Round, w: PieceWindows) -> CardRow:
    line = plan.lines[r.line]
    sets = w.at["unmould"] if line.last else ready_for_next(cook.way.melt, w)
    return CardRow(
        cook.number,
        r.line,
        line.named,
        cook.way.melt.key,
        cook.way.colour,
        line.kind,
        line.cast.poured.value.likely,
        line.cast.finished.value.likely,
        line.cast.fill_m,
        line.cast.thickness.likely,
        line.first,
        line.works,
        line.with_next,
        tuple(dict.fromkeys(place for _, place in route_of(plan, line, r.casts))),
        sets,
        bath_of(plan, cook, r) if line.dip and cook.flow.tg is None else None,
        line.piped,
        line.laid_by,
    )
