"""Specials and named places: made, changed, put in order, deleted."""

from __future__ import annotations

from collections.abc import Mapping

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel

from zarabanda.core.explain.amounts import amount
from zarabanda.core.rig.abilities import numbers
from zarabanda.core.rig.aims import pointed
from zarabanda.formats.special_document import Aim, SpecialDocument
from zarabanda.show import repositories
from zarabanda.show.repositories.specials import document_of, point_of
from zarabanda.show.tables import PlaceRow, SpecialRow

from ..context import browser_id, context
from ..parts import Done, Id, Kept
from .busk import lights
from .selection import known_heads
from .special_models import (
    AimAsk,
    AimTold,
    KeepPlace,
    KeepSpecial,
    PlaceView,
    SpecialOrder,
    SpecialsView,
    SpecialView,
)

api = APIBlueprint("specials", __name__, url_prefix="/api/specials", abp_tags=[Tag(name="specials")])


class SpecialPath(BaseModel):
    """Which special."""

    special_id: Id


class PlacePath(BaseModel):
    """Which place."""

    place_id: Id


_NAMED = 3
"""So many lights are named one by one."""


def _aim(document: SpecialDocument, places: Mapping[int, PlaceRow]) -> AimTold:
    """Who cannot reach where a special is aimed, and where they will point."""
    rig, point = context().link.rig, point_of(document, places)
    own = numbers(rig, document.heads)
    if point is None or not len(own):
        return AimTold(unreached={}, text="")
    at = pointed(rig, own, point)
    if not len(at.lights):
        return AimTold(unreached={}, text="None of these lights turns: they stay as they are mounted.")
    found = {
        rig.heads.keys[head]: round(beside, 2)
        for head, reached, beside in zip(at.lights.tolist(), at.reached.tolist(), at.beside_m.tolist(), strict=True)
        if not reached
    }
    if not found:
        return AimTold(unreached={}, text="")
    named = ", ".join(list(found)[:_NAMED]) + (f" and {len(found) - _NAMED} more" if len(found) > _NAMED else "")
    they = "it points" if len(found) == 1 else "they point"
    far = amount(round(max(found.values()), 1))
    return AimTold(unreached=found, text=f"{named} cannot reach it: {they} as near as they can, up to {far} m beside it.")


def _words(aim: Aim | None, places: Mapping[int, PlaceRow]) -> str:
    if aim is None:
        return "as they stand at home"
    if aim.place is not None:
        return places[aim.place].name if aim.place in places else "a place that is gone"
    x, y, z = aim.point or (0.0, 0.0, 0.0)
    side = "in the middle" if x == 0 else f"{amount(abs(x))} m {'right' if x > 0 else 'left'}"
    depth = f"{amount(abs(y))} m {'upstage' if y >= 0 else 'before the stage'}"
    return f"{side}, {depth}" + (f", {amount(z)} m high" if z else "")


def _view(row: SpecialRow, places: Mapping[int, PlaceRow]) -> SpecialView:
    document = document_of(row)
    return SpecialView(
        id=row.id, name=row.name, document=document, lights=lights(document.heads), aimed_at=_words(document.aim, places),
        point=point_of(document, places), aim=_aim(document, places),
    )  # fmt: skip


@api.get("", responses={200: SpecialsView})
def get_specials() -> SpecialsView:
    """All specials and named places."""
    with context().store.reading() as session:
        places = repositories.specials.places(session)
        every = [_view(row, places) for row in repositories.specials.every(session)]
    aimed = {place: [one.name for one in every if one.document.aim and one.document.aim.place == place] for place in places}
    return SpecialsView(
        specials=every,
        places=[
            PlaceView(id=row.id, name=row.name, point=(row.x, row.y, row.z), used_by=aimed[row.id]) for row in places.values()
        ],
    )


@api.post("/aim", responses={200: AimTold})
def try_aim(body: AimAsk) -> AimTold:
    """Who of these lights could not reach where they are to be aimed."""
    known_heads(body.document.heads)
    with context().store.reading() as session:
        return _aim(body.document, repositories.specials.places(session))


@api.post("", responses={201: Kept})
def make_special(body: KeepSpecial) -> tuple[Kept, int]:
    """Make a special."""
    known_heads(body.document.heads)
    with context().store.edit(browser_id(), f"Make the special {body.name or ''}".strip()) as session:
        row = repositories.specials.add(session, body.name or repositories.specials.new_name(session), body.document)
        return Kept(id=row.id, done=f"Made {row.name}"), 201


@api.put("/<int:special_id>", responses={200: Kept})
def change_special(path: SpecialPath, body: KeepSpecial) -> Kept:
    """Change a special; where it is on, that is seen at once."""
    known_heads(body.document.heads)
    with context().store.edit(browser_id(), "Change a special") as session:
        before = repositories.rows.get(session, SpecialRow, path.special_id, "special").name
        row = repositories.specials.change(session, path.special_id, body.name or before, body.document)
        return Kept(id=row.id, done=f"Changed {row.name}")


@api.delete("/<int:special_id>", responses={200: Done})
def delete_special(path: SpecialPath) -> Done:
    """Delete a special; where it is on, its lights go home. Undo brings it back."""
    with context().store.edit(browser_id(), "Delete a special") as session:
        row = repositories.rows.get(session, SpecialRow, path.special_id, "special")
        session.delete(row)
        return Done(done=f"Deleted {row.name}")


@api.post("/order", responses={200: Done})
def put_specials_in_order(body: SpecialOrder) -> Done:
    """Put specials in another order."""
    with context().store.edit(browser_id(), "Move a special") as session:
        repositories.specials.arrange(session, body.ids)
    return Done(done="Moved")


@api.post("/places", responses={201: Kept})
def make_place(body: KeepPlace) -> tuple[Kept, int]:
    """Name a place on stage."""
    with context().store.edit(browser_id(), f"Name the place {body.name}") as session:
        row = repositories.specials.add_place(session, body.name, body.point)
        return Kept(id=row.id, done=f"Named {row.name}"), 201


@api.put("/places/<int:place_id>", responses={200: Kept})
def change_place(path: PlacePath, body: KeepPlace) -> Kept:
    """Rename a place, or move it: specials that are aimed at it follow."""
    with context().store.edit(browser_id(), f"Move the place {body.name}") as session:
        row = repositories.specials.change_place(session, path.place_id, body.name, body.point)
        return Kept(id=row.id, done=f"Moved {row.name}")


@api.delete("/places/<int:place_id>", responses={200: Done})
def delete_place(path: PlacePath) -> Done:
    """Delete a named place; specials stay aimed at the point where it was."""
    with context().store.edit(browser_id(), "Delete a place") as session:
        row = repositories.specials.remove_place(session, path.place_id)
        return Done(done=f"Deleted {row.name}")
