"""Pages composed by hand: views, tables, pictures and notes, each where it was put."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from itertools import combinations

from tall_plank.assets import text_width
from tall_plank.drawing.primitives import Drawing, Item, Layer, Pen, Shape, Text, rectangle
from tall_plank.drawing.sheets import CAPTION, Block, Sheet, View, caption_of, room_of, scales_of
from tall_plank.drawing.shown import shown
from tall_plank.job.sheetset import NOTE, PICTURE, OwnPage, PageView
from tall_plank.workings import Workings

LINE = 5.0
"""mm of paper from one line of a note to the next."""

NOTE_SIZE = 2.5
"""mm; height of a note's capitals."""


def page_sheet(w: Workings, page: OwnPage, drawings: Mapping[str, Drawing]) -> Sheet:
    """A page with its views, those that are gone as words in their place."""
    views = tuple(_view(w, v, drawings, alone=len(page.views) < 2) for v in page.views)
    return Sheet(views, w.job.papers.drawings, Block(page.title), (), page.upright)


def _view(w: Workings, view: PageView, drawings: Mapping[str, Drawing], *, alone: bool) -> View:
    if (picture := _picture(w, view)) is not None:
        return picture
    drawing = view_drawing(view, drawings)
    scale = drawing.scale or view.scale
    seen = shown(drawing, scale)
    caption = "" if alone else caption_of(drawing, scale)
    return View(drawing, scale, view.x - seen.x0 / scale, view.y - seen.y0 / scale, caption)


def view_drawing(view: PageView, drawings: Mapping[str, Drawing]) -> Drawing:
    """What stands in a view's place."""
    if view.what == NOTE:
        return note_drawing(view.text)
    if view.what in drawings:
        return drawings[view.what]
    return note_drawing(f"No longer there: {view.text or view.what}. Take it off the page, or put something else here.")


def _picture(w: Workings, view: PageView) -> View | None:
    """An image of the job in a view's place, as wide as the view says; None where it shows none."""
    picture = next((p for p in w.job.pictures if view.what == PICTURE + p.name), None)
    if picture is None:
        return None
    box = rectangle(0.0, 0.0, view.scale, view.scale * picture.high / picture.wide)
    drawing = Drawing(view.text or "picture", (Shape(box, Pen.NONE, Layer.LABEL),), *box[0], *box[2], scale=1.0)
    return View(drawing, 1.0, view.x, view.y, image=picture.data)


def note_drawing(text: str) -> Drawing:
    """Lines of words, mm of paper."""
    lines = text.split("\n")
    items: list[Item] = [
        Text(0.0, -LINE * i, line, NOTE_SIZE, Layer.LABEL, align="left", rise=-NOTE_SIZE)
        for i, line in enumerate(lines)
        if line
    ]
    wide = max(text_width(line, NOTE_SIZE) for line in lines)
    return Drawing(text.split("\n")[0], tuple(items), 0.0, -LINE * len(lines), max(wide, 10.0), 0.0, scale=1.0)


def box_on(view: View) -> tuple[float, float, float, float]:
    """What a view takes of its sheet: left, lower, right and upper edge, mm."""
    seen = view.shown
    return (*view.at(seen.x0, seen.y0 - (CAPTION * view.scale if view.caption else 0.0)), *view.at(seen.x1, seen.y1))


def fitting_scale(drawing: Drawing, paper: str, *, upright: bool, least: float = 0.0) -> float | None:
    """The largest standard scale at which a drawing stands on a page; None where none is small enough.

    Parameters
    ----------
    least : real mm per mm of paper; no larger scale is taken
    """
    room = room_of(paper, upright=upright)
    for step in scales_of(drawing):
        if step < least:
            continue
        seen = shown(drawing, float(step))
        if (seen.x1 - seen.x0) / step <= room.width and (seen.y1 - seen.y0) / step + CAPTION <= room.height:
            return float(step)
    return None


def faults_of(sheet: Sheet) -> list[str]:
    """What is wrong with a page, in words: views that run beyond the frame, or over one another."""
    room = room_of(sheet.paper, upright=sheet.upright)
    boxes = [(v.drawing.title, box_on(v)) for v in sheet.views]
    found = [
        f"{title} runs beyond the frame"
        for title, (x0, y0, x1, y1) in boxes
        if x0 < room.x - 0.5 or y0 < room.y - 0.5 or x1 > room.x + room.width + 0.5 or y1 > room.y + room.height + 0.5
    ]
    found += [f"{a} and {b} overlap" for (a, p), (b, q) in combinations(boxes, 2) if _overlap(p, q)]
    return found


def _overlap(a: Iterable[float], b: Iterable[float]) -> bool:
    ax0, ay0, ax1, ay1 = a
    bx0, by0, bx1, by1 = b
    return ax0 < bx1 - 0.5 and bx0 < ax1 - 0.5 and ay0 < by1 - 0.5 and by0 < ay1 - 0.5
