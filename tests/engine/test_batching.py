"""Batches made off the loop: whatever is at hand gives the light of those made as one."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from tests.documents import effects
from tests.engine.shows import RIG, rig_parts
from tests.thoroughness import thorough
from tests.waiting import until
from zarabanda.core.effects.batch.batches import Batches, Running
from zarabanda.core.effects.placement import place
from zarabanda.engine.batching import Batching
from zarabanda.engine.decoding import rig_of
from zarabanda.formats import effect_document
from zarabanda.workers import Troubles

RIG_ = rig_of(rig_parts(RIG))


class NoWorker(Batching):
    """As if the worker never came to it."""

    def _make_one(self):
        return False


def light(batches, count, theta):
    flat = RIG_.home.ravel().copy()
    weights = np.linspace(1, 0.4, count)
    batches.apply(flat, Running(np.full(count, theta), weights, [[0.1 * n] for n in range(count)]))
    return flat


@thorough(25)
@given(
    st.lists(effects(), min_size=1, max_size=4),
    st.lists(st.lists(st.integers(0, 3), max_size=4, unique=True), min_size=1, max_size=5),
    st.floats(0, 20),
)
def test_what_starts_and_ends_unforeseen_looks_as_planned(documents, moments, theta):
    placed = [place(effect_document.read(one).to_core(), np.arange(4), RIG_.heads) for one in documents]
    batching = NoWorker(np.float64, Troubles())
    batching.prepare(RIG_, placed)
    batching.batches_of(RIG_, placed)
    for moment in moments:
        playing = [placed[n] for n in moment if n < len(placed)]
        chain, _ = batching.batches_of(RIG_, playing)
        whole = Batches(playing, len(RIG_), RIG_.mixes)
        np.testing.assert_allclose(light(chain, len(playing), theta), light(whole, len(playing), theta), atol=1e-9)
        assert (chain.touched >= whole.touched).all()


def test_what_nobody_foresaw_is_planned_by_the_worker():
    placed = [place(effect_document.read({"name": "x", "layers": [LAYER]}).to_core(), np.arange(4), RIG_.heads) for _ in range(3)]
    batching = Batching(np.float64, Troubles())
    batching.prepare(RIG_, placed[:1])
    assert batching.batches_of(RIG_, placed[:1])[1]
    assert not batching.batches_of(RIG_, placed)[1]
    assert until(lambda: batching.batches_of(RIG_, placed)[1])
    other = rig_of(rig_parts(RIG | {"fixtures": [one | {"id": one["id"] + 10} for one in RIG["fixtures"]]}))
    assert not batching.batches_of(other, placed)[1], "another rig, other batches"
    batching.close()


LAYER = {"attribute": "intensity", "form": {"kind": "waveform", "shape": "rise"}, "anchor": {"kind": "above", "depth": 40}}
