"""Random effect documents within their ranges, for properties."""

from __future__ import annotations

from typing import Any

from hypothesis import strategies as st

from zarabanda.core import attributes, lanes, waveforms

Doc = dict[str, Any]
SHARES = st.floats(0, 1)
WAVE_ATTRIBUTES = ["intensity", "pan", "tilt", "zoom", "hue", "saturation", "red"]


def _level(attribute: str) -> st.SearchStrategy[float]:
    row = attributes.BY_NAME[attribute]
    return st.floats(row.low, row.high)


@st.composite
def waveform_layers(draw: st.DrawFn, shapes: tuple[str, ...] = waveforms.ALL_SHAPES) -> Doc:
    attribute = draw(st.sampled_from(WAVE_ATTRIBUTES))
    form: Doc = {"kind": "waveform", "shape": draw(st.sampled_from(shapes)), "duty": draw(st.floats(0.05, 1))}
    form["softness"] = draw(SHARES)
    if form["shape"] == "curve":
        phases = sorted(draw(st.sets(st.integers(0, 100), min_size=1, max_size=6)))
        form["points"] = [(phase / 100, draw(SHARES)) for phase in phases]
        form["interpolation"] = draw(st.sampled_from(["linear", "smooth"]))
    kind = draw(st.sampled_from(["centred", "above", "below", "between"]))
    anchor: Doc = {"kind": kind, "depth": draw(st.floats(0, 2 * attributes.BY_NAME[attribute].span))}
    if kind == "between":
        anchor = {"kind": kind, "low": draw(_level(attribute)), "high": draw(_level(attribute))}
    return {"attribute": attribute, "form": form, "anchor": anchor}


@st.composite
def stops_layers(draw: st.DrawFn) -> Doc:
    attribute = draw(st.sampled_from(["colour", "intensity", "hue", "pan", "position"]))
    stops = []
    for _ in range(draw(st.integers(1, 4))):
        value: Any = draw(st.sampled_from(["base", {"palette": "Coral"}, {"palette": "Crowd"}]))
        if attribute == "colour" and draw(st.booleans()):
            value = draw(st.from_regex(r"#[0-9a-f]{6}", fullmatch=True))
        elif attribute not in ("colour", "position"):
            value = draw(_level(attribute))
        ease = draw(st.sampled_from(["linear", "smooth", "snap"]))
        stops.append({"value": value, "travel": draw(st.floats(0, 4)), "hold": draw(st.floats(0.01, 4)), "ease": ease})
    return {"attribute": attribute, "form": {"kind": "stops", "stops": stops, "long_way": draw(st.booleans())}}


@st.composite
def path_layers(draw: st.DrawFn) -> Doc:
    name = draw(st.sampled_from(["circle", "line", "eight", "polygon", "free"]))
    form: Doc = {"kind": "path", "path": name, "width": draw(st.floats(0, 180)), "height": draw(st.floats(0, 90))}
    form |= {"rotation": draw(st.floats(-180, 180)), "corners": draw(st.integers(3, 8)), "dwell": draw(st.floats(0, 0.9))}
    if name == "free":
        points = st.tuples(st.floats(-1, 1), st.floats(-1, 1))
        form["points"] = draw(st.lists(points, min_size=3, max_size=6))
    return {"attribute": "position", "form": form, "mirror_pan": draw(st.booleans())}


@st.composite
def spreads(draw: st.DrawFn) -> Doc:
    if draw(st.booleans()):
        return {"kind": "ripple", "degrees": draw(st.floats(-720, 720)), "fit": draw(st.sampled_from(["closed", "end-to-end"]))}
    return {
        "kind": "relay", "handover": draw(st.floats(0.01, 1)), "order": draw(st.sampled_from(["in-turn", "shuffled"])),
        "speed_counts": draw(st.sampled_from(["turns", "circuits"])),
    }  # fmt: skip


@st.composite
def effects(draw: st.DrawFn, layers: st.SearchStrategy[Doc] | None = None) -> Doc:
    """Any effect document that is within its ranges."""
    spread = draw(spreads())
    travels = ["forward", "reverse", *(["back-and-forth"] if spread["kind"] == "relay" else [])]
    every = st.one_of(waveform_layers(), stops_layers(), path_layers()) if layers is None else layers
    count = draw(st.integers(1, 3))
    made = []
    for _ in range(count):
        layer = draw(every)
        made.append({**layer, "ratio": draw(st.sampled_from([0.25, 0.5, 1, 2, 3])), "start": draw(st.floats(-360, 360))})
    low = draw(st.sampled_from([100.0, 100.0, 60.0]))
    return {
        "name": "any", "seed": draw(st.integers(0, 1000)), "layers": made, "spread": spread,
        "colour_space": draw(st.sampled_from(["rgb", "cmy", "hsv-short", "hsv-long", "oklch"])),
        "run": draw(st.sampled_from(["forward", "backward", "back-and-forth"])),
        "drift": (low, 100.0 if low == 100 else 150.0),
        "lanes": {
            "order": [draw(st.sampled_from(sorted(lanes.ORDERS)))], "parts": draw(st.integers(1, 4)),
            "mirror": draw(st.booleans()), "pack": draw(st.integers(1, 3)), "repeat": draw(st.integers(0, 4)),
            "travel": draw(st.sampled_from(travels)),
        },
    }  # fmt: skip
