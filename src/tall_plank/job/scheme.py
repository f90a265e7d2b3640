"""Roles of surfaces, and schemes: named sets of finishes by role."""

from __future__ import annotations

from enum import StrEnum

import msgspec


class Role(StrEnum):
    """What a surface is for."""

    FRONT = "front"
    CARCASS = "carcass"
    DRAWER = "drawer"
    WORKTOP = "worktop"
    PLINTH = "plinth"


class Choice(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A finish for a role."""

    role: Role
    finish: str


class Scheme(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A named set of finishes by role."""

    code: str
    name: str
    choices: tuple[Choice, ...]

    def finish(self, role: Role) -> str | None:
        for choice in self.choices:
            if choice.role is role:
                return choice.finish
        return None

    def with_finish(self, role: Role, finish: str) -> Scheme:
        rest = tuple(c for c in self.choices if c.role is not role)
        return msgspec.structs.replace(self, choices=(*rest, Choice(role, finish)))
