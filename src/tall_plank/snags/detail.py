"""Details whose wall or face is gone."""

from __future__ import annotations

from tall_plank.drawing.things.detail import detail_name
from tall_plank.job import Snag, Where
from tall_plank.snags.checked import Checked


def find(checked: Checked) -> list[Snag]:
    found = []
    for room in checked.job.rooms:
        for detail in room.details:
            if detail.wall not in room.line_ids():
                what = f"Detail {detail_name(room, detail)} looks at {detail.wall}, which is no longer there."
                where = Where(room=room.id, label=room.name)
                found.append(Snag("detail", what, "Choose another wall for it, or delete it.", where, "mind"))
    return found
