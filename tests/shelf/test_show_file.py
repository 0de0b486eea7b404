"""Saved shows: a round trip loses nothing, older ones come in, and what is broken or hostile is told and leaves nothing."""

import contextlib
import io
import json
import random
import resource
import sqlite3
import time
import zipfile
from pathlib import Path

import pytest
from hypothesis import HealthCheck, given
from hypothesis import strategies as st

from tests.thoroughness import scaled, thorough
from zarabanda.demo import salt_light
from zarabanda.errors import ZarabandaError
from zarabanda.formats import effect_edit
from zarabanda.shelf import show_file
from zarabanda.shelf.rows import rows_in
from zarabanda.show import repositories
from zarabanda.show.store import Store, known_versions
from zarabanda.show.tables import Group, PaletteRow, Show

pytestmark = pytest.mark.slow

OLD = Path(__file__).parent.parent / "show" / "shows"


@pytest.fixture(scope="module")
def small(tmp_path_factory):
    """A small show's file, and it saved."""
    folder = tmp_path_factory.mktemp("small")
    store = Store(folder / "show.db")
    with store.edit("a", "New") as session:
        salt_light.new_show(session, "Small")
    store.close()
    return folder / "show.db", saved(folder / "show.db", folder / "media")


def saved(path, media):
    out = io.BytesIO()
    show_file.write(path, media, out)
    return out.getvalue()


def everything(path):
    with contextlib.closing(sqlite3.connect(path)) as connection:
        return rows_in(connection)


def taken_in(content, folder, name="in.zarabanda"):
    file = folder / name
    file.write_bytes(content)
    show_file.read(file, folder / "show.db", folder / "media")
    return folder / "show.db"


def test_the_demo_comes_back_byte_for_byte_with_its_media(demo_show, demo_made, tmp_path):
    content = saved(demo_show, demo_made / "media")
    back = taken_in(content, tmp_path)
    assert everything(back) == everything(demo_show)
    assert saved(back, tmp_path / "media") == content
    with zipfile.ZipFile(io.BytesIO(content)) as archive:
        text = archive.read("show.json").decode()
    assert json.loads(text)["format"] == "zarabanda.show/1"
    rows = sum(map(len, json.loads(text)["tables"].values()))
    assert rows < len(text.splitlines()) < rows + 100, "a row a line"


NAMES = st.text(st.characters(exclude_categories=["Cs"]), min_size=1, max_size=40)


@thorough(6, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(
    st.lists(NAMES, max_size=5, unique=True), st.lists(st.lists(st.integers(1, 999).map(str)), max_size=3),
    st.floats(1, 300), st.sampled_from(["intensity", "pan", "colour", "zoom"]), NAMES,
)  # fmt: skip
def test_any_show_comes_back_as_it_was(tmp_path_factory, palettes, groups, bpm, attribute, name):
    folder = tmp_path_factory.mktemp("any")
    store = Store(folder / "first.db")
    with store.edit("a", "New") as session:
        salt_light.new_show(session, "x")
        session.get(Show, 1).name = name
        first = session.query(PaletteRow).first().document
        session.add_all(PaletteRow(name=f"{one}~{n}", position=100 + n, document=first) for n, one in enumerate(palettes))
        session.add_all(Group(name=f"G{n}", heads=keys, position=n) for n, keys in enumerate(groups))
        repositories.tempos.every(session)[0].bpm = bpm
        repositories.effects.store(session, effect_edit.new_effect(attribute, name[:80]), kept=True)
    store.close()
    back = taken_in(saved(folder / "first.db", folder), folder)
    assert everything(back) == everything(folder / "first.db")


@pytest.mark.parametrize("file", sorted(OLD.glob("version_*.sql")), ids=lambda one: one.stem)
def test_a_show_of_an_earlier_version_is_saved_and_comes_in_as_it_would_open(file, tmp_path):
    for name in ("saved.db", "opened.db"):
        with contextlib.closing(sqlite3.connect(tmp_path / name)) as connection:
            connection.executescript(file.read_text())
    Store(tmp_path / "opened.db").close()
    back = taken_in(saved(tmp_path / "saved.db", tmp_path), tmp_path)
    mine, wanted = everything(back)[0], everything(tmp_path / "opened.db")[0]
    assert mine == wanted


def changed(content, **more):
    """A saved show with another show.json, or other entries. show: of its text; names: entries by name."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(content)) as archive, zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as target:
        text = archive.read("show.json").decode()
        target.writestr("show.json", more["show"](text) if "show" in more else text)
        for name, entry in more.get("entries", {}).items():
            target.writestr(name, entry)
    return out.getvalue()


def edited(change):
    def of(text):
        document = json.loads(text)
        change(document)
        return json.dumps(document)

    return of


def put(table, row, **values):
    return edited(lambda document: document["tables"][table][row].update(values))


HOSTILE = {
    "another format": (lambda c: changed(c, show=edited(lambda d: d.update(format="zarabanda.show/9"))), "newer Zarabanda"),
    "a newer version": (lambda c: changed(c, show=edited(lambda d: d.update(schema="9999"))), "newer Zarabanda wrote it"),
    "no JSON": (lambda c: changed(c, show=lambda text: text[:-9]), "cannot be read"),
    "deep": (lambda c: changed(c, show=lambda text: "[" * 100_000), "cannot be read"),
    "wrong encoding": (lambda c: changed(c, show=lambda text: text.encode("utf-16")), "cannot be read"),
    "an unknown table": (lambda c: changed(c, show=edited(lambda d: d["tables"].update(pets=[{"id": 1}]))), "no table 'pets'"),
    "an unknown column": (lambda c: changed(c, show=put("tempo", 0, wings=2)), "no column 'wings'"),
    "a text for a number": (lambda c: changed(c, show=put("tempo", 0, bpm="fast")), "tempo, row 1, bpm: 'fast' is no float"),
    "a name of 10,000 letters": (lambda c: changed(c, show=put("tempo", 0, name="N" * 10_000)), "longer than 80 letters"),
    "two of one name": (lambda c: changed(c, show=put("tempo", 0, name="Colour")), "does not fit together"),
    "a document of nothing": (lambda c: changed(c, show=put("effect", 2, document={})), "cannot be read"),
    "a document that is a list": (lambda c: changed(c, show=put("palette", 0, document=[1])), "cannot be read"),
    "heads that are numbers": (
        lambda c: changed(c, show=edited(lambda d: d["tables"]["head_group"].append(
            {"id": 1, "name": "G", "heads": [1], "position": 0, "rule": None}))), "cannot be read"),
    "a row of nothing": (
        lambda c: changed(c, show=edited(lambda d: d["tables"]["control"].append(
            {"id": 1, "page_id": 77, "row": "faders", "place": 1, "name": "x", "mode": "fader", "job": "depth",
             "release_s": 0.1, "target": {"kind": "nothing"}}))), "is not there"),
    "no show": (lambda c: changed(c, show=edited(lambda d: d["tables"].update(show=[]))), "no show in this file"),
    "a path out of the folder": (lambda c: changed(c, entries={"../../evil": b"x"}), "'../../evil'"),
    "a medium by a wrong name": (lambda c: changed(c, entries={"media/" + "0" * 64: b"x"}), "not what its name says"),
    "no zip": (lambda c: b"GIF89a", "no whole .zarabanda"),
    "half a zip": (lambda c: c[: len(c) // 2], "no whole .zarabanda"),
    "a zip of something else": (lambda c: zipped({"readme.txt": b"hello"}), "no saved show"),
    "a bomb": (lambda c: zipped({"show.json": b" " * (show_file.LARGEST_SHOW + 1)}), "too large"),
    "a million entries": (lambda c: zipped({"show.json": b"{}", **{f"media/{n}": b"" for n in range(10_001)}}), "entries"),
}  # fmt: skip


def zipped(entries):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, content in entries.items():
            archive.writestr(name, content)
    return out.getvalue()


@pytest.mark.parametrize("name", HOSTILE)
def test_what_is_wrong_is_told_and_leaves_no_show(name, small, tmp_path):
    make, wanted = HOSTILE[name]
    with pytest.raises(ZarabandaError) as told:
        taken_in(make(small[1]), tmp_path)
    assert wanted in told.value.message
    assert len(told.value.message) < 400
    assert not (tmp_path / "show.db").exists()
    assert [path for path in tmp_path.glob("**/*") if path.is_file() and path.name != "in.zarabanda"] == []


@pytest.mark.parametrize("part", range(4))
def test_changed_files_are_read_or_refused_and_nothing_else(part, small, tmp_path):
    """Bytes of the zip, and pieces of its JSON, changed by chance."""
    draw = random.Random(part)
    with zipfile.ZipFile(io.BytesIO(small[1])) as archive:
        text = archive.read("show.json").decode()
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    for n in range(scaled(250)):
        if n % 2:
            data = bytearray(small[1])
            for _ in range(draw.randint(1, 8)):
                data[draw.randrange(len(data))] = draw.randrange(256)
            content = bytes(data)
        else:
            at = draw.randrange(len(text))
            piece = draw.choice(["", '"', "{", "null", "-1", "1e999", "[]", '"x"', "true", text[at : at + 40] * 2])
            content = zipped({"show.json": (text[:at] + piece + text[at + draw.randint(0, 12) :]).encode()})
        folder = tmp_path / f"{n}"
        folder.mkdir()
        began = time.process_time()
        read = False
        with contextlib.suppress(ZarabandaError):
            taken_in(content, folder)
            read = True
        assert read == (folder / "show.db").exists()
        assert time.process_time() - began < 5
    assert (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before) / 1024 < 500


def test_versions_are_known_in_their_order():
    assert known_versions() == sorted(known_versions())
    assert known_versions()[0] == "0001"
