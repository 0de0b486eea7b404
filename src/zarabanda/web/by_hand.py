"""Values set by hand: seen on stage while a control moves, one edit when it is let go."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from sqlalchemy.orm import Session

from zarabanda.core.playback import looks
from zarabanda.messages import HeldValues, PreviewValues
from zarabanda.show import repositories

from .context import browser_id, context

Numbers = Mapping[str, Mapping[str, float]]


def numbers(session: Session) -> dict[str, dict[str, float]]:
    """What is set by hand, by attribute and head key, in natural units."""
    return looks.numbers(context().link.rig, repositories.draft.look(session))


def set_by_hand(work: Callable[[Session], None], label: str, *, preview: bool, fade_s: float) -> None:
    """Change values of the draft: one edit; or only seen on stage, until the next one."""
    store, link = context().store, context().link
    if preview:
        revision = link.revision  # as it is before anything is read: the engine leaves out what an edit has overtaken
        with store.reading() as session:
            work(session)
            session.flush()
            shown: HeldValues = repositories.draft.held(session)
            session.rollback()
        link.send(PreviewValues(shown, revision))
        return
    with store.edit(browser_id(), label) as session:
        work(session)
        link.fade_s = fade_s
    link.fade_s = 0.0  # where nothing changed, nothing was sent: the next edit has its own time


def as_it_was() -> None:
    """End what is only seen: on stage is what is kept."""
    link = context().link
    revision = link.revision
    with context().store.reading() as session:
        link.send(PreviewValues(repositories.draft.held(session), revision))
