"""Part sheets: every part that the shop makes with all that is machined into it, several to a page; parts that are the
same piece once."""

from __future__ import annotations

from collections.abc import Iterator

import msgspec

from tall_plank.drawing.part import part_drawing
from tall_plank.drawing.primitives import Drawing
from tall_plank.drawing.sheets import Sheet, share
from tall_plank.papers.drawings import SHOP, UNITS, Tell, block_of, go_on, notes_of, quietly
from tall_plank.shop.cutlist import natural
from tall_plank.workings import Workings


def part_drawings(w: Workings) -> list[Drawing]:
    """A drawing of each piece of the cut list, in the order of their numbers."""
    parts = {item.number: item.part for item in w.made.parts()}
    rows = sorted((row.numbers for row in w.cut_rows), key=lambda numbers: natural(numbers[0]))
    return [part_drawing(numbers[0], parts[numbers[0]], w.job.display, alike=numbers[1:]) for numbers in rows]


def part_sheets(w: Workings, date: str = "", tell: Tell = quietly) -> list[Sheet]:
    """Every piece of the cut list on sheets, those of a unit together."""
    groups: dict[str, list[Drawing]] = {}
    for drawing in part_drawings(w):
        groups.setdefault(drawing.mark.rsplit(".", 1)[0], []).append(drawing)
    return list(_titled(w, groups, date, tell))


def _titled(w: Workings, groups: dict[str, list[Drawing]], date: str, tell: Tell) -> Iterator[Sheet]:
    paper = w.job.papers.drawings
    found: list[tuple[str, int, Sheet]] = []
    for unit, drawings in groups.items():
        go_on(tell, f"parts of {unit}")
        found += [(unit, i, sheet) for i, sheet in enumerate(share(drawings, paper), 1)]
    for number, (unit, i, sheet) in enumerate(found, 1):
        drawings = [view.drawing for view in sheet.views]
        title = f"Parts of {unit}: {', '.join(d.title.split(' ', 1)[1] for d in drawings)}"
        mark = f"{unit}.{i}"
        block = block_of(w, title, mark, kind=SHOP, number=number, of=len(found), date=date)
        exact = w.job.display.exact
        block = msgspec.structs.replace(block, units=UNITS[exact])
        yield msgspec.structs.replace(sheet, block=block, notes=(*notes_of(drawings, exact), PLACES))


PLACES = (
    "Places from W1 along the length and from L1 across it; in an edge, through the thickness from face B. "
    "A line outside an edge with two ticks: edged."
)
