"""Pixel maps and pictures seen small: moving thumbnails, and the picture beneath the cells of a canvas."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any, Literal

import numpy as np
from flask import Response
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from zarabanda.core.pixels.colouring import OVER
from zarabanda.core.pixels.layers import EVERY_FIGURE
from zarabanda.core.pixels.places import MOTIONS
from zarabanda.engine.pixels import PixelMaker
from zarabanda.errors import NotThere
from zarabanda.media_folder import MEDIA
from zarabanda.messages import PicturePart
from zarabanda.show import repositories
from zarabanda.show.compile import palettes_by_number
from zarabanda.show.tables import PictureRow, PixelMapRow

from ..context import context
from ..pixel_strips import png, stack_strip, table_strip
from .pixels import LayerPath, MapPath, PicturePath

api = APIBlueprint("pixel pictures", __name__, url_prefix="/api/pixels", abp_tags=[Tag(name="pixels")])
_A_DAY_S = 86_400


class TablePath(BaseModel):
    """Which entry of which table."""

    table: Literal["figure", "motion", "over"]
    name: str = Field(max_length=40)


def _map(session: Session, number: int) -> PixelMapRow:
    return repositories.rows.get(session, PixelMapRow, number, "pixel map")


def _image(content: bytes, seconds: int = _A_DAY_S) -> Response:
    response = Response(content, mimetype="image/png")
    response.headers["Cache-Control"] = f"max-age={seconds}"
    return response


@api.get("/tables/<string:table>/<string:name>/strip.png")
def get_table_strip(path: TablePath) -> Response:
    """An entry of a table as a strip of small pictures: one cycle."""
    tables: dict[str, Mapping[str, Any]] = {"figure": EVERY_FIGURE, "motion": MOTIONS, "over": OVER}
    if path.name not in tables[path.table]:
        raise NotThere(f"There is no {path.table} of this name.", "name")
    with context().weaves.turn():
        return _image(table_strip(path.table, path.name))


def _made(session: Session, name: str, layers: Sequence[Mapping[str, Any]]) -> bytes:
    maker = PixelMaker(context().data / MEDIA)
    part = PicturePart(1, name, {"layers": [{**one, "on": True, "alone": False} for one in layers]})
    with context().weaves.turn():
        return stack_strip(maker.pictures([part], palettes_by_number(session))[1].layers, 60, 24)


@api.get("/pictures/<int:picture_id>/strip.png")
def get_picture_strip(path: PicturePath) -> Response:
    """A picture of the library as a strip of small pictures."""
    with context().store.reading() as session:
        row = repositories.rows.get(session, PictureRow, path.picture_id, "picture")
        return _image(_made(session, row.name, row.document["layers"]))


@api.get("/<int:map_id>/strip.png")
def get_map_strip(path: MapPath) -> Response:
    """The layers of a map as a strip of small pictures."""
    with context().store.reading() as session:
        row = _map(session, path.map_id)
        return _image(_made(session, row.name, [one for one in row.document["layers"] if one["on"]]), seconds=0)


@api.get("/<int:map_id>/layers/<int:layer_id>/strip.png")
def get_layer_strip(path: LayerPath) -> Response:
    """A layer of a map as a strip of small pictures."""
    with context().store.reading() as session:
        row = _map(session, path.map_id)
        layers = [one for one in row.document["layers"] if one["id"] == path.layer_id]
        if not layers:
            raise NotThere("This layer is not there any more. Undo brings it back.", "layer")
        whole = [
            {**one, "rect": {"left": 0.0, "top": 0.0, "width": 1.0, "height": 1.0, "turn": 0.0}, "opacity": 1.0} for one in layers
        ]
        return _image(_made(session, row.name, whole))


@api.get("/<int:map_id>/beneath.png")
def get_what_is_beneath(path: MapPath) -> Response:
    """The layers of a map over black as the engine draws them now, small: what lies beneath the cells of its canvas."""
    now = context().link.questions.canvas_of(path.map_id, 0)
    if not now.points:
        raise NotThere("This pixel map is not on the rig. Undo brings it back.", "map")
    drives = np.frombuffer(now.points, np.uint8).reshape(-1, 3).T / 255
    return _image(png([drives], now.columns, now.rows), seconds=0)
