"""Palettes: what a palette comes to, and its files."""

from dataclasses import dataclass

from umber_pebble.core.colour.palette import Named, Pair, Remelt, base_for, pairs, remelts
from umber_pebble.formats import palettes as files
from umber_pebble.formats.apart import apart
from umber_pebble.services.documents import Palette, PaletteColour
from umber_pebble.services.workshop import Workshop


@dataclass(frozen=True, slots=True)
class PaletteLook:
    """Every two of its colours, what may be melted into what, and the base nearest to a dust, if one is given."""

    pairs: list[Pair]
    remelts: list[Remelt]
    under_dust: Pair | None


def _named(palette: Palette) -> list[Named]:
    return [Named(c.name, c.hex, c.of) for c in palette.colours]


def look(palette: Palette) -> PaletteLook:
    """What a palette comes to. Raises: OutOfRange: never."""
    colours = _named(palette)
    under = base_for(palette.dust, colours) if palette.dust and colours else None
    return PaletteLook(pairs(colours), remelts(colours), under)


def palette_file(workshop: Workshop, palette_id: str, kind: str) -> str:
    """A palette's file. Raises: NotFound."""
    palette = workshop.get("palette", palette_id).doc
    assert isinstance(palette, Palette)
    return files.write_gpl(palette.name, _named(palette)) if kind == "gpl" else files.write_csv(_named(palette))


def palette_of(text: str) -> list[PaletteColour]:
    """Colours out of a file. Raises: OutOfRange: it is no palette."""
    return [PaletteColour(name=c.name, hex=c.hex, of=c.of) for c in apart("text", files.read, text)]
