"""The search for a cutting plan: the one door to it, for a saw and for a router."""

from __future__ import annotations

from collections.abc import Callable

from tall_plank.shop.nesting.request import NestPlan, Request
from tall_plank.shop.nesting.router import nest_free
from tall_plank.shop.nesting.search import nest_sawn


def nest(
    request: Request, told: Callable[[NestPlan], None] | None = None, stopped: Callable[[], bool] | None = None
) -> NestPlan:
    """The best plan that the effort finds. Better plans on the way are told; a stop or the seconds end it early.

    Parts that no board takes are named with the reason and left out.
    """
    return (nest_free if request.rules.mode == "router" else nest_sawn)(request, told, stopped)
