"""How each thing is built: parts with their operations, and bought items."""

from tall_plank.making.job import make_job, make_one
from tall_plank.making.made import MadeJob, MadeLength, MadeRoom, MadeTrim, NumberedPart, numbers_told
from tall_plank.making.parts import (
    Bevel,
    Bore,
    Cutout,
    Edges,
    Groove,
    Item,
    Operation,
    Part,
    Problem,
    Rebate,
    ShapedEdge,
    cut_size,
)
from tall_plank.making.specs import spec_of
from tall_plank.making.unit import FrontBox, MadeUnit, UnitSpec, make_unit

__all__ = [
    "Bevel",
    "Bore",
    "Cutout",
    "Edges",
    "FrontBox",
    "Groove",
    "Item",
    "MadeJob",
    "MadeLength",
    "MadeRoom",
    "MadeTrim",
    "MadeUnit",
    "NumberedPart",
    "Operation",
    "Part",
    "Problem",
    "Rebate",
    "ShapedEdge",
    "UnitSpec",
    "cut_size",
    "make_job",
    "make_one",
    "make_unit",
    "numbers_told",
    "spec_of",
]
