"""Small rigs to begin with, of plain kinds."""

from __future__ import annotations

from dataclasses import dataclass

from zarabanda.core.rig.patch import Address, next_free
from zarabanda.core.rig.stage import MOUNTINGS
from zarabanda.formats.rig_document import FixtureDocument

from .kinds import plain_kinds

PAR, WASH, SPOT = "Par RGBW, 5 channels", "Wash RGBW, 13 channels, 16 bit", "Spot CMY, 18 channels, 16 bit"
BEAM, BAR = "Beam, colour wheel, 11 channels, 16 bit", "Moving bar 10 RGBW, 10 cells, 45 channels, 16 bit"
BATTEN, TILE = "Batten 12 RGB, 12 cells, 36 channels", "Tile 8 × 8 RGB, 64 cells, 192 channels"
_LYING = (90.0, 0.0, 0.0)


@dataclass(frozen=True)
class Row:
    """Fixtures side by side: mode, first number, how many, how wide in m, and where the middle of the row is (y, z)."""

    mode: str
    name: str
    first: int
    count: int
    width: float
    y: float
    z: float
    turn: tuple[float, float, float] = MOUNTINGS["hanging"]


READY: dict[str, tuple[Row, ...]] = {
    "pars": (Row(PAR, "Par", 1, 8, 7, 2, 4),),
    "club": (
        Row(SPOT, "Spot", 101, 6, 6, 4, 4), Row(WASH, "Wash", 201, 6, 7, 2, 4),
        Row(BATTEN, "Bar", 301, 8, 7, 5, 0.3, (60.0, 0, 0)),
    ),
    "stage": (
        Row(SPOT, "Spot", 101, 8, 11, 6, 7), Row(WASH, "Wash", 201, 8, 10, 3, 6),
        Row(BEAM, "Beam", 301, 6, 9, 4.5, 0.3, (0, 0, 0)),
        Row(BAR, "Tilt bar", 321, 2, 4, 1.5, 0.3, (0, 0, 0)), Row(PAR, "Front", 401, 6, 8, -5, 6),
        Row(TILE, "Wall", 601, 8, 7, 7, 1.5, _LYING),
    ),
}  # fmt: skip
"""Every ready rig by its name."""


def ready_rig(name: str) -> list[FixtureDocument]:
    """Its fixtures, addressed one after another."""
    rows = [(row, n) for row in READY[name] for n in range(row.count)]
    where: list[Address] = next_free([], [plain_kinds()[row.mode].footprint for row, _ in rows])
    found = []
    for (row, n), (universe, address) in zip(rows, where, strict=True):
        x = round((n / max(row.count - 1, 1) - 0.5) * row.width, 3)
        found.append(
            FixtureDocument(
                number=row.first + n, name=row.name, mode=row.mode, place=(x, row.y, row.z), rotation=row.turn,
                universe=universe, address=address,
            )
        )  # fmt: skip
    return found
