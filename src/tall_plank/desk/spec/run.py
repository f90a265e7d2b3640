"""The spec sheet of a run."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import (
    Apply,
    Group,
    Row,
    Sheet,
    length_text,
    optional_row,
    setter,
    yes_no,
    yes_no_choices,
)
from tall_plank.desk.things.worktop import top_groups
from tall_plank.edits import runs
from tall_plank.job import Kind, Level, Run
from tall_plank.job.standard import CHOICES
from tall_plank.measure.shareout import Rule
from tall_plank.setout.corners import bottom_of
from tall_plank.setout.runs import RunLayout
from tall_plank.setout.trims import stretches


def run_sheet(doc: Document) -> Sheet:
    run_id = doc.ids(Kind.RUN)[0]
    layout = doc.workings.layout.run(run_id)
    assert layout is not None
    run = layout.run
    inherited = tr("the end of the wall, or what stands in the corner")
    if run.free:
        return _free_sheet(doc, layout)
    rows = [
        optional_row(
            doc,
            key,
            label,
            getattr(run, key),
            length_text(doc, mm),
            inherited,
            setter(runs.set_run_length, run_id, key),
        )
        for key, label, mm in (
            ("start", tr("Free at the left"), layout.x),
            ("end", tr("Free at the right"), layout.wall.length - layout.end),
        )
    ]
    name = "hung_bottom" if run.level == "hung" else "plinth"
    rows.append(
        optional_row(
            doc,
            "bottom",
            tr("Underside"),
            run.bottom,
            length_text(doc, bottom_of(doc.job, run)),
            f"{tr('from')} {tr('named value')} {name}",
            lambda job, t: runs.set_run_length(job, run_id, "bottom", t),
        )
    )
    rows.append(
        Row(
            "to_ceiling",
            tr("Closed to the ceiling"),
            yes_no(run.to_ceiling),
            choices=yes_no_choices(),
            apply=lambda job, t: runs.set_run_choice(job, run_id, "to_ceiling", t),
        )
    )
    total = sum(p.width for p in layout.cells)
    figures = (
        Row("length", tr("Length"), length_text(doc, layout.total)),
        Row("taken", tr("Taken"), length_text(doc, total)),
        Row("left", tr("Short") if layout.short > 0.001 else tr("Left"),
            length_text(doc, layout.short if layout.short > 0.001 else layout.left),
            source=tr("the last unit takes up what you type"), apply=_left_setter(layout)),
        Row("count", tr("Units"), str(sum(p.is_solid for p in layout.cells))),
    )  # fmt: skip
    groups = [Group(tr("Place"), tuple(rows)), Group(tr("Sum"), figures)]
    if run.level != "hung":
        groups.append(Group(tr("Foot"), _foot_rows(run)))
        if not layout.wall.island and (run.top.left_out or any(stretches(doc.job, layout))):
            groups += top_groups(doc, Kind.RUN.of(run_id))
    title = f"{tr(standing_level(doc, layout).value.capitalize())} {tr('run')}"
    where = tr(layout.wall.title)
    return Sheet(title, where, tuple(groups))


def _left_setter(layout: RunLayout) -> Apply | None:
    """What typing over what is left does; where units take it, or the run is short, it is a figure only."""
    taken = any(c.width.rule is not Rule.FIXED for c in layout.run.cells)
    return None if taken or layout.short > 0.001 or not layout.cells else setter(runs.set_left, layout.run.id)


def _free_sheet(doc: Document, layout: RunLayout) -> Sheet:
    """The sheet of what hangs by itself: where it starts and how high."""
    run = layout.run
    rows = tuple(
        Row(key, label, length_text(doc, mm), "own", apply=setter(runs.set_run_length, run.id, key))
        for key, label, mm in (
            ("start", tr("From the left end"), layout.x),
            ("bottom", tr("Underside"), bottom_of(doc.job, run)),
        )
    )
    figures = (
        Row("length", tr("Length"), length_text(doc, layout.total)),
        Row("count", tr("Units"), str(sum(p.is_solid for p in layout.cells))),
    )
    return Sheet(
        tr("Hangs by itself"),
        tr(layout.wall.title),
        (Group(tr("Place"), rows), Group(tr("Sum"), figures)),
    )


def standing_level(doc: Document, layout: RunLayout) -> Level:
    """What a run is called after: one of tall units alone is a tall run, though it stands where base units
    do."""
    kinds = {doc.job.template(p.template).level for p in layout.cells if p.is_solid}
    return Level.TALL if kinds == {Level.TALL} else layout.run.level


def _foot_rows(run: Run) -> tuple[Row, ...]:
    """What a run stands on."""
    feet = tuple((k, tr(v)) for k, v in CHOICES["feet"].items())
    stand = [
        Row(
            "feet",
            tr("Stands on"),
            tr(CHOICES["feet"][run.feet]),
            choices=feet,
            apply=lambda job, t: runs.set_run_choice(job, run.id, "feet", t),
        ),
    ]
    if run.feet == "plinth":
        stand.append(
            Row(
                "plinth_returns",
                tr("Plinth returned"),
                yes_no(run.plinth_returns),
                choices=yes_no_choices(),
                apply=lambda job, t: runs.set_run_choice(job, run.id, "plinth_returns", t),
            )
        )
    return tuple(stand)
