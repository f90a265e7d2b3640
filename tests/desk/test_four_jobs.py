"""Four jobs from an empty start in the real window, within the clicks and keys that they may take; what comes out is what
was asked for. How fast each step is, is measured by `./plank bench hand`."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from desk.fourjobs import JOBS
from desk.hand import CONTROL, Hand
from tall_plank.desk.app.window import Window
from tall_plank.files.plankfile import read_plank
from tall_plank.job import Job, Level
from tall_plank.setout import Placed, set_out
from tall_plank.workings import Workings


def done(name: str, w: Window, folder: Path, qtbot) -> tuple[Hand, Job]:
    """A job done by hand, within its clicks and keys, and read from its file again."""
    hand, job = Hand(w), JOBS[name]
    job.do(hand, folder)
    if w.package_task is not None:
        qtbot.waitUntil(lambda: "written" in w.message.text.text().lower() or w.package_task is None, timeout=120_000)
    assert hand.clicks < job.clicks, f"{hand.clicks} clicks"
    assert hand.keys < job.keys, f"{hand.keys} keys"
    (path,) = folder.glob("*.plank")
    saved = read_plank(path)
    assert saved == w.document.job
    assert not [u.problems for _, u in Workings(saved).made.units if u.problems]
    return hand, saved


def kinds(job: Job, room: int = 0) -> dict[str, list[Placed]]:
    found: dict[str, list[Placed]] = {}
    for p in set_out(job).rooms[room].placed:
        found.setdefault(p.template, []).append(p)
    return found


def test_a_kitchen(empty_window: Window, tmp_path: Path, qtbot) -> None:
    _, job = done("kitchen", empty_window, tmp_path, qtbot)
    layout = set_out(job).rooms[0]
    of = kinds(job)
    window = job.rooms[0].openings[0]
    (sink,), (hob,), (hood,) = of["sink"], of["hob"], of["hood"]
    assert sink.x + sink.width / 2 == pytest.approx(window.x.mm + window.width.mm / 2)
    assert of["dishwasher"][0].x == pytest.approx(sink.right)
    # The hood at its own height over the hob, in line with it; the others at the run's.
    assert (hood.x, hood.right) == pytest.approx((hob.x, hob.right))
    assert hood.bottom == 1580.0
    assert len({p.bottom for p in layout.placed if p.level is Level.HUNG and p.template != "hood"}) == 1
    assert of["corner-l"][0].corner == "right" and of["panel"][0].wall_id == "B"
    # One unit otherwise than all others with fronts.
    styles = {p.number: job.unit(p.unit).own_value("front_style") for p in layout.placed}
    assert [n for n, style in styles.items() if style == "slab"] == [of["drawers"][0].number]
    assert sum(style == "framed" for style in styles.values()) > 8
    # By typing, by dragging, by a clear distance.
    assert of["hung-pair"][0].width != 900.0 and of["hung-pair"][0].width < 880.0
    gap = of["hung-pair"][1].x - of["hung-pair"][0].right
    assert gap == pytest.approx(1150.0)
    names = {p.name for p in (tmp_path / "papers").rglob("*")}
    assert any(n.startswith("cut-list") for n in names) and any(n.startswith("estimate") for n in names), names


def test_an_island_kept_and_placed_in_another_room(empty_window: Window, tmp_path: Path, qtbot) -> None:
    from tall_plank.setout.clear import aisles_of

    _, job = done("island", empty_window, tmp_path, qtbot)
    first, second = set_out(job).rooms
    by_face = {f: [p.template for p in first.placed if p.wall_id == f] for f in ("K1", "K2")}
    assert by_face == {
        "K1": ["filler", "drawers", "pair", "pair", "pair", "door", "filler"],
        "K2": ["drawers"] * 3,
    }
    walks = aisles_of(first, first.room.islands[0])
    assert (walks[0][1], walks[2][1]) == pytest.approx((1100.0, 1050.0))
    assert [p.template for p in second.placed] == [p.template for p in first.placed]


def test_a_wardrobe_with_top_boxes_behind_the_same_leaves(empty_window: Window, tmp_path: Path, qtbot) -> None:
    _, job = done("wardrobe", empty_window, tmp_path, qtbot)
    (doors,) = Workings(job).made.sliding
    placed = set_out(job).placed
    assert doors.width == pytest.approx(3600.0, abs=4.0)
    assert doors.z + doors.height == pytest.approx(max(p.top for p in placed), abs=3.0)
    assert {p.template for p in placed} == {"wardrobe", "hung-flap"}
    assert not doors.problems


def test_a_media_wall_with_three_shelves_the_middle_one_shifted(empty_window: Window, tmp_path: Path, qtbot) -> None:
    _, job = done("media", empty_window, tmp_path, qtbot)
    of = kinds(job)
    (unit,), shelves = of["media"], of["floating"]
    assert unit.feet == "legs"
    assert [p.x for p in shelves] == [0.0, 300.0, 0.0]
    assert [b.bottom - a.bottom for a, b in zip(shelves, shelves[1:], strict=False)] == [300.0, 300.0]
    assert shelves[0].bottom - unit.top == pytest.approx(350.0)
    assert {p.width for p in shelves} == {1500.0}


def test_fifty_undos_of_a_held_key_give_everything_back(empty_window: Window) -> None:
    w, hand = empty_window, Hand(empty_window)
    start = w.document.job
    hand.command("low media")
    for i in range(50):
        hand.type(f"w{1400 + i}")
        hand.enter()
    assert w.document.room.placed[0].width == 1449.0
    hand.key(Qt.Key.Key_Z, CONTROL, times=51)
    assert w.document.job.rooms == start.rooms
    QTest.keyClick(w, Qt.Key.Key_Y, CONTROL)
