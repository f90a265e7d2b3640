"""What the window has of a kind of placed thing: its sheet, its place on the shelf, how it follows the hand."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Protocol

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Sheet
from tall_plank.drawing.primitives import Drawing, Item, Layer, Pen, Shape
from tall_plank.job import Job, Source
from tall_plank.measure.outlines import Points
from tall_plank.setout import RoomLayout


@dataclass(frozen=True)
class Offered:
    """One way of adding a thing, on the shelf and in the Room menu.

    Attributes
    ----------
    name : what `edits.things` adds it by
    heading : of the shelf
    label : under its picture
    text : what the menu says
    command : name of the command
    picture : what the shelf shows
    """

    name: str
    heading: str
    label: str
    text: str
    command: str
    picture: Callable[[], Drawing]
    keys: str = ""


@dataclass(frozen=True)
class Mark:
    """A place on a wall, mm from its left end or from the floor, with its name."""

    at: float
    name: str


class Snapper(Protocol):
    """What a view does for a thing that follows the hand: it names and shows what was snapped to."""

    def snapped_box(self, wall_id: str, x: float, width: float, leave: Source) -> float:
        """Where the left side of something on a wall comes to lie, mm."""

    def snapped_upright(self, wall_id: str, x: float, leave: Source) -> float:
        """Where a line on a wall comes to lie, mm."""

    def snapped_level(self, wall_id: str, z: float, leave: Source) -> float:
        """At what height a level line comes to lie, mm."""

    def tell_snap(self, text: str) -> None:
        """Say where it is, or what it snapped to."""


@dataclass(frozen=True)
class Hand:
    """A thing that is dragged in a view.

    Attributes
    ----------
    origin : the job when the drag began; every step is made from it
    wall : the wall that is worked on
    by : how far the pointer went since it was pressed, mm of the view
    at : where the pointer is: along its wall and up in the strip, in the room's frame on the plan, mm
    scale : pixels a mm
    """

    document: Document
    origin: Job
    source: Source
    wall_id: str
    by: tuple[float, float]
    at: tuple[float, float]
    scale: float
    snaps: Snapper


Marks = Callable[[RoomLayout, str], list[tuple[Source, Mark]]]


@dataclass(frozen=True, kw_only=True)
class Handling:
    """
    Attributes
    ----------
    sheet : what the spec sheet says of one, by its id
    offers : how it is added from the shelf and the menu
    on_strip, on_plan : follows a drag there; None: it cannot be dragged there
    in_model : whether it slides along its wall in the model
    upright, level : what others snap to on a wall: places along it, and heights
    outlined : whether it is outlined in the model while it is selected
    pick_on_strip : whether a press in the strip takes hold of it
    """

    sheet: Callable[[Document, str], Sheet] | None = None
    offers: tuple[Offered, ...] = field(default=())
    on_strip: Callable[[Hand], None] | None = None
    on_plan: Callable[[Hand], None] | None = None
    in_model: bool = False
    upright: Marks | None = None
    level: Marks | None = None
    outlined: bool = False
    pick_on_strip: bool = False


def shape(points: Points, fill: str = "", pen: Pen = Pen.MEDIUM) -> Shape:
    """A shape of a shelf's picture."""
    return Shape(points, pen, Layer.OPENING, None, fill)


def drawing_of(name: str, items: list[Item]) -> Drawing:
    """A picture of the shelf, as large as its shapes."""
    points = [p for i in items if isinstance(i, Shape) for p in i.points]
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return Drawing(name, tuple(items), min(xs), min(ys), max(xs), max(ys))


def placed_by(
    name: str, heading: str, picture: Callable[[], Drawing], label: str = "", text: str = "", keys: str = ""
) -> Offered:
    """An offer with the usual words and command."""
    command = f"place_{name.replace(' ', '_')}"
    return Offered(name, heading, label or name.capitalize(), text or tr(name), command, picture, keys)
