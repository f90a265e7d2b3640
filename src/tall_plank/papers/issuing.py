"""Issuing a set of drawings: it is frozen in the job with a letter; from then on what differs from it has a cloud."""

from __future__ import annotations

import hashlib
import math
import tempfile
from collections.abc import Iterable, Sequence
from pathlib import Path

import msgspec

from tall_plank.drawing.primitives import Arc, Item, Layer, Line, Pen, Shape, Text
from tall_plank.drawing.sheets import Sheet, View, images_of
from tall_plank.drawing.shown import Mark
from tall_plank.drawing.words import Box, box_of
from tall_plank.edits.change import Change
from tall_plank.job import Job
from tall_plank.job.issue import Issue, IssuedSheet, letter_after, signature_of
from tall_plank.measure import PlankError
from tall_plank.papers.about import About
from tall_plank.papers.drawings import Tell, quietly
from tall_plank.papers.sets import KINDS, set_sheets
from tall_plank.papers.write_pdf import write_sheets
from tall_plank.workings import Workings

MOST = 40
"""Issues of one kind of set that a job keeps."""

NEAR = 3.0
"""mm of paper; changes that are nearer share a cloud."""

PLACE, ORIGIN, GRID = 7, 0x800, 5.0
"""Digits of the place of a mark, its number at 0, and mm of paper from one number to the next."""

ROUND = 2.2
"""mm of paper; radius of a cloud's arcs."""


def issues_of(job: Job, kind: str) -> list[Issue]:
    """The issues of a kind of set, the first one first."""
    return [i for i in job.issues if i.kind == kind]


def mark_of(item: Mark, scale: float) -> str:
    """Four bytes, hexadecimal, that are another when an item is another on paper by a tenth of a mm."""

    def mm(*values: float) -> str:
        return ",".join(f"{round(v / scale * 10) / 10 + 0.0:g}" for v in values)

    match item:
        case Line():
            ends = sorted([(item.x1, item.y1), (item.x2, item.y2)])
            text = f"l{mm(*ends[0], *ends[1])}{item.pen}"
        case Shape():
            text = f"s{mm(*(v for p in item.points for v in p))}{item.pen}{item.fill}"
        case Arc():
            text = f"a{mm(item.x, item.y, item.radius)}{item.start:.1f},{item.end:.1f}{item.pen}"
        case Text():
            text = f"t{mm(item.x, item.y)}{item.text}{item.size}"
    return hashlib.sha256(text.encode()).hexdigest()[:8]


def marks_of(sheet: Sheet) -> list[str]:
    """The marks of all that stands on a sheet, in order."""
    return [mark_of(item, view.scale) for view in sheet.views for item in view.shown.items]


def digest_of(sheet: Sheet) -> str:
    """SHA-256 of what stands on a sheet: its views where they are, the words of its block but for date and revision."""
    b = sheet.block
    said = [b.title, b.owner, b.job, b.client, b.kind, b.number, sheet.paper, sheet.scales, *sheet.notes]
    places = [f"{v.x:.1f},{v.y:.1f}" for v in sheet.views]
    images = [hashlib.sha256(data).hexdigest() for *_, data in images_of(sheet)]
    return hashlib.sha256("\n".join([*said, *places, *images, *marks_of(sheet)]).encode()).hexdigest()


def with_revisions(job: Job, kind: str, sheets: Sequence[Sheet]) -> list[Sheet]:
    """Sheets with the letter of their last revision; those that differ from it with clouds about what does and a star
    behind the letter."""
    issues = issues_of(job, kind)
    if not issues:
        return list(sheets)
    last = {s.number: s for s in issues[-1].sheets}
    found = []
    for sheet in sheets:
        before = last.get(sheet.block.number)
        found.append(_revised(sheet, "new") if before is None else _compared(sheet, before, f"{before.revision}*"))
    return found


def _compared(sheet: Sheet, before: IssuedSheet, letter: str) -> Sheet:
    """A sheet with the letter that it had where it is what it was; else with another, and clouds about what differs."""
    if digest_of(sheet) == before.digest:
        return _revised(sheet, before.revision)
    known = {before.marks[i : i + 8] for i in range(0, len(before.marks), 8)}
    gone = _taken_off(sheet, before)
    views = tuple(_clouded(view, known, gone.get(n, [])) for n, view in enumerate(sheet.views))
    return _revised(msgspec.structs.replace(sheet, views=views), letter)


def _revised(sheet: Sheet, revision: str) -> Sheet:
    return msgspec.structs.replace(sheet, block=msgspec.structs.replace(sheet.block, revision=revision))


def _taken_off(sheet: Sheet, before: IssuedSheet) -> dict[int, list[Box]]:
    """Where something stood that is no longer there, by the number of its view; mm of paper in its drawing."""
    now = set(marks_of(sheet))
    found: dict[int, list[Box]] = {}
    for i in range(len(before.places) // PLACE):
        if before.marks[i * 8 : i * 8 + 8] not in now:
            place = before.places[i * PLACE : (i + 1) * PLACE]
            x, y = ((int(place[k : k + 3], 16) - ORIGIN) * GRID for k in (1, 4))
            found.setdefault(int(place[0], 16), []).append((x - GRID / 2, y - GRID / 2, x + GRID / 2, y + GRID / 2))
    return found


def places_of(sheet: Sheet) -> dict[str, str]:
    """The marks of a sheet, each with where the first of its kind stands."""
    found: dict[str, str] = {}
    for n, view in enumerate(sheet.views):
        for item in view.shown.items:
            x0, y0, x1, y1 = _box(item, view.scale)
            x, y = (min(max(round(v / 2 / GRID) + ORIGIN, 0), 0xFFF) for v in (x0 + x1, y0 + y1))
            found.setdefault(mark_of(item, view.scale), f"{min(n, 15):x}{x:03x}{y:03x}")
    return found


def _clouded(view: View, known: set[str], gone: Sequence[Box]) -> View:
    """A view with clouds about what is not known, and where something is gone."""
    new = (item for item in view.shown.items if mark_of(item, view.scale) not in known)
    boxes = [*gone, *(_box(item, view.scale) for item in new)]
    clouds: list[Item] = []
    for box in _gathered(boxes):
        clouds += _cloud(box, view.scale)
    if not clouds:
        return view
    drawing = msgspec.structs.replace(view.drawing, items=(*view.drawing.items, *clouds))
    return msgspec.structs.replace(view, drawing=drawing)


def _box(item: Mark, scale: float) -> Box:
    """What an item takes, mm of paper in its drawing."""
    match item:
        case Line():
            xs, ys = sorted((item.x1, item.x2)), sorted((item.y1, item.y2))
            return xs[0] / scale, ys[0] / scale, xs[1] / scale, ys[1] / scale
        case Shape():
            us, vs = [p[0] for p in item.points], [p[1] for p in item.points]
            return min(us) / scale, min(vs) / scale, max(us) / scale, max(vs) / scale
        case Arc():
            r = item.radius
            return (item.x - r) / scale, (item.y - r) / scale, (item.x + r) / scale, (item.y + r) / scale
        case Text():
            return box_of(item, scale)


def _gathered(boxes: Iterable[Box]) -> list[Box]:
    """Boxes that lie close to one another as one."""
    found: list[Box] = []
    for box in boxes:
        merged = box
        while True:
            near = [b for b in found if _close(b, merged)]
            if not near:
                break
            found = [b for b in found if b not in near]
            every = [merged, *near]
            merged = (
                min(b[0] for b in every), min(b[1] for b in every), max(b[2] for b in every), max(b[3] for b in every),
            )  # fmt: skip
        found.append(merged)
    return found


def _close(a: Box, b: Box) -> bool:
    return a[0] < b[2] + NEAR and b[0] < a[2] + NEAR and a[1] < b[3] + NEAR and b[1] < a[3] + NEAR


def _cloud(box: Box, scale: float) -> list[Item]:
    """Arcs that bow outwards round a box (mm of paper)."""
    x0, y0, x1, y1 = box[0] - ROUND, box[1] - ROUND, box[2] + ROUND, box[3] + ROUND
    items: list[Item] = []
    for ax, ay, bx, by, start in (
        (x0, y0, x1, y0, 180.0),
        (x1, y0, x1, y1, 270.0),
        (x1, y1, x0, y1, 0.0),
        (x0, y1, x0, y0, 90.0),
    ):
        size = math.hypot(bx - ax, by - ay)
        count = max(1, round(size / (2 * ROUND)))
        for i in range(count):
            t = (i + 0.5) / count
            x, y, r = ax + (bx - ax) * t, ay + (by - ay) * t, size / count / 2
            items.append(Arc(x * scale, y * scale, r * scale, start, start + 180.0, Pen.MEDIUM, Layer.LABEL))
    return items


def issue_set(w: Workings, kind: str, date: str, note: str = "", tell: Tell = quietly) -> Change:
    """Give a set out: with the next letter, frozen as PDF in the job. Sheets that are what they were keep their letter;
    the others have clouds about what differs from the last issue.

    Raises
    ------
    PlankError where there is no such set, nothing has changed since the last issue, or there are too many
    StoppedError where `tell` says so
    """
    if kind not in KINDS:
        raise PlankError(f"“{kind[:20]}” is no set.", "issue", f"Known: {', '.join(KINDS)}.")
    issues = issues_of(w.job, kind)
    if len(issues) >= MOST:
        raise PlankError(f"{MOST} issues are kept already.", "issue", "Begin a new job file for the next ones.")
    sheets = set_sheets(w, kind, date, tell)
    letter = letter_after(len(issues))
    last = {s.number: s for s in issues[-1].sheets} if issues else {}
    frozen, given = [], []
    for sheet in sheets:
        before = last.get(sheet.block.number)
        revised = _revised(sheet, letter) if before is None else _compared(sheet, before, letter)
        given.append(revised)
        places = places_of(sheet)
        marks, where = "".join(places), "".join(places.values())
        digest = digest_of(sheet)
        frozen.append(IssuedSheet(sheet.block.number, sheet.title, revised.block.revision, digest, marks, where))
    if issues and all(s.revision != letter for s in frozen) and {s.number for s in frozen} == set(last):
        raise PlankError("Nothing has changed since the last issue.", "issue", "Change something first.")
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "set.pdf"
        write_sheets(given, path, w.job.name, About(w.title, w.job.papers.firm, date))
        data = path.read_bytes()
    issue = Issue(letter, kind, date, tuple(frozen), hashlib.sha256(data).hexdigest(), note[:200], data=data)
    earlier = tuple(_without_marks(i) if i.kind == kind else i for i in w.job.issues)
    job = msgspec.structs.replace(w.job, issues=(*earlier, issue))
    return Change(job, f"Issue the {kind} set as {letter}")


def _without_marks(issue: Issue) -> Issue:
    """An issue that another one follows: nothing is compared with it any more, its file says what it was."""
    bare = tuple(msgspec.structs.replace(s, marks="", places="") for s in issue.sheets)
    return msgspec.structs.replace(issue, sheets=bare)


def sign_issue(job: Job, kind: str, name: str, day: str) -> Change:
    """Say who approved the last issue of a set, and when; its file, the name and the day are hashed together.

    Raises
    ------
    PlankError where nothing was issued, it is signed already, or there is no name
    """
    issues = issues_of(job, kind)
    who = " ".join(name.split())[:80]
    if not issues:
        raise PlankError("Nothing was issued that could be signed.", "signature", "Issue the set first.")
    last = issues[-1]
    if last.signed_by:
        what = f"Issue {last.letter} was signed by {last.signed_by} on {last.signed_on}."
        raise PlankError(what, "signature", "Issue the set anew to have it signed again.")
    if not who:
        raise PlankError("A signature needs a name.", "signature", "Type who approved it.")
    signature = signature_of(last.seal, who, day)
    signed = msgspec.structs.replace(last, signed_by=who, signed_on=day, signature=signature)
    changed = tuple(signed if i is last else i for i in job.issues)
    return Change(msgspec.structs.replace(job, issues=changed), f"Sign issue {last.letter}")


def is_whole(issue: Issue) -> bool:
    """Whether the frozen file is what was issued, and what was signed."""
    if hashlib.sha256(issue.data).hexdigest() != issue.seal:
        return False
    return not issue.signed_by or issue.signature == signature_of(issue.seal, issue.signed_by, issue.signed_on)
