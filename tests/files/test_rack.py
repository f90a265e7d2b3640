"""The offcut rack: booked, used, made, taken back; two programs at once; files that are no rack."""

from __future__ import annotations

import sqlite3
import subprocess
import sys
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tall_plank.files.rack import Rack
from tall_plank.measure import PlankError


@pytest.fixture
def rack(tmp_path: Path) -> Rack:
    return Rack(tmp_path / "data" / "rack.sqlite")


def states(rack: Rack) -> list[tuple[int, str, str]]:
    return [(p.id, p.state, p.job) for p in sorted(rack.pieces(gone=True), key=lambda p: p.id)]


def test_offcuts_are_booked_for_one_job_and_not_for_another(rack: Rack) -> None:
    one, two = rack.add("B18", 900, 400, 2)
    rack.book("Quay", [one])
    assert [p.id for p in rack.free_for("Loft")] == [two]
    assert {p.id for p in rack.free_for("Quay")} == {one, two}
    with pytest.raises(PlankError, match=f"Offcut {one} is booked by Quay"):
        rack.book("Loft", [two, one])
    assert states(rack) == [(one, "booked", "Quay"), (two, "free", "")]  # nothing half-done
    rack.book("Quay", [two])
    assert states(rack) == [(one, "free", ""), (two, "booked", "Quay")]


def test_a_cut_plan_uses_what_it_took_and_leaves_what_is_left(rack: Rack) -> None:
    (old,) = rack.add("B18", 900, 400)
    rack.set_whole("B18", 3)
    rack.book("Quay", [old])
    (new,) = rack.cut("Quay", "hash", [old], {"B18": 2, "P6": 1}, [("B18", 700.0, 300.0)])
    assert states(rack) == [(old, "used", "Quay"), (new, "free", "")]
    assert rack.wholes() == {"B18": 1}
    assert next(p for p in rack.pieces() if p.id == new).made_by == "Quay"
    with pytest.raises(PlankError, match="cut already"):
        rack.cut("Quay", "hash", [], {"B18": 1}, [])
    assert rack.wholes() == {"B18": 1}
    assert rack.undo().startswith("Cut Quay")
    assert states(rack) == [(old, "booked", "Quay")]
    assert rack.wholes() == {"B18": 3}
    rack.cut("Quay", "hash", [old], {}, [])  # may be cut again once it was taken back
    assert states(rack) == [(old, "used", "Quay")]


def test_what_is_booked_is_not_thrown_away(rack: Rack) -> None:
    one, two = rack.add("B18", 900, 400, 2)
    rack.book("Quay", [two])
    with pytest.raises(PlankError, match="Release it first"):
        rack.throw_away([one, two])
    assert len(rack.pieces()) == 2
    rack.release([two])
    rack.throw_away([one, two])
    assert rack.pieces() == ()
    assert len(rack.pieces(gone=True)) == 2


@pytest.mark.parametrize(
    ("length", "width", "count", "place"),
    [
        (5.0, 400.0, 1, "length"),
        (float("nan"), 400.0, 1, "length"),
        (900.0, 7000.0, 1, "width"),
        (900.0, 400.0, 0, "count"),
        (900.0, 400.0, 10**9, "count"),
    ],
)
def test_sizes_and_counts_that_make_no_sense_are_refused(
    rack: Rack, length: float, width: float, count: int, place: str
) -> None:
    with pytest.raises(PlankError) as wrong:
        rack.add("B18", length, width, count)
    assert wrong.value.where == place
    assert rack.pieces() == () and rack.history() == ()


def test_an_act_that_changes_nothing_leaves_no_history(rack: Rack) -> None:
    rack.book("Quay", [])
    assert rack.history() == ()
    with pytest.raises(PlankError, match="nothing to take back"):
        rack.undo()


def test_a_file_that_is_no_rack_is_set_aside_and_a_new_one_begun(tmp_path: Path) -> None:
    path = tmp_path / "rack.sqlite"
    path.write_bytes(b"these are not the boards you look for" * 40)
    before = path.read_bytes()
    with pytest.raises(PlankError, match=r"cannot be read.*rack\.sqlite\.broken"):
        Rack(path).pieces()
    assert (tmp_path / "rack.sqlite.broken").read_bytes() == before
    assert Rack(path).add("BP18", 800.0, 400.0) == (1,)
    with pytest.raises(PlankError, match="cannot be used"):
        Rack(tmp_path / "rack.sqlite" / "deeper").pieces()


BOOKER = """
import sys
from pathlib import Path
from tall_plank.files.rack import Rack
from tall_plank.measure import PlankError
rack, job, got = Rack(Path(sys.argv[1])), sys.argv[2], 0
mine = []
for i in range(1, 31):
    try:
        rack.book(job, [*mine, i])
        mine.append(i)
    except PlankError:
        pass
print(*mine)
"""


def test_two_programs_never_book_the_same_offcut(rack: Rack) -> None:
    rack.add("B18", 900, 400, 30)
    runs = [
        subprocess.Popen([sys.executable, "-c", BOOKER, str(rack.path), job], stdout=subprocess.PIPE, text=True)
        for job in ("Quay", "Loft")
    ]
    told = [set(map(int, run.communicate(timeout=60)[0].split())) for run in runs]
    assert all(run.returncode == 0 for run in runs)
    assert told[0] | told[1] == set(range(1, 31)) and not told[0] & told[1]
    for job, ids in zip(("Quay", "Loft"), told, strict=True):
        assert {p.id for p in rack.pieces() if p.job == job} == ids


ACTS = st.lists(
    st.tuples(st.sampled_from(["add", "book", "release", "throw", "cut", "whole"]), st.integers(1, 6)), max_size=14
)


@settings(max_examples=25, deadline=None)
@given(acts=ACTS)
def test_any_acts_taken_back_one_by_one_leave_each_state_before(acts: list[tuple[str, int]], tmp_path_factory) -> None:  # type: ignore[no-untyped-def]
    rack = Rack(tmp_path_factory.mktemp("rack") / "rack.sqlite")
    seen = []
    for step, (act, n) in enumerate(acts):
        before = (states(rack), rack.wholes())
        told = len(rack.history())
        try:
            match act:
                case "add":
                    rack.add("B18", 400 + n, 300)
                case "book":
                    rack.book(f"job{n % 2}", [n])
                case "release":
                    rack.release([n])
                case "throw":
                    rack.throw_away([n])
                case "cut":
                    rack.cut(f"job{n % 2}", f"{step}", [n], {"B18": n}, [("B18", 500.0, 200.0)])
                case "whole":
                    rack.set_whole("B18", n)
        except PlankError:
            assert (states(rack), rack.wholes()) == before
        if len(rack.history()) > told:
            seen.append(before)
        else:
            assert (states(rack), rack.wholes()) == before
    for before in reversed(seen):
        rack.undo()
        assert (states(rack), rack.wholes()) == before


def test_the_file_is_an_ordinary_one_that_other_programs_read(rack: Rack) -> None:
    rack.add("B18", 900, 400)
    with sqlite3.connect(rack.path) as db:
        assert db.execute("SELECT board, length, width, state FROM piece").fetchall() == [("B18", 900.0, 400.0, "free")]


def test_a_plan_takes_what_is_free_or_its_own_and_nothing_else(rack: Rack) -> None:
    free, own, others, used = rack.add("B18", 900, 400, 4)
    rack.book("Loft", [others])
    rack.cut("Barn", "before", [used], {}, [])
    rack.book("Quay", [own])
    for number, state in ((others, "booked"), (used, "used")):
        with pytest.raises(PlankError, match=f"Offcut {number} is not to be had: {state}"):
            rack.cut("Quay", "plan", [free, number], {}, [])
        assert ("plan", number) and (free, "free", "") in states(rack)
    rack.cut("Quay", "plan", [free, own], {}, [])
    assert states(rack) == [
        (free, "used", "Quay"), (own, "used", "Quay"), (others, "booked", "Loft"), (used, "used", "Barn"),
    ]  # fmt: skip
