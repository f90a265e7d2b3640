"""What the spec sheet says of a room and what belongs to it: walls, openings, columns, ceiling, moldings, islands."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import (
    Group,
    Row,
    Sheet,
    length_row,
    length_text,
    optional_row,
    setter,
)
from tall_plank.desk.things.column import column_sheet
from tall_plank.desk.things.island import island_sheet
from tall_plank.desk.things.slope import slope_groups
from tall_plank.edits import Change, jobs, outline, papers, placing, rooms, values
from tall_plank.job import Job, Kind, Rectangle
from tall_plank.job.uses import USES
from tall_plank.measure import DisplayUnit, PlankError, format_length

DISPLAYS = (
    ("mm", "millimeters"),
    ("cm", "centimeters"),
    ("in", "decimal inches"),
    ("in/16", "inches, 1/16"),
    ("in/32", "inches, 1/32"),
    ("ft-in", "feet and inches"),
)


def _set_or_delete(job: Job, name: str, text: str) -> Change:
    """A named value set by text; an emptied one is taken away, unless something uses it."""
    return values.set_value(job, name, text) if text.strip() else values.delete_value(job, name)


def _new_value(job: Job, text: str) -> Change:
    """`name = length`."""
    name, sign, length = text.partition("=")
    if not sign:
        raise PlankError("Type a name, an equals sign and a length.", "New value", "For example: eye_line = 1500.")
    return values.set_value(job, name.strip(), length.strip())


def room_sheet(doc: Document) -> Sheet:
    """The room, the job's own data, its named values and labels."""
    job, room = doc.job, doc.room.room
    rid = room.id
    uses = tuple((code, tr(name)) for code, name in USES.items())
    rows = [
        Row("name", tr("Name"), room.name, apply=lambda job, t: rooms.rename_room(job, rid, t)),
        Row("use", tr("Use"), tr(USES[room.use]), choices=uses, apply=lambda job, t: rooms.set_use(job, rid, t)),
    ]
    lengths = [("height", tr("Height"), room.height), ("wall_thickness", tr("Wall thickness"), room.wall_thickness)]
    if isinstance(room.outline, Rectangle):
        lengths = [("width", tr("Width"), room.outline.width), ("depth", tr("Depth"), room.outline.depth), *lengths]
    for key, label, length in lengths:
        rows.append(length_row(doc, key, label, length, setter(rooms.set_room_length, rid, key)))
    rows.append(
        Row(
            "outline",
            tr("Walls"),
            outline.outline_text(job, room),
            source=tr("lengths clockwise from the north-west; corner 270 turns outwards; two walls may be rest"),
            apply=lambda job, t: outline.type_outline(job, rid, t),
        )
    )
    named = [
        Row(
            f"value_{v.name}",
            _named(v.name),
            length_text(doc, v.length.mm),
            "inherited" if v.length.is_rule else "plain",
            " · ".join(t for t in (v.note, f"{v.name} = {v.length.text}") if t),
            apply=setter(_set_or_delete, v.name),
        )
        for v in job.values
    ]
    named.append(Row("value_new", tr("New value"), "", apply=_new_value))
    w, d = doc.room.size
    return Sheet(
        room.name,
        f"{tr('room')} · {length_text(doc, w)} × {length_text(doc, d)}",
        (
            Group(tr("Room"), tuple(rows)),
            Group(tr("Job"), _job_rows(job)),
            *_paper_groups(job),
            Group(tr("Named values"), tuple(named)),
        ),
    )


def _named(name: str) -> str:
    """A named value in plain words, with the name that rules know it by beside it where that differs."""
    words = tr(name.replace("_", " ").strip().capitalize())
    return f"{words} · {name}" if "_" in name else words


def _job_rows(job: Job) -> tuple[Row, ...]:
    """The job's own data, the unit of its lengths, its labels."""
    about = [
        Row(f"job_{key}", label, getattr(job, key), apply=setter(jobs.set_text, key))
        for key, label in (
            ("name", tr("Job")),
            ("number", tr("Number")),
            ("client", tr("Client")),
            ("site", tr("Site")),
        )
    ]
    about.append(
        Row(
            "display",
            tr("Lengths in"),
            dict(DISPLAYS)[job.display.value],
            choices=DISPLAYS,
            apply=lambda job, t: jobs.set_display(job, DisplayUnit(t)),
        )
    )
    rules = {r.kind: r.text for r in job.labels}
    about.append(
        Row(
            "job_labels",
            tr("Labels"),
            rules.get("*", "{number}"),
            "own" if "*" in rules else "inherited",
            tr("text with fields: {number}, {width}, {height}, {depth}, {kind}, {room}, {wall}, {level}"),
            apply=lambda job, t: placing.set_label_rule(job, "*", t),
            revert=(lambda job: placing.set_label_rule(job, "*", "")) if "*" in rules else None,
        )
    )
    return tuple(about)


def _paper_groups(job: Job) -> tuple[Group, ...]:
    """Whose papers they are, on which paper and labels."""
    p = job.papers

    def row(key: str, label: str, text: str) -> Row:
        choices = tuple((c, tr(words)) for c, words in papers.CHOICES.get(key, {}).items())
        return Row(f"papers_{key}", label, text, choices=choices, apply=setter(papers.set_papers, key))

    def size(key: str, label: str, text: str) -> Row:
        return Row(f"label_{key}", label, text, apply=setter(papers.set_label_size, key))

    def mm(value: float) -> str:
        return format_length(value, job.display)

    sheet = p.labels
    about = (
        row("firm", tr("Firm"), p.firm),
        row("creator", tr("Drawn by"), p.creator),
        row("approver", tr("Approved by"), p.approver),
        row("lists", tr("Lists on"), p.lists),
        row("drawings", tr("Drawings on"), p.drawings),
        row("chains", tr("Units measured to"), tr(papers.CHOICES["chains"][p.chains])),
        row("ink", tr("Sheets"), tr(papers.CHOICES["ink"][p.ink])),
        row("csv", tr("CSV"), tr(papers.CHOICES["csv"][p.csv])),
        row("labels", tr("Label sheets"), sheet.name),
    )
    labels = (
        size("width", tr("A label's width"), mm(sheet.size[0])),
        size("height", tr("A label's height"), mm(sheet.size[1])),
        size("columns", tr("Labels across"), str(sheet.across)),
        size("rows", tr("Labels down"), str(sheet.down)),
        size("left", tr("First from the left"), mm(sheet.left)),
        size("top", tr("First from the top"), mm(sheet.top)),
        size("across", tr("One to the next, across"), mm(sheet.pitch[0])),
        size("down", tr("One to the next, down"), mm(sheet.pitch[1])),
        size("paper_width", tr("Its paper's width"), mm(sheet.paper[0])),
        size("paper_height", tr("Its paper's height"), mm(sheet.paper[1])),
    )
    return Group(tr("Papers"), about), Group(tr("Label sheet"), labels)


def wall_sheet(doc: Document) -> Sheet:
    """A wall: its length, its corners, and what it has of its own. A face of an island shows the island."""
    name = doc.ids(Kind.WALL)[0]
    if not doc.room.has_line(name):
        return room_sheet(doc)
    wall = doc.room.wall(name)
    if wall.island:
        return island_sheet(doc, wall.island)
    if wall.column:
        return column_sheet(doc, wall.column)
    room = doc.room.room
    rid = room.id
    own = next((w for w in room.walls if w.wall == name), None)
    rows = [
        Row("length", tr("Length"), length_text(doc, wall.length),
            apply=lambda job, t: outline.set_wall_length(job, rid, name, t)),
        Row("angle", tr("Corner at its right"), f"{wall.after:g}°",
            apply=lambda job, t: outline.set_wall_angle(job, rid, name, t)),
        optional_row(doc, "thickness", tr("Thickness"), own.thickness if own else None,
                     length_text(doc, room.wall_thickness.mm), tr("from the room"),
                     lambda job, t: outline.set_wall_own(job, rid, name, "thickness", t)),
        optional_row(doc, "wall_height", tr("Height"), own.height if own else None,
                     length_text(doc, wall.height), tr("from the room"),
                     lambda job, t: outline.set_wall_own(job, rid, name, "height", t)),
    ]  # fmt: skip
    groups = [Group(tr("Wall"), tuple(rows))]
    groups += slope_groups(doc, name)
    return Sheet(f"{tr('Wall')} {name}", tr(wall.name), tuple(groups))
