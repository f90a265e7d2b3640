"""What is decided on a worktop, on the sheets of runs and islands alike."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import (
    Apply,
    Group,
    Row,
    length_text,
    optional_row,
    setter,
    setting,
    yes_no,
    yes_no_choices,
)
from tall_plank.edits import Change, tops
from tall_plank.job import Kind, Source, Top
from tall_plank.job.top import EdgeName
from tall_plank.setout.pieces import in_pieces


def top_groups(doc: Document, source: Source) -> list[Group]:
    """The decisions on a worktop."""
    top = tops.top_of(doc.job, source)
    pieces = [w for w in doc.room.worktops if w.source == source]

    def set_it(key: str) -> Apply:
        return setter(tops.set_top, source, key)

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
            tr("from named value worktop"),
            set_it("thickness"),
        )
    )
    rows += _edge_rows(doc, source, top)
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


def _shape_rows(doc: Document, source: Source, pieces: int) -> tuple[Row, ...]:
    """Joints, legs, upstands, own corners and cut-outs of a worktop."""
    top = tops.top_of(doc.job, source)

    def set_it(key: str) -> Apply:
        return setter(tops.set_top, source, key)

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
    if source.kind is Kind.RUN:
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
    shape += _own_shape_rows(doc, source, top)
    if pieces:
        shape.append(Row("pieces", tr("Pieces"), str(pieces)))
    return tuple(shape)


def _own_shape_rows(doc: Document, source: Source, top: Top) -> list[Row]:
    """Corners and cut-outs of its own."""

    def set_it(key: str) -> Apply:
        return setter(tops.set_top, source, key)

    shape: list[Row] = []
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
    return shape


def _edge_rows(doc: Document, source: Source, top: Top) -> list[Row]:
    """How far its edges stand over, and how they are shaped."""

    def set_it(key: str) -> Apply:
        return setter(tops.set_top, source, key)

    rows: list[Row] = []
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
    return rows
