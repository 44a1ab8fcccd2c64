"""Pieces as they are edited: weights typed, older documents, what cannot be, and what comes of putting them together."""

from dataclasses import asdict
from pathlib import Path
from typing import Any

import pytest

from tests.plans import plan_order
from umber_pebble.config import Config
from umber_pebble.core.errors import Missing, OutOfRange
from umber_pebble.core.plan.melted import melted
from umber_pebble.core.plan.summary import summary_of
from umber_pebble.demo.fill import fill
from umber_pebble.demo.pieces import PIECES
from umber_pebble.services.assembly import AssemblyRequest, assembly
from umber_pebble.services.documents import Colour, Order, OrderLine
from umber_pebble.services.errors import NotFound
from umber_pebble.services.piece_docs import Part, Piece
from umber_pebble.services.pieces import PartRequest, WeightRequest, part_figures, solve_pass
from umber_pebble.services.setting import SettingRequest, part_sets
from umber_pebble.services.start import open_workshop
from umber_pebble.services.workshop import Workshop


@pytest.fixture(scope="module")
def workshop(tmp_path_factory: pytest.TempPathFactory) -> Workshop:
    config = Config(tmp_path_factory.mktemp("pieces"), driven_clock=True)
    fill(config)
    return open_workshop(config)


def part(piece: str, index: int = 0) -> Part:
    return PIECES[piece].parts[index]


def with_passes(of: Part, *passes: dict[str, Any]) -> Part:
    return Part.model_validate({**of.model_dump(), "passes": list(passes)}, strict=False)


def test_every_demo_piece_is_laid_without_a_fault_and_weighs_what_its_passes_do(workshop: Workshop) -> None:
    for key, piece in PIECES.items():
        for of in piece.parts:
            figures = part_figures(workshop, PartRequest(part=of, cut_frac=0.3))
            assert figures.faults == [], key
            inside = sum(getattr(one, "inside_kg", 0.0) for one in of.passes)
            rows = sum(row.finished.value.likely for row in figures.rows)
            assert figures.finished.value.likely == pytest.approx(rows + inside)
            sets = part_sets(workshop, SettingRequest(part=of))
            assert [row.index for row in sets.rows] == [row.index for row in figures.rows if row.melted]
            assert all(row.sets.likely > 0 and row.place for row in sets.rows)
            # the bar of a round goes on without a gap, and hands are no longer than it
            ends = [0.0] + [s.to_s for s in sets.stretches]
            assert [s.from_s for s in sets.stretches] == pytest.approx(ends[:-1])
            assert sets.hands_s <= ends[-1] + 1e-6


@pytest.mark.parametrize(
    ("piece", "index"),
    [
        ("piece-disc", 0),
        ("piece-pop", 0),
        ("piece-pop", 1),
        ("piece-pop", 3),
        ("piece-filled", 1),
        ("piece-berry", 0),
    ],
)
@pytest.mark.parametrize("by", ["finished_kg", "volume_m3"])
def test_a_weight_that_is_typed_is_what_is_weighed(workshop: Workshop, piece: str, index: int, by: str) -> None:
    of = part(piece)
    row = next(r for r in part_figures(workshop, PartRequest(part=of, cut_frac=0.0)).rows if r.index == index)
    wanted = 0.8 * (row.finished.value.likely if by == "finished_kg" else row.volume_m3)
    asked = {"part": of, "index": index, "finished_kg": None, "volume_m3": None, by: wanted}
    value = solve_pass(workshop, WeightRequest.model_validate(asked, strict=False))
    name = {"fill": "level_m", "filling": "gap_m"}.get(of.passes[index].kind, "thick_m")
    doc = of.model_dump()
    doc["passes"][index] |= {name: value}
    again = part_figures(workshop, PartRequest(part=Part.model_validate(doc, strict=False), cut_frac=0.0))
    found = next(r for r in again.rows if r.index == index)
    assert (found.finished.value.likely if by == "finished_kg" else found.volume_m3) == pytest.approx(
        wanted, rel=2e-3
    )
    with pytest.raises(OutOfRange, match="not so much room"):
        solve_pass(workshop, WeightRequest.model_validate({**asked, by: 4.9}, strict=False))
    with pytest.raises(Missing, match="its weight or volume"):
        solve_pass(workshop, WeightRequest.model_validate({**asked, by: None}, strict=False))


# As 0.4.0 and 0.5.0 stored them.
def test_pieces_of_older_versions_open(workshop: Workshop) -> None:
    solid = {
        "name": "Old disc",
        "material": "isomalt",
        "mould_id": "mould-disc",
        "cavity": 0,
        "fill_m": 0.004,
        "work": "bend",
        "stick": None,
    }
    piece = Piece.model_validate(solid, strict=False)
    assert (piece.joins, piece.stand, piece.parts[0].bent, piece.parts[0].body) == ([], None, True, None)
    melt = {"material": "coating", "colour": None}
    built = {
        "name": "Old pop",
        "parts": [
            {
                "name": "Old pop",
                "count": 1,
                "mould_id": "mould-pop",
                "cavity": 0,
                "bent": False,
                "stays": [],
                "passes": [
                    {"kind": "detail", "name": "Cap", "melt": melt, "share_frac": 0.2, "thick_m": 0.001},
                    {"kind": "shell", "melt": melt, "thick_m": 0.0015, "emptied": True, "sides": False},
                    {"kind": "stick", "diameter_m": 0.004, "inside_m": 0.03, "taken_out": False},
                ],
            }
        ],
    }
    [of] = Piece.model_validate(built, strict=False).parts
    assert of.seen == "mould"
    for told, use in (
        ({}, "stays"),
        ({"reseated": True}, "reseated"),
        ({"taken_out": True, "reseated": True}, "hole"),
    ):
        stick = {"kind": "stick", "diameter_m": 0.004, "inside_m": 0.03, "taken_out": False, **told}
        [read] = with_passes(of, stick).passes
        assert getattr(read, "use", None) == use
    figures = part_figures(workshop, PartRequest(part=of, cut_frac=0.0))
    assert figures.faults == []
    keeps = part_sets(workshop, SettingRequest(part=of)).rows[1].keeps
    # it stood for no time at all, so all there is is a film
    assert keeps is not None and keeps.skin.likely == 0.0 and keeps.film.likely > 0
    told = PIECES["piece-nebula"].parts[0].model_dump(mode="json")
    told["passes"][0]["others"] = [{"melt": told["passes"][0]["others"][0]["melt"], "frac": 0.25}]
    assert Part.model_validate(told, strict=False) == PIECES["piece-nebula"].parts[0]
    body = PIECES["piece-berry"].parts[0].body
    with pytest.raises(ValueError, match="give one of them"):
        Part.model_validate({**of.model_dump(), "mould_id": "mould-disc", "body": body}, strict=False)
    with pytest.raises(ValueError):
        Part.model_validate({**of.model_dump(), "passes": [{"kind": ["shell"]}]}, strict=False)


def test_colours_of_the_wrong_kind_are_told_at_their_pass(workshop: Workshop) -> None:
    of = part("piece-pop")

    def told() -> list[tuple[int, str]]:
        figures = part_figures(workshop, PartRequest(part=of, cut_frac=0.0))
        return [(f.index, f.code) for f in figures.faults]

    assert told() == []
    kept = {s.id: (s.version, s.doc) for s in workshop.all("colour")}
    for key, (version, doc) in kept.items():
        assert isinstance(doc, Colour)
        if doc.kind == "oil":
            workshop.remove("colour", key, version)
    try:
        assert told() == [(0, "wrong_colour"), (1, "wrong_colour"), (4, "wrong_colour")]
    finally:
        for key, (_, doc) in kept.items():
            if isinstance(doc, Colour) and doc.kind == "oil":
                workshop.create("colour", f"{key}-again", doc)


def joined(**changes: Any) -> Piece:
    piece = PIECES["piece-dome"]
    told = piece.model_dump()
    told["joins"][0] |= changes
    return Piece.model_validate(told, strict=False)


def test_a_piece_put_together_weighs_its_parts_and_its_joins(workshop: Workshop) -> None:
    whole = assembly(workshop, AssemblyRequest(piece=PIECES["piece-dome"]))
    parts = sum(row.all_kg for row in whole.parts)
    assert parts == pytest.approx(8 * whole.parts[0].each.value.likely + whole.parts[1].each.value.likely)
    assert whole.weight.value.likely == pytest.approx(parts + sum(j.kg for j in whole.joins))
    assert [j.by_hand for j in whole.joins] == [False, False]
    by_hand = assembly(workshop, AssemblyRequest(piece=joined(props=0))).joins[0]
    assert by_hand.hands_s > whole.joins[0].hands_s
    # warmed faces take no melt and hold as soon as so thin a layer is stiff; glue is left for hours
    warm = assembly(workshop, AssemblyRequest(piece=joined(by="soften"))).joins[0]
    glue = assembly(workshop, AssemblyRequest(piece=joined(by="glue"))).joins[0]
    assert warm.kg == 0.0 and 0 < warm.holds.likely < glue.holds.likely
    assert 0 < glue.kg < whole.joins[0].kg and glue.sets.high > 3600
    one, three = (assembly(workshop, AssemblyRequest(piece=joined(by="glue", count=n))).joins[0] for n in (1, 3))
    assert three.kg == pytest.approx(3 * one.kg)
    assert whole.stands is not None and whole.stands.standing.inside_m == pytest.approx(0.1)


def test_what_is_in_a_part_is_weighed_with_it(workshop: Workshop) -> None:
    [cluster] = assembly(workshop, AssemblyRequest(piece=PIECES["piece-cluster"])).parts
    # twelve grams of nuts, and 35 parts of melt to 65 of them
    assert cluster.each.value.likely == pytest.approx(0.012 / 0.65 + 0.0003, rel=1e-6)
    [berry] = assembly(workshop, AssemblyRequest(piece=PIECES["piece-berry"])).parts
    [cup] = assembly(workshop, AssemblyRequest(piece=PIECES["piece-cup"])).parts
    # common practice, no source: a strawberry of 12 to 25 g; a balloon is not eaten
    assert 0.012 < berry.each.value.likely < 0.03
    assert cup.each.value.likely == pytest.approx(0.0208, rel=0.1)


def test_passes_on_the_face_that_is_hidden_are_told(workshop: Workshop) -> None:
    badge = part("piece-pop").model_copy(update={"seen": "open"})
    whole = assembly(workshop, AssemblyRequest(piece=PIECES["piece-pop"].model_copy(update={"parts": [badge]})))
    assert whole.parts[0].hidden == [0]
    drizzled = with_passes(
        part("piece-disc"),
        *(asdict(p) for p in part("piece-disc").passes),
        {"kind": "drizzle", "melt": {"material": "coating", "colour": None}, "length_m": 0.1, "bore_m": 0.002},
    )
    whole = assembly(
        workshop, AssemblyRequest(piece=PIECES["piece-disc"].model_copy(update={"parts": [drizzled]}))
    )
    assert whole.parts[0].hidden == [1]


@pytest.mark.parametrize(
    ("changes", "path", "says"),
    [
        ({"part": 7}, "joins.0.part", "no such part"),
        ({"seam_m": 0.0, "dots": 0}, "joins.0.seam_m", "a seam or dots"),
        ({"melt": {"material": "gravel", "colour": None}}, "joins.0.melt.material", "no such melt"),
    ],
)
def test_joins_that_cannot_be_are_refused_where_they_are(
    workshop: Workshop, changes: dict[str, Any], path: str, says: str
) -> None:
    with pytest.raises(OutOfRange, match=says) as refused:
        workshop.create("piece", "piece-wrong", joined(**changes))
    assert refused.value.path == path
    with pytest.raises(NotFound):
        workshop.get("piece", "piece-wrong")


def order(workshop: Workshop, *lines: tuple[str, int]) -> Order:
    like = workshop.get("order", "order-table").doc
    assert isinstance(like, Order)
    return like.model_copy(update={"lines": [OrderLine(piece_id=piece, quantity=n) for piece, n in lines]})


def test_a_plan_of_everything_adds_up(workshop: Workshop) -> None:
    plan = plan_order(
        workshop, order(workshop, ("piece-moon", 2), ("piece-cluster", 5), ("piece-badge", 4), ("piece-nebula", 3))
    )
    lines = plan.problem.lines
    by_name = {line.name: line for line in lines}
    # a ball is one casting, whole: there is no join of halves
    assert not any("half" in name for name in by_name)
    assert by_name["Hollow moon, turned"].quantity == 2
    for key in plan.problem.ways:
        rounds = [r for r in plan.rounds if lines[r.line].melt == key]
        poured = sum(lines[r.line].cast.poured.value.likely * r.casts for r in rounds)
        assert melted(plan, key).poured.value.likely == pytest.approx(poured)
    swirl, main = (by_name[f"Nebula heart{rest}"] for rest in (", swirl", ""))
    kg = [line.cast.finished.value.likely for line in (swirl, main)]
    assert kg[0] / sum(kg) == pytest.approx(0.25)
    hand = {row.name: row for row in summary_of(plan).by_hand}
    assert hand["Roasted nuts"].kg == pytest.approx(0.012 * hand["Roasted nuts"].count)
    assert hand["Observatory badge"].count == 4
    assert [s.what for s in plan.problem.by_hand] == ["press"]


def test_what_needs_no_melt_is_planned_too(workshop: Workshop) -> None:
    plan = plan_order(workshop, order(workshop, ("piece-badge", 4)))
    assert not plan.cooks and [(t.kind, t.hands) for t in plan.tasks] == [("press", True), ("rest", False)]


def test_an_impossible_build_is_kept_and_only_its_plan_refused(workshop: Workshop, tmp_path: Path) -> None:
    deep = part("piece-berry").model_dump()
    deep["passes"][0]["line_m"] = 0.2
    piece = PIECES["piece-berry"].model_copy(
        update={"name": "Too deep", "parts": [Part.model_validate(deep, strict=False)]}
    )
    workshop.create("piece", "piece-deep", piece)
    with pytest.raises(OutOfRange, match="deeper than it is high") as refused:
        plan_order(workshop, order(workshop, ("piece-deep", 3)))
    assert refused.value.path == "lines.0.piece_id"
