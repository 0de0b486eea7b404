"""busking pages, and their rows"""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "busk_page",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("name"),
        sqlite_autoincrement=True,
    )
    op.create_table(
        "busk_row",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("page_id", sa.Integer(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("kind", sa.String(12), nullable=False),
        sa.Column("group_id", sa.Integer(), nullable=True),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["page_id"], ["busk_page.id"]),
        sa.ForeignKeyConstraint(["group_id"], ["head_group.id"]),
        sa.PrimaryKeyConstraint("id"),
        sqlite_autoincrement=True,
    )
    op.create_index("ix_busk_row_page_id", "busk_row", ["page_id"])
    op.create_index("ix_busk_row_group_id", "busk_row", ["group_id"])


def downgrade() -> None:
    op.drop_table("busk_row")
    op.drop_table("busk_page")
