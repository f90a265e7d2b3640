"""The drawing of one part, checked by its primitives."""

from __future__ import annotations

import pytest

from conftest import cell_of
from tall_plank.drawing.part import part_drawing
from tall_plank.drawing.partwords import operation_words
from tall_plank.drawing.primitives import Arc, Dim, Drawing, Line, Text
from tall_plank.edits import standards
from tall_plank.job import Job
from tall_plank.making.parts import Bore, Part
from tall_plank.workings import Workings


@pytest.fixture
def gable(job: Job) -> Part:
    made = Workings(job).made.of(cell_of(job, "A2"))
    assert made is not None
    return next(p for p in made.parts if p.name == "left gable")


def of(drawing: Drawing, kind: type) -> list:  # type: ignore[type-arg]
    return [item for item in drawing.items if isinstance(item, kind)]


def test_every_hole_is_drawn_where_it_is(job: Job, gable: Part) -> None:
    drawing = part_drawing("A2.1", gable, job.display)
    circles = {(round(a.x, 2), round(a.y, 2), round(a.radius * 2, 2)) for a in of(drawing, Arc)}
    bores = [op for op in gable.operations if isinstance(op, Bore) and op.face == "A"]
    assert len(bores) > 10
    for bore in bores:
        assert (round(bore.x, 2), round(bore.y, 2), round(bore.diameter, 2)) in circles


def test_the_chain_adds_up_to_the_whole(job: Job, gable: Part) -> None:
    chain = [d for d in of(part_drawing("A2.1", gable, job.display), Dim) if d.along == "x" and d.row == -1]
    assert sum(abs(d.b - d.a) for d in chain) == pytest.approx(gable.length)
    made = (unit for _, unit in Workings(job).made.units)
    rows = next(p for u in made for p in u.parts if sum(getattr(o, "use", "") == "shelf pin" for o in p.operations) > 9)
    assert any("× 32" in d.text for d in of(part_drawing("1", rows, job.display), Dim))


def test_a_banded_edge_shows_by_a_line_and_two_ticks(job: Job, gable: Part) -> None:
    lines = of(part_drawing("A2.1", gable, job.display), Line)
    assert any(abs(line.x2 - line.x1) == pytest.approx(gable.length) and line.y1 < 0 for line in lines)


def test_holes_in_ends_unfold_beside_the_face(job: Job) -> None:
    made = Workings(job).made.of(cell_of(job, "A2"))
    assert made is not None
    bottom = next(p for p in made.parts if p.name == "bottom")
    drawing = part_drawing("A2.3", bottom, job.display)
    beyond = [a for a in of(drawing, Arc) if a.x < 0 or a.x > bottom.length]
    ends = [op for op in bottom.operations if isinstance(op, Bore) and op.face in ("W1", "W2")]
    assert len(beyond) == len(ends) > 0
    assert {"W1", "W2"} <= {t.text for t in of(drawing, Text)}


def test_the_second_face_shows_only_where_something_is_on_it(job: Job, gable: Part) -> None:
    cell = cell_of(job, "A2")

    def faces(job: Job) -> int:
        made = Workings(job).made.of(cell)
        assert made is not None
        rail = next(p for p in made.parts if p.name == "front rail")
        return sum(t.text.startswith("face") for t in of(part_drawing("1", rail, job.display), Text))

    assert faces(job) == 1
    # Cams sit on the hidden face of a rail.
    assert faces(standards.apply_standard(job, (cell,), "slip-cam").job) == 2


def test_the_legend_counts_what_is_machined(job: Job, gable: Part) -> None:
    texts = [t.text for t in of(part_drawing("A2.1", gable, job.display), Text)]
    kinds = {operation_words(op, job.display) for op in gable.operations}
    for words in kinds:
        assert any(words in text for text in texts), words
