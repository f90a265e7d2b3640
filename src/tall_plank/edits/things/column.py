"""Edits of chimney breasts and columns."""

from __future__ import annotations

import msgspec

from tall_plank.edits.change import Change, new_ids, without_covers
from tall_plank.edits.rooms import read_in
from tall_plank.edits.things.common import ThingEdits, added, deleted, replaced
from tall_plank.job import Column, Job, Kind
from tall_plank.job.things.table import find_thing
from tall_plank.measure import Length, PlankError
from tall_plank.measure.limits import check_reach
from tall_plank.setout.rooms import find_wall


def add_column(job: Job, room_id: str, wall_id: str, kind: str, x: float | None = None) -> Change:
    """Stand a chimney breast (1200 x 350) or a column (300 x 300) against a wall, in its middle or at x. `x`: mm."""
    check_reach(x)
    room = job.room(room_id)
    length = find_wall(room, wall_id).length
    width, depth = (1200.0, 350.0) if kind == "chimney breast" else (300.0, 300.0)
    width = min(width, length)
    at = (length - width) / 2 if x is None else min(max(0.0, x), length - width)
    job, (new_id,) = new_ids(job, "m")
    column = Column(new_id, kind, wall_id, Length.of(at), Length.of(width), Length.of(depth))  # type: ignore[arg-type]
    return added(job, room_id, Kind.COLUMN, column, f"Add a {kind}")


def set_column(job: Job, column_id: str, key: str, text: str) -> Change:
    """Set x, y, width, depth, height or wall (empty: free standing) of a column.

    Raises
    ------
    PlankError “There is no wall ….”, “A column has no ….”
    """
    room, column = find_thing(job, Kind.COLUMN, column_id)
    if key == "wall":
        if text and text not in room.wall_ids():
            raise PlankError(f"There is no wall {text}.", column.kind, "Choose another wall.")
        new = msgspec.structs.replace(column, wall=text)
    elif key == "height":
        new = msgspec.structs.replace(column, height=read_in(job, text, Column, key) if text.strip() else None)
    elif key in ("x", "y", "width", "depth"):
        new = msgspec.structs.replace(column, **{key: read_in(job, text, Column, key)})
    else:
        raise PlankError(f"A column has no {key}.", "column", "Choose x, y, width, depth, height or wall.")
    return replaced(job, room, Kind.COLUMN, new, f"Set the {column.kind}'s {key}")


def move_column(job: Job, column_id: str, x: float, y: float = 0.0) -> Change:
    """Drag a column along its wall, held to its ends; a free one anywhere on the floor. `x`, `y`: mm."""
    check_reach(x, y)
    room, column = find_thing(job, Kind.COLUMN, column_id)
    if column.wall:
        length = find_wall(room, column.wall).length
        at = min(max(0.0, x), max(0.0, length - column.width.mm))
        new = msgspec.structs.replace(column, x=Length.of(round(at)))
    else:
        new = msgspec.structs.replace(column, x=Length.of(round(x)), y=Length.of(round(y)))
    return replaced(job, room, Kind.COLUMN, new, f"Move the {column.kind}")


def shift_column(job: Job, column_id: str, dx: float, dy: float) -> Change:
    """Drag a free column over the floor by dx, dy mm."""
    _, column = find_thing(job, Kind.COLUMN, column_id)
    return move_column(job, column_id, column.x.mm + dx, column.y.mm + dy)


def delete_column(job: Job, thing_id: str) -> Change:
    """Take a column away, and what covers it; cells that it held stand free."""
    room, column = find_thing(job, Kind.COLUMN, thing_id)
    return deleted(without_covers(job, room.id, (column,)), Kind.COLUMN, thing_id)


COLUMN = ThingEdits(
    add={
        "column": lambda job, spot: add_column(job, spot.room, spot.wall_id, "column", spot.x),
        "chimney breast": lambda job, spot: add_column(job, spot.room, spot.wall_id, "chimney breast", spot.x),
    },
    set=set_column,
    delete=delete_column,
    slide=move_column,
    shift=shift_column,
)
