"""Compiled loops: kept where that can be, made anew where it cannot."""

from __future__ import annotations

from pathlib import Path

import pytest

from tall_plank.shop import compiled


def test_loops_are_kept_in_a_folder_of_their_own(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("NUMBA_CACHE_DIR", str(tmp_path / "a" / "b"))
    assert compiled.cache_folder() == tmp_path / "a" / "b" and (tmp_path / "a" / "b").is_dir()


def test_without_a_folder_loops_run_all_the_same(monkeypatch: pytest.MonkeyPatch, caplog) -> None:
    monkeypatch.setenv("NUMBA_CACHE_DIR", "/proc/nowhere")
    assert compiled.cache_folder() is None
    assert "not kept" in caplog.text
    monkeypatch.setattr(compiled, "_folder", None)

    def doubled(x: int) -> int:
        return x + x

    assert compiled.compiled(doubled)(21) == 42
