"""A lock is seen from a second machine's view: another mount namespace, where the folder lies at another path.

Linux namespaces (`unshare`, util-linux) stand in for a second host; where they may not be made the test is left out.
The lock is the kernel's own (flock(2)): it lies on the file, whatever path leads to it.
"""

from __future__ import annotations

import shutil
import subprocess
import sys
from pathlib import Path

import pytest

from tall_plank.files.userdata import Lock, UserFolders

OPENER = """
import sys, time
from pathlib import Path
from tall_plank.files.userdata import Lock, UserFolders
root = Path(sys.argv[1])
lock = Lock(UserFolders(root / "c", root / "s"), Path(sys.argv[2]))
print("taken" if lock.take() else f"held by {lock.holder()}", flush=True)
sys.stdin.readline()
"""


def may_unshare() -> bool:
    found = shutil.which("unshare")
    return (
        found is not None
        and subprocess.run([found, "--mount", "true"], capture_output=True, check=False).returncode == 0
    )


@pytest.mark.skipif(not may_unshare(), reason="no mount namespace may be made here")
def test_a_file_that_is_open_on_another_machine_is_held(tmp_path: Path) -> None:
    shared, elsewhere = tmp_path / "shared", tmp_path / "their view"
    shared.mkdir()
    elsewhere.mkdir()
    (shared / "job.plank").write_bytes(b"")
    script = 'mount --bind "$1" "$2" && exec "$3" -c "$4" "$5" "$2/job.plank"'
    given = [str(shared), str(elsewhere), sys.executable, OPENER, str(tmp_path / "theirs")]
    theirs = subprocess.Popen(
        ["unshare", "--mount", "--propagation", "private", "sh", "-c", script, "sh", *given],
        stdin=subprocess.PIPE,
        stdout=subprocess.PIPE,
        text=True,
        env={"PYTHONPATH": ":".join(sys.path), "PATH": "/usr/bin:/bin:/usr/sbin:/sbin"},
    )
    assert theirs.stdout is not None and theirs.stdin is not None
    assert theirs.stdout.readline() == "taken\n"
    assert not (elsewhere / "job.plank").exists()  # here it is nowhere but in its own folder
    mine = Lock(UserFolders(tmp_path / "c", tmp_path / "s"), shared / "job.plank")
    assert mine.take() is False
    assert mine.holder()
    theirs.stdin.write("\n")
    theirs.stdin.close()
    assert theirs.wait(timeout=60) == 0
    assert mine.take() is True
    mine.release()


@pytest.mark.skipif(not may_unshare(), reason="no mount namespace may be made here")
def test_a_machine_that_fails_lets_go(tmp_path: Path) -> None:
    (tmp_path / "job.plank").write_bytes(b"")
    theirs = subprocess.Popen(
        ["unshare", "--mount", sys.executable, "-c", OPENER, str(tmp_path), str(tmp_path / "job.plank")],
        stdin=subprocess.PIPE,
        stdout=subprocess.PIPE,
        text=True,
        env={"PYTHONPATH": ":".join(sys.path)},
    )
    assert theirs.stdout is not None and theirs.stdout.readline() == "taken\n"
    theirs.kill()
    theirs.wait()
    mine = Lock(UserFolders(tmp_path / "c", tmp_path / "s"), tmp_path / "job.plank")
    assert mine.take() is True
    mine.release()
