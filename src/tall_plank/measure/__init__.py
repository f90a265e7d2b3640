"""Lengths in all units, arithmetic with them, share-out of a length, frames.

Everything here is plain arithmetic on float mm; nothing knows of furniture.
"""

from tall_plank.measure.errors import PlankError
from tall_plank.measure.frames import Frame
from tall_plank.measure.lengths import ZERO, Length, LengthError, parse_length
from tall_plank.measure.units import (
    TOLERANCE,
    DisplayUnit,
    format_chain,
    format_length,
    format_measure,
    same_length,
    told,
    told_in,
)

__all__ = [
    "TOLERANCE",
    "ZERO",
    "DisplayUnit",
    "Frame",
    "Length",
    "LengthError",
    "PlankError",
    "format_chain",
    "format_length",
    "format_measure",
    "parse_length",
    "same_length",
    "told",
    "told_in",
]
