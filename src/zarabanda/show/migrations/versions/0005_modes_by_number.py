"""modes by number; fixtures without an address, with notes and an order of cells; groups that were made by a rule"""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None

Row = dict[str, Any]


def _rows(table: str) -> list[Row]:
    return [dict(row) for row in op.get_bind().execute(sa.text(f'SELECT * FROM "{table}"')).mappings()]


def _insert(table: str, row: Row) -> None:
    names = ", ".join(f'"{name}"' for name in row)
    values = ", ".join(f":{name}" for name in row)
    op.get_bind().execute(sa.text(f'INSERT INTO "{table}" ({names}) VALUES ({values})'), row)


def _fixture(row: Row, numbers: dict[str, int]) -> Row:
    kept = {name: value for name, value in row.items() if name not in ("mode", "reversed_cells")}
    order = "reversed" if row["reversed_cells"] else ""
    return kept | {"mode_id": numbers[row["mode"]], "cell_order": order, "notes": ""}


def upgrade() -> None:
    modes, fixtures = _rows("mode"), _rows("fixture")
    numbers = {row["name"]: n + 1 for n, row in enumerate(sorted(modes, key=lambda row: row["name"]))}
    op.drop_table("fixture")
    op.drop_table("mode")
    op.create_table(
        "mode",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("name"),
        sqlite_autoincrement=True,
    )
    op.create_table(
        "fixture",
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("mode_id", sa.Integer(), nullable=False),
        *[sa.Column(name, sa.Float(), nullable=False) for name in ("x", "y", "z", "turn_x", "turn_y", "turn_z")],
        sa.Column("universe", sa.Integer(), nullable=True),
        sa.Column("address", sa.Integer(), nullable=True),
        sa.Column("cell_order", sa.String(60), nullable=False),
        sa.Column("notes", sa.String(400), nullable=False),
        sa.ForeignKeyConstraint(["mode_id"], ["mode.id"]),
        sa.PrimaryKeyConstraint("number"),
    )
    op.create_index("ix_fixture_mode_id", "fixture", ["mode_id"])
    for row in modes:
        _insert("mode", {"id": numbers[row["name"]]} | row)
    for row in fixtures:
        _insert("fixture", _fixture(row, numbers))
    op.add_column("head_group", sa.Column("rule", sa.JSON(), nullable=True))
    for edit in _rows("edit"):
        changes = json.loads(edit["changes"])
        for change in changes:
            for when in ("before", "after"):
                if change[when] is not None:
                    change[when] = _as_now(change["table"], change[when], numbers)
            if change["table"] == "mode":
                change["key"] = numbers[change["key"]]
        op.get_bind().execute(
            sa.text("UPDATE edit SET changes = :changes WHERE id = :id"), {"id": edit["id"], "changes": json.dumps(changes)}
        )


def _as_now(table: str, row: Row, numbers: dict[str, int]) -> Row:
    """A row of the history as the table is now. The rig could not be edited before: all its modes are there."""
    if table == "mode":
        return {"id": numbers[row["name"]]} | row
    if table == "fixture":
        return _fixture(row, numbers)
    return row | {"rule": None} if table == "head_group" else row


def downgrade() -> None:
    raise NotImplementedError("A show is not made older again; open the copy that was made before.")
