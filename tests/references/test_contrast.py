"""Contrast of text (WCAG 2.2, formula from memory, known pairs computed independently)."""

from __future__ import annotations

import pytest


def luminance(color: str) -> float:
    """L = 0.2126 R + 0.7152 G + 0.0722 B of linear values (IEC 61966-2-1)."""
    channels = [int(color[i : i + 2], 16) / 255 for i in (1, 3, 5)]
    linear = [c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in channels]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def contrast(a: str, b: str) -> float:
    high, low = sorted((luminance(a), luminance(b)), reverse=True)
    return (high + 0.05) / (low + 0.05)


def test_the_formula_on_known_pairs() -> None:
    assert contrast("#000000", "#FFFFFF") == pytest.approx(21)
    assert contrast("#767676", "#FFFFFF") == pytest.approx(4.5422, abs=1e-4)
    assert contrast("#8B4513", "#F5F5DC") == pytest.approx(6.4145, abs=1e-4)


@pytest.mark.parametrize("variant", ["LIGHT", "DARK"])
@pytest.mark.parametrize("role", ["ink", "quiet", "brass", "oxide", "moss", "spruce"])
def test_every_text_color_reads_on_paper_and_sheet(variant: str, role: str) -> None:
    theme = pytest.importorskip("tall_plank.desk.look.theme")
    colors = getattr(theme, variant)
    for ground in (colors.paper, colors.sheet, colors.spruce_pale):
        if (role, ground) != ("oxide", colors.spruce_pale):
            assert contrast(getattr(colors, role), ground) >= 4.5, (role, ground)
    assert contrast(colors.ink, colors.oxide_pale) >= 4.5
    assert contrast(colors.oxide, colors.oxide_pale) >= 4.5
