"""Settings, from the command line or the environment; each is described in the README."""

import os
from dataclasses import dataclass
from pathlib import Path

DEFAULT_PORT = 8722
DEFAULT_PROBE = "127.0.0.1:8723"


@dataclass(frozen=True, slots=True)
class Config:
    """Where the data lies, the port on loopback, whether the clock may be driven, and where a thermometer's bridge is."""

    data_dir: Path
    port: int = DEFAULT_PORT
    driven_clock: bool = False
    probe: tuple[str, int] | None = None

    @property
    def database(self) -> Path:
        return self.data_dir / "umber-pebble.db"

    @property
    def backups(self) -> Path:
        return self.data_dir / "backups"


def bridge_address(text: str) -> tuple[str, int] | None:
    """A bridge's address from HOST:PORT on this machine; "off" for none.

    Raises: ValueError: neither.
    """
    if text == "off":
        return None
    host, _, port = text.rpartition(":")
    if host not in ("127.0.0.1", "localhost") or not port.isdigit():
        raise ValueError(f"the probe's bridge is 127.0.0.1:PORT or off, not {text}")
    return host, int(port)


def from_environment() -> Config:
    """Read UMBER_PEBBLE_DATA, UMBER_PEBBLE_PORT and UMBER_PEBBLE_PROBE."""
    return Config(
        data_dir=Path(os.environ.get("UMBER_PEBBLE_DATA", "var")).resolve(),
        port=int(os.environ.get("UMBER_PEBBLE_PORT", DEFAULT_PORT)),
        probe=bridge_address(os.environ.get("UMBER_PEBBLE_PROBE", DEFAULT_PROBE)),
    )
