"""Files that others take as they are, read by general-purpose readers: DXF, SVG, PDF, PNG, glTF, barcodes, CSV."""

from __future__ import annotations

import base64
import csv
import io
import json
import re
import struct
from pathlib import Path
from xml.etree import ElementTree

import ezdxf
import msgspec
import numpy as np
import pymupdf
import pytest
import zxingcpp
from fontTools.ttLib import TTFont
from PIL import Image

from conftest import with_run
from tall_plank.drawing.primitives import Text
from tall_plank.edits import jobs, papers
from tall_plank.edits.things.opening import add_opening
from tall_plank.files.dxf import COLORS
from tall_plank.files.machinefiles import alike, part_text
from tall_plank.files.partworker import PartTexts
from tall_plank.job import Job, Level
from tall_plank.job.papers import LABEL_SHEETS, OWN
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.package import contents, part_sides, placed, write_drawing, write_model, write_package, write_table
from tall_plank.papers import schedules
from tall_plank.papers.drawings import room_drawings, sheet_of
from tall_plank.papers.labels import ROOMY, label_picture, labels_of, write_label_sheets
from tall_plank.papers.write_csv import spreadsheet_style, write_csv
from tall_plank.workings import Workings


def small() -> Job:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, corner 900, door 450")
    job = jobs.set_text(with_run(job, "A", Level.HUNG, "pair 900"), "number", "TP-07").job
    job = papers.set_papers(job, "firm", "Lamp Row Joinery").job
    return add_opening(job, "r1", "C", "door", 900.0).job


W = Workings(small())


# --- DXF


@pytest.fixture(scope="module")
def plan_file(tmp_path_factory: pytest.TempPathFactory) -> Path:
    path = tmp_path_factory.mktemp("dxf") / "plan.dxf"
    write_drawing(W, dict(room_drawings(W, "r1"))["plan"], path)
    return path


def test_dxf_passes_the_audit_with_layers_of_their_own_color(plan_file: Path) -> None:
    document = ezdxf.readfile(plan_file)
    assert not document.audit().errors
    used = {e.dxf.layer for e in document.modelspace()}
    assert "0" not in used, "everything lies on a layer that says what it is"
    by_kind = {layer.value.upper(): color for layer, color in COLORS.items()}
    for name in used:
        assert document.layers.get(name).color == by_kind[name.split("-")[0]], name
    # A door's swing is an arc, and lies with its opening.
    arcs = document.modelspace().query("ARC")
    assert arcs and {a.dxf.layer for a in arcs} == {"OPENING-MOVING"}


def test_dxf_fills_are_hatches_of_their_finish(plan_file: Path) -> None:
    hatches = ezdxf.readfile(plan_file).modelspace().query("HATCH")
    assert len(hatches) >= 10
    assert all(h.dxf.layer.endswith("-FILL") and h.rgb is not None and h.dxf.solid_fill for h in hatches)


def test_the_same_file_twice_is_the_same(plan_file: Path, tmp_path: Path) -> None:
    again = tmp_path / "again.dxf"
    write_drawing(W, dict(room_drawings(W, "r1"))["plan"], again)
    assert again.read_bytes() == plan_file.read_bytes()
    (name, side) = part_sides(W)[3]
    assert part_text(alike(side)) == part_text.__wrapped__(alike(side)), name


def test_texts_of_parts_made_beside_are_those_made_here() -> None:
    sides = [side for _, side in part_sides(W)][:12]
    with PartTexts(sides) as texts:
        for side in sides:
            assert texts.text(side) == part_text(alike(side))


# --- SVG


def test_svg_has_its_frame_its_title_block_and_its_face(tmp_path: Path) -> None:
    _, drawing = room_drawings(W, "r1")[1]
    write_drawing(W, drawing, tmp_path / "e.svg", "2026-11-28")
    text = (tmp_path / "e.svg").read_text()
    root = ElementTree.fromstring(text)
    space = "{http://www.w3.org/2000/svg}"
    words = {t.text for t in root.iter(f"{space}text")}
    assert {W.job.name, "2026-11-28", drawing.title, "TP-07-1A"} <= words
    frame = max(float(r.get("width", "0")) for r in root.iter(f"{space}rect") if r.get("stroke-width") == "0.7")
    assert frame == float(root.get("width", "").removesuffix("mm")) - 30.0
    faces = re.findall(r"font-weight:(\d+);src:url\(data:font/ttf;base64,([^)]+)\)", text)
    assert [w for w, _ in faces] == ["400", "600"]
    own = {c for d in root.iter(f"{space}text") for c in d.text or ""}
    for _, data in faces:
        font = TTFont(io.BytesIO(base64.b64decode(data)))
        known = {chr(c) for c in font.getBestCmap()}
        assert own <= known
    # Every text of the drawing is there.
    assert {i.text for i in drawing.items if isinstance(i, Text)} <= words


# --- PDF


def test_pdf_says_what_it_is_whose_and_from_when(tmp_path: Path) -> None:
    done = {p.name: p for p in write_package(W, tmp_path, lambda name: not name.startswith("lists"), "2026-11-28")}
    for name in ("contents.pdf", "estimate.pdf", "drawings.pdf", "labels.pdf", "cutting-plans.pdf", "setup.pdf"):
        with pymupdf.open(done[name]) as document:
            said = document.metadata
        assert said["author"] == "Lamp Row Joinery", name
        assert W.title in said["title"], name
        assert said["creationDate"].startswith("D:20261128"), name
    with pymupdf.open(done["contents.pdf"]) as document:
        links = {x.get("file") or x.get("uri") for page in document for x in page.get_links()}
    assert {"client/estimate.pdf", "saw/cutting-plans.pdf", "router/programs/"} <= links


def test_the_contents_name_every_file_where_it_lies() -> None:
    names = [placed(n) for n in ("estimate.pdf", "cutting-plans.pdf", "room1-plan.dxf", "room1-model.glb", "price.csv",
                                 "handwork.csv", "labels.pdf", "saw/boards/board-01.dxf", "router/parts/A1.1-A.dxf")]  # fmt: skip
    assert names == [
        "client/estimate.pdf", "saw/cutting-plans.pdf", "drawings/room1-plan.dxf", "models/room1-model.glb",
        "lists/price.csv", "router/handwork.csv", "shop/labels.pdf", "saw/boards/board-01.dxf",
        "router/parts/A1.1-A.dxf",
    ]  # fmt: skip
    table = contents(names)
    told = [str(row[0]) for row in table.rows]
    assert {n for n in names if not n.startswith(("saw/boards", "router/parts"))} <= set(told)
    assert {"saw/boards/", "router/parts/"} <= set(told)
    assert all(row[1] for row in table.rows)
    # Folder by folder.
    folders = [t.split("/")[0] for t in told]
    assert folders == sorted(folders, key=folders.index)


@pytest.mark.parametrize(
    ("lists", "drawings"), [("A4", "A3"), ("Letter", "Tabloid"), ("Letter", "Letter"), ("A4", "A4")]
)
def test_papers_come_in_both_families_of_sizes(tmp_path: Path, lists: str, drawings: str) -> None:
    job = papers.set_papers(papers.set_papers(small(), "lists", lists).job, "drawings", drawings).job
    w = Workings(job)
    write_table(w, schedules.units(w), tmp_path / "u.pdf")
    drawing = room_drawings(w, "r1")[0][1]
    write_drawing(w, drawing, tmp_path / "d.pdf")
    sheet = sheet_of(w, drawing, 1, 1)
    points = {"A4": (595.3, 841.9), "Letter": (612.0, 792.0), "A3": (841.9, 1190.6), "Tabloid": (792.0, 1224.0)}
    with pymupdf.open(tmp_path / "u.pdf") as document:
        assert sorted(document[0].rect[2:]) == pytest.approx(points[lists], abs=0.5)
    with pymupdf.open(tmp_path / "d.pdf") as document:
        assert sorted(document[0].rect[2:]) == pytest.approx(points[sheet.paper], abs=0.5)
        assert "1:" in document[0].get_text()
    assert sheet.paper in {"A3": ("A3", "A4"), "Tabloid": ("Tabloid", "Letter")}.get(drawings, (drawings,))


# --- labels


@pytest.mark.parametrize("sheet", LABEL_SHEETS, ids=lambda s: s.name)
def test_every_label_sheet_stands_on_its_paper_and_is_read(tmp_path: Path, sheet) -> None:  # type: ignore[no-untyped-def]
    assert sheet.left + (sheet.across - 1) * sheet.pitch[0] + sheet.size[0] <= sheet.paper[0] + 0.05
    assert sheet.top + (sheet.down - 1) * sheet.pitch[1] + sheet.size[1] <= sheet.paper[1] + 0.05
    found = labels_of(W)[: sheet.across * sheet.down]
    write_label_sheets(found, tmp_path / "l.pdf", sheet)
    with pymupdf.open(tmp_path / "l.pdf") as document:
        page = document[0].get_pixmap(dpi=300, colorspace=pymupdf.csGRAY)
        assert document[0].rect[2:] == pytest.approx([v / 25.4 * 72 for v in sheet.paper], abs=0.5)
    image = Image.frombytes("L", (page.width, page.height), page.samples)
    read = {b.text for b in zxingcpp.read_barcodes(image, formats=zxingcpp.BarcodeFormat.QRCode)}
    assert {f"TP-07 {x.part}" for x in found} <= read


@pytest.mark.parametrize(
    "sheet", [s for s in LABEL_SHEETS if s.size[0] >= ROOMY[0] and s.size[1] >= ROOMY[1]], ids=lambda s: s.name
)
@pytest.mark.parametrize("number", ["TP-07", "SQ-014", "2026/117-B"])
def test_bars_are_read_at_200_dots_an_inch(tmp_path: Path, sheet, number: str) -> None:  # type: ignore[no-untyped-def]
    """A page of labels as an office printer at its coarsest gives it: each Code 128 is read, of the job and the part,
    or of the part where both have no room."""
    found = labels_of(Workings(jobs.set_text(small(), "number", number).job))[: sheet.across * sheet.down]
    write_label_sheets(found, tmp_path / "l.pdf", sheet)
    with pymupdf.open(tmp_path / "l.pdf") as document:
        page = document[0].get_pixmap(dpi=200, colorspace=pymupdf.csGRAY)
    image = Image.frombytes("L", (page.width, page.height), page.samples).point(lambda v: 255 if v > 127 else 0)
    read = [b.text for b in zxingcpp.read_barcodes(image, formats=zxingcpp.BarcodeFormat.Code128)]
    wanted = [{f"{number} {x.part}", x.part} for x in found]
    assert len(read) == len(found)
    assert all(any(text in both for text in read) for both in wanted)


@pytest.mark.parametrize("dpi", [203, 300, 600])
def test_a_label_picture_says_its_dots_and_is_read(dpi: int) -> None:
    for label in labels_of(W)[:6]:
        image = Image.open(io.BytesIO(label_picture(label, dpi=dpi)))
        assert image.info["dpi"] == pytest.approx((dpi, dpi), abs=0.5)
        assert image.size == (round(80 / 25.4 * dpi), round(50 / 25.4 * dpi))
        read = {str(b.format): b.text for b in zxingcpp.read_barcodes(image.convert("L"))}
        assert len(read) == 2 and set(read.values()) <= {f"TP-07 {label.part}", label.part}


def test_own_label_sizes_are_checked_at_their_place() -> None:
    job = papers.set_papers(new_job(), "labels", LABEL_SHEETS[1].name).job
    own = papers.set_label_size(job, "rows", "7").job
    assert own.papers.labels.name == OWN and own.papers.labels.down == 7
    own = papers.set_label_size(own, "width", "60mm").job
    assert own.papers.labels.size == (60.0, 37.0)
    for key, text, what in (
        ("columns", "4", "4 labels across end at"), ("columns", "many", "no number"), ("rows", "0", "out of range"),
        ("height", "60mm", "do not stand"), ("width", "10mm", "holds no number"), ("left", "90mm", "labels across end"),
    ):  # fmt: skip
        with pytest.raises(PlankError, match=what):
            papers.set_label_size(own, key, text)
    with pytest.raises(PlankError, match="not offered"):
        papers.set_papers(job, "lists", "A5")


# --- glTF


def test_gltf_has_units_parts_normals_and_finishes(tmp_path: Path) -> None:
    """glTF 2.0: one asset version, every accessor within its view, unit normals, one material a finish."""
    write_model(W, "r1", tmp_path / "m.glb")
    data = (tmp_path / "m.glb").read_bytes()
    magic, version, length = struct.unpack("<4sII", data[:12])
    assert (magic, version, length) == (b"glTF", 2, len(data))
    size = struct.unpack("<I", data[12:16])[0]
    model = json.loads(data[20 : 20 + size])
    blob = data[20 + size + 8 :]
    nodes = model["nodes"]
    names = [n["name"] for n in nodes]
    assert len(names) == len(set(names))
    units = {p.number: p for p, _ in W.made.units}
    by_name = {n["name"]: n for n in nodes}
    for placed_, unit in W.made.units:
        (own,) = [n for n in names if n.startswith(f"{placed_.number} ") and "children" in by_name[n]]
        below = {nodes[i]["name"] for i in by_name[own]["children"]}
        assert {f"{placed_.number} {p.name}" for p in unit.shown} <= below
    assert len(units) == sum("children" in n and n["name"].split(" ")[0] in units for n in nodes)
    materials = [m["name"] for m in model["materials"]]
    assert len(materials) == len(set(materials))
    assert any(m.startswith("Birch ply") for m in materials)
    for mesh in model["meshes"]:
        for primitive in mesh["primitives"]:
            normal = _array(model, blob, primitive["attributes"]["NORMAL"])
            place = _array(model, blob, primitive["attributes"]["POSITION"])
            assert len(normal) == len(place)
            assert np.linalg.norm(normal, axis=1) == pytest.approx(1.0, abs=1e-3)
            assert "material" in primitive


def _array(model: dict[str, object], blob: bytes, index: int) -> np.ndarray:
    accessor = model["accessors"][index]  # type: ignore[index]
    view = model["bufferViews"][accessor["bufferView"]]  # type: ignore[index]
    start = view.get("byteOffset", 0) + accessor.get("byteOffset", 0)
    count = accessor["count"] * 3
    assert start + 4 * count <= view.get("byteOffset", 0) + view["byteLength"] <= len(blob)
    return np.frombuffer(blob, np.float32, count, start).reshape(-1, 3)


# --- CSV


@pytest.mark.parametrize("decimal", [".", ","])
def test_lists_for_a_spreadsheet_are_read_back_in_the_usual_ways(tmp_path: Path, decimal: str) -> None:
    style = spreadsheet_style(decimal)
    table = schedules.parts_rows(W, cut=True)
    write_csv(table, tmp_path / "p.csv", style)
    raw = (tmp_path / "p.csv").read_bytes()
    assert raw.startswith(b"\xef\xbb\xbf")
    rows = list(csv.reader(io.StringIO(raw.decode("utf-8-sig")), delimiter=";" if decimal == "," else ","))
    assert len(rows) == 1 + len(table.rows)
    from tall_plank.files.cutcsv import read_parts

    write_csv(table, tmp_path / "q.csv")
    plain, none = read_parts(tmp_path / "q.csv")
    again, faults = read_parts(tmp_path / "p.csv")
    assert faults == none == () and again == plain


def test_the_computers_own_marks_are_taken_on_request(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    job = papers.set_papers(small(), "csv", "spreadsheet").job
    w = Workings(job)
    write_table(w, schedules.boards(w), tmp_path / "b.csv")
    assert (tmp_path / "b.csv").read_bytes().startswith(b"\xef\xbb\xbf")
    plain = Workings(msgspec.structs.replace(job, papers=msgspec.structs.replace(job.papers, csv="plain")))
    write_table(plain, schedules.boards(plain), tmp_path / "c.csv")
    assert not (tmp_path / "c.csv").read_bytes().startswith(b"\xef")
