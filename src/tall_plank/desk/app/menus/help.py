"""The Help menu."""

from __future__ import annotations

from PyQt6.QtWidgets import QMessageBox

from tall_plank import __version__
from tall_plank.desk.app import dialogs
from tall_plank.desk.app.window import Window
from tall_plank.desk.look.texts import tr


def register(w: Window) -> None:
    add = w.commands.add

    def find() -> None:
        w.bar.find_box.setFocus()
        w.bar.find_box.selectAll()

    add("find", tr("&Find a command"), "help", find, "Ctrl+K")
    add("keys", tr("&Keys"), "help", lambda: dialogs.KeySheet(w, w.commands, w.commands.titles).exec(), "? F1")

    def about() -> None:
        QMessageBox.about(
            w,
            tr("About Tall Plank"),
            f"Tall Plank {__version__}\n\n"
            + tr(
                "Free software under the GNU General Public License, version 3.\n"
                "It comes with no warranty. The typeface is under the SIL Open Font License."
            ),
        )

    add("about", tr("&About"), "help", about)
