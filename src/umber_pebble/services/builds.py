"""A part's build from its documents: its passes as the engine takes them, laid into its mould, and the lines a plan makes of it."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from umber_pebble.core.errors import MouldTooWeak, OutOfRange
from umber_pebble.core.heat.piece import Stay as StayCase
from umber_pebble.core.materials.load import material
from umber_pebble.core.pieces.build import BuildFault, lay
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.pieces.layers import Laid
from umber_pebble.core.pieces.passes import (
    Centre,
    Close,
    Detail,
    Dust,
    Fill,
    Filling,
    Melt,
    Pass,
    Rod,
    Shell,
    Turned,
)
from umber_pebble.core.plan.problem import Handful, Line, Paces
from umber_pebble.core.plan.problem import Mould as MouldCase
from umber_pebble.core.plan.spares import BreakRate
from umber_pebble.services import piece_docs as d
from umber_pebble.services.docs import Mould, OwnMaterial
from umber_pebble.services.materials_own import castable
from umber_pebble.services.shapes import mould_case

PASS_WORDS = {
    "dust": "dust", "detail": "detail", "shell": "shell", "stick": "stick", "centre": "centre", "filling": "filling",
    "close": "close", "fill": "fill", "turned": "turned",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Built:
    """A part laid into its mould."""

    mould: MouldCase
    passes: tuple[Pass, ...]
    laid: list[Laid]
    faults: list[BuildFault]


def build_of(part: d.Part, mould: Mould, own: Mapping[str, OwnMaterial]) -> Built:
    """A part's passes laid into its mould.

    Raises: OutOfRange: a material or cavity that is not there, a number no pass may have.
    """
    case = mould_case(part.mould_id, mould, part.cavity)
    passes = tuple(_pass(one, own, f"passes.{i}") for i, one in enumerate(part.passes))
    laid, faults = lay(case.cavity, passes, case.bears)
    return Built(case, passes, laid, faults)


def _melt(ref: d.MeltRef, own: Mapping[str, OwnMaterial], path: str) -> Melt:
    return Melt(ref.key, castable(ref.material, own, f"{path}.material"))


def _pass(one: d.Pass, own: Mapping[str, OwnMaterial], path: str) -> Pass:
    match one:
        case d.DustPass():
            return Dust(one.kg, one.on_wet)
        case d.DetailPass():
            return Detail(_melt(one.melt, own, f"{path}.melt"), one.share_frac, one.thick_m)
        case d.ShellPass():
            return Shell(_melt(one.melt, own, f"{path}.melt"), one.thick_m, one.emptied, one.sides)
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


def last_melt(part: d.Part) -> d.MeltRef:
    """The melt a part is unmoulded in: what its break rate is kept by.

    Raises: OutOfRange: none of its passes melts anything.
    """
    if not part.melts:
        raise OutOfRange("a part needs a pass with a melt", path="passes", got=len(part.passes))
    return part.melts[-1]


def lines_of(
    part: d.Part, built: Built, name: str, item: int, quantity: int, rate: BreakRate,
    lies: tuple[tuple[StayCase, str], ...], paces: Paces, start: int,
) -> list[Line]:  # fmt: skip
    """A part as lines of a plan, one for each melt of each pass, each on the one before; start is the number of the first.

    Raises: OutOfRange: a pass that cannot be.
    """
    if built.faults:
        fault = built.faults[0]
        if fault.code == "mould_too_weak":
            raise MouldTooWeak(
                f"{built.mould.material.name} bears {built.mould.bears:g} degC; {fault.words}: use silicone or metal",
                path="mould.bears_degc", got=built.mould.bears, limits={"low": fault.got or 0.0},
                params={"material": built.mould.material.name, "line": name},
            )  # fmt: skip
        raise OutOfRange(
            f"{name}, {part.passes[fault.index].kind}: {fault.words}", path=f"lines.{item}.piece_id", got=fault.got,
            limits={} if fault.limit is None else {"limit": fault.limit}, params={"build": fault.code},
        )  # fmt: skip
    lines: list[Line] = []
    waiting: list[Handful] = []
    several, wet = sum(1 for row in built.laid if row.cast) > 1, -2
    for row in built.laid:
        doc = part.passes[row.index]
        if row.cast is None:
            # right after a melt it goes into what is still soft
            work = (
                "stick"
                if isinstance(doc, d.StickPass)
                else "sprinkle"
                if isinstance(doc, d.DustPass) and doc.on_wet
                else None
            )
            if work and row.index == wet + 1:
                lines[-1] = replace(lines[-1], work=work)
            else:
                waiting.append(_handful(doc, row, paces))
            continue
        wet = row.index
        words = f"{name}, {_word(doc)}" if several else name
        for key, share in _shares(built.passes[row.index]):
            cast = row.cast if share == 1.0 else _share_of(row.cast, share)
            after = start + len(lines) - 1 if lines else None
            line = Line(
                words,
                quantity,
                key,
                built.mould,
                cast,
                None,
                rate,
                (),
                row.under,
                after,
                False,
                tuple(waiting),
                item,
                _laid_on(doc),
            )
            lines.append(line)
            waiting = []
    if not lines:
        raise OutOfRange("a part needs a pass with a melt", path=f"lines.{item}.piece_id", got=name)
    if part.bent:
        lines[-1] = replace(lines[-1], work="bend")
    lines[-1] = replace(lines[-1], last=True, lies=lies)
    return lines


def _shares(one: Pass) -> list[tuple[str, float]]:
    if isinstance(one, Fill) and one.second is not None and one.second_frac > 0:
        return [(one.melt.key, 1 - one.second_frac), (one.second.key, one.second_frac)]
    melt: Melt = one.melt  # type: ignore[union-attr]
    return [(melt.key, 1.0)]


def _share_of(cast: CastAmounts, share: float) -> CastAmounts:
    """One melt's share of a marbled pass: its grams; it cools as the whole does."""
    parts = {
        name: replace(of := getattr(cast, name), value=of.value.times(share))
        for name in ("volume", "finished", "scraped", "poured")
    }
    return replace(cast, **parts)


def _laid_on(doc: d.Pass) -> str:
    return "tipped" if isinstance(doc, d.ShellPass) and doc.emptied else doc.kind


def _word(doc: d.Pass) -> str:
    return doc.name.lower() if isinstance(doc, d.DetailPass) else PASS_WORDS[doc.kind]


def _handful(doc: d.Pass, row: Laid, paces: Paces) -> Handful:
    name = doc.name if isinstance(doc, (d.DustPass, d.CentrePass)) else PASS_WORDS[doc.kind]
    if isinstance(doc, d.FillingPass):
        name = material("fillings", doc.filling).name
    takes = paces.stick_each_s if isinstance(doc, d.StickPass) else paces.fill_each_s
    return Handful(doc.kind, name, row.poured.value.likely, takes)
