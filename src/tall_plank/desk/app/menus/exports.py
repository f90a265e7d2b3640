"""What the Job menu writes: schedules, drawings, labels, the model, the package."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date
from pathlib import Path

from tall_plank.desk.app.background import run_package
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.desk.look.texts import tr
from tall_plank.measure import PlankError
from tall_plank.measure.filenames import file_name


def export_schedule(w: Window) -> None:
    """The schedule on screen (else the cut list) as XLSX, CSV or PDF."""
    from tall_plank.package import write_table
    from tall_plank.papers import schedules

    code = w.lists.chosen.get(w.stage, "cut-list")
    works, pane = w.document.workings, w.center.table_shown()
    together = w.together.plan_shown() if code == "together" else None
    if pane is not None and pane.table is not None:
        settled = code != "orders" or works.bars.settled
        table = pane.as_shown(pane.table) if settled else schedules.ALL["orders"](w.document.patient())
    elif together is not None:
        table = schedules.boards_of(together)
    else:
        code = {"machine": "handwork", "plans": "boards", "together": "boards"}.get(code, code)
        table = schedules.ALL.get(code, schedules.ALL["cut-list"])(w.document.patient())
    start = beside(w) / file_name(f"{w.document.job.name} {code}")
    path = asking.ask_save(w, tr("Export a schedule"), start, "XLSX (*.xlsx);;CSV (*.csv);;PDF (*.pdf)")
    _write(w, path, lambda p: write_table(w.document.workings, table, p))


def export_drawing(w: Window, what: str) -> None:
    """The current wall's elevation or the plan as PDF, DXF or SVG; while a unit is looked into, its part's drawing."""
    from tall_plank.drawing.elevation import elevation
    from tall_plank.drawing.plan import plan
    from tall_plank.drawing.shows import exactly
    from tall_plank.package import write_drawing

    doc = w.document
    made = doc.workings.made
    part = w.center.currentWidget() is w.unit_page and bool(w.unit_page.drawing.placed)
    if part:
        drawing = w.unit_page.drawing.placed[0].drawing
    elif what == "plan":
        drawing = plan(doc.job, doc.room, made, shows=exactly(doc.shows(fronts=True)))
    else:
        drawing = elevation(doc.job, doc.room, doc.room.wall(w.strip.current_wall()), made, shows=exactly(doc.shows()))
    start = beside(w) / file_name(f"{doc.job.name} {drawing.title}")
    path = asking.ask_save(w, tr("Export a drawing"), start, "PDF (*.pdf);;DXF (*.dxf);;SVG (*.svg)")
    _write(
        w, path, lambda p: write_drawing(doc.workings, drawing, p, date.today().isoformat(), shop=doc.shop and not part)
    )


def export_shop_sheets(w: Window, what: str) -> None:
    """Work sheets of the saw, set-up sheets of the machine, or the handwork sheet, as PDF."""
    from tall_plank.package import write_shop_sheets

    words = {"saw": tr("work sheets"), "setup": tr("set-up sheets"), "handwork": tr("handwork")}[what]
    path = asking.ask_save(w, words, beside(w) / f"{file_name(w.document.job.name)} {words}.pdf", "PDF (*.pdf)")
    _write(w, path, lambda p: write_shop_sheets(w.document.patient(), what, p, date.today().isoformat()))


def export_labels(w: Window) -> None:
    """Sheets of labels for every part, as PDF."""
    from tall_plank.papers.about import About
    from tall_plank.papers.labels import labels_of, write_label_sheets

    path = asking.ask_save(w, tr("Labels"), beside(w) / f"{file_name(w.document.job.name)} labels.pdf", "PDF (*.pdf)")

    def write(p: Path) -> None:
        try:
            works = w.document.patient()
            about = About(works.title, works.job.papers.firm, date.today().isoformat())
            write_label_sheets(labels_of(works), p, works.job.papers.labels, about=about)
        except OSError as error:
            raise PlankError(f"The file cannot be written ({error.strerror}).", p.name, "Choose another.") from None

    _write(w, path, write)


def print_labels(w: Window) -> None:
    """Labels one by one to the label printer, which prints pictures into a folder."""
    from tall_plank.papers.labelprinter import LabelPrinter
    from tall_plank.papers.labels import labels_of

    folder = asking.ask_folder(w, tr("The label printer's folder"), beside(w))
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

    start = beside(w) / f"{file_name(w.document.job.name)}.glb"
    path = asking.ask_save(w, tr("Export the model"), start, "glTF (*.glb)")
    _write(w, path, lambda p: write_model(w.document.workings, w.document.room_id, p))


def export_package(w: Window) -> None:
    """Every paper and list into a folder, beside the window, with progress and Stop."""
    folder = asking.ask_folder(w, tr("Export everything into a folder"), beside(w))
    if folder is not None:
        w.package_task = run_package(w.document, w.message, folder)


def beside(w: Window) -> Path:
    return w.document.path.parent if w.document.path else Path.home()


def _write(w: Window, path: Path | None, write: Callable[[Path], object]) -> None:
    if path is None:
        return
    try:
        write(path)
    except PlankError as error:
        w.message.tell(str(error), "wrong")
        return
    w.message.tell(f"{tr('Written')}: {path.name}")
