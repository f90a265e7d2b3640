"""The Edit menu: undo, clipboard, deleting, widths."""

from __future__ import annotations

from PyQt6.QtCore import QMimeData
from PyQt6.QtGui import QGuiApplication

from tall_plank.desk.app.menus import printing
from tall_plank.desk.app.window import Window
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.sheets import setting
from tall_plank.edits import placing, runs
from tall_plank.edits.clipboard import copy_cells, paste
from tall_plank.edits.things.table import delete_thing
from tall_plank.job import Kind, Source
from tall_plank.job.things.table import THINGS

CLIP_MIME = "application/x-tall-plank-units"


def register(w: Window) -> None:
    add, doc = w.commands.add, w.document
    add(
        "undo",
        tr("Undo"),
        "edit",
        doc.undo,
        "Ctrl+Z",
        lambda: doc.history.can_undo,
        why=tr("there is no step to take back"),
    )
    add(
        "redo",
        tr("Redo"),
        "edit",
        doc.redo,
        "Ctrl+Shift+Z Ctrl+Y",
        lambda: doc.history.can_redo,
        why=tr("no step was taken back"),
    )
    w.commands.separate("edit")

    def copy() -> None:
        pane = w.center.table_shown()
        if pane is not None:
            pane.copy_text()
            return
        data = QMimeData()
        text = copy_cells(doc.job, doc.cells)
        data.setData(CLIP_MIME, text.encode())
        data.setText(text)
        clipboard = QGuiApplication.clipboard()
        assert clipboard is not None
        clipboard.setMimeData(data)
        w.message.tell(f"{len(doc.cells)} {tr('copied')}")

    def cut() -> None:
        copy()
        delete()

    def paste_units() -> None:
        clipboard = QGuiApplication.clipboard()
        assert clipboard is not None
        data = clipboard.mimeData()
        text = data.data(CLIP_MIME).data().decode() if data and data.hasFormat(CLIP_MIME) else clipboard.text()
        wall = w.strip.current_wall()
        after = doc.cells[-1] if doc.cells else ""
        doc.do(lambda job: paste(job, text, doc.room_id, wall, after))

    def duplicate() -> None:
        text, wall = copy_cells(doc.job, doc.cells), w.strip.current_wall()
        doc.do(lambda job: paste(job, text, doc.room_id, wall, doc.cells[-1]))

    def delete() -> None:
        if doc.cells:
            doc.do(lambda job: runs.delete_cells(job, doc.cells))
        elif doc.ids(Kind.RUN):
            doc.do(lambda job: runs.delete_run(job, doc.ids(Kind.RUN)[0]))
        else:
            for source in things():
                doc.do(setting(delete_thing, source))

    def things() -> list[Source]:
        """The placed things that are selected; a wall stands for the ceiling that slopes to it."""
        slopes = [Kind.SLOPE.of(s.id) for s in doc.room.room.slopes if s.wall in doc.ids(Kind.WALL)]
        return [*(s for s in doc.selection if s.kind in THINGS), *slopes]

    def has_cells() -> bool:
        return bool(doc.cells)

    def something() -> bool:
        return bool(doc.cells or doc.ids(Kind.RUN) or things())

    add("cut", tr("Cu&t"), "edit", cut, "Ctrl+X", has_cells)
    add("copy", tr("&Copy"), "edit", copy, "Ctrl+C", lambda: has_cells() or w.center.table_shown() is not None)
    add("paste", tr("&Paste"), "edit", paste_units, "Ctrl+V")
    add(
        "copy_picture", tr("Copy what is shown as a p&icture"), "edit", lambda: printing.copy_picture(w), "Ctrl+Shift+C"
    )
    add("copy_words", tr("Copy what is shown as te&xt"), "edit", lambda: printing.copy_text(w), "Ctrl+Alt+C")
    add(
        "look_into",
        tr("Loo&k into the unit"),
        "view",
        w.look_into,
        "J",
        lambda: len(doc.cells) == 1 and w.document.workings.made.of(doc.cells[0]) is not None,
    )
    add("duplicate", tr("D&uplicate"), "edit", duplicate, "Ctrl+D", has_cells)
    add("delete", tr("&Delete"), "edit", delete, "Delete", something)
    w.commands.separate("edit")

    def one() -> bool:
        return len(doc.cells) == 1

    add(
        "move_left",
        tr("Move one place &left"),
        "edit",
        lambda: doc.do(lambda job: runs.shift_cell(job, doc.cells[0], -1)),
        "Alt+Left",
        one,
    )
    add(
        "move_right",
        tr("Move one place &right"),
        "edit",
        lambda: doc.do(lambda job: runs.shift_cell(job, doc.cells[0], 1)),
        "Alt+Right",
        one,
    )
    add("mirror", tr("&Mirror"), "edit", lambda: doc.do(lambda job: placing.mirror(job, doc.cells)), "M", has_cells)
    add(
        "share",
        tr("Take an equal &share"),
        "edit",
        lambda: doc.do(lambda job: runs.set_width(job, doc.cells, "share")),
        "=",
        has_cells,
    )
    add(
        "rest",
        tr("Take what is l&eft"),
        "edit",
        lambda: doc.do(lambda job: runs.set_width(job, doc.cells, "rest")),
        "E",
        has_cells,
    )
    add("type_width", tr("Type the &width"), "edit", lambda: type_width(w), "W F2", one)
    add("type_clear_left", tr("Type the clear distance on the left"), "edit", lambda: type_clear(w, "left"), "[", one)
    add(
        "type_clear_right", tr("Type the clear distance on the right"), "edit", lambda: type_clear(w, "right"), "]", one
    )


def type_width(w: Window) -> None:
    """Open the box over the selected cell's width."""
    w.lines.setFocus()
    w.lines.type_cell(w.document.cells[0])


def type_clear(w: Window, side: str) -> None:
    """Open the box over a clear distance; where there is none, say so."""
    dim = next((d for d in w.strip.extra_dims if d.attention and d.key == side), None)
    if dim is None:
        w.message.tell(tr("It stands close there: the clear distance is 0."))
        return
    w.strip.setFocus()
    w.strip.type_dim(dim)
