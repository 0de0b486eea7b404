"""What blueprints need of the running application."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import cast

from flask import current_app, g

from zarabanda.show.store import Store

from .link import EngineLink


@dataclass(frozen=True)
class Context:
    """The data folder, the store and the link to the engine."""

    data: Path
    store: Store
    link: EngineLink


def context() -> Context:
    """Of the application that handles this request."""
    return cast(Context, current_app.extensions["zarabanda"])


def browser_id() -> str:
    """Which browser asks: each undoes its own edits."""
    return cast(str, g.browser)
