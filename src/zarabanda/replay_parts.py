"""The small form of a show in a replay request, as parts of a show (docs/formats.md, "Replay")."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from zarabanda.core.rig import attributes
from zarabanda.core.rig.modes import EMITTERS, Channel, ModeSpec
from zarabanda.errors import ZarabandaError, shown
from zarabanda.formats.replay_request import ReplayShow
from zarabanda.messages import (
    AnyPart,
    BuskRowPart,
    ControlPart,
    CueListPart,
    CuePart,
    EffectPart,
    EventPart,
    FixturePart,
    HeldValues,
    LookPart,
    ModePart,
    PalettePart,
    PaletteUse,
    SpecialPart,
    TempoPart,
    TimelinePart,
    TrackPart,
)
from zarabanda.show.references import with_numbers
from zarabanda.targets import EffectOnHeads

_HEADS_A_UNIVERSE = 30


def parts_of(show: ReplayShow) -> list[AnyPart]:
    """The small form as parts. Its heads have every attribute but a native hue, and mix red, green and blue."""
    home: dict[str, float] = {}
    for name, value in show.home.items():
        numbers = [one for one in numbers_of(name, value, {}) if not isinstance(one, PaletteUse)]
        home |= dict(zip(attributes.touched(name), numbers, strict=True))
    rows = [row for row in attributes.ATTRIBUTES if row.name not in EMITTERS["hue-saturation"]]
    channels = tuple(Channel(row.name, (n,), row.low, row.high) for n, row in enumerate(rows))
    limits = {row.name: (row.low, row.high, home.get(row.name, row.home)) for row in rows}
    speeds = list(dict.fromkeys((head.pan_speed, head.tilt_speed) for head in show.heads))
    modes = [ModeSpec("head", "spot", "rgb", channels, len(rows), limits, pan_speed=pan, tilt_speed=tilt) for pan, tilt in speeds]
    fixtures = [
        FixturePart(
            n + 1, head.id, 1 + speeds.index((head.pan_speed, head.tilt_speed)), (head.x, head.y, head.z),
            universe=1 + n // _HEADS_A_UNIVERSE, address=1 + n % _HEADS_A_UNIVERSE * len(rows),
        )
        for n, head in enumerate(show.heads)
    ]  # fmt: skip
    keys = {head.id: str(n + 1) for n, head in enumerate(show.heads)}
    tempos = {name: n + 1 for n, name in enumerate(show.tempos)}
    palettes = {name: n + 1 for n, name in enumerate(show.palettes)}
    effects = {effect.name: n + 1 for n, effect in enumerate(show.effects)}
    parts: list[AnyPart] = [*(ModePart(n + 1, mode) for n, mode in enumerate(modes)), *fixtures]
    parts += [TempoPart(tempos[name], name, bpm, tempos[name]) for name, bpm in show.tempos.items()]
    for name, document in show.palettes.items():
        made = document.to_core(name)
        own = {keys[head]: dict(values) for head, values in made.own.items() if head in keys}
        models = {model: dict(values) for model, values in made.models.items()}
        parts.append(PalettePart(palettes[name], name, dict(made.values), own, models, made.way))
    for effect in show.effects:
        plain = effect.model_copy(update={"own": {keys[head]: one for head, one in effect.own.items() if head in keys}}).plain()
        parts.append(EffectPart(effects[effect.name], with_numbers(plain, palettes, tempos)))
    for n, control in enumerate(show.controls):
        families = tuple(control.families) if control.families else None
        target = EffectOnHeads(effects[control.effect], tuple(key_of(keys, head) for head in control.heads), families)
        parts.append(ControlPart(n + 1, control.name, control.name, control.mode, control.job, control.release, target))
    named = Numbers(palettes, tempos, effects)
    more = (*_specials(show, keys), *_rows(show, keys, named), *_looks(show, keys, named))
    return [*parts, *_cue_lists(show, keys, named), *more, *_timelines(show)]


def _timelines(show: ReplayShow) -> Iterator[AnyPart]:
    lists = {one.name: n + 1 for n, one in enumerate(show.cue_lists)}
    controls = {one.name: n + 1 for n, one in enumerate(show.controls)}
    in_order = ((whose.name, cue.number) for whose in show.cue_lists for cue in whose.cues)
    cues = {cue: n + 1 for n, cue in enumerate(in_order)}
    tracks = events = 0
    for n, song in enumerate(show.timelines):
        document = {"length_s": song.length, "grid": song.grid.model_dump()}
        yield TimelinePart(n + 1, song.name, n, {**document, **song.model_dump(include={"begins_alone", "keeps_moving"})})
        for track in song.tracks:
            tracks += 1
            of_list = track.cue_list is not None
            known, name = (lists, track.cue_list) if of_list else (controls, track.control)
            if name not in known:
                what = "cue list" if of_list else "control"
                raise ZarabandaError(f"There is no {what} {shown(name)}; the show has {', '.join(known) or 'none'}.", "timelines")
            kind = "control" if not of_list else "list-level" if track.kind == "levels" else "list"
            yield TrackPart(tracks, n + 1, tracks, {"name": str(name), "kind": track.kind, "drives": f"{kind}:{known[name]}"})
            for one in track.events:
                events += 1
                if track.kind == "cues" and (str(name), one.cue) not in cues:
                    raise ZarabandaError(f"There is no cue {shown(one.cue)} in {shown(name)}.", "timelines")
                does = {"cue": cues.get((str(name), one.cue or 0.0), 0), "does": one.does, "value": one.value}
                yield EventPart(events, tracks, one.at, one.length, does)


def _rows(show: ReplayShow, keys: Mapping[str, str], numbers: Numbers) -> Iterator[AnyPart]:
    for n, row in enumerate(show.rows):
        sections: dict[str, list[dict[str, Any]]] = {}
        for number, pad in enumerate(row.pads):
            plain: dict[str, Any] = {"id": number + 1, "name": pad.name}
            if pad.effect is not None:
                sections.setdefault("effects", []).append(
                    {**plain, "effect": numbers.effects[pad.effect], "while_held": pad.while_held}
                )
            elif pad.palette is not None:
                family = show.palettes[pad.palette].family
                sections.setdefault(family, []).append({**plain, "palette": numbers.palettes[pad.palette]})
        tempo = numbers.tempos.get(row.tempo) if row.tempo is not None else None
        heads = tuple(key_of(keys, head) for head in row.heads)
        kind = "lights" if heads else "all"
        yield BuskRowPart(n + 1, 1, n + 1, row.name, kind, heads, {**sections, "tempo": tempo})


def _looks(show: ReplayShow, keys: Mapping[str, str], numbers: Numbers) -> Iterator[AnyPart]:
    for n, look in enumerate(show.looks):
        values = {
            name: {key_of(keys, head): _checked(name, value, numbers.palettes) for head, value in heads.items()}
            for name, heads in look.model_dump()["values"].items()
        }
        effects = [
            {**one.model_dump(), "effect": numbers.effects[one.effect], "heads": [key_of(keys, head) for head in one.heads]}
            for one in look.effects
        ]
        document = with_numbers({"values": values}, numbers.palettes, {})
        times = {"in_s": look.in_s, "out_s": look.out_s}
        yield LookPart(n + 1, look.name, n, look.over, {**document, "effects": effects, **times})


def _specials(show: ReplayShow, keys: Mapping[str, str]) -> Iterator[AnyPart]:
    for n, special in enumerate(show.specials):
        heads = tuple(key_of(keys, head) for head in special.heads)
        values: HeldValues = {"intensity": dict.fromkeys(heads, 100.0)}
        for name, value in special.values.items():
            for attribute, number in zip(attributes.touched(name), numbers_of(name, value, {}), strict=True):
                values[attribute] = dict.fromkeys(heads, number)
        yield SpecialPart(n + 1, special.name, heads, values, special.out, special.move, special.up)


@dataclass(frozen=True)
class Numbers:
    """Numbers of what cues refer to by name."""

    palettes: Mapping[str, int]
    tempos: Mapping[str, int]
    effects: Mapping[str, int]

    def of(self, kind: str, name: object) -> int | None:
        """The number of a tempo or an effect; None stays."""
        known = getattr(self, f"{kind}s")
        if name is None:
            return None
        if name not in known:
            raise ZarabandaError(f"There is no {kind} {shown(name)}; the show has {', '.join(known) or 'none'}.", "cue_lists")
        return int(known[name])


def _cue_lists(show: ReplayShow, keys: Mapping[str, str], numbers: Numbers) -> Iterator[AnyPart]:
    """Cue lists, with numbers instead of names."""
    number = 0
    for n, whose in enumerate(show.cue_lists):
        settings = whose.model_dump(mode="json", exclude={"name", "cues"})
        yield CueListPart(n + 1, whose.name, n, settings | {"round_tempo": numbers.of("tempo", whose.round_tempo)})
        for cue in whose.cues:
            number += 1
            document = with_numbers(cue.model_dump(mode="json", exclude={"number"}), numbers.palettes, {})
            for name in ("stops", "only_here"):
                document[name] = {one: [key_of(keys, head) for head in heads] for one, heads in document[name].items()}
            document["values"] = {
                name: {key_of(keys, head): _checked(name, value, numbers.palettes) for head, value in heads.items()}
                for name, heads in document["values"].items()
            }
            document["trigger"]["tempo"] = numbers.of("tempo", cue.trigger.tempo)
            document["effects"] = [
                {**one, "effect": numbers.of("effect", one["effect"]), "heads": [key_of(keys, head) for head in one["heads"]]}
                for one in document["effects"]
            ]
            yield CuePart(number, n + 1, cue.number, document)


def _checked(attribute: str, value: Any, palettes: Mapping[str, int]) -> Any:
    """A value of a cue that can be one."""
    numbers_of(attribute, value, {**palettes, **{str(number): number for number in palettes.values()}})
    return value


def key_of(keys: Mapping[str, str], head: str) -> str:
    """The key in the rig of a head by its name; a clear error where there is none."""
    if head not in keys:
        raise ZarabandaError(f"There is no head {shown(head)}; the show has {', '.join(list(keys)[:8])}.", "heads")
    return keys[head]


def numbers_of(attribute: str, value: object, palettes: Mapping[str, int]) -> Sequence[float | PaletteUse]:
    """A value as one of each plain attribute; a clear error where it is none."""
    """A value as one number for each part of an attribute, or what a palette has there."""
    names = attributes.touched(attribute)
    if isinstance(value, dict):
        name = str(value.get("palette"))
        if name not in palettes:
            raise ZarabandaError(f"There is no palette {shown(name)}; the show has {', '.join(palettes) or 'none'}.", "value")
        return [PaletteUse(palettes[name])] * len(names)
    if isinstance(value, str):
        try:
            rgb = [int(value[n : n + 2], 16) / 255 for n in (1, 3, 5)]
        except ValueError:
            rgb = []
        if attribute != "colour" or len(rgb) != 3 or len(value) != 7:
            raise ZarabandaError(f"{shown(value)} is no value of {attribute}; give a number, or #rrggbb for colour.", "value")
        return rgb
    if len(names) > 1 or not isinstance(value, int | float):
        raise ZarabandaError(f"{shown(value)} is no value of {attribute}; give {'#rrggbb' if attribute == 'colour' else names}.")
    return [float(value)]
