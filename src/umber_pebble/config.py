"""Settings, from the command line or the environment; each is described in the README."""

import os
from dataclasses import dataclass
from pathlib import Path

DEFAULT_PORT = 8722


@dataclass(frozen=True, slots=True)
class Config:
    """Where the data lies, the port on loopback, and whether the clock may be driven."""

    data_dir: Path
    port: int = DEFAULT_PORT
    driven_clock: bool = False

    @property
    def database(self) -> Path:
        return self.data_dir / "umber-pebble.db"

    @property
    def backups(self) -> Path:
        return self.data_dir / "backups"


def from_environment() -> Config:
    """Read UMBER_PEBBLE_DATA and UMBER_PEBBLE_PORT."""
    return Config(
        data_dir=Path(os.environ.get("UMBER_PEBBLE_DATA", "var")).resolve(),
        port=int(os.environ.get("UMBER_PEBBLE_PORT", DEFAULT_PORT)),
    )
