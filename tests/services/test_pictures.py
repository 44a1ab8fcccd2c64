"""Pictures noted in a run: small, upright, without what a camera writes into them; kept, exported and brought back as they are."""

import io
from base64 import b64encode
from pathlib import Path

import pytest
from PIL import Image

from tests.services.test_led import Hand
from umber_pebble.core.bench.side_events import Pictured
from umber_pebble.core.errors import OutOfRange
from umber_pebble.formats.pictures import LONGEST_PX, as_jpeg, is_kept
from umber_pebble.services import archive, pictures
from umber_pebble.services.errors import InUse, NotFound
from umber_pebble.services.told import read

# EXIF 2.32: 0x010F maker, 0x0112 orientation (6: turned a quarter to the right), 0x8825 where it was taken
MAKER, ORIENTATION, PLACE = 0x010F, 0x0112, 0x8825


def photo(size: tuple[int, int] = (2400, 1200)) -> bytes:
    """As a camera writes it: red on the left, and everything it knows beside the pixels."""
    image = Image.new("RGB", size, "white")
    image.paste((200, 30, 30), (0, 0, size[0] // 4, size[1]))
    exif = Image.Exif()
    exif[MAKER], exif[ORIENTATION] = "Some camera", 6
    exif.get_ifd(PLACE)[1] = "N"
    out = io.BytesIO()
    image.save(out, "JPEG", exif=exif, comment=b"at home")
    return out.getvalue()


def test_a_picture_is_upright_small_and_bare() -> None:
    made = Image.open(io.BytesIO(as_jpeg(photo())))
    assert made.size == (LONGEST_PX // 2, LONGEST_PX)
    # what was left is above after a quarter turn to the right
    red, _, blue = made.getpixel((400, 100))  # type: ignore[misc]
    assert red > 150 > blue
    assert not made.getexif() and "comment" not in made.info
    assert is_kept(as_jpeg(photo()))
    assert not is_kept(photo((300, 200))) and not is_kept(b"")


@pytest.mark.parametrize("data", [b"", b"GIF89a but no more", b"<svg/>"])
def test_what_is_no_picture_is_refused_in_words(data: bytes) -> None:
    with pytest.raises(OutOfRange, match="no picture"):
        as_jpeg(data)


def test_more_pixels_than_a_camera_has_are_refused() -> None:
    out = io.BytesIO()
    Image.new("1", (16_000, 11_000)).save(out, "PNG")
    with pytest.raises(OutOfRange, match="too many pixels"):
        as_jpeg(out.getvalue())


def test_a_picture_is_noted_and_goes_out_and_in_with_its_run(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    hand = Hand(tmp_path, "order-planets")
    workshop, data = hand.workshop, b64encode(photo((300, 200))).decode()
    pictures.put(workshop, "led", "p1", data)
    pictures.put(workshop, "led", "p1", data)
    hand.tell("note", picture="p1", text="its foot")
    said = read("note", hand.runs.look("led")[3][-1].payload)
    assert isinstance(said, Pictured) and (said.picture, said.text) == ("p1", "its foot")
    kept = pictures.get(workshop, "led", "p1")
    with pytest.raises(NotFound):
        pictures.get(workshop, "other", "p1")
    with pytest.raises(OutOfRange, match="base64"):
        pictures.put(workshop, "led", "p2", "%%%")
    monkeypatch.setattr(pictures, "MOST_OF_A_RUN", 1)
    with pytest.raises(InUse, match="keeps 1"):
        pictures.put(workshop, "led", "p2", data)
    text = archive.export(workshop)
    archive.import_workshop(workshop, hand.runs, archive.WorkshopFile.model_validate_json(text))
    assert pictures.get(workshop, "led", "p1") == kept
    assert archive.export(workshop).count(b64encode(kept).decode()) == 1
