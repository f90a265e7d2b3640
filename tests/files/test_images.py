"""Images that are laid under a plan: how large they may be."""

from __future__ import annotations

from pathlib import Path

import pytest
from PIL import Image

from tall_plank.files import images
from tall_plank.measure import PlankError


def test_an_image_is_judged_by_its_pixels_and_its_bytes(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    for name, size in (("fits", (40, 50)), ("wide", (2001, 1)), ("large", (41, 50))):
        Image.new("RGB", size, "#807060").save(tmp_path / f"{name}.png")
    monkeypatch.setattr(images, "MAX_PIXELS", 2000)
    images.read_image(tmp_path / "fits.png")
    for name in ("wide", "large"):
        with pytest.raises(PlankError, match="too many pixels"):
            images.read_image(tmp_path / f"{name}.png")
    monkeypatch.setattr(images, "MAX_FILE", (tmp_path / "fits.png").stat().st_size - 1)
    with pytest.raises(PlankError, match="too large"):
        images.read_image(tmp_path / "fits.png")
