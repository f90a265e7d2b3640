"""The decisions of one job: rooms, runs, units, bays, fronts, schemes, standards, named values; history; snags."""

from tall_plank.job.bays import Bay, Front, Split
from tall_plank.job.history import History
from tall_plank.job.job import Job, NamedValue, Pricing
from tall_plank.job.room import Opening, Room
from tall_plank.job.run import Cell, Level, Run, WidthRule
from tall_plank.job.scheme import Role, Scheme
from tall_plank.job.snag import Snag, Where
from tall_plank.job.standard import Construction, Standard
from tall_plank.job.template import Body, Template
from tall_plank.job.unit import Own, Unit

__all__ = [
    "Bay",
    "Body",
    "Cell",
    "Construction",
    "Front",
    "History",
    "Job",
    "Level",
    "NamedValue",
    "Opening",
    "Own",
    "Pricing",
    "Role",
    "Room",
    "Run",
    "Scheme",
    "Snag",
    "Split",
    "Standard",
    "Template",
    "Unit",
    "Where",
    "WidthRule",
]
