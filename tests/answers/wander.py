"""A hand that mostly does what the bench says, and now and then something else: seeded, so the same each time."""

import random
from pathlib import Path
from typing import Any

from tests.services.test_led import Hand, first
from umber_pebble.core.bench.act_kinds import End
from umber_pebble.core.bench.values import BOWL_SIGHTS, METHODS, SIGHTS, SPOTS
from umber_pebble.core.errors import CoreError
from umber_pebble.services import bench

SHARE_SAID = 0.6


class Wanderer(Hand):
    def __init__(self, folder: Path, order: str, seed: int) -> None:
        super().__init__(folder, order)
        self.pick = random.Random(seed)

    def wander(self) -> None:
        """One more event that is accepted."""
        while True:
            self.wait(self.pick.choice((0.0, 5.0, 20.0, 60.0)))
            view = bench.view(self.runs, "led", "Wren")
            act = first(view)
            try:
                if self.pick.random() < SHARE_SAID and not isinstance(act.what, End):
                    self.wait(min(act.opens_s - view.elapsed_s, 3600.0) + 1.0)
                    self.do(act)
                else:
                    kind, said = self._something(view)
                    self.tell(kind, **said)
            except CoreError:
                continue
            return

    def _something(self, view: bench.BenchView) -> tuple[str, dict[str, Any]]:
        ribbon = self.pick.choice(view.ribbons) if view.ribbons else None
        if ribbon is None:
            return "note", {"text": "nothing yet"}
        number, now = ribbon.subject.number, ribbon.now_degc
        degc = round(self.pick.choice((now.low, now.likely, now.high, now.likely - 8.0)), 1)
        reading = {"degc": degc, "method": self.pick.choice(METHODS)}
        match ribbon.subject.of:
            case "pot":
                return self.pick.choice(
                    [
                        ("reading", {"cook": number, **reading}),
                        ("reading", {"cook": number, **reading}),
                        ("rested", {"cook": number}),
                        ("heated", {"cook": number, "degc": degc}),
                        ("decanted", {"cook": number, "into": [self._bag()]}),
                        ("seen", {"cook": number, "what": self.pick.choice(BOWL_SIGHTS)}),
                        ("discarded", {"cook": number}),
                        ("burst", {"cook": number, "seconds": 10.0, "power_frac": 0.5}),
                        ("tempered", {"cook": number, "added_kg": 0.04}),
                        ("tempered", {"cook": number, "step": self.pick.choice(("through", "cool", "warm"))}),
                        ("tempered", {"cook": number, "smear": True}),
                        ("tempered", {"cook": number, "test": self.pick.choice(("well", "under", "over"))}),
                    ]
                )
            case "batch":
                return self.pick.choice(
                    [
                        ("reading", {"batch": number, **reading}),
                        ("moved", {"batch": number, "spot": self.pick.choice(SPOTS)}),
                        ("heated", {"batch": number, "seconds": 3.0}),
                        ("poured", {"batch": number, "kg": 0.004}),
                        ("decanted", {"batch": number, "into": [self._bag()]}),
                        ("merged", {"batch": number}),
                        (
                            "coloured",
                            {"batch": number, "colour": "#a01020", "kind": self.pick.choice(("oil", "water"))},
                        ),
                    ]
                )
            case _:
                return self.pick.choice(
                    [
                        ("reading", {"round": number, **reading}),
                        ("seen", {"round": number, "what": self.pick.choice(SIGHTS)}),
                        ("moved", {"round": number, "place": self.pick.choice(list(view.places))}),
                        ("unmoulded", {"round": number}),
                        ("cancels", {"id": view.last.id if view.last else ""}),
                        ("short", {"round": number, "filled": 2}),
                        ("outcome", {"round": number, "cavities": [0], "usable": False, "kinds": ["broken"]}),
                    ]
                )

    def _bag(self) -> dict[str, Any]:
        bag = {"name": f"Bag {self.count}", "kg": self.pick.choice((0.01, 0.03)), "spot": self.pick.choice(SPOTS)}
        return bag | {"holder": self.pick.choice(("bag", "jug", "silicone_cup")), "tip_m": 0.003}
