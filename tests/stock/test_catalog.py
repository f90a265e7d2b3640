from __future__ import annotations

from decimal import Decimal

from tall_plank.stock import shipped_stock
from tall_plank.stock.catalog import entries, search
from tall_plank.stock.models import SAW_TRIM

STOCK = shipped_stock()
ALL = entries(STOCK, STOCK.prices[0])


def test_everything_that_is_bought_is_in_the_catalog_once() -> None:
    rows = (STOCK.fittings, STOCK.boards, STOCK.edgings, STOCK.appliances, STOCK.profiles)
    assert sorted(e.code for e in ALL) == sorted(thing.code for things in rows for thing in things)


def test_a_handle_is_told_by_length_centers_and_projection() -> None:
    bar = next(e for e in ALL if e.code == "HD-BAR-192")
    assert bar.sizes == (("long", 212), ("centers", 192), ("out", 32))
    assert (bar.group, bar.style, bar.price) == ("Handles", "bar", Decimal("7.40"))


def test_every_word_of_a_search_has_to_be_found_somewhere() -> None:
    assert [e.code for e in search(ALL, "PULL 160 Bow")] == ["HD-BOW-160"]
    assert {e.style for e in search(ALL, "bow brasswell")} == {"bow"}
    assert search(ALL, "pull nowhere") == ()


def test_a_heading_and_a_shortlist_narrow_the_search() -> None:
    assert {e.kind for e in search(ALL, group="Boards")} == {"board"}
    found = search(ALL, "pull", only=frozenset(("HD-KNOB", "HD-CUP-96")))
    assert [e.code for e in found] == ["HD-CUP-96"]


def test_what_lies_on_cutting_plans_is_neither_a_pane_nor_a_blank() -> None:
    boards = shipped_stock().boards
    kinds = {(b.cut_to_size, b.blank): b.planned for b in boards}
    assert kinds == {(False, False): True, (True, False): False, (False, True): False}
    # Both ends are trimmed.
    assert {round(b.length - b.usable_length, 6) for b in boards} == {2 * SAW_TRIM}
    assert SAW_TRIM > 0


def test_each_thing_is_told_by_the_sizes_that_its_row_has() -> None:
    by_code = {e.code: dict(e.sizes) for e in ALL}
    for board in STOCK.boards:
        assert by_code[board.code] == {"long": board.length, "wide": board.width, "thick": board.thickness}
    for edging in STOCK.edgings:
        longest = sorted(edging.strips)[-1] if edging.strips else 0.0
        wanted = {"strip": longest, "wide": edging.width, "thick": edging.thickness}
        assert by_code[edging.code] == {k: v for k, v in wanted.items() if v}
    for profile in STOCK.profiles:
        longest = sorted((profile.length, *profile.lengths))[-1]
        wanted = {"bar": longest, "high": profile.height, "deep": profile.depth}
        assert by_code[profile.code] == {k: v for k, v in wanted.items() if v}
    for fitting in STOCK.fittings:
        if fitting.kind != "handle":
            longest = sorted(fitting.bars)[-1] if fitting.bars else 0.0
            deep = fitting.least_depth if fitting.least_depth else fitting.reach
            wanted = {"bar": longest, "long": fitting.length, "high": fitting.height, "deep": deep}
            assert by_code[fitting.code] == {k: v for k, v in wanted.items() if v}
    assert any(len(e.strips) > 1 for e in STOCK.edgings)
