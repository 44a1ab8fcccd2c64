"""A piece put together: what its parts weigh, what its joins take and how long they are held, whether it stands."""

from dataclasses import dataclass

import shapely

from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.families.known import family_of
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.moulds.traced import covered, rings
from umber_pebble.core.pieces.assembly import (
    Standing,
    Weight,
    foot_stress_pa,
    foot_thickness_m,
    hangs,
    standing,
)
from umber_pebble.core.pieces.body import profile
from umber_pebble.core.pieces.eaten import Eaten, eaten
from umber_pebble.core.pieces.joints import hand_s
from umber_pebble.core.pieces.usual import hidden
from umber_pebble.core.spread import Spread
from umber_pebble.services.built import Built
from umber_pebble.services.doc_base import Doc
from umber_pebble.services.documents import Kitchen
from umber_pebble.services.joins import check_joins, held, joint_of
from umber_pebble.services.piece_docs import Part, Piece, Spot, Stand
from umber_pebble.services.workshop import KITCHEN_ID, Workshop, own_materials


class AssemblyRequest(Doc):
    """A piece as it stands in the editor."""

    piece: Piece


@dataclass(frozen=True, slots=True)
class PartWeight:
    """What one part weighs, and all of it in a piece [kg]; how thick it is at its last melt [m]; hidden: the passes that lie on
    the face that is not seen; rings: its edges as it is seen from the front, holes with them, about its middle [m]."""

    each: Explained
    all_kg: float
    thick_m: float
    hidden: list[int]
    rings: list[list[list[float]]]


@dataclass(frozen=True, slots=True)
class JoinRow:
    """A join: its melt or glue in one piece [kg], how long one is held and then left [s], and hands for one piece [s]; by_hand:
    held by hand, nothing else holds it."""

    kg: float
    holds: Spread
    sets: Spread
    hands_s: float
    by_hand: bool


@dataclass(frozen=True, slots=True)
class Stands:
    """How a piece stands; the stress in its foot against what is safe to plan with, and the foot that would be [frac, m]; how many
    times over the wire carries it, and how thick one that does would be [m]; the lean it should bear at least [rad]."""

    standing: Standing
    middle: Spot
    foot_frac: float
    foot_needs_m: float
    hangs: float
    wire_needs_m: float
    safe_rad: float


@dataclass(frozen=True, slots=True)
class Assembly:
    """A piece put together."""

    parts: list[PartWeight]
    joins: list[JoinRow]
    weight: Explained
    stands: Stands | None
    eaten: Eaten


def assembly(workshop: Workshop, asked: AssemblyRequest) -> Assembly:
    """A piece's parts, joins and stand.

    Raises: NotFound: a mould. OutOfRange: a join or size that cannot be.
    """
    piece, kitchen = asked.piece, workshop.get("kitchen", KITCHEN_ID).doc
    assert isinstance(kitchen, Kitchen)
    with workshop.session() as session:
        own = own_materials(session)
    check_joins(piece, own)
    weighed = [_weighed(workshop, part) for part in piece.parts]
    parts, of = [row for row, _ in weighed], [melt for _, melt in weighed]
    joins = []
    for join in piece.joins:
        this = held(join, joint_of(join, of[join.part], parts[join.part].thick_m), own, kitchen)
        hands = hand_s(kitchen.paces.join_each_s, this.holding.holds, join.count, join.props > 0)
        joins.append(JoinRow(this.kg, this.holding.holds, this.holding.sets, hands, join.props == 0))
    whole = sum(p.all_kg for p in parts) + sum(j.kg for j in joins)
    weight = explained(
        whole,
        "kg",
        "all parts, and the melt of the joins",
        *(given(part.name, row.all_kg, "kg") for part, row in zip(piece.parts, parts, strict=True)),
        sources=("geometry",),
    )
    return Assembly(
        parts,
        joins,
        weight,
        _stands(piece.stand, parts, family_of(of[0]).rows) if piece.stand else None,
        eaten([(part.name, part.passes) for part in piece.parts]),
    )


def _weighed(workshop: Workshop, part: Part) -> tuple[PartWeight, Material]:
    """A part's weight, what is in it and what of it is eaten with it; and the melt it is joined in."""
    built = workshop.built(part)
    weights, body = [row.finished.value for row in built.laid], built.body
    inside_kg = sum(row.beside_kg for row in built.laid)
    if body is not None and body.eaten:
        inside_kg += body.volume_m3 * body.material.value("density")
    each = explained(
        Spread(*(sum(getattr(w, end) for w in weights) + inside_kg for end in ("low", "likely", "high"))),
        "kg",
        "its passes, and what is in it",
        *(given(f"pass {row.index + 1}", row.finished.value, "kg") for row in built.laid),
        given("in it", inside_kg, "kg"),
        sources=("geometry",),
    )
    cast = [row for row in built.laid if row.cast]
    melt = built.passes[cast[-1].index].material(built.own) if cast else material("melts", "coating")
    thin = cast[-1].thick_m if cast else 0.0
    return PartWeight(
        each, each.value.likely * part.count, thin, hidden(part.seen, part.passes), _rings(built)
    ), melt


def _rings(built: Built) -> list[list[list[float]]]:
    """A part from the front: the opening of its cavity, what its lines cover, or the cut through its body."""
    if built.by_hand:
        seen = shapely.union_all([front for one in built.passes if (front := one.front()) is not None])
        return [[[x, y] for x, y in ring] for ring in rings(seen)]
    if built.drawing is not None:
        return [[[x, y] for x, y in ring] for ring in rings(covered(built.drawing))]
    if built.body is None:
        return [[[x, y] for x, y in built.mould.cavity.shape.rim()]]
    of = built.body
    cut = profile(of.shape, of.diameter_m, of.high_m)
    return [[[x, y - of.high_m / 2] for x, y in cut.exterior.coords]]


def _stands(stand: Stand, parts: list[PartWeight], kind: str) -> Stands:
    w, d = stand.base_m / 2, stand.base_deep_m / 2
    weights = [
        Weight(max(row.all_kg, 1e-6), spot.x_m, 0.0, spot.z_m)
        for row, spot in zip(parts, stand.spots, strict=True)
    ]
    found = standing(weights, [(-w, -d), (w, -d), (w, d), (-w, d)])
    strength, out = material("kitchen", kind, "strength"), found.middle_m[0]
    safe = strength.value("bends") / strength.value("safety")
    carries = hangs(found.kg, stand.wire_m, stand.wire_in_m, kind)
    return Stands(
        found,
        Spot(x_m=found.middle_m[0], z_m=found.middle_m[2]),
        foot_stress_pa(found.kg, out, stand.foot_wide_m, stand.foot_thick_m) / safe,
        foot_thickness_m(found.kg, out, stand.foot_wide_m, kind),
        carries,
        stand.wire_m / carries,
        material("kitchen", "usual", "lean").value("safe"),
    )
