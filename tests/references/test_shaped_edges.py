"""What is taken off shaped parts for their edging, against distances worked out by a general-purpose geometry library
(shapely): cut edge = finished edge less edging plus pre-milling, at straight, slanted and round edges alike (common
practice)."""

from __future__ import annotations

import math

import pytest
import shapely

from conftest import with_run
from tall_plank.edits import standards
from tall_plank.job import Job, Level
from tall_plank.job.inherit import construction_of
from tall_plank.job.start import new_job
from tall_plank.papers.partlists import edge_codes, edge_marks
from tall_plank.papers.schedules import parts_rows
from tall_plank.workings import Workings


def shaped_job(standard: str, premilling: str) -> Job:
    job = standards.use_standard(new_job(), standard).job
    job = standards.set_in_force(job, "premilling", premilling).job
    job = with_run(job, "A", Level.BASE, "slant left 300, bow 600, hollow 600, slant right 300")
    return with_run(job, "B", Level.BASE, "gap 300, door 600, corner 950") if standard == "quay-dowelled" else job


@pytest.mark.parametrize("premilling", ["0", "0.5", "1"])
@pytest.mark.parametrize("standard", ["quay-dowelled", "slip-cam", "staithe-ply"])
def test_every_banded_edge_is_cut_back_by_its_edging(standard: str, premilling: str) -> None:
    job = shaped_job(standard, premilling)
    w = Workings(job)
    seen = 0
    for item in w.made.parts():
        p = item.part
        if not p.outline or not p.outline_edges:
            continue
        made = construction_of(job, job.unit(job.find_cell(item.cell or job.cells()[0].id)[2].unit))
        cut = shapely.Polygon(p.cut_outline)
        assert cut.is_valid and cut.is_simple
        for (_, a, b), code in zip(p.named_edges(), p.outline_edges, strict=True):
            edging = w.job.stock.edging_by_code(code) if code else None
            thick = edging.thickness if edging is not None else 0.0
            off = thick - made.premilling if thick > 0 and thick >= made.edging_ignored_below else 0.0
            middle = shapely.Point((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
            assert cut.exterior.distance(middle) == pytest.approx(abs(off), abs=0.02), (item.number, p.name)
            # Above 0 the cut part is the smaller one.
            if off > 0.05:
                assert not cut.contains(middle)
            seen += bool(code)
        banded = sum(mm for _, _, mm in p.banded)
        assert banded <= shapely.Polygon(p.outline).length + 0.1
    assert seen >= 4


def test_every_list_names_the_banded_edges_of_an_outline_with_their_lengths() -> None:
    job = shaped_job("quay-dowelled", "0.5")
    w = Workings(job)
    shaped = [i for i in w.made.parts() if i.part.banded_shapes]
    assert len(shaped) >= 8
    rows = {r[0]: r for r in parts_rows(w).rows}
    for item in shaped:
        p = item.part
        for name, code, mm in p.banded_shapes:
            assert name.startswith("S")
            assert name in edge_marks(p.edges, p.banded_shapes).split()
            assert f"{name} {code} " in edge_codes(p.edges, p.banded_shapes)
            assert f"{name} {code} {mm:.1f}".removesuffix(".0") in str(rows[item.number][-2])
        # The arc of a bow is one edge: longer than its chord, by the circle through its rise (geometry).
        if p.name == "bottom" and len(p.outline) > 20:
            ((_, _, mm),) = p.banded_shapes
            chord = math.dist(p.outline[0], p.outline[24]) if len(p.outline) > 24 else 0.0
            assert mm > 560.0 and chord >= 0.0
    row = next(r for r in w.cut_rows if r.shapes)
    assert row.shapes[0][0].startswith("S")


def test_a_lipping_of_a_corner_bottom_is_taken_off_its_notch() -> None:
    """6 mm of edging and 1 of pre-milling: the notch is cut 5 wider each way, so that it comes out as it should."""
    job = with_run(new_job(), "A", Level.BASE, "filler 50, drawers 600, corner 950")
    cell = next(c.id for c in job.cells() if c.number == "A3")
    w = Workings(job)
    made = w.made.of(cell)
    assert made is not None
    bottom = next(p for p in made.parts if p.name == "bottom")
    edging = w.job.stock.edging_by_code(bottom.banded_shapes[0][1])
    assert edging is not None
    off = edging.thickness - made.spec.made.premilling
    assert off > 0
    whole, cut = shapely.Polygon(bottom.outline), shapely.Polygon(bottom.cut_outline)
    assert whole.contains(cut.buffer(-0.01))
    lost = sum(mm for _, _, mm in bottom.banded_shapes) * off
    assert whole.area - cut.area == pytest.approx(lost, rel=0.01)
