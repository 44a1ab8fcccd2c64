"""What is asked of the demo workshop: every screen's figures, plans, papers, and a run led to its end."""

from typing import Any

Question = tuple[str, str, Any]
WITH_WATER = {"isomalt": 0.02, "cooked_sugar": 0.025}


def _heat() -> list[Question]:
    def stays(place: str, care: str = "none") -> list[dict[str, Any]]:
        return [{"from_s": 0.0, "place_id": place, "care": care}]

    two = [*stays("bench"), {"from_s": 300.0, "place_id": "fridge", "care": "none"}]
    bare = {
        "temper": "tempered",
        "water_frac": None,
        "piece_id": None,
        "shape": "plate",
        "thickness_m": 0.006,
        "mould": "silicone",
        "wall_m": 0.003,
        "pour_degc": None,
        "first": None,
        "bend": None,
    }
    out: list[Question] = []
    for melt, water in [
        (m, WITH_WATER.get(m)) for m in ("isomalt", "coating", "milk", "dark", "white", "cooked_sugar")
    ]:
        places = ["bench", "slab"] if water else ["bench", "fridge", "freezer"]
        ask = {**bare, "material": melt, "water_frac": water, "ways": [stays(p) for p in places]}
        out.append((f"heat {melt}", "/api/figures/heat", ask))
    more = {
        "rod bent": {
            "material": "isomalt",
            "shape": "rod",
            "ways": [stays("bench")],
            "bend": {"radius_m": 0.05, "over_s": 4.0},
        },
        "ball": {
            "material": "coating",
            "shape": "ball",
            "thickness_m": 0.03,
            "ways": [stays("fridge", "wrapped"), two],
        },
        "untempered": {"material": "dark", "temper": "unseeded", "ways": [stays("fridge")]},
        "on a first pass": {
            "material": "coating",
            "ways": [stays("bench")],
            "first": {"material": "coating", "thickness_m": 0.003, "degc": 24.0},
        },
        "of a piece": {
            "material": "coating",
            "piece_id": "piece-moon",
            "ways": [stays("fridge"), stays("freezer", "hand")],
        },
        "hot": {"material": "isomalt", "pour_degc": 150.0, "thickness_m": 0.012, "ways": [stays("fan")]},
    }
    return out + [(f"heat {name}", "/api/figures/heat", {**bare, **ask}) for name, ask in more.items()]


def _melt() -> list[Question]:
    burst = {"oven_id": "microwave", "wafer_m": 0.008, "power": "full", "stop": "lumps"}
    out: list[Question] = [
        (
            f"bursts {melt} {vessel} {kg}",
            "/api/figures/bursts",
            {**burst, **more, "material": melt, "vessel_id": vessel, "melt_kg": kg, "melt_to_degc": to},
        )
        for melt, vessel, kg, to, more in (
            ("coating", "bowl", 0.3, 42.0, {}),
            ("dark", "glass-bowl", 0.5, 48.0, {"stop": "through"}),
            ("milk", "bowl", 0.15, 44.0, {"power": "half", "wafer_m": 0.012}),
            ("isomalt", "glass-bowl", 0.2, 150.0, {}),
        )
    ]
    cook = {
        "vessel_id": "pot-heavy",
        "ring_id": "ring-left",
        "sugar_kg": 0.5,
        "water_kg": None,
        "cook_degc": 167.0,
        "crystalline": True,
        "before": 0,
        "white_frac": 0.0,
        "thickness_m": 0.006,
    }
    for name, more in {
        "crystals": {"material": "isomalt"},
        "with water": {"material": "isomalt", "water_kg": 0.06},
        "nibs": {"material": "isomalt", "crystalline": False},
        "again": {"material": "isomalt", "before": 2},
        "sugar": {"material": "cooked_sugar", "cook_degc": 155.0, "water_kg": 0.2, "ring_id": "ring-right"},
        "white": {"material": "isomalt", "white_frac": 0.002},
    }.items():
        out.append((f"cook {name}", "/api/figures/cook", {**cook, **more}))
    caramel = {"vessel_id": "pot-heavy", "ring_id": "ring-left", "sugar_kg": 0.2, "off_degc": 175.0}
    out.append(("caramel", "/api/figures/caramel", caramel))
    power = {"water_kg": 0.5, "from_degc": 15.0, "to_degc": 45.0, "seconds": 60.0, "vessel_kg": 0.3}
    out.append(("power", "/api/figures/power", power))
    dip = {
        "material": "coating",
        "melt_kg": 0.6,
        "melt_degc": 42.0,
        "diameter_m": 0.1,
        "count": 24,
        "centre_kg": 0.012,
        "centre_degc": 4.0,
        "depth_m": 0.03,
        "width_m": 0.03,
        "seconds": 4.0,
    }
    out += [
        (f"dip {m}", "/api/figures/dip", {**dip, "material": m, "melt_degc": d})
        for m, d in (("coating", 42.0), ("dark", 32.0))
    ]
    out.append(("dip too few", "/api/figures/dip", {**dip, "melt_kg": 0.2, "centre_degc": None, "count": 60}))
    fluid = {"material": "coating", "by": "spoon", "kg": 0.02, "wide_m": 0.06, "area_m2": 0.01}
    out += [
        ("fluid spoon", "/api/figures/fluid", fluid),
        ("fluid plate", "/api/figures/fluid", {**fluid, "by": "plate", "material": "dark"}),
    ]
    seed = {
        "vessel_id": "glass-bowl",
        "melt_kg": 0.5,
        "melt_degc": 45.0,
        "seed_degc": 21.0,
        "through": True,
        "seeded_degc": None,
        "added_kg": None,
        "read_degc": None,
    }
    for melt, more in (
        ("dark", {}),
        ("milk", {"through": False}),
        ("white", {"melt_degc": 40.0}),
        ("dark", {"seeded_degc": 45.0, "added_kg": 0.1, "read_degc": 34.0}),
        ("dark", {"melt_degc": 31.5}),
    ):
        out.append((f"seed {melt} {sorted(more)}", "/api/figures/seed", {**seed, **more, "material": melt}))
    falls = [
        34 - 0.2 * i if i < 50 else 24 - 0.02 * (i - 50) if i < 80 else 23.4 - 0.1 * (i - 80) for i in range(110)
    ]
    curve = "time,temperature,unit\n" + "".join(f"{i * 10},{degc:.2f},C\n" for i, degc in enumerate(falls))
    out.append(("curve", "/api/figures/curve", {"csv": curve, "probe_id": None}))
    return out


def _hand() -> list[Question]:
    hand = {
        "material": "coating",
        "nozzle": "no_3",
        "lines_m": 3.0,
        "dollops": 20,
        "dollop_m": 0.015,
        "seam_m": 0.8,
        "gap_m": 0.001,
        "deep_m": 0.002,
        "ball_m": 0.06,
        "wall_m": 0.004,
        "dipped": 12,
        "dip_m": 0.03,
        "high_m": 0.03,
        "mixture": "ganache",
        "mixed_kg": 0.4,
        "at_hand_kg": None,
        "first_frac": None,
    }
    return [
        ("by hand coating", "/api/figures/hand", hand),
        ("by hand milk", "/api/figures/hand", {**hand, "material": "milk", "mixture": "cake", "first_frac": 0.8}),
        (
            "by hand dark",
            "/api/figures/hand",
            {**hand, "material": "dark", "nozzle": "no_5", "mixture": "ganache_white"},
        ),
    ]


def _colour(colours: list[tuple[str, Any]]) -> list[Question]:
    in_sugar, in_fat = ([key for key, doc in colours if doc["kind"] != no] for no in ("oil", "water"))
    recipe = {
        "base": "clear_isomalt",
        "batch_kg": 0.5,
        "wanted": "#2f6fb0",
        "thicknesses_m": [0.006],
        "on_white": True,
        "colour_ids": in_sugar,
        "already": [],
    }
    out: list[Question] = [
        (f"colour {name}", "/api/figures/colour", {**recipe, **more})
        for name, more in {
            "blue": {},
            "red": {"wanted": "#a01c2c"},
            "thick and thin": {"thicknesses_m": [0.003, 0.012]},
            "coating": {"base": "bright_coating", "wanted": "#e79ab0", "colour_ids": in_fat},
            "black": {"wanted": "#141214", "base": "dark_coating", "colour_ids": in_fat},
            "started": {"already": [{"colour_id": in_sugar[0], "grams": 0.2}]},
            "parts": {"colour_ids": in_fat},
        }.items()
    ]
    patch = {"base": "clear_isomalt", "thickness_m": 0.005}
    return out + [(f"patches {c}", "/api/figures/patches", {**patch, "colour_id": c}) for c in in_sugar[:3]]


SQUARE = (
    "<svg xmlns='http://www.w3.org/2000/svg' width='30mm' height='20mm'><rect width='30mm' height='20mm'/></svg>"
)


def _limits(asked: list[Question]) -> list[Question]:
    """One of each kind again with each of its figures far too large and far too small: the answer says what may be."""
    out, known = list[Question](), set[str]()
    for _, address, body in asked:
        if address not in known:
            known.add(address)
            figures = [key for key, value in body.items() if isinstance(value, float | int) and value is not True]
            out += [
                (f"limits {address.split('/')[-1]} {key} {far:g}", address, {**body, key: far})
                for key in figures
                for far in (1e7, -1e5, 1e-9)
            ]
    return out


def questions(get: Any, post: Any) -> list[Question]:
    """Name, address, and body (None: it is read); of the things the workshop has."""

    def things(kind: str) -> list[tuple[str, Any]]:
        return [(t["id"], t["doc"]) for t in get(f"/api/{kind}").get_json()["items"]]

    out = [*_heat(), *_melt(), *_hand(), *_colour(things("colours"))]
    out += _limits(out)
    for key, order in things("orders"):
        # all of its lines are other orders' too
        if key == "order-sky":
            continue
        out.append((f"plan {key}", "/api/figures/plan", order))
        glance = post("/api/figures/plan", json=order).get_json()["glance"]
        of = {"order": order, "planned_at": glance["planned_at"]}
        out += [
            (f"plan {key} {part}", f"/api/figures/plan/{part}", of) for part in ("windows", "cards", "timetable")
        ]
        for row in glance["summary"]["melts"]:
            out.append((f"plan {key} {row['melt']}", "/api/figures/plan/melt", {**of, "melt": row["melt"]}))
        out.append((f"timetable {key}", f"/api/orders/{key}/timetable.ics", None))
        out.append((f"melt list {key}", f"/api/orders/{key}/melt-list.pdf", None))
        out.append((f"pour list {key}", f"/api/orders/{key}/pour-list.pdf", None))
    for key, piece in things("pieces"):
        for i, part in enumerate(piece["parts"]):
            base = {name: part[name] for name in ("mould_id", "cavity", "body")}
            out.append((f"base {key} {i}", "/api/figures/base", {**base, "cut_frac": 0.1}))
            out.append((f"part {key} {i}", "/api/figures/part", {"part": part, "cut_frac": 0.1}))
            out.append((f"sets {key} {i}", "/api/figures/sets", {"part": part}))
            out.append(
                (
                    f"weight {key} {i}",
                    "/api/figures/pass",
                    {
                        "part": part,
                        "index": 0,
                        "finished_kg": 0.004,
                        "volume_m3": None,
                    },
                )
            )
        out.append((f"assembly {key}", "/api/figures/assembly", {"piece": piece}))
    for key, mould in things("moulds"):
        for i, cavity in enumerate(mould["cavities"]):
            out.append(
                (f"cavity {key} {i}", "/api/figures/cavity", {"cavity": cavity, "wall_m": 0.002, "cut_frac": 0.0})
            )
    out.append(("outline", "/api/figures/outline", {"svg": SQUARE, "width_m": None}))
    for key, palette in things("palettes"):
        out.append((f"palette {key}", "/api/figures/palette", palette))
        out.append((f"palette file {key}", f"/api/palettes/{key}/palette.gpl", None))
    out += [(name, f"/api/{name}", None) for name in ("choices", "properties", "words", "log", "sources")]
    return out + [
        (f"log {run['id']}", f"/api/log/{run['id']}", None) for run in get("/api/log").get_json()["items"]
    ]
