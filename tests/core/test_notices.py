"""Notices: each is found where it belongs, and its fix mends it."""

import numpy as np
import pytest

from tests.core.head_sets import row_of_heads
from zarabanda.core.explain import notices, weave
from zarabanda.core.rig import attributes
from zarabanda.demo.library import LIBRARY
from zarabanda.formats import effect_document, effect_edit


def wave(attribute="intensity", shape="swell", **anchor):
    return {
        "attribute": attribute,
        "form": {"kind": "waveform", "shape": shape},
        "anchor": {"kind": "above", "depth": 60} | anchor,
    }


def effect(*layers, **more):
    speed = {"kind": "time", "seconds_per_cycle": 2.0}
    return {"name": "x", "layers": list(layers), "speed": speed, "spread": {"kind": "ripple", "degrees": 360}} | more


CIRCLE = {"attribute": "position", "form": {"kind": "path", "path": "circle", "width": 40, "height": 20}}
LIT = {"intensity": 60.0, "red": 1.0, "green": 0.2, "blue": 0.1}


def found(document, heads=6, base=None):
    read = effect_document.read(document).to_core()
    return {n.kind: n for n in notices.notices(notices.look(read, row_of_heads(heads, base), bpm=120))}


CASES = {
    "dark": (effect(CIRCLE), {"intensity": 0.0}),
    "cut-off": (effect(wave()), {"intensity": 100.0}),
    "static": (effect(wave(depth=0)), LIT),
    "uneven": (effect(wave(depth=30), lanes={"parts": 4}), LIT),
    "white": (effect(wave("hue", kind="centred", depth=90)), {"intensity": 60.0}),
    "too-fast": (effect(wave(depth=30), speed={"kind": "time", "seconds_per_cycle": 0.05}), LIT),
    "non-closing": (effect(wave(depth=20), {**wave("tilt", kind="centred", depth=20), "ratio": 1.013}), LIT),
    "unreachable": (
        effect({**CIRCLE, "form": CIRCLE["form"] | {"plane": "floor", "width": 2, "height": 1}}),
        {**LIT, "tilt": 130.0},
    ),
}


@pytest.mark.parametrize("kind", CASES)
def test_each_notice_is_found_and_its_fix_mends_it(kind):
    document, base = CASES[kind]
    notice = found(document, base=base)[kind]
    assert notice.text.endswith(".")
    assert notice.note == (kind in ("uneven", "non-closing"))
    if notice.fix is None:
        assert kind in ("uneven", "unreachable")
        return
    fix = notice.fix
    assert fix.words
    mended = effect_edit.change(effect_document.read(document).plain(), fix.operation, fix.path, fix.value)
    assert kind not in found(mended.plain(), base=base)


def stops(*values, attribute="position"):
    every = [{"value": value, "travel": 1, "hold": 1} for value in values]
    return {"attribute": attribute, "form": {"kind": "stops", "stops": every}}


@pytest.mark.parametrize(
    ("layers", "reason"),
    [
        ([wave(depth=0)], "the depth is 0"),
        ([{**CIRCLE, "form": CIRCLE["form"] | {"width": 0, "height": 0}}], "the figure has no size"),
        (
            [wave(kind="between", depth=None) | {"anchor": {"kind": "between", "low": 40, "high": 40}}],
            "low and high are the same",
        ),
        ([stops("base", "base")], "every stop is the base itself"),
        ([stops(20, 20, attribute="intensity")], "all stops are the same"),
        ([wave(depth=30) | {"muted": True}], "all layers are muted"),
        ([wave(depth=30), wave(depth=30, kind="below")], "they cancel out"),
        ([wave("pan", kind="above", depth=30)], "beyond the range"),
    ],
)
def test_what_does_not_move_is_told_with_its_true_reason(layers, reason):
    notice = found(effect(*layers), base={**LIT, "pan": 270.0})["static"]
    assert reason in notice.text
    if notice.fix:
        mended = effect_edit.change(effect_document.read(effect(*layers)).plain(), "set", notice.fix.path, notice.fix.value)
        assert "static" not in found(mended.plain(), base=LIT)


def test_what_no_head_can_do_is_told():
    head_set = row_of_heads(3, LIT)
    head_set.heads.has[attributes.INDEX["zoom"]] = False
    read = effect_document.read(effect(wave("zoom", depth=10))).to_core()
    assert "none of these heads has zoom" in notices.notices(notices.look(read, head_set, bpm=120))[0].text


def test_too_fast_for_the_heads():
    fast = effect(CIRCLE, speed={"kind": "time", "seconds_per_cycle": 0.3})
    notice = found(fast, base=LIT)["too-fast"]
    assert "a second" in notice.text


def test_a_fine_effect_has_none():
    assert found(effect(wave(depth=30), CIRCLE), base=LIT) == {}


@pytest.mark.parametrize("heads", [1, 2, 5, 9, 12])
@pytest.mark.parametrize("document", LIBRARY, ids=lambda document: document["name"])
def test_the_library_moves_on_any_number_of_heads_and_warns_of_nothing(document, heads):
    read = effect_document.read(document).to_core()
    base = {"intensity": 10.0, "tilt": 20.0, "zoom": 20.0, "red": 1.0, "green": 0.5, "blue": 0.1}
    seen = notices.look(read, row_of_heads(heads, base), bpm=96)
    assert [notice.text for notice in notices.notices(seen) if not notice.note] == []
    assert np.ptp(seen.woven.values, axis=0).max() > 0.05


def test_what_is_woven_closely_is_not_computed_anew():
    read = effect_document.read(LIBRARY[0]).to_core()
    head_set = row_of_heads(4, {"intensity": 90.0})
    fine, coarse = (weave.over_time(read, head_set, np.linspace(0, 2, count), np.float32) for count in (150, 40))
    assert notices.look_at(fine, 2.0, bpm=96).woven is fine
    assert notices.look_at(coarse, 2.0, bpm=96).woven is not coarse
    told = [sorted(n.kind for n in notices.notices(notices.look_at(one, 2.0, bpm=96))) for one in (fine, coarse)]
    assert told[0] == told[1]
