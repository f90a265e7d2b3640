"""Every action of the user as a registered command: menus, keys, find-a-command and tests call the same."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from PyQt6.QtGui import QAction, QKeySequence
from PyQt6.QtWidgets import QMainWindow, QMenu


@dataclass(frozen=True)
class Command:
    """One action: its name (stable), text, menu, keys, what it does and when it applies.

    Attributes
    ----------
    lead : words before its text where its menu does not say them: "Close with"
    why : what is missing where it does not apply
    """

    name: str
    text: str
    menu: str
    keys: tuple[str, ...]
    run: Callable[[], object]
    when: Callable[[], bool]
    lead: str = ""
    why: str = ""

    @property
    def title(self) -> str:
        """Its whole name, away from its menu."""
        text = self.text.replace("&", "").replace("…", "")
        return f"{self.lead}: {text}" if self.lead else text


class Commands:
    """The registry of one window."""

    def __init__(self, window: QMainWindow) -> None:
        self._window = window
        self.all: dict[str, Command] = {}
        self.actions: dict[str, QAction] = {}
        self.order: list[tuple[str, str]] = []
        """(menu, name) in the order of the menus; a name of "-" is a separator."""
        self.titles: dict[str, str] = {}
        """Menu -> its title."""
        self._menus: dict[str, QMenu] = {}

    def add(
        self,
        name: str,
        text: str,
        menu: str,
        run: Callable[[], object],
        keys: str = "",
        when: Callable[[], bool] = lambda: True,
        *,
        checkable: bool = False,
        bound: bool = True,
        lead: str = "",
        why: str = "",
    ) -> QAction:
        """Register a command; several keys are parted by spaces. Keys that are not bound are only told of: the
        widgets answer to them first, and the window where they do not."""
        if name in self.all:
            raise ValueError(f"the command {name} is registered twice")
        command = Command(name, text, menu, tuple(keys.split()), run, when, lead, why)
        self.all[name] = command
        action = QAction(text, self._window)
        if bound:
            action.setShortcuts([QKeySequence(key) for key in command.keys])
        action.setCheckable(checkable)
        action.triggered.connect(lambda _=False: self.run(name))
        self._window.addAction(action)
        self.actions[name] = action
        self.order.append((menu, name))
        if self._menus:
            self._menu(menu).addAction(action)
        return action

    def separate(self, menu: str) -> None:
        self.order.append((menu, "-"))

    def run(self, name: str) -> None:
        """Do a command where it applies."""
        command = self.all[name]
        if command.when():
            command.run()

    def refresh(self) -> None:
        """Grey out what does not apply now."""
        asked: dict[Callable[[], bool], bool] = {}
        for name, command in self.all.items():
            # Many commands ask the same question: it is answered once.
            able = asked.get(command.when)
            if able is None:
                able = asked[command.when] = command.when()
            if self.actions[name].isEnabled() != able:
                self.actions[name].setEnabled(able)

    def fill_menus(self) -> dict[str, QMenu]:
        """Put every command into the menu bar."""
        for key in self.titles:
            if "/" not in key:
                self._menu(key)
        for key, name in self.order:
            if name == "-":
                self._menu(key).addSeparator()
            else:
                self._menu(key).addAction(self.actions[name])
        return self._menus

    def _menu(self, key: str) -> QMenu:
        """A menu; one within another, such as "bays/close", stands where its first command does."""
        if key not in self._menus:
            bar = self._window.menuBar()
            assert bar is not None
            around, _, _ = key.rpartition("/")
            made = (self._menu(around) if around else bar).addMenu(self.titles[key])
            assert made is not None
            self._menus[key] = made
        return self._menus[key]
