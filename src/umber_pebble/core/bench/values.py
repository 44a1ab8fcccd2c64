"""The values that events say, with their limits."""

from typing import Annotated, Literal, get_args

from annotated_types import Interval, Len

Method = Literal["immersed_swirled", "immersed_unswirled", "infrared"]
Sight = Literal["moves", "lets_go", "resists", "cracked"]
BowlSight = Literal["solid", "half", "few_lumps", "smooth", "thick", "grainy", "seized"]
Flaw = Literal[
    "broken",
    "stuck",
    "bloomed",
    "dull",
    "bubbled",
    "thin",
    "not filled",
    "crinkled",
    "sticky",
    "cloudy",
    "off-colour",
]
Spot = Literal["air", "towel", "bath", "counter", "hand"]
Smear = Literal["well", "under", "over"]
TemperStep = Literal["through", "cool", "powder", "slab", "return", "cold bowl", "warm", "take out"]
Mending = Literal["same melt", "torch", "warmed face"]
Dye = Literal["water", "oil", "powder"]

METHODS: tuple[Method, ...] = get_args(Method)
FLAWS: tuple[Flaw, ...] = get_args(Flaw)
SIGHTS: tuple[Sight, ...] = get_args(Sight)
BOWL_SIGHTS: tuple[BowlSight, ...] = get_args(BowlSight)
SPOTS: tuple[Spot, ...] = get_args(Spot)

Index = Annotated[int, Interval(ge=0, lt=10_000)]
Degc = Annotated[float, Interval(ge=-30.0, le=220.0)]
BurstS = Annotated[float, Interval(ge=1.0, le=300.0)]
RescueS = Annotated[float, Interval(ge=1.0, le=60.0)]
PowerFrac = Annotated[float, Interval(ge=0.1, le=1.0)]
SeedKg = Annotated[float, Interval(ge=0.0005, le=10.0)]
HeldKg = Annotated[float, Interval(ge=0.002, le=20.0)]
TimerS = Annotated[float, Interval(ge=5.0, le=86_400.0)]
RunS = Annotated[float, Interval(ge=0.0, le=10_000_000.0)]
LeftKg = Annotated[float, Interval(ge=0.0, le=50.0)]
TipM = Annotated[float, Interval(ge=0.0005, le=0.02)]
Id = Annotated[str, Len(1, 40)]
Text = Annotated[str, Len(1, 500)]
