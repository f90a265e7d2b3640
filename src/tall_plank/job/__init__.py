"""The decisions of one job: rooms, runs, units, bays, fronts, schemes, standards, named values; history; snags."""

from tall_plank.job.basis import Basis, NamedValue, basis_of
from tall_plank.job.bays import Bay, Front, Split
from tall_plank.job.history import History
from tall_plank.job.job import Job, LabelRule, Picture, Pricing
from tall_plank.job.room import Rectangle, Room, Side, Sides, WallOwn
from tall_plank.job.run import Anchor, Cell, Level, Run, WidthRule
from tall_plank.job.scheme import Role, Scheme
from tall_plank.job.snag import Snag, Where
from tall_plank.job.source import Kind, Source
from tall_plank.job.standard import Construction, Standard
from tall_plank.job.template import Body, Template
from tall_plank.job.things.column import Column
from tall_plank.job.things.guide import Guide
from tall_plank.job.things.island import Island
from tall_plank.job.things.molding import RoomMolding
from tall_plank.job.things.opening import Opening
from tall_plank.job.things.roof_window import RoofWindow
from tall_plank.job.things.service import Service
from tall_plank.job.things.sliding import SlidingDoors
from tall_plank.job.things.slope import Slope
from tall_plank.job.things.soffit import Corner, Soffit
from tall_plank.job.things.underlay import Underlay
from tall_plank.job.top import Top, TopCut, TopEdge, TopPoint
from tall_plank.job.unit import Own, Unit

__all__ = [
    "Anchor",
    "Basis",
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
    "Kind",
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
    "Source",
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
    "basis_of",
]
