"""How a show can begin: empty, on a ready rig, or as the demo."""

from __future__ import annotations

from pathlib import Path

from zarabanda.show import repositories
from zarabanda.show.store import Store
from zarabanda.stock.rigs import ready_rig

from . import salt_light
from .timelines import songs_made

DEMO, DEMO_NAME = "demo", "Salt Light"


def begin(path: Path, name: str, how: str, data: Path) -> None:
    """Make a show's file at a path: see `fill`."""
    store = Store(path)
    try:
        fill(store, name, how, data)
    finally:
        store.close()


def fill(store: Store, name: str, how: str, data: Path) -> None:
    """Make a show in an empty store. how: empty, the name of a ready rig, or `demo`; data: the folder of its media."""
    if how == DEMO:
        salt_light.build(store, songs_made(data))
        with store.edit("setup", "Name the show") as session:
            repositories.rows.show(session).name = name
        return
    with store.edit("setup", "New show") as session:
        salt_light.new_show(session, name)
        if how:
            repositories.rig.add(session, ready_rig(how))
            repositories.groups.for_all_kinds(session)
