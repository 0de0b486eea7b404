"""Effects of our own making that come with every new show: each fits any number of heads."""

from __future__ import annotations

from typing import Any

Doc = dict[str, Any]


def wave(attribute: str, shape: str, kind: str = "above", depth: float = 60, **more: Any) -> Doc:
    """A waveform layer around, above or below the base."""
    form: Doc = {"kind": "waveform", "shape": shape}
    form |= {key: more.pop(key) for key in ("duty", "softness", "points", "interpolation") if key in more}
    return {"attribute": attribute, "form": form, "anchor": {"kind": kind, "depth": depth}, **more}


def between(attribute: str, shape: str, low: float, high: float, **more: Any) -> Doc:
    """A waveform layer between two values."""
    layer = wave(attribute, shape, **more)
    return {**layer, "anchor": {"kind": "between", "low": low, "high": high}}


def path(name: str, width: float, height: float, **more: Any) -> Doc:
    """A path of pan and tilt."""
    form = {key: more.pop(key) for key in ("rotation", "corners", "points", "dwell") if key in more}
    return {"attribute": "position", "form": {"kind": "path", "path": name, "width": width, "height": height, **form}, **more}


def colours(*stops: str, travel: float = 1, hold: float = 0, ease: str = "smooth", **more: Any) -> Doc:
    """Colours one after another."""
    every = [{"value": stop, "travel": travel, "hold": hold, "ease": ease} for stop in stops]
    return {"attribute": "colour", "form": {"kind": "stops", "stops": every}, **more}


def effect(name: str, tags: str, *layers: Doc, rate: float = 0.25, **more: Any) -> Doc:
    """An effect document on the tempo `tempo`."""
    speed = {"kind": "tempo", "tempo": more.pop("tempo", "Movement"), "cycles_per_beat": rate, "sync": "beat"}
    return {"format": "zarabanda.effect/1", "name": name, "tags": tags.split(), "speed": speed, "layers": list(layers), **more}


def mirrored(order: str = "left-to-right", **more: Any) -> Doc:
    """Two mirrored parts."""
    return {"order": [order], "parts": 2, "mirror": True, **more}


def relay(handover: float = 1.0, **more: Any) -> Doc:
    """Taking turns."""
    return {"kind": "relay", "handover": handover, **more}


def ripple(degrees: float = 360, **more: Any) -> Doc:
    """A wave over the lanes."""
    return {"kind": "ripple", "degrees": degrees, **more}


LIBRARY: tuple[Doc, ...] = (
    effect("Tide fold", "mixed calm", path("circle", 40, 18), between("intensity", "swell", 12, 90),
           colours("#0a3cff", "#18c8e0", "#7a5cff"), lanes=mirrored(), rate=0.125),
    effect("Undertow", "intensity wave", wave("intensity", "fall", depth=80), lanes=mirrored("left-to-right"), rate=0.5,
           tempo="Level"),
    effect("Saltstep", "intensity chase", between("intensity", "strike", 6, 100), spread=relay(0.25), rate=2,
           tempo="Level", lanes={"order": ["left-to-right"]}),
    effect("Slow lantern", "colour calm", colours("#ff7a18", "#ff2d1a", "#ffb347", "#c2185b"),
           between("intensity", "noise", 18, 55), spread=ripple(360), rate=0.0625, tempo="Colour"),
    effect("Brine", "colour calm", colours("#00e5a0", "#006eff", "#00b3ff", "#003a52"),
           between("intensity", "swell", 10, 60, ratio=2), spread=ripple(720), rate=0.0625, tempo="Colour",
           lanes={"order": ["left-to-right"]}),
    effect("Spark field", "intensity random", between("intensity", "steps", 0, 100, duty=0.4), rate=1, tempo="Level",
           lanes={"order": ["shuffled"]}),
    effect("Ember drift", "intensity calm random", between("intensity", "noise", 10, 70), rate=0.5, tempo="Level",
           drift=[60, 160]),
    effect("Two moons", "colour hold", colours("#ff2a4d", "#1a6bff", travel=0.25, hold=1), rate=0.25, tempo="Colour",
           spread=ripple(180), lanes={"order": ["odd-then-even"], "parts": 2}),
    effect("Rainbow walk", "colour", colours("#ff0000", "#ffff00", "#00ff00", "#00ffff", "#0000ff", "#ff00ff",
           ease="linear"), rate=0.125, tempo="Colour"),
    effect("Wide circle", "position", path("circle", 60, 30), spread=ripple(360), rate=0.25),
    effect("Crossing eights", "position", path("eight", 50, 24), lanes=mirrored(), spread=ripple(180), rate=0.25),
    effect("Tilt swell", "position", wave("tilt", "sine", "centred", 40), spread=ripple(360), rate=0.5),
    effect("Fan breath", "position calm", wave("pan", "sine", "centred", 50), spread=ripple(180, fit="end-to-end"), rate=0.125),
    effect("Square dance", "position steps", path("polygon", 50, 30, corners=4, dwell=0.6), spread=ripple(0), rate=0.25),
    effect("Zoom pulse", "beam", wave("zoom", "strike", "above", 22), spread=ripple(0), rate=1, tempo="Zoom"),
    effect("Zoom tide", "beam calm", wave("zoom", "swell", "above", 25), lanes=mirrored(), rate=0.25, tempo="Zoom"),
    effect("Heartbeat", "intensity pulse", wave("intensity", "curve", "above", 85, interpolation="linear",
           points=[[0, 0], [0.06, 1], [0.2, 0.1], [0.28, 0.7], [0.5, 0], [1, 0]]), spread=ripple(0), rate=0.5, tempo="Level"),
    effect("Runaway pairs", "intensity chase", between("intensity", "square", 0, 100, softness=0.4),
           spread=relay(0.5), lanes=mirrored(travel="reverse"), rate=2, tempo="Level"),
    effect("Searchlights", "position random calm", wave("pan", "noise", "centred", 120),
           wave("tilt", "noise", "centred", 50, ratio=0.75),
           rate=0.25, seed=7),
    effect("Lamplighter", "intensity relay", between("intensity", "swell", 0, 100),
           spread=relay(0.5), lanes={"order": ["left-to-right"], "travel": "back-and-forth"}, rate=1, tempo="Level"),
    effect("Curtain call", "intensity wave", between("intensity", "rise", 0, 100, duty=0.7),
           spread=ripple(270, fit="end-to-end"), lanes={"order": ["ends-in"]}, rate=0.25, tempo="Level"),
    effect("Salt pans", "colour calm", colours("#e8fff4", "#7fe0c8", "#2aa7c9", travel=1, hold=0.5), rate=0.0625, tempo="Colour",
           lanes={"order": ["centre-out"]}),
    effect("Hue compass", "colour wave", colours("#ff8000", "base"), wave("hue", "sine", "centred", 70),
           rate=0.125, tempo="Colour", spread=ripple(360)),
    effect("Night ferry", "mixed calm", path("line", 70, 0, rotation=8), between("intensity", "sine", 20, 80),
           spread=ripple(180, fit="end-to-end"), rate=0.0625),
    effect("Flare pairs", "intensity pulse", between("intensity", "strike", 4, 100),
           lanes={"order": ["odd-then-even"], "pack": 2}, spread=ripple(180), rate=0.5, tempo="Level"),
    effect("Spinning top", "position", path("circle", 24, 24), run="backward", spread=ripple(720), rate=0.5),
    effect("Star walk", "position steps", path("polygon", 70, 36, corners=5, dwell=0.3), spread=ripple(360),
           lanes=mirrored("centre-out"), rate=0.125),
    effect("Driftwood", "position calm random",
           path("free", 46, 22, points=[[-1, -0.4], [-0.2, 0.8], [0.5, -0.3], [1, 0.7], [0.3, -1]]),
           drift=[70, 140], spread=ripple(300), rate=0.125),
    effect("Tilt steps", "position steps", wave("tilt", "steps", "centred", 44, softness=0.15), spread=ripple(0),
           rate=0.5, seed=11),
    effect("Iris wink", "beam pulse", wave("iris", "triangle", "below", 70, duty=0.5), spread=ripple(360), rate=0.5,
           tempo="Zoom"),
    effect("Frost breath", "beam calm", wave("frost", "swell", "above", 60), spread=ripple(120), rate=0.125, tempo="Zoom"),
    effect("Lantern relay", "mixed relay", between("intensity", "swell", 0, 100), colours("#ffd27a", "#ff5a1f", ease="linear"),
           spread=relay(0.4, speed_counts="circuits"), lanes={"order": ["left-to-right"]}, rate=0.125, tempo="Level"),
    effect("Shuffle step", "intensity relay random", between("intensity", "fall", 0, 100),
           spread=relay(0.5, order="shuffled"), rate=2, tempo="Level", seed=3),
    effect("Bright tide", "intensity calm", between("intensity", "swell", 35, 100), spread=ripple(90),
           lanes=mirrored("centre-out"), rate=0.125, tempo="Level"),
    effect("Pastel fade", "colour calm", colours("#ffd6e0", "#cde7ff", "#e3ffd6", "#fff0c9", travel=1, hold=1), rate=0.03125,
           tempo="Colour", colour_space="oklch", spread=ripple(0)),
)  # fmt: skip
