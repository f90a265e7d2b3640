"""The faces of columns and chimney breasts as lines that wall fields lie on, and what each meets at its ends."""

from __future__ import annotations

import msgspec

from tall_plank.job import Column, Room
from tall_plank.job.things.column import FACES, face_id
from tall_plank.measure import Frame
from tall_plank.measure.frames import RoomFrame
from tall_plank.setout.rooms import find_wall, walls_of
from tall_plank.setout.things.column import column_frame, column_height
from tall_plank.setout.things.slope import sloped
from tall_plank.setout.wall import Wall

LEAST_SIDE = 150.0
"""mm; a side of a column that is nearer to the next wall is not seen, and nobody can fix anything there."""


class Joined(msgspec.Struct, frozen=True):
    """A line, and the lines that meet it at its left and right end.

    Attributes
    ----------
    hidden : whether it stands against a wall, or too near to one to be covered
    """

    line: Wall
    left: Wall
    right: Wall
    hidden: bool = False


def joined_walls(walls: tuple[Wall, ...]) -> tuple[Joined, ...]:
    """The walls of a room with their neighbors."""
    n = len(walls)
    return tuple(Joined(w, walls[i - 1], walls[(i + 1) % n]) for i, w in enumerate(walls))


def joined_faces(room: Room, column: Column) -> tuple[Joined, ...]:
    """The four faces of a column with what they meet. The back of one against a wall is hidden, and a side that lies
    on the next wall."""
    walls = walls_of(room)
    left, front, right, back = (_face(room, walls, column, name) for name in FACES)
    if not column.wall:
        ring = (left, front, right, back)
        return tuple(Joined(_at(line, 270.0, 270.0), ring[i - 1], ring[(i + 1) % 4]) for i, line in enumerate(ring))
    i = next(k for k, w in enumerate(walls) if w.id == column.wall)
    wall, before, after = walls[i], walls[i - 1], walls[(i + 1) % len(walls)]
    at_left = column.x.mm < LEAST_SIDE
    at_right = wall.length - column.x.mm - column.width.mm < LEAST_SIDE
    ends = (wall.before if at_left else 270.0, wall.after if at_right else 270.0)
    return (
        Joined(_at(left, 90.0, 270.0), wall, front, at_left),
        Joined(_at(front, *ends), before if at_left else left, after if at_right else right),
        Joined(_at(right, 270.0, 90.0), front, wall, at_right),
        Joined(back, right, left, True),
    )


def joined_columns(room: Room) -> tuple[Joined, ...]:
    """The faces of every column of a room."""
    return tuple(j for c in room.columns for j in joined_faces(room, c))


def _face(room: Room, walls: tuple[Wall, ...], column: Column, name: str) -> Wall:
    w, d = column.width.mm, column.depth.mm
    frames: dict[str, tuple[Frame, float]] = {  # type: ignore[type-arg]
        "left": (Frame((0.0, d, 0.0), (0.0, -1.0, 0.0), (1.0, 0.0, 0.0)), d),
        "front": (Frame(), w),
        "right": (Frame((w, 0.0, 0.0), (0.0, 1.0, 0.0), (-1.0, 0.0, 0.0)), d),
        "back": (Frame((w, d, 0.0), (-1.0, 0.0, 0.0), (0.0, -1.0, 0.0)), w),
    }
    inner, length = frames[name]
    frame: RoomFrame = column_frame(room, column).then(inner)
    number = 1 + [c.id for c in room.columns].index(column.id)
    bare = Wall(
        face_id(column, name), f"{column.kind} {number}, {name}", length, column_height(room, column), 0.0, frame,
        column=column.id, code=f"c{number}{name[0]}",
    )  # fmt: skip
    return sloped(bare, walls, room.height.mm, room.slopes) if room.slopes else bare


def _at(face: Wall, before: float, after: float) -> Wall:
    return msgspec.structs.replace(face, before=before, after=after)


def covered_faces(room: Room) -> tuple[Wall, ...]:
    """The faces that a wall field lies on."""
    covered = {f.wall for f in room.fields}
    return tuple(j.line for j in joined_columns(room) if j.line.id in covered) if covered and room.columns else ()


def find_surface(room: Room, surface: str) -> Wall:
    """A wall of a room by its letter, or a face of one of its columns.

    Raises
    ------
    PlankError where there is none
    """
    faces = (j.line for j in joined_columns(room))
    return next((f for f in faces if f.id == surface), None) or find_wall(room, surface)
