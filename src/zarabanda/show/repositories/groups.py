"""Groups: kept selections, by hand or by a rule from another group."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from zarabanda.core.rig.modes import whole_keys
from zarabanda.core.selection.derive import RULES, Around, derived
from zarabanda.errors import InUse, ZarabandaError

from .. import uses
from ..tables import Group
from . import rig
from .rows import get, own_name, place_in_order


def every(session: Session) -> Sequence[Group]:
    """Groups in their order."""
    return session.scalars(select(Group).order_by(Group.position, Group.id)).all()


def make(session: Session, name: str, heads: Sequence[str], rule: dict[str, Any] | None = None) -> Group:
    """A new group, at the end. It may be empty, and get its heads later."""
    last = session.scalar(select(func.max(Group.position)))
    row = Group(
        name=own_name(session, Group, name, "a group"), heads=list(heads), position=0 if last is None else last + 1, rule=rule
    )
    session.add(row)
    session.flush()
    return row


def change(session: Session, group_id: int, *, name: str | None = None, heads: Sequence[str] | None = None) -> Group:
    """Another name or other heads; a group whose heads are changed by hand is no longer made by its rule."""
    row = get(session, Group, group_id, "group")
    if name is not None:
        row.name = own_name(session, Group, name, "a group", but=group_id)
    if heads is not None and list(heads) != row.heads:
        row.heads, row.rule = list(heads), None
    session.flush()
    return row


def arrange(session: Session, order: Sequence[int]) -> None:
    """Put all groups in this order; those that are not named come last, as they were."""
    place_in_order(every(session), order)


def remove(session: Session, group_id: int) -> None:
    """Delete a group that nothing uses; groups that were made of it stay, as they are."""
    row = get(session, Group, group_id, "group")
    users = uses.users_of(session, Group.__tablename__, group_id)
    if users:
        raise InUse(f"“{row.name}” is in use, by {', '.join(users[:5])}. Take it out of there first.", "group")
    for other in every(session):
        if other.rule is not None and other.rule.get("group") == group_id:
            other.rule = None
    session.delete(row)


def derive(session: Session, group_id: int, rules: Sequence[str], around: Around) -> list[Group]:
    """New groups from one by rules, all in one go; one that is there already by the same rule is made anew."""
    row = get(session, Group, group_id, "group")
    made = [_by_rule(session, row, rule, around) for rule in rules]
    found = [group for groups in made for group in groups]
    if not found:
        raise ZarabandaError(f"“{row.name}” has no heads that these rules could sort. Give it lights first.", "rules")
    return found


def _by_rule(session: Session, of: Group, rule: str, around: Around) -> list[Group]:
    known = {one.rule["called"]: one for one in every(session) if one.rule and _is_of(one.rule, of.id, rule)}
    found = []
    for called, heads in derived(rule, of.heads, around):
        if called in known:
            known[called].heads = heads
            found.append(known[called])
        else:
            found.append(make(session, f"{of.name}, {called}", heads, {"group": of.id, "rule": rule, "called": called}))
    return found


def _is_of(made_by: dict[str, Any], group_id: int, rule: str) -> bool:
    return made_by.get("group") == group_id and made_by.get("rule") == rule


def renew(session: Session, group_id: int, around: Around) -> Group:
    """Make a group anew by its rule, from what the group that it is of has now."""
    row = get(session, Group, group_id, "group")
    if row.rule is None:
        raise ZarabandaError(f"“{row.name}” was made by hand: there is no rule to make it by.", "group")
    heads = _now(session, row, around)
    if heads is None:
        raise ZarabandaError(f"The rule of “{row.name}” finds no heads any more. Its own stay.", "group")
    row.heads = heads
    return row


def _now(session: Session, row: Group, around: Around) -> list[str] | None:
    """What the rule of a group would give now."""
    assert row.rule is not None
    of = session.get(Group, row.rule["group"])
    found = dict(derived(row.rule["rule"], of.heads, around)) if of is not None else {}
    return found.get(row.rule["called"])


def outdated(session: Session, around: Around) -> set[int]:
    """Groups whose rule would give other heads now."""
    found = set()
    for row in every(session):
        if row.rule is not None and row.rule.get("rule") in RULES:
            now = _now(session, row, around)
            if now is not None and now != row.heads:
                found.add(row.id)
    return found


def for_all_kinds(session: Session) -> list[Group]:
    """A group for each model of the rig that no group has whole; fixtures by number, each as one light."""
    modes, by_model = rig.modes(session), dict[str, list[str]]()
    specs = {number: mode.spec() for number, mode in modes.items()}
    for fixture in rig.every(session):
        keys = whole_keys(fixture.number, specs[fixture.mode_id])
        by_model.setdefault(modes[fixture.mode_id].model or modes[fixture.mode_id].name, []).extend(keys)
    there = {frozenset(row.heads) for row in every(session)}
    names = {row.name.lower() for row in every(session)}
    return [
        make(session, model, heads)
        for model, heads in by_model.items()
        if frozenset(heads) not in there and model.lower() not in names
    ]
