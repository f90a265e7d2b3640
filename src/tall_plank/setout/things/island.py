"""Islands and peninsulas: their faces, their worktop, and the panels that close them."""

from __future__ import annotations

import math
from collections.abc import Sequence

import msgspec

from tall_plank.job import Basis, Bay, Construction, Island, Kind, Level, Room, Top, Unit
from tall_plank.job.choices import Side
from tall_plank.job.inherit import construction_of, finish_of
from tall_plank.job.scheme import Role
from tall_plank.measure import Frame, PlankError
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import NEG_X, NEG_Y, RoomFrame, RoomPoint, X, Y, Z
from tall_plank.measure.outlines import Points
from tall_plank.setout.corners import front_depth
from tall_plank.setout.panels import ALL_ROUND, trim_board, waterfall_leg
from tall_plank.setout.plinths import plinths_of
from tall_plank.setout.rooms import walls_of
from tall_plank.setout.runs import RunLayout
from tall_plank.setout.topcuts import SINK_FROM_FRONT, cutouts_of, in_lengths
from tall_plank.setout.tops import edge_profiles, own_outline
from tall_plank.setout.trims import TrimBoard, carries_top, stretches
from tall_plank.setout.wall import Span, Wall
from tall_plank.setout.worktop import Worktop, faces_out, overhang, top_thickness


def island_line(room: Room, island: Island) -> RoomFrame:
    """The frame of an island's first face: x along it, y towards the other face, z up.

    Raises
    ------
    PlankError where the wall of a peninsula is not there
    """
    if island.wall:
        wall = next((w for w in walls_of(room) if w.id == island.wall), None)
        if wall is None:
            raise PlankError(f"There is no wall {island.wall}.", f"island {island.letter}", "Choose another wall.")
        x, y = wall.frame.floor(island.x.mm, 0.0)
        ux, uy = wall.out_of
    else:
        x, y = island.x.mm, island.y.mm
        a = math.radians(island.angle)
        ux, uy = math.cos(a), math.sin(a)
        ux, uy = (0.0 if abs(ux) < 1e-12 else ux), (0.0 if abs(uy) < 1e-12 else uy)
    return Frame(RoomPoint((x, y, 0.0)), (ux, uy, 0.0), (-uy, ux, 0.0))


def faces_of(room: Room, island: Island, spine: float = 0.0) -> tuple[Wall, Wall]:
    """Both faces of an island as lines that runs stand along.

    Parameters
    ----------
    spine : thickness of its dividing panel, mm; the backs stand this far apart at least
    """
    first = island_line(room, island)
    length, gap = island.length.mm, island.gap.mm + (spine if island.spine else 0.0)
    second = first.then(Frame((length, gap, 0.0), (-1.0, 0.0, 0.0), (0.0, -1.0, 0.0)))
    high = room.height.mm
    kind = "peninsula" if island.wall else "island"
    return (
        Wall(f"{island.letter}1", f"{kind} {island.letter}, front", length, high, 0.0, first, island=island.id),
        Wall(f"{island.letter}2", f"{kind} {island.letter}, back", length, high, 0.0, second, island=island.id),
    )


def end_thickness(basis: Basis, island: Island, side: Side, made: Construction) -> float:
    """Length of an island that what closes its end takes, mm: a panel, or a waterfall and the filler beside it.

    Parameters
    ----------
    made : how its first unit is built
    """
    kind = island.left if side == "left" else island.right
    if kind == "open" or (side == "left" and island.wall):
        return 0.0
    if kind == "panel":
        return made.front_thickness
    return top_thickness(basis, island.top) + made.waterfall_filler


def island_boards(
    basis: Basis, island: Island, line: Wall, faces: Sequence[RunLayout], tops: Sequence[Worktop]
) -> list[TrimBoard]:
    """End panels, waterfall legs with their fillers, back panels and the dividing panel of an island."""
    cells = [p for r in faces for p in r.cells if p.is_solid and r.run.level is not Level.HUNG]
    if not cells:
        return []
    first = cells[0]
    made = construction_of(basis, basis.unit(first.unit))
    t, source = made.front_thickness, Kind.ISLAND.of(island.id)
    ones = [p for p in cells if p.wall_id.endswith("1")]
    twos = [p for p in cells if p.wall_id.endswith("2")]
    spine = made.carcass_thickness if island.spine else 0.0
    gap = island.gap.mm + spine
    front = max((front_depth(basis, basis.unit(p.unit)) for p in ones), default=0.0)
    rear = gap + max((front_depth(basis, basis.unit(p.unit)) for p in twos), default=0.0)
    top = next((w for w in tops if w.source == source), None)
    high = max(p.top for p in cells)
    found: list[TrimBoard] = []
    back_t = t if island.back and (not ones or not twos) else 0.0
    panel_rear = rear + (back_t if not twos else 0.0)
    for side, kind in (("left", island.left), ("right", island.right)):
        if kind == "open" or (side == "left" and island.wall):
            continue
        if kind == "panel":
            x = 0.0 if side == "left" else line.length - t
            # Upright, length up; y from the back face to the front one.
            frame = Frame((x, panel_rear, 0.0), Z, NEG_Y) if side == "left" else Frame((x + t, -front, 0.0), Z, Y)
            size = (high, front + panel_rear, t)
            found.append(
                trim_board(basis, first, "end panel", line.id, source, frame, size, banded=("L1", "L2", "W1", "W2"))
            )
            continue
        thick = top_thickness(basis, island.top)
        filler = made.waterfall_filler
        if top is not None:
            x = 0.0 if side == "left" else line.length - thick
            found.append(waterfall_leg(basis, first, line.id, source, x, top))
        for face, group in (("1", ones), ("2", twos)):
            if not group or filler < 1.0:
                continue
            # Seen from its own face, the left end of the second face is the right end of the island.
            left = (side == "left") == (face == "1")
            near = min(group, key=lambda p: p.x) if left else max(group, key=lambda p: p.right)
            wall = f"{island.letter}{face}"
            x = thick if left else line.length - thick - filler
            frame = Frame((x, -near.depth - t, near.bottom), Z, X)
            found.append(
                trim_board(
                    basis, near, "waterfall filler", wall, source, frame, (near.height, filler, t), banded=ALL_ROUND
                )
            )
    x0 = end_inner(island, "left", t, top_thickness(basis, island.top))
    x1 = line.length - end_inner(island, "right", t, top_thickness(basis, island.top))
    if back_t:
        # On the face without units, from the floor to the worktop, in equal pieces.
        front_finish = finish_of(basis, basis.unit(first.unit), Role.FRONT)
        longest = max((b.width for b in basis.stock.boards if b.finish == front_finish), default=1200.0)
        count = max(1, -(-int(x1 - x0) // int(longest - 40)))
        width = (x1 - x0) / count
        for i in range(count):
            at = x0 + width * i
            if not twos:
                frame = Frame((at + width, gap + t, 0.0), Z, NEG_X)
            else:
                frame = Frame((at, -t, 0.0), Z, X)
            found.append(
                trim_board(basis, first, "back panel", line.id, source, frame, (high, width, t), banded=("L1", "L2"))
            )
    if island.spine:
        low = min(p.bottom for p in cells)
        frame = Frame((x0, island.gap.mm / 2 + spine, low), X, Z)
        carcass = finish_of(basis, basis.unit(first.unit), Role.CARCASS)
        size = (x1 - x0, high - low, spine)
        found.append(
            trim_board(basis, first, "dividing panel", line.id, source, frame, size, finish=carcass, banded=("L2",))
        )
    return found


def end_inner(island: Island, side: Side, panel: float, leg: float) -> float:
    """Where the inside of what closes an end lies, from that end, mm."""
    kind = island.left if side == "left" else island.right
    if kind == "open" or (side == "left" and island.wall):
        return 0.0
    return panel if kind == "panel" else leg


def island_tops(
    basis: Basis, island: Island, line: Wall, faces: Sequence[RunLayout], back_panel: float, spine: float
) -> tuple[Worktop, ...]:
    """The worktop over both faces of an island.

    Parameters
    ----------
    line : its first face
    faces : the base runs on its faces
    back_panel : thickness of the panel on a face without units, mm
    spine : thickness of the dividing panel, mm
    """
    runs = [r for r in faces if carries_top(basis, r)]
    groups = [(r, list(stretches(basis, r))) for r in runs]
    cells = [p for _, gs in groups for g in gs for p in g]
    if not cells or island.top.left_out:
        return ()
    top = island.top
    first = cells[0]
    over_front = overhang(basis, top, "front", first)
    gap = island.gap.mm + (spine if island.spine else 0.0)
    ones = [p for p in cells if p.wall_id.endswith("1")]
    twos = [p for p in cells if p.wall_id.endswith("2")]
    own_back = top.edge("back").overhang
    front = faces_out(basis, ones) + over_front if ones else back_panel + island.seating.mm + over_front
    if twos:
        rear = -(
            gap + faces_out(basis, twos) + (own_back.mm if own_back is not None else over_front) + island.seating.mm
        )
    else:
        reach = own_back.mm if own_back is not None else overhang(basis, top, "back", first)
        rear = -(gap + back_panel + max(island.seating.mm, reach))
    left = 0.0 if island.left == "waterfall" or island.wall else overhang(basis, top, "left", first)
    right = 0.0 if island.right == "waterfall" else overhang(basis, top, "right", first)
    x0, x1 = -left, line.length + right
    points: Points = ((x0, rear), (x1, rear), (x1, front), (x0, front))
    dropped: list[str] = []
    if top.outline:
        points, dropped = own_outline(top, points)
    x0, rear, x1, front = ol.bounds(points)
    whole = Worktop(
        room=first.room,
        wall_id=line.id,
        run=runs[0].run.id,
        source=Kind.ISLAND.of(island.id),
        cell=first.cell,
        x=x0,
        length=x1 - x0,
        depth=front,
        bottom=max(p.top for p in cells),
        thickness=top_thickness(basis, top),
        finish=finish_of(basis, basis.unit(first.unit), Role.WORKTOP),
        open_left=not island.wall,
        open_right=True,
        rear=rear,
        points=points,
        open_back=True,
        joints=("mitre" if island.left == "waterfall" else "", "mitre" if island.right == "waterfall" else ""),
        dropped=tuple(dropped),
    )
    cuts, lost = cutouts_of(basis, top, ones, whole)
    far = []
    for cut in cutouts_of(basis, Top(), twos, whole)[0]:
        # Measured on the second face: its x runs the other way, and its front is this top's rear.
        x = line.length - (cut.x + whole.x) - cut.width - whole.x
        far.append(msgspec.structs.replace(cut, x=x, back=SINK_FROM_FRONT))
    whole = msgspec.structs.replace(
        whole, cutouts=(*cuts, *far), dropped=(*dropped, *lost), profiles=edge_profiles(top, whole, open_back=True)
    )
    return tuple(in_lengths(basis, whole, top, ones or twos))


class IslandLines(msgspec.Struct, frozen=True):
    """The two faces of an island, and what its ends keep free of each, mm at the left and the right."""

    first: Wall
    second: Wall
    keep: Span

    def keep_of(self, face: Wall) -> Span:
        """What is kept free at the left and right end of a face."""
        return self.keep if face is self.first else (self.keep[1], self.keep[0])


def lines_of(basis: Basis, room: Room, island: Island) -> IslandLines:
    """Where an island's faces stand; its ends and its dividing panel are as thick as its first unit is built."""
    faces = (f"{island.letter}1", f"{island.letter}2")
    cell = next((c for r in room.runs if r.wall in faces for c in r.cells), None)
    # An island without units is closed as the standard in force says.
    made = construction_of(basis, basis.unit(cell.unit) if cell is not None else Unit("", "", Bay()))
    first, second = faces_of(room, island, made.carcass_thickness if island.spine else 0.0)
    left, right = (end_thickness(basis, island, side, made) for side in ("left", "right"))
    return IslandLines(first, second, (left, right))


def dressed_island(
    basis: Basis, room: Room, island: Island, line: Wall, faces: Sequence[RunLayout]
) -> tuple[tuple[Worktop, ...], list[TrimBoard]]:
    """The worktop of an island, and its plinths and panels; nothing where it has no units.

    Parameters
    ----------
    line : its first face
    faces : the runs along both
    """
    cell = next((c for laid in faces for c in laid.run.cells), None)
    if cell is None:
        return (), []
    made = construction_of(basis, basis.unit(cell.unit))
    two_faced = len({laid.wall.id for laid in faces if laid.cells}) == 2
    back = made.front_thickness if island.back and not two_faced else 0.0
    tops = island_tops(basis, island, line, faces, back, made.carcass_thickness)
    boards: list[TrimBoard] = []
    for laid in faces:
        boards += plinths_of(basis, laid, faces)
    return tops, boards + island_boards(basis, island, line, faces, tops)
