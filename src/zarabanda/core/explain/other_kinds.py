"""What is different where lights of another kind take over, in words."""

from __future__ import annotations

from collections.abc import Iterator

from zarabanda.core.rig import attributes
from zarabanda.core.rig.modes import ModeSpec

COLOUR_BY = {
    "none": "nothing",
    "rgb": "red, green and blue",
    "rgbw": "red, green, blue and white",
    "rgbaw": "red, green, blue, amber and white",
    "cmy": "cyan, magenta and yellow",
    "hue-saturation": "hue and saturation",
    "wheel": "a colour wheel",
    "warm-cold": "warm and cold white",
}
"""What makes the colour of a kind, in words."""


def range_of(mode: ModeSpec, name: str) -> tuple[float, float]:
    """The least and the largest value of an attribute that a mode can do, in its unit."""
    if name in mode.limits:
        return mode.limits[name][:2]
    ends = [channel.ends for channel in mode.channels if channel.source == name]
    row = attributes.BY_NAME[name]
    return (min(low for low, _ in ends), max(high for _, high in ends)) if ends else (row.low, row.high)


def differences(was: ModeSpec, now: ModeSpec) -> Iterator[str]:
    """Sentences: what the one can and the other cannot, ranges that are narrower, colours that are made otherwise, cells."""
    had, has = ({name for part in mode.parts for name in mode.attributes_of(part)} for mode in (was, now))
    for name in (row.name for row in attributes.ATTRIBUTES if row.name in had - has):
        yield f"No {attributes.BY_NAME[name].label.lower()} any more."
    for row in attributes.ATTRIBUTES:
        if row.name in had & has and row.unit not in ("slot", "") and row.family in ("position", "beam"):
            (low, high), (new_low, new_high) = range_of(was, row.name), range_of(now, row.name)
            if new_low > low + 1e-9 or new_high < high - 1e-9:
                unit = row.unit if row.unit == "°" else f" {row.unit}"
                yield f"{row.label} goes {new_low:g} to {new_high:g}{unit}, not {low:g} to {high:g}{unit}: limited."
    if "red" in had & has and was.emitters != now.emitters:
        nearest = (
            "each colour becomes that of its nearest slot"
            if now.emitters == "wheel"
            else "colours are kept as near as they can be"
        )
        yield f"Colours by {COLOUR_BY[now.emitters]} instead of {COLOUR_BY[was.emitters]}: {nearest}."
    if len(was.cells) != len(now.cells):
        yield f"{len(was.cells) or 'No'} cells become {len(now.cells) or 'one light'}."
