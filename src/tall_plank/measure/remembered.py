"""What has been worked out is remembered in one store: by name, bounded, to be cleared and counted.

What is remembered is a function of its arguments alone, which are frozen values; clearing changes no result.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from typing import ParamSpec, Protocol, TypeVar, cast

P = ParamSpec("P")
R = TypeVar("R", covariant=True)


class Info(Protocol):
    """Counts of one function: `misses` were worked out, `hits` remembered; `maxsize` None: without bound."""

    @property
    def hits(self) -> int: ...
    @property
    def misses(self) -> int: ...
    @property
    def maxsize(self) -> int | None: ...
    @property
    def currsize(self) -> int: ...


class Remembered(Protocol[P, R]):
    """A function that remembers."""

    def __call__(self, *args: P.args, **kwargs: P.kwargs) -> R: ...
    def cache_clear(self) -> None: ...
    def cache_info(self) -> Info: ...


@dataclass(frozen=True)
class Entry:
    """A line of the store.

    Attributes
    ----------
    lasting : it holds what ships with the program, and is not cleared
    """

    name: str
    clear: Callable[[], None]
    info: Callable[[], Info]
    lasting: bool = False


STORE: dict[str, Entry] = {}
"""Name -> what is remembered under it."""


def remembered(size: int) -> Callable[[Callable[P, R]], Remembered[P, R]]:
    """Remember a function's last results, `size` of them at the most."""

    def keep(work: Callable[P, R]) -> Remembered[P, R]:
        return _kept(work, size, lasting=False)

    return keep


def lasting(work: Callable[P, R]) -> Remembered[P, R]:
    """Remember all results of a function as long as the program runs: what ships with it, what is measured once."""
    return _kept(work, None, lasting=True)


def _kept(work: Callable[P, R], size: int | None, *, lasting: bool) -> Remembered[P, R]:
    found = cast("Remembered[P, R]", lru_cache(maxsize=size)(work))
    module = work.__module__.removeprefix("tall_plank.")
    name = f"{module}.{work.__qualname__.lstrip('_')}"
    if name in STORE:
        raise ValueError(f"{name} is remembered twice")
    STORE[name] = Entry(name, found.cache_clear, found.cache_info, lasting)
    return found


@dataclass(frozen=True)
class Count:
    """The counts of what is kept by hand; it does not count how often it is asked."""

    currsize: int
    maxsize: int | None
    hits: int = 0
    misses: int = 0


K = TypeVar("K")
V = TypeVar("V")


class KeptBy(dict[K, V]):
    """Results kept by hand under keys of one's own, the oldest given up first; a line of the store like the others."""

    def __init__(self, name: str, most: int) -> None:
        super().__init__()
        self._most = most
        if name in STORE:
            raise ValueError(f"{name} is remembered twice")
        STORE[name] = Entry(name, self.clear, lambda: Count(len(self), most))

    def put(self, key: K, value: V) -> V:
        """Keep a result; gives it back."""
        while len(self) >= self._most:
            self.pop(next(iter(self)), None)
        self[key] = value
        return value


def forget_all() -> None:
    """Forget everything that was worked out, as after a start; what ships with the program stays."""
    for entry in STORE.values():
        if not entry.lasting:
            entry.clear()


def figures() -> list[tuple[str, int, int, int, int | None]]:
    """Name, hits, misses, how many are kept, and how many at the most, by name."""
    rows = []
    for name, entry in sorted(STORE.items()):
        info = entry.info()
        rows.append((name, info.hits, info.misses, info.currsize, info.maxsize))
    return rows


def of_same(kept: KeptBy[int, tuple[object, V]], thing: object, make: Callable[[], V]) -> V:
    """What was made of this very object, else made now. It is kept by its identity, with the object itself, so that no
    other takes its place: for what takes longer to hash than to look at."""
    found = kept.get(id(thing))
    if found is not None and found[0] is thing:
        return found[1]
    made = make()
    kept.put(id(thing), (thing, made))
    return made
