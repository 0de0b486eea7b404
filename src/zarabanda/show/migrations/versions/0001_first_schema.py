"""first schema"""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "draft_value",
        sa.Column("attribute", sa.String(length=40), nullable=False),
        sa.Column("heads", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("attribute"),
    )
    op.create_table(
        "edit",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("browser", sa.String(length=64), nullable=False),
        sa.Column("label", sa.String(length=200), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("undone", sa.Boolean(), nullable=False),
        sa.Column("changes", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
    )
    with op.batch_alter_table("edit", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_edit_browser"), ["browser"], unique=False)

    op.create_table(
        "effect",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=80), nullable=False),
        sa.Column("kept", sa.Boolean(), nullable=False),
        sa.Column("favourite", sa.Boolean(), nullable=False),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "head_group",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=80), nullable=False),
        sa.Column("heads", sa.JSON(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("name"),
    )
    op.create_table(
        "mode",
        sa.Column("name", sa.String(length=120), nullable=False),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("name"),
    )
    op.create_table(
        "page",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=80), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "show",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=120), nullable=False),
        sa.Column("settings", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "tempo",
        sa.Column("name", sa.String(length=80), nullable=False),
        sa.Column("bpm", sa.Float(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("name"),
    )
    op.create_table(
        "control",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("page_id", sa.Integer(), nullable=False),
        sa.Column("place", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=80), nullable=False),
        sa.Column("mode", sa.String(length=12), nullable=False),
        sa.Column("effect_id", sa.Integer(), nullable=False),
        sa.Column("heads", sa.JSON(), nullable=False),
        sa.Column("release_s", sa.Float(), nullable=False),
        sa.ForeignKeyConstraint(
            ["effect_id"],
            ["effect.id"],
        ),
        sa.ForeignKeyConstraint(
            ["page_id"],
            ["page.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "draft_effect",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("effect_id", sa.Integer(), nullable=False),
        sa.Column("heads", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(
            ["effect_id"],
            ["effect.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "fixture",
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=120), nullable=False),
        sa.Column("mode", sa.String(length=120), nullable=False),
        sa.Column("x", sa.Float(), nullable=False),
        sa.Column("y", sa.Float(), nullable=False),
        sa.Column("z", sa.Float(), nullable=False),
        sa.Column("turn_x", sa.Float(), nullable=False),
        sa.Column("turn_y", sa.Float(), nullable=False),
        sa.Column("turn_z", sa.Float(), nullable=False),
        sa.Column("universe", sa.Integer(), nullable=False),
        sa.Column("address", sa.Integer(), nullable=False),
        sa.Column("reversed_cells", sa.Boolean(), nullable=False),
        sa.ForeignKeyConstraint(
            ["mode"],
            ["mode.name"],
        ),
        sa.PrimaryKeyConstraint("number"),
    )


def downgrade() -> None:
    op.drop_table("fixture")
    op.drop_table("draft_effect")
    op.drop_table("control")
    op.drop_table("tempo")
    op.drop_table("show")
    op.drop_table("page")
    op.drop_table("mode")
    op.drop_table("head_group")
    op.drop_table("effect")
    with op.batch_alter_table("edit", schema=None) as batch_op:
        batch_op.drop_index(batch_op.f("ix_edit_browser"))

    op.drop_table("edit")
    op.drop_table("draft_value")
