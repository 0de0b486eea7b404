"""Groups, and rows that play on them, as they are with the other lights."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.core.selection.derive import Around, derived

from ..tables import BuskRow, ControlRow, CueRow, Group, LookRow
from .following import Follow
from .pairs import Pair
from .report import Told, heads_in_words
from .rigs import RigRows


def to_other(session: Session, after: RigRows, pairs: Sequence[Pair], follow: Follow) -> Iterator[Told]:
    """Groups that are paired, or have a namesake, become the other rig's; others follow by their rule, or their heads; what is
    left of the other rig's is added."""
    there = {one.name: one for one in after.groups}
    paired = {one.source.group: one.target.name for one in pairs if one.source.group and one.target and one.target.name in there}
    rows = list(session.scalars(select(Group).order_by(Group.position, Group.id)))
    was = {row.id: (row.name, list(row.heads)) for row in rows}
    used = set[str]()
    for row in rows:
        name = paired.get(row.id) or (row.name if row.name in there else "")
        if name and name not in used:
            used.add(name)
            row.heads, row.rule = list(there[name].heads), None if row.id not in paired else row.rule
    around = Around(after.rig.heads, {one.number: one.universe for one in after.fixtures})
    found = {row.id: row for row in rows}
    mapped = {*paired, *(row.id for row in rows if row.name in used)}
    for row in rows:
        if row.id not in mapped:
            row.heads = _by_rule(row, found, around) or follow.keys(row.heads)
    names = _names(rows, paired, used)
    for row in rows:
        row.name = f"\u200b{row.id}"  # a name on the way: all are given at once
    session.flush()
    for row in rows:
        row.name = names[row.id]
    taken, place = set(names.values()), max((row.position for row in rows), default=-1)
    follow.taken()
    for row in rows:
        name, heads = was[row.id]
        lines = [f"called “{row.name}” now"] if row.name != name else []
        if heads != row.heads:
            lines.append(f"{heads_in_words(len(heads))} become {heads_in_words(len(row.heads))}")
        if lines:
            yield Told("groups", name, tuple(lines))
    for one in after.groups:
        if one.name not in used and one.name not in taken:
            place += 1
            session.add(Group(name=one.name, heads=list(one.heads), position=place))
            yield Told("groups", one.name, (f"new, with {heads_in_words(len(one.heads))}",))
    session.flush()


def _by_rule(row: Group, groups: Mapping[int, Group], around: Around) -> list[str]:
    of = groups.get(row.rule["group"]) if row.rule else None
    if row.rule is None or of is None or not of.heads:
        return []
    return list(dict(derived(row.rule["rule"], of.heads, around)).get(row.rule["called"], ()))


def _names(rows: Sequence[Group], paired: Mapping[int, str], used: set[str]) -> dict[int, str]:
    """What each group is called: as in the other rig where it is one of it, else as it was, or with a number."""
    names = {row.id: paired[row.id] for row in rows if row.id in paired and paired[row.id] in used}
    seen = set[str]()
    for number, name in list(names.items()):
        if name in seen:
            del names[number]  # two stand for one: the first has its name
        seen.add(name)
    taken = set(names.values())
    for row in rows:
        if row.id not in names:
            name, n = row.name, 1
            while name in taken:
                n += 1
                name = f"{row.name[:76]} {n}"
            names[row.id] = name
            taken.add(name)
    return names


def rows_of(session: Session, told: Sequence[Told]) -> Iterator[Told]:
    """Rows of busking pages whose group changes."""
    changed = {one.name: one for one in told if one.what == "groups"}
    now = {row.id: row for row in session.scalars(select(Group))}
    for row in session.scalars(select(BuskRow).order_by(BuskRow.page_id, BuskRow.position)):
        group = now.get(row.group_id or 0)
        if group is not None:
            was = changed.get(row.name)
            lines = was.lines if was else (f"plays on {heads_in_words(len(group.heads))}",)
            yield Told("rows", row.name, lines)
            if was and row.name != group.name and group.name:
                row.name = group.name


def regrouped(session: Session, moved: Mapping[int, int]) -> Iterator[Told]:
    """What was on a group is on the one that took over."""
    moved = {old: new for old, new in moved.items() if old and new and old != new}
    names = {row.id: row.name for row in session.scalars(select(Group))}
    for row in session.scalars(select(BuskRow)):
        if row.group_id in moved:
            was, row.group_id = row.group_id, moved[row.group_id]
            yield Told("rows", row.name, (f"plays on “{names[row.group_id]}” instead of “{names[was]}”",))
    for control in session.scalars(select(ControlRow)):
        now = _with_groups(control.target, moved)
        if now != control.target:
            control.target = now
            yield Told("faders and buttons", control.name, (f"on “{names[now['group_id']]}” now",))
    users: list[tuple[str, CueRow | LookRow]] = [("cues", row) for row in session.scalars(select(CueRow))]
    users += [("looks and overlays", row) for row in session.scalars(select(LookRow))]
    for what, user in users:
        now = _with_groups(user.document, moved)
        if now != user.document:
            user.document = now
            yield Told(what, user.in_words(), ("its effects are on the group that took over",))
    session.flush()


def _with_groups(value: Any, moved: Mapping[int, int]) -> Any:
    if isinstance(value, dict):
        found = {key: _with_groups(one, moved) for key, one in value.items()}
        if value.get("group_id") in moved:
            found["group_id"] = moved[value["group_id"]]
        return found
    return [_with_groups(one, moved) for one in value] if isinstance(value, list) else value
