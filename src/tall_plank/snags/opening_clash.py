"""A unit that stands across a door, window or passage of its wall. Source: geometry."""

from __future__ import annotations

from tall_plank.job import Snag, Where
from tall_plank.measure import format_length
from tall_plank.snags.checked import Checked


def find(checked: Checked) -> list[Snag]:
    found = []
    unit = checked.job.display
    for room in checked.layout.rooms:
        tops = {w.run: w.bottom + w.thickness for w in room.worktops}
        for placed in room.placed:
            if not placed.is_solid:
                continue
            where = Where(placed.room, placed.wall_id, placed.run, placed.cell, placed.number)
            top = max(placed.top, tops.get(placed.run, 0.0))
            for opening in room.room.openings:
                if opening.wall != placed.wall_id:
                    continue
                x0, x1 = opening.x.mm, opening.x.mm + opening.width.mm
                z0, z1 = opening.sill.mm, opening.sill.mm + opening.height.mm
                across = min(placed.right, x1) - max(placed.x, x0)
                up = min(top, z1) - max(placed.bottom, z0)
                if across > 0.001 and up > 0.001:
                    found.append(
                        Snag(
                            "opening",
                            f"It covers {format_length(across, unit, mark=True)} of the {opening.kind}.",
                            "Move it, or put a gap there.",
                            where,
                        )
                    )
    return found
