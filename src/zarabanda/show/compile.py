"""The show as messages for the engine: the rig, and everything that runs on it."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Collection
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from . import repositories
from .tables import ControlRow, DraftEffect, DraftValue, Edit, EffectRow, Fixture, Mode, Page

Message = dict[str, Any]

_NOT_FOR_ENGINE = ("maker", "model")


def rig_message(session: Session) -> Message:
    """The `rig` message; its revision is a hash of its content (hexadecimal)."""
    modes = [
        {key: value for key, value in mode.document.items() if key not in _NOT_FOR_ENGINE}
        for mode in session.scalars(select(Mode).order_by(Mode.name))
    ]
    fixtures = [
        {
            "number": f.number, "name": f.name, "mode": f.mode, "place": [f.x, f.y, f.z],
            "rotation": [f.turn_x, f.turn_y, f.turn_z], "universe": f.universe, "address": f.address,
            "reversed_cells": f.reversed_cells,
        }
        for f in session.scalars(select(Fixture).order_by(Fixture.number))
    ]  # fmt: skip
    content = {"modes": modes, "fixtures": fixtures}
    digest = hashlib.sha256(json.dumps(content, sort_keys=True).encode()).hexdigest()[:16]
    return {**content, "revision": digest}


def show_message(session: Session, revision: int) -> Message:
    """The `show` message: draft values, instances, controls, tempos, opening actions."""
    used = select(ControlRow.effect_id).union(select(DraftEffect.effect_id))
    effects = {row.id: row for row in session.scalars(select(EffectRow).where(EffectRow.id.in_(used)))}
    instances, controls = [], []
    for page, row in session.execute(
        select(Page, ControlRow).join(ControlRow, ControlRow.page_id == Page.id).order_by(Page.position, ControlRow.place)
    ):
        key = f"control:{row.id}"
        kind = "fader" if row.mode == "fader" else "button"
        instances.append(
            _instance(key, effects[row.effect_id], row.heads, f"{page.name}, {kind} {row.place}", False)
            | {"families": row.families}
        )
        controls.append({"key": key, "name": row.name, "mode": row.mode, "release_s": row.release_s, "job": row.job})
    instances += [
        _instance(f"draft:{draft.id}", effects[draft.effect_id], draft.heads, "draft", True)
        for draft in session.scalars(select(DraftEffect).order_by(DraftEffect.id))
    ]
    return {
        "revision": revision,
        "draft": {value.attribute: value.heads for value in session.scalars(select(DraftValue))},
        "palettes": {
            name: {"values": dict(one.values), "own": one.own} for name, one in repositories.palettes_by_name(session).items()
        },
        "instances": instances,
        "controls": controls,
        "tempos": {tempo.name: tempo.bpm for tempo in repositories.tempos(session)},
        "opening": repositories.show(session).settings.get("opening", []),
    }


def newest_edit(session: Session) -> int:
    """Number of the newest edit in the history."""
    return session.scalar(select(func.max(Edit.id))) or 0


def with_effects(message: Message, session: Session, revision: int, effect_ids: Collection[int]) -> Message:
    """A `show` message where nothing but these effects has changed."""
    rows = session.execute(select(EffectRow.id, EffectRow.document).where(EffectRow.id.in_(effect_ids)))
    documents = {row.id: row.document for row in rows}
    instances = [one | {"effect": documents.get(one["effect_id"], one["effect"])} for one in message["instances"]]
    return message | {"revision": revision, "instances": instances}


def _instance(key: str, effect: EffectRow, heads: list[str], source: str, always: bool) -> Message:
    return {
        "key": key, "effect_id": effect.id, "effect": effect.document, "heads": heads, "source": source, "always": always,
    }  # fmt: skip
