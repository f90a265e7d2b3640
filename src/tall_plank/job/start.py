"""Where a new job starts: the shipped standard, templates, stock, values and one empty room."""

from __future__ import annotations

from tall_plank.job.basis import NamedValue
from tall_plank.job.job import Job, Pricing
from tall_plank.job.room import Rectangle, Room
from tall_plank.job.scheme import Choice, Role, Scheme
from tall_plank.job.shipped import DATA, shipped_standard, shipped_standards
from tall_plank.job.template import Template, load_templates
from tall_plank.measure import Length
from tall_plank.measure.remembered import lasting
from tall_plank.stock import shipped_stock

START_VALUES = (
    ("base_height", "730mm", "carcass height of base units"),
    ("base_depth", "560mm", "carcass depth of base units"),
    ("plinth", "100mm", "height of the plinth"),
    ("worktop", "40mm", "thickness of the worktop"),
    ("hung_height", "720mm", "carcass height of hung units"),
    ("hung_depth", "330mm", "carcass depth of hung units"),
    ("tall_height", "worktop + base_height + 1320mm", "carcass height of tall units"),
    ("tall_depth", "base_depth", "carcass depth of tall units"),
    ("hung_bottom", "plinth + base_height + worktop + 530mm", "underside of hung units above the floor"),
)


@lasting
def shipped_templates() -> tuple[Template, ...]:
    return load_templates(DATA / "templates")


def start_values() -> tuple[NamedValue, ...]:
    """The named values of a new job, evaluated."""
    from tall_plank.measure.named import evaluate_named

    done = evaluate_named({name: text for name, text, _ in START_VALUES})
    return tuple(NamedValue(name, Length(text, done[name]), note) for name, text, note in START_VALUES)


def start_scheme() -> Scheme:
    return Scheme(
        "first",
        "First scheme",
        (
            Choice(Role.FRONT, "sea-sage"),
            Choice(Role.CARCASS, "birch-ply"),
            Choice(Role.DRAWER, "birch-ply"),
            Choice(Role.WORKTOP, "slip-slate"),
            Choice(Role.PLINTH, "sea-sage"),
        ),
    )


def new_job(name: str = "New job") -> Job:
    """A job with one empty room, 3600 x 2400 and 2500 high."""
    stock = shipped_stock()
    room = Room(
        "r1",
        "Room",
        Rectangle(Length("3600mm", 3600.0), Length("2400mm", 2400.0)),
        Length("2500mm", 2500.0),
        Length("150mm", 150.0),
    )
    return Job(
        name=name,
        values=start_values(),
        rooms=(room,),
        schemes=(start_scheme(),),
        scheme="first",
        standards=shipped_standards(),
        standard=shipped_standard().code,
        templates=shipped_templates(),
        stock=stock,
        book=stock.prices[0].code,
        pricing=Pricing(),
        next_id=2,
    )
