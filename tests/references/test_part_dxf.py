"""Every part as DXF, read by a general-purpose reader (ezdxf) with its own audit: one closed outline a file, and what is
drilled and cut on each face once."""

from __future__ import annotations

import math
from pathlib import Path

import ezdxf
import pytest
from ezdxf import recover

from conftest import with_run
from tall_plank.edits import units
from tall_plank.edits.tops import set_outline
from tall_plank.files.machinefiles import write_part_dxf
from tall_plank.job import Job, Level
from tall_plank.job.cutting import LaidPart
from tall_plank.job.start import new_job
from tall_plank.making.parts import Bore, Cutout, Groove, Rebate
from tall_plank.shop.machine.work import sides_of
from tall_plank.workings import Workings


def jobs() -> dict[str, Job]:
    """Straight parts, parts worked on both faces, shaped ones."""
    base = with_run(new_job(), "A", Level.BASE, "drawers 600, sink 900, corner 950")
    shaped = with_run(new_job(), "A", Level.BASE, "slant left 300, bow 600, door 450, slant right 300")
    framed = with_run(new_job(), "A", Level.BASE, "pair 900, drawers 600")
    framed = units.set_own(framed, tuple(c.id for c in framed.cells()), "front_style", "framed").job
    return {"base": base, "shaped": shaped, "framed": framed}


def shoelace(points: list[tuple[float, float]]) -> float:
    pairs = zip(points, points[1:] + points[:1], strict=True)
    return abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in pairs)) / 2


@pytest.mark.parametrize("name", ["base", "shaped", "framed"])
def test_each_file_has_one_closed_outline_and_every_operation_of_its_face(name: str, tmp_path: Path) -> None:
    w = Workings(jobs()[name])
    both = 0
    for item in w.made.parts():
        part = item.part
        alone = LaidPart(item.number, 0.0, 0.0, part.cut_length, part.cut_width, False)
        sides = sides_of(item.number, part, alone)
        both += len(sides) == 2
        circles = lines = boxes = 0
        for side in sides:
            path = tmp_path / f"{item.number}-{side.up}.dxf"
            write_part_dxf([side], path)
            document, auditor = recover.readfile(path)
            assert not auditor.has_errors and not auditor.has_fixes, (path.name, auditor.errors, auditor.fixes)
            assert document.units == ezdxf.units.MM
            space = document.modelspace()
            (outline,) = space.query("LWPOLYLINE[layer=='OUTLINE']")
            assert outline.closed
            points = [(x, y) for x, y, *_ in outline.get_points()]
            xs, ys = [x for x, _ in points], [y for _, y in points]
            assert min(xs) >= -0.01 and min(ys) >= -0.01
            assert max(xs) <= part.cut_length + 0.01 and max(ys) <= part.cut_width + 0.01
            if not part.outline:
                assert shoelace(points) == pytest.approx(part.cut_length * part.cut_width, rel=1e-6)
            (text,) = space.query("TEXT")
            assert text.dxf.text == f"{item.number} face {side.up}"
            faces = {e.dxf.layer.split("_")[1] for e in space if e.dxf.layer.startswith(("HOLE", "GROOVE", "POCKET"))}
            assert faces <= {side.up}
            circles += len(space.query("CIRCLE"))
            lines += len(space.query("LINE"))
            boxes += len(space.query("LWPOLYLINE")) - 1
        assert circles == sum(isinstance(o, Bore) and o.face in ("A", "B") and not o.slant for o in part.operations)
        assert lines == sum(isinstance(o, Groove) and o.face in ("A", "B") for o in part.operations)
        assert boxes == sum(isinstance(o, (Rebate, Cutout)) for o in part.operations)
        if len(sides) == 2:
            # Turned over about its length: what lies at v on the one lies at width - v on the other.
            a, b = (sorted((round(x, 3), round(y, 3)) for x, y in side.outline) for side in sides)
            turned = sorted((x, round(part.cut_width - y, 3)) for x, y in b)
            assert all(math.dist(p, q) < 0.01 for p, q in zip(a, turned, strict=True))
    assert both or name == "shaped"


def arcs_of(path: Path) -> list[tuple[float, float]]:
    """Chord and radius of every arc of a file's outline: radius = chord (1 + bulge²) / (4 |bulge|) (DXF: the bulge is the
    tangent of a quarter of the angle)."""
    document, auditor = recover.readfile(path)
    assert not auditor.has_errors
    (outline,) = document.modelspace().query("LWPOLYLINE[layer=='OUTLINE']")
    corners = [(x, y, b) for x, y, _, _, b in outline.get_points()]
    found = []
    for (x, y, bulge), (u, v, _) in zip(corners, (*corners[1:], corners[0]), strict=True):
        if bulge:
            chord = math.hypot(u - x, v - y)
            found.append((chord, chord * (1 + bulge**2) / (4 * abs(bulge))))
    return found


def files_of(job: Job, word: str, folder: Path) -> list[tuple[Path, object]]:
    w = Workings(job)
    found = []
    for item in w.made.parts():
        if word in item.part.name:
            alone = LaidPart(item.number, 0.0, 0.0, item.part.cut_length, item.part.cut_width, False)
            path = folder / f"{item.number}.dxf"
            write_part_dxf([sides_of(item.number, item.part, alone)[0]], path)
            found.append((path, item.part))
    return found


def test_an_arched_rail_is_one_arc_of_its_radius(tmp_path: Path) -> None:
    """Handbook geometry (a circle's segment): radius = (chord² / 4 + rise²) / (2 rise)."""
    job = with_run(new_job(), "A", Level.BASE, "pair 900")
    job = units.set_own(job, tuple(c.id for c in job.cells()), "front_style", "arched").job
    rise = Workings(job).made.units[0][1].spec.made.arch_rise
    files = [(p, part) for p, part in files_of(job, "top rail", tmp_path) if part.outline]  # type: ignore[attr-defined]
    assert len(files) == 2
    for path, _ in files:
        ((chord, radius),) = arcs_of(path)
        assert radius == pytest.approx((chord**2 / 4 + rise**2) / (2 * rise), abs=1e-3)
        assert chord > 200


def test_boards_of_a_bowed_unit_have_one_arc_within_the_chords_of_a_tenth(tmp_path: Path) -> None:
    """Their front edges are one arc each; straight sides, where they are needed, leave it by 0.1 mm at the most."""
    for shape in ("bow", "hollow"):
        job = with_run(new_job(), "A", Level.BASE, f"{shape} 600")
        files = [(p, part) for p, part in files_of(job, "bottom", tmp_path) if part.outline]  # type: ignore[attr-defined]
        assert files
        for path, part in files:
            arcs = arcs_of(path)
            assert len(arcs) == 1, (shape, arcs)
            chord, radius = arcs[0]
            sag = radius - math.sqrt(radius**2 - chord**2 / 4)
            assert 5.0 < sag < 150.0
            longest = max(
                math.dist(a, b)
                for a, b in zip(part.outline, part.outline[1:], strict=False)  # type: ignore[attr-defined]
                if math.dist(a, b) < chord / 3
            )
            assert radius - math.sqrt(radius**2 - longest**2 / 4) < 0.1


def test_a_worktop_with_a_round_corner_keeps_its_radius(tmp_path: Path) -> None:
    """By hand: a quarter of a circle of 450 has the bulge tan(90 / 4) and the chord 450 times the root of 2."""
    job = with_run(new_job(), "A", Level.BASE, "pair 900, drawers 900")
    source = next(iter(Workings(job).layout.rooms[0].worktops)).source
    bulge = math.tan(math.radians(90.0) / 4)
    text = f"0mm 0mm; 1800mm 0mm; 1800mm 170mm {bulge}; 1350mm 620mm; 0mm 620mm"
    job = set_outline(job, source, text).job
    files = files_of(job, "worktop", tmp_path)
    made = Workings(job).made.units[0][1].spec.made
    radius = 450.0 - made.edging_worktop + made.premilling  # it is cut before its edging is on
    arcs = [a for path, _ in files for a in arcs_of(path)]
    assert [r for _, r in arcs] == pytest.approx([radius], abs=0.001)
    assert [c for c, _ in arcs] == pytest.approx([radius * math.sqrt(2)], abs=0.01)
