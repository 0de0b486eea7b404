"""Values that are set by hand: the draft as a holder of claims, which lies over all others."""

from __future__ import annotations

from zarabanda.core.playback import looks
from zarabanda.core.playback.claims import DRAFT, Claims
from zarabanda.core.playback.shares import Release, Timing, alike

from ..program import Program


def claimed(claims: Claims, before: Program, now: Program, t: float) -> Claims:
    """The claims after the draft was changed: what is new goes there in the program's time, what was taken back is released."""
    if now.rig.heads.keys is not before.rig.heads.keys:  # cells are counted anew
        return restored(now, t)
    if now.draft is before.draft:
        return claims
    new, gone = looks.changed(before.draft, now.draft)
    if gone.any():
        claims = claims.released(DRAFT, gone.reshape(-1).nonzero()[0], alike(Release(t, t, now.fade_s)))
    return _claim(claims, now, new, Timing(t, fade=now.fade_s))


def restored(program: Program, t: float) -> Claims:
    """The claims of the draft as it stands, without a fade."""
    return _claim(Claims(), program, looks.changed(looks.held(program.rig, {}), program.draft)[0], Timing(t))


def _claim(claims: Claims, program: Program, new: looks.Bools, timing: Timing) -> Claims:
    cells = looks.cells_of(program.draft, new)
    return claims.claimed(DRAFT, cells, program.rig.home, alike(timing))
