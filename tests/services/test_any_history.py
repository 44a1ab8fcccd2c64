"""Whatever is sent to a run, in whatever order: what is accepted never breaks a view, and all of it goes out and comes back."""

import os
from datetime import timedelta
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from hypothesis import HealthCheck, Phase, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, precondition, rule

from tests.conftest import START
from tests.services.test_runs import WREN, order
from umber_pebble.api import run_schemas
from umber_pebble.config import Config
from umber_pebble.core.bench.values import BOWL_SIGHTS, METHODS, SIGHTS
from umber_pebble.core.errors import CoreError
from umber_pebble.demo.fill import KITCHEN
from umber_pebble.demo.moulds import MOULDS
from umber_pebble.demo.pieces import PIECES
from umber_pebble.services import archive, bench, cards, exchange, logbook
from umber_pebble.services.clock import DrivenClock
from umber_pebble.services.documents import OrderLine
from umber_pebble.services.new_event import NewEvent
from umber_pebble.services.runs import RunService
from umber_pebble.services.start import open_workshop
from umber_pebble.services.told import KINDS

STEPS = int(os.environ.get("HISTORY_STEPS", "300"))
EACH = 60
TEMPS = st.sampled_from(
    [-30.0, -5.0, 0.0, 18.0, 28.0, 31.5, 45.0, 60.0, 100.0, 132.0, 149.0, 150.0, 160.0, 175.0, 220.0]
)
NUMBERS = st.one_of(st.integers(0, 3), st.sampled_from([-1, 7, 10**9, 1.5, True, None, "0", [], {}]))
FIELDS: dict[str, st.SearchStrategy[Any]] = {
    "cook": NUMBERS,
    "round": NUMBERS,
    "batch": NUMBERS,
    "step": NUMBERS,
    "degc": TEMPS,
    "method": st.sampled_from([*METHODS, "guess"]),
    "seconds": st.sampled_from([1.0, 10.0, 30.0, 300.0, -1.0, float("inf")]),
    "power_frac": st.sampled_from([0.5, 1.0, 0.0]),
    "what": st.sampled_from([*SIGHTS, *BOWL_SIGHTS, "?"]),
    "place": st.sampled_from(["bench", "fridge", "freezer", "nowhere", ["bench"]]),
    "spot": st.sampled_from(["air", "towel", "bath", "counter", "hand", "moon"]),
    "kg": st.sampled_from([0.0, 0.004, 0.05, 5.0]),
    "cavities": st.sampled_from([[0], [0, 1, 2], [], [99], "all"]),
    "usable": st.sampled_from([True, False, None]),
    "kinds": st.sampled_from([[], ["broken"], ["not filled"], ["odd"]]),
    "filled": NUMBERS,
    "use": st.booleans(),
    "text": st.sampled_from(["fine", "=1+1", "a\nb", "\x07", "x" * 600, "Łucja żółć"]),
    "colour": st.sampled_from(["#a01020", "red", None]),
    "kind": st.sampled_from(["oil", "water", "powder"]),
    "left_kg": st.sampled_from([{}, {"pot-heavy": 0.05}, {"bowl": -1}, {"x": 1}]),
    "into": st.sampled_from(
        [
            [{"name": "bag", "holder": "piping_bag", "kg": 0.02, "spot": "counter", "colour": None}],
            [{"name": "bag\n2", "holder": "piping_bag", "kg": 0.02, "spot": "counter"}],
            [{}],
            1,
            [],
        ]
    ),
    "rounds": st.sampled_from([[[0, 2]], [[1, 3], [0, 1]], [[0, 0]], [[99, 1]], "all"]),
    "said": st.sampled_from(["well", "under", "over"]),
    "first": st.booleans(),
}
OF_KIND = {
    "heated": ("cook", "degc"),
    "burst": ("cook", "seconds", "power_frac"),
    "rested": ("cook", "degc"),
    "reading": ("cook", "degc", "method"),
    "seen": ("cook", "what"),
    "poured": ("round",),
    "moved": ("round", "place"),
    "outcome": ("round", "cavities", "usable", "kinds"),
    "decanted": ("cook", "into"),
    "short": ("round", "filled"),
    "replanned": ("rounds",),
    "note": ("text",),
    "discarded": ("cook",),
    "unmoulded": ("round",),
    "bent": ("round",),
    "inserted": ("round", "first"),
    "flipped": ("round",),
    "coloured": ("batch", "colour", "kind"),
}


def deep(levels: int) -> Any:
    out: Any = 1
    for _ in range(levels):
        out = {"a": [out]}
    return out


class AnyHistory(RuleBasedStateMachine):
    """Hands that do what the bench says, and hands that do anything."""

    @initialize()
    def begin(self) -> None:
        self.folder = TemporaryDirectory()
        self.workshop = open_workshop(Config(Path(self.folder.name) / "a", driven_clock=True))
        self.clock = self.workshop.clock = DrivenClock(START)
        kitchen = self.workshop.get("kitchen", "kitchen")
        self.workshop.save("kitchen", "kitchen", kitchen.version, KITCHEN)
        for kind, things in (("mould", MOULDS), ("piece", PIECES)):
            for key, doc in things.items():
                self.workshop.create(kind, key, doc)
        lines = [OrderLine(piece_id="piece-disc", quantity=9), OrderLine(piece_id="piece-star", quantity=6)]
        self.workshop.create("order", "order", order(self.workshop, lines=lines))
        self.runs, self.count, self.ids, self.new = RunService(self.workshop), 0, ["run-started"], True
        self.runs.start("run", "order", WREN, "test")
        self.send("acknowledged", {})

    def send(self, kind: str, payload: dict[str, Any], ago_s: float = 0.0, device: str = "test") -> None:
        self.count += 1
        event = NewEvent(
            f"e{self.count}", kind, payload, WREN, device, self.clock.now() - timedelta(seconds=ago_s), 1
        )
        try:
            self.runs.add("run", event)
        except CoreError:
            return
        self.ids.append(event.id)
        self.new = True

    @rule(data=st.data(), wait_s=st.sampled_from([0.0, 20.0, 200.0]))
    def what_the_bench_says(self, data: st.DataObject, wait_s: float) -> None:
        acts = [a for a in bench.view(self.runs, "run", WREN).acts if a.tells]
        if acts:
            act = data.draw(st.sampled_from(acts[:4]))
            ahead = act.opens_s - bench.view(self.runs, "run", WREN).elapsed_s
            self.clock.drive(max(min(ahead, 3600.0), 0.0) + wait_s, None)
            self.send(act.tells.kind, act.tells.payload)

    @rule(
        data=st.data(),
        kind=st.sampled_from(sorted(OF_KIND)),
        ago_s=st.sampled_from([0.0, 0.0, 30.0, 5000.0]),
        odd=st.sets(st.sampled_from(sorted(FIELDS)), max_size=2),
    )
    def anything(self, data: st.DataObject, kind: str, ago_s: float, odd: set[str]) -> None:
        self.clock.drive(data.draw(st.sampled_from([0.0, 5.0, 90.0])), None)
        self.send(kind, {name: data.draw(FIELDS[name]) for name in [*OF_KIND[kind], *sorted(odd)]}, ago_s)

    @rule(
        data=st.data(),
        kind=st.sampled_from([k for k in KINDS if k != "ended"]),
        device=st.sampled_from(["probe my probe", "probe  ", "x"]),
    )
    def hostile(self, data: st.DataObject, kind: str, device: str) -> None:
        names = data.draw(st.sets(st.sampled_from(sorted(FIELDS)), max_size=5))
        payload = {name: data.draw(FIELDS[name]) for name in sorted(names)}
        extra = data.draw(
            st.sampled_from([{}, {"x": deep(3)}, {"x": deep(80)}, {"x": 10**300}, {"x": ["y"] * 9000}])
        )
        self.send(kind, payload | extra, device=device)

    @rule(data=st.data())
    def taken_back(self, data: st.DataObject) -> None:
        self.send("cancels", {"id": data.draw(st.sampled_from([*self.ids, "nobody"]))})

    @precondition(lambda self: getattr(self, "count", 0) > EACH / 2)
    @rule(left=FIELDS["left_kg"])
    def the_end(self, left: Any) -> None:
        self.send("ended", {"left_kg": left})

    @invariant()
    def every_view_answers(self) -> None:
        if not getattr(self, "new", False):
            return
        self.new = False
        view = bench.view(self.runs, "run", WREN)
        assert run_schemas.Bench.model_validate(
            {"view": view}, from_attributes=True, strict=False
        ).model_dump_json()
        assert not view.aside and not view.unread, (view.aside, self.runs.look("run")[3][-1].kind)
        log = logbook.read(self.runs, "run")
        assert log.events == len(self.ids) and log.summary in logbook.summaries(self.runs)
        assert cards.run_cards(self.runs, "run") is not None
        readings = exchange.readings_out(self.runs, "run")
        events = self.runs.look("run")[3]
        gone = {e.payload["id"] for e in events if e.kind == "cancels"}
        assert readings.count("\r\n") - 1 == sum(e.kind == "reading" and e.id not in gone for e in events)

    def teardown(self) -> None:
        if not hasattr(self, "runs"):
            return
        self.goes_out_and_comes_back()
        if bench.view(self.runs, "run", WREN).ended is False:
            self.send("ended", {})
            assert bench.view(self.runs, "run", WREN).ended
        self.workshop.engine.dispose()
        self.folder.cleanup()

    def goes_out_and_comes_back(self) -> None:
        text = archive.export(self.workshop)
        other = open_workshop(Config(Path(self.folder.name) / "b", driven_clock=True))
        other.clock = self.clock
        archive.import_workshop(other, RunService(other), archive.WorkshopFile.model_validate_json(text))
        assert archive.export(other) == text
        assert bench.view(RunService(other), "run", WREN) == bench.view(self.runs, "run", WREN)
        other.engine.dispose()


AnyHistory.TestCase.settings = settings(
    max_examples=max(STEPS // EACH, 1),
    stateful_step_count=EACH,
    deadline=None,
    derandomize=STEPS <= 300,
    database=None,
    suppress_health_check=list(HealthCheck),
    print_blob=False,
    phases=[Phase.generate],
)
TestAnyHistory = AnyHistory.TestCase
