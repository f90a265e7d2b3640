"""What the spec sheet says of a set of sliding doors: leaves, overlap, and the make-up of each leaf."""

from __future__ import annotations

from collections.abc import Callable

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Row, Sheet, length_text, optional_row, setter, setting
from tall_plank.desk.things.handling import Handling
from tall_plank.edits import Change
from tall_plank.edits.things.sliding import (
    copy_leaf,
    fillings,
    find_sliding,
    set_band,
    set_band_count,
    set_line,
    set_sliding,
)
from tall_plank.job import Job, Kind, SlidingDoors
from tall_plank.job.inherit import construction_of
from tall_plank.job.things.sliding import Leaf
from tall_plank.making.sliding import MadeSliding
from tall_plank.measure import told_in
from tall_plank.shop.cutlist import natural


def _copier(name: str, i: int) -> Callable[[Job, str], Change]:
    return lambda job, _: copy_leaf(job, name, i)


def sliding_sheet(doc: Document, thing_id: str) -> Sheet:
    """The sheet of the selected set."""
    name = thing_id
    run, doors = find_sliding(doc.job, name)
    made = next((s for s in doc.workings.made.sliding if s.source == Kind.SLIDING.of(name)), None)
    unit = doc.job.unit(doc.job.find_cell(doors.first.cell)[2].unit)
    overlap = construction_of(doc.job, unit).slide_overlap
    rows = [
        Row(
            "leaves",
            tr("Leaves"),
            str(len(doors.leaves)),
            apply=lambda job, t: set_sliding(job, name, "leaves", t),
        ),
        optional_row(
            doc,
            "overlap",
            tr("Overlap"),
            doors.overlap,
            length_text(doc, overlap),
            tr("from the standard"),
            lambda job, t: set_sliding(job, name, "overlap", t),
        ),
    ]
    if made is not None:
        rows.append(Row("opening", tr("Opening"), _size(doc, made.width, made.height)))
        if made.leaves:
            rows.append(Row("leaf_size", tr("Each leaf"), _size(doc, made.leaves[0].width, made.leaf_height)))
    groups = [Group(tr("Doors"), tuple(rows))]
    for i, leaf in enumerate(doors.leaves):
        mine = _leaf_rows(doc, name, doors, made, i, leaf)
        groups.append(Group(f"{tr('Leaf')} {i + 1}", tuple(mine)))
    if made is not None and made.problems:
        told = [told_in(p.what, doc.job.display) for p in made.problems]
        groups.append(Group(tr("Snags"), tuple(Row(f"problem{i}", what, "") for i, what in enumerate(told))))
    numbers = dict.fromkeys(doc.job.find_cell(ref.cell)[2].number for ref in doors.bays)
    where = f"{tr('before')} {', '.join(sorted(numbers, key=natural))}, {tr(doc.room.wall(run.wall).title)}"
    return Sheet(tr("Sliding doors"), where, tuple(groups))


def _leaf_rows(
    doc: Document, name: str, doors: SlidingDoors, made: MadeSliding | None, i: int, leaf: Leaf
) -> list[Row]:
    """The line of a leaf, its bands with their fillings and heights, and giving its make-up to the others."""
    choices = fillings(doc.job)
    lines = (("", tr("in turns")), ("front", tr("in front")), ("rear", tr("behind")))
    mine = [
        Row(
            f"line{i}",
            tr("Runs"),
            dict(lines)[leaf.line] if leaf.line else lines[1 + doors.line_of(i)][1],
            "own" if leaf.line else "inherited",
            choices=lines,
            apply=setter(set_line, name, i),
        ),
        Row(
            f"bands{i}",
            tr("Bands"),
            str(len(leaf.bands)),
            apply=setter(set_band_count, name, i),
        ),
    ]
    for k, band in enumerate(leaf.bands):
        mine.append(
            Row(
                f"band{i}_{k}",
                f"{tr('Band')} {k + 1}",
                dict(choices).get(band.finish, band.finish),
                choices=choices,
                apply=setter(set_band, name, i, k, "finish"),
            )
        )
        if len(leaf.bands) > 1:
            height = made.leaves[i].bands[k].height if made is not None and made.leaves else 0.0
            mine.append(
                Row(
                    f"band_size{i}_{k}",
                    tr("its height"),
                    length_text(doc, height),
                    "own" if band.size is not None else "inherited",
                    "" if band.size is not None else tr("a share of what is left"),
                    apply=setter(set_band, name, i, k, "size"),
                    revert=setting(set_band, name, i, k, "size", "") if band.size is not None else None,
                )
            )
    if len(doors.leaves) > 1:
        mine.append(
            Row(
                f"copy{i}",
                tr("Make-up"),
                tr("this leaf"),
                "inherited",
                choices=(("all", tr("the same for all leaves")),),
                apply=_copier(name, i),
            )
        )
    return mine


def _size(doc: Document, width: float, height: float) -> str:
    return f"{length_text(doc, width)} × {length_text(doc, height)}"


SLIDING = Handling(sheet=sliding_sheet, outlined=True)
