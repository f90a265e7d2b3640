"""The Paneling stage in the real window: from an empty room by shelf, keys, mouse and sheet."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from desk.conftest import choose, choose_display, drag, spec
from desk.conftest import type_into as type_over
from tall_plank.desk.app.window import Window
from tall_plank.desk.views.zonegrips import grips_of
from tall_plank.edits.things.opening import add_opening
from tall_plank.job import Kind
from tall_plank.job.things.wall_field import WallField
from tall_plank.job.treatment import Boards, Parted
from tall_plank.setout.paneling.fields import FieldLaid

LEFT = Qt.MouseButton.LeftButton
NONE = Qt.KeyboardModifier.NoModifier


def fields(w: Window) -> tuple[FieldLaid, ...]:
    return w.document.room.fields


def decided(w: Window) -> tuple[WallField, ...]:
    return w.document.room.room.fields


def counts(w: Window, number: int = 0) -> list[int]:
    return [s.grid.count for z in fields(w)[number].zones for s in z.stretches if s.grid is not None]


def type_into(w: Window, key: str, text: str) -> None:
    """Type over a value of the sheet, Enter."""
    type_over(spec(w, key), text)


def on_wall(w: Window, wall: str, x: float, z: float) -> QPoint:
    return w.strip.to_px(w.strip.wall_x(wall) + x, z).toPoint()


def put(w: Window, name: str) -> None:
    """Choose a treatment on the shelf with the keys and put it on the wall that is worked on."""
    w.shelf.search.setFocus()
    QTest.keyClicks(w.shelf.search, name)
    QTest.keyClick(w.shelf.search, Qt.Key.Key_Return)
    w.shelf.search.clear()


def test_one_wall_is_paneled_and_three_more_alike(empty_window: Window) -> None:
    w = empty_window
    QTest.keyClick(w, Qt.Key.Key_3, Qt.KeyboardModifier.AltModifier)
    assert w.stage == "paneling" and w.center.sums.isVisible() and not w.lines.isVisible()
    assert "treatment" in w.center.sums.told()[1]
    put(w, "dado")
    (one,) = decided(w)
    assert one.wall == "A" and w.document.selection == (Kind.WALL_FIELD.of(one.id),), "it is selected"
    text, words = w.center.sums.told()
    assert text.startswith("3600 − 6 × 80 = 3120; 3120 ÷ 5 = 624") and "5 panels and 6 stiles" in words
    assert w.spec.title.text() == "Dado"
    w.commands.run("repeat_field")
    assert [f.wall for f in decided(w)] == ["A", "B", "C", "D"] and len({f.treatment for f in decided(w)}) == 1
    w.commands.run("undo")
    assert len(decided(w)) == 1


def test_enter_in_the_search_puts_it_and_hands_the_keys_back(empty_window: Window) -> None:
    """The box kept them: the next letters were typed into the search."""
    w = empty_window
    w.show_stage("paneling")
    w.shelf.search.setFocus()
    QTest.keyClicks(w.shelf.search, "slats")
    QTest.keyClick(w.shelf.search, Qt.Key.Key_Return)
    assert len(decided(w)) == 1 and not w.shelf.search.hasFocus() and w.strip.hasFocus()
    QTest.keyClicks(w.strip, "S")
    assert w.shelf.search.text() == "slats" and w.spec.isAncestorOf(w.focusWidget())


def test_the_dado_is_changed_once_for_all_walls(empty_window: Window) -> None:
    w = empty_window
    w.show_stage("paneling")
    put(w, "dado")
    w.commands.run("repeat_field")
    w.document.select((Kind.WALL_FIELD.of(decided(w)[0].id),))
    type_into(w, "z0_band", "1150")
    assert {round(s.z1) for f in fields(w) for z in f.zones for s in z.stretches} == {1150}
    assert w.spec.line("with_" + decided(w)[1].id).row.text.count("×") == 1
    w.commands.run("undo")
    assert {round(s.z1) for f in fields(w) for z in f.zones for s in z.stretches} == {900}


def test_the_number_of_panels_is_typed_and_given_back(empty_window: Window) -> None:
    w = empty_window
    w.show_stage("paneling")
    put(w, "equal panels")
    type_into(w, "z_count0", "4")
    assert counts(w) == [4] and w.spec.line("z_count0").row.origin == "own"
    assert "÷ 4 =" in w.center.sums.told()[0]
    type_into(w, "z_count0", "99")
    assert counts(w) == [] and "find no room" in w.center.sums.told()[0], "named at its place, nothing lost"
    w.commands.run("undo")
    assert counts(w) == [4]
    line = w.spec.line("z_count0")
    assert line.row.revert is not None
    w.document.do(line.row.revert)
    assert counts(w) == [5]


def test_bad_sizes_are_refused_where_they_are_typed(empty_window: Window) -> None:
    w = empty_window
    w.show_stage("paneling")
    put(w, "slats")
    before = w.document.job
    for key, text in (("z_pattern", "30 by 15"), ("z_angle", "steep"), ("left", "wide"), ("z_least", "-3")):
        type_into(w, key, text)
        assert w.document.job is before, key


def test_a_treatment_is_dropped_on_another_wall(empty_window: Window) -> None:
    w = empty_window
    w.show_stage("paneling")
    w.place_on_wall("room:slats", "B", 1200.0, 900.0)
    (one,) = decided(w)
    assert one.wall == "B"
    text, words = w.center.sums.told()
    assert text.startswith("54 slats of 30") and "whole slats end both sides" in words
    QTest.mouseClick(w.strip, LEFT, NONE, on_wall(w, "A", 1800.0, 1200.0))
    assert not w.document.ids(Kind.WALL_FIELD)
    QTest.mouseClick(w.strip, LEFT, NONE, on_wall(w, "B", 1200.0, 1200.0))
    assert w.document.ids(Kind.WALL_FIELD) == (one.id,), "a click on a slat or its board takes the field"
    w.commands.run("delete")
    assert decided(w) == () and w.document.job.treatments == ()


def test_slats_end_at_an_arch_and_its_border_follows(empty_window: Window) -> None:
    w = empty_window
    w.show_stage("paneling")
    put(w, "arch in slats")
    whole = [s for z in fields(w)[0].zones for s in z.slats if s.whole]
    cut = [s for z in fields(w)[0].zones for s in z.slats if not s.whole]
    assert whole and cut
    type_into(w, "z_border", "50")
    choose(w, "z2_cover", "boards")
    (border,) = [z for z in fields(w)[0].zones if z.path == (2,)]
    assert border.area == pytest.approx(50 * 2 * 1350 + 3.14159265 * (500**2 - 450**2) / 2, rel=1e-6)
    type_into(w, "z_height", "300")
    assert "rises by 450" in w.center.sums.told()[0]
    type_into(w, "z_height", "1700")
    assert not fields(w)[0].faults


def test_a_zone_is_split_covered_and_joined_from_the_sheet(empty_window: Window) -> None:
    w = empty_window
    w.show_stage("paneling")
    put(w, "flat boards")
    choose(w, "z_split", "along")
    choose(w, "z1_cover", "slats")
    type_into(w, "z0_band", "1200")
    assert [round(z.regions[0].bounds[2]) for z in fields(w)[0].zones] == [1200, 3600]
    choose(w, "z1_split", "line")
    assert {z.path for z in fields(w)[0].zones} == {(0,), (1, 0), (1, 1)}
    choose(w, "z_join", "")
    assert [z.path for z in fields(w)[0].zones] == [()]


def test_a_zone_in_halves_is_decided_once_for_both(empty_window: Window) -> None:
    w = empty_window
    w.show_stage("paneling")
    put(w, "slats")
    choose(w, "z_split", "halves")
    choose(w, "z0_split", "line")
    type_into(w, "z0_y1", "20 %")
    type_into(w, "z0_y2", "80 %")
    choose(w, "z0.1_cover", "boards")
    zones = fields(w)[0].zones
    assert sorted(z.path for z in zones) == [(0, 0), (0, 0), (0, 1), (0, 1)]
    left, right = (z for z in zones if z.path == (0, 1))
    assert left.area == pytest.approx(right.area)
    assert left.regions[0].bounds[0] + right.regions[0].bounds[2] == pytest.approx(3600.0)
    w.commands.run("undo")
    assert len({z.path for z in fields(w)[0].zones}) == 2
    choose(w, "z_join", "")
    assert {z.path for z in fields(w)[0].zones} == {(0,), (1,)}, "the line is left"


def test_a_mark_is_dragged_and_the_field_follows_and_undoes(empty_window: Window) -> None:
    w = empty_window
    w.document.do(lambda job: add_opening(job, "r1", "A", "door", 2000.0))
    door = w.document.room.room.openings[0].id
    w.show_stage("paneling")
    put(w, "equal panels")
    fid = decided(w)[0].id
    choose(w, "right_to", f"opening:{door} left")
    assert fields(w)[0].x1 == pytest.approx(2000.0)
    drag(w.strip, on_wall(w, "A", 2400.0, 1500.0), on_wall(w, "A", 2150.0, 1500.0))
    assert fields(w)[0].x1 == pytest.approx(w.document.room.room.openings[0].x.mm)
    assert fields(w)[0].x1 < 1900.0 and not fields(w)[0].faults
    w.commands.run("undo")
    assert fields(w)[0].x1 == pytest.approx(2000.0)
    w.document.select((Kind.OPENING.of(door),))
    w.commands.run("delete")
    w.document.select((Kind.WALL_FIELD.of(fid),))
    assert "is gone" in w.center.sums.told()[0] and fields(w)[0].x1 == pytest.approx(2000.0)
    assert w.spec.line("right_to").row.text == "what is gone"


def test_a_field_parts_from_the_others_and_is_mirrored(empty_window: Window) -> None:
    w = empty_window
    w.show_stage("paneling")
    put(w, "slats")
    type_into(w, "z_angle", "20")
    w.commands.run("repeat_field")
    w.document.select((Kind.WALL_FIELD.of(decided(w)[1].id),))
    w.commands.run("part_field")
    assert decided(w)[1].treatment != decided(w)[0].treatment
    w.commands.run("mirror_field")
    assert decided(w)[1].mirrored
    one, other = fields(w)[1].zones[0].slats[0], fields(w)[3].zones[0].slats[0]
    assert one.shape != other.shape


def test_it_is_all_there_in_inches(empty_window: Window) -> None:
    from tall_plank.edits.jobs import set_display
    from tall_plank.measure import DisplayUnit

    w = empty_window
    w.document.do(lambda job: set_display(job, DisplayUnit.FRACTION_16))
    w.show_stage("paneling")
    put(w, "equal panels")
    type_into(w, "z_stile", "3")
    type_into(w, "z_step", "1/4")
    assert w.document.job.treatments[0].zone.stile.mm == pytest.approx(76.2)  # type: ignore[union-attr]
    grid = fields(w)[0].zones[0].stretches[0].grid
    assert grid is not None and (grid.panels[0] / 25.4 * 4) % 1 == pytest.approx(0.0, abs=1e-6)
    assert sum((*grid.stiles, *grid.panels)) == pytest.approx(3600.0)
    type_into(w, "right", "12 1/2")
    assert fields(w)[0].x1 == pytest.approx(3600.0 - 12.5 * 25.4)


def test_saved_and_opened_it_is_the_same(empty_window: Window, tmp_path) -> None:  # type: ignore[no-untyped-def]
    from tall_plank.files.plankfile import read_plank

    w = empty_window
    w.show_stage("paneling")
    put(w, "arch in slats")
    path = tmp_path / "hall.plank"
    w.document.save(path)
    assert read_plank(path) == w.document.job


def test_a_stair_wall_rakes_from_shelf_and_sheet(empty_window: Window) -> None:
    w = empty_window
    w.show_stage("paneling")
    put(w, "raked")
    (laid,) = fields(w)
    assert laid.treatment.name == "Raked panels" and laid.zones[0].stretches[0].rake > 0
    assert "panels and" in w.center.sums.told()[1]
    type_into(w, "z_angle", "-20")
    assert fields(w)[0].zones[0].stretches[0].rake < 0
    type_into(w, "z_angle", "88")
    assert fields(w)[0].zones[0].stretches[0].rake == pytest.approx(-0.36397, abs=1e-5), "the last good one is kept"
    choose(w, "z_cap", "MP-RAIL-63")
    assert [r.what for r in fields(w)[0].rails] == ["raked rail"]
    choose_display(w, "in")
    w.document.select((Kind.WALL_FIELD.of(decided(w)[0].id),))
    type_into(w, "z_height", '30 1/2"')
    (s,) = fields(w)[0].zones[0].stretches
    assert w.document.job.treatments[0].zone.height.mm == pytest.approx(30.5 * 25.4)  # type: ignore[union-attr]
    assert s.z1 - s.z0 < 30.5 * 25.4, "its rail is part of its height"
    choose(w, "z0_style", "framed")
    assert any("does not rake" in f.what for f in fields(w)[0].faults)
    w.commands.run("undo")
    assert not fields(w)[0].faults
    w.commands.run("mirror_field")
    assert fields(w)[0].zones[0].stretches[0].rake > 0
    choose(w, "z_join", "")
    assert fields(w)[0].zones[0].stretches[0].rake == 0


def breast(w: Window) -> str:
    """A chimney breast on wall A, chosen."""
    w.show_stage("room")
    put(w, "chimney breast")
    column = w.document.room.room.columns[-1].id
    w.show_stage("paneling")
    w.document.select((Kind.COLUMN.of(column),))
    return column


def test_a_chimney_breast_is_covered_by_keys_and_its_faces_stand_on_the_strip(empty_window: Window) -> None:
    w = empty_window
    column = breast(w)
    put(w, "slats")
    assert [f.wall for f in decided(w)] == [f"{column}-{face}" for face in ("left", "front", "right")]
    assert {s.id for s in w.document.selection} == {f.id for f in decided(w)}
    lines = [line.id for line in w.document.room.lines]
    assert lines[4:] == [f.wall for f in decided(w)]
    # A click on the front's face chooses its field; its sheet names the face.
    QTest.mouseClick(w.strip, LEFT, NONE, on_wall(w, f"{column}-front", 600.0, 1200.0))
    assert w.document.selection == (Kind.WALL_FIELD.of(decided(w)[1].id),)
    assert "chimney breast 1, front" in w.spec.subtitle.text()
    type_into(w, "left", "100")
    assert fields(w)[1].x0 == pytest.approx(100.0)
    w.commands.run("undo")
    w.commands.run("undo")
    assert decided(w) == () and w.document.room.sides == ()
    w.commands.run("redo")
    assert len(decided(w)) == 3


def test_a_treatment_dropped_on_a_breast_covers_it_and_one_beside_it_the_wall(empty_window: Window) -> None:
    w = empty_window
    column = breast(w)
    w.place_on_wall("room:flat boards", "A", 1800.0, 1200.0)
    assert len(decided(w)) == 3
    w.place_on_wall("room:equal panels", "A", 300.0, 1200.0)
    assert [f.wall for f in decided(w)][3:] == ["A"]
    # On one of its faces on the strip: all of it is covered already, and that is said.
    w.place_on_wall("room:slats", f"{column}-front", 300.0, 1200.0)
    assert len(decided(w)) == 4 and "covered already" in w.message.text.text()
    w.document.select((Kind.COLUMN.of(column),))
    w.commands.run("delete")
    assert [f.wall for f in decided(w)] == ["A"]


def test_a_breast_is_covered_from_its_sheet_in_inches_and_no_unit_goes_on_a_face(empty_window: Window) -> None:
    w = empty_window
    choose_display(w, "in")
    column = breast(w)
    choose(w, "cover", "equal panels")
    assert len(decided(w)) == 3
    w.document.select((Kind.WALL_FIELD.of(decided(w)[1].id),))
    type_into(w, "left", "2 1/2")
    assert fields(w)[1].x0 == pytest.approx(63.5)
    before = w.document.job
    w.show_stage("units")
    w.place_on_wall("door", f"{column}-front", 100.0, 900.0)
    assert w.document.job is before and "no face of a column" in w.message.text.text()


def drag_on_wall(w: Window, a: tuple[float, float], b: tuple[float, float]) -> None:
    drag(w.strip, on_wall(w, "A", *a), on_wall(w, "A", *b))


def line_of(w: Window) -> Parted:
    zone = w.document.job.treatments[0].zone
    assert isinstance(zone, Parted)
    return zone


def test_an_arc_is_drawn_on_the_wall_and_both_sides_get_a_depth(empty_window: Window) -> None:
    w = empty_window
    w.show_stage("paneling")
    put(w, "flat boards")
    w.commands.run("draw_line")
    drag_on_wall(w, (5, 800), (3595, 1400))
    line = line_of(w)
    # The ends snap to the sides of the zone.
    assert (line.x1, line.x2) == (0.0, 1.0)
    assert line.y1 == pytest.approx(800 / 2500, abs=0.004) and line.y2 == pytest.approx(1400 / 2500, abs=0.004)
    assert w.document.ids(Kind.WALL_FIELD), "it stays chosen"
    # The grip in its middle bends it.
    drag_on_wall(w, (1800, 1100), (1760, 1400))
    assert line_of(w).rise.mm == pytest.approx(303.0, abs=14.0)
    drag_on_wall(w, (0, 800), (5, 400))
    assert line_of(w).y1 == pytest.approx(400 / 2500, abs=0.004) and line_of(w).x1 == 0.0
    type_into(w, "z0_thickness", "19")
    type_into(w, "z1_thickness", "12")
    deep = {z.path: z.cover.thickness.mm for z in fields(w)[0].zones}  # type: ignore[union-attr]
    assert deep == {(0,): 19.0, (1,): 12.0}
    for _ in range(4):
        w.commands.run("undo")
    assert line_of(w).rise.mm == 0.0
    w.commands.run("undo")
    assert w.document.job.treatments[0].zone == Boards()


def test_the_boundary_of_bands_is_dragged_on_the_wall(empty_window: Window) -> None:
    w = empty_window
    w.show_stage("paneling")
    put(w, "dado")
    before = {round(s.z1) for z in fields(w)[0].zones for s in z.stretches}
    drag_on_wall(w, (1800, 900), (1800, 1200))
    after = {round(s.z1) for z in fields(w)[0].zones for s in z.stretches}
    assert before == {900} and abs(min(after) - 1200) < 15 and len(w.document.job.rooms[0].fields) == 1
    w.commands.run("undo")
    assert {round(s.z1) for z in fields(w)[0].zones for s in z.stretches} == {900}
    # Escape while it is dragged gives the old place back.
    QTest.mousePress(w.strip, LEFT, NONE, on_wall(w, "A", 1800, 900))
    QTest.mouseMove(w.strip, on_wall(w, "A", 1800, 1000))
    QTest.mouseMove(w.strip, on_wall(w, "A", 1800, 1100))
    QTest.keyClick(w.strip, Qt.Key.Key_Escape)
    assert {round(s.z1) for z in fields(w)[0].zones for s in z.stretches} == {900}
    QTest.mouseRelease(w.strip, LEFT, NONE, on_wall(w, "A", 1800, 1100))
    assert {round(s.z1) for z in fields(w)[0].zones for s in z.stretches} == {900}


def test_a_line_is_drawn_in_mirrored_fields_and_halves_where_the_pointer_is(empty_window: Window) -> None:
    w = empty_window
    w.show_stage("paneling")
    put(w, "flat boards")
    w.commands.run("mirror_field")
    w.commands.run("draw_line")
    drag_on_wall(w, (5, 300), (3595, 2200))
    zones = {z.path: z for z in fields(w)[0].zones}
    # Left of the way from the lower left to the upper right, as it is seen, lies the upper part; mirrored, the other.
    assert any(r.inside(3000.0, 400.0) for r in zones[(0,)].regions) or any(
        r.inside(3000.0, 400.0) for r in zones[(1,)].regions
    )
    seam = [p for r in zones[(0,)].regions for p in r.outer if abs(p[0]) < 1.0 or abs(p[0] - 3600) < 1.0]
    assert any(abs(z - 300) < 12 for x, z, _ in seam if x < 1.0)
    assert any(abs(z - 2200) < 12 for x, z, _ in seam if x > 1.0)
    w.commands.run("undo")
    w.commands.run("mirror_field")
    choose(w, "z_split", "halves")
    w.commands.run("draw_line")
    drag_on_wall(w, (3595, 400), (1900, 1900))
    corners = [p for z in fields(w)[0].zones for r in z.regions for p in r.outer]
    assert any(abs(z - 400) < 12 for x, z, _ in corners if abs(x - 3600) < 1.0)
    assert any(abs(z - 400) < 12 for x, z, _ in corners if abs(x) < 1.0), "the left half has it too"
    # Beside the field nothing is drawn, and that is said.
    before = w.document.job
    w.commands.run("draw_line")
    drag(w.strip, on_wall(w, "B", 300, 400), on_wall(w, "B", 900, 900))
    assert w.document.job is before and "No covered part" in w.message.text.text()


def test_bands_that_find_no_room_show_no_grips_and_the_window_lives(empty_window: Window) -> None:
    w = empty_window
    w.show_stage("paneling")
    put(w, "dado")
    assert len(grips_of(w.document)) == 1
    type_into(w, "top", "1700")
    assert grips_of(w.document) == []
    w.strip.repaint()
    QTest.mouseMove(w.strip, on_wall(w, "A", 1800, 850))
    assert fields(w)[0].faults


def test_a_band_is_dragged_in_inches_and_keeps_its_whole(empty_window: Window) -> None:
    w = empty_window
    choose_display(w, "in")
    w.show_stage("paneling")
    put(w, "flat boards")
    choose(w, "z_split", "along")
    choose(w, "z0_split", "up")
    grips = {g.path: g.at for g in grips_of(w.document)}
    assert set(grips) == {(), (0,)}
    drag_on_wall(w, grips[()], (1000, 1250))
    assert fields(w)[0].zones[0].regions[0].bounds[2] == pytest.approx(1000.0, abs=12.0)
    drag_on_wall(w, {g.path: g.at for g in grips_of(w.document)}[(0,)], (500, 2000))
    heights = [z.regions[0].bounds[3] - z.regions[0].bounds[1] for z in fields(w)[0].zones[:2]]
    assert sum(heights) == pytest.approx(2500.0) and heights[0] == pytest.approx(2000.0, abs=12.0)


@pytest.mark.parametrize("how", ["up", "along", "arch", "line", "rake", "halves"])
def test_every_grip_of_every_split_can_be_pulled_anywhere(how: str, empty_window: Window) -> None:
    """Out of the zone, onto another grip, out of the wall: what does not fit keeps the last state that did."""
    w = empty_window
    w.show_stage("paneling")
    put(w, "flat boards")
    choose(w, "z_split", how)
    choose(w, "z0_split" if how != "arch" else "z1_split", "line")
    choose(w, "z0.0_split" if how != "arch" else "z1.0_split", "up")
    for number in range(len(grips_of(w.document))):
        for to in ((-400.0, 2900.0), (1800.0, 1250.0)):
            grips = grips_of(w.document)
            if number >= len(grips):
                break
            drag_on_wall(w, grips[number].at, to)
            assert w.document.ids(Kind.WALL_FIELD) == (decided(w)[0].id,)
            w.strip.repaint()
    assert w.document.drag_from is None


def test_what_covers_a_breast_shows_on_its_wall_at_once(empty_window: Window) -> None:
    w = empty_window
    breast(w)
    put(w, "flat boards")
    front = Kind.WALL_FIELD.of(decided(w)[1].id)

    def shown() -> int:
        drawn = next(p.drawing for p in w.strip.placed if p.drawing.mark == "A")
        return sum(getattr(i, "source", None) == front for i in drawn.items)

    assert shown() >= 1
    before = shown()
    w.document.select((front,))
    choose(w, "z_cover", "slats")
    assert shown() > before + 20, "its slats are on wall A's elevation too"
    w.commands.run("undo")
    assert shown() == before
