"""The words of RS-274 (NIST IR 6556) for the steps of a program, as a machine takes them."""

from __future__ import annotations

from collections.abc import Sequence

from tall_plank.shop.machine.frame import Frame
from tall_plank.shop.machine.model import Machine
from tall_plank.shop.machine.steps import Go, Step, Take, Turn

INCH = 25.4


class _Words:
    """Numbers and comments as a machine reads them."""

    def __init__(self, machine: Machine, frame: Frame) -> None:
        self.machine, self.frame = machine, frame
        inches = machine.units == "inch"
        self.scale = INCH if inches else 1.0
        self.digits, self.fine = (5, 6) if inches else (3, 4)

    def number(self, mm: float, digits: int) -> str:
        text = f"{mm / self.scale:.{digits}f}".rstrip("0").rstrip(".")
        return "0" if text in ("-0", "") else text

    def feed(self, mm: float) -> str:
        return f"F{mm / self.scale:.4f}".rstrip("0").rstrip(".")

    def said(self, text: str) -> list[str]:
        """A comment: plain letters, no brackets."""
        style = self.machine.comments
        kept = "()" if style == "brackets" else "();"
        plain = "".join(c if c.isascii() and c.isprintable() and c not in kept else "?" for c in text)[:110]
        return [] if style == "none" else [f"({plain})" if style == "brackets" else f"; {plain}"]

    def go(self, step: Go, at: list[float]) -> str:
        words = ["G1" if step.feed else "G0"]
        x, y = at[0] if step.x is None else step.x, at[1] if step.y is None else step.y
        if step.x is not None or step.y is not None:
            out = self.frame.out(x, y)
            words += [f"X{self.number(out[0], self.digits)}", f"Y{self.number(out[1], self.digits)}"]
        if step.z is not None:
            words.append(f"Z{self.number(self.frame.height(step.z), self.digits)}")
        if step.feed and not step.said:
            words.append(self.feed(step.feed))
        at[0], at[1] = x, y
        return " ".join(words)

    def turn(self, step: Turn, at: list[float]) -> str:
        """With a digit more, so that both ends lie on the arc."""
        start, middle = self.frame.out(at[0], at[1]), self.frame.out(step.middle_x, step.middle_y)
        end = self.frame.out(step.x, step.y)
        counter = step.counter != self.frame.mirrored
        i, j = middle[0] - start[0], middle[1] - start[1]
        at[0], at[1] = step.x, step.y
        place = " ".join(
            f"{w}{self.number(v, self.fine)}" for w, v in (("X", end[0]), ("Y", end[1]), ("I", i), ("J", j))
        )
        return f"{'G3' if counter else 'G2'} {place} {self.feed(step.feed)}"


def worded(steps: Sequence[Step], machine: Machine, frame: Frame, said: Sequence[str]) -> str:
    """The text of a program.

    Parameters
    ----------
    said : what its head tells to people, a comment a line
    """
    w = _Words(machine, frame)
    lines = [x for text in said for x in w.said(text)]
    lines += machine.header
    lines.append(f"{'G20' if machine.units == 'inch' else 'G21'} G90 G17 G94")
    at = [0.0, 0.0]
    turning = False
    for step in steps:
        if isinstance(step, Take):
            lines += ["M5"] if turning else []
            lines += w.said(step.tool.name)
            lines.append(f"T{step.tool.number} M6")
            lines += [f"G43 H{step.tool.number}"] if machine.length_offsets else []
            lines.append(f"S{step.tool.speed:g} M3")
            lines += [f"G4 P{machine.spindle_wait:g}"] if machine.spindle_wait else []
            turning = True
        elif isinstance(step, Turn):
            lines.append(w.turn(step, at))
        else:
            lines.append(w.go(step, at))
    lines += ["M5"] if turning else []
    lines += ["G49"] if turning and machine.length_offsets else []
    lines += machine.footer
    lines.append(machine.ending)
    return "\n".join(["%", *lines, "%"] if machine.percent else lines) + "\n"
