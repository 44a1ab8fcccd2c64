"""A bridge that talks too much, or says what breaks something: it is cut short, and listened to all the same."""

import pytest

from umber_pebble.core.bench.subject import Subject
from umber_pebble.devices.protocol import Channel, Temp
from umber_pebble.services.probes import MOST_CHANNELS, Probes
from umber_pebble.services.runs import RunService
from umber_pebble.services.workshop import Workshop


def test_a_bridge_of_twenty_thousand_channels_is_cut_short(workshop: Workshop) -> None:
    probes = Probes(RunService(workshop), None)
    for i in range(20_000):
        probes.take(Channel(f"c{i}", "immersed", "Probe"))
    assert [view.id for view in probes.views()] == [f"c{i}" for i in range(MOST_CHANNELS)]


def test_the_next_message_is_taken_whatever_one_runs_into(
    workshop: Workshop, monkeypatch: pytest.MonkeyPatch
) -> None:
    runs = RunService(workshop)
    probes = Probes(runs, None)
    probes.take(Channel("a", "immersed", "Probe"))
    probes.assign("a", Subject("pot", 0))
    monkeypatch.setattr("umber_pebble.services.probes.judged", lambda *_: 1 / 0)
    probes._take_safely(Temp("a", 50.0))
    monkeypatch.undo()
    probes._take_safely(Temp("a", 51.0))
    assert probes.views()[0].degc == 51.0
