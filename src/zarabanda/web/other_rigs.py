"""Rigs that a show can go to: ready ones, and those of the other shows of the library."""

from __future__ import annotations

from functools import lru_cache
from pathlib import Path

from zarabanda.demo import touring
from zarabanda.errors import NotThere
from zarabanda.shelf import parts
from zarabanda.shelf.library import Library
from zarabanda.show.rerig import rigs
from zarabanda.stock.kinds import plain_kinds
from zarabanda.stock.rigs import READY, ready_rig

TOURING = "touring"


def every(library: Library) -> list[tuple[str, str, int]]:
    """Number, name and lights of each, the touring rig of the demo first."""
    found = [(f"ready:{TOURING}", touring.NAME, len(touring.fixtures()))]
    found += [(f"show:{one.id}", f"the rig of {one.name}", one.fixtures) for one in library.every()
              if one.id != library.open_id and one.fixtures]  # fmt: skip
    return found + [(f"ready:{name}", f"a ready rig: {name}", len(ready_rig(name))) for name in READY]


def rig_of(identity: str, library: Library) -> rigs.RigRows:
    """One of them. NotThere where there is none of this number."""
    kind, _, name = identity.partition(":")
    if kind == "show":
        path = library.path(name)
        return _of_file(path, path.stat().st_mtime_ns)
    if name == TOURING:
        return rigs.of_documents(touring.fixtures(), touring.modes(), touring.CALLED)
    if name not in READY:
        raise NotThere(f"There is no ready rig “{name}”. Choose one of the list.", "rig")
    return rigs.of_documents(ready_rig(name), plain_kinds())


@lru_cache(maxsize=4)
def _of_file(path: Path, changed: int) -> rigs.RigRows:
    with parts.source_of(path) as rows:
        return rigs.of_tables(rows)
