"""A part's build from its documents: its passes as the engine takes them, laid into its mould, and the lines a plan makes of it."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace

import shapely

from umber_pebble.core.errors import MouldTooWeak, OutOfRange
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.casting import PlaceStay
from umber_pebble.core.materials.load import material, materials
from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.moulds.outline import Circle
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.pieces.body import Body
from umber_pebble.core.pieces.build import lay, lay_on
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.pieces.dipped import Dipped
from umber_pebble.core.pieces.faults import BuildFault
from umber_pebble.core.pieces.joints import mat_m
from umber_pebble.core.pieces.layers import LaidPass
from umber_pebble.core.pieces.melt_ref import OwnMelts
from umber_pebble.core.pieces.passes.base import PassKind, Put
from umber_pebble.core.pieces.sheet import not_cut, on_sheet, spread_s
from umber_pebble.core.pieces.stripes import Stripes, bead_m, stripes
from umber_pebble.core.pieces.transfers import FilmCut, film_cut
from umber_pebble.core.plan.problem import (
    HandStep,
    Inclusion,
    Leaves,
    Named,
    Paces,
    Piped,
    PlanLine,
    PouredAs,
    SoftWork,
)
from umber_pebble.core.plan.problem import Mould as MouldCase
from umber_pebble.core.plan.spares import BreakRate, Spares
from umber_pebble.core.plan.tasks import Work
from umber_pebble.core.spread import Spread
from umber_pebble.services import piece_docs as d
from umber_pebble.services.documents import Mould, OwnMaterial
from umber_pebble.services.documents import Paces as PacesDoc
from umber_pebble.services.materials_own import castable
from umber_pebble.services.shapes import mould_case


@dataclass(frozen=True, slots=True)
class Built:
    """A part laid into its mould, or on its body, with the melts of the workshop's own it is made of; a body lies on a mat on its tray."""

    mould: MouldCase
    body: Body | None
    passes: tuple[PassKind, ...]
    own: OwnMelts
    laid: list[LaidPass]
    faults: list[BuildFault]

    @property
    def two_halves(self) -> bool:
        """Whether it is cast in two halves of its mould at once."""
        return any(one.TWO_HALVES for one in self.passes)

    def again(self, passes: tuple[PassKind, ...]) -> list[LaidPass]:
        """Other passes laid where these are."""
        if self.body is not None:
            return lay_on(self.body, passes, own=self.own)[0]
        laid, _ = lay(self.mould.cavity, passes, own=self.own)
        if self.mould.cutting is not None:
            laid = [on_sheet(row, self.mould.cutting) for row in laid]
        return [_both_halves(row) for row in laid] if self.two_halves else laid


def build_of(part: d.Part, mould: Mould | None, own: Mapping[str, OwnMaterial]) -> Built:
    """A part's passes laid into its mould, or on its body where it has none.

    Raises: OutOfRange: a material or cavity that is not there, a number no pass may have.
    """
    passes, melts = tuple[PassKind, ...](part.passes), _own_melts(part, own)
    if part.body is not None:
        body, case = _body(part.body)
        laid, faults = lay_on(body, passes, case.bears_degc, melts)
        return Built(case, body, passes, melts, laid, faults)
    assert mould is not None and part.mould_id is not None
    case = mould_case(part.mould_id, mould, part.cavity)
    laid, faults = lay(case.cavity, passes, case.bears, melts)
    if case.cutting is not None:
        laid = [on_sheet(row, case.cutting) for row in laid]
        faults = [*faults, *not_cut(passes, melts)]
    built = Built(case, None, passes, melts, laid, faults)
    if not built.two_halves:
        return built
    # a ball takes two halves: as many balls at once as there are pairs, and what is laid is laid in both
    balls = case.at_once // 2
    if balls == 0:
        words = "a ball takes two halves of its mould: count both"
        raise OutOfRange(words, path="mould_id", got=case.at_once, limits={"low": 2})
    return replace(built, mould=replace(case, cavities=balls, owned=1), laid=[_both_halves(row) for row in laid])


def _own_melts(part: d.Part, own: Mapping[str, OwnMaterial]) -> OwnMelts:
    """All melts of its passes, each once."""
    return tuple(
        {
            ref.material: castable(ref.material, own, f"passes.{i}.{name}.material")
            for i, one in enumerate(part.passes)
            for name, ref in one.refs().items()
        }.items()
    )


def _both_halves(row: LaidPass) -> LaidPass:
    twice = [replace(of, value=of.value.times(2.0)) for of in (row.finished, row.poured)]
    cast = None if row.cast is None else _share_of(row.cast, 2.0)
    return replace(row, finished=twice[0], poured=twice[1], cast=cast, beside_kg=2 * row.beside_kg)


def _body(doc: Dipped) -> tuple[Body, MouldCase]:
    """A body, and the tray it lies on after its dip, as a plan takes it."""
    former = doc.made_of in materials("formers")
    of = material("formers" if former else "fillings", doc.made_of)
    body = Body(
        doc.shape, doc.diameter_m, doc.high_m, of, of.value("skin") if former else None, doc.degc, not former
    )
    mat = material("moulds", "silicone")
    bears = of.value("bears") if "bears" in of.properties else mat.value("bears")
    cavity = Cavity(Walled(Circle(doc.diameter_m), min(doc.high_m, 0.1)))
    return body, MouldCase(body_key(doc), 0, mat, mat_m(), cavity, doc.tray, 1, bears, doc.name)


def body_key(doc: Dipped) -> str:
    """What a body is known by where a mould would be. Two alike share their tray."""
    return f"body-{doc.name.lower()}"


def build_key(part: d.Part) -> str:
    """What a part's build is known by where break rates are kept: its passes that melt something; "" for one fill."""
    kinds = "+".join(one.kind for one in part.passes if one.refs())
    return "" if kinds == "fill" else kinds


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
        step = one.step() if several else ""
        # the others are swirled into the first one's vessel before that is poured, or piped beside it
        (melt, share), *others = one.melts()
        lie, keys = stripes_of(built, row), [ref.key for ref, _ in one.melts()]
        beside: PouredAs = "swirl" if lie is None else one.laid_as
        first = [(other.key, some, beside, _called(step, beside), True) for other, some in others]
        dipped = None if built.body is None else one.dipped_m(built.body)
        for key, some, kind, called, with_next in [*first, (melt.key, share, one.laid_as, step, False)]:
            lines.append(
                PlanLine(
                    replace(named, step=called),
                    quantity,
                    key,
                    built.mould,
                    row.cast if some == 1.0 else _share_of(row.cast, some),
                    rate,
                    (),
                    row.under,
                    start + len(lines) - 1 if lines else None,
                    False,
                    tuple(waiting),
                    item,
                    kind,
                    None if kind == "swirl" else dipped,
                    body=row.body,
                    with_next=with_next,
                    mixed=bool(others),
                    piped=None if lie is None else _piped(lie, row.cast, keys.index(key), some),
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


def _called(step: str, kind: PouredAs) -> str:
    return f"{step}, {kind}" if step else kind


def stripes_of(built: Built, row: LaidPass) -> Stripes | None:
    """How a pass's melts lie side by side in stripes; None where they do not. On a sheet they run along it."""
    one, cut = built.passes[row.index], built.mould.cutting
    if row.cast is None or one.piped_m is None:
        return None
    across_m = math.sqrt(row.cast.open_m2) if cut is None else cut.sheet.width_m
    return stripes(one.piped_m, row.cast.thickness.likely, across_m, [share for _, share in one.melts()])


def _piped(lie: Stripes, cast: CastAmounts, nth: int, share: float) -> Piped:
    """One of its melts, a casting's share of it: as long as the bead is that it makes."""
    poured_m3 = cast.volume.value.likely * cast.poured.value.likely / cast.finished.value.likely
    each_s = bead_m(share * poured_m3, lie.bore_m) / material("kitchen", "usual", "piping").value("pace")
    return Piped(lie.bore_m, lie.wide_m, lie.counts[nth], sum(lie.counts), each_s)


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
    return tuple(SoftWork(kind, on) for kind, on in works.items())


def _on(built: Built, row: LaidPass, paces: Paces | PacesDoc) -> Inclusion:
    """What hands put onto a melt; of what is done to a whole sheet a piece's share, webs and margins with it, and its film as large."""
    one, mould = built.passes[row.index], built.mould
    put = one.put()
    assert put is not None
    on = _handful(built, put, one, row.poured.value.likely, paces)
    if mould.cutting is None:
        return on
    sheet, film = mould.cutting.sheet, None
    if one.put_film is not None:
        film = FilmCut(replace(one.put_film, over=mould.on_sheet), sheet.length_m, sheet.width_m)
    return replace(on, kg=on.kg / mould.cutting.used_frac, each_s=hands_s(one, paces) / mould.on_sheet, film=film)


def leaves_at(part: d.Part, built: Built) -> Leaves:
    """At which mark a part leaves its mould: released warm, peeled off its film, eased off a bowl it was drizzled over, or cold."""
    if part.bent and part.released:
        return "release_opens"
    if built.mould.material.flags.get("peels", False):
        return "peel"
    last = built.passes[-1]
    return "rigid" if last.EASED_OFF and family_of(last.material(built.own)).eased_off else "unmould"


def pressed(part: d.Part, built: Built, wanted: Wanted, paces: Paces) -> HandStep:
    """A part with no melt in it, as a step of a plan: pressed of paste, and firm after a while."""
    pastes = [paste for one in part.passes if (paste := one.pressed_of())]
    rests, dries = (_longest([paste.spread(name) for paste in pastes]) for name in ("leaves", "dries"))
    kg = sum(row.finished.value.likely for row in built.laid)
    takes = sum(hands_s(part.passes[row.index], paces) for row in built.laid)
    takes += paces.unmould_each_s
    return HandStep("press", wanted.named, wanted.item, wanted.quantity, kg, takes, rests, dries=dries)


def _longest(times: list[Spread]) -> Spread:
    return max(times, key=lambda s: s.high, default=Spread(0.0, 0.0, 0.0))


def _share_of(cast: CastAmounts, share: float) -> CastAmounts:
    """One melt's share of a marbled pass: its grams; it cools as the whole does."""
    parts = {
        name: replace(of := getattr(cast, name), value=of.value.times(share))
        for name in ("volume", "finished", "scraped", "poured")
    }
    return replace(cast, **parts)


def hands_each_s(built: Built, row: LaidPass, paces: Paces | PacesDoc) -> float:
    """What hands take for a casting of a pass, of a sheet its share of what they do to all of it [s]."""
    one, cut, lie = built.passes[row.index], built.mould.cutting, stripes_of(built, row)
    if row.cast is None and one.soft is not None:
        return _on(built, row, paces).each_s
    if lie is not None and row.cast is not None:
        return sum(_piped(lie, row.cast, i, share).each_s for i, (_, share) in enumerate(one.melts()))
    if cut is None or row.cast is None:
        return hands_s(one, paces)
    return (hands_s(one, paces) + spread_s(cut.sheet)) / len(cut.cuts)


def hands_s(one: PassKind, paces: Paces | PacesDoc) -> float:
    """What hands take each time they do a pass [s]."""
    pace = {"pour": paces.pour_each_s, "fill": paces.fill_each_s, "stick": paces.stick_each_s}[one.PACE]
    return pace * one.strokes


def _handful(built: Built, put: Put, one: PassKind, laid_kg: float, paces: Paces | PacesDoc) -> Inclusion:
    film = None if one.put_film is None else film_cut(one.put_film, *_across_m(built))
    kg, each_s = laid_kg if put.kg is None else put.kg, hands_s(one, paces) / (film.of.over if film else 1)
    return Inclusion(put.what, put.name, kg, each_s, put.key, film)


def _across_m(built: Built) -> tuple[float, float]:
    """How long and wide a casting is from above [m]."""
    if built.body is not None:
        return built.body.diameter_m, built.body.diameter_m
    x0, y0, x1, y1 = shapely.LineString(built.mould.cavity.shape.rim()).bounds
    return max(x1 - x0, y1 - y0), min(x1 - x0, y1 - y0)
