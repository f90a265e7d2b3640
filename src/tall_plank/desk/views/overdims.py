"""Typing over dimensions: a box opens over one, and what is typed moves or sizes the thing it measures."""

from __future__ import annotations

from PyQt6.QtCore import QRect

from tall_plank.desk.model.document import Document
from tall_plank.desk.views.canvas import Canvas
from tall_plank.desk.views.inplace import InPlaceBox
from tall_plank.drawing.dimensions import offset
from tall_plank.drawing.primitives import Dim
from tall_plank.edits import bays, outline, rooms, runs
from tall_plank.edits.things.dimension import move_dimension
from tall_plank.edits.things.island import set_aisle
from tall_plank.edits.things.note import move_note
from tall_plank.edits.things.table import EDITS
from tall_plank.job import Kind, Source
from tall_plank.measure import PlankError

AISLES = ("front", "back", "left", "right")


def ask_for_dim(canvas: Canvas, box: InPlaceBox, document: Document, dim: Dim) -> None:
    """Open a box over a dimension of a view."""
    at = offset(dim, canvas.paper_scale)
    middle = (dim.a + dim.b) / 2
    p = canvas.to_px(middle, at) if dim.along == "x" else canvas.to_px(at, middle)
    if dim.source is not None and dim.source.kind is Kind.DIMENSION:
        document.select((dim.source,))
    rect = QRect(int(p.x()) - 40, int(p.y()) - 26, 80, 26)
    shown = dim.text.split(" ")[0] if dim.text.endswith(" mm") else dim.text
    box.ask(rect, shown.lstrip("~"), lambda text: type_over(document, dim, text))


def move_hand_dim(doc: Document, dim: Dim, mm: float) -> None:
    """A dimension by hand was dragged: its line now stands so many mm of paper off."""
    source = dim.source
    assert source is not None
    doc.do(lambda job: move_dimension(job, source.id, mm))


def move_hand_note(doc: Document, source: Source, right: float, up: float) -> None:
    """A note's words were dragged, mm of paper from what it is about."""
    doc.do(lambda job: move_note(job, source.id, right, up))


def type_over(doc: Document, dim: Dim, text: str) -> PlankError | None:
    """Set what a dimension measures; the error is shown at its place."""
    source = dim.source
    assert source is not None
    if source.kind is Kind.CELL and dim.key == "width":
        return doc.do(lambda job: runs.set_width(job, (source.id,), text), at_place=True)
    if source.kind is Kind.CELL:
        return doc.do(lambda job: runs.set_clear(job, source.id, dim.key, text), at_place=True)
    if source.kind is Kind.RUN:
        return doc.do(lambda job: runs.set_left(job, source.id, text), at_place=True)
    if source.kind is Kind.BAY:
        path = tuple(int(i) for i in source.id.split("."))
        cell = doc.cells[0]
        return doc.do(lambda job: bays.set_size(job, cell, path, text), at_place=True)
    if source.kind is Kind.ISLAND and dim.key in AISLES:
        return doc.do(lambda job: set_aisle(job, source.id, dim.key, text), at_place=True)
    if source.kind is Kind.WALL:
        return doc.do(lambda job: outline.set_wall_length(job, doc.room_id, source.id, text), at_place=True)
    if source.kind is Kind.ROOM:
        return doc.do(lambda job: rooms.set_room_length(job, source.id, dim.key, text), at_place=True)
    return doc.do(lambda job: EDITS[source.kind].set(job, source.id, dim.key, text), at_place=True)
