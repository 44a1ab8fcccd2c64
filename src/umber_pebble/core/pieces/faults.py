"""What cannot be in a build, and what a mould or body bears."""

from dataclasses import dataclass

from umber_pebble.core.pieces.passes import Pass, melts_of
from umber_pebble.core.pieces.pours import coolest_degc


@dataclass(frozen=True, slots=True)
class BuildFault:
    """Why a pass cannot be as it is: which pass, a code, what is wrong in words, what it is and how far it may go (SI)."""

    index: int
    code: str
    words: str
    got: float | None = None
    limit: float | None = None


class Wrong(Exception):
    """A pass that cannot be, before it is known which one it is."""

    def __init__(self, code: str, words: str, got: float | None = None, limit: float | None = None) -> None:
        super().__init__(words)
        self.code, self.words, self.got, self.limit = code, words, got, limit

    def at(self, index: int) -> BuildFault:
        return BuildFault(index, self.code, self.words, self.got, self.limit)


def bearable(one: Pass, bears_degc: float) -> None:
    """Nothing where what it is cast in or on bears the melts of a pass.

    Args:
        one: the pass
        bears_degc: what mould or body bears [degC]
    Raises: Wrong: a melt is hotter than that while it runs.
    Source: common-practice
    """
    for melt, _ in melts_of(one):
        runs = coolest_degc(melt.material)
        if runs > bears_degc:
            words = f"it does not bear the heat: {melt.material.name} is hotter while it runs"
            raise Wrong("mould_too_weak", words, runs, bears_degc)
