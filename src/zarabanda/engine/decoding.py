"""From parts of the show to what the core works with."""

from __future__ import annotations

import msgspec

from zarabanda.core.rig.rig import FixtureSpec, Rig, build
from zarabanda.messages import RigPart


def rig_of(part: RigPart) -> Rig:
    """The rig: fixtures with the mode that they name."""
    modes = {mode.name: mode for mode in part.modes}
    return build([FixtureSpec(**msgspec.structs.asdict(fixture) | {"mode": modes[fixture.mode]}) for fixture in part.fixtures])
