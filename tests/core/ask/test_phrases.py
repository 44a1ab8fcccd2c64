"""Questions as people say them: which it is, what is taken from the words, and which word was not known.

The first half was written before anything could read them; the words are the trade's, common practice, no source.
"""

from typing import Any

import pytest

from umber_pebble.core.ask.phrases import read_phrase

# written first
FIRST: list[tuple[str, str, dict[str, Any], list[str]]] = [
    ("when can I turn out 4 mm hearts", "unmould", {"thickness_m": 0.004, "shape": "heart"}, []),
    (
        "how long in the freezer for candy melts 5mm",
        "unmould",
        {"material": "coating", "thickness_m": 0.005, "place": "freezer"},
        [],
    ),
    ("unmould", "unmould", {}, []),
    ("candy melts", "heat", {"material": "coating"}, []),
    ("how much", "how_much", {}, []),
    ("sweat", "keeps", {}, []),
    ("how much for 30 of these", "how_much", {"quantity": 30}, []),
    (
        "how much chocolate for 24 hearts 50 mm",
        "how_much",
        {"material": "dark", "quantity": 24, "shape": "heart", "across_m": 0.05},
        [],
    ),
    ("is this bowl still good at 30 degrees", "still", {"degc": 30.0}, []),
    ("can I still pour isomalt at 120 C", "still", {"material": "isomalt", "degc": 120.0, "doing": "pour"}, []),
    ("too cold to dip?", "still", {"doing": "dip"}, []),
    ("how long in the microwave for 300 g of white wafers", "heat", {"kg": 0.3, "material": "coating"}, ["white"]),
    ("how much seed for 500g dark", "seed", {"kg": 0.5, "material": "dark"}, []),
    ("is it in temper", "seed", {}, []),
    ("navy blue, how many drops", "colour", {"wanted": "#1f2a44"}, []),
    ("does it stand", "stands", {}, []),
    ("will the tree topper tip over", "stands", {}, ["tree", "topper"]),
    (
        "how long does a 60 mm ball take to set in the fridge",
        "unmould",
        {"across_m": 0.06, "shape": "half_ball", "place": "fridge"},
        [],
    ),
    (
        "why are my chocolates wet when they come out of the fridge",
        "keeps",
        {"material": "dark", "place": "fridge"},
        [],
    ),
    ("how hot do I cook isomalt", "heat", {"material": "isomalt"}, []),
]

# written once they could be read
THEN: list[tuple[str, str, dict[str, Any], list[str]]] = [
    (
        "how long till 6mm bark is set on the bench",
        "unmould",
        {"thickness_m": 0.006, "shape": "bar", "place": "room"},
        [],
    ),
    (
        "milk chocolate bars 8 mm fridge",
        "unmould",
        {"material": "milk", "thickness_m": 0.008, "shape": "bar", "place": "fridge"},
        [],
    ),
    (
        "1/4 inch isomalt discs when can i unmould",
        "unmould",
        {"material": "isomalt", "thickness_m": 0.00635, "shape": "disc"},
        [],
    ),
    ("turn out lollipops from plastic mould", "unmould", {"shape": "disc", "mould": "thermoformed"}, []),
    (
        "how many grams for 12 half spheres 50 mm",
        "how_much",
        {"quantity": 12, "shape": "half_ball", "across_m": 0.05},
        [],
    ),
    (
        "have I got enough isomalt for 20 stars",
        "how_much",
        {"material": "isomalt", "quantity": 20, "shape": "star"},
        [],
    ),
    ("can I bend it at 70", "still", {"doing": "bend", "degc": 70.0}, []),
    ("dark at 34 too warm to dip", "still", {"material": "dark", "degc": 34.0, "doing": "dip"}, []),
    ("bag of coating at 86F still pipe", "still", {"material": "coating", "degc": 30.0, "doing": "pipe"}, []),
    ("which bursts for 12 oz wafers", "heat", {"kg": 0.34019428, "material": "coating"}, []),
    ("sugar on the hob 500 g", "heat", {"material": "cooked_sugar", "kg": 0.5}, []),
    ("half power or full for 250 g", "heat", {"kg": 0.25}, ["full"]),
    ("temper 1 kg milk", "seed", {"kg": 1.0, "material": "milk"}, []),
    ("white chocolate keeps blooming", "seed", {"material": "white"}, []),
    ("teal isomalt 3 mm", "colour", {"wanted": "#2f9c95", "material": "isomalt", "thickness_m": 0.003}, []),
    ("how much colour for 200g pink", "colour", {"kg": 0.2, "wanted": "#e58aa8"}, []),
    ("will isomalt go sticky by saturday", "keeps", {"material": "isomalt"}, ["saturday"]),
    ("condensation", "keeps", {}, []),
    ("will it fall over on a 60 mm base", "stands", {"across_m": 0.06}, []),
    ("is the wire strong enough to hang it", "stands", {}, []),
]


def _about(given: dict[str, Any]) -> dict[str, Any]:
    return {key: pytest.approx(of, rel=1e-6) if isinstance(of, float) else of for key, of in given.items()}


@pytest.mark.parametrize(("said", "question", "given", "unknown"), [*FIRST, *THEN])
def test_a_phrase_is_read(said: str, question: str, given: dict[str, Any], unknown: list[str]) -> None:
    read = read_phrase(said)
    assert (read.question, read.given) == (question, _about(given))
    assert list(read.unknown) == unknown
