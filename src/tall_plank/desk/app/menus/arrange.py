"""The Arrange menu: holding, repeating, grouping, linking, keeping in the library."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QRect

from tall_plank.desk.app.window import Window
from tall_plank.desk.look.texts import tr
from tall_plank.edits import hanging, library, placing, tops
from tall_plank.edits.things.soffit import add_soffit_over
from tall_plank.files.library import forget, keep, kept
from tall_plank.job import Kind, Level, Source
from tall_plank.measure import DisplayUnit, PlankError, format_length


def register(w: Window) -> None:
    """Commands of the Arrange menu: many units, many times."""
    add, doc = w.commands.add, w.document

    def one() -> bool:
        return len(doc.cells) == 1

    def some() -> bool:
        return bool(doc.cells)

    def many() -> bool:
        return len(doc.cells) > 1

    def hung() -> bool:
        return all(doc.job.find_cell(c)[1].level is Level.HUNG for c in doc.cells)

    def run_chosen() -> str:
        if doc.ids(Kind.RUN):
            return doc.ids(Kind.RUN)[0]
        return doc.job.find_cell(doc.cells[0])[1].id if doc.cells else ""

    add("centre_opening", tr("&Center on the window or door above"), "arrange", lambda: centre_on(w), "C", one)
    add(
        "align_seams",
        tr("&Line up with the base units"),
        "arrange",
        lambda: doc.do(lambda job: placing.align_seams(job, doc.cells)),
        "U",
        some,
    )
    add(
        "let_go",
        tr("Let &go of what holds it"),
        "arrange",
        lambda: doc.do(lambda job: placing.let_go(job, doc.cells)),
        "Shift+U",
        lambda: any(doc.job.find_cell(c)[2].anchor is not None for c in doc.cells),
    )
    w.commands.separate("arrange")
    add("move_by", tr("&Move by a distance"), "arrange", lambda: move_by(w), "B", some)
    add("repeat", tr("&Repeat to the right"), "arrange", lambda: repeat(w), "Shift+D", one)
    add("repeat_up", tr("Repeat u&pwards"), "arrange", lambda: repeat(w, up=True), "Shift+P", lambda: one() and hung())
    add(
        "hang_free",
        tr("Let it hang b&y itself"),
        "arrange",
        lambda: doc.do(lambda job: hanging.free_of(job, doc.cells)),
        "Shift+Y",
        lambda: any(not doc.job.find_cell(c)[1].free for c in doc.cells),
        why=tr("choose a unit that stands in a run"),
    )
    add(
        "hang_in_run",
        tr("Put it &into the hung run"),
        "arrange",
        lambda: doc.do(lambda job: hanging.into_run(job, doc.cells)),
        "Shift+E",
        lambda: any(doc.job.find_cell(c)[1].free for c in doc.cells),
        why=tr("choose what hangs by itself"),
    )
    add(
        "spread",
        tr("&Space evenly"),
        "arrange",
        lambda: doc.do(lambda job: placing.spread(job, doc.cells)),
        "",
        lambda: len(doc.cells) > 2,
    )
    add(
        "mirror_run",
        tr("Mirror the whole r&un"),
        "arrange",
        lambda: doc.do(lambda job: placing.mirror_run(job, run_chosen())),
        "Shift+M",
        lambda: run_chosen() != "",
    )
    w.commands.separate("arrange")
    add("group", tr("&Group"), "arrange", lambda: doc.do(lambda job: placing.group(job, doc.cells)), "Ctrl+G", many)
    add(
        "ungroup",
        tr("U&ngroup"),
        "arrange",
        lambda: doc.do(lambda job: placing.ungroup(job, doc.cells)),
        "Ctrl+Shift+G",
        some,
    )
    add(
        "link",
        tr("L&ink: all like the first"),
        "arrange",
        lambda: doc.do(lambda job: placing.link(job, doc.cells)),
        "K",
        many,
    )
    add(
        "unlink",
        tr("&Break the link"),
        "arrange",
        lambda: doc.do(lambda job: placing.unlink(job, doc.cells)),
        "Shift+K",
        some,
    )
    add("lock", tr("L&ock or unlock"), "arrange", lambda: toggle(w, "locked"), "Ctrl+L", some)
    add("hide", tr("&Hide"), "arrange", lambda: toggle(w, "hidden"), "H", some)
    add(
        "show_all",
        tr("Show &all that is hidden"),
        "arrange",
        lambda: doc.do(lambda job: placing.show_all(job)),
        "Shift+H",
        lambda: any(c.hidden for c in doc.job.cells()),
    )
    w.commands.separate("arrange")
    add(
        "start_from",
        tr("S&tart new ones from this"),
        "arrange",
        lambda: doc.do(lambda job: placing.start_from(job, doc.cells[0])),
        "",
        one,
    )
    add(
        "keep",
        tr("&Keep in the library"),
        "arrange",
        lambda: keep_chosen(w),
        "Ctrl+B",
        lambda: some() or bool(doc.ids(Kind.RUN)) or bool(doc.ids(Kind.ISLAND)),
    )
    add("forget", tr("Take out of the library"), "arrange", lambda: forget_kept(w))
    add("label", tr("T&ype a label"), "arrange", lambda: type_label(w), "T", some)
    w.commands.separate("arrange")
    add(
        "soffit_over",
        tr("Stand a so&ffit on the run's units"),
        "arrange",
        lambda: doc.do(lambda job: add_soffit_over(job, run_chosen())),
        "",
        lambda: run_chosen() != "",
    )
    add(
        "top_corners",
        tr("Give the &worktop corners of its own"),
        "arrange",
        lambda: type_top(w),
        "",
        lambda: top_source(w) is not None,
    )


def centre_on(w: Window) -> None:
    """Hold the unit in the middle of the opening of its wall that is nearest to it."""
    doc = w.document
    placed = doc.workings.layout.find(doc.cells[0])
    if placed is None:
        return
    middle = placed.x + placed.width / 2
    near = [(abs(o.x.mm + o.width.mm / 2 - middle), o.id) for o in doc.room.room.openings if o.wall == placed.wall_id]
    if not near:
        w.message.tell(tr("Its wall has no door or window."))
        return
    name = min(near)[1]
    doc.do(lambda job: placing.hold(job, doc.cells[0], "centre", Kind.OPENING.of(name)))


def _ask(w: Window, note: str, edit: Callable[[str], PlankError | None]) -> None:
    """A small box over the first selected unit in the strip."""
    if w.stage in ("shop", "offer"):
        w.show_stage("units")
    placed = w.document.workings.layout.find(w.document.cells[0])
    if placed is None:
        return
    x = w.strip.wall_x(placed.wall_id)
    p = w.strip.to_px(x + placed.x + placed.width / 2, placed.bottom + placed.height / 2)
    w.message.tell(note)
    w.strip.box.ask(QRect(int(p.x()) - 60, int(p.y()) - 13, 120, 26), "", edit)


def move_by(w: Window) -> None:
    doc = w.document
    _ask(
        w,
        tr("How far to the right? Type a minus for the left."),
        lambda text: doc.do(lambda job: placing.move_by(job, doc.cells, text), at_place=True),
    )


def repeat(w: Window, *, up: bool = False) -> None:
    """`3` copies side by side or above one another, or `3 @ 900` at a pitch."""
    doc = w.document
    cell = doc.cells[0]
    display = doc.job.display
    metric = display in (DisplayUnit.MM, DisplayUnit.CM)
    example = f"3 @ {format_length(900.0 if metric else 914.4, display)}"

    def edit(text: str) -> PlankError | None:
        count, _, pitch = text.partition("@")
        if not count.strip().isdigit():
            return PlankError(f"“{text}” is no number of copies.", "repeat", f"Type 3, or {example} for a pitch.")
        again = hanging.repeat_up if up else placing.repeat
        return doc.do(lambda job: again(job, cell, int(count), pitch), at_place=True)

    _ask(w, f"{tr('How many copies?')} “{example}” {tr('sets them at a pitch.')}", edit)


def toggle(w: Window, flag: str) -> None:
    doc = w.document
    on = not all(getattr(doc.job.find_cell(c)[2], flag) for c in doc.cells)
    doc.do(lambda job: placing.set_flag(job, doc.cells, flag, on))
    if flag == "hidden" and on:
        w.message.tell(tr("Hidden in the views, not in lists and prices. Shift+H shows everything again."))


def type_label(w: Window) -> None:
    doc = w.document
    cells = doc.cells
    text = doc.job.find_cell(cells[0])[2].label
    hint = tr("Fields: {number}, {width}, {height}, {depth}, {kind}, {room}, {wall}, {level}. Empty: as the job says.")
    w.open_line(
        tr("Label"),
        text,
        "B{width}",
        hint,
        lambda t: doc.do(lambda job: placing.set_label(job, cells, t), at_place=True),
    )


def keep_chosen(w: Window) -> None:
    """The selected units, run or island under a name."""
    doc = w.document
    cells, chosen, run = doc.cells, doc.ids(Kind.ISLAND), doc.ids(Kind.RUN)

    def write(name: str) -> PlankError | None:
        try:
            if cells:
                text = library.save_cells(doc.job, cells, name)
            elif chosen:
                text = library.save_island(doc.job, chosen[0], name)
            else:
                text = library.save_run(doc.job, run[0], name)
            keep(doc.folders, name, text)
        except PlankError as error:
            return error
        w.shelf.library_changed()
        w.message.tell(f"{tr('Kept in the library')}: {name.strip()}")
        return None

    hint = tr("A name such as the client's or the job's. It stands on the shelf under Saved, in every job.")
    w.open_line(tr("Keep as"), doc.job.client or doc.job.name, tr("Harrow drawers"), hint, write)


def forget_kept(w: Window) -> None:
    names = [k.saved.name for k in kept(w.document.folders)[0]]

    def take(name: str) -> PlankError | None:
        found = next((k for k in kept(w.document.folders)[0] if k.saved.name == name.strip()), None)
        if found is None:
            return PlankError(f"“{name}” is not in the library.", "library", "Type a name as it stands on the shelf.")
        forget(w.document.folders, found.path.name)
        w.shelf.library_changed()
        return None

    w.open_line(tr("Take out"), names[0] if names else "", "", tr("Its file stays beside the others as .bak."), take)


def top_source(w: Window) -> Source | None:
    """The run or island whose worktop is meant by the selection; None where there is none."""
    doc = w.document
    if doc.ids(Kind.ISLAND):
        return Kind.ISLAND.of(doc.ids(Kind.ISLAND)[0])
    if doc.ids(Kind.RUN):
        return Kind.RUN.of(doc.ids(Kind.RUN)[0])
    if doc.cells:
        run = doc.workings.layout.run(doc.job.find_cell(doc.cells[0])[1].id)
        if run is not None and run.run.level != "hung":
            return Kind.ISLAND.of(run.wall.island) if run.wall.island else Kind.RUN.of(run.run.id)
    return None


def type_top(w: Window) -> None:
    """The worktop's corners as text, starting with those that it has."""
    doc = w.document
    source = top_source(w)
    if source is None:
        return
    text = tops.outline_text(doc.job, source)
    if not text:
        try:
            text = tops.outline_text(tops.follow_corners(doc.job, source).job, source)
        except PlankError as error:
            w.message.tell(str(error), "wrong")
            return
    hint = tr(
        "x out; x out; … from the line's left end and out from it. A third figure bows the side. Empty: as its units."
    )
    w.open_line(
        tr("Worktop"),
        text,
        "0 0; 2400 0; 2400 620; 0 620",
        hint,
        lambda t: doc.do(lambda job: tops.set_outline(job, source, t), at_place=True),
    )
