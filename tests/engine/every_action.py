"""Any live action on the things of a program, drawn from the table of messages: a new kind is tried without a further line."""

from typing import get_args

import msgspec
from hypothesis import strategies as st
from msgspec import inspect

from zarabanda.messages import AnyAction

KINDS = get_args(AnyAction)
PEOPLE = ["anna", "ben"]
NOBODY_HAS = 99_999


def names_in(program):
    """What a field of an action may name, by the fields that go together."""
    pads = [(row.id, pad) for row in program.rows.values() for pad in row.pads]
    cues = [(one.id, cue.id) for one in program.lists.values() for cue in one.cues]
    tempos = [one.name for one in program.tempos.values()]
    return {
        ("row", "pad"): pads, ("list", "cue"): cues, ("list",): [(one,) for one in program.lists],
        ("cue",): [(cue,) for _, cue in cues], ("row",): [(one,) for one in program.rows],
        ("control",): [(one,) for one in program.controls], ("key",): [(one,) for one in program.instances],
        ("tempo",): [(one,) for one in tempos], ("tempo", "main"): [(a, b) for a in tempos for b in [*tempos, None]],
        ("overlay",): [(one,) for one, look in program.looks.items() if look.over],
        ("special",): [(one,) for one in program.specials],
        ("timeline",): [(one,) for one in program.timelines], ("actions",): [(one,) for one in program.action_lists],
        ("map", "picture"): [(one, 0) for one in program.maps], ("map",): [(one,) for one in program.maps],
        ("light", "by"): [(101, 102), (102, None), (205, 206)], ("page",): [(1,), (2,)],
    }  # fmt: skip


_FIELDS = {
    "holder": st.sampled_from(PEOPLE), "holders": st.none() | st.lists(st.sampled_from(PEOPLE), max_size=2),
    "but": st.just([]), "family": st.sampled_from([None, "intensity", "position", "colour", "beam"]),
    "seconds": st.sampled_from([0.0, 0.3, 1.0, 2.0]), "steps": st.sampled_from([[], [["101"], ["102", "103"]]]),
    "shape": st.sampled_from([None, "", "rise", "square"]), "spread": st.sampled_from([None, "", "pairs", "relay"]),
    "travel": st.sampled_from([None, "", "reverse"]), "rows": st.none() | st.lists(st.integers(1, 6), max_size=3),
    "subject": st.none(), "name": st.just(""),
}  # fmt: skip
"""Fields whose values are words, or mean somebody."""


def _of_type(kind):
    """A strategy for a field by its type and its limits."""
    match kind:
        case inspect.BoolType():
            return st.booleans()
        case inspect.IntType(ge=low, le=high):
            return st.integers(low or 0, min(high if high is not None else 9, (low or 0) + 300))
        case inspect.FloatType(gt=above, ge=low, le=high):
            low, high = low if low is not None else above or 0, min(high if high is not None else 1, 400)
            return st.sampled_from([low + 0.01, high, (low + high) / 2]) | st.floats(low + 0.01, high)
        case inspect.LiteralType(values=values):
            return st.sampled_from(values)
        case inspect.UnionType(types=types):
            return st.one_of(*map(_of_type, types))
        case inspect.NoneType():
            return st.none()
        case inspect.StrType(pattern=pattern) if pattern and "fA" in pattern:
            return st.sampled_from(["#ff0000", "#00aaff"])
        case inspect.StrType():
            return st.just("")
    raise TypeError(f"there is no way to draw a {kind}: add one")


def of_kind(kind, names):
    """Actions of one kind; now and then of a thing that does not exist."""
    info = inspect.type_info(kind)
    fields = {one.name: one.type for one in info.fields}
    together = [one for one in names if set(one) <= fields.keys() and names[one]]
    chosen, left = [], set(fields)
    for one in sorted(together, key=len, reverse=True):
        if set(one) <= left:
            chosen.append(one)
            left -= set(one)
    parts = {one: st.sampled_from(names[one]) for one in chosen}
    plain = st.fixed_dictionaries({name: _FIELDS[name] if name in _FIELDS else _of_type(fields[name]) for name in sorted(left)})
    named = st.tuples(*parts.values()).map(
        lambda drawn: {
            field: value for one, values in zip(parts, drawn, strict=True) for field, value in zip(one, values, strict=True)
        }
    )
    return st.tuples(named, plain).map(lambda both: msgspec.convert({"do": info.tag, **both[0], **both[1]}, AnyAction))


def any_action(program):
    """Actions of any kind, each kind as often as another."""
    names = names_in(program)
    return st.sampled_from(KINDS).flatmap(lambda kind: of_kind(kind, names))
