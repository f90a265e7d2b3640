"""The decisions of one job: rooms, runs, units, bays, fronts, schemes, standards, named values; history; snags."""

from tall_plank.job.bays import Bay, Front, Split
from tall_plank.job.history import History
from tall_plank.job.job import Job, LabelRule, NamedValue, Picture, Pricing
from tall_plank.job.room import (
    Column,
    Corner,
    Guide,
    Island,
    Opening,
    Rectangle,
    RoofWindow,
    Room,
    RoomMolding,
    Service,
    Side,
    Sides,
    Slope,
    Soffit,
    Underlay,
    WallOwn,
)
from tall_plank.job.run import Anchor, Cell, Level, Run, SlidingDoors, Top, TopCut, TopEdge, TopPoint, WidthRule
from tall_plank.job.scheme import Role, Scheme
from tall_plank.job.snag import Snag, Where
from tall_plank.job.standard import Construction, Standard
from tall_plank.job.template import Body, Template
from tall_plank.job.unit import Own, Unit

__all__ = [
    "Anchor",
    "Bay",
    "Body",
    "Cell",
    "Column",
    "Construction",
    "Corner",
    "Front",
    "Guide",
    "History",
    "Island",
    "Job",
    "LabelRule",
    "Level",
    "NamedValue",
    "Opening",
    "Own",
    "Picture",
    "Pricing",
    "Rectangle",
    "Role",
    "RoofWindow",
    "Room",
    "RoomMolding",
    "Run",
    "Scheme",
    "Service",
    "Side",
    "Sides",
    "SlidingDoors",
    "Slope",
    "Snag",
    "Soffit",
    "Split",
    "Standard",
    "Template",
    "Top",
    "TopCut",
    "TopEdge",
    "TopPoint",
    "Underlay",
    "Unit",
    "WallOwn",
    "Where",
    "WidthRule",
]
