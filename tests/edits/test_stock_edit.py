from __future__ import annotations

import msgspec
import pytest

from conftest import cell_of
from tall_plank.edits import units
from tall_plank.edits.stock import offered, replace_stock, take_offered
from tall_plank.job import Job
from tall_plank.job.start import shipped_templates
from tall_plank.measure import PlankError
from tall_plank.stock import Stock, shipped_stock
from tall_plank.workings import Workings


def test_a_new_price_book_changes_the_price_and_nothing_else(job: Job) -> None:
    stock = shipped_stock()
    book = msgspec.structs.replace(stock.prices[0], delivery=stock.prices[0].delivery + 100)
    change = replace_stock(job, msgspec.structs.replace(stock, prices=(book,)))
    assert change.skipped == ()
    assert Workings(change.job).costs.total == Workings(job).costs.total + 100
    assert Workings(change.job).cut_rows == Workings(job).cut_rows


def test_another_book_takes_over_where_the_old_one_is_gone(job: Job) -> None:
    stock = shipped_stock()
    book = msgspec.structs.replace(stock.prices[0], code="next-year")
    assert replace_stock(job, msgspec.structs.replace(stock, prices=(book,))).job.book == "next-year"


def test_what_the_job_uses_and_the_stock_lacks_is_named(job: Job) -> None:
    job = units.set_own(job, (cell_of(job, "A2"),), "finish_front", "storm-oak").job
    stock = shipped_stock()
    kept = tuple(f for f in stock.finishes if f.code not in ("storm-oak", "sea-sage"))
    boards = tuple(b for b in stock.boards if b.finish not in ("storm-oak", "sea-sage"))
    change = replace_stock(job, msgspec.structs.replace(stock, finishes=kept, boards=boards))
    assert [word for word in ("sea-sage", "storm-oak") if any(word in s for s in change.skipped)] == [
        "sea-sage",
        "storm-oak",
    ]
    assert Workings(change.job).snags


@pytest.mark.parametrize("missing", ["prices", "finishes", "boards"])
def test_a_folder_without_the_needful_is_refused(job: Job, missing: str) -> None:
    with pytest.raises(PlankError):
        replace_stock(job, msgspec.structs.replace(shipped_stock(), **{missing: ()}))
    with pytest.raises(PlankError):
        replace_stock(job, Stock())


def test_a_job_of_an_older_library_is_offered_what_is_new_and_keeps_what_it_has(job: Job) -> None:
    stock = shipped_stock()
    dear = msgspec.structs.replace(job.stock.appliances[1], name="Its own name")
    gone = job.stock.appliances[0].code
    old = msgspec.structs.replace(
        job,
        templates=job.templates[:-3],
        stock=msgspec.structs.replace(job.stock, appliances=(dear, *job.stock.appliances[2:])),
    )
    lacking = offered(old, shipped_templates(), stock)
    assert (len(lacking.kinds), lacking.stock) == (3, (gone,))
    taken = take_offered(old, shipped_templates(), stock).job
    assert {t.code for t in taken.templates} == {t.code for t in shipped_templates()}
    assert taken.stock.appliance(gone) is not None
    assert taken.stock.appliance(dear.code) == dear
    assert not offered(taken, shipped_templates(), stock)
    with pytest.raises(PlankError, match="has all"):
        take_offered(taken, shipped_templates(), stock)
