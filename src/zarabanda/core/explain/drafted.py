"""What the draft holds, in words: by attribute and by head."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from zarabanda.core.rig import attributes

_COLOUR = attributes.COMPOUND["colour"]


@dataclass(frozen=True)
class Drafted:
    """Values of one attribute (a colour is one) that come from the same: source: a palette, `fan` or `draft`; attributes: plain
    ones; words: from where to where they go, empty for palettes; heads: which have them."""

    label: str
    family: str
    attributes: tuple[str, ...]
    source: str
    words: str
    heads: tuple[str, ...]


def listed(values: Mapping[str, Mapping[str, float]], sources: Mapping[str, Mapping[str, str]]) -> list[Drafted]:
    """Everything set by hand, by attribute in their order and by source. Both by attribute and head."""
    found: list[Drafted] = []
    for attribute in attributes.ATTRIBUTES:
        if attribute.name in _COLOUR[1:]:
            continue
        names = _COLOUR if attribute.name == _COLOUR[0] else (attribute.name,)
        by_source: dict[str, dict[str, None]] = {}
        for name in names:
            for head, source in sources.get(name, {}).items():
                by_source.setdefault(source, {})[head] = None
        label = "Colour" if attribute.name == _COLOUR[0] else attribute.label
        for source, heads in by_source.items():
            each = [values[name][head] for name in names for head in heads if head in values.get(name, {})]
            words = "" if len(names) > 1 or source not in ("draft", "fan") else _range(each, attribute)
            found.append(Drafted(label, attribute.family, names, source, words, tuple(heads)))
    return found


def _range(each: list[float], attribute: attributes.Attribute) -> str:
    """`60 %`, `−20 … 20 °`."""
    if not each:
        return ""
    ends = dict.fromkeys(f"{round(one, 1):g}".replace("-", "−") for one in (min(each), max(each)))
    return f"{' … '.join(ends)} {attribute.unit}".strip()
