"""Sets of palettes, made in one go."""

from __future__ import annotations

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from zarabanda.errors import ZarabandaError
from zarabanda.show import palette_sets, repositories
from zarabanda.show.tables import Group, PaletteRow

from ..context import browser_id, context
from .palette_models import ColourSet, PositionSet, SetMade

api = APIBlueprint("palette_sets", __name__, url_prefix="/api/palettes/sets", abp_tags=[Tag(name="palettes")])


def _made(rows: list[PaletteRow]) -> tuple[SetMade, int]:
    return SetMade(done=f"Made {len(rows)} palettes", ids=[row.id for row in rows]), 201


@api.post("/colours", responses={201: SetMade})
def make_colours(body: ColourSet) -> tuple[SetMade, int]:
    """A set of colours for all lights, and for groups apart."""
    if not body.everyone and not body.groups:
        raise ZarabandaError("Choose for whom the colours are: for all lights, for some groups, or both.", "groups")
    rig, rows = context().link.rig, list[PaletteRow]()
    with context().store.edit(browser_id(), f"Make a set of {body.count} colours") as session:
        chosen: list[Group | None] = [None] if body.everyone else []
        chosen += [repositories.rows.get(session, Group, number, "group") for number in body.groups]
        for group in chosen:
            rows += palette_sets.make_colours(session, rig, body.count, group)
    return _made(rows)


@api.post("/positions", responses={201: SetMade})
def make_positions(body: PositionSet) -> tuple[SetMade, int]:
    """A set of positions for the moving lights of a group, computed from where they stand."""
    with context().store.edit(browser_id(), "Make a set of positions") as session:
        group = repositories.rows.get(session, Group, body.group, "group")
        rows = palette_sets.make_positions(session, context().link.rig, group.name, group.heads)
    return _made(rows)
