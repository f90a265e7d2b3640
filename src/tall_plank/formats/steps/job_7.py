"""Job 7 to 8: the stock holds hinges for fronts at a slant and over face frames, and wood screws by length; boards say
whether they are finished after they are machined. A stock that has the shipped hinge gets the ones beside it, so that
its slanted units are made as they should be; one of a shop's own stays as it is."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw
from tall_plank.formats.steps.common import frozen

SHIPPED = "HG-110"


def step(job: Raw) -> None:
    added, stock = frozen("job_7"), job.get("stock", {})
    for row in stock.get("boards", []):
        if row.get("code") in added["coated"]:
            row.setdefault("coated", True)
    fittings = stock.get("fittings", [])
    for row in fittings:
        if row.get("code") in added["gauges"]:
            row.setdefault("gauge", added["gauges"][row["code"]])
    if not any(row.get("code") == SHIPPED for row in fittings):
        return
    known = {row.get("code") for row in fittings}
    stock["fittings"] = [*fittings, *(row for row in added["fittings"] if row["code"] not in known)]
    for book in stock.get("prices", []):
        rows = book.get("rows", [])
        priced = {row.get("code") for row in rows}
        if SHIPPED in priced:
            book["rows"] = [*rows, *(row for row in added["prices"] if row["code"] not in priced)]
