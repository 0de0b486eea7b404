"""What cues do to pixel maps: told with where it comes from, and changed."""

from __future__ import annotations

from typing import Literal

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from sqlalchemy.orm import Session

from zarabanda.core.playback.cue_list import CueList
from zarabanda.show import repositories
from zarabanda.show.tables import CueRow, PictureRow, PixelMapRow

from ..context import browser_id, context
from ..parts import Done
from .cue_models import CuePath, CuePixelsPut, CuePixelsView

api = APIBlueprint("cue_pixels", __name__, url_prefix="/api/cues", abp_tags=[Tag(name="cues")])
_STATES: dict[str, Literal["comes in", "changes", "stops"]] = {"start": "comes in", "change": "changes", "stop": "stops"}


def pixels_of(session: Session, whose: CueList, place: int) -> list[CuePixelsView]:
    """The maps that are on after the cue at a place, or stop with it, in the order in which they came."""
    maps = {row.id: row.name for row in repositories.pixels.every(session)}
    pictures = {row.id: row.name for row in repositories.pixels.library(session)}
    own, found = {one.use: one for one in whose.cues[place].pixels}, []
    stopped = {use: one for use, one in own.items() if one.do == "stop"}
    for use, one in {**whose.pixels_after(place), **stopped}.items():
        here = own.get(use)
        cues = [cue for cue in whose.cues[: place + 1] if any(each.use == use for each in cue.pixels)]
        name = maps.get(use[0], "a pixel map that is gone")
        words = f"{pictures.get(use[1], 'a picture that is gone')} on {name}" if use[1] else name
        found.append(
            CuePixelsView(
                map=use[0], picture=use[1], words=words, state=_STATES[here.do] if here is not None else "runs on",
                share=one.share, over=one.over, from_cue=cues[-1].number,
            )
        )  # fmt: skip
    return found


@api.put("/<int:cue_id>/pixels", responses={200: Done})
def put_cue_pixels(path: CuePath, body: CuePixelsPut) -> Done:
    """All that a cue does to pixel maps."""
    with context().store.edit(browser_id(), "Edit the pixel maps of a cue") as session:
        row = repositories.rows.get(session, CueRow, path.cue_id, "cue")
        for one in body.pixels:
            repositories.rows.get(session, PixelMapRow, int(one.map), "pixel map")
            if one.picture:
                repositories.rows.get(session, PictureRow, int(one.picture), "picture")
        document = repositories.cues.document(row).model_copy(update={"pixels": body.pixels})
        repositories.cues.change(session, row.id, document)
        return Done(done=f"Changed cue {row.number:g}")
