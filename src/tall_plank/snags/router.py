"""What the machine cannot cut of a job whose boards are routed, and a machine that the shop has not."""

from __future__ import annotations

from tall_plank.job import Snag, Where
from tall_plank.shop.machine.model import LEAST_OUTLINER
from tall_plank.snags.checked import Checked


def find(checked: Checked) -> list[Snag]:
    machine, saw = checked.router, checked.job.cutting
    if machine is None:
        return []
    found = []
    where = Where(label=machine.name)
    if saw.machine and saw.machine != machine.name:
        what = f"The shop has no machine “{saw.machine}”; programs are written for {machine.name}."
        found.append(Snag("machine", what, "Choose one on the page of the machine.", where, "mind"))
    if saw.mode != "router":
        return found
    used = {i.part.board for i in checked.made.parts()}
    for board in checked.job.stock.boards:
        if board.code not in used or not board.planned:
            continue
        mill = machine.outliner(board.thickness)
        if mill is None:
            what = f"No mill of {machine.name} reaches through {board.name}: its parts are not cut out."
            remedy = f"Give it one of {LEAST_OUTLINER:g} mm or more that cuts {board.thickness:g} deep, or use the saw."
            found.append(Snag("machine", what, remedy, where))
        elif not any(t.kind == "mill" and LEAST_OUTLINER <= t.diameter <= checked.kerf + 0.01 for t in machine.tools):
            what = f"{checked.kerf:g} mm between parts leave no way for a mill: none is cut out of {board.name}."
            found.append(Snag("machine", what, f"Give {mill.diameter:g} mm, or none: the mill decides.", where))
        long, wide = board.length - machine.bed_length, board.width - machine.bed_width
        if max(long, wide) > machine.margin:
            what = f"{board.name}, {board.length:g} x {board.width:g}, is larger than the bed of {machine.name}."
            found.append(Snag("machine", what, "Divide the boards, choose another machine, or use the saw.", where))
    return found
