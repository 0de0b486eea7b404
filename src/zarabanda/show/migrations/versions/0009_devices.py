"""outside devices that cues send messages to; two simulated ones to begin with"""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    made = op.create_table(
        "device",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("name"),
        sqlite_autoincrement=True,
    )
    simulated = {"Pixel server": "OSC", "Caption screen": "MIDI"}
    rows = [{"name": name, "document": {"speaks": speaks, "to": "simulator", "port": 0}} for name, speaks in simulated.items()]
    op.bulk_insert(made, rows)


def downgrade() -> None:
    op.drop_table("device")
