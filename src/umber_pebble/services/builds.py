"""A part's build from its documents: its passes as the engine takes them, laid into its mould, and the lines a plan makes of it."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from umber_pebble.core.errors import MouldTooWeak, OutOfRange
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.piece import Stay as StayCase
from umber_pebble.core.materials.load import material, materials
from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.moulds.outline import Circle
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.pieces.body import Body
from umber_pebble.core.pieces.build import lay
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.pieces.coats import lay_on
from umber_pebble.core.pieces.faults import BuildFault
from umber_pebble.core.pieces.joins import mat_m
from umber_pebble.core.pieces.layers import Laid
from umber_pebble.core.pieces.passes import (
    Centre,
    Close,
    Cluster,
    Detail,
    Dip,
    Dollop,
    Drizzle,
    Dust,
    Fill,
    Filling,
    Melt,
    Pass,
    Paste,
    Rod,
    Shell,
    Turned,
    melts_of,
)
from umber_pebble.core.plan.problem import Handful, HandStep, Leaves, Line, Named, Paces, PouredAs, Work
from umber_pebble.core.plan.problem import Mould as MouldCase
from umber_pebble.core.plan.spares import BreakRate
from umber_pebble.core.spread import Spread
from umber_pebble.services import piece_docs as d
from umber_pebble.services.docs import Mould, OwnMaterial
from umber_pebble.services.materials_own import castable
from umber_pebble.services.shapes import mould_case

PASS_WORDS = {
    "dust": "dust", "detail": "detail", "shell": "shell", "stick": "stick", "centre": "centre", "filling": "filling",
    "close": "close", "fill": "fill", "turned": "turned", "paste": "paste", "print": "print", "drizzle": "drizzle",
    "dollop": "dollops", "cluster": "cluster", "dip": "dip",
}  # fmt: skip
WET: dict[str, Work] = {"stick": "stick", "dust": "sprinkle", "print": "sprinkle"}
"""What hands do to a melt that is still soft."""


@dataclass(frozen=True, slots=True)
class Built:
    """A part laid into its mould, or on its body; a body lies on a mat on its tray."""

    mould: MouldCase
    body: Body | None
    passes: tuple[Pass, ...]
    laid: list[Laid]
    faults: list[BuildFault]

    def again(self, passes: tuple[Pass, ...]) -> list[Laid]:
        """Other passes laid where these are."""
        laid = (lay(self.mould.cavity, passes) if self.body is None else lay_on(self.body, passes))[0]
        return [_both_halves(row) for row in laid] if any(isinstance(one, Turned) for one in passes) else laid


def build_of(part: d.Part, mould: Mould | None, own: Mapping[str, OwnMaterial]) -> Built:
    """A part's passes laid into its mould, or on its body where it has none.

    Raises: OutOfRange: a material or cavity that is not there, a number no pass may have.
    """
    passes = tuple(_pass(one, own, f"passes.{i}") for i, one in enumerate(part.passes))
    if part.body is not None:
        body, case = _body(part.body)
        laid, faults = lay_on(body, passes, case.bears_degc)
        return Built(case, body, passes, laid, faults)
    assert mould is not None and part.mould_id is not None
    case = mould_case(part.mould_id, mould, part.cavity)
    laid, faults = lay(case.cavity, passes, case.bears)
    if any(isinstance(one, Turned) for one in passes):
        # a ball takes two halves: as many balls at once as there are pairs, and what is laid is laid in both
        balls = case.at_once // 2
        if balls == 0:
            raise OutOfRange(
                "a ball takes two halves of its mould: count both",
                path="mould_id",
                got=case.at_once,
                limits={"low": 2},
            )
        case, laid = replace(case, cavities=balls, owned=1), [_both_halves(row) for row in laid]
    return Built(case, None, passes, laid, faults)


def _both_halves(row: Laid) -> Laid:
    twice = [replace(of, value=of.value.times(2.0)) for of in (row.finished, row.poured)]
    cast = None if row.cast is None else _share_of(row.cast, 2.0)
    return replace(row, finished=twice[0], poured=twice[1], cast=cast, beside_kg=2 * row.beside_kg)


def _body(doc: d.Body) -> tuple[Body, MouldCase]:
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


def body_key(doc: d.Body) -> str:
    """What a body is known by where a mould would be. Two alike share their tray."""
    return f"body-{doc.name.lower()}"


def _melt(ref: d.MeltRef, own: Mapping[str, OwnMaterial], path: str) -> Melt:
    return Melt(ref.key, castable(ref.material, own, f"{path}.material"))


def _pass(one: d.Pass, own: Mapping[str, OwnMaterial], path: str) -> Pass:
    match one:
        case d.DustPass():
            return Dust(one.kg, one.on_wet)
        case d.DetailPass():
            outline = tuple((x, y) for x, y in one.outline) if one.outline else None
            return Detail(_melt(one.melt, own, f"{path}.melt"), one.share_frac, one.thick_m, outline)
        case d.ShellPass():
            return Shell(_melt(one.melt, own, f"{path}.melt"), one.thick_m, one.emptied, one.sides, one.dwell_s)
        case d.StickPass():
            return Rod(one.diameter_m, one.inside_m, one.taken_out)
        case d.CentrePass():
            return Centre(one.kg, one.volume_m3)
        case d.FillingPass():
            of = material("fillings", one.filling)
            if one.kg is None and one.gap_m is None:
                raise OutOfRange(
                    "say how much filling: a weight, or the gap it leaves", path=f"{path}.gap_m", got=None
                )
            return Filling(of, one.gap_m, one.kg, one.degc, one.loss_frac)
        case d.ClosePass():
            return Close(_melt(one.melt, own, f"{path}.melt"))
        case d.FillPass():
            second = _melt(one.second, own, f"{path}.second") if one.second else None
            return Fill(
                _melt(one.melt, own, f"{path}.melt"), one.level_m, second, one.second_frac if second else 0.0
            )
        case d.TurnedPass():
            return Turned(_melt(one.melt, own, f"{path}.melt"), one.ball_kg)
        case d.PastePass():
            return Paste(material("pastes", one.paste), one.kg)
        case d.PrintPass():
            return Dust(0.0, one.on_wet)
        case d.DrizzlePass():
            return Drizzle(_melt(one.melt, own, f"{path}.melt"), one.length_m, one.bore_m)
        case d.DollopPass():
            return Dollop(_melt(one.melt, own, f"{path}.melt"), one.count, one.diameter_m)
        case d.ClusterPass():
            return Cluster(_melt(one.melt, own, f"{path}.melt"), one.inside_kg, one.melt_frac)
        case d.DipPass():
            second = _melt(one.second, own, f"{path}.second") if one.second else None
            melt = _melt(one.melt, own, f"{path}.melt")
            return Dip(melt, one.line_m, one.slant_rad, one.thick_m, second, one.second_frac if second else 0.0)


def build_key(part: d.Part) -> str:
    """What a part's build is known by where break rates are kept: its passes that melt something; "" for one fill."""
    kinds = "+".join(doc.kind for doc in part.passes if "melt" in type(doc).model_fields)
    return "" if kinds == "fill" else kinds


def lines_of(
    part: d.Part, built: Built, named: Named, item: int, quantity: int, rate: BreakRate,
    lies: tuple[tuple[StayCase, str], ...], paces: Paces, start: int,
) -> list[Line]:  # fmt: skip
    """A part as lines of a plan, one for each melt of each pass, each on the one before; none where nothing is melted; start is
    the number of the first.

    Raises: OutOfRange: a pass that cannot be.
    """
    if built.faults:
        fault = built.faults[0]
        if fault.code == "mould_too_weak":
            weak = built.body.material.name if built.body else built.mould.material.name
            better = "a former of silicone or metal" if built.body else "silicone or metal"
            raise MouldTooWeak(
                f"{weak} bears {built.mould.bears:g} degC; {fault.words}: use {better}",
                path="mould.bears_degc", got=built.mould.bears, limits={"low": fault.got or 0.0},
                params={"material": built.mould.material.name, "line": str(named)},
            )  # fmt: skip
        raise OutOfRange(
            f"{named}, {part.passes[fault.index].kind}: {fault.words}", path=f"lines.{item}.piece_id", got=fault.got,
            limits={} if fault.limit is None else {"limit": fault.limit}, params={"build": fault.code},
        )  # fmt: skip
    lines: list[Line] = []
    waiting: list[Handful] = []
    several, wet, reseat = sum(1 for row in built.laid if row.cast) > 1, -2, list[Handful]()
    for row in built.laid:
        doc = part.passes[row.index]
        if row.cast is None:
            # right after a melt it goes into what is still soft
            if is_soft_work(doc) and row.index == wet + 1:
                lines[-1] = replace(lines[-1], work=WET[doc.kind])
                continue
            waiting.append(_handful(doc, row, paces))
            if isinstance(doc, d.StickPass) and doc.reseated:
                reseat.append(Handful("stick", "the stick, drawn back and reseated", 0.0, paces.stick_each_s))
            elif isinstance(doc, d.FillingPass):
                waiting, reseat = waiting + reseat, []
            continue
        wet = row.index
        if isinstance(doc, d.ClusterPass):
            waiting.append(Handful("centre", doc.name, doc.inside_kg, paces.fill_each_s))
        step = _word(doc) if several else ""
        # a second melt is swirled into the first one's vessel before that is poured
        (melt, share), *second = melts_of(built.passes[row.index])
        swirled: list[tuple[str, float, PouredAs, str]] = [
            (other.key, some, "swirl", f"{step}, swirl" if step else "swirl") for other, some in second
        ]
        for key, some, kind, called in [*swirled, (melt.key, share, _laid_on(doc), step)]:
            lines.append(
                Line(
                    replace(named, step=called), quantity, key, built.mould, row.cast if some == 1.0 else _share_of(row.cast, some), None, rate,
                    (), row.under, start + len(lines) - 1 if lines else None, False, tuple(waiting), item, kind,
                    None if kind == "swirl" else _dipped(built.passes[row.index], built.body), body=row.body,
                )
            )  # fmt: skip
            waiting = []
    if not lines:
        return []
    if part.bent:
        lines[-1] = replace(lines[-1], work="bend")
    lines[-1] = replace(lines[-1], last=True, lies=lies, build=build_key(part), leaves=leaves_at(part, built))
    return lines


def leaves_at(part: d.Part, built: Built) -> Leaves:
    """At which mark a part leaves its mould: released warm, peeled off its film, eased off a bowl it was drizzled over, or cold."""
    if part.bent and part.released:
        return "release_opens"
    if built.mould.material.flags.get("peels", False):
        return "peel"
    last = built.passes[-1]
    return "rigid" if isinstance(last, Drizzle) and family_of(last.melt.material).eased_off else "unmould"


def is_soft_work(doc: d.Pass) -> bool:
    """Whether a pass goes into or onto a melt that is still soft, when it comes right after it."""
    return doc.on_wet if isinstance(doc, (d.DustPass, d.PrintPass)) else doc.kind in WET


def pressed(part: d.Part, built: Built, named: Named, item: int, quantity: int, paces: Paces) -> HandStep:
    """A part with no melt in it, as a step of a plan: pressed of paste, and firm after a while."""
    pastes = [material("pastes", doc.paste) for doc in part.passes if isinstance(doc, d.PastePass)]
    rests, dries = (_longest([paste.spread(name) for paste in pastes]) for name in ("leaves", "dries"))
    kg = sum(row.finished.value.likely for row in built.laid)
    takes = sum(_handful(part.passes[row.index], row, paces).each_s for row in built.laid)
    return HandStep("press", named, item, quantity, kg, takes + paces.unmould_each_s, rests, dries=dries)


def _longest(times: list[Spread]) -> Spread:
    return max(times, key=lambda s: s.high, default=Spread(0.0, 0.0, 0.0))


def _dipped(one: Pass, body: Body | None) -> tuple[float, float] | None:
    if not isinstance(one, Dip) or body is None:
        return None
    return (body.high_m if one.line_m is None else one.line_m), body.diameter_m


def _share_of(cast: CastAmounts, share: float) -> CastAmounts:
    """One melt's share of a marbled pass: its grams; it cools as the whole does."""
    parts = {
        name: replace(of := getattr(cast, name), value=of.value.times(share))
        for name in ("volume", "finished", "scraped", "poured")
    }
    return replace(cast, **parts)


def _laid_on(doc: d.Pass) -> PouredAs:
    match doc:
        case d.ShellPass(emptied=True):
            return "tipped"
        case d.StickPass() | d.DustPass() | d.PrintPass() | d.CentrePass() | d.FillingPass() | d.PastePass():
            raise AssertionError(doc.kind)
    return doc.kind


def _word(doc: d.Pass) -> str:
    return doc.name.lower() if isinstance(doc, d.DetailPass) else PASS_WORDS[doc.kind]


def _handful(doc: d.Pass, row: Laid, paces: Paces) -> Handful:
    kg = row.poured.value.likely
    match doc:
        case d.FillingPass():
            return Handful("filling", material("fillings", doc.filling).name, kg, paces.fill_each_s, doc.filling)
        case d.PastePass():
            return Handful("paste", material("pastes", doc.paste).name, kg, paces.fill_each_s)
        case d.StickPass():
            return Handful("stick", "stick", kg, paces.stick_each_s)
        case d.DustPass() | d.CentrePass() | d.PrintPass():
            return Handful(doc.kind, doc.name, kg, paces.fill_each_s)
    raise AssertionError(doc.kind)
