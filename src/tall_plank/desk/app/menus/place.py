"""The Place menu: typing a run, and every kind of unit that the job has."""

from __future__ import annotations

from tall_plank.desk.app.window import Window
from tall_plank.desk.look.texts import tr
from tall_plank.edits import hanging
from tall_plank.job import Kind, Level, Template


def register(w: Window) -> None:
    add = w.commands.add
    add("type_base", tr("Type the &base run as text"), "place", lambda: open_run_text(w, Level.BASE), "R")
    add("type_hung", tr("Type the &hung run as text"), "place", lambda: open_run_text(w, Level.HUNG), "Shift+R")
    add("hang_row", tr("Start another hung &row above"), "place", lambda: hang_row(w), "Shift+A")
    w.commands.separate("place")
    follow(w)


def hang_row(w: Window) -> None:
    """Start another hung row on the wall that is worked on, and type it."""
    doc, wall = w.document, w.strip.current_wall()
    if doc.do(lambda job: hanging.add_row(job, doc.room_id, wall)) is None:
        run_id = doc.ids(Kind.RUN)[0] if doc.ids(Kind.RUN) else ""
        _over_the_strip(w)
        w.run_text.open_for(wall, Level.HUNG, run_id)


def follow(w: Window) -> None:
    """A command for every kind that the job has, kinds of one's own that were read in just now among them."""
    for template in w.document.job.templates:
        if f"place_{template.code}" not in w.commands.all:
            _add_kind(w, template)


def _add_kind(w: Window, template: Template) -> None:
    doc, code = w.document, template.code
    text = tr(template.name)
    if template.group == "Hung" and "ung" not in template.name:
        text += f" ({tr('hung')})"
    group = f"place/{template.group}"
    w.commands.add(
        f"place_{code}",
        text,
        group if group in w.commands.titles else "place/Other",
        lambda: place_unit(w, code),
        when=lambda: doc.job.has_template(code),
        lead=tr("Place"),
        why=tr("this job does not have that kind"),
    )


def open_run_text(w: Window, level: Level) -> None:
    """The run of the selection as text, where it is of this level, else that of its wall."""
    _over_the_strip(w)
    doc, run_id = w.document, ""
    if doc.cells and doc.job.find_cell(doc.cells[0])[1].level is level:
        run_id = doc.job.find_cell(doc.cells[0])[1].id
    elif doc.ids(Kind.RUN) and doc.job.find_run(doc.ids(Kind.RUN)[0])[1].level is level:
        run_id = doc.ids(Kind.RUN)[0]
    w.run_text.open_for(w.strip.current_wall(), level, run_id)


def _over_the_strip(w: Window) -> None:
    """Show the strip, where a run is typed."""
    if w.stage in ("shop", "offer"):
        w.show_stage("units")
    if w.view_shown in ("plan", "model"):
        w.show_view("all")


def place_unit(w: Window, code: str) -> None:
    doc = w.document
    wall = w.strip.current_wall()
    after = doc.cells[-1] if doc.cells else ""
    doc.do(lambda job: hanging.put(job, doc.room_id, wall, code, after=after))
