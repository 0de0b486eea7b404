"""Values set by hand: seen on stage while a control moves, one edit when it is let go."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from sqlalchemy.orm import Session

from zarabanda.core.playback import looks
from zarabanda.messages import HeldValues, PreviewValues
from zarabanda.show import repositories
from zarabanda.show.repositories.draft import Wanted

from .context import browser_id, context

Changes = Mapping[str, Mapping[str, Wanted]]
"""Values by attribute and head key; None takes one back."""


class DraftNow:
    """What is set by hand, read once: by attribute and head key."""

    def __init__(self, session: Session) -> None:
        self.session, self.held = session, repositories.draft.held(session)

    def numbers(self, *names: str) -> dict[str, dict[str, float]]:
        """Of these attributes (none: of all), in natural units."""
        held = {name: self.held[name] for name in names or self.held if name in self.held}
        return looks.numbers(context().link.rig, repositories.draft.look(self.session, held))


def set_by_hand(changes: Callable[[DraftNow], Changes], label: str, *, preview: bool, fade_s: float) -> None:
    """Change values of the draft: one edit; or only seen on stage, until the next one."""
    link = context().link
    if preview:
        return show(changes)
    with context().store.edit(browser_id(), label) as session:
        repositories.draft.set_values(session, changes(DraftNow(session)))
        link.fade_s = fade_s
    link.fade_s = 0.0  # where nothing changed, nothing was sent: the next edit has its own time


def show(changes: Callable[[DraftNow], Changes] = lambda drafted: {}) -> None:
    """Let the draft be seen with changes, until the next edit; without any, as it is kept."""
    link = context().link
    revision = link.revision  # as it is before anything is read: the engine leaves out what an edit has overtaken
    with context().store.reading() as session:
        drafted = DraftNow(session)
        wanted, held = changes(drafted), drafted.held
    repositories.draft.check(wanted)
    seen: HeldValues = dict(held)
    for name, values in wanted.items():
        merged = {**held.get(name, {}), **values}
        seen[name] = {head: value for head, value in merged.items() if value is not None}
    link.send(PreviewValues(seen, revision))
