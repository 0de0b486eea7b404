"""What something drives, as a document: an effect on heads, and what else can be put on a control. One class a kind.

Kept in the database, sent to the engine, and read back by the same definition.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Annotated, Any, Literal, Self, TypeVar

import msgspec

Used = tuple[str, int]
"""A row that a target refers to: name of its table, number."""
Seconds = Annotated[float, msgspec.Meta(ge=0, le=3600)]
BPM_LOW, BPM_HIGH = 20.0, 240.0
"""What a fader that is on a tempo goes from and to."""


class _Kind(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="kind"):
    """What all kinds have. Most refer to no heads."""

    def uses(self) -> set[Used]:
        """Rows that it refers to."""
        return set()

    def on(self, groups: Mapping[int, Sequence[str]]) -> Self:
        """With the heads of its group, where it has one."""
        return self


_Has = TypeVar("_Has", bound=_Kind)


def _group(number: int | None) -> set[Used]:
    return {("head_group", number)} if number is not None else set()


def _on_group(target: _Has, number: int | None, groups: Mapping[int, Sequence[str]]) -> _Has:
    """With the heads that a group has now; without a group those that it has."""
    return target if number is None else msgspec.structs.replace(target, heads=tuple(groups.get(number, ())))


class _WithHeads(_Kind, frozen=True):
    """On heads, in pick order, or on those of a group, now and later; `heads` is then empty where it is kept, and filled in where
    it acts."""

    heads: tuple[str, ...] = ()
    group_id: int | None = None

    def uses(self) -> set[Used]:
        return _group(self.group_id)

    def on(self, groups: Mapping[int, Sequence[str]]) -> Self:
        return _on_group(self, self.group_id, groups)


class EffectOnHeads(_Kind, frozen=True, tag="effect"):
    """An effect on heads, in pick order. families: whose layers act; None: all of them.

    group_id: the group whose heads they are, now and later; `heads` is then empty where it is kept, and filled in where it
    plays; depth: share of the effect's own, 0…1; speed: times its own.
    """

    effect_id: int
    heads: tuple[str, ...]
    families: tuple[str, ...] | None = None
    group_id: int | None = None
    depth: float = 1.0
    speed: float = 1.0

    def uses(self) -> set[Used]:
        return {("effect", self.effect_id), *_group(self.group_id)}

    def on(self, groups: Mapping[int, Sequence[str]]) -> Self:
        return _on_group(self, self.group_id, groups)


class StopEffects(_Kind, frozen=True, tag="stop-effects"):
    """Stopping effects, whatever started them. family: what they do in it, None: all that they do."""

    family: str | None = None


class UseLook(_Kind, frozen=True, tag="look"):
    """A kept look, or an overlay."""

    look: int

    def uses(self) -> set[Used]:
        return {("look", self.look)}


class UsePixels(_Kind, frozen=True, tag="pixels"):
    """A pixel map. picture: of the library instead of its own layers, 0: its own; over: over the effects on its heads, or under
    them; None: as the map says."""

    map: int
    picture: int = 0
    over: bool | None = None

    def uses(self) -> set[Used]:
        return {("pixel_map", self.map)} | ({("picture", self.picture)} if self.picture else set())


class OnList(_Kind, frozen=True, tag="list"):
    """A cue list: what a button does to it, or its level. seconds: of a release."""

    list: int
    do: Literal["go", "back", "pause", "release", "level"] = "go"
    seconds: Seconds = 2.0

    def uses(self) -> set[Used]:
        return {("cue_list", self.list)}


class OnGroup(_WithHeads, frozen=True, tag="group"):
    """The level of a group, apart from what plays on it."""


class Alone(_WithHeads, frozen=True, tag="alone"):
    """Heads that are alone while a button is held: all others go dark."""


class OnTempo(_Kind, frozen=True, tag="tempo"):
    """A tempo: a button taps it, a fader sets it."""

    tempo: int

    def uses(self) -> set[Used]:
        return {("tempo", self.tempo)}


class OnSpecials(_Kind, frozen=True, tag="special"):
    """A special; None: all of them, their level on a fader, and home by a button."""

    special: int | None = None

    def uses(self) -> set[Used]:
        return {("special", self.special)} if self.special is not None else set()


class Master(_Kind, frozen=True, tag="master"):
    """The grand master on a fader, blackout on a button."""


class OnRow(_Kind, frozen=True, tag="row"):
    """The level of all effects of a row of a busking page."""

    row: int

    def uses(self) -> set[Used]:
        return {("busk_row", self.row)}


class Send(_Kind, frozen=True, tag="message"):
    """A message to an outside device: see `formats.cue_message`. On a fader its value is where the fader is."""

    message: dict[str, Any]

    def uses(self) -> set[Used]:
        return {("device", int(self.message["device"]))}


class ShowPage(_Kind, frozen=True, tag="page"):
    """Another page of faders and buttons."""

    page: int

    def uses(self) -> set[Used]:
        return {("page", self.page)}


class RunActions(_Kind, frozen=True, tag="actions"):
    """An action list."""

    actions: int

    def uses(self) -> set[Used]:
        return {("action_list", self.actions)}


class ReleaseEverything(_Kind, frozen=True, tag="release"):
    """Letting go of all that is not protected, in a time."""

    seconds: Seconds = 2.0


Target = (
    EffectOnHeads
    | StopEffects
    | UseLook
    | UsePixels
    | OnList
    | OnGroup
    | Alone
    | OnTempo
    | OnSpecials
    | Master
    | OnRow
    | Send
    | ShowPage
    | RunActions
    | ReleaseEverything
)
"""All kinds. A new one is a class beside these, named here, what the engine does with it (`engine.live.controls`), and what it is
called (`show.controls`)."""


def read(document: dict[str, Any]) -> Target:
    """A target from plain data."""
    found: Target = msgspec.convert(document, Target)
    return found


def plain(target: Target) -> dict[str, Any]:
    """A target as plain data."""
    document: dict[str, Any] = msgspec.to_builtins(target)
    return document
