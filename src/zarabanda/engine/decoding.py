"""From plain messages to what the core works with."""

from __future__ import annotations

from typing import Any

from zarabanda.core.rig.rig import Channel, FixtureSpec, ModeSpec, Rig, build


def _tuples(value: Any) -> Any:
    return tuple(_tuples(item) for item in value) if isinstance(value, list) else value


def rig_from_message(message: dict[str, Any]) -> Rig:
    """The rig of a `rig` message: modes by name, fixtures with the name of their mode."""
    modes = {}
    for data in message["modes"]:
        fields = {key: _tuples(value) for key, value in data.items()}
        fields["channels"] = tuple(Channel(**{k: _tuples(v) for k, v in c.items()}) for c in data["channels"])
        fields["limits"] = {name: tuple(limits) for name, limits in data["limits"].items()}
        modes[data["name"]] = ModeSpec(**fields)
    fixtures = [
        FixtureSpec(**({key: _tuples(value) for key, value in data.items()} | {"mode": modes[data["mode"]]}))
        for data in message["fixtures"]
    ]
    return build(fixtures)
