"""A snag: something wrong or forgotten, with where it is and what to do."""

from __future__ import annotations

import msgspec

from tall_plank.job.choices import Weight


class Where(msgspec.Struct, frozen=True, cache_hash=True):
    """The place of a snag; empty parts do not apply."""

    room: str = ""
    wall_id: str = ""
    run: str = ""
    cell: str = ""
    label: str = ""


class Snag(msgspec.Struct, frozen=True, cache_hash=True):
    """What is wrong, where, and what to do.

    Attributes
    ----------
    rule : name of the rule that found it
    weight : "wrong" stops the shop, "mind" is worth a look
    source : published source of the rule, or "common practice"
    """

    rule: str
    what: str
    remedy: str
    where: Where
    weight: Weight = "wrong"
    source: str = ""
