"""The sentence of a picture layer: plain words and value slots, from a checked document (plain data), as of effects."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from typing import Any

from zarabanda.core.colour.ways import LABELS as WAYS
from zarabanda.core.pixels.colouring import OVER
from zarabanda.core.pixels.layers import EVERY_FIGURE, FINISHES, JOINS
from zarabanda.core.pixels.light import ACTS
from zarabanda.core.pixels.places import MOTIONS
from zarabanda.core.pixels.settings import Setting

from .sentence import Doc, Part, amount, choice, number, rate_text, word

_HIDDEN = {"outline", "crop_left", "crop_right", "crop_top", "crop_bottom"}
"""Settings that are no words: they have a place of their own on the screen."""
RUNS = {"forward": "forward", "backward": "backward", "back-and-forth": "back and forth"}
_SLOT = re.compile(r"\{(\w+)\}")
_BEATS = (4, 3, 2, 1.5, 1, 2 / 3, 0.5, 1 / 3, 0.25, 0.125, 0.0625, 0.03125)


def slot(setting: Setting, path: str, value: Any, media: Mapping[str, str]) -> Part:
    """A value slot for a setting. media: names of media by hash."""
    match setting.kind:
        case "choice":
            return choice(path, value, list((setting.words or {}).items()), setting.label)
        case "text":
            return {"slot": path, "kind": "text", "value": value, "text": f"“{value}”", "label": setting.label}
        case "medium":
            name = media.get(value, "a file that is gone") if value else "none yet"
            return {"slot": path, "kind": "medium", "value": value, "text": name, "label": setting.label}
        case "outline":
            return {"slot": path, "kind": "outline", "value": value, "text": f"{len(value)} points", "label": setting.label}
        case "whole":
            return amount(path, value, setting.label, low=setting.low, high=setting.high, text=f"{value}")
    shown = f"{number(value * setting.shown)}{'' if setting.unit in ('°', '') else ' '}{setting.unit}"
    step = (1 / setting.shown) if setting.shown > 1 else (1.0 if setting.unit == "°" else 0.05)
    part = amount(
        path, value, setting.label, unit=setting.unit, low=setting.low, high=setting.high, step=step, text=shown
    )  # fmt: skip
    return part | {"scale": setting.shown}


def _phrase(phrase: str, settings: Sequence[Setting], values: Doc, path: str, media: Mapping[str, str]) -> list[Part]:
    by_name = {one.name: one for one in settings}
    parts: list[Part] = []
    for n, piece in enumerate(_SLOT.split(phrase)):
        if n % 2:
            parts.append(slot(by_name[piece], f"{path}.{piece}", values[piece], media))
        elif piece.strip():
            parts.append(word(piece.strip()))
    return parts


def _colours(document: Doc) -> list[Part]:
    colour = document["colour"]
    stops = colour["stops"]
    own = [one["palette"] if isinstance(one, dict) else "the base" if one == "base" else "" for one in stops]
    text = " to ".join(own) if all(own) and len(own) <= 2 else "one colour" if len(stops) == 1 else f"{len(stops)} colours"
    swatches = [f"palette {one['palette']}" if isinstance(one, dict) else one for one in stops]
    over = choice("colour.over", colour["over"], list(OVER.items()), "Colours go")
    has_own = document["figure"] in ("picture", "film")
    if not has_own:
        over["options"] = [one for one in over["options"] if one["value"] != "own"]
    slot_ = {"slot": "colour.stops", "kind": "colours", "value": stops, "text": text, "label": "Colours", "swatches": swatches}
    parts = [] if colour["over"] == "own" else [word("in"), slot_]
    parts.append(over)
    if colour["over"] == "place":
        parts += [word("at"), amount("colour.direction", colour["direction"], "Direction", unit="°", low=-360, high=360)]
    if colour["over"] == "own":
        tint = amount(
            "colour.tint", colour["tint"], "Tint", unit="%", low=0, high=1, step=0.01, text=f"{number(colour['tint'] * 100)} %"
        )
        parts += [word("tinted by"), tint | {"scale": 100.0}]
        parts += [word("to"), slot_] if colour["tint"] > 0 else []
    if colour["hue_cycles"]:
        parts += [word(", hue going round"), _hue(document), word("times a cycle")]
    return [*parts, word(",")]


def _hue(document: Doc) -> Part:
    turns = document["colour"]["hue_cycles"]
    return amount("colour.hue_cycles", turns, "Hue, rounds a cycle", low=-16, high=16, step=0.25, text=number(turns))


def _speed(document: Doc) -> list[Part]:
    speed = document["speed"]
    run = choice("run", document["run"], list(RUNS.items()), "Run")
    if speed["kind"] == "time":
        seconds = amount(
            "speed.seconds_per_cycle", speed["seconds_per_cycle"], "Seconds per cycle", unit="s", low=0.02, high=60, step=0.1
        )
        return [seconds, word("per cycle,"), run]
    rate = choice("speed.cycles_per_beat", speed["cycles_per_beat"], [(one, rate_text(one)) for one in _BEATS], "Speed")
    rate["text"] = rate_text(speed["cycles_per_beat"])
    tempo = {"slot": "speed.tempo", "kind": "tempo", "value": speed["tempo"], "text": speed["tempo"], "label": "Tempo"}
    return [rate, word("of"), tempo, word(","), run]


def _finishes(document: Doc, media: Mapping[str, str]) -> list[Part]:
    parts: list[Part] = []
    for setting in FINISHES:
        value = document["finish"][setting.name]
        if value != setting.default:
            parts += [word(", " if parts else ""), word(setting.label.lower())] if parts else [word(setting.label)]
            parts.append(slot(setting, f"finish.{setting.name}", value, media))
    return [*parts, word(".")] if parts else []


def layer_sentence(document: Doc, media: Mapping[str, str] | None = None) -> list[Part]:
    """The sentence of a layer. media: names of media by hash."""
    media = media or {}
    figure, motion = EVERY_FIGURE[document["figure"]], MOTIONS[document["motion"]]
    parts = _phrase(figure.phrase, figure.settings, document["settings"], "settings", media)
    phrase = motion.phrase
    if motion.point and not figure.has_point:
        phrase += f" {motion.point} {{across}} across, {{down}} down"
    parts += _phrase(phrase, motion.settings, document["motion_settings"], "motion_settings", media)
    parts += [word(","), *_colours(document), *_speed(document), word("."), *_finishes(document, media)]
    join = choice("join", document["join"], list(JOINS.items()), "How it joins what is beneath")
    opacity = amount(
        "opacity",
        document["opacity"],
        "Opacity",
        unit="%",
        low=0,
        high=1,
        step=0.01,
        text=f"{number(document['opacity'] * 100)} %",
    )
    return [*parts, word("It"), join, word("what is beneath by"), opacity | {"scale": 100.0}, word(".")]


def map_sentence(document: Doc) -> list[Part]:
    """How a map acts, as a sentence."""
    over = choice("over_effects", document["over_effects"], [(True, "over the effects"), (False, "under the effects")], "Acts")

    def seconds(path: str, label: str) -> Part:
        return amount(path, document[path], label, unit="s", low=0, high=60, step=0.1)

    acts = choice("acts", document["acts"], list(ACTS.items()), "What it acts on")
    return [
        word("The map acts on"), acts, word(","), over, word("on its lights. A press brings it in in"),
        seconds("in_s", "Comes in"), word("and out in"), seconds("out_s", "Goes in"), word("."),
    ]  # fmt: skip


def summary(document: Doc) -> str:
    """A layer in a few words: its figure and motion."""
    figure, motion = EVERY_FIGURE[document["figure"]], MOTIONS[document["motion"]]
    own = document["settings"].get("text")
    name = f"letters: {own}" if own else figure.label
    return name.capitalize() if document["motion"] == "still" else f"{name.capitalize()}, {motion.label}"


def settings_of(document: Doc) -> list[Part]:
    """Slots for what the sentence leaves out until it is at work: cuts, outlines, ways of colours, finishes."""
    figure, values = EVERY_FIGURE[document["figure"]], document["settings"]
    hidden = [one for one in figure.settings if one.name in _HIDDEN]
    if values.get("shape") != "outlines":
        hidden = [one for one in hidden if one.name != "outline"]
    parts = [slot(one, f"settings.{one.name}", values[one.name], {}) for one in hidden]
    colour, speed = document["colour"], document["speed"]
    parts.append(choice("colour.space", colour["space"], list(WAYS.items()), "Way between colours"))
    parts.append(_hue(document))
    parts.append(choice("speed.kind", speed["kind"], [("tempo", "by a tempo"), ("time", "in seconds")], "Speed goes"))
    if speed["kind"] == "tempo":
        parts.append(choice("speed.sync", speed["sync"], [("beat", "on the beat"), ("start", "from its start")], "Cycle begins"))
    return parts + [slot(one, f"finish.{one.name}", document["finish"][one.name], {}) for one in FINISHES]
