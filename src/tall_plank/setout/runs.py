"""Setting out a run: the width and place of every cell."""

from __future__ import annotations

import msgspec

from tall_plank.job import Body, Cell, Job, Level, Room, Run
from tall_plank.job.inherit import size_of
from tall_plank.measure import Frame
from tall_plank.measure.shareout import Member, Rule, share_out
from tall_plank.setout.rooms import Wall


class Placed(msgspec.Struct, frozen=True, cache_hash=True):
    """A unit where it stands.

    Attributes
    ----------
    x : of its left side from the wall's left end, mm
    bottom : underside of the carcass above the floor, mm
    width, height, depth : of the carcass, mm
    frame : the unit's frame in the room
    """

    cell: str
    unit: str
    number: str
    room: str
    wall: str
    run: str
    level: Level
    template: str
    body: Body
    x: float
    bottom: float
    width: float
    height: float
    depth: float
    frame: Frame

    @property
    def right(self) -> float:
        return self.x + self.width

    @property
    def top(self) -> float:
        return self.bottom + self.height

    @property
    def is_solid(self) -> bool:
        """Whether something stands here (a gap is not something)."""
        return self.body is not Body.GAP


class RunLayout(msgspec.Struct, frozen=True, cache_hash=True):
    """A run as it sets out.

    Attributes
    ----------
    x, end : of the run's room from the wall's left end, mm
    cells : placed units from left to right
    left : what nobody took, mm
    short : what is missing, mm; where above zero, shares and rests stand at their least width
    """

    run: Run
    wall: Wall
    x: float
    end: float
    cells: tuple[Placed, ...]
    left: float
    short: float

    @property
    def total(self) -> float:
        return self.end - self.x


def member_of(job: Job, cell: Cell) -> Member:
    """A cell as a member of the share-out; shares and rests keep to their template's range of widths."""
    template = job.template_of(cell)
    rule = cell.width
    if rule.rule is Rule.FIXED:
        assert rule.length is not None
        return Member(Rule.FIXED, size=rule.length.mm)
    if rule.rule is Rule.REST:
        return Member(Rule.REST, least=template.least, most=template.most)
    return Member(Rule.SHARE, least=template.least, most=template.most)


def bottom_of(job: Job, run: Run) -> float:
    """Height of the underside of a run's carcasses above the floor, mm."""
    if run.bottom is not None:
        return run.bottom.mm
    return job.value("plinth" if run.level is Level.BASE else "hung_bottom")


def set_out_run(job: Job, room: Room, wall: Wall, run: Run) -> RunLayout:
    """Widths and places of a run's cells; what cannot be met is named in `short`, and nothing overlaps."""
    x, end = run.start.mm, wall.length - run.end.mm
    shares = share_out(end - x, [member_of(job, cell) for cell in run.cells])
    bottom = bottom_of(job, run)
    placed = []
    at = x
    for cell, width in zip(run.cells, shares.sizes, strict=True):
        unit = job.unit(cell.unit)
        template = job.template(unit.template)
        placed.append(
            Placed(
                cell=cell.id,
                unit=unit.id,
                number=cell.number,
                room=room.id,
                wall=wall.id,
                run=run.id,
                level=run.level,
                template=template.code,
                body=template.body,
                x=at,
                bottom=bottom,
                width=width,
                height=size_of(job, unit, "height"),
                depth=size_of(job, unit, "depth"),
                frame=wall.frame.then(Frame((at, 0.0, bottom))),
            )
        )
        at += width
    return RunLayout(run, wall, x, end, tuple(placed), shares.left, shares.short)
