"""Values that are set by hand: the draft as a holder of claims, which lies over all others."""

from __future__ import annotations

import numpy as np

from zarabanda.core.playback import looks
from zarabanda.core.playback.claims import Claims, held_now, on_other_heads
from zarabanda.core.playback.cues import Times
from zarabanda.core.playback.going import Passage, by_way
from zarabanda.core.playback.shares import Release, Timing, alike
from zarabanda.core.playback.strips import DRAFT

from ..program import Program


def claimed(claims: Claims, before: Program, now: Program, t: float) -> Claims:
    """The claims after the draft was changed: what is new goes there in the program's time, what was taken back is released,
    and what follows a palette that was edited keeps its share."""
    if now.rig.heads.keys is not before.rig.heads.keys:  # cells are counted anew
        return settled(kept(claims, before, now), now, t, 0.0)
    if now.draft is before.draft:
        return claims
    new, gone = looks.changed(before.draft, now.draft)
    if gone.any():
        claims = claims.released(DRAFT, gone.reshape(-1).nonzero()[0], alike(Release(t, t, now.fade_s)))
    follows = new & (now.draft_palettes >= 0)
    if follows.any():
        follows &= (before.draft_palettes == now.draft_palettes) & ~np.isnan(before.draft)
    for cells in looks.cells_of(now.draft, follows):
        claims = claims.retargeted(DRAFT, cells.cells, cells.targets, t)
    return _claim(claims, now, new & ~follows, Timing(t, fade=now.fade_s))


def restored(program: Program, t: float) -> Claims:
    """The claims of the draft as it stands, without a fade."""
    return settled(Claims(), program, t, 0.0)


def settled(claims: Claims, program: Program, t: float, fade_s: float) -> Claims:
    """The claims of the draft as it stands, whatever they were before: what differs goes there in a time."""
    new, gone = looks.changed(held_now(claims, DRAFT, program.draft.shape), program.draft)
    if gone.any():
        claims = claims.released(DRAFT, gone.reshape(-1).nonzero()[0], alike(Release(t, t, fade_s)))
    return _claim(claims, program, new, Timing(t, fade=fade_s))


def kept(claims: Claims, before: Program, now: Program) -> Claims:
    """The claims while the draft is prepared without output: as they are, on the heads that are still there."""
    if now.rig.heads.keys is before.rig.heads.keys:
        return claims
    number = np.array([now.rig.heads.index.get(key, -1) for key in before.rig.heads.keys], np.int64)
    return on_other_heads(claims, number, len(now.rig))


def _claim(claims: Claims, program: Program, new: looks.Bools, timing: Timing) -> Claims:
    """New claims: colours of each palette go its own way, all others that of the show."""
    passage = Passage(Times(), ways=program.ways, show_way=program.way)
    for way, part in by_way(new, program.draft_palettes, passage):
        cells = looks.cells_of(program.draft, part)
        claims = claims.claimed(DRAFT, cells, program.rig.home, alike(timing), space=way)
    return claims
