"""Some of the hostile inputs of `./plank bench hostile`, and edits with any arguments: none is more than a refusal."""

from __future__ import annotations

import os
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).parents[1]


def test_hostile_inputs_are_refused_in_plain_words() -> None:
    env = {**os.environ, "PYTHONPATH": str(ROOT / "src"), "QT_QPA_PLATFORM": "offscreen"}
    given = ["600", "2", "271828", "--untimed"]
    told = subprocess.run(
        [sys.executable, str(ROOT / "bench" / "hostile.py"), *given],
        capture_output=True,
        text=True,
        env=env,
        check=False,
    )
    assert told.returncode == 0, told.stdout + told.stderr[-2000:]
    assert "600 inputs" in told.stdout and "no fault" in told.stdout
