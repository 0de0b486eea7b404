"""Questions and changes in the words of the show, by subject. Changes take the session of an edit (`Store.edit`)."""

from . import (
    action_lists,
    busk,
    cues,
    devices,
    draft,
    effects,
    groups,
    looks,
    messages,
    pages,
    palettes,
    pixels,
    rig,
    routes,
    rows,
    specials,
    tempos,
    timeline_events,
    timelines,
)

__all__ = [
    "action_lists", "busk", "cues", "devices", "draft", "effects", "groups", "looks", "messages", "pages", "palettes", "pixels",
    "rig", "routes", "rows", "specials", "tempos", "timeline_events", "timelines",
]  # fmt: skip
