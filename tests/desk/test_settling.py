"""Once the job is left alone, the window shows the lines that paper shows; while something is dragged it paints."""

from __future__ import annotations

from desk.conftest import cell, placed, strip_point
from tall_plank.desk.app.window import Window
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.plan import plan
from tall_plank.drawing.primitives import Drawing
from tall_plank.drawing.shows import exactly
from tall_plank.edits.runs import set_width


def exact(window: Window, wall: str) -> Drawing:
    doc = window.document
    shows = exactly(doc.shows(dims=window.strip.dims_shown))
    return elevation(doc.job, doc.room, doc.room.wall(wall), doc.workings.made, shows=shows)


def shown(window: Window, wall: str) -> Drawing:
    """What the strip shows of a wall."""
    at = [w.id for w in window.document.room.lines].index(wall)
    return window.strip.placed[at].drawing


def settled(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    with qtbot.waitSignal(window.strip.settling.settled, timeout=60_000):
        pass


def test_every_wall_is_as_on_paper_once_the_job_is_left_alone(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    settled(window, qtbot)
    for wall in window.document.room.lines:
        assert shown(window, wall.id) == exact(window, wall.id)
    window.document.do(lambda job: set_width(job, (cell(window, "A2"),), "540"))
    settled(window, qtbot)
    assert shown(window, "A") == exact(window, "A")
    window.document.undo()
    settled(window, qtbot)
    assert shown(window, "A") == exact(window, "A")


def test_the_plan_settles_too(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    window.plan.refresh()
    with qtbot.waitSignal(window.plan.settling.settled, timeout=60_000):
        pass
    doc = window.document
    shows = exactly(doc.shows(fronts=True))
    assert window.plan.placed[0].drawing == plan(doc.job, doc.room, doc.workings.made, shows=shows)


def test_what_is_dragged_is_painted_and_settles_after(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    settled(window, qtbot)
    doc = window.document
    before = shown(window, "A")
    doc.begin_drag("Width")
    doc.drag(lambda job: set_width(job, (cell(window, "A2"),), str(placed(window, "A2").width - 40.0)))
    dragged = shown(window, "A")
    assert dragged != before
    assert dragged != exact(window, "A")
    window.strip.settling._go_on()  # the moment comes while the mouse is down
    assert shown(window, "A") is dragged
    doc.end_drag()
    settled(window, qtbot)
    assert shown(window, "A") == exact(window, "A")


def test_a_unit_is_still_picked_by_a_click_on_what_was_worked_out(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    from PyQt6.QtCore import Qt

    settled(window, qtbot)
    for number in ("A2", "A4", "A10"):
        qtbot.mouseClick(window.strip, Qt.MouseButton.LeftButton, pos=strip_point(window, number, 0.6, 0.6))
        assert window.document.cells == (cell(window, number),)
