"""Sounds of songs: taken in, given to the page that plays them, and their outlines for pictures."""

from __future__ import annotations

from dataclasses import asdict

from flask import Response, request, send_file
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from zarabanda.errors import ZarabandaError
from zarabanda.formats.timeline_document import LONGEST_S, Sound
from zarabanda.show import repositories
from zarabanda.show.repositories.timelines import document_of
from zarabanda.show.tables import TimelineRow

from ..bodies import chunks
from ..context import browser_id, context
from ..parts import Done
from .timeline_models import OutlineQuery, OutlineView, SoundPath, SoundView, TimelinePath
from .timelines import media

api = APIBlueprint("sounds", __name__, url_prefix="/api", abp_tags=[Tag(name="timelines")])
_FOR_EVER_S = 31_536_000


@api.put("/timelines/<int:timeline_id>/sound", responses={200: SoundView})
def put_sound(path: TimelinePath) -> SoundView:
    """Give a song its sound: the file itself as the body, its name in the header `X-Name`. The song becomes as long as it is,
    unless something is behind that."""
    name = request.headers.get("X-Name", "")[:200] or "sound"
    with context().store.reading() as session:
        repositories.rows.get(session, TimelineRow, path.timeline_id, "song")
    kept = media().keep(name, chunks())
    with context().store.edit(browser_id(), f"Give it the sound {name}") as session:
        row = repositories.rows.get(session, TimelineRow, path.timeline_id, "song")
        document = document_of(row)
        last = max((one.at for one in repositories.timeline_events.of_timeline(session, row.id)), default=0.0)
        length = min(max(kept.seconds, last, 1.0), LONGEST_S)
        document = document.model_copy(update={"sound": Sound(**asdict(kept)), "length_s": length, "sound_at": 0.0})
        repositories.timelines.change(session, row.id, row.name, document)
    notices = ["It is silent from its beginning to its end: is it the right file?"] if kept.silent else []
    if last > kept.seconds:
        notices.append("Events lie behind its end: the song is longer than its sound.")
    return SoundView(done=f"{name}: {kept.seconds:.1f} s", notices=notices)


@api.delete("/timelines/<int:timeline_id>/sound", responses={200: Done})
def remove_sound(path: TimelinePath) -> Done:
    """Take the sound off a song. The file stays in the media folder: undo brings it back."""
    with context().store.edit(browser_id(), "Take its sound off") as session:
        row = repositories.rows.get(session, TimelineRow, path.timeline_id, "song")
        repositories.timelines.change(session, row.id, row.name, document_of(row).model_copy(update={"sound": None}))
    return Done(done="Took its sound off")


@api.get("/sounds/<string:hash>")
def get_sound(path: SoundPath) -> Response:
    """A sound, or parts of it."""
    return send_file(media().path(path.hash), mimetype=media().kind(path.hash), conditional=True, max_age=_FOR_EVER_S)


@api.get("/sounds/<string:hash>/outline", responses={200: OutlineView})
def get_outlines(path: SoundPath) -> OutlineView:
    """Which outlines of a sound there are."""
    found = media().outline(path.hash)
    blocks = [len(one) for one in found.levels]
    return OutlineView(seconds=found.seconds, block_s=[found.block_s(n) for n in range(len(blocks))], blocks=blocks)


@api.get("/sounds/<string:hash>/outline.bin")
def get_outline(path: SoundPath, query: OutlineQuery) -> Response:
    """An outline: lowest and highest of each block as signed bytes."""
    levels = media().outline(path.hash).levels
    if query.level >= len(levels):
        raise ZarabandaError(f"There is no level {query.level}; this sound has {len(levels)}, from 0 on.", "level")
    response = Response(levels[query.level].tobytes(), mimetype="application/octet-stream")
    response.headers["Cache-Control"] = f"max-age={_FOR_EVER_S}, immutable"
    return response
