"""The wall strip's dimensions of what is selected: clear distances, bays, guide lines."""

from __future__ import annotations

from tall_plank.desk.model.bays import typed_path
from tall_plank.desk.views.frieze import Frieze
from tall_plank.drawing.primitives import Dim
from tall_plank.job import Kind, Split
from tall_plank.measure import format_length
from tall_plank.setout import Placed
from tall_plank.setout.clear import clear_of


def strip_dims(strip: Frieze) -> list[Dim]:
    """Clear distances of the selected unit to its neighbours, sizes of its bay, the place of a guide line."""
    if strip.document.ids(Kind.GUIDE):
        return _guide_dims(strip)
    placed = strip.one_placed()
    if placed is None or not placed.is_solid:
        return []
    if strip.document.bay is not None:
        return _bay_dims(strip, placed)
    clear = clear_of(strip.document.room, placed)
    x = strip.wall_x(placed.wall_id)
    display = strip.document.job.display
    # The row offset is taken back, so that the line runs through the middle of the unit.
    drop = 6.0 * strip.paper_scale
    middle_y = placed.bottom + placed.height * 0.5 - drop
    source = Kind.CELL.of(placed.cell)

    def text(mm: float) -> str:
        return format_length(mm, display, mark=True)

    dims = []
    left, right = x + placed.x, x + placed.right
    # What hangs free moves to any side: there a distance of nothing can be typed over too.
    run = strip.document.workings.layout.run(placed.run)
    least = -0.5 if run is not None and run.run.free else 0.5
    if clear.left > least:
        dims.append(Dim(left - clear.left, left, middle_y, 1, "x", text(clear.left), source, "left", True))
    if clear.right > least:
        dims.append(Dim(right, right + clear.right, middle_y, 1, "x", text(clear.right), source, "right", True))
    if placed.level == "hung":
        side = x + _beside_numbers(strip, placed, max(text(clear.below), text(clear.above), key=len)) - drop
        low, high = placed.bottom, placed.top
        if clear.below > least:
            dims.append(Dim(low - clear.below, low, side, 1, "y", text(clear.below), source, "below", True))
        if clear.above > least:
            dims.append(Dim(high, high + clear.above, side, 1, "y", text(clear.above), source, "above", True))
    return dims


NUMBER = 30.0
"""px that a unit's number takes in the middle of it."""


def _beside_numbers(strip: Frieze, placed: Placed, text: str) -> float:
    """Where along its wall the distances above and below a unit stand, so that their text covers the number of none
    beside it and ends within the unit, if there is such a place; else where the least of a number is covered. mm."""
    long = (strip.fontMetrics().horizontalAdvance(text) + 8.0) / strip.scale
    half = NUMBER / strip.scale / 2
    middles = [p.x + p.width / 2 for p in strip.document.room.placed if p.wall_id == placed.wall_id and p.number]

    def covered(at: float) -> float:
        return max((min(at + long, m + half) - max(at, m - half) for m in middles), default=0.0)

    after = sorted(m + half for m in middles if placed.x < m + half < placed.right)
    places = [placed.x + placed.width / 8, *after, placed.x + placed.width * 7 / 8]
    free = (at for at in places if covered(at) <= 0.0 and at + long <= placed.right)
    return next(free, min(places, key=covered))


def _guide_dims(strip: Frieze) -> list[Dim]:
    """How far a selected guide line lies from the wall's left end, or from the floor."""
    found = []
    drop = 6.0 * strip.paper_scale
    for line in strip.guide_lines():
        if line.source in strip.document.selection:
            at = line.guide.at.mm
            text = format_length(at, strip.document.job.display, mark=True)
            if line.guide.axis == "z":
                x = strip.wall_x(strip.current_wall()) + 300.0 - drop
                found.append(Dim(0.0, at, x, 1, "y", text, line.source, "at", True))
            else:
                found.append(Dim(line.x1 - at, line.x1, 300.0 - drop, 1, "x", text, line.source, "at", True))
    return found


def _bay_dims(strip: Frieze, placed: Placed) -> list[Dim]:
    """Clear width and height of the bay that is worked on; what it is typed in stands out."""
    box = strip.document.bay_box(strip.document.bay or ())
    if box is None:
        return []
    root = strip.document.job.unit(strip.document.job.find_cell(placed.cell)[2].unit).bay
    r, display = box.clear, strip.document.job.display
    x, z = strip.wall_x(placed.wall_id) + placed.x, placed.bottom
    drop = 6.0 * strip.paper_scale
    found = []
    for along, low, high, base, split in (
        ("x", x + r.x0, x + r.x1, z + r.z0 + (r.z1 - r.z0) * 0.1 - drop, Split.COLUMNS),
        ("y", z + r.z0, z + r.z1, x + r.x0 + (r.x1 - r.x0) * 0.72 - drop, Split.ROWS),
    ):
        path = typed_path(root, box.path, split)
        key = "size" if path is not None else ""
        name = Kind.BAY.of(".".join(map(str, path))) if path is not None else ""
        text = format_length(high - low, display, mark=True)
        found.append(Dim(low, high, base, 1, along, text, name, key, True))  # type: ignore[arg-type]
    return found
