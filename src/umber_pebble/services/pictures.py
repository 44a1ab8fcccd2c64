"""Pictures that are noted in a run."""

from base64 import b64decode, b64encode
from collections.abc import Sequence
from typing import Annotated, Any

from pydantic import Field
from sqlalchemy.orm import Session

from umber_pebble.core.errors import CoreError, OutOfRange
from umber_pebble.formats.apart import apart
from umber_pebble.formats.pictures import as_jpeg, is_kept
from umber_pebble.services.doc_base import Doc, Id, Utc, check_id
from umber_pebble.services.errors import InUse, NotFound
from umber_pebble.services.workshop import Workshop
from umber_pebble.store import queries
from umber_pebble.store.models import Picture

MOST_OF_A_RUN = 60


class PictureFile(Doc):
    """A picture noted in a run, as JPEG in base64."""

    id: Id
    made_at: Utc
    jpeg: Annotated[str, Field(max_length=4_000_000)]


def put(workshop: Workshop, run_id: str, picture_id: str, data: str) -> None:
    """Keep a picture of a run, given as base64; the same id again is the same picture.

    Raises: NotFound: the run. InUse: the run has as many as it may. OutOfRange: it is no picture, or too large a one.
    """
    check_id(picture_id)
    try:
        raw = b64decode(data, validate=True)
    except ValueError:
        raise OutOfRange("this is not base64", path="data", got=None) from None
    jpeg = apart("data", as_jpeg, raw)
    with workshop.writing() as session:
        if queries.run(session, run_id) is None:
            raise NotFound(f"there is no run {run_id}", path="id", got=run_id)
        if queries.picture(session, picture_id) is not None:
            return
        if queries.picture_count(session, run_id) >= MOST_OF_A_RUN:
            raise InUse(f"a run keeps {MOST_OF_A_RUN} pictures: this one has as many", path="id", got=run_id)
        session.add(Picture(id=picture_id, run_id=run_id, made_at=workshop.clock.now(), jpeg=jpeg))


def get(workshop: Workshop, run_id: str, picture_id: str) -> bytes:
    """A picture as JPEG. Raises: NotFound."""
    with workshop.session() as session:
        row = queries.picture(session, picture_id)
        if row is None or row.run_id != run_id:
            raise NotFound(f"there is no picture {picture_id}", path="picture", got=picture_id)
        return row.jpeg


def rows(session: Session, run_id: str) -> list[dict[str, Any]]:
    """A run's pictures as they go out with it."""
    return [
        {"id": of.id, "made_at": of.made_at, "jpeg": b64encode(of.jpeg).decode()}
        for of in queries.pictures(session, run_id)
    ]


def kept(run_id: str, files: Sequence[PictureFile]) -> list[Picture]:
    """Pictures that came in with a run, to be stored with it.

    Raises: OutOfRange: one of them is none.
    """
    out = []
    for i, of in enumerate(files):
        try:
            raw = b64decode(of.jpeg, validate=True)
            jpeg = raw if is_kept(raw) else apart("jpeg", as_jpeg, raw)
        except (ValueError, CoreError) as error:
            where = f"pictures.{i}.jpeg"
            raise OutOfRange("this is no picture that can be read", path=where, got=None) from error
        out.append(Picture(id=of.id, run_id=run_id, made_at=of.made_at, jpeg=jpeg))
    return out
