"""Making programs from parts of the show, off the frame loop. What a part does not touch is not made again."""

from __future__ import annotations

import copy
from collections.abc import Collection, Iterator
from dataclasses import replace
from pathlib import Path
from typing import Any

import numpy as np

from zarabanda.core.effects.effect import Effect, from_document
from zarabanda.core.effects.palette import Palette
from zarabanda.core.effects.phase import Drifts
from zarabanda.core.effects.placement import Placed, place
from zarabanda.core.playback import specials
from zarabanda.core.playback.looks import held
from zarabanda.core.playback.specials import Special
from zarabanda.core.rig import attributes
from zarabanda.core.rig.abilities import on_heads_that_can
from zarabanda.core.rig.heads import Heads
from zarabanda.errors import ZarabandaError
from zarabanda.messages import (
    ActionListPart,
    AnyPart,
    Audition,
    BuskRowPart,
    ColourWayPart,
    ControlPart,
    CueListPart,
    CuePart,
    DevicePart,
    DraftEffectPart,
    DraftValuesPart,
    EffectPart,
    EventPart,
    HeldValues,
    LineInPart,
    LookPart,
    OpeningPart,
    PalettePart,
    PaletteUse,
    PartKey,
    PicturePart,
    PixelMapPart,
    PlayerId,
    PreviewEffect,
    PreviewPixels,
    PreviewValues,
    RoutePart,
    ShowUpdate,
    SpecialPart,
    TempoPart,
    TimecodeInPart,
    TimelinePart,
    TrackPart,
    control_id,
)
from zarabanda.messages.looks import look_of
from zarabanda.targets import EffectOnHeads

from .controls import ControlMaker
from .cueing import SUBJECTS as OF_CUES
from .cueing import CueMaker, families_of, list_of, player_of
from .decoding import SUBJECTS as OF_RIG
from .decoding import RigMaker
from .folds import Folds
from .hearing import SoundMaker
from .line_in import HeardLine
from .looks import LookMaker, overlay_of, players_of
from .messaging import action_list_of, messages_of
from .pixels import SUBJECTS as OF_PIXELS
from .pixels import PixelMaker
from .program import EMPTY, Instance, Program, no_palettes
from .rows import RowMaker, row_of, targets_of
from .timelines import SUBJECTS as OF_TIMELINES
from .timelines import TimelineMaker

AUDITION = PlayerId("audition")
"""Plays an effect that is only being looked at."""
_AUDITION: PartKey = ("audition", 0)
_ELSEWHERE = {"draft-values", "draft-effect", "audition", "opening", "route", "device", "timecode-in", "line-in"}
_NOT_OF_SONGS = OF_TIMELINES | _ELSEWHERE
"""Parts that leave what songs are at positions as it is, but for timelines themselves."""
_UNREADABLE = (ValueError, TypeError, KeyError, IndexError, AttributeError, ZarabandaError)


def of_families(effect: Effect, families: Collection[str] | None) -> Effect:
    """The effect with layers of other families silent; None: all of them act."""
    if families is None:
        return effect
    layers = [
        layer if attributes.BY_NAME[attributes.touched(layer.attribute)[0]].family in families else replace(layer, muted=True)
        for layer in effect.layers
    ]
    return replace(effect, layers=tuple(layers))


def palettes_of(document: Any) -> set[int]:
    """Numbers of the palettes that a document goes to."""
    if isinstance(document, dict):
        if isinstance(document.get("palette"), int):
            return {document["palette"]}
        return set[int]().union(*map(palettes_of, document.values()))
    return set[int]().union(*map(palettes_of, document)) if isinstance(document, list) else set()


class Compiler:
    """Makes programs from parts; keeps what it made of each, so that an edit costs what it changes. media: the folder of
    pictures, films and sounds; None: there is none."""

    def __init__(self, media: Path | None = None, line: HeardLine | None = None) -> None:
        self._parts: dict[PartKey, AnyPart] = {}
        self._arrived: dict[PartKey, int] = {}
        self._previews: dict[int, dict[str, Any]] = {}
        self._values_preview: HeldValues | None = None
        self._seen_maps: dict[int, PixelMapPart] = {}
        self._audition: Audition | None = None
        self._effects: dict[int, Effect] = {}
        self._palettes: dict[int, Palette] = {}
        self._drifts: dict[PlayerId, Drifts] = {}
        self._targets: dict[PlayerId, tuple[str, EffectOnHeads]] = {}
        self._rig = RigMaker()
        self._cues = CueMaker()
        self._rows = RowMaker()
        self._looks, self._controls, self._timelines = LookMaker(), ControlMaker(), TimelineMaker()
        self._pixels, self._sounds = PixelMaker(media), SoundMaker(media, line)
        self._program = EMPTY

    def copy(self) -> Compiler:
        """Another that knows the same: to try something out."""
        other = copy.copy(self)
        for name, value in vars(self).items():
            if isinstance(value, dict):
                setattr(other, name, dict(value))
        for name in ("_rig", "_cues", "_rows", "_looks", "_controls", "_timelines", "_pixels", "_sounds"):
            setattr(other, name, copy.copy(getattr(self, name)))
        return other

    @property
    def parts(self) -> Collection[AnyPart]:
        """All parts of the show."""
        return self._parts.values()

    def arrived(self, subject: str, number: int | str | None = None) -> int:
        """The revision in which a part came or went; without a number, the newest part of that subject."""
        if number is not None:
            return self._arrived.get((subject, number), 0)
        return max((revision for key, revision in self._arrived.items() if key[0] == subject), default=0)

    def take(self, update: ShowUpdate) -> Program:
        """The program with an update; previews end."""
        if update.session != self._program.session:
            self._arrived = dict.fromkeys(self._arrived, 0)
        gone = set(self._parts) - {part.key for part in update.parts} if update.whole else set(update.gone)
        changed: set[PartKey] = set(gone) | {("effect", number) for number in self._previews}
        for key in gone:
            self._parts.pop(key, None)
            self._arrived[key] = update.revision
        for part in update.parts:
            if self._parts.get(part.key) != part:
                changed.add(part.key)
                self._arrived[part.key] = update.revision
                self._parts[part.key] = part
        if self._values_preview is not None:
            changed.add(("draft-values", ""))
        changed |= {part.key for part in self._seen_maps.values()}
        self._previews, self._values_preview, self._seen_maps = {}, None, {}
        return self._made(
            changed,
            revision=update.revision,
            session=update.session,
            show=update.show or self._program.show,
            let_go=tuple(update.let_go),
            fade_s=update.fade_s,
            written_back=tuple(update.written_back),
        )

    def preview(self, message: PreviewEffect | PreviewPixels | PreviewValues) -> Program | None:
        """The program with what is being edited; None: an edit of the same has overtaken it."""
        match message:
            case PreviewEffect(number, document, revision) if revision >= self.arrived("effect", number):
                return self.preview_effect(number, document)
            case PreviewPixels(part, revision) if revision >= self.arrived("pixel-map", part.id):
                return self.preview_pixels(part)
            case PreviewValues(values, revision) if revision >= self.arrived("draft-values"):
                return self.preview_values(values)
        return None

    def preview_effect(self, effect_id: int, document: dict[str, Any]) -> Program:
        """The program with another document for an effect, until the next update."""
        self._previews[effect_id] = document
        return self._made({("effect", effect_id)})

    def preview_pixels(self, part: PixelMapPart) -> Program:
        """The program with a pixel map as it is being edited, until the next update."""
        self._seen_maps[part.id] = part
        return self._made({part.key})

    def preview_values(self, values: HeldValues) -> Program:
        """The program with other values set by hand, until the next update."""
        self._values_preview = values
        return self._made({("draft-values", "")})

    def audition(self, message: Audition | None) -> Program:
        """The program with an effect that is seen on heads beside what the show has; None ends that."""
        self._audition = message
        return self._made({("audition", 0)})

    # making

    def _of(self, kind: type[Any]) -> Iterator[Any]:
        return (part for part in self._parts.values() if isinstance(part, kind))

    def _made(self, changed: set[PartKey], **more: Any) -> Program:
        """The program, of which these parts have changed."""
        subjects = {subject for subject, _ in changed}
        before, now = self._program, replace(self._program, let_go=(), written_back=())
        if subjects & OF_RIG:
            now = replace(now, rig=self._rig.made(self._parts.values()))
        if "palette" in subjects:
            self._palettes = {
                part.id: Palette(part.name, part.values, part.own, part.models, part.way) for part in self._of(PalettePart)
            }
            now = replace(now, ways={number: one.way for number, one in self._palettes.items() if one.way})
        if now.rig.heads is not before.rig.heads or subjects & {"draft-values", "palette"}:
            now = self._with_draft(now)
        if "colour-way" in subjects:
            now = replace(now, way=next((part.way for part in self._of(ColourWayPart)), EMPTY.way))
        if "tempo" in subjects:
            tempos = sorted(self._of(TempoPart), key=lambda one: (one.position, one.id))
            now = replace(now, tempos={tempo.id: tempo for tempo in tempos})
        if "opening" in subjects:
            now = replace(now, opening=tuple(one for part in self._of(OpeningPart) for one in part.actions))
        if "timecode-in" in subjects:
            now = replace(now, timecode_in=next((part.source for part in self._of(TimecodeInPart)), ""))
        if "line-in" in subjects:
            now = replace(now, line_in=next((part.source for part in self._of(LineInPart)), ""))
        if "route" in subjects:
            now = replace(now, routes=tuple(sorted(self._of(RoutePart), key=lambda one: one.id)))
        if "device" in subjects:
            now = replace(now, devices=tuple(self._of(DevicePart)))
        if "action-list" in subjects:
            now = replace(now, action_lists={part.id: action_list_of(part) for part in self._of(ActionListPart)})
        if "cue" in subjects:
            now = replace(
                now, messages={part.id: messages_of(part) for part in self._of(CuePart) if part.document.get("messages")}
            )
        if now.rig.heads is not before.rig.heads or subjects & (OF_CUES | {"palette", "effect"}):
            families = {part.id: families_of(part.document) for part in self._of(EffectPart)}
            made = self._cues.made(self._of(CueListPart), self._of(CuePart), self._palettes, families, now.rig)
            now = replace(now, lists=made)
        if now.rig.heads is not before.rig.heads or subjects & {"busk-row", "palette", "effect"}:
            effects = (part.id for part in self._of(EffectPart))
            now = replace(now, rows=self._rows.made(self._of(BuskRowPart), self._palettes, effects, now.rig))
        if now.rig.heads is not before.rig.heads or subjects & {"look", "palette", "colour-way"}:
            now = replace(now, looks=self._looks.made(self._of(LookPart), self._palettes, now.ways, now.way, now.rig))
        if now.rig is not before.rig or subjects & (OF_PIXELS | {"palette", "timeline"}):
            now = self._with_pixels(now)
        if subjects & OF_TIMELINES:
            made_of = self._of(TimelinePart), self._of(TrackPart), self._of(EventPart)
            now = replace(now, timelines=self._timelines.made(*made_of))
        if now.rig.heads is not before.rig.heads or now.looks is not before.looks or "control" in subjects:
            controls = self._controls.made(list(self._of(ControlPart)), now.looks, now.rig)
            now = replace(now, controls={one.key: one for one in controls})
        if now.rig.heads is not before.rig.heads or subjects & {"special", "palette"}:
            parts = sorted(self._of(SpecialPart), key=lambda one: (one.position, one.id))
            now = replace(now, specials={part.id: self._special(part, now) for part in parts})
        if now.rig.heads is not before.rig.heads or subjects & (
            OF_CUES | {"control", "look", "busk-row", "draft-effect", "effect", "palette", "audition"}
        ):
            now = self._with_players(now, before, changed)
        now = replace(now, folds=Folds(), **{"fade_s": 0.0, **more})
        if subjects <= _NOT_OF_SONGS and now.rig.heads is before.rig.heads:
            kept = before.folds.carried(before.timelines, now.timelines, lambda state: state.with_(program=now.for_songs))
            now = replace(now, folds=kept)
        self._program = now
        return now

    def _special(self, part: SpecialPart, now: Program) -> Special:
        look = look_of(part.values, self._palettes)
        return specials.made(now.rig, part.id, part.name, part.heads, look, part.aim, out=part.out, move=part.move, up=part.up)

    def _with_draft(self, now: Program) -> Program:
        """With what is set by hand, and which palettes it comes from. A palette that is not there holds nothing."""
        values = self._values_preview
        if values is None:
            values = {part.id: part.heads for part in self._of(DraftValuesPart)}
        index = now.rig.heads.index
        uses = [
            (attributes.INDEX[name], index[head], value.palette)
            for name, heads in values.items()
            for head, value in heads.items()
            if isinstance(value, PaletteUse) and value.palette in self._palettes and head in index
        ]
        draft, palettes = held(now.rig, look_of(values, self._palettes)), no_palettes(now.rig)
        if uses:
            palettes = palettes.copy()
            rows, heads_of, numbers = zip(*uses, strict=True)
            palettes[list(rows), list(heads_of)] = numbers
        if np.array_equal(draft, now.draft, equal_nan=True) and np.array_equal(palettes, now.draft_palettes):
            return now
        return replace(now, draft=draft, draft_palettes=palettes)

    def _with_pixels(self, now: Program) -> Program:
        """With pixel maps and pictures, and the sounds of songs where any of them listens."""
        parts = (self._seen_maps.get(part.id, part) for part in self._of(PixelMapPart))
        maps = self._pixels.maps(parts, self._palettes, now.rig)
        pictures = self._pixels.pictures(self._of(PicturePart), self._palettes)
        stacks = [*(one.stack for one in maps.values()), *pictures.values()]
        sounds = now.sounds
        if any(layer.listens for stack in stacks for layer in stack.layers):
            songs = {part.id: (part.document.get("sound") or {}).get("hash", "") for part in self._of(TimelinePart)}
            sounds = self._sounds.made(songs)
        return replace(now, maps=maps, pictures=pictures, sounds=sounds)

    def _with_players(self, now: Program, before: Program, changed: set[PartKey]) -> Program:
        effects = {int(key) for subject, key in changed if subject == "effect"}
        if palettes := {int(key) for subject, key in changed if subject == "palette"}:
            effects |= {number for number in self._effects.keys() - effects if palettes & palettes_of(self._document(number))}
        for number in effects:
            self._effects.pop(number, None)
        instances: dict[PlayerId, Instance] = {}
        faults = []
        for key, part_key, source, target, always in self._players():
            stays = before.instances.get(key)
            asked_anew = self._targets.get(key) != (source, target) or target.effect_id in effects or part_key == _AUDITION
            self._targets[key] = (source, target)
            if stays is not None and not asked_anew and _stands_alike(stays.placed, before.rig.heads, now.rig.heads):
                instances[key] = stays
                continue
            try:
                instances[key] = self._instance(key, source, target, always, now)
            except _UNREADABLE as error:
                faults.append(f"{source}: an effect cannot be read ({type(error).__name__}: {error}), and does not run.")
        for key in before.instances.keys() - instances.keys():
            self._drifts.pop(key, None)
            self._targets.pop(key, None)
        return replace(now, instances=instances, faults=tuple(faults))

    def _players(self) -> Iterator[tuple[PlayerId, PartKey, str, EffectOnHeads, bool]]:
        """Everything that may play: who plays it, its part, where it comes from, what it is, and whether it always plays."""
        for part in self._of(ControlPart):
            if isinstance(part.target, EffectOnHeads) and ("effect", part.target.effect_id) in self._parts:
                yield PlayerId(control_id(part.id)), part.key, part.source, part.target, False
        for key, part, source, target in players_of(self._of(LookPart), self._of(ControlPart)):
            if ("effect", target.effect_id) in self._parts:
                yield key, part.key, source, target, False
        for part in sorted(self._of(DraftEffectPart), key=lambda one: int(one.id)):
            yield PlayerId(f"draft:{part.id}"), part.key, "draft", part.target, True
        names = {part.id: part.name for part in self._of(CueListPart)}
        for part in self._of(CuePart):
            for one in part.document.get("effects", ()):
                if one["do"] == "start":
                    families = tuple(one["families"]) if one.get("families") else None
                    target = EffectOnHeads(one["effect"], tuple(one.get("heads", ())), families)
                    source = f"{names.get(part.list_id, 'a list')}, cue {part.number:g}"
                    yield player_of(part.list_id, one["thread"]), part.key, source, target, False
        for key, row, source, target in targets_of(self._of(BuskRowPart)):
            if ("effect", target.effect_id) in self._parts:
                yield key, row.key, source, target, False
        if self._audition is not None:
            target = EffectOnHeads(-1, tuple(self._audition.heads))
            yield AUDITION, _AUDITION, "preview", target, True

    def _document(self, number: int) -> dict[str, Any]:
        if number in self._previews:
            return self._previews[number]
        part = self._parts.get(("effect", number))
        if not isinstance(part, EffectPart):
            raise ZarabandaError(f"there is no effect {number}")
        return part.document

    def _effect(self, number: int) -> Effect:
        found = self._effects.get(number)
        if found is None:
            found = self._effects[number] = from_document(self._document(number), self._palettes)
        return found

    def _instance(self, key: PlayerId, source: str, target: EffectOnHeads, always: bool, now: Program) -> Instance:
        if key == AUDITION:
            assert self._audition is not None
            effect, effect_id = from_document(self._audition.document, self._palettes), self._audition.effect_id
        else:
            effect, effect_id = self._effect(target.effect_id), target.effect_id
        effect, heads = of_families(effect, target.families), now.rig.heads
        chosen = np.array([heads.index[head] for head in target.heads if head in heads.index], np.int64)
        row = row_of(key)
        if row:
            chosen = on_heads_that_can(now.rig, chosen, [layer.attribute for layer in effect.layers if not layer.muted])
        placed = place(effect, chosen, heads, self._drifts.setdefault(key, Drifts()))
        return Instance(
            key, effect_id, effect.name, source, effect, placed, always, heads.keys, list_of(key), target.depth, target.speed,
            row, overlay_of(key), chosen, heads,
        )  # fmt: skip


def _stands_alike(placed: Placed, before: Heads, now: Heads) -> bool:
    """Whether all that placing looks at is as it was: which heads there are, and of its own their places and what they can do."""
    if now is before or now.keys is not before.keys:
        return now is before
    own = placed.order
    alike = np.array_equal(before.places[own], now.places[own]) and np.array_equal(before.has[:, own], now.has[:, own])
    if before.mounting is None or now.mounting is None:
        return alike and before.mounting is now.mounting
    return alike and np.array_equal(before.mounting[own], now.mounting[own])
