"""A part laid into its mould or on its body, from its documents."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.materials.load import material, materials
from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.moulds.outline import Circle
from umber_pebble.core.moulds.traced import Traced, traced_of
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.pieces.body import Body
from umber_pebble.core.pieces.build import lay, lay_by_hand, lay_on
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.pieces.dipped import Dipped
from umber_pebble.core.pieces.faults import BuildFault
from umber_pebble.core.pieces.joints import mat_m
from umber_pebble.core.pieces.layers import LaidPass
from umber_pebble.core.pieces.melt_ref import OwnMelts
from umber_pebble.core.pieces.passes.base import PassKind
from umber_pebble.core.pieces.sheet import not_cut, not_on_film, on_sheet
from umber_pebble.core.plan.problem import Mould as MouldCase
from umber_pebble.services import piece_docs as d
from umber_pebble.services.documents import Mould, OwnMaterial
from umber_pebble.services.materials_own import castable
from umber_pebble.services.shapes import mould_case


@dataclass(frozen=True, slots=True)
class Built:
    """A part laid into its mould, or on its body, or modelled by hand, with the melts of the workshop's own it is made of; a body lies on
    a mat on its tray."""

    mould: MouldCase
    body: Body | None
    passes: tuple[PassKind, ...]
    own: OwnMelts
    laid: list[LaidPass]
    faults: list[BuildFault]
    by_hand: bool = False

    @property
    def drawing(self) -> Traced | None:
        """What its lines are piped over, if they are."""
        return None if self.body is not None or self.by_hand else traced_of(self.mould.cavity.shape)

    @property
    def two_halves(self) -> bool:
        """Whether it is cast in two halves of its mould at once."""
        return any(one.TWO_HALVES for one in self.passes)

    def again(self, passes: tuple[PassKind, ...]) -> list[LaidPass]:
        """Other passes laid where these are."""
        if self.by_hand:
            return lay_by_hand(passes)[0]
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
    if part.by_hand:
        laid, faults = lay_by_hand(passes)
        return Built(_board(part), None, passes, melts, laid, faults, by_hand=True)
    assert mould is not None and part.mould_id is not None
    case = mould_case(part.mould_id, mould, part.cavity)
    laid, faults = lay(case.cavity, passes, case.bears, melts)
    if case.cutting is not None:
        laid = [on_sheet(row, case.cutting) for row in laid]
        faults = [*faults, *not_cut(passes, melts)]
    faults = [*faults, *not_on_film(passes, case.material)]
    built = Built(replace(case, forms=_forms(passes, case)), None, passes, melts, laid, faults)
    if not built.two_halves:
        return built
    # a ball takes two halves: as many balls at once as there are pairs, and what is laid is laid in both
    balls = case.at_once // 2
    if balls == 0:
        words = "a ball takes two halves of its mould: count both"
        raise OutOfRange(words, path="mould_id", got=case.at_once, limits={"low": 2})
    return replace(built, mould=replace(case, cavities=balls, owned=1), laid=[_both_halves(row) for row in laid])


def _forms(passes: tuple[PassKind, ...], case: MouldCase) -> int | None:
    """For how many castings there are forms to bend them over: each takes its own, or with all that lies on its film."""
    each = [one.forms if one.EACH else one.forms * case.on_sheet for one in passes if one.forms is not None]
    return min(each, default=None)


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
    cast = None if row.cast is None else share_of(row.cast, 2.0)
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


def _board(part: d.Part) -> MouldCase:
    """What is modelled lies on a mat, one beside the other."""
    mat, name = material("moulds", "silicone"), part.name.lower()
    room = Cavity(Walled(Circle(0.05), 0.01))
    return MouldCase(f"hand-{name}", 0, mat, mat_m(), room, 1, 1, mat.value("bears"), part.name)


def body_key(doc: Dipped) -> str:
    """What a body is known by where a mould would be. Two alike share their tray."""
    return f"body-{doc.name.lower()}"


def build_key(part: d.Part) -> str:
    """What a part's build is known by where break rates are kept: its passes that melt something; "" for one fill."""
    kinds = "+".join(one.kind for one in part.passes if one.refs())
    return "" if kinds == "fill" else kinds


def share_of(cast: CastAmounts, share: float) -> CastAmounts:
    """One melt's share of a marbled pass: its grams; it cools as the whole does."""
    parts = {
        name: replace(of := getattr(cast, name), value=of.value.times(share))
        for name in ("volume", "finished", "scraped", "poured")
    }
    return replace(cast, **parts)
