"""Claims of a holder after an edit of the show: what is held follows, what is gone goes out soon, all else goes on."""

from __future__ import annotations

from collections.abc import Iterable

import numpy as np

from zarabanda.core.playback.claims import Claims, held_now
from zarabanda.core.playback.looks import Cells, Floats, places
from zarabanda.core.playback.shares import Release, Timing, alike

EDITED_S = 0.2
"""So soon what was edited is there."""


def followed(claims: Claims, holder: str, wanted: Iterable[tuple[str, Cells]], home: Floats, t: float, *, rank: int) -> Claims:
    """With a holder holding what it is to hold by now, where it holds anything. wanted: with the way of their colours; home:
    (A, N); rank: of new claims, see `Claims.claimed`."""
    held = held_now(claims, holder, home.shape).reshape(-1)
    if np.isnan(held).all():
        return claims
    stays = np.zeros(home.size, bool)
    for way, cells in wanted:
        at = places(cells.cells, cells.kind, home.shape[1])
        stays[at] = True
        known = ~np.isnan(held[cells.cells])
        other = known & (held[at] != cells.targets).any(axis=1)
        if other.any():
            claims = claims.retargeted(holder, cells.cells[other], cells.targets[other], t)
        if not known.all():
            new = Cells(cells.family, cells.kind, cells.cells[~known], cells.targets[~known])
            claims = claims.claimed(holder, [new], home, alike(Timing(t, fade=EDITED_S)), rank=rank, space=way)
    gone = np.flatnonzero(~np.isnan(held) & ~stays)
    return claims.let_go([(holder, gone)], alike(Release(t, t, EDITED_S)), home) if len(gone) else claims
