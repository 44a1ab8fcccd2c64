"""What an act, a ribbon or a call is about."""

from dataclasses import dataclass
from typing import Literal

Of = Literal["run", "pot", "round", "batch", "hand", "sample", "timer"]


@dataclass(frozen=True, slots=True)
class Subject:
    """The run itself, a vessel by its cook, a round, a held batch, what hands make of no melt, a sample in a cup, or a timer; numbers from 0."""

    of: Of
    number: int


RUN = Subject("run", 0)
