"""fixtures in layers and classes, and known to other programs"""

import sqlalchemy as sa
from alembic import op

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None
COLUMNS = {"layer": 80, "class_name": 80, "uuid": 36}


def upgrade() -> None:
    for name, length in COLUMNS.items():
        op.add_column("fixture", sa.Column(name, sa.String(length), nullable=False, server_default=""))


def downgrade() -> None:
    for name in COLUMNS:
        op.drop_column("fixture", name)
