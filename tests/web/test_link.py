"""The web process's end of the link: what is sent when, what comes back, and what happens when something fails."""

import threading

import pytest
from sqlalchemy.exc import OperationalError

from tests.waiting import until
from zarabanda import wire
from zarabanda.demo import salt_light
from zarabanda.errors import ZarabandaError
from zarabanda.show import repositories
from zarabanda.show.store import Store
from zarabanda.show.tables import EffectRow, Fixture
from zarabanda.web import live
from zarabanda.web.link import EngineLink
from zarabanda.workers import Troubles


class Engine:
    """As much of an engine as the link needs: keeps what it is sent."""

    def __init__(self, data, rig=""):
        self.got, self.rig = [], rig
        self.server = wire.Server(wire.socket_path(data, "engine"), self.take, self.joined, Troubles())

    def joined(self, peer):
        peer.post({"type": "hello", "rig": self.rig})

    def take(self, peer, message):
        self.got.append(message)
        if message["type"] == "look":
            peer.post({"type": "look", "ref": message["ref"], "values": {"intensity": {"101": 12.5}}})

    def of(self, kind):
        return [one for one in self.got if one["type"] == kind]


@pytest.fixture
def show(tmp_path):
    store = Store(tmp_path / "show.db")
    salt_light.build(store)
    link = EngineLink(tmp_path, store, Troubles())
    store.on_edit = link.edited
    yield tmp_path, store, link
    link.stop()
    store.close()


@pytest.fixture
def linked(show):
    data, store, link = show
    engine = Engine(data)
    link.start()
    assert until(lambda: engine.of("action"), 10), "it says who is there"
    yield engine, store, link
    engine.server.close()


def rename(store, name="Renamed"):
    with store.edit("a", "Rename") as session:
        row = session.query(EffectRow).filter(EffectRow.kept).first()
        row.document = {**row.document, "seed": row.document.get("seed", 0) + 1}
        return row.id


def test_the_rig_is_sent_when_the_engine_has_another_and_after_it_changed(linked):
    engine, store, link = linked
    assert "rig" in engine.of("program")[0], "the engine had none"
    rename(store)
    assert until(lambda: len(engine.of("program")) == 2, 5)
    assert "rig" not in engine.of("program")[1]
    with store.edit("a", "Move") as session:
        session.get(Fixture, 101).address = 481
    assert until(lambda: len(engine.of("program")) == 3, 5)
    moved = next(one for one in engine.of("program")[2]["rig"]["fixtures"] if one["number"] == 101)
    assert moved["address"] == 481
    assert link.rig_number == int(engine.of("program")[2]["rig"]["revision"][:8], 16)


def test_revisions_are_counted_from_0_in_a_session_of_their_own(linked, show):
    engine, store, link = linked
    rename(store)
    until(lambda: len(engine.of("program")) == 2, 5)
    assert [one["show"]["revision"] for one in engine.of("program")] == [1, 2]
    other = EngineLink(show[0], store, Troubles())
    assert other.revision == 0
    assert other.session != link.session == engine.of("program")[0]["show"]["session"]


def test_an_edit_of_another_process_is_not_forgotten_by_the_quick_way(linked):
    engine, store, link = linked
    store.on_edit = lambda touched: None  # another process edits: this one does not hear of it
    with store.edit("b", "Draft") as session:
        repositories.set_draft_values(session, "intensity", {"101": 33.0})
    store.on_edit = link.edited
    rename(store)
    shows = until(lambda: len(engine.of("program")) == 2 and engine.of("program"), 5)
    assert shows[1]["show"]["draft"] == {"intensity": {"101": 33.0}}


def test_a_database_that_is_locked_for_once_does_not_end_the_link(show, monkeypatch):
    data, store, link = show
    engine = Engine(data)
    calls, reading = [], store.reading

    def locked():
        calls.append(1)
        if len(calls) < 3:
            raise OperationalError("SELECT", {}, Exception("database is locked"))
        return reading()

    monkeypatch.setattr(store, "reading", locked)
    link.start()
    assert until(lambda: engine.of("program"), 20)
    assert until(lambda: not link.troubles.report(), 10)
    engine.server.close()


def test_an_edit_that_cannot_be_sent_is_told_and_made_good(linked, monkeypatch):
    engine, store, link = linked
    push, failed = link.push, []

    def once(touched=None):
        if not failed:
            failed.append(link)
            raise OperationalError("SELECT", {}, Exception("database is locked"))
        push(touched)

    monkeypatch.setattr(link, "push", once)
    number = rename(store)
    shows = until(lambda: len(engine.of("program")) == 2 and engine.of("program"), 10)
    sent = [one for one in shows[1]["show"]["instances"] if one["effect_id"] == number]
    with store.reading() as session:
        assert all(one["effect"] == session.get(EffectRow, number).document for one in sent)


def test_what_a_browser_held_and_looked_at_is_let_go_when_it_is_gone(linked):
    engine, _, link = linked
    browser, other = link.join(), link.join()
    link.act({"do": "press", "control": "control:1"}, browser)
    link.audition(browser, {"effect_id": 1, "effect": {}, "heads": []})
    link.leave(browser)
    assert until(lambda: [one["on"] for one in engine.of("audition")][-1:] == [None], 5)
    actions = until(lambda: len(engine.of("action")) == 3 and [one["action"] for one in engine.of("action")], 5)
    assert actions[1]["holder"] == browser.holder != other.holder
    assert actions[2] == {"do": "let-go", "holders": [browser.holder]}


def test_an_engine_that_comes_back_is_told_who_is_still_there(linked, show):
    engine, _, link = linked
    browser = link.join()
    engine.server.close()
    assert until(lambda: not link.connected, 5)
    again = Engine(show[0], rig="other")
    told = until(lambda: again.of("action"), 10)
    assert told[0]["action"] == {"do": "let-go", "but": ["", browser.holder]}
    again.server.close()


def test_what_a_frozen_effect_shows_is_what_the_engine_says(linked):
    engine, _, link = linked
    assert link.look_of("control:1") == {"intensity": {"101": 12.5}}
    assert engine.of("look")[0]["key"] == "control:1"


LONG = "x" * 5000
GARBAGE = [
    "{", "[]", "7", "null", b"\x00", "[" * 5000, '{"type": "nothing"}', '{"type": 7}', '{"type": "action"}',
    '{"type": "action", "action": 3}', '{"type": "action", "action": {}, "extra": 1}',
    '{"type": "watch", "universes": [0]}',
    '{"type": "watch", "universes": [true]}', '{"type": "audition", "effect_id": "x", "document": {}}',
    '{"type": "audition", "document": {"name": "x"}, "heads": [1]}',
    '{"type": "preview-effect", "effect_id": -1, "document": {}}',
    '{"type": "preview-effect", "effect_id": 99999999999999999999, "document": {}}',
    f'{{"type": "{LONG}"}}', '{"type": "\\ud800"}', f'{{"type": "action", "action": {{"do": {10**30}}}}}',
]  # fmt: skip


@pytest.mark.parametrize("text", GARBAGE, ids=range(len(GARBAGE)))
def test_garbage_from_a_browser_is_refused_in_few_words(linked, text):
    _, _, link = linked
    with pytest.raises(ZarabandaError) as told:
        live.take(link, link.join(), text)
    assert 20 < len(told.value.message) < 700


def test_a_reader_that_lets_messages_pile_up_is_closed():
    box = wire.Mailbox()
    for n in range(wire.MOST_WAITING + 1):
        box.post({"n": n})
    assert box.take() is None
    slow = wire.Mailbox()
    for n in range(10_000):
        slow.post_newest("frame", {"n": n})
    assert slow.take() == [{"n": 9_999}], "frames do not pile up"


def test_a_message_that_cannot_be_handled_is_told_and_the_next_one_is(tmp_path):
    troubles, got = Troubles(), []

    def take(peer, message):
        if message["type"] == "bad":
            raise KeyError("what")
        got.append(message)

    left = threading.Event()
    server = wire.Server(tmp_path / "s.sock", take, lambda peer: None, troubles, lambda peer: left.set())
    with wire.connect(tmp_path / "s.sock") as connection:
        wire.send(connection, {"type": "bad"})
        until(troubles.report, 5)
        wire.send(connection, {"type": "good"})
        until(lambda: got, 5)
        assert troubles.report() == []
    assert left.wait(5)
    server.close()
