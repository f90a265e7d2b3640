"""The View menu: panes, zoom, stages, the look."""

from __future__ import annotations

from functools import partial

from PyQt6.QtWidgets import QApplication, QWidget

from tall_plank.desk.app.jobbar import STAGES
from tall_plank.desk.app.window import Window
from tall_plank.desk.look.texts import tr


def register(w: Window) -> None:
    add = w.commands.add
    for key, name, text in (
        ("1", "strip", tr("Wall &strip alone")),
        ("2", "plan", tr("&Plan alone")),
        ("3", "model", tr("&Model alone")),
        ("4", "all", tr("&All three")),
    ):
        add(f"view_{name}", text, "view", partial(w.show_view, name), key)
    w.commands.separate("view")
    for name, pane, text, keys in (
        ("shelf", w.left, tr("S&helf or schedules"), "F9"),
        ("sheet", w.spec, tr("Sp&ec sheet"), "Shift+F9"),
    ):
        add(f"pane_{name}", text, "view", partial(toggle, w, pane), keys, checkable=True)
    for name, pane, by, text in (
        ("sheet_wider", w.spec, STEP, tr("Wider spec sheet")),
        ("sheet_narrower", w.spec, -STEP, tr("Narrower spec sheet")),
        ("shelf_wider", w.left, STEP, tr("Wider shelf")),
        ("shelf_narrower", w.left, -STEP, tr("Narrower shelf")),
    ):
        add(name, text, "view/panes", partial(w.middle.resize_pane, pane, by))
    for name, by, text in (("strip_higher", STEP, tr("Higher strip")), ("strip_lower", -STEP, tr("Lower strip"))):
        add(name, text, "view/panes", partial(w.center.design.resize_pane, w.center.top_pane, by))
    w.middle.shared.connect(lambda: tell_panes(w))
    tell_panes(w)
    w.commands.separate("view")
    add("zoom_in", tr("Zoom &in"), "view", lambda: w.center.focused_view().zoom(1.25), "Ctrl++")
    add("zoom_out", tr("Zoom &out"), "view", lambda: w.center.focused_view().zoom(0.8), "Ctrl+-")
    add("zoom_fit", tr("&Fit"), "view", lambda: w.center.focused_view().fit(), "Ctrl+0 F")

    def dims() -> None:
        w.strip.dims_shown = not w.strip.dims_shown
        w.strip.margin = (62.0, 60.0, 24.0, 92.0) if w.strip.dims_shown else (62.0, 34.0, 24.0, 12.0)
        w.strip.refresh()
        w.strip.fit()

    add("dims", tr("&Dimensions on the strip"), "view", dims, "D", checkable=True)
    w.commands.separate("view")
    for i, stage in enumerate(STAGES, 1):
        add(
            f"stage_{stage}",
            f"{tr('Stage')}: {tr(stage.capitalize())}",
            "view",
            partial(w.show_stage, stage),
            f"Alt+{i}",
        )
    w.commands.separate("view")

    def full() -> None:
        w.showNormal() if w.isFullScreen() else w.showFullScreen()

    add("next_pane", tr("Next pa&ne"), "view", lambda: w.next_pane(1), "F6")
    add("previous_pane", tr("Previ&ous pane"), "view", lambda: w.next_pane(-1), "Shift+F6")
    add("go_strip", tr("&Go to the strip"), "view", w.strip.setFocus, "G")
    add("go_shelf", tr("Go to the shel&f"), "view", lambda: go_to_shelf(w), "P")
    add("go_spec", tr("Go to the spec s&heet"), "view", lambda: go_to_spec(w), "S")
    w.commands.separate("view")
    add("full_screen", tr("F&ull screen"), "view", full, "F11")

    def look() -> None:
        new = "light" if w.preferences.get("look", "light") == "dark" else "dark"
        w.preferences.set("look", new)
        w.set_look(new)

    add("look", tr("Paper or &night"), "view", look, "Ctrl+Shift+L")


STEP = 60
"""px that a pane grows or shrinks by a command."""


def toggle(w: Window, pane: QWidget) -> None:
    """Close a pane at the side, or open it again."""
    w.middle.open_pane(pane, not w.middle.is_open(pane))
    tell_panes(w)
    widget = QApplication.focusWidget()
    if widget is not None and pane.isAncestorOf(widget):
        w.center.main_view().setFocus()


def tell_panes(w: Window) -> None:
    """Let the menu say which panes are open."""
    for name, pane in (("shelf", w.left), ("sheet", w.spec)):
        w.commands.actions[f"pane_{name}"].setChecked(w.middle.is_open(pane))


def go_to_shelf(w: Window) -> None:
    """The shelf's search, the shelf opened where it was closed."""
    w.middle.open_pane(w.left, True)
    tell_panes(w)
    w.shelf.search.setFocus()


def go_to_spec(w: Window) -> None:
    """The first value on the spec sheet that can be changed."""
    w.middle.open_pane(w.spec, True)
    tell_panes(w)
    line = next((x for x in w.spec.lines.values() if x.row.apply is not None), None)
    if line is not None:
        line.value.setFocus()
