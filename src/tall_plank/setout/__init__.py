"""Where everything sits: walls, runs, units, trims; from the decisions alone."""

from tall_plank.setout.layout import Layout, RoomLayout, set_out
from tall_plank.setout.rooms import walls_of
from tall_plank.setout.runs import Placed, RunLayout
from tall_plank.setout.things.molding import MoldingPiece
from tall_plank.setout.trims import TrimBoard
from tall_plank.setout.wall import Wall
from tall_plank.setout.worktop import Worktop

__all__ = [
    "Layout",
    "MoldingPiece",
    "Placed",
    "RoomLayout",
    "RunLayout",
    "TrimBoard",
    "Wall",
    "Worktop",
    "set_out",
    "walls_of",
]
