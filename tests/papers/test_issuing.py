"""Issued sets: frozen with a letter; what differs later is told by clouds; undone, saved and read like any decision."""

from __future__ import annotations

import io
import zipfile
from pathlib import Path

import pymupdf
import pytest

from conftest import cell_of, with_run
from tall_plank.demo import demo_job
from tall_plank.drawing.primitives import Arc, Layer, Text
from tall_plank.drawing.sheets import Sheet
from tall_plank.drawing.words import box_of
from tall_plank.edits import runs
from tall_plank.edits.things.service import add_service, delete_service
from tall_plank.files.plankfile import read_plank, write_plank
from tall_plank.job import Job, Level
from tall_plank.job.issue import LETTERS, letter_after
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.papers.about import About
from tall_plank.papers.issuing import digest_of, is_whole, issue_set, issues_of, sign_issue, with_revisions
from tall_plank.papers.sets import set_sheets
from tall_plank.papers.write_pdf import write_sheets
from tall_plank.workings import Workings


def furnished() -> Job:
    return with_run(new_job("Issued"), "A", Level.BASE, "drawers 600, pair 900, door 450")


def issued(job: Job, date: str = "2026-11-28") -> Job:
    return issue_set(Workings(job), "client", date).job


def now(job: Job) -> list[Sheet]:
    return with_revisions(job, "client", set_sheets(Workings(job), "client", "2026-12-01"))


def clouds(sheet: Sheet) -> list[Arc]:
    return [
        i for v in sheet.views for i in v.drawing.items
        if isinstance(i, Arc) and i.layer is Layer.LABEL and i.pen == "medium" and i.sweep == 180.0
    ]  # fmt: skip


def test_an_issue_is_frozen_with_its_letter_and_its_file() -> None:
    job = issued(furnished())
    (issue,) = issues_of(job, "client")
    assert (issue.letter, issue.date, issue.kind) == ("A", "2026-11-28", "client")
    assert is_whole(issue)
    with pymupdf.open(stream=io.BytesIO(issue.data), filetype="pdf") as document:
        assert len(document) == len(issue.sheets)
        words = document[1].get_text()
        assert issue.sheets[1].number in words and "2026-11-28" in words
    # The job goes on; what was given out stays.
    later = runs.set_width(job, (cell_of(job, "A1"),), "800").job
    assert issues_of(later, "client") == [issue]


def test_what_is_the_same_keeps_its_letter_and_has_no_cloud() -> None:
    job = issued(furnished())
    for sheet in now(job):
        # Another day is no change.
        assert sheet.block.revision == "A" and sheet.block.date == "2026-12-01"
        assert not clouds(sheet)


def test_what_differs_has_a_cloud_about_it_and_a_star() -> None:
    job = issued(furnished())
    job = runs.set_width(job, (cell_of(job, "A2"),), "850").job
    changed = [s for s in now(job) if s.block.revision == "A*" and not s.title.startswith("Index")]
    assert changed
    wall = next(s for s in changed if any("wall A" in v.drawing.title for v in s.views))
    view = next(v for v in wall.views if "wall A" in v.drawing.title)
    arcs = clouds(wall)
    assert arcs
    # The new figure lies inside what the arcs go round.
    figure = next(t for t in view.shown.texts if t.text == "850")
    x0, y0, x1, y1 = box_of(figure, view.scale)
    xs, ys = [a.x / view.scale for a in arcs], [a.y / view.scale for a in arcs]
    assert min(xs) <= x0 and x1 <= max(xs) and min(ys) <= y0 and y1 <= max(ys)


def test_the_next_issue_has_the_next_letter_on_what_changed_only() -> None:
    job = issued(furnished())
    with pytest.raises(PlankError, match="Nothing has changed"):
        issued(job)
    job = runs.set_width(job, (cell_of(job, "A2"),), "850").job
    job = issued(job)
    first, second = issues_of(job, "client")
    assert second.letter == "B"
    letters = {s.number: s.revision for s in second.sheets}
    before = {s.number: s.digest for s in first.sheets}
    for sheet in second.sheets:
        assert letters[sheet.number] == ("A" if before.get(sheet.number) == sheet.digest else "B")
    assert {"A", "B"} == set(letters.values())


def test_what_is_given_out_anew_has_clouds_on_the_sheets_with_the_new_letter_only(tmp_path: Path) -> None:
    job = issued(furnished())
    job = issued(runs.set_width(job, (cell_of(job, "A2"),), "850").job)
    issue = issues_of(job, "client")[-1]
    plain = tmp_path / "plain.pdf"
    write_sheets(set_sheets(Workings(job), "client", issue.date), plain, "Issued", About("Issued", "", issue.date))

    def curves(document: pymupdf.Document) -> list[int]:
        return [sum(item[0] == "c" for path in page.get_drawings() for item in path["items"]) for page in document]

    with pymupdf.open(stream=io.BytesIO(issue.data), filetype="pdf") as given, pymupdf.open(plain) as bare:
        more = [a > b for a, b in zip(curves(given), curves(bare), strict=True)]
    clouded = {s.number for s, m in zip(issue.sheets, more, strict=True) if m}
    assert clouded and clouded <= {s.number for s in issue.sheets if s.revision == "B"}
    assert any(s.number in clouded and not s.title.startswith("Index") for s in issue.sheets)


def test_letters_leave_out_those_that_read_like_figures() -> None:
    found = [letter_after(n) for n in range(50)]
    assert found[:3] == ["A", "B", "C"] and found[len(LETTERS)] == "AA"
    assert len(set(found)) == 50 and not {"I", "O"} & set("".join(found))


def test_an_issue_survives_save_and_open_and_a_changed_file_is_told(tmp_path: Path) -> None:
    job = issued(furnished())
    path = tmp_path / "i.plank"
    write_plank(job, path)
    assert read_plank(path) == job
    with zipfile.ZipFile(path) as archive:
        assert "issued/client-A.pdf" in archive.namelist()
        files = {i.filename: archive.read(i) for i in archive.infolist()}
    files["issued/client-A.pdf"] = files["issued/client-A.pdf"].replace(b"%PDF", b"%FDP", 1)
    with zipfile.ZipFile(path, "w") as archive:
        for name, data in files.items():
            archive.writestr(name, data)
    with pytest.raises(PlankError, match="missing or was changed"):
        read_plank(path)
    del files["issued/client-A.pdf"]
    with zipfile.ZipFile(path, "w") as archive:
        for name, data in files.items():
            archive.writestr(name, data)
    with pytest.raises(PlankError, match="missing or was changed"):
        read_plank(path)


def test_a_digest_says_nothing_of_the_day_but_of_every_word() -> None:
    job = furnished()
    one = set_sheets(Workings(job), "installer", "2026-11-28")
    two = set_sheets(Workings(job), "installer", "2026-12-24")
    assert [digest_of(s) for s in one] == [digest_of(s) for s in two]
    three = set_sheets(Workings(runs.set_width(job, (cell_of(job, "A3"),), "451").job), "installer", "2026-11-28")
    assert any(digest_of(a) != digest_of(b) for a, b in zip(one[1:], three[1:], strict=True))


def test_another_kind_of_set_is_refused() -> None:
    with pytest.raises(PlankError, match="no set"):
        issue_set(Workings(furnished()), "moon", "2026-11-28")


def test_words_of_a_cloud_stay_clear_of_nothing_they_hide() -> None:
    job = runs.set_width(issued(furnished()), (cell_of(furnished(), "A2"),), "850").job
    for sheet in now(job):
        for view in sheet.views:
            words = [t for t in view.drawing.items if isinstance(t, Text)]
            assert len([t for t in view.shown.words if isinstance(t, Text)]) == len(words)


def test_what_is_signed_is_hashed_with_name_and_day_and_told_where_it_is_another(tmp_path: Path) -> None:
    """By hand: SHA-256 of the file's seal, the name and the day, a line each."""
    import hashlib
    import json

    with pytest.raises(PlankError, match="Nothing was issued"):
        sign_issue(furnished(), "client", "M. Harrow", "2026-12-01")
    job = sign_issue(issued(furnished()), "client", "  M.  Harrow ", "2026-12-01").job
    (issue,) = issues_of(job, "client")
    wanted = hashlib.sha256(f"{hashlib.sha256(issue.data).hexdigest()}\nM. Harrow\n2026-12-01".encode()).hexdigest()
    assert (issue.signed_by, issue.signature) == ("M. Harrow", wanted) and is_whole(issue)
    with pytest.raises(PlankError, match="was signed by M"):
        sign_issue(job, "client", "Another", "2026-12-02")
    with pytest.raises(PlankError, match="needs a name"):
        sign_issue(issued(furnished()), "client", " ", "2026-12-02")
    path = tmp_path / "s.plank"
    write_plank(job, path)
    assert read_plank(path) == job
    with zipfile.ZipFile(path) as archive:
        files = {i.filename: archive.read(i) for i in archive.infolist()}
    told = json.loads(files["job.json"])
    told["job"]["issues"][0]["signed_by"] = "Somebody else"
    files["job.json"] = json.dumps(told).encode()
    with zipfile.ZipFile(path, "w") as archive:
        for name, data in files.items():
            archive.writestr(name, data)
    with pytest.raises(PlankError, match="does not belong"):
        read_plank(path)


def test_what_was_taken_off_has_a_cloud_where_it_stood() -> None:
    job = issued(add_service(furnished(), "r1", "A", "vent", 2600.0).job)
    before = next(s for s in now(job) if any("wall A" in v.drawing.title for v in s.views))
    view = next(v for v in before.views if "wall A" in v.drawing.title)
    stood = next(t for t in view.shown.texts if t.text == "Ve")
    job = delete_service(job, job.rooms[0].services[0].id).job
    after = next(s for s in now(job) if any("wall A" in v.drawing.title for v in s.views))
    arcs = clouds(after)
    scale = view.scale
    near = 8.0 * scale
    assert any(abs(a.x - stood.x) < near and abs(a.y - stood.y) < near for a in arcs)


def test_only_the_last_issue_keeps_what_it_is_compared_by() -> None:
    job = issued(furnished())
    job = runs.set_width(job, (cell_of(job, "A2"),), "850").job
    job = issue_set(Workings(job), "site", "2026-12-01").job
    job = issued(job, "2026-12-02")
    first, last = issues_of(job, "client")
    assert not any(s.marks or s.places for s in first.sheets) and any(s.marks for s in last.sheets)
    assert is_whole(first) and first.data
    (site,) = issues_of(job, "site")
    assert any(s.marks for s in site.sheets)


@pytest.mark.parametrize("kind", ["client", "site"])
def test_a_set_of_a_whole_job_is_issued_saved_opened_and_compared(kind: str, tmp_path: Path) -> None:
    """Sheets with thousands of lines on them are issued like small ones."""
    job = issue_set(Workings(demo_job()), kind, "2026-12-02").job
    (issue,) = issues_of(job, kind)
    assert max(len(s.marks) for s in issue.sheets) > (4000 if kind == "client" else 800)
    write_plank(job, tmp_path / "j.plank")
    back = read_plank(tmp_path / "j.plank")
    assert back.issues == job.issues
    again = with_revisions(back, kind, set_sheets(Workings(back), kind))  # type: ignore[arg-type]
    assert {s.block.revision for s in again} == {"A"}
