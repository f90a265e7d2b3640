"""Islands and peninsulas in the window."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import (
    Apply,
    Group,
    Row,
    Sheet,
    length_row,
    length_text,
    setter,
    yes_no,
    yes_no_choices,
)
from tall_plank.desk.things.handling import Hand, Handling, drawing_of, placed_by, shape
from tall_plank.desk.things.worktop import top_groups
from tall_plank.drawing.primitives import Drawing, Item, Layer, Line, Pen, rectangle
from tall_plank.edits.things.island import ENDS, find_island, move_island, set_aisle, set_island, set_whole
from tall_plank.job import Island, Kind
from tall_plank.setout import set_out
from tall_plank.setout.clear import aisles_of, whole_of


def island_sheet(doc: Document, thing_id: str) -> Sheet:
    """An island or peninsula with its worktop."""
    room, island = find_island(doc.job, thing_id)
    walls = (("", tr("free standing")), *((w, f"{tr('wall')} {w}") for w in room.wall_ids()))

    def set_it(key: str) -> Apply:
        return setter(set_island, thing_id, key)

    place = [
        Row(
            "wall",
            tr("Starts at"),
            f"{tr('wall')} {island.wall}" if island.wall else tr("free standing"),
            choices=walls,
            apply=set_it("wall"),
        ),
        length_row(doc, "x", tr("From the left") if island.wall else tr("From the west"), island.x, set_it("x")),
    ]
    if not island.wall:
        place += [
            length_row(doc, "y", tr("From the south"), island.y, set_it("y")),
            Row("angle", tr("Angle"), f"{island.angle:g}°", apply=set_it("angle")),
        ]
    place += [
        length_row(doc, "length", tr("Length of its line"), island.length, set_it("length")),
        length_row(doc, "gap", tr("Between the backs"), island.gap, set_it("gap")),
        length_row(doc, "seating", tr("Seating overhang"), island.seating, set_it("seating")),
    ]
    whole = whole_of(doc.room, island)
    if whole is not None:
        place += [
            Row("whole_length", tr("Whole length"), length_text(doc, whole[0]), apply=set_whole_of(thing_id, "length")),
            Row("whole_depth", tr("Whole depth"), length_text(doc, whole[1]), apply=set_whole_of(thing_id, "depth")),
        ]
    ends = tuple((e, tr(e)) for e in ENDS)
    closing = [
        Row(side, label, tr(getattr(island, side)), choices=ends, apply=set_it(side))
        for side, label in (("left", tr("Left end")), ("right", tr("Right end")))
    ] + [
        Row(key, label, yes_no(getattr(island, key)), choices=yes_no_choices(), apply=set_it(key))
        for key, label in (("back", tr("Back panel")), ("spine", tr("Dividing panel")))
    ]
    kind = tr("Peninsula") if island.wall else tr("Island")
    groups = [Group(tr("Place"), tuple(place)), _aisles(doc, island), Group(tr("Closed by"), tuple(closing))]
    groups += top_groups(doc, Kind.ISLAND.of(thing_id))
    return Sheet(f"{kind} {island.letter}", tr("seen from face 1"), tuple(g for g in groups if g.rows))


def set_whole_of(island_id: str, key: str) -> Apply:
    return setter(set_whole, island_id, key)


def _aisles(doc: Document, island: Island) -> Group:
    """Clear floor on every side of an island, to what stands there or to the wall."""
    rows = tuple(
        Row(
            f"aisle{i}",
            f"{tr(side)} {tr('to')} {to}",
            length_text(doc, mm),
            apply=setter(set_aisle, island.id, side.lower()),
        )
        for i, (side, mm, to) in enumerate(aisles_of(doc.room, island))
    )
    return Group(tr("Aisles"), rows)


def _picture_island() -> Drawing:
    items: list[Item] = [
        shape(rectangle(0, 0, 700, 360), "floor", Pen.WIDE),
        shape(rectangle(20, 150, 660, 190), "unit", Pen.NARROW),
        Line(240, 150, 240, 340, Pen.NARROW, Layer.OPENING),
        Line(460, 150, 460, 340, Pen.NARROW, Layer.OPENING),
    ]
    return drawing_of("island", items)


def _picture_peninsula() -> Drawing:
    items: list[Item] = [
        shape(rectangle(0, 0, 100, 500), "masonry", Pen.WIDE),
        shape(rectangle(100, 110, 600, 280), "floor", Pen.WIDE),
        shape(rectangle(110, 220, 580, 160), "unit", Pen.NARROW),
    ]
    return drawing_of("peninsula", items)


def _on_plan(hand: Hand) -> None:
    """Over the floor: in the middle of the room and on guide lines where it is near, else on whole centimetres."""
    dx, dy = _snapped(hand)
    hand.document.drag(lambda job: move_island(job, hand.source.id, dx, dy))


def _snapped(hand: Hand) -> tuple[float, float]:
    dx, dy = hand.by
    hand.snaps.tell_snap("")
    room = set_out(hand.origin).room(hand.document.room_id)
    _, island = find_island(hand.origin, hand.source.id)
    if island.wall:
        return dx, dy
    own = [w for w in room.worktops if w.source == hand.source]
    line = next(f for f in room.faces if f.island == island.id)
    points = [line.frame.at(x, -out, 0.0) for top in own for x, out in top.points]
    step = (round(dx / 10.0) * 10.0, round(dy / 10.0) * 10.0)
    if not points:
        return step
    size = room.size
    found = list(step)
    for k, delta in ((0, dx), (1, dy)):
        middle = (min(p[k] for p in points) + max(p[k] for p in points)) / 2
        if abs(middle + delta - size[k] / 2) * hand.scale < 7.0:
            found[k] = size[k] / 2 - middle
            hand.snaps.tell_snap(tr("middle of the room"))
        sides = (min(p[k] for p in points), middle, max(p[k] for p in points))
        for guide in hand.document.room.room.guides:
            if guide.wall or guide.axis != "xy"[k]:
                continue
            near = [side for side in sides if abs(side + delta - guide.at.mm) * hand.scale < 7.0]
            if near:
                found[k] = guide.at.mm - near[0]
                hand.snaps.tell_snap(tr("guide line"))
    return found[0], found[1]


ISLAND = Handling(
    sheet=island_sheet,
    offers=(
        placed_by("island", "Islands", _picture_island, keys="I"),
        placed_by("peninsula", "Islands", _picture_peninsula),
    ),
    on_plan=_on_plan,
    outlined=True,
)
