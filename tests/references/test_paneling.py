"""Paneling against worked sums of the trade (common practice) and against arithmetic in fractions."""

from __future__ import annotations

import json
from fractions import Fraction

import pytest
from click.testing import CliRunner
from hypothesis import assume, given
from hypothesis import strategies as st

from tall_plank.cli import main
from tall_plank.measure import DisplayUnit, PlankError
from tall_plank.setout.paneling.grid import (
    LEAST,
    Outlet,
    PanelSpec,
    count_near,
    free_width,
    panel_grid,
    stile_clashes,
    sum_line,
)

INCH = 25.4


def test_the_wall_of_101_25_inches() -> None:
    """Common practice: five panels, six 3 inch stiles: (101.25 - 18) / 5 = 16.65. With a step of 1/4 the panels are 16.5
    and the total is still 101.25: 0.375 more at each end."""
    spec = PanelSpec(101.25 * INCH, 5, 3 * INCH, 3 * INCH)
    grid = panel_grid(spec)
    assert [p / INCH for p in grid.panels] == pytest.approx([16.65] * 5)
    stepped = panel_grid(PanelSpec(101.25 * INCH, 5, 3 * INCH, 3 * INCH, step=0.25 * INCH))
    assert [p / INCH for p in stepped.panels] == pytest.approx([16.5] * 5)
    assert [s / INCH for s in stepped.stiles] == pytest.approx([3.375, 3, 3, 3, 3, 3.375])
    assert (sum(stepped.panels) + sum(stepped.stiles)) / INCH == pytest.approx(101.25)
    assert stepped.rounded / INCH == pytest.approx(0.75)


def test_the_dado_of_48_inches() -> None:
    """Common practice: a 2 1/2 inch dado rail whose top is 48 high, 9 inch skirting, 3 inch rails: panels run from 12 to
    42 1/2 inches, 30 1/2 high."""
    spec = PanelSpec(100 * INCH, 4, 3 * INCH, 3 * INCH, bottom=9 * INCH, top=45.5 * INCH, bottom_rail=3 * INCH,
                     top_rail=3 * INCH)  # fmt: skip
    grid = panel_grid(spec)
    assert grid.bottom_edges[0] / INCH == pytest.approx(12.0)
    assert (grid.bottom_edges[0] + grid.height) / INCH == pytest.approx(42.5)


def test_the_sum_as_a_carpenter_writes_it() -> None:
    assert sum_line(panel_grid(PanelSpec(2400.0, 5, 76.0, 76.0)), DisplayUnit.MM) == (
        "2400 - 6 x 76 = 1944; 1944 / 5 = 388.8"
    )
    assert sum_line(panel_grid(PanelSpec(2400.0, 5, 76.0, 90.0, left=40.0, step=1.0)), DisplayUnit.MM) == (
        "2400 - 40 - 2 x 90 - 4 x 76 = 1876; 1876 / 5 = 375.2; 375 each, 1 left: 0.5 to each end stile"
    )
    one = sum_line(panel_grid(PanelSpec(600.0, 1, 76.0, 50.0)), DisplayUnit.MM)
    assert one == "600 - 2 x 50 = 500; 500 / 1 = 500"
    inches = sum_line(panel_grid(PanelSpec(96 * INCH, 4, 3 * INCH, 3 * INCH)), DisplayUnit.FRACTION_16)
    assert inches.startswith("96 - 5 x 3 = 81; 81 / 4 = 20 1/4")


tenths = st.integers(0, 3000).map(lambda n: Fraction(n, 10))


@given(
    width=st.integers(8000, 60000).map(lambda n: Fraction(n, 10)), count=st.integers(1, 12), stile=tenths, end=tenths,
    left=tenths, right=tenths, step=st.sampled_from([Fraction(0), Fraction(1), Fraction(5), Fraction(127, 20)]),
    rest=st.sampled_from(["ends", "evenly", "last", "panel"]),
)  # fmt: skip
def test_panels_stiles_and_rests_are_the_wall_exactly(
    width: Fraction,
    count: int,
    stile: Fraction,
    end: Fraction,
    left: Fraction,
    right: Fraction,
    step: Fraction,
    rest: str,
) -> None:
    """By fractions: each panel the free width over the count, down to the step; what is left where it was sent."""
    free = width - left - right - 2 * end - (count - 1) * stile
    assume(free / count >= max(Fraction(int(LEAST)), step))
    spec = PanelSpec(*map(float, (width,)), count, float(stile), float(end), left=float(left), right=float(right),
                     step=float(step), rest=rest)  # type: ignore[arg-type]  # fmt: skip
    grid = panel_grid(spec)
    exact = free / count
    panel = exact - exact % step if step else exact
    spare = free - count * panel
    stiles = [end, *[stile] * (count - 1), end]
    panels = [panel] * count
    takers = {"ends": (0, count), "evenly": range(count + 1), "last": (count,)}.get(rest, ())
    for i in takers:
        stiles[i] += spare / len(takers)
    if rest == "panel":
        panels[-1] += spare
    assert grid.panels == pytest.approx([float(p) for p in panels], abs=1e-6)
    assert grid.stiles == pytest.approx([float(s) for s in stiles], abs=1e-6)
    assert left + right + sum(stiles) + sum(panels) == width
    x = left
    for i, edge in enumerate(grid.left_edges):
        x += stiles[i]
        assert edge == pytest.approx(float(x), abs=1e-6)
        x += panels[i]


@given(
    zone=st.integers(400, 3000), rows=st.integers(1, 5), rails=st.tuples(*[st.integers(0, 150)] * 3),
    step=st.sampled_from([0, 1, 5, 10]), bottom=st.integers(0, 300),
)  # fmt: skip
def test_rows_and_rails_are_the_zone_exactly(
    zone: int, rows: int, rails: tuple[int, int, int], step: int, bottom: int
) -> None:
    low, mid, high = rails
    free = zone - low - high - (rows - 1) * mid
    assume(free / rows >= max(LEAST, step))
    grid = panel_grid(
        PanelSpec(3000.0, 4, 80.0, 80.0, bottom=float(bottom), top=float(bottom + zone), rows=rows,
                  bottom_rail=float(low), mid_rail=float(mid), top_rail=float(high), step=float(step))
    )  # fmt: skip
    height = Fraction(free, rows)
    height -= height % step if step else 0
    assert grid.height == pytest.approx(float(height), abs=1e-6)
    assert grid.bottom_rail == pytest.approx(float(low + free - rows * height), abs=1e-6)
    assert grid.bottom_edges[-1] + grid.height + high == pytest.approx(bottom + zone, abs=1e-6)
    assert len(grid.bottom_edges) == rows


@given(st.floats(600, 8000), st.floats(30, 1500), st.floats(0, 150))
def test_the_nearest_count_is_the_nearest_of_all(width: float, target: float, stile: float) -> None:
    spec = PanelSpec(width, 0, stile, stile, target)
    sizes = {n: free_width(spec, n) / n for n in range(1, 201)}
    sizes = {n: s for n, s in sizes.items() if s >= LEAST}
    assume(sizes)
    best, wider, narrower = count_near(spec)
    assert abs(sizes[best] - target) == pytest.approx(min(abs(s - target) for s in sizes.values()), abs=1e-6)
    assert best in (wider, narrower)
    if 1 < wider < 199:
        assert sizes[wider] >= target - 1e-6 or wider == 1
        assert narrower not in sizes or sizes[narrower] <= target + 1e-6


@given(st.integers(2, 9), st.floats(50, 2900), st.floats(20, 160), st.floats(0, 15))
def test_an_outlet_on_a_stile_is_named_with_what_clears_it(
    count: int, low: float, wide: float, clearance: float
) -> None:
    """Each count that is named clears it, the shift clears it, no smaller one does; what is not named stands clear."""
    grid = panel_grid(PanelSpec(3000.0, count, 90.0, 120.0))
    outlet = Outlet("outlet", low, low + wide)

    def under(edges: list[float], panels: tuple[float, ...]) -> bool:
        """Whether the outlet with its clearance lies wholly in one panel: then it is on no stile."""
        return not any(
            x <= low - clearance + 1e-6 and low + wide + clearance <= x + p + 1e-6
            for x, p in zip(edges, panels, strict=True)
        )

    clashes = stile_clashes(grid, [outlet], clearance)
    assert bool(clashes) == under(list(grid.left_edges), grid.panels)
    for clash in clashes:
        for other in clash.counts:
            new = panel_grid(PanelSpec(3000.0, other, 90.0, 120.0))
            assert not under(list(new.left_edges), new.panels)
        assert count not in clash.counts
        if clash.shift is not None and len(clashes) == 1 and wide + 2 * clearance <= grid.panels[0]:
            moved = [x + clash.shift for x in grid.left_edges]
            assert not under(moved, grid.panels)
            less = [x + clash.shift * 0.98 for x in grid.left_edges]
            assert under(less, grid.panels)


@pytest.mark.parametrize(
    ("spec", "words"),
    [
        (PanelSpec(400.0, 5, 76.0, 76.0), "Take 3 panels or fewer"),
        (PanelSpec(100.0, 2, 76.0, 76.0), "Make the stiles narrower"),
        (PanelSpec(2400.0, 201, 1.0, 1.0), "1 to 200"),
        (PanelSpec(2400.0, 3, 50.0, 50.0, bottom=100.0, top=200.0, rows=3, mid_rail=40.0), "no room upright"),
        (PanelSpec(2400.0, 0, 50.0, 50.0), "count or a width"),
    ],
)
def test_what_finds_no_room_says_what_would(spec: PanelSpec, words: str) -> None:
    with pytest.raises(PlankError) as told:
        panel_grid(spec)
    assert words in str(told.value)


def told(*args: str) -> dict[str, object]:
    result = CliRunner().invoke(main, ["panels", *args, "--json"])
    assert result.exit_code == 0, result.output
    return json.loads(result.output)  # type: ignore[no-any-return]


def test_the_verb_answers_in_mm_from_any_unit() -> None:
    """By hand: 2400 with casings of 70 and 50, four panels, stiles 80, ends 100, 120 to 900, rails 90 and 60:
    (2280 - 200 - 240) / 4 = 460; 900 - 120 - 150 = 630."""
    answer = told("--width", "2400", "--count", "4", "--stile", "80", "--end-stile", "10cm", "--left", "70", "--right",
                  "50", "--zone-bottom", "120", "--zone-top", "90cm", "--bottom-rail", "90", "--top-rail", "60")  # fmt: skip
    assert answer["panel_width_mm"] == 460.0
    assert answer["panel_height_mm"] == 630.0
    assert answer["left_edges_mm"] == [170.0, 710.0, 1250.0, 1790.0]
    assert answer["bottom_edges_mm"] == [210.0]
    assert answer["end_stile_mm"] == 100.0
    assert answer["bottom_rail_mm"] == 90.0


@pytest.mark.parametrize(
    ("args", "code"),
    [
        (["--width", "abc", "--count", "4", "--stile", "80"], 2),
        (["--width", "2400", "--stile", "80"], 2),
        (["--width", "2400", "--count", "4", "--target", "300", "--stile", "80"], 2),
        (["--width", "2400", "--count", "0", "--stile", "80"], 2),
        (["--width", "-5", "--count", "4", "--stile", "80"], 2),
        (["--width", "300", "--count", "4", "--stile", "80"], 1),
    ],
)
def test_what_is_wrong_is_told_by_the_verb(args: list[str], code: int) -> None:
    result = CliRunner().invoke(main, ["panels", *args])
    assert result.exit_code == code
    assert "Traceback" not in result.output
