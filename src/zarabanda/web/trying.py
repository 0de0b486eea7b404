"""Edits that may be tried first."""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeVar

from sqlalchemy.orm import Session

from .context import browser_id, context

T = TypeVar("T")


def edited(label: str, preview: bool, act: Callable[[Session], T]) -> T:
    """Do something as one edit; or try it and leave everything as it is. Gives what it gives, such as what is lost, in words."""
    if preview:
        with context().store.reading() as session:
            found = act(session)
            session.rollback()
        return found
    with context().store.edit(browser_id(), label) as session:
        return act(session)
