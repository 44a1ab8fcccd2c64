"""The services' common ground: database, clock, live broker; and the things that are edited."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from functools import partial
from typing import Any

from pydantic import ValidationError
from sqlalchemy import Engine
from sqlalchemy.orm import Session

from umber_pebble.core.errors import CoreError, OutOfRange
from umber_pebble.core.families.known import family_of
from umber_pebble.services.built import Built, build_of
from umber_pebble.services.clock import Clock
from umber_pebble.services.doc_base import STORED, Doc, check_id
from umber_pebble.services.documents import KINDS, Colour, Kitchen, Mould, Order, OwnMaterial
from umber_pebble.services.errors import InUse, NotFound, Stale, Unreadable
from umber_pebble.services.full_disk import words_for_a_full_disk
from umber_pebble.services.joins import check_joins
from umber_pebble.services.live import Broker
from umber_pebble.services.materials_own import castable, check_sheet
from umber_pebble.services.piece_docs import Part, Piece
from umber_pebble.services.places import air_degc
from umber_pebble.services.shapes import cavity_fit, cutting_of
from umber_pebble.store import queries
from umber_pebble.store.models import Revision, Thing

KITCHEN_ID, UNITS_ID = "kitchen", "units"


@dataclass(frozen=True, slots=True)
class Stored:
    """A thing with its id and version."""

    id: str
    version: int
    doc: Doc


@dataclass(frozen=True, slots=True)
class Unread:
    """A thing that this version cannot read."""

    kind: str
    id: str
    name: str


@dataclass(slots=True)
class Workshop:
    """One workshop: its database, its clock, its listeners."""

    engine: Engine
    clock: Clock
    broker: Broker

    @contextmanager
    def session(self) -> Iterator[Session]:
        """A transaction that only reads."""
        with Session(self.engine) as session, session.begin():
            yield session

    @contextmanager
    def writing(self) -> Iterator[Session]:
        """A transaction that writes: committed at the end, or nothing of it.

        Raises: DiskFull.
        """
        with (
            words_for_a_full_disk(),
            Session(self.engine.execution_options(writes=True)) as session,
            session.begin(),
        ):
            yield session

    def get(self, kind: str, thing_id: str) -> Stored:
        """Raises: NotFound."""
        with self.session() as session:
            return load(session, kind, thing_id)

    def built(self, part: Part) -> Built:
        """A part as it stands in an editor, laid into its mould or on its body.

        Raises: NotFound: the mould. OutOfRange: a number no pass may have.
        """
        mould = self.get("mould", part.mould_id).doc if part.mould_id else None
        assert mould is None or isinstance(mould, Mould)
        with self.session() as session:
            own = own_materials(session)
        return build_of(part, mould, own)

    def all(self, kind: str) -> list[Stored]:
        """All of a kind, in the order they were made."""
        with self.session() as session:
            rows = queries.things(session, kind)
            rows = sorted(rows, key=lambda row: str(row[1].doc.get("name", "")).casefold())
            return [Stored(t.id, t.version, doc) for t, r in rows if (doc := _readable(kind, r)) is not None]

    def unread(self) -> list[Unread]:
        """What lies in the store and this version cannot read: left out of every list, kept, and exported as it is."""
        with self.session() as session:
            return [
                Unread(kind, thing.id, str(revision.doc.get("name", thing.id))[:60])
                for kind in KINDS
                for thing, revision in queries.things(session, kind)
                if _readable(kind, revision) is None
            ]

    def create(self, kind: str, thing_id: str, doc: Doc) -> Stored:
        """Add a thing under the client's id; the same again is the same thing.

        Raises: OutOfRange: no id. InUse: the id is taken by something else. And what the thing's own rules refuse.
        """
        [made] = self.create_all([(kind, thing_id, doc)])
        return made

    def create_all(self, things: Sequence[tuple[str, str, Doc]]) -> list[Stored]:
        """Add things, each after those it needs: all of them, or none.

        Raises: as create.
        """
        with self.writing() as session:
            made = [(kind, *self._created(session, kind, thing_id, doc)) for kind, thing_id, doc in things]
        for kind, stored, new in made:
            if new:
                self.broker.publish(topic="thing", kind=kind, id=stored.id)
        return [stored for _, stored, _ in made]

    def _created(self, session: Session, kind: str, thing_id: str, doc: Doc) -> tuple[Stored, bool]:
        """A thing as it is then stored, and whether it is new."""
        check_id(thing_id)
        known = session.get(Thing, thing_id)
        if known is not None:
            stored = None if known.kind != kind or known.gone else load(session, kind, thing_id)
            if stored is None or stored.doc != doc:
                raise InUse("this id is taken: send another", path="id", got=thing_id)
            return stored, False
        self._check(session, kind, thing_id, doc, None)
        thing = Thing(id=thing_id, kind=kind, version=1)
        queries.add_revision(session, thing, _dump(doc), self.clock.now())
        session.flush()
        return Stored(thing_id, 1, doc), True

    def save(self, kind: str, thing_id: str, version: int, doc: Doc) -> Stored:
        """Store the next version of a thing.

        Raises: NotFound. Stale: it was saved in between; both states are in the error, nothing is changed.
        """
        with self.writing() as session:
            current = load(session, kind, thing_id)
            if current.doc == doc:
                return current
            if current.version != version:
                raise Stale(thing_id, version, current.version, _dump(current.doc), _dump(doc))
            self._check(session, kind, thing_id, doc, current.doc)
            row = session.get_one(Thing, thing_id)
            row.version = version + 1
            queries.add_revision(session, row, _dump(doc), self.clock.now())
        self.broker.publish(topic="thing", kind=kind, id=thing_id)
        return Stored(thing_id, version + 1, doc)

    def remove(self, kind: str, thing_id: str, version: int) -> None:
        """Take a thing out of the lists; its revisions stay, for the runs that used it.

        Raises: NotFound, Stale. InUse: a piece needs this mould, or an order this piece.
        """
        with self.writing() as session:
            current = load(session, kind, thing_id)
            if current.version != version:
                raise Stale(thing_id, version, current.version, _dump(current.doc), _dump(current.doc))
            users = [
                r.doc["name"]
                for other in ("piece", "order")
                for _, r in queries.things(session, other)
                if thing_id in _refers_to(r.doc)
            ]
            if users:
                raise InUse(
                    f"{', '.join(users[:3])} needs this: change that first",
                    path="id",
                    got=thing_id,
                    params={"users": users},
                )
            session.get_one(Thing, thing_id).gone = True
        self.broker.publish(topic="thing", kind=kind, id=thing_id)

    def check_current(self, session: Session, kind: str, thing_id: str, gone: bool) -> None:
        """What a thing's own rules say of its newest version; a thing that is gone is let be.

        Raises: what the rules refuse.
        """
        if not gone:
            doc = load(session, kind, thing_id).doc
            self._check(session, kind, thing_id, doc, doc)

    def _check(self, session: Session, kind: str, thing_id: str, doc: Doc, before: Doc | None) -> None:
        """What a document alone cannot know: references, geometry, a due time that has passed."""
        if isinstance(doc, Mould):
            for i, cavity in enumerate(doc.cavities):
                _within(f"cavities.{i}", partial(cavity_fit, cavity))
            cutting_of(doc)
        elif isinstance(doc, Piece):
            check_piece(session, doc)
        elif isinstance(doc, Order):
            for i, line in enumerate(doc.lines):
                load(session, "piece", line.piece_id, path=f"lines.{i}.piece_id")
            if thing_id in doc.together:
                raise OutOfRange("an order is not made together with itself", path="together", got=thing_id)
            moved = not isinstance(before, Order) or before.due_at != doc.due_at
            if moved and doc.due_at <= self.clock.now():
                raise OutOfRange(
                    "the due time has passed: choose one that is still to come",
                    path="due_at",
                    got=doc.due_at.isoformat(),
                    limits={"after": self.clock.now().isoformat()},
                )
        elif isinstance(doc, OwnMaterial):
            check_sheet(doc)
        elif isinstance(doc, Kitchen):
            _unique_ids(doc)
            _cold_is_cold(doc)


def _refers_to(doc: dict[str, Any]) -> set[str]:
    parts = (part["mould_id"] for part in doc.get("parts", [{"mould_id": doc.get("mould_id", "")}]))
    return {*(mould for mould in parts if mould), *(line["piece_id"] for line in doc.get("lines", []))}


def _dump(doc: Doc) -> dict[str, Any]:
    return doc.model_dump(mode="json")


def _unique_ids(doc: Kitchen) -> None:
    for names in (("rings",), ("microwaves", "baths"), ("places", "warmers"), ("vessels",)):
        ids = [row.id for name in names for row in getattr(doc, name)]
        if len(set(ids)) != len(ids):
            raise OutOfRange(f"two {' or '.join(names)} have the same id", path=names[0], got=ids)


def _cold_is_cold(doc: Kitchen) -> None:
    for i, place in enumerate(doc.places):
        if place.kind != "room" and air_degc(place, doc) >= doc.room_degc:
            raise OutOfRange(
                f"{place.name} would be no colder than the room: say how cold it is",
                path=f"places.{i}.air_degc",
                got=air_degc(place, doc),
                limits={"high": doc.room_degc},
            )


def _within(path: str, check: Callable[[], object]) -> None:
    """What a part of a document refuses, with the path of that part."""
    try:
        check()
    except CoreError as error:
        error.path = f"{path}.{error.path}"
        raise


def check_piece(session: Session, piece: Piece) -> None:
    """A piece's moulds, materials and ways must be there; what a pass cannot be is shown where it is, and only keeps a plan from
    being made.

    Raises: NotFound: a mould is gone. OutOfRange: a material that is not cast, a way out of order, chocolate bent.
    """
    own = own_materials(session)
    for i, part in enumerate(piece.parts):
        mould = load(session, "mould", part.mould_id, path=f"parts.{i}.mould_id").doc if part.mould_id else None
        assert mould is None or isinstance(mould, Mould)
        _within(f"parts.{i}", partial(_check_part, part, mould, own))
    check_joins(piece, own)


def _check_part(part: Part, mould: Mould | None, own: dict[str, OwnMaterial]) -> None:
    build_of(part, mould, own)
    starts = [stay.from_s for stay in part.stays]
    if part.stays and (starts[0] != 0 or starts != sorted(set(starts))):
        raise OutOfRange(
            "its way begins with the pour, and each place comes later than the one before",
            path="stays",
            got=str(starts),
        )
    if part.bent and not (part.melts and family_of(castable(part.melts[-1].material, own, "melt")).bends):
        raise OutOfRange("only sugar bends while it is warm: leave it as it is", path="bent", got=True)


def load(session: Session, kind: str, thing_id: str, path: str = "id") -> Stored:
    """A thing's newest version.

    Raises: NotFound.
    """
    return load_all(session, kind, {thing_id: path})[thing_id]


def load_all(session: Session, kind: str, paths: Mapping[str, str]) -> dict[str, Stored]:
    """Several things of a kind by id, each in its newest version; path: what is wrong where one is gone.

    Raises: NotFound.
    """
    rows = queries.named(session, paths, kind)
    for thing_id, path in paths.items():
        if thing_id not in rows:
            raise NotFound(f"there is no {kind} {thing_id}", path=path, got=thing_id)
    return {
        key: Stored(key, thing.version, read_doc(kind, revision.doc)) for key, (thing, revision) in rows.items()
    }


def read_doc(kind: str, doc: dict[str, Any]) -> Doc:
    """A stored document of a kind.

    Raises: Unreadable: another version wrote it, or it is damaged.
    """
    try:
        return KINDS[kind].model_validate(doc, strict=False, context=STORED)
    except ValidationError as error:
        raise Unreadable(
            f"this {kind} cannot be read by this version: it is kept, and goes out with the export",
            path="id",
            got=doc.get("name"),
        ) from error


def _readable(kind: str, revision: Revision) -> Doc | None:
    try:
        return read_doc(kind, revision.doc)
    except Unreadable:
        return None


def own_materials(session: Session) -> dict[str, OwnMaterial]:
    """The workshop's own materials by their ids."""
    rows = queries.things(session, "material")
    docs = {thing.id: _readable("material", revision) for thing, revision in rows}
    return {key: doc for key, doc in docs.items() if isinstance(doc, OwnMaterial)}


def colours(session: Session) -> list[tuple[str, Colour]]:
    """The workshop's colours at hand with their ids."""
    rows = queries.things(session, "colour")
    docs = [(thing.id, _readable("colour", revision)) for thing, revision in rows]
    return [(key, doc) for key, doc in docs if isinstance(doc, Colour)]
