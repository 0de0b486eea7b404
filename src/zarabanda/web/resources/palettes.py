"""Palettes: kept values that stops of effects go to."""

from __future__ import annotations

from collections import Counter
from typing import Any

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, ValidationError

from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig
from zarabanda.errors import ZarabandaError
from zarabanda.formats.effect_document import faults
from zarabanda.formats.palette_document import PaletteDocument
from zarabanda.show import repositories
from zarabanda.show.tables import PaletteRow

from ..context import browser_id, context
from ..parts import Done, Id
from .palette_models import PaletteContent, PalettesView, PaletteView

api = APIBlueprint("palettes", __name__, url_prefix="/api/palettes", abp_tags=[Tag(name="palettes")])


class PalettePath(BaseModel):
    """Which palette."""

    palette_id: Id


def _read(document: dict[str, Any]) -> PaletteDocument:
    try:
        return PaletteDocument.model_validate(document)
    except ValidationError as error:
        place, what = faults(error)[0]
        raise ZarabandaError(f"The palette cannot be kept. {place or 'The document'}: {what}.", f"document.{place}") from error


def _view(row: PaletteRow, rig: Rig) -> PaletteView:
    palette = PaletteDocument.model_validate(row.document).to_core(row.name)
    shared = [rig.heads.has[attributes.INDEX[name]] for name in palette.values]
    acts = Counter(rig.kind[n] for n, key in enumerate(rig.heads.keys) if key in palette.own or any(has[n] for has in shared))
    return PaletteView(id=row.id, name=row.name, document=row.document, acts_on=dict(acts))


@api.get("", responses={200: PalettesView})
def get_palettes() -> PalettesView:
    """All palettes in their order."""
    with context().store.reading() as session:
        rig = context().link.rig
        return PalettesView(palettes=[_view(row, rig) for row in repositories.palettes.every(session)])


@api.post("", responses={201: PaletteView})
def make_palette(body: PaletteContent) -> tuple[PaletteView, int]:
    """Keep values as a palette."""
    document = _read(body.document)
    with context().store.edit(browser_id(), f"Keep {body.name.strip()}") as session:
        return _view(repositories.palettes.store(session, body.name.strip(), document), context().link.rig), 201


@api.put("/<int:palette_id>", responses={200: PaletteView})
def change_palette(path: PalettePath, body: PaletteContent) -> PaletteView:
    """Another name or other values; effects that go to it follow at once."""
    document = _read(body.document)
    with context().store.edit(browser_id(), f"Change {body.name.strip()}") as session:
        row = repositories.palettes.change(session, path.palette_id, body.name.strip(), document)
        return _view(row, context().link.rig)


@api.delete("/<int:palette_id>", responses={200: Done})
def delete_palette(path: PalettePath) -> Done:
    """Delete a palette that no effect goes to; undo brings it back."""
    with context().store.edit(browser_id(), "Delete a palette") as session:
        repositories.palettes.remove(session, path.palette_id)
    return Done(done="Deleted the palette")
