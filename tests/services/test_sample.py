"""A cooling curve read live from a probe in a sample, by that probe's own bands."""

import random

import pytest

from umber_pebble.core.bench.subject import Subject
from umber_pebble.core.errors import OutOfRange
from umber_pebble.devices.protocol import Channel, Temp
from umber_pebble.devices.simulator import sample_degc
from umber_pebble.services.clock import DrivenClock
from umber_pebble.services.documents import Probe
from umber_pebble.services.errors import NotFound
from umber_pebble.services.probes import Probes
from umber_pebble.services.runs import RunService
from umber_pebble.services.temper import CurveRequest, SeedRequest, curve_test, seed_bowl
from umber_pebble.services.workshop import Workshop

ASKED = CurveRequest(csv=None, probe_id="a")


def test_a_live_curve_is_classed_by_its_own_probe(workshop: Workshop, clock: DrivenClock) -> None:
    probes, rng = Probes(RunService(workshop), None), random.Random(3)
    probes.take(Channel("a", "immersed", "Red"))
    probes.assign("a", Subject("sample", 0))
    for second in range(420):
        clock.drive(1.0, None)
        probes.take(Temp("a", sample_degc(second) + rng.gauss(0.0, 0.05)))
        if second == 60:
            early = curve_test(probes, ASKED)
            assert early.test is None
            assert early.waits is not None
            assert len(early.points) == 61
    usual = curve_test(probes, ASKED)
    assert usual.test is not None
    slope = usual.test.slope_k_min.likely
    # the same curve by bands moved past its slope is of the other classes
    for over, under, kind in (
        (slope - 2, slope - 1, "under"),
        (slope + 0.5, slope + 1, "over"),
        (slope - 1, slope + 1, "well"),
    ):
        probes.keep("a", Probe(name="Red", over_below_k_min=over, under_above_k_min=under))
        read = curve_test(probes, ASKED)
        assert read.test is not None
        assert read.test.kind == kind
    assert probes.views()[0].subject == Subject("sample", 0)
    with pytest.raises(OutOfRange, match="over_below_k_min"):
        probes.keep("a", Probe(name="Red", over_below_k_min=0.4, under_above_k_min=0.2))
    with pytest.raises(NotFound):
        curve_test(probes, CurveRequest(csv=None, probe_id="b"))
    # a new sample starts anew
    probes.assign("a", Subject("sample", 0))
    assert curve_test(probes, ASKED).points == []


# Common practice, no source: dark couverture is melted to 45 to 50 C, so that no old crystal is left, before it is cooled and seeded.
@pytest.mark.parametrize(
    ("degc", "told", "act"), [(50.0, False, "cool"), (40.0, False, "melt"), (40.0, True, "cool")]
)
def test_a_bowl_is_seeded_only_once_it_is_melted_through(
    workshop: Workshop, degc: float, told: bool, act: str
) -> None:
    asked = SeedRequest(
        material="dark",
        vessel_id="bowl",
        melt_kg=0.5,
        melt_degc=degc,
        seed_degc=20.0,
        through=told,
        seeded_degc=None,
        added_kg=None,
        read_degc=None,
    )
    assert seed_bowl(workshop, asked).now.act == act
