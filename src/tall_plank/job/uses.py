"""What rooms are used for: what the shelf offers first there, and what new units start with."""

from __future__ import annotations

from tall_plank.job.run import Level
from tall_plank.job.template import Body, Template
from tall_plank.job.unit import Own
from tall_plank.measure import Length

USES = {
    "": "no use", "kitchen": "Kitchen", "dining": "Dining room", "living": "Living room", "bedroom": "Bedroom",
    "dressing": "Dressing room", "bathroom": "Bathroom", "laundry": "Laundry", "boot room": "Boot room",
    "hall": "Hall", "study": "Study", "workshop": "Workshop",
}  # fmt: skip
"""Uses of a room; each offers its own kinds first on the shelf."""

FIRST_KINDS = {
    "kitchen": ("Base", "Corner", "Appliances", "Hung"), "laundry": ("Appliances", "Base", "Tall"),
    "bedroom": ("Furniture", "Tall"), "dressing": ("Furniture", "Tall"), "bathroom": ("Furniture", "Hung"),
    "boot room": ("Furniture", "Tall"), "hall": ("Furniture", "Tall"), "study": ("Furniture", "Base"),
    "living": ("Furniture", "Hung"), "dining": ("Furniture", "Base"), "workshop": ("Base", "Tall"),
}  # fmt: skip
"""Headings of the shelf that come first in a room of a use."""

DEPTHS = {
    "bathroom": "460mm", "hall": "380mm", "boot room": "450mm", "living": "450mm", "dining": "450mm", "study": "450mm",
}  # fmt: skip
"""Carcass depth that base units start with where they need not be as deep as a kitchen's (common practice)."""


def starting_values(use: str, template: Template) -> tuple[Own, ...]:
    """Own values that a new unit of a kind starts with in a room of a use: a shallower base carcass."""
    depth = DEPTHS.get(use)
    plain = template.level is Level.BASE and template.body is Body.CARCASS and template.depth == "base_depth"
    if depth is None or not plain or template.sink or template.corner or any(o.key == "depth" for o in template.own):
        return ()
    return (Own("depth", Length(depth, float(depth.removesuffix("mm")))),)
