"""What the draft lies over: home, and what cue lists hold now."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig

from .context import context

Sources = dict[str, dict[str, str]]
"""From what a value comes, in a word, by attribute and head key."""


@dataclass(frozen=True)
class Beneath:
    """The rig with what is beneath the draft as its home, and which list each of these values comes from."""

    rig: Rig
    sources: Sources

    def with_draft(self, drafted: Sources) -> Sources:
        """Sources with those of the draft over them."""
        return {name: {**self.sources.get(name, {}), **drafted.get(name, {})} for name in {**self.sources, **drafted}}


def beneath() -> Beneath:
    """As the engine told it last: the cue that each list is on, the one that went last over the others; faders aside."""
    link = context().link
    rig, lists = link.rig, link.lists
    told = [one for one in (link.state.lists if link.state else ()) if one.id in lists and one.cue in lists[one.id].index]
    home, sources = rig.home.copy(), Sources()
    for one in sorted(told, key=lambda one: one.went_at):
        whose = lists[one.id]
        values = whose.after(whose.index[one.cue or 0]).values
        there = ~np.isnan(values) & rig.heads.has
        if whose.highest_wins:
            lower = (
                attributes.INTENSITY,
                there[attributes.INTENSITY] & (values[attributes.INTENSITY] <= home[attributes.INTENSITY]),
            )
            there[lower] = False
        home[there] = values[there]
        for row, head in np.argwhere(there).tolist():
            sources.setdefault(attributes.ATTRIBUTES[row].name, {})[rig.heads.keys[head]] = whose.name
    return Beneath(replace(rig, home=home) if told else rig, sources)
