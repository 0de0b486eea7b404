"""What is on stage, in words: for whoever is about to end it."""

from __future__ import annotations

from zarabanda.messages import State


def on_stage_in_words(state: State | None) -> str:
    """What runs now and would end; empty: nothing does."""
    if state is None:
        return ""
    counts = (
        (len(state.running), "effect"), (sum(one.cue is not None for one in state.lists), "cue list"),
        (len(state.pixels), "pixel map"), (len(state.songs), "song"), (len(state.looks), "look"),
        (sum(one.share > 0 for one in state.overlays), "overlay"),
    )  # fmt: skip
    parts = [f"{number} {what}{'s' if number > 1 else ''}" for number, what in counts if number]
    return f"{', '.join(parts[:-1])} and {parts[-1]}" if len(parts) > 1 else "".join(parts)
