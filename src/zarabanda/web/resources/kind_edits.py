"""A kind, seen whole and changed."""

from __future__ import annotations

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from zarabanda.core.explain.modes import fit_in_a_universe, limits_of
from zarabanda.core.rig.attributes import ATTRIBUTES
from zarabanda.core.rig.modes import EMITTERS, OF_MODES
from zarabanda.errors import NotThere, shown
from zarabanda.formats.rig_document import ModeDocument
from zarabanda.show import repositories
from zarabanda.stock.kinds import plain_kinds

from ..context import browser_id, context
from ..parts import Done, Id
from ..trying import edited
from .kind_models import ChangeKind, CopyKind, KindChanged, KindSheet, KindView
from .kinds import sources, view

api = APIBlueprint("kind edits", __name__, url_prefix="/api/kinds", abp_tags=[Tag(name="rig")])


class KindPath(BaseModel):
    """Which mode of the show."""

    mode_id: Id


class SheetQuery(BaseModel):
    """Which kind, by the name of its mode."""

    name: str = Field(min_length=1, max_length=120)


@api.get("/sheet", responses={200: KindSheet})
def get_sheet(query: SheetQuery) -> KindSheet:
    """Everything about a kind: of the show, or a plain one."""
    with context().store.reading() as session:
        number, document = _named(session, query.name)
        numbers = [one.number for one in repositories.rig.every(session) if one.mode_id == number]
    spec = document.spec()
    return KindSheet(
        id=number, document=document, slots=spec.slot_names, numbers=numbers, limits=limits_of(spec),
        fit=fit_in_a_universe(spec), sources=sources(), emitters={name: list(EMITTERS[name]) for name in OF_MODES},
        homes={one.name: one.home for one in ATTRIBUTES if one.family in ("position", "beam")},
    )  # fmt: skip


def _named(session: Session, name: str) -> tuple[Id | None, ModeDocument]:
    for number, mode in repositories.rig.modes(session).items():
        if mode.name == name:
            return number, mode
    if name not in plain_kinds():
        raise NotThere(f"There is no kind {shown(name)} any more. Choose another one of the list.", "name")
    return None, plain_kinds()[name]


@api.put("/<int:mode_id>", responses={200: KindChanged})
def change_kind(path: KindPath, body: ChangeKind) -> KindChanged:
    """Change a kind, and with it all fixtures that are of it. With preview: what would be lost."""
    label = f"Change the kind {body.document.name}"
    lost = edited(label, body.preview, lambda session: repositories.rig.change_mode(session, path.mode_id, body.document))
    return KindChanged(done="nothing yet" if body.preview else label, lost=lost)


@api.post("/copies", responses={201: KindView})
def copy_kind(body: CopyKind) -> tuple[KindView, int]:
    """A kind of its own, made of another one."""
    model = body.model.strip()
    with context().store.edit(browser_id(), f"Make the kind {model}") as session:
        _, document = _named(session, body.name)
        name = repositories.rig.free_mode_name(session, f"{model}, {document.label}")
        own = document.model_copy(update={"name": name, "model": model})
        return view(own, repositories.rig.keep_mode(session, own)), 201


@api.delete("/<int:mode_id>", responses={200: Done})
def delete(path: KindPath) -> Done:
    """Take a kind out of the show; one that fixtures have stays."""
    with context().store.edit(browser_id(), "Delete a kind") as session:
        repositories.rig.remove_mode(session, path.mode_id)
    return Done(done="Deleted the kind")
