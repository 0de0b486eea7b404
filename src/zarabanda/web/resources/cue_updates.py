"""Putting what was changed by hand on stage into the cues that it came from, and comparing a cue with the stage."""

from __future__ import annotations

import numpy as np
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from numpy.typing import NDArray

from zarabanda.core.colour.spaces import rgb_to_hex
from zarabanda.core.explain.amounts import between
from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError
from zarabanda.formats import cue_edit
from zarabanda.messages import HeldValues
from zarabanda.show import repositories
from zarabanda.show.tables import CueRow

from ..context import browser_id, context
from ..parts import Done
from ..recording import Origin, as_document, drafted, origins
from .cue_models import CuePath, Difference, Differences, ToUpdate, UpdateAsk, UpdateView
from .cues import by_groups, checked, compiled

api = APIBlueprint("cue_updates", __name__, url_prefix="/api/cues", abp_tags=[Tag(name="cues")])
_COLOUR = attributes.COMPOUND["colour"]
_ROWS = [attributes.INDEX[name] for name in _COLOUR]
_DIFFERS = 0.05


def _count(values: HeldValues) -> int:
    return sum(len(heads) for name, heads in values.items() if name not in _COLOUR[1:])


def _labels(values: HeldValues) -> list[str]:
    found = ("Colour" if name in _COLOUR else attributes.BY_NAME[name].label for name in values)
    return list(dict.fromkeys(found))


@api.get("/updates", responses={200: UpdateView})
def get_updates() -> UpdateView:
    """What is set by hand, by the cue that each value beneath it on stage comes from."""
    link = context().link
    with context().store.reading() as session:
        found, loose = origins(drafted(session, None, None), link.lists, link.state.lists if link.state else (), link.rig)
    views = []
    for (list_id, cue_id, here_id), values in found.items():
        whose = link.lists[list_id]
        cue, here = whose.cues[whose.index[cue_id]], whose.cues[whose.index[here_id]]
        views.append(
            ToUpdate(
                list_id=list_id, list_name=whose.name, cue_id=cue_id, number=cue.number, name=cue.name, values=_count(values),
                labels=_labels(values), here_id=here_id, here=here.number,
            )
        )  # fmt: skip
    return UpdateView(found=views, loose=_count(loose))


@api.post("/updates", responses={200: Done})
def update_cues(body: UpdateAsk) -> Done:
    """Put what is set by hand into cues, each part where it was chosen to go."""
    link, into = context().link, {choice.cue_id: choice.into for choice in body.choices}
    count = 0
    with context().store.edit(browser_id(), "Update cues") as session:
        found, _ = origins(drafted(session, None, None), link.lists, link.state.lists if link.state else (), link.rig)
        for (_, cue_id, _), values in _chosen(found, into).items():
            row = repositories.rows.get(session, CueRow, into[cue_id], "cue")
            document = cue_edit.merged(cue_edit.plain(row.document), as_document(values))
            repositories.cues.change(session, row.id, checked(document))
            count += _count(values)
            if body.clear:
                repositories.draft.set_values(session, {name: dict.fromkeys(heads) for name, heads in values.items()})
        if not count:
            raise ZarabandaError("Nothing was put into a cue: choose for at least one where it goes.", "choices")
    return Done(done=f"Updated {count} values")


def _chosen(found: dict[Origin, HeldValues], into: dict[int, int]) -> dict[Origin, HeldValues]:
    return {origin: values for origin, values in found.items() if origin[1] in into}


@api.get("/<int:cue_id>/differences", responses={200: Differences})
def get_differences(path: CuePath) -> Differences:
    """Lights that are otherwise on stage now than a cue has them."""
    whose, place = compiled(path.cue_id)
    rig, tracked = context().link.rig, whose.after(place)
    values = np.where(np.isnan(tracked.values), rig.home, tracked.values)
    stage = context().link.questions.stage_of(list(rig.heads.keys))
    now = np.full(values.shape, np.nan)
    for name, heads in stage.items():
        for head, value in heads.items():
            if head in rig.heads.index:
                now[attributes.INDEX[name], rig.heads.index[head]] = value
    lines = []
    with context().store.reading() as session:
        groups = by_groups(session, rig)
    for attribute in attributes.ATTRIBUTES:
        row = attributes.INDEX[attribute.name]
        if attribute.name in _COLOUR[1:]:
            continue
        rows = _ROWS if attribute.name == _COLOUR[0] else [row]
        tolerance = _DIFFERS if attribute.span > 1 else 0.004
        differs = np.flatnonzero((np.abs(values[rows] - now[rows]) > tolerance).any(axis=0))
        for name, of_group in groups:
            own = np.intersect1d(of_group, differs)
            if not len(own):
                continue
            colour = len(rows) > 1
            lines.append(
                Difference(
                    attribute="colour" if colour else attribute.name, label="Colour" if colour else attribute.label,
                    group=name, heads=len(own), of=len(of_group),
                    stage="" if colour else between(now[row, own].min(), now[row, own].max(), attribute),
                    cue="" if colour else between(values[row, own].min(), values[row, own].max(), attribute),
                    stage_colours=_colours(now, own) if colour else [], cue_colours=_colours(values, own) if colour else [],
                )
            )  # fmt: skip
    return Differences(lines=lines)


def _colours(values: NDArray[np.float64], heads: NDArray[np.int64]) -> list[str]:
    """Different ones, in the order of the heads; no more than six."""
    found = dict.fromkeys(rgb_to_hex(np.clip(values[_ROWS, head], 0, 1)) for head in heads.tolist())
    return list(found)[:6]
