"""Doors, windows, open passages and niches in the window."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Row, Sheet, length_row, setter, yes_no, yes_no_choices
from tall_plank.desk.things.dragging import along_wall, on_floor, sides_of
from tall_plank.desk.things.handling import Handling, Mark, Offered, drawing_of, shape
from tall_plank.drawing.primitives import Drawing, Item, Layer, Line, Pen, rectangle
from tall_plank.edits.things.opening import set_opening
from tall_plank.job import Kind, Source
from tall_plank.job.things.table import find_thing
from tall_plank.setout import RoomLayout


def opening_sheet(doc: Document, thing_id: str) -> Sheet:
    """A door, window, passage or niche."""
    room, opening = find_thing(doc.job, Kind.OPENING, thing_id)
    rows = [
        Row(
            "wall",
            tr("Wall"),
            opening.wall,
            choices=tuple((w, w) for w in room.wall_ids()),
            apply=lambda job, t: set_opening(job, thing_id, "wall", t),
        ),
    ]
    keys = [("x", tr("From the left")), ("width", tr("Width")), ("height", tr("Height")), ("sill", tr("Sill"))]
    if opening.kind in ("door", "window"):
        keys.append(("reveal", tr("Reveal")))
    if opening.kind == "niche":
        keys.append(("depth", tr("Depth")))
    for key, label in keys:
        rows.append(
            length_row(
                doc,
                key,
                label,
                getattr(opening, key),
                setter(set_opening, thing_id, key),
            )
        )
    if opening.kind == "door":
        for key, label, options in (("hand", tr("Hinges"), ("left", "right")), ("swing", tr("Opens"), ("in", "out"))):
            rows.append(
                Row(
                    key,
                    label,
                    tr(getattr(opening, key)),
                    choices=tuple((c, tr(c)) for c in options),
                    apply=setter(set_opening, thing_id, key),
                )
            )
    profiles = doc.job.stock.profiles
    offered = [p for p in profiles if "casing" in p.uses] or list(profiles)
    profile = doc.job.stock.profile(opening.casing)
    rows.append(
        Row(
            "casing",
            tr("Casing"),
            profile.name if profile is not None else tr("none"),
            choices=(("", tr("none")), *((p.code, p.name) for p in offered)),
            apply=setter(set_opening, thing_id, "casing"),
        )
    )
    if opening.casing:
        others = yes_no(opening.casing_by_others)
        apply = setter(set_opening, thing_id, "casing_by_others")
        rows.append(Row("casing_by_others", tr("Casing by others"), others, choices=yes_no_choices(), apply=apply))
    return Sheet(tr(opening.kind.capitalize()), f"{tr('wall')} {opening.wall}", (Group(tr("Size"), tuple(rows)),))


def _picture_door() -> Drawing:
    items: list[Item] = [
        shape(rectangle(0, 0, 400, 760), "opening"),
        shape(rectangle(36, 0, 328, 724), "door", Pen.NARROW),
        Line(290, 360, 335, 360, Pen.MEDIUM, Layer.OPENING),
    ]
    return drawing_of("door", items)


def _picture_window() -> Drawing:
    items: list[Item] = [
        shape(rectangle(0, 0, 700, 560), "opening"),
        shape(rectangle(36, 36, 628, 488), "glass", Pen.NARROW),
        Line(350, 36, 350, 524, Pen.NARROW, Layer.OPENING),
    ]
    return drawing_of("window", items)


def _picture_arch() -> Drawing:
    items: list[Item] = [shape(rectangle(0, 0, 480, 760), "opening"), shape(rectangle(0, 0, 480, 760), "", Pen.DASHED)]
    return drawing_of("arch", items)


def _picture_niche() -> Drawing:
    items: list[Item] = [
        shape(rectangle(0, 0, 500, 620), "niche"),
        shape(rectangle(45, 45, 410, 530), "opening", Pen.NARROW),
    ]
    return drawing_of("niche", items)


def _level(room: RoomLayout, wall_id: str) -> list[tuple[Source, Mark]]:
    """Sills and heads."""
    found: list[tuple[Source, Mark]] = []
    for o in room.room.openings:
        if o.wall == wall_id:
            found += [
                (Kind.OPENING.of(o.id), Mark(o.sill.mm, f"{tr('sill of')} {tr(o.kind)}")),
                (Kind.OPENING.of(o.id), Mark(o.sill.mm + o.height.mm, f"{tr('head of')} {tr(o.kind)}")),
            ]
    return found


PICTURES = {"door": _picture_door, "window": _picture_window, "arch": _picture_arch, "niche": _picture_niche}
WORDS = {"arch": "open passage"}


OPENING = Handling(
    sheet=opening_sheet,
    offers=tuple(
        Offered(
            name,
            "Openings",
            WORDS.get(name, name).capitalize(),
            f"{tr(WORDS.get(name, name))} {tr('in the wall')}",
            f"place_opening_{name}",
            picture,
        )
        for name, picture in PICTURES.items()
    ),
    on_strip=along_wall,
    on_plan=on_floor,
    in_model=True,
    upright=sides_of(Kind.OPENING),
    level=_level,
    outlined=True,
    pick_on_strip=True,
)
