"""The rig: modes and fixtures."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.formats.rig_document import FixtureDocument, ModeDocument

from ..tables import Fixture, Mode


def every(session: Session) -> Sequence[Fixture]:
    """Fixtures by number."""
    return session.scalars(select(Fixture).order_by(Fixture.number)).all()


def modes(session: Session) -> dict[int, ModeDocument]:
    """Modes of the show by number."""
    return {row.id: ModeDocument.model_validate(row.document) for row in session.scalars(select(Mode).order_by(Mode.id))}


def keep_mode(session: Session, document: ModeDocument) -> int:
    """The number of a mode of this name in the show, which gets it if it has none."""
    row = session.scalars(select(Mode).where(Mode.name == document.name)).first()
    if row is None:
        row = Mode(name=document.name, document=document.model_dump(mode="json"))
        session.add(row)
        session.flush()
    return row.id


def add(session: Session, fixtures: Iterable[FixtureDocument], of_modes: Mapping[str, ModeDocument]) -> None:
    """Add fixtures, with the modes that they name."""
    numbers: dict[str, int] = {}
    for fixture in fixtures:
        if fixture.mode not in numbers:
            numbers[fixture.mode] = keep_mode(session, of_modes[fixture.mode])
        (x, y, z), (turn_x, turn_y, turn_z) = fixture.place, fixture.rotation
        rest = fixture.model_dump(exclude={"place", "rotation", "mode"})
        own = Fixture(x=x, y=y, z=z, turn_x=turn_x, turn_y=turn_y, turn_z=turn_z, mode_id=numbers[fixture.mode], **rest)
        session.add(own)
    session.flush()
