"""What the spec sheet says of a room and what belongs to it: walls, openings, columns, ceiling, moldings, islands."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import (
    Group,
    Row,
    Sheet,
    length_row,
    length_text,
    optional_row,
    setter,
    setting,
    yes_no,
    yes_no_choices,
)
from tall_plank.edits import Change, features, guides, islands, jobs, outline, placing, rooms, tops, underlay, values
from tall_plank.job import Island, Job, Rectangle
from tall_plank.job.run import EdgeName
from tall_plank.job.uses import USES
from tall_plank.measure import DisplayUnit, PlankError
from tall_plank.setout.clear import aisles_of
from tall_plank.setout.pieces import in_pieces

DISPLAYS = (
    ("mm", "millimetres"),
    ("cm", "centimetres"),
    ("in", "decimal inches"),
    ("in/16", "inches, 1/16"),
    ("in/32", "inches, 1/32"),
    ("ft-in", "feet and inches"),
)


def _set_or_delete(job: Job, name: str, text: str) -> Change:
    """A named value set by text; an emptied one is taken away, unless something uses it."""
    return values.set_value(job, name, text) if text.strip() else values.delete_value(job, name)


def _new_value(job: Job, text: str) -> Change:
    """`name = length`."""
    name, sign, length = text.partition("=")
    if not sign:
        raise PlankError("Type a name, an equals sign and a length.", "New value", "For example: eye_line = 1500.")
    return values.set_value(job, name.strip(), length.strip())


def room_sheet(doc: Document) -> Sheet:
    """The room, the job's own data, its named values and labels."""
    job, room = doc.job, doc.room.room
    rid = room.id
    uses = tuple((code, tr(name)) for code, name in USES.items())
    rows = [
        Row("name", tr("Name"), room.name, apply=lambda job, t: rooms.rename_room(job, rid, t)),
        Row("use", tr("Use"), tr(USES[room.use]), choices=uses, apply=lambda job, t: features.set_use(job, rid, t)),
    ]
    lengths = [("height", tr("Height"), room.height), ("wall_thickness", tr("Wall thickness"), room.wall_thickness)]
    if isinstance(room.outline, Rectangle):
        lengths = [("width", tr("Width"), room.outline.width), ("depth", tr("Depth"), room.outline.depth), *lengths]
    for key, label, length in lengths:
        rows.append(length_row(doc, key, label, length, setter(rooms.set_room_length, rid, key)))
    rows.append(
        Row(
            "outline",
            tr("Walls"),
            outline.outline_text(job, room),
            source=tr("lengths clockwise from the north-west; corner 270 turns outwards; two walls may be rest"),
            apply=lambda job, t: outline.type_outline(job, rid, t),
        )
    )
    about = [
        Row(f"job_{key}", label, getattr(job, key), apply=setter(jobs.set_text, key))
        for key, label in (
            ("name", tr("Job")),
            ("number", tr("Number")),
            ("client", tr("Client")),
            ("site", tr("Site")),
        )
    ]
    about.append(
        Row(
            "display",
            tr("Lengths in"),
            dict(DISPLAYS)[job.display.value],
            choices=DISPLAYS,
            apply=lambda job, t: jobs.set_display(job, DisplayUnit(t)),
        )
    )
    rules = {r.kind: r.text for r in job.labels}
    about.append(
        Row(
            "job_labels",
            tr("Labels"),
            rules.get("*", "{number}"),
            "own" if "*" in rules else "inherited",
            tr("text with fields: {number}, {width}, {height}, {depth}, {kind}, {room}, {wall}, {level}"),
            apply=lambda job, t: placing.set_label_rule(job, "*", t),
            revert=(lambda job: placing.set_label_rule(job, "*", "")) if "*" in rules else None,
        )
    )
    named = [
        Row(
            f"value_{v.name}",
            v.name,
            length_text(doc, v.length.mm),
            "inherited" if v.length.is_rule else "plain",
            f"{v.note}: {v.length.text}" if v.note else v.length.text,
            apply=setter(_set_or_delete, v.name),
        )
        for v in job.values
    ]
    named.append(Row("value_new", tr("New value"), "", apply=_new_value))
    w, d = doc.room.size
    return Sheet(
        room.name,
        f"{tr('room')} · {length_text(doc, w)} × {length_text(doc, d)}",
        (Group(tr("Room"), tuple(rows)), Group(tr("Job"), tuple(about)), Group(tr("Named values"), tuple(named))),
    )


def wall_sheet(doc: Document) -> Sheet:
    """A wall: its length, its corners, and what it has of its own. A face of an island shows the island."""
    name = doc.ids("wall")[0]
    if not doc.room.has_line(name):
        return room_sheet(doc)
    wall = doc.room.wall(name)
    if wall.island:
        return _island(doc, wall.island)
    room = doc.room.room
    rid = room.id
    own = next((w for w in room.walls if w.wall == name), None)
    rows = [
        Row("length", tr("Length"), length_text(doc, wall.length),
            apply=lambda job, t: outline.set_wall_length(job, rid, name, t)),
        Row("angle", tr("Corner at its right"), f"{wall.after:g}°",
            apply=lambda job, t: outline.set_wall_angle(job, rid, name, t)),
        optional_row(doc, "thickness", tr("Thickness"), own.thickness if own else None,
                     length_text(doc, room.wall_thickness.mm), tr("from the room"),
                     lambda job, t: outline.set_wall_own(job, rid, name, "thickness", t)),
        optional_row(doc, "wall_height", tr("Height"), own.height if own else None,
                     length_text(doc, wall.height), tr("from the room"),
                     lambda job, t: outline.set_wall_own(job, rid, name, "height", t)),
    ]  # fmt: skip
    groups = [Group(tr("Wall"), tuple(rows))]
    slope = next((s for s in room.slopes if s.wall == name), None)
    if slope is not None:
        sid = slope.id
        groups.append(
            Group(
                tr("Sloped ceiling"),
                (
                    length_row(
                        doc,
                        "low",
                        tr("Height at the wall"),
                        slope.low,
                        lambda job, t: features.set_slope(job, sid, "low", t),
                    ),
                    length_row(
                        doc,
                        "run",
                        tr("Full height after"),
                        slope.run,
                        lambda job, t: features.set_slope(job, sid, "run", t),
                    ),
                ),
            )
        )
    return Sheet(f"{tr('Wall')} {name}", tr(wall.name), tuple(groups))


def opening_sheet(doc: Document) -> Sheet:
    """A door, window, passage or niche."""
    opening_id = doc.ids("opening")[0]
    room, opening = rooms.find_opening(doc.job, opening_id)
    rows = [
        Row(
            "wall",
            tr("Wall"),
            opening.wall,
            choices=tuple((w, w) for w in room.wall_ids()),
            apply=lambda job, t: rooms.set_opening(job, opening_id, "wall", t),
        ),
    ]
    keys = [("x", tr("From the left")), ("width", tr("Width")), ("height", tr("Height")), ("sill", tr("Sill"))]
    if opening.kind in ("door", "window"):
        keys.append(("reveal", tr("Reveal")))
    if opening.kind == "niche":
        keys.append(("depth", tr("Depth")))
    for key, label in keys:
        rows.append(
            length_row(
                doc,
                key,
                label,
                getattr(opening, key),
                setter(rooms.set_opening, opening_id, key),
            )
        )
    if opening.kind == "door":
        for key, label, options in (("hand", tr("Hinges"), ("left", "right")), ("swing", tr("Opens"), ("in", "out"))):
            rows.append(
                Row(
                    key,
                    label,
                    tr(getattr(opening, key)),
                    choices=tuple((c, tr(c)) for c in options),
                    apply=setter(rooms.set_opening, opening_id, key),
                )
            )
    return Sheet(tr(opening.kind.capitalize()), f"{tr('wall')} {opening.wall}", (Group(tr("Size"), tuple(rows)),))


def column_sheet(doc: Document) -> Sheet:
    """A column or chimney breast."""
    cid = doc.ids("column")[0]
    room, column = features.find(doc.job, "column", cid)
    walls = (*((w, w) for w in room.wall_ids()), ("", tr("free standing")))
    rows = [
        Row(
            "wall",
            tr("Wall"),
            column.wall or tr("free standing"),
            choices=walls,
            apply=lambda job, t: features.set_column(job, cid, "wall", t),
        ),
    ]
    keys = [("x", tr("From the left")), ("width", tr("Width")), ("depth", tr("Depth"))]
    if not column.wall:
        keys.insert(1, ("y", tr("From the south")))
    for key, label in keys:
        rows.append(length_row(doc, key, label, getattr(column, key), setter(features.set_column, cid, key)))
    rows.append(
        optional_row(
            doc,
            "height",
            tr("Height"),
            column.height,
            length_text(doc, room.height.mm),
            tr("up to the ceiling"),
            lambda job, t: features.set_column(job, cid, "height", t),
        )
    )
    where = f"{tr('wall')} {column.wall}" if column.wall else tr("free standing")
    return Sheet(tr(column.kind.capitalize()), where, (Group(tr("Size"), tuple(rows)),))


def soffit_sheet(doc: Document) -> Sheet:
    """A soffit: how far it comes down, and its corners."""
    sid = doc.ids("soffit")[0]
    _, soffit = features.find(doc.job, "soffit", sid)
    if soffit.over:
        reveal = length_row(
            doc,
            "reveal",
            tr("Set in behind the fronts"),
            soffit.reveal,
            lambda job, t: features.set_soffit(job, sid, "reveal", t),
        )
        shown = next((s for s in doc.room.room.soffits if s.id == sid), None)
        drop = Row("drop", tr("Below the ceiling"), length_text(doc, shown.drop.mm) if shown else "–")
        return Sheet(tr("Soffit"), tr("stands on the units of a run"), (Group(tr("Size"), (reveal, drop)),))
    rows = (
        length_row(
            doc, "drop", tr("Below the ceiling"), soffit.drop, lambda job, t: features.set_soffit(job, sid, "drop", t)
        ),
        Row(
            "corners",
            tr("Corners"),
            features.corners_text(doc.job, soffit),
            source=tr("x y; x y; x y"),
            apply=lambda job, t: features.set_soffit(job, sid, "corners", t),
        ),
    )
    return Sheet(tr("Soffit"), doc.room.room.name, (Group(tr("Size"), rows),))


def roof_window_sheet(doc: Document) -> Sheet:
    """A window in a sloped ceiling."""
    wid = doc.ids("roof window")[0]
    room, window = features.find(doc.job, "roof window", wid)
    wall = next(s.wall for s in room.slopes if s.id == window.slope)
    rows = tuple(
        length_row(doc, key, label, getattr(window, key),
                   setter(features.set_roof_window, wid, key))
        for key, label in (("x", tr("From the left")), ("width", tr("Width")), ("length", tr("Up the slope")),
                           ("sill", tr("Sill above the floor")))
    )  # fmt: skip
    return Sheet(tr("Roof window"), f"{tr('in the slope over wall')} {wall}", (Group(tr("Size"), rows),))


def underlay_sheet(doc: Document) -> Sheet:
    """A plan image under the room."""
    uid = doc.ids("underlay")[0]
    _, under = features.find(doc.job, "underlay", uid)

    def set_it(key: str):  # type: ignore[no-untyped-def]
        return lambda job, t: underlay.set_underlay(job, uid, key, t)

    rows = (
        length_row(doc, "x", tr("From the west"), under.x, set_it("x")),
        length_row(doc, "y", tr("From the south"), under.y, set_it("y")),
        length_row(doc, "width", tr("Stands for"), under.width, set_it("width")),
        Row("turn", tr("Turned"), f"{under.turn:g}°", apply=set_it("turn")),
        Row("shown", tr("Shown"), yes_no(under.shown), choices=yes_no_choices(), apply=set_it("shown")),
    )
    return Sheet(tr("Plan image"), doc.room.room.name, (Group(tr("Place"), rows),))


GUIDE_PLACES = {"x": "From the left", "y": "From the south", "z": "Above the floor"}


def guide_sheet(doc: Document) -> Sheet:
    """A guide line of the designer's own."""
    gid = doc.ids("guide")[0]
    _, guide = features.find(doc.job, "guide", gid)
    label = tr("From the west") if guide.axis == "x" and not guide.wall else tr(GUIDE_PLACES[guide.axis])
    row = length_row(doc, "at", label, guide.at, lambda job, t: guides.set_guide(job, gid, t))
    where = {"x": tr("upright"), "y": tr("across the plan"), "z": tr("level, through every wall")}[guide.axis]
    where = f"{where}, {tr('wall')} {guide.wall}" if guide.wall else where
    return Sheet(tr("Guide line"), where, (Group(tr("Place"), (row,)),))


def service_sheet(doc: Document) -> Sheet:
    """A service point."""
    sid = doc.ids("service")[0]
    room, service = features.find(doc.job, "service", sid)
    walls = (*((w, w) for w in room.wall_ids()), ("", tr("on the floor")))
    rows = [
        Row(
            "kind",
            tr("Kind"),
            tr(service.kind),
            choices=tuple((k, tr(k)) for k in features.SERVICES),
            apply=lambda job, t: features.set_service(job, sid, "kind", t),
        ),
        Row(
            "wall",
            tr("Wall"),
            service.wall or tr("on the floor"),
            choices=walls,
            apply=lambda job, t: features.set_service(job, sid, "wall", t),
        ),
    ]
    keys = [("x", tr("From the left")), ("height", tr("Height"))]
    if not service.wall:
        keys.insert(1, ("y", tr("From the south")))
    for key, label in keys:
        rows.append(length_row(doc, key, label, getattr(service, key), setter(features.set_service, sid, key)))
    return Sheet(tr("Service point"), tr(service.kind), (Group(tr("Place"), tuple(rows)),))


def molding_sheet(doc: Document) -> Sheet:
    """A molding round the room, with its pieces."""
    mid = doc.ids("molding")[0]
    _, molding = features.find(doc.job, "molding", mid)
    profiles = tuple((p.code, p.name) for p in doc.job.stock.profiles if molding.kind in p.uses)
    profile = doc.job.stock.profile(molding.profile)
    where = tr("on the floor") if molding.kind != "cornice" else tr("under the ceiling")
    rows = [
        Row("profile", tr("Profile"), profile.name if profile else molding.profile, choices=profiles,
            apply=lambda job, t: features.set_molding(job, mid, "profile", t)),
        optional_row(doc, "height", tr("Height"), molding.height, where, where,
                     lambda job, t: features.set_molding(job, mid, "height", t)),
        Row("edge", tr("Measured to"), tr(f"its {molding.edge} edge"),
            choices=(("top", tr("its top edge")), ("bottom", tr("its bottom edge"))),
            apply=lambda job, t: features.set_molding(job, mid, "edge", t)),
        Row("walls", tr("Walls"), " ".join(molding.walls), source=tr("letters; empty: all of them"),
            apply=lambda job, t: features.set_molding(job, mid, "walls", t)),
        Row("by_others", tr("By others"), yes_no(molding.by_others), choices=yes_no_choices(),
            apply=lambda job, t: features.set_molding(job, mid, "by_others", t)),
    ]  # fmt: skip
    pieces = [p for p in doc.room.moldings if p.molding == mid]
    figures = (
        Row("pieces", tr("Pieces"), str(len(pieces))),
        Row("metres", tr("At long points"), f"{sum(p.length for p in pieces) / 1000:.2f} m"),
        Row("mitres", tr("Mitred ends"), str(sum((p.left != 0) + (p.right != 0) for p in pieces))),
    )
    return Sheet(
        tr(molding.kind.capitalize()),
        doc.room.room.name,
        (Group(tr("Molding"), tuple(rows)), Group(tr("Made of"), figures)),
    )


def island_sheet(doc: Document) -> Sheet:
    return _island(doc, doc.ids("island")[0])


def _island(doc: Document, island_id: str) -> Sheet:
    """An island or peninsula with its worktop."""
    room, island = islands.find_island(doc.job, island_id)
    walls = (("", tr("free standing")), *((w, f"{tr('wall')} {w}") for w in room.wall_ids()))

    def set_it(key: str):  # type: ignore[no-untyped-def]
        return lambda job, t: islands.set_island(job, island_id, key, t)

    place = [
        Row(
            "wall",
            tr("Starts at"),
            f"{tr('wall')} {island.wall}" if island.wall else tr("free standing"),
            choices=walls,
            apply=set_it("wall"),
        ),
        length_row(doc, "x", tr("From the left") if island.wall else tr("From the west"), island.x, set_it("x")),
    ]
    if not island.wall:
        place += [
            length_row(doc, "y", tr("From the south"), island.y, set_it("y")),
            Row("angle", tr("Angle"), f"{island.angle:g}°", apply=set_it("angle")),
        ]
    place += [
        length_row(doc, "length", tr("Length"), island.length, set_it("length")),
        length_row(doc, "gap", tr("Between the backs"), island.gap, set_it("gap")),
        length_row(doc, "seating", tr("Seating overhang"), island.seating, set_it("seating")),
    ]
    ends = tuple((e, tr(e)) for e in islands.ENDS)
    closing = [
        Row(side, label, tr(getattr(island, side)), choices=ends, apply=set_it(side))
        for side, label in (("left", tr("Left end")), ("right", tr("Right end")))
    ] + [
        Row(key, label, yes_no(getattr(island, key)), choices=yes_no_choices(), apply=set_it(key))
        for key, label in (("back", tr("Back panel")), ("spine", tr("Dividing panel")))
    ]
    kind = tr("Peninsula") if island.wall else tr("Island")
    groups = [Group(tr("Place"), tuple(place)), _aisles(doc, island), Group(tr("Closed by"), tuple(closing))]
    groups += top_groups(doc, f"island:{island_id}")
    return Sheet(f"{kind} {island.letter}", tr("seen from face 1"), tuple(g for g in groups if g.rows))


def _aisles(doc: Document, island: Island) -> Group:
    """Clear floor on every side of an island, to what stands there or to the wall."""
    rows = tuple(
        Row(f"aisle{i}", f"{tr(side)} {tr('to')} {to}", length_text(doc, mm))
        for i, (side, mm, to) in enumerate(aisles_of(doc.room, island))
    )
    return Group(tr("Aisles"), rows)


def top_groups(doc: Document, source: str) -> list[Group]:
    """The decisions on a worktop."""
    top = tops.top_of(doc.job, source)
    pieces = [w for w in doc.room.worktops if w.source == source]

    def set_it(key: str):  # type: ignore[no-untyped-def]
        return lambda job, t: tops.set_top(job, source, key, t)

    rows = [
        Row(
            "left_out",
            tr("Worktop"),
            tr("none") if top.left_out else tr("yes"),
            choices=(("no", tr("yes")), ("yes", tr("none"))),
            apply=set_it("left_out"),
        ),
    ]
    if top.left_out:
        return [Group(tr("Worktop"), tuple(rows))]
    rows.append(
        optional_row(
            doc,
            "thickness",
            tr("Thickness"),
            top.thickness,
            length_text(doc, doc.job.value("worktop")),
            tr("from job value worktop"),
            set_it("thickness"),
        )
    )
    standard = doc.job.active_standard().values()
    overhung: tuple[EdgeName, ...] = ("front", "left", "right", "back")
    for edge in overhung:
        name = {"front": "worktop_front", "back": "worktop_back"}.get(edge, "worktop_side")
        inherited = standard[name]
        assert not isinstance(inherited, str)
        rows.append(
            optional_row(
                doc,
                f"overhang_{edge}",
                f"{tr('Overhang')} {tr(edge)}",
                top.edge(edge).overhang,
                length_text(doc, inherited.mm),
                tr("from the standard"),
                set_it(f"overhang_{edge}"),
            )
        )
    shapes = tuple((code, tr(name)) for code, name in tops.EDGE_PROFILES.items())
    shaped: tuple[EdgeName, ...] = ("front", "left", "right")
    for edge in shaped:
        rows.append(
            Row(
                f"profile_{edge}",
                f"{tr('Edge')} {tr(edge)}",
                dict(shapes)[top.edge(edge).profile],
                choices=shapes,
                apply=set_it(f"profile_{edge}"),
            )
        )
    made = tuple(
        Row(
            f"pieces{i}",
            tr(word.capitalize()),
            f"{length_text(doc, asked)} → {' + '.join(length_text(doc, mm) for mm in lengths)}",
            "inherited",
            tr("asked for, and made: no board is longer"),
        )
        for i, (word, asked, lengths) in enumerate(in_pieces(doc.room, source))
    )
    return [
        Group(tr("Worktop"), tuple(rows)),
        Group(tr("Worktop, shape"), _shape_rows(doc, source, len(pieces))),
        *((Group(tr("Asked and made"), made),) if made else ()),
    ]


def _shape_rows(doc: Document, source: str, pieces: int) -> tuple[Row, ...]:
    """Joints, legs, upstands, own corners and cut-outs of a worktop."""
    top = tops.top_of(doc.job, source)

    def set_it(key: str):  # type: ignore[no-untyped-def]
        return lambda job, t: tops.set_top(job, source, key, t)

    shape = [
        Row(
            "joint",
            tr("At the corner"),
            tr(top.joint),
            choices=tuple((j, tr(j)) for j in tops.JOINTS),
            apply=set_it("joint"),
        ),
        Row(
            "joints",
            tr("Joints at"),
            "; ".join(length_text(doc, j.mm) for j in top.joints),
            source=tr("places from its left end, parted by semicolons"),
            apply=set_it("joints"),
        ),
    ]
    if source.startswith("run:"):
        for key, label in (("waterfall_left", tr("Waterfall left")), ("waterfall_right", tr("Waterfall right"))):
            shape.append(Row(key, label, yes_no(getattr(top, key)), choices=yes_no_choices(), apply=set_it(key)))
        upright: tuple[EdgeName, ...] = ("back", "left", "right")
        for edge in upright:
            up = bool(top.edge(edge).upstand)
            shape.append(
                Row(
                    f"upstand_{edge}",
                    f"{tr('Upstand')} {tr(edge)}",
                    yes_no(up),
                    choices=yes_no_choices(),
                    apply=set_it(f"upstand_{edge}"),
                )
            )
        shape.append(
            optional_row(
                doc, "splashback", tr("Splashback"), top.splashback, tr("none"), tr("none"), set_it("splashback")
            )
        )
    shape.append(
        Row(
            "top_outline",
            tr("Own corners"),
            tops.outline_text(doc.job, source),
            source=tr("x out; x out; … from the line's left end; a third figure bows the side"),
            apply=set_it("outline"),
        )
    )
    shape.append(
        Row(
            "cut",
            tr("New cut-out"),
            "",
            source=tr("x back width depth"),
            apply=lambda job, t: tops.add_cut(job, source, t) if t.strip() else Change(job, ""),
        )
    )
    for cut in top.cuts:
        shape.append(
            Row(
                f"cut{cut.id}",
                tr("Cut-out at"),
                length_text(doc, cut.x.mm),
                "own",
                f"{length_text(doc, cut.width.mm)} × {length_text(doc, cut.depth.mm)}",
                revert=setting(tops.delete_cut, source, cut.id),
            )
        )
    if pieces:
        shape.append(Row("pieces", tr("Pieces"), str(pieces)))
    return tuple(shape)


SHEETS = (
    ("opening", opening_sheet),
    ("column", column_sheet),
    ("soffit", soffit_sheet),
    ("roof window", roof_window_sheet),
    ("guide", guide_sheet),
    ("underlay", underlay_sheet),
    ("service", service_sheet),
    ("molding", molding_sheet),
    ("island", island_sheet),
    ("wall", wall_sheet),
)
