"""Guide lines in the window."""

from __future__ import annotations

from functools import partial

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Sheet, length_row
from tall_plank.desk.things.handling import Hand, Handling, Mark, Offered, drawing_of, shape
from tall_plank.drawing.primitives import Drawing, Item, Layer, Line, Pen, rectangle
from tall_plank.edits.things.guide import move_guide, set_guide
from tall_plank.job import Kind, Source
from tall_plank.job.things.table import find_thing
from tall_plank.measure import format_length
from tall_plank.measure.frames import FloorPoint
from tall_plank.setout import RoomLayout

GUIDE_PLACES = {"x": "From the left", "y": "From the south", "z": "Above the floor"}


def guide_sheet(doc: Document, thing_id: str) -> Sheet:
    """A guide line of the designer's own."""
    _, guide = find_thing(doc.job, Kind.GUIDE, thing_id)
    label = tr("From the west") if guide.axis == "x" and not guide.wall else tr(GUIDE_PLACES[guide.axis])
    row = length_row(doc, "at", label, guide.at, lambda job, t: set_guide(job, thing_id, t))
    where = {"x": tr("upright"), "y": tr("across the plan"), "z": tr("level, through every wall")}[guide.axis]
    where = f"{where}, {tr('wall')} {guide.wall}" if guide.wall else where
    return Sheet(tr("Guide line"), where, (Group(tr("Place"), (row,)),))


def _picture_upright() -> Drawing:
    items: list[Item] = [shape(rectangle(0, 0, 700, 560), "wall"), Line(260, -30, 260, 590, Pen.DASHED, Layer.OPENING)]
    return drawing_of("upright", items)


def _picture_level() -> Drawing:
    items: list[Item] = [shape(rectangle(0, 0, 700, 560), "wall"), Line(-30, 340, 730, 340, Pen.DASHED, Layer.OPENING)]
    return drawing_of("level", items)


def _picture_across() -> Drawing:
    items: list[Item] = [
        shape(rectangle(0, 0, 700, 480), "floor", Pen.WIDE),
        Line(-30, 260, 730, 260, Pen.DASHED, Layer.OPENING),
    ]
    return drawing_of("across", items)


def _on_strip(hand: Hand) -> None:
    """Up and down, or along its wall, snapped to what is there."""
    _, guide = find_thing(hand.origin, Kind.GUIDE, hand.source.id)
    if guide.axis == "z":
        at = hand.snaps.snapped_level(hand.wall_id, hand.at[1], hand.source)
    else:
        at = hand.snaps.snapped_upright(guide.wall, hand.at[0], hand.source)
    hand.document.drag(lambda job: move_guide(job, guide.id, at))


def _on_plan(hand: Hand) -> None:
    """After the pointer, on whole centimetres."""
    _, guide = find_thing(hand.origin, Kind.GUIDE, hand.source.id)
    x, y = hand.at
    at = x if guide.axis == "x" else y
    if guide.wall:
        at = hand.document.room.wall(guide.wall).frame.from_floor(FloorPoint((x, y)))[0]
    at = round(at / 10.0) * 10.0
    hand.snaps.tell_snap(format_length(at, hand.document.job.display))
    hand.document.drag(lambda job: move_guide(job, guide.id, at))


def _marks(axis: str, room: RoomLayout, wall_id: str) -> list[tuple[Source, Mark]]:
    return [
        (Kind.GUIDE.of(g.id), Mark(g.at.mm, tr("guide line")))
        for g in room.room.guides
        if g.axis == axis and (axis == "z" or g.wall == wall_id)
    ]


GUIDE = Handling(
    sheet=guide_sheet,
    offers=tuple(
        Offered(name, "Guide lines", label, f"{tr('Guide line')}: {tr(text)}", f"guide_{name}", picture, keys)
        for name, label, text, picture, keys in (
            ("upright", "On a wall", "on the wall", _picture_upright, "V"),
            ("level", "At a height", "at a height", _picture_level, "Z"),
            ("across", "Over the plan", "over the plan", _picture_across, "Y"),
        )
    ),
    on_strip=_on_strip,
    on_plan=_on_plan,
    upright=partial(_marks, "x"),
    level=partial(_marks, "z"),
    pick_on_strip=True,
)
