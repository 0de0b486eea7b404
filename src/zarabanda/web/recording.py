"""The draft into cues: what of it is taken, what is new in it, and from which cue each changed value on stage comes."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.core.playback.cue_list import CueList
from zarabanda.core.playback.looks import held
from zarabanda.core.playback.tracking import Tracked
from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig
from zarabanda.formats.cue_edit import Values
from zarabanda.messages import HeldValues, ListTold, PaletteUse
from zarabanda.show import repositories
from zarabanda.show.tables import DraftEffect

_SAME = 1e-4
_COLOUR = attributes.COMPOUND["colour"]


def drafted(session: Session, families: Collection[str] | None, heads: Collection[str] | None) -> HeldValues:
    """What is set by hand, of some families and on some heads; None: all."""
    chosen = None if heads is None else set(heads)
    found: HeldValues = {}
    for name, values in repositories.draft.held(session).items():
        if families is None or attributes.BY_NAME[name].family in families:
            own = {head: value for head, value in values.items() if chosen is None or head in chosen}
            if own:
                found[name] = own
    return found


def as_document(values: HeldValues) -> Values:
    """As cues keep values."""
    return {
        name: {head: {"palette": one.palette} if isinstance(one, PaletteUse) else one for head, one in heads.items()}
        for name, heads in values.items()
    }


def new_in(session: Session, values: HeldValues, before: Tracked | None, rig: Rig) -> HeldValues:
    """What of some values differs from what holds before; a colour is taken as a whole."""
    if before is None:
        return values
    numbers = held(rig, repositories.draft.look(session, values))
    differs: dict[str, set[str]] = {}
    for name, heads in values.items():
        row = attributes.INDEX[name]
        for head, value in heads.items():
            number = rig.heads.index.get(head)
            if number is None:
                continue
            palette = value.palette if isinstance(value, PaletteUse) else -1
            there = float(before.values[row, number])
            same = palette == int(before.palettes[row, number]) and abs(float(numbers[row, number]) - there) < _SAME
            if not same:
                differs.setdefault(name, set()).add(head)
    whole = set[str]().union(*(differs.get(name, set()) for name in _COLOUR))
    for name in _COLOUR:
        differs[name] = whole
    found = {
        name: {head: value for head, value in heads.items() if head in differs.get(name, ())} for name, heads in values.items()
    }
    return {name: heads for name, heads in found.items() if heads}


def effects_of_draft(session: Session, list_id: int, whose: CueList | None, before: int | None) -> list[dict[str, Any]]:
    """Starts of the effects that run in the draft, without those that run in the list after the cue at a place already."""
    drafted = session.scalars(select(DraftEffect).order_by(DraftEffect.id)).all()
    if not drafted:
        return []
    changes = [one for row in repositories.cues.outlines(session, list_id) for one in row.document.get("effects", ())]
    there = whose.effects_after(before) if whose is not None and before is not None else {}
    running = {(one["effect"], tuple(one["heads"])) for one in changes if one["do"] == "start" and one["thread"] in there}
    fresh = [one for one in drafted if (one.effect_id, tuple(one.heads)) not in running]
    last = max((one["thread"] for one in changes), default=0)
    return [
        {"do": "start", "thread": last + n, "effect": one.effect_id, "heads": list(one.heads)} for n, one in enumerate(fresh, 1)
    ]


Origin = tuple[int, int, int]
"""List, the cue that values come from, and the cue that the list is on."""


def origins(
    values: HeldValues, lists: Mapping[int, CueList], told: Collection[ListTold], rig: Rig
) -> tuple[dict[Origin, HeldValues], HeldValues]:
    """Values set by hand by the cue that each value on stage beneath them comes from; and those that come from none.

    Of lists that hold the same value the one that went last counts.
    """
    on = [(lists[one.id], one.cue, one.went_at) for one in told if one.id in lists and one.cue in lists[one.id].index]
    tracked = [(whose, whose.index[cue], whose.after(whose.index[cue])) for whose, cue, _ in sorted(on, key=lambda one: -one[2])]
    found: dict[Origin, HeldValues] = {}
    loose: HeldValues = {}
    for name, heads in values.items():
        row = attributes.INDEX[name]
        for head, value in heads.items():
            number = rig.heads.index.get(head)
            for whose, place, state in tracked if number is not None else ():
                source = int(state.source[row, number])
                if source >= 0:
                    origin = (whose.id, whose.cues[source].id, whose.cues[place].id)
                    found.setdefault(origin, {}).setdefault(name, {})[head] = value
                    break
            else:
                loose.setdefault(name, {})[head] = value
    return found, loose
