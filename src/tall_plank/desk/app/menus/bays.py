"""The commands that work in the bays of a unit."""

from __future__ import annotations

from functools import partial

from PyQt6.QtCore import QRect

from tall_plank.desk.app.window import Window
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.bays import next_bay, one_unit
from tall_plank.edits import bays, fittings
from tall_plank.edits.things.sliding import add_sliding_over
from tall_plank.job import Kind
from tall_plank.job.inherit import sourced
from tall_plank.job.standard import CHOICES
from tall_plank.job.things.sliding import BayRef


def register(w: Window) -> None:
    """Register them under the menu Bays."""
    add, doc = w.commands.add, w.document

    def in_bay() -> bool:
        return doc.bay is not None

    def has_bays() -> bool:
        return one_unit(doc) is not None

    def leaf() -> bool:
        box = doc.bay_box(doc.bay) if doc.bay is not None else None
        return box is not None and not box.bay.children

    add("bay_enter", tr("Work in the &bays"), "bays", lambda: enter(w), "Q", has_bays)
    add("bay_leave", tr("The bay ar&ound it"), "bays", lambda: leave(w), "Shift+Q", in_bay)
    for key, name, text, dx, dz in (
        ("Ctrl+Left", "bay_left", tr("Bay on the &left"), -1, 0),
        ("Ctrl+Right", "bay_right", tr("Bay on the &right"), 1, 0),
        ("Ctrl+Up", "bay_up", tr("Bay &above"), 0, 1), ("Ctrl+Down", "bay_down", tr("Bay b&elow"), 0, -1),
    ):  # fmt: skip
        add(name, text, "bays", partial(step, w, dx, dz), key, in_bay)
    w.commands.separate("bays")
    for name, text, split, between, key in (
        ("split_shelf", tr("Split by &shelves…"), "rows", "shelf", "Shift+S"),
        ("split_divider", tr("Split by &dividers…"), "columns", "divider", "Shift+V"),
        ("split_rows", tr("Split in &rows…"), "rows", "nothing", "Shift+W"),
        ("split_columns", tr("Split in &columns…"), "columns", "nothing", "Shift+C"),
    ):
        add(name, text, "bays", partial(ask_split, w, split, between), key, leaf)
    add(
        "bay_undivide",
        tr("Take the division o&ut"),
        "bays",
        lambda: undivide(w),
        "Shift+J",
        lambda: in_bay() and undivided(w) is not None,
    )
    add(
        "bay_board",
        tr("Take the &board beside it out"),
        "bays",
        lambda: take_board(w),
        "Shift+B",
        lambda: in_bay() and board_beside(w) is not None,
    )
    add("bay_size", tr("T&ype the bay's size"), "bays", lambda: ask_size(w), "Shift+F2", in_bay)
    add(
        "sliding",
        tr("Slid&ing doors before them"),
        "bays",
        lambda: slide_before(w),
        "Shift+L",
        lambda: bool(doc.chosen) or (bool(doc.cells) and all(doc.workings.made.of(c) is not None for c in doc.cells)),
    )
    add("choose_bay", tr("C&hoose this bay too"), "bays", lambda: choose_bay(w), "Shift+G", in_bay)
    w.commands.separate("bays")
    for kind, words in bays.FRONTS.items():
        add(
            f"front_{kind}",
            tr(words)[:1].upper() + tr(words)[1:] if kind != "none" else tr("Leave open"),
            "bays/close",
            partial(close_with, w, kind),
            "",
            in_bay,
            lead=tr("Close with") if kind != "none" else "",
        )
    for code, words in CHOICES["front_style"].items():
        add(
            f"restyle_{code}",
            tr(words),
            "bays/style",
            partial(restyle_all, w, code),
            "",
            partial(_other_style, w, code),
            lead=tr("All fronts of this style"),
            why=tr("choose a unit with fronts of another style"),
        )
    for fitting in doc.job.stock.fittings:
        if fitting.is_inside:
            add(
                f"put_{fitting.code}",
                fitting.name,
                "bays/put",
                partial(put_in, w, fitting.code),
                "",
                leaf,
                lead=tr("Put in"),
            )
    w.commands.separate("view")
    add(
        "fronts_off",
        tr("Take the fr&onts off"),
        "view",
        lambda: doc.show_fronts("closed" if doc.fronts == "off" else "off"),
        "X",
        checkable=True,
    )
    add(
        "for_shop",
        tr("Drawings for the &shop: edging, joints, machining"),
        "view",
        lambda: doc.show_for_shop(not doc.shop),
        "Shift+Z",
        checkable=True,
    )
    add(
        "fronts_open",
        tr("Op&en doors and drawers"),
        "view",
        lambda: doc.show_fronts("closed" if doc.fronts == "open" else "open"),
        "Shift+X",
        checkable=True,
    )


def style_here(w: Window) -> str:
    """The style of the front that is worked on, or of the selected unit's fronts; empty where there is none."""
    doc = w.document
    if not doc.cells:
        return ""
    box = doc.bay_box(doc.bay) if doc.bay is not None else None
    if box is not None and box.bay.front is not None and box.bay.front.style:
        return box.bay.front.style
    unit = doc.job.unit(doc.job.find_cell(doc.cells[0])[2].unit)
    return str(sourced(doc.job, unit, "front_style").value)


def slide_before(w: Window) -> None:
    """Put sliding doors before the chosen bays, else before the bay that is worked on, or all selected units; two
    leaves, three or more where two would be too wide."""
    doc = w.document
    order = [p.cell for p in doc.room.placed if p.cell in doc.cells]
    if not order and not doc.chosen:
        return
    chosen = doc.chosen or tuple(BayRef(cell, doc.bay or ()) for cell in order)
    if doc.do(lambda job: add_sliding_over(job, chosen)) is None:
        doc.let_go_of_bays()


def choose_bay(w: Window) -> None:
    """Choose the bay that is worked on besides those that are chosen, or let go of it."""
    doc = w.document
    if doc.bay is not None and doc.cells:
        ref = BayRef(doc.cells[0], doc.bay)
        if not doc.chosen:
            doc.chosen = (ref,)
            doc.selected.emit()
        else:
            doc.choose_bay(ref)


def enter(w: Window) -> None:
    """Work on the first bay of the selected unit."""
    found = one_unit(w.document)
    if found is not None:
        assert found[1].set is not None
        w.document.select_bay(found[1].set.leaves[0].path)


def leave(w: Window) -> None:
    """One step out: from a bay to the one around it, from the outermost to the whole unit."""
    path = w.document.bay
    w.document.select_bay(path[:-1] if path else None)


def step(w: Window, dx: int, dz: int) -> None:
    found, path = one_unit(w.document), w.document.bay
    if found is not None and path is not None:
        beside = next_bay(found[1], path, dx, dz)
        if beside is not None:
            w.document.select_bay(beside)


def board_beside(w: Window) -> tuple[tuple[int, ...], int] | None:
    """The bay around the one in work, and which of its boards stands before that one, or after it where it is first;
    None where nothing stands between them."""
    path = w.document.bay
    if not path:
        return None
    around = w.document.bay_box(path[:-1])
    if around is None or around.bay.between == "nothing":
        return None
    return path[:-1], max(0, path[-1] - 1)


def undivided(w: Window) -> tuple[int, ...] | None:
    """The divided bay that the command works on: this one, or the one around it."""
    path = w.document.bay
    if path is None:
        return None
    box = w.document.bay_box(path)
    if box is not None and box.bay.children:
        return path
    return path[:-1] if path else None


def bay_rect(w: Window) -> QRect:
    """Where the bay stands in the strip, px."""
    doc = w.document
    found = one_unit(doc)
    assert found is not None and doc.bay is not None
    placed, _ = found
    box = doc.bay_box(doc.bay)
    assert box is not None
    x = w.strip.wall_x(placed.wall_id) + placed.x
    middle = w.strip.to_px(x + (box.clear.x0 + box.clear.x1) / 2, placed.bottom + (box.clear.z0 + box.clear.z1) / 2)
    return QRect(int(middle.x()) - 70, int(middle.y()) - 13, 140, 26)


def ask_split(w: Window, split: str, between: str) -> None:
    """Type how the bay is split, where it stands."""
    doc = w.document
    cell, path = doc.cells[0], doc.bay or ()
    if w.view_shown in ("plan", "model") or w.stage in ("shop", "offer"):
        w.show_view("all")
    w.strip.setFocus()
    w.strip.box.ask(
        bay_rect(w),
        "2",
        lambda text: doc.do(lambda job: bays.split_bay(job, cell, path, text, split, between), at_place=True),
        offered=True,
    )


def ask_size(w: Window) -> None:
    """Type the size of the bay in the row or column that it stands in."""
    doc = w.document
    path = doc.bay or ()
    if not path:
        w.message.tell(tr("The whole unit has no bay around it. Change its width or height."), "wrong")
        return
    dim = next(
        (d for d in w.strip.extra_dims if d.source is not None and d.source.kind is Kind.BAY and d.key == "size"), None
    )
    if w.view_shown in ("plan", "model") or w.stage in ("shop", "offer"):
        w.show_view("all")
    w.strip.setFocus()
    cell = doc.cells[0]
    w.strip.box.ask(
        bay_rect(w),
        dim.text if dim is not None else "",
        lambda text: doc.do(lambda job: bays.set_size(job, cell, path, text), at_place=True),
    )


def close_with(w: Window, kind: str) -> None:
    """Close the bay that is worked on with a kind of front, or leave it open."""
    doc = w.document
    doc.do(lambda job: bays.set_front(job, ((doc.cells[0], doc.bay or ()),), kind))


def restyle_all(w: Window, code: str) -> None:
    """Give all fronts of the style that is worked on another one."""
    w.document.do(lambda job: bays.replace_style(job, style_here(w), code))


def _other_style(w: Window, code: str) -> bool:
    return style_here(w) not in ("", code)


def put_in(w: Window, code: str) -> None:
    """Put a fitting into the bay that is worked on."""
    doc = w.document
    doc.do(lambda job: fittings.add_fitting(job, doc.cells[0], doc.bay or (), code))


def undivide(w: Window) -> None:
    """Make one bay of the division that the bay belongs to."""
    path, doc = undivided(w), w.document
    if path is not None:
        doc.do(lambda job: bays.join_bay(job, doc.cells[0], path))


def take_board(w: Window) -> None:
    """Take the board beside the bay out."""
    board, doc = board_beside(w), w.document
    if board is not None:
        doc.do(lambda job: bays.remove_board(job, doc.cells[0], *board))
