"""Own profiles of moldings in the job's copy of the stock."""

from __future__ import annotations

from decimal import Decimal, InvalidOperation

import msgspec

from tall_plank.edits.change import Change
from tall_plank.job import Job
from tall_plank.measure import PlankError
from tall_plank.measure.paths import Path, area, bounds, mirrored, rotated, shifted, turned_round
from tall_plank.stock import PriceRow, Profile
from tall_plank.stock.library import check_profile

USES = (
    "skirting", "dado rail", "picture rail", "cornice", "unit cornice", "light rail", "shelf edge", "casing",
    "panel molding",
)  # fmt: skip
"""What a profile may be for."""

LARGEST = 400.0
"""mm; no section is wider or higher."""


def laid_section(path: Path, *, turns: int = 0, mirror: bool = False, height: float = 0.0) -> Path:
    """A section that was drawn anywhere, as a profile has it: its back on the left at x = 0, its lower edge at y = 0,
    counter-clockwise.

    Parameters
    ----------
    turns : quarter turns, counter-clockwise
    mirror : whether it was drawn the other way round; before the turns
    height : mm that it is to be high then; 0: as it was drawn

    Raises
    ------
    PlankError where it is larger than any molding, or has no size
    """
    found = mirrored(path, 0.0) if mirror else path
    found = rotated(found, 90.0 * (turns % 4))
    x0, y0, x1, y1 = bounds(found)
    if x1 - x0 <= 0.0 or y1 - y0 <= 0.0:
        raise PlankError("The section has no size.", "section", "Draw a closed outline.")
    factor = height / (y1 - y0) if height else 1.0
    if max(x1 - x0, y1 - y0) * factor > LARGEST:
        raise PlankError(f"The section is larger than {LARGEST:g} mm.", "height", "Type how high it is.")
    found = tuple((x * factor, y * factor, b) for x, y, b in shifted(found, -x0, -y0))
    found = found if area(found) > 0 else turned_round(found)
    return tuple((round(x, 4) + 0.0, round(y, 4) + 0.0, round(b, 7) + 0.0) for x, y, b in found)


def add_profile(job: Job, profile: Profile, price: str = "") -> Change:
    """Put a profile into the job's stock; `price`: of a meter in the price book's currency, empty: none.

    Raises
    ------
    PlankError where its code or name is missing or taken, its section or bar is none, or the price is no amount
    """
    if not profile.name.strip():
        raise PlankError("A profile needs a name.", "name", "Type one.")
    code = profile.code.strip().upper()
    if not code or len(code) > 40 or any(c.isspace() for c in code):
        raise PlankError("A profile needs a code without blanks.", "code", "Type one of up to 40 characters.")
    stock = job.stock
    rows = (stock.boards, stock.edgings, stock.fittings, stock.appliances, stock.profiles)
    if any(row.code == code for kind in rows for row in kind):
        raise PlankError(f"The code {code} is taken.", "code", "Type another.")
    if not profile.uses or any(use not in USES for use in profile.uses):
        raise PlankError("A profile needs something that it is for.", "uses", "Choose one.")
    profile = msgspec.structs.replace(profile, code=code, name=profile.name.strip()[:80])
    check_profile(profile)
    if profile.height > profile.length:
        raise PlankError("The bar is shorter than its section.", "length", "Type the length of a bar.")
    prices = stock.prices
    if price.strip():
        row = PriceRow(code, _amount(price), "m")
        prices = tuple(
            msgspec.structs.replace(book, rows=(*book.rows, row)) if book.code == job.book else book for book in prices
        )
    new = msgspec.structs.replace(stock, profiles=(*stock.profiles, profile), prices=prices)
    return Change(msgspec.structs.replace(job, stock=new), f"Add the profile {profile.name}")


def _amount(text: str) -> Decimal:
    try:
        found = Decimal(text.strip().replace(",", "."))
    except InvalidOperation:
        raise PlankError(f"“{text.strip()[:20]}” is no price.", "price", "Type an amount such as 4.20.") from None
    if not found.is_finite() or not 0 <= found <= 100_000:
        raise PlankError(f"“{text.strip()[:20]}” is no price of a meter.", "price", "Type an amount such as 4.20.")
    return found
