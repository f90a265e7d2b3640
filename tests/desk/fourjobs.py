"""Four jobs from an empty start, by mouse and keys in the real window, as a designer would do them: a kitchen, an island,
a wardrobe, a media wall. Each says how many clicks and keys it may take."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import NamedTuple

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from desk.hand import ALT, CONTROL, SHIFT, Hand
from tall_plank.desk.look import asking
from tall_plank.job import Kind


class FourJob(NamedTuple):
    """A job, and the clicks and keys that it may take."""

    do: Callable[[Hand, Path], None]
    clicks: int
    keys: int


@contextmanager
def answers(hand: Hand, ask: str, path: Path) -> Iterator[None]:
    """The system's own dialog for files is typed into: the name and Enter count."""
    with pytest.MonkeyPatch.context() as patch:

        def typed(*_: object) -> Path:
            hand.keys += len(path.name) + 1
            return path

        patch.setattr(asking, ask, typed)
        yield


def wall(hand: Hand, name: str) -> None:
    """Click on a wall in the strip where nothing stands: high up beside its left end."""
    strip = hand.window.strip
    line = hand.window.document.room.wall(name)
    hand.press(strip, strip.to_px(strip.wall_x(name) + 60.0, line.height - 60.0).toPoint(), what=f"wall {name}")


def save(hand: Hand, path: Path) -> None:
    with answers(hand, "ask_save", path):
        hand.key(Qt.Key.Key_S, CONTROL)
    assert path.is_file()


def number(hand: Hand, template: str, at: int = 0) -> str:
    """The number of a unit of a kind, as it stands in the strip."""
    found = [p for p in hand.window.document.room.placed if p.template == template]
    return found[at].number


def kitchen(hand: Hand, folder: Path) -> None:
    """Two walls, a corner, the sink under its window, a dishwasher, a hob with its hood at its own height, a fridge
    housing, hung units in line, an end panel, another style and finish, one unit otherwise, a width by typing, by
    dragging and by its clear distance, saved, with all papers."""
    w = hand.window
    hand.key(Qt.Key.Key_1, ALT)
    hand.value("outline", "4200, 3000, rest, rest")
    hand.command("window")
    hand.key(Qt.Key.Key_2, ALT)
    # The long wall: base units, the sink held under the window.
    hand.key(Qt.Key.Key_R)
    hand.type("filler 50, fridge, drawers share, sink, dishwasher, corner 1050")
    hand.enter()
    hand.unit(number(hand, "sink"))
    hand.key(Qt.Key.Key_C)
    hand.key(Qt.Key.Key_R, SHIFT)
    hand.type("gap 650, pair 900, gap 1200, 2 x pair 500")
    hand.enter()
    # The short wall: the hob under its hood, an end panel.
    wall(hand, "B")
    hand.key(Qt.Key.Key_R)
    hand.type("drawers 600, hob, drawers rest, panel")
    hand.enter()
    hand.key(Qt.Key.Key_R, SHIFT)
    hand.type("pair share, hood, pair share")
    hand.enter()
    hand.unit(number(hand, "hood"))
    hand.value("underside", "1580")
    # In line with what stands below.
    hand.key(Qt.Key.Key_U)
    # Another style and finish for all, one unit otherwise.
    hand.key(Qt.Key.Key_A, CONTROL)
    hand.choice("front_style", "framed")
    hand.choice("finish_front", "boat-blue")
    hand.unit(number(hand, "drawers"))
    hand.choice("front_style", "slab")
    # A width by typing, one by dragging, one by a clear distance.
    hand.unit(number(hand, "hung-pair"))
    hand.type("w880")
    hand.enter()
    grip = _grip(hand)
    hand.drag(w.strip, grip, grip - QPoint(8, 0))
    hand.unit(number(hand, "hung-pair", 1))
    hand.dim("left", "1150")
    save(hand, folder / "galley.plank")
    with answers(hand, "ask_folder", folder / "papers"):
        hand.key(Qt.Key.Key_E, CONTROL | SHIFT)


def _grip(hand: Hand) -> QPoint:
    """The square at the right side of the selected unit."""
    strip = hand.window.strip
    placed = strip.one_placed()
    assert placed is not None
    x = strip.wall_x(placed.wall_id) + placed.right
    return strip.to_px(x, placed.bottom + placed.height / 2).toPoint()


def island(hand: Hand, folder: Path) -> None:
    """Two faces, five units and two fillers on one, three on the other, both walkways typed, kept in the library and
    placed in another room."""
    w = hand.window
    hand.key(Qt.Key.Key_1, ALT)
    hand.plan_dim("width", "5200")
    hand.plan_dim("depth", "4600")
    hand.key(Qt.Key.Key_I)
    hand.value("length", "2940")
    hand.key(Qt.Key.Key_2, ALT)
    hand.key(Qt.Key.Key_R)
    hand.type("filler 20, drawers 600, 3 x pair share, door 450, filler 20")
    hand.enter()
    strip = w.strip
    face = next(f for f in w.document.room.faces if f.id.endswith("2"))
    hand.press(strip, strip.to_px(strip.wall_x(face.id) + 60.0, 400.0).toPoint(), what="the other face")
    hand.key(Qt.Key.Key_R)
    hand.type("3 x drawers share")
    hand.enter()
    hand.unit(number(hand, "drawers", -1))
    hand.key(Qt.Key.Key_I, SHIFT)
    aisles = [name.rpartition("/")[2] for name in w.spec.lines if "/aisle" in name]
    hand.value(aisles[0], "1100")
    hand.value(aisles[2], "1050")
    hand.key(Qt.Key.Key_B, CONTROL)
    hand.type("Harrow")
    hand.enter()
    hand.key(Qt.Key.Key_R, CONTROL | SHIFT)
    hand.shelf("harrow")
    save(hand, folder / "island.plank")


def wardrobe(hand: Hand, folder: Path) -> None:
    """Wall to wall, with top boxes behind the same leaves."""
    hand.type("r3 x wardrobe share")
    hand.enter()
    hand.key(Qt.Key.Key_A, SHIFT)
    hand.type("3 x flap share")
    hand.enter()
    # The boxes as high as the ceiling leaves, and as deep as what stands below.
    hand.unit(number(hand, "hung-flap"))
    hand.unit(number(hand, "hung-flap", 2), CONTROL)
    hand.unit(number(hand, "hung-flap", 1), CONTROL)
    hand.value("height", "300")
    hand.value("depth", "560")
    hand.key(Qt.Key.Key_A, CONTROL)
    hand.key(Qt.Key.Key_L, SHIFT)
    save(hand, folder / "wardrobe.plank")


def media(hand: Hand, folder: Path) -> None:
    """A low unit on legs, with three shelves at a pitch above it, the middle one shifted."""
    hand.command("low media")
    hand.choice("feet", "legs")
    hand.command("floating shelf")
    hand.type("w1500")
    hand.enter()
    hand.dim("below", "350")
    hand.key(Qt.Key.Key_P, SHIFT)
    hand.type("2 @ 300")
    hand.enter()
    hand.unit(number(hand, "floating", 1))
    hand.dim("left", "300")
    save(hand, folder / "media.plank")


JOBS = {
    "kitchen": FourJob(kitchen, 45, 260),
    "island": FourJob(island, 30, 150),
    "wardrobe": FourJob(wardrobe, 40, 160),
    "media": FourJob(media, 18, 90),
}


def select_all_of(hand: Hand, template: str) -> None:
    """For checks: the units of a kind selected at once."""
    doc = hand.window.document
    doc.select(tuple(Kind.CELL.of(p.cell) for p in doc.room.placed if p.template == template))
    QTest.qWait(0)
