"""The values that a cover of a wall has: its own ones, else those of the shop standard; mm."""

from __future__ import annotations

import msgspec

from tall_plank.job.standard import Construction
from tall_plank.job.treatment import Boards, Cover, Modules, Panels, Slats, Treatment, Zone, zones_of
from tall_plank.measure import Length


def mm_of(own: Length | None, given: float) -> float:
    """An own length, or the one that is given."""
    return own.mm if own is not None else given


class PanelSizes(msgspec.Struct, frozen=True, cache_hash=True):
    """Sizes of a frame of stiles and rails.

    Attributes
    ----------
    board : thickness of the board behind; 0 for frame and panel, which needs none
    frame : thickness of what stands on it
    """

    stile: float
    end_stile: float
    top_rail: float
    mid_rail: float
    bottom_rail: float
    board: float
    frame: float
    step: float


def panel_sizes(panels: Panels, made: Construction) -> PanelSizes:
    """The sizes of panels as they are made."""
    stile = mm_of(panels.stile, made.wall_stile)
    rail = made.wall_rail
    framed, molded = panels.style == "framed", panels.style == "molded"
    return PanelSizes(
        stile=stile,
        end_stile=mm_of(panels.end_stile, stile),
        top_rail=mm_of(panels.top_rail, rail),
        mid_rail=mm_of(panels.mid_rail, rail),
        bottom_rail=mm_of(panels.bottom_rail, rail),
        board=0.0 if framed else mm_of(panels.board, made.wall_board),
        frame=mm_of(panels.frame, made.front_thickness if framed else 0.0 if molded else made.wall_frame),
        step=mm_of(panels.step, made.wall_step),
    )


def slat_steps(slats: Slats, made: Construction) -> tuple[tuple[float, float], ...]:
    """Widths of the slats that repeat, each with the gap after it."""
    return tuple((mm_of(s.width, made.wall_slat), mm_of(s.gap, made.wall_slat_gap)) for s in slats.pattern)


def slat_depth(slats: Slats, made: Construction) -> float:
    """How far slats stand off what is behind them."""
    return mm_of(slats.depth, made.wall_slat_depth)


def slat_board(slats: Slats, made: Construction) -> float:
    """Thickness of the board behind slats; 0: none."""
    return mm_of(slats.board, made.wall_board)


def board_thickness(boards: Boards, made: Construction) -> float:
    """Thickness of flat boards."""
    return mm_of(boards.thickness, made.wall_board)


def hold_of(treatment: Treatment, made: Construction) -> str:
    """How a treatment is held to its wall."""
    return treatment.hold or made.wall_hold


def fixing_of(treatment: Treatment, made: Construction) -> float:
    """How far the backs of boards stand off the wall: the battens."""
    given = made.batten_thickness if hold_of(treatment, made) in ("battens", "split") else 0.0
    return mm_of(treatment.fixing, given)


def depth_of(cover: Cover, made: Construction) -> float:
    """How far the face of a cover stands off the back of its boards."""
    match cover:
        case Panels():
            sizes = panel_sizes(cover, made)
            return sizes.board + sizes.frame
        case Slats():
            return slat_board(cover, made) + slat_depth(cover, made)
        case Modules():
            return module_board(cover, made) + max(ring_thickness(cover, made), cover.center_thickness.mm)
    return board_thickness(cover, made)


def shows_behind(cover: Cover, made: Construction) -> bool:
    """Whether battens are seen between the pieces of a cover: it has no board behind."""
    match cover:
        case Slats():
            return slat_board(cover, made) <= 0.0
        case Modules():
            return module_board(cover, made) <= 0.0
    return False


def module_board(modules: Modules, made: Construction) -> float:
    """Thickness of the board behind modules; 0: none."""
    return mm_of(modules.board, made.wall_board)


def ring_thickness(modules: Modules, made: Construction) -> float:
    """Thickness of the pieces round the center; 0 where there are none."""
    return mm_of(modules.ring_thickness, made.wall_frame) if modules.ring.mm > 0 else 0.0


def standoff(treatment: Treatment, made: Construction) -> float:
    """How far the foremost face of a treatment stands off the wall; 0 where it covers nothing."""
    depths = [depth_of(z, made) for z in covers_of(treatment.zone)]
    return fixing_of(treatment, made) + max(depths) if depths else 0.0


def covers_of(zone: Zone) -> list[Cover]:
    """Every cover in a tree of zones."""
    return [z for _, z in zones_of(zone) if isinstance(z, Panels | Slats | Boards | Modules)]
