"""The Select menu."""

from __future__ import annotations

from functools import partial

from PyQt6.QtWidgets import QApplication, QLineEdit

from tall_plank.desk.app.window import Window
from tall_plank.desk.look.texts import tr
from tall_plank.job import Kind, Level


def register(w: Window) -> None:
    add, doc = w.commands.add, w.document

    def pick(test) -> None:  # type: ignore[no-untyped-def]
        found = tuple(Kind.CELL.of(p.cell) for p in doc.room.placed if p.is_solid and test(p))
        doc.select(found)

    def same(key: str) -> None:
        chosen = [doc.workings.layout.find(c) for c in doc.cells]
        wanted = {getattr(p, key) for p in chosen if p is not None}
        pick(lambda p: getattr(p, key) in wanted)

    def all_of_it() -> None:
        widget = QApplication.focusWidget()
        if isinstance(widget, QLineEdit):
            widget.selectAll()
        elif (pane := w.center.table_shown()) is not None:
            pane.view.selectAll()
        else:
            pick(lambda p: True)

    add("select_all", tr("&All units"), "select", all_of_it, "Ctrl+A")
    add("select_alike", tr("All a&like"), "select", lambda: same("template"), "A", lambda: bool(doc.cells))
    add("select_level", tr("All on this &level"), "select", lambda: same("level"), "L", lambda: bool(doc.cells))
    add("select_base", tr("All &base units"), "select", lambda: pick(lambda p: p.level is Level.BASE))
    add("select_hung", tr("All &hung units"), "select", lambda: pick(lambda p: p.level is Level.HUNG))
    add("select_none", tr("&Nothing"), "select", lambda: doc.select(()), "Escape", bound=False)
    w.commands.separate("select")
    add("next_cell", tr("Ne&xt unit"), "select", lambda: w.lines.step(1), ".")
    add("previous_cell", tr("&Previous unit"), "select", lambda: w.lines.step(-1), ",")
    add("cell_above", tr("Unit above"), "select", lambda: w.lines.step_level(1), "Up", bound=False)
    add("cell_below", tr("Unit below"), "select", lambda: w.lines.step_level(-1), "Down", bound=False)
    w.commands.separate("select")
    for i in range(9):
        add(
            f"wall_{i + 1}",
            f"{tr('Wall')} {i + 1}",
            "select",
            partial(pick_line, w, i),
            f"Ctrl+{i + 1}",
            partial(_has_line, w, i),
        )
    add(
        "select_island",
        tr("The &island that it stands on"),
        "select",
        lambda: doc.select((Kind.ISLAND.of(w.chosen_island()),)),
        "Shift+I",
        lambda: w.chosen_island() != "",
    )
    add("select_run", tr("The whole r&un"), "select", lambda: pick_run(w), "N", lambda: bool(doc.cells))


def _has_line(w: Window, i: int) -> bool:
    return i < len(w.document.room.lines)


def pick_line(w: Window, i: int) -> None:
    """The i-th wall or face of the frieze."""
    lines = w.document.room.lines
    if i < len(lines):
        w.document.select((Kind.WALL.of(lines[i].id),))


def pick_run(w: Window) -> None:
    w.document.select((Kind.RUN.of(w.document.job.find_cell(w.document.cells[0])[1].id),))
