"""What the model has of a kind of placed thing."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from tall_plank.job import Job
from tall_plank.job.choices import FrontsSeen
from tall_plank.making import MadeJob
from tall_plank.setout import RoomLayout
from tall_plank.solids.solids import Solid

WALL, FLOOR, GLASS, JOINERY, SOFFIT = "#EFEBE2", "#D9C7A3", "#CFE0E8", "#E4DED2", "#E7E2D6"


@dataclass(frozen=True)
class Stage:
    """What the model is built from: a room set out and made, and how its fronts are looked at."""

    job: Job
    room: RoomLayout
    made: MadeJob
    fronts: FrontsSeen


@dataclass(frozen=True, kw_only=True)
class ThingSolids:
    """
    Attributes
    ----------
    shell : with the walls and the floor; it stays while units are moved
    dress : what is made of it
    on_face : whether it lies flat on its wall, so that it goes with the wall where that is looked through
    """

    shell: Callable[[RoomLayout], list[Solid]] | None = None
    dress: Callable[[Stage], list[Solid]] | None = None
    on_face: bool = False
