"""Pages composed by hand beside sheets that lay themselves out: whatever was decided, every drawing of a set stands on
one sheet and no other, numbers are never given twice, and nothing is lost by saving."""

from __future__ import annotations

import io
import random
from pathlib import Path

import ezdxf
import pymupdf
import pytest
from PIL import Image

from conftest import with_run
from tall_plank.drawing.primitives import Text
from tall_plank.drawing.sheets import PAPER, Block, Sheet, images_of, room_of
from tall_plank.edits import jobs, outline, papers, sheetsets
from tall_plank.edits.change import Change
from tall_plank.edits.outline import delete_room
from tall_plank.edits.things.detail import add_detail, delete_detail
from tall_plank.edits.things.section import add_section
from tall_plank.files.dxf import write_dxf
from tall_plank.files.plankfile import job_bytes, job_from_bytes
from tall_plank.files.svg import write_svg
from tall_plank.job import Job, Level
from tall_plank.job.sheetset import PageView
from tall_plank.job.start import new_job
from tall_plank.measure import DisplayUnit, PlankError
from tall_plank.papers.drawings import quietly
from tall_plank.papers.issuing import issue_set, with_revisions
from tall_plank.papers.ownpages import box_on, faults_of, fitting_scale
from tall_plank.papers.setcontent import set_content
from tall_plank.papers.sets import KINDS, MARKS, Laid, in_order, laid_out, set_sheets
from tall_plank.papers.write_pdf import write_sheets
from tall_plank.workings import Workings


def furnished() -> Job:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, pair 900")
    return with_run(outline.add_room(job).job, "B", Level.HUNG, "pair 900")


def keys_of(job: Job, kind: str) -> list[str]:
    content = set_content(Workings(job), kind, quietly)  # type: ignore[arg-type]
    return [d.key for group in content if isinstance(group, tuple) for d in group]


def check(job: Job, kind: str) -> None:
    w = Workings(job)
    content = set_content(w, kind, quietly)  # type: ignore[arg-type]
    wanted = [d.key for group in content if isinstance(group, tuple) for d in group]
    assert len(set(wanted)) == len(wanted) and all(wanted), "a drawing has no key of its own"
    laid = laid_out(w, kind, content, everything=True)  # type: ignore[arg-type]
    shown = [v.drawing.key for s in laid for v in s.sheet.views if v.drawing.key]
    own = job.sheet_set(kind)  # type: ignore[arg-type]
    placed = [v.what for p in own.pages for v in p.views if v.what in wanted]
    assert sorted(set(shown)) == sorted(wanted)
    # Twice only what was put on pages twice.
    assert len(shown) == len(set(wanted) - set(placed)) + len(placed)
    assert (
        len({s.number for s in laid}) == len(laid) == len({s.key for s in laid} | {s.number for s in laid if not s.key})
    )
    sheets = set_sheets(w, kind, "2026-12-02")  # type: ignore[arg-type]
    assert len({s.block.number for s in sheets}) == len(sheets)
    out = [s for s in laid if s.key in own.without]
    assert len([s for s in sheets if not s.title.startswith("Index")]) == len(laid) - len(out)


def an_edit(r: random.Random, job: Job, kind: str) -> Change:
    own = job.sheet_set(kind)  # type: ignore[arg-type]
    keys = keys_of(job, kind)
    page = r.choice(own.pages).id if own.pages else "g0"
    at = r.randrange(3)
    view = PageView(r.choice([*keys, "note"]), r.uniform(0, 400), r.uniform(0, 280), r.choice([10.0, 50.0]), "words")
    choices = [
        lambda: sheetsets.new_page(job, kind, [view] if r.random() < 0.5 else [], upright=r.random() < 0.3),
        lambda: sheetsets.put_on_page(job, kind, page, view),
        lambda: sheetsets.move_view(job, kind, page, at, r.uniform(-50, 500), r.uniform(-50, 500)),
        lambda: sheetsets.set_view(
            job, kind, page, at, r.choice(["scale", "x", "text"]), r.choice(["1:20", "70", "so"])
        ),
        lambda: sheetsets.take_off_page(job, kind, page, at),
        lambda: sheetsets.delete_page(job, kind, page),
        lambda: sheetsets.order_sheets(job, kind, r.sample(keys, len(keys))),
        lambda: sheetsets.leave_out(job, kind, (r.choice(keys),), out=r.random() < 0.6),
        lambda: sheetsets.set_showing(job, kind, r.choice(["color", "worktops", "joints", "labels"]), r.random() < 0.5),
        lambda: papers.set_papers(job, "drawings", r.choice(["A4", "A3", "Letter", "A1"])),
        lambda: jobs.set_display(job, r.choice([DisplayUnit.FRACTION_16, DisplayUnit.MM])),
        lambda: add_section(job, job.rooms[0].id, "x"),
        lambda: add_detail(job, job.rooms[0].id, "A"),
        lambda: outline.add_room(job),
        lambda: delete_room(job, job.rooms[-1].id),
    ]
    return r.choice(choices)()  # type: ignore[no-untyped-call]


@pytest.mark.parametrize("seed", range(3))
def test_whatever_is_decided_every_drawing_stands_on_one_sheet(seed: int) -> None:
    r, job = random.Random(seed), furnished()
    kind = r.choice(["client", "site", "installer"])
    done = 0
    for step in range(30):
        try:
            job = an_edit(r, job, kind).job
            done += 1
        except PlankError as error:
            assert str(error).strip() and error.remedy
        if step % 10 == 9:
            check(job, kind)
            assert job_from_bytes(job_bytes(job), "again").sheet_sets == job.sheet_sets
    assert done > 10


@pytest.mark.parametrize("kind", list(KINDS))
def test_an_empty_job_has_sets_that_pages_can_be_made_of(kind: str) -> None:
    job = sheetsets.new_page(new_job(), kind).job  # type: ignore[arg-type]
    sheets = set_sheets(Workings(job), kind)  # type: ignore[arg-type]
    assert any(s.title == "Empty page" and not s.views for s in sheets)
    check(job, kind) if kind != "shop" else None


@pytest.mark.parametrize("paper", list(PAPER))
def test_what_is_put_on_a_page_stands_within_its_frame(paper: str) -> None:
    job = papers.set_papers(furnished(), "drawings", paper).job
    w = Workings(job)
    drawings = {d.key: d for g in set_content(w, "client", quietly) if isinstance(g, tuple) for d in g}
    key = "r1:wall A"
    scale = fitting_scale(drawings[key], paper, upright=False)
    assert scale is not None
    room = room_of(paper)
    job = sheetsets.new_page(job, "client", [PageView(key, room.x, room.y + 6.5, scale)]).job
    (laid,) = [s for s in laid_out(Workings(job), "client", set_content(w, "client", quietly)) if s.number == "CG1"]
    assert faults_of(laid.sheet) == []
    x0, y0 = box_on(laid.sheet.views[0])[:2]
    assert (x0, y0) == (pytest.approx(room.x), pytest.approx(room.y + 6.5, abs=6.1))
    # A step larger it does not fit, and says so.
    larger = max((s for s in (1.0, 2.0, 5.0, 10.0, 20.0, 50.0) if s < scale), default=None)
    if larger is not None:
        page = job.sheet_set("client").pages[0].id
        job = sheetsets.set_view(job, "client", page, 0, "scale", f"1:{larger:g}").job
        (laid,) = [s for s in laid_out(Workings(job), "client", set_content(w, "client", quietly)) if s.number == "CG1"]
        assert any("beyond the frame" in f for f in faults_of(laid.sheet))


def test_two_views_over_one_another_are_told() -> None:
    job = furnished()
    views = [PageView("r1:P", 60.0, 90.0, 50.0), PageView("r1:wall A", 70.0, 95.0, 50.0)]
    job = sheetsets.new_page(job, "client", views).job
    w = Workings(job)
    (laid,) = [s for s in laid_out(w, "client", set_content(w, "client", quietly)) if s.number == "CG1"]
    assert any("overlap" in f for f in faults_of(laid.sheet))


@pytest.mark.parametrize(
    ("key", "text", "words"),
    [("x", "far", "mm of paper"), ("x", "1e9", "far off"), ("scale", "1:3", "standard"), ("scale", "0", "standard"),
     ("text", "  ", "words"), ("height", "3", "no height"), ("x", "nan", "")],
)  # fmt: skip
def test_what_is_wrong_at_a_view_is_told_and_changes_nothing(key: str, text: str, words: str) -> None:
    job = sheetsets.new_page(furnished(), "client", [PageView("note", 60.0, 90.0, 1.0, "so")]).job
    page = job.sheet_set("client").pages[0].id
    with pytest.raises(PlankError) as told:
        sheetsets.set_view(job, "client", page, 0, key, text)
    assert words in str(told.value) and told.value.remedy
    for wrong in (
        lambda: sheetsets.set_view(job, "client", page, 4, "x", "3"),
        lambda: sheetsets.move_view(job, "client", "g99", 0, 1.0, 1.0),
        lambda: sheetsets.set_page(job, "client", page, "way", "slanted"),
        lambda: sheetsets.set_showing(job, "client", "handles", True),
        lambda: sheetsets.new_page(job, "nobody"),  # type: ignore[arg-type]
    ):
        with pytest.raises(PlankError):
            wrong()


def test_marks_of_sections_and_details_name_the_sheet_that_they_are_drawn_on() -> None:
    job = add_section(furnished(), "r1", "x").job
    for cut in ("upright", "level", "seen"):
        job = add_detail(job, "r1", "A", None, None, cut).job
    room = job.rooms[0]

    def told(job: Job) -> tuple[dict[str, str], set[str]]:
        """What stands beside each mark, and the sheets that there are."""
        w = Workings(job)
        laid = laid_out(w, "shop", set_content(w, "shop", quietly))
        texts = [i for s in laid for v in s.sheet.views for i in v.drawing.items if isinstance(i, Text)]
        marks = {i.source.id: i.text.strip() for i in texts if i.quiet and i.source and i.source.kind in MARKS}
        return marks, {s.number for s in laid}

    marks, numbers = told(job)
    assert set(marks) == {room.sections[0].id, *(d.id for d in room.details)}
    assert set(marks.values()) <= numbers
    # Details share a sheet: its number stands beside each of them.
    w = Workings(job)
    where = {
        v.drawing.key: s.number for s in laid_out(w, "shop", set_content(w, "shop", quietly)) for v in s.sheet.views
    }
    assert marks == {i: where[f"r1:{i}"] for i in marks}
    # Put on a page of one's own, it is that page's; left out, nothing is promised.
    detail = room.details[1].id
    own = sheetsets.new_page(job, "shop", [PageView(f"r1:{detail}", 60.0, 90.0, 5.0)]).job
    assert told(own)[0][detail] == "WG1"
    section = room.sections[0].id
    out = sheetsets.leave_out(job, "shop", (f"r1:{section}",), out=True).job
    assert section not in told(out)[0]


def test_pictures_and_the_shops_mark_are_in_every_kind_of_file(tmp_path: Path) -> None:
    buffer = io.BytesIO()
    Image.new("RGB", (80, 40), "#2E6A5A").save(buffer, "JPEG")
    job = papers.set_logo(furnished(), 80, 40, buffer.getvalue()).job
    job = sheetsets.new_page(job, "client", []).job
    page = job.sheet_set("client").pages[0].id
    view = PageView("picture:", 60.0, 90.0, 120.0, "oak")
    job = sheetsets.put_on_page(job, "client", page, view, (80, 40, buffer.getvalue())).job
    sheet = next(s for s in set_sheets(Workings(job), "client") if s.block.number.endswith("CG1"))
    (mark, picture) = sorted(images_of(sheet), key=lambda i: i[2])
    assert picture[:4] == (60.0, 90.0, 120.0, 60.0) and mark[2] / mark[3] == pytest.approx(2.0)
    wide = sheet.size[0]
    assert wide - 190.0 < mark[0] and mark[0] + mark[2] < wide - 190.0 + 52.0 and mark[1] > 30.0  # in the owner's cell
    write_sheets([sheet], tmp_path / "s.pdf", "x")
    with pymupdf.open(tmp_path / "s.pdf") as document:
        rects = [pymupdf.Rect(i["bbox"]) for i in document[0].get_image_info()]
    widths = sorted(round(r.width * 25.4 / 72, 1) for r in rects)
    assert widths == [round(mark[2], 1), 120.0]
    write_svg(sheet, tmp_path / "s.svg")
    svg = (tmp_path / "s.svg").read_text(encoding="utf-8")
    assert svg.count("<image ") == 2 and 'width="120"' in svg and "data:image/jpeg;base64," in svg
    write_dxf(sheet, tmp_path / "s.dxf")
    words = [t.dxf.text for t in ezdxf.readfile(tmp_path / "s.dxf").layout("Layout1").query("TEXT")]
    assert words.count("picture") == 2
    # Taken off, its file leaves the job too.
    assert len(job.pictures) == 2
    assert len(sheetsets.take_off_page(job, "client", page, 0).job.pictures) == 1
    assert not papers.drop_logo(sheetsets.delete_page(job, "client", page).job).job.pictures


def test_a_new_sheet_follows_the_one_that_it_comes_after_by_itself() -> None:
    blank = Sheet((), "A4", Block(""))
    sheets = [Laid(key, key.upper(), blank) for key in "abcd"]
    assert [s.key for s in in_order(sheets, ())] == ["a", "b", "c", "d"]
    assert [s.key for s in in_order(sheets, ("d", "a", "c"))] == ["d", "a", "b", "c"]
    assert [s.key for s in in_order(sheets, ("d", "b", "gone"))] == ["a", "d", "b", "c"]


def test_a_page_that_shows_a_detail_or_a_wall_that_is_gone_is_a_snag() -> None:
    job = add_detail(furnished(), "r1", "A").job
    detail = job.rooms[0].details[0].id
    views = [PageView(f"r1:{detail}", 60.0, 90.0, 5.0, "detail a"), PageView("r1:wall A", 60.0, 150.0, 50.0, "wall A"),
             PageView("r1:P", 60.0, 90.0, 50.0, "plan"), PageView("r9:P", 60.0, 90.0, 50.0, "loft")]  # fmt: skip
    job = sheetsets.new_page(job, "shop", views).job
    assert [s.what.split(": ")[1] for s in Workings(job).snags if s.rule == "page"] == ["loft."]
    job = delete_detail(job, detail).job
    assert [s.what.split(": ")[1] for s in Workings(job).snags if s.rule == "page"] == ["detail a.", "loft."]


def test_another_mark_of_the_shop_is_a_change_of_every_sheet() -> None:
    def marked(job: Job, color: str) -> Job:
        buffer = io.BytesIO()
        Image.new("RGB", (80, 40), color).save(buffer, "JPEG")
        return papers.set_logo(job, 80, 40, buffer.getvalue()).job

    job = marked(furnished(), "#2E6A5A")
    job = issue_set(Workings(job), "site", "2026-12-02").job
    same = with_revisions(job, "site", set_sheets(Workings(job), "site"))
    assert {s.block.revision for s in same} == {"A"}
    other = marked(job, "#A8402E")
    assert {s.block.revision for s in with_revisions(other, "site", set_sheets(Workings(other), "site"))} == {"A*"}
