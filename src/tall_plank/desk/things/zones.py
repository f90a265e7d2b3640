"""The zones of a treatment on the spec sheet of a wall field: a group each, with what covers it or how it is split."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Row, length_text, optional_row, setter, setting
from tall_plank.edits.things.wall_field import set_count
from tall_plank.edits.treatments import cover_zone, join_zone, pattern_text, set_band, set_zone, split_zone
from tall_plank.job.treatment import (
    Arched,
    Bands,
    Bare,
    Boards,
    Halves,
    Modules,
    Panels,
    Parted,
    Raked,
    Slats,
    Zone,
    ZonePath,
    zone_at,
    zones_of,
)
from tall_plank.measure import DisplayUnit, Length, format_length
from tall_plank.setout.paneling.fields import FieldLaid
from tall_plank.setout.paneling.grid import PanelGrid, sum_line
from tall_plank.setout.paneling.values import (
    board_thickness,
    mm_of,
    module_board,
    panel_sizes,
    ring_thickness,
    slat_board,
    slat_depth,
    slat_steps,
)

COVER_WORDS = {
    "panels": "equal panels",
    "slats": "slats",
    "boards": "flat boards",
    "modules": "modules",
    "bare": "nothing",
}
SPLIT_WORDS = {
    "up": "into bands, one over another", "along": "into bands, side by side", "arch": "with an arch in it",
    "line": "by a line", "rake": "with a band along a stair", "halves": "into mirrored halves",
}  # fmt: skip
STYLE_WORDS = {
    "planted": "frame planted on a board", "framed": "frame and panel", "raised": "fields planted on a board",
    "molded": "moldings on a board",
}  # fmt: skip
TAKER_WORDS = {
    "ends": "both end stiles",
    "evenly": "every stile",
    "last": "the right end stile",
    "panel": "the last panel",
}
START_WORDS = {"fitted": "whole slats at both ends", "left": "from the left end", "centered": "about the middle"}
ARCH_WORDS = {"round": "round", "segmental": "segmental", "elliptical": "elliptical", "pointed": "pointed"}


def zone_name(root: Zone, path: ZonePath) -> str:
    """What a zone is called: where it lies in the one around it."""
    if not path:
        return tr("Whole field")
    words = []
    zone: Zone = root
    for i in path:
        match zone:
            case Bands(way="up"):
                words.append(
                    tr("lower band")
                    if i == 0
                    else tr("upper band")
                    if i == len(zone.bands) - 1
                    else f"{tr('band')} {i + 1}"
                )
            case Bands():
                words.append(f"{tr('band')} {i + 1} {tr('from the left')}")
            case Arched():
                words.append((tr("inside the arch"), tr("around the arch"), tr("border of the arch"))[i])
            case Parted():
                words.append((tr("left of the line"), tr("right of the line"))[i])
            case Halves():
                words.append(tr("each half"))
            case Raked():
                words.append((tr("raking band"), tr("under the rake"), tr("over the rake"))[i])
        found = zone_at(zone, (i,))
        zone = found if found is not None else zone
    text = ", ".join(words)
    return text[0].upper() + text[1:]


def zone_groups(doc: Document, laid: FieldLaid) -> list[Group]:
    """A group for every zone that is seen."""
    root = laid.treatment.zone
    groups = []
    for path, zone in zones_of(root):
        around = zone_at(root, path[:-1]) if path else None
        if isinstance(around, Arched) and path[-1] == 2 and around.border.mm <= 0:
            continue
        groups.append(Group(zone_name(root, path), tuple(_rows(doc, laid, path, zone))))
    return groups


def sum_shown(grid: PanelGrid, unit: DisplayUnit) -> str:
    """The sum of a stretch with the signs of print."""
    return sum_line(grid, unit).replace(" x ", " × ").replace(" / ", " ÷ ").replace(" - ", " − ")


def _key(path: ZonePath, key: str) -> str:
    return f"z{'.'.join(map(str, path))}_{key}"


def _rows(doc: Document, laid: FieldLaid, path: ZonePath, zone: Zone) -> list[Row]:
    tid = laid.treatment.id
    rows: list[Row] = []
    around = zone_at(laid.treatment.zone, path[:-1]) if path else None
    if isinstance(around, Bands):
        band = around.bands[path[-1]]
        word = tr("Height") if around.way == "up" else tr("Width")
        rows.append(
            optional_row(
                doc, _key(path, "band"), word, band.size, tr("a share of what is left"), tr("takes what others leave"),
                setter(set_band, tid, path[:-1], path[-1]),
            )
        )  # fmt: skip
    kinds = {Panels: "panels", Slats: "slats", Boards: "boards", Modules: "modules", Bare: "bare"}
    if type(zone) in kinds:
        covers = tuple((c, tr(w)) for c, w in COVER_WORDS.items())
        rows.append(
            Row(
                _key(path, "cover"),
                tr("Covered with"),
                tr(COVER_WORDS[kinds[type(zone)]]),
                choices=covers,
                apply=setter(cover_zone, tid, path),
            )
        )
    match zone:
        case Panels():
            rows += _panels(doc, laid, path, zone)
        case Slats():
            rows += _slats(doc, laid, path, zone)
        case Boards():
            rows += _boards(doc, laid, path, zone)
        case Modules():
            rows += _modules(doc, laid, path, zone)
        case Arched():
            rows += _arched(doc, tid, path, zone)
        case Parted():
            rows += _parted(doc, tid, path, zone)
        case Raked():
            rows += _raked(doc, tid, path, zone)
    if type(zone) in kinds:
        splits = tuple((c, tr(w)) for c, w in SPLIT_WORDS.items())
        rows.append(
            Row(
                _key(path, "split"),
                tr("Split"),
                tr("one zone"),
                "inherited",
                choices=splits,
                apply=setter(split_zone, tid, path),
            )
        )
    else:
        how = (
            "arch"
            if isinstance(zone, Arched)
            else "line"
            if isinstance(zone, Parted)
            else "rake"
            if isinstance(zone, Raked)
            else "halves"
            if isinstance(zone, Halves)
            else zone.way
            if isinstance(zone, Bands)
            else ""
        )
        rows.append(
            Row(
                _key(path, "join"), tr("Split"), tr(SPLIT_WORDS[how]), choices=(("", tr("one zone again")),),
                apply=lambda job, _: join_zone(job, tid, path),
            )
        )  # fmt: skip
    return rows


def _own(doc: Document, tid: str, path: ZonePath, key: str, label: str, own: Length | None, given: float) -> Row:
    """A length that is the standard's where the zone has none of its own."""
    return optional_row(
        doc,
        _key(path, key),
        tr(label),
        own,
        length_text(doc, given),
        tr("from the standard"),
        setter(set_zone, tid, path, key),
    )


def _choice(tid: str, path: ZonePath, key: str, label: str, value: str, words: dict[str, str]) -> Row:
    choices = tuple((c, tr(w)) for c, w in words.items())
    return Row(_key(path, key), tr(label), tr(words[value]), choices=choices, apply=setter(set_zone, tid, path, key))


def _plain(doc: Document, tid: str, path: ZonePath, key: str, label: str, length: Length) -> Row:
    return Row(_key(path, key), tr(label), length_text(doc, length.mm), apply=setter(set_zone, tid, path, key))


def _finish(doc: Document, tid: str, path: ZonePath, key: str, label: str, code: str, given: str) -> Row:
    finish = doc.job.stock.finish(code)
    choices = tuple((f.code, f.name) for f in doc.job.stock.finishes if "front" in f.roles)
    return Row(
        _key(path, key),
        tr(label),
        finish.name if finish is not None else tr(given),
        "own" if code else "inherited",
        "" if code else tr(given),
        choices=choices,
        apply=setter(set_zone, tid, path, key),
        revert=setting(set_zone, tid, path, key, "") if code else None,
    )


def _panels(doc: Document, laid: FieldLaid, path: ZonePath, zone: Panels) -> list[Row]:
    tid, fid = laid.treatment.id, laid.field.id
    sizes = panel_sizes(zone, laid.made)
    rows: list[Row] = []
    found = next((z for z in laid.zones if z.path == path), None)
    stretches = found.stretches if found is not None else ()
    for s in stretches:
        head = tr("Panels") if len(stretches) == 1 else f"{tr('Panels, stretch')} {s.number + 1}"
        count = str(s.grid.count) if s.grid is not None else "–"
        rows.append(
            Row(
                _key(path, f"count{s.number}"), head, count, "own" if s.own else "inherited",
                "" if s.own else tr("as many as come nearest to the wanted width"),
                apply=setter(set_count, fid, path, s.number),
                revert=setting(set_count, fid, path, s.number, "") if s.own else None,
            )
        )  # fmt: skip
        if s.grid is not None:
            rows.append(
                Row(
                    _key(path, f"width{s.number}"),
                    tr("each"),
                    f"{length_text(doc, min(s.grid.panels))} × {length_text(doc, s.grid.height)}",
                )
            )
            rows.append(Row(_key(path, f"sum{s.number}"), sum_shown(s.grid, doc.job.display), ""))
    rows += [
        _plain(doc, tid, path, "target", "Wanted width", zone.target),
        _choice(tid, path, "style", "Made as", zone.style, STYLE_WORDS),
        Row(_key(path, "rows"), tr("Rows"), str(zone.rows), apply=setter(set_zone, tid, path, "rows")),
        _own(doc, tid, path, "stile", "Stiles", zone.stile, sizes.stile),
        _own(doc, tid, path, "end_stile", "End stiles", zone.end_stile, sizes.end_stile),
        _own(doc, tid, path, "top_rail", "Top rail", zone.top_rail, sizes.top_rail),
        _own(doc, tid, path, "bottom_rail", "Bottom rail", zone.bottom_rail, sizes.bottom_rail),
    ]
    if zone.rows > 1:
        rows.append(_own(doc, tid, path, "mid_rail", "Rails between", zone.mid_rail, sizes.mid_rail))
    rows.append(_own(doc, tid, path, "step", "Sizes in steps of", zone.step, sizes.step))
    rows.append(_choice(tid, path, "rest", "What is left goes to", zone.rest, TAKER_WORDS))
    if zone.style != "framed":
        rows.append(_own(doc, tid, path, "board", "Board behind", zone.board, sizes.board))
    if zone.style != "molded":
        rows.append(_own(doc, tid, path, "frame", "Frame, thick", zone.frame, sizes.frame))
    rows.append(_finish(doc, tid, path, "finish", "Finish", zone.finish, "that of fronts"))
    if zone.style != "molded":
        rows.append(_finish(doc, tid, path, "panel_finish", "Panels in", zone.panel_finish, "the same"))
    moldings = [p for p in doc.job.stock.profiles if "panel molding" in p.uses] or list(doc.job.stock.profiles)
    profile = doc.job.stock.profile(zone.molding)
    rows.append(
        Row(
            _key(path, "molding"), tr("Molding"), profile.name if profile is not None else tr("none"),
            choices=(("", tr("none")), *((p.code, p.name) for p in moldings)),
            apply=setter(set_zone, tid, path, "molding"),
        )
    )  # fmt: skip
    return rows


def _slats(doc: Document, laid: FieldLaid, path: ZonePath, zone: Slats) -> list[Row]:
    tid, made = laid.treatment.id, laid.made
    steps = slat_steps(zone, made)
    own = any(s.width is not None or s.gap is not None for s in zone.pattern)
    found = next((z for z in laid.zones if z.path == path), None)
    rows = [
        Row(
            _key(path, "pattern"), tr("Slats"), pattern_text(steps, lambda mm: format_length(mm, doc.job.display)),
            "own" if own else "inherited", "" if own else tr("from the standard"),
            apply=setter(set_zone, tid, path, "pattern"),
            revert=setting(set_zone, tid, path, "pattern", "") if own else None,
        ),
        _choice(tid, path, "start", "Begin", zone.start, START_WORDS),
    ]  # fmt: skip
    if found is not None:
        rows.append(Row(_key(path, "count"), tr("Pieces"), str(len(found.slats))))
        if zone.start == "fitted":
            gaps = ", ".join(length_text(doc, g * found.fitted) for _, g in steps)
            rows.append(Row(_key(path, "fitted"), tr("Gaps come to"), gaps))
        if found.dropped:
            rows.append(Row(_key(path, "dropped"), tr("Left out"), str(found.dropped)))
    if zone.start == "fitted":
        least, most = 0.5 * min(g for _, g in steps), 2 * max(g for _, g in steps)
        rows.append(_own(doc, tid, path, "least_gap", "Least gap", zone.least_gap, least))
        rows.append(_own(doc, tid, path, "most_gap", "Most gap", zone.most_gap, most))
    rows += [
        Row(_key(path, "angle"), tr("Lean"), f"{zone.angle:g}°", apply=setter(set_zone, tid, path, "angle")),
        _own(doc, tid, path, "depth", "Depth", zone.depth, slat_depth(zone, made)),
        _own(doc, tid, path, "board", "Board behind", zone.board, slat_board(zone, made)),
        _plain(doc, tid, path, "least", "Least piece", zone.least),
        _finish(doc, tid, path, "finish", "Finish", zone.finish, "that of fronts"),
        _finish(doc, tid, path, "board_finish", "Board in", zone.board_finish, "the same"),
    ]
    return rows


def _boards(doc: Document, laid: FieldLaid, path: ZonePath, zone: Boards) -> list[Row]:
    tid, made = laid.treatment.id, laid.made
    count = str(zone.count) if zone.count else tr("as few as can be")
    rows = [
        Row(
            _key(path, "count"), tr("Boards"), count, "own" if zone.count else "inherited",
            "" if zone.count else tr("by the boards of the stock"), apply=setter(set_zone, tid, path, "count"),
            revert=setting(set_zone, tid, path, "count", "") if zone.count else None,
        ),
        _own(doc, tid, path, "gap", "Gap between", zone.gap, mm_of(zone.gap, made.wall_gap)),
        _own(doc, tid, path, "thickness", "Thickness", zone.thickness, board_thickness(zone, made)),
        _plain(doc, tid, path, "groove", "Grooves, wide", zone.groove),
    ]  # fmt: skip
    if zone.groove.mm > 0:
        rows.append(_plain(doc, tid, path, "groove_pitch", "Grooves, pitch", zone.groove_pitch))
        rows.append(_plain(doc, tid, path, "groove_depth", "Grooves, deep", zone.groove_depth))
    rows.append(_finish(doc, tid, path, "finish", "Finish", zone.finish, "that of fronts"))
    return rows


def _modules(doc: Document, laid: FieldLaid, path: ZonePath, zone: Modules) -> list[Row]:
    tid, made = laid.treatment.id, laid.made
    found = next((z.modules for z in laid.zones if z.path == path), None)
    rows = [
        _plain(doc, tid, path, "width", "Module, wide", zone.width),
        _plain(doc, tid, path, "height", "Module, high", zone.height),
    ]
    if found is not None:
        g = found.grid
        rows.append(Row(_key(path, "whole"), tr("Whole ones"), f"{g.across} × {g.up}"))
        margins = f"{length_text(doc, g.margin_x)}, {length_text(doc, g.margin_z)}"
        rows.append(Row(_key(path, "margins"), tr("Margins"), margins))
        if g.wider_x or g.wider_z:
            wider = f"{length_text(doc, g.wider_x or g.margin_x)}, {length_text(doc, g.wider_z or g.margin_z)}"
            rows.append(Row(_key(path, "wider"), tr("with one fewer"), wider))
    rows += [
        _choice(tid, path, "start", "Begin", zone.start, MODULE_STARTS),
        _choice(tid, path, "edges", "At the edges", zone.edges, MODULE_EDGES),
        _plain(doc, tid, path, "ring", "Pieces round it, wide", zone.ring),
        _own(doc, tid, path, "ring_thickness", "thick", zone.ring_thickness, ring_thickness(zone, made)),
        _plain(doc, tid, path, "center_thickness", "Center, thick", zone.center_thickness),
        _own(doc, tid, path, "gap", "Gap between", zone.gap, mm_of(zone.gap, made.wall_gap)),
        _own(doc, tid, path, "board", "Board behind", zone.board, module_board(zone, made)),
        _plain(doc, tid, path, "least", "Least piece", zone.least),
        _finish(doc, tid, path, "finish", "Finish", zone.finish, "that of fronts"),
        _finish(doc, tid, path, "center_finish", "Center in", zone.center_finish, "the same"),
    ]
    return rows


MODULE_STARTS = {"centered": "about the middle", "corner": "from the lower left"}
MODULE_EDGES = {"cut": "cut modules", "bare": "left bare"}


def _arched(doc: Document, tid: str, path: ZonePath, zone: Arched) -> list[Row]:
    rows = [
        _choice(tid, path, "kind", "Arch", zone.kind, ARCH_WORDS),
        _plain(doc, tid, path, "width", "Width", zone.width),
        _plain(doc, tid, path, "height", "Height", zone.height),
        optional_row(
            doc, _key(path, "left"), tr("From the left"), zone.left, tr("in the middle"), tr("centered in its zone"),
            setter(set_zone, tid, path, "left"),
        ),
        _plain(doc, tid, path, "bottom", "Above the foot", zone.bottom),
    ]  # fmt: skip
    if zone.kind != "round":
        rows.append(
            optional_row(
                doc, _key(path, "rise"), tr("Rise"), zone.rise, length_text(doc, zone.width.mm / 4),
                tr("a quarter of its width"), setter(set_zone, tid, path, "rise"),
            )
        )  # fmt: skip
    rows.append(_plain(doc, tid, path, "border", "Border around", zone.border))
    return rows


def _parted(doc: Document, tid: str, path: ZonePath, zone: Parted) -> list[Row]:
    rows = []
    for key, label in (("x1", "Starts along"), ("y1", "starts up"), ("x2", "Ends along"), ("y2", "ends up")):
        share = f"{getattr(zone, key) * 100:.4g} %"
        rows.append(Row(_key(path, key), tr(label), share, apply=setter(set_zone, tid, path, key)))
    rows.append(_plain(doc, tid, path, "rise", "Arc off the line", zone.rise))
    return rows


def _raked(doc: Document, tid: str, path: ZonePath, zone: Raked) -> list[Row]:
    rows = [
        Row(
            _key(path, "angle"),
            tr("Rises to the right by"),
            f"{zone.angle:g}°",
            apply=setter(set_zone, tid, path, "angle"),
        ),
        _plain(doc, tid, path, "start", "Lower end above the foot", zone.start),
        _plain(doc, tid, path, "height", "Height, plumb", zone.height),
    ]
    profiles = doc.job.stock.profiles
    for key, label, uses in (("foot", "Along its foot", ("skirting",)), ("cap", "Along its top", ("dado rail",))):
        code = getattr(zone, key)
        profile = doc.job.stock.profile(code)
        offered = tuple((p.code, p.name) for p in profiles if set(uses) & set(p.uses) or p.code == code)
        rows.append(
            Row(
                _key(path, key), tr(label), profile.name if profile is not None else code or tr("none"),
                choices=(("", tr("none")), *offered), apply=setter(set_zone, tid, path, key),
            )
        )  # fmt: skip
    return rows
