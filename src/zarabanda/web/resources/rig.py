"""The rig: what it is, what is odd about it, and every change of it, each one edit."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import asdict
from typing import Any

import numpy as np
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from sqlalchemy.orm import Session

from zarabanda.core.explain.rig_check import odd_of
from zarabanda.core.rig import arrange, patch
from zarabanda.core.rig.stage import MOUNTINGS
from zarabanda.errors import ZarabandaError
from zarabanda.formats import rig_table
from zarabanda.formats.rig_document import FixtureDocument, ModeDocument
from zarabanda.show import repositories
from zarabanda.stock.rigs import ready_rig

from ..context import browser_id, context
from ..trying import edited
from .rig_models import (
    AddFixtures,
    ArrangeFixtures,
    ChangeFixtures,
    DuplicateFixtures,
    FixtureChange,
    FixtureView,
    GiveAddresses,
    ModeView,
    MoveUniverse,
    OddOne,
    OddView,
    PartView,
    PasteRows,
    PasteView,
    ReadyRig,
    RigDone,
    RigView,
    SomeFixtures,
    TypedCells,
)

api = APIBlueprint("rig", __name__, url_prefix="/api", abp_tags=[Tag(name="rig")])


@api.get("/rig", responses={200: RigView})
def get_rig() -> RigView:
    """Fixtures and modes. Heads are in the order of live frames: by fixture number, within each by the parts of its mode."""
    link = context().link
    with context().store.reading() as session:
        modes, fixtures = repositories.rig.modes(session), repositories.rig.every(session)
        within: dict[int, list[str]] = {}
        for group in repositories.groups.every(session):
            for number in dict.fromkeys(int(key.partition(".")[0]) for key in group.heads):
                within.setdefault(number, []).append(group.name)
    return RigView(
        number=link.rig.heads.number,
        fixtures=[
            FixtureView(
                number=f.number, name=f.name, mode_id=f.mode_id, universe=f.universe, address=f.address, place=(f.x, f.y, f.z),
                rotation=(f.turn_x, f.turn_y, f.turn_z), cell_order=f.cell_order, notes=f.notes, layer=f.layer,
                class_name=f.class_name, groups=within.get(f.number, []),
            )
            for f in fixtures
        ],
        modes=[mode_view(number, mode) for number, mode in modes.items()],
        places=np.round(link.rig.heads.places, 4).ravel().tolist(),
    )  # fmt: skip


def mode_view(number: int, mode: ModeDocument) -> ModeView:
    """A mode as it is shown."""
    spec = mode.spec()
    return ModeView(
        id=number, name=mode.name, label=mode.label, maker=mode.maker, model=mode.model, kind=mode.kind,
        footprint=mode.footprint, cells=len(mode.cells),
        parts=[PartView(part=part, attributes=spec.attributes_of(part)) for part in spec.parts],
    )  # fmt: skip


@api.get("/rig/check", responses={200: OddView})
def get_odd() -> OddView:
    """All that is odd about the rig, with what would mend it."""
    return OddView(odd=[OddOne(**asdict(one)) for one in odd_of(context().link.fixtures, context().link.carried)])


@api.post("/rig/add", responses={201: RigDone})
def add(body: AddFixtures) -> tuple[RigDone, int]:
    """Add fixtures of one mode, one after another."""
    label = f"Add {body.count} {body.name or 'fixtures'}"
    with context().store.edit(browser_id(), label) as session:
        numbers = _added(session, body)
    return RigDone(done=f"Added {len(numbers)}", numbers=numbers, revision=context().link.revision), 201


def _added(session: Session, body: AddFixtures) -> list[int]:
    mode_id = repositories.rig.mode_named(session, body.mode)
    modes = repositories.rig.specs(session)
    there = repositories.rig.blocks(repositories.rig.every(session), modes)
    sizes = [modes[mode_id].footprint] * body.count
    where: list[patch.Address] | list[tuple[None, None]] = [(None, None)] * body.count
    if body.addresses == "next free":
        where = patch.next_free(there, sizes, (body.universe, body.address))
    elif body.addresses == "in order":
        where = patch.in_order(sizes, (body.universe, body.address))
    fixtures = []
    for n, (universe, address) in enumerate(where):
        x, y, z = (round(at + n * step, 4) for at, step in zip(body.place, body.spacing, strict=True))
        fixtures.append(
            FixtureDocument(
                number=body.number + n, name=body.name, mode=body.mode, rotation=MOUNTINGS[body.mounting], place=(x, y, z),
                universe=universe, address=address,
            )
        )  # fmt: skip
    return repositories.rig.add(session, fixtures)


@api.post("/rig/ready", responses={201: RigDone})
def begin_with(body: ReadyRig) -> tuple[RigDone, int]:
    """Begin an empty show with a small ready rig, and a group for each of its kinds."""
    with context().store.edit(browser_id(), "Begin with a ready rig") as session:
        if repositories.rig.every(session):
            raise ZarabandaError("There are lights already. Delete them first, or add lights one kind at a time.", "rig")
        numbers = repositories.rig.add(session, ready_rig(body.rig))
        repositories.groups.for_all_kinds(session)
    return RigDone(done=f"Added {len(numbers)}", numbers=numbers, revision=context().link.revision), 201


@api.post("/rig/change", responses={200: RigDone})
def change(body: ChangeFixtures) -> RigDone:
    """Change fixtures; everything that uses them follows. With preview, what would be lost is told and nothing is done."""
    return _edited(body.label, body.preview, lambda session: repositories.rig.change(session, _fields(session, body.changes)))


def _fields(session: Session, changes: list[FixtureChange]) -> dict[int, dict[str, object]]:
    wanted: dict[int, dict[str, object]] = {}
    for one in changes:
        fields = one.set.model_dump(exclude_unset=True)
        wanted.setdefault(one.fixture, {}).update(_with_mode(session, fields))
    return wanted


def _edited(label: str, preview: bool, act: Callable[[Session], list[str]]) -> RigDone:
    """Do it as one edit; or try it, tell what it would cost, and leave everything as it is."""
    lost = edited(label, preview, act)
    return RigDone(done="nothing yet" if preview else label, lost=lost, revision=context().link.revision)


@api.post("/rig/cells", responses={200: RigDone})
def type_in(body: TypedCells) -> RigDone:
    """What was typed into a column, for one fixture or several in their order: see `formats.rig_table.typed`."""

    def act(session: Session) -> list[str]:
        rows, modes = repositories.rig.of_numbers(session, body.numbers), repositories.rig.specs(session)
        fields = rig_table.typed(body.column, body.text, [modes[row.mode_id].footprint for row in rows])
        wanted = {row.number: _with_mode(session, one) for row, one in zip(rows, fields, strict=True)}
        return repositories.rig.change(session, wanted)

    title = rig_table.column(body.column).title.removesuffix(", m").lower()
    return _edited(f"Change {title} of {_count(body.numbers)}", body.preview, act)


def _with_mode(session: Session, fields: dict[str, Any]) -> dict[str, Any]:
    if "mode" in fields:
        return {key: one for key, one in fields.items() if key != "mode"} | {
            "mode_id": repositories.rig.mode_named(session, fields["mode"])
        }
    return fields


@api.post("/rig/paste", responses={200: PasteView})
def paste(body: PasteRows) -> PasteView:
    """Rows from a spreadsheet. With preview: what would change, and what is wrong; nothing is done while something is."""
    with context().store.reading() as session:
        modes = {number: mode.name for number, mode in repositories.rig.modes(session).items()}
        known = {row.number: modes[row.mode_id] for row in repositories.rig.every(session)}
    found = rig_table.pasted(body.text, body.numbers, body.column, known)
    if found.faults and not body.preview:
        raise ZarabandaError(f"{found.faults[0]} Nothing was pasted.", "text")

    changes, added = rows_in_words(found)
    label = f"Paste {len(changes) + len(added)} rows"
    done = RigDone(done="nothing yet") if found.faults else put_rows(label, body.preview, found)
    return PasteView(changes=[*changes, *added], faults=found.faults, **done.model_dump())


def rows_in_words(found: rig_table.Pasted) -> tuple[list[str], list[str]]:
    """What rows change, and what they add."""
    changes = [f"{number}: {', '.join(_in_words(fields))}" for number, fields in found.changes.items()]
    return changes, [f"{fields['number']}: new, {fields['mode']}" for fields in found.added]


def put_rows(label: str, preview: bool, found: rig_table.Pasted) -> RigDone:
    """Put rows into the rig as one edit; with preview, tell what would be lost."""

    def act(session: Session) -> list[str]:
        lost = repositories.rig.change(
            session, {number: _with_mode(session, one) for number, one in found.changes.items()}
        ) if found.changes else []  # fmt: skip
        places = [_placed(fields) for fields in found.added]
        repositories.rig.add(session, [FixtureDocument.model_validate(one) for one in places])
        return lost

    return _edited(label, preview, act)


def _placed(fields: dict[str, Any]) -> dict[str, Any]:
    """Fields of a new fixture as a document."""
    rest = {key: one for key, one in fields.items() if key not in ("x", "y", "z", "turn_x", "turn_y", "turn_z")}
    at = tuple(fields.get(axis, 0.0) for axis in ("x", "y", "z"))
    return {"name": "", "place": at, "rotation": tuple(fields.get(f"turn_{axis}", 0.0) for axis in "xyz"), **rest}


def _in_words(fields: dict[str, Any]) -> list[str]:
    return [f"{name.replace('_', ' ')} {'none' if value is None else value}" for name, value in fields.items()]


@api.post("/rig/delete", responses={200: RigDone})
def delete(body: SomeFixtures) -> RigDone:
    """Take fixtures out, and out of everything that uses them. With preview, what uses them is told and nothing is done."""

    def act(session: Session) -> list[str]:
        told = repositories.rig.uses(session, body.numbers)
        repositories.rig.remove(session, body.numbers)
        return told

    return _edited(f"Delete {_count(body.numbers)}", body.preview, act)


@api.post("/rig/duplicate", responses={200: RigDone})
def duplicate(body: DuplicateFixtures) -> RigDone:
    """The same fixtures once more, from a number on; mirrored about the centre line if wanted."""

    def act(session: Session) -> list[str]:
        rows, modes = repositories.rig.of_numbers(session, body.numbers), repositories.rig.modes(session)
        there = repositories.rig.blocks(repositories.rig.every(session), repositories.rig.specs(session))
        numbers = repositories.rig.free_numbers(session, body.first, len(rows))
        where = patch.next_free(there, [modes[row.mode_id].footprint for row in rows])
        copies = []
        for row, number, (universe, address) in zip(rows, numbers, where, strict=True):
            place, turn = (row.x, row.y, row.z), (row.turn_x, row.turn_y, row.turn_z)
            if body.mirrored:
                place, turn = (-row.x or 0.0, row.y, row.z), arrange.mirrored_turn(turn)
            copies.append(
                FixtureDocument(
                    number=number, name=row.name, mode=modes[row.mode_id].name, place=place, rotation=turn, universe=universe,
                    address=address, cell_order=row.cell_order, notes=row.notes, layer=row.layer, class_name=row.class_name,
                )
            )  # fmt: skip
        repositories.rig.add(session, copies)
        return []

    return _edited(f"Duplicate {_count(body.numbers)}", False, act)


@api.post("/rig/address", responses={200: RigDone})
def give_addresses(body: GiveAddresses) -> RigDone:
    """Other addresses for fixtures: the next that are free, one after another, or none."""

    def act(session: Session) -> list[str]:
        rows, modes = repositories.rig.of_numbers(session, body.numbers), repositories.rig.specs(session)
        sizes, start = [modes[row.mode_id].footprint for row in rows], (body.universe, body.address)
        there = repositories.rig.blocks(repositories.rig.every(session), modes, but=set(body.numbers))
        where: list[patch.Address] | list[tuple[None, None]] = [(None, None)] * len(rows)
        if body.how != "none":
            where = patch.next_free(there, sizes, start) if body.how == "next free" else patch.in_order(sizes, start)
        wanted = {row.number: {"universe": u, "address": a} for row, (u, a) in zip(rows, where, strict=True)}
        return repositories.rig.change(session, wanted)

    return _edited(f"Address {_count(body.numbers)}", False, act)


@api.post("/rig/universe", responses={200: RigDone})
def move_universe(body: MoveUniverse) -> RigDone:
    """Let everything of a universe listen to another one."""

    def act(session: Session) -> list[str]:
        rows = [row for row in repositories.rig.every(session) if row.universe == body.universe]
        if not rows:
            raise ZarabandaError(f"There is nothing in universe {body.universe}.", "universe")
        return repositories.rig.change(session, {row.number: {"universe": body.to} for row in rows})

    return _edited(f"Move universe {body.universe} to {body.to}", False, act)


@api.post("/rig/arrange", responses={200: RigDone})
def put_at(body: ArrangeFixtures) -> RigDone:
    """Places for fixtures in their order: along a line, an arc, a grid or a circle; aligned, spread, mirrored."""

    def act(session: Session) -> list[str]:
        rows = repositories.rig.of_numbers(session, body.numbers)
        places = np.array([(row.x, row.y, row.z) for row in rows], float).reshape(-1, 3)
        now = np.round(arrange.arranged(body.shape, places, body.given), 4)
        wanted = {row.number: {"x": x, "y": y, "z": z} for row, (x, y, z) in zip(rows, now.tolist(), strict=True)}
        return repositories.rig.change(session, wanted)

    return _edited(f"Arrange {_count(body.numbers)}", False, act)


def _count(numbers: list[int]) -> str:
    return f"fixture {numbers[0]}" if len(numbers) == 1 else f"{len(numbers)} fixtures"
