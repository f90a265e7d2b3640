"""Lengths cut from bars, against published examples with known optima. Data from memory; the optima were computed anew by
column generation and by mixed-integer programs over all maximal patterns."""

from __future__ import annotations

import pytest

from shop.bars_check import check_bars
from tall_plank.shop.bars import BarPiece, BarStock, cut_bars


def pieces(*rows: tuple[float, int]) -> list[BarPiece]:
    return [BarPiece(f"{length:g}", length, qty) for length, qty in rows]


MILL = ((1380, 22), (1520, 25), (1560, 12), (1710, 14), (1820, 18), (1880, 18), (1930, 20), (2000, 10), (2050, 12),
        (2100, 14), (2140, 16), (2150, 18), (2200, 20))  # fmt: skip


@pytest.mark.parametrize(
    ("name", "rows", "stock", "bars", "cost"),
    [
        ("paper mill, a teaching example of cutting-stock articles", MILL, ((5600, 0),), 73, None),
        (
            "Chvatal, Linear Programming (1983), ch. 13",
            ((45, 97), (36, 610), (31, 395), (14, 211)),
            ((100, 0),),
            453,
            None,
        ),
        (
            "Gilmore & Gomory (1961), three lengths of stock",
            ((2, 20), (3, 10), (4, 20)),
            ((5, 6), (6, 7), (9, 10)),
            None,
            170,
        ),
        ("Winston, a textbook exercise: boards of 17 ft", ((3, 25), (5, 20), (9, 15)), ((17, 0),), 19, None),
        (
            "an instance whose rounded-up bound is not reached (after Fieldhouse, 1990)",
            ((44, 2), (33, 3), (12, 6)),
            ((132, 0),),
            3,
            None,
        ),
        (
            "Johnson et al. (1974): first fit decreasing needs 11",
            ((510, 6), (270, 6), (260, 6), (230, 12)),
            ((1000, 0),),
            9,
            None,
        ),
    ],
)
def test_published_examples_come_out_with_their_optimum_and_proven(name, rows, stock, bars, cost) -> None:  # type: ignore[no-untyped-def]
    wanted = pieces(*rows)
    kinds = [BarStock("", float(length), float(price)) for length, price in stock]
    plan = cut_bars(wanted, kinds, kerf=0.0)
    check_bars(wanted, kinds, plan, 0.0, 0.0)
    assert plan.proven, name
    if bars is not None:
        assert len(plan.bars) == bars
    if cost is not None:
        assert plan.cost == cost


def test_the_paper_mill_leaves_over_what_the_article_says() -> None:
    plan = cut_bars(pieces(*MILL), [BarStock("", 5600.0)], kerf=0.0)
    used = sum(mm for b in plan.bars for _, mm in b.pieces)
    assert used == 407_160
    assert 100 * (1 - used / (73 * 5600)) == pytest.approx(0.401174, abs=1e-6)


def test_n_pieces_need_n_minus_1_kerfs() -> None:
    """Four pieces of 747.75 and three kerfs of 3 make 3000 (the kerf rule used everywhere; counting one for each piece
    would cost a bar)."""
    plan = cut_bars([BarPiece("a", 747.75, 4)], [BarStock("", 3000.0)], kerf=3.0)
    assert len(plan.bars) == 1
    assert plan.bars[0].left == pytest.approx(0.0)
    assert len(cut_bars([BarPiece("a", 747.76, 4)], [BarStock("", 3000.0)], kerf=3.0).bars) == 2
