"""A show taken over to other lights, in one edit: tried first, and told row by row."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.core.explain.other_kinds import differences, range_of
from zarabanda.core.rig.modes import ModeSpec
from zarabanda.errors import ZarabandaError, brief

from ..head_keys import PLACES, Place
from ..repositories import rig as rigs_of_show
from ..tables import ControlRow, CueListRow, CueRow, DraftFan, DraftValue, Fixture, Group, Mode, Page, PaletteRow, PixelMapRow
from . import groups
from .following import Follow
from .pairs import Heads, Pair, common, heads_of
from .report import CALLED, Report, Told, heads_in_words
from .rigs import RigRows, of_session


def to_other_rig(session: Session, after: RigRows, pairs: Sequence[Pair], *, aims: bool = True) -> Report:
    """Let the show have another rig, and everything in it follow. What no pair has goes with its lights."""
    before = of_session(session)
    heads = _checked(pairs, before, after)
    lists = dict.fromkeys(before.keys, ()) | dict(heads.lists)
    follow = Follow(replace(heads, lists=lists), before, after, aims=aims)
    told = [*_fixtures(session, before, after), *groups.to_other(session, after, pairs, follow)]
    told += _followed(session, follow, pairs, before, after)
    told += groups.rows_of(session, told)
    return _report(told, pairs, before, after)


def within(session: Session, pairs: Sequence[Pair], *, aims: bool = True) -> Report:
    """Let groups of the show take over from others. All lights stay; those that took over do what they did before only where the
    others did nothing."""
    before = of_session(session)
    heads = _checked(pairs, before, before)
    follow = Follow(heads, before, before, aims=aims)
    told = _followed(session, follow, pairs, before, before)
    told += groups.regrouped(session, {one.source.group: one.target.group for one in pairs if one.target})
    return _report(told, pairs, before, before)


def _checked(pairs: Sequence[Pair], before: RigRows, after: RigRows) -> Heads:
    """What becomes of heads. ZarabandaError where nothing would take over, or a pair has nothing in common."""
    if not any(pair.target for pair in pairs):
        raise ZarabandaError("No lights take over. Choose which group takes over from which.", "pairs")
    for pair in pairs:
        if pair.target is not None and not common(pair, before, after):
            raise ZarabandaError(
                f"“{brief(pair.target.name, 60)}” can do nothing of what “{brief(pair.source.name, 60)}” does. "
                "Choose another group, or none.", "pairs",
            )  # fmt: skip
    return heads_of(pairs, before, after)


def _report(told: Sequence[Told], pairs: Sequence[Pair], before: RigRows, after: RigRows) -> Report:
    order = list(CALLED.values())
    return Report(
        tuple(sorted(told, key=lambda one: order.index(one.what))), tuple(between(pair, before, after) for pair in pairs)
    )


# the rig


def _fixtures(session: Session, before: RigRows, after: RigRows) -> Iterator[Told]:
    modes = {name: _mode(session, after, name) for name in dict.fromkeys(one.mode for one in after.fixtures)}
    there = {row.number: row for row in rigs_of_show.every(session)}
    for number in there.keys() - {one.number for one in after.fixtures}:
        session.delete(there[number])
    session.flush()
    for one in after.fixtures:
        (x, y, z), (turn_x, turn_y, turn_z) = one.place, one.rotation
        fields = one.model_dump(exclude={"place", "rotation", "mode"}) | {
            "x": x, "y": y, "z": z, "turn_x": turn_x, "turn_y": turn_y, "turn_z": turn_z, "mode_id": modes[one.mode]
        }  # fmt: skip
        row = there.get(one.number)
        if row is None:
            session.add(Fixture(**fields))
            continue
        for name, value in fields.items():
            setattr(row, name, value)
    session.flush()
    rigs_of_show.check_heads(session)
    yield Told("the rig", "Its lights", (f"{len(before.fixtures)} lights go, {len(after.fixtures)} come.",))


def _mode(session: Session, after: RigRows, name: str) -> int:
    """The number of a mode in the show: the same one, or a new one under a free name."""
    document = after.modes[name]
    row = session.scalars(select(Mode).where(Mode.name == name)).first()
    if row is not None and row.document == document.model_dump(mode="json"):
        return row.id
    free = rigs_of_show.free_mode_name(session, name) if row is not None else name
    return rigs_of_show.keep_mode(session, document.model_copy(update={"name": free}))


# everything that keeps heads


def _followed(session: Session, follow: Follow, pairs: Sequence[Pair], before: RigRows, after: RigRows) -> list[Told]:
    told = []
    lists = {row.id: row.name for row in session.scalars(select(CueListRow))}
    pages = {row.id: row.name for row in session.scalars(select(Page))}
    follow.taken()
    for place in PLACES:
        if place.table in (Group, DraftValue):
            continue
        for row in session.scalars(select(place.table)):
            if follow.touches(place.heads(row)):
                told.append(_told(row, place, follow, lists if place.table is CueRow else pages))
                if isinstance(row, DraftFan) and not place.heads(row):
                    session.delete(row)
    told += _draft(session, follow)
    told += _models(session, pairs, before, after)
    session.flush()
    return [one for one in told if one.lines]


def _told(row: Any, place: Place, follow: Follow, within: Mapping[int, str]) -> Told:
    before = list(dict.fromkeys(place.heads(row)))
    place.put(row, follow)
    if isinstance(row, PixelMapRow):
        _canvas(row, before, follow)
    after = list(dict.fromkeys(place.heads(row)))
    lines = [
        f"{heads_in_words(len(before))} become {heads_in_words(len(after))}"
        if len(after) != len(before)
        else f"{heads_in_words(len(after))} follow"
    ]
    lines += _words(follow)
    if before and not after:
        lines = [f"none of its {heads_in_words(len(before))} is followed: it does nothing any more"]
    return Told(CALLED[type(row)], _name_of(row, within), tuple(lines))


def _words(follow: Follow) -> list[str]:
    return [f"{count} × {what}" for what, count in sorted(follow.taken().items())]


def _canvas(row: PixelMapRow, before: Sequence[str], follow: Follow) -> None:
    """A drawn grid of other cells is placed by where they stand."""
    canvas = row.document["canvas"]
    heads = [key for key in canvas["heads"] if key in set(follow.keys(before))]
    if canvas["kind"] == "grid" and heads != list(before):
        row.document = row.document | {"canvas": canvas | {"kind": "stage", "heads": heads}}
        follow.noted["cells placed by where they stand, instead of the drawn grid"] += 1


def _draft(session: Session, follow: Follow) -> list[Told]:
    """Values set by hand: of all attributes at once, as pan and tilt go together."""
    rows = {row.attribute: row for row in session.scalars(select(DraftValue))}
    if not any(follow.touches(row.heads) for row in rows.values()):
        return []
    found = follow.look({name: row.heads for name, row in rows.items()})
    for name, row in rows.items():
        if name in found:
            row.heads = found[name]
        else:
            session.delete(row)
    return [Told("the draft", "Values set by hand", ("follow", *_words(follow)))]


def _models(session: Session, pairs: Sequence[Pair], before: RigRows, after: RigRows) -> list[Told]:
    """Palettes that say a value for a model say it for the one that takes over, where they say nothing for that."""
    models: dict[str, dict[str, ModeSpec]] = {}
    for pair in pairs:
        if pair.target is not None:
            old, new = before.mode_of[pair.source.numbers[0]], after.mode_of[pair.target.numbers[0]]
            if old.model and new.model and old.model != new.model:
                models.setdefault(old.model, {})[new.model] = new
    told = []
    for row in session.scalars(select(PaletteRow)):
        kept = row.document.get("models") or {}
        made = {
            name: values for old, others in models.items() if old in kept for name, mode in others.items()
            if name not in kept and (values := _in_model(kept[old], mode))
        }  # fmt: skip
        if made:
            row.document = row.document | {"models": kept | made}
            told.append(Told("palettes", row.name, tuple(f"for {name} as well" for name in made)))
    return told


def _in_model(values: Mapping[str, float], mode: ModeSpec) -> dict[str, float]:
    """Values that a model can do, within its ranges."""
    able = {name for part in mode.parts for name in mode.attributes_of(part)}
    return {
        name: min(max(value, low), high) for name, value in values.items() if name in able for low, high in [range_of(mode, name)]
    }


# words


def _name_of(row: Any, within: Mapping[int, str]) -> str:
    if isinstance(row, CueRow):
        cue = f"cue {row.number:g}" + (f" “{row.document['name']}”" if row.document.get("name") else "")
        return f"{within[row.list_id]}, {cue}" if row.list_id in within else cue
    if isinstance(row, ControlRow):
        return f"{within.get(row.page_id, '')}: {row.name}".removeprefix(": ")
    return str(getattr(row, "name", "")) or "The draft"


def between(pair: Pair, before: RigRows, after: RigRows) -> tuple[str, ...]:
    """What is different between the kinds of a pair, in words."""
    if pair.target is None:
        return ("Nothing takes over: what they did goes.",)
    old, new = (
        {rig.mode_of[n].name: rig.mode_of[n] for n in side.numbers} for rig, side in ((before, pair.source), (after, pair.target))
    )
    lines = list[str]()
    for was in old.values():
        for now in new.values():
            if was != now:
                lines += differences(was, now)
    return tuple(dict.fromkeys(lines))
