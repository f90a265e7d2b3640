"""The commands of the room and of working at speed: outlines, what a room has, islands, holding, repeating, linking."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QRect

from tall_plank.desk import dialogs
from tall_plank.desk.texts import tr
from tall_plank.edits import Change, features, guides, islands, library, outline, placing, rooms, tops, underlay
from tall_plank.files.library import forget, keep, kept
from tall_plank.job import Job
from tall_plank.measure import PlankError

if TYPE_CHECKING:
    from tall_plank.desk.window import Window


def register_room(w: Window) -> None:
    """Commands of the Room menu."""
    add, doc = w.commands.add, w.document
    add("draw_outline", tr("&Draw the walls"), "room", lambda: draw_outline(w), "O")
    add("type_outline", tr("&Type the walls"), "room", lambda: type_outline(w), "Shift+O")
    add("read_outline", tr("&Read the walls from a DXF drawing…"), "room", lambda: read_outline(w))
    add("read_underlay", tr("Put a plan &image under the room…"), "room", lambda: read_underlay(w))
    add(
        "scale_underlay",
        tr("Set the plan image's &scale"),
        "room",
        lambda: scale_underlay(w),
        "",
        lambda: bool(doc.room.room.underlays),
    )
    w.commands.separate("room")
    add("add_room", tr("&Add a room"), "room", lambda: doc.do(lambda job: outline.add_room(job)), "Ctrl+Shift+R")

    def several() -> bool:
        return len(doc.job.rooms) > 1

    add(
        "delete_room",
        tr("Delete this room"),
        "room",
        lambda: doc.do(lambda job: outline.delete_room(job, doc.room_id)),
        "",
        several,
    )
    add("next_room", tr("&Next room"), "room", lambda: step_room(w, 1), "Ctrl+PgDown", several)
    add("previous_room", tr("&Previous room"), "room", lambda: step_room(w, -1), "Ctrl+PgUp", several)
    w.commands.separate("room")

    def wall_chosen() -> bool:
        return any(not doc.room.wall(name).island for name in doc.ids("wall") if doc.room.has_line(name))

    add("add_corner", tr("Add a &corner to the wall"), "room", lambda: add_corner(w), "", wall_chosen)
    add(
        "delete_corner",
        tr("Take the wall's right corner away"),
        "room",
        lambda: doc.do(lambda job: outline.delete_corner(job, doc.room_id, doc.ids("wall")[0])),
        "",
        wall_chosen,
    )
    w.commands.separate("room")
    for kind in ("door", "window", "arch", "niche"):
        word = {"arch": tr("open passage")}.get(kind, tr(kind))
        add(
            f"place_opening_{kind}",
            f"{tr('Place')}: {word} {tr('in the wall')}",
            "room",
            lambda kind=kind: place_in_room(w, kind),
        )
    for kind in ("column", "chimney breast", "soffit", "slope", "roof window", *features.SERVICES, *features.MOLDINGS):
        word = {"slope": tr("sloped ceiling")}.get(kind, tr(kind))
        name = f"place_{kind.replace(' ', '_')}"
        add(name, f"{tr('Place')}: {word}", "room", lambda kind=kind: place_in_room(w, kind))
    w.commands.separate("room")
    for kind, word in (("upright", tr("on the wall")), ("level", tr("at a height")), ("across", tr("over the plan"))):
        keys = {"upright": "V", "level": "Z", "across": "Y"}[kind]
        add(f"guide_{kind}", f"{tr('Guide line')}: {word}", "room", lambda kind=kind: place_in_room(w, kind), keys)
    add(
        "clear_guides",
        tr("Clear the guide lines"),
        "room",
        lambda: doc.do(lambda job: guides.clear_guides(job, doc.room_id)),
        "",
        lambda: bool(doc.room.room.guides),
    )
    w.commands.separate("room")
    add("place_island", f"{tr('Place')}: {tr('island')}", "room", lambda: place_in_room(w, "island"), "I")
    add("place_peninsula", f"{tr('Place')}: {tr('peninsula')}", "room", lambda: place_in_room(w, "peninsula"))

    def island() -> bool:
        return bool(doc.ids("island")) or chosen_island(w) != ""

    add(
        "turn_island",
        tr("Turn the island by a quarter"),
        "room",
        lambda: doc.do(lambda job: islands.turn_island(job, chosen_island(w), 90.0)),
        "",
        island,
    )
    add("turn_by", tr("Turn the island by an angle"), "room", lambda: turn_by(w), "", island)
    add(
        "copy_island",
        tr("Copy the island"),
        "room",
        lambda: doc.do(lambda job: placing.copy_island(job, chosen_island(w), 0.0, -1500.0)),
        "",
        island,
    )


def chosen_island(w: Window) -> str:
    """The selected island, or the one that what is selected stands on; empty where there is none."""
    found = w.document.ids("island")
    return found[0] if found else w.document.room.wall(w.strip.current_wall()).island


def turn_by(w: Window) -> None:
    """Turn the island about its middle by typed degrees, counter-clockwise."""
    island = chosen_island(w)

    def edit(text: str) -> PlankError | None:
        try:
            degrees = islands.read_degrees(text)
        except PlankError as error:
            return error
        return w.document.do(lambda job: islands.turn_island(job, island, degrees), at_place=True)

    open_line(w, tr("Turn by"), "", "15", tr("Degrees, counter-clockwise seen from above, about its middle."), edit)


def step_room(w: Window, by: int) -> None:
    ids = [r.id for r in w.document.job.rooms]
    w.document.show_room(ids[(ids.index(w.document.room_id) + by) % len(ids)])


def show_plan(w: Window) -> None:
    """The plan in sight, alone where it was hidden."""
    if w.stage in ("shop", "offer"):
        w.show_stage("room")
    if not w.plan.isVisible():
        w.show_view("plan")


def draw_outline(w: Window) -> None:
    show_plan(w)
    w.plan.draw_outline()


def open_line(w: Window, head: str, text: str, example: str, hint: str, edit) -> None:  # type: ignore[no-untyped-def]
    """The line under the strip, for a text that takes its width."""
    if w.stage in ("shop", "offer"):
        w.show_stage("units")
    if not w.top_pane.isVisible():
        w.show_view("all")
    w.run_text.ask_line(head, text, example, hint, edit)


def type_outline(w: Window) -> None:
    doc = w.document
    room = doc.room_id
    text = outline.outline_text(doc.job, doc.room.room)
    hint = tr(
        "Lengths clockwise from the north-west; “corner 270” turns outwards; two walls may be “rest”. Enter sets them."
    )
    open_line(
        w,
        tr("Walls"),
        text,
        "5400, 4200, 2400, 1800 corner 270, rest, rest",
        hint,
        lambda t: doc.do(lambda job: outline.type_outline(job, room, t), at_place=True),
    )


def read_outline(w: Window) -> None:
    """Walls from a drawing: its largest closed outline; where it names no unit, one known length is asked for."""
    from tall_plank.files.dxf_read import read_outlines

    start = w.document.path.parent if w.document.path else Path.home()
    path = dialogs.ask_read(w, tr("Read the walls from a drawing"), start, "DXF (*.dxf)")
    if path is None:
        return
    try:
        found = read_outlines(path)[0]
    except PlankError as error:
        w.message.tell(str(error), "wrong")
        return
    doc = w.document
    room = doc.room_id
    if found.scaled:
        doc.do(lambda job: outline.draw_outline(job, room, found.points))
        return

    def scaled(text: str) -> PlankError | None:
        try:
            length = rooms.read(doc.job, text, least=10.0, most=100_000.0)
        except PlankError as error:
            return error
        points = found.with_length(0, length.mm)
        return doc.do(lambda job: outline.draw_outline(job, room, points), at_place=True)

    hint = tr("The drawing names no unit. Type how long its first side is; Enter sets the walls.")
    open_line(w, tr("First side"), "", "5400", hint, scaled)


def read_underlay(w: Window) -> None:
    """An image of a plan under the room; then two points and a length give its scale."""
    from tall_plank.files.images import read_image

    start = w.document.path.parent if w.document.path else Path.home()
    path = dialogs.ask_read(
        w,
        tr("Put a plan image under the room"),
        start,
        f"{tr('Images')} (*.png *.jpg *.jpeg *.tif *.tiff *.bmp *.webp)",
    )
    if path is None:
        return
    try:
        image = read_image(path)
    except PlankError as error:
        w.message.tell(str(error), "wrong")
        return
    doc = w.document
    room = doc.room_id
    if doc.do(lambda job: underlay.add_underlay(job, room, image.wide, image.high, image.data)) is None:
        scale_underlay(w)


def scale_underlay(w: Window) -> None:
    """Pick two points on the plan image and type how far they are apart."""
    show_plan(w)
    chosen = w.document.ids("underlay")
    w.plan.measure_underlay(chosen[0] if chosen else w.document.room.room.underlays[-1].id)


def add_corner(w: Window) -> None:
    """A corner in the middle of the selected wall, to be dragged or typed from there."""
    doc = w.document
    wall = next(name for name in doc.ids("wall") if not doc.room.wall(name).island)
    half = doc.room.wall(wall).length / 2
    doc.do(lambda job: outline.add_corner(job, doc.room_id, wall, half))


def place_in_room(
    w: Window, kind: str, wall: str = "", x: float | None = None, at: tuple[float, float] | None = None
) -> None:
    """Put something of the Room stage on a wall (the one worked on, or a given one) or on the floor."""
    doc = w.document
    line = wall or w.strip.current_wall()
    if doc.room.wall(line).island and kind not in ("island",):
        line = doc.room.walls[0].id
    rid = doc.room_id
    on_wall = at is None

    def edit(job: Job) -> Change:
        if kind in ("door", "window", "arch", "niche"):
            return rooms.add_opening(job, rid, line, kind, x)
        if kind in ("column", "chimney breast"):
            return features.add_column(job, rid, line, kind, x)
        if kind == "roof window":
            return features.add_roof_window(job, rid, line, x)
        if kind in guides.NAMES:
            axis = guides.NAMES[kind]
            if at is not None and not on_wall:
                place = at[0] if axis == "x" else at[1]
                return guides.add_guide(job, rid, axis if axis != "z" else "y", "", place)
            return guides.add_guide(job, rid, axis, line if axis == "x" else "", x if axis == "x" else None)
        if kind == "soffit":
            return features.add_soffit(job, rid, line)
        if kind == "slope":
            return features.add_slope(job, rid, line)
        if kind in features.SERVICES:
            return features.add_service(job, rid, line, kind, x)
        if kind in features.MOLDINGS:
            return features.add_molding(job, rid, kind)
        change = islands.add_island(job, rid, at)
        if kind == "peninsula":
            joined = islands.set_island(change.job, change.made[0], "wall", line)
            return Change(joined.job, "Add a peninsula", made=change.made)
        return change

    doc.do(edit)


def register_placing(w: Window) -> None:
    """Commands of the Arrange menu: many units, many times."""
    add, doc = w.commands.add, w.document

    def one() -> bool:
        return len(doc.cells) == 1

    def some() -> bool:
        return bool(doc.cells)

    def many() -> bool:
        return len(doc.cells) > 1

    def run_chosen() -> str:
        if doc.ids("run"):
            return doc.ids("run")[0]
        return doc.job.find_cell(doc.cells[0])[1].id if doc.cells else ""

    add("centre_opening", tr("&Centre on the window or door above"), "arrange", lambda: centre_on(w), "C", one)
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
        lambda: some() or bool(doc.ids("run")) or bool(doc.ids("island")),
    )
    add("forget", tr("Take out of the library"), "arrange", lambda: forget_kept(w))
    add("label", tr("T&ype a label"), "arrange", lambda: type_label(w), "T", some)
    w.commands.separate("arrange")
    add(
        "soffit_over",
        tr("Stand a so&ffit on the run's units"),
        "arrange",
        lambda: doc.do(lambda job: features.add_soffit_over(job, run_chosen())),
        "",
        lambda: run_chosen() != "",
    )
    add(
        "top_corners",
        tr("Give the &worktop corners of its own"),
        "arrange",
        lambda: type_top(w),
        "",
        lambda: top_source(w) != "",
    )


def centre_on(w: Window) -> None:
    """Hold the unit in the middle of the opening of its wall that is nearest to it."""
    doc = w.document
    placed = doc.workings.layout.find(doc.cells[0])
    if placed is None:
        return
    middle = placed.x + placed.width / 2
    near = [(abs(o.x.mm + o.width.mm / 2 - middle), o.id) for o in doc.room.room.openings if o.wall == placed.wall]
    if not near:
        w.message.tell(tr("Its wall has no door or window."))
        return
    name = min(near)[1]
    doc.do(lambda job: placing.hold(job, doc.cells[0], "centre", f"opening:{name}"))


def _ask(w: Window, note: str, edit) -> None:  # type: ignore[no-untyped-def]
    """A small box over the first selected unit in the strip."""
    if w.stage in ("shop", "offer"):
        w.show_stage("units")
    placed = w.document.workings.layout.find(w.document.cells[0])
    if placed is None:
        return
    x = w.strip.wall_x(placed.wall)
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


def repeat(w: Window) -> None:
    """`3` copies side by side, or `3 @ 900` at a pitch."""
    doc = w.document
    cell = doc.cells[0]

    def edit(text: str) -> PlankError | None:
        count, _, pitch = text.partition("@")
        if not count.strip().isdigit():
            return PlankError(f"“{text}” is no number of copies.", "repeat", "Type 3, or 3 @ 900 for a pitch.")
        return doc.do(lambda job: placing.repeat(job, cell, int(count), pitch), at_place=True)

    _ask(w, tr("How many copies? “3 @ 900” sets them at a pitch."), edit)


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
    open_line(
        w,
        tr("Label"),
        text,
        "B{width}",
        hint,
        lambda t: doc.do(lambda job: placing.set_label(job, cells, t), at_place=True),
    )


def keep_chosen(w: Window) -> None:
    """The selected units, run or island under a name."""
    doc = w.document
    cells, chosen, run = doc.cells, doc.ids("island"), doc.ids("run")

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
    open_line(w, tr("Keep as"), doc.job.client or doc.job.name, tr("Harrow drawers"), hint, write)


def forget_kept(w: Window) -> None:
    names = [k.saved.name for k in kept(w.document.folders)[0]]

    def take(name: str) -> PlankError | None:
        found = next((k for k in kept(w.document.folders)[0] if k.saved.name == name.strip()), None)
        if found is None:
            return PlankError(f"“{name}” is not in the library.", "library", "Type a name as it stands on the shelf.")
        forget(w.document.folders, found.path.name)
        w.shelf.library_changed()
        return None

    open_line(w, tr("Take out"), names[0] if names else "", "", tr("Its file stays beside the others as .bak."), take)


def top_source(w: Window) -> str:
    """The run or island whose worktop is meant by the selection; empty where there is none."""
    doc = w.document
    if doc.ids("island"):
        return f"island:{doc.ids('island')[0]}"
    if doc.ids("run"):
        return f"run:{doc.ids('run')[0]}"
    if doc.cells:
        run = doc.workings.layout.run(doc.job.find_cell(doc.cells[0])[1].id)
        if run is not None and run.run.level != "hung":
            return f"island:{run.wall.island}" if run.wall.island else f"run:{run.run.id}"
    return ""


def type_top(w: Window) -> None:
    """The worktop's corners as text, starting with those that it has."""
    doc = w.document
    source = top_source(w)
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
    open_line(
        w,
        tr("Worktop"),
        text,
        "0 0; 2400 0; 2400 620; 0 620",
        hint,
        lambda t: doc.do(lambda job: tops.set_outline(job, source, t), at_place=True),
    )
