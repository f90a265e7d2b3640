"""Service points on their walls."""

from __future__ import annotations

from tall_plank.setout.things.common import ThingSetOut, on_its_wall

SERVICE = ThingSetOut(span=lambda room, wall, service: on_its_wall(wall, service.wall, service.x.mm))
