"""What a mode costs and gives, and what effects cannot do in it: told before it is chosen."""

from __future__ import annotations

from zarabanda.core.rig import attributes
from zarabanda.core.rig.modes import ModeSpec
from zarabanda.core.rig.patch import SLOTS

_COARSE = {"pan": 540.0, "tilt": 270.0}


def fit_in_a_universe(mode: ModeSpec) -> int:
    """How many fixtures in this mode one universe carries; 0: one needs more than one."""
    return SLOTS // mode.footprint


def fineness(mode: ModeSpec) -> str:
    """Which attributes are finer than 8 bit, in words."""
    fine = {8 * len(one.slots): [] for one in mode.channels if len(one.slots) > 1}  # type: dict[int, list[str]]
    for one in mode.channels:
        label = attributes.BY_NAME[one.source].label.lower() if one.source in attributes.BY_NAME else one.source
        if len(one.slots) > 1 and label not in fine[8 * len(one.slots)]:
            fine[8 * len(one.slots)].append(label)
    return "; ".join(f"{bits} bit: {', '.join(names)}" for bits, names in sorted(fine.items())) or "8 bit"


def limits_of(mode: ModeSpec) -> list[str]:
    """What effects cannot do in this mode, each as a sentence."""
    sources = {one.source for one in mode.channels}
    able = {name for part in mode.parts for name in mode.attributes_of(part)}
    told = []
    if mode.emitters == "wheel":
        told.append("Colour wheel only: colour effects will step.")
    elif "red" not in able and "temperature" not in able and mode.gives_light:
        told.append("One colour: colour effects do nothing.")
    elif "red" not in able and "temperature" in able:
        told.append("White only: colour effects do nothing, effects on colour temperature do.")
    if mode.gives_light and "intensity" not in sources:
        told.append("No channel for intensity: its level dims the colour, in the steps of 8 bit.")
    for name in ("pan", "tilt"):
        slots = max((len(one.slots) for one in mode.channels if one.source == name), default=0)
        if slots == 1:
            told.append(f"{name.capitalize()} in 8 bit: slow movements are seen in steps of about {_COARSE[name] / 255:.0f}°.")
    if mode.footprint > SLOTS:
        told.append(f"Takes {-(-mode.footprint // SLOTS)} universes, beginning at address 1.")
    return told
