from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from tall_plank.desk.tableview import LEAST, SHORT, column_widths


def test_short_texts_and_figures_keep_their_width_and_long_ones_give_way() -> None:
    wanted = [80, 300, 60, 40, 700]
    assert column_widths(wanted, [False, False, True, False, False], [1, 1, 1, 1, 1], 600) == [80, 210, 60, 40, 210]


def test_what_one_does_not_need_goes_to_the_others() -> None:
    assert column_widths([120, 900], [False, False], [1, 1], 500) == [120, 380]


COLUMNS = st.lists(st.tuples(st.integers(20, 900), st.booleans(), st.integers(1, 5)), min_size=1, max_size=9)


@given(COLUMNS, st.integers(300, 1600))
def test_no_column_is_cut_while_there_is_room(columns: list[tuple[int, bool, int]], room: int) -> None:
    wanted, numbers, weights = ([c[k] for c in columns] for k in range(3))
    widths = column_widths(wanted, numbers, [float(w) for w in weights], room)
    if sum(wanted) <= room:
        assert all(w >= need for w, need in zip(widths, wanted, strict=True))
        assert sum(widths) <= room
    for width, need, number in zip(widths, wanted, numbers, strict=True):
        assert width >= need if number or need <= SHORT else width >= min(need, LEAST)
