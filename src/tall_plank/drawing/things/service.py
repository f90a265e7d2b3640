"""Service points: a mark with a letter."""

from __future__ import annotations

import math

from tall_plank.drawing.primitives import Item, Layer, Pen, Shape, Text, rectangle
from tall_plank.drawing.things.common import Scope, ThingDrawn
from tall_plank.job import Job, Kind, Service
from tall_plank.measure import format_length
from tall_plank.setout import RoomLayout, Wall

SERVICE_LETTERS = {"water": "Wa", "waste": "Dr", "power": "El", "gas": "Ga", "vent": "Ve"}
"""Letters in the mark of a service point (waste: drain); a wall has one letter."""


def _over(scope: Scope, wall: Wall) -> list[Item]:
    """Over what stands before them."""
    items: list[Item] = []
    for service in scope.room.room.services:
        if service.wall == wall.id:
            source = Kind.SERVICE.of(service.id)
            points = rectangle(service.x.mm - 40.0, service.height.mm - 40.0, 80.0, 80.0)
            items.append(Shape(points, Pen.NARROW, Layer.APPLIANCE, source, "floor"))
            letter = SERVICE_LETTERS[service.kind]
            items.append(
                Text(service.x.mm, service.height.mm, letter, 1.8, Layer.LABEL, source, rise=-0.9, within=80.0)
            )
    return items


def service_heights(job: Job, room: RoomLayout, wall: Wall) -> list[Item]:
    """Under each mark on a wall, how high it stands."""
    return [
        Text(
            s.x.mm, s.height.mm, format_length(s.height.mm, job.display), 1.8, Layer.LABEL, Kind.SERVICE.of(s.id),
            quiet=True, rise=-4.6,
        )
        for s in room.room.services
        if s.wall == wall.id
    ]  # fmt: skip


def _above(scope: Scope) -> list[Item]:
    return [item for service in scope.room.room.services for item in _ring(scope.room, service)]


def _ring(room: RoomLayout, service: Service) -> list[Item]:
    """A service point: a ring with its letter."""
    if service.wall:
        x, y = room.wall(service.wall).frame.floor(service.x.mm, -60.0)
    else:
        x, y = service.x.mm, service.y.mm
    source = Kind.SERVICE.of(service.id)
    ring = tuple((x + 55 * math.cos(a * math.pi / 6), y + 55 * math.sin(a * math.pi / 6)) for a in range(12))
    letter = SERVICE_LETTERS[service.kind]
    return [
        Shape(ring, Pen.NARROW, Layer.APPLIANCE, source, "floor"),
        Text(x, y, letter, 1.8, Layer.LABEL, source, rise=-0.9, within=110.0),
    ]


SERVICE = ThingDrawn(over=_over, above=_above)
