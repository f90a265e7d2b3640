"""A supplier's list taken into the job: rows, pictures, prices, what is refused and where; the shortlist."""

from __future__ import annotations

from decimal import Decimal
from pathlib import Path

import pytest
from openpyxl import Workbook
from PIL import Image

from tall_plank.edits import units
from tall_plank.edits.stocklist import ListRow, set_shortlist, take_list
from tall_plank.edits.things.table import delete_thing
from tall_plank.edits.things.underlay import add_underlay
from tall_plank.files.plankfile import read_plank, write_plank
from tall_plank.files.stocklist import read_stock_list
from tall_plank.job import Job, Kind
from tall_plank.measure import PlankError
from tall_plank.workings import Workings

HEAD = "code,name,kind,price,length_mm,centers_mm,projection_mm,shape,finish,picture,like\n"


def listed(tmp_path: Path, text: str, name: str = "list.csv") -> tuple[ListRow, ...]:
    path = tmp_path / name
    path.write_text(text, encoding="utf-8")
    return read_stock_list(path)


def test_a_handle_of_a_list_is_drilled_at_its_centers_and_priced(tmp_path: Path, job: Job) -> None:
    rows = listed(tmp_path, HEAD + "TW-1,Thwart pull,handle,12.40,250,224,28,bow,#B58A55,,\n")
    job = take_list(job, rows).job
    handle = job.stock.fitting("TW-1")
    assert handle is not None
    assert [h.dx for h in handle.holes] == [-112, 112]
    assert (handle.shape, handle.finish, handle.projection) == ("bow", "#B58A55", 28)
    cells = tuple(c.id for c in job.cells())
    job = units.set_own(job, cells, "handle", "TW-1").job
    line = next(line for line in Workings(job).costs.lines if line.code == "TW-1")
    assert line.price == Decimal("12.40")
    drilled = [
        op
        for _, u in Workings(job).made.units
        for p in u.parts
        for op in p.operations
        if getattr(op, "use", "") == "handle"
    ]
    assert len(drilled) == 2 * int(line.qty)


def test_a_known_code_takes_on_only_what_its_row_gives(tmp_path: Path, job: Job) -> None:
    before = job.stock.fitting("HD-BAR-192")
    assert before is not None
    job = take_list(job, listed(tmp_path, "code;price;centers_mm\nHD-BAR-192;9,90;160\nBP18;30\n")).job
    after = job.stock.fitting("HD-BAR-192")
    assert after is not None
    assert (after.name, after.length, after.centers) == (before.name, before.length, 160)
    assert [h.dx for h in after.holes] == [-80, 80]
    prices = {r.code: r for r in job.price_book().rows}
    assert prices["HD-BAR-192"].price == Decimal("9.90")
    assert prices["BP18"].price == Decimal("30")


def test_edging_takes_on_its_price_and_nothing_else(tmp_path: Path, job: Job) -> None:
    job = take_list(job, listed(tmp_path, "code,price\nE-BP-1,0.71\n")).job
    assert next(r.price for r in job.price_book().rows if r.code == "E-BP-1") == Decimal("0.71")
    assert all(f.code != "E-BP-1" for f in job.stock.fittings)
    with pytest.raises(PlankError, match="only prices"):
        take_list(job, listed(tmp_path, "code,price,length_mm\nE-BP-1,0.71,900\n"))


def test_a_supplier_says_in_which_bars_a_rail_is_sold(tmp_path: Path, job: Job) -> None:
    job = take_list(job, listed(tmp_path, "code,bars_mm\nRL-25,2500 / 4000\n")).job
    rail = job.stock.fitting("RL-25")
    assert rail is not None and rail.bars == (2500.0, 4000.0)
    with pytest.raises(PlankError, match="only prices"):
        take_list(job, listed(tmp_path, "code,price,bars_mm\nE-BP-1,0.71,2500\n"))


def test_a_new_runner_is_drilled_like_a_known_one(tmp_path: Path, job: Job) -> None:
    job = take_list(job, listed(tmp_path, "code,name,kind,like,capacity_kg\nX,Soft runner,runner,RN-500,60\n")).job
    found, like = job.stock.fitting("X"), job.stock.fitting("RN-500")
    assert found is not None and like is not None
    assert (found.holes, found.length, found.capacity) == (like.holes, like.length, 60)


def test_a_picture_comes_with_the_list_and_goes_with_the_job(tmp_path: Path, job: Job) -> None:
    Image.new("RGB", (1600, 800), "navy").save(tmp_path / "pull.png")
    job = take_list(job, listed(tmp_path, HEAD + "TW-1,Thwart pull,handle,,250,224,,,,pull.png,\n")).job
    name = job.stock.fitting("TW-1").picture  # type: ignore[union-attr]
    (picture,) = [p for p in job.pictures if p.name == name]
    assert (picture.wide, picture.high) == (480, 240)
    # A plan image that goes takes no picture of the stock along.
    change = add_underlay(job, "r1", 10, 10, picture.data)
    gone = delete_thing(change.job, Kind.UNDERLAY.of(change.made[0])).job
    assert [p.name for p in gone.pictures] == [name]
    write_plank(gone, tmp_path / "a.plank")
    assert read_plank(tmp_path / "a.plank") == gone
    # A newer picture takes the old one's place.
    Image.new("RGB", (100, 100), "red").save(tmp_path / "pull.png")
    again = take_list(gone, listed(tmp_path, HEAD + "TW-1,,,,,,,,,pull.png,\n")).job
    assert len(again.pictures) == 1
    assert again.pictures[0].data != picture.data


def test_an_appliance_of_a_list(tmp_path: Path, job: Job) -> None:
    text = "code,name,kind,width_mm,height_mm,depth_mm,price\nOV-9,Hearth oven,oven,595,595,560,640\n"
    job = take_list(job, listed(tmp_path, text)).job
    found = job.stock.appliance("OV-9")
    assert found is not None
    assert (found.width, found.height, found.depth) == (595, 595, 560)


def test_a_workbook_reads_as_a_csv_does(tmp_path: Path, job: Job) -> None:
    book = Workbook()
    book.active.append(["Code", "Name", "Kind", "Price", "Length_mm", "Centers_mm", None])
    book.active.append(["TW-1", "Thwart pull", "handle", 12.4, 250.0, 224])
    book.active.append([None, None])
    book.active.append(["BP18", None, None, 31])
    book.save(tmp_path / "list.xlsx")
    rows = read_stock_list(tmp_path / "list.xlsx")
    assert rows == listed(
        tmp_path,
        "code,name,kind,price,length_mm,centers_mm\nTW-1,Thwart pull,handle,12.4,250,224\n,,,,,\nBP18,,,31,,\n",
    )


@pytest.mark.parametrize(
    ("text", "where", "what"),
    [
        ("name,price\nA,1\n", "row 1", "no column “code”"),
        ("code,cost\nA,1\n", "row 1", "“cost” is not known"),
        ("code,price,price\nA,1,2\n", "row 1", "twice"),
        ("code,price\nA,dear\n", "row 2, price", "no number"),
        ("code,price\nBP18,2\nBP9,-2\n", "row 3, price", "no price"),
        ("code,price\nA,NaN\n", "row 2, price", "no number"),
        ("code,length_mm\nA,long\n", "row 2, length_mm", "no number"),
        ("code,length_mm\nA,99999\n", "row 2, length_mm", "out of range"),
        ("code,bars_mm\nRL-25,long\n", "row 2, bars_mm", "no list of lengths"),
        ("code,bars_mm\nRL-25,3000 0\n", "row 2, bars_mm", "out of range"),
        ("code,name\n,Lost\n", "row 2, code", "no code"),
        ("code,picture\nA,../secret.png\n", "row 2, picture", "no file beside"),
        ("code,picture\nA,none.png\n", "row 2, picture", "cannot be read"),
        ('code,name\nA,"open\n', "list.csv", "well-formed"),
    ],
)
def test_what_is_wrong_in_a_list_is_told_at_its_row(tmp_path: Path, text: str, where: str, what: str) -> None:
    with pytest.raises(PlankError) as error:
        listed(tmp_path, text)
    assert where in error.value.where
    assert what in error.value.what
    assert error.value.remedy


@pytest.mark.parametrize(
    ("row", "what"),
    [
        ("A,New,,1,,,,,,,", "needs its kind"),
        ("A,New,anchor,1,,,,,,,", "no kind of stock"),
        ("A,,handle,1,200,,,,,,", "needs a name"),
        ("A,New,handle,1,,,,,,,", "needs its length"),
        ("A,New,handle,1,100,160,,,,,", "further apart"),
        ("A,New,handle,1,100,64,,wave,,,", "no shape"),
        ("A,New,handle,1,100,64,,,oak,,", "no color"),
        ("A,New,runner,1,500,,,,,,", "holes of a new runner"),
        ("A,New,runner,1,500,,,,,,HD-KNOB", "no runner “HD-KNOB”"),
        ("A,New,oven,1,500,,,,,,", "needs its width"),
        ("HD-KNOB,,runner,1,,,,,,,", "is a handle here"),
        ("BP18,,,1,500,,,,,,", "only prices"),
    ],
)
def test_a_row_that_does_not_do_is_refused_and_nothing_is_taken(tmp_path: Path, job: Job, row: str, what: str) -> None:
    rows = listed(tmp_path, HEAD + "HD-BAR-128,,,5,,,,,,,\n" + row + "\n")
    with pytest.raises(PlankError) as error:
        take_list(job, rows)
    assert error.value.where == "row 3"
    assert what in error.value.what
    assert error.value.remedy


def test_a_list_without_rows_or_with_a_code_twice_is_refused(tmp_path: Path, job: Job) -> None:
    with pytest.raises(PlankError, match="no rows"):
        take_list(job, listed(tmp_path, "code,price\n"))
    with pytest.raises(PlankError, match="row 2 already"):
        take_list(job, listed(tmp_path, "code,price\nBP18,1\nBP18,2\n"))
    (tmp_path / "bad.xlsx").write_bytes(b"no workbook")
    with pytest.raises(PlankError, match="no workbook"):
        read_stock_list(tmp_path / "bad.xlsx")
    (tmp_path / "latin.csv").write_bytes(b"code\n\xff\xfe\n")
    with pytest.raises(PlankError, match="UTF-8"):
        read_stock_list(tmp_path / "latin.csv")


def test_the_shortlist_keeps_its_order_and_survives_saving(job: Job, tmp_path: Path) -> None:
    job = set_shortlist(job, ("HD-KNOB", "BP18"), True).job
    job = set_shortlist(job, ("HD-CUP-96",), True).job
    assert job.shortlist == ("HD-KNOB", "BP18", "HD-CUP-96")
    write_plank(job, tmp_path / "a.plank")
    assert read_plank(tmp_path / "a.plank").shortlist == job.shortlist
    assert set_shortlist(job, ("BP18",), False).job.shortlist == ("HD-KNOB", "HD-CUP-96")
    with pytest.raises(PlankError, match="no “NIX”"):
        set_shortlist(job, ("NIX",), True)
