"""Short ways to write mode documents down."""

from __future__ import annotations

from typing import Any

Doc = dict[str, Any]
Place = tuple[float, float, float]
_UNIT = {"intensity": 100.0}


def channels(*rows: tuple[Any, ...], cell: int = 0, first: int = 0) -> list[Doc]:
    """Channels in the order of their slots: (source, bytes, low, high); a row without a source is a slot that is not used."""
    found, slot = [], first
    for source, size, low, high in rows:
        if source:
            found.append({"source": source, "slots": list(range(slot, slot + size)), "low": low, "high": high, "cell": cell})
        slot += size
    return found


def cells(count: int, *names: str, first: int = 0) -> list[Doc]:
    """The same channels of 8 bit for each cell, one cell after another; no cell is divided between two universes."""
    each, fits = len(names), (512 - first) // len(names)
    if count > fits and first:
        raise ValueError("cells that go on in another universe begin at the first slot")
    return [
        {"source": name, "slots": [first + cell // fits * 512 + cell % fits * each + n], "low": 0, "high": _UNIT.get(name, 1),
         "cell": cell + 1}
        for cell in range(count)
        for n, name in enumerate(names)
    ]  # fmt: skip


def grid(columns: int, rows: int, pitch: float) -> list[Place]:
    """Places of cells beside the fixture: rows from the top left."""
    middle = (columns - 1) / 2
    return [((c - middle) * pitch, r * pitch, 0.0) for r in range(rows - 1, -1, -1) for c in range(columns)]


def of(*names: str) -> list[tuple[str, int, float, float]]:
    """Rows of emitters, 8 bit each."""
    return [(name, 1, 0, 1) for name in names]


def label_of(rows: list[Doc], footprint: int, cell_count: int = 0) -> str:
    """What a mode is called beside its model: how many cells and channels, and whether some are finer than 8 bit."""
    bits = 8 * max(len(row["slots"]) for row in rows)
    parts = [f"{cell_count} cells"] if cell_count else []
    parts.append(f"{footprint} channel{'' if footprint == 1 else 's'}")
    return ", ".join([*parts, f"{bits} bit"] if bits > 8 else parts)


def mode(model: str, kind: str, rows: list[Doc], **more: Any) -> Doc:
    """A mode; its footprint is what its channels need."""
    footprint = 1 + max(slot for row in rows for slot in row["slots"])
    name = f"{model}, {label_of(rows, footprint, len(more.get('cells', ())))}"
    return {"name": name, "model": model, "kind": kind, "channels": rows, "footprint": footprint, **more}
