"""The spec sheet of the finishes of the whole job."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import (
    Group,
    Row,
    Sheet,
    setter,
)
from tall_plank.desk.spec.own import finishes_for, handle_choices, style_choices
from tall_plank.edits import standards, units
from tall_plank.job import Role
from tall_plank.job.standard import CHOICES


def scheme_sheet(doc: Document) -> Sheet:
    job = doc.job
    scheme = job.active_scheme()
    rows = []
    for role in Role:
        code = scheme.finish(role) or ""
        finish = job.stock.finish(code)
        rows.append(
            Row(
                role.value,
                tr(role.value.capitalize()),
                finish.name if finish else code,
                choices=finishes_for(job, role),
                apply=setter(units.set_scheme_finish, role),
            )
        )
    standard = job.active_standard().values()
    style = str(standard["front_style"])
    fronts = (
        Row(
            "front_style",
            tr("Style"),
            dict(style_choices())[style],
            choices=style_choices(),
            apply=lambda job, t: standards.set_in_force(job, "front_style", t),
        ),
        Row(
            "handle",
            tr("Handle"),
            dict(handle_choices(job)).get(str(standard["handle"]), ""),
            choices=handle_choices(job),
            stock="Handles",
            apply=lambda job, t: standards.set_in_force(job, "handle", t),
        ),
        Row(
            "front_grain",
            tr("Grain"),
            tr(CHOICES["front_grain"][str(standard["front_grain"])]),
            choices=tuple((k, tr(v)) for k, v in CHOICES["front_grain"].items()),
            apply=lambda job, t: standards.set_in_force(job, "front_grain", t),
        ),
    )
    return Sheet(
        scheme.name, tr("finishes of the whole job"), (Group(tr("Finish"), tuple(rows)), Group(tr("Fronts"), fronts))
    )
