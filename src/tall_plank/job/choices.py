"""Words that are chosen from: each a type of its own, so that a word that is none of them is an error of types.

They are plain texts in job files. `CHOICES` in `standard` says what they are called.
"""

from __future__ import annotations

from typing import Literal

Joint = Literal["dowel", "cam", "screw", "groove", "biscuit", "tenon", "pocket"]
CamFace = Literal["out", "in"]
TopFit = Literal["between", "over"]
BottomFit = Literal["between", "under"]
GableFoot = Literal["legs", "floor"]
BackFit = Literal["groove", "on", "rebate"]
Overlay = Literal["full", "half", "inset"]
FaceFrame = Literal["none", "frame"]
FrontStyle = Literal["slab", "framed", "raised", "arched", "glazed", "louvred", "grooved", "slatted"]
FrontGrain = Literal["vertical", "horizontal"]

Shape = Literal["straight", "angled left", "angled right", "bow", "hollow", "rounded"]
"""Of a unit, seen from above."""
Corner = Literal["", "blind", "l", "diagonal"]
"""How a unit goes round a corner."""
PlanShape = Shape | Literal["blind", "l", "diagonal"]
"""Of a unit where it stands: its own, or the way it goes round its corner."""
Side = Literal["left", "right"]
EitherSide = Literal["", "left", "right"]
LEFT: Side = "left"
RIGHT: Side = "right"
Feet = Literal["plinth", "legs", "none"]
"""What a run, or a unit of its own, stands on."""
LegShape = Literal["square", "round"]
"""Section of a leg that is seen."""
FrontsSeen = Literal["closed", "open", "off"]
"""How fronts are looked at in the model."""
WallHold = Literal["battens", "split", "glue", "screws"]
"""How what covers a wall is held."""
CarcassTop = Literal["rails", "full", "none"]
"""What closes a carcass above."""
Weight = Literal["wrong", "mind"]
"""Of a snag."""
