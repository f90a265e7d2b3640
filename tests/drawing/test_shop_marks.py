"""Edging and joints on drawings: all of them for the shop, none for the client."""

from __future__ import annotations

import math
from pathlib import Path
from xml.etree import ElementTree

import ezdxf
import pymupdf
import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import cell_of
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.plan import plan
from tall_plank.drawing.primitives import Drawing, Layer, Line, Pen, Shape, Text
from tall_plank.drawing.shopmarks import BESIDE, JOINTS, NOTE, edging_marks, shop_marks
from tall_plank.drawing.shown import shown
from tall_plank.drawing.shows import FOR_CLIENT, FOR_SHOP
from tall_plank.edits import units
from tall_plank.job import Job
from tall_plank.making import MadeUnit, Part
from tall_plank.making.parts import Bore, Edges, Groove
from tall_plank.measure import Frame
from tall_plank.package import write_drawing
from tall_plank.papers.drawings import job_sheets, room_drawings
from tall_plank.workings import Workings


def unit_of(job: Job, number: str) -> MadeUnit:
    unit = Workings(job).made.of(cell_of(job, number))
    assert unit is not None
    return unit


def wall_a(job: Job, *, shop: bool) -> Drawing:
    w = Workings(job)
    room = w.layout.rooms[0]
    return elevation(job, room, room.wall("A"), w.made, FOR_SHOP if shop else FOR_CLIENT)


def making(drawing: Drawing) -> list[object]:
    return [i for i in drawing.items if getattr(i, "layer", None) is Layer.MAKING]


def test_the_client_sees_none_of_it_and_the_shop_all_else_unchanged(job: Job) -> None:
    client, shop = wall_a(job, shop=False), wall_a(job, shop=True)
    assert making(client) == []
    assert making(shop)
    assert [i for i in shop.items if getattr(i, "layer", None) is not Layer.MAKING] == list(client.items)


def test_the_plan_has_marks_for_the_shop_only(job: Job) -> None:
    w = Workings(job)
    room = w.layout.rooms[0]
    assert making(plan(job, room, w.made)) == []
    chained = [i for i in making(plan(job, room, w.made, shows=FOR_SHOP)) if getattr(i, "pen", None) is Pen.CHAIN]
    assert chained


def fixings(unit: MadeUnit) -> int:
    """Joints' holes and slots in ends and edges: one for every fixing."""
    found = 0
    for part in unit.parts:
        for op in part.operations:
            use = op.use if isinstance(op, Bore) else op.over if isinstance(op, Groove) else ""
            one_half = ("A", "B") if use == "pocket screw" else ("L1", "L2", "W1", "W2")
            slanted = isinstance(op, Bore) and op.slant > 0
            found += use in JOINTS and op.face in one_half and not slanted  # type: ignore[union-attr]
    return found


@pytest.mark.parametrize("joint", ["dowel", "cam", "screw", "biscuit", "tenon", "pocket"])
@pytest.mark.parametrize("number", ["A2", "A5", "A6"])
def test_axes_stand_for_every_fixing(job: Job, number: str, joint: str) -> None:
    unit = unit_of(units.set_own(job, (cell_of(job, number),), "joint", joint).job, number)
    items = shop_marks(unit)
    axes = [i for i in items if isinstance(i, Line) and i.pen is Pen.CHAIN]
    counts = [int(i.text.removesuffix("×")) for i in items if isinstance(i, Text)]
    # An axis without a number stands for one.
    assert sum(counts) + (len(axes) - len(counts)) == fixings(unit) > 0


def test_an_axis_is_as_long_as_both_halves_are_deep(job: Job) -> None:
    unit = unit_of(job, "A5")
    made = unit.spec.made
    axis = next(i for i in shop_marks(unit) if isinstance(i, Line) and i.pen is Pen.CHAIN)
    deep = made.dowel_face_depth + made.dowel_end_depth
    assert math.dist((axis.x1, axis.y1), (axis.x2, axis.y2)) == pytest.approx(deep + 12.0)


def test_boards_behind_fronts_are_dashed_and_seen_without_them(job: Job) -> None:
    unit = unit_of(job, "A5")
    closed = {i.pen for i in shop_marks(unit) if isinstance(i, Shape)}
    opened = {i.pen for i in shop_marks(unit, closed=False) if isinstance(i, Shape)}
    assert closed == {Pen.DASHED}
    assert opened == {Pen.NARROW}


def board(edges: Edges, frame: Frame | None = None) -> Part:
    """A board 600 x 400 x 18 that looks at the viewer, unless its frame says otherwise."""
    facing = Frame((0.0, 0.0, 0.0), (1.0, 0.0, 0.0), (0.0, 0.0, 1.0))
    return Part("board", "b", "b", 600.0, 400.0, 18.0, "none", frame or facing, edges)


@pytest.mark.parametrize("name", ["l1", "l2", "w1", "w2"])
def test_each_edge_is_marked_beside_itself(name: str) -> None:
    line, *ticks = edging_marks((board(Edges(**{name: "e"})),))
    assert isinstance(line, Line)
    assert len(ticks) == 2
    edge = {"l1": ("y", 0.0), "l2": ("y", 400.0), "w1": ("x", 0.0), "w2": ("x", 600.0)}[name]
    values = (line.y1, line.y2) if edge[0] == "y" else (line.x1, line.x2)
    assert {abs(v - edge[1]) for v in values} == {BESIDE}
    # Ticks start on the edge itself.
    starts = {t.y1 if edge[0] == "y" else t.x1 for t in ticks}  # type: ignore[union-attr]
    assert starts == {edge[1]}


def test_raw_edges_have_no_mark_and_an_edge_seen_end_on_has_ticks_across_it() -> None:
    assert edging_marks((board(Edges()),)) == []
    shelf = Frame((0.0, -400.0, 100.0), (1.0, 0.0, 0.0), (0.0, 1.0, 0.0))
    ticks = edging_marks((board(Edges(l1="e"), shelf),))
    assert len(ticks) == 2
    for tick in ticks:
        assert isinstance(tick, Line)
        assert min(tick.y1, tick.y2) < 100.0
        assert max(tick.y1, tick.y2) > 118.0


@given(st.floats(30, 3000), st.floats(30, 3000))
def test_marks_stay_inside_their_board(length: float, width: float) -> None:
    facing = Frame((0.0, 0.0, 0.0), (1.0, 0.0, 0.0), (0.0, 0.0, 1.0))
    part = Part("board", "b", "b", length, width, 18.0, "none", facing, Edges("e", "e", "e", "e"))
    for item in edging_marks((part,)):
        assert isinstance(item, Line)
        for x, y in ((item.x1, item.y1), (item.x2, item.y2)):
            assert -1e-6 <= x <= length + 1e-6
            assert -1e-6 <= y <= width + 1e-6


def test_sheets_for_the_shop_say_so_and_what_the_marks_mean(job: Job) -> None:
    w = Workings(job)
    for client, shop in zip(job_sheets(w), job_sheets(w, shop=True), strict=False):
        assert NOTE not in client.notes
        assert NOTE in shop.notes
        number = client.block.sheet.split(" of ")[0]
        assert shop.block.sheet.startswith(f"{number} of ")
        assert (client.block.kind, shop.block.kind) == ("Client drawing", "Shop drawing")


def test_chain_lines_and_their_layer_reach_every_kind_of_file(job: Job, tmp_path: Path) -> None:
    w = Workings(job)
    drawing = dict(room_drawings(w, "r1", FOR_SHOP))["elevation-A"]
    for ending in ("svg", "dxf", "pdf"):
        write_drawing(w, drawing, tmp_path / f"a.{ending}", shop=True)
    root = ElementTree.parse(tmp_path / "a.svg").getroot()
    lines = [e for e in root.iter() if e.get("class") == "making"]
    assert {e.get("stroke-dasharray") for e in lines} >= {None, "4.4 0.6 0.1 0.6"}
    axes = ezdxf.readfile(tmp_path / "a.dxf").modelspace().query('LINE[layer=="MAKING-CHAIN"]')
    wanted = [i for i in shown(drawing, 20.0).drawn if isinstance(i, Line) and i.pen is Pen.CHAIN]
    assert len(axes) == len(wanted) > 0
    assert {e.dxf.linetype for e in axes} == {"PLANK-CHAIN"}
    with pymupdf.open(tmp_path / "a.pdf") as document:
        assert NOTE.split(":")[0] in document[0].get_text()
