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
