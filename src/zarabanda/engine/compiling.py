"""Making programs from plain messages, off the frame loop."""

from __future__ import annotations

import copy
from collections.abc import Sequence
from typing import Any

import numpy as np

from zarabanda.core.effects.effect import from_document
from zarabanda.core.effects.palette import Palette
from zarabanda.core.effects.phase import Drifts
from zarabanda.core.effects.placement import place
from zarabanda.core.playback.frame import base_of
from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError

from .decoding import rig_from_message
from .program import EMPTY_RIG, Control, Instance, Program

AUDITION = "audition"
"""Key of an effect that is only being looked at."""


def of_families(document: dict[str, Any], families: list[str] | None) -> dict[str, Any]:
    """The document with layers of other families silent; None: all of them act."""
    if families is None:
        return document
    layers = [
        layer if attributes.BY_NAME[attributes.touched(layer["attribute"])[0]].family in families else {**layer, "muted": True}
        for layer in document["layers"]
    ]
    return {**document, "layers": layers}


class Compiler:
    """Makes programs from messages; remembers placed effects, so that an edit costs what it changes."""

    def __init__(self) -> None:
        self._rig, self._rig_revision = EMPTY_RIG, ""
        self._known: dict[str, tuple[dict[str, Any], Instance]] = {}
        self._drifts: dict[str, Drifts] = {}
        self._palettes: dict[str, Palette] = {}
        self._show: dict[str, Any] = {}
        self._previews: dict[int, dict[str, Any]] = {}
        self._audition: dict[str, Any] | None = None
        self._let_go: tuple[str, ...] = ()

    def copy(self) -> Compiler:
        """Another that knows the same: to try something out."""
        other = copy.copy(self)
        other._known, other._previews, other._drifts = dict(self._known), dict(self._previews), dict(self._drifts)
        return other

    def set_rig(self, message: dict[str, Any]) -> None:
        """Take a new rig."""
        self._rig, self._rig_revision = rig_from_message(message), message["revision"]
        self._known.clear()

    def set_show(self, message: dict[str, Any], let_go: Sequence[str] = ()) -> None:
        """Take a new show part; previews of effects end. let_go: keys of what ends without a fade."""
        if message.get("palettes") != self._show.get("palettes"):
            self._palettes = {name: Palette(name, **values) for name, values in message.get("palettes", {}).items()}
            self._known.clear()
        self._show, self._let_go = message, tuple(let_go)
        self._previews.clear()

    def preview_effect(self, effect_id: int, document: dict[str, Any]) -> None:
        """Take another document for an effect, until the next show part."""
        self._previews[effect_id] = document

    def audition(self, message: dict[str, Any] | None) -> None:
        """Let an effect be seen on heads (`effect_id`, `effect`, `heads`) beside what the show has; None ends that."""
        self._audition = message and {"key": AUDITION, "source": "preview", "always": True, **message}

    def preview_base(self, values: dict[str, dict[str, float]]) -> None:
        """Take other draft values, until the next show part."""
        self._show = {**self._show, "draft": values}

    def program(self) -> Program:
        """The program of what was taken so far."""
        show = self._show
        indexes, values = [], []
        for name, heads in show.get("draft", {}).items():
            row = attributes.INDEX[name] * len(self._rig)
            for key, value in heads.items():
                if key in self._rig.heads.index:
                    indexes.append(row + self._rig.heads.index[key])
                    values.append(value)
        base = base_of(self._rig, np.array(indexes, np.int64), np.array(values, float))
        instances, faults = {}, list[str]()
        every = [*show.get("instances", ()), *([self._audition] if self._audition else [])]
        for data in every:
            try:
                instances[data["key"]] = self._instance(data)
            except (ValueError, TypeError, KeyError, IndexError, AttributeError, ZarabandaError) as error:
                faults.append(f"{data['source']}: an effect cannot be read ({type(error).__name__}: {error}), and does not run.")
        for gone in set(self._known) - set(instances):
            del self._known[gone]
            self._drifts.pop(gone, None)
        let_go, self._let_go = self._let_go, ()
        controls = {data["key"]: Control(**data) for data in show.get("controls", ())}
        return Program(
            self._rig, self._rig_revision, show.get("revision", 0), base, instances, controls,
            show.get("tempos", {}), tuple(show.get("opening", ())), let_go,
            tuple(faults), show.get("session", ""),
        )  # fmt: skip

    def _instance(self, data: dict[str, Any]) -> Instance:
        """What a message says of an effect on heads; the same object as long as it says the same."""
        document = of_families(self._previews.get(data["effect_id"], data["effect"]), data.get("families"))
        said = {**data, "effect": document}
        known = self._known.get(data["key"])
        if known is not None and known[0] == said:
            return known[1]
        key, heads = data["key"], self._rig.heads
        effect = from_document(document, self._palettes)
        chosen = np.array([heads.index[head] for head in data["heads"] if head in heads.index], np.int64)
        placed = place(effect, chosen, heads, self._drifts.setdefault(key, Drifts()))
        made = Instance(key, data["effect_id"], document["name"], data["source"], effect, placed, data["always"])
        self._known[key] = (said, made)
        return made
