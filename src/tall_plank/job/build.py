"""What a kind of one's own is built from: parameters, and parts, joints, fronts, holes and hardware by rules.

Every rule is a text in ordinary arithmetic over names: the unit's width, height and depth, the values of the shop
standard, the kind's parameters, and for repeated parts their number `i` from 0 and how many there are, `n`. Nothing in
a file is ever run.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

import msgspec

from tall_plank.job.bays import FrontKind
from tall_plank.job.choices import Side
from tall_plank.measure import PlankError
from tall_plank.measure.lengths import LengthError, Rule, evaluate_rule

MOST_OF_ONE, MOST_PARTS = 100, 300
"""Parts that one entry, and a whole unit, may have."""

Lies = Literal["flat", "side", "front", "rail"]
"""How a part stands: flat like a shelf (length to the right); side like a gable (length up, width to the rear); front
like a door (length up, width to the right); rail (length to the right, width up)."""

PART_OF_MAKE = Literal["front", "carcass", "drawer"]


class Parameter(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A value that a designer may change: a length, or a plain number.

    Attributes
    ----------
    name : as it is used in rules
    value : its starting value, a rule
    kind : length or number
    least, most : the range that makes sense, mm or a plain number
    label : how it is shown; empty: its name
    """

    name: str
    value: str
    kind: Rule = "length"
    least: float = 0.0
    most: float = 5000.0
    label: str = ""


class BuildPart(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A part, or several alike. (x, y, z) is the lower left front corner of its box: x from the left, y from the front
    edge to the rear, z from the underside."""

    name: str
    length: str
    width: str
    lies: Lies = "flat"
    thickness: str = "carcass_thickness"
    of: PART_OF_MAKE = "carcass"
    x: str = "0mm"
    y: str = "0mm"
    z: str = "0mm"
    count: str = "1"
    edged: tuple[Literal["L1", "L2", "W1", "W2"], ...] = ()


class BuildJoint(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """Ends of some parts joined to faces of others, wherever they meet, as the shop standard joins. Names are those of
    parts; a repeated part stands for all of them."""

    ends: str
    to: str


class BuildFront(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A front before the parts, between two uprights that carry its hinges or runners."""

    kind: FrontKind
    x: str
    z: str
    width: str
    height: str
    left: str
    right: str
    hand: Side = "left"


class BuildHole(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A hole, or a row of them, in a face of a part, in the part's own coordinates; a depth of 0mm goes through."""

    part: str
    face: Literal["A", "B"]
    x: str
    y: str
    diameter: str
    depth: str
    use: str = "hole"
    count: str = "1"


class BuildItem(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """Something bought, how many, and why."""

    code: str
    count: str = "1"
    why: str = "asked for by its kind"


class Build(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """Everything of a kind of one's own."""

    parts: tuple[BuildPart, ...] = ()
    joints: tuple[BuildJoint, ...] = ()
    fronts: tuple[BuildFront, ...] = ()
    holes: tuple[BuildHole, ...] = ()
    items: tuple[BuildItem, ...] = ()


class Values:
    """The names that rules may use, with their values."""

    def __init__(self, lengths: Mapping[str, float], numbers: Mapping[str, float]) -> None:
        self.lengths, self.numbers = dict(lengths), dict(numbers)

    def length(self, text: str, where: str) -> float:
        """mm of a rule.

        Raises
        ------
        PlankError naming the place
        """
        return self._read(text, "length", where)

    def number(self, text: str, where: str) -> int:
        """A whole number from a rule, rounded.

        Raises
        ------
        PlankError naming the place
        """
        return round(self._read(text, "number", where))

    def _read(self, text: str, kind: Rule, where: str) -> float:
        try:
            return evaluate_rule(text, kind, self.lengths, self.numbers)
        except LengthError as error:
            raise PlankError(error.what, where, error.remedy or "Mend the rule.") from None

    def counted(self, i: int, n: int) -> Values:
        """The same names with the number of a repeated part."""
        return Values(self.lengths, {**self.numbers, "i": float(i), "n": float(n)})


def with_parameters(values: Values, parameters: tuple[Parameter, ...], own: Mapping[str, float]) -> Values:
    """Values with those of parameters, in their order, so that a later one may use an earlier. `own`: mm and
    choices.

    Raises
    ------
    PlankError naming the parameter whose value is out of its range or cannot be read
    """
    found = Values(values.lengths, values.numbers)
    for p in parameters:
        where = f"parameter {p.name}"
        value = own[p.name] if p.name in own else found._read(p.value, p.kind, where)
        if not p.least - 1e-6 <= value <= p.most + 1e-6:
            raise PlankError(f"{value:g} is not between {p.least:g} and {p.most:g}.", where, "Change it.")
        (found.lengths if p.kind == "length" else found.numbers)[p.name] = value
    return found
