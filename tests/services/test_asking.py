"""Questions answered: each by the same engine as the room where it is reckoned whole, with what was assumed said."""

import pytest

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.humidity.dew import dew_point_degc
from umber_pebble.demo.moulds import MOULDS
from umber_pebble.demo.pieces import PIECES
from umber_pebble.services import asks
from umber_pebble.services.answering import answer, understand
from umber_pebble.services.documents import Kitchen
from umber_pebble.services.explorer import HeatRequest, explore
from umber_pebble.services.finder import find
from umber_pebble.services.piece_docs import StayDoc
from umber_pebble.services.ready import READY, TakeReady, take_ready
from umber_pebble.services.workshop import Workshop


def ask(workshop: Workshop, said: str) -> asks.Answer:
    asked = understand(workshop, said).asked
    assert asked is not None
    return answer(workshop, asked)


def test_when_it_may_be_turned_out_is_what_the_explorer_says(workshop: Workshop) -> None:
    of = ask(workshop, "when can I turn out 4 mm hearts")
    assert isinstance(of, asks.UnmouldAnswer)
    assert set(of.assumed) == {"material", "mould", "place_id"}
    # on the bench as long as the kitchen's hands take to pour a mould of twelve
    kitchen = workshop.get("kitchen", "kitchen").doc
    assert isinstance(kitchen, Kitchen) and of.bench_s == 12 * kitchen.paces.pour_each_s
    stays = [
        StayDoc(from_s=0.0, place_id="bench", care="none"),
        StayDoc(from_s=of.bench_s, place_id="fridge", care="none"),
    ]
    request = HeatRequest(
        material="coating",
        temper="tempered",
        water_frac=None,
        piece_id=None,
        shape="plate",
        thickness_m=0.004,
        mould="silicone",
        wall_m=0.003,
        pour_degc=None,
        first=None,
        ways=[stays],
        bend=None,
    )
    [explored] = explore(workshop, request)
    assert of.lies[0].place_id == "fridge"
    assert of.lies[0].unmould == explored.windows["unmould"]
    # the freezer is quicker, and its cold cracks what stays
    freezer = next(lies for lies in of.lies if lies.place_id == "freezer")
    assert freezer.unmould and freezer.cracks and freezer.unmould.likely < freezer.cracks.likely
    assert freezer.unmould.likely < explored.windows["unmould"].likely
    # nobody puts hot sugar into the damp of a fridge unless she says so
    sugar = ask(workshop, "unmould isomalt 6 mm")
    assert isinstance(sugar, asks.UnmouldAnswer)
    assert [lies.place_id for lies in sugar.lies] == ["bench"]


def test_how_much_is_the_plan_of_just_that(workshop: Workshop) -> None:
    of = ask(workshop, "how much coating for 30 hearts 50 mm 8 mm thick")
    assert isinstance(of, asks.HowMuchAnswer) and of.assumed == ()
    # taken over as a piece and asked again by its name, it comes to the same
    ids = {"mould_id": "m", "piece_id": "p"}
    take_ready(workshop, TakeReady(**ids, shape="heart", across_m=0.05, thickness_m=0.008, material="coating"))
    again = find(workshop, "how much for 30 hearts").understood.asked
    assert isinstance(again, asks.AskHowMuch) and again.piece_id == "p"
    stored = answer(workshop, again)
    assert isinstance(stored, asks.HowMuchAnswer)
    assert (stored.fresh_kg, stored.casts.value) == (of.fresh_kg, of.casts.value)
    # all that is poured, and more: spares, what stays, a reserve
    assert of.fresh_kg > 30 * of.each_kg
    assert of.rounds == -(-int(of.casts.value.likely) // READY["heart"].cavities)


def test_a_bowl_is_still_good_as_long_as_it_cools_to_its_end(workshop: Workshop) -> None:
    def still(said: str) -> asks.StillAnswer:
        of = ask(workshop, said)
        assert isinstance(of, asks.StillAnswer)
        return of

    warm, cooler, cold = (still(f"can I still pour 300 g coating at {degc} degrees") for degc in (36, 31, 24))
    assert (warm.verdict, cooler.verdict, cold.verdict) == ("yes", "yes", "no")
    assert warm.lasts.likely > cooler.lasts.likely > 0
    # a larger bowl stays warm for longer
    assert still("can I still pour 900 g coating at 36 degrees").lasts.likely > warm.lasts.likely
    hot = still("can I dip dark at 38 degrees")
    assert hot.verdict == "wait" and hot.waits.likely > 0
    assert still("can I still pour coating at 70 degrees").verdict == "spoilt"
    bends, brittle = still("can I bend it at 75 degrees"), still("can I bend it at 50 degrees")
    assert (bends.verdict, brittle.verdict, bends.asked.material) == ("yes", "no", "isomalt")
    with pytest.raises(OutOfRange, match="not bent"):
        ask(workshop, "can I bend coating at 30 degrees")


def test_out_of_the_cold_it_sweats_by_the_dew_point(workshop: Workshop) -> None:
    of = ask(workshop, "will 5 mm coating sweat out of the fridge")
    assert isinstance(of, asks.KeepsAnswer)
    assert of.sweat.dew_degc == pytest.approx(dew_point_degc(of.room_degc, of.humidity_frac))
    assert of.sweat.sweats_s and of.sweat.dry_s and of.sweat.dry_s > of.sweat.sweats_s
    assert of.sticky_frac is None
    sugar = ask(workshop, "will isomalt go sticky")
    assert isinstance(sugar, asks.KeepsAnswer) and sugar.sticky_frac is not None


def test_heat_seed_and_colour_say_how(workshop: Workshop) -> None:
    bursts, ring, wet = (
        ask(workshop, said) for said in ("melt 300 g wafers", "cook 300 g isomalt", "cook 500 g sugar")
    )
    assert (
        isinstance(bursts, asks.HeatAnswer)
        and isinstance(ring, asks.HeatAnswer)
        and isinstance(wet, asks.HeatAnswer)
    )
    assert bursts.bursts and bursts.bursts[0] == max(bursts.bursts)
    assert (ring.bursts, ring.water_kg, ring.vessel_id) == (None, 0.0, "pot")
    assert wet.water_kg > 0
    seed = ask(workshop, "how much seed for 1 kg dark")
    assert isinstance(seed, asks.SeedAnswer)
    # common practice, no source: a tenth to a quarter
    assert 0.08 < seed.seed.value.likely < 0.25
    with pytest.raises(OutOfRange, match="no temper"):
        ask(workshop, "seed for 500 g isomalt")
    colour = ask(workshop, "navy isomalt")
    assert isinstance(colour, asks.ColourAnswer) and colour.coloured is None


@pytest.mark.parametrize(
    ("said", "words"),
    [
        ("still pour at 900 degrees", "900 degrees"),
        ("how much for 99999 hearts", "99999"),
        ("unmould 0.01 mm isomalt", "0.01 mm"),
        ("how much seed for 0.1 g dark", "0.1 g"),
    ],
)
def test_what_is_read_and_cannot_be_is_said_and_the_rest_still_asked(
    workshop: Workshop, said: str, words: str
) -> None:
    understood = find(workshop, said).understood
    assert [of.words for of in understood.refused] == [words]
    assert understood.asked is not None
    assert answer(workshop, understood.asked).assumed


def test_things_are_found_by_their_names_the_exact_one_first(workshop: Workshop) -> None:
    for key in ("mould-disc", "mould-pop"):
        workshop.create("mould", key, MOULDS[key])
    for key in ("piece-disc", "piece-pop"):
        workshop.create("piece", key, PIECES[key])
    names = [thing.name for thing in find(workshop, "star-glass").things]
    assert names == ["Star-glass disc", "Star-glass disc, 50 mm"]
    assert [thing.kind for thing in find(workshop, "star-glass disc").things] == ["piece", "mould"]
    assert find(workshop, "sky pop").things[0].id == "piece-pop"
    assert find(workshop, "xyz").things == ()
    assert [word.called for word in find(workshop, "candy melts").words] == ["coating wafers"]


def test_the_smallest_bars_there_are_can_be_asked_for(workshop: Workshop) -> None:
    of = ask(workshop, "how much for 20 bars 5 mm wide")
    assert isinstance(of, asks.HowMuchAnswer)
    assert (of.asked.shape, of.asked.across_m) == ("bar", 0.005)
