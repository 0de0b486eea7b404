"""Playing a show from actions and their stamps, without clock, engine or browser: for tests, bug reports and proofs."""

from __future__ import annotations

import tempfile
from collections.abc import Mapping, Sequence
from dataclasses import asdict
from pathlib import Path
from typing import Any

import msgspec
import numpy as np
from pydantic import ValidationError

from zarabanda.core.explain import sentence
from zarabanda.core.playback.trace import trace
from zarabanda.core.rig import attributes
from zarabanda.demo import salt_light
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live import pixels
from zarabanda.engine.live.on_stage import on_stage
from zarabanda.engine.live.specials import crossing
from zarabanda.engine.live.stages import Stages, levels_at
from zarabanda.engine.live.state import LiveState
from zarabanda.engine.offline import Offline
from zarabanda.engine.tracing import playing_at
from zarabanda.errors import ZarabandaError, shown
from zarabanda.formats.effect_document import faults
from zarabanda.formats.replay_request import DRAFT_ACTIONS, DraftAction, ReplayRequest, ReplayShow
from zarabanda.messages import (
    ActionListPart,
    AnyPart,
    BuskRowPart,
    ControlPart,
    CueListPart,
    CuePart,
    DraftEffectPart,
    DraftValuesPart,
    EffectPart,
    FixturePart,
    HeldValues,
    LookPart,
    PalettePart,
    PaletteUse,
    PartKey,
    PicturePart,
    PixelMapPart,
    ShowUpdate,
    SpecialPart,
    TempoPart,
    TimelinePart,
    action,
)
from zarabanda.replay_parts import key_of, numbers_of, parts_of
from zarabanda.show import compile as compiling
from zarabanda.show.references import Names
from zarabanda.show.store import Store
from zarabanda.targets import EffectOnHeads

Values = dict[str, list[list[float]]]


def demo_parts() -> list[AnyPart]:
    """The demo show."""
    with tempfile.TemporaryDirectory() as folder:
        store = Store(Path(folder) / "show.db")
        try:
            salt_light.build(store)
            with store.reading() as session:
                return compiling.all_parts(session)
        finally:
            store.close()


_INNER = ("layer", "key")
"""What of the steps of a trace has no meaning outside."""


class Replay:
    """A show that is played: actions in the order of their stamps, and looks at what is on stage."""

    def __init__(self, request: ReplayRequest) -> None:
        small = isinstance(request.show, ReplayShow)
        parts = parts_of(request.show) if isinstance(request.show, ReplayShow) else demo_parts()
        self.keys = {part.name: str(part.id) for part in parts if isinstance(part, FixturePart)} if small else {}
        self._controls = {one.name: f"control:{one.id}" for one in parts if isinstance(one, ControlPart)}
        self._lists = {one.name: one.id for one in parts if isinstance(one, CueListPart)}
        self._specials = {one.name: one.id for one in parts if isinstance(one, SpecialPart)}
        self._named = {
            "overlay": {one.name: one.id for one in parts if isinstance(one, LookPart) and one.over},
            "timeline": {one.name: one.id for one in parts if isinstance(one, TimelinePart)},
            "actions": {one.name: one.id for one in parts if isinstance(one, ActionListPart)},
            "map": {one.name: one.id for one in parts if isinstance(one, PixelMapPart)},
            "picture": {one.name: one.id for one in parts if isinstance(one, PicturePart)},
        }
        self._rows = {one.name: one for one in parts if isinstance(one, BuskRowPart)}
        self._cues = {(one.list_id, one.number): one.id for one in parts if isinstance(one, CuePart)}
        self._effect_names = {one.id: str(one.document["name"]) for one in parts if isinstance(one, EffectPart)}
        self._effects = {one.document["name"]: one.id for one in parts if isinstance(one, EffectPart)}
        self._palettes = palettes = {one.name: one.id for one in parts if isinstance(one, PalettePart)}
        tempos = {one.name: one.id for one in parts if isinstance(one, TempoPart)}
        names = Names(palettes, tempos, {n: one for one, n in palettes.items()}, {n: one for one, n in tempos.items()})
        self._documents = {one.id: names.named(one.document) for one in parts if isinstance(one, EffectPart)}
        self._put_on: dict[int, str] = {}
        self._draft: HeldValues = {}
        self._revision, self._numbers = 1, 0
        self._compiler = Compiler()
        program = self._compiler.take(ShowUpdate("replay", 1, parts, whole=True))
        begin = min([0.0, *request.times, *(one["at"] for one in request.actions)])
        self._played = Offline(program, begin)
        if not small:
            self.keys = {key: key for key in program.rig.heads.keys}

    @property
    def state(self) -> LiveState:
        """What is live after the last action."""
        return self._played.state

    def do(self, document: dict[str, Any]) -> None:
        """One action at its stamp. ZarabandaError says what is wrong with it."""
        t, plain = float(document["at"]), {key: value for key, value in document.items() if key != "at"}
        if plain["do"] in DRAFT_ACTIONS:
            try:
                self._edit(DraftAction.model_validate(plain), t)
            except ValidationError as error:
                place, what = faults(error)[0]
                raise ZarabandaError(f"{place}: {what}.", place) from error
            return
        for name in ("control", "key"):
            if name in plain:
                plain[name] = self._player(str(plain[name]))
        if "list" in plain:
            plain = self._of_list(plain)
        if "row" in plain or "rows" in plain:
            plain = self._of_row(plain)
        for name, known in self._named.items():
            if isinstance(plain.get(name), str):
                plain[name] = self._number(name, known, plain[name])
        if plain["do"] == "special" and "name" in plain:
            plain["special"] = self._number("special", self._specials, str(plain.pop("name")))
        self._played.act(action(plain), t)

    @staticmethod
    def _number(what: str, known: Mapping[str, int], name: str) -> int:
        if name not in known:
            what = {"actions": "action list", "timeline": "song", "map": "pixel map"}.get(what, what)
            raise ZarabandaError(f"There is no {what} {shown(name)}; the show has {', '.join(known) or 'none'}.", "name")
        return known[name]

    def _of_list(self, plain: dict[str, Any]) -> dict[str, Any]:
        """An action on a list, with the numbers of list and cue."""
        name, cue = plain["list"], plain.get("cue")
        if name not in self._lists:
            raise ZarabandaError(f"There is no cue list {shown(name)}; the show has {', '.join(self._lists) or 'none'}.", "list")
        number = self._lists[name]
        if cue is not None and (number, cue) not in self._cues:
            raise ZarabandaError(f"There is no cue {shown(cue)} in {shown(name)}.", "cue")
        found = plain | {"list": number} | ({"cue": self._cues[number, cue]} if cue is not None else {})
        return found | ({"do": "list-level"} if plain["do"] == "level" else {})

    def _row(self, name: Any) -> BuskRowPart:
        if name not in self._rows:
            raise ZarabandaError(f"There is no row {shown(name)}; the show has {', '.join(self._rows) or 'none'}.", "row")
        return self._rows[name]

    def _of_row(self, plain: dict[str, Any]) -> dict[str, Any]:
        """An action on rows, with the numbers of rows and pad. Pads of the demo go by the names of what is on them."""
        if "rows" in plain:
            return plain | {"rows": [self._row(name).id for name in plain["rows"]]}
        row = self._row(plain["row"])
        if "pad" not in plain:
            return plain | {"row": row.id}
        pads = self.state.program.rows[row.id].pads.values()
        named = {pad.name or self._effect_names.get(pad.effect, ""): pad.id for pad in pads}
        if plain["pad"] not in named:
            known = ", ".join(named) or "none"
            raise ZarabandaError(f"There is no pad {shown(plain['pad'])} in {row.name}; it has {known}.", "pad")
        return plain | {"row": row.id, "pad": named[plain["pad"]]}

    def _player(self, name: str) -> str:
        draft = next((number for number, effect in self._put_on.items() if effect == name), None)
        return self._controls.get(name) or (f"draft:{draft}" if draft is not None else name)

    def _edit(self, what: DraftAction, t: float) -> None:
        parts: list[AnyPart] = []
        gone: list[PartKey] = []
        heads = [key_of(self.keys, head) for head in what.heads]
        if what.do == "put-on":
            if what.effect not in self._effects:
                raise ZarabandaError(f"There is no effect {shown(what.effect)}.", "effect")
            self._numbers += 1
            self._put_on[self._numbers] = str(what.effect)
            parts.append(DraftEffectPart(self._numbers, EffectOnHeads(self._effects[str(what.effect)], tuple(heads))))
        if what.do in ("take-off", "clear"):
            off = [number for number, name in self._put_on.items() if what.do == "clear" or name == what.effect]
            gone += [("draft-effect", number) for number in off]
            self._put_on = {number: name for number, name in self._put_on.items() if number not in off}
        if what.do in ("set", "take-back", "clear"):
            parts += self._values(what, heads)
        self._revision += 1
        update = ShowUpdate("replay", self._revision, parts, gone, fade_s=what.fade)
        self._played.take(self._compiler.take(update), t)

    def _values(self, what: DraftAction, heads: list[str]) -> list[AnyPart]:
        names = attributes.touched(what.attribute) if what.attribute else tuple(attributes.BY_NAME)
        if not set(names) <= attributes.BY_NAME.keys() or (what.do == "set" and what.attribute is None):
            raise ZarabandaError(f"There is no attribute {shown(what.attribute)}; use one of {', '.join(attributes.BY_NAME)}.")
        values: Sequence[float | PaletteUse | None] = [None] * len(names)
        if what.do == "set":
            values = numbers_of(str(what.attribute), what.value, self._palettes)
        for name, value in zip(names, values, strict=True):
            before = self._draft.get(name, {})
            chosen = list(before) if what.do == "clear" or not heads else heads
            kept = {head: one for head, one in before.items() if head not in chosen}
            self._draft[name] = kept | (dict.fromkeys(chosen, value) if value is not None else {})
        return [DraftValuesPart(name, self._draft[name]) for name in names]

    def at(self, t: float) -> np.ndarray:
        """Values (A, N) on stage at t, before output mapping."""
        return self._played.at(t).copy()

    def traced(self, t: float, head: str, attribute: str) -> list[dict[str, Any]]:
        """The steps to a value at t, as plain data."""
        state = on_stage(self.state, t)
        playing, levels = playing_at(state, t, self._words), levels_at(state, t)
        key = key_of(self.keys, head)
        over, under = Stages().at(state, t), pixels.stages(state, t, over=False)
        steps = trace(state.program.rig, state.claims, playing, levels, key, attribute, t, over, crossing(state), under)
        return [
            {key: value for key, value in asdict(step).items() if value not in (None, "") and key not in _INNER} for step in steps
        ]

    def _words(self, effect_id: int) -> list[str]:
        document = self._documents[effect_id]
        return [sentence.as_text(sentence.layer_sentence(document, n)) for n in range(len(document["layers"]))]


def replay(request: ReplayRequest) -> dict[str, Any]:
    """`values`: [[value per head] per time] by attribute; `trace`, if asked for: for each time, by head and attribute."""
    played = Replay(request)
    heads = request.heads or list(played.keys)
    columns = [played.state.program.rig.heads.index[key_of(played.keys, head)] for head in heads]
    names = [one for name in request.attributes or attributes.BY_NAME for one in attributes.touched(name)]
    rows = [attributes.INDEX[name] for name in names]
    found: dict[int, Any] = {}
    traces: dict[int, Any] = {}
    moments: list[tuple[float, int, int]] = [(float(one["at"]), 0, n) for n, one in enumerate(request.actions)]
    moments += [(t, 1, n) for n, t in enumerate(request.times)]
    for t, is_time, number in sorted(moments):
        if is_time:
            found[number] = played.at(t)[np.ix_(rows, columns)]
            if request.trace:
                traces[number] = {
                    head: {name: played.traced(t, head, name) for name in request.attributes or names} for head in heads
                }
            continue
        try:
            played.do(request.actions[number])
        except (ZarabandaError, msgspec.ValidationError) as error:
            raise ZarabandaError(f"actions.{number}: {error}", f"actions.{number}") from error
    order = range(len(request.times))
    values: Values = {name: [found[n][row].tolist() for n in order] for row, name in enumerate(names)}
    return {"values": values} | ({"trace": [traces[n] for n in order]} if request.trace else {})
