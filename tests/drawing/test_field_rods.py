"""What papers say of wall fields: chains of panels that add up, rods with numbered pieces, finishes, pictures."""

from __future__ import annotations

import pytest

from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.fieldrod import field_rods
from tall_plank.drawing.primitives import Dim, Text
from tall_plank.edits.rooms import set_room_length
from tall_plank.edits.things.opening import add_opening
from tall_plank.edits.things.wall_field import add_field, repeat_on
from tall_plank.job import Job
from tall_plank.job.start import new_job
from tall_plank.making import numbers_told
from tall_plank.papers.drawings import busy_walls
from tall_plank.papers.setcontent import finishes_table
from tall_plank.papers.sets import set_sheets
from tall_plank.workings import Workings


def hall() -> Job:
    job = set_room_length(new_job("Hall"), "r1", "width", "4310mm").job
    job = add_opening(job, "r1", "A", "door", 600.0).job
    job = add_field(job, "r1", "A", "dado").job
    return repeat_on(job, job.rooms[0].fields[0].id, ("B", "C")).job


def chains(w: Workings, wall: str) -> dict[int, list[Dim]]:
    room = w.layout.rooms[0]
    drawn = elevation(w.job, room, room.wall(wall), w.made)
    rows: dict[int, list[Dim]] = {}
    for item in drawn.items:
        if isinstance(item, Dim) and item.along == "x":
            rows.setdefault(item.row, []).append(item)
    return rows


@pytest.mark.parametrize("wall", ["A", "B", "C"])
def test_chains_of_panels_run_from_end_to_end_of_the_wall(wall: str) -> None:
    w = Workings(hall())
    found = [row for row in chains(w, wall).values() if any(d.name == "panels" for d in row)]
    assert len(found) == 1
    (row,) = found
    length = w.layout.rooms[0].wall(wall).length
    assert sum(float(d.text.lstrip("~")) for d in row) == pytest.approx(length, abs=0.005)
    laid = next(f for f in w.layout.rooms[0].fields if f.wall_id == wall)
    panels = [p for z in laid.zones for s in z.stretches if s.grid is not None for p in s.grid.panels]
    widths = [d.b - d.a for d in row]
    assert all(any(abs(p - x) < 0.01 for x in widths) for p in panels)
    assert not any(any(d.name == "panels" for d in row) for row in chains(w, "D").values())


def test_rods_name_every_piece_and_run_from_the_field() -> None:
    w = Workings(hall())
    room = w.layout.rooms[0]
    for laid in room.fields:
        pieces, along, upright = field_rods(w.job, room, laid, w.made)
        told = {i.text for i in pieces.items if isinstance(i, Text)}
        own = {t.number for t in w.made.trims if t.number.startswith(f"{laid.wall_id}N1.") and t.part is not None}
        seen = {n.partition(".")[2].partition("-")[0] for n in own} - {
            t.number.partition(".")[2].partition("-")[0]
            for t in w.made.trims
            if t.part is not None and t.part.role == "batten" and t.number in own
        }
        assert told == seen
        figures = {i.text for i in along.items if isinstance(i, Text)}
        grid = laid.zones[0].stretches[-1].grid
        assert grid is not None
        start = laid.zones[0].stretches[-1].x0 - laid.x0
        assert {f"{round(start + x, 2):g}" for x in grid.left_edges} <= figures
        assert {"80", "820", "900"} <= {i.text for i in upright.items if isinstance(i, Text)}
        assert len({d.mark for d in (pieces, along, upright)}) == 3


def test_they_stand_in_the_shops_set_and_the_rest_in_the_clients() -> None:
    w = Workings(hall())
    titles = [s.title for s in set_sheets(w, "shop")]
    assert sum("wall field" in t for t in titles) >= 1
    client = [s.title for s in set_sheets(w, "client")]
    assert any("seen from" in t for t in client) and sum("wall" in t for t in client) >= 3
    assert busy_walls(w.layout.rooms[0]) == {"A", "B", "C"}
    table = finishes_table(w, w.layout.rooms[0], "1F")
    assert table is not None and any(isinstance(i, Text) and "AN1" in i.text for i in table.items)


def test_alike_pieces_share_a_number_and_are_counted() -> None:
    w = Workings(hall())
    rows = {numbers_told(r.numbers): r for r in w.cut_rows}
    stiles = [t for t in w.made.trims if t.number.startswith("BN1.") and t.part is not None and t.part.name == "stile"]
    heads = {t.number.partition("-")[0] for t in stiles}
    assert len(heads) == 2, "end stiles and those between"
    assert any(" x BN1." in told for told in rows)
    assert numbers_told(("B1.2", "AN1.3-1", "AN1.3-2", "AN1.4")) == "B1.2, 2 x AN1.3, AN1.4"
