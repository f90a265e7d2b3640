"""A cutting plan drawn: the board with its pieces, x along the board's length."""

from __future__ import annotations

from tall_plank.assets import text_width
from tall_plank.drawing.primitives import Drawing, Item, Layer, Pen, Shape, Text, rectangle


def board_drawing(
    name: str, length: float, width: float, pieces: tuple[tuple[str, float, float, float, float], ...], scale: float,
    offcuts: tuple[tuple[float, float, float, float], ...] = (),
) -> Drawing:  # fmt: skip
    """A board and its pieces (part, x, y, length, width, all mm); a number or size without room is left out. Offcuts to
    keep are dashed, with their size."""
    items: list[Item] = [Shape(rectangle(0, 0, length, width), Pen.WIDE, Layer.WALL, "", "offcut")]
    for x, y, long, wide in offcuts:
        items.append(Shape(rectangle(x, y, long, wide), Pen.DASHED, Layer.CARCASS, "", ""))
        size = f"{long:.0f} × {wide:.0f}"
        angle = 90.0 if wide > long else 0.0
        if text_width(size, 1.8) * scale < max(long, wide) and min(long, wide) > 3.0 * scale:
            middle = (x + long / 2, y + wide / 2)
            items.append(Text(*middle, size, 1.8, Layer.LABEL, angle=angle, quiet=True, rise=-0.9))
    for part, x, y, long, wide in pieces:
        items.append(Shape(rectangle(x, y, long, wide), Pen.NARROW, Layer.CARCASS, f"part:{part}", "board"))
        size = f"{long:.1f} × {wide:.1f}".replace(".0 ", " ").removesuffix(".0")
        upright = wide > long
        room_long, room_wide = (wide, long) if upright else (long, wide)
        angle = 90.0 if upright else 0.0
        cx, cy = x + long / 2, y + wide / 2
        two = room_wide > 7.0 * scale and text_width(size, 1.8) * scale < room_long
        if text_width(part, 2.2) * scale < room_long and room_wide > 2.6 * scale:
            rise = 0.5 if two else -1.1
            items.append(Text(cx, cy, part, 2.2, Layer.LABEL, f"part:{part}", angle=angle, rise=rise))
        if two:
            items.append(Text(cx, cy, size, 1.8, Layer.LABEL, angle=angle, quiet=True, rise=-2.6))
    return Drawing(name, tuple(items), 0.0, 0.0, length, width)
