"""Edits of dimensions by hand."""

from __future__ import annotations

from collections.abc import Iterable

import msgspec

from tall_plank.edits.change import Change, new_ids
from tall_plank.edits.things.common import ThingEdits, added, deleted, replaced
from tall_plank.job import Job, Kind, Source
from tall_plank.job.things.dimension import Dimension, DimensionEnd
from tall_plank.job.things.table import find_thing
from tall_plank.measure import PlankError
from tall_plank.measure.limits import check_reach
from tall_plank.measure.outlines import Point
from tall_plank.setout import RoomLayout, set_out
from tall_plank.setout.anchors import anchor_words, box_in, corners_in, measured

FAR = 150.0
"""mm of paper that a dimension's line stands off at the most."""

LONGEST = 40
"""Letters of a text in place of a figure."""


def add_between(job: Job, room_id: str, view: str, first: Source, second: Source, along: str = "") -> Change:
    """A dimension between two things of a view: of the clear distance where they stand apart, else from their first
    sides.

    Parameters
    ----------
    view : letter of a wall or a face; empty: the plan
    along : x or y; empty: the way in which they stand further apart

    Raises
    ------
    PlankError where one of them is not seen there, or they are the same
    """
    job.room(room_id)  # told where there is none
    room = set_out(job).room(room_id)
    if first == second:
        raise PlankError("A dimension needs two things.", "dimension", "Select two things.")
    boxes = [box_in(room, view, s) for s in (first, second)]
    for source, box in zip((first, second), boxes, strict=True):
        if box is None:
            where = f"wall {view}" if view else "the plan"
            what = f"{anchor_words(room, str(source)).capitalize()} is not seen on {where}."
            raise PlankError(what, "dimension", "Select others.")
    p, q = boxes
    assert p is not None and q is not None
    apart = {"x": max(q[0] - p[2], p[0] - q[2]), "y": max(q[1] - p[3], p[1] - q[3])}
    way = along or max(apart, key=lambda k: apart[k])
    if way not in apart:
        raise PlankError(f"“{way}” is no way to measure.", "dimension", "Choose x or y.")
    k = 0 if way == "x" else 1
    if p[k] > q[k]:
        (first, p), (second, q) = (second, q), (first, p)
    low, high = (("left", "right"), ("front", "rear"))[k] if not view else (("left", "right"), ("underside", "top"))[k]
    start = high if apart[way] > -0.5 else low
    job, (new_id,) = new_ids(job, "h")
    new = Dimension(new_id, view, DimensionEnd(str(first), start), DimensionEnd(str(second), low), way)  # type: ignore[arg-type]
    return added(job, room_id, Kind.DIMENSION, new, "Add a dimension")


def ends_of(room: RoomLayout, dimension: Dimension, end: DimensionEnd) -> dict[str, Point | None]:
    """What an end of a dimension may hold on to: the sides that lie along what is measured, then each corner of the
    thing's outline with where it lies in the view, mm."""
    source = Source.parse(end.to)
    found: dict[str, Point | None] = dict.fromkeys(sides_of(dimension))
    corners = corners_in(room, dimension.view, source) if source is not None else []
    # Of what is but a point or a line, the sides say all.
    if len(corners) > 2:
        found |= {f"corner {n}": point for n, point in enumerate(corners, 1)}
    return found


def sides_of(dimension: Dimension) -> tuple[str, ...]:
    """The sides that lie along what a dimension measures."""
    if dimension.along == "x":
        return ("left", "center", "right")
    return ("underside", "center", "top") if dimension.view else ("front", "center", "rear")


def set_dimension(job: Job, dimension_id: str, key: str, text: str) -> Change:
    """Set from which side of its things a dimension measures (from, to), how far its line stands off (offset, mm of
    paper), or what stands in place of the figure (text).

    Raises
    ------
    PlankError where the text is none of these
    """
    room, dim = find_thing(job, Kind.DIMENSION, dimension_id)
    match key:
        case "from" | "to":
            name = "a" if key == "from" else "b"
            end: DimensionEnd = getattr(dim, name)
            ends = ends_of(set_out(job).room(room.id), dim, end)
            if text not in ends:
                raise PlankError(f"“{text[:20]}” is no side in this direction.", key, f"Choose {_choice(ends)}.")
            role, _, corner = text.partition(" ")
            end = msgspec.structs.replace(end, role=role, corner=int(corner or 0))
            new = msgspec.structs.replace(dim, **{name: end})
        case "offset":
            try:
                offset = float(text.strip().removesuffix("mm"))
            except ValueError:
                raise PlankError(
                    f"“{text[:20]}” is no distance on paper.", key, "Type mm of paper, such as 12."
                ) from None
            new = msgspec.structs.replace(dim, offset=_offset(offset))
        case "text":
            new = msgspec.structs.replace(dim, text=text.strip()[:LONGEST])
        case _:
            raise PlankError(f"A dimension has no {key[:20]}.", "dimension", "Choose from, to, offset or text.")
    return replaced(job, room, Kind.DIMENSION, new, "Set the dimension")


def _choice(ends: Iterable[str]) -> str:
    """What may be chosen, in words: corners by their first and last."""
    sides = [e for e in ends if " " not in e]
    corners = [e for e in ends if " " in e]
    return ", ".join([*sides, *([f"{corners[0]} to {len(corners)}"] if corners else [])])


def move_dimension(job: Job, dimension_id: str, offset: float) -> Change:
    """Drag a dimension's line. `offset`: mm of paper from what it measures."""
    check_reach(offset)
    room, dim = find_thing(job, Kind.DIMENSION, dimension_id)
    new = msgspec.structs.replace(dim, offset=_offset(offset))
    return replaced(job, room, Kind.DIMENSION, new, "Move the dimension")


def _offset(mm: float) -> float:
    """In halves of a mm of paper, off what is measured by 3 mm or more.

    Raises
    ------
    PlankError where it is no number or too far
    """
    if not -FAR <= mm <= FAR:
        raise PlankError(f"{mm:g} mm of paper is too far.", "offset", f"Give up to {FAR:g} mm.")
    rounded = round(mm * 2) / 2
    return rounded if abs(rounded) >= 3.0 else 3.0 if rounded >= 0 else -3.0


def length_of(job: Job, dimension_id: str) -> float | None:
    """What a dimension measures, mm; None where an anchor is gone."""
    room, dim = find_thing(job, Kind.DIMENSION, dimension_id)
    found = measured(set_out(job).room(room.id), dim)
    return None if found is None else abs(found[1] - found[0])


def delete_dimension(job: Job, thing_id: str) -> Change:
    """Take a dimension away."""
    return deleted(job, Kind.DIMENSION, thing_id)


DIMENSION = ThingEdits(add={}, set=set_dimension, delete=delete_dimension)
