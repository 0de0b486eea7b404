"""The rig: modes and fixtures. Each change is checked whole before it is done, and says what it costs."""

from __future__ import annotations

from collections import Counter
from collections.abc import Collection, Iterable, Mapping, Sequence
from itertools import chain
from itertools import count as numbers_from
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.core.rig import attributes, patch
from zarabanda.core.rig.modes import ModeSpec, head_keys
from zarabanda.errors import InUse, NotThere, ZarabandaError, brief
from zarabanda.formats.rig_document import FixtureDocument, ModeDocument
from zarabanda.stock.kinds import plain_kinds

from .. import head_keys as keys_of_heads
from ..tables import ControlRow, CueRow, DraftEffect, DraftValue, EffectRow, Fixture, Group, Mode, PaletteRow, PixelMapRow
from .rows import get

MOST_HEADS = 20_000
_FEW = 500
"""So many rows are asked for by their numbers; for more, all are read."""
LAST_NUMBER = 99_999
Fields = Mapping[str, Any]
"""Of a fixture, by the names of its columns; `mode_id` the number of a mode."""


def every(session: Session) -> Sequence[Fixture]:
    """Fixtures by number."""
    return session.scalars(select(Fixture).order_by(Fixture.number)).all()


def of_numbers(session: Session, numbers: Iterable[int]) -> list[Fixture]:
    """Fixtures in the order of these numbers; NotThere names one that is gone."""
    wanted = list(dict.fromkeys(numbers))
    asked = select(Fixture) if len(wanted) > _FEW else select(Fixture).where(Fixture.number.in_(wanted))
    known = {row.number: row for row in session.scalars(asked)}
    for number in wanted:
        if number not in known:
            raise NotThere(f"There is no fixture {number} any more. Reload the page to see the rig as it is.", "numbers")
    return [known[number] for number in wanted]


def modes(session: Session) -> dict[int, ModeDocument]:
    """Modes of the show by number."""
    return {row.id: ModeDocument.model_validate(row.document) for row in session.scalars(select(Mode).order_by(Mode.id))}


def specs(session: Session) -> dict[int, ModeSpec]:
    """The same as the core takes them."""
    return {number: mode.spec() for number, mode in modes(session).items()}


def mode_named(session: Session, name: str) -> int:
    """The number of the mode of this name; a plain kind that the show does not have yet is taken into it."""
    row = session.scalars(select(Mode).where(Mode.name == name)).first()
    if row is not None:
        return row.id
    if name not in plain_kinds():
        raise NotThere(f"There is no mode “{brief(name, 60)}”. Choose one of the list, or make a kind from its channels.", "mode")
    return keep_mode(session, plain_kinds()[name])


def keep_mode(session: Session, document: ModeDocument) -> int:
    """The number of a mode of this name in the show, which gets it if it has none."""
    row = session.scalars(select(Mode).where(Mode.name == document.name)).first()
    if row is None:
        row = Mode(name=document.name, document=document.model_dump(mode="json"))
        session.add(row)
        session.flush()
    return row.id


def free_mode_name(session: Session, name: str) -> str:
    """This name, or with a number behind it where a mode of the show or a plain kind has it."""
    taken = {*session.scalars(select(Mode.name)), *plain_kinds()}
    return next(one for one in chain([name], (f"{name} {n}" for n in numbers_from(2))) if one not in taken)


def change_mode(session: Session, mode_id: int, document: ModeDocument) -> list[str]:
    """Change a mode and all fixtures that are of it; everything that uses their heads follows. Gives what is lost, in words."""
    row = get(session, Mode, mode_id, "mode")
    if document.name != row.name and free_mode_name(session, document.name) != document.name:
        raise InUse(f"There is a kind “{brief(document.name, 60)}” already. Choose another name.", "name")
    before, after = specs(session)[mode_id], document.spec()
    if before != after:
        document = document.model_copy(update={"gdtf": "", "gdtf_mode": ""})  # the file says something else now
    users = [one for one in every(session) if one.mode_id == mode_id]
    numbers = [one.number for one in users]
    lost = _lost(session, numbers, before, after) if users else []
    row.name, row.document = document.name, document.model_dump(mode="json")
    session.flush()
    if before.parts != after.parts:
        keys_of_heads.rename(session, [keys_of_heads.changed(number, before, number, after) for number in numbers])
    _check_addresses(users, specs(session))
    check_heads(session)
    return lost


def remove_mode(session: Session, mode_id: int) -> None:
    """Take a mode out of the show; one that fixtures have stays."""
    row = get(session, Mode, mode_id, "mode")
    users = [one.number for one in every(session) if one.mode_id == mode_id]
    if users:
        raise InUse(f"“{row.name}” is the mode of {_listed(users)}. Give {_them(users)} another mode first.", "mode")
    session.delete(row)


def blocks(fixtures: Iterable[Fixture], of_modes: Mapping[int, ModeSpec], but: Collection[int] = ()) -> list[patch.Block]:
    """The slots that fixtures take; those without an address take none."""
    return [
        patch.Block(one.number, one.universe, one.address, of_modes[one.mode_id].footprint)
        for one in fixtures
        if one.universe is not None and one.address is not None and one.number not in but
    ]


def add(session: Session, fixtures: Iterable[FixtureDocument], of_modes: Mapping[str, ModeDocument] | None = None) -> list[int]:
    """Add fixtures, with the modes that they name: of the show, of `of_modes`, or plain kinds."""
    taken = set(session.scalars(select(Fixture.number)))
    numbers: dict[str, int] = {}
    added = []
    for fixture in fixtures:
        if fixture.number in taken:
            raise InUse(f"There is a fixture {fixture.number} already. The next free number is {_next(taken)}.", "number")
        taken.add(fixture.number)
        if fixture.mode not in numbers:
            known = of_modes[fixture.mode] if of_modes is not None else None
            numbers[fixture.mode] = keep_mode(session, known) if known else mode_named(session, fixture.mode)
        (x, y, z), (turn_x, turn_y, turn_z) = fixture.place, fixture.rotation
        rest = fixture.model_dump(exclude={"place", "rotation", "mode"})
        own = Fixture(x=x, y=y, z=z, turn_x=turn_x, turn_y=turn_y, turn_z=turn_z, mode_id=numbers[fixture.mode], **rest)
        session.add(own)
        added.append(fixture.number)
    session.flush()
    _check_addresses(of_numbers(session, added), specs(session))
    check_heads(session)
    return added


def _check_addresses(fixtures: Iterable[Fixture], of_modes: Mapping[int, ModeSpec]) -> None:
    """Refuse addresses that these fixtures cannot have."""
    for one in fixtures:
        if one.universe is not None and one.address is not None:
            patch.check(one.number, one.universe, one.address, of_modes[one.mode_id].footprint)


def check_heads(session: Session) -> None:
    """Refuse more heads than there may be."""
    of_modes, fixtures = specs(session), every(session)
    heads = sum(len(of_modes[one.mode_id].parts) for one in fixtures)
    if heads > MOST_HEADS:
        raise ZarabandaError(
            f"That would be {heads:,} heads; a show can have {MOST_HEADS:,}. Take cells together by a simpler mode, or add "
            "fewer.",
            "count",
        )


def change(session: Session, wanted: Mapping[int, Fields]) -> list[str]:
    """Change fixtures, also their numbers; everything that uses them follows. Gives what is lost, in words."""
    rows = {row.number: row for row in of_numbers(session, wanted)}
    of_modes = specs(session)
    now = {number: _with(row, wanted[number]) for number, row in rows.items()}
    _check_numbers(session, {number: fields["number"] for number, fields in now.items()})
    for fields in now.values():
        if (fields["universe"] is None) != (fields["address"] is None):
            fields["universe"] = fields["address"] = None
    changes, lost = [], []
    for number, row in rows.items():
        before, after = of_modes[row.mode_id], of_modes[now[number]["mode_id"]]
        if number != now[number]["number"] or before != after:
            changes.append(keys_of_heads.changed(number, before, now[number]["number"], after))
    swaps = Counter(
        (row.mode_id, now[number]["mode_id"]) for number, row in rows.items() if row.mode_id != now[number]["mode_id"]
    )
    for before_id, after_id in swaps:
        these = [n for n, row in rows.items() if (row.mode_id, now[n]["mode_id"]) == (before_id, after_id)]
        lost += _lost(session, these, of_modes[before_id], of_modes[after_id])
    _put(session, rows, now)
    if changes:
        keys_of_heads.rename(session, changes)
    _check_addresses(of_numbers(session, [fields["number"] for fields in now.values()]), specs(session))
    if swaps:
        check_heads(session)
    return lost


def _with(row: Fixture, fields: Fields) -> dict[str, Any]:
    """All columns of a fixture as they will be."""
    return {column.key: getattr(row, column.key) for column in Fixture.__table__.columns} | dict(fields)


def _check_numbers(session: Session, numbers: Mapping[int, int]) -> None:
    staying = set(session.scalars(select(Fixture.number))) - numbers.keys()
    seen: dict[int, int] = {}
    for old, new in numbers.items():
        if not 1 <= new <= LAST_NUMBER:
            raise ZarabandaError(f"{new} is no number of a fixture; give 1 to {LAST_NUMBER}.", "number")
        if new in staying or new in seen:
            free = _next(staying | set(numbers.values()))
            raise InUse(
                f"There is a fixture {new} already, so {old} cannot be called so. The next free number is {free}.", "number"
            )
        seen[new] = old


def _put(session: Session, rows: Mapping[int, Fixture], now: Mapping[int, dict[str, Any]]) -> None:
    """Write the rows: where numbers move, each number gets what is called so now."""
    new = {fields["number"]: fields for fields in now.values()}
    for number, row in rows.items():
        if number not in new:
            session.delete(row)
    session.flush()
    for number, fields in new.items():
        known = rows.get(number)
        if known is None:
            session.add(Fixture(**fields))
            continue
        for name, value in fields.items():
            setattr(known, name, value)
    session.flush()


def _lost(session: Session, numbers: Sequence[int], before: ModeSpec, after: ModeSpec) -> list[str]:
    """What another mode takes from these fixtures, in words and counts."""
    had, has = ({name for part in mode.parts for name in mode.attributes_of(part)} for mode in (before, after))
    lost = [row for row in attributes.ATTRIBUTES if row.name in had - has]
    told = []
    heads = {key for number in numbers for key in head_keys(number, before)}
    for attribute in lost:
        row = session.get(DraftValue, attribute.name)
        values = sum(key in heads for key in row.heads) if row is not None else 0
        also = f", and {values} {'value' if values == 1 else 'values'} set by hand" if values else ""
        told.append(f"{_listed(numbers, begin=True)}: no {attribute.label.lower()} any more{also}.")
    names = {attribute.name for attribute in lost}
    for user, effect in _effects_on(session, heads):
        idle = {layer["attribute"] for layer in effect.document["layers"]} & names
        told += [f"“{effect.name}” on {user.in_words()}: its {name} does not act on {_listed(numbers)}." for name in sorted(idle)]
    if len(before.cells) > len(after.cells):
        told.append(f"{_listed(numbers, begin=True)}: {len(before.cells)} cells become {len(after.cells) or 'one light'}.")
    return told


def _effects_on(session: Session, heads: set[str]) -> Iterable[tuple[DraftEffect | ControlRow, EffectRow]]:
    for user, _ in keys_of_heads.users_of(session, heads):
        if isinstance(user, DraftEffect | ControlRow) and user.effect_id:
            yield user, get(session, EffectRow, user.effect_id, "effect")


def uses(session: Session, numbers: Sequence[int]) -> list[str]:
    """What uses these fixtures, in words and counts."""
    of_modes = specs(session)
    heads = {key for row in of_numbers(session, numbers) for key in head_keys(row.number, of_modes[row.mode_id])}
    told = []
    for row, count in keys_of_heads.users_of(session, heads):
        if isinstance(row, DraftValue):
            told.append(f"{count} {'value' if count == 1 else 'values'} of {row.attribute.replace('_', ' ')} set by hand")
        elif isinstance(row, Group | EffectRow | PaletteRow | ControlRow | CueRow | PixelMapRow):
            told.append(f"{row.in_words()}: {count} of its heads")
        else:
            told.append(f"an effect in {row.in_words()}: {count} of its heads")
    return told


def remove(session: Session, numbers: Sequence[int]) -> None:
    """Take fixtures out, and out of everything that uses them."""
    of_modes, rows = specs(session), of_numbers(session, numbers)
    keys_of_heads.rename(session, [keys_of_heads.gone(row.number, of_modes[row.mode_id]) for row in rows])
    for row in rows:
        session.delete(row)
    session.flush()


def free_numbers(session: Session, first: int, count: int) -> list[int]:
    """So many numbers from the first on that no fixture has."""
    taken = set(session.scalars(select(Fixture.number)))
    found = [number for number in range(first, LAST_NUMBER + 1) if number not in taken][:count]
    if len(found) < count:
        raise ZarabandaError(f"There are not {count} free numbers from {first} on; numbers go up to {LAST_NUMBER}.", "number")
    return found


def _next(taken: Collection[int]) -> int:
    return next(number for number in range(max(taken, default=0) + 1, LAST_NUMBER + 2) if number not in taken)


def _listed(numbers: Sequence[int], *, begin: bool = False) -> str:
    """In words; begin: of a sentence."""
    if len(numbers) == 1:
        return f"{'Fixture' if begin else 'fixture'} {numbers[0]}"
    runs = f"{numbers[0]} to {numbers[-1]}" if numbers[-1] - numbers[0] == len(numbers) - 1 else f"{numbers[0]} and others"
    return f"{len(numbers)} fixtures ({runs})"


def _them(numbers: Sequence[int]) -> str:
    return "it" if len(numbers) == 1 else "them"
