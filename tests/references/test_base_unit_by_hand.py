"""Cut sizes of a base unit 600 x 730 x 560 worked out by hand from the construction rules (common practice).

Gables, bottom and rails of 18 mm, back of 9 mm in grooves 8 deep, edging 1.0, pre-milling 0.5 a banded edge.
"""

from __future__ import annotations

import pytest

from tall_plank.edits import runs, runtext, standards
from tall_plank.job import Level
from tall_plank.job.start import new_job
from tall_plank.making import Edges, Groove, Part, Rebate, make_job
from tall_plank.setout import set_out


def parts(text: str, style: str = "slab", level: Level = Level.BASE) -> dict[str, Part]:
    change = runs.add_run(new_job(), "r1", "A", level)
    job = runtext.type_run(change.job, change.made[0], text).job
    job = standards.set_in_force(job, "front_style", style).job
    return {p.name: p for p in make_job(job, set_out(job)).units[0][1].parts}


# name, finished length and width, cut length and width
BY_HAND = [
    ("left gable", 730, 560, 730, 560 - 1 + 0.5),
    ("right gable", 730, 560, 730, 559.5),
    ("bottom", 600 - 36, 560, 564, 559.5),
    ("front rail", 564, 100, 564, 99.5),
    ("rear rail", 564, 100, 564, 100),
    # clear width 564 + 2 x (8 - 1); from the bottom's groove (18 - 8 + 1) to the top of the gables
    ("back", 730 - 11, 564 + 14, 719, 578),
    # clear width less 1 each side; depth 560 - (15 + 9 + 0.2) - 20 - 2
    ("shelf 1", 562, 513.8, 562, 513.3),
    # width less 1.5 each side, height less 3 at the top; banded all round
    ("door 1", 727, 597, 726, 596),
]


@pytest.mark.parametrize(("name", "length", "width", "cut_length", "cut_width"), BY_HAND)
def test_a_base_unit_with_a_door(name: str, length: float, width: float, cut_length: float, cut_width: float) -> None:
    part = parts("door 600")[name]
    assert (part.length, part.width) == pytest.approx((length, width))
    assert (part.cut_length, part.cut_width) == pytest.approx((cut_length, cut_width))


def test_edges_of_the_base_unit() -> None:
    found = parts("door 600")
    assert found["left gable"].edges == Edges(l1="E-BP-1")
    assert found["back"].edges == Edges()
    assert found["door 1"].edges == Edges("E-SS-1", "E-SS-1", "E-SS-1", "E-SS-1")


def test_a_hung_gable_is_banded_at_its_foot_too() -> None:
    """The left gable's length runs down, so its foot is W2; the right one's runs up, so its foot is W1."""
    found = parts("door 600", level=Level.HUNG)
    assert found["left gable"].edges == Edges(l1="E-BP-1", w2="E-BP-1")
    assert found["right gable"].edges == Edges(l1="E-BP-1", w1="E-BP-1")
    assert found["left gable"].cut_length == 720 - 1 + 0.5


def test_the_back_of_a_unit_with_a_whole_top() -> None:
    """Between grooves of bottom and top: 720 - 2 x 18 + 2 x (8 - 1)."""
    assert parts("door 600", level=Level.HUNG)["back"].length == 720 - 36 + 14


def test_the_back_groove_lies_15_before_the_rear_edge() -> None:
    gable = parts("door 600")["left gable"]
    (groove,) = (op for op in gable.operations if isinstance(op, Groove))
    assert (groove.face, groove.depth, groove.width) == ("A", 8, pytest.approx(9.2))
    assert 560 - (groove.y1 + groove.width / 2) == pytest.approx(15)
    assert abs(groove.x2 - groove.x1) == 730


def test_a_framed_door_has_five_real_parts() -> None:
    """Door 727 x 597, frame 70, groove 10, 1 mm of movement at each edge of the panel.

    Rails 597 - 140 + 20 = 477 (both tongues); panel 597 - 140 + 18 = 475 by 727 - 140 + 18 = 605.
    """
    found = parts("door 600", "framed")
    frame = {name.removeprefix("door 1 "): p for name, p in found.items() if name.startswith("door 1")}
    assert set(frame) == {"left stile", "right stile", "top rail", "bottom rail", "panel"}
    assert (frame["left stile"].length, frame["left stile"].width) == (727, 70)
    assert (frame["top rail"].length, frame["top rail"].width) == (477, 70)
    assert (frame["panel"].length, frame["panel"].width) == (605, 475)
    assert frame["panel"].thickness == 9
    tongue = [op for op in frame["top rail"].operations if isinstance(op, Rebate)]
    assert {(op.edge, op.face) for op in tongue} == {("W1", "A"), ("W1", "B"), ("W2", "A"), ("W2", "B")}
    assert all(op.width == 10 for op in tongue)
    # the tongue is as thick as the groove is wide
    assert 19 - 2 * tongue[0].depth == pytest.approx(9.2)


def test_a_drawer_box_against_the_clearance_of_its_runners() -> None:
    """Side-mounted ball-bearing runners take 12.7 mm (1/2 in) each side: box = clear width - 25.4."""
    found = parts("drawers 600")
    side, front, bottom = (found[f"drawer 2 {w}"] for w in ("left side", "front", "bottom"))
    assert side.length == 500
    # front between the sides of 15 mm
    assert front.length == pytest.approx(564 - 25.4 - 30)
    # grooves 7 deep, 1 mm short each side
    assert bottom.length == pytest.approx(564 - 25.4 - 30 + 12)
    assert bottom.width == pytest.approx(500 - 30 + 12)


def test_weights_against_worked_examples() -> None:
    """Worked from density x volume: MDF 597 x 717 x 18 at 750 kg/m3 weighs 5.7787 kg; birch plywood
    1220 x 2440 x 18 at 680 weighs 36.4360 kg; particleboard 2800 x 2070 x 18 at 650 weighs 67.8132 kg."""
    from tall_plank.making.parts import Draft
    from tall_plank.measure import Frame
    from tall_plank.stock import Board, Stock

    for density, length, width, kg in ((750, 597, 717, 5.7787), (680, 1220, 2440, 36.4360), (650, 2800, 2070, 67.8132)):
        board = Board("X", "x", "f", 18.0, 1.0, 1.0, float(density))
        part = Draft("x", board, (length, width), Frame(), "").done(Stock(), 0.5, 0.0)
        assert part.weight == pytest.approx(kg, abs=5e-5)


def test_board_densities_of_the_stock_lie_in_their_published_ranges() -> None:
    """Particleboard 600-720, MDF 700-800 (common practice); birch plywood 680 (plywood handbook, from memory)."""
    from tall_plank.stock import shipped_stock

    for board in shipped_stock().boards:
        if board.cut_to_size:
            # Soda lime silicate glass, EN 572-1: 2500 kg/m3.
            assert board.density == 2500
        elif "MDF" in board.name:
            assert 700 <= board.density <= 800
        elif "ply" in board.name.lower():
            assert board.density == 680
        else:
            assert 600 <= board.density <= 760, board.code
