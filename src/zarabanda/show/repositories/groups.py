"""Groups: kept selections."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..tables import Group


def every(session: Session) -> Sequence[Group]:
    """Groups in their order."""
    return session.scalars(select(Group).order_by(Group.position, Group.id)).all()
