"""What is told of songs: where each is, and what of it hands have."""

from __future__ import annotations

from zarabanda.messages import ControlId, HandTold, SongTold, TakenNow, TakenTold

from .live.hands import plain
from .live.recording import Recording
from .live.songs import timeline_of
from .live.state import LiveState


def songs_told(state: LiveState, t: float) -> list[SongTold]:
    """Songs on stage, the one that plays last."""
    found = []
    for song in state.songs:
        timeline = timeline_of(song.inner, song.id) or timeline_of(state, song.id)
        p = max(song.transport.position_at(t), song.done)
        name, grid = (timeline.name, timeline.grid) if timeline is not None else ("a song that is gone", None)
        tracks = [(one.id, plain(one.subject, state.program)) for one in timeline.tracks] if timeline is not None else []
        hands = [
            HandTold(
                subject,
                name_of(state, subject),
                hand.since,
                [one for one, on in tracks if on == subject],
                [key for key in state.program.controls if plain(key, state.program) == subject],
            )
            for subject, hand in song.hands.items()
        ]
        found.append(
            SongTold(
                song.id, name, p, song.transport.speed, song.speed, grid.bpm_at(p) if grid else 0.0,
                grid.beats(p) if grid else 0.0, song.leaving, song.follows, song.loop, hands,
                song.recording is not None, len(song.recording.taken) if song.recording is not None else 0,
                *((timeline.label_at(p), timeline.rate, timeline.chases) if timeline is not None else ()),
            )
        )  # fmt: skip
    return found


def taken_told(found: Recording | None, reference: int) -> TakenNow:
    """What was recorded."""
    if found is None:
        return TakenNow(reference, [], [])
    taken = [TakenTold(one.track, one.at, one.what, one.value, one.cue, one.holder) for one in found.taken]
    return TakenNow(reference, taken, list(found.spans))


def name_of(state: LiveState, subject: str) -> str:
    """A subject in words; see `live.hands`."""
    kind, *numbers = subject.split(":")
    program, number = state.program, int(numbers[0]) if numbers and numbers[0].isdigit() else 0
    control = program.controls.get(ControlId(subject))
    rows, lists = program.rows.get(number), program.lists.get(number)
    if control is not None:
        return control.name
    if kind in ("list", "list-level") and lists is not None:
        return lists.name if kind == "list" else f"{lists.name}, level"
    if kind in ("pad", "row", "row-level", "row-depth", "flash") and rows is not None:
        pad = rows.pads.get(int(numbers[1])) if kind == "pad" else None
        what = {"row-level": ", level", "row-depth": ", effects", "flash": ", flash"}.get(kind, "")
        return f"{rows.name}: {pad.name or 'an effect'}" if pad is not None else f"{rows.name}{what}"
    if kind == "overlay" and number in program.looks:
        return program.looks[number].name
    if kind == "tempo" and number in program.tempos:
        return program.tempos[number].name
    if kind == "actions" and number in program.action_lists:
        return program.action_lists[number].name
    if kind == "group-level":
        found = (one.name for one in program.controls.values() if getattr(one.target, "group_id", None) == number)
        return next(found, "a group")
    return "something that is gone"
