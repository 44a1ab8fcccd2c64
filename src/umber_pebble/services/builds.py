"""A part's build from its documents: its passes as the engine takes them, laid into its mould, and the lines a plan makes of it."""

from dataclasses import dataclass, replace
from typing import Literal

import shapely

from umber_pebble.core.errors import MouldTooWeak, OutOfRange
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.casting import PlaceStay
from umber_pebble.core.pieces.layers import LaidPass
from umber_pebble.core.pieces.passes.base import PassKind, Put
from umber_pebble.core.pieces.sheet import laid_each_s
from umber_pebble.core.pieces.transfers import FilmCut, film_cut
from umber_pebble.core.plan.filigree import expected_frac
from umber_pebble.core.plan.handwork import Inclusion, PasteShare, SoftWork
from umber_pebble.core.plan.problem import HandStep, Leaves, Named, Paces, PlanLine
from umber_pebble.core.plan.spares import BreakRate, Spares
from umber_pebble.core.plan.tasks import Work
from umber_pebble.core.spread import Spread
from umber_pebble.services import piece_docs as d
from umber_pebble.services.built import Built, build_key
from umber_pebble.services.coats import coats_of
from umber_pebble.services.documents import Paces as PacesDoc


@dataclass(frozen=True, slots=True)
class Wanted:
    """What is wanted of an order's line: which it is, what it is called, how many, with which spares."""

    item: int
    named: Named
    quantity: int
    spares: Spares = "as_sure"


def lines_of(
    part: d.Part,
    built: Built,
    wanted: Wanted,
    rate: BreakRate,
    lies: tuple[tuple[PlaceStay, str], ...],
    paces: Paces,
    start: int,
) -> list[PlanLine]:
    """A part as lines of a plan, one for each melt of each pass, each on the one before; none where nothing is melted; start is
    the number of the first.

    Raises: OutOfRange: a pass that cannot be.
    """
    named, item, quantity = wanted.named, wanted.item, wanted.quantity
    if built.faults:
        fault = built.faults[0]
        if fault.code == "mould_too_weak":
            weak = built.body.material.name if built.body else built.mould.material.name
            better = "a former of silicone or metal" if built.body else "silicone or metal"
            raise MouldTooWeak(
                f"{weak} bears {built.mould.bears:g} degC; {fault.words}: use {better}",
                path="mould.bears_degc",
                got=built.mould.bears,
                limits={"low": fault.got or 0.0},
                params={"material": built.mould.material.name, "line": str(named)},
            )
        raise OutOfRange(
            f"{named}, {part.passes[fault.index].kind}: {fault.words}",
            path=f"lines.{item}.piece_id",
            got=fault.got,
            limits={} if fault.limit is None else {"limit": fault.limit},
            params={"build": fault.code},
        )
    lines, waiting, again = list[PlanLine](), list[Inclusion](), list[Inclusion]()
    several, wet = sum(1 for row in built.laid if row.cast) > 1, -2
    for row in built.laid:
        one = built.passes[row.index]
        put = one.put()
        if one.AFTER:
            break
        if row.cast is None:
            assert put is not None
            # right after a melt it goes into what is still soft
            if one.soft and row.index == wet + 1:
                wet = row.index
                continue
            waiting.append(_handful(built, put, one, row.poured.value.likely, paces))
            if put.what == "filling":
                waiting, again = waiting + again, []
            if more := one.put_again():
                again.append(_handful(built, more, one, 0.0, paces))
            continue
        wet = row.index
        if put is not None:
            waiting.append(Inclusion(put.what, put.name, put.kg or 0.0, paces.fill_each_s))
        dipped = None if built.body is None else one.dipped_m(built.body)
        for coat in coats_of(built, row, one.step() if several else ""):
            lines.append(
                PlanLine(
                    replace(named, step=coat.step),
                    quantity,
                    coat.key,
                    built.mould,
                    coat.cast,
                    _rate(built, one, rate),
                    (),
                    row.under,
                    start + len(lines) - 1 if lines else None,
                    False,
                    tuple(waiting),
                    item,
                    coat.kind,
                    None if coat.kind == "swirl" else dipped,
                    body=row.body,
                    with_next=coat.with_next,
                    mixed=coat.mixed,
                    piped=coat.piped,
                    laid_by=one.laid_by,
                )
            )
            waiting = []
        lines[-1] = replace(lines[-1], works=works_on(part, built, row.index, paces))
    if not lines:
        return []
    lines[-1] = replace(
        lines[-1],
        last=True,
        lies=lies,
        build=build_key(part),
        leaves=leaves_at(part, built),
        spares=wanted.spares,
    )
    return lines


def _rate(built: Built, one: PassKind, rate: BreakRate) -> BreakRate:
    """Of lines over a drawing, what is taken to break before any was seen."""
    if built.drawing is None:
        return rate
    return replace(rate, expected_frac=expected_frac(built.drawing, one.material(built.own)))


def works_on(part: d.Part, built: Built, index: int, paces: Paces | PacesDoc) -> tuple[SoftWork, ...]:
    """What hands do with a pass's melt while it is soft: what comes right after it, in the same way at once; the last is bent, or cut out of
    its sheet."""
    works, rows = dict[Work, tuple[Inclusion, ...]](), {row.index: row for row in built.laid}
    for i in range(index + 1, len(built.passes)):
        one, row = built.passes[i], rows.get(i)
        if row is None or row.cast is not None or one.soft is None:
            break
        works[one.soft] = *works.get(one.soft, ()), _on(built, row, paces)
    if not any(i > index and row.cast for i, row in rows.items()):
        works |= {"bend": ()} if part.bent else {} if built.mould.cutting is None else {"cut": ()}
    # it is cut while it lies flat
    works |= {"shape": works.pop("shape")} if "shape" in works else {}
    return tuple(SoftWork(kind, on) for kind, on in works.items())


def _on(built: Built, row: LaidPass, paces: Paces | PacesDoc) -> Inclusion:
    """What hands put onto a melt; of what is done to a whole sheet a piece's share, webs and margins with it, and its film as large."""
    one, mould = built.passes[row.index], built.mould
    put = one.put()
    assert put is not None
    on = _handful(built, put, one, row.poured.value.likely, paces)
    if mould.cutting is None or one.EACH:
        return on
    sheet, film = mould.cutting.sheet, None
    if one.put_film is not None:
        film = FilmCut(replace(one.put_film, over=mould.on_sheet), sheet.length_m, sheet.width_m)
    return replace(on, kg=on.kg / mould.cutting.used_frac, each_s=hands_s(one, paces) / mould.on_sheet, film=film)


def leaves_at(part: d.Part, built: Built) -> Leaves:
    """At which mark a part leaves its mould: released warm, peeled off its film, eased off a bowl it was drizzled over, or cold."""
    if part.bent and part.released:
        return "release_opens"
    melted = [built.passes[row.index] for row in built.laid if row.cast]
    # a glass lets go of its paper when it is cold, as of anything else
    if (
        built.mould.material.flags.get("peels", False)
        and melted
        and melted[-1].material(built.own).has("set_peel")
    ):
        return "peel"
    last = next(one for one in reversed(built.passes) if not one.AFTER)
    return "rigid" if last.EASED_OFF and family_of(last.material(built.own)).eased_off else "unmould"


def pressed(part: d.Part, built: Built, wanted: Wanted, paces: Paces) -> HandStep:
    """A part with no melt in it, as a step of a plan: pressed or modelled of paste and firm after a while, or of bought things."""
    pastes = [paste for one in part.passes if (paste := one.pressed_of())]
    rests = _longest([] if built.by_hand else [paste.spread("leaves") for paste in pastes])
    dries = _longest([paste.spread("dries") for one in part.passes if one.dries and (paste := one.pressed_of())])
    made = [row for row in built.laid if not built.passes[row.index].AFTER]
    kg = sum(row.finished.value.likely for row in made)
    takes = sum(hands_s(part.passes[row.index], paces) for row in made)
    if not built.by_hand:
        takes += paces.unmould_each_s
    items = tuple(_bought(built, row, paces) for row in made if _put(built, row).bought is not None)
    # while one softens the next are wetted
    takes += sum(of.bought.softens.likely for of in items if of.bought and of.bought.softens) / wanted.quantity
    what: Literal["press", "model", "fit"] = "fit" if not pastes else "model" if built.by_hand else "press"
    shares = tuple(
        PasteShare(of, row.finished.value.likely)
        for row in built.laid
        if (of := built.passes[row.index].of_paste()) is not None
    )
    open_s = [paste.spread("skins") for paste in pastes if paste.has("skins")]
    return HandStep(
        what,
        wanted.named,
        wanted.item,
        wanted.quantity,
        kg,
        takes,
        rests,
        dries=dries,
        pastes=shares,
        skins=min(open_s, key=lambda s: s.low, default=None),
        items=items,
    )


def _put(built: Built, row: LaidPass) -> Put:
    put = built.passes[row.index].put()
    assert put is not None
    return put


def _bought(built: Built, row: LaidPass, paces: Paces) -> Inclusion:
    return _handful(built, _put(built, row), built.passes[row.index], row.poured.value.likely, paces)


def _longest(times: list[Spread]) -> Spread:
    return max(times, key=lambda s: s.high, default=Spread(0.0, 0.0, 0.0))


def hands_each_s(built: Built, row: LaidPass, paces: Paces | PacesDoc) -> float:
    """What hands take for a casting of a pass, of a sheet its share of what they do to all of it [s]."""
    one, cut = built.passes[row.index], built.mould.cutting
    if row.cast is None and one.soft is not None:
        return _on(built, row, paces).each_s
    piped = [] if row.cast is None else [coat.piped for coat in coats_of(built, row, "") if coat.piped]
    if piped:
        return sum(of.each_s for of in piped)
    if row.cast is None:
        return hands_s(one, paces)
    share = 1 if cut is None else len(cut.cuts)
    return hands_s(one, paces) / share + laid_each_s(row.cast, one.laid_by, cut)


def hands_s(one: PassKind, paces: Paces | PacesDoc) -> float:
    """What hands take each time they do a pass [s]."""
    pace = {"pour": paces.pour_each_s, "fill": paces.fill_each_s, "stick": paces.stick_each_s}[one.PACE]
    return pace * one.strokes


def _handful(built: Built, put: Put, one: PassKind, laid_kg: float, paces: Paces | PacesDoc) -> Inclusion:
    film = _film(built, one)
    kg, each_s = laid_kg if put.kg is None else put.kg, hands_s(one, paces) / (film.of.over if film else 1)
    return Inclusion(put.what, put.name, kg, each_s, put.key, film, put.shaped, put.bought)


def _film(built: Built, one: PassKind) -> FilmCut | None:
    """How a film is cut: laid into the empty mould it lies over its loose base, if that has one."""
    film, base = one.put_film, built.mould.base_m
    if film is None:
        return None
    if one.soft is None and base is not None and film.laid == "flat":
        return FilmCut(replace(film, over=built.mould.cavities, laid="base"), *base)
    return film_cut(film, *_across_m(built))


def _across_m(built: Built) -> tuple[float, float]:
    """How long and wide a casting is from above [m]."""
    if built.body is not None:
        return built.body.diameter_m, built.body.diameter_m
    x0, y0, x1, y1 = shapely.LineString(built.mould.cavity.shape.rim()).bounds
    return max(x1 - x0, y1 - y0), min(x1 - x0, y1 - y0)
