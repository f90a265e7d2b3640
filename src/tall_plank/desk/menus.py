"""The commands of a window: what each is called, its keys, and what it does."""

from __future__ import annotations

from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QMimeData
from PyQt6.QtGui import QGuiApplication, QPainter
from PyQt6.QtWidgets import QApplication, QLineEdit, QMenu, QMessageBox

from tall_plank import __version__
from tall_plank.desk import dialogs
from tall_plank.desk.menus_bays import register_bays
from tall_plank.desk.menus_room import chosen_island, register_placing, register_room
from tall_plank.desk.texts import tr
from tall_plank.edits import features, islands, placing, rooms, runs, sliding
from tall_plank.edits.clipboard import copy_cells, paste
from tall_plank.edits.cutting import drop_plan
from tall_plank.edits.stock import add_kinds, offered, replace_stock, take_offered
from tall_plank.job import Level
from tall_plank.job.start import new_job, shipped_templates
from tall_plank.job.template import load_template
from tall_plank.measure import DisplayUnit, PlankError
from tall_plank.stock import load_stock, shipped_stock

if TYPE_CHECKING:
    from tall_plank.desk.window import Window

TITLES = {
    "job": "&Job", "edit": "&Edit", "room": "&Room", "place": "&Place", "bays": "&Bays", "arrange": "&Arrange",
    "select": "&Select",
    "view": "&View", "help": "&Help", "bays/close": "&Close with", "bays/style": "All fronts of this st&yle",
    "bays/put": "&Put in", "place/Base": "&Base", "place/Corner": "&Corner", "place/Hung": "&Hung",
    "place/Tall": "&Tall", "place/End": "&Ends", "place/Furniture": "&Furniture",
    "place/Island": "&Island", "place/Appliances": "&Appliances",
    "place/Other": "&Others",
}  # fmt: skip
CLIP_MIME = "application/x-tall-plank-units"


def register(window: Window) -> None:
    """Register every command of a window."""
    _job(window)
    _edit(window)
    register_room(window)
    _place(window)
    register_placing(window)
    _select(window)
    _view(window)
    register_bays(window)
    _help(window)


def _job(w: Window) -> None:
    add, doc = w.commands.add, w.document

    def new() -> None:
        if w.may_leave():
            from tall_plank.edits.jobs import set_display

            job = new_job(tr("New job"))
            w.load(set_display(job, DisplayUnit(w.preferences.get("display", "mm"))).job, None)
            w.show_stage("room")

    def open_job() -> None:
        if not w.may_leave():
            return
        recent = w.preferences.recent()
        path = dialogs.ask_open(w, recent[0].parent if recent else Path.home())
        if path is not None:
            w.open_path(path)

    def save() -> None:
        if doc.path is None or doc.read_only:
            save_as()
        else:
            save_to(doc.path)

    def save_as() -> None:
        start = doc.path or Path.home() / f"{doc.job.name}.plank"
        path = dialogs.ask_save(w, tr("Save the job"), start, dialogs.JOB_FILTER)
        if path is not None:
            save_to(path if path.suffix == ".plank" else path.with_name(path.name + ".plank"))

    def save_to(path: Path) -> None:
        try:
            doc.save(path, w.preview_png())
        except PlankError as error:
            w.message.tell(str(error), "wrong")
            return
        w.preferences.add_recent(path)
        w.message.tell(f"{tr('Saved')}: {path.name}")

    def new_window() -> None:
        from tall_plank.desk.app import open_window

        open_window(new_job(tr("New job")), doc.folders).show()

    add("new", tr("&New job"), "job", new, "Ctrl+N")
    add("new_window", tr("New &window"), "job", new_window, "Ctrl+Shift+N")
    add("open", tr("&Open…"), "job", open_job, "Ctrl+O")
    add("save", tr("&Save"), "job", save, "Ctrl+S")
    add("save_as", tr("Save &as…"), "job", save_as, "Ctrl+Shift+S")
    w.commands.separate("job")
    add("read_stock", tr("Read stock &files…"), "job", lambda: read_stock(w))
    add("read_kinds", tr("Read &kinds of your own…"), "job", lambda: read_kinds(w))
    add("standards", tr("Shop stan&dards…"), "job", lambda: show_standards(w), "Ctrl+T")
    add("stock", tr("Stoc&k…"), "job", lambda: show_stock(w), "Ctrl+J")
    add("plan_boards", tr("Plan the boa&rds"), "job", lambda: plan_boards(w), "Ctrl+R")
    add("cut_together", tr("Cut with other jobs…"), "job", lambda: w.open_schedule("together"))
    add(
        "stop_plan",
        tr("Stop the search and take its best"),
        "job",
        w.plans.planner.stop,
        "Ctrl+.",
        lambda: w.plans.planner.busy,
    )
    add(
        "keep_plan",
        tr("Keep the cutting plan"),
        "job",
        w.plans.keep_found,
        "Ctrl+Shift+K",
        lambda: w.plans.found is not None and not w.plans.planner.busy,
    )
    add(
        "drop_plan",
        tr("Give the kept cutting plan up"),
        "job",
        lambda: doc.do(drop_plan),
        "",
        lambda: doc.job.kept_plan is not None,
    )
    add(
        "book_cut",
        tr("The &boards are cut: book them off"),
        "job",
        w.plans.book_cut,
        "Ctrl+Shift+B",
        lambda: doc.workings.plan_is_kept,
    )
    add("rack", tr("O&ffcut rack"), "job", lambda: w.open_schedule("rack"), "Ctrl+Shift+J")
    add(
        "take_kinds",
        tr("Ta&ke new kinds from the library"),
        "job",
        lambda: doc.do(lambda job: take_offered(job, shipped_templates(), shipped_stock())),
        "",
        lambda: bool(offered(doc.job, shipped_templates(), shipped_stock())),
    )
    w.commands.separate("job")
    add("export_schedule", tr("Export a &schedule…"), "job", lambda: export_schedule(w), "Ctrl+E")
    add("export_labels", tr("Labels as &PDF…"), "job", lambda: export_labels(w))
    add("print_labels", tr("Print labels into a folder…"), "job", lambda: print_labels(w))
    add("export_drawing", tr("Export the &drawing of the wall…"), "job", lambda: export_drawing(w, "wall"))
    add("export_plan", tr("Export the &plan…"), "job", lambda: export_drawing(w, "plan"))
    add("export_model", tr("Export the &model…"), "job", lambda: export_model(w))
    add("export_package", tr("Export e&verything…"), "job", lambda: export_package(w), "Ctrl+Shift+E")
    add("print", tr("P&rint…"), "job", lambda: print_pages(w), "Ctrl+P")
    w.commands.separate("job")
    add("preferences", tr("Pr&eferences…"), "job", lambda: preferences(w), "Ctrl+,")
    add("close", tr("&Close"), "job", w.close, "Ctrl+W Ctrl+Q")


def fill_recent(w: Window, menu: QMenu) -> None:
    """The files opened last, newest first, as they are when the menu opens."""
    menu.clear()
    for i, path in enumerate(w.preferences.recent(), 1):
        action = menu.addAction(f"&{i} {path.name}")
        assert action is not None
        action.setToolTip(str(path))
        action.triggered.connect(lambda _=False, path=path: w.may_leave() and w.open_path(path))
    if menu.isEmpty():
        empty = menu.addAction(tr("None yet"))
        assert empty is not None
        empty.setEnabled(False)


def show_standards(w: Window) -> None:
    """The page of shop standards, beside the window."""
    from tall_plank.desk.standardspage import StandardsPage

    if w.standards_page is None:
        w.standards_page = StandardsPage(w, w.document)
    w.standards_page.show()
    w.standards_page.raise_()
    w.standards_page.activateWindow()


def plan_boards(w: Window) -> None:
    """Show the cutting plans and search for better ones."""
    w.open_schedule("boards")
    w.plans.start()


def show_stock(w: Window, group: str = "") -> None:
    """The page of stock, beside the window; at one heading where one is given."""
    from tall_plank.desk.stockpage import StockPage

    if w.stock_page is None:
        w.stock_page = StockPage(w, w.document)
    if group:
        w.stock_page.show_group(group)
    w.stock_page.show()
    w.stock_page.raise_()
    w.stock_page.activateWindow()
    w.stock_page.search.setFocus()


def read_kinds(w: Window) -> None:
    """Kinds of one's own from text files, into this job; one step that can be undone."""
    paths = dialogs.ask_read_many(w, tr("Read kinds of your own"), _beside(w), "TOML (*.toml)")
    if not paths:
        return
    try:
        templates = tuple(load_template(path) for path in paths)
    except PlankError as error:
        w.message.tell(str(error), "wrong")
        return
    if w.document.do(lambda job: add_kinds(job, templates)) is None:
        w.message.tell(f"{tr('Taken')}: {', '.join(t.name for t in templates)}")


def read_stock(w: Window) -> None:
    """A shop's own stock and prices from a folder of text files, into this job; one step that can be undone."""
    folder = dialogs.ask_folder(w, tr("Read stock files from a folder"), _beside(w))
    if folder is None:
        return
    try:
        stock = load_stock(folder)
    except PlankError as error:
        w.message.tell(str(error), "wrong")
        return
    w.document.do(lambda job: replace_stock(job, stock))


def export_schedule(w: Window) -> None:
    """The schedule on screen (else the cut list) as XLSX, CSV or PDF."""
    from tall_plank.package import write_table
    from tall_plank.papers import schedules

    code = w.listing.get(w.stage, "cut-list")
    works, pane = w.document.workings, w.table_shown()
    together = w.together.plan_shown() if code == "together" else None
    if pane is not None and pane.table is not None:
        settled = code != "orders" or works.bars.settled
        table = pane.as_shown(pane.table) if settled else schedules.orders(w.document.patient())
    elif together is not None:
        table = schedules.boards_of(together)
    else:
        code = {"machine": "handwork", "plans": "boards", "together": "boards"}.get(code, code)
        table = schedules.ALL.get(code, schedules.cut_list)(w.document.patient())
    start = _beside(w) / f"{w.document.job.name} {code}"
    path = dialogs.ask_save(w, tr("Export a schedule"), start, "XLSX (*.xlsx);;CSV (*.csv);;PDF (*.pdf)")
    _write(w, path, lambda p: write_table(w.document.workings, table, p))


def export_drawing(w: Window, what: str) -> None:
    """The current wall's elevation or the plan as PDF, DXF or SVG; while a unit is looked into, its part's drawing."""
    from tall_plank.drawing.elevation import elevation
    from tall_plank.drawing.plan import plan
    from tall_plank.package import write_drawing

    doc = w.document
    made = doc.workings.made
    part = w.center.currentWidget() is w.unit_page and bool(w.unit_page.drawing.placed)
    if part:
        drawing = w.unit_page.drawing.placed[0].drawing
    elif what == "plan":
        drawing = plan(doc.job, doc.room, made, shop=doc.shop)
    else:
        drawing = elevation(doc.job, doc.room, doc.room.wall(w.strip.current_wall()), made, shop=doc.shop)
    start = _beside(w) / f"{doc.job.name} {drawing.title}"
    path = dialogs.ask_save(w, tr("Export a drawing"), start, "PDF (*.pdf);;DXF (*.dxf);;SVG (*.svg)")
    _write(
        w, path, lambda p: write_drawing(doc.workings, drawing, p, date.today().isoformat(), shop=doc.shop and not part)
    )


def export_labels(w: Window) -> None:
    """Sheets of labels for every part, as PDF."""
    from tall_plank.papers.labels import labels_of, write_label_sheets

    path = dialogs.ask_save(w, tr("Labels"), _beside(w) / f"{w.document.job.name} labels.pdf", "PDF (*.pdf)")

    def write(p: Path) -> None:
        try:
            write_label_sheets(labels_of(w.document.patient()), p)
        except OSError as error:
            raise PlankError(f"The file cannot be written ({error.strerror}).", p.name, "Choose another.") from None

    _write(w, path, write)


def print_labels(w: Window) -> None:
    """Labels one by one to the label printer, which prints pictures into a folder."""
    from tall_plank.papers.labelprinter import LabelPrinter
    from tall_plank.papers.labels import labels_of

    folder = dialogs.ask_folder(w, tr("The label printer's folder"), _beside(w))
    if folder is None:
        return
    try:
        done = LabelPrinter(folder).print_labels(labels_of(w.document.patient()))
    except PlankError as error:
        w.message.tell(str(error), "wrong")
        return
    w.message.tell(f"{len(done)} {tr('labels printed into')} {folder.name}")


def export_model(w: Window) -> None:
    from tall_plank.package import write_model

    start = _beside(w) / f"{w.document.job.name}.glb"
    path = dialogs.ask_save(w, tr("Export the model"), start, "glTF (*.glb)")
    _write(w, path, lambda p: write_model(w.document.workings, w.document.room_id, p))


def export_package(w: Window) -> None:
    """Every paper and list into a folder, beside the window, with progress and Stop."""
    folder = dialogs.ask_folder(w, tr("Export everything into a folder"), _beside(w))
    if folder is not None:
        from tall_plank.desk.background import run_package

        run_package(w, folder)


def _beside(w: Window) -> Path:
    return w.document.path.parent if w.document.path else Path.home()


def _write(w: Window, path: Path | None, write) -> None:  # type: ignore[no-untyped-def]
    if path is None:
        return
    try:
        write(path)
    except PlankError as error:
        w.message.tell(str(error), "wrong")
        return
    w.message.tell(f"{tr('Written')}: {path.name}")


def print_pages(w: Window) -> None:
    """Plan and elevations to a printer, true to scale."""
    from PyQt6.QtPrintSupport import QPrintDialog, QPrinter

    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    dialog = QPrintDialog(printer, w)
    if dialog.exec():
        paint_pages(w, printer)


def paint_pages(w: Window, printer) -> None:  # type: ignore[no-untyped-def]
    """Paint every sheet onto a printer's pages; a sheet larger than the page is made smaller, and says so."""
    from PyQt6.QtCore import QMarginsF
    from PyQt6.QtGui import QPageLayout, QPageSize
    from PyQt6.QtPrintSupport import QPrinter

    from tall_plank.desk.sheetview import paint_sheet
    from tall_plank.papers.drawings import job_sheets

    size = QPageSize(QPageSize.PageSizeId.A3)
    printer.setPageLayout(QPageLayout(size, QPageLayout.Orientation.Landscape, QMarginsF(0, 0, 0, 0)))
    printer.setFullPage(True)
    sheets = job_sheets(w.document.workings, date.today().isoformat(), shop=w.document.shop)
    painter = QPainter(printer)
    px = printer.resolution() / 25.4
    page_mm = printer.paperRect(QPrinter.Unit.Millimeter).width()
    factor = min(1.0, page_mm / sheets[0].size[0]) if sheets else 1.0
    for i, sheet in enumerate(sheets):
        if i:
            printer.newPage()
        paint_sheet(painter, sheet, px * factor)
    painter.end()
    if factor < 0.99:
        w.message.tell(f"{tr('The paper is smaller than A3: printed at')} {factor * 100:.0f} %.", "wrong")


def preferences(w: Window) -> None:
    if dialogs.PreferencesDialog(w, w.preferences).exec():
        w.set_look(w.preferences.get("look", "light"))


def _edit(w: Window) -> None:
    add, doc = w.commands.add, w.document
    add("undo", tr("Undo"), "edit", doc.undo, "Ctrl+Z", lambda: doc.history.can_undo)
    add("redo", tr("Redo"), "edit", doc.redo, "Ctrl+Shift+Z Ctrl+Y", lambda: doc.history.can_redo)
    w.commands.separate("edit")

    def copy() -> None:
        pane = w.table_shown()
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
        text = bytes(data.data(CLIP_MIME)).decode() if data and data.hasFormat(CLIP_MIME) else clipboard.text()
        wall = w.strip.current_wall()
        after = doc.cells[-1] if doc.cells else ""
        doc.do(lambda job: paste(job, text, doc.room_id, wall, after))

    def duplicate() -> None:
        text, wall = copy_cells(doc.job, doc.cells), w.strip.current_wall()
        doc.do(lambda job: paste(job, text, doc.room_id, wall, doc.cells[-1]))

    def delete() -> None:
        if doc.cells:
            doc.do(lambda job: runs.delete_cells(job, doc.cells))
        elif doc.ids("opening"):
            doc.do(lambda job: rooms.delete_opening(job, doc.ids("opening")[0]))
        elif doc.ids("run"):
            doc.do(lambda job: runs.delete_run(job, doc.ids("run")[0]))
        elif doc.ids("sliding"):
            doc.do(lambda job: sliding.delete_sliding(job, doc.ids("sliding")[0]))
        elif doc.ids("island"):
            doc.do(lambda job: islands.delete_island(job, doc.ids("island")[0]))
        else:
            for kind in features.PARTS:
                for name in doc.ids(kind):
                    doc.do(lambda job, kind=kind, name=name: features.delete(job, kind, name))
            for slope in [s for s in doc.room.room.slopes if s.wall in doc.ids("wall")]:
                doc.do(lambda job, slope=slope: features.delete(job, "slope", slope.id))

    def has_cells() -> bool:
        return bool(doc.cells)

    def something() -> bool:
        kinds = ("cell", "opening", "run", "sliding", "island", *features.PARTS)
        slope = any(s.wall in doc.ids("wall") for s in doc.room.room.slopes)
        return any(doc.ids(kind) for kind in kinds) or slope

    add("cut", tr("Cu&t"), "edit", cut, "Ctrl+X", has_cells)
    add("copy", tr("&Copy"), "edit", copy, "Ctrl+C", lambda: has_cells() or w.table_shown() is not None)
    add("paste", tr("&Paste"), "edit", paste_units, "Ctrl+V")
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


def _place(w: Window) -> None:
    add, doc = w.commands.add, w.document
    add("type_base", tr("Type the &base run as text"), "place", lambda: open_run_text(w, Level.BASE), "R")
    add("type_hung", tr("Type the &hung run as text"), "place", lambda: open_run_text(w, Level.HUNG), "Shift+R")
    w.commands.separate("place")
    for template in doc.job.templates:
        code = template.code
        text = f"{tr('Place')}: {tr(template.name)}"
        if template.group == "Hung" and "ung" not in template.name:
            text += f" ({tr('hung')})"
        group = f"place/{template.group}"
        add(f"place_{code}", text, group if group in TITLES else "place/Other", lambda code=code: place_unit(w, code))


def open_run_text(w: Window, level: Level) -> None:
    """The run of the selection's wall as text."""
    if w.stage in ("shop", "offer"):
        w.show_stage("units")
    if w.view_shown in ("plan", "model"):
        w.show_view("all")
    w.run_text.open_for(w.strip.current_wall(), level)


def place_unit(w: Window, code: str) -> None:
    doc = w.document
    wall = w.strip.current_wall()
    after = doc.cells[-1] if doc.cells else ""
    doc.do(lambda job: runs.insert_unit(job, doc.room_id, wall, code, after=after))


def _select(w: Window) -> None:
    add, doc = w.commands.add, w.document

    def pick(test) -> None:  # type: ignore[no-untyped-def]
        found = tuple(f"cell:{p.cell}" for p in doc.room.placed if p.is_solid and test(p))
        doc.select(found)

    def same(key: str) -> None:
        chosen = [doc.workings.layout.find(c) for c in doc.cells]
        wanted = {getattr(p, key) for p in chosen if p is not None}
        pick(lambda p: getattr(p, key) in wanted)

    def all_of_it() -> None:
        widget = QApplication.focusWidget()
        if isinstance(widget, QLineEdit):
            widget.selectAll()
        elif (pane := w.table_shown()) is not None:
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
            lambda i=i: pick_line(w, i),
            f"Ctrl+{i + 1}",
            lambda i=i: i < len(doc.room.lines),
        )
    add(
        "select_island",
        tr("The &island that it stands on"),
        "select",
        lambda: doc.select((f"island:{chosen_island(w)}",)),
        "Shift+I",
        lambda: chosen_island(w) != "",
    )
    add("select_run", tr("The whole r&un"), "select", lambda: pick_run(w), "N", lambda: bool(doc.cells))


def pick_line(w: Window, i: int) -> None:
    """The i-th wall or face of the frieze."""
    lines = w.document.room.lines
    if i < len(lines):
        w.document.select((f"wall:{lines[i].id}",))


def pick_run(w: Window) -> None:
    w.document.select((f"run:{w.document.job.find_cell(w.document.cells[0])[1].id}",))


def _view(w: Window) -> None:
    add = w.commands.add
    for key, name, text in (
        ("1", "strip", tr("Wall &strip alone")),
        ("2", "plan", tr("&Plan alone")),
        ("3", "model", tr("&Model alone")),
        ("4", "all", tr("&All three")),
    ):
        add(f"view_{name}", text, "view", lambda name=name: w.show_view(name), key)
    w.commands.separate("view")
    add("zoom_in", tr("Zoom &in"), "view", lambda: w.focused_view().zoom(1.25), "Ctrl++")
    add("zoom_out", tr("Zoom &out"), "view", lambda: w.focused_view().zoom(0.8), "Ctrl+-")
    add("zoom_fit", tr("&Fit"), "view", lambda: w.focused_view().fit(), "Ctrl+0 F")

    def dims() -> None:
        w.strip.dims_shown = not w.strip.dims_shown
        w.strip.margin = (62.0, 60.0, 24.0, 92.0) if w.strip.dims_shown else (62.0, 34.0, 24.0, 12.0)
        w.strip.refresh()
        w.strip.fit()

    add("dims", tr("&Dimensions on the strip"), "view", dims, "D", checkable=True)
    w.commands.separate("view")
    for i, stage in enumerate(("room", "units", "finish", "shop", "offer"), 1):
        add(
            f"stage_{stage}",
            f"{tr('Stage')}: {tr(stage.capitalize())}",
            "view",
            lambda stage=stage: w.show_stage(stage),
            f"Alt+{i}",
        )
    w.commands.separate("view")

    def full() -> None:
        w.showNormal() if w.isFullScreen() else w.showFullScreen()

    add("next_pane", tr("Next pa&ne"), "view", lambda: w.next_pane(1), "F6")
    add("previous_pane", tr("Previ&ous pane"), "view", lambda: w.next_pane(-1), "Shift+F6")
    add("go_strip", tr("&Go to the strip"), "view", w.strip.setFocus, "G")
    add("go_shelf", tr("Go to the shel&f"), "view", lambda: w.shelf.search.setFocus(), "P")
    add("go_spec", tr("Go to the spec s&heet"), "view", lambda: go_to_spec(w), "S")
    w.commands.separate("view")
    add("full_screen", tr("F&ull screen"), "view", full, "F11")

    def look() -> None:
        new = "light" if w.preferences.get("look", "light") == "dark" else "dark"
        w.preferences.set("look", new)
        w.set_look(new)

    add("look", tr("Paper or &night"), "view", look, "Ctrl+Shift+L")


def go_to_spec(w: Window) -> None:
    """The first value on the spec sheet that can be changed."""
    line = next((x for x in w.spec.lines.values() if x.row.apply is not None), None)
    if line is not None:
        line.value.setFocus()


def _help(w: Window) -> None:
    add = w.commands.add

    def find() -> None:
        w.bar.find.setFocus()
        w.bar.find.selectAll()

    add("find", tr("&Find a command"), "help", find, "Ctrl+K")
    add("keys", tr("&Keys"), "help", lambda: dialogs.KeySheet(w, w.commands, TITLES).exec(), "? F1")

    def about() -> None:
        QMessageBox.about(
            w,
            tr("About Tall Plank"),
            f"Tall Plank {__version__}\n\n"
            + tr(
                "Free software under the GNU General Public License, version 3.\n"
                "It comes with no warranty. The typeface is under the SIL Open Font License."
            ),
        )

    add("about", tr("&About"), "help", about)
