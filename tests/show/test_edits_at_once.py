"""Many who edit at once: every acknowledged edit is there, or was taken back on purpose."""

import random
import threading

import pytest
from sqlalchemy import Integer, event, select, text, update
from sqlalchemy.exc import OperationalError
from sqlalchemy.orm import mapped_column

from zarabanda.demo import salt_light
from zarabanda.errors import InUse, ZarabandaError
from zarabanda.formats import effect_edit
from zarabanda.formats.palette_document import PaletteDocument
from zarabanda.show import history, repositories
from zarabanda.show import store as stores
from zarabanda.show.store import Store
from zarabanda.show.tables import Base, ControlRow, DraftEffect, Edit, EffectRow
from zarabanda.targets import EffectOnHeads

pytestmark = pytest.mark.slow


@pytest.fixture
def store(tmp_path):
    made = Store(tmp_path / "show.db")
    with made.edit("setup", "New show") as session:
        salt_light.new_show(session, "Test", "Page")
    yield made
    made.close()


CLIENTS, EDITS = 8, 200


class Client(threading.Thread):
    """Changes its own layer of one effect, and takes edits back; remembers what was acknowledged."""

    def __init__(self, store, number, effect_id):
        super().__init__()
        self.store, self.number, self.effect_id = store, number, effect_id
        self.done, self.undone, self.fault = [7.0 * (number + 1)], [], None

    def set(self, value):
        with self.store.edit(f"client {self.number}", "Depth") as session:
            row = repositories.rows.get(session, EffectRow, self.effect_id, "effect")
            path = f"layers.{self.number}.anchor.depth"
            before = repositories.effects.document_of(session, row)
            repositories.effects.change(session, row.id, effect_edit.change(before, "set", path, value))

    def run(self):
        chance = random.Random(self.number)
        try:
            for n in range(EDITS):
                self.one(chance, float(1 + (n * 7 + self.number) % 90))
        except Exception as error:  # told by the test
            self.fault = error

    def one(self, chance, value):
        kind = chance.choice(["set", "set", "set", "undo", "redo"])
        if kind == "set" and value != self.done[-1]:
            self.set(value)
            self.done.append(value)
            self.undone.clear()
            return
        try:
            if kind == "undo":
                self.store.undo(f"client {self.number}")
                self.undone.append(self.done.pop())
            elif kind == "redo":
                self.store.redo(f"client {self.number}")
                self.done.append(self.undone.pop())
        except ZarabandaError:
            pass  # another has changed the row since: nothing was taken back


def test_no_acknowledged_edit_of_eight_clients_is_lost(store, tmp_path):
    document = effect_edit.new_effect("intensity", "Shared").plain()
    layers = [{**document["layers"][0], "anchor": {"kind": "above", "depth": 7.0 * (n + 1)}} for n in range(CLIENTS)]
    with store.edit("setup", "Shared") as session:
        whole = effect_edit.read(document | {"layers": layers})
        effect_id = repositories.effects.store(session, whole, kept=True).id
    other = Store(tmp_path / "show.db")  # half of them edit by way of another process, as while one web process follows another
    clients = [Client((store, other)[n % 2], n, effect_id) for n in range(CLIENTS)]
    for client in clients:
        client.start()
    for client in clients:
        client.join()
    other.close()
    assert [client.fault for client in clients] == [None] * CLIENTS
    with store.reading() as session:
        kept = session.get(EffectRow, effect_id).document["layers"]
    assert [layer["anchor"]["depth"] for layer in kept] == [client.done[-1] for client in clients]
    assert sum(len(client.done) for client in clients) > 3 * EDITS


def test_of_controls_put_on_one_place_at_once_one_gets_it(store):
    with store.reading() as session:
        effect = repositories.effects.kept(session)[0].id
    outcome = []

    def put():
        try:
            with store.edit("a", "Put") as session:
                repositories.pages.add_control(
                    session, 1, place=3, name="x", mode="fader", target=EffectOnHeads(effect, ("101",)), release_s=0.4
                )
            outcome.append("there")
        except InUse:
            outcome.append("taken")

    threads = [threading.Thread(target=put) for _ in range(8)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert sorted(outcome) == ["taken"] * 7 + ["there"]


# what cannot be taken back


def new_effect(store, browser="a", name="Mine"):
    with store.edit(browser, "Start") as session:
        return repositories.effects.store(session, effect_edit.new_effect("intensity", name), kept=True).id


def test_undo_of_what_another_uses_by_now_says_by_what(store):
    effect = new_effect(store)
    with store.edit("b", "Put") as session:
        repositories.pages.add_control(
            session, 1, place=1, name="Kelp", mode="fader", target=EffectOnHeads(effect, ("1",)), release_s=0.4
        )
    with pytest.raises(InUse, match="in use by now, by the control “Kelp”"):
        store.undo("a")
    with store.edit("b", "Draft") as session:
        session.delete(session.scalars(select(ControlRow)).one())
        repositories.draft.put_on(session, effect, ["1"])
    with pytest.raises(InUse, match="the draft"):
        store.undo("a")
    store.undo("b")
    store.undo("b")
    store.undo("a")
    with store.reading() as session:
        assert session.get(EffectRow, effect) is None


def test_undo_of_a_palette_that_an_effect_goes_to_says_so(store):
    with store.edit("a", "Palette") as session:
        repositories.palettes.store(session, "Dusk", PaletteDocument(family="colour", colour="#102030"))
    with store.edit("b", "Effect") as session:
        document = effect_edit.new_effect("colour", "Goes there").plain()
        document["layers"][0]["form"]["stops"][0]["value"] = {"palette": "Dusk"}
        repositories.effects.store(session, effect_edit.read(document), kept=True)
    with pytest.raises(InUse, match="“Goes there”"):
        store.undo("a")


def test_what_comes_back_to_a_place_that_is_taken_is_refused(store):
    effect = new_effect(store)
    put = {"place": 1, "name": "First", "mode": "fader", "target": EffectOnHeads(effect, ("1",)), "release_s": 0.4}
    with store.edit("a", "Put") as session:
        first = repositories.pages.add_control(session, 1, **put).id
        repositories.pages.add_control(session, 1, **put | {"place": 2, "name": "Beside"})
    with store.edit("a", "Take off") as session:
        session.delete(session.get(ControlRow, first))
    with store.edit("b", "Put") as session:
        repositories.pages.add_control(session, 1, **put | {"name": "Second"})
    with pytest.raises(InUse, match="the control “Second” is there by now"):
        store.undo("a")
    with store.edit("a", "Delete") as session:
        repositories.effects.remove(session, new_effect_id := new_effect_in(session))
    new_effect(store, "b", "Tide fold")
    with pytest.raises(InUse, match="“Tide fold” is there by now"):
        store.undo("a")
    assert new_effect_id


def new_effect_in(session):
    return session.scalars(select(EffectRow.id).where(EffectRow.name == "Tide fold")).one()


# what the history must not lose


def test_bulk_changes_and_keys_of_many_columns_are_refused_in_code(store):
    def bulk(session):
        session.execute(update(EffectRow).values(favourite=True))

    with pytest.raises(TypeError, match="changed in bulk"), store.edit("a", "Bulk") as session:
        bulk(session)

    class TwoKeys(Base):
        __tablename__ = "two_keys"
        first = mapped_column(Integer, primary_key=True)
        second = mapped_column(Integer, primary_key=True)

    try:
        with pytest.raises(TypeError, match="key of 2 columns"):
            history.one_key_each([TwoKeys.__mapper__])
    finally:
        Base.metadata.remove(TwoKeys.__table__)
        Base.registry._dispose_cls(TwoKeys)


def test_what_is_acknowledged_is_on_the_disk(store):
    with store.engine.connect() as connection:
        assert connection.execute(text("PRAGMA synchronous")).scalar() == 2, "FULL"


def test_the_history_is_cut_by_count_and_age(store, monkeypatch):
    monkeypatch.setattr(stores, "MOST_EDITS", 10)
    monkeypatch.setattr(stores, "_FORGET_EVERY", 5)
    for n in range(40):
        with store.edit("a", f"{n}") as session:
            repositories.draft.set_values(session, {"intensity": {"101": float(n)}})
    with store.reading() as session:
        left = session.scalars(select(Edit.label).order_by(Edit.id)).all()
    assert 10 <= len(left) < 16
    assert left[-1] == "39"
    for _ in left:
        store.undo("a")
    with pytest.raises(ZarabandaError, match="nothing to undo"):
        store.undo("a")


def fill(store):
    """As if the disk had no room for another page of the show's file."""
    with store.engine.connect() as connection:
        pages = connection.execute(text("PRAGMA page_count")).scalar()
    store.engine.dispose()
    event.listen(store.engine, "connect", lambda c, _: c.execute(f"PRAGMA max_page_count = {pages}"))


def big(store, label="Big"):
    with store.edit("a", label) as session:
        session.add(DraftEffect(effect_id=1, heads=[f"{n}" for n in range(100_000)]))


def kept(store):
    with store.reading() as session:
        return len(session.scalars(select(DraftEffect)).all())


def test_on_a_full_disk_edits_go_on_in_memory_and_come_home_when_there_is_room(store, tmp_path, monkeypatch):
    store.look_for_room_s = 3600  # not before we say so
    fill(store)
    with pytest.raises(OperationalError, match="full"):
        big(store)
    assert kept(store) == 0, "what could not be written is not half there"
    assert store.go_on_in_memory()
    assert store.go_on_in_memory(), "asked twice it stays there"
    big(store)
    assert kept(store) == 1
    other = Store(tmp_path / "show.db")
    assert kept(other) == 0, "not on the disk yet"
    other.close()
    monkeypatch.setattr(stores.Refuge, "bring_home", lambda self: (_ for _ in ()).throw(OSError("still full")))
    assert not store.come_home()
    big(store)
    monkeypatch.undo()
    assert store.come_home()
    assert kept(store) == 2
    store.undo("a")
    other = Store(tmp_path / "show.db")
    assert kept(other) == 1
    other.close()
    assert list(tmp_path.glob("*.new*")) == []
