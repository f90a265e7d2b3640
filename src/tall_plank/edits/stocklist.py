"""Edits of the job's stock row by row: a supplier's list taken in, and the shortlist."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from decimal import Decimal
from typing import Any, get_args

import msgspec

from tall_plank.edits.change import Change
from tall_plank.edits.pictures import with_picture, without_unused
from tall_plank.job import Job
from tall_plank.measure import PlankError
from tall_plank.stock import Appliance, Fitting, PriceRow
from tall_plank.stock.library import check_stock
from tall_plank.stock.models import ApplianceKind, FittingKind, HandleShape, Hole, Per

DRILLED = ("hinge", "plate", "runner", "stay", "hanger", "rail", "rack", "tray", "basket", "shoes", "leg", "bin")
"""Kinds whose holes the shop drills: a new one has to say which known one it is drilled like."""

HANDLE_HOLE = 5.0
"""mm; hole of a handle's screw, right through (common practice)."""

APPLIANCES = get_args(ApplianceKind)


@dataclass(frozen=True)
class ListRow:
    """A row of a list of stock.

    Attributes
    ----------
    number : of the row in its file, for messages
    sizes : name of a size -> mm (capacity: kg); only those that the row gives
    texts : name of a text value -> text; only those that the row gives
    price, per : what it costs; None where the row says nothing
    pack, least : how many are sold at once, and at least; None where the row says nothing
    like : code of a known thing of its kind that it is drilled like
    image : its picture: width and height in pixels, and the file's bytes
    bars : mm of the bars that it is sold in; None where the row says nothing
    """

    number: int
    code: str
    kind: str = ""
    sizes: dict[str, float] = field(default_factory=dict)
    texts: dict[str, str] = field(default_factory=dict)
    price: Decimal | None = None
    per: str = "each"
    like: str = ""
    image: tuple[int, int, bytes] | None = None
    bars: tuple[float, ...] | None = None
    pack: Decimal | None = None
    least: Decimal | None = None


def take_list(job: Job, rows: tuple[ListRow, ...]) -> Change:
    """Take the rows of a list into the job's stock: a known code takes on what its row gives, a new one is added.
    Prices go into the book in force.

    Raises
    ------
    PlankError naming the row: a code twice, an unknown kind, a new thing without what it needs
    """
    if not rows:
        raise PlankError("The list has no rows.", "stock list", "Give each thing a row under the heads.")
    seen: dict[str, int] = {}
    for row in rows:
        if row.code in seen:
            raise _wrong(row, f"The code “{row.code}” stands in row {seen[row.code]} already.", "Give each its own.")
        seen[row.code] = row.number
    fittings = {f.code: f for f in job.stock.fittings}
    appliances = {a.code: a for a in job.stock.appliances}
    taken = {*(b.code for b in job.stock.boards), *(e.code for e in job.stock.edgings)}
    for row in rows:
        picture = ""
        if row.image is not None:
            job, picture = with_picture(job, *row.image)
        if row.code in fittings:
            fittings[row.code] = _changed(fittings[row.code], row, picture)
        elif row.code in appliances:
            appliances[row.code] = _changed(appliances[row.code], row, picture)
        elif row.code in taken:
            if row.sizes or picture or row.bars is not None:
                raise _wrong(row, "Of boards and edging a list gives only prices.", "Leave sizes and picture empty.")
        elif row.kind in APPLIANCES:
            appliances[row.code] = _new_appliance(row, picture)
        else:
            fittings[row.code] = _new_fitting(row, picture, fittings)
    stock = msgspec.structs.replace(
        job.stock,
        fittings=tuple(fittings.values()),
        appliances=tuple(appliances.values()),
        prices=tuple(
            msgspec.structs.replace(b, rows=_priced(b.rows, rows)) if b.code == job.book else b
            for b in job.stock.prices
        ),
    )
    check_stock(stock)
    count = len(rows)
    words = f"Take {count} row{'s' if count != 1 else ''} of stock"
    return Change(without_unused(msgspec.structs.replace(job, stock=stock)), words)


MOST_FAULTS = 200


def rows_that_fit(job: Job, rows: tuple[ListRow, ...]) -> tuple[tuple[ListRow, ...], tuple[str, ...]]:
    """The rows of a list that the job's stock can take, and what is wrong with the others.

    Raises
    ------
    PlankError for a list that is wrong as a whole, or has more faults than are worth listing
    """
    faults: list[str] = []
    while rows:
        try:
            take_list(job, rows)
            break
        except PlankError as error:
            left = tuple(row for row in rows if f"row {row.number}" != error.where)
            if len(left) == len(rows) or len(faults) >= MOST_FAULTS:
                raise
            rows = left
            faults.append(str(error))
    return rows, tuple(faults)


def _wrong(row: ListRow, what: str, remedy: str) -> PlankError:
    return PlankError(what, f"row {row.number}", remedy)


def _given(row: ListRow, picture: str) -> dict[str, Any]:
    shape = row.texts.get("shape", "bar")
    if shape not in get_args(HandleShape):
        raise _wrong(row, f"“{shape}” is no shape of a handle.", f"Known: {', '.join(get_args(HandleShape))}.")
    finish = row.texts.get("finish", "")
    if finish and not re.fullmatch(r"#[0-9A-Fa-f]{6}", finish):
        raise _wrong(row, f"“{finish}” is no color.", "Write the finish as #RRGGBB.")
    given: dict[str, Any] = {**row.texts, **row.sizes}
    if picture:
        given["picture"] = picture
    if row.bars is not None:
        given["bars"] = row.bars
    return given


def _changed(thing: Any, row: ListRow, picture: str) -> Any:
    """A known thing with what its row gives; a handle's holes follow its centres."""
    if row.kind and row.kind != thing.kind:
        raise _wrong(row, f"{row.code} is a {thing.kind} here, not a {row.kind}.", "Give it another code.")
    given = _given(row, picture)
    known = {f.name for f in msgspec.structs.fields(type(thing))}
    extra = [key for key in given if key not in known]
    if extra:
        raise _wrong(row, f"A {thing.kind} has no {extra[0].replace('_', ' ')}.", "Leave that value empty.")
    if isinstance(thing, Fitting) and thing.kind == "handle" and "centers" in given:
        given["holes"] = _handle_holes(given["centers"])
    return msgspec.structs.replace(thing, **given)


def _handle_holes(centers: float) -> tuple[Hole, ...]:
    if not centers:
        return (Hole(0.0, 0.0, HANDLE_HOLE, 0.0),)
    return tuple(Hole(side * centers / 2, 0.0, HANDLE_HOLE, 0.0) for side in (-1.0, 1.0))


def _new_fitting(row: ListRow, picture: str, known: dict[str, Fitting]) -> Fitting:
    kinds = get_args(FittingKind)
    if row.kind not in kinds:
        what = f"“{row.kind}” is no kind of stock." if row.kind else "A new thing needs its kind."
        raise _wrong(row, what, f"Known: {', '.join(sorted((*kinds, *APPLIANCES)))}.")
    if not row.texts.get("name"):
        raise _wrong(row, "A new thing needs a name.", "Write it in the column “name”.")
    pattern = known.get(row.like)
    if row.like and (pattern is None or pattern.kind != row.kind):
        raise _wrong(row, f"There is no {row.kind} “{row.like}” to be drilled like.", "Name a known one of its kind.")
    if pattern is None and row.kind in DRILLED:
        what = f"The holes of a new {row.kind} are not known."
        raise _wrong(row, what, "Name one that it is drilled like, in the column “like”.")
    start = pattern or Fitting(row.code, row.texts["name"], row.kind)  # type: ignore[arg-type]
    if row.kind == "handle" and pattern is None:
        if row.sizes.get("length", 0.0) <= 0.0:
            raise _wrong(row, "A new handle needs its length.", "Write it in the column “length_mm”.")
        if row.sizes.get("centers", 0.0) > row.sizes["length"]:
            raise _wrong(row, "The hole centers are further apart than the handle is long.", "Check the two lengths.")
        start = msgspec.structs.replace(start, holes=_handle_holes(row.sizes.get("centers", 0.0)), projection=30.0)
    return _changed(msgspec.structs.replace(start, code=row.code, picture=""), row, picture)  # type: ignore[no-any-return]


def _new_appliance(row: ListRow, picture: str) -> Appliance:
    for key in ("width", "height", "depth"):
        if row.sizes.get(key, 0.0) <= 0.0:
            raise _wrong(row, f"A new {row.kind} needs its {key}.", f"Write it in the column “{key}_mm”.")
    if not row.texts.get("name"):
        raise _wrong(row, "A new thing needs a name.", "Write it in the column “name”.")
    start = Appliance(row.code, row.texts["name"], row.kind, 1.0, 1.0, 1.0)  # type: ignore[arg-type]
    return _changed(start, row, picture)  # type: ignore[no-any-return]


def _priced(book: tuple[PriceRow, ...], rows: tuple[ListRow, ...]) -> tuple[PriceRow, ...]:
    """The rows of a price book with the prices of a list."""
    found = {row.code: row for row in book}
    for row in rows:
        known = found.get(row.code)
        if row.price is None and (row.pack is not None or row.least is not None) and known is None:
            raise _wrong(row, f"{row.code} has a pack and no price.", "Give its price in the same row.")
        if row.price is not None:
            if row.per not in get_args(Per):
                raise _wrong(row, f"“{row.per}” is no way to price.", f"Known: {', '.join(get_args(Per))}.")
            known = msgspec.structs.replace(
                known or PriceRow(row.code, row.price, "each"),
                price=row.price,
                per=row.per,
            )
        if known is not None:
            pack = known.pack if row.pack is None else row.pack
            found[row.code] = msgspec.structs.replace(
                known, pack=pack, least_qty=known.least_qty if row.least is None else row.least
            )
    return tuple(found.values())


def set_shortlist(job: Job, codes: tuple[str, ...], on: bool) -> Change:
    """Put things of the stock on the job's shortlist, or take them off it.

    Raises
    ------
    PlankError “The stock has no ….”
    """
    stock = job.stock
    known = {
        r.code for rows in (stock.fittings, stock.boards, stock.edgings, stock.appliances, stock.profiles) for r in rows
    }
    unknown = [code for code in codes if code not in known]
    if unknown:
        raise PlankError(f"The stock has no “{unknown[0]}”.", "shortlist", "Choose something from the list.")
    kept = tuple(code for code in job.shortlist if code not in codes)
    new = (*kept, *dict.fromkeys(codes)) if on else kept
    words = "Put on the shortlist" if on else "Take off the shortlist"
    return Change(msgspec.structs.replace(job, shortlist=new), words)
