"""A busking page made in one step from any rig can be used at once."""

import random

import numpy as np
import pytest

from zarabanda.core.colour.clashes import HARD, discord
from zarabanda.core.rig.abilities import abilities
from zarabanda.demo import rig as demo_rig
from zarabanda.demo import salt_light
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.decoding import RigMaker
from zarabanda.errors import ZarabandaError
from zarabanda.formats.rig_document import FixtureDocument, ModeDocument
from zarabanda.messages import ShowUpdate
from zarabanda.show import busk_maker, compile, repositories
from zarabanda.show.store import Store

pytestmark = pytest.mark.slow


@pytest.fixture
def store(tmp_path):
    made = Store(tmp_path / "show.db")
    with made.edit("setup", "New show") as session:
        salt_light.new_show(session, "Test", "Page")
    yield made
    made.close()


def with_random_rig(session, chance):
    """Some kinds of the demo, so many of each anywhere on stage, each kind a group; unpatched."""
    modes = {mode["name"]: ModeDocument.model_validate({"maker": demo_rig.MAKER, **mode}) for mode in demo_rig.MODES}
    chosen = chance.sample(sorted(modes), chance.randint(2, 8))
    for n, name in enumerate(chosen):
        place = (chance.uniform(-6, 6), chance.uniform(-4, 8), chance.uniform(0, 7))
        fixtures = [
            FixtureDocument(number=100 * (n + 1) + k, name=name[:20], mode=name, place=(place[0] + k, *place[1:]),
                            rotation=(0, chance.choice([0, 180]), 0), universe=None, address=None)
            for k in range(chance.randint(1, 6))
        ]  # fmt: skip
        repositories.rig.add(session, fixtures, modes)
        keys = [key for one in fixtures for key in salt_light.lit_keys(one.number, modes[name].spec())]
        repositories.groups.make(session, f"Group {n}", keys)
    session.flush()
    return RigMaker().made(compile.all_parts(session))


@pytest.mark.parametrize("seed", range(5))
@pytest.mark.parametrize("colours", ["all", "each"])
def test_a_page_on_any_rig_can_be_used_at_once(store, seed, colours):
    with store.edit("test", "Make") as session:
        rig = with_random_rig(session, random.Random(seed))
        found = [one for one in busk_maker.proposed(session, rig) if one.on]
        assert found
        page = busk_maker.make(session, rig, "Night", [busk_maker.Wish(one.group.id) for one in found], colours)
        program = Compiler().take(ShowUpdate("test", 1, compile.all_parts(session), whole=True))
        rows = {row.id: row for row in repositories.busk.rows(session, page.id)}
    assert next(iter(program.rows.values())).kind == "all"
    assert len(program.rows) == len(found) + 1
    for row in program.rows.values():
        assert not [pad.gone for pad in row.pads.values() if pad.gone], "every pad does something"
        if row.kind != "lights":
            continue
        can = abilities(rig, [rig.heads.keys[n] for n in row.lit])
        sections = {pad.section for pad in row.pads.values()}
        assert row.level, "every row of lights has a level"
        assert ("colour" in sections) == can.colour
        assert ("position" in sections) == can.position
        effects = [pad for pad in row.pads.values() if pad.section == "effects"]
        assert 3 <= len(effects) <= busk_maker.EFFECTS
        assert all(program.instances[key].placed.blocks for pad in effects for key in pad.players), "every effect moves something"
        carried = repositories.busk.document_of(rows[row.id]).carries
        assert set(carried) == sections


def test_a_wish_leaves_sections_out_and_nothing_at_all_is_refused(store):
    with store.edit("test", "Make") as session:
        rig = with_random_rig(session, random.Random(1))
        group = next(one.group for one in busk_maker.proposed(session, rig) if "colour" in one.carries)
        page = busk_maker.make(session, rig, "Night", [busk_maker.Wish(group.id, ["effects"])])
        (_, row) = repositories.busk.rows(session, page.id)
        document = repositories.busk.document_of(row)
        assert (document.carries, document.colour) == (["effects"], [])
        with pytest.raises(ZarabandaError, match="at least one group"):
            busk_maker.make(session, rig, "Other", [])
        with pytest.raises(ZarabandaError, match="already"):
            busk_maker.make(session, rig, "night", [busk_maker.Wish(group.id)])


PAIRS = {
    ("#ff4f3a", "#ff3c9b"): True,  # two sorts of red
    ("#1fd1a5", "#ff3c9b"): True,  # opposite, and equally light
    ("#1846ff", "#a04bff"): False,  # neighbours
    ("#ff4f3a", "#f4f1e8"): False,  # white goes with all
    ("#ff4f3a", "#ff4f3a"): False,
    ("#1846ff", "#ffb02e"): False,  # opposite, but of another lightness
}


@pytest.mark.parametrize("pair", PAIRS)
def test_pairs_that_are_hard_on_the_eye(pair):
    first, second = (np.array([int(one[n : n + 2], 16) / 255 for n in (1, 3, 5)]) for one in pair)
    assert (discord(first, second) > HARD) == PAIRS[pair]
    assert discord(first, second) == pytest.approx(discord(second, first))
