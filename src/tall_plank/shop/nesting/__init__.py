"""Cutting plans: parts on boards, by a saw from edge to edge or by a router. `nest` in nest.py is the door."""

from tall_plank.shop.nesting.request import (
    NestBoard,
    NestPart,
    NestPlan,
    NestRules,
    Request,
    Unplaced,
)

__all__ = [
    "NestBoard",
    "NestPart",
    "NestPlan",
    "NestRules",
    "Request",
    "Unplaced",
]
