"""The joins of a piece: the melt they take, how long each is held, and what a plan makes of them."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.moulds.outline import Bar
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.pieces.joining.base import Held, Join
from umber_pebble.core.pieces.joining.known import JOIN_KINDS
from umber_pebble.core.pieces.joints import (
    Joint,
    hand_s,
    joined,
    mat_m,
)
from umber_pebble.core.plan.problem import HandStep, Named, PlanLine
from umber_pebble.core.plan.problem import Mould as MouldCase
from umber_pebble.core.plan.spares import BreakRate
from umber_pebble.services.builds import Wanted
from umber_pebble.services.documents import Kitchen, OwnMaterial
from umber_pebble.services.materials_own import castable
from umber_pebble.services.piece_docs import Piece, StayDoc
from umber_pebble.services.places import place_case, way_of

MOST_AT_ONCE = 500


@dataclass(frozen=True, slots=True)
class Joins:
    """What a plan makes of a piece's joins: lines where melt is poured, steps where none is."""

    lines: list[PlanLine]
    steps: list[HandStep]


def joint_of(join: Join, of: Material, thick_m: float) -> Joint:
    """A join as the engine takes it.

    Raises: OutOfRange: neither a seam nor dots, or a size outside.
    """
    return Joint(join.seam_m, join.dots, join.bead_m, join.gap_m, join.deep_m, of, max(thick_m, 1e-4))


def held(join: Join, joint: Joint, own: Mapping[str, OwnMaterial], kitchen: Kitchen) -> Held:
    """What one piece's joins take, and how long each is held, on the kitchen's first place.

    Raises: OutOfRange: a melt or size that cannot be.
    """
    kind = JOIN_KINDS[join.by]
    melt = castable(join.melt.material, own, "melt.material") if kind.POURED else joint.of
    return kind.held(joint, melt, join.count, place_case(kitchen.places[0], kitchen))


def check_joins(piece: Piece, own: Mapping[str, OwnMaterial]) -> None:
    """Joins must be of parts the piece has, with a seam or dots, and of a melt that is cast.

    Raises: OutOfRange.
    """
    for i, join in enumerate(piece.joins):
        path = f"joins.{i}"
        for name, part in (("part", join.part), ("to", join.to)):
            if part >= len(piece.parts):
                raise OutOfRange(
                    "the piece has no such part any more: choose another", path=f"{path}.{name}", got=part
                )
        if join.seam_m == 0 and join.dots == 0:
            raise OutOfRange("a join has a seam or dots: give one of them", path=f"{path}.seam_m", got=0.0)
        castable(join.melt.material, own, f"{path}.melt.material")
    if piece.stand is not None and len(piece.stand.spots) != len(piece.parts):
        raise OutOfRange(
            "each part has its place in the piece that stands",
            path="stand.spots",
            got=len(piece.stand.spots),
            limits={"low": len(piece.parts), "high": len(piece.parts)},
        )


@dataclass(frozen=True, slots=True)
class Before:
    """By which a piece's parts are made, by their numbers: the last line of each that is poured, the step of each that hands make."""

    lasts: Sequence[int | None]
    made: Sequence[int | None]


def joins_of(
    piece: Piece,
    of_parts: Before,
    lines: Sequence[PlanLine],
    wanted: Wanted,
    own: Mapping[str, OwnMaterial],
    kitchen: Kitchen,
) -> Joins:
    """A piece's joins, in order; each after the parts it joins and the joins before it.

    Raises: OutOfRange: a join that cannot be.
    """
    out, lasts = Joins([], []), of_parts.lasts
    before: tuple[int, ...] = ()
    for join in piece.joins:
        needs = tuple(dict.fromkeys(i for i in (lasts[join.part], lasts[join.to], *before) if i is not None))
        steps = tuple(
            dict.fromkeys(i for i in (of_parts.made[join.part], of_parts.made[join.to]) if i is not None)
        )
        on = lasts[join.part] if lasts[join.part] is not None else lasts[join.to]
        of = (
            castable(lines[on].melt.partition("#")[0], own, "melt")
            if on is not None
            else material("melts", "coating")
        )
        joint = joint_of(join, of, lines[on].cast.thickness.likely if on is not None else join.bead_m)
        this = held(join, joint, own, kitchen)
        named = Named(piece.name, f"{piece.parts[join.part].name.lower()} to {piece.parts[join.to].name.lower()}")
        takes = hand_s(kitchen.paces.join_each_s, this.holding.holds, join.count, join.props > 0)
        if not JOIN_KINDS[join.by].POURED:
            out.steps.append(
                HandStep(
                    "join",
                    named,
                    wanted.item,
                    wanted.quantity,
                    this.kg,
                    takes,
                    this.holding.sets,
                    needs,
                    after_steps=steps,
                )
            )
            continue
        melt = castable(join.melt.material, own, "melt.material")
        laid = joined(joint, melt, join.count)
        assert laid.cast is not None
        bench = way_of([StayDoc(from_s=0.0, place_id=kitchen.places[0].id, care="none")], kitchen, "joins")
        line = PlanLine(
            named,
            wanted.quantity,
            join.melt.key,
            _props(join),
            laid.cast,
            BreakRate(0, 0),
            bench,
            ((of, joint.thick_m, None),),
            None,
            True,
            (),
            wanted.item,
            "join",
            None,
            needs,
            takes,
            softens_s=this.holding.softens_s,
            after_steps=steps,
        )
        out.lines.append(line)
        before = (len(lines) + len(out.lines) - 1,)
    return out


def _props(join: Join) -> MouldCase:
    """What holds the pieces of a join, where a mould would be: props for so many, or hands."""
    mat, at_once = material("moulds", "silicone"), join.props or MOST_AT_ONCE
    room = Cavity(Walled(Bar(0.05, 0.05, 0.0), 0.01))
    name = f"props for {join.props}" if join.props else "held by hand"
    return MouldCase(f"props-{name}", 0, mat, mat_m(), room, at_once, 1, mat.value("bears"), name, join.props == 0)
