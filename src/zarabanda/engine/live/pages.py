"""Which page of faders and buttons was asked for, by a button or an action list: browsers show it."""

from __future__ import annotations

from dataclasses import dataclass

from .state import LiveState


@dataclass(frozen=True)
class PageShown:
    """A page that was asked for. number: counts how often one was; holder: by whom, empty: for all."""

    page: int
    number: int
    holder: str


def shown(state: LiveState, page: int, holder: str) -> LiveState:
    """With a page asked for."""
    number = state.page.number + 1 if state.page is not None else 1
    return state.with_(page=PageShown(page, number, holder))
