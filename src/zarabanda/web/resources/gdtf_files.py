"""Fixture types from GDTF files: seen first, then as many of their modes as wanted, in one step."""

from __future__ import annotations

import logging
from collections.abc import Iterable
from typing import Annotated

from flask import Response
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from zarabanda.errors import NotThere, ZarabandaError, shown
from zarabanda.formats.gdtf.modes import ReadMode
from zarabanda.formats.gdtf.reading import MOST_BYTES, ReadType, read
from zarabanda.media_folder import MEDIA
from zarabanda.pictures.wheels import MOST_BYTES as LARGEST
from zarabanda.pictures.wheels import WheelPictures
from zarabanda.show import repositories

from ..bodies import whole_body
from ..context import browser_id, context
from .kind_models import GdtfModeView, GdtfView, WheelPictureKept
from .kinds import view

api = APIBlueprint("gdtf files", __name__, url_prefix="/api/kinds", abp_tags=[Tag(name="rig")])
log = logging.getLogger(__name__)
_FOR_EVER_S = 31_536_000
_NOT_YET = "nothing yet"


class GdtfQuery(BaseModel):
    """modes: which of them, by their names; preview: tell what is in the file."""

    modes: Annotated[list[Annotated[str, Field(max_length=120)]], Field(max_length=64)] = []
    preview: bool = True


class WheelPicturePath(BaseModel):
    """Which picture."""

    hash: Annotated[str, Field(max_length=64)]


def wheel_pictures() -> WheelPictures:
    """The media folder."""
    return WheelPictures(context().data / MEDIA)


@api.put("/gdtf", responses={200: GdtfView})
def take_in_gdtf(query: GdtfQuery) -> GdtfView:
    """Take in modes of a fixture type: the .gdtf file as the body. With preview: what is in it, and what could not be used."""
    content = whole_body(MOST_BYTES)
    found = read(content)
    with context().store.reading() as session:
        there = [_same(session, one) for one in found.modes]
    done = _NOT_YET
    if not query.preview:
        wanted = {one.document.name: one for one in found.modes}
        if unknown := [name for name in query.modes if name not in wanted]:
            raise NotThere(f"There is no mode {shown(unknown[0])} in this file. Choose one of the list.", "modes")
        if not query.modes:
            raise ZarabandaError("No mode is chosen. Choose one or more.", "modes")
        done = _kept(found, [wanted[name] for name in query.modes])
    return GdtfView(
        maker=found.maker, model=found.model, description=found.description, faults=found.faults, left_out=found.left_out,
        modes=[GdtfModeView(name=one.document.name, kind=view(one.document, None), left_out=one.left_out, there=same)
               for one, same in zip(found.modes, there, strict=True)],
        pictures=len(found.pictures), done=done,
    )  # fmt: skip


def _same(session: Session, mode: ReadMode) -> bool:
    own = mode.document.model_dump(exclude=_KEPT_ASIDE)
    return any(one.model_dump(exclude=_KEPT_ASIDE) == own for one in repositories.rig.modes(session).values())


_KEPT_ASIDE = {"gdtf", "gobo_pictures"}
"""What a mode has only once it is kept."""


def _kept(found: ReadType, modes: list[ReadMode]) -> str:
    label = f"Take in {found.model}: {len(modes)} mode{'' if len(modes) == 1 else 's'}"
    with context().store.edit(browser_id(), label) as session:
        keep_modes(session, [(mode, found) for mode in modes if not _same(session, mode)])
    return label


def keep_modes(session: Session, modes: Iterable[tuple[ReadMode, ReadType]], *, preview: bool = False) -> None:
    """Keep modes with the pictures and the file of their type, each under a name of its own. preview: without the files."""
    kept: dict[int, tuple[str, set[str]]] = {}
    for mode, found in modes:
        if id(found) not in kept:
            kept[id(found)] = ("", set()) if preview else _files_kept(found)
        file, good = kept[id(found)]
        pictures = [one if one in good else "" for one in mode.document.gobo_pictures]
        name = repositories.rig.free_mode_name(session, mode.document.name)
        own = mode.document.model_copy(update={"name": name, "gobo_pictures": pictures, "gdtf": file})
        repositories.rig.keep_mode(session, own)


def _files_kept(found: ReadType) -> tuple[str, set[str]]:
    """The type's file by its hash, and those of its wheels' pictures that can be shown, now all in the media folder; a broken
    picture is left out."""
    file = wheel_pictures().take_in(found.model, [found.content], MOST_BYTES, "", lambda path, hash_, name: hash_)
    good = set()
    for digest, picture in found.pictures.items():
        try:
            good.add(wheel_pictures().keep(f"{found.model} {digest[:8]}", picture))
        except ZarabandaError as error:
            log.warning("A wheel's picture of %s is left out: %s", found.model, error.message)
    return file, good


@api.put("/pictures", responses={200: WheelPictureKept})
def put_wheel_picture() -> WheelPictureKept:
    """Take in a picture for the slot of a wheel, a PNG or JPEG as the body."""
    return WheelPictureKept(picture=wheel_pictures().keep("The picture", whole_body(LARGEST)), done="Took in the picture")


@api.get("/pictures/<string:hash>.png")
def get_wheel_picture(path: WheelPicturePath) -> Response:
    """The picture in a slot of a wheel."""
    response = Response(wheel_pictures().small(path.hash), mimetype="image/png")
    response.headers["Cache-Control"] = f"max-age={_FOR_EVER_S}, immutable"
    return response
