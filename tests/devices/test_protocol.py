"""The probe's line protocol, the judgement of its values, and the stand-in's lag and faults."""

import json
import threading
from http.server import BaseHTTPRequestHandler, HTTPServer

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from umber_pebble.core.bench.probe import Value, judged
from umber_pebble.devices.protocol import (
    Channel,
    Follow,
    Greeting,
    Lost,
    Message,
    NotUnderstood,
    Temp,
    read,
    write,
)
from umber_pebble.devices.simulator import Simulated, Simulator, true_degc

IDS = st.from_regex(r"\A[A-Za-z0-9_-]{1,20}\Z")
NAMES = st.from_regex(r"\A[A-Za-z]{1,10}( [A-Za-z]{1,10})?\Z")
MESSAGES: st.SearchStrategy[Message] = st.one_of(
    st.builds(Greeting, NAMES),
    st.builds(Channel, IDS, st.sampled_from(["immersed", "infrared"]), NAMES),
    st.builds(Temp, IDS, st.floats(-500, 5000).map(lambda v: round(v, 2) + 0.0)),
    st.builds(Lost, IDS),
    st.builds(Follow, IDS, st.sampled_from(["cook", "round"]), st.integers(0, 999)),
)


@settings(max_examples=200)
@given(MESSAGES)
def test_what_is_written_is_read_again(message: Message) -> None:
    assert read(write(message) + "\n") == message
    assert read("follow a nothing") == Follow("a", None, 0)


@pytest.mark.parametrize(
    "line",
    [
        "",
        "temp",
        "temp a hot",
        "temp a nan",
        "temp a 1e9",
        "temp a b 3",
        "probe 2 New",
        "channel a rectal Long",
        "lost",
        "follow a cook 0",
        "follow a sink 1",
        "temp " + "a" * 300 + " 3",
        "\x00\x01",
        "temp a 12.5.1",
        "GET / HTTP/1.1",
    ],
)
def test_other_lines_are_not_understood(line: str) -> None:
    with pytest.raises(NotUnderstood):
        read(line)


def values(*degc: float) -> list[Value]:
    return [Value(float(i), float(i), v) for i, v in enumerate(degc)]


@pytest.mark.parametrize(
    ("seen", "now", "state"),
    [
        ([], 0.0, "waiting"),
        (values(150.0, 149.5), 1.5, "ok"),
        (values(150.0, 149.5), 12.0, "old"),
        (values(150.0, 500.0), 1.5, "out_of_range"),
        (values(150.0, -60.0), 1.5, "out_of_range"),
        (values(150.0, 121.0), 1.5, "jumping"),
        (values(150.0, 190.0, 190.0), 2.5, "jumping"),  # as steady as it may be where it jumped to
        (values(150.0, 190.0, *[190.0 + i / 9 for i in range(12)]), 13.5, "ok"),
        (values(*[150.0] * 30), 29.5, "stuck"),
        (values(*[21.0] * 30), 29.5, "ok"),  # cold in a cold room, it may well stay where it is
        (values(*[150.0] * 29, 149.9), 29.5, "ok"),
    ],
)
def test_what_a_probe_says_is_judged(seen: list[Value], now: float, state: str) -> None:
    assert judged(seen, now, -60.0, 21.0) == state


def test_a_probe_just_put_in_settles_first() -> None:
    assert judged(values(150.0, 149.5), 1.5, -5.0, 21.0) == "settling"


def test_the_stand_in_lags_as_its_time_constant_says_and_sticks_when_told() -> None:
    probe = Simulated(Channel("a", "immersed", "Long"), Follow("a", "cook", 0), shown_degc=20.0)
    after = probe.next_degc(120.0, 20.0, 4.0)
    assert after == pytest.approx(20 + 100 * (1 - 0.3679), abs=1.5)  # one time constant
    probe.fault = "stuck"
    assert len({probe.next_degc(120.0, 20.0, 1.0) for _ in range(5)}) == 1


def test_the_stand_in_follows_its_own_slower_pot() -> None:
    curve = {"times_s": [100.0, 200.0], "likely_degc": [160.0, 140.0]}
    view = {"elapsed_s": 200.0, "ribbons": [{"subject": {"of": "pot", "number": 0}, "predicted": curve}]}
    assert true_degc(view, Follow("a", "cook", 0)) == pytest.approx(160 - 0.93 * 20)
    assert true_degc(view, Follow("a", "round", 0)) is None
    assert true_degc(None, Follow("a", "cook", 0)) is None


def test_a_pot_is_no_colder_because_the_app_is_slow_to_answer() -> None:
    class Bench(BaseHTTPRequestHandler):
        answers = ('{"view": {"elapsed_s": 5.0}}', "busy", '{"view": null}')

        def do_GET(self) -> None:
            self.send_response(200)
            self.end_headers()
            self.wfile.write(self.answers[asked.pop(0)].encode())

        def log_message(self, format: str, *args: object) -> None:
            pass

    asked = [0, 1, 2]
    app = HTTPServer(("127.0.0.1", 0), Bench)
    threading.Thread(target=app.serve_forever, daemon=True).start()
    stand_in = Simulator(f"http://127.0.0.1:{app.server_port}", 0, 1.0, [])
    seen = [stand_in._look() for _ in Bench.answers]
    app.shutdown()
    assert seen == [json.loads(Bench.answers[0])["view"], {"elapsed_s": 5.0}, None]
