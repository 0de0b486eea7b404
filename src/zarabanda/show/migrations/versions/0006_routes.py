"""routes: which universes go where"""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None

_AS_BEFORE = {
    "universes": "all", "protocol": "E1.31", "to": "simulator", "port": 0, "over": "", "first": None, "priority": 100,
    "sync": 0, "rate": 44.0, "always": False,
}  # fmt: skip


def upgrade() -> None:
    route = op.create_table(
        "route",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.Column("on", sa.Boolean(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        sqlite_autoincrement=True,
    )
    show = sa.table("show", sa.column("id", sa.Integer))
    if op.get_bind().scalar(sa.select(sa.func.count()).select_from(show)):  # a show that is there went on to the simulated node
        op.bulk_insert(route, [{"document": _AS_BEFORE, "on": True}])


def downgrade() -> None:
    op.drop_table("route")
