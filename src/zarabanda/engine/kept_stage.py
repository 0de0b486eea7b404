"""What a state has on stage, as it is written into the journal, and back: the show's own, and that within each song."""

from __future__ import annotations

from dataclasses import replace

import msgspec

from zarabanda.core.playback.claims import Claims
from zarabanda.messages import ControlId, PlayerId

from . import kept_claims, kept_lists, kept_pages, kept_pixels, kept_rows
from .kept_claims import StripEntry
from .kept_lists import ListEntry, PlayingEntry, SpecialsEntry
from .kept_pages import PagesEntry
from .kept_pixels import PixelsEntry
from .kept_rows import BuskEntry, RowEntry
from .live import looks_held, rows
from .live.cue_lists import with_manners
from .live.dark_moves import watched
from .live.state import LiveState
from .live.tempo import Tempo
from .program import Program


class TempoEntry(msgspec.Struct, forbid_unknown_fields=True):
    """A tempo: see `tempo.Tempo`."""

    bpm: float
    since: float
    beat: float
    settles: float
    slew: float
    held: bool


class StageEntry(msgspec.Struct, forbid_unknown_fields=True):
    """heads: which heads the claims are on, see `Heads.number`."""

    tempos: dict[int, TempoEntry]
    levels: dict[ControlId, float]
    stopped: list[PlayerId]
    held: dict[ControlId, list[str]]
    playing: list[PlayingEntry]
    lists: dict[int, ListEntry]
    specials: SpecialsEntry
    heads: int
    claims: list[StripEntry]
    rows: dict[int, RowEntry]
    busk: BuskEntry
    pages: PagesEntry
    pixels: list[PixelsEntry]


def written(state: LiveState) -> StageEntry:
    """As an entry."""
    return StageEntry(
        tempos={
            name: TempoEntry(one.bpm, one.since, one.beat, one.settles, one.slew, one.held) for name, one in state.tempos.items()
        },
        levels=dict(state.levels), stopped=sorted(state.stopped),
        held={key: sorted(holders) for key, holders in state.held.items()},
        playing=kept_lists.playing_written(state.playing), lists=kept_lists.lists_written(state.lists),
        specials=kept_lists.specials_written(state.specials),
        heads=state.program.rig.heads.number, claims=kept_claims.written(state.claims),
        rows=kept_rows.rows_written(state.rows), busk=kept_rows.busk_written(state.busk, state.follows),
        pages=kept_pages.written(state), pixels=kept_pixels.written(state.pixels),
    )  # fmt: skip


def read(entry: StageEntry, program: Program, moved: float) -> LiveState:
    """The state without its claims, with all times moved; without what is not there any more."""
    busk, follows = kept_rows.busk_read(entry.busk, moved)
    asked = LiveState(program=program, rows=kept_rows.rows_read(entry.rows, moved), busk=busk, follows=follows)
    instances = {key: asked.instance(key) for key in program.instances}
    return replace(
        asked,
        tempos={
            name: Tempo(one.bpm, one.since + moved, one.beat, one.settles + moved, one.slew, held=one.held)
            for name, one in entry.tempos.items()
        },
        playing=kept_lists.playing_read(entry.playing, instances, moved),
        lists=kept_lists.lists_read(entry.lists, moved), specials=kept_lists.specials_read(entry.specials, moved),
        levels=entry.levels, stopped=frozenset(entry.stopped),
        held={key: frozenset(holders) for key, holders in entry.held.items()},
        pixels=kept_pixels.read(entry.pixels, program, moved), **kept_pages.read(entry.pages, program, moved),
    )  # fmt: skip


def claims_read(entry: StageEntry, program: Program, now: float, moved: float) -> Claims | None:
    """The claims that were written down, fades and all; None where they are of another rig, or odd."""
    if entry.heads != program.rig.heads.number:
        return None
    try:
        return kept_claims.read(entry.claims, len(program.rig), moved).advanced(now)
    except ValueError:
        return None


def settled(state: LiveState, now: float) -> LiveState:
    """With the manners in which lists, rows and looks hold, and with who is dark."""
    return watched(looks_held.with_manners(rows.with_manners(with_manners(state), list(state.rows))), now)


def times(entry: StageEntry) -> list[float]:
    """All numbers that must be finite."""
    numbers = [*entry.levels.values(), *kept_claims.times(entry.claims)]
    numbers += kept_lists.times(entry.lists, entry.specials, entry.playing) + kept_rows.times(entry.rows, entry.busk)
    numbers += [*kept_pages.times(entry.pages), *kept_pixels.times(entry.pixels)]
    for one in entry.tempos.values():
        numbers += [value for value in msgspec.structs.astuple(one) if isinstance(value, float)]
    return numbers
