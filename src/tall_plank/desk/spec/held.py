"""What holds units in their place, their label, and whether they are locked or hidden."""

from __future__ import annotations

from collections.abc import Callable

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import (
    Group,
    Row,
    length_text,
    setter,
    yes_no,
    yes_no_choices,
)
from tall_plank.desk.spec.own import same
from tall_plank.edits import Change, hanging, placing
from tall_plank.job import Body, Job, Level, Source


def _flag_setter(cells: tuple[str, ...], key: str) -> Callable[[Job, str], Change]:
    return lambda job, text: placing.set_flag(job, cells, key, text == "yes")


def _hold(job: Job, cell: str, code: str) -> Change:
    """Hold a unit as a choice says: `at|source`, such as `centre|opening:o1`; nothing lets it go."""
    at, _, to = code.partition("|")
    return placing.hold(job, cell, at, Source.parse(to)) if code else placing.let_go(job, (cell,))


def place_group(doc: Document, cells: tuple[str, ...]) -> Group:
    """What holds the units, their label, and whether they are locked or hidden."""
    found = [doc.job.find_cell(c)[2] for c in cells]
    rows = []
    if len(cells) == 1:
        anchor = found[0].anchor
        choices = _anchors(doc, cells[0])
        code = f"{anchor.at}|{anchor.to}" if anchor is not None else ""
        text = dict(choices).get(code, tr("from the left end"))
        rows.append(
            Row(
                "anchor",
                tr("Held"),
                text,
                "own" if code else "plain",
                choices=choices,
                apply=setter(_hold, cells[0]),
            )
        )
    solid = all(doc.job.template_of(c).body is not Body.GAP for c in found)
    if solid and all(doc.job.find_cell(c)[1].level is Level.HUNG for c in cells):
        rows.append(underside_row(doc, cells, tr("Underside")))
    label, origin = same([c.label for c in found])
    rows.append(
        Row(
            "label",
            tr("Label"),
            label,
            "own" if label and origin == "plain" else origin,
            tr("text with fields such as {width} or {room}; empty: as the job says"),
            apply=lambda job, t: placing.set_label(job, cells, t),
        )
    )
    for key, name in (("locked", tr("Locked")), ("hidden", tr("Hidden"))):
        text, origin = same([yes_no(getattr(c, key)) for c in found])
        rows.append(
            Row(
                key,
                name,
                text,
                origin,
                choices=yes_no_choices(),
                apply=_flag_setter(cells, key),
            )
        )
    return Group(tr("Place"), tuple(rows))


def underside_row(doc: Document, cells: tuple[str, ...], label: str) -> Row:
    """How high units hang or stand: their own height above the floor, or that of their run."""
    places = [doc.job.find_cell(c) for c in cells]
    own = any(cell.bottom is not None or run.free for _, run, cell in places)
    back = any(cell.bottom is not None for _, _, cell in places)
    placed = [doc.workings.layout.find(c) for c in cells]
    text, origin = same([length_text(doc, p.bottom) for p in placed if p is not None])
    return Row(
        "underside",
        label,
        text,
        ("own" if own else "inherited") if origin == "plain" else origin,
        tr("above the floor") if own else tr("from its run"),
        apply=lambda job, t: hanging.set_bottom(job, cells, t),
        revert=(lambda job: hanging.set_bottom(job, cells, "")) if back else None,
    )


def _anchors(doc: Document, cell: str) -> tuple[tuple[str, str], ...]:
    """What may hold a cell on its line: nothing, openings, columns, service points, units of other runs."""
    room, run, _ = doc.job.find_cell(cell)
    found = [("", tr("where it is put") if run.free else tr("by its order"))]
    for o in room.openings:
        if o.wall == run.wall:
            found.append((f"centre|opening:{o.id}", f"{tr('centered on the')} {tr(o.kind)}"))
    for c in room.columns:
        if c.wall == run.wall:
            found.append((f"span|column:{c.id}", f"{tr('on the')} {tr(c.kind)}"))
            found.append((f"centre|column:{c.id}", f"{tr('centered on the')} {tr(c.kind)}"))
    for s in room.services:
        if s.wall == run.wall:
            found.append((f"centre|service:{s.id}", f"{tr('centered on')} {tr(s.kind)}"))
    for g in room.guides:
        if g.wall == run.wall:
            for at, word in (
                ("left", tr("left side on")),
                ("right", tr("right side on")),
                ("centre", tr("centered on")),
            ):
                found.append((f"{at}|guide:{g.id}", f"{word} {tr('the guide line')}"))
    for p in doc.room.placed:
        if p.wall_id == run.wall and p.run != run.id and p.is_solid and p.number:
            for at, word in (("span", tr("lined up with")), ("centre", tr("centered on"))):
                found.append((f"{at}|cell:{p.cell}", f"{word} {p.number}"))
    return tuple(found)
