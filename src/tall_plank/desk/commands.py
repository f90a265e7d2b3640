"""Every action of the user as a registered command: menus, keys, find-a-command and tests call the same."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from PyQt6.QtGui import QAction, QKeySequence
from PyQt6.QtWidgets import QMainWindow, QMenu


@dataclass(frozen=True)
class Command:
    """One action: its name (stable), text, menu, keys, what it does and when it applies."""

    name: str
    text: str
    menu: str
    keys: tuple[str, ...]
    run: Callable[[], object]
    when: Callable[[], bool]


class Commands:
    """The registry of one window."""

    def __init__(self, window: QMainWindow) -> None:
        self._window = window
        self.all: dict[str, Command] = {}
        self.actions: dict[str, QAction] = {}
        self.order: list[tuple[str, str]] = []
        """(menu, name) in the order of the menus; a name of "-" is a separator."""

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
    ) -> QAction:
        """Register a command; several keys are parted by spaces. Keys that are not bound are only told of: the
        widgets answer to them first, and the window where they do not."""
        if name in self.all:
            raise ValueError(f"the command {name} is registered twice")
        command = Command(name, text, menu, tuple(keys.split()), run, when)
        self.all[name] = command
        action = QAction(text, self._window)
        if bound:
            action.setShortcuts([QKeySequence(key) for key in command.keys])
        action.setCheckable(checkable)
        action.triggered.connect(lambda _=False: self.run(name))
        self._window.addAction(action)
        self.actions[name] = action
        self.order.append((menu, name))
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
        for name, command in self.all.items():
            able = command.when()
            if self.actions[name].isEnabled() != able:
                self.actions[name].setEnabled(able)

    def fill_menus(self, titles: dict[str, str]) -> dict[str, QMenu]:
        """Put every command into the menu bar."""
        bar = self._window.menuBar()
        assert bar is not None
        menus: dict[str, QMenu] = {}

        def menu_of(key: str) -> QMenu:
            if key not in menus:
                # A menu within another, such as "bays/close", stands where its first command does.
                around, _, _ = key.rpartition("/")
                made = (menu_of(around) if around else bar).addMenu(titles[key])
                assert made is not None
                menus[key] = made
            return menus[key]

        for key in titles:
            if "/" not in key:
                menu_of(key)
        for key, name in self.order:
            if name == "-":
                menu_of(key).addSeparator()
            else:
                menu_of(key).addAction(self.actions[name])
        return menus
