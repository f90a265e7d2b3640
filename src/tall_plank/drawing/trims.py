"""Boards of trims and worktops as they are seen along their line, and from above."""

from __future__ import annotations

from tall_plank.drawing.colors import color_of
from tall_plank.drawing.floor import on_line
from tall_plank.drawing.primitives import Item, Layer, Pen, Shape, rectangle
from tall_plank.job import Kind
from tall_plank.setout import TrimBoard, Wall, Worktop
from tall_plank.stock import Stock

PLAN_BOARDS = ("corner filler", "waterfall filler", "end panel", "back panel", "dividing panel", "waterfall leg")
"""Boards that the plan shows."""


def board_front(stock: Stock, board: TrimBoard) -> Shape:
    """A board of a trim as it is seen along its line."""
    color = color_of(stock, board.finish)
    pen = Pen.NARROW if board.kind != "waterfall leg" else Pen.MEDIUM
    if board.outline:
        points = []
        for x, y in board.outline:
            at = board.frame.at(x, y, 0.0)
            points.append((at[0], at[2]))
        return Shape(tuple(points), pen, Layer.TRIM, board.source, color)
    low, high = board.box()
    points2 = rectangle(low[0], low[2], high[0] - low[0], high[2] - low[2])
    return Shape(points2, pen, Layer.TRIM, board.source, color)


def top_front(stock: Stock, top: Worktop, x: float) -> Shape:
    """A worktop from the front, its left end at x mm."""
    points = rectangle(x, top.bottom, top.length, top.thickness)
    return Shape(points, Pen.MEDIUM, Layer.TRIM, top.source, color_of(stock, top.finish))


def board_plan(board: TrimBoard, wall: Wall) -> list[Item]:
    """A board of a trim from above."""
    low, high = board.box()
    points = on_line(wall, low[0], low[1], high[0] - low[0], high[1] - low[1])
    return [Shape(points, Pen.NARROW, Layer.TRIM, board.source, "unit")]


def top_plan(wall: Wall, top: Worktop) -> list[Item]:
    """A worktop from above, with its cut-outs."""
    points = tuple(wall.frame.floor(x, -out) for x, out in top.points)
    items: list[Item] = [Shape(points, Pen.MEDIUM, Layer.TRIM, top.source)]
    for cut in top.cutouts:
        # From the rear edge towards the front.
        y = -(top.rear + cut.back + cut.depth)
        hole = on_line(wall, top.x + cut.x, y, cut.width, cut.depth)
        source = Kind.CELL.of(cut.cell) if cut.cell else top.source
        items.append(Shape(hole, Pen.NARROW, Layer.APPLIANCE, source, "basin"))
    return items
