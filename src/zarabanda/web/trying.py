"""Edits that may be tried first."""

from __future__ import annotations

from collections.abc import Callable

from sqlalchemy.orm import Session

from .context import browser_id, context


def edited(label: str, preview: bool, act: Callable[[Session], list[str]]) -> list[str]:
    """Do something as one edit; or try it and leave everything as it is. What it gives: what is lost, in words."""
    if preview:
        with context().store.reading() as session:
            lost = act(session)
            session.rollback()
        return lost
    with context().store.edit(browser_id(), label) as session:
        return act(session)
