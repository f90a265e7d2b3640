"""What the program writes, read back by other libraries: openpyxl (XLSX), ezdxf (DXF), csv, MuPDF (PDF), VTK (glTF),
and the XML parser of the standard library (SVG)."""

from __future__ import annotations

import csv
import re
import xml.etree.ElementTree as ET
from pathlib import Path

import pytest

from tall_plank.demo import demo_job
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.plan import plan
from tall_plank.drawing.primitives import Layer, Line, Pen, Shape
from tall_plank.drawing.sheets import BLOCK, PAPER, SCALES, lay_out
from tall_plank.drawing.shown import Mark, shown
from tall_plank.drawing.words import box_of
from tall_plank.package import write_drawing, write_model, write_table
from tall_plank.papers import schedules
from tall_plank.papers.drawings import job_sheets
from tall_plank.papers.offer import offer
from tall_plank.papers.write_pdf import write_sheets
from tall_plank.workings import Workings

W = Workings(demo_job())
ROOM = W.layout.rooms[0]
WALL_A = elevation(W.job, ROOM, ROOM.wall("A"), W.made)


def test_xlsx_holds_numbers_that_openpyxl_reads_as_numbers(tmp_path: Path) -> None:
    import openpyxl

    table = schedules.cut_list(W)
    write_table(W, table, tmp_path / "c.xlsx")
    sheet = openpyxl.load_workbook(tmp_path / "c.xlsx").active
    heads = [cell.value for cell in sheet[3]]
    assert "Length mm" in heads
    rows = list(sheet.iter_rows(min_row=4, max_row=3 + len(table.rows), values_only=True))
    assert len(rows) == len(table.rows)
    at = heads.index("Cut length mm")
    for read, written in zip(rows, table.rows, strict=True):
        assert isinstance(read[at], int | float)
        assert read[at] == pytest.approx(written[at], abs=1e-4)
    assert sum(r[heads.index("Qty")] for r in rows) == W.tally.parts - sum(row.qty for row in W.bought_rows)


def test_price_in_xlsx_adds_up(tmp_path: Path) -> None:
    import openpyxl

    write_table(W, schedules.price(W), tmp_path / "p.xlsx")
    rows = list(openpyxl.load_workbook(tmp_path / "p.xlsx").active.iter_rows(min_row=4, values_only=True))
    lines = sum(
        r[5] for r in rows if r[0] in ("Boards", "Edging", "Lengths", "Fittings", "Appliances", "Labor", "Delivery")
    )
    assert lines == pytest.approx(float(W.costs.total))
    named = {r[1]: r[5] for r in rows if r[1]}
    assert named["Price before tax"] == pytest.approx(float(W.price.net))


def test_csv_is_read_by_the_standard_library(tmp_path: Path) -> None:
    write_table(W, schedules.hardware(W), tmp_path / "h.csv")
    rows = list(csv.DictReader((tmp_path / "h.csv").open(encoding="utf-8")))
    assert {r["code"]: int(r["qty"]) for r in rows} == {h.code: h.qty for h in W.hardware}


def test_a_name_that_looks_like_a_formula_is_never_run(tmp_path: Path) -> None:
    import openpyxl

    from tall_plank.papers.tables import Column, Table

    table = Table("T", "", (Column("a", "A"),), (("=1+1",), ("+cmd",)))
    write_table(W, table, tmp_path / "t.csv")
    assert "\n=1+1" not in (tmp_path / "t.csv").read_text()
    write_table(W, table, tmp_path / "t.xlsx")
    cell = openpyxl.load_workbook(tmp_path / "t.xlsx").active["A4"]
    assert (cell.data_type, cell.value) == ("s", "=1+1")


@pytest.mark.parametrize("first", ["=", "+", "-", "@", "\t", "\r"])
def test_no_first_sign_of_a_name_starts_a_formula_in_a_list(tmp_path: Path, first: str) -> None:
    """The signs are those of OWASP, “CSV Injection” (from memory)."""
    from tall_plank.papers.tables import Column, Table

    write_table(W, Table("T", "", (Column("a", "A"),), ((f"{first}1+1",),)), tmp_path / "t.csv")
    with (tmp_path / "t.csv").open(encoding="utf-8", newline="") as file:
        ((_,), (cell,)) = csv.reader(file)
    assert cell == f"'{first}1+1"


def test_dxf_is_in_millimetres_at_full_size(tmp_path: Path) -> None:
    """$INSUNITS 4 means millimetres (DXF reference, as ezdxf knows it)."""
    import ezdxf

    write_drawing(W, WALL_A, tmp_path / "a.dxf")
    document = ezdxf.readfile(tmp_path / "a.dxf")
    assert document.header["$INSUNITS"] == 4
    assert document.header["$MEASUREMENT"] == 1
    assert not document.audit().has_errors
    # What is drawn of the fronts, outlines and lines, is read back where it is.
    drawn = sorted(
        tuple(round(v, 3) for v in side)
        for i in shown(WALL_A, 20.0).drawn
        if i.layer is Layer.FRONT
        for side in sides_of(i)
    )
    read = []
    for e in document.modelspace():
        if e.dxf.layer.startswith("FRONT-") and e.dxftype() == "LINE":
            read.append((e.dxf.start.x, e.dxf.start.y, e.dxf.end.x, e.dxf.end.y))
        elif e.dxf.layer.startswith("FRONT-") and e.dxftype() == "LWPOLYLINE":
            points = list(e.get_points("xy"))
            read += [(*p, *q) for p, q in zip(points, [*points[1:], points[0]], strict=True)]
    assert sorted(tuple(round(v, 3) for v in side) for side in read) == drawn
    assert len(drawn) > 100
    xs = [x for e in document.modelspace().query('LINE[layer=="WALL-MEDIUM"]') for x in (e.dxf.start.x, e.dxf.end.x)]
    assert max(xs) - min(xs) == pytest.approx(6000)
    assert "A4" in {e.dxf.text for e in document.modelspace().query("TEXT")}
    assert {"6000", "800", "825"} <= {e.dxf.text for e in document.modelspace().query("DIMENSION")}


def sides_of(item: Mark) -> list[tuple[float, ...]]:
    """The straight lines of an item of a drawing."""
    if isinstance(item, Line):
        return [(item.x1, item.y1, item.x2, item.y2)]
    if isinstance(item, Shape) and item.pen is not Pen.NONE:
        return [(*p, *q) for p, q in zip(item.points, (*item.points[1:], item.points[0]), strict=True)]
    return []


def test_svg_is_true_to_scale(tmp_path: Path) -> None:
    write_drawing(W, plan(W.job, ROOM, W.made), tmp_path / "p.svg")
    root = ET.parse(tmp_path / "p.svg").getroot()
    assert root.attrib["width"] in ("420mm", "297mm")
    title = root.find("{http://www.w3.org/2000/svg}title")
    assert title is not None
    scale = int(re.search(r"1:(\d+)", title.text or "").group(1))  # type: ignore[union-attr]
    inner = root.findall("{http://www.w3.org/2000/svg}polygon")[1]
    xs = [float(p.split(",")[0]) for p in inner.attrib["points"].split()]
    # Corners are written to a ten thousandth of a millimetre of paper.
    assert (max(xs) - min(xs)) * scale == pytest.approx(6000, abs=0.0002 * scale)


def test_pdf_holds_the_figures_as_text_on_a3(tmp_path: Path) -> None:
    import pymupdf

    write_sheets(job_sheets(W, "2026-01-01"), tmp_path / "d.pdf", "x")
    with pymupdf.open(tmp_path / "d.pdf") as document:
        assert len(document) == len(job_sheets(W))
        page = document[1]
        assert page.rect.width == pytest.approx(420 / 25.4 * 72, abs=0.5)
        words = {w[4] for w in page.get_text("words")}
        assert {"6000", "800", "600", "A4", "1:20", "SQ-014-1A"} <= words
        # true to scale: the widest line is the wall's own width on paper
        widths = [abs(d["rect"].width) for d in page.get_drawings()]
        wall = 6000 / 20 / 25.4 * 72
        assert any(w == pytest.approx(wall, abs=0.6) for w in widths)


def test_the_offer_shows_the_price_and_no_cost(tmp_path: Path) -> None:
    import pymupdf

    write_table(W, offer(W), tmp_path / "o.pdf")
    with pymupdf.open(tmp_path / "o.pdf") as document:
        text = "".join(page.get_text() for page in document)
    assert f"{W.price.net:,}" in text
    assert f"{W.price.gross:,}" in text
    assert f"{W.price.cost:,}" not in text
    assert "Margin" not in text


def test_gltf_is_read_by_a_general_purpose_reader(tmp_path: Path) -> None:
    """VTK's own glTF reader; glTF 2.0 is in metres with y up."""
    from vtkmodules.vtkIOGeometry import vtkGLTFReader

    write_model(W, "r1", tmp_path / "m.glb")
    assert (tmp_path / "m.glb").read_bytes()[:4] == b"glTF"
    reader = vtkGLTFReader()
    reader.SetFileName(str(tmp_path / "m.glb"))
    reader.Update()
    bounds = [float("inf"), float("-inf")] * 3
    points = 0
    iterator = reader.GetOutput().NewIterator()
    iterator.InitTraversal()
    while not iterator.IsDoneWithTraversal():
        block = iterator.GetCurrentDataObject()
        points += block.GetNumberOfPoints()
        for k in range(3):
            low, high = block.GetBounds()[2 * k : 2 * k + 2]
            bounds[2 * k], bounds[2 * k + 1] = min(bounds[2 * k], low), max(bounds[2 * k + 1], high)
        iterator.GoToNextItem()
    thick = 0.15
    assert bounds[0:2] == pytest.approx([-thick, 6.0 + thick], abs=1e-3)
    assert bounds[2:4] == pytest.approx([-0.02, 2.5], abs=1e-3)
    assert bounds[4:6] == pytest.approx([-4.8 - thick, thick], abs=1e-3)
    here = sum(len(unit.parts) for placed, unit in W.made.units if placed.room == "r1")
    assert here > 400 and points > 24 * here


def test_paper_sizes_follow_iso_216() -> None:
    """ISO 216: A0 841 x 1189, each next size is half, rounded down."""
    a, b = 841, 1189
    sizes = {}
    for n in range(6):
        sizes[f"A{n}"] = (float(max(a, b)), float(min(a, b)))
        a, b = b // 2, a
    # Broadsheet, Tabloid and Letter are 22 x 17, 17 x 11 and 11 x 8 1/2 inches (ANSI/ASME Y14.1, from memory).
    inches = {"Broadsheet": (22, 17), "Tabloid": (17, 11), "Letter": (11, 8.5)}
    sizes |= {name: (wide * 25.4, high * 25.4) for name, (wide, high) in inches.items()}
    for name, size in PAPER.items():
        assert size == pytest.approx(sizes[name])


def test_scales_are_those_of_iso_5455() -> None:
    """Reductions 1:2, 1:5, 1:10 and their tenfolds (from memory); 1:4, 1:25 and 1:30 are not among them."""
    allowed = {1} | {m * 10**k for m in (2, 5, 10) for k in range(3)}
    assert set(SCALES) <= allowed
    assert lay_out(WALL_A).scale in allowed


def test_a_drawing_with_its_dimensions_stays_inside_the_frame() -> None:
    """Frame after ISO 5457 (from memory): 20 mm on the left, 10 mm elsewhere."""
    sheet = lay_out(WALL_A)
    (view,) = sheet.views
    wide, high = sheet.size
    seen = view.shown
    (x0, y0), (x1, y1) = view.at(seen.x0, seen.y0), view.at(seen.x1, seen.y1)
    assert 20 < x0 < x1 < wide - 10
    assert 10 + BLOCK[1] < y0 < y1 < high - 10
    for text in seen.texts:
        box = box_of(text, view.scale)
        assert x0 <= view.x + box[0] and view.x + box[2] <= x1 + 1e-9, text.text


def test_pdf_has_a_bookmark_for_every_sheet_and_a_layer_for_every_kind_of_thing(tmp_path: Path) -> None:
    import pymupdf

    sheets = job_sheets(W, "2026-01-01")
    write_sheets(sheets, tmp_path / "l.pdf", "x")
    with pymupdf.open(tmp_path / "l.pdf") as document:
        outline = document.get_toc()
        assert [row[2] for row in outline] == list(range(1, len(sheets) + 1))
        assert [row[1] for row in outline] == [f"{s.block.number}  {s.title}" for s in sheets]
        drawn = {i.layer.value.capitalize() for s in sheets for v in s.views for i in v.shown.items}
        assert {entry["name"] for entry in document.get_ocgs().values()} == drawn

        def ink() -> int:
            """Dark points of the second page as it is shown."""
            return sum(v < 128 for v in document.load_page(1).get_pixmap(dpi=60, colorspace=pymupdf.csGRAY).samples)

        whole = ink()
        box = next(c["number"] for c in document.layer_ui_configs() if c["text"] == "Dimension")
        document.set_layer_ui_config(box, action=2)
        assert ink() < whole - 200
