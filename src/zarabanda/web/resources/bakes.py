"""Light baked: looked at, as files, and as cues that stay linked to their effect."""

from __future__ import annotations

import tempfile
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import IO, Any

import numpy as np
from flask import Response
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel
from sqlalchemy.orm import Session

from zarabanda.baking import cues as as_cues
from zarabanda.baking import moving, written
from zarabanda.baking.sources import Baked, Length, Playing, Progress, Source, even
from zarabanda.core.explain import bake
from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError, shown
from zarabanda.formats.baked import as_csv
from zarabanda.formats.cue_document import BakedFrom, CueDocument, CueEffect, CueListSettings
from zarabanda.media_folder import MEDIA
from zarabanda.show import compile as compiling
from zarabanda.show import repositories
from zarabanda.show.tables import CueListRow, CueRow, EffectRow, Group, PixelMapRow, TimelineRow

from ..bodies import read_out
from ..context import browser_id, context
from ..parts import Done, Kept
from .bake_models import (
    FORMATS,
    BakeAsk,
    BakeCues,
    BakeCurve,
    BakedAttribute,
    BakeFile,
    BakeView,
    CurveAsk,
    CurvePoint,
)

api = APIBlueprint("bakes", __name__, url_prefix="/api/bakes", abp_tags=[Tag(name="bakes")])
SHARES = (0.001, 0.002, 0.005, 0.01, 0.02, 0.05, 0.1)
"""Of the range of an attribute: errors of a curve."""
_TABLES = {"effect": EffectRow, "cue": CueRow, "map": PixelMapRow, "song": TimelineRow}


@dataclass(frozen=True)
class _Bake:
    """A bake that is made. name: of what is baked."""

    name: str
    playing: Playing
    length: Length
    rate: float

    def frames(self, progress: Progress) -> Baked:
        return self.playing.frames(even(self.length.seconds, self.rate), progress)


def _bake(session: Session, body: BakeAsk) -> _Bake:
    """What is asked for, ready to be played."""
    what = {"map": "pixel map"}.get(body.kind, body.kind)
    row = repositories.rows.get(session, _TABLES[body.kind], body.number, what)
    name = row.document.get("name", "cue") if isinstance(row, CueRow) else row.name  # type: ignore[attr-defined]
    heads = list(body.heads)
    if body.group_id is not None:
        heads = list(repositories.rows.get(session, Group, body.group_id, "group").heads)
    list_id = row.list_id if isinstance(row, CueRow) else 0
    source = Source(body.kind, body.number, tuple(dict.fromkeys(heads)), list_id, body.picture, body.begin)
    for attribute in body.errors:
        if attribute not in attributes.BY_NAME:
            raise ZarabandaError(
                f"There is no attribute {shown(attribute)}; use one of {', '.join(attributes.BY_NAME)}.", "errors"
            )
    playing = Playing(compiling.all_parts(session), source, context().data / MEDIA)
    return _Bake(str(name) or "cue", playing, playing.length(body.seconds), body.rate)


def _made(body: BakeAsk) -> _Bake:
    with context().store.reading() as session:
        return _bake(session, body)


@api.post("/look", responses={200: BakeView})
def look_at_bake(body: BakeAsk) -> BakeView:
    """A bake as it would be: how long, which heads and attributes, how many steps with which error."""
    with context().jobs.of_this_request() as progress:
        own = _made(body)
        made = own.frames(lambda share: progress(share * 0.6))
        steps = written.steps_of(made, body.errors)
        progress(0.9)
        joint = as_cues.joint(made, body.errors) if body.kind == "effect" else None
    fits = joint is not None and len(joint.kept) <= as_cues.MOST_CUES
    off = [
        f"{attributes.BY_NAME[name].label.lower()} {_amount(name, error)}"
        for name, error in (joint.errors if joint else {}).items()
    ]
    return BakeView(
        name=own.name, seconds=own.length.seconds, closes=own.length.closes, words=own.length.words, frames=len(made.times),
        heads=made.keys, attributes=[_attribute(made, row, steps) for row in made.moved],
        cues=len(joint.kept) if joint is not None and fits else None, cue_errors=", ".join(off),
    )  # fmt: skip


def _amount(name: str, value: float) -> str:
    unit = attributes.BY_NAME[name].unit
    return f"{value:.3g}{unit if unit == '°' else f' {unit}'}".strip()


def _attribute(made: Baked, row: int, steps: Mapping[str, Mapping[str, Any]]) -> BakedAttribute:
    own = attributes.ATTRIBUTES[row]
    found = steps.get(own.name)
    return BakedAttribute(
        name=own.name, label=own.label, unit=own.unit, heads=int(made.has(row).sum()), span=float(made.spans(row).max()),
        steps=sum(len(times) for times, _ in found["heads"].values()) if found else None,
        error=found["error"] if found else None,
    )  # fmt: skip


@api.post("/curve", responses={200: BakeCurve})
def get_curve(body: CurveAsk) -> BakeCurve:
    """Steps against error of one attribute, for errors from 0.1 % of its range to 10 %."""
    with context().jobs.of_this_request() as progress:
        own = _made(body)
        made = own.frames(lambda share: progress(share * 0.2))
        if body.attribute not in attributes.BY_NAME or attributes.INDEX[body.attribute] not in made.moved:
            raise ZarabandaError(f"Nothing moves {shown(body.attribute)} in it. Choose another attribute.", "attribute")
        row = attributes.INDEX[body.attribute]
        span = float(made.spans(row).max())
        points = []
        for n, share in enumerate(SHARES):
            progress(0.2 + 0.8 * n / len(SHARES))
            every = (bake.kept_frames(made.times, made.values[:, row, [one]].astype(float), np.array([share * span]))
                     for one in np.flatnonzero(made.has(row)).tolist())  # fmt: skip
            points.append(CurvePoint(error=share * span, steps=sum(len(one) for one in every)))
    return BakeCurve(points=points)


@api.post("/file")
def get_file(body: BakeFile) -> Response:
    """A bake as a file."""
    own = _made(body)
    ending, kind = FORMATS[body.format]
    spool = tempfile.TemporaryFile(dir=context().data)  # noqa: SIM115  # `read_out` closes it
    try:
        with context().jobs.of_this_request() as progress:
            _WRITE[body.format](own, body, spool, progress)
    except Exception:
        spool.close()
        raise
    response = Response(read_out(spool), mimetype=kind)
    plain = "".join(one for one in own.name if one.isalnum() or one in " -_") or "bake"
    response.headers.set("Content-Disposition", "attachment", filename=f"{plain}.{ending}")
    return response


def _document(own: _Bake, body: BakeFile, file: IO[bytes], progress: Progress) -> None:
    document = written.document(own.frames(progress), own.name, body.rate, body.errors)
    file.write(written.as_json(document) if body.format == "json" else as_csv(document).encode())


def _universes(own: _Bake, body: BakeFile, file: IO[bytes], progress: Progress) -> None:
    times = even(own.length.seconds, body.rate)
    heads = [own.playing.rig.heads.index[key] for key in own.playing.heads]
    write = written.write_frames if body.format == "dmx" else written.write_frames_csv
    write(own.playing, times, written.rows_of_universes(own.playing, heads), file, progress)


_WRITE: dict[str, Callable[[_Bake, BakeFile, IO[bytes], Progress], object]] = {
    "json": _document, "csv": _document, "dmx": _universes, "dmx-csv": _universes,
    "midi": lambda own, body, file, progress: file.write(written.as_midi(own.frames(progress), own.name)),
    "weave-png": lambda own, body, file, progress: file.write(written.weave_png(own.frames(progress))),
    "weave-svg": lambda own, body, file, progress: file.write(written.weave_svg(own.frames(progress), own.name)),
    "gif": lambda own, body, file, progress: file.write(moving.gif(own.playing, own.length.seconds, progress)),
    "mp4": lambda own, body, file, progress: moving.film(own.playing, own.length.seconds, file, progress),
}  # fmt: skip


# cues


@api.post("/cues", responses={201: Kept})
def make_cues(body: BakeCues) -> tuple[Kept, int]:
    """A new list with a cue for each step of an effect. It stays linked to the effect: its cues can be made anew, or be the
    effect again."""
    if body.kind != "effect":
        raise ZarabandaError("Cues are made of an effect. Choose one.", "kind")
    with context().store.reading() as session:
        heads = list(_bake(session, body).playing.heads)
    baked = BakedFrom(effect=body.number, heads=heads, seconds=body.seconds, rate=body.rate, errors=dict(body.errors))
    cues, closes = _cues_of(baked)
    with context().store.edit(browser_id(), f"Bake {body.name}") as session:
        settings = CueListSettings(goes_round=closes, baked=baked, for_what="other")
        row = repositories.cues.add_list(session, body.name, settings)
        _fill(session, row.id, cues)
    return Kept(id=row.id, done=f"Made {len(cues)} cues in {body.name}"), 201


class ListPath(BaseModel):
    """Which list."""

    list_id: int


@api.post("/cues/<int:list_id>/renew", responses={200: Done})
def renew_cues(path: ListPath) -> Done:
    """Make the cues of a list anew from the effect that they were baked from, as it is now."""
    baked = _linked(path.list_id)
    cues, closes = _cues_of(baked)
    with context().store.edit(browser_id(), "Renew baked cues") as session:
        row = repositories.rows.get(session, CueListRow, path.list_id, "cue list")
        row.settings = {**row.settings, "goes_round": closes}
        _fill(session, path.list_id, cues)
    return Done(done=f"Made {len(cues)} cues anew")


@api.post("/cues/<int:list_id>/back", responses={200: Done})
def back_to_effect(path: ListPath) -> Done:
    """Let a list have one cue that starts the effect, instead of its steps."""
    baked = _linked(path.list_id)
    with context().store.edit(browser_id(), "Back to the effect") as session:
        row = repositories.rows.get(session, CueListRow, path.list_id, "cue list")
        name = repositories.rows.get(session, EffectRow, baked.effect, "effect").name
        row.settings = {**row.settings, "baked": None, "goes_round": False}
        start = CueEffect(do="start", thread=1, effect=baked.effect, heads=baked.heads)
        _fill(session, path.list_id, [CueDocument(name=name, effects=[start])])
    return Done(done=f"{row.name} starts {name} itself now")


def _linked(list_id: int) -> BakedFrom:
    with context().store.reading() as session:
        row = repositories.rows.get(session, CueListRow, list_id, "cue list")
        baked = CueListSettings.model_validate(row.settings).baked
    if baked is None:
        raise ZarabandaError(f"The cues of “{row.name}” were not baked from an effect.", "list")
    return baked


def _cues_of(baked: BakedFrom) -> tuple[list[CueDocument], bool]:
    ask = BakeAsk(
        kind="effect", number=baked.effect, heads=baked.heads, seconds=baked.seconds, rate=baked.rate, errors=baked.errors
    )
    own = _made(ask)
    made = own.frames(lambda share: None)
    return as_cues.documents(made, as_cues.joint(made, baked.errors), closes=own.length.closes), own.length.closes


def _fill(session: Session, list_id: int, cues: list[CueDocument]) -> None:
    for row in list(repositories.cues.of_list(session, list_id)):
        session.delete(row)
    session.flush()
    for n, content in enumerate(cues, 1):
        session.add(CueRow(list_id=list_id, number=float(n), document=content.model_dump(mode="json")))
    session.flush()
