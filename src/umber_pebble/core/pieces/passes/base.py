"""What is asked of a kind of pass: each answers in a module of its own, and who lays, draws, orders, plans or edits passes asks
only this."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import ClassVar, Literal

from shapely.geometry.base import BaseGeometry

from umber_pebble.core.materials.load import Material
from umber_pebble.core.pieces.body import Body
from umber_pebble.core.pieces.bought import Bought, InIt, WireSet
from umber_pebble.core.pieces.cut import BodyCut, Cut
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.fields import Shape, fields_of
from umber_pebble.core.pieces.finishes import Finish
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import LaidPass
from umber_pebble.core.pieces.melt_ref import MeltRef, OwnMelts
from umber_pebble.core.pieces.of_paste import OfPaste
from umber_pebble.core.pieces.transfers import Film, LaidBy, ShapedAs

Ground = Literal["mould", "body", "drawing", "hand"]
"""What a pass goes into or onto."""
LayStyle = Literal[
    "brushed", "splattered", "finger", "butter", "scratched", "mottled", "sprayed", "sweets", "set_out", "lace"
]
"""Ways of laying a pass that are offered beside the usual one: accents, and coloured cocoa butter."""
Soft = Literal["stick", "sprinkle", "film", "drag", "comb", "groove", "shape"]
"""What hands do to a melt that is still soft."""
Pace = Literal["pour", "fill", "stick"]
"""Which of a kitchen's paces a pass goes at."""
InHand = Literal[
    "filling", "dust", "centre", "paste", "print", "stick", "comb", "groove", "shape", "bought", "finish"
]
"""What hands put in, or onto what is still wet."""
LaidAs = Literal[
    "fill",
    "stripes",
    "lines",
    "detail",
    "shell",
    "tipped",
    "turned",
    "close",
    "dip",
    "drizzle",
    "dollop",
    "cluster",
    "smear",
]
"""How a melt is laid on."""


@dataclass(frozen=True, slots=True)
class Put:
    """What hands put in: as what, its name, its key in the tables if it stands there, its grams [kg], None: as laid; shaped: how they bend it;
    bought: what it is, where it is bought."""

    what: InHand
    name: str
    key: str = ""
    kg: float | None = None
    shaped: ShapedAs | None = None
    bought: Bought | None = None


@dataclass(frozen=True, slots=True)
class Thin:
    """A layer that may let what is behind it through: of which melt, on which share of the face [frac] or inside which outline of its own,
    how thick [m]."""

    melt: MeltRef
    share_frac: float
    outline: tuple[tuple[float, float], ...] | None
    thick_m: float


@dataclass(frozen=True, slots=True)
class First:
    """What a pass goes by when it is first put into a build: the melt it is made of, how deep the cavity or high the body is [m], how
    warm the room [degC]."""

    melt: MeltRef
    depth_m: float
    room_degc: float


@dataclass(frozen=True, slots=True)
class Edge:
    """The edge of a pass that is dragged: which field it is, and where it stands: at a level, so far under the rim, or so thick a layer
    from where it begins; whole: at the rim the field is untold; slant: the field it leans by; unless: a field with which there is
    none."""

    field: str
    at: Literal["level", "gap", "layer"]
    whole: bool = False
    slant: str | None = None
    unless: str | None = None


@dataclass(frozen=True, slots=True)
class Place:
    """Where a pass comes: the how many-th it is, the passes, and what of them is laid already."""

    i: int
    passes: tuple["PassKind", ...]
    laid: tuple[LaidPass, ...]
    own: OwnMelts

    @property
    def before(self) -> "PassKind | None":
        return self.passes[self.i - 1] if self.i else None

    @property
    def after(self) -> "PassKind | None":
        return self.passes[self.i + 1] if self.i + 1 < len(self.passes) else None

    @property
    def melted(self) -> bool:
        """Whether there is a melt yet."""
        return any(row.cast for row in self.laid)


@dataclass(frozen=True, slots=True)
class InMould(Place):
    """In a cavity of which so much is left."""

    hollow: Hollow


@dataclass(frozen=True, slots=True)
class OnBody(Place):
    """On a body; outer: its outlines with its coats so far, in planes through its axis turned by these angles [rad]."""

    body: Body
    outer: tuple[BaseGeometry, ...]
    angles: tuple[float, ...]


class PassKind(Shape):
    """A pass of a kind. Its fields are its module's; what is said here holds where a kind says nothing else."""

    __slots__ = ()
    kind: str

    ON: ClassVar[tuple[Ground, ...]] = ("mould",)
    RANK: ClassVar[float]
    """Where it usually comes: dust on the bare mould, details, shell, stick, what is put in, what is poured in, the close, what is on
    top."""
    SOLVED_BY: ClassVar[str | None] = None
    """The field that a weight or volume is turned into."""
    EDGE: ClassVar[Edge | None] = None
    GRAINY: ClassVar[bool] = False
    PACE: ClassVar[Pace] = "pour"
    COATS: ClassVar[bool] = False
    """It goes round what it is on, and what stands there stands on it."""
    ON_TOP: ClassVar[bool] = False
    """It lies on top: also of a casting that is full and level, and over its rim."""
    LIES: ClassVar[Literal["wall", "within", "top"]] = "within"
    """On which face it is seen, if on any: the one against the mould, or the open one."""
    COVERS: ClassVar[bool] = False
    """What is on the wall before it is seen no more from the open side, and what is put on it no more from the mould's."""
    SOLID: ClassVar[bool] = False
    """A solid melt, into which something is pushed while it is soft."""
    TWO_HALVES: ClassVar[bool] = False
    """It is cast in two halves of its mould at once."""
    WITH_FILM: ClassVar[bool] = False
    """It is done together with the film it lies on."""
    EACH: ClassVar[bool] = False
    """What is done to a melt while it is soft is done to each piece, also of a sheet."""
    AFTER: ClassVar[bool] = False
    """It is done once the piece is out of its mould."""
    EASED_OFF: ClassVar[bool] = False
    """Where it is the last, and its family is eased off what it lies on, it is."""

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, "PassKind"]:
        """It as it is first put into a build, as usual (None), or in a way of its own."""
        raise NotImplementedError

    def melts(self) -> tuple[tuple[MeltRef, float], ...]:
        """Its melts with their shares [frac]."""
        return ()

    def refs(self) -> dict[str, MeltRef]:
        """All melts it names, by their fields."""
        fields = [of.name for of in fields_of(type(self)) if of.sort == "melt"]
        return {name: ref for name in fields if (ref := getattr(self, name)) is not None}

    def rank(self, beside: Sequence["PassKind"]) -> tuple[float, float]:
        """Where it usually comes among others."""
        return self.RANK, 0.0

    @property
    def soft(self) -> Soft | None:
        """What it is to hands where it comes right after a melt that is still soft."""
        return None

    @property
    def strokes(self) -> int:
        """How often hands do it on a casting, at its pace."""
        return 1

    @property
    def pushed_in_m3(self) -> float | None:
        """What it displaces in a solid melt right before it, into which it is pushed; None: it is not."""
        return None

    @property
    def laid_as(self) -> LaidAs:
        """How its melt is laid on; nothing asks it of a pass without one."""
        raise NotImplementedError

    def put(self) -> Put | None:
        """What hands put in before its melt, or without one."""
        return None

    def step(self) -> str:
        """What it is called among others of its part."""
        return self.kind

    @property
    def forms(self) -> int | None:
        """How many forms there are, one for each film, or for each casting; None: it takes none [count]."""
        return None

    @property
    def put_film(self) -> Film | None:
        """The film it is; None where it is none."""
        return None

    def put_again(self) -> Put | None:
        """What hands do once more with it after the next filling."""
        return None

    @property
    def piped_m(self) -> float | None:
        """Out of how wide a bag or nozzle its melts are piped, side by side [m]; None where they are not."""
        return None

    @property
    def laid_by(self) -> LaidBy:
        """What a thin layer of it is laid on with; what is not is piped or poured."""
        return "piped"

    @property
    def thin(self) -> Thin | None:
        """It as a layer on the face that is seen through the mould, None where it is none."""
        return None

    def with_behind(self, name: str, melt: MeltRef) -> "PassKind":
        """The same in another melt, to lie behind it; nothing asks it of what is no thin layer."""
        raise NotImplementedError

    @property
    def wire(self) -> WireSet | None:
        """The wire it is; None where it is none."""
        return None

    def in_it(self) -> tuple[InIt, ...]:
        """What is bought and stays in or on a part by it; melts, fillings and pastes are food."""
        return ()

    def finish(self, area_m2: float) -> Finish | None:
        """The finish it is on such an area; None where it is none."""
        return None

    @property
    def drawn_m(self) -> float | None:
        """How deep it is drawn into the melt before it [m]; None where it is not."""
        return None

    def tipped(self) -> tuple[float, float] | None:
        """How thick it is wanted where it is filled and tipped out [m], and how long it stands full before that [s]; None where it is not."""
        return None

    def of_paste(self) -> OfPaste | None:
        """The paste it is of, in its colour; None where it is of none."""
        return None

    def pressed_of(self) -> Material | None:
        """The paste it is pressed of; None where it is not."""
        return None

    def dipped_m(self, body: Body) -> tuple[float, float] | None:
        """How deep and wide what is dipped is [m]; None where nothing is."""
        return None

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        """It laid into a cavity, and what is left of that.

        Raises: Wrong: it cannot be. OutOfRange: a number that no pass may have.
        """
        raise ImpossiblePass("wants_body", "only a body is dipped: what is cast goes into the mould")

    def lay_on(self, at: OnBody) -> tuple[LaidPass, tuple[BaseGeometry, ...]]:
        """It laid on a body, and the outlines then.

        Raises: as lay.
        """
        raise ImpossiblePass("wants_mould", "this goes into a mould, not onto a body: dip or drizzle it")

    def lay_by_hand(self, i: int) -> LaidPass:
        """It modelled by hand.

        Raises: as lay.
        """
        raise ImpossiblePass("by_hand", "of no mould and no body there is only what is modelled by hand")

    @property
    def dries(self) -> bool:
        """Of paste, whether it dries on its form before it goes on."""
        return True

    def front(self) -> BaseGeometry | None:
        """As it is seen where it is modelled by hand, about its middle [m]; None of what is not."""
        return None

    def cut(self, row: LaidPass, cut: Cut, own: OwnMelts) -> BaseGeometry | None:
        """What of it is seen in a cut through its cavity; None: nothing."""
        return None

    def cut_on(self, row: LaidPass, cut: BodyCut, own: OwnMelts) -> BaseGeometry | None:
        """What of it is seen in a cut through its body; None: nothing."""
        return None

    def material(self, own: OwnMelts) -> Material:
        """Of its first melt."""
        return self.melts()[0][0].of(own)
