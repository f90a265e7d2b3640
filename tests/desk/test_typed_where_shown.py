"""Every figure that is shown and can be decided is typed where it is shown."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QLineEdit

from conftest import with_run
from desk.conftest import cell, placed, spec, type_into
from desk.hand import Hand
from tall_plank.desk.app.window import Window
from tall_plank.desk.pages.standards import StandardsPage
from tall_plank.desk.views.overdims import type_over
from tall_plank.drawing.frontdims import elevation_dims
from tall_plank.drawing.primitives import Dim
from tall_plank.edits import runs
from tall_plank.edits.runtext import type_run
from tall_plank.edits.things.common import Spot
from tall_plank.edits.things.island import find_island, set_island, set_whole
from tall_plank.edits.things.opening import set_opening
from tall_plank.edits.things.table import add_thing
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.setout import set_out
from tall_plank.setout.clear import aisles_of, whole_of


def island_of(w: Window) -> str:
    return w.document.room.room.islands[0].id


def rows(w: Window, start: str) -> list[str]:
    return [name.rpartition("/")[2] for name in w.spec.lines if name.rpartition("/")[2].startswith(start)]


def test_aisles_are_typed_in_the_sheet(island_window: Window) -> None:
    w = island_window
    w.document.select((Kind.ISLAND.of(island_of(w)),))
    assert len(rows(w, "aisle")) == 4
    for i, key in enumerate(rows(w, "aisle")[:2]):
        type_into(spec(w, key), str(1005 + 7 * i))
        room, island = find_island(w.document.job, island_of(w))
        assert aisles_of(set_out(w.document.job).room(room.id), island)[i][1] == pytest.approx(1005 + 7 * i)


def test_the_whole_island_is_typed_and_its_worktop_is_so_large(island_window: Window) -> None:
    w = island_window
    w.document.select((Kind.ISLAND.of(island_of(w)),))
    for key, text in (("whole_length", "2000"), ("whole_depth", "905")):
        type_into(spec(w, key), text)
        assert not w.spec.line(key).error.isVisible()
    _, island = find_island(w.document.job, island_of(w))
    assert whole_of(w.document.room, island) == pytest.approx((2000.0, 905.0))
    type_into(spec(w, "whole_depth"), "300")
    assert "is the least that" in w.spec.line("whole_depth").error.text()


@given(
    st.integers(1200, 3000),
    st.integers(700, 1700),
    st.sampled_from(["open", "panel", "waterfall"]),
    st.sampled_from(["open", "panel", "waterfall"]),
    st.booleans(),
    st.sampled_from([0.0, 30.0, 90.0]),
)
def test_the_whole_of_any_island_is_what_was_typed(
    length: int, depth: int, left: str, right: str, both: bool, angle: float
) -> None:
    job = add_thing(new_job(), "island", Spot("r1", "A")).job
    name = job.rooms[0].islands[0].id
    for key, text in (("left", left), ("right", right), ("angle", str(angle))):
        job = set_island(job, name, key, text).job
    for face in ("K1", "K2")[: 2 if both else 1]:
        job = with_run(job, face, Level.BASE, "drawers share, pair share")
    for key, value in (("length", length), ("depth", depth)):
        try:
            job = set_whole(job, name, key, str(value)).job
        except PlankError as error:
            assert "least" in str(error)
            continue
        found = whole_of(set_out(job).rooms[0], job.rooms[0].islands[0])
        assert found is not None
        assert found[key == "depth"] == pytest.approx(value)


def test_the_whole_of_an_empty_island_is_not_asked() -> None:
    job = add_thing(new_job(), "island", Spot("r1", "A")).job
    with pytest.raises(PlankError, match="Nothing stands on the island"):
        set_whole(job, job.rooms[0].islands[0].id, "length", "2000")
    with pytest.raises(PlankError, match="no whole height"):
        set_whole(job, job.rooms[0].islands[0].id, "height", "2000")


# --- what is left


def base() -> tuple[Job, str]:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, pair 900, pair 800")
    return job, job.rooms[0].runs[0].id


@given(st.integers(0, 1500))
def test_what_is_left_is_what_was_typed(mm: int) -> None:
    job, run = base()
    try:
        after = set_out(runs.set_left(job, run, str(mm)).job).run(run)
    except PlankError as error:
        assert "wide" in str(error) or "not so long" in str(error)
        return
    assert after is not None
    assert after.left == pytest.approx(mm) and after.short == 0
    assert [p.width for p in after.cells[:2]] == [600.0, 900.0]


def test_what_units_take_by_rule_is_not_typed() -> None:
    job, run = base()
    job = type_run(job, run, "drawers 600, pair share, pair share").job
    with pytest.raises(PlankError, match="takes what is left"):
        runs.set_left(job, run, "100")
    empty = runs.add_run(new_job(), "r1", "A", Level.BASE)
    with pytest.raises(PlankError, match="Nothing stands"):
        runs.set_left(empty.job, empty.made[0], "100")


def test_a_second_click_on_what_is_left_types_it_and_so_does_enter(empty_window: Window) -> None:
    w, hand = empty_window, Hand(empty_window)
    w.document.load(base()[0], None)
    box = next(b for b in w.lines.boxes() if not b.cell)
    point = box.rect.center().toPoint()
    hand.press(w.lines, point)
    assert not w.lines.box.isVisible() and w.document.ids(Kind.RUN)
    hand.press(w.lines, point)
    assert w.lines.box.isVisible() and w.lines.box.text() == "1300"
    hand.type("1250")
    hand.enter()
    assert placed(w, "A3").width == 850.0
    w.document.select((Kind.RUN.of(box.run),))
    w.lines.setFocus()
    hand.enter()
    hand.type("5000")
    hand.enter()
    assert "not so long" in w.lines.box._error.text()
    hand.key(Qt.Key.Key_Escape)
    assert placed(w, "A3").width == 850.0
    # On the run's sheet too, and over its dimension.
    type_into(spec(w, "left"), "1270")
    assert placed(w, "A3").width == 830.0
    room = w.document.room
    dims = elevation_dims(w.document.job, room, room.wall("A"), list(room.placed), w.document.workings.made)
    last = next(d for d in dims if isinstance(d, Dim) and d.key == "left" and d.source == Kind.RUN.of(box.run))
    assert type_over(w.document, last, "1300") is None
    assert placed(w, "A3").width == 800.0


# --- openings between which a distance is shown


def test_the_distance_between_two_windows_is_typed_as_that() -> None:
    job = add_thing(new_job(), "window", Spot("r1", "A", 200.0)).job
    job = set_opening(job, job.rooms[0].openings[0].id, "width", "600").job
    job = add_thing(job, "window", Spot("r1", "A", 2000.0)).job
    first, second = job.rooms[0].openings
    job = set_opening(job, second.id, "width", "500").job
    after = set_opening(job, second.id, "left", "450").job.rooms[0].openings[1]
    assert after.x.mm == pytest.approx(first.x.mm + 600.0 + 450.0)
    after = set_opening(job, second.id, "right", "450").job.rooms[0].openings[1]
    assert after.x.mm == pytest.approx(3600.0 - 450.0 - 500.0)
    moved = set_opening(job, first.id, "right", "100").job.rooms[0].openings[0]
    assert moved.x.mm == pytest.approx(second.x.mm - 700.0)
    assert set_opening(job, first.id, "left", "2*150").job.rooms[0].openings[0].x.text == "2*150mm"
    with pytest.raises(PlankError, match="not so much space"):
        set_opening(job, first.id, "right", "3000")


def test_each_dimension_of_openings_says_after_typing_what_was_typed(empty_window: Window) -> None:
    w = empty_window
    for x in (200.0, 1500.0, 2600.0):
        w.document.do(lambda job, x=x: add_thing(job, "window", Spot("r1", "A", x)))  # type: ignore[misc]
    for opening in w.document.room.room.openings:
        w.document.do(lambda job, o=opening: set_opening(job, o.id, "width", "500"))  # type: ignore[misc]
    room = w.document.room

    def dims() -> list[Dim]:
        found = elevation_dims(w.document.job, w.document.room, w.document.room.wall("A"), [], w.document.workings.made)
        return [d for d in found if isinstance(d, Dim) and d.source is not None and d.source.kind is Kind.OPENING]

    for i in range(len(dims())):
        before = dims()[i]
        wanted = round(before.b - before.a) + 40
        assert type_over(w.document, before, str(wanted)) is None
        now = next(d for d in dims() if (d.source, d.key) == (before.source, before.key))
        assert now.b - now.a == pytest.approx(wanted)
        w.document.undo()
    assert room is not None


# --- the grid of the standards


@pytest.mark.parametrize("key", ["1", "4", "9", "("])
def test_a_digit_starts_typing_in_the_standards(window: Window, qtbot, key: str) -> None:
    page = StandardsPage(window, window.document)
    qtbot.addWidget(page)
    page.show()
    qtbot.waitExposed(page)
    page.activateWindow()
    row = next(i for i, k in enumerate(page._rows) if k == "gap_side")
    page.table.setFocus()
    page.table.setCurrentCell(row, 1 + page.mine)
    QTest.keyClicks(page.table, key)
    editor = page.table.viewport().findChild(QLineEdit)
    assert editor is not None and editor.text() == key
    QTest.keyClick(editor, Qt.Key.Key_Escape)


def test_a_tap_on_another_cell_keeps_what_was_typed(window: Window) -> None:
    # The same box serves every line: what was typed in one never reaches another.
    w = window
    w.lines.setFocus()
    w.lines.type_cell(cell(w, "A2"))
    QTest.keyClicks(w.lines.box, "610")
    other = next(b for b in w.lines.boxes() if b.cell == cell(w, "A3"))
    before = placed(w, "A3").width
    QTest.mouseClick(w.lines, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, other.rect.center().toPoint())
    w.strip.setFocus()
    assert placed(w, "A3").width == before
