"""The one store of what was worked out: bounded, cleared, counted."""

from __future__ import annotations

import pytest

from tall_plank.measure import remembered as store
from tall_plank.measure.remembered import STORE, KeptBy, forget_all, lasting, of_same, remembered


@pytest.fixture(autouse=True)
def clean() -> object:
    before = dict(STORE)
    yield
    STORE.clear()
    STORE.update(before)


def test_a_result_is_worked_out_once_until_it_is_forgotten() -> None:
    asked: list[int] = []

    @remembered(2)
    def square(x: int) -> int:
        asked.append(x)
        return x * x

    assert [square(3), square(3)] == [9, 9] and asked == [3]
    square(4)
    square(5)
    square(3)
    assert asked == [3, 4, 5, 3], "the oldest of two gave way"
    forget_all()
    square(3)
    assert asked == [3, 4, 5, 3, 3]


def test_what_ships_with_the_program_is_not_forgotten() -> None:
    asked = []

    @lasting
    def data() -> int:
        asked.append(1)
        return 7

    data()
    forget_all()
    assert data() == 7 and asked == [1]


def test_results_kept_by_hand_are_bounded_too() -> None:
    kept: KeptBy[str, int] = KeptBy("tests.kept", 2)
    for i, key in enumerate("abc"):
        assert kept.put(key, i) == i
    assert dict(kept) == {"b": 1, "c": 2}
    assert ("tests.kept", 0, 0, 2, 2) in store.figures()
    forget_all()
    assert not kept


def test_one_name_is_remembered_once() -> None:
    KeptBy("tests.twice", 1)
    with pytest.raises(ValueError, match="twice"):
        KeptBy("tests.twice", 1)


def test_every_cache_of_the_program_is_in_the_store_and_bounded() -> None:
    from pathlib import Path

    import tall_plank

    root = Path(tall_plank.__file__).parent
    for path in root.rglob("*.py"):
        if path.name != "remembered.py":
            text = path.read_text(encoding="utf-8")
            assert "lru_cache" not in text and "@cache\n" not in text, path
    for name, entry in STORE.items():
        assert entry.lasting or entry.info().maxsize, f"{name} grows without bound"


def test_what_is_kept_by_identity_is_never_given_for_another_thing() -> None:
    """An identity is used again once its object is gone: what is found under it has to be of this very object."""
    kept: KeptBy[int, tuple[object, str]] = KeptBy("tests.same", 4)
    first, second = [1], [2]
    assert of_same(kept, first, lambda: "first") == "first"
    assert of_same(kept, first, lambda: "again") == "first"
    kept.put(id(second), (first, "first"))
    assert of_same(kept, second, lambda: "second") == "second"
    assert of_same(kept, second, lambda: "again") == "second"
