"""What the spec sheet says, as rows."""

from __future__ import annotations

import pytest

from conftest import cell_of
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Row, Sheet
from tall_plank.desk.spec.sheets import sheet_for
from tall_plank.edits import units
from tall_plank.edits.things.opening import add_opening
from tall_plank.files.userdata import UserFolders
from tall_plank.job import Job, Kind


@pytest.fixture
def doc(qapp, job: Job, folders: UserFolders) -> Document:
    return Document(job, folders)


def row(sheet: Sheet, key: str) -> Row:
    return next(r for g in sheet.groups for r in g.rows if r.key == key)


def keys(sheet: Sheet) -> set[str]:
    return {r.key for g in sheet.groups for r in g.rows}


def test_a_unit_shows_size_bays_fronts_finish_and_what_it_is_made_of(doc: Document, job: Job) -> None:
    doc.select((Kind.CELL.of(cell_of(job, "A2")),))
    sheet = sheet_for(doc, "units")
    assert sheet.title == "A2 · Drawers"
    assert keys(sheet) >= {"kind", "width", "rule", "height", "drawers", "bay0", "front_style", "handle", "finish_front",
                           "clear", "parts", "fittings", "weight", "cost"}  # fmt: skip
    assert row(sheet, "clear").text == "564"
    assert row(sheet, "bay0").origin == "own"
    assert row(sheet, "bay1").origin == "inherited"
    assert row(sheet, "parts").apply is None


def test_a_filler_and_a_gap_show_only_what_they_have(doc: Document, job: Job) -> None:
    doc.select((Kind.CELL.of(cell_of(job, "A1")),))
    assert "front_style" not in keys(sheet_for(doc, "units"))
    gap = next(c.id for c in job.cells() if not c.number)
    doc.select((Kind.CELL.of(gap),))
    sheet = sheet_for(doc, "units")
    assert sheet.title == "Hung gap"
    assert keys(sheet) == {"kind", "width", "rule", "anchor", "label", "locked", "hidden"}


def test_units_of_two_levels_share_no_kind(doc: Document, job: Job) -> None:
    doc.select((Kind.CELL.of(cell_of(job, "A2")), Kind.CELL.of(cell_of(job, "A7"))))
    sheet = sheet_for(doc, "units")
    assert sheet.title == "2 units"
    assert "kind" not in keys(sheet)
    assert row(sheet, "height").text == "various"


def test_a_problem_is_told_on_the_sheet(doc: Document, job: Job) -> None:
    cell = cell_of(job, "A2")
    doc.do(lambda j: units.set_own(j, (cell,), "depth", "150"))
    doc.select((Kind.CELL.of(cell),))
    assert "No runner fits" in row(sheet_for(doc, "units"), "problem0").label


def test_every_row_that_can_be_typed_takes_its_own_text_without_changing_anything(doc: Document, job: Job) -> None:
    change = add_opening(job, "r1", "C", "door")
    doc.do(lambda _: change)
    picks = [(), (Kind.CELL.of(cell_of(job, 'A2')),), (Kind.CELL.of(cell_of(job, 'A5')),), (Kind.OPENING.of(change.made[0]),),
             (Kind.RUN.of(job.rooms[0].runs[1].id),)]  # fmt: skip
    tried = 0
    for pick in picks:
        doc.select(pick)
        for stage in ("room", "units", "finish", "shop", "offer"):
            for group in sheet_for(doc, stage).groups:
                for line in group.rows:
                    if line.apply is None or line.key in ("value_new", "drawers") or line.origin == "inherited":
                        continue
                    text = next((code for code, label in line.choices if label == line.text), line.text)
                    if line.choices and text == line.text and text not in dict(line.choices):
                        continue
                    made = line.apply(doc.job, text).job
                    old, new = doc.workings.layout.placed, type(doc.workings)(made).layout.placed
                    assert new == old, (stage, line.key)
                    tried += 1
    assert tried > 100


def test_the_shop_stage_shows_the_saw_and_what_each_material_takes(doc: Document) -> None:
    sheet = sheet_for(doc, "shop")
    assert {"mode", "kerf", "trim", "turns", "first_cut", "effort", "seconds"} <= keys(sheet)
    used = {r.label: r.text for g in sheet.groups for r in g.rows if r.key.startswith("material")}
    boards = doc.workings.plan.boards
    assert set(used) == {b.material for b in boards}
    assert sum(int(text.split(" ")[0]) for text in used.values()) == len(boards)


def test_a_named_rule_says_its_text(doc: Document) -> None:
    line = row(sheet_for(doc, "room"), "value_hung_bottom")
    assert line.origin == "inherited"
    assert "plinth + base_height" in line.source
