"""timelines"""

from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None


def _rows(name: str, *columns: sa.Column[Any], parent: str = "") -> None:
    refers = [sa.Column(f"{parent}_id", sa.Integer(), nullable=False)] if parent else []
    keys = [sa.ForeignKeyConstraint([f"{parent}_id"], [f"{parent}.id"])] if parent else []
    op.create_table(
        name, sa.Column("id", sa.Integer(), nullable=False), *refers, *columns, sa.PrimaryKeyConstraint("id"), *keys,
        sqlite_autoincrement=True,
    )  # fmt: skip
    if parent:
        op.create_index(f"ix_{name}_{parent}_id", name, [f"{parent}_id"])


def _span() -> list[sa.Column[Any]]:
    return [sa.Column("at", sa.Float(), nullable=False), sa.Column("length", sa.Float(), nullable=False)]


def upgrade() -> None:
    _rows(
        "timeline", sa.Column("name", sa.String(80), nullable=False, unique=True),
        sa.Column("position", sa.Integer(), nullable=False), sa.Column("document", sa.JSON(), nullable=False),
    )  # fmt: skip
    _rows(
        "marker", *_span(), sa.Column("name", sa.String(60), nullable=False), sa.Column("colour", sa.String(7), nullable=False),
        parent="timeline",
    )  # fmt: skip
    _rows(
        "track", sa.Column("position", sa.Integer(), nullable=False), sa.Column("document", sa.JSON(), nullable=False),
        parent="timeline",
    )  # fmt: skip
    _rows("event", *_span(), sa.Column("document", sa.JSON(), nullable=False), parent="track")


def downgrade() -> None:
    for name in ("event", "track", "marker", "timeline"):
        op.drop_table(name)
