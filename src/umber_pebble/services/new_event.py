"""An event before it is kept."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any


@dataclass(frozen=True, slots=True)
class NewEvent:
    """An event as a client sends it."""

    id: str
    kind: str
    payload: dict[str, Any]
    actor: str
    device: str
    happened_at: datetime | None
    schema: int
