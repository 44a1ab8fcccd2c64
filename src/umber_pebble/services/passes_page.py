"""The kinds of passes, ways to join and bodies as a page of the docs, made from their modules."""

import inspect
from collections.abc import Iterable

from umber_pebble.core.pieces.dipped import Dipped
from umber_pebble.core.pieces.fields import FieldShown, fields_of, kind_of
from umber_pebble.core.pieces.joining.base import Join
from umber_pebble.core.pieces.joining.known import JOIN_KINDS
from umber_pebble.core.pieces.passes.known import KINDS

HEAD = """# Passes, bodies and joins

Made from their modules by `make types`: what a build may be made of, and what may be set of each.
"""
GROUNDS = {"mould": "into a mould", "body": "onto a body", "drawing": "over a drawing", "hand": "modelled by hand"}


def page() -> str:
    """It all, in Markdown."""
    passes = [
        _part(f"`{kind_of(of)}`, {' or '.join(GROUNDS[ground] for ground in of.ON)}", of, fields_of(of))
        for of in KINDS
    ]
    joins = "\n".join(f"- `{by}`: {_said(type(kind))}" for by, kind in JOIN_KINDS.items())
    rest = [_part("A body", Dipped, fields_of(Dipped)), _part("A join", Join, fields_of(Join)) + f"\n{joins}\n"]
    return "\n".join([HEAD, *passes, *rest])


def _part(name: str, of: type, fields: Iterable[FieldShown]) -> str:
    rows = "\n".join(f"| `{field.name}` | {_may_be(field)} |" for field in fields)
    return f"## {name}\n\n{_said(of)}\n\n| field | may be |\n|---|---|\n{rows}\n"


def _said(of: type) -> str:
    return " ".join((inspect.getdoc(of) or "").split())


def _may_be(field: FieldShown) -> str:
    if field.number:
        said = f"{field.number.low:g} to {field.number.high:g} {field.number.unit}"
    else:
        said = ", ".join(f"`{of}`" for of in field.options) or field.sort
    return said + (", or untold" if field.told else "")
