"""Making in the window: the standards page, own values and their source, looking into a unit."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from desk.conftest import cell, choose, spec
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.desk.pages.standards import StandardsPage
from tall_plank.edits import bays, fittings
from tall_plank.edits.units import set_own
from tall_plank.job import Kind


def page_of(window: Window) -> StandardsPage:
    window.commands.run("standards")
    page = window.standards_page
    assert page is not None
    return page


def row(page: StandardsPage, key: str) -> int:
    return page._rows.index(key)


def column(page: StandardsPage, code: str) -> int:
    return 1 + page.mine + [s.code for s in page.document.job.standards].index(code)


def test_another_standard_on_five_units_in_one_step_and_back(window: Window) -> None:
    doc = window.document
    doc.select(tuple(Kind.CELL.of(cell(window, f"A{i}")) for i in range(1, 6)))
    before = [doc.workings.made.of(c) for c in doc.cells]
    page = page_of(window)
    assert page.mine == 1
    page.table.setCurrentCell(1, column(page, "slip-cam"))
    steps = len(doc.history.names)
    QTest.mouseClick(page.apply, Qt.MouseButton.LeftButton)
    assert len(doc.history.names) == steps + 1
    codes = {i.code for c in doc.cells for i in doc.workings.made.of(c).items}  # type: ignore[union-attr]
    cams = {doc.job.standard_by("slip-cam").values()["cam"]}
    assert cams <= codes
    window.commands.run("undo")
    assert [doc.workings.made.of(c) for c in doc.cells] == before


def test_a_value_typed_on_the_page_reaches_the_units(window: Window, qtbot) -> None:
    doc = window.document
    page = page_of(window)
    page.table.setCurrentCell(row(page, "gap_between"), column(page, doc.job.standard))
    page.table.editItem(page.table.currentItem())
    editor = page.table.findChild(type(page.search))
    assert editor is not None
    editor.selectAll()
    QTest.keyClicks(editor, "5")
    with qtbot.waitSignal(doc.changed):
        QTest.keyClick(editor, Qt.Key.Key_Return)
    assert doc.job.active_standard().values()["gap_between"].mm == pytest.approx(5.0)  # type: ignore[union-attr]


def test_an_impossible_value_is_told_below_and_changes_nothing(window: Window) -> None:
    doc = window.document
    page = page_of(window)
    before = doc.job
    page.set_value(row(page, "back_groove_depth"), column(page, doc.job.standard), "18")
    assert doc.job is before
    assert "leaves less than 2 mm" in page.error.text()
    page.set_value(row(page, "back_groove_depth"), column(page, doc.job.standard), "7")
    assert page.error.text() == ""


def test_copy_write_and_read_a_standard(window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    doc = window.document
    page = page_of(window)
    page.name.setText("Loft way")
    QTest.keyClick(page.name, Qt.Key.Key_Return)
    assert doc.job.standards[-1].name == "Loft way"
    page.set_value(row(page, "gap_side"), column(page, "loft-way"), "4")
    page.table.setCurrentCell(1, column(page, "loft-way"))
    path = tmp_path / "loft-way.toml"
    monkeypatch.setattr(asking, "ask_save", lambda *_: path)
    monkeypatch.setattr(asking, "ask_read", lambda *_: path)
    page.write_current()
    QTest.mouseClick(page.remove, Qt.MouseButton.LeftButton)
    assert all(s.code != "loft-way" for s in doc.job.standards)
    page.read_file()
    assert doc.job.standard_by("loft-way").values()["gap_side"].mm == pytest.approx(4.0)  # type: ignore[union-attr]
    path.write_text("code = 3")
    page.read_file()
    assert page.error.text()


def test_only_where_they_differ_hides_the_rest(window: Window) -> None:
    page = page_of(window)
    all_rows = page.table.rowCount()
    page.only.setChecked(True)
    assert "joint" in page._rows and 5 < page.table.rowCount() < all_rows
    page.search.setText("joint")
    assert page.table.rowCount() < all_rows / 3


def test_an_inherited_choice_shows_its_source_is_overridden_and_reverted(window: Window) -> None:
    doc = window.document
    doc.select((Kind.CELL.of(cell(window, "A2")),))
    assert "standard" in spec(window, "joint").toolTip()
    inherited = spec(window, "joint").text()
    choose(window, "joint", "screw")
    assert spec(window, "joint").property("origin") == "own"
    assert spec(window, "joint").text() != inherited
    QTest.mouseClick(window.spec.line("joint").revert, Qt.MouseButton.LeftButton)
    assert spec(window, "joint").text() == inherited
    assert spec(window, "joint").property("origin") == "inherited"


def test_a_unit_is_looked_into_and_a_part_shows_its_holes(window: Window) -> None:
    doc = window.document
    doc.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("look_into")
    page = window.unit_page
    page.model._failed = "left out of this test"
    unit = doc.workings.made.of(doc.cells[0])
    assert unit is not None and page.parts.rowCount() == len(unit.parts)
    page.parts.setFocus()
    page.parts.selectRow(0)
    QTest.keyClick(page.parts, Qt.Key.Key_Down)
    at = page.parts.currentRow()
    assert at == 1
    assert page.parts.item(at, 5).text() == str(unit.parts[at].holes)  # type: ignore[union-attr]
    texts = " ".join(getattr(i, "text", "") for p in page.drawing.placed for i in p.drawing.items)
    assert "hole ø" in texts and unit.parts[at].material in texts
    QTest.keyClick(page, Qt.Key.Key_Escape)
    assert window.center.currentWidget() is not page


def test_what_is_looked_into_follows_an_edit(window: Window) -> None:
    doc = window.document
    doc.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("look_into")
    page = window.unit_page
    page.model._failed = "left out of this test"
    before = page.parts.item(0, 2).text()  # type: ignore[union-attr]
    from desk.conftest import type_into

    type_into(spec(window, "height"), "650")
    assert page.parts.item(0, 2).text() != before  # type: ignore[union-attr]


# --- bays


@pytest.fixture
def wardrobe(window: Window, qtbot) -> Window:
    """A window with one open, undivided wardrobe."""
    from conftest import with_run
    from tall_plank.edits import bays
    from tall_plank.job import Level
    from tall_plank.job.start import new_job

    job = with_run(new_job(), "A", Level.BASE, "wardrobe 1000")
    at = next(c.id for c in job.cells())
    job = bays.set_front(bays.join_bay(job, at, ()).job, ((at, ()),), "none").job
    job = fittings.remove_fitting(job, at, (), 0).job
    window.load(job, None)
    window.show_stage("units")
    window.document.show_fronts("off")
    return window


def front_point(window: Window, x: float, z: float):  # type: ignore[no-untyped-def]
    """A place of the unit's front in the strip, px."""
    placed = window.document.room.placed[0]
    return window.strip.to_px(window.strip.wall_x(placed.wall_id) + placed.x + x, placed.bottom + z).toPoint()


def click(window: Window, x: float, z: float) -> None:
    QTest.mouseClick(window.strip, Qt.MouseButton.LeftButton, pos=front_point(window, x, z))


def box_of(window: Window, *path: int):  # type: ignore[no-untyped-def]
    found = window.document.bay_box(path)
    assert found is not None
    return found.clear


def answer(window: Window, text: str) -> None:
    """Type into the box that stands over the strip."""
    box = window.strip.box
    assert box.isVisible()
    box.selectAll()
    QTest.keyClicks(box, text)
    QTest.keyClick(box, Qt.Key.Key_Return)


def test_a_wardrobe_is_built_from_nothing_by_clicks_and_typing(wardrobe: Window) -> None:
    w, doc = wardrobe, wardrobe.document
    click(w, 500, 1000)
    assert doc.cells and doc.bay is None
    click(w, 500, 1000)
    assert doc.bay == ()
    w.commands.run("split_divider")
    answer(w, "1:1")
    assert len(doc.workings.made.of(doc.cells[0]).set.leaves) == 2  # type: ignore[union-attr]
    click(w, 250, 1000)
    assert doc.bay == (0,)
    w.commands.run("split_shelf")
    answer(w, "300 share")
    click(w, 250, 500)
    assert doc.bay == (0, 1)
    w.commands.run("put_RL-25")
    assert doc.workings.made.of(doc.cells[0]).fitted[0].kind == "rail"  # type: ignore[union-attr]
    click(w, 750, 1000)
    w.commands.run("split_shelf")
    answer(w, "share 250 250")
    for z in (100, 400):
        click(w, 750, z)
        w.commands.run("front_inner")
    QTest.keyClick(w.strip, Qt.Key.Key_Escape)
    QTest.keyClick(w.strip, Qt.Key.Key_Escape)
    assert doc.bay is None or doc.bay == ()
    doc.select_bay(())
    choose(w, "front", "pair")
    unit = doc.workings.made.of(doc.cells[0])
    assert unit is not None and not unit.problems
    assert sum(p.role == "drawer bottom" for p in unit.parts) == 2
    assert [f.kind for f in unit.fronts] == ["door", "door"]
    while doc.history.can_undo:
        w.commands.run("undo")
    assert len(doc.workings.made.of(doc.room.placed[0].cell).set.leaves) == 1


def test_a_shelf_is_slid_by_the_mouse_in_one_step(wardrobe: Window) -> None:
    from desk.conftest import drag

    w, doc = wardrobe, wardrobe.document
    doc.select((Kind.CELL.of(doc.room.placed[0].cell),))
    doc.select_bay(())
    w.commands.run("split_shelf")
    answer(w, "3")
    before = box_of(w, 0).height
    board = doc.workings.made.of(doc.cells[0]).set.boards[0].clear  # type: ignore[union-attr]
    steps = len(doc.history.names)
    start = front_point(w, 500, board.z0 + 9)
    drag(w.strip, start, front_point(w, 500, board.z0 - 150))
    assert box_of(w, 0).height > before + 100
    assert len(doc.history.names) == steps + 1
    w.commands.run("undo")
    assert box_of(w, 0).height == pytest.approx(before)


def test_a_clear_size_is_typed_over_its_dimension(wardrobe: Window) -> None:
    w, doc = wardrobe, wardrobe.document
    doc.select((Kind.CELL.of(doc.room.placed[0].cell),))
    doc.select_bay(())
    w.commands.run("split_divider")
    answer(w, "3")
    doc.select_bay((1,))
    dim = next(d for d in w.strip.extra_dims if d.key == "size")
    w.strip.type_dim(dim)
    answer(w, "400")
    assert box_of(w, 1).width == pytest.approx(400)
    w.strip.type_dim(dim)
    answer(w, "2000")
    assert box_of(w, 1).width == pytest.approx(400)
    assert "short" in w.strip.box._error.text()


def test_keys_go_from_bay_to_bay_and_out(wardrobe: Window) -> None:
    w, doc = wardrobe, wardrobe.document
    doc.select((Kind.CELL.of(doc.room.placed[0].cell),))
    w.commands.run("bay_enter")
    w.commands.run("split_divider")
    answer(w, "3")
    w.commands.run("bay_enter")
    assert doc.bay == (0,)
    w.commands.run("bay_right")
    w.commands.run("bay_right")
    assert doc.bay == (2,)
    w.commands.run("bay_right")
    assert doc.bay == (2,)
    w.commands.run("bay_leave")
    assert doc.bay == ()
    w.commands.run("bay_undivide")
    w.commands.run("bay_leave")
    assert doc.bay is None


def test_a_fitting_that_does_not_fit_is_refused_with_the_size_it_needs(wardrobe: Window) -> None:
    w, doc = wardrobe, wardrobe.document
    doc.select((Kind.CELL.of(doc.room.placed[0].cell),))
    w.commands.run("bay_enter")
    w.commands.run("split_shelf")
    answer(w, "4")
    w.commands.run("bay_enter")
    before = doc.job
    choose(w, "put_in", "RL-25")
    assert doc.job is before
    assert "needs 930 mm of clear height" in w.spec.line("put_in").error.text()


def test_fronts_are_taken_off_opened_and_closed_again(wardrobe: Window) -> None:
    w, doc = wardrobe, wardrobe.document
    assert doc.fronts == "off"
    w.commands.run("fronts_open")
    assert doc.fronts == "open"
    # The menu says what is shown.
    assert w.commands.actions["fronts_open"].isChecked() and not w.commands.actions["fronts_off"].isChecked()
    w.commands.run("fronts_open")
    assert doc.fronts == "closed"
    assert not doc.history.can_undo


# --- sliding doors and kinds of one's own


def test_sliding_doors_are_put_before_units_filled_and_taken_away(wardrobe: Window) -> None:
    from tall_plank.edits import runs

    w, doc = wardrobe, wardrobe.document
    run = doc.room.runs[0].run.id
    first = doc.room.placed[0].cell
    doc.do(lambda job: runs.insert_unit(job, doc.room_id, "A", "wardrobe", after=first))
    doc.select(tuple(Kind.CELL.of(p.cell) for p in doc.room.placed))
    doc.show_fronts("closed")
    QTest.keyClick(w.strip, Qt.Key.Key_L, Qt.KeyboardModifier.ShiftModifier)
    (name,) = doc.ids(Kind.SLIDING)
    assert all(not unit.fronts for _, unit in doc.workings.made.units)
    from desk.conftest import type_into

    type_into(spec(w, "bands0"), "3")
    choose(w, "band0_1", "mirror")
    type_into(spec(w, "band_size0_1"), "900")
    choose(w, "copy0", "all")
    doors = doc.workings.made.sliding[0]
    assert {leaf.bands[1].finish for leaf in doors.leaves} == {"mirror"}
    assert doors.leaves[1].bands[1].height == pytest.approx(900)
    type_into(spec(w, "leaves"), "9")
    assert "not possible" in w.spec.line("leaves").error.text()
    # They are picked in the strip like anything else.
    doc.select(())
    middle = w.strip.to_px(w.strip.wall_x("A") + doors.x + doors.width / 4, 1200.0).toPoint()
    QTest.mouseClick(w.strip, Qt.MouseButton.LeftButton, pos=middle)
    assert doc.ids(Kind.SLIDING) == (name,)
    w.commands.run("delete")
    assert doc.workings.made.sliding == ()
    w.commands.run("undo")
    assert len(doc.workings.made.sliding) == 1
    assert doc.job.find_run(run)[1].sliding


def test_a_kind_of_ones_own_is_read_placed_and_sized(window: Window, monkeypatch: pytest.MonkeyPatch, tmp_path) -> None:  # type: ignore[no-untyped-def]
    from desk.conftest import type_into
    from tall_plank.edits import runs

    doc = window.document
    example = Path(__file__).parents[2] / "docs" / "examples" / "boot-bench.toml"
    monkeypatch.setattr(asking, "ask_read_many", lambda *_: [example])
    window.commands.run("read_kinds")
    assert doc.job.template("boot-bench").name == "Boot bench"
    # A kind that was read in has its command at once, in the menus too, until it is undone.
    action = window.commands.actions["place_boot-bench"]
    assert any(action in menu.actions() for menu in window.menus.values())
    doc.undo()
    assert not window.commands.all["place_boot-bench"].when()
    doc.redo()
    units = len(doc.job.cells())
    window.commands.run("place_boot-bench")
    assert len(doc.job.cells()) == units + 1
    doc.undo()
    doc.do(lambda job: runs.insert_unit(job, doc.room_id, "B", "boot-bench"))
    unit = doc.workings.made.of(doc.cells[0])
    assert unit is not None and unit.parts and not unit.problems
    type_into(spec(window, "parameter.drawer_height"), "200")
    unit = doc.workings.made.of(doc.cells[0])
    assert unit is not None
    assert next(f.height for f in unit.fronts if f.kind == "drawer") == pytest.approx(197)
    type_into(spec(window, "parameter.drawer_height"), "2000")
    assert window.spec.line("parameter.drawer_height").error.text()
    wrong = tmp_path / "wrong.toml"
    wrong.write_text(example.read_text(encoding="utf-8").replace('length = "width"', 'length = "wide"', 1))
    monkeypatch.setattr(asking, "ask_read_many", lambda *_: [wrong])
    before = doc.job
    window.commands.run("read_kinds")
    assert doc.job is before and "wide" in window.message.text.text()


def test_any_value_is_overridden_on_a_unit_by_the_page_and_given_back(window: Window) -> None:
    doc = window.document
    doc.select((Kind.CELL.of(cell(window, "A2")), Kind.CELL.of(cell(window, "A3"))))
    page = page_of(window)
    where = row(page, "row_inset")
    shown = page.table.item(where, 1)
    assert shown is not None and shown.font().italic() and "standard" in shown.toolTip()
    page.set_value(where, 1, "45")
    for c in doc.cells:
        assert doc.workings.made.of(c).spec.made.row_inset == pytest.approx(45)  # type: ignore[union-attr]
    shown = page.table.item(where, 1)
    assert shown is not None and shown.font().bold() and shown.text() == "45"
    page.set_value(where, 1, "nonsense")
    assert page.error.text()
    page.table.setCurrentCell(where, 1)
    page.table.setFocus()
    page.inherit_current()
    assert doc.workings.made.of(doc.cells[0]).spec.made.row_inset == pytest.approx(37)  # type: ignore[union-attr]


def test_all_fronts_of_a_style_are_replaced_by_one_command(window: Window) -> None:
    doc = window.document
    doc.select((Kind.CELL.of(cell(window, "A2")),))
    old = doc.workings.made.of(doc.cells[0]).fronts[0].style  # type: ignore[union-attr]
    assert old == "slab"
    window.commands.run("restyle_framed")
    styles = {f.style for _, unit in doc.workings.made.units for f in unit.fronts if f.kind == "door"}
    assert styles == {"framed"}
    window.commands.run("undo")
    assert {f.style for _, unit in doc.workings.made.units for f in unit.fronts if f.kind == "door"} == {"slab"}


def test_another_room_or_job_leaves_the_bay(wardrobe: Window) -> None:
    from tall_plank.edits.outline import add_room
    from tall_plank.job.start import new_job

    w, doc = wardrobe, wardrobe.document
    doc.select((Kind.CELL.of(doc.room.placed[0].cell),))
    w.commands.run("bay_enter")
    assert doc.bay == ()
    doc.do(lambda job: add_room(job, "Loft"))
    assert doc.room.room.name == "Loft" and doc.bay is None
    doc.show_room("r1")
    doc.select((Kind.CELL.of(doc.room.placed[0].cell),))
    w.commands.run("bay_enter")
    w.load(new_job("Other"), None)
    assert doc.bay is None


def test_the_drawing_of_the_part_that_is_looked_at_is_exported(
    window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    doc = window.document
    doc.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("look_into")
    window.unit_page.model._failed = "left out of this test"
    window.unit_page.parts.selectRow(2)
    path = tmp_path / "part.svg"
    monkeypatch.setattr(asking, "ask_save", lambda *_: path)
    window.commands.run("export_drawing")
    text = path.read_text(encoding="utf-8")
    unit = doc.workings.made.of(doc.cells[0])
    assert unit is not None
    assert f"A2.3 {unit.parts[2].name}" in text or unit.parts[2].material in text


def test_a_unit_that_is_looked_into_and_can_no_longer_be_made_is_still_shown(window: Window) -> None:
    doc = window.document
    doc.select((Kind.CELL.of(cell(window, "A2")),))
    window.look_into()
    page = window.unit_page
    page.model._failed = ""
    page.model.render_now()
    page.model.repaint()
    doc.do(lambda job: set_own(job, doc.cells, "depth", "200"))  # no runner fits
    assert doc.workings.made.of(doc.cells[0]).parts == ()  # type: ignore[union-attr]
    page.model.repaint()
    assert page.model.unit is not None and page.model.unit.problems


def test_one_board_of_a_divided_bay_is_taken_out(wardrobe: Window) -> None:
    doc = wardrobe.document
    doc.select((Kind.CELL.of(doc.job.cells()[0].id),))
    doc.do(lambda job: bays.join_bay(job, doc.cells[0], ()))
    doc.do(lambda job: bays.split_bay(job, doc.cells[0], (), "3", "columns", "divider"))
    doc.select_bay((1,))
    wardrobe.commands.run("bay_board")
    root = doc.job.unit(doc.job.find_cell(doc.cells[0])[2].unit).bay
    assert len(root.children) == 2
    assert root.children[0].weight == 2.0
    doc.select_bay(None)
    assert not wardrobe.commands.all["bay_board"].when()


def test_units_follow_the_job_again_by_a_button(window: Window) -> None:
    doc = window.document
    doc.select((Kind.CELL.of(cell(window, "A2")),))
    page = page_of(window)
    assert not page.follow.isEnabled()
    page.table.setCurrentCell(1, column(page, "slip-cam"))
    QTest.mouseClick(page.apply, Qt.MouseButton.LeftButton)
    before = doc.job
    assert page.follow.isEnabled()
    QTest.mouseClick(page.follow, Qt.MouseButton.LeftButton)
    assert doc.job is not before
    assert not any(o.key.startswith("standard") for u in doc.job.units for o in u.own)
