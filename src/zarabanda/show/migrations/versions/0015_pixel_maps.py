"""pixel maps"""

import sqlalchemy as sa
from alembic import op

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def upgrade() -> None:
    for name in ("pixel_map", "picture"):
        op.create_table(
            name,
            sa.Column("id", sa.Integer(), nullable=False),
            sa.Column("name", sa.String(80), nullable=False, unique=True),
            sa.Column("position", sa.Integer(), nullable=False),
            sa.Column("document", sa.JSON(), nullable=False),
            sa.PrimaryKeyConstraint("id"),
            sqlite_autoincrement=True,
        )


def downgrade() -> None:
    for name in ("picture", "pixel_map"):
        op.drop_table(name)
