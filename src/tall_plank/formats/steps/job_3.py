"""Job 3 to 4: fittings of a bay gained places. Shop standards gained values, and the stock what these name. What the
stock has stays as it is, so that the job makes what it made."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw
from tall_plank.formats.steps.common import complete_standards, frozen, place_fittings


def step(job: Raw) -> None:
    added = frozen("job_3")
    before = [{row["key"] for row in standard.get("choices", [])} for standard in job.get("standards", [])]
    complete_standards(job, added["standard"])
    for standard, known in zip(job.get("standards", []), before, strict=True):
        for row in standard["choices"]:
            if row["key"] == "wall_fixing" and "wall_fixing" not in known:
                row["choice"] = "none"  # there was no such rule
    for thing in (*job.get("templates", []), *job.get("units", [])):
        place_fittings(thing["bay"])
    stock = job.setdefault("stock", {})
    for row in stock.get("boards", []):
        if not row.get("modulus") and row.get("code") in added["modulus"]:
            row["modulus"] = added["modulus"][row["code"]]
    for table in ("fittings", "boards", "finishes"):
        rows = stock.get(table, [])
        known_codes = {row.get("code") for row in rows}
        stock[table] = [*rows, *(row for row in added[table] if row["code"] not in known_codes)]
    there = {row["code"] for table in ("fittings", "boards") for row in stock[table]}
    for book in stock.get("prices", []):
        rows = book.get("rows", [])
        have = {row["code"] for row in rows}
        book["rows"] = [*rows, *(r for r in added["prices"] if r["code"] in there and r["code"] not in have)]
