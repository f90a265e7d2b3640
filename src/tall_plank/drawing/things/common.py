"""What drawing has of a kind of placed thing."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from tall_plank.drawing.primitives import Item
from tall_plank.job import Job
from tall_plank.making import MadeJob
from tall_plank.measure.outlines import Points
from tall_plank.setout import RoomLayout, Wall


@dataclass(frozen=True)
class Scope:
    """What is drawn from: a room set out and made."""

    job: Job
    room: RoomLayout
    made: MadeJob


Front = Callable[[Scope, Wall], list[Item]]
Floor = Callable[[Scope], list[Item]]


@dataclass(frozen=True, kw_only=True)
class ThingDrawn:
    """The hooks of one kind; each draws all of its things. On a wall, mm from its left end and the floor; on the
    plan in the room's frame.

    Attributes
    ----------
    behind : what is seen beyond the wall's upper edge
    on_wall : on the wall, behind the units
    closing : before the units, where fronts are drawn
    solid : whether ``on_wall``, ``closing`` and ``over`` draw what is among the solids of the room too: where lines are
        worked out from those, they are left out
    signs : what then still is drawn over: no solid shows it
    over : over all of it
    shell : on the plan, with the walls; it stays while units are moved
    floor, fronts, above : on the plan: on the floor, before units, above the plan's cut
    taken : where no words shall stand on the plan: outlines
    """

    behind: Front | None = None
    on_wall: Front | None = None
    closing: Front | None = None
    solid: bool = False
    signs: Front | None = None
    over: Front | None = None
    shell: Callable[[RoomLayout], list[Item]] | None = None
    floor: Floor | None = None
    fronts: Floor | None = None
    above: Floor | None = None
    taken: Callable[[RoomLayout], list[Points]] | None = None
