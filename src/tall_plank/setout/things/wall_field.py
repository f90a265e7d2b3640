"""Wall fields: they fit everywhere; what has no room says so where it is set out."""

from __future__ import annotations

from tall_plank.setout.things.common import ThingSetOut

WALL_FIELD = ThingSetOut()
