"""Sets of sheets: who gets what, numbers that stay, every sheet within its frame; unit and assembly sheets."""

from __future__ import annotations

import math
import re
from collections import Counter
from itertools import combinations

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from conftest import with_run
from kept.results import every_kind
from tall_plank.demo import demo_job
from tall_plank.drawing.assembly import steps_of
from tall_plank.drawing.placing import LEAST
from tall_plank.drawing.primitives import Dim, Layer, Shape, Text
from tall_plank.drawing.sheets import BLOCK, FULL, Sheet, fill_of
from tall_plank.drawing.unitsheet import unit_views
from tall_plank.drawing.words import box_of
from tall_plank.drawing.workflow import leg_words, triangle
from tall_plank.edits import jobs, outline, papers, runs
from tall_plank.edits.things.opening import add_opening
from tall_plank.edits.things.service import add_service
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.measure import DisplayUnit, parse_length
from tall_plank.measure.frames import FloorPoint
from tall_plank.papers.drawings import StoppedError
from tall_plank.papers.sets import KINDS, set_sheets
from tall_plank.workings import Workings

DEMO = Workings(demo_job())


def small() -> Job:
    job = with_run(
        new_job(
            "Small",
        ),
        "A",
        Level.BASE,
        "filler 50, drawers 600, corner 900, pair rest",
    )
    job = with_run(job, "A", Level.HUNG, "pair 900, door 450")
    job = add_service(add_opening(job, "r1", "C", "window", 900.0).job, "r1", "A", "water").job
    return jobs.set_text(job, "number", "TP-9").job


def words_of(sheets: list[Sheet]) -> set[str]:
    return {t.text for s in sheets for v in s.views for t in v.shown.texts}


@pytest.mark.parametrize(
    ("kind", "display"),
    [("client", DisplayUnit.FRACTION_16), ("site", DisplayUnit.MM), ("installer", DisplayUnit.MM)],
)
def test_every_view_of_a_set_stands_within_its_frame_and_clear_of_the_others(kind: str, display: DisplayUnit) -> None:
    w = Workings(jobs.set_display(demo_job(), display).job)
    for sheet in set_sheets(w, kind, "2026-11-28"):
        wide, high = sheet.size
        boxes = []
        for view in sheet.views:
            seen = view.shown
            (x0, y0), (x1, y1) = view.at(seen.x0, seen.y0), view.at(seen.x1, seen.y1)
            assert x0 >= 20 and x1 <= wide - 10 and 10 + BLOCK[1] <= y0 and y1 <= high - 10, (sheet.title, view.caption)
            boxes.append((x0, y0, x1, y1))
            assert all(t.size >= LEAST for t in seen.texts)
            told = [f for f in seen.figures if f.text is not None]
            dims = [d for d in view.drawing.items if isinstance(d, Dim)]
            # Each figure is there, or one of those that several equal ones share.
            count = sum(
                int(m[1]) if (m := re.match(r"(\d+) × ", f.text.text)) and f.dim not in dims else 1 for f in told
            )
            unique = {
                (d.along, d.row, round(d.base, 1), round(min(d.a, d.b), 2), round(max(d.a, d.b), 2)) for d in dims
            }
            assert count == len(unique)
        for i, a in enumerate(boxes):
            for b in boxes[i + 1 :]:
                assert a[2] <= b[0] or b[2] <= a[0] or a[3] <= b[1] or b[3] <= a[1], sheet.title


def test_every_sheet_of_a_set_has_a_number_of_its_own_and_its_index_names_them() -> None:
    for kind in KINDS:
        if kind == "shop":
            continue
        sheets = set_sheets(DEMO, kind, "2026-11-28")
        numbers = [s.block.number for s in sheets]
        assert len(set(numbers)) == len(numbers)
        assert [s.block.sheet for s in sheets] == [f"{i} of {len(sheets)}" for i in range(1, len(sheets) + 1)]
        assert {s.block.kind for s in sheets} == {KINDS[kind]}
        # A long index takes several tables, on one sheet or more.
        front = [s for s in sheets if re.fullmatch(r"[A-Z]0\.\d", s.block.number.split("-")[-1])]
        index = {t.text for s in front for v in s.views for t in v.shown.texts}
        assert sheets[: len(front)] == front
        for sheet in sheets[len(front) :]:
            assert sheet.block.number.split("-")[-1] in index
        # ISO 7200 (from memory): owner, number, date, sheet, title, creator and kind of document are compulsory.
        for s in sheets:
            b = s.block
            assert all((b.owner, b.number, b.date, b.sheet, b.title, b.creator, b.kind, b.units))


def test_numbers_stay_when_a_unit_and_a_room_come() -> None:
    before = {s.block.number for s in set_sheets(Workings(small()), "installer")}
    job = runs.set_width(small(), (small().rooms[0].runs[0].cells[1].id,), "650").job
    job = outline.add_room(job).job
    assert before <= {s.block.number for s in set_sheets(Workings(job), "installer")}


def test_the_site_is_told_of_everything_on_the_walls_with_room_to_measure() -> None:
    words = words_of(set_sheets(Workings(small()), "site"))
    assert {"Measured", "window", "water", "Floor to ceiling", "corner at the left of A", "By others"} <= words
    w = Workings(small())
    o = w.job.rooms[0].openings[0]
    assert {f"{o.x.mm:g}", f"{o.x.mm + o.width.mm:g}", f"{o.sill.mm:g}", f"{o.sill.mm + o.height.mm:g}"} <= words
    hung = [p for p, u in w.made.units if p.level is Level.HUNG and u.parts]
    assert {p.number for p in hung} <= words
    # What is built does not stand on the setting-out plan.
    plan = next(v.drawing for s in set_sheets(w, "site") for v in s.views if v.drawing.title.endswith("setting out"))
    assert not any(isinstance(i, Shape) and i.layer in (Layer.CARCASS, Layer.FRONT) for i in plan.items)


def test_those_who_install_are_told_the_order_from_the_corner_on() -> None:
    w = Workings(small())
    table = next(
        v.drawing for s in set_sheets(w, "installer") for v in s.views if v.drawing.title.endswith("order of units")
    )
    texts = [i for i in table.items if isinstance(i, Text)]
    rows: dict[float, list[str]] = {}
    for t in texts:
        rows.setdefault(t.y, []).append(t.text)
    order = [row[1] for row in rows.values() if row[0].isdigit()]
    assert sorted(order) == sorted(p.number or "–" for p in w.layout.placed if p.is_solid)
    corner = next(p for p in w.layout.placed if p.leg > p.depth)
    assert order[0] == corner.number
    assert any("scribed" in t.text for t in texts)


def test_a_client_signs_and_reads_the_finishes() -> None:
    words = words_of(set_sheets(DEMO, "client"))
    assert {"Approval", "Signature", "Finish", "Sea sage"} <= words or {"Approval", "Signature", "Finish"} <= words
    used = {DEMO.job.stock.finish(u.spec.front).name for _, u in DEMO.made.units if u.shown}  # type: ignore[union-attr]
    assert used <= words


def test_the_shop_gets_each_unit_its_steps_and_each_part() -> None:
    w = Workings(small())
    sheets = set_sheets(w, "shop", "2026-11-28")
    titles = [v.drawing.title for s in sheets for v in s.views]
    for p, unit in w.made.units:
        if len(unit.shown) > 1 and p.number == min((q.number for q, u in w.made.units if u == unit), key=len):
            assert any(t.startswith(f"{p.number} front") for t in titles) or any(
                t.startswith(f"{q.number} front") for q, u in w.made.units if u == unit for t in titles
            )
    marks = {v.drawing.mark for s in sheets for v in s.views}
    assert {row.numbers[0] for row in w.cut_rows} <= marks
    assert sum("step" in t for t in titles) > 6


def test_stopping_ends_a_set_at_once() -> None:
    told: list[str] = []

    def tell(name: str) -> bool:
        told.append(name)
        return len(told) < 3

    with pytest.raises(StoppedError, match="stopped"):
        set_sheets(Workings(small()), "shop", "", tell)
    assert len(told) == 3


@pytest.mark.parametrize("w", [DEMO, Workings(every_kind())], ids=["demo", "every kind"])
def test_every_part_and_everything_bought_is_in_one_step_of_its_unit(w: Workings) -> None:
    for p, unit in w.made.units:
        if not unit.shown:
            continue
        steps = steps_of(unit, w.job.stock)
        assert sorted(n for s in steps for n in s.parts) == list(range(1, len(unit.shown) + 1)), p.number
        bought: Counter[str] = Counter()
        for item in unit.items:
            fitting = w.job.stock.fitting(item.code)
            bought[fitting.name if fitting else item.code] += item.qty
        told: Counter[str] = Counter()
        for step in steps:
            for name, qty in step.items:
                told[name] += qty
        assert told == bought, p.number
        # A gable that closes the carcass comes after what stands between the two.
        names = [[unit.shown[n - 1].name for n in s.parts] for s in steps]
        if any("right gable" in row for row in names) and any("bottom" in row for row in names):
            right = next(i for i, row in enumerate(names) if "right gable" in row)
            assert right > next(i for i, row in enumerate(names) if "bottom" in row)


def test_clear_sizes_of_a_units_bays_stand_on_its_sheet() -> None:
    """By hand: an 800 unit of 18 mm gables is 764 clear."""
    p, unit = next((p, u) for p, u in DEMO.made.units if p.number == "A4")
    views = unit_views(p, unit, DEMO.job.stock, DisplayUnit.MM)
    assert [v.title.split(" ", 1)[1].split(",")[0] for v in views][:3] == ["front", "inside", "section"]
    inside = next(v for v in views if v.title.endswith("inside"))
    texts = {i.text for i in inside.items if isinstance(i, Text)}
    for _, _, _, width, height in unit.bays:
        assert f"{width:g} × {height:g}" in texts
    assert any(
        (d.text == "764" and d.name == "clear bays") or d.text == "764" for d in inside.items if isinstance(d, Dim)
    )
    assert len({v.scale for v in views}) == 1


def test_a_paper_that_is_asked_for_is_the_largest_and_views_fill_it() -> None:
    for paper in ("A2", "Tabloid"):
        w = Workings(papers.set_papers(demo_job(), "drawings", paper).job)
        sheets = set_sheets(w, "client", "2026-11-28")
        from tall_plank.drawing.sheets import SERIES

        series = next(s for s in SERIES if paper in s)
        allowed = series[series.index(paper) :]
        assert {s.paper for s in sheets} <= set(allowed)
        # Either it fills its sheet, or nothing else of its room could have shared it, or it is on the smallest paper.
        full = [fill_of(s) >= FULL or len(s.views) > 1 or s.paper != allowed[0] for s in sheets]
        assert sum(full) >= len(sheets) * 0.75


def test_boxes_of_words_are_where_they_are_said_to_be() -> None:
    text = Text(100.0, 50.0, "HX", 2.0, Layer.LABEL, align="left")
    assert box_of(text, 10.0)[:2] == (10.0, 5.0)


def test_the_work_triangle_runs_from_the_store_to_the_sink_to_the_hob() -> None:
    """By hand, from the middles of the fronts of three units of the demo's kitchen."""
    room = DEMO.layout.rooms[0]
    units = {p.number: p for p in room.placed}
    spots = [units[n].frame.floor(units[n].width / 2, -units[n].depth) for n in ("A2", "B3", "A5")]
    legs = triangle(room, DEMO.made)
    assert sorted(round(math.dist(a, b)) for a, b in legs) == sorted(
        round(math.dist(spots[i], spots[k])) for i, k in ((0, 1), (0, 2), (1, 2))
    )
    plan = next(v.drawing for s in set_sheets(DEMO, "client") for v in s.views if v.drawing.title == "Galley, plan")
    words = {t.text for t in plan.items if isinstance(t, Text)}
    whole = sum(round(math.dist(a, b)) for a, b in legs)
    assert {"store", "wash", "cook", f"triangle {whole}"} <= words
    # A room without one of the three has none.
    assert triangle(DEMO.layout.rooms[1], DEMO.made) == []


def test_in_black_only_nothing_has_the_color_of_a_finish_and_the_lines_are_the_same() -> None:
    color = set_sheets(DEMO, "client", "2026-11-28")
    black = set_sheets(Workings(papers.set_papers(DEMO.job, "ink", "black").job), "client", "2026-11-28")
    fills = {i.fill for s in black for v in s.views for i in v.shown.drawn if isinstance(i, Shape) and i.fill}
    assert fills == {"floor"}
    for a, b in zip(color, black, strict=True):
        for u, v in zip(a.views, b.views, strict=True):
            lines = [[i for i in x.shown.drawn if not (isinstance(i, Shape) and i.fill)] for x in (u, v)]
            assert lines[0] == lines[1]
            assert (u.x, u.y, u.scale) == (v.x, v.y, v.scale)


@given(
    st.lists(st.tuples(st.floats(0, 5000), st.floats(0, 5000)), min_size=3, max_size=3),
    st.sampled_from([DisplayUnit.MM, DisplayUnit.CM, DisplayUnit.INCH, DisplayUnit.FRACTION_16]),
)
def test_the_legs_that_are_printed_add_up_to_the_whole_that_is_printed(
    spots: list[tuple[float, float]], unit: DisplayUnit
) -> None:
    legs = [(FloorPoint(a), FloorPoint(b)) for a, b in combinations(spots, 2)]
    assume(all(math.dist(a, b) > 100.0 for a, b in legs))
    *texts, whole = leg_words(legs, unit)

    def mm(text: str) -> float:
        return parse_length(text.lstrip("~"), unit).mm

    assert abs(sum(mm(t) for t in texts) - mm(whole)) < 3 * 0.0001 * 25.4  # the last place of decimal inches


def test_a_section_of_a_unit_is_as_deep_as_its_carcass_and_what_stands_before_it() -> None:
    for p, unit in DEMO.made.units:
        if p.template not in ("drawers", "pair", "door") or not unit.fronts:
            continue
        views = unit_views(p, unit, DEMO.job.stock, DEMO.job.display)
        upright = next(v for v in views if v.title.endswith("seen from the right"))
        fronts = [part for part in unit.shown if any(f.owns(part.name) for f in unit.fronts)]
        # By hand: a front lies flat before the carcass, its thickness and the gap behind it.
        foremost = min(min(f.frame.at(0.0, 0.0, w)[1] for w in (0.0, f.thickness)) for f in fronts)
        (carcass,) = [d for d in upright.items if isinstance(d, Dim) and d.name == "carcass"]
        assert (carcass.a, carcass.b) == (pytest.approx(-unit.spec.depth), 0.0)
        deep = [d for d in upright.items if isinstance(d, Dim) and d.along == "x" and d.row == -2]
        assert [(d.a, d.b) for d in deep] == [(pytest.approx(foremost), 0.0)]
        assert upright.x0 == pytest.approx(foremost)
        return
    raise AssertionError("the demo has no such unit")
