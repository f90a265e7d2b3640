"""The Paneling menu: treatments for the wall that is worked on, the same on other walls."""

from __future__ import annotations

from functools import partial

from tall_plank.desk.app.window import Window
from tall_plank.desk.look.texts import tr
from tall_plank.desk.things.table import offered_under
from tall_plank.edits.things.wall_field import part_from, repeat_on, set_field, sharing
from tall_plank.job import Kind
from tall_plank.job.things.table import find_thing


def register(w: Window) -> None:
    """Commands of the Paneling menu."""
    add, doc = w.commands.add, w.document
    for o in offered_under("Treatments"):
        text = o.text[:1].upper() + o.text[1:]
        add(o.command, text, "paneling", partial(put, w, o.name), o.keys, lead=tr("Cover the wall with"))
    w.commands.separate("paneling")

    def chosen() -> bool:
        return len(doc.ids(Kind.WALL_FIELD)) == 1

    def free() -> tuple[str, ...]:
        taken = {f.wall for f in doc.room.room.fields}
        return tuple(wall.id for wall in doc.room.walls if wall.id not in taken)

    add(
        "repeat_field",
        tr("Cover the &other walls alike"),
        "paneling",
        lambda: doc.do(lambda job: repeat_on(job, doc.ids(Kind.WALL_FIELD)[0], free())),
        "",
        lambda: chosen() and bool(free()),
    )
    add(
        "part_field",
        tr("Give it a treatment of its &own"),
        "paneling",
        lambda: doc.do(lambda job: part_from(job, doc.ids(Kind.WALL_FIELD)[0])),
        "",
        lambda: chosen() and sharing(doc.job, _field(w).treatment) > 1,
    )
    add("draw_line", tr("&Draw a line across it"), "paneling", w.strip.draw_line, "", chosen)
    add(
        "mirror_field",
        tr("&Mirror it"),
        "paneling",
        lambda: doc.do(
            lambda job: set_field(job, doc.ids(Kind.WALL_FIELD)[0], "mirrored", "no" if _field(w).mirrored else "yes")
        ),
        "",
        chosen,
    )


def _field(w: Window):  # type: ignore[no-untyped-def]
    return find_thing(w.document.job, Kind.WALL_FIELD, w.document.ids(Kind.WALL_FIELD)[0])[1]


def put(w: Window, name: str) -> None:
    """Cover the wall that is worked on, at the stage where that is seen."""
    if w.stage != "paneling":
        w.show_stage("paneling")
    w.placer.in_room(name)
