"""Sets of drawings: opening them, pages of one's own, the order of sheets, what views show, the shop's mark."""

from __future__ import annotations

from functools import partial
from pathlib import Path
from typing import get_args

from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.desk.look.texts import tr
from tall_plank.desk.pages.composing import SHOWING
from tall_plank.desk.pages.sets import SetPage
from tall_plank.edits.papers import drop_logo, set_logo
from tall_plank.files.images import read_image
from tall_plank.job.sheetset import SetKind, Showing
from tall_plank.measure import PlankError
from tall_plank.papers.setcontent import shows_of

SETS: dict[SetKind, str] = {
    "client": "&Client's set", "site": "&Site set", "shop": "S&hop set", "installer": "&Installer's set",
}  # fmt: skip

NONE_OPEN = "open a set of drawings first"


def register(w: Window) -> None:
    """Register the commands of this menu."""
    add = w.commands.add
    for kind, text in SETS.items():
        add(f"set_{kind}", tr(text), "drawings", partial(open_set, w, kind))
    w.commands.separate("drawings")

    def on_set() -> bool:
        return page_of(w) is not None

    def on_own() -> bool:
        page = page_of(w)
        return page is not None and page.tools.own is not None

    def with_page(do: str) -> None:
        page = page_of(w)
        if page is not None:
            getattr(page.tools, do)()

    def step(by: int) -> None:
        page = page_of(w)
        if page is not None:
            page.step(by)

    def order() -> None:
        page = page_of(w)
        if page is not None:
            page.tools.order.toggle()

    none_open = tr(NONE_OPEN)
    no_page = tr("open a page of your own first")
    for name, text, do, keys in (
        ("page_note", tr("N&ote on the page"), "put_note", ""),
        ("page_picture", tr("&Picture on the page…"), "put_picture", ""),
        ("page_put", tr("P&ut on the page…"), "offer_put", "Ctrl+Alt+P"),
    ):
        add(name, text, "drawings", partial(with_page, do), keys, on_own, why=no_page)
    for name, text, run, keys in (
        ("new_page", tr("&New page"), partial(with_page, "begin_page"), "Ctrl+Alt+N"),
        ("leave_out", tr("&Leave the sheet out"), partial(with_page, "leave_out"), ""),
        ("sheet_earlier", tr("Sheet &earlier"), partial(step, -1), "Alt+PgUp"),
        ("sheet_later", tr("Sheet l&ater"), partial(step, 1), "Alt+PgDown"),
        ("sheet_order", tr("O&rder of sheets"), order, ""),
    ):
        add(name, text, "drawings", run, keys, on_set, why=none_open)
    w.commands.separate("drawings")

    def show(what: Showing) -> None:
        page = page_of(w)
        if page is not None:
            shows, color = shows_of(w.document.job, page.kind)
            now = {"color": color, "dimensions": shows.dims}
            page.tools.show_with(what, not (now[what] if what in now else bool(getattr(shows, what))))

    for what in get_args(Showing):
        text = f"{tr('With or without')} {tr(SHOWING[what]).lower()}"
        add(f"set_with_{what}", text, "drawings", partial(show, what), "", on_set, why=none_open)
    w.commands.separate("drawings")
    add("choose_logo", tr("The shop's &mark…"), "drawings", lambda: choose_logo(w))
    add(
        "drop_logo",
        tr("&Take the shop's mark off"),
        "drawings",
        lambda: w.document.do(drop_logo),
        "",
        lambda: bool(w.document.job.papers.logo),
        why=tr("the papers have none"),
    )


def page_of(w: Window) -> SetPage | None:
    """The set of drawings that is on screen."""
    page = w.center.currentWidget()
    return page if isinstance(page, SetPage) else None


def open_set(w: Window, kind: SetKind) -> None:
    """Show a set of drawings."""
    w.lists.chosen.update(offer=f"set:{kind}")
    w.show_stage("offer")


def choose_logo(w: Window) -> None:
    """Give the papers the shop's mark, an image from a file."""
    start = w.document.path.parent if w.document.path else Path.home()
    path = asking.ask_read(w, tr("The shop's mark"), start, f"{tr('Images')} (*.png *.jpg *.jpeg *.tif *.tiff *.bmp)")
    if path is None:
        return
    try:
        image = read_image(path, MARK_PIXELS)
    except PlankError as error:
        w.message.tell(str(error), "wrong")
        return
    w.document.do(lambda job: set_logo(job, image.wide, image.high, image.data))


MARK_PIXELS = 800
"""Pixels on the longer side of a mark that are kept: it is printed 20 mm wide."""
