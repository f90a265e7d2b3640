"""Wall fields in the window: where they lie, how their zones are covered, what is made of them."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from tall_plank.desk.look.texts import counted, tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import (
    Group,
    Row,
    Sheet,
    length_text,
    optional_row,
    setter,
    setting,
    yes_no,
    yes_no_choices,
)
from tall_plank.desk.things.handling import Handling, drawing_of, placed_by, shape
from tall_plank.desk.things.zones import zone_groups
from tall_plank.drawing.primitives import Drawing, Item, Pen, rectangle
from tall_plank.edits import Change
from tall_plank.edits.things.wall_field import (
    SIDES,
    STARTS,
    marks_of,
    part_from,
    repeat_on,
    set_field,
    sharing,
)
from tall_plank.edits.treatments import rename_treatment, set_hold
from tall_plank.job import Job, Kind
from tall_plank.job.standard import CHOICES
from tall_plank.job.things.table import find_thing
from tall_plank.job.things.wall_field import WallField
from tall_plank.making.made import MadeField
from tall_plank.measure import told_in
from tall_plank.measure.arches import arched
from tall_plank.measure.outlines import Points
from tall_plank.measure.paths import chords
from tall_plank.setout.columnfaces import joined_faces
from tall_plank.setout.paneling.fields import FieldLaid

MEETS = (("butt", "square on"), ("scribe", "scribed"), ("gap", "a shadow gap"))
SIDE_WORDS = {"left": "Left side", "right": "Right side", "bottom": "Lower side", "top": "Upper side"}


def laid_of(doc: Document, field_id: str) -> FieldLaid | None:
    """A field of the room as it is set out."""
    return next((f for f in doc.room.fields if f.field.id == field_id), None)


def field_sheet(doc: Document, thing_id: str) -> Sheet:
    """The sheet of a wall field: its limits, its zones one by one, what it is made of."""
    _, one = find_thing(doc.job, Kind.WALL_FIELD, thing_id)
    laid = laid_of(doc, thing_id)
    treatment = doc.job.treatment(one.treatment)
    made = next((m for m in doc.workings.made.fields if m.source == Kind.WALL_FIELD.of(thing_id)), None)
    groups = [_whole(doc, one, laid)]
    if laid is not None:
        groups += zone_groups(doc, laid)
    groups += [Group(tr("Limits"), tuple(_limits(doc, one))), _held(doc, one, laid)]
    groups += _alike(doc, one)
    if laid is not None and made is not None:
        groups.append(_made_of(doc, laid, made))
    if made is not None and made.problems:
        told = [(told_in(p.what, doc.job.display), told_in(p.remedy, doc.job.display)) for p in made.problems]
        rows = tuple(Row(f"problem{i}", f"{what} {remedy}", "") for i, (what, remedy) in enumerate(told))
        groups.append(Group(tr("Snags"), rows))
    where = f"{tr('wall field')} {one.name}, {doc.room.wall(one.wall).title}"
    return Sheet(treatment.name, where, tuple(groups))


def _whole(doc: Document, one: WallField, laid: FieldLaid | None) -> Group:
    job, fid = doc.job, one.id
    treatment = job.treatment(one.treatment)
    others = tuple((t.id, t.name) for t in job.treatments)
    rows = [Row("name", tr("Name"), one.name, apply=setter(set_field, fid, "name"))]
    if len(others) > 1:
        rows.append(
            Row("treatment", tr("Treatment"), treatment.name, choices=others, apply=setter(set_field, fid, "treatment"))
        )
    rows.append(Row("called", tr("Treatment's name"), treatment.name, apply=setter(rename_treatment, treatment.id)))
    count = sharing(job, treatment.id)
    if count > 1:
        rows.append(
            Row(
                "link",
                tr("Shared by"),
                counted(count, "field", "fields"),
                "inherited",
                tr("what is changed here changes on all of them"),
                choices=(("own", tr("a treatment of its own")),),
                apply=lambda job, _: part_from(job, fid),
            )
        )
    rows.append(
        Row(
            "mirrored",
            tr("Mirrored"),
            yes_no(one.mirrored),
            choices=yes_no_choices(),
            apply=setter(set_field, fid, "mirrored"),
        )
    )
    if laid is not None:
        size = f"{length_text(doc, laid.width)} × {length_text(doc, laid.height)}"
        rows.append(Row("size", tr("Size"), size))
    return Group(tr("Field"), tuple(rows))


def _limits(doc: Document, one: WallField) -> list[Row]:
    rows = []
    for side in SIDES:
        limit = getattr(one, side)
        choices = marks_of(doc.job, doc.room_id, one.id, side)
        code = f"{limit.to} {limit.edge}" if limit.to else ""
        shown = dict(choices).get(code, tr("what is gone"))
        rows.append(
            Row(
                f"{side}_to",
                tr(SIDE_WORDS[side]),
                shown,
                choices=choices,
                apply=setter(set_field, one.id, f"{side}_to"),
            )
        )
        rows.append(
            Row(
                side,
                tr("off it"),
                length_text(doc, limit.off.mm),
                "own" if limit.off.mm else "plain",
                apply=setter(set_field, one.id, side),
            )
        )
        rows.append(
            Row(
                f"{side}_meets",
                tr("meets it"),
                tr(dict(MEETS)[limit.meets]),
                choices=tuple((c, tr(w)) for c, w in MEETS),
                apply=setter(set_field, one.id, f"{side}_meets"),
            )
        )
    rows.append(
        Row("clear", tr("Clear of openings"), length_text(doc, one.clear.mm), apply=setter(set_field, one.id, "clear"))
    )
    return rows


def _held(doc: Document, one: WallField, laid: FieldLaid | None) -> Group:
    treatment = doc.job.treatment(one.treatment)
    standard = doc.job.active_standard()
    words = CHOICES["wall_hold"]
    given = str(standard.values()["wall_hold"])
    own = bool(treatment.hold)
    rows = [
        Row(
            "hold",
            tr("Held"),
            tr(words[treatment.hold or given]),
            "own" if own else "inherited",
            "" if own else f"{tr('standard')} {standard.name}",
            choices=tuple((c, tr(w)) for c, w in words.items()),
            apply=setter(set_hold, treatment.id, "hold"),
            revert=setting(set_hold, treatment.id, "hold", "") if own else None,
        )
    ]
    if laid is not None:
        rows.append(
            optional_row(
                doc, "fixing", tr("Battens stand off"), treatment.fixing, length_text(doc, laid.fixing),
                tr("their thickness"), setter(set_hold, treatment.id, "fixing"),
            )
        )  # fmt: skip
        rows.append(Row("stands_off", tr("Face off the wall"), length_text(doc, laid.stands_off)))
        if any(laid.scribes):
            words4 = zip(("left", "right", "below", "above"), laid.scribes, strict=True)
            told = ", ".join(f"{tr(word)} {length_text(doc, mm)}" for word, mm in words4 if mm)
            rows.append(Row("scribes", tr("Cut larger to scribe"), told))
    return Group(tr("Build-up"), tuple(rows))


def _alike(doc: Document, one: WallField) -> list[Group]:
    """The other walls of the room: those that share the treatment with their counts, and giving it to more."""
    shared = [f for f in doc.room.fields if f.field.treatment == one.treatment and f.field.id != one.id]
    rows = [
        Row(
            f"with_{f.field.id}",
            f"{doc.room.wall(f.wall_id).title.capitalize()} {length_text(doc, f.width)}",
            counts_told(doc, f),
        )
        for f in shared
    ]
    taken = {f.field.wall for f in doc.room.fields}
    free = [w.id for w in doc.room.walls if w.id not in taken]
    choices = [(w, f"{tr('wall')} {w}") for w in free]
    if len(free) > 1:
        choices.append((" ".join(free), f"{tr('all')} {len(free)}: {', '.join(free)}"))
    for number, column in enumerate(doc.room.room.columns, 1):
        bare = [j.line.id for j in joined_faces(doc.room.room, column) if not j.hidden and j.line.id not in taken]
        if bare:
            choices.append((" ".join(bare), f"{tr(column.kind)} {number}"))
    if choices:
        rows.append(
            Row(
                "repeat",
                tr("Cover another wall"),
                tr("alike"),
                "inherited",
                choices=tuple(choices),
                apply=partial(_repeat, one.id),
            )
        )
    return [Group(tr("Same treatment on"), tuple(rows))] if rows else []


def _repeat(field_id: str, job: Job, text: str) -> Change:
    return repeat_on(job, field_id, tuple(text.split()))


def counts_told(doc: Document, laid: FieldLaid) -> str:
    """Panels of a field as they are told: `4 × 502.5`."""
    found = [
        f"{s.grid.count} × {length_text(doc, min(s.grid.panels))}"
        for z in laid.zones
        for s in z.stretches
        if s.grid is not None
    ]
    return ", ".join(found[:3]) + (" …" if len(found) > 3 else "") if found else tr("covered")


def _made_of(doc: Document, laid: FieldLaid, made: MadeField) -> Group:
    parts = [t.part for t in doc.workings.made.trims if t.source == made.source and t.part is not None]
    counts: dict[str, int] = {}
    for part in parts:
        counts[part.name] = counts.get(part.name, 0) + 1
    rows = [Row(f"made_{name}", tr(f"{name.capitalize()}s"), str(count)) for name, count in counts.items()]
    if made.moldings:
        metres: dict[str, float] = {}
        for m in made.moldings:
            metres[m.what] = metres.get(m.what, 0.0) + sum(length for _, length, *_ in m.pieces()) / 1000
        rows += [Row(f"{what}_m", tr(what.capitalize()), f"{mm:.2f} m") for what, mm in metres.items()]
    rows.append(Row("area", tr("Area"), f"{sum(z.area for z in laid.zones) * 1e-6:.2f} m²"))
    return Group(tr("Made of"), tuple(rows))


# --- on the shelf


def _base() -> list[Item]:
    return [shape(rectangle(0, 0, 700, 560), "wall")]


def _panels_picture(top: float = 560.0) -> list[Item]:
    items: list[Item] = [shape(rectangle(0, 0, 700, top), "board")]
    for i in range(3):
        items.append(shape(rectangle(45 + i * 215, 50, 180, top - 100), "wall", Pen.NARROW))
    return items


def _slats_picture() -> list[Item]:
    return [shape(rectangle(18 + i * 68, 0, 40, 560), "board", Pen.NARROW) for i in range(10)]


def _boards_picture() -> list[Item]:
    return [shape(rectangle(i * 178, 0, 166, 560), "board", Pen.NARROW) for i in range(4)]


def _arch_picture() -> list[Item]:
    return [*_slats_picture(), shape(chords(arched("round", 200, 0, 500, 430)), "wall")]


def _raked_picture() -> list[Item]:
    def quad(x: float, low: float, wide: float, high: float) -> Points:
        return (
            (x, x * 0.4 + low),
            (x + wide, (x + wide) * 0.4 + low),
            (x + wide, (x + wide) * 0.4 + high),
            (x, x * 0.4 + high),
        )

    items: list[Item] = [shape(quad(0, 0, 700, 270), "board")]
    return [*items, *(shape(quad(45 + i * 215, 45, 180, 225), "wall", Pen.NARROW) for i in range(3))]


def _modules_picture() -> list[Item]:
    items: list[Item] = []
    for i in range(2):
        for k in range(2):
            x, z = 50.0 + i * 310, 10.0 + k * 275
            outer, inner = rectangle(x, z, 290, 260), rectangle(x + 80, z + 75, 130, 110)
            for n in range(4):
                m = (n + 1) % 4
                items.append(shape((outer[n], outer[m], inner[m], inner[n]), "board", Pen.NARROW))
    return items


PICTURES: dict[str, Callable[[], list[Item]]] = {
    "equal panels": _panels_picture,
    "dado": partial(_panels_picture, 260.0),
    "slats": _slats_picture,
    "flat boards": _boards_picture,
    "modules": _modules_picture,
    "raked panels": _raked_picture,
    "arch in slats": _arch_picture,
}


def _picture(start: str) -> Drawing:
    return drawing_of(start, [*_base(), *PICTURES[start]()])


WALL_FIELD = Handling(
    sheet=field_sheet,
    offers=tuple(placed_by(start, "Treatments", partial(_picture, start), name) for start, (name, _) in STARTS.items()),
    outlined=True,
)
