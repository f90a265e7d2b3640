"""What the spec sheet says of the selection, as plain rows. No widgets here."""

from __future__ import annotations

from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import (
    Sheet,
)
from tall_plank.desk.spec.bay import bay_sheet
from tall_plank.desk.spec.paneling import paneling_sheet
from tall_plank.desk.spec.price import price_sheet
from tall_plank.desk.spec.room import room_sheet, wall_sheet
from tall_plank.desk.spec.run import run_sheet
from tall_plank.desk.spec.saw import saw_sheet
from tall_plank.desk.spec.scheme import scheme_sheet
from tall_plank.desk.spec.unit import cells_sheet
from tall_plank.desk.things.table import HANDLING
from tall_plank.job import Kind


def sheet_for(doc: Document, stage: str) -> Sheet:
    """The sheet of the selection at a stage."""
    if stage not in ("shop", "offer"):
        if doc.cells:
            return bay_sheet(doc) or cells_sheet(doc)
        if doc.ids(Kind.RUN):
            return run_sheet(doc)
        if doc.ids(Kind.WALL):
            return wall_sheet(doc)
        for source in doc.selection:
            handling = HANDLING.get(source.kind)
            if handling is not None and handling.sheet is not None:
                return handling.sheet(doc, source.id)
    if stage == "paneling":
        return paneling_sheet(doc)
    if stage == "finish":
        return scheme_sheet(doc)
    if stage == "shop":
        return saw_sheet(doc)
    if stage == "offer":
        return price_sheet(doc)
    return room_sheet(doc)
