"""The line protocol between the app and a thermometer's bridge (docs/probe.md): one line of UTF-8 text a message.

The bridge says `probe 1 NAME`, then `channel ID immersed|infrared LABEL` for each, then `temp ID DEGC` as often as it reads,
and `lost ID` when a channel is unplugged. The app says `follow ID cook N`, `follow ID round N`, `follow ID sample 1` or
`follow ID nothing`.
"""

import math
import re
from dataclasses import dataclass
from typing import Literal

VERSION = 1
LONGEST_LINE = 200
ID = r"[A-Za-z0-9_-]{1,20}"


@dataclass(frozen=True, slots=True)
class Greeting:
    name: str


@dataclass(frozen=True, slots=True)
class Channel:
    id: str
    kind: Literal["immersed", "infrared"]
    label: str


@dataclass(frozen=True, slots=True)
class Temp:
    id: str
    degc: float


@dataclass(frozen=True, slots=True)
class Lost:
    id: str


@dataclass(frozen=True, slots=True)
class Follow:
    """What a channel is put into: cook or round and its number from 0, or a sample in a cup; subject None: nothing."""

    id: str
    subject: str | None
    number: int


Message = Greeting | Channel | Temp | Lost | Follow


class NotUnderstood(ValueError):
    """A line that is none of the protocol's."""


def write(message: Message) -> str:
    """The line of a message, without its end."""
    match message:
        case Greeting(name):
            return f"probe {VERSION} {name}"
        case Channel(id, kind, label):
            return f"channel {id} {kind} {label}"
        case Temp(id, degc):
            return f"temp {id} {degc:.2f}"
        case Lost(id):
            return f"lost {id}"
        case Follow(id, None, _):
            return f"follow {id} nothing"
        case Follow(id, subject, number):
            return f"follow {id} {subject} {number + 1}"


def read(line: str) -> Message:
    """The message of a line.

    Raises: NotUnderstood: it is none, or too long.
    """
    if len(line) > LONGEST_LINE:
        raise NotUnderstood("the line is too long")
    text = line.strip()
    if found := re.fullmatch(rf"probe {VERSION} (\S.{{0,59}})", text):
        return Greeting(found.group(1))
    if found := re.fullmatch(rf"channel ({ID}) (immersed|infrared) (\S.{{0,59}})", text):
        return Channel(found.group(1), "infrared" if found.group(2) == "infrared" else "immersed", found.group(3))
    if found := re.fullmatch(rf"temp ({ID}) (-?\d{{1,6}}(?:\.\d{{1,6}})?)", text):
        degc = float(found.group(2))
        if math.isfinite(degc):
            return Temp(found.group(1), degc)
    if found := re.fullmatch(rf"lost ({ID})", text):
        return Lost(found.group(1))
    if found := re.fullmatch(rf"follow ({ID}) nothing", text):
        return Follow(found.group(1), None, 0)
    if found := re.fullmatch(rf"follow ({ID}) (cook|round|sample) ([1-9]\d{{0,3}})", text):
        return Follow(found.group(1), found.group(2), int(found.group(3)) - 1)
    raise NotUnderstood(f"not a line of this protocol: {text[:60]!r}")
