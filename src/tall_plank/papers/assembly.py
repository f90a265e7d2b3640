"""Assembly sheets: every kind of unit in steps, apart, with what is bought for each step."""

from __future__ import annotations

import msgspec

from tall_plank.drawing.assembly import step_drawings
from tall_plank.drawing.sheets import Sheet, together
from tall_plank.papers.drawings import SHOP, Tell, block_of, go_on, quietly
from tall_plank.papers.unitsheets import alike_units
from tall_plank.workings import Workings

NOTES = ("Wide lines: the parts of the step. Numbers are those of the cut list and of the labels.",)


def assembly_sheets(w: Workings, date: str = "", tell: Tell = quietly) -> list[Sheet]:
    """The steps of every unit with more than one part, units that are made alike once."""
    found: list[tuple[list[str], str, int, Sheet]] = []
    for numbers, p, unit in alike_units(w):
        if len(unit.shown) < 2:
            continue
        go_on(tell, f"{numbers[0]} in steps")
        name = w.job.template(p.template).name
        drawings = step_drawings(numbers[0], unit, w.job.stock)
        sheets = together([(d, d.scale) for d in drawings], w.job.papers.drawings)
        found += [(numbers, name, i, sheet) for i, sheet in enumerate(sheets, 1)]
    made = []
    for n, (numbers, name, i, sheet) in enumerate(found, 1):
        more = f", the same as {', '.join(numbers[1:])}" if len(numbers) > 1 else ""
        title = f"Assembly of {numbers[0]} {name}{more}"
        mark = f"M{numbers[0]}" + (f".{i}" if i > 1 else "")
        block = block_of(w, title, mark, kind=SHOP, number=n, of=len(found), date=date)
        made.append(msgspec.structs.replace(sheet, block=block, notes=NOTES))
    return made
