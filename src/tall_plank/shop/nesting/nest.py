"""The search for a cutting plan: the one door to it, for a saw and for a router."""

from __future__ import annotations

import time
from collections.abc import Callable

from tall_plank.measure import PlankError
from tall_plank.shop.nesting.alike import laid_alike
from tall_plank.shop.nesting.request import NestPlan, Request
from tall_plank.shop.nesting.router import nest_free
from tall_plank.shop.nesting.search import nest_sawn

MOST_PARTS = 12_000
"""Parts that are laid out at once; a house of two hundred units has four thousand."""


def nest(
    request: Request, told: Callable[[NestPlan], None] | None = None, stopped: Callable[[], bool] | None = None
) -> NestPlan:
    """The best plan that the effort finds. Better plans on the way are told; a stop or the seconds end it early.

    Parts that no board takes are named with the reason and left out.

    Raises
    ------
    PlankError for more parts than can be laid out at once
    """
    count = sum(p.qty for p in request.parts)
    if count > MOST_PARTS:
        raise PlankError(f"{count:,} parts are too many at once.", "parts", f"Lay out {MOST_PARTS:,} at the most.")
    if request.rules.mode == "router":
        return nest_free(request, told, stopped)
    started = time.perf_counter()
    found = nest_sawn(request, told, stopped)
    if not request.rules.pack or (stopped is not None and stopped()):
        return found

    def over() -> bool:
        # As long again as the search may take at most.
        late = request.rules.seconds > 0 and time.perf_counter() - started > 2 * request.rules.seconds
        return late or (stopped is not None and stopped())

    return laid_alike(found, request, nest_sawn, over)
