"""What only some pours are said with: of a ball, a dip, a join, a sheet. Times in s, temperatures in degC, lengths in m."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Turning:
    """A ball is turned by hand all over for so long, then every so often, so many times, of which so many are usual."""

    by_hand_s: float
    every_s: float
    turns: int
    usual: int


@dataclass(frozen=True, slots=True)
class DipFrom:
    """Between which temperatures a bath is dipped from, and after which dips it is warmed."""

    floor_degc: float
    most_degc: float
    warm_after: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class Dab:
    """How long a dab first softens the face it joins, and how many small twists press it on."""

    softens_s: float
    twists: int
