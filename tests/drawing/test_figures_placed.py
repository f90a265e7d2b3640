"""Figures and words on paper: each stands, none over another, none too small."""

from __future__ import annotations

import math
from itertools import combinations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tall_plank.demo import demo_job
from tall_plank.drawing.placing import LEAST, letter_names, place
from tall_plank.drawing.primitives import Dim, Drawing, Layer, Line, Pen, Text
from tall_plank.drawing.shown import Shown, shown
from tall_plank.drawing.words import Box, box_of
from tall_plank.measure import DisplayUnit, format_chain, format_length
from tall_plank.papers.drawings import job_sheets
from tall_plank.workings import Workings


def meeting(boxes: list[Box]) -> list[tuple[Box, Box]]:
    """Pairs of boxes that lie over one another."""
    return [
        (a, b)
        for a, b in combinations(boxes, 2)
        if min(a[2], b[2]) - max(a[0], b[0]) > 1e-6 and min(a[3], b[3]) - max(a[1], b[1]) > 1e-6
    ]


def read_from(seen: Shown, table: dict[str, str]) -> list[str]:
    """The figures that can be read, letters by the table; joined ones as often as they stand for."""
    found = []
    for figure in seen.figures:
        if figure.text is not None:
            text = table.get(figure.text.text, figure.text.text)
            count, _, one = text.rpartition(" × ")
            found += [one] * int(count or 1)
    return sorted(found)


@given(
    st.lists(st.sampled_from([0.5, 2, 9, 18, 32, 32, 32, 150, 600, 900]), min_size=1, max_size=24),
    st.sampled_from([1.0, 5.0, 10.0, 20.0, 50.0, 100.0]),
    st.sampled_from([-2, -1, 1, 2]),
    st.sampled_from(["x", "y"]),
    st.sampled_from(list(DisplayUnit)),
)
def test_every_figure_of_a_chain_is_read_and_none_lies_over_another(
    sizes: list[float], scale: float, row: int, along: str, unit: DisplayUnit
) -> None:
    dims, at = [], 0.0
    for size, text in zip(sizes, format_chain(sizes, unit), strict=True):
        dims.append(Dim(at, at + size, 0.0, row, along, text))  # type: ignore[arg-type]
        at += size
    total = Dim(0.0, at, 0.0, row + int(math.copysign(1, row)), along, format_length(at, unit))  # type: ignore[arg-type]
    seen = shown(Drawing("x", (*dims, total), 0.0, 0.0, 1.0, 1.0), scale)
    # The whole of a chain of one is the same figure in a row of its own.
    assert read_from(seen, dict(seen.table)) == sorted(d.text for d in (*dims, total))
    assert all(t.size >= LEAST for t in seen.texts)
    assert not meeting([box_of(t, scale) for t in seen.texts])


def test_equal_narrow_steps_become_one_figure_and_unequal_ones_letters() -> None:
    rows = [Dim(32.0 * i, 32.0 * (i + 1), 0.0, -1, "x", "32") for i in range(12)]
    found = place(rows, 50.0)
    assert [f.text.text for f in found.figures if f.text is not None] == ["12 × 32"]
    odd = [Dim(4.0 * i, 4.0 * (i + 1), 0.0, -1, "x", f"{i + 1} 17/32") for i in range(24)]
    found = place(odd, 20.0)
    told = [f.text.text for f in found.figures if f.text is not None]
    assert len(told) == 24 and dict(found.table).keys() <= set(told)
    assert {dict(found.table).get(t, t) for t in told} == {d.text for d in odd}


def test_a_row_with_further_levels_pushes_the_next_one_out() -> None:
    crowded = [Dim(30.0 * i, 30.0 * (i + 1), 0.0, -1, "x", f"{i}7 15/16") for i in range(6)]
    near = next(f for f in place([*crowded, Dim(0.0, 180.0, 0.0, -2, "x", "180")], 20.0).figures if f.dim.row == -2)
    free = next(
        f
        for f in place([Dim(0, 180, 0.0, -1, "x", "9"), Dim(0.0, 180.0, 0.0, -2, "x", "180")], 20.0).figures
        if f.dim.row == -2
    )
    assert near.at < free.at - 20.0


@given(
    st.lists(
        st.tuples(st.floats(0, 400), st.floats(0, 300), st.text("A17gW", min_size=1, max_size=8)),
        min_size=1, max_size=20,
    ),
    st.booleans(),
)  # fmt: skip
def test_words_give_way_to_one_another_on_leaders(places: list[tuple[float, float, str]], within: bool) -> None:
    words = [Text(x, y, text, 2.0, Layer.LABEL, within=20.0 if within else 0.0) for x, y, text in places]
    seen = shown(Drawing("x", tuple(words), 0.0, 0.0, 400.0, 300.0), 20.0)
    assert sorted(t.text for t in seen.texts) == sorted(t.text for t in words)
    assert not meeting([box_of(t, 20.0) for t in seen.texts])
    # What moved away is led back to.
    for text in seen.texts:
        box = box_of(text, 20.0)
        apart = min(
            math.hypot(max(box[0] - x / 20, x / 20 - box[2], 0), max(box[1] - y / 20, y / 20 - box[3], 0))
            for x, y, t in places
            if t == text.text
        )
        leaders = [i for i in seen.words if isinstance(i, Line)]
        assert apart < 4.0 or leaders


def test_letters_are_never_read_as_figures_and_never_run_out() -> None:
    names = letter_names()
    found = [next(names) for _ in range(100)]
    assert len(set(found)) == 100
    assert not {"l", "o"} & set("".join(found))


@given(st.lists(st.floats(3.0, 4000), min_size=1, max_size=12), st.sampled_from(list(DisplayUnit)))
def test_what_is_printed_of_a_chain_adds_up_to_what_is_printed_of_the_whole(
    sizes: list[float], unit: DisplayUnit
) -> None:
    from tall_plank.measure import parse_length

    def read(text: str) -> float:
        return parse_length(text.lstrip("~"), unit).mm

    texts = format_chain(sizes, unit)
    assert sum(map(read, texts)) == pytest.approx(read(format_length(sum(sizes), unit)), abs=0.02 * len(sizes))
    for size, text in zip(sizes, texts, strict=True):
        assert text.startswith("~") or read(text) == pytest.approx(size, abs=0.003)


def test_three_eighths_that_each_round_up_still_make_a_whole() -> None:
    """Largest remainder: 600 mm four times over is 2400, 94 1/2 in; each is 23 5/8, rounded."""
    third = 25.4 * 96 / 7
    texts = format_chain([third] * 7, DisplayUnit.FRACTION_16)
    assert set(texts) == {"~13 11/16", "~13 3/4"} and texts.count("~13 3/4") == 3  # 7 x 219 + 3 = 1536 sixteenths


@pytest.mark.parametrize("shop", [False, True])
def test_no_sheet_of_the_demo_has_words_over_words_or_too_small(shop: bool) -> None:
    for sheet in job_sheets(Workings(demo_job()), "2026-11-28", shop=shop):
        boxes = []
        for view in sheet.views:
            for text in view.shown.texts:
                assert text.size >= LEAST
                x0, y0, x1, y1 = box_of(text, view.scale)
                boxes.append((view.x + x0, view.y + y0, view.x + x1, view.y + y1))
        assert not meeting(boxes), sheet.title


def test_a_text_that_lines_run_through_has_a_ground() -> None:
    free, crossed = (Text(x, 100.0, "720", 2.2, Layer.LABEL) for x in (100.0, 500.0))
    line = Line(500.0, 0.0, 500.0, 300.0, Pen.NARROW, Layer.CARCASS)
    seen = shown(Drawing("x", (free, crossed, line), 0.0, 0.0, 600.0, 300.0), 10.0)
    assert [t.backed for t in sorted(seen.texts, key=lambda t: t.x)] == [False, True]
