"""Writing a file: through links, with its mode, with names as long as a file system takes; what fails says so."""

from __future__ import annotations

import os
import stat
from pathlib import Path

import pytest

from tall_plank.files.plankfile import read_plank, write_plank
from tall_plank.formats.writing import LEFT_FOR, write_atomic
from tall_plank.job import Job
from tall_plank.measure import PlankError


def test_a_file_keeps_its_mode(tmp_path: Path) -> None:
    path = tmp_path / "a.txt"
    path.write_text("old")
    path.chmod(0o664)
    write_atomic(path, b"new", backup=True)
    assert path.read_bytes() == b"new" and stat.S_IMODE(path.stat().st_mode) == 0o664
    assert (tmp_path / "a.txt.bak").read_text() == "old"


def test_through_a_link_the_real_file_is_written(tmp_path: Path) -> None:
    real, link = tmp_path / "real" / "a.plank", tmp_path / "link.plank"
    real.parent.mkdir()
    real.write_text("old")
    link.symlink_to(real)
    write_atomic(link, b"new", backup=True)
    assert link.is_symlink() and real.read_bytes() == b"new"
    assert (real.parent / "a.plank.bak").read_text() == "old"
    # A link to what is not there yet makes it.
    other = tmp_path / "other"
    other.symlink_to(tmp_path / "made.txt")
    write_atomic(other, b"x")
    assert (tmp_path / "made.txt").read_bytes() == b"x" and other.is_symlink()
    round_about = tmp_path / "loop"
    round_about.symlink_to(round_about)
    with pytest.raises(PlankError, match="cannot be written"):
        write_atomic(round_about, b"x")


@pytest.mark.parametrize("length", [200, 245, 250, 255])
def test_names_as_long_as_the_file_system_takes(tmp_path: Path, job: Job, length: int) -> None:
    path = tmp_path / ("x" * (length - 6) + ".plank")
    for _ in range(2):
        write_plank(job, path)
    assert read_plank(path) == job
    assert [p for p in tmp_path.iterdir() if p.suffix == ".part"] == []


def test_a_name_that_is_too_long_says_so(tmp_path: Path) -> None:
    with pytest.raises(PlankError, match="cannot be written"):
        write_atomic(tmp_path / ("x" * 300), b"x")
    assert list(tmp_path.iterdir()) == []


def test_half_written_files_of_its_own_are_taken_away_in_time(tmp_path: Path) -> None:
    path = tmp_path / "a.txt"
    write_atomic(path, b"1")
    import hashlib

    mark = hashlib.sha256(b"a.txt").hexdigest()[:12]
    old, young, foreign = (tmp_path / n for n in (f".{mark}.1.ab.part", f".{mark}.2.ab.part", ".other.1.ab.part"))
    for p in (old, young, foreign):
        p.write_text("half")
    then = young.stat().st_mtime - LEFT_FOR - 60
    for p in (old, foreign):
        os.utime(p, (then, then))
    write_atomic(path, b"2")
    assert not old.exists() and young.exists() and foreign.exists()
