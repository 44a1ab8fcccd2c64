"""Facts first: what was observed is kept whatever a model says of it, and what was shown stays as it was."""

import copy
from collections.abc import Iterator
from datetime import timedelta
from typing import Any

import pytest
from sqlalchemy import text

from tests.plans import plan_order
from tests.services.test_runs import WREN, Hands, order
from umber_pebble.app import create_app
from umber_pebble.core.bench.subject import Subject
from umber_pebble.core.bench.track import Fit
from umber_pebble.core.errors import CoreError
from umber_pebble.core.materials import load
from umber_pebble.services import archive, bench, logbook, runs
from umber_pebble.services.documents import OrderLine
from umber_pebble.services.errors import Stale, Unreadable
from umber_pebble.services.new_event import NewEvent
from umber_pebble.services.runs import RunService
from umber_pebble.services.workshop import Workshop

NOT_REFUSED = pytest.mark.parametrize("first_degc", [100.0, 220.0, -30.0])


def told(hands: Hands, payload: dict[str, Any], kind: str = "reading") -> None:
    hands.do(kind, **payload)


def dots(hands: Hands, cook: int = 0) -> dict[float, bool]:
    ribbon = next(r for r in bench.view(hands.runs, "run", WREN).ribbons if r.subject == Subject("pot", cook))
    return {d.degc: d.odd for d in ribbon.dots}


def resting(stocked: Workshop) -> Hands:
    hands = Hands(stocked)
    hands.do("acknowledged", 10)
    hands.do("heated", 100, cook=0)
    hands.do("rested", 200, cook=0, degc=160.0)
    return hands


@NOT_REFUSED
def test_a_probe_that_warms_up_is_left_out_and_the_true_readings_are_used(
    stocked: Workshop, first_degc: float
) -> None:
    hands = resting(stocked)
    for degc in (first_degc, 154.0, 152.5, 151.0):
        hands.do("reading", 20, cook=0, degc=degc, method="immersed_swirled")
    assert dots(hands) == {first_degc: True, 154.0: False, 152.5: False, 151.0: False}
    now = next(r for r in bench.view(hands.runs, "run", WREN).ribbons if r.subject == Subject("pot", 0)).now_degc
    assert now.likely == pytest.approx(151.0, abs=2.0)
    assert bench.view(hands.runs, "run", WREN) == bench.view(RunService(stocked), "run", WREN), (
        "told one by one, at once"
    )


def test_readings_told_one_by_one_come_to_the_same_as_at_once(stocked: Workshop) -> None:
    hands = resting(stocked)
    for degc, method in (
        (153.0, "immersed_swirled"),
        *((150.0 - i, "infrared") for i in range(3)),
        (145.0, "immersed_unswirled"),
    ):
        hands.do("reading", 20, cook=0, degc=degc, method=method)
        assert bench.view(hands.runs, "run", WREN) == bench.view(RunService(stocked), "run", WREN), (degc, method)


def test_a_doubtful_reading_is_taken_in_or_left_out_by_hand(stocked: Workshop) -> None:
    hands = resting(stocked)
    doubtful = hands.do("reading", 60, cook=0, degc=120.0, method="immersed_swirled")
    assert dots(hands) == {120.0: True}
    hands.do("judged", reading=doubtful, use=True)
    assert dots(hands) == {120.0: False}
    now = next(r for r in bench.view(hands.runs, "run", WREN).ribbons if r.subject == Subject("pot", 0)).now_degc
    assert now.likely == pytest.approx(120.0, abs=4.0)
    hands.do("judged", reading=doubtful, use=False)
    assert dots(hands) == {120.0: True}
    with pytest.raises(CoreError, match="no such reading"):
        hands.do("judged", reading="nobody", use=True)


def test_what_no_model_can_follow_is_kept_all_the_same(stocked: Workshop, monkeypatch: pytest.MonkeyPatch) -> None:
    hands = resting(stocked)

    def fails(*_: object) -> None:
        raise ZeroDivisionError

    monkeypatch.setattr(runs, "calibrations_of", fails)
    monkeypatch.setattr(
        "umber_pebble.core.bench.predict.fit_readings", lambda prior, rows, _: fails() if rows else Fit(prior)
    )
    hands.do("reading", 60, cook=0, degc=151.0, method="immersed_swirled")
    hands.do("ended", 60)
    assert dots(hands) == {151.0: True}
    assert [e.kind for e in hands.runs.look("run")[3]][-2:] == ["reading", "ended"]


@pytest.mark.parametrize(
    ("kind", "payload", "says"),
    [
        ("cancels", {"id": "run-started"}, "end the run"),
        ("cancels", {"id": "run-4"}, "done again"),
        ("cancels", {"id": "run-3"}, "already"),
        ("cancels", {"id": ["x"]}, "payload.id"),
        ("note", {"text": "x", "deep": {"a": {"b": {"c": {"d": {"e": 1}}}}}}, "nested"),
        ("note", {"text": "x", "many": [[0]] * 6000}, "nested"),
        ("note", {"text": "x", "huge": 10**400}, "large"),
        ("note", {"text": "bell \x07"}, "printed"),
        (
            "decanted",
            {"cook": 0, "into": [{"name": "a\nb", "holder": "bag", "spot": "air", "kg": 0.1}]},
            "one line",
        ),
    ],
)
def test_what_cannot_apply_is_refused_in_words(
    stocked: Workshop, kind: str, payload: dict[str, Any], says: str
) -> None:
    hands = resting(stocked)
    hands.do("cancels", 5, id="run-3")
    hands.do("rested", 5, cook=0, degc=160.0)
    before = len(hands.runs.look("run")[3])
    with pytest.raises(CoreError, match=says):
        hands.do(kind, **payload)
    assert len(hands.runs.look("run")[3]) == before


def test_a_microwave_bowl_is_not_put_on_as_a_pot(stocked: Workshop) -> None:
    current = stocked.get("order", "order")
    stocked.save(
        "order", "order", current.version, order(stocked, lines=[OrderLine(piece_id="piece-star", quantity=6)])
    )
    hands = Hands(stocked)
    with pytest.raises(CoreError, match="tell each burst"):
        hands.do("heated", 10, cook=0)
    hands.do("burst", 10, cook=0, seconds=30.0)
    assert bench.view(hands.runs, "run", WREN).ribbons[0].phase == "heating"


def test_a_time_without_its_zone_is_refused(stocked: Workshop) -> None:
    hands = resting(stocked)
    body = {"id": "n", "kind": "note", "payload": {"text": "x"}, "actor": WREN, "device": "t", "schema_version": 1}
    answer = (
        create_app(stocked)
        .test_client()
        .post("/api/runs/run/events", json=body | {"happened_at": "2031-05-02T14:00:00"})
    )
    assert answer.status_code == 422 and "zone" in answer.get_json()["title"]
    hands.do("note", text="goes on")


def older(workshop: Workshop, statement: str, **values: object) -> None:
    """Something as an older or newer version left it in the store."""
    with workshop.engine.begin() as connection:
        connection.execute(text(statement), values)


def test_what_an_older_version_took_is_set_aside_and_the_rest_is_shown(stocked: Workshop) -> None:
    hands = resting(stocked)
    older(stocked, "UPDATE event SET payload = '{\"cook\": 77}' WHERE kind = 'heated'")
    view = bench.view(RunService(stocked), "run", WREN)
    assert [(a.kind, "77" in a.why) for a in view.aside] == [("heated", True), ("rested", False)]
    again = RunService(stocked)
    again.add("run", NewEvent("once-more", "heated", {"cook": 0}, WREN, "t", None, 1))
    assert bench.view(again, "run", WREN).ribbons[0].phase == "heating"
    # and both go out and come back
    file = archive.export(stocked)
    archive.import_workshop(stocked, again, archive.WorkshopFile.model_validate_json(file))
    assert archive.export(stocked) == file and len(bench.view(again, "run", WREN).aside) == 2
    hands.do("ended")


def test_one_unreadable_thing_takes_nothing_down(stocked: Workshop) -> None:
    hands = resting(stocked)
    older(stocked, 'UPDATE revision SET doc = \'{"name": "Comet", "new": 1}\' WHERE thing_id = \'mould-lens\'')
    assert "mould-lens" not in [stored.id for stored in stocked.all("mould")]
    assert [(u.kind, u.name) for u in stocked.unread()] == [("mould", "Comet")]
    with pytest.raises(Unreadable, match="export"):
        stocked.get("mould", "mould-lens")
    file = archive.export(stocked)
    archive.import_workshop(stocked, hands.runs, archive.WorkshopFile.model_validate_json(file))
    assert archive.export(stocked) == file and [u.id for u in stocked.unread()] == ["mould-lens"]


def test_a_run_that_cannot_be_read_can_be_ended(stocked: Workshop) -> None:
    hands = resting(stocked)
    older(stocked, 'UPDATE run SET frozen = \'{"snapshot": {"new": 1}, "groups": []}\'')
    service = RunService(stocked)
    assert bench.view(service, "run", WREN).unread and bench.rail(service, WREN) is not None
    with pytest.raises(Unreadable):
        service.add("run", NewEvent("n", "poured", {"round": 0}, WREN, "t", None, 1))
    service.add("run", NewEvent("end", "ended", {}, WREN, "t", None, 1))
    assert bench.rail(service, WREN) is None and logbook.summaries(service) == []
    file = archive.export(stocked)
    archive.import_workshop(stocked, service, archive.WorkshopFile.model_validate_json(file))
    assert archive.export(stocked) == file
    hands.clock.drive(1, None)
    service.start("next", "order", WREN, "t")


@pytest.fixture
def changed(monkeypatch: pytest.MonkeyPatch) -> Iterator[None]:
    """Another version's tables: isomalt is denser and loses its heat at another pace."""
    melts = copy.deepcopy(load.table("melts"))
    for name in ("density_melt", "cp_melt"):
        for side in ("low", "value", "high"):
            melts["isomalt"][name][side] *= 1.25
    real = load.table
    load.materials.cache_clear()
    monkeypatch.setattr(load, "table", lambda file: melts if file == "melts" else real(file))
    monkeypatch.setattr("umber_pebble.services.kept.tables_mark", lambda: "another")
    yield
    monkeypatch.undo()
    load.materials.cache_clear()


def test_a_finished_run_shows_what_it_showed_that_night(stocked: Workshop, request: pytest.FixtureRequest) -> None:
    hands = resting(stocked)
    hands.do("reading", 60, cook=0, degc=152.0, method="immersed_swirled")
    hands.do("poured", 120, round=0)
    hands.do("unmoulded", 1500, round=0)
    hands.do("ended", 60)
    before = logbook.read(hands.runs, "run")
    assert before.coolings and not before.summary.recomputed
    request.getfixturevalue("changed")
    later = RunService(stocked)
    assert logbook.read(later, "run") == before and logbook.summaries(later) == [before.summary]
    # what came of it is told the next morning: that alone is new
    later.workshop.clock.drive(timedelta(hours=9).total_seconds(), None)
    later.add("run", NewEvent("o", "outcome", {"round": 0, "cavities": [0], "usable": False}, WREN, "t", None, 1))
    after = logbook.read(later, "run")
    assert after.coolings == before.coolings and after.vessels == before.vessels
    assert after.lines[0].unusable == before.lines[0].unusable + 1


def test_a_live_run_goes_on_by_the_values_it_was_started_with(
    stocked: Workshop, request: pytest.FixtureRequest
) -> None:
    hands = resting(stocked)
    hands.do("reading", 60, cook=0, degc=152.0, method="immersed_swirled")
    plan, before = plan_order(stocked, order(stocked)), bench.view(hands.runs, "run", WREN)
    request.getfixturevalue("changed")
    assert bench.view(RunService(stocked), "run", WREN) == before
    # the next run takes what is known by then
    assert plan_order(stocked, order(stocked)).fresh_kg("isomalt") != plan.fresh_kg("isomalt")


def test_a_run_of_before_is_marked_as_reckoned_anew(stocked: Workshop) -> None:
    hands = resting(stocked)
    hands.do("ended", 60)
    older(stocked, "UPDATE run SET shown = NULL")
    assert logbook.read(hands.runs, "run").summary.recomputed and logbook.summaries(hands.runs)[0].recomputed


def test_what_is_told_late_of_a_run_that_has_ended_is_in_its_log(stocked: Workshop) -> None:
    hands = resting(stocked)
    hands.do("ended", 600)
    before = stocked.clock.now() - timedelta(seconds=300)
    hands.runs.add("run", NewEvent("late", "paused", {}, WREN, "t", before, 1))
    assert logbook.read(hands.runs, "run").events == len(hands.runs.look("run")[3])


def test_what_has_an_id_that_is_none_is_refused_and_what_has_one_already_goes_out(stocked: Workshop) -> None:
    client = create_app(stocked).test_client()
    probe = {"name": "Long", "over_below_k_min": None, "under_above_k_min": None}
    refused = client.post("/api/probes/%00", json=probe)
    assert (refused.status_code, refused.get_json()["code"]) == (422, "out_of_range")
    with stocked.engine.begin() as connection:
        connection.execute(
            text("INSERT INTO thing (id, kind, version, gone) VALUES ('probe-\x01', 'probe', 1, 0)")
        )
        doc = {"made_at": "2031-05-02 13:00:00", "doc": "{}"}
        insert = "INSERT INTO revision (thing_id, version, made_at, doc) VALUES ('probe-\x01', 1, :made_at, :doc)"
        connection.execute(text(insert), doc)
    exported = client.get("/api/workshop")
    assert exported.status_code == 200 and "probe-" in str(exported.get_json()["unread_things"])


def test_a_pause_is_silent(stocked: Workshop) -> None:
    hands = resting(stocked)
    assert bench.view(hands.runs, "run", WREN).calls
    hands.do("paused", 5)
    assert bench.view(hands.runs, "run", WREN).calls == []
    hands.do("resumed", 5)
    assert bench.view(hands.runs, "run", WREN).calls


def test_a_thing_that_was_changed_meanwhile_is_not_removed(stocked: Workshop) -> None:
    stored = stocked.get("order", "order")
    doc = stored.doc.model_copy(update={"name": "Another night"})
    stocked.save("order", "order", stored.version, doc)
    with pytest.raises(Stale):
        stocked.remove("order", "order", stored.version)
    assert stocked.get("order", "order").doc == doc
