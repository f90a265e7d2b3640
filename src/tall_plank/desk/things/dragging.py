"""How things follow the hand that are dragged alike: along their wall, or over the floor."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.things.handling import Hand, Mark, Marks
from tall_plank.edits.things.table import EDITS
from tall_plank.job import Kind, Source
from tall_plank.job.things.table import THINGS, find_thing, things_of
from tall_plank.setout import RoomLayout, Wall


def along_wall(hand: Hand) -> None:
    """In the strip: along its wall, its sides and its middle snapped to what is there."""
    kind, thing_id = hand.source.kind, hand.source.id
    noun, slide = THINGS[kind], EDITS[kind].slide
    room, thing = find_thing(hand.origin, kind, thing_id)
    assert noun.extent is not None and slide is not None
    x, width = noun.extent(thing)
    wanted = hand.snaps.snapped_box(noun.wall(room, thing), x + hand.by[0], width, hand.source)
    hand.document.drag(lambda job: slide(job, thing_id, wanted))


def on_floor(hand: Hand) -> None:
    """On the plan: along its wall, or over the floor where it stands on none."""
    kind, thing_id = hand.source.kind, hand.source.id
    noun, edits = THINGS[kind], EDITS[kind]
    room, thing = find_thing(hand.origin, kind, thing_id)
    wall, slide, shift = noun.wall(room, thing), edits.slide, edits.shift
    dx, dy = hand.by
    if wall and slide is not None and noun.extent is not None:
        x = noun.extent(thing)[0] + way_along(hand.document.room.wall(wall), dx, dy)
        hand.document.drag(lambda job: slide(job, thing_id, x))
    elif shift is not None:
        hand.document.drag(lambda job: shift(job, thing_id, dx, dy))


def way_along(wall: Wall, dx: float, dy: float) -> float:
    """How far a move over the plan goes along a wall, mm."""
    return dx * wall.frame.x[0] + dy * wall.frame.x[1]


def sides_of(kind: Kind) -> Marks:
    """Marks at the left, the right and the middle of every thing of a kind on a wall; one where it has no width."""

    def marks(room: RoomLayout, wall_id: str) -> list[tuple[Source, Mark]]:
        noun = THINGS[kind]
        assert noun.extent is not None
        found: list[tuple[Source, Mark]] = []
        for thing in things_of(room.room, kind):
            if noun.wall(room.room, thing) != wall_id:
                continue
            source, (x, width), name = kind.of(thing.id), noun.extent(thing), tr(thing.kind)
            if width:
                found += [
                    (source, Mark(x, f"{tr('left of')} {name}")),
                    (source, Mark(x + width, f"{tr('right of')} {name}")),
                    (source, Mark(x + width / 2, f"{tr('middle of')} {name}")),
                ]
            else:
                found.append((source, Mark(x, name)))
        return found

    return marks
