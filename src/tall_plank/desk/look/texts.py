"""The one function that every text on screen goes through."""

from __future__ import annotations

import gettext

from tall_plank.assets import FOLDER

_catalog: gettext.NullTranslations = gettext.translation("tall-plank", FOLDER / "locale", fallback=True)


def tr(text: str) -> str:
    """A text in the user's language; without a catalog for it, as it is written."""
    return _catalog.gettext(text)


def counted(count: int, one: str, many: str) -> str:
    """A number with its word, in the singular or the plural."""
    return f"{count} {tr(one if count == 1 else many)}"
