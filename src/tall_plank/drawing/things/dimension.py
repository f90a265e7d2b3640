"""Dimensions by hand. One whose anchor is gone is told where it stood: it is never dropped."""

from __future__ import annotations

from tall_plank.drawing.primitives import Dim, Item, Layer, Text
from tall_plank.drawing.things.common import Scope, ThingDrawn
from tall_plank.job import Kind
from tall_plank.job.things.dimension import Dimension
from tall_plank.measure import format_length
from tall_plank.setout import Wall
from tall_plank.setout.anchors import gone, measured


def hand_dims(scope: Scope, view: str) -> list[Item]:
    """The dimensions by hand of a view: the letter of a wall, or none for the plan."""
    broken = 0
    items: list[Item] = []
    for dimension in scope.room.room.dimensions:
        if dimension.view != view:
            continue
        item = _drawn(scope, dimension, broken)
        broken += isinstance(item, Text)
        items.append(item)
    return items


def _drawn(scope: Scope, dimension: Dimension, broken: int) -> Item:
    source = Kind.DIMENSION.of(dimension.id)
    found = measured(scope.room, dimension)
    if found is None:
        words = f"✕ broken dimension: {', '.join(gone(scope.room, dimension))} is gone"
        return Text(0.0, 0.0, words, 1.8, Layer.DIMENSION, source, "left", rise=4.0 + 4.0 * broken, backed=True)
    a, b, base = found
    true = format_length(abs(b - a), scope.job.display)
    words = f"{dimension.text} (is {true})" if dimension.text and dimension.text != true else true
    sign = 1 if dimension.offset > 0 else -1
    return Dim(min(a, b), max(a, b), base, sign, dimension.along, words, source, "text", away=abs(dimension.offset))


def _over(scope: Scope, wall: Wall) -> list[Item]:
    return hand_dims(scope, wall.id)


def _above(scope: Scope) -> list[Item]:
    return hand_dims(scope, "")


DIMENSION = ThingDrawn(over=_over, above=_above)
