"""Every shipped kind is made from its own starting values, from one general carcass."""

from __future__ import annotations

import math

import pytest

from conftest import cell_of, made_alone, with_run
from tall_plank.edits import bays, runs, units
from tall_plank.job import Body, Job, Level, Template
from tall_plank.job.start import new_job, shipped_templates
from tall_plank.making import Bore, MadeUnit
from tall_plank.measure import outlines as ol
from tall_plank.setout import set_out
from tall_plank.workings import Workings

MADE = [t for t in shipped_templates() if t.body is not Body.GAP]


def one_of(template: Template) -> tuple[Job, MadeUnit]:
    job = runs.insert_unit(new_job(), "r1", "A", template.code).job
    if template.level is Level.TALL:
        from tall_plank.edits import rooms

        job = rooms.set_room_length(job, "r1", "height", "2600").job
    return job, made_alone(job, job.cells()[0].id)


@pytest.mark.parametrize("template", MADE, ids=lambda t: t.code)
def test_each_kind_is_made_without_a_problem(template: Template) -> None:
    _, made = one_of(template)
    assert [p for p in made.problems if p.weight == "wrong"] == []
    if template.body is Body.CARCASS:
        assert made.parts
    for part in made.parts:
        assert part.length > 0 and part.width > 0 and part.weight > 0
        for op in part.operations:
            if isinstance(op, Bore) and op.face in ("A", "B"):
                assert -0.01 <= op.x <= part.length + 0.01 and -0.01 <= op.y <= part.width + 0.01, part.name


@pytest.mark.parametrize("template", [t for t in MADE if t.body is Body.CARCASS], ids=lambda t: t.code)
def test_each_kind_is_made_at_the_ends_of_its_range_or_says_why_not(template: Template) -> None:
    for width in (template.least, template.most):
        job = runs.insert_unit(new_job(), "r1", "A", template.code).job
        job = runs.set_width(job, (job.cells()[0].id,), f"{width}").job
        made = Workings(job).made.of(job.cells()[0].id)
        assert made is not None
        assert made.parts or made.problems


def test_the_kinds_of_the_trade_are_all_there() -> None:
    words = {word for t in shipped_templates() for word in t.words}
    assert {
        "door", "drawers", "drawer door", "pullout", "sink", "hob", "dishwasher", "oven", "oven housing",
        "fridge housing", "drainer", "open", "blind", "corner", "slant corner", "slant right", "slant left", "bow",
        "hollow", "bookcase", "vanity", "bench", "desk", "table", "locker", "wardrobe", "laundry housing", "box", "bed",
        "media", "bed side", "floating", "hood", "free", "cooler", "cooker", "panel", "filler", "between",
    } <= words  # fmt: skip


def corner(kind: str, level: Level = Level.BASE) -> tuple[Job, MadeUnit]:
    text = {Level.BASE: "drawers 600, pair 900, pair rest", Level.HUNG: "pair 900, pair 900, pair rest"}[level]
    job = with_run(new_job(), "A", level, f"{text}, {kind}")
    cell = set_out(job).rooms[0].runs[0].cells[-1].cell
    made = Workings(job).made.of(cell)
    assert made is not None
    return job, made


def test_an_l_unit_has_two_gables_two_backs_and_a_two_part_door() -> None:
    _, made = corner("corner 900")
    parts = {p.name: p for p in made.parts}
    assert {"left gable", "leg gable", "bottom", "top", "back", "leg back", "door 1", "door 2", "shelf 1"} <= set(parts)
    bottom = parts["bottom"]
    # The rectangle about both legs less the room before them.
    assert (bottom.length, bottom.width) == (882, 882)
    assert ol.area(bottom.outline) == pytest.approx(882 * 882 - (900 - 560 - 18) ** 2)
    assert bottom.weight == pytest.approx(ol.area(bottom.outline) * 18 * 680e-9)
    # Edging along both open edges.
    inner = 900 - 560 - 18
    assert bottom.banded_shapes == (("S1", "E-BP-1", inner), ("S2", "E-BP-1", inner))
    # Leaves meet in the inner corner: the first ends a gap before the other's face.
    doors = {f.path: f for f in made.fronts}
    assert len(made.fronts) == 2 and len(doors) == 1
    first, second = made.fronts
    assert first.x + first.width == pytest.approx(340 - 19 - 3)
    assert second.x == pytest.approx(3)
    assert {i.code: i.qty for i in made.items}["HF-135"] == 2


def test_a_slanted_corner_has_one_door_on_the_slant() -> None:
    _, made = corner("slant corner 900")
    (door,) = made.fronts
    # At 45 degrees its outer edge, 19 before its plane, stands 1.5 clear of the line of the fronts beside it.
    assert door.width == pytest.approx(math.hypot(340, 340) - 2 * (1.5 * math.sqrt(2) + 19))
    assert door.face is not None and door.face.ux == pytest.approx(math.sqrt(0.5))
    bottom = next(p for p in made.parts if p.name == "bottom")
    assert ol.area(bottom.outline) == pytest.approx(882 * 882 - (900 - 560 - 18) ** 2 / 2)


@pytest.mark.parametrize("kind", ["corner 900", "slant corner 900"])
def test_corner_units_on_either_side_have_the_same_boards(kind: str) -> None:
    right = corner(kind)[1]
    job = with_run(new_job(), "B", Level.BASE, f"{kind}, drawers 600")
    left = Workings(job).made.of(cell_of(job, "B1"))
    assert left is not None and left.parts

    def sizes(made: MadeUnit) -> list[tuple[str, float, float]]:
        return sorted((p.material, round(p.length, 3), round(p.width, 3)) for p in made.parts)

    assert sizes(left) == sizes(right)
    assert sum(p.holes for p in left.parts) == sum(p.holes for p in right.parts)


@pytest.mark.parametrize("kind", ["corner 900", "slant corner 900"])
def test_parts_of_a_corner_unit_do_not_stand_in_one_another(kind: str) -> None:
    """Their boxes are cut by outlines, so the plan of lying boards is checked against that of upright ones."""
    from shapely.geometry import Polygon, box

    _, made = corner(kind)
    upright, lying = [], []
    for p in made.parts:
        if "door" in p.name:
            continue
        a, b = p.frame.origin, p.frame.at(p.length, p.width, p.thickness)
        if abs(p.frame.x[2]) > 0.5:
            upright.append((p.name, box(min(a[0], b[0]), min(a[1], b[1]), max(a[0], b[0]), max(a[1], b[1]))))
        else:
            points = p.outline or ((0, 0), (p.length, 0), (p.length, p.width), (0, p.width))
            lying.append((p.name, Polygon([p.frame.floor(x, y) for x, y in points])))
    for i, (name, shape) in enumerate(upright):
        for other, found in upright[i + 1 :]:
            # Backs sit in grooves 8 deep, less 1 mm of play.
            allowed = 7.2 * 10 if "back" in name + other else 0.1
            assert shape.intersection(found).area <= allowed, (name, other)
        for other, found in lying:
            if "back" not in name:
                assert shape.intersection(found).area < 0.1, (name, other)


def test_a_leg_no_longer_than_the_unit_is_deep_is_refused_with_the_least() -> None:
    job, _ = corner("corner 900")
    cell = set_out(job).rooms[0].runs[0].cells[-1].cell
    job = units.set_own(job, (cell,), "corner_leg", "600").job
    made = Workings(job).made.of(cell)
    assert made is not None and made.parts == ()
    assert "710" in made.problems[0].what


def test_a_slanted_end_has_a_shallow_gable_and_a_door_along_the_slant() -> None:
    _, made = one_of(next(t for t in shipped_templates() if t.code == "end-right"))
    parts = {p.name: p for p in made.parts}
    # At 45 degrees, square-edged: an 18 mm gable ends where the slant meets its inner face.
    assert (parts["left gable"].width, parts["right gable"].width) == (542, 260)
    assert made.fronts[0].width == pytest.approx(math.hypot(300, 300) - 3)
    assert parts["bottom"].outline


def test_a_bowed_front_is_as_long_as_its_arc() -> None:
    """R = (c2/4 + h2) / 2h; length = 2 R atan2(c/2, R - h) (geometry)."""
    _, made = one_of(next(t for t in shipped_templates() if t.code == "bow"))
    door = next(p for p in made.parts if p.name == "door 1")
    chord = 600 - 3
    rise = 0.12 * chord
    radius = (chord**2 / 4 + rise**2) / (2 * rise)
    assert door.bend == pytest.approx(radius)
    assert door.width == pytest.approx(2 * radius * math.atan2(chord / 2, radius - rise))


@pytest.mark.parametrize("kind", ["pair", "bifold", "door"])
def test_a_curved_front_is_one_piece_as_wide_as_its_unit(kind: str) -> None:
    """A pair was bent to two arcs that do not lie on the curve; on a rounded unit each leaf to more than a half turn,
    its cups half a metre before their plates."""
    for code in ("bow", "hollow", "table-round"):
        job = runs.insert_unit(new_job(), "r1", "A", code).job
        cell = job.cells()[0].id
        job = bays.set_front(job, ((cell, ()),), kind).job
        made = made_alone(job, cell)
        if kind == "door" and code != "table-round":
            assert made.parts
            job = bays.set_shelves(job, cell, (), "0").job
            job = bays.set_front(job, ((cell, ()),), "none").job
            job = bays.split_bay(job, cell, (), "2", "columns", "divider").job
            job = bays.set_front(job, ((cell, (0,)), (cell, (1,))), "door").job
            made = made_alone(job, cell)
        assert not made.parts
        assert [p.remedy for p in made.problems if p.weight == "wrong"]
        assert "one piece" in made.problems[0].what or "rounded" in made.problems[0].what


def test_an_appliance_whose_opening_is_too_small_names_what_is_missing() -> None:
    job = with_run(new_job(), "A", Level.BASE, "fridge housing 600")
    cell = job.cells()[0].id
    job = units.set_own(job, (cell,), "depth", "500").job
    (problem,) = Workings(job).made.units[0][1].problems
    assert "air behind it" in problem.what and "530" in problem.what
    assert "mm more deep" in problem.remedy


def test_a_panel_is_flush_with_the_fronts_and_as_thick_as_its_cell() -> None:
    job = with_run(new_job(), "A", Level.BASE, "panel, dishwasher 600")
    (panel,) = Workings(job).made.units[0][1].parts
    assert (panel.length, panel.width, panel.thickness) == (730, 579, 19)
    odd = runs.set_width(job, (cell_of(job, "A1"),), "25").job
    assert "No 25 mm board" in Workings(odd).made.units[0][1].problems[0].what


def test_a_flap_too_heavy_for_its_stays_is_named() -> None:
    job = with_run(new_job(), "A", Level.HUNG, "flap 1200")
    cell = job.cells()[0].id
    # The weakest stay that carries the flap is taken, and says why.
    stays = [i for i in Workings(job).made.of(cell).items if i.code.startswith("ST-")]  # type: ignore[union-attr]
    assert [i.code for i in stays] == ["ST-40"]
    job = units.set_own(job, (cell,), "height", "720").job
    stays = [i for i in Workings(job).made.of(cell).items if i.code.startswith("ST-")]  # type: ignore[union-attr]
    assert [i.code for i in stays] == ["ST-80"] and "8 kg" in stays[0].why
    job = units.set_own(job, (cell,), "height", "1200").job
    (problem,) = Workings(job).made.units[0][1].problems
    assert "a pair of stays carries 16 kg" in problem.what


@pytest.mark.parametrize("code", ["bow", "hollow"])
def test_a_curved_shelf_follows_the_circle_of_its_front(code: str) -> None:
    """Every corner of the front edge of bottom and shelves lies on one circle through both ends; its rise is 12 % of
    the width, outwards at a bow, inwards at a hollow (geometry of a segment)."""
    _, made = one_of(next(t for t in shipped_templates() if t.code == code))
    w, d = made.spec.width, made.spec.depth
    rise = 0.12 * w
    radius = (w**2 / 4 + rise**2) / (2 * rise)
    bottom = next(p for p in made.parts if p.name == "bottom")
    # Its rear corners stand at the back; all others are the front edge.
    points = [bottom.frame.at(x, y) for x, y in bottom.outline]
    front = [(x, y) for x, y, _ in points if y < -rise - 1.0]
    assert len(front) > 20
    if code == "bow":
        centre = (w / 2, -d + radius)
        assert min(y for _, y in front) == pytest.approx(-d, abs=0.2)
    else:
        centre = (w / 2, -d + rise - radius)
        assert max(y for x, y in front if abs(x - w / 2) < w / 20) == pytest.approx(-d + rise, abs=0.4)
    for x, y in front:
        assert math.dist((x, y), centre) == pytest.approx(radius, abs=0.6), (x, y)
