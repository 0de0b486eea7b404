"""The sentence of an effect: plain words and value slots, from a checked document (plain data).

A slot says where its value is in the document (`path`), how it reads (`text`) and how it is edited (`kind`, limits,
options). The front end, exports and search all use these.
"""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction
from typing import Any

from zarabanda.core.rig import attributes
from zarabanda.core.selection.orders import ORDERS

Doc = dict[str, Any]
Part = dict[str, Any]
Option = tuple[Any, str]

_FRACTIONS = {Fraction(1, 2): "½", Fraction(1, 4): "¼", Fraction(3, 4): "¾", Fraction(1, 3): "⅓", Fraction(2, 3): "⅔",
              Fraction(1, 8): "⅛", Fraction(3, 2): "1½"}  # fmt: skip

ATTRIBUTE_OPTIONS: list[Option] = [
    ("intensity", "Intensity"), ("position", "Position"), ("pan", "Pan"), ("tilt", "Tilt"), ("colour", "Colour"),
    ("hue", "Hue"), ("saturation", "Saturation"), ("zoom", "Zoom"), ("iris", "Iris"), ("frost", "Frost"),
    ("strobe", "Strobe"), ("temperature", "Colour temperature"), ("white_mix", "White mix"),
]  # fmt: skip
WAVE_OPTIONS: list[Option] = [
    ("sine", "sine"), ("swell", "swell"), ("triangle", "triangle"), ("rise", "rise"), ("fall", "fall"),
    ("square", "square"), ("strike", "strike"), ("steps", "random steps"), ("noise", "smooth noise"),
    ("curve", "a drawn curve"),
]  # fmt: skip
PATH_OPTIONS: list[Option] = [
    ("circle", "circle"), ("line", "line"), ("eight", "figure of eight"), ("polygon", "polygon"),
    ("free", "drawn path"),
]  # fmt: skip
PLANE_OPTIONS: list[Option] = [
    ("yoke", "in pan and tilt"), ("floor", "on the floor"), ("upright", "on an upright plane"),
]  # fmt: skip
MUSICAL = [4, 3, 2, 1.5, 1, 2 / 3, 0.5, 1 / 3, 0.25, 0.125, 0.0625]


def number(value: float) -> str:
    """A number as people write it: 60, 0.5, ½ stays a matter of `fraction`.

    >>> number(60.0), number(2.25)
    ('60', '2.25')
    """
    return f"{value:.2f}".rstrip("0").rstrip(".")


def fraction(value: float) -> str:
    """A ratio in musical form: ½, 1, 1½, 1/16, else decimals.

    >>> fraction(0.5), fraction(1 / 16), fraction(3)
    ('½', '1/16', '3')
    """
    exact = Fraction(value).limit_denominator(64)
    if abs(float(exact) - value) > 1e-9:
        return number(value)
    if exact in _FRACTIONS:
        return _FRACTIONS[exact]
    return str(exact)


def rate_text(cycles_per_beat: float) -> str:
    """Cycles per beat in words.

    >>> rate_text(0.25)
    '¼ cycle per beat'
    """
    return f"{fraction(cycles_per_beat)} cycle{'s' if cycles_per_beat > 1 else ''} per beat"


def word(text: str) -> Part:
    """A run of plain words."""
    return {"text": text}


def choice(path: str, value: Any, options: Sequence[Option], label: str) -> Part:
    """A slot that takes one of some values."""
    if not any(option == value for option, _ in options):
        options = [*options, (value, str(value).capitalize())]
    text = next(name for option, name in options if option == value)
    return {
        "slot": path, "kind": "choice", "value": value, "text": text, "label": label,
        "options": [{"value": option, "text": name} for option, name in options],
    }  # fmt: skip


def amount(
    path: str, value: float, label: str, *, unit: str = "", low: float, high: float, step: float = 1.0, text: str = ""
) -> Part:
    """A slot that takes a number between low and high."""
    joined = unit if unit in ("°", "") else f" {unit}"
    return {
        "slot": path, "kind": "number", "value": value, "text": text or number(value) + joined, "label": label,
        "unit": unit, "low": low, "high": high, "step": step, "scale": 1.0,
    }  # fmt: skip


def share(path: str, value: float, label: str, *, low: float = 0.0, high: float = 1.0) -> Part:
    """A slot that takes a share 0…1, shown in percent."""
    part = amount(path, value, label, unit="%", low=low, high=high, step=0.01, text=f"{number(value * 100)} %")
    return part | {"scale": 100.0}


def _stop_list(path: str, stops: list[Doc], what: str) -> Part:
    return {
        "slot": path, "kind": "stops", "value": stops, "label": "Stops",
        "text": f"{len(stops)} {what if len(stops) != 1 else what[:-1]}", "of": what,
        "swatches": [_swatch(s["value"]) for s in stops] if what == "colours" else [],
    }  # fmt: skip


def _swatch(value: Any) -> str:
    """A colour, `base`, or `palette ` and its name."""
    return f"palette {value['palette']}" if isinstance(value, dict) else str(value)


def _waveform(at: str, layer: Doc) -> list[Part]:
    row = attributes.BY_NAME[layer["attribute"]]
    anchor, form = layer["anchor"], layer["form"]
    anchors: list[Option] = [
        ("centred", "centred on its base"), ("above", "above its base"), ("below", "below its base"),
        ("between", "between"),
    ]  # fmt: skip
    options = [*WAVE_OPTIONS, ("stops", "stops")]
    parts = [word("follows"), choice(f"{at}.form", form["shape"], options, "Form")]
    duty = form.get("duty")
    if form["shape"] == "square" or (duty is not None and duty < 1):
        duty = duty if duty is not None else 0.5
        parts += [word("on for"), share(f"{at}.form.duty", duty, "Duty", low=0.01), word("of the cycle")]
    if form["shape"] in ("square", "steps"):
        softness = form.get("softness") or 0.0
        parts += [word("with"), share(f"{at}.form.softness", softness, "Softness"), word("softness")]
    if form["shape"] == "curve":
        points = form.get("points") or []
        parts += [
            word("through"),
            {"slot": f"{at}.form.points", "kind": "curve", "value": points, "text": f"{len(points)} points", "label": "Points"},
        ]
    parts.append(word(","))
    if anchor["kind"] == "between":
        limits: dict[str, Any] = {"unit": row.unit, "low": row.low, "high": row.high}
        return [
            *parts,
            choice(f"{at}.anchor.kind", "between", anchors, "Relation to the base"),
            amount(f"{at}.anchor.low", anchor["low"], "Low", **limits),
            word("and"),
            amount(f"{at}.anchor.high", anchor["high"], "High", **limits),
        ]
    depth = amount(f"{at}.anchor.depth", anchor["depth"], "Depth", unit=row.unit, low=0, high=2 * row.span)
    return [*parts, depth, choice(f"{at}.anchor.kind", anchor["kind"], anchors, "Relation to the base")]


def _path(at: str, layer: Doc, mirrored: bool) -> list[Part]:
    form = layer["form"]
    parts = [word("follows a"), choice(f"{at}.form", form["path"], [*PATH_OPTIONS, ("stops", "kept positions")], "Form")]
    if form["path"] == "polygon":
        parts += [word("of"), amount(f"{at}.form.corners", form["corners"], "Corners", low=3, high=12), word("corners")]
    if form["path"] == "free":
        points = form.get("points") or []
        parts += [
            word("through"),
            {"slot": f"{at}.form.points", "kind": "points", "value": points, "text": f"{len(points)} points", "label": "Points"},
        ]
    on_stage = form["plane"] != "yoke"
    size: dict[str, Any] = {"unit": "m", "low": 0, "high": 20, "step": 0.1} if on_stage else {"unit": "°", "low": 0, "high": 360}
    parts += [word(","), amount(f"{at}.form.width", form["width"], "Width", **size), word("wide")]
    if form["path"] != "line":
        parts += [word("and"), amount(f"{at}.form.height", form["height"], "Height", **size), word("high")]
    parts.append(choice(f"{at}.form.plane", form["plane"], PLANE_OPTIONS, "Where the path lies"))
    if on_stage:
        parts += [word("at"), amount(f"{at}.form.plane_at", form["plane_at"], "Plane", unit="m", low=-20, high=20, step=0.1)]
    if form["rotation"] or form["path"] == "line":
        parts += [word(", turned by"), amount(f"{at}.form.rotation", form["rotation"], "Turn", unit="°", low=-180, high=180)]
    if form["dwell"]:
        parts += [word(", resting for"), share(f"{at}.form.dwell", form["dwell"], "Rest", high=0.9), word("of the time")]
    if mirrored:
        crossing = [(True, "pairs crossing"), (False, "pairs side by side")]
        parts += [word(","), choice(f"{at}.mirror_pan", layer["mirror_pan"], crossing, "Mirrored heads")]
    return parts


def _stops(at: str, layer: Doc, document: Doc) -> list[Part]:
    what = {"colour": "colours", "position": "positions"}.get(layer["attribute"], "values")
    parts: list[Part] = []
    if layer["attribute"] != "colour":
        options = PATH_OPTIONS if layer["attribute"] == "position" else WAVE_OPTIONS
        parts += [word("follows"), choice(f"{at}.form", "stops", [*options, ("stops", "stops")], "Form"), word(",")]
    parts += [word("goes through"), _stop_list(f"{at}.form.stops", layer["form"]["stops"], what)]
    if layer["attribute"] == "colour":
        spaces: list[Option] = [
            ("rgb", "red, green and blue"), ("cmy", "cyan, magenta and yellow"),
            ("hsv-short", "the hue circle, the short way"), ("hsv-long", "the hue circle, the long way"),
            ("oklch", "even steps for the eye"),
        ]  # fmt: skip
        parts += [word("by way of"), choice("colour_space", document["colour_space"], spaces, "Way between colours")]
    return parts


def layer_sentence(document: Doc, index: int) -> list[Part]:
    """Words and slots of one layer."""
    layer, at = document["layers"][index], f"layers.{index}"
    parts = [choice(f"{at}.attribute", layer["attribute"], ATTRIBUTE_OPTIONS, "Attribute")]
    kind = layer["form"]["kind"]
    if kind == "waveform":
        parts += _waveform(at, layer)
    elif kind == "path":
        parts += _path(at, layer, document["lanes"]["mirror"] and document["lanes"]["parts"] > 1)
    else:
        parts += _stops(at, layer, document)
    if layer["ratio"] != 1:
        parts += [word(","), amount(f"{at}.ratio", layer["ratio"], "Times as fast", low=0.0625, high=16, step=0.0625,
                                    text=f"{fraction(layer['ratio'])}×"), word("as fast")]  # fmt: skip
    if layer["start"]:
        parts += [word(", starting at"), amount(f"{at}.start", layer["start"], "Start", unit="°", low=-360, high=360)]
    return [*parts, word(".")]


def _speed(document: Doc) -> list[Part]:
    speed = document["speed"]
    kinds: list[Option] = [("tempo", "tempo"), ("time", "seconds")]
    if speed["kind"] == "time":
        seconds = amount("speed.seconds_per_cycle", speed["seconds_per_cycle"], "Seconds per cycle", unit="s", low=0.05,
                         high=60, step=0.05)  # fmt: skip
        return [word("one cycle in"), seconds, word("(by"), choice("speed.kind", "time", kinds, "Speed by"), word(")")]
    value = speed["cycles_per_beat"]
    musical: list[Option] = [(rate, rate_text(rate)) for rate in MUSICAL]
    if not any(abs(rate - value) < 1e-9 for rate in MUSICAL):
        musical.append((value, rate_text(value)))
    exact = next((rate for rate in MUSICAL if abs(rate - value) < 1e-9), value)
    syncs: list[Option] = [("beat", "on the beat"), ("start", "from its start")]
    return [
        choice("speed.cycles_per_beat", exact, musical, "Speed"),
        word("of"),
        {"slot": "speed.tempo", "kind": "tempo", "value": speed["tempo"], "text": speed["tempo"], "label": "Tempo"},
        choice("speed.sync", speed["sync"], syncs, "Beginning"),
        word("(by"),
        choice("speed.kind", "tempo", kinds, "Speed by"),
        word(")"),
    ]


def spread_sentence(document: Doc) -> list[Part]:
    """Words and slots of what all layers share: spread, order, parts, packs, run and speed."""
    spread, lanes = document["spread"], document["lanes"]
    kinds: list[Option] = [("ripple", "a ripple"), ("relay", "a relay")]
    parts = [word("Spread as"), choice("spread.kind", spread["kind"], kinds, "Spread")]
    travels: list[Option] = [("forward", "first lane first"), ("reverse", "last lane first")]
    if spread["kind"] == "ripple":
        parts += [word("of"), amount("spread.degrees", spread["degrees"], "Spread", unit="°", low=-720, high=720, step=5)]
    else:
        travels.append(("back-and-forth", "there and back"))
        handover = spread["handover"]
        parts += [
            word("with"),
            share("spread.handover", handover, "Handover", low=0.01),
            word("handover"),
            choice("spread.order", spread["order"], [("in-turn", "in turn"), ("shuffled", "shuffled")], "Turns"),
        ]
    parts += [word("over"), amount("lanes.parts", lanes["parts"], "Parts", low=1, high=12)]
    if lanes["parts"] > 1:
        parts.append(choice("lanes.mirror", lanes["mirror"], [(True, "mirrored"), (False, "equal")], "Parts are"))
    parts.append(word("part" if lanes["parts"] == 1 else "parts"))
    parts += [
        word("of the heads"),
        {"slot": "lanes.order", "kind": "order", "value": lanes["order"], "label": "Order",
         "text": ", then ".join(ORDERS[step].label for step in lanes["order"]),
         "options": [{"value": name, "text": one.label} for name, one in ORDERS.items()]},
        word(","),
        amount("lanes.pack", lanes["pack"], "Pack", low=1, high=16,
               text="one by one" if lanes["pack"] == 1 else f"in packs of {lanes['pack']}"),
        word(","),
        choice("lanes.travel", lanes["travel"], travels, "Travel"),
    ]  # fmt: skip
    if lanes["repeat"]:
        parts += [word(", anew every"), amount("lanes.repeat", lanes["repeat"], "Repeat", low=0, high=32)]
    runs: list[Option] = [("forward", "forward"), ("backward", "backward"), ("back-and-forth", "back and forth")]
    parts += [word(". It runs"), choice("run", document["run"], runs, "Run"), word(","), *_speed(document)]
    low, high = document["drift"]
    if (low, high) != (100, 100):
        parts += [
            word(", drifting from"), amount("drift.0", low, "Slowest", unit="%", low=1, high=400), word("to"),
            amount("drift.1", high, "Fastest", unit="%", low=1, high=400),
        ]  # fmt: skip
    if document["ends_after"]:
        parts += [
            word(", and ends after"),
            amount("ends_after", document["ends_after"], "Ends after", low=0, high=64),
            word("cycles"),
        ]
    return [*parts, word(".")]


def effect_sentence(document: Doc) -> dict[str, list[Any]]:
    """Sentences of all layers, and of what they share."""
    return {
        "layers": [layer_sentence(document, index) for index in range(len(document["layers"]))],
        "shared": spread_sentence(document),
    }


def as_text(parts: Sequence[Part]) -> str:
    """A sentence as plain text.

    >>> as_text([word("Spread as"), word("a ripple"), word(".")])
    'Spread as a ripple.'
    """
    text = " ".join(part["text"] for part in parts)
    for sign in (",", ".", ")"):
        text = text.replace(f" {sign}", sign)
    return text.replace("( ", "(")
