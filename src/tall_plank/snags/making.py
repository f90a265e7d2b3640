"""What stops a unit or trim from being made as decided."""

from __future__ import annotations

from tall_plank.job import Snag, Where
from tall_plank.measure import told_in
from tall_plank.snags.checked import Checked


def find(checked: Checked) -> list[Snag]:
    found = []
    unit_shown = checked.job.display
    for placed, unit in checked.made.units:
        where = Where(placed.room, placed.wall_id, placed.run, placed.cell, placed.number)
        for problem in unit.problems:
            what, remedy = (told_in(text, unit_shown) for text in (problem.what, problem.remedy))
            found.append(Snag("making", what, remedy, where, problem.weight))
    for room in checked.job.rooms:
        for molding in room.moldings:
            if checked.job.stock.profile(molding.profile) is None:
                what = f"The stock has no profile {molding.profile} for the {molding.kind}."
                found.append(Snag("making", what, "Choose another profile.", Where(room.id, label=room.name)))
    for trim in checked.made.trims:
        if trim.problem is not None:
            where = Where(trim.room, "", trim.run, "", trim.label)
            what, remedy = (told_in(text, unit_shown) for text in (trim.problem.what, trim.problem.remedy))
            found.append(Snag("making", what, remedy, where))
    for field in checked.made.fields:
        where = Where(field.room, field.wall_id, "", "", field.label)
        for problem in field.problems:
            what, remedy = (told_in(text, unit_shown) for text in (problem.what, problem.remedy))
            found.append(Snag("making", what, remedy, where, problem.weight))
    return found
