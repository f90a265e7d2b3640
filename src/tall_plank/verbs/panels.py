"""The verb `panels`: equal panels in a wall."""

from __future__ import annotations

import json
from typing import Any

import click

from tall_plank.measure import DisplayUnit, PlankError, format_length, parse_length
from tall_plank.verbs.common import says_errors


class LengthOption(click.ParamType[float]):
    """A length in any unit; bare numbers are mm."""

    name = "length"

    def convert(self, value: Any, param: click.Parameter | None, ctx: click.Context | None) -> float:
        if isinstance(value, float):
            return value
        try:
            return parse_length(str(value), least=0.0, most=100_000.0).mm
        except PlankError as error:
            self.fail(str(error), param, ctx)


LENGTH = LengthOption()
COUNT = click.IntRange(1, 200)


@click.command()
@click.option("--width", type=LENGTH, required=True, help="Of the wall.")
@click.option("--count", type=COUNT, help="Panels in a row.")
@click.option("--target", type=LENGTH, help="A width of panels instead of their count.")
@click.option("--stile", type=LENGTH, required=True)
@click.option("--end-stile", type=LENGTH, help="As wide as the others where it is not given.")
@click.option("--left", type=LENGTH, default=0.0, help="What stands in the way at the left end, as a casing.")
@click.option("--right", type=LENGTH, default=0.0)
@click.option("--zone-bottom", type=LENGTH, default=0.0, help="The top of the skirting.")
@click.option("--zone-top", type=LENGTH, default=0.0, help="The underside of the dado rail, or the ceiling.")
@click.option("--rows", type=COUNT, default=1, show_default=True)
@click.option("--bottom-rail", type=LENGTH, default=0.0)
@click.option("--top-rail", type=LENGTH, default=0.0)
@click.option("--mid-rail", type=LENGTH, default=0.0)
@click.option("--step", type=LENGTH, default=0.0, help="Panels come in whole steps of it.")
@click.option("--rest", type=click.Choice(["ends", "evenly", "last", "panel"]), default="ends", show_default=True)
@click.option("--json", "as_json", is_flag=True)
@says_errors
def panels(
    width: float,
    count: int | None,
    target: float | None,
    stile: float,
    end_stile: float | None,
    zone_bottom: float,
    zone_top: float,
    as_json: bool,
    **rest: Any,
) -> None:
    """Equal panels in a wall: their sizes, where each begins, and what is left of rounding."""
    from tall_plank.setout.paneling.grid import PanelSpec, panel_grid, sum_line

    if (count is None) == (target is None):
        raise click.UsageError("Give either --count or --target.")
    spec = PanelSpec(
        width, count or 0, stile, stile if end_stile is None else end_stile, target or 0.0, bottom=zone_bottom,
        top=zone_top, **rest,
    )  # fmt: skip
    grid = panel_grid(spec)
    # Sums of floats carry a dust that nobody cuts.
    answer = {
        "panel_width_mm": _mm(grid.panels[0]),
        "panel_height_mm": _mm(grid.height),
        "end_stile_mm": _mm(grid.stiles[0]),
        "bottom_rail_mm": _mm(grid.bottom_rail),
        "left_edges_mm": [_mm(x) for x in grid.left_edges],
        "bottom_edges_mm": [_mm(z) for z in grid.bottom_edges],
    }
    if as_json:
        stiles = [_mm(s) for s in grid.stiles]
        more = {"panels": grid.count, "panel_widths_mm": [_mm(p) for p in grid.panels], "stiles_mm": stiles}
        click.echo(json.dumps(answer | more | {"rest_mm": _mm(grid.rounded), "rest_up_mm": _mm(grid.rounded_up)}))
        return
    click.echo(sum_line(grid, DisplayUnit.MM))
    wide, high = (
        format_length(grid.panels[0], DisplayUnit.MM, mark=True),
        format_length(grid.height, DisplayUnit.MM, mark=True),
    )
    click.echo(f"{grid.count} panels {wide}" + (f" x {high} in {spec.rows} rows" if grid.height else " wide"))
    click.echo("left edges: " + ", ".join(f"{_mm(x):g}" for x in grid.left_edges))
    if grid.bottom_edges:
        click.echo("bottom edges: " + ", ".join(f"{_mm(z):g}" for z in grid.bottom_edges))


def _mm(value: float) -> float:
    return round(value, 6) + 0.0
