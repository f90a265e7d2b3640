"""Modules as parts: the pieces of a whole one are made once and stand wherever it is repeated; cut ones one by one."""

from __future__ import annotations

import msgspec

from tall_plank.job.treatment import Modules
from tall_plank.making.paneling.panels import cover_board
from tall_plank.making.paneling.shop import OUTLET_RADIUS, FieldShop
from tall_plank.making.parts import Cutout, Draft, Part
from tall_plank.measure import Frame, told
from tall_plank.measure.frames import NEG_X, NEG_Z, PartFrame, X, Z
from tall_plank.measure.outlines import Point
from tall_plank.measure.paths import fitting_chords, shifted
from tall_plank.measure.regions import Region
from tall_plank.setout.paneling.laid import ZoneLaid
from tall_plank.setout.paneling.modules import ModuleCut, ModulePiece, ModuleShape
from tall_plank.setout.paneling.values import module_board, ring_thickness


def make_modules(shop: FieldShop, zone: ZoneLaid, modules: Modules) -> None:
    """Every piece of a zone of modules, and the board behind.

    Raises
    ------
    PlankError where the stock has no board for it
    """
    laid = zone.modules
    if laid is None:
        return
    made = shop.made
    finish = modules.finish or shop.finish
    board = module_board(modules, made)
    if board > 0:
        lines = sorted({x + laid.shape.width / 2 for x, _ in laid.whole})
        levels = sorted({z + laid.shape.height / 2 for _, z in laid.whole})
        inner = modules.center_finish or finish
        for region in zone.regions:
            cover_board(shop, inner, board, region.bounds, shop.laid.fixing, lines, levels, regions=(region,))
    g = laid.grid
    wider = [mm for mm in (g.wider_x, g.wider_z) if mm > 0]
    cut = [mm for mm in (g.margin_x, g.other_x, g.margin_z, g.other_z) if 0.01 < mm < modules.least.mm]
    if cut and wider and modules.edges == "cut":
        least = told(modules.least.mm)
        shop.mind(
            f"A margin of {told(min(cut))} mm is left bare: its pieces would be narrower than {least} mm.",
            f"Make modules a little larger; one fewer leaves margins of {told(max(wider))} mm.",
        )
    outlets = [shop.around(o) for o in shop.laid.outlets]
    free = [at for at in laid.whole if not any(_meets(at, laid.shape, box) for box in outlets)]
    start = len(shop.pieces)
    if free:
        _module(shop, modules, laid.shape, free[0], board)
    pattern = tuple(shop.pieces[start:])
    del shop.pieces[start:]
    for at in free:
        dx, dz = at[0] - free[0][0], at[1] - free[0][1]
        shop.pieces += [_shifted(part, dx, dz) for part in pattern]
    for at in laid.whole:
        if at not in free:
            _module(shop, modules, laid.shape, at, board)
    for one in laid.cut:
        _piece(shop, modules, one, board)


Box = tuple[float, float, float, float]


def _meets(at: Point, shape: ModuleShape, box: Box) -> bool:
    """Whether a module at a place has something in a box."""
    x, z = at
    return box[0] < x + shape.width and box[2] > x and box[1] < z + shape.height and box[3] > z


def _module(shop: FieldShop, modules: Modules, shape: ModuleShape, at: Point, board: float) -> None:
    """The pieces of one whole module."""
    for name, path in shape.pieces():
        _piece(shop, modules, ModuleCut(name, Region(shifted(path, *at))), board)


def _shifted(part: Part, dx: float, dz: float) -> Part:
    x, y, z = part.frame.origin
    frame = msgspec.structs.replace(part.frame, origin=(x + dx, y, z + dz))
    return msgspec.structs.replace(part, frame=frame)


def _piece(shop: FieldShop, modules: Modules, cut: ModuleCut, board: float) -> None:
    """A piece of a module; its grain runs along its outer edge, so that the ring's mitres show."""
    center = cut.piece == "center"
    thickness = modules.center_thickness.mm if center else ring_thickness(modules, shop.made)
    if thickness <= 0:
        return
    finish = (modules.center_finish if center else "") or modules.finish or shop.finish
    x0, z0, x1, z1 = cut.shape.bounds
    y = -(shop.laid.fixing + board)
    # L1 is the outer edge of every piece of the ring, so that alike ones are alike wherever they lie.
    place: PartFrame
    match cut.piece:
        case "bottom":
            place = Frame((x0, y, z0), X, Z)
        case "top":
            place = Frame((x1, y, z1), NEG_X, NEG_Z)
        case "left":
            place = Frame((x0, y, z1), NEG_Z, X)
        case _:
            place = Frame((x1, y, z0), Z, NEG_X)
    level = cut.piece in ("bottom", "top")
    size = (x1 - x0, z1 - z0) if level else (z1 - z0, x1 - x0)
    stock = shop.board(finish, thickness, "modules", size)
    draft = Draft(NAMES[cut.piece], stock, size, place, "wall panel")

    def into(x: float, z: float) -> Point:
        u, v, _ = place.into((x, y, z))
        return u, v

    if not Region(cut.shape.outer).is_box:
        draft.shape(tuple(into(*p) for p in fitting_chords(cut.shape.outer)))
    for o in shop.laid.outlets:
        a0, b0, a1, b1 = shop.around(o)
        if a0 >= x1 or a1 <= x0 or b0 >= z1 or b1 <= z0:
            continue
        if all(cut.shape.inside(x, z) for x in (a0, a1) for z in (b0, b1)):
            (u0, v0), (u1, v1) = into(a0, b0), into(a1, b1)
            low = (min(u0, u1), min(v0, v1))
            draft.operations.append(Cutout(*low, abs(u1 - u0), abs(v1 - v0), OUTLET_RADIUS))
        else:
            shop.mind(
                f"The {o.name} lies on the edge of a piece of a module.",
                "Move it, or begin the modules elsewhere, so that it lies within one piece.",
            )
    draft.fixed = "glued to what is behind"
    shop.add(draft)


NAMES: dict[ModulePiece, str] = {
    "bottom": "module piece", "top": "module piece", "left": "module piece", "right": "module piece",
    "center": "module center",
}  # fmt: skip
