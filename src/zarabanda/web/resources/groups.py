"""Groups: made, renamed, arranged, made from each other by rules."""

from __future__ import annotations

from typing import Annotated

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from zarabanda.core.selection.derive import Around
from zarabanda.show import repositories
from zarabanda.show.tables import Group

from ..context import browser_id, context
from ..parts import Done, HeadKeys, Id, Name, Part
from .selection import known_heads
from .show_models import GroupView

api = APIBlueprint("groups", __name__, url_prefix="/api/groups", abp_tags=[Tag(name="rig")])


class GroupPath(BaseModel):
    """Which group."""

    group_id: Id


class NewGroup(Part):
    """A selection to keep; it may be empty first."""

    name: Name
    heads: HeadKeys = Field(default_factory=list)


class GroupChange(Part):
    """Another name, or other heads."""

    name: Name | None = None
    heads: HeadKeys | None = None


class GroupOrder(Part):
    """All groups in their order, by number."""

    order: Annotated[list[Id], Field(max_length=1000)]


class Rules(Part):
    """By which rules groups are made from one."""

    rules: Annotated[list[Annotated[str, Field(max_length=40)]], Field(min_length=1, max_length=40)]


class GroupsDone(Done):
    """What was done, and the groups that it made."""

    groups: list[GroupView]


def around(session: Session) -> Around:
    """What rules look at, as the rig is now."""
    universes = {row.number: row.universe for row in repositories.rig.every(session)}
    return Around(context().link.rig.heads, universes)


def view(row: Group, outdated: bool = False) -> GroupView:
    """A group as it is shown."""
    return GroupView(id=row.id, name=row.name, heads=row.heads, by_rule=row.rule is not None, outdated=outdated)


@api.post("", responses={201: GroupView})
def make(body: NewGroup) -> tuple[GroupView, int]:
    """Keep a selection."""
    with context().store.edit(browser_id(), f"Make the group {body.name}") as session:
        return view(repositories.groups.make(session, body.name, known_heads(body.heads))), 201


@api.patch("/<int:group_id>", responses={200: GroupView})
def change(path: GroupPath, body: GroupChange) -> GroupView:
    """Rename a group, or give it other heads; what is on it follows."""
    heads = None if body.heads is None else known_heads(body.heads)
    with context().store.edit(browser_id(), "Change a group") as session:
        return view(repositories.groups.change(session, path.group_id, name=body.name, heads=heads))


@api.delete("/<int:group_id>", responses={200: Done})
def delete(path: GroupPath) -> Done:
    """Delete a group that nothing uses."""
    with context().store.edit(browser_id(), "Delete a group") as session:
        repositories.groups.remove(session, path.group_id)
    return Done(done="Deleted the group")


@api.post("/order", responses={200: Done})
def arrange(body: GroupOrder) -> Done:
    """Put the groups in another order."""
    with context().store.edit(browser_id(), "Arrange the groups") as session:
        repositories.groups.arrange(session, body.order)
    return Done(done="Arranged the groups")


@api.post("/<int:group_id>/derive", responses={201: GroupsDone})
def derive(path: GroupPath, body: Rules) -> tuple[GroupsDone, int]:
    """Make groups from this one by rules, all in one go."""
    with context().store.edit(browser_id(), "Make groups from a group") as session:
        made = repositories.groups.derive(session, path.group_id, body.rules, around(session))
        return GroupsDone(done=f"Made {len(made)} groups", groups=[view(row) for row in made]), 201


@api.post("/<int:group_id>/renew", responses={200: GroupView})
def renew(path: GroupPath) -> GroupView:
    """Make a group anew by its rule, as the rig is now."""
    with context().store.edit(browser_id(), "Renew a group") as session:
        return view(repositories.groups.renew(session, path.group_id, around(session)))


@api.post("/for-kinds", responses={201: GroupsDone})
def for_kinds() -> tuple[GroupsDone, int]:
    """A group for each kind of the rig that has none."""
    with context().store.edit(browser_id(), "Make a group for each kind") as session:
        made = repositories.groups.for_all_kinds(session)
        return GroupsDone(done=f"Made {len(made)} groups", groups=[view(row) for row in made]), 201
