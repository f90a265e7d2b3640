"""The Job menu: files, stock, cutting, papers."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PyQt6.QtWidgets import QMenu

from tall_plank.desk.app import dialogs
from tall_plank.desk.app.menus import exports, printing
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import ChangedElsewhereError
from tall_plank.edits.cutting import drop_plan
from tall_plank.edits.jobs import set_text
from tall_plank.edits.stock import add_kinds, offered, replace_stock, take_offered
from tall_plank.files.plankfile import read_plank, write_plank
from tall_plank.job.start import new_job, shipped_templates
from tall_plank.job.template import load_template
from tall_plank.measure import DisplayUnit, PlankError
from tall_plank.measure.filenames import file_name
from tall_plank.stock import load_stock, shipped_stock
from tall_plank.workings import Workings

UNNAMED = "New job"
"""What a job is called that nobody has named."""


def register(w: Window) -> None:
    add, doc = w.commands.add, w.document

    def new() -> None:
        if w.may_leave():
            from tall_plank.edits.jobs import set_display

            job = new_job(tr(UNNAMED))
            w.load(set_display(job, DisplayUnit(w.preferences.get("display", "mm"))).job, None)
            w.show_stage("room")

    def open_job() -> None:
        if not w.may_leave():
            return
        recent = w.preferences.recent()
        path = asking.ask_open(w, recent[0].parent if recent else Path.home())
        if path is not None:
            w.open_path(path)

    def save() -> None:
        if doc.path is None or doc.read_only:
            save_as()
        else:
            save_to(doc.path)

    def save_as() -> None:
        start = doc.path or Path.home() / f"{file_name(doc.job.name)}.plank"
        path = asking.ask_save(w, tr("Save the job"), start, asking.JOB_FILTER)
        if path is not None:
            save_to(path if path.suffix == ".plank" else path.with_name(path.name + ".plank"))

    def save_to(path: Path, *, over_theirs: bool = False) -> None:
        if doc.job.name in (UNNAMED, tr(UNNAMED)):
            # A job without a name of its own takes that of its file.
            doc.do(lambda job: set_text(job, "name", path.stem))
        try:
            anew = doc.save(path, w.preview_png(), over_theirs=over_theirs)
        except ChangedElsewhereError as changed:
            ask_whose(w, changed.path, save_to)
            return
        except PlankError as error:
            w.message.tell(str(error), "wrong")
            return
        w.preferences.add_recent(path)
        was_gone = tr("It was no longer in its place (moved, renamed or deleted), and was written there anew.")
        w.message.tell(f"{tr('Saved')}: {path.name}{f'. {was_gone}' if anew else ''}")

    def new_window() -> None:
        w.open_another(new_job(tr(UNNAMED)))

    add("new", tr("&New job"), "job", new, "Ctrl+N")
    add("new_window", tr("New &window"), "job", new_window, "Ctrl+Shift+N")
    add("open", tr("&Open…"), "job", open_job, "Ctrl+O")
    add("save", tr("&Save"), "job", save, "Ctrl+S")
    add("save_as", tr("Save &as…"), "job", save_as, "Ctrl+Shift+S")
    add("left_behind", tr("Work that was not saved…"), "job", w.show_left)
    w.commands.separate("job")
    add("read_stock", tr("Read stock &files…"), "job", lambda: read_stock(w))
    add("read_kinds", tr("Read &kinds of your own…"), "job", lambda: read_kinds(w))
    add("standards", tr("Shop stan&dards…"), "job", w.show_standards, "Ctrl+T")
    add("stock", tr("Stoc&k…"), "job", lambda: w.show_stock(), "Ctrl+J")
    add("plan_boards", tr("Plan the boa&rds"), "job", lambda: plan_boards(w), "Ctrl+R")
    add("cut_together", tr("Cut with other jobs…"), "job", lambda: w.open_schedule("together"))
    add(
        "stop_plan",
        tr("Stop the search and take its best"),
        "job",
        w.plans.planner.stop,
        "Ctrl+.",
        lambda: w.plans.planner.busy,
        why=tr("no search is running"),
    )
    add(
        "keep_plan",
        tr("Keep the cutting plan"),
        "job",
        w.plans.keep_found,
        "Ctrl+Shift+K",
        lambda: w.plans.found is not None and not w.plans.planner.busy,
        why=tr("plan the boards first"),
    )
    add(
        "drop_plan",
        tr("Give the kept cutting plan up"),
        "job",
        lambda: doc.do(drop_plan),
        "",
        lambda: doc.job.kept_plan is not None,
        why=tr("no cutting plan is kept"),
    )
    add(
        "book_cut",
        tr("The &boards are cut: book them off"),
        "job",
        w.plans.book_cut,
        "Ctrl+Shift+B",
        lambda: doc.workings.plan_is_kept,
        why=tr("no cutting plan is kept that fits the job"),
    )
    add("rack", tr("O&ffcut rack"), "job", lambda: w.open_schedule("rack"), "Ctrl+Shift+J")
    add(
        "take_kinds",
        tr("Ta&ke new kinds from the library"),
        "job",
        lambda: doc.do(lambda job: take_offered(job, shipped_templates(), shipped_stock())),
        "",
        lambda: bool(offered(doc.job, shipped_templates(), shipped_stock())),
        why=tr("this job has all of them"),
    )
    w.commands.separate("job")
    add("export_schedule", tr("Export a &schedule…"), "job", lambda: exports.export_schedule(w), "Ctrl+E")
    add("export_saw_sheets", tr("&Work sheets of the saw…"), "job", lambda: exports.export_shop_sheets(w, "saw"))
    add("export_setup", tr("Set-&up sheets of the machine…"), "job", lambda: exports.export_shop_sheets(w, "setup"))
    add("export_handwork", tr("&Handwork sheets…"), "job", lambda: exports.export_shop_sheets(w, "handwork"))
    add("export_labels", tr("Labels as &PDF…"), "job", lambda: exports.export_labels(w))
    add("labels_here", tr("Print la&bels…"), "job", lambda: printing.print_labels(w))
    add("print_labels", tr("Print labels into a folder…"), "job", lambda: exports.print_labels(w))
    add("export_drawing", tr("Export the &drawing of the wall…"), "job", lambda: exports.export_drawing(w, "wall"))
    add("export_plan", tr("Export the &plan…"), "job", lambda: exports.export_drawing(w, "plan"))
    add("export_model", tr("Export the &model…"), "job", lambda: exports.export_model(w))
    add("export_package", tr("Export e&verything…"), "job", lambda: exports.export_package(w), "Ctrl+Shift+E")
    add("print", tr("P&rint what is shown…"), "job", lambda: printing.print_shown(w), "Ctrl+P")
    add("print_set", tr("Print the set of dra&wings…"), "job", lambda: printing.print_set(w))
    w.commands.separate("job")
    add("preferences", tr("Pr&eferences…"), "job", lambda: preferences(w), "Ctrl+,")
    add("close", tr("&Close"), "job", w.close, "Ctrl+W Ctrl+Q")


def ask_whose(w: Window, path: Path, save_to: Callable[..., None], told: str = "") -> None:
    """A file that another program has changed: saved beside it, compared, theirs opened, or overwritten on purpose.

    Parameters
    ----------
    told : how the two compare, once that was asked for
    """

    def free_name() -> Path:
        number = 2
        while (other := path.with_name(f"{path.stem} ({number}){path.suffix}")).exists():
            number += 1
        return other

    def compare() -> None:
        try:
            theirs = Workings(read_plank(path), w.document.machines).tally
        except PlankError as error:
            ask_whose(w, path, save_to, str(error))
            return
        mine = w.document.workings.tally
        words = ((tr("units"), "units"), (tr("parts"), "parts"), (tr("boards"), "boards"))
        pairs = ", ".join(f"{getattr(theirs, k)} / {getattr(mine, k)} {word}" for word, k in words)
        ask_whose(w, path, save_to, f"{tr('theirs / here')}: {pairs}, {theirs.price.net:,} / {mine.price.net:,}")

    def theirs() -> None:
        # What is here is kept beside it first: nothing of either is lost.
        other = free_name()
        try:
            write_plank(w.document.job, other, w.preview_png())
        except PlankError as error:
            w.message.tell(str(error), "wrong")
            return
        w.open_path(path)
        w.message.tell(f"{tr('What was here is kept as')} {other.name}")

    w.message.ask(
        told or f"{path.name}: {tr('another program has changed this file since it was opened here.')}",
        {
            tr("Save beside it"): lambda: save_to(free_name()),
            tr("Compare"): compare,
            tr("Open theirs"): theirs,
            tr("Overwrite theirs"): lambda: save_to(path, over_theirs=True),
        },
    )


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


def plan_boards(w: Window) -> None:
    """Show the cutting plans and search for better ones."""
    w.open_schedule("boards")
    w.plans.start()


def read_kinds(w: Window) -> None:
    """Kinds of one's own from text files, into this job; one step that can be undone."""
    paths = asking.ask_read_many(w, tr("Read kinds of your own"), exports.beside(w), "TOML (*.toml)")
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
    folder = asking.ask_folder(w, tr("Read stock files from a folder"), exports.beside(w))
    if folder is None:
        return
    try:
        stock = load_stock(folder)
    except PlankError as error:
        w.message.tell(str(error), "wrong")
        return
    w.document.do(lambda job: replace_stock(job, stock))


def preferences(w: Window) -> None:
    if dialogs.PreferencesDialog(w, w.preferences).exec():
        w.set_look(w.preferences.get("look", "light"))
