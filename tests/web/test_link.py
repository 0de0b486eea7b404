"""The web process's end of the link: what is sent when, what comes back, and what happens when something fails."""

import shutil
import threading

import msgspec
import pytest
from sqlalchemy import select
from sqlalchemy.exc import OperationalError

from tests.waiting import until
from zarabanda import messages, wire
from zarabanda.errors import ZarabandaError
from zarabanda.formats import effect_edit
from zarabanda.messages import (
    AskLook,
    Audition,
    ControlPart,
    Do,
    DraftValuesPart,
    EffectPart,
    FixturePart,
    LetGo,
    Press,
    ShowUpdate,
    TempoPart,
)
from zarabanda.show import repositories
from zarabanda.show.store import Store
from zarabanda.show.tables import ControlRow, EffectRow, Fixture, Page
from zarabanda.web import live
from zarabanda.web.link import EngineLink
from zarabanda.workers import Troubles

pytestmark = pytest.mark.slow


class Engine:
    """As much of an engine as the link needs: keeps what it is sent."""

    def __init__(self, data, rig=""):
        self.got, self.rig = [], rig
        decoder = msgspec.msgpack.Decoder(messages.ToEngine)
        self.server = wire.Server(wire.socket_path(data, "engine"), decoder, self.take, self.joined, Troubles())

    def joined(self, peer):
        peer.post(messages.EngineHello())

    def take(self, peer, message):
        self.got.append(message)
        if isinstance(message, AskLook):
            peer.post(messages.Look(message.ref, {"intensity": {"101": 12.5}}))

    def of(self, kind):
        return [one for one in self.got if isinstance(one, kind)]

    def parts(self, number, kind):
        return [part for part in self.of(ShowUpdate)[number].parts if isinstance(part, kind)]


@pytest.fixture
def show(tmp_path, demo_show):
    shutil.copy(demo_show, tmp_path / "show.db")
    store = Store(tmp_path / "show.db")
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
    assert until(lambda: engine.of(Do)), "it says who is there"
    yield engine, store, link
    engine.server.close()


def rename(store, name="Renamed"):
    with store.edit("a", "Rename") as session:
        row = session.query(EffectRow).filter(EffectRow.kept).first()
        row.document = {**row.document, "seed": row.document.get("seed", 0) + 1}
        return row.id


def test_fixtures_are_sent_one_by_one_when_they_change(linked):
    engine, store, link = linked
    assert engine.parts(0, FixturePart), "it gets all of it"
    number = rename(store)
    assert until(lambda: len(engine.of(ShowUpdate)) == 2)
    assert [part.key for part in engine.of(ShowUpdate)[1].parts] == [("effect", number)], "what changed, and nothing else"
    with store.edit("a", "Move") as session:
        session.get(Fixture, 101).address = 481
    assert until(lambda: len(engine.of(ShowUpdate)) == 3)
    assert [(one.id, one.address) for one in engine.parts(2, FixturePart)] == [(101, 481)], "the one that changed"
    before = link.rig
    assert before.heads.index["101"] == 0


def test_each_kind_of_edit_sends_its_parts(linked):
    engine, store, _ = linked
    with store.reading() as session:
        of_page = list(session.scalars(select(ControlRow.id).where(ControlRow.page_id == 1)))

    def page(session):
        session.get(Page, 1).name = "Other"

    edits = {
        lambda session: repositories.draft.set_values(session, {"zoom": {"101": 20.0}}): ("draft-values", "zoom"),
        lambda session: repositories.draft.put_on(session, 1, ["101"]): ("draft-effect", 1),
        lambda session: session.delete(session.get(ControlRow, 3)): ("control", 3),
        page: ("control", 1),
        lambda session: setattr(repositories.tempos.named(session, "Colour"), "bpm", 99.0): ("tempo", 2),
    }
    for number, (edit, key) in enumerate(edits.items(), 1):
        with store.edit("a", "Edit") as session:
            edit(session)
        assert until(lambda wanted=number + 1: len(engine.of(ShowUpdate)) == wanted)
        sent = engine.of(ShowUpdate)[number]
        assert key in [*(part.key for part in sent.parts), *map(tuple, sent.gone)]
        assert (sent.whole, sent.revision) == (False, number + 1)
    assert {part.id for part in engine.parts(4, ControlPart)} == {*of_page} - {3}, "all that are left on the page"
    store.undo("a")
    assert until(lambda: len(engine.of(ShowUpdate)) == 7)
    assert [part.bpm for part in engine.parts(6, TempoPart)] == [96.0]


def test_revisions_are_counted_from_0_in_a_session_of_their_own(linked, show):
    engine, store, link = linked
    rename(store)
    until(lambda: len(engine.of(ShowUpdate)) == 2)
    assert [one.revision for one in engine.of(ShowUpdate)] == [1, 2]
    other = EngineLink(show[0], store, Troubles())
    assert other.revision == 0
    assert other.session != link.session == engine.of(ShowUpdate)[0].session


def test_an_edit_of_another_process_is_not_forgotten_by_the_quick_way(linked):
    engine, store, link = linked
    store.on_edit = lambda touched: None  # another process edits: this one does not hear of it
    with store.edit("b", "Draft") as session:
        repositories.draft.set_values(session, {"intensity": {"101": 33.0}})
    store.on_edit = link.edited
    rename(store)
    shows = until(lambda: len(engine.of(ShowUpdate)) == 2 and engine.of(ShowUpdate))
    assert shows[1].whole
    assert engine.parts(1, DraftValuesPart) == [DraftValuesPart("intensity", {"101": 33.0})]


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
    assert until(lambda: engine.of(ShowUpdate))
    assert until(lambda: not link.troubles.report())
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
    shows = until(lambda: len(engine.of(ShowUpdate)) == 2 and engine.of(ShowUpdate))
    assert shows[1].whole
    [sent] = [part for part in engine.parts(1, EffectPart) if part.id == number]
    with store.reading() as session:
        assert sent.document == session.get(EffectRow, number).document


def test_what_a_browser_held_and_looked_at_is_let_go_when_it_is_gone(linked):
    engine, _, link = linked
    browser, other = link.join(), link.join()
    link.act(Press("control:1", holder="somebody else"), browser)
    link.audition(browser, 1, effect_edit.new_effect("zoom", "Tried"), [])
    link.leave(browser)
    assert until(lambda: [one.document for one in engine.of(Audition)][-1:] == [None])
    actions = until(lambda: len(engine.of(Do)) == 3 and [one.action for one in engine.of(Do)])
    assert actions[1].holder == browser.holder != other.holder
    assert actions[2] == LetGo(holders=[browser.holder])


def test_an_engine_that_comes_back_is_told_who_is_still_there(linked, show):
    engine, _, link = linked
    browser = link.join()
    engine.server.close()
    assert until(lambda: not link.connected)
    again = Engine(show[0], rig="other")
    told = until(lambda: again.of(Do))
    assert told[0].action == LetGo(but=["", browser.holder])
    again.server.close()


def test_what_a_frozen_effect_shows_is_what_the_engine_says(linked):
    engine, _, link = linked
    assert link.questions.look_of("control:1") == {"intensity": {"101": 12.5}}
    assert engine.of(AskLook)[0].key == "control:1"


LONG = "x" * 5000
GARBAGE = [
    "{", "[]", "7", "null", b"\x00", "[" * 5000, '{"type": "nothing"}', '{"type": 7}', '{"type": "action"}',
    '{"type": "action", "action": 3}', '{"type": "action", "action": {}, "extra": 1}',
    '{"type": "watch", "universes": [0]}',
    '{"type": "watch", "universes": [true]}', '{"type": "audition", "effect_id": "x", "document": {}}',
    '{"type": "audition", "document": {"name": "x"}, "heads": [1]}',
    '{"type": "preview-effect", "effect_id": -1, "document": {}}',
    '{"type": "preview-effect", "effect_id": 99999999999999999999, "document": {}}',
    '{"type": "action", "action": {"do": "let-go", "holders": ["a"]}}',
    f'{{"type": "{LONG}"}}', '{"type": "\\ud800"}', f'{{"type": "action", "action": {{"do": {10**30}}}}}',
]  # fmt: skip


@pytest.mark.parametrize("text", GARBAGE, ids=range(len(GARBAGE)))
def test_garbage_from_a_browser_is_refused_in_few_words(linked, text):
    _, _, link = linked
    with pytest.raises(ZarabandaError) as told:
        live.take(link, link.join(), text)
    assert 20 < len(told.value.message) < 800


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
    server = wire.Server(tmp_path / "s.sock", wire.PLAIN, take, lambda peer: None, troubles, lambda peer: left.set())
    with wire.connect(tmp_path / "s.sock") as connection:
        wire.send(connection, {"type": "bad"})
        until(troubles.report)
        wire.send(connection, {"type": "good"})
        until(lambda: got)
        assert troubles.report() == []
    assert left.wait(5)
    server.close()
