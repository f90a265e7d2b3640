"""Lists of parts: groups and their sums, frames, solid timber, areas and weights, parts by unit."""

from __future__ import annotations

from decimal import Decimal
from pathlib import Path

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import numbers_counted
from tall_plank.demo import demo_job
from tall_plank.edits import units
from tall_plank.job import Role
from tall_plank.job.start import new_job
from tall_plank.making import Cutout, Edges, Part
from tall_plank.measure import Frame
from tall_plank.papers import partlists
from tall_plank.papers.tables import Column, Table, arranged, groups_of
from tall_plank.papers.write_pdf import write_tables
from tall_plank.shop.areas import area_rows, face_area, raw_edges
from tall_plank.workings import Workings


@pytest.fixture(scope="module")
def demo() -> Workings:
    return Workings(demo_job())


@pytest.fixture(scope="module")
def ash() -> Workings:
    """The demo with fronts of solid ash."""
    return Workings(units.set_scheme_finish(demo_job(), Role.FRONT, "strand-ash").job)


ROWS = st.lists(
    st.tuples(st.sampled_from(["oak 9", "oak 18", "", "ash"]), st.integers(0, 50), st.floats(0, 9)), max_size=12
)


@given(ROWS, st.randoms())
def test_groups_hold_every_row_once_with_their_sums(rows: list[tuple[str, int, float]], random) -> None:  # type: ignore[no-untyped-def]
    columns = (Column("of", "Of"), Column("qty", "Qty", "count", sums=True), Column("area", "Area", "number"))
    table = Table("T", "", columns, tuple(rows), keys=tuple(str(i) for i in range(len(rows))))
    groups = groups_of(table, "of")
    assert sorted(i for g in groups for i in g.rows) == list(range(len(rows)))
    for g in groups:
        assert {rows[i][0] for i in g.rows} == {g.name}
        assert g.head == (g.name or "–", sum(rows[i][1] for i in g.rows), None)
    names = [g.name for g in groups]
    if {"oak 9", "oak 18"} <= set(names):
        assert names.index("oak 9") < names.index("oak 18")
    order = list(range(len(rows)))
    random.shuffle(order)
    other = arranged(table, order, "of")
    assert [other.keys[k] for k in range(len(rows))] == [str(i) for i in order]
    assert list(other.rows) == [rows[i] for i in order]
    assert [i for g in groups_of(table, "none such") for i in g.rows] == list(range(len(rows)))


def test_money_is_summed_as_money() -> None:
    columns = (Column("of", "Of"), Column("cost", "Cost", "money", sums=True))
    table = Table("T", "", columns, (("a", Decimal("0.10")), ("a", Decimal("0.20")), ("a", None)))
    assert groups_of(table, "of")[0].head == ("a", Decimal("0.30"))


def test_the_cut_list_says_each_edge_and_its_edging() -> None:
    assert partlists.edge_codes(Edges("E1", "", "E1", "")) == "E1"
    assert partlists.edge_codes(Edges()) == ""
    assert partlists.edge_codes(Edges("E1", "E1", "", "E6")) == "L1 L2 E1, W2 E6"


def test_the_totals_of_the_cut_list_are_those_of_the_parts(demo: Workings) -> None:
    table = partlists.cut_list(demo)
    keys = [c.key for c in table.columns]
    total = dict(zip(keys, table.totals[0], strict=True))
    bought = {b.code for b in demo.job.stock.boards if b.cut_to_size}
    parts = [i.part for i in demo.made.parts() if i.part.board not in bought]
    assert total["qty"] == len(parts)
    assert total["weight"] == pytest.approx(sum(p.weight for p in parts), rel=1e-3)
    assert total["area"] == pytest.approx(sum(p.length * p.width for p in parts) * 1e-6, rel=1e-3)
    assert total["length"] is None


def part(**changes: object) -> Part:
    plain = Part("p", "b", "m", 1000.0, 400.0, 20.0, "none", Frame((0.0, 0.0, 0.0)))
    return msgspec.structs.replace(plain, **changes)


def test_areas_and_edges_of_a_part_by_hand() -> None:
    assert face_area(part()) == 400_000
    assert face_area(part(operations=(Cutout(100.0, 100.0, 300.0, 200.0, 15.0),))) == 340_000
    assert raw_edges(part()) == 2800
    assert raw_edges(part(edges=Edges("E", "", "E", ""))) == 1400
    # A right triangle of 1000 x 400: half the area, its slanted side 1077.03.
    triangle = part(outline=((0.0, 0.0), (1000.0, 0.0), (0.0, 400.0)))
    assert face_area(triangle) == 200_000
    assert raw_edges(triangle) == pytest.approx(1000 + 400 + 1077.033, abs=0.001)


def test_areas_add_up_to_the_weight_of_the_boards(demo: Workings) -> None:
    """Area by thickness by density is the weight, as far as no part is outlined or opened."""
    rows = {r.board: r for r in area_rows(demo.made, demo.job.stock)}
    assert sum(r.parts for r in rows.values()) == demo.tally.parts
    for code in ("BP15", "SS18"):
        board = demo.job.stock.board_by_code(code)
        assert board is not None
        row = rows[code]
        assert row.weight == pytest.approx(row.area * board.thickness / 1000 * board.density, rel=0.01)
        assert row.faces == 2 * row.area
        assert row.raw == pytest.approx(row.raw_m * board.thickness / 1000)


def test_every_framed_front_has_its_stiles_and_rails(demo: Workings) -> None:
    table = partlists.frames(demo)
    keys = [c.key for c in table.columns]
    rows = [dict(zip(keys, row, strict=True)) for row in table.rows]
    by: dict[str, list[str]] = {}
    for row in rows:
        by.setdefault(str(row["frame"]), []).append(str(row["member"]))
    assert by
    for members in by.values():
        assert sorted(members) == ["bottom rail", "left stile", "panel", "right stile", "top rail"]
    framed = sum(p.name.endswith("left stile") for _, u in demo.made.units for p in u.parts)
    assert len(by) == framed


def test_solid_timber_is_listed_with_rough_sizes_and_gets_no_edging_of_its_own(demo: Workings, ash: Workings) -> None:
    plain = Workings(new_job("Boards only"))
    assert partlists.timber(plain).rows == () and "no part" in partlists.timber(plain).subtitle
    assert {row[2] for row in partlists.timber(demo).rows} == {"Keel oak 18"}, "the slats of the bed wall"
    table = partlists.timber(ash)
    keys = [c.key for c in table.columns]
    rows = [dict(zip(keys, row, strict=True)) for row in table.rows]
    solid = [i.part for i in ash.made.parts() if i.part.material.startswith(("Strand ash", "Keel oak 18"))]
    assert sum(r["qty"] for r in rows) == len(solid) > 100
    assert all(not any(p.edges) for p in solid)
    assert not [s for s in ash.snags if s.weight == "wrong"] and not any(u.problems for _, u in ash.made.units)
    first = rows[0]
    assert (first["rough_length"], first["rough_width"], first["rough_thickness"]) == (
        first["length"] + 30,
        first["width"] + 6,
        first["thickness"] + 6,
    )
    volume = first["qty"] * first["rough_length"] * first["rough_width"] * first["rough_thickness"] * 1e-6
    assert first["volume"] == pytest.approx(volume, abs=0.006)


def test_the_lists_by_unit_hold_every_part_once(demo: Workings, tmp_path: Path) -> None:
    found = []
    for number in partlists.units_with_parts(demo):
        found += [n for row in partlists.unit_list(demo, number).rows for n in str(row[0]).split(", ")]
    assert numbers_counted(found) == numbers_counted(i.number for i in demo.made.parts())
    table = partlists.cut_list(demo)
    path = tmp_path / "list.pdf"
    write_tables([table], path, "job")
    assert path.read_bytes().startswith(b"%PDF")
