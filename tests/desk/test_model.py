"""The model view draws, follows the job and picks. Needs EGL, which the set-up installs."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPointF

from desk.conftest import cell, spec, type_into
from tall_plank.desk.app import make_app
from tall_plank.desk.window import Window
from tall_plank.job import Job


@pytest.fixture
def seen(qtbot, job: Job, folders):  # type: ignore[no-untyped-def]
    make_app()
    window = Window(job, folders)
    window.resize(1280, 800)
    with qtbot.waitSignal(window.model.drawn, timeout=30_000):
        window.show()
    yield window
    window.document.history.mark_saved()
    window.close()


def colors(window: Window) -> set[int]:
    image = window.model._image
    assert image is not None
    return {image.pixel(x, y) for x in range(0, image.width(), 9) for y in range(0, image.height(), 9)}


def test_the_model_is_drawn_and_follows_the_job(seen: Window, qtbot) -> None:
    assert len(colors(seen)) > 8
    before = seen.model._image.copy()  # type: ignore[union-attr]
    seen.document.select((f"cell:{cell(seen, 'A2')}",))
    with qtbot.waitSignal(seen.model.drawn, timeout=10_000):
        type_into(spec(seen, "width"), "1000")
    assert seen.model._image != before


def test_a_click_on_the_model_picks_a_unit(seen: Window) -> None:
    sources = {
        seen.model.source_at(QPointF(x, y))
        for x in range(20, seen.model.width(), 12)
        for y in range(20, seen.model.height(), 12)
    }
    units = {s for s in sources if s.startswith("cell:")}
    assert len(units) >= 5
    assert any(s.startswith("room:") for s in sources)


def test_fit_and_zoom_draw_again(seen: Window, qtbot) -> None:
    seen.model.zoom(2.0)
    seen.model.render_now()
    near = seen.model.distance
    seen.model.fit()
    seen.model.render_now()
    assert seen.model.distance > near


def test_the_drawn_picture_shows_in_grab(seen: Window) -> None:
    image = seen.model.grab().toImage()
    found = {image.pixel(x, y) for x in range(0, image.width(), 9) for y in range(0, image.height(), 9)}
    assert len(found) > 8
