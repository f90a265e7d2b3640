"""What views are drawn with, and without."""

from __future__ import annotations

import msgspec


class Shows(msgspec.Struct, frozen=True, cache_hash=True):
    """What elevations and plans show besides walls and carcasses.

    Attributes
    ----------
    dims : automatic dimensions
    labels : numbers of units, or what they are labeled with
    fronts : doors and drawer fronts; else the inside of the units is seen
    worktops : with their splashbacks; else the carcasses under them are seen
    edging : which edges are edged
    spread : on paper, where walls stand apart: heights stand at the end of the wall that they are nearer to, and upper
        edges of worktops are told as levels
    joints : boards behind the fronts, and the axes of their joints
    exact : elevations and plans are views of solids with hidden lines worked out; else each thing is painted over what
        it covers, which is quicker: for the screen while it changes
    """

    dims: bool = True
    labels: bool = True
    fronts: bool = True
    worktops: bool = True
    edging: bool = False
    joints: bool = False
    spread: bool = False
    exact: bool = False

    @property
    def making(self) -> bool:
        """Whether anything for the shop is drawn."""
        return self.edging or self.joints


FOR_CLIENT = Shows()
FOR_SHOP = Shows(edging=True, joints=True)


def exactly(shows: Shows) -> Shows:
    """With hidden lines worked out."""
    return msgspec.structs.replace(shows, exact=True)


def on_paper(shows: Shows) -> Shows:
    """As it is drawn on a sheet."""
    return msgspec.structs.replace(shows, spread=True, exact=True)
