"""Pictures and films of the show: taken in, listed with what uses them, deleted where nothing does."""

from __future__ import annotations

import io
from dataclasses import asdict
from typing import Annotated

import numpy as np
from flask import Response, request
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from zarabanda.errors import InUse
from zarabanda.pictures.films import first_picture
from zarabanda.pictures.media import Medium
from zarabanda.pictures.stills import Still
from zarabanda.show import repositories

from ..bodies import chunks
from ..context import context
from ..parts import Done
from .pixel_models import MediaView, MediumKept, MediumView
from .pixels import pictures

api = APIBlueprint("media", __name__, url_prefix="/api/media", abp_tags=[Tag(name="media")])
_FOR_EVER_S = 31_536_000


class MediumPath(BaseModel):
    """Which medium."""

    hash: Annotated[str, Field(max_length=64)]


def _view(session: Session, medium: Medium) -> MediumView:
    return MediumView(**asdict(medium), used_by=repositories.pixels.users_of_medium(session, medium.hash))


@api.get("", responses={200: MediaView})
def get_media() -> MediaView:
    """All pictures and films, by name, with what uses them."""
    with context().store.reading() as session:
        return MediaView(media=[_view(session, one) for one in pictures().every()])


@api.put("", responses={200: MediumKept})
def put_medium() -> MediumKept:
    """Take in a picture or film: the file itself as the body, its name in the header `X-Name`."""
    name = request.headers.get("X-Name", "")[:200] or "picture"
    kept = pictures().keep(name, chunks())
    with context().store.reading() as session:
        length = f", {kept.seconds:.1f} s" if kept.seconds else ""
        return MediumKept(medium=_view(session, kept), done=f"{name}: {kept.width} × {kept.height}{length}")


@api.delete("/<string:hash>", responses={200: Done})
def delete_medium(path: MediumPath) -> Done:
    """Take a medium out of the folder, where nothing uses it."""
    medium = pictures().medium(path.hash)
    with context().store.reading() as session:
        users = repositories.pixels.users_of_medium(session, medium.hash)
    if users:
        raise InUse(f"“{medium.name}” is used by {', '.join(users)}. Take it off there first.", "medium")
    others = context().library.others_hold(medium.hash)
    if others:
        raise InUse(f"“{medium.name}” is used in {', '.join(others)}, another show of this folder.", "medium")
    pictures().delete(medium.hash)
    return Done(done=f"Deleted {medium.name}")


@api.get("/<string:hash>/small.png")
def get_small(path: MediumPath) -> Response:
    """A medium seen small."""
    from PIL import Image

    medium, place = pictures().medium(path.hash), pictures().path(path.hash)
    planes = Still(place).at(0.0, 0.0) if medium.kind == "picture" else first_picture(place)
    assert planes is not None
    image = Image.fromarray(np.round(planes.transpose(1, 2, 0) * 255).astype(np.uint8).copy())
    image.thumbnail((160, 90))
    out = io.BytesIO()
    image.save(out, "PNG")
    response = Response(out.getvalue(), mimetype="image/png")
    response.headers["Cache-Control"] = f"max-age={_FOR_EVER_S}, immutable"
    return response
