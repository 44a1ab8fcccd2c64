"""An order with all it uses as it stands now, and what runs taught."""

import math
from collections.abc import Mapping
from typing import Any, TypeVar

from sqlalchemy.orm import Session

from umber_pebble.core.log.learn import Factor, learned
from umber_pebble.core.spread import Spread
from umber_pebble.services.doc_base import Doc
from umber_pebble.services.documents import Kitchen, Mould, Order
from umber_pebble.services.ovens import FactorSpread
from umber_pebble.services.piece_docs import Piece
from umber_pebble.services.snapshot import (
    Counts,
    Snapshot,
    break_of,
    prior_coupling,
    prior_fills,
    prior_loss,
    prior_residue,
)
from umber_pebble.services.together import as_one, made_with
from umber_pebble.services.workshop import KITCHEN_ID, Stored, load, load_all, own_materials
from umber_pebble.store import queries

D = TypeVar("D", bound=Doc)


def _docs(stored: Mapping[str, Stored], sort: type[D]) -> dict[str, D]:
    return {key: of.doc for key, of in stored.items() if isinstance(of.doc, sort)}


Unstored = tuple[Mapping[str, Piece], Mapping[str, Mould]]
"""Pieces and moulds by their ids that are asked about and not in the workshop."""
NOTHING_MORE: Unstored = ({}, {})


def snapshot_of(
    session: Session,
    order: Order,
    order_ref: tuple[str, int] | None = None,
    unstored: Unstored = NOTHING_MORE,
) -> Snapshot:
    """An order with those that are made with it and all they use, as they stand now, and what was learned of them.

    Raises: NotFound: a piece or mould is gone. OutOfRange: too many lines for a day.
    """
    order, shares = as_one(order, made_with(session, order))
    kitchen = load(session, "kitchen", KITCHEN_ID)
    assert isinstance(kitchen.doc, Kitchen)
    versions = {KITCHEN_ID: kitchen.version, **({order_ref[0]: order_ref[1]} if order_ref else {})}
    paths = {line.piece_id: f"lines.{i}.piece_id" for i, line in reversed(list(enumerate(order.lines)))}
    stored = load_all(session, "piece", {key: path for key, path in paths.items() if key not in unstored[0]})
    pieces = {**_docs(stored, Piece), **unstored[0]}
    used_moulds = {
        part.mould_id: paths[key]
        for key, piece in pieces.items()
        for part in piece.parts
        if part.mould_id and part.mould_id not in unstored[1]
    }
    moulds = load_all(session, "mould", used_moulds)
    versions |= {key: of.version for key, of in (stored | moulds).items()}
    vessels = [v.id for v in kitchen.doc.vessels]
    parts = [part for piece in pieces.values() for part in piece.parts]
    own, cast_of = own_materials(session), {melt.material for part in parts for melt in part.melts}
    cast_of |= {join.melt.material for piece in pieces.values() for join in piece.joins}
    used = dict.fromkeys(key for part in parts if (key := break_of(part)))
    learnt = queries.evidence(session)
    return Snapshot(
        order=order,
        parts_together=True,
        shares=shares,
        kitchen=kitchen.doc,
        pieces=pieces,
        moulds={**_docs(moulds, Mould), **unstored[1]},
        materials={key: doc for key, doc in own.items() if key in cast_of},
        versions=versions,
        breaks={key: _counts(learnt.get(("break", key), [])) for key in used},
        loss={v: _factor(learnt, "loss", v, prior_loss()) for v in vessels},
        residue={v: _factor(learnt, "residue", v, prior_residue()) for v in vessels},
        ovens=_ovens(learnt, kitchen.doc),
        fills={
            v: _factor(learnt, "fills", v, prior_fills(), -math.inf) for v in vessels if ("fills", v) in learnt
        },
    )


Learnt = dict[tuple[str, str], list[dict[str, Any]]]


def ovens(session: Session, kitchen: Kitchen) -> dict[str, FactorSpread]:
    """What runs taught of each oven; those nobody looked at are left out."""
    return _ovens(queries.evidence(session), kitchen)


def _ovens(learnt: Learnt, kitchen: Kitchen) -> dict[str, FactorSpread]:
    known = [o.id for o in kitchen.microwaves if ("coupling", o.id) in learnt]
    return {o: _factor(learnt, "coupling", o, prior_coupling()) for o in known}


def breaks(session: Session, key: str) -> Counts:
    """All outcomes of a material in a mould so far."""
    return _counts([c.evidence for c in queries.calibrations(session, "break", key)])


def _counts(rows: list[dict[str, Any]]) -> Counts:
    return Counts(broken=sum(r["broken"] for r in rows), good=sum(r["good"] for r in rows))


def _factor(learnt: Learnt, kind: str, subject: str, prior: Spread, at_least: float = 0.05) -> FactorSpread:
    spread = learned(prior, [Factor(row["value"], row["sd"]) for row in learnt.get((kind, subject), [])], at_least)
    return FactorSpread(low=spread.low, likely=spread.likely, high=spread.high)
