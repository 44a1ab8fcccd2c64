"""All kinds of passes there are: each module here has its own."""

import pkgutil
from collections.abc import Iterator
from dataclasses import is_dataclass
from functools import reduce
from importlib import import_module
from operator import or_
from typing import TYPE_CHECKING, Literal

from umber_pebble.core.pieces import passes
from umber_pebble.core.pieces.fields import kind_of
from umber_pebble.core.pieces.passes.base import PassKind


def _found() -> Iterator[type[PassKind]]:
    for module in pkgutil.iter_modules(passes.__path__, f"{passes.__name__}."):
        if module.name != __name__:
            for of in vars(import_module(module.name)).values():
                if (
                    isinstance(of, type)
                    and issubclass(of, PassKind)
                    and is_dataclass(of)
                    and of.__module__ == module.name
                ):
                    yield of


KINDS: tuple[type[PassKind], ...] = tuple(sorted(_found(), key=lambda of: (of.RANK, kind_of(of))))
"""In the order in which they are usually laid, and offered."""

if TYPE_CHECKING:
    Pass = PassKind
    Kind = str
else:
    Pass = reduce(or_, KINDS)
    Kind = Literal[tuple(kind_of(of) for of in KINDS)]
