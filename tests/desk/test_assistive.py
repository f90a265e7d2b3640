"""For everyone: every widget that takes keys or clicks has a name, is large enough, and shows when the keys are its own."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
import pytest
from numpy.typing import NDArray
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QImage
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import (
    QAbstractButton,
    QAbstractScrollArea,
    QApplication,
    QHeaderView,
    QLabel,
    QMenu,
    QMenuBar,
    QTableWidget,
    QWidget,
)

from desk.conftest import opened, type_into
from tall_plank.demo import demo_job
from tall_plank.desk.app.dialogs import KeySheet, PreferencesDialog
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import theme
from tall_plank.desk.pages.standards import StandardsPage
from tall_plank.desk.pages.stock import StockPage
from tall_plank.files.userdata import UserFolders
from tall_plank.job import Kind

LEAST = 24
"""px; WCAG 2.2, success criterion 2.5.8, target size (minimum)."""

SEEN = 3.0
"""WCAG 2.2, success criteria 1.4.11 and 2.4.13: contrast of what shows the focus, before and after."""


@pytest.fixture
def demo_window(qtbot, folders: UserFolders) -> Iterator[Window]:
    yield from opened(qtbot, demo_job(), folders)


def places(w: Window) -> Iterator[str]:
    """Every stage, schedule and page, and the sheets of what can be selected; one after another on screen."""
    doc = w.document
    for stage in ("room", "units", "finish"):
        w.show_stage(stage)
        yield stage
    for stage in ("shop", "offer"):
        w.show_stage(stage)
        for i in range(w.lists.count()):
            w.lists.setCurrentRow(i)
            QTest.qWait(1)
            yield f"{stage} {w.lists.item(i).text()}"
    w.show_stage("units")
    room = doc.room.room
    for source in (
        *(Kind.CELL.of(p.cell) for p in doc.room.placed[:4]),
        Kind.RUN.of(room.runs[0].id),
        Kind.WALL.of("A"),
        *(Kind.ISLAND.of(i.id) for i in room.islands),
        *(Kind.OPENING.of(o.id) for o in room.openings[:1]),
    ):
        doc.select((source,))
        yield str(source)
    w.commands.run("type_base")
    yield "the run's text"
    w.run_text.hide()


def dialogs(w: Window, qtbot) -> Iterator[QWidget]:
    for dialog in (
        PreferencesDialog(w, w.preferences), KeySheet(w, w.commands, w.commands.titles), StandardsPage(w, w.document), StockPage(w, w.document),
    ):  # fmt: skip
        qtbot.addWidget(dialog)
        dialog.show()
        qtbot.waitExposed(dialog)
        yield dialog
        dialog.close()


def acting(root: QWidget) -> list[QWidget]:
    """Widgets on screen that take keys or clicks."""
    return [
        x
        for x in root.findChildren(QWidget)
        if x.isVisibleTo(root)
        and not isinstance(x, QMenu | QMenuBar | QHeaderView)
        and not x.objectName().startswith("qt_")
        and (x.focusPolicy() & Qt.FocusPolicy.TabFocus or isinstance(x, QAbstractButton))
        and not _inside(x)
    ]


def _inside(x: QWidget) -> bool:
    """A part of another widget: the corner of a table, the arrow that clears a box."""
    around = x.parentWidget()
    while around is not None:
        if isinstance(around, QAbstractScrollArea) and around.metaObject().className() in (
            "QTableView",
            "QTableWidget",
        ):
            return True
        if around.inherits("QLineEdit") or around.inherits("QComboBox"):
            return True
        around = around.parentWidget()
    return False


def name_of(x: QWidget) -> str:
    text = x.text() if isinstance(x, QAbstractButton | QLabel) else ""
    return (x.accessibleName() or text or x.windowTitle()).strip()


def wrong(root: QWidget, where: str) -> list[str]:
    found = []
    for x in acting(root):
        what = f"{where}: {type(x).__name__} {x.objectName()} “{name_of(x)}”"
        if not name_of(x):
            found.append(f"{what} has no name")
        if min(x.width(), x.height()) < LEAST and not isinstance(x, QAbstractScrollArea):
            found.append(f"{what} is {x.width()} x {x.height()} px")
    return found


def test_everything_has_a_name_and_can_be_hit(demo_window: Window, qtbot) -> None:
    w = demo_window
    found = [line for where in places(w) for line in wrong(w, where)]
    for dialog in dialogs(w, qtbot):
        found += wrong(dialog, type(dialog).__name__)
    assert not found, "\n".join(sorted(set(found))[:40])


def test_a_value_says_where_it_comes_from_and_what_is_wrong_with_it(window: Window) -> None:
    w = window
    placed = next(p for p in w.document.room.placed if p.number == "A2")
    w.document.select((Kind.CELL.of(placed.cell),))
    height = w.spec.line("height")
    assert height.value.accessibleName() == "Height"
    assert height.value.accessibleDescription().startswith("inherited, from ")
    type_into(height.value, "760")
    assert w.spec.line("height").value.accessibleDescription().startswith("own value")
    type_into(w.spec.line("height").value, "high")
    assert w.spec.line("height").value.accessibleDescription() == w.spec.line("height").error.text() != ""
    assert "A2" in w.strip.accessibleDescription()


# --- where the keys go is seen


def light(x: QWidget, root: QWidget) -> NDArray[np.float64]:
    """Relative luminance (WCAG 2.2, definition of relative luminance) of a widget and its surroundings on screen."""
    rect = x.rect().translated(x.mapTo(root, x.rect().topLeft())).adjusted(-4, -4, 4, 4).intersected(root.rect())
    image = root.grab(rect).toImage().convertToFormat(QImage.Format.Format_RGB32)
    bits = image.constBits()
    assert bits is not None
    bits.setsize(image.sizeInBytes())
    row = image.bytesPerLine() // 4
    rgb = np.frombuffer(bits, np.uint8).reshape(image.height(), row, 4)[:, : image.width(), 2::-1] / 255.0
    linear = np.where(rgb <= 0.04045, rgb / 12.92, ((rgb + 0.055) / 1.055) ** 2.4)
    found: NDArray[np.float64] = linear @ np.array([0.2126, 0.7152, 0.0722])
    return found


def contrast(a: NDArray[np.float64], b: NDArray[np.float64]) -> NDArray[np.float64]:
    found: NDArray[np.float64] = (np.maximum(a, b) + 0.05) / (np.minimum(a, b) + 0.05)
    return found


def unseen(root: QWidget, where: str, done: set[tuple[str, str]]) -> list[str]:
    """Widgets that look alike with and without the keys; each kind is tried once."""
    found = []
    for x in acting(root):
        key = (type(x).__name__, x.objectName())
        whole = x.visibleRegion().boundingRect() == x.rect()
        if key in done or not x.isEnabled() or not (x.focusPolicy() & Qt.FocusPolicy.TabFocus) or not whole:
            continue
        other = QApplication.focusWidget()
        if other is not None:
            other.clearFocus()
        before = light(x, root)
        x.setFocus(Qt.FocusReason.TabFocusReason)
        QTest.qWait(1)
        if not x.hasFocus():
            continue
        done.add(key)
        after = light(x, root)
        if before.shape != after.shape or int((contrast(before, after) >= SEEN).sum()) < min(x.width(), x.height()):
            found.append(f"{where}: {key} “{name_of(x)}”")
    return found


@pytest.mark.parametrize("dark", [False, True])
def test_what_has_the_keys_stands_out(demo_window: Window, qtbot, dark: bool) -> None:
    w = demo_window
    w.set_look("dark" if dark else "light")
    try:
        done: set[tuple[str, str]] = set()
        found = [line for where in places(w) for line in unseen(w, where, done)]
        for dialog in dialogs(w, qtbot):
            dialog.activateWindow()
            found += unseen(dialog, type(dialog).__name__, done)
        assert len(done) > 15
        assert not found, "\n".join(found)
    finally:
        theme.apply(QApplication.instance(), dark=False)  # type: ignore[arg-type]


def test_the_ring_goes_with_its_widget_and_covers_no_click(window: Window) -> None:
    w = window
    tally = next(b for b in w.tally.findChildren(QAbstractButton) if b.isVisible())
    tally.setFocus(Qt.FocusReason.TabFocusReason)
    ring = next(r for r in w.findChildren(QWidget, "focusRing") if r.isVisible())
    assert ring.geometry().contains(tally.rect().translated(tally.mapTo(w, tally.rect().topLeft())))
    w.resize(1100, 760)
    QTest.qWait(1)
    assert ring.geometry().contains(tally.rect().translated(tally.mapTo(w, tally.rect().topLeft())))
    assert ring.testAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
    w.strip.setFocus()
    assert ring.height() <= 4  # along the head of a pane
    w.spec.line("name").value.setFocus() if "name" in w.spec.lines else w.shelf.search.setFocus()
    assert not ring.isVisible()  # a box shows it by itself


def test_a_table_of_values_is_a_target_row_by_row(window: Window, qtbot) -> None:
    page = StandardsPage(window, window.document)
    qtbot.addWidget(page)
    page.show()
    table = page.findChild(QTableWidget)
    assert table is not None and min(table.rowHeight(i) for i in range(table.rowCount())) >= LEAST
