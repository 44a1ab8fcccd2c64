"""A paste as a pass names it."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class OfPaste:
    """Which paste, in which colour kneaded in, as hex, None: as it comes; whether it is cut out of what is rolled out."""

    key: str
    colour: str | None
    cut_out: bool
