"""A detail: a small place drawn large, seen or cut open, with what its middle lines cross and what is cut by name."""

from __future__ import annotations

from collections.abc import Iterable
from itertools import pairwise
from typing import NamedTuple

from tall_plank.drawing.cropped import cropped
from tall_plank.drawing.cutview import Board, cut_view
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.primitives import Dim, Drawing, Item, Layer, Pen, Shape, Text, rectangle
from tall_plank.drawing.roomsection import boards_in
from tall_plank.drawing.section import Plane, part_cut
from tall_plank.drawing.seen import Way
from tall_plank.drawing.shows import FOR_CLIENT, Shows, exactly
from tall_plank.drawing.things.detail import detail_name
from tall_plank.drawing.words import Box
from tall_plank.job import Job, Kind
from tall_plank.job.things.detail import Detail
from tall_plank.making import MadeJob
from tall_plank.measure import format_chain, format_length
from tall_plank.setout import RoomLayout, Wall
from tall_plank.solids.room import solids_in

NAMES_OFF = 9.0
"""mm of paper from the window's right side to the names of what is cut."""

NAME_PITCH = 4.6
"""mm of paper from one name to the next."""


class Named(NamedTuple):
    """What is cut of a part in a window: what it is called, and what it takes of the view, mm."""

    name: str
    box: Box


def detail_way(wall: Wall, detail: Detail) -> Way:
    """How a cut detail is looked at: its view's 0, 0 is the wall's face, on the floor or at the wall's left end."""
    x, y = wall.frame.x, wall.frame.y
    if detail.cut == "upright":
        return Way(wall.frame.at(detail.x.mm, 0.0, 0.0), y, (0.0, 0.0, 1.0))
    return Way(wall.frame.at(0.0, 0.0, detail.z.mm), x, y)


def middle_of(detail: Detail) -> tuple[float, float]:
    """The middle of a detail in its view, mm."""
    match detail.cut:
        case "seen":
            return detail.x.mm, detail.z.mm
        case "upright":
            return -detail.away.mm, detail.z.mm
        case _:
            return detail.x.mm, -detail.away.mm


def detail_drawing(
    job: Job, room: RoomLayout, wall: Wall, made: MadeJob, detail: Detail, shows: Shows = FOR_CLIENT
) -> Drawing:
    """A detail at its scale, in the coordinates of its view."""
    (x, y), half = middle_of(detail), detail.size.mm / 2
    box = (x - half, y - half, x + half, y + half)
    scale = float(detail.scale)
    named: list[Named] = []
    if detail.cut == "seen":
        seen = elevation(job, room, wall, made, shows=exactly(shows)).items
        items = cropped((i for i in seen if not _is_mark(i)), box)
    else:
        way = detail_way(wall, detail)
        boards = boards_in(room, made)
        items = cropped(cut_view(boards, solids_in(job, room, made), way, job.stock), box)
        named = _named(job, boards, way, box)
    items.append(Shape(rectangle(*box[:2], detail.size.mm, detail.size.mm), Pen.NARROW, Layer.LABEL))
    items += _figures(job, items, (x, y), box)
    items += _names(named, box, scale)
    name = detail_name(room.room, detail)
    what = {"seen": "seen", "upright": "cut upright", "level": "cut level"}[detail.cut]
    title = f"{room.room.name}, detail {name}, {f'island {wall.id}' if wall.island else wall.title} {what}"
    return Drawing(title, tuple(items), *box, mark=f"D{name}", scale=scale)


def _is_mark(item: Item) -> bool:
    """Whether an item marks a detail."""
    return item.source is not None and item.source.kind is Kind.DETAIL


def _named(job: Job, boards: Iterable[Board], way: Way, box: Box) -> list[Named]:
    """Parts that are cut in a window, each once."""
    plane = Plane(way.origin, way.right, way.up)
    found: dict[str, Named] = {}
    for board in boards:
        rings = part_cut(board.part, plane.seen_from(board.frame))
        points = [p for ring in rings for p in ring]
        if not points:
            continue
        xs, ys = [p[0] for p in points], [p[1] for p in points]
        x0, y0, x1, y1 = max(min(xs), box[0]), max(min(ys), box[1]), min(max(xs), box[2]), min(max(ys), box[3])
        if x1 - x0 > 0.5 and y1 - y0 > 0.5:
            stock = job.stock.board_by_code(board.part.board)
            thick = format_length(board.part.thickness, job.display)
            name = f"{board.part.name}, {stock.name if stock is not None else thick}"
            found.setdefault(name, Named(name, (x0, y0, x1, y1)))
    return list(found.values())


def _names(named: Iterable[Named], box: Box, scale: float) -> list[Item]:
    """Names at the right of a window, on leaders, in the order of their heights."""
    rows = sorted(named, key=lambda n: -(n.box[1] + n.box[3]))
    top = (box[1] + box[3]) / 2 / scale + NAME_PITCH * (len(rows) - 1) / 2
    items: list[Item] = []
    for i, (name, (x0, y0, x1, y1)) in enumerate(rows):
        # The leader ends on the board, near the window's right side.
        x, y = x1 - min((x1 - x0) / 2, 3.0 * scale), (y0 + y1) / 2
        shift = ((box[2] - x) / scale + NAMES_OFF, top - NAME_PITCH * i - y / scale)
        items.append(Text(x, y, name, 2.0, Layer.LABEL, align="left", shift=shift))
    return items


def _figures(job: Job, items: Iterable[Item], middle: tuple[float, float], box: Box) -> list[Item]:
    """What the window's middle lines cross of what is cut, in a chain below and one at the left."""
    cut = [i for i in items if isinstance(i, Shape) and i.layer is Layer.CUT]
    found: list[Item] = []
    for along, across, base in ((0, 1, box[1]), (1, 0, box[0])):
        marks = _crossed(cut, along, across, middle[across], (box[along], box[along + 2]))
        if len(marks) < 2:
            continue
        texts = format_chain([b - a for a, b in pairwise(marks)], job.display)
        way = "x" if along == 0 else "y"
        for (a, b), text in zip(pairwise(marks), texts, strict=True):
            found.append(Dim(a, b, base, -1, way, text))  # type: ignore[arg-type]
        if len(marks) > 2:
            whole = format_length(marks[-1] - marks[0], job.display)
            found.append(Dim(marks[0], marks[-1], base, -2, way, whole))  # type: ignore[arg-type]
    return found


def _crossed(cut: Iterable[Shape], along: int, across: int, at: float, ends: tuple[float, float]) -> list[float]:
    """Where a line crosses the outlines of what is cut, in order; not where the window ends it."""
    found: list[float] = []
    for shape in cut:
        for p, q in zip(shape.points, (*shape.points[1:], shape.points[0]), strict=True):
            a, b = p[across] - at, q[across] - at
            if (a <= 0.0) != (b <= 0.0):
                found.append(p[along] + (q[along] - p[along]) * a / (a - b))
    inner = sorted(v for v in found if ends[0] + 0.05 < v < ends[1] - 0.05)
    return [v for i, v in enumerate(inner) if i == 0 or v - inner[i - 1] > 0.05]
