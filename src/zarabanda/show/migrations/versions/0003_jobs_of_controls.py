"""what a fader changes, and the families that a control keeps"""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("control") as batch_op:
        batch_op.add_column(sa.Column("job", sa.String(length=12), nullable=False, server_default="depth"))
        batch_op.add_column(sa.Column("families", sa.JSON(), nullable=True))


def downgrade() -> None:
    with op.batch_alter_table("control") as batch_op:
        batch_op.drop_column("families")
        batch_op.drop_column("job")
