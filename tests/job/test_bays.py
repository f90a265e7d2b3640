from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tall_plank.job import Bay, Front, Split
from tall_plank.job.bays import mirrored
from tall_plank.measure import Length

LEAF = st.builds(
    lambda hand, shelves: Bay(front=Front("door", hand), shelves=shelves),
    st.sampled_from(["left", "right"]),
    st.integers(0, 3),
)
TREE = st.recursive(
    LEAF,
    lambda inner: st.builds(
        lambda split, children: Bay(split=split, between="divider", children=tuple(children)),
        st.sampled_from([Split.ROWS, Split.COLUMNS]),
        st.lists(inner, min_size=2, max_size=3),
    ),
    max_leaves=6,
)


def test_a_mirror_turns_columns_round_and_swaps_hands() -> None:
    narrow = Bay(size=Length("200mm", 200.0), front=Front("door", "left"))
    wide = Bay(shelves=2)
    seen = mirrored(Bay(split=Split.COLUMNS, between="divider", children=(narrow, wide)))
    assert seen.children[0] == wide
    assert seen.children[1].front == Front("door", "right")
    rows = Bay(split=Split.ROWS, children=(narrow, wide))
    assert mirrored(rows).children[0].size == narrow.size


@given(TREE)
def test_mirroring_twice_gives_the_same_bays(bay: Bay) -> None:
    assert mirrored(mirrored(bay)) == bay


def test_a_bay_is_replaced_at_its_path_and_the_others_are_shared() -> None:
    tree = Bay(split=Split.ROWS, children=(Bay(shelves=1), Bay(split=Split.COLUMNS, children=(Bay(), Bay()))))
    changed = tree.replaced((1, 0), Bay(shelves=3))
    assert changed.at((1, 0)).shelves == 3
    assert changed.children[0] is tree.children[0]
    with pytest.raises(IndexError):
        tree.at((5,))
