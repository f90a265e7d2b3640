"""What stops a unit or trim from being made as decided."""

from __future__ import annotations

from tall_plank.job import Room, RoomMolding, Snag, Where
from tall_plank.measure import format_length, told_in
from tall_plank.setout.rooms import ceiling_at
from tall_plank.setout.unitmoldings import chosen_units
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
            else:
                found += _along_units(checked, room, molding)
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


def _along_units(checked: Checked, room: Room, molding: RoomMolding) -> list[Snag]:
    """A molding along units that has no unit, nowhere to lie, or no room under the ceiling."""
    if not molding.along_units:
        return []
    where = Where(room.id, label=room.name)
    laid = checked.layout.room(room.id)
    if not chosen_units(molding, laid.placed):
        what = f"No unit is left that the {molding.kind} runs along."
        return [Snag("making", what, "Choose units for it, or delete it.", where)]
    pieces = [p for p in laid.unit_moldings if p.molding == molding.id]
    if not pieces:
        what = f"The {molding.kind} finds no free side of its units at its height."
        return [Snag("making", what, "Set another height, or choose other units.", where)]
    for piece in pieces:
        for at in (piece.start, piece.end):
            free = ceiling_at(room, at)
            if piece.low + piece.height > free + 0.5:
                over = format_length(piece.low + piece.height - free, checked.job.display)
                what = f"The {molding.kind} on wall {piece.wall_id} stands {over} into the ceiling."
                return [Snag("making", what, "Lower its units, or choose a lower profile.", where)]
    return []
