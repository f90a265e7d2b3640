"""Section lines that no longer cut their room."""

from __future__ import annotations

from tall_plank.job import Snag, Where
from tall_plank.setout.things.section import cuts_room
from tall_plank.snags.checked import Checked


def find(checked: Checked) -> list[Snag]:
    found = []
    for layout in checked.layout.rooms:
        room = layout.room
        for at, section in enumerate(room.sections, 1):
            if not cuts_room(room, section):
                where = Where(room=room.id, label=room.name)
                what = f"Section {at}-{at} lies beside the room: its drawing shows nothing that is cut."
                found.append(Snag("section", what, "Drag it into the room, or delete it.", where, "mind"))
    return found
