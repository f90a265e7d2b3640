"""Typed lengths: `600`, `60cm`, `23 5/8"`, `2' 7 1/2"`, sums of them, and named job values.

One small grammar serves every box that takes a length::

    sum     = product { ("+" | "-") product }
    product = sign { ("*" | "/") sign }
    sign    = [ "-" | "+" ] atom
    atom    = "(" sum ")" | measure | name | name "(" sum { ";" sum } ")"
    measure = number [unit] { number unit }          e.g.  2' 7 1/2"    1m 20cm

A number may be whole, decimal (point or comma), or a fraction with or without a whole part (`7 1/2`).
A fraction binds closer than division: `1/2"` is half an inch. Lengths add to lengths, and are multiplied or
divided by plain numbers; a length times a length is an error. A bare number is a plain number until the end:
standing alone, or added to a length, it means the display unit.
"""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Literal, NoReturn

import msgspec

from tall_plank.measure.errors import PlankError
from tall_plank.measure.units import FACTORS, TOLERANCE, DisplayUnit, format_length

MAX_TEXT = 200
MAX_DEPTH = 30
MAX_LENGTH = 1_000_000.0  # mm; a kilometre is more than any room


class LengthError(PlankError):
    """A text that is no length; `position` is the index of the first character that does not fit."""

    def __init__(self, what: str, position: int = 0, remedy: str = "") -> None:
        super().__init__(what, "", remedy or 'Type a length such as 600, 60cm, 23 5/8" or (2400-50)/4.')
        self.position = position


class Length(msgspec.Struct, frozen=True, cache_hash=True):
    """A length as it was decided: what was typed, and what that came to.

    Attributes
    ----------
    text : str, as typed; a rule such as ``worktop + 2*18`` stays a rule
    mm : float, mm
    """

    text: str
    mm: float

    @classmethod
    def of(cls, mm: float) -> Length:
        """A length that the program decided; its text is in explicit mm so that it never changes meaning."""
        return cls(f"{mm:.6f}".rstrip("0").rstrip(".") + "mm", float(mm))

    @property
    def is_rule(self) -> bool:
        """Whether the text names a job value and so follows it."""
        return bool(names_in(self.text))


ZERO = Length("0mm", 0.0)


@dataclass(frozen=True)
class _Quantity:
    """A value with its power of length: 0 a plain number, 1 a length in mm."""

    value: float
    power: int


_TOKEN = re.compile(
    r"""\s*(?:
      (?P<mixed>\d+\s+\d+\s*/\s*\d+(?![\d.,]))
    | (?P<fraction>\d+\s*/\s*\d+(?=\s*(?:"|″|''|in\b|inch|ft\b|'|′|mm\b|cm\b|m\b)))
    | (?P<number>\d+(?:[.,]\d+)?|[.,]\d+)
    | (?P<unit>''|"|″|'|′|(?:mm|cm|m|inches|inch|in|feet|foot|ft)(?![A-Za-z_0-9]))
    | (?P<name>[A-Za-z_][A-Za-z_0-9]*)
    | (?P<mark>[-+*/();−×÷·])
    )""",
    re.VERBOSE,
)
_MARKS = {"−": "-", "×": "*", "·": "*", "÷": "/"}
_FUNCTIONS: dict[str, Callable[..., float]] = {"min": min, "max": max}


@dataclass(frozen=True)
class _Token:
    kind: str
    text: str
    at: int


def _tokens(text: str) -> list[_Token]:
    found: list[_Token] = []
    at = 0
    end = len(text.rstrip())
    while at < end:
        match = _TOKEN.match(text, at)
        if match is None or match.lastgroup is None:
            while text[at].isspace():
                at += 1
            raise LengthError(f"“{text[at]}” has no place in a length.", at)
        kind = match.lastgroup
        word = match.group(kind)
        start = match.start(kind)
        if kind == "mark":
            word = _MARKS.get(word, word)
        if word == "''":
            word = '"'
        found.append(_Token(kind, word, start))
        at = match.end()
    return found


def names_in(text: str) -> frozenset[str]:
    """The named values that a text uses. A text that cannot be read uses none."""
    try:
        return frozenset(t.text for t in _tokens(text) if t.kind == "name" and t.text not in _FUNCTIONS)
    except LengthError:
        return frozenset()


def _number(token: _Token) -> float:
    """The value of a number token; a fraction with a zero below is an error."""
    if token.kind == "number":
        return float(token.text.replace(",", "."))
    whole, _, rest = token.text.rpartition(" ") if token.kind == "mixed" else ("", "", token.text)
    head, _, below = rest.replace(" ", "").partition("/")
    if token.kind == "mixed":
        match = re.match(r"(\d+)\s+(\d+)\s*/\s*(\d+)", token.text)
        assert match is not None
        whole, head, below = match.groups()
    if int(below) == 0:
        raise LengthError("A fraction cannot have zero below the line.", token.at)
    return (float(whole) if whole else 0.0) + int(head) / int(below)


class _Reader:
    def __init__(
        self, text: str, unit: DisplayUnit, values: Mapping[str, float], numbers: Mapping[str, float] | None = None
    ) -> None:
        self.text = text
        self.tokens = _tokens(text)
        self.unit = unit
        self.values = values
        self.numbers = numbers or {}
        self.i = 0
        self.depth = 0
        self.given_unit: list[tuple[int, int]] = []
        """Spans of tokens whose plain number took the display unit."""

    def peek(self) -> _Token | None:
        return self.tokens[self.i] if self.i < len(self.tokens) else None

    def at_mark(self, *marks: str) -> bool:
        token = self.peek()
        return token is not None and token.kind == "mark" and token.text in marks

    def take(self) -> _Token:
        token = self.tokens[self.i]
        self.i += 1
        return token

    def fail(self, what: str, token: _Token | None, remedy: str = "") -> NoReturn:
        raise LengthError(what, token.at if token else len(self.text.rstrip()), remedy)

    def as_length(self, q: _Quantity, start: int, end: int) -> _Quantity:
        """A plain number, read from the tokens start to end, as a length in the display unit."""
        if q.power == 1:
            return q
        self.given_unit.append((start, end))
        return _Quantity(q.value * self.unit.factor, 1)

    def whole(self) -> float:
        """The value in mm of the whole text."""
        quantity = self.sum()
        rest = self.peek()
        if rest is not None:
            raise LengthError(f"“{rest.text}” is not expected here.", rest.at)
        return self.as_length(quantity, 0, self.i).value

    def sum(self) -> _Quantity:
        self.depth += 1
        if self.depth > MAX_DEPTH:
            self.fail("There are too many brackets inside one another.", self.peek())
        first = self.i
        left = self.product()
        while self.at_mark("+", "-"):
            middle = self.i
            sign = 1.0 if self.take().text == "+" else -1.0
            second = self.i
            right = self.product()
            if left.power != right.power:
                left, right = self.as_length(left, first, middle), self.as_length(right, second, self.i)
            left = _Quantity(left.value + sign * right.value, left.power)
        self.depth -= 1
        return left

    def product(self) -> _Quantity:
        left = self.sign()
        while self.at_mark("*", "/"):
            mark = self.take()
            right = self.sign()
            if mark.text == "*":
                if left.power + right.power > 1:
                    self.fail("A length times a length is an area, not a length.", mark, "Multiply by a plain number.")
                left = _Quantity(left.value * right.value, left.power + right.power)
            else:
                if right.value == 0:
                    self.fail("Nothing can be divided by zero.", mark)
                if right.power > left.power:
                    self.fail("A number divided by a length is not a length.", mark)
                left = _Quantity(left.value / right.value, left.power - right.power)
        return left

    def sign(self) -> _Quantity:
        if self.at_mark("+", "-"):
            self.depth += 1
            if self.depth > MAX_DEPTH:
                self.fail("There are too many signs in a row.", self.peek())
            factor = -1.0 if self.take().text == "-" else 1.0
            q = self.sign()
            self.depth -= 1
            return _Quantity(factor * q.value, q.power)
        return self.atom()

    def atom(self) -> _Quantity:
        token = self.peek()
        if token is None:
            self.fail("The text ends too soon." if self.tokens else "No length is typed.", None)
        if self.at_mark("("):
            self.take()
            q = self.sum()
            if not self.at_mark(")"):
                self.fail("A bracket is not closed.", self.peek())
            self.take()
            return q
        if token.kind == "name":
            return self.name()
        if token.kind in ("number", "mixed", "fraction"):
            return self.measure()
        self.fail(f"“{token.text}” is not expected here.", token)

    def name(self) -> _Quantity:
        token = self.take()
        if token.text in _FUNCTIONS and self.at_mark("("):
            self.take()
            spans = [self.i]
            parts = [self.sum()]
            while self.at_mark(";"):
                self.take()
                spans.append(self.i)
                parts.append(self.sum())
            if not self.at_mark(")"):
                self.fail("A bracket is not closed.", self.peek(), "Part the values with a semicolon.")
            if len(parts) < 2:
                self._one_alone(token, spans[0])
            self.take()
            if any(q.power for q in parts):
                ends = [start - 1 for start in spans[1:]] + [self.i - 1]
                parts = [self.as_length(q, a, b) for q, a, b in zip(parts, spans, ends, strict=True)]
            return _Quantity(_FUNCTIONS[token.text](*(q.value for q in parts)), parts[0].power)
        if token.text in self.numbers:
            return _Quantity(self.numbers[token.text], 0)
        if token.text not in self.values:
            known = ", ".join(sorted(self.values)[:8])
            self.fail(
                f"There is no value named “{token.text}”.", token, f"Known: {known}." if known else "Type a number."
            )
        return _Quantity(self.values[token.text], 1)

    def _one_alone(self, function: _Token, start: int) -> NoReturn:
        """A function of one value makes no sense: most often a comma was meant to part two."""
        inside = self.tokens[start : self.i]
        comma = next((t for t in inside if t.kind == "number" and "," in t.text), None)
        if comma is not None:
            one, _, other = comma.text.partition(",")
            what = f"“{comma.text}” is one number here: a comma stands before decimals."
            self.fail(what, comma, f"Part values with a semicolon: {function.text}({one}; {other}).")
        self.fail(f"{function.text} takes two values or more.", function, "Part values with a semicolon.")

    def measure(self) -> _Quantity:
        value = _number(self.take())
        token = self.peek()
        if token is None or token.kind != "unit":
            return _Quantity(value, 0)
        factor = FACTORS[self.take().text]
        total = value * factor
        while (token := self.peek()) is not None and token.kind in ("number", "mixed", "fraction"):
            below = self.take()
            after = self.peek()
            if after is not None and after.kind == "unit":
                smaller = FACTORS[self.take().text]
            elif factor == FACTORS["'"]:
                smaller = FACTORS['"']  # 2' 6 means two feet six inches
            else:
                self.fail("A unit is missing after this number.", below)
            if smaller >= factor:
                self.fail("The smaller unit comes after the larger one.", below)
            total += _number(below) * smaller
            factor = smaller
        return _Quantity(total, 1)


def parse_length(
    text: str,
    unit: DisplayUnit = DisplayUnit.MM,
    values: Mapping[str, float] | None = None,
    *,
    least: float | None = None,
    most: float | None = None,
) -> Length:
    """Read a typed length.

    Parameters
    ----------
    text : str, what was typed
    unit : the job's display unit, which a bare number means
    values : named job values, name -> mm
    least, most : float, mm; the range that makes sense here

    Returns
    -------
    Length, with the text as typed (bare numbers get their unit so that switching display changes nothing)

    Raises
    ------
    LengthError, naming the first character that does not fit, or the range that is missed
    """
    if len(text) > MAX_TEXT:
        raise LengthError(f"The text is longer than {MAX_TEXT} characters.", MAX_TEXT)
    reader = _Reader(text, unit, values or {})
    mm = reader.whole()
    if not math.isfinite(mm) or abs(mm) > MAX_LENGTH:
        raise LengthError("The length is larger than any room.", 0, "Type less than a kilometer.")
    if least is not None and mm < least - TOLERANCE:
        raise LengthError(
            f"{format_length(mm, unit, mark=True)} is too small.",
            0,
            f"The least that makes sense here is {format_length(least, unit, mark=True)}.",
        )
    if most is not None and mm > most + TOLERANCE:
        raise LengthError(
            f"{format_length(mm, unit, mark=True)} is too large.",
            0,
            f"The most that fits here is {format_length(most, unit, mark=True)}.",
        )
    return Length(_with_units(text, reader), mm)


def _with_units(text: str, reader: _Reader) -> str:
    """The typed text with the display unit written after each number that took it.

    So a kept text means the same whatever the job displays later: `worktop + 2*18` becomes `worktop + 2*18mm`.
    """
    suffix = {DisplayUnit.MM: "mm", DisplayUnit.CM: "cm"}.get(reader.unit, '"')
    inserts: list[tuple[int, str]] = []
    for start, end in reader.given_unit:
        tokens = reader.tokens[start:end]
        numbers = [t for t in tokens if t.kind in ("number", "mixed", "fraction")]
        plain = len(numbers) + sum(t.text in ("*", "/", "-", "+") for t in tokens) == len(tokens)
        if plain and not any(t.text in ("+",) for t in tokens) and not _has_difference(tokens):
            carrier = numbers[0] if any(t.text == "/" for t in tokens) else numbers[-1]
            inserts.append((carrier.at + len(carrier.text), suffix))
        else:
            inserts.append((tokens[0].at, "("))
            inserts.append((tokens[-1].at + len(tokens[-1].text), f")*1{suffix}"))
    for at, word in sorted(inserts, key=lambda pair: pair[0], reverse=True):
        text = text[:at] + word + text[at:]
    return text.strip()


def _has_difference(tokens: list[_Token]) -> bool:
    """Whether a minus stands between two values (not as a sign)."""
    return any(t.text == "-" and i > 0 and tokens[i - 1].text not in ("*", "/", "-", "+") for i, t in enumerate(tokens))


def evaluate_text(text: str, values: Mapping[str, float]) -> float:
    """The mm of a text that was kept by `parse_length` (its bare numbers, if any, are mm)."""
    return parse_length(text, DisplayUnit.MM, values).mm


Rule = Literal["length", "number"]


def evaluate_rule(text: str, kind: Rule, values: Mapping[str, float], numbers: Mapping[str, float]) -> float:
    """The value of a rule in a kind's own file: mm, or a plain number.

    Parameters
    ----------
    values : names of lengths, mm
    numbers : names of plain numbers

    Raises
    ------
    LengthError, naming the first character that does not fit
    """
    if len(text) > MAX_TEXT:
        raise LengthError(f"The text is longer than {MAX_TEXT} characters.", MAX_TEXT)
    reader = _Reader(text, DisplayUnit.MM, values, numbers)
    if kind == "length":
        value = reader.whole()
    else:
        quantity = reader.sum()
        if reader.peek() is not None:
            raise LengthError(f"“{reader.tokens[reader.i].text}” is not expected here.", reader.tokens[reader.i].at)
        if quantity.power:
            raise LengthError("This is a length, not a plain number.", 0, "Divide it by a length.")
        value = quantity.value
    if not math.isfinite(value) or abs(value) > MAX_LENGTH:
        raise LengthError("The value is larger than any room.", 0, "Make it smaller.")
    return value


def exact_text(length: Length, unit: DisplayUnit, *, spaces: bool = True) -> str:
    """A length as it can be read back exactly: as it is shown where that is exact, else as it was typed.

    Parameters
    ----------
    spaces : whether the text may hold spaces, as `23 5/8` does; without them it can stand in a row of lengths
    """
    shown = format_length(length.mm, unit)
    tried = () if length.is_rule or shown.startswith("~") else (shown,)
    for text in (*tried, length.text):
        if spaces or " " not in text:
            try:
                if length.is_rule or abs(parse_length(text, unit).mm - length.mm) < 1e-6:
                    return str(text)
            except LengthError:
                continue
    if length.is_rule:
        return length.text.replace(" ", "")
    return str(Length.of(length.mm).text)
