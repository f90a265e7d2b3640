"""The demo job: Skerry Quay, a boathouse conversion. All names, prices and finishes are invented."""

from __future__ import annotations

from tall_plank.edits import (
    bays,
    fittings,
    hanging,
    jobs,
    outline,
    papers,
    placing,
    rooms,
    runs,
    runtext,
    standards,
    units,
)
from tall_plank.edits.change import Change
from tall_plank.edits.things.column import add_column, set_column
from tall_plank.edits.things.island import add_island, set_island
from tall_plank.edits.things.molding import add_molding
from tall_plank.edits.things.opening import add_opening, set_opening
from tall_plank.edits.things.roof_window import add_roof_window, set_roof_window
from tall_plank.edits.things.service import add_service
from tall_plank.edits.things.sliding import add_sliding_over, copy_leaf, set_band, set_band_count
from tall_plank.edits.things.slope import add_slope, set_slope
from tall_plank.edits.things.soffit import add_soffit, set_soffit
from tall_plank.edits.things.wall_field import add_field, cover_column, repeat_on, set_field
from tall_plank.edits.treatments import cover_zone, rename_treatment, set_zone
from tall_plank.job import Job, Kind, Level, Role
from tall_plank.job.start import new_job
from tall_plank.job.things.sliding import BayRef


class _Bench:
    """The job as it grows, one step after another."""

    def __init__(self, name: str) -> None:
        self.job = new_job(name)

    def do(self, change: Change) -> str:
        """Take a step; the first id that it made."""
        self.job = change.job
        return change.made[0] if change.made else ""

    def run(self, room: str, wall_id: str, level: Level, text: str) -> str:
        run = self.do(runs.add_run(self.job, room, wall_id, level))
        self.do(runtext.type_run(self.job, run, text))
        return run

    def cell(self, run: str, index: int) -> str:
        return self.job.find_run(run)[1].cells[index].id


def demo_job() -> Job:
    """An L-shaped kitchen with a corner unit, a chimney breast, a soffit, a sloped ceiling and an island to sit at;
    a boot room with a bench and lockers; and a sleeping loft with a wardrobe behind sliding doors, a media unit on legs
    under floating shelves, a vanity, a bookcase and slats round an arch; and a stair hall with a dado."""
    b = _Bench("Skerry Quay")
    b.do(jobs.set_text(b.job, "number", "SQ-014"))
    b.do(jobs.set_text(b.job, "client", "M. Harrow"))
    b.do(jobs.set_text(b.job, "site", "The Boathouse, Skerry Quay"))
    b.do(papers.set_papers(b.job, "firm", "Tern Street Joinery"))
    b.do(papers.set_papers(b.job, "creator", "I. Marr"))
    _galley_room(b)
    _galley_units(b)
    _galley_island(b)
    _boot_room(b)
    _loft(b)
    _stair_hall(b)
    for kind in ("unit cornice", "light rail"):
        b.do(add_molding(b.job, "r1", kind))
    _stair(b)
    _snug(b)
    b.do(standards.set_in_force(b.job, "front_style", "framed"))
    b.do(units.set_scheme_finish(b.job, Role.FRONT, "sea-sage"))
    return b.job


def _galley_room(b: _Bench) -> None:
    b.do(rooms.rename_room(b.job, "r1", "Galley"))
    b.do(rooms.set_use(b.job, "r1", "kitchen"))
    b.do(outline.type_outline(b.job, "r1", "6000mm, 4800mm, 3600mm, 1800mm corner 270, rest, rest"))
    slope = b.do(add_slope(b.job, "r1", "C"))
    b.do(set_slope(b.job, slope, "low", "1750mm"))
    b.do(set_slope(b.job, slope, "run", "1000mm"))
    light = b.do(add_roof_window(b.job, "r1", "C"))
    b.do(set_roof_window(b.job, light, "x", "1400mm"))
    soffit = b.do(add_soffit(b.job, "r1", "A", 420.0, 260.0))
    b.do(set_soffit(b.job, soffit, "drop", "260mm"))
    breast = b.do(add_column(b.job, "r1", "F", "chimney breast"))
    # So far from wall A that a fridge's door opens before it.
    b.do(set_column(b.job, breast, "width", "800mm"))
    b.do(set_column(b.job, breast, "x", "800mm"))
    for wall, kind, sizes in (
        ("B", "window", {"width": "1300mm", "x": "1900mm", "sill": "1080mm", "height": "1050mm"}),
        ("D", "door", {"x": "900mm"}),
        ("E", "arch", {"x": "700mm", "width": "1000mm"}),
        ("F", "niche", {"x": "250mm", "width": "500mm"}),
    ):
        opening = b.do(add_opening(b.job, "r1", wall, kind))
        for key, text in sizes.items():
            b.do(set_opening(b.job, opening, key, text))
    b.do(add_molding(b.job, "r1", "skirting"))
    for wall, kind, x in (
        ("B", "water", 2450.0),
        ("B", "waste", 2650.0),
        ("A", "power", 950.0),
        ("A", "power", 2500.0),
        ("B", "power", 2050.0),
        ("A", "vent", 2700.0),
    ):
        b.do(add_service(b.job, "r1", wall, kind, x))


def _galley_units(b: _Bench) -> None:
    north = b.run(
        "r1",
        "A",
        Level.BASE,
        "tall filler 50, fridge housing 600, oven housing 600, drawers 800, hob 900, drawers 800, pullout 300, "
        "drawer pair rest, corner 950",
    )
    b.do(units.set_own(b.job, (b.cell(north, 8),), "corner_leg", "950mm"))
    east = b.run("r1", "B", Level.BASE, "door rest, dishwasher 600, sink 900, drawers 800, slant right 300")
    window = next(o.id for o in b.job.room("r1").openings if o.kind == "window")
    b.do(placing.hold(b.job, b.cell(east, 2), "centre", Kind.OPENING.of(window)))
    hung = b.run("r1", "A", Level.HUNG, "gap 1250, pair 800, hood 900, pair 800, pair share, pair share, corner 600")
    for index, base in ((1, 3), (2, 4), (3, 5)):
        b.do(placing.hold(b.job, b.cell(hung, index), "span", Kind.CELL.of(b.cell(north, base))))
    b.run("r1", "B", Level.HUNG, "door 450, pair 800")


def _galley_island(b: _Bench) -> None:
    island = b.do(add_island(b.job, "r1"))
    for key, text in (
        ("angle", "180"), ("x", "4300mm"), ("y", "2500mm"), ("length", "1900mm"), ("seating", "300mm"),
        ("right", "waterfall"),
    ):  # fmt: skip
        b.do(set_island(b.job, island, key, text))
    b.run("r1", "K1", Level.BASE, "drawers 600, drawers share, pair share")


def _boot_room(b: _Bench) -> None:
    room = b.do(outline.add_room(b.job, "Boot room"))
    b.do(rooms.set_use(b.job, room, "boot room"))
    b.do(rooms.set_room_length(b.job, room, "width", "3300mm"))
    b.do(rooms.set_room_length(b.job, room, "depth", "2100mm"))
    door = b.do(add_opening(b.job, room, "D", "door"))
    b.do(set_opening(b.job, door, "x", "300mm"))
    lockers = b.run(room, "A", Level.BASE, "locker 450, locker 450, bench 1500, locker 450, locker rest")
    b.do(units.set_hand(b.job, (b.cell(lockers, 0), b.cell(lockers, 3)), "right"))
    b.run(room, "A", Level.HUNG, "gap 900, floating 1500")
    b.do(add_molding(b.job, room, "skirting"))
    field = b.do(add_field(b.job, room, "C", "modules"))
    treatment = b.job.room(room).fields[-1].treatment
    b.do(rename_treatment(b.job, treatment, "Relief wall"))
    b.do(set_field(b.job, field, "right_meets", "gap"))
    for key, text in (
        ("width", "600mm"), ("height", "600mm"), ("ring", "160mm"), ("finish", "boat-blue"),
        ("center_finish", "sea-sage"), ("ring_thickness", "19mm"),
    ):  # fmt: skip
        b.do(set_zone(b.job, treatment, (), key, text))


def _loft(b: _Bench) -> None:
    room = b.do(outline.add_room(b.job, "Sleeping loft"))
    b.do(rooms.set_use(b.job, room, "bedroom"))
    for key, text in (("width", "4400mm"), ("depth", "3600mm"), ("height", "2450mm")):
        b.do(rooms.set_room_length(b.job, room, key, text))
    door = b.do(add_opening(b.job, room, "D", "door"))
    b.do(set_opening(b.job, door, "x", "300mm"))
    for kind in ("water", "waste"):
        b.do(add_service(b.job, room, "B", kind, 1300.0))
    _wardrobe(b, b.run(room, "A", Level.BASE, "wardrobe 1200, wardrobe 1200, wardrobe 1200"))
    b.run(room, "B", Level.BASE, "gap 850, vanity 900")
    media = b.run(room, "C", Level.BASE, "gap 300, media 1800, gap 300, bookcase 800")
    for key, text in (("feet", "legs"), ("leg_shape", "round"), ("leg_left", "120mm"), ("leg_right", "120mm")):
        b.do(units.set_own(b.job, (b.cell(media, 1),), key, text))
    _media_wall(b, room)
    _bed_wall(b, room)


def _media_wall(b: _Bench, room: str) -> None:
    """Three shelves at a pitch above the low unit, the middle one shifted."""
    first = b.do(hanging.hang(b.job, room, "C", "floating", 300.0, 900.0))
    b.do(runs.set_width(b.job, (first,), "1500mm"))
    change = hanging.repeat_up(b.job, first, 2, "350mm")
    b.do(change)
    b.do(runs.set_clear(b.job, change.made[0], "left", "600mm"))


def _bed_wall(b: _Bench, room: str) -> None:
    """Slats round an arch with a border, beside the door."""
    door = next(o.id for o in b.job.room(room).openings)
    field = b.do(add_field(b.job, room, "D", "arch in slats"))
    treatment = b.job.room(room).fields[-1].treatment
    b.do(rename_treatment(b.job, treatment, "Bed wall"))
    b.do(set_field(b.job, field, "left_to", f"opening:{door} right"))
    for key, text in (("left", "70mm"), ("left_meets", "gap"), ("right", "760mm"), ("top_meets", "gap")):
        b.do(set_field(b.job, field, key, text))
    for key, text in (("width", "900mm"), ("height", "1900mm"), ("border", "60mm")):
        b.do(set_zone(b.job, treatment, (), key, text))
    b.do(cover_zone(b.job, treatment, (2,), "boards"))
    for path, key, text in (
        ((1,), "finish", "keel-oak"), ((1,), "board_finish", "sea-sage"), ((1,), "pattern", "20mm gap 15mm"),
        ((2,), "finish", "boat-blue"), ((2,), "thickness", "19mm"),
    ):  # fmt: skip
        b.do(set_zone(b.job, treatment, path, key, text))


def _stair_hall(b: _Bench) -> None:
    """Four walls of different lengths with one dado: a treatment for all, counts of their own, doors between."""
    room = b.do(outline.add_room(b.job, "Stair hall"))
    b.do(rooms.set_use(b.job, room, "hall"))
    b.do(outline.type_outline(b.job, room, "4310mm, 2410mm corner 97, rest, rest"))
    for wall, x in (("A", "600mm"), ("C", "1500mm")):
        door = b.do(add_opening(b.job, room, wall, "door"))
        b.do(set_opening(b.job, door, "x", x))
        b.do(set_opening(b.job, door, "casing", "MP-CASE-70"))
    b.do(add_molding(b.job, room, "skirting"))
    b.do(add_service(b.job, room, "B", "power", 820.0))
    field = b.do(add_field(b.job, room, "A", "dado"))
    treatment = b.job.room(room).fields[-1].treatment
    b.do(rename_treatment(b.job, treatment, "Hall dado"))
    for key, text in (("target", "500mm"), ("molding", "MP-BEAD-14")):
        b.do(set_zone(b.job, treatment, (0,), key, text))
    b.do(repeat_on(b.job, field, ("B", "C", "D")))


def _stair(b: _Bench) -> None:
    """A flight between two walls: raking panels on both, a skirting along their foot, a rail along their top."""
    room = b.do(outline.add_room(b.job, "Stair"))
    b.do(rooms.set_use(b.job, room, "hall"))
    for key, text in (("width", "3420mm"), ("depth", "1000mm"), ("height", "4300mm")):
        b.do(rooms.set_room_length(b.job, room, key, text))
    b.do(add_field(b.job, room, "A", "raked panels"))
    treatment = b.job.room(room).fields[-1].treatment
    b.do(rename_treatment(b.job, treatment, "Stair wall"))
    for key, text in (
        ("angle", "38"), ("start", "220mm"), ("height", "980mm"), ("foot", "MP-SKIRT-95"), ("cap", "MP-RAIL-63")
    ):  # fmt: skip
        b.do(set_zone(b.job, treatment, (), key, text))
    for key, text in (("target", "480mm"), ("molding", "MP-BEAD-14")):
        b.do(set_zone(b.job, treatment, (0,), key, text))
    other = b.do(repeat_on(b.job, b.job.room(room).fields[-1].id, ("C",)))
    b.do(set_field(b.job, other, "mirrored", "yes"))


def _snug(b: _Bench) -> None:
    """A chimney breast in fluted boards round its three sides, panels on the wall beside it."""
    room = b.do(outline.add_room(b.job, "Snug"))
    b.do(rooms.set_use(b.job, room, "living"))
    for key, text in (("width", "4200mm"), ("depth", "3400mm"), ("height", "2500mm")):
        b.do(rooms.set_room_length(b.job, room, key, text))
    breast = b.do(add_column(b.job, room, "A", "chimney breast", 1380.0))
    for key, text in (("width", "1440mm"), ("depth", "420mm")):
        b.do(set_column(b.job, breast, key, text))
    b.do(add_molding(b.job, room, "skirting"))
    b.do(cover_column(b.job, room, breast, "flat boards"))
    treatment = b.job.room(room).fields[-1].treatment
    b.do(rename_treatment(b.job, treatment, "Fluted breast"))
    for key, text in (
        ("finish", "boat-blue"), ("thickness", "19mm"), ("groove", "8mm"), ("groove_pitch", "24mm"),
        ("groove_depth", "5mm"),
    ):  # fmt: skip
        b.do(set_zone(b.job, treatment, (), key, text))
    b.do(add_field(b.job, room, "A", "equal panels"))
    b.do(rename_treatment(b.job, b.job.room(room).fields[-1].treatment, "Snug panels"))


def _wardrobe(b: _Bench, run: str) -> None:
    """Hanging, shelves over drawers, and long hanging with shoes, with a row of top boxes above; three sliding leaves
    before all of it, one with a mirror."""
    cells = [b.cell(run, i) for i in range(3)]
    for cell in cells:
        b.do(units.set_own(b.job, (cell,), "height", "2020mm"))
        b.do(bays.join_bay(b.job, cell, ()))
        b.do(fittings.remove_fitting(b.job, cell, (), 0))
        b.do(bays.set_front(b.job, ((cell, ()),), "none"))
    left, middle, right = cells
    b.do(bays.split_bay(b.job, left, (), "1:1", "rows", "shelf"))
    for path in ((0,), (1,)):
        b.do(fittings.add_fitting(b.job, left, path, "RL-25"))
    b.do(bays.split_bay(b.job, middle, (), "2", "columns", "divider"))
    for side in (0, 1):
        b.do(bays.split_bay(b.job, middle, (side,), "share 220 220 220", "rows", "shelf"))
        b.do(bays.set_shelves(b.job, middle, (side, 0), "3"))
    b.do(bays.set_front(b.job, tuple((middle, (0, i)) for i in (1, 2, 3)), "inner"))
    b.do(fittings.add_fitting(b.job, middle, (1, 2), "WB-150"))
    b.do(fittings.add_fitting(b.job, middle, (1, 3), "WB-150"))
    b.do(bays.split_bay(b.job, right, (), "share 400", "rows", "shelf"))
    b.do(fittings.add_fitting(b.job, right, (0,), "RL-25"))
    b.do(fittings.add_fitting(b.job, right, (1,), "SH-180"))
    room, _ = b.job.find_run(run)
    row = b.do(hanging.add_row(b.job, room.id, "A"))
    b.do(runtext.type_run(b.job, row, "3 x flap 1200"))
    boxes = [b.cell(row, i) for i in range(3)]
    for key, text in (("height", "230mm"), ("depth", "560mm")):
        b.do(units.set_own(b.job, tuple(boxes), key, text))
    doors = b.do(add_sliding_over(b.job, tuple(BayRef(cell) for cell in (*cells, *boxes)), 3))
    b.do(set_band_count(b.job, doors, 0, "3"))
    b.do(set_band(b.job, doors, 0, 1, "size", "1100mm"))
    b.do(copy_leaf(b.job, doors, 0))
    b.do(set_band(b.job, doors, 1, 1, "finish", "mirror"))
    b.do(runs.set_run_choice(b.job, row, "to_ceiling", "yes"))
