"""Part sheets read back: from nothing but the words and the figures on a part's sheet, every hole, groove, cut-out and
corner is found where it is made."""

from __future__ import annotations

import math
import re
from collections import Counter
from itertools import product

import pytest

from conftest import with_run
from kept.results import every_kind
from tall_plank.demo import demo_job
from tall_plank.drawing.part import part_drawing, sides_of
from tall_plank.drawing.placing import LEAST
from tall_plank.drawing.primitives import Dim, Drawing, Text
from tall_plank.drawing.shown import shown
from tall_plank.job import Level
from tall_plank.job.start import new_job
from tall_plank.making.parts import Bore, Cutout, Groove, Part
from tall_plank.measure import DisplayUnit
from tall_plank.papers.partsheets import part_sheets
from tall_plank.workings import Workings

JOBS = {"demo": Workings(demo_job()), "every kind": Workings(every_kind())}


def parts_of(w: Workings) -> list[tuple[str, Part]]:
    by_number = {item.number: item.part for item in w.made.parts()}
    return [(row.numbers[0], by_number[row.numbers[0]]) for row in w.cut_rows]


def number(text: str) -> float:
    return float(text.lstrip("~"))


def steps(text: str) -> list[float]:
    """`77 + 3 × 32, 500` as 77, 109, 141, 173, 500."""
    found = []
    for piece in text.split(", "):
        if row := re.fullmatch(r"(~?[\d.]+) \+ (\d+) × (~?[\d.]+)", piece):
            found += [number(row[1]) + i * number(row[3]) for i in range(int(row[2]) + 1)]
        else:
            found.append(number(piece))
    return found


def entries(drawing: Drawing) -> list[tuple[str, list[str]]]:
    """The legend: each operation's line with the lines of its places."""
    lines = [i.text for i in drawing.items if isinstance(i, Text) and i.align == "left" and i.x > 0 and not i.quiet]
    found: list[tuple[str, list[str]]] = []
    for line in lines:
        if line.startswith("   ") and found:
            if line.startswith("      ") and found[-1][1]:
                found[-1][1][-1] += " " + line.strip()
            elif found[-1][1] or re.match(r"   (x|y|z|corners) ", line):
                found[-1][1].append(line.strip())
            else:
                found[-1] = (found[-1][0] + " " + line.strip(), [])
        else:
            found.append((line, []))
    return found


def told_holes(drawing: Drawing) -> Counter[tuple[str, int, int]]:
    """Face and place (tenths of a mm) of every hole, by the words alone."""
    found: Counter[tuple[str, int, int]] = Counter()
    for head, places in entries(drawing):
        match = re.match(r"(\d+) on (\w+): hole", head)
        if not match:
            continue
        first = {"A": "x", "B": "x", "L1": "x", "L2": "x", "W1": "y", "W2": "y"}[match[2]]
        count = 0
        for line in places:
            name, at, _, along = re.fullmatch(r"(\w) (.+): (\w) (.+)", line).groups()  # type: ignore[union-attr]
            for across, far in product(steps(at), steps(along)):
                u, v = (across, far) if name == first else (far, across)
                found[(match[2], round(u * 10), round(v * 10))] += 1
                count += 1
        assert count == int(match[1]), head
    return found


@pytest.mark.parametrize("name", JOBS)
def test_every_hole_is_found_by_the_words(name: str) -> None:
    holes = 0
    for label, part in parts_of(JOBS[name]):
        told = told_holes(part_drawing(label, part, DisplayUnit.MM))
        made = Counter((op.face, round(op.x * 10), round(op.y * 10)) for op in part.operations if isinstance(op, Bore))
        holes += sum(made.values())
        # Steps that are rounded may differ by a tenth at the end of a row.
        for face, u, v in made:
            near = [told[face, u + a, v + b] for a in (-1, 0, 1) for b in (-1, 0, 1)]
            assert any(near), (label, part.name, face, u / 10, v / 10)
        assert sum(told.values()) == sum(made.values())
    assert holes > 1000


@pytest.mark.parametrize("name", JOBS)
def test_every_row_and_every_place_through_an_edge_has_a_figure(name: str) -> None:
    """By the chains alone: the marks of the chain at the left are every row, those of an edge every hole in it."""
    for label, part in parts_of(JOBS[name]):
        drawing = part_drawing(label, part, DisplayUnit.MM)
        dims = [i for i in drawing.items if isinstance(i, Dim)]
        marks = {(d.along, round(v, 1)) for d in dims for v in (d.a, d.b)}
        # Between the ends of a row of equal steps, its marks lie at the steps.
        for d in dims:
            if "×" in d.text:
                count = int(d.text.split(" ")[0])
                marks |= {(d.along, round(d.a + (d.b - d.a) * i / count, 1)) for i in range(count)}

        def has(along: str, at: float, marks: set[tuple[str, float]] = marks) -> bool:
            return any((along, round(at + shift, 1)) in marks for shift in (-0.1, 0.0, 0.1))

        gap, t = 7.0 * drawing.scale, part.thickness
        for op in part.operations:
            if isinstance(op, Bore) and op.face == "A":
                assert has("x", op.x) and has("y", op.y), (label, op)
            elif isinstance(op, Bore) and op.face != "B":
                level = op.face in ("L1", "L2")
                through = {
                    "L1": -gap - t + op.y, "L2": part.width + gap + t - op.y, "W1": -gap - t + op.y,
                    "W2": part.length + gap + t - op.y,
                }[op.face]  # fmt: skip
                assert has("x" if level else "y", op.x), (label, op)
                assert has("y" if level else "x", through), (label, op)
            elif isinstance(op, Groove) and op.face == "A":
                assert has("x", op.x1) or not 0.01 < op.x1 < part.length - 0.01
                assert has("x", op.x2) or not 0.01 < op.x2 < part.length - 0.01
                assert has("y", op.y1) or not 0.01 < op.y1 < part.width - 0.01
            elif isinstance(op, Cutout):
                assert has("x", op.x) and has("x", op.x + op.length) and has("y", op.y) and has("y", op.y + op.width)
        for x, y in turning(part.outline):
            assert has("x", x) and has("y", y), (label, x, y)


def turning(outline: tuple[tuple[float, float], ...]) -> list[tuple[float, float]]:
    """The corners at which an outline turns by more than a curve's straight sides do."""
    found = []
    for i, (x, y) in enumerate(outline):
        (a, b), (c, d) = outline[i - 1], outline[(i + 1) % len(outline)]
        turn = math.atan2((x - a) * (d - y) - (y - b) * (c - x), (x - a) * (c - x) + (y - b) * (d - y))
        if abs(turn) > math.radians(25.0):
            found.append((x, y))
    return found


def check_corners(outline: tuple[tuple[float, float], ...], told: list[str], label: str) -> None:
    """What is told of an outline is it, corner by corner; where a radius is told, what lies between lies on that arc."""
    at = 0
    n = len(outline)
    first = None
    places: list[tuple[int, float]] = []
    for words in told:
        place, _, radius = words.partition(" R ")
        x, y = map(number, place.split(" | "))
        i = next(k for k in range(n) if math.dist(outline[(at + k) % n], (x, y)) < 0.012)
        first = (at + i) % n if first is None else first
        places.append(((at + i) % n, number(radius) if radius else 0.0))
        at = (at + i + 1) % n
    for k, (i, radius) in enumerate(places):
        j = places[(k + 1) % len(places)][0]
        between = [outline[(i + m) % n] for m in range(1, (j - i) % n or n)]
        assert bool(between) == (radius > 0), label
        if between:
            a, m, b = outline[i], between[len(between) // 2], outline[j]
            # The radius of the circle through three points: the product of the sides over four times the area.
            twice = abs((m[0] - a[0]) * (b[1] - a[1]) - (m[1] - a[1]) * (b[0] - a[0]))
            assert radius == pytest.approx(
                math.dist(a, m) * math.dist(m, b) * math.dist(a, b) / (2 * twice), abs=0.02
            ), label
    assert sorted(i for i, _ in places) == sorted({i for i, _ in places}), label


def ends_of(op: Groove) -> tuple[str, str]:
    """Face and ends of a groove, to half a millimetre, whichever end comes first."""
    ends = sorted([(op.x1, op.y1), (op.x2, op.y2)])
    return op.face, " ".join(f"{round(v * 2) / 2:g}" for end in ends for v in end)


def told_grooves(face: str, lines: list[str]) -> Counter[tuple[str, str]]:
    """Grooves of a kind, by the words alone."""
    found: Counter[tuple[str, str]] = Counter()
    across = "z" if face not in ("A", "B") else "y"
    for line in lines:
        if match := re.fullmatch(r"(\w) (.+): (\w) (\S+) to (\S+)", line):
            for at in steps(match[2]):
                a, b = number(match[4]), number(match[5])
                level = match[1] == across
                ends = (a, at, b, at) if level else (at, a, at, b)
                found[ends_of(Groove(face, *ends, 1.0, 1.0))] += 1  # type: ignore[arg-type]
        else:
            pattern = r"(\w) (.+): (\w) (\S+), to (\S+) further: (\w) (\S+)"
            match = re.fullmatch(pattern, line)
            assert match, line
            for at in steps(match[2]):
                ends = (at, number(match[4]), at + number(match[5]), number(match[7]))
                found[ends_of(Groove(face, *ends, 1.0, 1.0))] += 1  # type: ignore[arg-type]
    return found


@pytest.mark.parametrize("name", JOBS)
def test_ends_of_grooves_and_corners_are_told(name: str) -> None:
    grooves = 0
    for label, part in parts_of(JOBS[name]):
        told = entries(part_drawing(label, part, DisplayUnit.MM))
        read: Counter[tuple[str, str]] = Counter()
        for head, places in told:
            if match := re.match(r"(\d+) on (\w+): groove", head):
                read += told_grooves(match[2], places)
        made = Counter(ends_of(op) for op in part.operations if isinstance(op, Groove))
        assert read.keys() == made.keys(), label
        assert sum(read.values()) == sum(made.values()), label
        grooves += sum(made.values())
        if part.outline:
            (words,) = [head for head, _ in told if head.startswith("corners")]
            check_corners(part.outline, words.removeprefix("corners x | y: ").split("; "), label)
    assert grooves > 50


def test_front_and_top_are_marked_on_what_stands_in_a_carcass() -> None:
    """A gable's long edge towards the room is its front; of its ends, one is the top (common practice)."""
    for label, part in parts_of(JOBS["demo"]):
        if part.name in ("left gable", "right gable"):
            words = {i.text for i in part_drawing(label, part, DisplayUnit.MM).items if isinstance(i, Text)}
            assert "L1, front" in words
            assert ("W1, top" in words) == (part.name == "left gable")
            assert ("W2, top" in words) == (part.name == "right gable")
            assert sides_of(part)["L1"] == "front"


def test_every_piece_is_on_a_sheet_and_every_figure_stands_clear() -> None:
    w = Workings(with_run(new_job(), "A", Level.BASE, "drawers 600, corner 900, pair 800, open 300"))
    sheets = part_sheets(w, "2026-11-28")
    drawn = [v.drawing.mark for s in sheets for v in s.views]
    assert sorted(drawn) == sorted(row.numbers[0] for row in w.cut_rows)
    assert len({s.block.number for s in sheets}) == len(sheets)
    for sheet in sheets:
        for view in sheet.views:
            seen = shown(view.drawing, view.scale)
            assert all(t.size >= LEAST for t in seen.texts)
            figures = [d for d in view.drawing.items if isinstance(d, Dim)]
            assert len([f for f in seen.figures if f.text is not None]) <= len(figures)


@pytest.mark.parametrize("display", [DisplayUnit.FRACTION_16, DisplayUnit.FEET, DisplayUnit.INCH])
def test_in_inches_places_are_told_to_a_ten_thousandth_never_in_fractions(display: DisplayUnit) -> None:
    """A sixteenth is 1.6 mm: a hole drilled by one could miss its other half by half of that."""
    label, part = next((n, p) for n, p in parts_of(JOBS["demo"]) if p.name == "left gable")
    told = entries(part_drawing(label, part, display))
    numbers = [t for head, lines in told for line in lines for t in re.findall(r"\d+/\d+", line)]
    assert numbers == []
    bores = {(op.face, round(op.x, 1), round(op.y, 1)) for op in part.operations if isinstance(op, Bore)}
    read = {
        (face, round(u / 10 * 25.4, 1), round(v / 10 * 25.4, 1))
        for face, u, v in _in_inches(part_drawing(label, part, display))
    }
    assert all(any(f == g and abs(u - a) < 0.11 and abs(v - b) < 0.11 for g, a, b in read) for f, u, v in bores)
    dims = [d.text for d in part_drawing(label, part, display).items if isinstance(d, Dim)]
    assert not any("/" in text for text in dims)


def _in_inches(drawing: Drawing) -> list[tuple[str, float, float]]:
    """Face and place (tenths of an inch) of every hole, by the words."""
    found = []
    for head, places in entries(drawing):
        if match := re.match(r"(\d+) on (\w+): hole", head):
            first = {"W1": "y", "W2": "y"}.get(match[2], "x")
            for line in places:
                name, at, _, along = re.fullmatch(r"(\w) (.+): (\w) (.+)", line).groups()  # type: ignore[union-attr]
                for across, far in product(steps(at), steps(along)):
                    u, v = (across, far) if name == first else (far, across)
                    found.append((match[2], u * 10, v * 10))
    return found
