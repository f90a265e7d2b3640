"""Drawings as SVG, true to scale: one user unit is a millimetre of paper."""

from __future__ import annotations

import base64
import io
import math
from html import escape
from pathlib import Path

from tall_plank.assets import REGULAR, SEMIBOLD, em_of
from tall_plank.drawing.primitives import DASHES, INK, PEN_MM, QUIET, TONES, Arc, Line, Pen, Shape, Text
from tall_plank.drawing.sheets import POINT, Sheet, View, frame_of, images_of
from tall_plank.drawing.words import ground_of
from tall_plank.formats.writing import put
from tall_plank.measure.remembered import lasting

FACE = "Plank Sans"
"""The face that a file carries, by a name of its own, so that it is not taken for another version of it."""

CARRIED = "".join(chr(c) for c in (*range(32, 127), *range(160, 384))) + "–—‘’“”…′″⁄½¼¾⅛⅜⅝⅞×·°²³ø←→↑↓≤≥△▽"
"""Characters that a file carries."""


@lasting
def _faces() -> str:
    """The regular and the semibold face, with the characters that drawings use, as data."""
    from fontTools import subset
    from fontTools.ttLib import TTFont

    found = []
    for path, weight in ((REGULAR, 400), (SEMIBOLD, 600)):
        font = TTFont(path, recalcTimestamp=False)
        cutter = subset.Subsetter(subset.Options(layout_features=["kern"], notdef_outline=True))
        cutter.populate(text=CARRIED)
        cutter.subset(font)
        out = io.BytesIO()
        font.save(out)
        data = base64.b64encode(out.getvalue()).decode()
        found.append(
            f"@font-face{{font-family:'{FACE}';font-weight:{weight};src:url(data:font/ttf;base64,{data}) "
            "format('truetype')}"
        )
    return "".join(found)


def _n(value: float) -> str:
    return f"{value:.4f}".rstrip("0").rstrip(".")


def _stroke(pen: Pen) -> str:
    if pen is Pen.NONE:
        return 'stroke="none"'
    parts = " ".join(_n(part) for part in DASHES.get(pen, ()))
    # Round ends would close the gaps of broken lines.
    dash = f' stroke-dasharray="{parts}" stroke-linecap="butt"' if parts else ""
    return f'stroke="{INK}" stroke-width="{PEN_MM[pen]}"{dash}'


def _view(view: View, height: float) -> list[str]:
    """What a view shows."""
    scale = view.scale

    def at(x: float, y: float) -> tuple[float, float]:
        u, v = view.at(x, y)
        return u, height - v

    lines = []
    for item in view.shown.items:
        match item:
            case Line():
                (x1, y1), (x2, y2) = at(item.x1, item.y1), at(item.x2, item.y2)
                tag = f'<line x1="{_n(x1)}" y1="{_n(y1)}" x2="{_n(x2)}" y2="{_n(y2)}" {_stroke(item.pen)}'
                lines.append(f'{tag} class="{escape(item.layer.value)}"/>')
            case Shape():
                points = " ".join(f"{_n(x)},{_n(y)}" for x, y in (at(*p) for p in item.points))
                fill = TONES.get(item.fill, item.fill) or "none"
                tag = f'<polygon points="{points}" fill="{fill}" {_stroke(item.pen)}'
                lines.append(f'{tag} class="{escape(item.layer.value)}"/>')
            case Arc():
                r = item.radius / scale
                if item.sweep == 360.0:  # its ends are one point, and say nothing of it
                    x, y = at(item.x, item.y)
                    lines.append(f'<circle cx="{_n(x)}" cy="{_n(y)}" r="{_n(r)}" fill="none" {_stroke(item.pen)}/>')
                    continue
                a, b = math.radians(item.start), math.radians(item.end)
                x1, y1 = at(item.x + item.radius * math.cos(a), item.y + item.radius * math.sin(a))
                x2, y2 = at(item.x + item.radius * math.cos(b), item.y + item.radius * math.sin(b))
                large = int(item.sweep > 180)
                d = f"M {_n(x1)} {_n(y1)} A {_n(r)} {_n(r)} 0 {large} 0 {_n(x2)} {_n(y2)}"
                lines.append(f'<path d="{d}" fill="none" {_stroke(item.pen)}/>')
            case Text():
                lines += _words(item, *at(item.x, item.y))
    return lines


def _words(item: Text, x: float, y: float) -> list[str]:
    """A text, on its white ground where it has one."""
    turn = f"translate({_n(x)} {_n(y)})" + (f" rotate({_n(-item.angle)})" if item.angle else "")
    anchor = {"left": "start", "right": "end", "middle": "middle"}[item.align]
    weight = ' font-weight="600"' if item.bold else ""
    found = []
    if item.backed:
        left, low, wide, high = ground_of(item)
        found.append(
            f'<rect transform="{turn}" x="{_n(left)}" y="{_n(-low - high)}" width="{_n(wide)}" height="{_n(high)}" '
            'fill="#FFFFFF"/>'
        )
    found.append(
        f'<text transform="{turn}" x="0" y="{_n(-item.rise)}" font-size="{_n(em_of(item.size))}" '
        f'text-anchor="{anchor}" fill="{QUIET if item.quiet else INK}"{weight}>{escape(item.text, quote=False)}</text>'
    )
    return found


def write_svg(sheet: Sheet, path: Path) -> None:
    """Write a sheet, each view at its scale."""
    width, height = sheet.size
    lines = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{_n(width)}mm" height="{_n(height)}mm" '
        f'viewBox="0 0 {_n(width)} {_n(height)}" font-family="{FACE}, Source Sans 3, sans-serif" '
        'stroke-linejoin="round" stroke-linecap="round">',
        f"<style>{_faces()}</style>",
        f"<title>{escape(sheet.title or sheet.drawing.title, quote=False)}, {sheet.scales}</title>",
    ]
    for view in sheet.views:
        lines += _view(view, height)
    for x, y, wide, high, data in images_of(sheet):
        kind = "png" if data.startswith(b"\x89PNG") else "jpeg"
        lines.append(
            f'<image x="{_n(x)}" y="{_n(height - y - high)}" width="{_n(wide)}" height="{_n(high)}" '
            f'href="data:image/{kind};base64,{base64.b64encode(data).decode()}"/>'
        )
    boxes, texts = frame_of(sheet)
    for x, y, wide, high, line in boxes:
        place = f'x="{_n(x)}" y="{_n(height - y - high)}" width="{_n(wide)}" height="{_n(high)}"'
        lines.append(f'<rect {place} fill="none" stroke="{INK}" stroke-width="{_n(line)}"/>')
    for t in texts:
        weight = ' font-weight="600"' if t.strong else ""
        color = QUIET if t.quiet else INK
        lines.append(
            f'<text x="{_n(t.x)}" y="{_n(height - t.y)}" font-size="{_n(t.points * POINT)}" fill="{color}"{weight}>'
            f"{escape(t.text, quote=False)}</text>"
        )
    lines.append("</svg>")
    put(path, "\n".join(lines) + "\n")
