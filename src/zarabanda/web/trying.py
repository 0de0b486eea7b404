"""Edits that may be tried first."""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeVar

from sqlalchemy.orm import Session

from .context import browser_id, context

T = TypeVar("T")


def edited(label: str, preview: bool, act: Callable[[Session], T]) -> T:
    """Do something as one edit; or try it on a copy, and leave everything as it is. Gives what it gives, such as what is lost."""
    if preview:
        with context().store.trying() as session:
            return act(session)
    with context().store.edit(browser_id(), label) as session:
        return act(session)
