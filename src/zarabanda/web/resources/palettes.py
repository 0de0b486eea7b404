"""Palettes: kept values that the draft refers to and stops of effects go to."""

from __future__ import annotations

from collections import Counter
from typing import Any

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, ValidationError
from sqlalchemy.orm import Session

from zarabanda.core.explain.palettes import acting_on, picture_of
from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig
from zarabanda.errors import ZarabandaError
from zarabanda.formats import palette_document
from zarabanda.formats.effect_document import faults
from zarabanda.formats.palette_document import PaletteDocument, document_of, scope_of
from zarabanda.messages import PaletteUse
from zarabanda.show import repositories
from zarabanda.show.tables import PaletteRow

from ..by_hand import DraftNow
from ..context import browser_id, context
from ..parts import Done, Id
from .palette_models import (
    ActsAsk,
    ActsView,
    Beam,
    KeepPalette,
    OtherPalette,
    PaletteContent,
    PaletteFile,
    PaletteOrder,
    PalettePicture,
    PalettesImported,
    PalettesView,
    PaletteView,
    RenamePalette,
    Replacement,
    UpdatePalette,
)
from .selection import known_heads

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


def view(session: Session, row: PaletteRow, rig: Rig) -> PaletteView:
    """A palette as the page shows it."""
    document, palette = repositories.palettes.document(row), repositories.palettes.to_core(row)
    acts = acting_on(rig, palette)
    shown = picture_of(rig, palette, acts)
    return PaletteView(
        id=row.id, name=row.name, family=document.family, set=document.set, way=document.way, scope=scope_of(document),
        document=row.document, acts_on=dict(Counter(rig.kind[n] for n in acts)),
        used_by=repositories.palettes.in_words(repositories.palettes.used_by(session, row.id)),
        picture=PalettePicture(
            colours=list(shown.colours), gobo=shown.gobo, zoom=shown.zoom, level=shown.level, words=shown.words,
            beams=[Beam(start=start, end=end, top=top, bottom=bottom) for start, end, top, bottom in shown.beams],
        ),
    )  # fmt: skip


def _seen(palette_id: int) -> PaletteView:
    """After an edit: the light comes first."""
    with context().store.reading() as session:
        return view(session, repositories.rows.get(session, PaletteRow, palette_id, "palette"), context().link.rig)


@api.get("", responses={200: PalettesView})
def get_palettes() -> PalettesView:
    """All palettes in their order."""
    with context().store.reading() as session:
        rig = context().link.rig
        return PalettesView(palettes=[view(session, row, rig) for row in repositories.palettes.every(session)])


@api.post("/acting", responses={200: ActsView})
def get_acting(body: ActsAsk) -> ActsView:
    """On how many of these heads each palette acts."""
    rig = context().link.rig
    chosen = [rig.heads.index[key] for key in body.heads if key in rig.heads.index]
    with context().store.reading() as session:
        found = {}
        for row in repositories.palettes.every(session):
            palette = repositories.palettes.to_core(row)
            found[row.id] = int(palette.acts(rig.heads, chosen, palette.names).any(axis=1).sum()) if chosen else 0
    return ActsView(acts=found)


@api.post("", responses={201: PaletteView})
def make_palette(body: PaletteContent) -> tuple[PaletteView, int]:
    """Keep values as a palette."""
    document = _read(body.document)
    with context().store.edit(browser_id(), f"Keep {body.name.strip()}") as session:
        made = repositories.palettes.store(session, body.name.strip(), document).id
    return _seen(made), 201


def _by_hand(session: Session, heads: list[str], wanted: set[str]) -> dict[str, dict[str, float]]:
    """What is set by hand, by head and attribute: of these attributes, on these heads (none: on all)."""
    chosen, found = set(heads), dict[str, dict[str, float]]()
    for name, values in DraftNow(session).numbers().items():
        for head, value in values.items() if name in wanted else ():
            if not chosen or head in chosen:
                found.setdefault(head, {})[name] = round(value, 4)
    order = {key: n for n, key in enumerate(heads or context().link.rig.heads.keys)}
    return {head: found[head] for head in sorted(found, key=lambda key: order.get(key, len(order)))}


@api.post("/import", responses={201: PalettesImported})
def import_palettes(body: PaletteFile) -> tuple[PalettesImported, int]:
    """Take palettes from a file, each under a free name; those that cannot be read are told."""
    good, bad = palette_document.read_set(body.content)
    with context().store.edit(browser_id(), f"Import {len(good)} palette{'s' if len(good) != 1 else ''}") as session:
        names = []
        for name, document in good:
            names.append(repositories.palettes.store(session, repositories.palettes.free_name(session, name), document).name)
    return PalettesImported(palettes=names, refused=bad), 201


@api.post("/keep", responses={201: PaletteView})
def keep_palette(body: KeepPalette) -> tuple[PaletteView, int]:
    """Keep what is set by hand as a palette; the draft refers to it from then on."""
    link, name = context().link, body.name.strip()
    wanted = {one.name for one in attributes.ATTRIBUTES if one.family in body.families}
    with context().store.edit(browser_id(), f"Keep {name}") as session:
        by_head = _by_hand(session, known_heads(body.heads), wanted)
        models = dict(zip(link.rig.heads.keys, link.rig.heads.models, strict=True))
        try:
            document = document_of(by_head, models, body.scope)
        except ValueError as error:
            raise ZarabandaError(f"{str(error)[0].upper()}{str(error)[1:]}.", "heads") from error
        row = repositories.palettes.store(session, name, document)
        _refer(session, row.id, by_head)
        made = row.id
    return _seen(made), 201


def _refer(session: Session, palette_id: int, by_head: dict[str, dict[str, float]]) -> None:
    """Let values of the draft refer to a palette."""
    wanted: dict[str, dict[str, PaletteUse]] = {}
    for head, values in by_head.items():
        for name in values:
            wanted.setdefault(name, {})[head] = PaletteUse(palette_id)
    repositories.draft.set_values(session, wanted)


@api.post("/<int:palette_id>/update", responses={200: PaletteView})
def update_palette(path: PalettePath, body: UpdatePalette) -> PaletteView:
    """Take what is set by hand into a palette: on heads that it has values for, and all others of the selection."""
    link = context().link
    with context().store.edit(browser_id(), "Update a palette") as session:
        row = repositories.rows.get(session, PaletteRow, path.palette_id, "palette")
        document, palette = repositories.palettes.document(row), repositories.palettes.to_core(row)
        families = {attributes.BY_NAME[name].family for name in palette.names}
        wanted = {one.name for one in attributes.ATTRIBUTES if one.family in families}
        by_head = _by_hand(session, known_heads(body.heads), wanted)
        if not by_head:
            raise ZarabandaError(f"Nothing of {' and '.join(sorted(families))} is set by hand on these heads.", "heads")
        models = dict(zip(link.rig.heads.keys, link.rig.heads.models, strict=True))
        scope = scope_of(document)
        new = document_of(by_head, models, scope)
        merged = document.model_dump(exclude={"colour"}) | {"values": {**palette.values, **new.values}}
        merged["models"] = {**document.models, **new.models}
        kept_own = {head: values for head, values in document.own.items() if scope == "heads" or head not in by_head}
        merged["own"] = {head: {**kept_own.get(head, {}), **new.own.get(head, {})} for head in {**kept_own, **new.own}}
        row = repositories.palettes.change(session, row.id, row.name, PaletteDocument.model_validate(merged))
        _refer(session, row.id, by_head)
    return _seen(path.palette_id)


@api.put("/<int:palette_id>", responses={200: PaletteView})
def change_palette(path: PalettePath, body: PaletteContent) -> PaletteView:
    """Another name or other values; what refers to it follows at once."""
    document = _read(body.document)
    with context().store.edit(browser_id(), f"Change {body.name.strip()}") as session:
        repositories.palettes.change(session, path.palette_id, body.name.strip(), document)
    return _seen(path.palette_id)


@api.post("/<int:palette_id>/rename", responses={200: PaletteView})
def rename_palette(path: PalettePath, body: RenamePalette) -> PaletteView:
    """Another name, or another way of colours to it."""
    with context().store.edit(browser_id(), "Rename a palette" if body.name else "Way of a palette") as session:
        row = repositories.rows.get(session, PaletteRow, path.palette_id, "palette")
        document = row.document if body.way is None else row.document | {"way": body.way}
        name = row.name if body.name is None else body.name.strip()
        repositories.palettes.change(session, row.id, name, _read(document))
    return _seen(path.palette_id)


@api.post("/<int:palette_id>/duplicate", responses={201: PaletteView})
def duplicate_palette(path: PalettePath) -> tuple[PaletteView, int]:
    """Another palette with the same values."""
    with context().store.edit(browser_id(), "Duplicate a palette") as session:
        row = repositories.rows.get(session, PaletteRow, path.palette_id, "palette")
        name = repositories.palettes.free_name(session, row.name)
        made = repositories.palettes.store(session, name, repositories.palettes.document(row)).id
    return _seen(made), 201


@api.post("/order", responses={200: Done})
def order_palettes(body: PaletteOrder) -> Done:
    """Put palettes in another order."""
    with context().store.edit(browser_id(), "Move a palette") as session:
        repositories.palettes.put_in_order(session, body.ids)
    return Done(done="Moved")


@api.post("/<int:palette_id>/merge", responses={200: PaletteView})
def merge_palettes(path: PalettePath, body: OtherPalette) -> PaletteView:
    """Take another palette's values into this one, which takes its place everywhere; the other goes."""
    with context().store.edit(browser_id(), "Merge palettes") as session:
        repositories.palettes.merge(session, path.palette_id, body.other)
    return _seen(path.palette_id)


@api.post("/<int:palette_id>/replace", responses={200: Done})
def replace_palette(path: PalettePath, body: Replacement) -> Done:
    """Let what uses a palette use another, or have its values; then, if asked for, it goes."""
    with context().store.edit(browser_id(), "Replace a palette") as session:
        repositories.palettes.replace(session, path.palette_id, body.by, context().link.rig.heads)
        if body.delete:
            repositories.palettes.remove(session, path.palette_id)
    return Done(done="Replaced the palette")


@api.delete("/<int:palette_id>", responses={200: Done})
def delete_palette(path: PalettePath) -> Done:
    """Delete a palette that nothing uses; undo brings it back."""
    with context().store.edit(browser_id(), "Delete a palette") as session:
        repositories.palettes.remove(session, path.palette_id)
    return Done(done="Deleted the palette")
