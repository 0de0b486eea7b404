"""Random effect documents within their ranges, for properties."""

from __future__ import annotations

from typing import Any

from hypothesis import strategies as st

from zarabanda.core.effects import waveforms
from zarabanda.core.rig import attributes
from zarabanda.core.selection import orders

Doc = dict[str, Any]
SHARES = st.floats(0, 1)
WAVE_ATTRIBUTES = ["intensity", "pan", "tilt", "zoom", "hue", "saturation", "red"]
EASES = ["linear", "smooth", "snap"]
PALETTES: Doc = {
    "Coral": {"values": {"red": 1.0, "green": 0.25, "blue": 0.2}},
    "Crowd": {"values": {"tilt": -50.0}, "own": {"2": {"pan": 30.0, "tilt": -40.0}}},
}
"""What the stops of random effects may go to: values for all heads, and those of single heads."""


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
    attribute = draw(st.sampled_from(["colour", "intensity", "hue", "saturation", "pan", "position"]))
    some_ease, all_fixed, stops = draw(st.sampled_from([*EASES, None])), draw(st.booleans()), []
    for _ in range(draw(st.integers(1, 14))):
        value: Any = draw(st.sampled_from(["base", {"palette": "Coral"}, {"palette": "Crowd"}]))
        relative = False
        if attribute == "colour" and (all_fixed or draw(st.booleans())):
            value = draw(st.from_regex(r"#[0-9a-f]{6}", fullmatch=True))
        elif attribute not in ("colour", "position"):
            relative = draw(st.booleans())
            value = draw(_level(attribute))
        travel, hold = draw(st.sampled_from([(1, 0), (0, 1), (1, 1), (0.5, 2)]) | st.tuples(st.floats(0, 4), st.floats(0.01, 4)))
        stops.append({"value": value, "travel": travel, "hold": hold, "ease": some_ease or draw(st.sampled_from(EASES))})
        if relative:
            stops[-1]["relative"] = True
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
def spreads(draw: st.DrawFn, of: str | None = None) -> Doc:
    if of == "ripple" or (of is None and draw(st.booleans())):
        return {"kind": "ripple", "degrees": draw(st.floats(-720, 720)), "fit": draw(st.sampled_from(["closed", "end-to-end"]))}
    return {
        "kind": "relay", "handover": draw(st.floats(0.01, 1)), "order": draw(st.sampled_from(["in-turn", "shuffled"])),
        "speed_counts": draw(st.sampled_from(["turns", "circuits"])),
    }  # fmt: skip


@st.composite
def effects(draw: st.DrawFn, layers: st.SearchStrategy[Doc] | None = None, *, apart: bool = False) -> Doc:
    """Any effect document that is within its ranges. apart: some layers have a spread, and some heads ways, of their own."""
    spread = draw(spreads())
    travels = ["forward", "reverse", *(["back-and-forth"] if spread["kind"] == "relay" else [])]
    every = st.one_of(waveform_layers(), stops_layers(), path_layers()) if layers is None else layers
    count = draw(st.integers(1, 3))
    made = []
    for _ in range(count):
        layer = draw(every)
        made.append({**layer, "ratio": draw(st.sampled_from([0.25, 0.5, 1, 2, 3])), "start": draw(st.floats(-360, 360))})
        if apart and draw(st.integers(0, 4)) == 0:
            made[-1]["spread"] = draw(spreads(of=spread["kind"]))
    low = draw(st.sampled_from([100.0, 100.0, 60.0]))
    own = st.fixed_dictionaries({"offset": st.floats(-180, 180), "depth": st.floats(0, 2), "left_out": st.booleans()})
    return {
        "name": "any", "seed": draw(st.integers(0, 1000)), "layers": made, "spread": spread,
        "colour_space": draw(st.sampled_from(["rgb", "cmy", "hsv-short", "hsv-long", "oklch"])),
        "run": draw(st.sampled_from(["forward", "backward", "back-and-forth"])),
        "drift": (low, 100.0 if low == 100 else 150.0),
        "lanes": {
            "order": [draw(st.sampled_from(sorted(orders.ORDERS)))], "parts": draw(st.integers(1, 4)),
            "mirror": draw(st.booleans()), "pack": draw(st.integers(1, 3)), "repeat": draw(st.integers(0, 4)),
            "travel": draw(st.sampled_from(travels)),
        },
        "own": draw(st.dictionaries(st.sampled_from(["1", "3"]), own, max_size=2) if apart else st.just({})),
    }  # fmt: skip
