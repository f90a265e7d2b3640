"""Edits of a room's outline: drawn, typed or read corners, wall lengths and angles; rooms added and taken away."""

from __future__ import annotations

import math
import re
from difflib import SequenceMatcher
from typing import Any

import msgspec

from tall_plank.edits.change import Change, new_ids, with_cells, with_room, without_covers, without_unused_treatments
from tall_plank.edits.rooms import check_room, read_in
from tall_plank.job import Corner, Job, Rectangle, Room, Side, Sides, WallOwn
from tall_plank.job.things.table import THINGS
from tall_plank.measure import Length, PlankError, format_length
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import FloorPoint
from tall_plank.measure.limits import check_reach
from tall_plank.measure.outlines import Points
from tall_plank.setout.rooms import corners_of, sides_from, walls_of

WALL_LETTERS = "ABCDEFGHIJQRSTUVWXYZ"
"""Letters for walls, in the order in which they are given; the others are for islands."""

CLOSES = 0.5
"""mm; typed walls that come back to their start within this close the room."""


def next_letters(room: Room, count: int) -> list[str]:
    """Letters that no wall and no island of a room has yet.

    Raises
    ------
    PlankError “A room takes at most 20 walls.”
    """
    taken = {*room.wall_ids(), *(i.letter for i in room.islands)}
    free = [c for c in WALL_LETTERS if c not in taken]
    if len(free) < count:
        raise PlankError("A room takes at most 20 walls.", "outline", "Divide the room.")
    return free[:count]


def as_sides(room: Room) -> Sides:
    """The outline of a room as sides; a rectangle's last two walls close it."""
    o = room.outline
    if isinstance(o, Sides):
        return o
    return Sides((Side("A", o.width), Side("B", o.depth), Side("C", None), Side("D", None)))


def _with_outline(job: Job, room: Room, outline: Rectangle | Sides, name: str) -> Change:
    """The job with another outline of a room; what would no longer fit stops it, and says which."""
    new = msgspec.structs.replace(room, outline=outline)
    check_room(job, new)
    return Change(with_room(job, new), name)


def set_wall_length(job: Job, room_id: str, wall_id: str, text: str) -> Change:
    """Type the inside length of a wall. The angles stay; walls that close the outline take the difference.

    Raises
    ------
    PlankError where the outline would not close or cross itself, naming the wall
    """
    room = job.room(room_id)
    length = read_in(job, text, Side, "length")
    if isinstance(room.outline, Rectangle):
        key = "width" if wall_id in "AC" else "depth"
        square = msgspec.structs.replace(room.outline, **{key: length})
        return _with_outline(job, room, square, f"Set the length of wall {wall_id}")
    outline = _with_length(room, room.outline, wall_id, length)
    return _with_outline(job, room, outline, f"Set the length of wall {wall_id}")


def _with_length(room: Room, outline: Sides, wall_id: str, length: Length) -> Sides:
    sides = list(outline.sides)
    i = _index(room, wall_id)
    if sides[i].length is None:
        # It takes what is left no more: the nearest wall that runs alongside does instead.
        walls = walls_of(room)
        way = walls[i].frame.x
        n = len(sides)
        loose = next(k for k in range(n) if k != i and sides[k].length is None)
        other = walls[loose].frame.x
        found = None
        for step in range(1, n):
            k = (i + step) % n
            d = walls[k].frame.x
            alongside = abs(way[0] * d[1] - way[1] * d[0]) < 1e-6
            crosses = abs(other[0] * d[1] - other[1] * d[0]) > 1e-6
            if sides[k].length is not None and alongside and crosses:
                found = k
                break
        if found is None:
            for step in range(1, n):
                k = (i + step) % n
                d = walls[k].frame.x
                if sides[k].length is not None and abs(other[0] * d[1] - other[1] * d[0]) > 1e-6:
                    found = k
                    break
        if found is None:
            raise PlankError("No other wall can take the difference.", f"wall {wall_id}", "Type another wall's length.")
        sides[found] = msgspec.structs.replace(sides[found], length=None)
    sides[i] = msgspec.structs.replace(sides[i], length=length)
    return msgspec.structs.replace(outline, sides=tuple(sides))


def _index(room: Room, wall_id: str) -> int:
    ids = room.wall_ids()
    if wall_id not in ids:
        raise PlankError(f"There is no wall {wall_id}.", "room", "Choose another wall.")
    return ids.index(wall_id)


def set_wall_angle(job: Job, room_id: str, wall_id: str, text: str) -> Change:
    """Type the angle inside the room at the right end of a wall, in degrees; the walls after it turn with it.

    Raises
    ------
    PlankError where the text is no angle or the outline cannot close
    """
    room = job.room(room_id)
    outline = as_sides(room)
    i = _index(room, wall_id)
    angle = read_angle(text)
    sides = list(outline.sides)
    if i == len(sides) - 1:
        # The last angle follows from the others: the one before gives way.
        now = walls_of(room)[i].after
        before = sides[i - 1]
        sides[i - 1] = msgspec.structs.replace(before, angle=before.angle - (angle - now))
    sides[i] = msgspec.structs.replace(sides[i], angle=angle)
    new = Sides(tuple(sides), outline.heading)
    return _with_outline(job, room, new, f"Set the corner at the end of wall {wall_id}")


def read_angle(text: str) -> float:
    """An angle in degrees from text.

    Raises
    ------
    PlankError where it is no angle between 1 and 359
    """
    try:
        angle = float(text.strip().rstrip("°").strip().replace(",", "."))
    except ValueError:
        raise PlankError(f"“{text}” is no angle.", "angle", "Type degrees such as 90 or 135.") from None
    if not 1.0 <= angle <= 359.0:
        raise PlankError(f"{angle:g}° makes no corner.", "angle", "Type degrees between 1 and 359.")
    return angle


def draw_outline(job: Job, room_id: str, points: Points) -> Change:
    """Give a room an outline by its corners, in order, either way round. Wall letters start anew; openings and
    runs on walls that keep their letter stay. `points`: mm.

    Raises
    ------
    PlankError where it crosses itself or a wall has no length
    """
    check_reach(*(c for p in points for c in p))
    room = job.room(room_id)
    count = len(points)
    if count > len(WALL_LETTERS):
        raise PlankError("A room takes at most 20 walls.", "outline", "Leave corners out.")
    if count < 3:
        raise PlankError("A room needs three corners at least.", "outline", "Go on drawing.")
    taken = {i.letter for i in room.islands}
    ids = [c for c in WALL_LETTERS if c not in taken][:count]
    start = _north_west(points)
    outline = sides_from(start, tuple(ids))
    lost = [w for w in room.wall_ids() if w not in ids]
    for wall in lost:
        job = _clear_wall(job, room_id, wall)
    room = job.room(room_id)
    # The outline lies with its least x and y at 0; an image that it was traced from moves along.
    x0, y0, _, _ = ol.bounds(points)
    traced = tuple(
        msgspec.structs.replace(u, x=Length.of(round(u.x.mm - x0, 3)), y=Length.of(round(u.y.mm - y0, 3)))
        for u in room.underlays
    )
    return _with_outline(job, msgspec.structs.replace(room, underlays=traced), outline, "Draw the outline")


def _north_west(points: Points) -> Points:
    """The corners clockwise, beginning with the one from which the longest wall on the north runs."""
    clockwise = points if ol.area(points) < 0 else tuple(reversed(points))
    n = len(clockwise)
    top = max(p[1] for p in clockwise)

    def rank(i: int) -> tuple[float, float]:
        a, b = clockwise[i], clockwise[(i + 1) % n]
        level = abs(a[1] - top) + abs(b[1] - top)
        return (level, -math.dist(a, b))

    i = min(range(n), key=rank)
    return clockwise[i:] + clockwise[:i]


def _clear_wall(job: Job, room_id: str, wall_id: str) -> Job:
    """Take away what is on a wall that goes: runs, openings, columns, service points, own sizes."""
    for run in [r for r in job.room(room_id).runs if r.wall == wall_id]:
        job = with_cells(job, run, ())
    room = job.room(room_id)
    job = without_covers(job, room_id, tuple(c for c in room.columns if c.wall == wall_id))
    room = job.room(room_id)
    gone = {s.id for s in room.slopes if s.wall == wall_id}
    job = with_room(
        job,
        msgspec.structs.replace(
            room,
            runs=tuple(r for r in room.runs if r.wall != wall_id),
            openings=tuple(o for o in room.openings if o.wall != wall_id),
            fields=tuple(f for f in room.fields if f.wall != wall_id),
            columns=tuple(c for c in room.columns if c.wall != wall_id),
            services=tuple(s for s in room.services if s.wall != wall_id),
            slopes=tuple(s for s in room.slopes if s.wall != wall_id),
            roof_windows=tuple(w for w in room.roof_windows if w.slope not in gone),
            guides=tuple(g for g in room.guides if g.wall != wall_id),
            walls=tuple(w for w in room.walls if w.wall != wall_id),
            islands=tuple(i for i in room.islands if i.wall != wall_id),
        ),
    )
    return without_unused_treatments(job)


_SIDE = re.compile(r"\s*(?P<length>.*?)(?:\s+corner\s+(?P<angle>[^\s]+))?\s*\Z", re.IGNORECASE | re.DOTALL)


def type_outline(job: Job, room_id: str, text: str) -> Change:
    """Give a room an outline by text: wall lengths clockwise from the north-west, parted by commas, each followed by
    `corner` and the angle inside the room where it is not 90; two walls may be `rest`.

    Raises
    ------
    PlankError naming the wall that cannot be read, or by how much the outline does not close
    """
    room = job.room(room_id)
    pieces = [p for p in text.split(",") if p.strip()]
    if len(pieces) < 3:
        example = "For example: 5400, 4200, 2400, 1800 corner 270, rest, rest."
        raise PlankError("A room needs three walls or more.", "outline", example)
    taken = {i.letter for i in room.islands}
    ids = [c for c in WALL_LETTERS if c not in taken]
    if len(pieces) > len(ids):
        raise PlankError("A room takes at most 20 walls.", "outline", "Leave corners out.")
    lengths: list[Length | None] = []
    angles: list[float] = []
    as_it_was = _left_as_shown(job, room, [p.strip() for p in pieces])
    words = (text.partition(" corner ")[0] for text in outline_text(job, room).split(", "))
    # Where the angle alone was typed over, the length that is shown rounded stays the true one.
    shown = {(i, w): side.length for i, (w, side) in enumerate(zip(words, as_sides(room).sides, strict=True))}
    for i, piece in enumerate(pieces):
        if i in as_it_was:
            lengths.append(as_it_was[i][0])
            angles.append(as_it_was[i][1])
            continue
        match = _SIDE.match(piece)
        assert match is not None
        word = match["length"].strip()
        try:
            true = shown.get((i, word))
            lengths.append(None if word.lower() == "rest" else true or read_in(job, word.lstrip("~"), Side, "length"))
            angles.append(read_angle(match["angle"]) if match["angle"] else 90.0)
        except PlankError as error:
            raise PlankError(error.what, f"wall {ids[i]}", error.remedy) from None
    outline = _closed(lengths, angles, ids)
    for wall in [w for w in room.wall_ids() if w not in ids[: len(pieces)]]:
        job = _clear_wall(job, room_id, wall)
    return _with_outline(job, job.room(room_id), outline, "Type the outline")


def _left_as_shown(job: Job, room: Room, words: list[str]) -> dict[int, tuple[Length | None, float]]:
    """Walls whose words stand as they are shown, with their true lengths and angles: what is shown is rounded."""
    sides = as_sides(room).sides
    shown = outline_text(job, room).split(", ")
    found: dict[int, tuple[Length | None, float]] = {}
    for block in SequenceMatcher(None, shown, words, autojunk=False).get_matching_blocks():
        for k in range(block.size):
            found[block.b + k] = (sides[block.a + k].length, sides[block.a + k].angle)
    return found


def _closed(lengths: list[Length | None], angles: list[float], ids: list[str]) -> Sides:
    n = len(lengths)
    missing = [i for i, length in enumerate(lengths) if length is None]
    if len(missing) > 2:
        raise PlankError("Only two walls can take what is left.", "outline", "Type the others.")
    given = list(lengths)
    headings = [0.0]
    for angle in angles[:-1]:
        headings.append(headings[-1] - (180.0 - angle))
    loose = list(missing)
    for i in range(n - 1, -1, -1):
        if len(loose) == 2:
            break
        across = all(abs(math.sin(math.radians(headings[i] - headings[k]))) > 1e-6 for k in loose)
        if i not in loose and across:
            loose.append(i)
    if len(loose) < 2:
        raise PlankError("The walls cannot close the room.", "outline", "Type other angles.")
    sides = tuple(Side(ids[i], None if i in loose else given[i], angles[i]) for i in range(n))
    outline = Sides(sides)
    points = corners_of(outline)
    for i in loose:
        typed = given[i]
        if typed is None:
            continue
        found = math.dist(points[i], points[(i + 1) % n])
        if abs(found - typed.mm) > CLOSES:
            by = format_length(abs(found - typed.mm), mark=True)
            raise PlankError(
                f"The walls do not close: wall {ids[i]} comes to {format_length(found, mark=True)}, {by} off.",
                f"wall {ids[i]}",
                "Type that, or write rest for it.",
            )
    return outline


def outline_text(job: Job, room: Room) -> str:
    """An outline as the text that makes it again."""
    words = []
    for wall, side in zip(walls_of(room), as_sides(room).sides, strict=True):
        length = side.length
        word = "rest"
        if length is not None:
            word = length.text if length.is_rule else format_length(length.mm, job.display)
        corner = "" if abs(wall.after - 90.0) < 1e-6 else f" corner {wall.after:g}"
        words.append(word + corner)
    return ", ".join(words)


def add_corner(job: Job, room_id: str, wall_id: str, x: float) -> Change:
    """Put a corner into a wall at x mm: it can be dragged out then. The part to its right gets a letter of its own;
    what stands there goes with it.

    Raises
    ------
    PlankError “A corner there would leave a wall of no length.”
    """
    check_reach(x)
    room = job.room(room_id)
    i = _index(room, wall_id)
    walls = walls_of(room)
    length = walls[i].length
    if not 20.0 <= x <= length - 20.0:
        raise PlankError("A corner there would leave a wall of no length.", f"wall {wall_id}", "Set it further in.")
    points = list(corners_of(room.outline))
    # A hair off the line, so that the new corner is one; dragging it gives it its place.
    points.insert(i + 1, walls[i].frame.floor(x, -1.0))
    letter = next_letters(room, 1)[0]
    ids = (*room.wall_ids()[: i + 1], letter, *room.wall_ids()[i + 1 :])
    outline = sides_from(tuple(points), ids)
    room = _gone_along(room, wall_id, x, letter)
    return _with_outline(job, room, outline, f"Add a corner to wall {wall_id}")


def _gone_along(room: Room, wall_id: str, x: float, letter: str) -> Room:
    """The room with everything that is placed on a wall beyond a place on it, and what hangs free there, on the wall
    that begins there. `x`: mm."""

    def moved(thing: Any) -> Any:
        at = getattr(thing, "x", None)
        if getattr(thing, "wall", "") != wall_id or not isinstance(at, Length) or at.mm < x:
            return thing
        return msgspec.structs.replace(thing, wall=letter, x=Length.of(round(at.mm - x, 6)))

    rows = {noun.rows: tuple(moved(t) for t in getattr(room, noun.rows)) for noun in THINGS.values() if not noun.on_run}
    runs = tuple(
        msgspec.structs.replace(run, wall=letter, start=Length.of(round(run.start.mm - x, 6)))
        if run.free and run.wall == wall_id and run.start is not None and run.start.mm >= x
        else run
        for run in room.runs
    )
    return msgspec.structs.replace(room, runs=runs, **rows)


def delete_corner(job: Job, room_id: str, wall_id: str) -> Change:
    """Take away the corner at the right end of a wall: the wall runs on to the next corner.

    Raises
    ------
    PlankError “A room needs three corners.”
    """
    room = job.room(room_id)
    points = list(corners_of(room.outline))
    if len(points) <= 3:
        raise PlankError("A room needs three corners.", "outline", "Leave this one.")
    i = _index(room, wall_id)
    n = len(points)
    gone = room.wall_ids()[(i + 1) % n]
    ids = tuple(w for w in room.wall_ids() if w != gone)
    del points[(i + 1) % n]
    job = _clear_wall(job, room_id, gone)
    if i == n - 1:
        # The first corner went: the outline now starts with the next one.
        ids = (ids[-1], *ids[:-1])
        points = [points[-1], *points[:-1]]
    return _with_outline(job, job.room(room_id), sides_from(tuple(points), ids), f"Take a corner from wall {wall_id}")


def move_corner(job: Job, room_id: str, index: int, x: float, y: float) -> Change:
    """Drag a corner of the outline to a place in the room; both walls beside it follow. `x`, `y`: mm.

    In a rectangle the corner takes its two walls along, and the room stays a rectangle.

    Raises
    ------
    PlankError “The room would be too small.”
    """
    check_reach(x, y)
    room = job.room(room_id)
    points = list(corners_of(room.outline))
    if isinstance(room.outline, Rectangle):
        ox, oy = points[(index + 2) % 4]
        width, depth = abs(round(x - ox)), abs(round(y - oy))
        if min(width, depth) < 500.0:
            raise PlankError("The room would be too small.", "corner", "Leave it at least 500 mm.")
        return _with_outline(job, room, Rectangle(Length.of(width), Length.of(depth)), "Move a corner")
    if not 0 <= index < len(points):
        raise PlankError("The room has no such corner.", "corner", "Choose another one.")
    points[index] = FloorPoint((round(x, 3), round(y, 3)))
    return _with_outline(job, room, sides_from(tuple(points), room.wall_ids()), "Move a corner")


def move_wall(job: Job, room_id: str, wall_id: str, out: float) -> Change:
    """Drag a wall square to itself, out of the room by so many mm; its neighbours grow or shrink along their lines.

    Raises
    ------
    PlankError “The wall would pass the one opposite.”
    """
    check_reach(out)
    room = job.room(room_id)
    points = corners_of(room.outline)
    i = _index(room, wall_id)
    distances = [0.0] * len(points)
    distances[i] = float(round(out))
    moved = ol.offset(points, distances)
    if isinstance(room.outline, Rectangle):
        w, d = (max(abs(p[k] - q[k]) for p in moved for q in moved) for k in (0, 1))
        return _with_outline(job, room, Rectangle(Length.of(round(w)), Length.of(round(d))), f"Move wall {wall_id}")
    if (ol.area(moved) > 0) != (ol.area(points) > 0):
        raise PlankError("The wall would pass the one opposite.", f"wall {wall_id}", "Move it less.")
    return _with_outline(job, room, sides_from(moved, room.wall_ids()), f"Move wall {wall_id}")


def add_room(job: Job, name: str = "") -> Change:
    """Add an empty room, 3600 x 2400, as high as the last one."""
    job, (room_id,) = new_ids(job, "r")
    last = job.rooms[-1]
    room = Room(
        room_id,
        name.strip()[:80] or f"Room {len(job.rooms) + 1}",
        Rectangle(Length.of(3600.0), Length.of(2400.0)),
        last.height,
        last.wall_thickness,
    )
    return Change(msgspec.structs.replace(job, rooms=(*job.rooms, room)), "Add a room", made=(room_id,))


def delete_room(job: Job, room_id: str) -> Change:
    """Take a room and everything in it away; the last one stays.

    Raises
    ------
    PlankError “A job keeps one room.”
    """
    if len(job.rooms) == 1:
        raise PlankError("A job keeps one room.", "room", "Empty it instead.")
    for run in job.room(room_id).runs:
        job = with_cells(job, run, ())
    job = msgspec.structs.replace(job, rooms=tuple(r for r in job.rooms if r.id != room_id))
    return Change(without_unused_treatments(job), "Delete the room")


def set_wall_own(job: Job, room_id: str, wall_id: str, key: str, text: str) -> Change:
    """Set the thickness or height of one wall; an empty text inherits the room's again.

    Raises
    ------
    PlankError “A wall has no ….”
    """
    room = job.room(room_id)
    _index(room, wall_id)
    if key not in ("thickness", "height"):
        raise PlankError(f"A wall has no {key}.", "wall", "Choose thickness or height.")
    value = read_in(job, text, WallOwn, key) if text.strip() else None
    own = next((w for w in room.walls if w.wall == wall_id), WallOwn(wall_id))
    own = msgspec.structs.replace(own, **{key: value})
    rest = tuple(w for w in room.walls if w.wall != wall_id)
    walls = rest if own == WallOwn(wall_id) else tuple(sorted((*rest, own), key=lambda w: w.wall))
    new = msgspec.structs.replace(room, walls=walls)
    check_room(job, new)
    return Change(with_room(job, new), f"Set the {key} of wall {wall_id}")


def corner(x: float, y: float) -> Corner:
    """A corner at whole micrometres. `x`, `y`: mm."""
    return Corner(Length.of(round(x, 3)), Length.of(round(y, 3)))
