"""Parts, their operations and edges, and bought items.

Part frame: x along the length, y along the width, z through the thickness. Face A is z = thickness, face B is
z = 0. L1 is the edge y = 0, L2 the edge y = width, W1 the end x = 0, W2 the end x = length. Operations are held
in finished coordinates.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from typing import Literal

import msgspec

from tall_plank.job.choices import Weight
from tall_plank.measure import Frame, PlankError
from tall_plank.measure.frames import PartFrame, Vec
from tall_plank.measure.outlines import Point, Points, area, offset
from tall_plank.setout.trims import TrimKind
from tall_plank.stock import Board, Edging, Stock

Face = Literal["A", "B", "L1", "L2", "W1", "W2"]
EDGE_NAMES = ("L1", "L2", "W1", "W2")
ON_FACE = 0.01  # mm; a point nearer than this to a face lies on it


ROW = "shelf pin"
"""Use of a hole of a row that nothing stands on: it gives way to any other."""


def on_face(face: Face, u: float, v: float, size: Vec) -> Vec:
    """The point of a face at an operation's coordinates, in the frame of a part of that size. All in mm."""
    match face:
        case "A":
            return (u, v, size[2])
        case "B":
            return (u, v, 0.0)
        case "L1":
            return (u, 0.0, v)
        case "L2":
            return (u, size[1], v)
        case "W1":
            return (0.0, u, v)
    return (size[0], u, v)


class Bore(msgspec.Struct, frozen=True, cache_hash=True, tag="bore"):
    """A hole. On faces A and B: (x, y) of the part. On L edges: (x, z), on W ends: (y, z). Depth in mm.

    `slant`: degrees by which it leans out of the face towards the nearest end (pocket screws); 0: square.
    """

    face: Face
    x: float
    y: float
    diameter: float
    depth: float
    use: str
    through: bool = False
    slant: float = 0.0


class Groove(msgspec.Struct, frozen=True, cache_hash=True, tag="groove"):
    """A groove along a line, `width` centred on it. Coordinates as for a bore. `over` names what sits in it."""

    face: Face
    x1: float
    y1: float
    x2: float
    y2: float
    width: float
    depth: float
    over: str = ""


class Rebate(msgspec.Struct, frozen=True, cache_hash=True, tag="rebate"):
    """Wood taken off one face along one edge: `width` across the face, `depth` into it."""

    face: Literal["A", "B"]
    edge: Literal["L1", "L2", "W1", "W2"]
    width: float
    depth: float


class Cutout(msgspec.Struct, frozen=True, cache_hash=True, tag="cutout"):
    """A rectangular hole right through, with rounded corners."""

    x: float
    y: float
    length: float
    width: float
    radius: float


class ShapedEdge(msgspec.Struct, frozen=True, cache_hash=True, tag="edge"):
    """An edge worked to a profile along its whole length."""

    edge: Literal["L1", "L2", "W1", "W2"]
    profile: str


class Bevel(msgspec.Struct, frozen=True, cache_hash=True, tag="bevel"):
    """An edge cut at a slant along its whole length.

    Attributes
    ----------
    long : the face at which the part keeps its full size; the other one is shorter by thickness x tan(angle)
    angle : degrees from square
    """

    edge: Literal["L1", "L2", "W1", "W2"]
    long: Literal["A", "B"]
    angle: float


Operation = Bore | Groove | Rebate | Cutout | ShapedEdge | Bevel


class Edges(msgspec.Struct, frozen=True, cache_hash=True):
    """Code of the edging on each edge; empty where the edge is raw."""

    l1: str = ""
    l2: str = ""
    w1: str = ""
    w2: str = ""

    def __iter__(self):  # type: ignore[no-untyped-def]
        return iter((self.l1, self.l2, self.w1, self.w2))


BARE = Edges()

PartRole = (
    TrimKind
    | Literal[
        "", "carcass", "lent", "back", "blind", "cover", "panel", "packer", "shelf", "worktop", "drawer",
        "drawer bottom", "face frame", "front", "front frame", "front panel", "front bar", "glass", "louver",
        "sliding leaf", "wall board", "wall stile", "wall rail", "wall panel", "slat", "batten",
    ]
)  # fmt: skip
"""What a part is in its unit; a board of a trim is what its kind says."""


class Part(msgspec.Struct, frozen=True, cache_hash=True):
    """One piece the shop makes. Finished sizes in mm; `frame` is the part's frame in its unit or run.

    Attributes
    ----------
    outline : corners of face A (x, y), counter-clockwise, where it is no rectangle; length and width go round it
    bend : radius to which it is bent along its width, mm; 0 flat, positive bowed towards face B
    outline_edges : code of the edging on every edge of the outline, from its first corner on, empty where it is raw
    cut_origin : place of the cut part's corner on the finished one, mm
    cut_outline : the outline less edging plus pre-milling at every banded edge, in the same coordinates
    fixed : how it is fixed in words, where nothing is drilled for it
    edge_lengths : mm that are banded of every edge of the outline, or of L1, L2, W1, W2; none: whole edges
    """

    name: str
    board: str
    material: str
    length: float
    width: float
    thickness: float
    grain: Literal["length", "none"]
    frame: PartFrame
    edges: Edges = Edges()
    operations: tuple[Operation, ...] = ()
    cut_length: float = 0.0
    cut_width: float = 0.0
    weight: float = 0.0
    role: PartRole = ""
    outline: tuple[tuple[float, float], ...] = ()
    bend: float = 0.0
    outline_edges: tuple[str, ...] = ()
    edge_lengths: tuple[float, ...] = ()
    fixed: str = ""
    cut_origin: tuple[float, float] = (0.0, 0.0)
    cut_outline: tuple[tuple[float, float], ...] = ()

    def named_edges(self) -> tuple[tuple[str, Point, Point], ...]:
        """Every edge of the outline with its name and ends: L1 to W2 on the sides of the rectangle about it, S1, S2 and
        so on for the others, mm. The pieces of a curve are one edge."""
        names = edge_names(self.outline, self.length, self.width)
        return tuple(
            (name, p, q) for name, p, q in zip(names, self.outline, (*self.outline[1:], *self.outline[:1]), strict=True)
        )

    @property
    def banded(self) -> tuple[tuple[str, str, float], ...]:
        """Every edge with edging: its name (S1, S2 .. where it is neither L nor W), the code, mm."""
        if self.outline_edges:
            lengths: dict[tuple[str, str], float] = {}
            for (name, _, _), code, mm in zip(self.named_edges(), self.outline_edges, self.edge_lengths, strict=True):
                if code:
                    lengths[name, code] = lengths.get((name, code), 0.0) + mm
            return tuple((name, code, mm) for (name, code), mm in lengths.items())
        whole = (self.length, self.length, self.width, self.width)
        sides = zip(EDGE_NAMES, self.edges, self.edge_lengths or whole, strict=True)
        return tuple(s for s in sides if s[1])

    @property
    def banded_shapes(self) -> tuple[tuple[str, str, float], ...]:
        """Those of them that are neither L nor W."""
        return tuple(row for row in self.banded if row[0] not in EDGE_NAMES)

    @property
    def holes(self) -> int:
        return sum(isinstance(op, Bore) for op in self.operations)

    def on(self, face: Face, u: float, v: float) -> Vec:
        """The point of a face at an operation's coordinates, in the part's own frame. `u`, `v`: mm."""
        return on_face(face, u, v, (self.length, self.width, self.thickness))

    def place(self, face: Face, u: float, v: float) -> Vec:
        """The point of a face at an operation's coordinates, in the frame that the part stands in. `u`, `v`: mm."""
        return self.frame.at(*self.on(face, u, v))

    def inwards(self, face: Face) -> Vec:
        """The direction from a face into the wood, in the frame that the part stands in."""
        f = self.frame
        match face:
            case "A":
                a, b, c = f.z
                return (-a, -b, -c)
            case "B":
                return f.z
            case "L1":
                return f.y
            case "L2":
                a, b, c = f.y
                return (-a, -b, -c)
            case "W1":
                return f.x
        a, b, c = f.x
        return (-a, -b, -c)


def edge_names(outline: Points, length: float, width: float) -> tuple[str, ...]:
    """The name of every edge of an outline: L1 to W2 on the sides of the rectangle about it, S1, S2 and so on for the
    others. The pieces of a curve are one edge, also where its top touches a side. All in mm."""
    ends = list(zip(outline, (*outline[1:], *outline[:1]), strict=True))
    found: list[str] = []
    count = 0
    for i, (p, q) in enumerate(ends):
        on_curve = _goes_on(*ends[i - 1], p, q)
        name = side_of(p, q, length, width)
        if name and on_curve and math.dist(p, q) < TOP:
            name = ""
        if not name and not (on_curve and found and found[-1].startswith("S")):
            count += 1
        found.append(name or f"S{count}")
    return tuple(found)


TOP = 60.0
"""mm; a side that a curve touches by less belongs to the curve."""

GOES_ON = math.cos(math.radians(20.0))
"""Cosine of the turn by which two pieces of a curve differ at most."""


def _goes_on(a: Point, b: Point, p: Point, q: Point) -> bool:
    """Whether an edge from p to q goes on where the one from a to b ends, bent a little."""
    (x, y), (u, v) = (b[0] - a[0], b[1] - a[1]), (q[0] - p[0], q[1] - p[1])
    size = math.hypot(x, y) * math.hypot(u, v)
    return math.dist(b, p) < 0.05 and GOES_ON * size < x * u + y * v < 0.999999 * size


def side_of(p: Point, q: Point, length: float, width: float) -> str:
    """The side of a rectangle that an edge of an outline within it lies on; empty where on none. All in mm."""
    for name, axis, at in (("L1", 1, 0.0), ("L2", 1, width), ("W1", 0, 0.0), ("W2", 0, length)):
        if abs(p[axis] - at) < 0.05 and abs(q[axis] - at) < 0.05:
            return name
    return ""


class Item(msgspec.Struct, frozen=True, cache_hash=True):
    """Something bought, how many, and why (rule and values). `length`: mm that it is cut to, 0 where it is not."""

    code: str
    qty: int
    why: str
    length: float = 0.0


class Problem(msgspec.Struct, frozen=True, cache_hash=True):
    """Why a unit cannot be made as decided, and the remedy."""

    what: str
    remedy: str
    weight: Weight = "wrong"
    place: tuple[Vec, Vec] | None = None
    """Least and greatest corner of the box about it in the unit, mm, where it has one."""
    parts: tuple[int, ...] = ()
    """Numbers of the parts in their unit that it is about."""


class Forced(msgspec.Struct, frozen=True, cache_hash=True):
    """A size that a step or a stock size changed from what was asked for (MK7).

    Attributes
    ----------
    what : the size in words
    asked, made : mm
    why : the step or the stock size
    """

    what: str
    asked: float
    made: float
    why: str


class DrawerBox(msgspec.Struct, frozen=True, cache_hash=True):
    """A drawer with its runners.

    Attributes
    ----------
    name : what the names of its parts begin with
    path : of its bay
    runner : code of its pair of runners
    load : kg: box, front and contents
    """

    name: str
    path: tuple[int, ...]
    runner: str
    load: float


def cut_size(finished: float, edging: tuple[float, float], premilling: float, ignored_below: float = 0.0) -> float:
    """What the saw cuts: finished less edging, plus pre-milling, for each banded edge (common practice).

    Parameters
    ----------
    finished : float, mm
    edging : thickness in mm on either edge, 0 where raw
    premilling : mm that the edge bander mills off before it glues
    ignored_below : mm; edging thinner than this changes nothing
    """
    for thickness in edging:
        if thickness > 0 and thickness >= ignored_below:
            finished = finished - thickness + premilling
    return finished


FLUSH = 1.0
"""mm that edging is wider than its board is thick: it is trimmed flush on both sides (common practice: 2 to 5)."""


class Draft:
    """A part while it is being built. Places are given in the unit's frame and turned into the part's."""

    def __init__(self, name: str, board: Board, size: tuple[float, float], frame: PartFrame, role: PartRole) -> None:
        self.name = name
        self.board = board
        self.length, self.width = size
        self.thickness = board.thickness
        self.frame = frame
        self.role = role
        self.edging: dict[str, str] = {}
        self.operations: list[Operation] = []
        self.outline: Points = ()
        self.bend = 0.0
        self.outline_edges: tuple[str, ...] = ()
        self.edge_lengths: tuple[float, ...] = ()
        self._by_outline: set[str] = set()
        self.fixed = ""
        """How it is fixed, where nothing is drilled for it."""
        self.edged_in = ""
        """Finish of its edging, where that is not the board's."""
        self.scribes: dict[str, float] = {}
        """mm that it is cut larger at an edge, to be scribed to what it meets."""
        self._seen: dict[tuple[str, int, int], int] = {}

    def band(self, stock: Stock, thickness: float, *edges: str) -> Draft:
        """Put edging of the board's finish on edges; a thickness of 0 leaves them raw, and solid timber needs none
        of its own. `thickness`: mm.

        Raises
        ------
        PlankError where no such edging is stocked
        """
        if thickness > 0 and edges and not self._needs_none:
            edging = self._edging(stock, thickness)
            for edge in edges:
                self.edging[edge] = edging.code
        return self

    def shape(self, points: Points) -> Draft:
        """Give the part an outline other than its rectangle; its sides keep their edging. `points`: mm."""
        self.outline = points if area(points) > 0 else tuple(reversed(points))
        return self

    def edge_outline(self, stock: Stock, points: Points, free: Sequence[float], thickness: float) -> Draft:
        """Give the part an outline whose free edges are banded, each in its true length.

        Parameters
        ----------
        points : its corners on face A, mm
        free : for every edge, from the first corner on, mm of it that are banded
        thickness : of the edging, mm; 0 leaves all raw

        Raises
        ------
        PlankError where no such edging is stocked
        """
        n = len(points)
        turned = area(points) < 0
        self.shape(points)
        mm = [free[(n - 2 - i) % n] for i in range(n)] if turned else list(free)
        flags = [length > 0.5 for length in mm]
        if thickness <= 0 or not any(flags) or self._needs_none:
            return self
        names = edge_names(self.outline, self.length, self.width)
        # Banding one side brings its edging, or says that there is none.
        sides = dict.fromkeys(s for s, is_free in zip(names, flags, strict=True) if s in EDGE_NAMES and is_free)
        self.band(stock, thickness, *sides)
        self._by_outline |= set(sides)
        edging = self._edging(stock, thickness)
        self.outline_edges = tuple(edging.code if is_free else "" for is_free in flags)
        self.edge_lengths = tuple(mm)
        return self

    def _edging(self, stock: Stock, thickness: float) -> Edging:
        """The edging for its edges: of their finish, as thick as is asked for, and wide enough to be trimmed flush.

        Raises
        ------
        PlankError where no such edging is stocked
        """
        finish, needed = self.edged_in or self.board.finish, self.thickness + FLUSH
        edging = stock.edging(finish, thickness, needed)
        if edging is not None:
            return edging
        words = f"{thickness:g} mm edging{self._edged_words()}"
        narrow = stock.edgings_of(finish, thickness)
        if narrow:
            what = f"The {words} for {self.board.name} is {narrow[-1].width:g} mm wide; {needed:g} mm are needed."
        else:
            what = f"There is no {words} for {self.board.name}."
        raise PlankError(what, self.name, "Choose another edging, or add it to the stock.")

    @property
    def _needs_none(self) -> bool:
        return self.board.solid and self.edged_in in ("", self.board.finish)

    def _edged_words(self) -> str:
        return f" in {self.edged_in}" if self.edged_in else ""

    def _faces(self, point: Vec) -> dict[Face, tuple[float, float]]:
        """The faces that a point of the unit lies on, with its place on each; faces A and B come first."""
        x, y, z = self.frame.into(point)
        sides: tuple[tuple[float, Face, float, float], ...] = (
            (abs(z - self.thickness), "A", x, y),
            (abs(z), "B", x, y),
            (abs(y), "L1", x, z),
            (abs(y - self.width), "L2", x, z),
            (abs(x), "W1", y, z),
            (abs(x - self.length), "W2", y, z),
        )
        found: dict[Face, tuple[float, float]] = {face: (u, v) for near, face, u, v in sides if near < ON_FACE}
        if not found:
            raise PlankError("An operation lies off its part.", self.name, "This unit's sizes do not work together.")
        return found

    def first_face(self, point: Vec) -> tuple[Face, float, float]:
        """The first of the faces a point lies on: most points lie on one, and holes are many. `point`: mm."""
        x, y, z = self.frame.into(point)
        if abs(z - self.thickness) < ON_FACE:
            return "A", x, y
        if abs(z) < ON_FACE:
            return "B", x, y
        face, (u, v) = next(iter(self._faces(point).items()))
        return face, u, v

    def bore(self, point: Vec, diameter: float, depth: float, use: str) -> None:
        """A hole at a point of the unit that lies on one of the part's faces; depth 0 goes right through. `point`,
        `diameter`, `depth`: mm.

        A hole that stands already at this point is not drilled twice; one of a row that nothing stands on becomes what
        is asked for. Two that are asked for in one place stay, for the proof to tell."""
        face, u, v = self.first_face(point)
        through = depth <= 0
        hole = Bore(face, u, v, diameter, self.thickness if through else depth, use, through)
        key = (face, round(u * 100), round(v * 100))
        there = self._seen.get(key)
        if there is not None:
            old = self.operations[there]
            if use in (ROW, old.use):  # type: ignore[union-attr]
                return
            if old.use == ROW:  # type: ignore[union-attr]
                self.operations[there] = hole
                return
        self._seen[key] = len(self.operations)
        self.operations.append(hole)

    def spare(self, point: Vec, diameter: float, depth: float) -> float:
        """mm of wood that a hole at a point of face A or B leaves to holes from the other face; the thickness where it
        meets none."""
        face, u, v = self.first_face(point)
        if face not in ("A", "B"):
            return self.thickness
        least = self.thickness
        for op in self.operations:
            if isinstance(op, Bore) and op.face in ("A", "B") and op.face != face and not op.through:
                reach = (op.diameter + diameter) / 2
                if abs(op.x - u) < reach and abs(op.y - v) < reach:
                    least = min(least, self.thickness - op.depth - depth)
        return least

    def groove(self, start: Vec, end: Vec, width: float, depth: float, over: str) -> None:
        """A groove between two points of the unit that lie on the same face of the part. `start`, `end`, `width`,
        `depth`: mm.

        Raises
        ------
        PlankError “A groove turns a corner.”
        """
        first, second = self._faces(start), self._faces(end)
        face = next((name for name in first if name in second), None)
        if face is None:
            raise PlankError("A groove turns a corner.", self.name, "This unit's sizes do not work together.")
        self.operations.append(Groove(face, *first[face], *second[face], width, depth, over))

    def place(self, face: Face, u: float, v: float) -> Vec:
        """The point of a face at an operation's coordinates, in the unit's frame. `u`, `v`: mm."""
        return self.frame.at(*on_face(face, u, v, (self.length, self.width, self.thickness)))

    def holds(self, point: Vec) -> bool:
        """Whether a point of the unit, seen along the thickness, lies on this part. `point`: mm."""
        x, y, _ = self.frame.into(point)
        return 0 <= x <= self.length and 0 <= y <= self.width

    def whole(self) -> tuple[float, float, float, float]:
        """Where it is whole, what is grooved or rebated along its edges left out: from and to along its length, from
        and to across, mm."""
        near, far, low, high = 0.0, self.length, 0.0, self.width
        for op in self.operations:
            match op:
                case Groove(face="L1"):
                    low = max(low, op.depth)
                case Groove(face="L2"):
                    high = min(high, self.width - op.depth)
                case Groove() if abs(op.y1 - op.y2) < ON_FACE:
                    if op.y1 > self.width / 2:
                        high = min(high, op.y1 - op.width / 2)
                    else:
                        low = max(low, op.y1 + op.width / 2)
                case Rebate(edge="L1"):
                    low = max(low, op.width)
                case Rebate(edge="L2"):
                    high = min(high, self.width - op.width)
                case Rebate(edge="W1"):
                    near = max(near, op.width)
                case Rebate():
                    far = min(far, self.length - op.width)
                case _:
                    pass
        return near, far, low, high

    def on_edge(self, point: Vec) -> bool:
        """Whether a point of the unit lies on one of the part's edges or ends. `point`: mm."""
        x, y, z = self.frame.into(point)
        side, end = min(abs(y), abs(y - self.width)), min(abs(x), abs(x - self.length))
        within = 0 < x < self.length if side < ON_FACE else end < ON_FACE and 0 < y < self.width
        return within and 0 < z < self.thickness

    def done(self, stock: Stock, premilling: float, ignored_below: float) -> Part:
        """The finished part with its cut size and weight (kg)."""
        edges = Edges(*(self.edging.get(name, "") for name in EDGE_NAMES)) if self.edging else BARE
        found = [stock.edging_by_code(code) if code else None for code in edges]
        thick = [e.thickness if e else 0.0 for e in found]
        codes, lengths = self._outline_edging()

        def off(thickness: float) -> float:
            return thickness - cut_size(thickness, (thickness, 0.0), premilling, ignored_below)

        more = {name: self.scribes.get(name, 0.0) for name in EDGE_NAMES}
        return Part(
            name=self.name,
            board=self.board.code,
            material=self.board.name,
            length=self.length,
            width=self.width,
            thickness=self.thickness,
            grain=self.board.grain,
            frame=self.frame,
            edges=edges,
            operations=tuple(self.operations),
            # L edges run along the length, so they take from the width.
            cut_width=cut_size(self.width, (thick[0], thick[1]), premilling, ignored_below) + more["L1"] + more["L2"],
            cut_length=cut_size(self.length, (thick[2], thick[3]), premilling, ignored_below) + more["W1"] + more["W2"],
            weight=self.area * self.thickness * self.board.density * 1e-9,
            role=self.role,
            outline=self.outline,
            bend=self.bend,
            outline_edges=codes,
            edge_lengths=lengths,
            fixed=self.fixed,
            cut_origin=(off(thick[2]) - more["W1"], off(thick[0]) - more["L1"]),
            cut_outline=self._cut_outline(stock, codes, off),
        )

    def _outline_edging(self) -> tuple[tuple[str, ...], tuple[float, ...]]:
        """The edging of every edge of the outline and how much of it is banded, mm: as it was given, and that of the
        sides that keep theirs whole."""
        if not self.outline:
            return (), self.edge_lengths
        if not self.edging and not self.outline_edges:
            return (), ()
        n = len(self.outline)
        codes = list(self.outline_edges or ("",) * n)
        lengths = list(self.edge_lengths if self.outline_edges else (0.0,) * n)
        ends = zip(self.outline, (*self.outline[1:], *self.outline[:1]), strict=True)
        for i, (name, (p, q)) in enumerate(zip(edge_names(self.outline, self.length, self.width), ends, strict=True)):
            if name in self.edging and name not in self._by_outline:
                codes[i], lengths[i] = self.edging[name], math.dist(p, q)
        return (tuple(codes), tuple(lengths)) if any(codes) else ((), ())

    def _cut_outline(self, stock: Stock, codes: tuple[str, ...], off: Callable[[float], float]) -> Points:
        """The outline as it is cut: less edging plus pre-milling at every banded edge, larger where it is scribed."""
        if not codes and not (self.scribes and self.outline):
            return self.outline
        names = edge_names(self.outline, self.length, self.width)
        found = [stock.edging_by_code(code) if code else None for code in codes or ("",) * len(names)]
        return offset(
            self.outline,
            [
                self.scribes.get(name, 0.0) - (off(e.thickness) if e is not None else 0.0)
                for e, name in zip(found, names, strict=True)
            ],
        )

    @property
    def area(self) -> float:
        """Of face A, mm2."""
        return area(self.outline) if self.outline else self.length * self.width


class Asked(msgspec.Struct, frozen=True, cache_hash=True):
    """A hole or a groove that a unit asks of a panel which it does not own.

    Attributes
    ----------
    at, to : its place, and where a groove ends; in the frame that is said where it is handed over, mm
    size : diameter or width, mm
    depth : mm
    """

    at: Vec
    size: float
    depth: float
    use: str
    to: Vec | None = None


class Lent:
    """Stands for a gable that a unit does not own: what would be drilled into it is kept for the panel beside it.

    Places are in the unit's frame.
    """

    def __init__(self, name: str, x: float, depth: float, height: float) -> None:
        self.name, self.role = name, "lent"
        self.frame = Frame((x, -depth, height))
        self.thickness = 0.0
        self.width = depth
        self.asked: list[Asked] = []
        self.operations: list[Operation] = []

    def bore(self, point: Vec, diameter: float, depth: float, use: str) -> None:
        """Ask for a hole, once at each place; one of a row that nothing stands on gives way. All in mm."""
        hole = Asked(point, diameter, depth, use)
        for i, old in enumerate(self.asked):
            if old.to is None and max(abs(a - b) for a, b in zip(point, old.at, strict=True)) <= ON_FACE:
                if use in (ROW, old.use):
                    return
                if old.use == ROW:
                    self.asked[i] = hole
                    return
        self.asked.append(hole)

    def groove(self, start: Vec, end: Vec, width: float, depth: float, over: str) -> None:
        """Ask for a groove; all in mm. A back between panels is planted on: none is asked for."""
        if over != "back":
            self.asked.append(Asked(start, width, depth, over, end))

    def spare(self, point: Vec, diameter: float, depth: float) -> float:
        """The panel beside the unit is drilled from this side only. `point`, `diameter`, `depth`: mm."""
        return depth + 100.0

    def band(self, stock: Stock, thickness: float, *edges: str) -> Lent:
        """Nothing is banded, whatever the edging's thickness (mm)."""
        return self
