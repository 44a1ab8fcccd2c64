"""What hands do with a cast while it is soft: between which of its marks, and after which it is offered no more."""

from collections.abc import Iterable
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Worked:
    """One kind of work: the mark it opens at, None: from the pour; the one it closes at; of these marks the first that the cast has
    ends it for good; there: it waits for that where it was poured."""

    opens: str | None
    closes: str
    ends: tuple[str, ...]
    there: bool = False


WORKS: dict[str, Worked] = {
    "bend": Worked("bend_opens", "bend_closes", ("brittle",)),
    "release": Worked("release_opens", "release_closes", ("release_closes",)),
    "stick": Worked(None, "stick_closes", ("still", "bend_closes")),
    "sprinkle": Worked(None, "sprinkle_closes", ("sprinkle_closes",)),
    "film": Worked("comb_opens", "comb_closes", ("comb_closes",), there=True),
    "drag": Worked(None, "comb_closes", ("comb_closes",)),
    "comb": Worked("comb_opens", "comb_closes", ("comb_closes",), there=True),
    "cut": Worked("comb_opens", "cutter_closes", ("cutter_closes",), there=True),
    "shape": Worked("comb_opens", "cutter_closes", ("cutter_closes",), there=True),
    "groove": Worked("groove_opens", "groove_closes", ("groove_closes",), there=True),
}


def held_there(works: Iterable[str], slid_out: bool) -> bool:
    """Whether a cast stays where it was poured while hands still do these with it.

    Args:
        works: by their kinds
        slid_out: what it lies on is pulled out from under it, which what waits until it is firmer need not wait for
    Source: common-practice
    """
    return any(WORKS[kind].opens is None if slid_out else WORKS[kind].there for kind in works)
