"""Shelves, weights and hinges against handbooks and standards."""

from __future__ import annotations

import numpy as np
import pytest

from conftest import cell_of, with_run
from tall_plank.edits import bays, standards, units
from tall_plank.job import Level
from tall_plank.job.shipped import shipped_standard
from tall_plank.job.start import new_job
from tall_plank.making.strength import GRAVITY, line_load, longest, sag, second_moment
from tall_plank.stock import shipped_stock
from tall_plank.workings import Workings


@pytest.mark.parametrize(
    ("modulus", "span", "width", "thick", "kg", "density", "expected"),
    [
        # Worked by hand with 5 w L^4 / (384 E I); moduli: EN 312 P2 (13 to 20 mm) and EN 622-5 (12 to 19 mm).
        (1600, 764, 300, 18, 25, 650, 6.757),
        (2200, 900, 300, 18, 30, 750, 9.764),
        # Northern red oak 12 500 MPa (Wood Handbook table 5-3): 3/4 x 9 1/2 x 36 in with 20 lb on the foot.
        (12500, 914.4, 241.3, 19.05, 27.2155, 0, 1.529),
    ],
)
def test_shelves_sag_as_worked_by_hand(
    modulus: float, span: float, width: float, thick: float, kg: float, density: float, expected: float
) -> None:
    load = line_load(kg / (span * width * 1e-6), density, width, thick)
    assert sag(span, load, modulus, second_moment(width, thick)) == pytest.approx(expected, abs=0.001)


def test_the_formula_agrees_with_beam_elements() -> None:
    """Euler-Bernoulli finite elements with numpy: 40 elements, even load, simple supports."""
    n, span, modulus, moment, load = 40, 800.0, 1600.0, second_moment(300.0, 18.0), 0.355
    h = span / n
    k = modulus * moment / h**3 * np.array(
        [[12, 6 * h, -12, 6 * h], [6 * h, 4 * h * h, -6 * h, 2 * h * h],
         [-12, -6 * h, 12, -6 * h], [6 * h, 2 * h * h, -6 * h, 4 * h * h]]
    )  # fmt: skip
    force = load * h / 2 * np.array([1, h / 6, 1, -h / 6])
    size = 2 * (n + 1)
    stiff, loads = np.zeros((size, size)), np.zeros(size)
    for i in range(n):
        at = slice(2 * i, 2 * i + 4)
        stiff[at, at] += k
        loads[at] += force
    free = [i for i in range(size) if i not in (0, size - 2)]
    found = np.linalg.solve(stiff[np.ix_(free, free)], loads[free])
    middle = found[free.index(n)]
    assert sag(span, load, modulus, moment) == pytest.approx(middle, rel=1e-5)


def test_doubling_thickness_and_span_changes_the_sag_as_the_handbook_says() -> None:
    one = sag(800, 0.3, 2200, second_moment(300, 18))
    assert sag(800, 0.3, 2200, second_moment(300, 36)) == pytest.approx(one / 8)
    assert sag(1600, 0.3, 2200, second_moment(300, 18)) == pytest.approx(16 * one)


def test_the_longest_span_sags_by_its_limit() -> None:
    moment = second_moment(300, 18)
    most = longest(0.3, 1600, moment)
    assert sag(most, 0.3, 1600, moment) == pytest.approx(most / 240)


def test_the_load_is_15_pounds_on_the_square_foot() -> None:
    """ANSI/KCMA A161.1, shelves and drawer bottoms."""
    from tall_plank.making.strength import SHELF_LOAD

    assert pytest.approx(15 * 0.45359237 / 0.3048**2, abs=0.05) == SHELF_LOAD
    assert GRAVITY == 9.80665


def test_moduli_of_the_stock_are_those_of_their_standards() -> None:
    """EN 312 P2: >13 to 20 mm 1600; EN 622-5 MDF: >6 to 9 mm 2700, >12 to 19 mm 2200; Handbook of Finnish Plywood,
    along the grain: 9 mm 11 395, 15 mm 10 316, 18 mm 10 048; Wood Handbook white oak 12 300; EN 572-1 glass 70 GPa."""
    stock = shipped_stock()
    found = {b.code: b.modulus for b in stock.boards}
    assert found["HW18"] == found["SO19"] == 1600
    assert found["SS19"] == found["BB18"] == 2200 and found["SS9"] == 2700
    assert (found["BP9"], found["BP15"], found["BP18"]) == (11395, 10316, 10048)
    assert found["KO40"] == 12300 and found["GL4"] == 70000


@pytest.mark.parametrize(
    ("size", "density", "expected"),
    [
        ((597, 717, 18), 750, 5.7787),
        ((597, 717, 19), 650, 5.2864),
        ((500, 700, 4), 2500, 3.5),
        ((1220, 2440, 18), 680, 36.436),
    ],
)
def test_weights_of_panels(size: tuple[float, float, float], density: float, expected: float) -> None:
    """MDF and particleboard (common practice), float glass EN 572-1, birch plywood (plywood handbook)."""
    assert size[0] * size[1] * size[2] * density * 1e-9 == pytest.approx(expected, abs=1e-4)
    board = next(b for b in shipped_stock().boards if b.density == density)
    assert board.density == density


def test_a_glazed_door_weighs_its_frame_and_its_pane() -> None:
    """A frame door 597 x 717 x 19 of MDF, 70 mm frame, 4 mm glass lapping 8 mm: worked by hand."""
    job = with_run(new_job(), "A", Level.BASE, "door 600")
    job = standards.set_in_force(job, "front_style", "glazed").job
    job = standards.set_in_force(job, "bars", "1x1").job
    made = Workings(job).made.of(cell_of(job, "A1"))
    assert made is not None
    door = made.fronts[0]
    weight = sum(p.weight for p in made.parts if door.owns(p.name))
    w, h = door.width, door.height
    frame = (2 * h + 2 * (w - 140)) * 70 * 19 * 750e-9
    pane = (w - 140 + 16) * (h - 140 + 16) * 4 * 2500e-9
    assert weight == pytest.approx(frame + pane, rel=1e-9)


@pytest.mark.parametrize(
    ("height", "weight", "count"),
    [(900, 5, 2), (901, 5, 3), (1600, 12, 3), (1700, 12, 4), (2000, 17, 4), (2100, 10, 5), (2400, 22, 5), (800, 11, 3)],
)
def test_hinges_by_height_and_weight(height: float, weight: float, count: int) -> None:
    """Hinge charts for doors 600 wide (common practice): the larger demand of height and weight."""
    from tall_plank.job.standard import construction_from
    from tall_plank.making.hinges import hinge_count

    assert hinge_count(height, weight, construction_from(shipped_standard())) == count


def test_a_drawer_box_is_the_opening_less_both_runners() -> None:
    """Side-mounted ball runners: 12.7 mm (1/2 in) each side, so box = opening - 25.4 (common practice)."""
    job = with_run(new_job(), "A", Level.BASE, "drawers 600")
    made = Workings(job).made.of(cell_of(job, "A1"))
    assert made is not None and made.set is not None
    front = next(p for p in made.parts if p.name == "drawer 1 front")
    clear = made.set.boxes[0].clear.width
    assert front.length + 2 * made.spec.made.drawer_thickness == pytest.approx(clear - 25.4)


def test_a_long_particleboard_shelf_is_told_with_the_span_it_carries() -> None:
    job = with_run(new_job(), "A", Level.BASE, "bookcase 1000")
    cell = cell_of(job, "A1")
    job = units.set_own(job, (cell,), "finish_carcass", "harbor-white").job
    told = [s for s in Workings(job).snags if s.rule == "strength"]
    assert len(told) == 1 and "sags" in told[0].what
    # EN 312 P2, 18 mm at 73.2 kg/m2 and its own weight: the span at L/240.
    load = (73.2 + 650 * 0.018) * GRAVITY / 1000 / 1000
    most = (384 * 1600 * 18**3 / 12 / (5 * load * 240)) ** (1 / 3)
    assert f"{int(most)}" in told[0].remedy
    job = bays.join_bay(job, cell, ()).job if job.unit(job.find_cell(cell)[2].unit).bay.children else job
    job = bays.set_shelves(job, cell, (), "0").job
    job = bays.split_bay(job, cell, (), "2", "columns", "divider").job
    for path in ((0,), (1,)):
        job = bays.set_shelves(job, cell, path, "4").job
    assert not [s for s in Workings(job).snags if s.rule == "strength"]
