"""Edits of the bays inside one unit: splitting, sliding boards, clear sizes, fronts, shelves, fittings (BY1, BY2, BY3).

A bay is named by its path: numbers of children from the root, rows from the top down, columns from the left.
"""

from __future__ import annotations

import re

import msgspec

from tall_plank.edits.change import Change, with_unit
from tall_plank.edits.rooms import read, read_in
from tall_plank.job import Bay, Body, Job, Split, Unit
from tall_plank.job.bays import HINGED, INSIDE, PULLED, Fitted, Front
from tall_plank.job.standard import CHOICES
from tall_plank.making import MadeUnit, make_one
from tall_plank.making.bayset import BayBox
from tall_plank.measure import Length, LengthError, PlankError, told
from tall_plank.measure.limits import check_reach
from tall_plank.setout import set_out

Path = tuple[int, ...]
LEAST_BAY = 20.0
"""mm; a smaller bay holds nothing."""

MOST_BAYS = 20

FRONTS = {
    "none": "open", "door": "door", "pair": "pair of doors", "drawer": "drawer", "inner": "inner drawer",
    "flap": "flap, hinged above", "drop": "drop front, hinged below", "bifold": "bifold door", "pocket": "pocket door",
    "pullout": "pull-out", "appliance": "appliance front", "fixed": "fixed front",
}  # fmt: skip
"""What may close a bay, with its words."""

BETWEEN = {"shelf": "a shelf", "divider": "a divider", "nothing": "nothing"}


def unit_at(job: Job, cell_id: str, path: Path) -> tuple[str, Unit, Bay]:
    """Number, unit and bay.

    Raises
    ------
    PlankError where the cell has no bays, or none at the path
    """
    _, _, cell = job.find_cell(cell_id)
    if job.template_of(cell).body is not Body.CARCASS:
        raise PlankError("It has no bays.", cell.number, "Choose a unit with a carcass.")
    unit = job.unit(cell.unit)
    try:
        return cell.number, unit, unit.bay.at(path)
    except IndexError:
        raise PlankError("There is no such bay any more.", cell.number, "Choose another bay.") from None


def with_bay(job: Job, unit: Unit, path: Path, bay: Bay, name: str) -> Change:
    new = msgspec.structs.replace(unit, bay=unit.bay.replaced(path, bay))
    return Change(with_unit(job, new), name)


def box_of(job: Job, cell_id: str, path: Path) -> BayBox:
    """A bay as it is set out now.

    Raises
    ------
    PlankError where its unit cannot be made
    """
    made = make_one(job, set_out(job), cell_id)
    found = next((b for b in made.set.boxes if b.path == path), None) if made is not None and made.set else None
    if found is None:
        raise PlankError("This unit's bays are not set out.", "bay", "Mend the unit first.")
    return found


# --- splitting


def read_sizes(job: Job, text: str, most: float = 3000.0) -> list[tuple[Length | None, float]]:
    """Sizes of a split: `3` equal bays; `1:2:1` proportions; or sizes one after another, `300 share 450`, where a
    share takes what is left.

    Raises
    ------
    PlankError for text that is none of these
    """
    text = text.strip()
    example = "Write 3 for equal bays, 1:2 for proportions, or sizes such as 300 share 450."
    if re.fullmatch(r"\d{1,2}", text):
        count = int(text)
        if not 2 <= count <= MOST_BAYS:
            raise PlankError(f"{count} bays are not possible.", "split", f"From 2 to {MOST_BAYS}.")
        return [(None, 1.0)] * count
    if re.fullmatch(r"[\d.]+(\s*:\s*[\d.]+)+", text):
        try:
            weights = [float(part) for part in text.split(":")]
        except ValueError:
            raise PlankError(f"“{text}” is no proportion.", "split", example) from None
        if min(weights) <= 0 or len(weights) > MOST_BAYS or max(weights) > 1000:
            raise PlankError(f"“{text}” is no proportion.", "split", example)
        return [(None, weight) for weight in weights]
    words = [w for w in (text.split(";") if ";" in text else text.split()) if w.strip()]
    if len(words) < 2 or len(words) > MOST_BAYS:
        raise PlankError(f"“{text}” is no way to split a bay.", "split", example)
    sizes: list[tuple[Length | None, float]] = []
    for word in words:
        if word.strip().lower() in ("share", "rest"):
            sizes.append((None, 1.0))
            continue
        try:
            sizes.append((read(job, word.strip(), least=LEAST_BAY, most=most), 1.0))
        except LengthError as error:
            raise PlankError(error.what, "split", error.remedy or example) from None
    return sizes


def split_bay(job: Job, cell_id: str, path: Path, text: str, split: str, between: str) -> Change:
    """Split a bay in rows or columns with shelves, dividers or nothing between.

    With a board between, its front stays and covers all the new bays; with nothing between, each gets its own. The
    fittings go to the first bay that has room for them. One share at least takes up what the sizes leave.

    Raises
    ------
    PlankError “A bay is split in rows or columns, by a shelf, a divider or nothing.”, “Shelves part rows, dividers
    part columns.”, “This bay is split already.”, “An appliance stands in this bay.”, “All the sizes are typed; this
    bay has … mm.”
    """
    number, unit, bay = unit_at(job, cell_id, path)
    if split not in ("rows", "columns") or between not in BETWEEN:
        raise PlankError("A bay is split in rows or columns, by a shelf, a divider or nothing.", "split", "Choose.")
    if (split, between) in (("rows", "divider"), ("columns", "shelf")):
        raise PlankError("Shelves part rows, dividers part columns.", "split", "Choose the other one.")
    if bay.children:
        raise PlankError("This bay is split already.", number, "Choose one of the bays in it.")
    if bay.appliance:
        raise PlankError("An appliance stands in this bay.", number, "Choose another bay.")
    if between != "nothing":
        check_free(number, bay)
    sizes = read_sizes(job, text)
    if all(size is not None for size, _ in sizes):
        box = box_of(job, cell_id, path)
        span = box.clear if between != "nothing" else box.zone
        have = span.height if split == "rows" else span.width
        raise PlankError(
            f"All the sizes are typed; this bay has {told(have)} mm.", "split", "Write share for one, to take the rest."
        )
    plain = Bay(front=bay.front if between == "nothing" else None, shelves=bay.shelves if split == "columns" else 0)
    error: PlankError | None = None
    for keeper in range(len(sizes)):
        children = _children(plain, sizes, split, bay.fittings, keeper)
        new = msgspec.structs.replace(
            bay,
            split=Split(split),
            between=between,
            children=children,
            shelves=0,
            fittings=(),
            front=None if between == "nothing" else bay.front,
        )
        try:
            return still_made(job, cell_id, with_bay(job, unit, path, new, f"Split a bay of {number}"))
        except PlankError as wrong:
            error = error or wrong
        if not bay.fittings:
            break
    assert error is not None
    if len(sizes) > 1 and bay.fittings:
        what = f"What is in this bay fits into none of the new ones. {error.what}"
        raise PlankError(what, error.where, "Leave it a larger bay, or take it out first.")
    raise error


def _children(
    plain: Bay, sizes: list[tuple[Length | None, float]], split: str, fittings: tuple[Fitted, ...], keeper: int
) -> tuple[Bay, ...]:
    """Bays alike but for their sizes; one keeps the fittings. Where a door is parted in columns, the last one hangs on
    the upright at the right."""
    found = [
        msgspec.structs.replace(plain, size=size, weight=weight, fittings=fittings if i == keeper else ())
        for i, (size, weight) in enumerate(sizes)
    ]
    front = plain.front
    if split == "columns" and front is not None and front.kind in HINGED:
        found[-1] = msgspec.structs.replace(found[-1], front=msgspec.structs.replace(front, hand="right"))
    return tuple(found)


def join_bay(job: Job, cell_id: str, path: Path) -> Change:
    """Take out everything that divides a bay; the contents of its first bay stay.

    Raises
    ------
    PlankError “This bay is not split.”
    """
    number, unit, bay = unit_at(job, cell_id, path)
    if not bay.children:
        raise PlankError("This bay is not split.", number, "Choose the bay around it.")
    first = bay
    while first.children:
        first = first.children[0]
    fittings = tuple(f for p in bay.paths() for f in bay.at(p).fittings)
    new = msgspec.structs.replace(
        bay,
        split=Split.NONE,
        between="nothing",
        children=(),
        front=bay.front or first.front,
        shelves=first.shelves,
        fittings=fittings[:1],
    )
    return with_bay(job, unit, path, new, f"Undivide a bay of {number}")


def remove_board(job: Job, cell_id: str, path: Path, index: int) -> Change:
    """Take out the board after a child of a bay; the two bays beside it become one, with the first one's contents.

    Raises
    ------
    PlankError “There is no board.”
    """
    number, unit, bay = unit_at(job, cell_id, path)
    if not 0 <= index < len(bay.children) - 1:
        raise PlankError("There is no board.", number, "Choose one that stands between two bays.")
    if len(bay.children) == 2:
        change = join_bay(job, cell_id, path)
        return Change(change.job, f"Take a board out of {number}")
    a, b = bay.children[index], bay.children[index + 1]
    merged = msgspec.structs.replace(a, size=None, weight=a.weight + b.weight)
    children = (*bay.children[:index], merged, *bay.children[index + 2 :])
    return with_bay(job, unit, path, msgspec.structs.replace(bay, children=children), f"Take a board out of {number}")


# --- sizes


def slide_board(job: Job, cell_id: str, path: Path, index: int, before: float) -> Change:
    """Slide the board after a child of a bay until the clear size before it (above or left of it) is `before` mm.

    Only this board moves: the bay after it takes the rest, the others keep their sizes.

    Raises
    ------
    PlankError “There is no board.”
    """
    check_reach(before)
    number, unit, bay = unit_at(job, cell_id, path)
    made = make_one(job, set_out(job), cell_id)
    if made is None or made.set is None or not 0 <= index < len(bay.children) - 1:
        raise PlankError("There is no board.", number, "Choose one that stands between two bays.")
    spans = child_sizes(made, path)
    both = spans[index] + spans[index + 1]
    before = min(max(before, LEAST_BAY), both - LEAST_BAY)
    children = []
    for i, child in enumerate(bay.children):
        if i == index + 1:
            child = msgspec.structs.replace(child, size=None, weight=1.0)
        elif i == index:
            child = msgspec.structs.replace(child, size=_mm(before))
        elif child.size is None:
            child = msgspec.structs.replace(child, size=_mm(spans[i]))
        children.append(child)
    return with_bay(
        job, unit, path, msgspec.structs.replace(bay, children=tuple(children)), f"Slide a board of {number}"
    )


def _mm(value: float) -> Length:
    return Length(f"{round(value, 2):g}mm", round(value, 2))


def child_sizes(made: MadeUnit, path: Path) -> list[float]:
    """Sizes of the children of a bay as they are typed: clear, or of their fronts where nothing stands between."""
    assert made.set is not None
    parent = next(b for b in made.set.boxes if b.path == path)
    found = [b for b in made.set.boxes if len(b.path) == len(path) + 1 and b.path[: len(path)] == path]
    rects = [b.zone if parent.bay.between == "nothing" else b.clear for b in found]
    return [r.height if parent.bay.split is Split.ROWS else r.width for r in rects]


def set_size(job: Job, cell_id: str, path: Path, text: str) -> Change:
    """Type the size of a bay in its row or column; nothing (or share) lets it take a share. Where no other bay is
    left to take the rest, the one after it (or before the last) does.

    Raises
    ------
    PlankError “The whole unit has no bay around it.”
    """
    number, unit, bay = unit_at(job, cell_id, path)
    if not path:
        raise PlankError("The whole unit has no bay around it.", number, "Change its width or height.")
    plain = text.strip().lower()
    size = read(job, text, least=LEAST_BAY, most=3000) if plain not in ("", "share", "rest") else None
    parent = unit.bay.at(path[:-1])
    index = path[-1]
    children = list(parent.children)
    children[index] = msgspec.structs.replace(bay, size=size)
    if size is not None and all(child.size is not None for child in children):
        other = index + 1 if index + 1 < len(children) else index - 1
        children[other] = msgspec.structs.replace(children[other], size=None, weight=1.0)
    new = msgspec.structs.replace(parent, children=tuple(children))
    return still_made(job, cell_id, with_bay(job, unit, path[:-1], new, f"Set a bay of {number}"))


# --- fronts, shelves, fittings


def set_front(job: Job, cells: tuple[tuple[str, Path], ...], kind: str) -> Change:
    """What closes bays. A front over a divided bay takes the place of the fronts in it; a front in a bay takes the
    place of one over several bays around it. Inner drawers stay behind a front.

    Raises
    ------
    PlankError “… closes no bay.”, “A drawer stands in one bay only.”, “A drawer takes all the room of a bay; ….”
    """
    if kind not in FRONTS:
        raise PlankError(f"“{kind}” closes no bay.", "front", f"Known: {', '.join(FRONTS)}.")
    for cell_id, path in cells:
        number, unit, bay = unit_at(job, cell_id, path)
        word = _pulled_word(kind)
        if kind in PULLED and bay.children:
            raise PlankError(f"A {word} stands in one bay only.", "front", "Choose a bay that is not split.")
        if kind in PULLED and (inside := inside_of(bay)):
            what = f"A {word} takes all the room of a bay; in this one of {number} there is {inside}."
            raise PlankError(what, "front", "Take that out first, or split the bay.")
        root = unit.bay
        if kind != "none" and kind not in INSIDE:
            for depth in range(len(path)):
                around = root.at(path[:depth])
                root = root.replaced(path[:depth], msgspec.structs.replace(around, front=None))
        if kind == "none":
            new = msgspec.structs.replace(bay, front=None)
        else:
            old = bay.front
            front = Front(kind, hand=old.hand if old else "left", style=old.style if old else "")  # type: ignore[arg-type]
            new = msgspec.structs.replace(bay, front=front)
            if kind not in INSIDE:
                new = without_fronts(new, keep=True)
        root = root.replaced(path, new)
        job = with_unit(job, msgspec.structs.replace(unit, bay=root))
    return Change(job, f"Close with {FRONTS[kind]}" if kind != "none" else "Leave a bay open")


def _pulled_word(kind: str) -> str:
    return "pull-out" if kind == "pullout" else "drawer"


def inside_of(bay: Bay) -> str:
    """What stands in a bay beside its front, in words; empty where it is free."""
    found = [f"{bay.shelves} shelves" if bay.shelves > 1 else "a shelf"] if bay.shelves else []
    found += ["a fitting"] if bay.fittings else []
    found += ["an appliance"] if bay.appliance else []
    return " and ".join(found)


def check_free(number: str, bay: Bay) -> None:
    """
    Raises
    ------
    PlankError “A drawer takes all the room of this bay.”
    """
    if bay.front is not None and bay.front.kind in PULLED:
        word = _pulled_word(bay.front.kind)
        raise PlankError(f"A {word} takes all the room of this bay of {number}.", "bay", f"Take the {word} out first.")


def without_fronts(bay: Bay, *, keep: bool = False) -> Bay:
    """A bay without fronts but inner drawers, in it and in the bays inside it; `keep` leaves its own."""
    children = tuple(without_fronts(child) for child in bay.children)
    front = bay.front if keep or (bay.front is not None and bay.front.kind in INSIDE) else None
    return msgspec.structs.replace(bay, children=children, front=front)


def set_front_value(job: Job, cells: tuple[tuple[str, Path], ...], key: str, value: str) -> Change:
    """Hinge side, style, handle or its place (`from_edge`, `from_end`) of the fronts of bays; empty: that of the unit.

    Raises
    ------
    PlankError where the handle would leave its front
    """
    typed: object = value
    if key not in ("hand", "style", "handle", "from_edge", "from_end"):
        raise PlankError(f"A front has no {key[:20]}.", "front", "Choose hand, style, handle or its place.")
    if key == "hand" and value not in ("left", "right"):
        raise PlankError(f"“{value}” is no side.", "hinges", "Choose left or right.")
    if key == "style" and value and value not in CHOICES["front_style"]:
        raise PlankError(f"There is no style “{value}”.", "style", f"Known: {', '.join(CHOICES['front_style'])}.")
    if key == "handle" and value and value != "none" and job.stock.fitting(value) is None:
        raise PlankError(f"The stock has no handle {value}.", "handle", "Choose another one.")
    if key in ("from_edge", "from_end"):
        typed = read_in(job, value, Front, key) if value.strip() else None
    skipped = []
    before = job
    for cell_id, path in cells:
        number, unit, bay = unit_at(job, cell_id, path)
        if bay.front is None:
            skipped.append(f"{number}: a bay without a front")
            continue
        front = msgspec.structs.replace(bay.front, **{key: typed})
        root = unit.bay.replaced(path, msgspec.structs.replace(bay, front=front))
        job = with_unit(job, msgspec.structs.replace(unit, bay=root))
    change = Change(job, f"Set the {key.replace('_', ' ')} of a front", tuple(skipped))
    for cell_id, _ in cells:
        still_made(before, cell_id, change)
    return change


def replace_style(job: Job, old: str, new: str) -> Change:
    """Put fronts of one style in place of all those of another, wherever they are: on single fronts, units, and in
    the standard in force (BY5).

    Raises
    ------
    PlankError “That is the same style.”, “No front has that style.”, “There is no style ….”
    """
    from tall_plank.job.inherit import sourced

    for style in (old, new):
        if style not in CHOICES["front_style"]:
            raise PlankError(f"There is no style “{style}”.", "style", f"Known: {', '.join(CHOICES['front_style'])}.")
    if old == new:
        raise PlankError("That is the same style.", "style", "Choose another one.")

    def changed(bay: Bay) -> Bay:
        front = bay.front
        if front is not None and front.style == old:
            front = msgspec.structs.replace(front, style=new)
        return msgspec.structs.replace(bay, front=front, children=tuple(changed(c) for c in bay.children))

    count = 0
    standard = job.active_standard()
    inherits = standard.values()["front_style"] == old
    units = []
    for unit in job.units:
        had = sourced(job, unit, "front_style")
        fresh = msgspec.structs.replace(unit, bay=changed(unit.bay))
        if had.value == old and (had.own or not inherits or standard.name not in had.source):
            fresh = fresh.with_own("front_style", new)
        units.append(fresh)
        count += fresh != unit
    if not count and not inherits:
        raise PlankError("No front has that style.", CHOICES["front_style"][old], "Choose a style that is used.")
    job = msgspec.structs.replace(job, units=tuple(units))
    if inherits:
        fresh_standard = standard.with_choice("front_style", new)
        standards = tuple(fresh_standard if s.code == standard.code else s for s in job.standards)
        job = msgspec.structs.replace(job, standards=standards)
    words = CHOICES["front_style"]
    return Change(job, f"Replace {words[old].lower()} by {words[new].lower()}")


def set_shelves(job: Job, cell_id: str, path: Path, text: str) -> Change:
    """Number of adjustable shelves of a bay.

    Raises
    ------
    PlankError “… is no number of shelves.”, “This bay is split.”, “A drawer takes all the room of this bay.”
    """
    number, unit, bay = unit_at(job, cell_id, path)
    if not text.strip().isdigit() or not 0 <= int(text) <= 20:
        raise PlankError(f"“{text}” is no number of shelves.", "shelves", "Type a number from 0 to 20.")
    if bay.children:
        raise PlankError("This bay is split.", number, "Choose one of the bays in it.")
    if int(text):
        check_free(number, bay)
    new = msgspec.structs.replace(bay, shelves=int(text))
    return still_made(job, cell_id, with_bay(job, unit, path, new, f"Set the shelves of a bay of {number}"))


def set_appliance(job: Job, cell_id: str, path: Path, code: str) -> Change:
    """Build an appliance into a bay, or take it out (empty code).

    Raises
    ------
    PlankError where the bay does not give the opening that it asks for: with what is lacking
    """
    number, unit, bay = unit_at(job, cell_id, path)
    if bay.children:
        raise PlankError("This bay is split.", number, "Choose one of the bays in it.")
    thing = job.stock.appliance(code) if code else None
    if code and thing is None:
        raise PlankError(f"The stock has no appliance {code}.", "appliance", "Choose another one.")
    if code:
        check_free(number, bay)
    new = msgspec.structs.replace(bay, appliance=code, shelves=0 if code else bay.shelves)
    words = f"Build in: {thing.name.lower()}" if thing is not None else f"Take the appliance out of {number}"
    return still_made(job, cell_id, with_bay(job, unit, path, new, words))


def still_made(job: Job, cell_id: str, change: Change) -> Change:
    """Refuse a change by which a unit that could be made no longer can be, with the reason."""
    before = make_one(job, set_out(job), cell_id)
    after = make_one(change.job, set_out(change.job), cell_id)
    if before is None or after is None:
        return change
    old = {p.what for p in before.problems}
    wrong = next((p for p in after.problems if p.weight == "wrong" and p.what not in old), None)
    if wrong is not None:
        raise PlankError(wrong.what, "bay", wrong.remedy)
    return change
