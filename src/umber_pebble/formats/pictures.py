"""Pictures of a camera or a file, made small and bare: what they show, and nothing of where or by what they were taken."""

import io
import warnings

from PIL import Image, ImageOps, UnidentifiedImageError

from umber_pebble.core.errors import OutOfRange

LONGEST_PX, QUALITY = 1600, 82
MOST_PX = 80_000_000
Image.MAX_IMAGE_PIXELS = MOST_PX
TOO_MANY = (Image.DecompressionBombError, Image.DecompressionBombWarning)
UNREADABLE = (UnidentifiedImageError, OSError, ValueError, SyntaxError)


def as_jpeg(data: bytes) -> bytes:
    """A picture upright, no longer than 1600 pixels, as JPEG without metadata.

    Raises: OutOfRange: it is none that can be read, or has too many pixels.
    """
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            with Image.open(io.BytesIO(data)) as opened:
                upright = ImageOps.exif_transpose(opened).convert("RGB")
    except TOO_MANY:
        raise OutOfRange(
            "this picture has too many pixels: take a smaller one", path="data", got=None, limits={"high": MOST_PX}
        ) from None
    except UNREADABLE:
        raise OutOfRange(
            "this is no picture that can be read: send JPEG, PNG or WebP", path="data", got=None
        ) from None
    upright.thumbnail((LONGEST_PX, LONGEST_PX))
    # a new one: nothing but its pixels comes along
    bare = Image.new("RGB", upright.size)
    bare.paste(upright)
    out = io.BytesIO()
    bare.save(out, "JPEG", quality=QUALITY)
    return out.getvalue()


def is_kept(data: bytes) -> bool:
    """Whether a picture is as `as_jpeg` makes them: its head is read, not its pixels."""
    try:
        with Image.open(io.BytesIO(data)) as opened:
            told = {"exif", "icc_profile", "comment", "photoshop", "xmp"} & opened.info.keys()
            return opened.format == "JPEG" and max(opened.size) <= LONGEST_PX and not told
    except (*TOO_MANY, *UNREADABLE):
        return False
