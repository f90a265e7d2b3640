"""Plans that are kept in a job, and what says whether they still hold."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable

import msgspec

from tall_plank.job.cutting import Cutting, KeptPlan, LaidBoard, worth_keeping
from tall_plank.shop.nesting.job import board_and_rack
from tall_plank.shop.nesting.request import NestPart, NestPlan, NestRules, Request


def rules_of(cutting: Cutting, kerf: float, seed: int = 1) -> NestRules:
    """The search's rules from the job's decisions. `kerf`: mm between parts, the saw's or the mill's."""
    return NestRules(
        kerf=kerf,
        trim=cutting.trim,
        mode=cutting.mode,
        turns=cutting.turns,
        first_cut=cutting.first_cut,
        keep_length=cutting.keep_length,
        keep_width=cutting.keep_width,
        effort=cutting.effort,
        seconds=cutting.seconds,
        seed=seed,
        pack=cutting.pack > 0,
    )


def fingerprint(request: Request) -> str:
    """Hash of what a plan is made from: parts, sizes of boards, cuts. Prices and effort are no part of it."""
    rules = request.rules
    boards = sorted((b.board, b.material, b.length, b.width) for b in request.boards if not b.offcut)
    said = ([_told(p) for p in request.parts], boards, rules.kerf, rules.trim, rules.mode, rules.turns, rules.first_cut)
    return hashlib.sha256(msgspec.json.encode(said)).hexdigest()[:32]


def _told(part: NestPart) -> dict[str, object]:
    """A part as hashes have always said it; what came later is said only where it is used, so that kept plans hold."""
    told = msgspec.structs.asdict(part)
    if part.match_way == "side":
        del told["match_way"]
    return told


def by_stock(boards: Iterable[LaidBoard]) -> tuple[LaidBoard, ...]:
    """Boards that were searched for, with the code that the stock knows and the number of the offcut that each is."""
    found = []
    for b in boards:
        code, rack = board_and_rack(b.board)
        found.append(msgspec.structs.replace(b, board=code, rack=rack))
    return tuple(found)


def still_fits(plan: KeptPlan, request: Request) -> bool:
    """Whether a kept plan is one of what is asked for now, and all that it keeps of its boards is worth it still."""
    rules = request.rules
    offcuts = (o for b in plan.boards for o in b.offcuts)
    return plan.made_from == fingerprint(request) and all(
        worth_keeping(length, width, rules.keep_length - 0.001, rules.keep_width - 0.001)
        for _, _, length, width in offcuts
    )


def kept(plan: NestPlan, request: Request) -> KeptPlan:
    """A plan as the job keeps it."""
    return KeptPlan(fingerprint(request), by_stock(plan.boards))
