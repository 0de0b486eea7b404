"""what a control drives apart from where it is; references by number instead of by name; numbers that are never used again"""

import json
from collections.abc import Callable, Mapping
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None

Row = dict[str, Any]
_AGAIN_NEVER = {"sqlite_autoincrement": True}


def _rows(table: str) -> list[Row]:
    return [dict(row) for row in op.get_bind().execute(sa.text(f'SELECT * FROM "{table}"')).mappings()]


def _write(table: str, row: Row, *names: str) -> None:
    changed = ", ".join(f'"{name}" = :{name}' for name in names)
    op.get_bind().execute(sa.text(f'UPDATE "{table}" SET {changed} WHERE id = :id'), row)


def _with_numbers(document: Any, palettes: Mapping[str, int], tempos: Mapping[str, int]) -> Any:
    if isinstance(document, dict):
        if set(document) == {"palette"}:
            return {"palette": palettes.get(document["palette"], document["palette"])}
        if document.get("kind") == "tempo" and "tempo" in document:
            return document | {"tempo": tempos.get(document["tempo"], document["tempo"])}
        return {key: _with_numbers(one, palettes, tempos) for key, one in document.items()}
    return [_with_numbers(one, palettes, tempos) for one in document] if isinstance(document, list) else document


def _used(document: Any) -> set[tuple[str, int]]:
    if isinstance(document, dict):
        found = {(key, document[key]) for key in ("palette", "tempo") if isinstance(document.get(key), int)}
        return found.union(*map(_used, document.values()))
    return set[tuple[str, int]]().union(*map(_used, document)) if isinstance(document, list) else set()


def _control(row: Row) -> Row:
    target = {"kind": "effect", "effect_id": row["effect_id"], "heads": row["heads"], "families": row["families"]}
    kept = ("id", "page_id", "place", "name", "mode", "job", "release_s")
    return {name: row[name] for name in kept} | {"row": "faders" if row["mode"] == "fader" else "buttons", "target": target}


def upgrade() -> None:
    tempos = {row["name"]: n + 1 for n, row in enumerate(sorted(_rows("tempo"), key=lambda row: row["position"]))}
    palettes = {row["name"]: row["id"] for row in _rows("palette")}
    edits = [row | {"changes": json.loads(row["changes"])} for row in _rows("edit")]
    renamed = dict(palettes)
    for edit in edits:
        for change in edit["changes"]:
            for row in (change["before"], change["after"]):
                if change["table"] == "palette" and row is not None:
                    renamed.setdefault(row["name"], row["id"])

    _change_tables(tempos)
    op.create_table(
        "reference",
        sa.Column("id", sa.Integer(), primary_key=True, nullable=False),
        sa.Column("user_table", sa.String(40), nullable=False),
        sa.Column("user_id", sa.Integer(), nullable=False),
        sa.Column("used_table", sa.String(40), nullable=False),
        sa.Column("used_id", sa.Integer(), nullable=False),
    )
    op.create_index("ix_reference_user", "reference", ["user_table", "user_id"])
    op.create_index("ix_reference_used", "reference", ["used_table", "used_id"])

    for row in _rows("effect"):
        document = _with_numbers(json.loads(row["document"]), palettes, tempos)
        _write("effect", row | {"document": json.dumps(document)}, "document")
        for used_table, used_id in sorted(_used(document)):
            _refer("effect", row["id"], used_table, used_id)
    for row in _rows("control"):
        _refer("control", row["id"], "effect", json.loads(row["target"])["effect_id"])

    of_rows: dict[str, Callable[[Row], Row]] = {
        "control": lambda row: _control({"job": "depth", "families": None} | row),
        "tempo": lambda row: {"id": tempos[row["name"]]} | row,
        "effect": lambda row: row | {"document": _with_numbers(row["document"], renamed, tempos)},
    }
    for edit in edits:
        _write_edit(edit, of_rows, tempos)


def _refer(user_table: str, user_id: int, used_table: str, used_id: int) -> None:
    op.get_bind().execute(
        sa.text("INSERT INTO reference (user_table, user_id, used_table, used_id) VALUES (:a, :b, :c, :d)"),
        {"a": user_table, "b": user_id, "c": used_table, "d": used_id},
    )


def _change_tables(tempos: Mapping[str, int]) -> None:
    old_tempos, controls = _rows("tempo"), _rows("control")
    op.drop_table("tempo")
    op.create_table(
        "tempo",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("bpm", sa.Float(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("name"),
        **_AGAIN_NEVER,
    )
    for row in old_tempos:
        op.get_bind().execute(
            sa.text("INSERT INTO tempo (id, name, bpm, position) VALUES (:id, :name, :bpm, :position)"),
            row | {"id": tempos[row["name"]]},
        )
    for table in ("head_group", "effect", "palette", "page", "draft_effect"):
        with op.batch_alter_table(table, recreate="always", table_kwargs=_AGAIN_NEVER) as batch:
            if table == "draft_effect":
                batch.create_index("ix_draft_effect_effect_id", ["effect_id"])
    op.drop_table("control")
    op.create_table(
        "control",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("page_id", sa.Integer(), nullable=False),
        sa.Column("row", sa.String(12), nullable=False),
        sa.Column("place", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("mode", sa.String(12), nullable=False),
        sa.Column("job", sa.String(12), nullable=False),
        sa.Column("release_s", sa.Float(), nullable=False),
        sa.Column("target", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["page_id"], ["page.id"]),
        sa.PrimaryKeyConstraint("id"),
        **_AGAIN_NEVER,
    )
    op.create_index("ix_control_place", "control", ["page_id", "row", "place"])
    for row in controls:
        families = json.loads(row["families"]) if row["families"] else None
        new = _control(row | {"heads": json.loads(row["heads"]), "families": families})
        names = ", ".join(f'"{name}"' for name in new)
        op.get_bind().execute(
            sa.text(f"INSERT INTO control ({names}) VALUES ({', '.join(':' + name for name in new)})"),
            new | {"target": json.dumps(new["target"])},
        )


def _write_edit(edit: Row, of_rows: Mapping[str, Callable[[Row], Row]], tempos: Mapping[str, int]) -> None:
    """The history goes on: its rows become what the tables are now. What cannot (a tempo that is gone) is forgotten."""
    changes = []
    for change in edit["changes"]:
        convert = of_rows.get(change["table"])
        if convert is not None:
            try:
                change |= {when: None if change[when] is None else convert(change[when]) for when in ("before", "after")}
                if change["table"] == "tempo":
                    change["key"] = tempos[change["key"]]
            except KeyError:
                op.get_bind().execute(sa.text("DELETE FROM edit WHERE id = :id"), edit)
                return
        if change["before"] != change["after"]:
            changes.append(change)
    _write("edit", {"id": edit["id"], "changes": json.dumps(changes)}, "changes")


def downgrade() -> None:
    raise NotImplementedError("A show is not made older again; open the copy that was made before.")
