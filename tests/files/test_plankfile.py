from __future__ import annotations

import errno
import hashlib
import json
import multiprocessing
import os
import subprocess
import sys
import tempfile
import zipfile
from pathlib import Path

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import killed
from tall_plank.demo import demo_job
from tall_plank.edits import jobs
from tall_plank.files.locks import FileLock
from tall_plank.files.plankfile import MIMETYPE, job_bytes, job_from_bytes, json_schema, read_plank, write_plank
from tall_plank.files.userdata import Autosave, Lock, Preferences, UserFolders
from tall_plank.formats import door, writing
from tall_plank.job import Job
from tall_plank.job.issue import Issue
from tall_plank.measure import PlankError
from tall_plank.workings import Workings


def test_a_job_comes_back_whole(tmp_path: Path) -> None:
    job = demo_job()
    write_plank(job, tmp_path / "a.plank", b"png")
    back = read_plank(tmp_path / "a.plank")
    assert back == job
    assert Workings(back).tally == Workings(job).tally


def test_a_job_of_format_1_says_the_same_as_when_it_was_written() -> None:
    """A file written by the program as it was then, with what that program said of it."""
    job = read_plank(Path(__file__).parent / "data" / "job-1.plank")
    tally = Workings(job).tally
    assert (tally.units, tally.parts, tally.boards, tally.fittings) == (16, 265, 19, 216)
    # It said 6,427.39; drawer fronts are drilled and screwed to their boxes since then, and lines multiply out.
    assert str(tally.price.net) == "6439.01"
    assert tally.edging_m == pytest.approx(82.3268)
    # It can be changed and written in the new format.
    again = job_from_bytes(job_bytes(job), "again")
    assert again == job


def test_a_job_of_format_3_makes_what_it_made_when_it_was_written() -> None:
    """Written by the program as it was then; it said 30 units, 527 parts, 44 boards, 419 fittings, 13,859.95 EUR."""
    job = read_plank(Path(__file__).parent / "data" / "job-3.plank")
    w = Workings(job)
    assert (w.tally.units, w.tally.parts, w.tally.boards, w.tally.fittings) == (30, 527, 44, 417)
    # Hinges keep clear of shelves since then, which moves a few holes onto the rows; fronts at a slant and in corners
    # have hinges that are made for it: 16.90 EUR more. Drawer fronts are drilled and screwed to their boxes, and what is
    # joined of a worktop is not edged: 15.23 more. The rails of its hob unit stand, and are not edged: 2.79 less. What
    # hangs on brackets of its own has no hangers besides: 7.16 less.
    assert float(w.tally.price.net) == pytest.approx(13859.95 + 16.90 + 15.23 - 2.79 - 7.16, abs=0.01)
    # 198.335 less what pieces of worktop are joined by, and the standing rail of a hob unit.
    assert w.tally.edging_m == pytest.approx(195.781, abs=0.001)
    # The chimney breast stood so near that the fridge's door met it; nothing said so then.
    assert [(s.rule, s.where.label, s.weight) for s in w.snags] == [("opened", "A2", "mind")]
    assert job_from_bytes(job_bytes(job), "again") == job
    # What its standards name is in its stock.
    codes = {f.code for f in job.stock.fittings}
    for standard in job.standards:
        values = standard.values()
        assert {values["slide_profile"], values["slide_roller"], values["cam"]} <= codes


def test_a_job_of_format_4_makes_what_it_made_when_it_was_written() -> None:
    """Written by the program as it was then; it said 37 units, 693 parts, 61 boards, 582 fittings, 19,708.64 EUR."""
    job = read_plank(Path(__file__).parent / "data" / "job-4.plank")
    w = Workings(job)
    assert (w.tally.units, w.tally.parts, w.tally.boards, w.tally.fittings) == (37, 693, 61, 580)
    assert (
        str(w.tally.price.net) == "19732.95"
    )  # with hinges that fit its fronts, screws in drawer fronts, no hangers on brackets
    # The chimney breast stood so near that the fridge's door met it; nothing said so then.
    assert [(s.rule, s.where.label, s.weight) for s in w.snags] == [("opened", "A2", "mind")]
    assert job.active_standard().values()["runner"] == "auto"
    assert job_from_bytes(job_bytes(job), "again") == job


def test_a_job_of_format_5_makes_what_it_made_when_it_was_written() -> None:
    """Written by the program as it was then: worktops lie on boards, and nothing is cut from bars."""
    job = read_plank(Path(__file__).parent / "data" / "job-5.plank")
    w = Workings(job)
    assert (w.tally.units, w.tally.parts, w.tally.boards, w.tally.fittings) == (37, 693, 61, 580)
    assert (
        str(w.tally.price.net) == "19732.95"
    )  # with hinges that fit its fronts, screws in drawer fronts, no hangers on brackets
    # The chimney breast stood so near that the fridge's door met it; nothing said so then.
    assert [(s.rule, s.where.label, s.weight) for s in w.snags] == [("opened", "A2", "mind")]
    assert w.bars.bars == () and w.blank_parts == ()
    assert job_from_bytes(job_bytes(job), "again") == job


def room_of(raw: dict) -> dict:  # type: ignore[type-arg]
    return raw["job"]["rooms"][0]


SIDES = [{"id": w, "length": {"text": "3000mm", "mm": 3000.0}, "angle": 90.0} for w in "AB"]
LOOSE = [{"id": w, "length": None, "angle": 90.0} for w in "CD"]
LENGTH = {"text": "100mm", "mm": 100.0}


@pytest.mark.parametrize(
    "change",
    [
        lambda r: r.update(
            outline={"type": "sides", "sides": [*SIDES, *LOOSE], "heading": 0.0},
            runs=[{"id": "n1", "wall": "Z", "level": "base"}],
        ),
        lambda r: r.update(outline={"type": "sides", "sides": SIDES, "heading": 0.0}),
        lambda r: r.update(
            outline={"type": "sides", "sides": [{**SIDES[0], "angle": 400.0}, SIDES[1], *LOOSE], "heading": 0.0}
        ),
        lambda r: r.update(
            outline={"type": "sides", "sides": [*SIDES, LOOSE[0], {**LOOSE[1], "id": "A"}], "heading": 0.0}
        ),
        lambda r: r.update(outline={"type": "circle", "radius": 5}),
        lambda r: r.update(
            columns=[{"id": "m1", "kind": "column", "wall": "Q", "x": LENGTH, "width": LENGTH, "depth": LENGTH}]
        ),
        lambda r: r.update(islands=[{"id": "i1", "letter": "A", "x": LENGTH, "y": LENGTH, "length": LENGTH}]),
        lambda r: r.update(
            islands=[{"id": "i1", "letter": "K", "wall": "Q", "x": LENGTH, "y": LENGTH, "length": LENGTH}]
        ),
        lambda r: r.update(slopes=[{"id": "l1", "wall": "Q", "low": LENGTH, "run": LENGTH}]),
        lambda r: r.update(
            openings=[
                {
                    "id": "o1",
                    "wall": "A",
                    "kind": "trapdoor",
                    "x": LENGTH,
                    "width": LENGTH,
                    "height": LENGTH,
                    "sill": LENGTH,
                }
            ]
        ),
    ],
)
def test_rooms_that_cannot_be_are_refused(job: Job, change) -> None:  # type: ignore[no-untyped-def]
    raw = json.loads(job_bytes(job))
    change(room_of(raw))
    with pytest.raises(PlankError) as caught:
        job_from_bytes(json.dumps(raw).encode(), "x.plank")
    assert caught.value.remedy


def test_things_that_refer_to_nothing_are_snags_and_no_end(job: Job) -> None:
    raw = json.loads(job_bytes(job))
    cell = room_of(raw)["runs"][0]["cells"][1]
    cell["anchor"] = {"at": "span", "to": "cell:u999", "offset": LENGTH}
    room_of(raw)["moldings"] = [{"id": "d1", "kind": "skirting", "profile": "NONE"}]
    corners = [{"x": LENGTH, "y": LENGTH}] * 3
    room_of(raw)["soffits"] = [{"id": "f1", "corners": corners, "drop": LENGTH, "over": "n99"}]
    back = job_from_bytes(json.dumps(raw).encode(), "x.plank")
    rules = [s.rule for s in Workings(back).snags]
    assert rules.count("held") == 1
    assert any("no profile NONE" in s.what for s in Workings(back).snags)
    room_of(raw)["soffits"][0]["corners"] = []
    with pytest.raises(PlankError, match="outline"):
        job_from_bytes(json.dumps(raw).encode(), "x.plank")


def test_the_same_job_gives_the_same_file(job: Job, tmp_path: Path) -> None:
    write_plank(job, tmp_path / "a.plank")
    write_plank(job, tmp_path / "b.plank")
    assert (tmp_path / "a.plank").read_bytes() == (tmp_path / "b.plank").read_bytes()


def test_the_file_tells_its_kind_in_its_first_bytes(job: Job, tmp_path: Path) -> None:
    write_plank(job, tmp_path / "a.plank")
    data = (tmp_path / "a.plank").read_bytes()
    # what the desktop's MIME database looks for
    assert data[30 : 30 + 8 + len(MIMETYPE)] == b"mimetype" + MIMETYPE.encode()


def test_the_last_good_file_is_kept_beside_the_new_one(job: Job, tmp_path: Path) -> None:
    path = tmp_path / "a.plank"
    write_plank(job, path)
    write_plank(jobs.set_text(job, "name", "second").job, path)
    assert read_plank(path).name == "second"
    assert read_plank(path.with_name("a.plank.bak")).name == "Test job"
    assert sorted(p.name for p in tmp_path.iterdir()) == ["a.plank", "a.plank.bak"]


def test_a_failed_write_leaves_the_old_file(job: Job, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    path = tmp_path / "a.plank"
    write_plank(job, path)
    before = path.read_bytes()

    def full(*_: object) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(writing.os, "fsync", full)
    with pytest.raises(PlankError, match="No space left"):
        write_plank(jobs.set_text(job, "name", "second").job, path)
    assert path.read_bytes() == before
    assert [p.name for p in tmp_path.iterdir()] == ["a.plank"]


def rewritten(job: Job, path: Path, change) -> Path:  # type: ignore[no-untyped-def]
    """A job file whose JSON was changed by hand."""
    raw = json.loads(job_bytes(job))
    raw = change(raw) or raw
    with zipfile.ZipFile(path, "w") as archive:
        archive.writestr("mimetype", MIMETYPE)
        archive.writestr("job.json", json.dumps(raw))
    return path


def _set(*keys: object):  # type: ignore[no-untyped-def]
    *path, last, value = keys

    def change(raw):  # type: ignore[no-untyped-def]
        at = raw
        for key in path:
            at = at[key]
        at[last] = value

    return change


@pytest.mark.parametrize(
    ("change", "word"),
    [
        (_set("format", 99), "newer Tall Plank (format 99"),
        (_set("format", "one"), "no format number"),
        (_set("job", "rooms", []), "no room"),
        (_set("job", "units", []), "no unit"),
        (_set("job", "standard", "other"), "no shop standard"),
        (_set("job", "book", "other"), "no price book"),
        (_set("job", "rooms", 0, "height", 5), "damaged"),
        (_set("job", "rooms", 0, "extra", 5), "unknown field"),
        (_set("job", "rooms", 0, "runs", 0, "wall", "Z"), "no wall"),
        (_set("job", "values", 0, "length", "text", "plinth"), None),
        (_set("job", "values", 2, "length", "text", "base_height + plinth"), "circle"),
        (_set("job", "values", 2, "length", "text", "nothing"), "no value named"),
        (_set("job", "rooms", 0, "outline", "width", "mm", 1e30), "out of range"),
        (_set("job", "stock", "boards", 0, "thickness", -1), "out of range"),
        (_set("job", "pricing", "margin", "lots"), "damaged"),
    ],
)
def test_a_damaged_job_is_refused_with_the_place(job: Job, tmp_path: Path, change, word: str | None) -> None:
    path = rewritten(job, tmp_path / "x.plank", change)
    if word is None:
        read_plank(path)
        return
    with pytest.raises(PlankError) as caught:
        read_plank(path)
    assert word in str(caught.value)
    assert caught.value.remedy


def test_foreign_and_broken_files_are_refused(job: Job, tmp_path: Path) -> None:
    path = tmp_path / "x.plank"
    cases: list[tuple[bytes, str]] = [(b"", "not a Tall Plank"), (b"hello", "not a Tall Plank")]
    write_plank(job, path)
    whole = path.read_bytes()
    cases += [(whole[: len(whole) // 2], "damaged"), (whole[:60] + b"\0" * 40 + whole[100:], "damaged")]
    for data, word in cases:
        path.write_bytes(data)
        with pytest.raises(PlankError, match=word):
            read_plank(path)
    with zipfile.ZipFile(path, "w") as archive:
        archive.writestr("word/document.xml", "x")
    with pytest.raises(PlankError, match="not a Tall Plank"):
        read_plank(path)
    with zipfile.ZipFile(path, "w") as archive:
        archive.writestr("mimetype", MIMETYPE)
    with pytest.raises(PlankError, match="no job inside"):
        read_plank(path)
    with pytest.raises(PlankError, match="cannot be read"):
        read_plank(tmp_path / "nowhere.plank")
    with pytest.raises(PlankError):
        read_plank(tmp_path)


def test_hostile_archives_are_refused_before_anything_is_unpacked(tmp_path: Path, monkeypatch) -> None:
    path = tmp_path / "x.plank"
    with zipfile.ZipFile(path, "w") as archive:
        archive.writestr("mimetype", MIMETYPE)
        archive.writestr("../../evil", "x")
    with pytest.raises(PlankError, match="bad names"):
        read_plank(path)
    with zipfile.ZipFile(path, "w") as archive:
        archive.writestr("mimetype", MIMETYPE)
        for i in range(2100):
            archive.writestr(f"a{i}", "")
    with pytest.raises(PlankError, match="too many"):
        read_plank(path)
    monkeypatch.setattr(door, "MOST_UNPACKED", 1000)
    with zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("mimetype", MIMETYPE)
        archive.writestr("job.json", " " * 100_000)
    with pytest.raises(PlankError, match="too much"):
        read_plank(path)


@given(st.data())
def test_no_damage_to_the_json_is_more_than_a_message(data: st.DataObject) -> None:
    text = bytearray(job_bytes(demo_job()))
    at = data.draw(st.integers(0, len(text) - 1))
    text[at : at + data.draw(st.integers(0, 6))] = data.draw(st.binary(max_size=4))
    try:
        job = job_from_bytes(bytes(text), "x")
    except PlankError:
        return
    assert isinstance(job, Job)


def test_the_schema_in_the_docs_is_that_of_the_format() -> None:
    path = Path(__file__).parents[2] / "docs" / "job.schema.json"
    assert path.read_bytes().strip() == json_schema().strip()


# --- autosave, locks, preferences


def test_work_left_behind_is_found_once_its_program_is_gone(job: Job, folders: UserFolders, tmp_path: Path) -> None:
    autosave = Autosave(folders)
    autosave.keep(job, tmp_path / "a.plank")
    assert Autosave.left_behind(folders) == []  # its program, this one, runs
    killed(autosave)
    (found,) = Autosave.left_behind(folders)
    assert found.job == job
    assert found.file.endswith("a.plank")
    assert found.kept and found.size > 1000
    found.let_go()
    assert list((folders.state / "autosave").iterdir()) == []
    assert Autosave.left_behind(folders) == []


def test_work_with_many_issued_sets_is_offered_back_like_any_other(job: Job, folders: UserFolders) -> None:
    """Their files are tens of millions of bytes: what is kept of them is read again."""
    data = bytes(32_000_000)
    issue = Issue("A", "shop", "2026-12-02", (), hashlib.sha256(data).hexdigest(), data=data)
    job = msgspec.structs.replace(job, issues=(issue,))
    autosave = Autosave(folders)
    autosave.keep(job, None)
    killed(autosave)
    (found,) = Autosave.left_behind(folders)
    assert found.size > 40_000_000 and found.job.issues == (issue,)


def test_an_autosave_that_cannot_be_read_is_set_aside_not_deleted(folders: UserFolders) -> None:
    path = folders.made().state / "autosave" / "x.json"
    path.write_bytes(b'{"file": ""}\nrubbish')
    assert Autosave.left_behind(folders) == []
    assert path.with_name("x.json.broken").read_bytes().endswith(b"rubbish")


def test_a_second_opening_does_not_get_the_lock(folders: UserFolders, tmp_path: Path) -> None:
    first, second = Lock(folders, tmp_path / "a.plank"), Lock(folders, tmp_path / "a.plank")
    assert first.take()
    assert not second.take()
    second.release()
    assert not second.take()
    first.release()
    assert second.take()


def test_the_lock_of_a_dead_program_is_taken_over(folders: UserFolders, tmp_path: Path) -> None:
    """Killed, it leaves the lock's file and not the lock: no number of a process is looked at."""
    code = (
        "import sys; from pathlib import Path; from tall_plank.files.locks import FileLock\n"
        "lock = FileLock(Path(sys.argv[1])); print(lock.take(), flush=True); sys.stdin.read()"
    )
    first = Lock(folders, tmp_path / "a.plank")
    path = first._locks[0].path
    with subprocess.Popen(
        [sys.executable, "-c", code, str(path)], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True
    ) as other:
        assert other.stdout is not None and other.stdout.readline().strip() == "True"
        assert not first.take()
        assert json.loads(path.read_text())["process"] == other.pid and first.holder()
        other.kill()
    assert path.exists()
    assert first.take()
    # The number in the file is of no account: even this one's own.
    first.release()
    path.write_text(json.dumps({"process": os.getpid()}))
    assert Lock(folders, tmp_path / "a.plank").take()


def test_a_folder_that_cannot_be_written_has_its_locks_in_the_state_folder(
    folders: UserFolders, tmp_path: Path
) -> None:
    here = tmp_path / "shared"
    here.mkdir()
    (here / "taken").write_text("")
    lost = here / "taken" / "a.plank"  # no folder: no lock can lie there
    first, second = Lock(folders, lost), Lock(folders, lost)
    assert first.take() and not second.take()
    first.release()
    assert second.take()


def test_a_file_system_without_locks_keeps_nobody_out(
    folders: UserFolders, tmp_path: Path, job: Job, monkeypatch: pytest.MonkeyPatch
) -> None:
    def none(*_: object) -> None:
        raise OSError(errno.EOPNOTSUPP, "no locks here")

    monkeypatch.setattr("tall_plank.files.locks.fcntl.flock", none)
    assert Lock(folders, tmp_path / "a.plank").take(), "not read-only for ever"
    assert not list(tmp_path.glob(".*.plank-lock"))
    Autosave(folders).keep(job, None)
    assert [r.job for r in Autosave.left_behind(folders)] == [job]


def test_a_lock_whose_file_was_taken_away_meanwhile_is_none(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """Its owner lets it go between another's opening and locking: the lock then is of no name, and is asked for anew."""
    path, real = tmp_path / "x.lock", os.open
    gone: list[int] = []

    def opens(name: Path, *flags: int) -> int:
        handle = real(name, *flags)
        if not gone:
            gone.append(handle)
            os.unlink(name)
        return handle

    monkeypatch.setattr("tall_plank.files.locks.os.open", opens)
    first = FileLock(path)
    assert first.take() and gone and path.exists()
    assert not FileLock(path).take()


def test_of_four_openers_one_owns() -> None:
    """Four processes ask for one lock at once, again and again: each time one has it."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "x.lock"
        context = multiprocessing.get_context("spawn")
        with context.Manager() as manager:
            barrier = manager.Barrier(4)
            with context.Pool(4) as pool:
                rounds = pool.starmap(_asks, [(str(path), barrier, 60)] * 4)
    owners = [sum(r) for r in zip(*rounds, strict=True)]
    assert owners == [1] * 60


def _asks(path: str, barrier, rounds: int) -> list[bool]:  # type: ignore[no-untyped-def]
    found = []
    for _ in range(rounds):
        lock = FileLock(Path(path))
        barrier.wait()
        found.append(lock.take())
        barrier.wait()
        lock.release()
        barrier.wait()
    return found


def test_preferences_survive_rubbish(folders: UserFolders, tmp_path: Path) -> None:
    (folders.made().config / "preferences.json").write_text("{broken")
    preferences = Preferences(folders)
    assert preferences.get("look", "light") == "light"
    preferences.set("look", "dark")
    assert Preferences(folders).get("look", "light") == "dark"
    preferences.set("look", 5)
    assert Preferences(folders).get("look", "light") == "light"
    for name in ("a", "b", "a"):
        (tmp_path / name).write_text("")
        preferences.add_recent(tmp_path / name)
    (tmp_path / "b").unlink()
    assert [p.name for p in Preferences(folders).recent()] == ["a"]


def test_every_struct_of_the_job_is_frozen() -> None:
    def walk(value: object) -> None:
        if isinstance(value, msgspec.Struct):
            assert value.__struct_config__.frozen, type(value)
            for name in value.__struct_fields__:
                walk(getattr(value, name))
        elif isinstance(value, tuple):
            for item in value:
                walk(item)
        else:
            assert not isinstance(value, dict | list | set), value

    walk(demo_job())


def test_a_job_whose_shops_mark_is_gone_opens_and_says_so(tmp_path: Path) -> None:
    import zipfile

    from tall_plank.edits.papers import set_logo
    from tall_plank.job.start import new_job
    from tall_plank.workings import Workings

    job = set_logo(new_job("Marked"), 60, 40, b"\xff\xd8\xff" + bytes(40)).job
    path, spoiled = tmp_path / "a.plank", tmp_path / "b.plank"
    write_plank(job, path)
    assert read_plank(path).pictures == job.pictures
    with zipfile.ZipFile(path) as whole, zipfile.ZipFile(spoiled, "w") as rest:
        for info in whole.infolist():
            if not info.filename.startswith("assets/"):
                rest.writestr(info, whole.read(info))
    back = read_plank(spoiled)
    assert back.papers.logo and not back.pictures
    assert [s.rule for s in Workings(back).snags if s.rule == "logo"] == ["logo"]
