"""What blueprints need of the running application."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from pathlib import Path
from typing import cast

from flask import current_app, g

from zarabanda.errors import Busy
from zarabanda.shelf.library import Library
from zarabanda.show.store import Store
from zarabanda.workers import Troubles

from .hearing import Hearing
from .jobs import Jobs
from .keeping import Keeping
from .link import EngineLink
from .processes import Meter


class Turns:
    """Lets so many in at once; the others wait, and are refused when that takes too long."""

    def __init__(self, at_once: int, wait_s: float) -> None:
        self._places, self._wait_s = threading.BoundedSemaphore(at_once), wait_s

    @contextmanager
    def turn(self) -> Iterator[None]:
        """Wait for one."""
        if not self._places.acquire(timeout=self._wait_s):
            raise Busy("Too much is asked for at once. Try again in a moment.")
        try:
            yield
        finally:
            self._places.release()


@dataclass(frozen=True)
class Context:
    """The data folder, its library of shows, the store of the open one, the links to engine and listener, what keeps copies,
    what measures processes, and who may make a weave."""

    data: Path
    library: Library
    store: Store
    link: EngineLink
    hearing: Hearing
    keeping: Keeping
    meter: Meter = field(default_factory=Meter)
    steps: dict[str, int] = field(default_factory=dict)
    """The newest change that was kept, by browser."""
    jobs: Jobs = field(default_factory=Jobs)
    weaves: Turns = field(default_factory=lambda: Turns(at_once=2, wait_s=10.0))


def opened(data: Path) -> Context:
    """Of a data folder, on its open show; nothing is sent or looked for yet."""
    troubles = Troubles()
    library = Library(data).adopted()
    store = Store(library.open_path, troubles)
    link = EngineLink(data, store, troubles, library.open_id)
    store.on_edit = link.edited
    return Context(data, library, store, link, Hearing(data, link, troubles), Keeping(library, store, link, troubles))


def context() -> Context:
    """Of the application that handles this request."""
    return cast(Context, current_app.extensions["zarabanda"])


def browser_id() -> str:
    """Which browser asks: each undoes its own edits."""
    return cast(str, g.browser)
