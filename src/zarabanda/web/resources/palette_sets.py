"""Sets of palettes, made in one go: colours evenly chosen for the eye, positions from where lights stand."""

from __future__ import annotations

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from sqlalchemy.orm import Session

from zarabanda.core.colour.sets import even_colours
from zarabanda.core.colour.spaces import hex_to_rgb, rgb_to_hex
from zarabanda.core.explain.base import movers
from zarabanda.core.rig import attributes
from zarabanda.core.rig.positions import positions
from zarabanda.errors import ZarabandaError
from zarabanda.formats.palette_document import PaletteDocument
from zarabanda.show import repositories
from zarabanda.show.tables import Group

from ..context import browser_id, context
from .palette_models import ColourSet, PositionSet, SetMade

api = APIBlueprint("palette_sets", __name__, url_prefix="/api/palettes/sets", abp_tags=[Tag(name="palettes")])


@api.post("/colours", responses={201: SetMade})
def make_colours(body: ColourSet) -> tuple[SetMade, int]:
    """A set of colours for all lights, and for groups apart."""
    if not body.everyone and not body.groups:
        raise ZarabandaError("Choose for whom the colours are: for all lights, for some groups, or both.", "groups")
    ids: list[int] = []
    with context().store.edit(browser_id(), f"Make a set of {body.count} colours") as session:
        chosen: list[tuple[Group | None, str]] = [(None, "")] if body.everyone else []
        chosen += [(one, one.name) for one in (repositories.rows.get(session, Group, n, "group") for n in body.groups)]
        for group, label in chosen:
            able = [key for key in group.heads if _mixes(key)] if group is not None else []
            if group is not None and not able:
                raise ZarabandaError(f"None of the lights in {label} mixes colours. Leave this group out.", "groups")
            for name, rgb in even_colours(body.count):
                colour = rgb_to_hex(rgb)
                if group is None:
                    document = PaletteDocument(family="colour", colour=colour, set=f"{body.count} colours")
                else:
                    drives = dict(zip(attributes.COMPOUND["colour"], hex_to_rgb(colour), strict=True))
                    document = PaletteDocument(family="colour", own=dict.fromkeys(able, drives), set=f"{label}, colours")
                ids.append(_kept(session, name if group is None else f"{name}, {label}", document))
    return SetMade(done=f"Made {len(ids)} palettes", ids=ids), 201


def _mixes(key: str) -> bool:
    rig = context().link.rig
    return key in rig.heads.index and bool(rig.mixes[rig.heads.index[key]])


def _kept(session: Session, name: str, document: PaletteDocument) -> int:
    return repositories.palettes.store(session, repositories.palettes.free_name(session, name[:76]), document).id


@api.post("/positions", responses={201: SetMade})
def make_positions(body: PositionSet) -> tuple[SetMade, int]:
    """A set of positions for the moving lights of a group, computed from where they stand."""
    rig, ids = context().link.rig, []
    with context().store.edit(browser_id(), "Make a set of positions") as session:
        group = repositories.rows.get(session, Group, body.group, "group")
        lights = movers(rig, group.heads)
        if not len(lights):
            raise ZarabandaError(f"None of the lights in {group.name} can pan and tilt. Choose a group that moves.", "group")
        for name, (pan, tilt) in positions(rig, lights).items():
            own = {
                rig.heads.keys[light]: {"pan": round(float(p), 2), "tilt": round(float(t), 2)}
                for light, p, t in zip(lights.tolist(), pan, tilt, strict=True)
            }
            document = PaletteDocument(family="position", own=own, set=f"{group.name}, positions")
            ids.append(_kept(session, f"{name}, {group.name}", document))
    return SetMade(done=f"Made {len(ids)} palettes", ids=ids), 201
