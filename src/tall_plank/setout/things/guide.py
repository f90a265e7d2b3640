"""Guide lines that cells may be held by."""

from __future__ import annotations

from tall_plank.setout.things.common import ThingSetOut, on_its_wall

GUIDE = ThingSetOut(span=lambda room, wall, guide: on_its_wall(wall, guide.wall, guide.at.mm))
