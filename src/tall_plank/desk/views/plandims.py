"""The plan's dimensions of what is selected: clear distances, aisles round an island, guide lines."""

from __future__ import annotations

from tall_plank.desk.model.document import Document
from tall_plank.desk.views.guidelines import on_plan
from tall_plank.drawing.primitives import Dim
from tall_plank.job import Kind, Source
from tall_plank.measure import format_length
from tall_plank.setout import Wall
from tall_plank.setout.clear import aisles_of, clear_of


def plan_dims(doc: Document, paper: float) -> list[Dim]:
    """Clear distances of the selected unit along its wall, or of the selected island to all sides.

    `paper`: real mm per mm of paper.
    """
    room = doc.room
    found: list[Dim] = []
    if len(doc.cells) == 1:
        placed = doc.workings.layout.find(doc.cells[0])
        if placed is None or placed.room != doc.room_id or not placed.is_solid:
            return []
        wall = room.wall(placed.wall_id)
        clear = clear_of(room, placed)
        source = Kind.CELL.of(placed.cell)
        for mm, a, b, key in (
            (clear.left, placed.x - clear.left, placed.x, "left"),
            (clear.right, placed.right, placed.right + clear.right, "right"),
        ):
            if mm > 0.5:
                found += _along(doc, paper, wall, a, b, -placed.depth * 0.5, mm, source, key)
    for line in on_plan(room):
        if line.source in doc.selection:
            at = line.guide.at.mm
            ends = (
                ((line.x1 - at, 300.0), (line.x1, 300.0))
                if line.guide.axis == "x"
                else ((300.0, line.y1 - at), (300.0, line.y1))
            )
            if not line.guide.wall:
                found += _between(doc, paper, *ends, at, line.source, "at")
    for island_id in doc.ids(Kind.ISLAND):
        island = room.room.island(island_id)
        face = next((f for f in room.faces if f.island == island_id), None)
        if island is not None and face is not None:
            found += _aisle_dims(doc, paper, island_id, face)
    return found


def _aisle_dims(doc: Document, paper: float, island_id: str, line: Wall) -> list[Dim]:
    room = doc.room
    island = room.room.island(island_id)
    assert island is not None
    own = [w for w in room.worktops if w.source == Kind.ISLAND.of(island_id)]
    points = [(x, -out) for top in own for x, out in top.points]
    if not points:
        return []
    x0, x1 = min(p[0] for p in points), max(p[0] for p in points)
    y0, y1 = min(p[1] for p in points), max(p[1] for p in points)
    found = []
    for side, mm, _ in aisles_of(room, island):
        mid_x, mid_y = (x0 + x1) / 2, (y0 + y1) / 2
        ends = {
            "Front": ((mid_x, y0), (mid_x, y0 - mm)), "Back": ((mid_x, y1), (mid_x, y1 + mm)),
            "Left": ((x0, mid_y), (x0 - mm, mid_y)), "Right": ((x1, mid_y), (x1 + mm, mid_y)),
        }[side]  # fmt: skip
        a, b = (line.frame.floor(*p) for p in ends)
        found += _between(doc, paper, a, b, mm, Kind.ISLAND.of(island_id), side.lower())
    return found


def _along(
    doc: Document, paper: float, wall: Wall, a: float, b: float, y: float, mm: float, source: Source, key: str
) -> list[Dim]:
    p, q = wall.frame.at(a, y, 0.0), wall.frame.at(b, y, 0.0)
    return _between(doc, paper, p[:2], q[:2], mm, source, key)


def _between(
    doc: Document, paper: float, p: tuple[float, float], q: tuple[float, float], mm: float, source: Source, key: str
) -> list[Dim]:
    """A dimension between two points that lie level or upright; others are left out."""
    text = format_length(mm, doc.job.display)
    drop = 6.0 * paper
    if abs(p[1] - q[1]) < 0.5:
        return [Dim(p[0], q[0], p[1] - drop, 1, "x", text, source, key, True)]
    if abs(p[0] - q[0]) < 0.5:
        return [Dim(p[1], q[1], p[0] - drop, 1, "y", text, source, key, True)]
    return []
