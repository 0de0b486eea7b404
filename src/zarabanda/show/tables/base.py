"""What all tables of a show have in common."""

from __future__ import annotations

from sqlalchemy.orm import DeclarativeBase

NEVER_AGAIN = {"sqlite_autoincrement": True}
"""A number that a deleted row had is not given to another: what still plays by it must not become something else."""


class Base(DeclarativeBase):
    """All tables. Those with `in_history` are followed by undo; their rows have one key.

    Rows refer to each other by number, never by name: by foreign keys, and from within documents (see `references`).
    """

    in_history = True

    def in_words(self) -> str:
        """What a user would call this row."""
        name = getattr(self, "name", None)
        kind = self.__tablename__.replace("_", " ").removeprefix("head ")
        return f"the {kind} “{name}”" if name else f"the {kind}"
