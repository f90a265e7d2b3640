"""Islands and peninsulas: their faces, their worktop, and the panels that close them."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import msgspec

from tall_plank.job import Basis, Bay, Construction, Island, Kind, Level, Room, Source, Top, Unit
from tall_plank.job.choices import LEFT, RIGHT, Side
from tall_plank.job.inherit import construction_of, finish_of
from tall_plank.job.scheme import Role
from tall_plank.measure import Frame, PlankError
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import NEG_X, NEG_Y, PartFrame, RoomFrame, RoomPoint, X, Y, Z
from tall_plank.measure.outlines import Points
from tall_plank.setout.corners import front_depth
from tall_plank.setout.panels import ALL_ROUND, trim_board, waterfall_leg
from tall_plank.setout.plinths import plinths_of
from tall_plank.setout.rooms import walls_of
from tall_plank.setout.runs import Placed, RunLayout
from tall_plank.setout.topcuts import SINK_FROM_FRONT, cutouts_of, in_lengths
from tall_plank.setout.tops import edge_profiles, own_outline
from tall_plank.setout.trims import TrimBoard, TrimKind, carries_top, stretches
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


@dataclass(frozen=True)
class _Body:
    """What an island's boards are set out from; lengths are mm.

    Attributes
    ----------
    ones, twos : units on its first and second face
    thick : of its panels
    spine, gap : thickness of its dividing panel, and between the backs with it
    back : thickness of the panel on a face without units, 0 where there is none
    high : of its highest unit
    first : whose finishes its panels have
    """

    basis: Basis
    island: Island
    line: Wall
    ones: list[Placed]
    twos: list[Placed]
    made: Construction
    thick: float
    spine: float
    gap: float
    back: float
    high: float
    first: Placed

    @property
    def source(self) -> Source:
        return Kind.ISLAND.of(self.island.id)

    @property
    def inner(self) -> tuple[float, float]:
        """Where the insides of what closes its ends lie along its line."""
        leg = top_thickness(self.basis, self.island.top)
        right = self.line.length - end_inner(self.island, "right", self.thick, leg)
        return end_inner(self.island, "left", self.thick, leg), right

    def board(
        self,
        kind: TrimKind,
        frame: PartFrame,
        size: tuple[float, float, float],
        banded: tuple[str, ...],
        finish: str = "",
    ) -> TrimBoard:
        """A board of it on its first face's line."""
        return trim_board(
            self.basis, self.first, kind, self.line.id, self.source, frame, size, banded=banded, finish=finish
        )


def island_boards(
    basis: Basis, island: Island, line: Wall, faces: Sequence[RunLayout], tops: Sequence[Worktop]
) -> list[TrimBoard]:
    """End panels, waterfall legs with their fillers, back panels and the dividing panel of an island."""
    cells = [p for r in faces for p in r.cells if p.is_solid and r.run.level is not Level.HUNG]
    if not cells:
        return []
    made = construction_of(basis, basis.unit(cells[0].unit))
    ones = [p for p in cells if p.wall_id.endswith("1")]
    twos = [p for p in cells if p.wall_id.endswith("2")]
    spine = made.carcass_thickness if island.spine else 0.0
    back = made.front_thickness if island.back and (not ones or not twos) else 0.0
    body = _Body(
        basis, island, line, ones, twos, made, made.front_thickness, spine, island.gap.mm + spine, back,
        max(p.top for p in cells), cells[0],
    )  # fmt: skip
    top = next((w for w in tops if w.source == body.source), None)
    found: list[TrimBoard] = []
    sides: tuple[Side, ...] = ("left", "right")
    for side in sides:
        kind = island.left if side == "left" else island.right
        if kind == "open" or (side == "left" and island.wall):
            continue
        found += [_end_panel(body, side)] if kind == "panel" else _waterfall(body, side, top)
    found += _back_panels(body)
    if island.spine:
        low, (x0, x1) = min(p.bottom for p in cells), body.inner
        frame = Frame((x0, island.gap.mm / 2 + spine, low), X, Z)
        carcass = finish_of(basis, basis.unit(body.first.unit), Role.CARCASS)
        found.append(body.board("dividing panel", frame, (x1 - x0, body.high - low, spine), ("L2",), carcass))
    return found


def _end_panel(body: _Body, side: Side) -> TrimBoard:
    """Upright, length up, over both faces with their fronts."""
    front = max((front_depth(body.basis, body.basis.unit(p.unit)) for p in body.ones), default=0.0)
    rear = body.gap + max((front_depth(body.basis, body.basis.unit(p.unit)) for p in body.twos), default=0.0)
    rear += body.back if not body.twos else 0.0
    # y runs from the back face to the front one.
    frame = Frame((0.0, rear, 0.0), Z, NEG_Y) if side == "left" else Frame((body.line.length, -front, 0.0), Z, Y)
    return body.board("end panel", frame, (body.high, front + rear, body.thick), ("L1", "L2", "W1", "W2"))


def _waterfall(body: _Body, side: Side, top: Worktop | None) -> list[TrimBoard]:
    """The worktop's leg down to the floor, and the fillers between it and the units beside it."""
    basis, line, found = body.basis, body.line, []
    thick, filler = top_thickness(basis, body.island.top), body.made.waterfall_filler
    if top is not None:
        x = 0.0 if side == "left" else line.length - thick
        found.append(waterfall_leg(basis, body.first, line.id, body.source, x, top, side=side))
    for face, group in (("1", body.ones), ("2", body.twos)):
        if not group or filler < 1.0:
            continue
        # Seen from its own face, the left end of the second face is the right end of the island.
        left = (side == "left") == (face == "1")
        near = min(group, key=lambda p: p.x) if left else max(group, key=lambda p: p.right)
        x = thick if left else line.length - thick - filler
        frame = Frame((x, -near.depth - body.thick, near.bottom), Z, X)
        size = (near.height, filler, body.thick)
        wall = f"{body.island.letter}{face}"
        found.append(trim_board(basis, near, "waterfall filler", wall, body.source, frame, size, banded=ALL_ROUND))
    return found


def _back_panels(body: _Body) -> list[TrimBoard]:
    """On the face without units, from the floor to the worktop, in equal pieces."""
    if not body.back:
        return []
    basis, (x0, x1) = body.basis, body.inner
    finish = finish_of(basis, basis.unit(body.first.unit), Role.FRONT)
    longest = max((b.width for b in basis.stock.boards if b.finish == finish), default=1200.0)
    count = max(1, -(-int(x1 - x0) // int(longest - 40)))
    width = (x1 - x0) / count
    found = []
    for i in range(count):
        at = x0 + width * i
        frame = (
            Frame((at, -body.thick, 0.0), Z, X)
            if body.twos
            else Frame((at + width, body.gap + body.thick, 0.0), Z, NEG_X)
        )
        found.append(body.board("back panel", frame, (body.high, width, body.thick), ("L1", "L2")))
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
    ones = [p for p in cells if p.wall_id.endswith("1")]
    twos = [p for p in cells if p.wall_id.endswith("2")]
    gap = island.gap.mm + (spine if island.spine else 0.0)
    rear, front = _top_reach(basis, island, first, ones, twos, gap, back_panel)
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
        legs=tuple(s for s, end in ((LEFT, island.left), (RIGHT, island.right)) if end == "waterfall"),
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


def _top_reach(
    basis: Basis,
    island: Island,
    first: Placed,
    ones: list[Placed],
    twos: list[Placed],
    gap: float,
    back_panel: float,
) -> tuple[float, float]:
    """How far out of its first face's line its worktop reaches at the back (negative) and at the front, mm."""
    over_front = overhang(basis, island.top, "front", first)
    own_back = island.top.edge("back").overhang
    front = faces_out(basis, ones) + over_front if ones else back_panel + island.seating.mm + over_front
    if twos:
        over_back = own_back.mm if own_back is not None else over_front
        return -(gap + faces_out(basis, twos) + over_back + island.seating.mm), front
    reach = own_back.mm if own_back is not None else overhang(basis, island.top, "back", first)
    return -(gap + back_panel + max(island.seating.mm, reach)), front


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
