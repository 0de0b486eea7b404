"""A rig apart from what is programmed on it: of this show, of another one, or a ready one."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

from sqlalchemy.orm import Session

from zarabanda.core.rig.modes import ModeSpec, head_keys, lit_keys
from zarabanda.core.rig.rig import FixtureSpec, Rig, build
from zarabanda.errors import ZarabandaError
from zarabanda.formats.rig_document import FixtureDocument, ModeDocument

from ..repositories import groups, rig
from ..tables import Fixture


@dataclass(frozen=True)
class GroupOf:
    """A group of a rig: its name, its heads in their order, and its number; 0: it is not in a show."""

    name: str
    heads: tuple[str, ...]
    id: int = 0


@dataclass(frozen=True)
class RigRows:
    """Fixtures by number, the modes that they name, and groups in their order."""

    fixtures: tuple[FixtureDocument, ...]
    modes: Mapping[str, ModeDocument]
    groups: tuple[GroupOf, ...]

    @cached_property
    def specs(self) -> dict[str, ModeSpec]:
        """Modes as the core takes them."""
        return {name: mode.spec() for name, mode in self.modes.items()}

    @cached_property
    def mode_of(self) -> dict[int, ModeSpec]:
        """The mode of each fixture, by its number."""
        return {one.number: self.specs[one.mode] for one in self.fixtures}

    @cached_property
    def places(self) -> dict[int, tuple[float, float, float]]:
        """Where each fixture is, by its number."""
        return {one.number: one.place for one in self.fixtures}

    @cached_property
    def rig(self) -> Rig:
        """As arrays."""
        return build([
            FixtureSpec(
                one.number, one.name, self.specs[one.mode], one.place, one.rotation, one.universe, one.address, one.cell_order
            )
            for one in self.fixtures
        ])  # fmt: skip

    def keys_of(self, numbers: Iterable[int]) -> list[str]:
        """Heads of fixtures that give light of their own."""
        return [key for number in numbers for key in lit_keys(number, self.mode_of[number])]

    @cached_property
    def keys(self) -> set[str]:
        """All heads."""
        return {key for one in self.fixtures for key in head_keys(one.number, self.mode_of[one.number])}


def of_session(session: Session) -> RigRows:
    """The rig of the show."""
    modes = rig.modes(session)
    names = {number: mode.name for number, mode in modes.items()}
    fixtures = tuple(_fixture(row, names[row.mode_id]) for row in rig.every(session))
    every = tuple(GroupOf(row.name, tuple(row.heads), row.id) for row in groups.every(session))
    return RigRows(fixtures, {mode.name: mode for mode in modes.values()}, every)


def _fixture(row: Any, mode: str) -> FixtureDocument:
    own = {column.key: getattr(row, column.key) for column in Fixture.__table__.columns}
    return _document(own, mode)


def _document(own: Mapping[str, Any], mode: str) -> FixtureDocument:
    known = {name: own[name] for name in FixtureDocument.model_fields if name in own}
    place, turn = ([own[f"{prefix}{axis}"] for axis in "xyz"] for prefix in ("", "turn_"))
    return FixtureDocument.model_validate({**known, "mode": mode, "place": place, "rotation": turn})


def of_tables(tables: Mapping[str, Sequence[Mapping[str, Any]]]) -> RigRows:
    """The rig of another show, of the rows of its tables."""
    modes = {row["id"]: ModeDocument.model_validate(row["document"]) for row in tables.get("mode", ())}
    fixtures = [_document(row, modes[row["mode_id"]].name) for row in tables.get("fixture", ())]
    every = sorted(tables.get("head_group", ()), key=lambda row: (row["position"], row["id"]))
    return _checked(RigRows(
        tuple(sorted(fixtures, key=lambda one: one.number)), {mode.name: mode for mode in modes.values()},
        tuple(GroupOf(row["name"], tuple(row["heads"])) for row in every),
    ))  # fmt: skip


def of_documents(
    fixtures: Sequence[FixtureDocument], modes: Mapping[str, ModeDocument], called: Mapping[str, str] | None = None
) -> RigRows:
    """A rig of documents; fixtures of one name are a group. called: what it is called, by that name."""
    named: dict[str, list[int]] = {}
    for one in fixtures:
        named.setdefault((called or {}).get(one.name, one.name), []).append(one.number)
    used = {one.mode: modes[one.mode] for one in fixtures}
    made = RigRows(tuple(sorted(fixtures, key=lambda one: one.number)), used, ())
    return replace(made, groups=tuple(GroupOf(name, tuple(made.keys_of(numbers))) for name, numbers in named.items()))


def _checked(rows: RigRows) -> RigRows:
    if not rows.fixtures:
        raise ZarabandaError("That rig has no lights. Patch it first, or choose another one.", "rig")
    return rows
