"""Soffits: their outlines, and those that stand on the units of a run."""

from __future__ import annotations

import msgspec

from tall_plank.job import Basis, Corner, Room, Soffit
from tall_plank.measure import Length, PlankError
from tall_plank.measure import outlines as ol
from tall_plank.setout.corners import front_depth
from tall_plank.setout.rooms import soffit_points
from tall_plank.setout.runs import Placed, RunLayout
from tall_plank.setout.things.common import ThingSetOut


def _standing(basis: Basis, room: Room, soffit: Soffit, runs: tuple[RunLayout, ...]) -> list[Soffit]:
    """The pieces of a soffit that stands on a run: one over each stretch of neighbouring units of one height. What is
    taller than the least of them breaks it, so that it is notched round tall units."""
    run = next((r for r in runs if r.run.id == soffit.over), None)
    if run is None:
        return [soffit]
    solid = [p for p in run.cells if p.is_solid and p.width > 0]
    if not solid:
        return []
    top = min(p.top for p in solid)
    drop = room.height.mm - top
    if drop <= 1.0:
        return []
    groups: list[list[Placed]] = []
    for p in run.cells:
        fits = p.is_solid and p.top <= top + 0.5
        if fits and groups and abs(groups[-1][-1].right - p.x) < 0.5:
            groups[-1].append(p)
        elif fits:
            groups.append([p])
    found = []
    for group in groups:
        out = max(front_depth(basis, basis.unit(p.unit)) for p in group) - soffit.reveal.mm
        x0, x1 = group[0].x, group[-1].right
        places = [run.wall.frame.at(x, y, 0.0) for x, y in ((x0, 0.0), (x1, 0.0), (x1, -out), (x0, -out))]
        corners = tuple(Corner(Length.of(round(x, 6)), Length.of(round(y, 6))) for x, y, _ in places)
        found.append(msgspec.structs.replace(soffit, corners=corners, drop=Length.of(round(drop, 6))))
    return found


def with_standing_soffits(basis: Basis, room: Room, runs: tuple[RunLayout, ...]) -> Room:
    """The room with those soffits that stand on the units of a run where these are."""
    if not any(s.over for s in room.soffits):
        return room
    return msgspec.structs.replace(
        room, soffits=tuple(p for s in room.soffits for p in _standing(basis, room, s, runs))
    )


def check_soffit(room: Room, soffit: Soffit) -> None:
    """Raises PlankError where a soffit has no outline, or comes down to the floor."""
    points = soffit_points(soffit)
    if ol.crossing(points) is not None or abs(ol.area(points)) < 100.0:
        raise PlankError("The soffit's outline crosses itself or has no area.", "soffit", "Move a corner.")
    if soffit.drop.mm >= room.height.mm - 200.0:
        raise PlankError("The soffit would come down to the floor.", "soffit", "Type a smaller depth.")


SOFFIT = ThingSetOut(fits=check_soffit)
