"""Pixel maps and pictures: made, changed layer by layer, kept in the library, and seen small."""

from __future__ import annotations

import zlib
from collections.abc import Mapping, Sequence
from typing import Any

import msgspec
import numpy as np
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, ValidationError
from sqlalchemy.orm import Session

from zarabanda.core.explain.pixel_sentence import layer_sentence, map_sentence, settings_of, summary
from zarabanda.core.pixels.canvas import MOST_CELLS
from zarabanda.core.pixels.colouring import OVER
from zarabanda.core.pixels.layers import EVERY_FIGURE, JOINS
from zarabanda.core.pixels.light import ACTS
from zarabanda.core.pixels.places import MOTIONS
from zarabanda.core.rig.cells import CELL_ORDERS
from zarabanda.engine.pixels import canvas_of
from zarabanda.errors import NotThere, ZarabandaError, brief
from zarabanda.formats import pixel_edit
from zarabanda.formats.cue_document import CuePixels
from zarabanda.formats.pixel_document import (
    MOST_LAYERS,
    ORDERS,
    CanvasDocument,
    LayerDocument,
    PixelMapDocument,
    StackDocument,
    numbered,
)
from zarabanda.media_folder import MEDIA
from zarabanda.pictures.media import PictureMedia
from zarabanda.show import references, repositories
from zarabanda.show.tables import PictureRow, PixelMapRow

from ..context import browser_id, context
from ..parts import Done, Id, Kept
from .effect_models import SentencePart
from .pixel_models import (
    CellsView,
    EntryView,
    IntoCue,
    LayerChange,
    LayersOrder,
    LayerView,
    MapChange,
    MapKept,
    MapName,
    MapView,
    NewLayer,
    NewPicture,
    NewPixelMap,
    PictureName,
    PictureView,
    PixelsView,
    TablesView,
)

api = APIBlueprint("pixels", __name__, url_prefix="/api/pixels", abp_tags=[Tag(name="pixels")])


class MapPath(BaseModel):
    """Which map."""

    map_id: Id


class LayerPath(MapPath):
    """Which layer of which map."""

    layer_id: Id


class PicturePath(BaseModel):
    """Which picture of the library."""

    picture_id: Id


def pictures() -> PictureMedia:
    """The media folder."""
    return PictureMedia(context().data / MEDIA)


def _row(session: Session, number: int) -> PixelMapRow:
    return repositories.rows.get(session, PixelMapRow, number, "pixel map")


def _media_names() -> dict[str, str]:
    return {one.hash: one.name for one in pictures().every()}


def _edition(document: Any) -> str:
    return f"{zlib.crc32(msgspec.json.encode(document)):08x}"


def _canvas_words(document: CanvasDocument, cells: int, missing: int) -> str:
    gone = f", {missing} not in the rig" if missing > 0 else ""
    if document.kind == "grid":
        return f"{cells:,} cells{gone} · {document.columns} × {document.rows} · {document.order}"
    seen = "seen from the front" if document.view == "front" else "seen from above"
    return f"{cells:,} cells{gone} · where they stand, {seen}"


def layer_view(layer: LayerDocument, media: Mapping[str, str]) -> LayerView:
    """A layer, as it is shown."""
    plain = layer.model_dump(mode="json")
    return LayerView(
        id=layer.id, name=layer.name, summary=summary(plain), join=JOINS[layer.join], document=layer, edition=_edition(plain),
        sentence=[SentencePart(**one) for one in layer_sentence(plain, media)],
        settings=[SentencePart(**one) for one in settings_of(plain)],
    )  # fmt: skip


def _view(session: Session, row: PixelMapRow, document: PixelMapDocument | None = None) -> MapView:
    document = document or repositories.pixels.document_of(session, row)
    rig, media = context().link.rig, _media_names()
    cells = len(canvas_of(document.canvas.model_dump(), rig))
    asked = cells if document.canvas.everything else len(document.canvas.heads)
    return MapView(
        id=row.id, name=row.name, cells=cells, asked=asked, words=_canvas_words(document.canvas, cells, asked - cells),
        document=document, sentence=[SentencePart(**one) for one in map_sentence(document.model_dump(mode="json"))],
        layers=[layer_view(one, media) for one in document.layers],
        used_by=[user.in_words() for user in references.users_of(session, PixelMapRow.__tablename__, row.id)],
        edition=_edition([document.canvas.model_dump(mode="json"), context().link.rig_edition]),
    )  # fmt: skip


@api.get("", responses={200: PixelsView})
def get_pixels() -> PixelsView:
    """All maps and pictures of the library, in their order."""
    rig = context().link.rig
    with context().store.reading() as session:
        maps = [
            MapName(id=row.id, name=row.name, cells=len(canvas_of(row.document["canvas"], rig)))
            for row in repositories.pixels.every(session)
        ]
        return PixelsView(maps=maps, pictures=[_picture_view(session, row) for row in repositories.pixels.library(session)])


def _picture_view(session: Session, row: PictureRow) -> PictureView:
    layers = [summary(one) for one in row.document["layers"]]
    used = [user.in_words() for user in references.users_of(session, PictureRow.__tablename__, row.id)]
    return PictureView(id=row.id, name=row.name, words=", ".join(layers), used_by=used, edition=_edition(row.document))


@api.get("/tables", responses={200: TablesView})
def get_tables() -> TablesView:
    """What a layer is put together from."""

    def entries(table: Mapping[str, Any]) -> list[EntryView]:
        return [EntryView(name=name, label=getattr(one, "label", one)) for name, one in table.items()]

    orders = [EntryView(name=one, label=one) for one in ORDERS]
    return TablesView(
        figures=entries(EVERY_FIGURE), motions=entries(MOTIONS), overs=entries(OVER), joins=entries(JOINS), acts=entries(ACTS),
        orders=orders, cell_orders=[EntryView(name=one, label=words) for one, words in CELL_ORDERS.items()],
    )  # fmt: skip


@api.post("", responses={201: MapKept})
def make_map(body: NewPixelMap) -> tuple[MapKept, int]:
    """Make a map of chosen heads, or of all that lie under it."""
    _has_room(body.canvas)
    with context().store.edit(browser_id(), f"Make the pixel map {body.name}") as session:
        layers = _new_layers(session, NewLayer(figure=body.figure, picture=body.picture)) if body.figure or body.picture else []
        row = repositories.pixels.add(session, body.name, PixelMapDocument(canvas=body.canvas, layers=layers))
        return MapKept(map=_view(session, row), done=f"Made {row.name}"), 201


def _has_room(canvas: CanvasDocument) -> None:
    if not canvas.everything and not canvas.heads:
        raise ZarabandaError(
            "A canvas needs cells. Select some lights first, or let it be everything that lies under it.", "canvas"
        )
    if len(canvas.heads) > MOST_CELLS:
        raise ZarabandaError(f"{MOST_CELLS:,} cells are the most that one map can have. Make two maps.", "canvas")


@api.get("/<int:map_id>", responses={200: MapView})
def get_map(path: MapPath) -> MapView:
    """A map with its layers and cells."""
    with context().store.reading() as session:
        return _view(session, _row(session, path.map_id))


@api.get("/<int:map_id>/cells", responses={200: CellsView})
def get_cells(path: MapPath) -> CellsView:
    """Where the cells of a map are."""
    rig = context().link.rig
    with context().store.reading() as session:
        canvas = canvas_of(_row(session, path.map_id).document["canvas"], rig)
    areas = np.round(np.column_stack([canvas.left, canvas.top, canvas.right, canvas.bottom]), 5)
    return CellsView(
        width=canvas.width, height=canvas.height, rows=canvas.rows, heads=canvas.heads.tolist(),
        keys=[rig.heads.keys[head] for head in canvas.heads.tolist()], areas=areas.reshape(-1).tolist(),
    )  # fmt: skip


@api.put("/<int:map_id>", responses={200: MapKept})
def change_map(path: MapPath, body: MapChange) -> MapKept:
    """Change the name, the canvas, or how it acts."""
    given = body.model_dump(exclude_none=True, exclude={"name"})
    with context().store.edit(browser_id(), "Change a pixel map") as session:
        row = _row(session, path.map_id)
        document = repositories.pixels.document_of(session, row)
        try:
            changed = PixelMapDocument.model_validate({**document.model_dump(), **given})
        except ValidationError as error:
            raise ZarabandaError(
                f"{brief(error.errors()[0]['msg'].removeprefix('Value error, '))}.", next(iter(given), "")
            ) from error
        if body.canvas is not None:
            _has_room(body.canvas)
        repositories.pixels.change(session, row.id, body.name, changed if given else None)
        return MapKept(map=_view(session, row), done=f"Changed {row.name}")


@api.delete("/<int:map_id>", responses={200: Done})
def delete_map(path: MapPath) -> Done:
    """Delete a map; controls that it was on keep their place. Undo brings it back."""
    with context().store.edit(browser_id(), "Delete a pixel map") as session:
        row = _row(session, path.map_id)
        session.delete(row)
        return Done(done=f"Deleted {row.name}")


# layers


def _new_layers(session: Session, body: NewLayer) -> list[LayerDocument]:
    if body.picture is not None:
        row = repositories.rows.get(session, PictureRow, body.picture, "picture")
        return [one.model_copy(update={"id": 0}) for one in repositories.pixels.stack_of(session, row).layers]
    if body.medium is not None:
        medium = pictures().medium(body.medium)
        layer = pixel_edit.new_layer(medium.kind)
        settings = {"medium": medium.hash} | ({"out_s": round(medium.seconds, 3)} if medium.kind == "film" else {})
        return [LayerDocument.model_validate({**layer.model_dump(), "name": medium.name[:80], "settings": settings})]
    return [pixel_edit.new_layer(body.figure or "even")]


def _kept(session: Session, row: PixelMapRow, document: PixelMapDocument, layers: Sequence[LayerDocument], done: str) -> MapKept:
    if len(layers) > MOST_LAYERS:
        raise ZarabandaError(f"{MOST_LAYERS} layers are the most, so that a frame stays in its time. Delete one first.", "layers")
    document = document.model_copy(update={"layers": numbered(list(layers))})
    repositories.pixels.change(session, row.id, None, document)
    return MapKept(map=_view(session, row, document), done=done)


@api.post("/<int:map_id>/layers", responses={201: MapKept})
def add_layer(path: MapPath, body: NewLayer) -> tuple[MapKept, int]:
    """Add a layer on top, or all layers of a picture of the library."""
    with context().store.edit(browser_id(), "Add a layer") as session:
        row = _row(session, path.map_id)
        document = repositories.pixels.document_of(session, row)
        return _kept(session, row, document, [*document.layers, *_new_layers(session, body)], "Added a layer"), 201


def _layer_of(document: PixelMapDocument, number: int) -> LayerDocument:
    found = next((one for one in document.layers if one.id == number), None)
    if found is None:
        raise NotThere("This layer is not there any more. Undo brings it back.", "layer")
    return found


@api.post("/<int:map_id>/layers/<int:layer_id>/change", responses={200: MapKept})
def change_layer(path: LayerPath, body: LayerChange) -> MapKept:
    """Another value at a path of a layer; a preview is on stage at once, and gone with the next edit."""
    label = f"Change {body.path.rpartition('.')[2].replace('_', ' ')}"
    if body.preview:
        with context().store.reading() as session:
            row = _row(session, path.map_id)
            document = _changed(repositories.pixels.document_of(session, row), path.layer_id, body)
            context().link.preview_pixels(row.id, row.name, document)
            return MapKept(map=_view(session, row, document), done="shown")
    with context().store.edit(browser_id(), label) as session:
        row = _row(session, path.map_id)
        document = _changed(repositories.pixels.document_of(session, row), path.layer_id, body)
        return _kept(session, row, document, document.layers, label)


def _changed(document: PixelMapDocument, number: int, body: LayerChange) -> PixelMapDocument:
    before = _layer_of(document, number)
    after = pixel_edit.changed(before, body.path, body.value)
    layers = [after if one is before else one for one in document.layers]
    return document.model_copy(update={"layers": layers})


@api.delete("/<int:map_id>/layers/<int:layer_id>", responses={200: MapKept})
def delete_layer(path: LayerPath) -> MapKept:
    """Delete a layer. Undo brings it back."""
    with context().store.edit(browser_id(), "Delete a layer") as session:
        row = _row(session, path.map_id)
        document = repositories.pixels.document_of(session, row)
        gone = _layer_of(document, path.layer_id)
        return _kept(session, row, document, [one for one in document.layers if one is not gone], "Deleted a layer")


@api.post("/<int:map_id>/layers/<int:layer_id>/copy", responses={201: MapKept})
def copy_layer(path: LayerPath) -> tuple[MapKept, int]:
    """A layer again, above itself."""
    with context().store.edit(browser_id(), "Copy a layer") as session:
        row = _row(session, path.map_id)
        document = repositories.pixels.document_of(session, row)
        of = _layer_of(document, path.layer_id)
        layers = [each for one in document.layers for each in ((one, one.model_copy(update={"id": 0})) if one is of else (one,))]
        return _kept(session, row, document, layers, "Copied a layer"), 201


@api.post("/<int:map_id>/order", responses={200: MapKept})
def put_layers_in_order(path: MapPath, body: LayersOrder) -> MapKept:
    """Put layers in another order, the lowest first."""
    with context().store.edit(browser_id(), "Move a layer") as session:
        row = _row(session, path.map_id)
        document = repositories.pixels.document_of(session, row)
        place = {number: n for n, number in enumerate(body.ids)}
        layers = sorted(document.layers, key=lambda one: place.get(one.id, len(place)))
        return _kept(session, row, document, layers, "Moved a layer")


@api.post("/<int:map_id>/cue", responses={200: Done})
def put_into_cue(path: MapPath, body: IntoCue) -> Done:
    """Let a map come in with the cue that a list is on, or its last one."""
    state = context().link.state
    on = next((one.cue for one in state.lists if one.id == body.list), None) if state is not None else None
    with context().store.edit(browser_id(), "Put a pixel map into a cue") as session:
        row = _row(session, path.map_id)
        every = repositories.cues.of_list(session, body.list)
        cue = next((one for one in every if one.id == on), every[-1] if every else None)
        if cue is None:
            raise ZarabandaError("This list has no cue yet. Record one first.", "list")
        document = repositories.cues.document(cue)
        change = CuePixels(do="start", map=row.id, picture=body.picture, over=body.over)
        others = [one for one in document.pixels if (one.map, one.picture) != (row.id, body.picture)]
        repositories.cues.change(session, cue.id, document.model_copy(update={"pixels": [*others, change]}))
        return Done(done=f"{row.name} comes in with cue {cue.number:g}")


# the library


@api.post("/pictures", responses={201: Kept})
def keep_picture(body: NewPicture) -> tuple[Kept, int]:
    """Keep layers of a map in the library: they fit any canvas."""
    with context().store.edit(browser_id(), f"Keep the picture {body.name}") as session:
        document = repositories.pixels.document_of(session, _row(session, body.map))
        layers = [one for one in document.layers if not body.layers or one.id in body.layers]
        row = repositories.pixels.keep(session, body.name, StackDocument(layers=layers))
        return Kept(id=row.id, done=f"Kept {row.name}"), 201


@api.put("/pictures/<int:picture_id>", responses={200: Kept})
def rename_picture(path: PicturePath, body: PictureName) -> Kept:
    """Give a picture another name."""
    with context().store.edit(browser_id(), "Rename a picture") as session:
        row = repositories.pixels.rename_picture(session, path.picture_id, body.name)
        return Kept(id=row.id, done=f"Renamed {row.name}")


@api.delete("/pictures/<int:picture_id>", responses={200: Done})
def delete_picture(path: PicturePath) -> Done:
    """Delete a picture. Undo brings it back."""
    with context().store.edit(browser_id(), "Delete a picture") as session:
        row = repositories.rows.get(session, PictureRow, path.picture_id, "picture")
        session.delete(row)
        return Done(done=f"Deleted {row.name}")
