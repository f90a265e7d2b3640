"""Machine files on disk: programs with the outlines that they leave whole; parts and boards as DXF, with a layer for
each operation and depth."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Any

import msgspec

from tall_plank.files.dxf import new_document, text_of
from tall_plank.formats.door import bytes_of, json_of
from tall_plank.formats.writing import put
from tall_plank.job.cutting import LaidBoard
from tall_plank.making import Part
from tall_plank.measure import PlankError
from tall_plank.measure.paths import arcs_in
from tall_plank.measure.remembered import remembered
from tall_plank.shop.machine.work import PartWork, work_on

if TYPE_CHECKING:
    from tall_plank.shop.machine.programs import Program


def write_program(program: Program, path: Path) -> None:
    """Write a program as .ngc, and beside it the outlines of its parts as .json, for whoever checks it."""
    put(path.with_suffix(".json"), json.dumps(outlines_document(program)))
    put(path, program.text.encode("ascii"))


MAX_PROGRAM = 60_000_000


def read_program(path: Path) -> str:
    """The text of a program for a machine; signs that are none become question marks.

    Raises
    ------
    PlankError where it cannot be read
    """
    return bytes_of(path, MAX_PROGRAM, "program").decode("utf-8", "replace")


def outlines_document(program: Program) -> dict[str, Any]:
    """The parts of a program: outlines and openings in mm from the board's corner."""
    return {
        "board": list(program.size),
        "parts": [
            {"part": name, "outline": [list(p) for p in outline], "openings": [[list(p) for p in o] for o in openings]}
            for name, outline, openings in program.parts
        ],
    }


def read_outlines(path: Path) -> list[tuple[str, list[Any], list[Any]]]:
    """The parts that a program has to leave whole.

    Raises
    ------
    PlankError where the file is none, naming the part
    """
    remedy = "Write them as the package does."
    found = json_of(bytes_of(path, MAX_OUTLINES, "list of outlines"), path.name, "list of outlines", remedy)
    rows = found.get("parts") if isinstance(found, dict) else found
    if not isinstance(rows, list):
        raise PlankError("There is no list of parts.", path.name, "Write them under “parts”.")
    parts = []
    for i, row in enumerate(rows, 1):
        where = f"{path.name}, part {i}"
        if not isinstance(row, dict) or "outline" not in row:
            raise PlankError("The part has no outline.", where, "Give it three points or more.")
        openings: Any = row.get("openings", row.get("holes", []))
        rings = [row["outline"], *(openings if isinstance(openings, list) else [None])]
        try:
            clean = [[_point(p) for p in ring or [None]] for ring in rings]
        except (TypeError, ValueError, OverflowError):
            raise PlankError("A point is no pair of numbers in reach.", where, "Write points as [x, y].") from None
        if any(len(ring) < 3 for ring in clean):
            raise PlankError("An outline has fewer than three points.", where, "Give it three or more.")
        parts.append((str(row.get("part", i)), clean[0], clean[1:]))
    return parts


MAX_OUTLINES = 30_000_000
REACH = 100_000.0
"""mm that a point of an outline lies from the board's corner at most."""


def _point(pair: Any) -> tuple[float, float]:
    x, y = pair
    found = float(x), float(y)
    if not all(abs(c) <= REACH for c in found):
        raise ValueError(pair)
    return found


def write_board_dxf(parts: Mapping[str, Part], board: LaidBoard, path: Path) -> None:
    """Write one board of a plan as DXF: its parts as they lie, with everything that is done to them from above.

    Parameters
    ----------
    parts : by their numbers, as the plan names them
    """
    works = [work_on(p.part, parts[p.part], p) for p in board.parts]
    write_part_dxf(works, path, (board.length, board.width))


def write_part_dxf(works: Sequence[PartWork], path: Path, size: tuple[float, float] | None = None) -> None:
    """Write parts as DXF (R2010, mm), each seen on the face that looks up: one closed outline, its number with that
    face, and a layer for each operation, face and depth, such as ``HOLE_A_D5_Z13``.

    Parameters
    ----------
    size : length and width of the board that they lie on, where they lie on one
    """
    if size is None and len(works) == 1:
        # Parts alike differ by their number alone: the rest is worked out once.
        (work,) = works
        write_part_text(work, part_text(alike(work)), path)
    else:
        put(path, _dxf_text(works, size))


NUMBER = "PART-NUMBER"
"""Stands for a part's number until its file is written."""


def alike(work: PartWork) -> PartWork:
    """A part's work without what its file has of its own: parts alike are one."""
    return msgspec.structs.replace(work, part=NUMBER, name="", left=(), inner=())


@remembered(2048)
def part_text(work: PartWork) -> str:
    """The text of a part's file, its number left open. `work`: as `alike` gives it."""
    return _dxf_text([work], None)


def write_part_text(work: PartWork, text: str, path: Path) -> None:
    """Write a part's file with its number."""
    put(path, text.replace(NUMBER, work.part))


def _dxf_text(works: Sequence[PartWork], size: tuple[float, float] | None) -> str:
    document = new_document()
    space = document.modelspace()

    def layer(name: str) -> dict[str, str]:
        name = name.replace(".", "_")
        if name not in document.layers:
            document.layers.add(name)
        return {"layer": name}

    if size is not None:
        corners = ((0.0, 0.0), (size[0], 0.0), size, (0.0, size[1]))
        space.add_lwpolyline(corners, close=True, dxfattribs=layer("BOARD"))
    for work in works:
        face = work.up
        space.add_lwpolyline(arcs_in(work.outline), format="xyb", close=True, dxfattribs=layer("OUTLINE"))
        x = sum(p[0] for p in work.outline) / len(work.outline)
        y = sum(p[1] for p in work.outline) / len(work.outline)
        words = f"{work.part} face {face}"
        space.add_text(words, height=12.0, dxfattribs=layer("NUMBER")).set_placement((x, y))
        for hole in work.holes:
            deep = "THROUGH" if hole.through else f"Z{hole.depth:g}"
            space.add_circle((hole.x, hole.y), hole.diameter / 2, layer(f"HOLE_{face}_D{hole.diameter:g}_{deep}"))
        for slot in work.slots:
            name = layer(f"GROOVE_{face}_W{slot.width:g}_Z{slot.depth:g}")
            space.add_line((slot.x1, slot.y1), (slot.x2, slot.y2), name)
        for p in work.pockets:
            box = ((p.x0, p.y0), (p.x1, p.y0), (p.x1, p.y1), (p.x0, p.y1))
            space.add_lwpolyline(box, close=True, dxfattribs=layer(f"POCKET_{face}_Z{p.depth:g}"))
        for o in work.openings:
            box = ((o.x0, o.y0), (o.x1, o.y0), (o.x1, o.y1), (o.x0, o.y1))
            space.add_lwpolyline(box, close=True, dxfattribs=layer(f"OPENING_R{o.radius:g}_THROUGH"))
    return text_of(document)
