"""The Room menu: outlines, what stands in a room, islands."""

from __future__ import annotations

from functools import partial
from pathlib import Path

from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.desk.look.texts import tr
from tall_plank.desk.pages.profile import read_profile
from tall_plank.desk.things.table import offered_under
from tall_plank.edits import outline, placing, rooms
from tall_plank.edits.things.dimension import add_between
from tall_plank.edits.things.guide import clear_guides
from tall_plank.edits.things.island import read_degrees, turn_island
from tall_plank.edits.things.note import add_note
from tall_plank.edits.things.section import turn_section
from tall_plank.edits.things.underlay import add_underlay
from tall_plank.job import Kind, Side
from tall_plank.measure import PlankError, format_length


def register(w: Window) -> None:
    """Commands of the Room menu."""
    add, doc = w.commands.add, w.document
    add("draw_outline", tr("&Draw the walls"), "room", lambda: draw_outline(w), "O")
    add("type_outline", tr("&Type the walls"), "room", lambda: type_outline(w), "Shift+O")
    add("read_outline", tr("&Read the walls from a DXF drawing…"), "room", lambda: read_outline(w))
    add("read_profile", tr("Read a molding's &profile from DXF or SVG…"), "room", lambda: read_own_profile(w))
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
        return any(not doc.room.wall(name).is_face for name in doc.ids(Kind.WALL) if doc.room.has_line(name))

    add("add_corner", tr("Add a &corner to the wall"), "room", lambda: add_corner(w), "", wall_chosen)
    add(
        "delete_corner",
        tr("Take the wall's right corner away"),
        "room",
        lambda: doc.do(lambda job: outline.delete_corner(job, doc.room_id, doc.ids(Kind.WALL)[0])),
        "",
        wall_chosen,
    )
    w.commands.separate("room")
    for heading in ("Openings", "Structure", "Service points", "Moldings", "Unit moldings"):
        if heading == "Structure":
            w.commands.separate("room")
        _offer(w, heading)
    w.commands.separate("room")
    _offer(w, "Guide lines")
    add(
        "clear_guides",
        tr("Clear the guide lines"),
        "room",
        lambda: doc.do(lambda job: clear_guides(job, doc.room_id)),
        "",
        lambda: bool(doc.room.room.guides),
    )
    w.commands.separate("room")
    _offer(w, "Drawings")
    add(
        "dimension_between",
        tr("Dimension between the two selected"),
        "room",
        lambda: add_dimension(w),
        "Ctrl+Shift+D",
        lambda: len(doc.selection) == 2,
    )
    add(
        "note_on",
        tr("Note on what is selected"),
        "room",
        lambda: note_on(w),
        "Shift+N",
        lambda: len(doc.selection) == 1,
    )
    add(
        "turn_section",
        tr("Look the other way at the section"),
        "room",
        lambda: doc.do(lambda job: turn_section(job, doc.ids(Kind.SECTION)[0])),
        "",
        lambda: bool(doc.ids(Kind.SECTION)),
    )
    w.commands.separate("room")
    _offer(w, "Islands")

    def island() -> bool:
        return bool(doc.ids(Kind.ISLAND)) or w.chosen_island() != ""

    add(
        "turn_island",
        tr("Turn the island by a quarter"),
        "room",
        lambda: doc.do(lambda job: turn_island(job, w.chosen_island(), 90.0)),
        "",
        island,
    )
    add("turn_by", tr("Turn the island by an angle"), "room", lambda: turn_by(w), "", island)
    add(
        "copy_island",
        tr("Copy the island"),
        "room",
        lambda: doc.do(lambda job: placing.copy_island(job, w.chosen_island(), 0.0, -1500.0)),
        "",
        island,
    )


def _offer(w: Window, heading: str) -> None:
    """A command for everything that the shelf offers under a heading."""
    for o in offered_under(heading):
        lead = "" if heading in ("Guide lines", "Drawings") else tr("Place")
        text = o.text[:1].upper() + o.text[1:]
        w.commands.add(o.command, text, "room", partial(w.placer.in_room, o.name), o.keys, lead=lead)


def note_on(w: Window) -> None:
    """A note about the selected thing, on the plan or on the wall that is worked on; it is selected, to be written."""
    doc = w.document
    view = "" if w.center.focused_view() is w.plan else w.strip.current_wall()
    (source,) = doc.selection
    doc.do(lambda job: add_note(job, doc.room_id, view, source))


def add_dimension(w: Window) -> None:
    """A dimension by hand between the two selected things, on the plan or on the wall that is worked on."""
    doc = w.document
    view = "" if w.center.focused_view() is w.plan else w.strip.current_wall()
    first, second = doc.selection
    doc.do(lambda job: add_between(job, doc.room_id, view, first, second))


def turn_by(w: Window) -> None:
    """Turn the island about its middle by typed degrees, counter-clockwise."""
    island = w.chosen_island()

    def edit(text: str) -> PlankError | None:
        try:
            degrees = read_degrees(text)
        except PlankError as error:
            return error
        return w.document.do(lambda job: turn_island(job, island, degrees), at_place=True)

    w.open_line(tr("Turn by"), "", "15", tr("Degrees, counter-clockwise seen from above, about its middle."), edit)


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


def type_outline(w: Window) -> None:
    doc = w.document
    room = doc.room_id
    text = outline.outline_text(doc.job, doc.room.room)
    hint = tr(
        "Lengths clockwise from the north-west; “corner 270” turns outwards; two walls may be “rest”. Enter sets them."
    )
    w.open_line(
        tr("Walls"),
        text,
        "5400, 4200, 2400, 1800 corner 270, rest, rest",
        hint,
        lambda t: doc.do(lambda job: outline.type_outline(job, room, t), at_place=True),
    )


def read_outline(w: Window) -> None:
    """Walls from a drawing: its largest closed outline; where it names no unit, one known length is asked for."""
    from tall_plank.files.closed_outlines import Found
    from tall_plank.files.dxf_read import read_outlines

    start = w.document.path.parent if w.document.path else Path.home()
    path = asking.ask_read(w, tr("Read the walls from a drawing"), start, "DXF (*.dxf)")
    if path is None:
        return
    try:
        found = read_outlines(path)[0]
    except PlankError as error:
        w.message.tell(str(error), "wrong")
        return
    doc = w.document
    room = doc.room_id

    def tell_arcs(read: Found) -> None:
        if read.arcs:
            told = tr("Arcs of the drawing are walls in straight pieces now; they leave them at the most by")
            w.message.tell(f"{told} {format_length(read.within, doc.job.display)}.")

    if found.scaled:
        if doc.do(lambda job: outline.draw_outline(job, room, found.points)) is None:
            tell_arcs(found)
        return

    def scaled(text: str) -> PlankError | None:
        try:
            length = rooms.read_in(doc.job, text, Side, "length")
        except PlankError as error:
            return error
        known = found.with_length(0, length.mm)
        wrong = doc.do(lambda job: outline.draw_outline(job, room, known.points), at_place=True)
        if wrong is None:
            tell_arcs(known)
        return wrong

    hint = tr("The drawing names no unit. Type how long its first side is; Enter sets the walls.")
    w.open_line(tr("First side"), "", "5400", hint, scaled)


def read_own_profile(w: Window) -> None:
    """The section of a molding from a drawing into the job's stock; then it is shown there."""
    try:
        code = read_profile(w, w.document)
    except PlankError as error:
        w.message.tell(str(error), "wrong")
        return
    if code:
        w.show_stock("Moldings")
        assert w.stock_page is not None
        w.stock_page.show_thing(code)


def read_underlay(w: Window) -> None:
    """An image of a plan under the room; then two points and a length give its scale."""
    from tall_plank.files.images import read_image

    start = w.document.path.parent if w.document.path else Path.home()
    path = asking.ask_read(
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
    if doc.do(lambda job: add_underlay(job, room, image.wide, image.high, image.data)) is None:
        scale_underlay(w)


def scale_underlay(w: Window) -> None:
    """Pick two points on the plan image and type how far they are apart."""
    show_plan(w)
    chosen = w.document.ids(Kind.UNDERLAY)
    w.plan.measure_underlay(chosen[0] if chosen else w.document.room.room.underlays[-1].id)


def add_corner(w: Window) -> None:
    """A corner in the middle of the selected wall, to be dragged or typed from there."""
    doc = w.document
    wall = next(name for name in doc.ids(Kind.WALL) if not doc.room.wall(name).is_face)
    half = doc.room.wall(wall).length / 2
    doc.do(lambda job: outline.add_corner(job, doc.room_id, wall, half))
