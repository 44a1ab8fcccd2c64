"""What a pass of one melt, or marbled with others, has in common with others of its sort."""

from typing import Annotated

from umber_pebble.core.errors import require_range
from umber_pebble.core.pieces.fields import Shares
from umber_pebble.core.pieces.melt_ref import MeltRef, MeltShare
from umber_pebble.core.pieces.passes.base import PassKind

MOST_OTHERS = 6
ALL_OTHERS_FRAC = 0.95
Others = Annotated[tuple[MeltShare, ...], Shares(MOST_OTHERS)]


class Marbled(PassKind):
    """Of one melt, or with shares of others."""

    __slots__ = ()
    melt: MeltRef
    others: tuple[MeltShare, ...]

    def melts(self) -> tuple[tuple[MeltRef, float], ...]:
        """Each melt once; the first has what the others leave."""
        shares = {self.melt: 1.0 - sum(of.share_frac for of in self.others)}
        for of in self.others:
            shares[of.melt] = shares.get(of.melt, 0.0) + of.share_frac
        return tuple(shares.items())

    def refs(self) -> dict[str, MeltRef]:
        return {"melt": self.melt, **{f"others.{i}.melt": of.melt for i, of in enumerate(self.others)}}

    def check_shares(self, i: int) -> None:
        """Raises: OutOfRange: they leave the first melt too little."""
        require_range(f"passes.{i}.others", sum(of.share_frac for of in self.others), 0.0, ALL_OTHERS_FRAC)
