"""Soffits."""

from __future__ import annotations

from tall_plank.job import Kind
from tall_plank.measure import Frame
from tall_plank.measure.frames import RoomPoint
from tall_plank.setout import RoomLayout
from tall_plank.setout.rooms import soffit_points
from tall_plank.solids.solids import Prism, Solid
from tall_plank.solids.things.common import SOFFIT as COLOR
from tall_plank.solids.things.common import ThingSolids


def _shell(room: RoomLayout) -> list[Solid]:
    found: list[Solid] = []
    for soffit in room.room.soffits:
        frame = Frame(RoomPoint((0.0, 0.0, room.room.height.mm - soffit.drop.mm)))
        source = Kind.SOFFIT.of(soffit.id)
        found.append(Prism(frame, soffit_points(soffit), soffit.drop.mm, COLOR, source, "soffit"))
    return found


SOFFIT = ThingSolids(shell=_shell)
