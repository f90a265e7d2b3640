"""Zones as they are laid on a wall: what they take of it, how they are divided, and what could not be laid."""

from __future__ import annotations

import math

import msgspec

from tall_plank.job.treatment import Cover, ZonePath
from tall_plank.measure.regions import Region
from tall_plank.setout.paneling.grid import PanelGrid, StileClash
from tall_plank.setout.paneling.modules import ModulesLaid
from tall_plank.setout.paneling.raked import RakeLine
from tall_plank.setout.paneling.slats import Slat


class Fault(msgspec.Struct, frozen=True, cache_hash=True):
    """What cannot be laid as decided: what, in which zone, and the remedy."""

    path: ZonePath
    what: str
    remedy: str


class Stretch(msgspec.Struct, frozen=True, cache_hash=True):
    """An upright rectangle that is paneled by itself: between casings, under a window.

    Attributes
    ----------
    grid : measured from its own left end, and from the floor
    own : whether its count is the wall's own
    clashes : outlets on its stiles
    rake : mm by which it rises to the right for each mm along; its heights are then those at its left end
    """

    number: int
    x0: float
    z0: float
    x1: float
    z1: float
    grid: PanelGrid | None = None
    own: bool = False
    clashes: tuple[StileClash, ...] = ()
    rake: float = 0.0

    @property
    def line(self) -> RakeLine:
        """Its lower line; level where it does not rake."""
        return RakeLine(self.x0, self.z0, self.rake)


class ZoneLaid(msgspec.Struct, frozen=True, cache_hash=True):
    """A covered zone where it lies.

    Attributes
    ----------
    regions : what it takes of the wall
    stretches : of panels
    datum : from where grooves in boards are measured along the wall, mm
    slats : of slats; `fitted`: what their gaps were multiplied by
    dropped : pieces of slats that were left out
    """

    path: ZonePath
    cover: Cover
    regions: tuple[Region, ...]
    stretches: tuple[Stretch, ...] = ()
    slats: tuple[Slat, ...] = ()
    fitted: float = 1.0
    dropped: int = 0
    modules: ModulesLaid | None = None
    datum: float = 0.0

    @property
    def area(self) -> float:
        """mm²."""
        return math.fsum(r.area for r in self.regions)
