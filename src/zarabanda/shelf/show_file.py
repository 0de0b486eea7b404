"""A whole show as one file, `.zarabanda`: a zip with `show.json` and the media it uses (docs/formats.md, "Saved shows").

What comes in is checked from the outside inwards (zip, JSON, tables, documents, whether it can be played) and becomes a show as a
whole, or not at all.
"""

from __future__ import annotations

import contextlib
import json
import os
import re
import shutil
import sqlite3
import tempfile
import zipfile
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from pathlib import Path
from typing import IO

import msgspec
from sqlalchemy.exc import SQLAlchemyError

from zarabanda import __version__
from zarabanda.errors import ZarabandaError, brief, shown
from zarabanda.formats import archives
from zarabanda.show import opening
from zarabanda.show.store import Store, known_versions, make_at, newest_version

from . import checks
from .rows import Rows, rows_in, write_rows

ENDING, SHOW_DB = ".zarabanda", opening.FILE
FORMAT = "zarabanda.show/1"
LARGEST_SHOW, LARGEST_MEDIUM = 100 << 20, 2 << 30
"""Bytes of show.json and of a medium."""
_SHOW, _NOTE = "show.json", ".picture.json"
_MEDIUM = re.compile(r"^media/([0-9a-f]{64})(\.picture\.json)?$")
_HASH = re.compile(r"[0-9a-f]{64}")
_HASH_IN_BYTES = re.compile(rb"[0-9a-f]{64}")
_CHUNK = 1 << 20
_EARLIEST = (1980, 1, 1, 0, 0, 0)
"""Every entry has this date: the same show is the same file, byte for byte."""

COUNTED = {
    "fixture": "fixtures", "head_group": "groups", "palette": "palettes", "effect": "effects", "cue_list": "cue lists",
    "cue": "cues", "busk_row": "rows", "control": "faders and buttons", "pixel_map": "pixel maps", "timeline": "songs",
}  # fmt: skip
"""Tables that a report counts, and what their rows are called."""
Progress = Callable[[float], None]


@dataclass(frozen=True)
class Report:
    """What is in a file. counts: by what is counted; media: how many files; missing: hashes of media that are not in it."""

    name: str
    schema: str
    program: str
    counts: dict[str, int]
    media: int = 0
    missing: list[str] = field(default_factory=list)

    def in_words(self) -> str:
        """As a line."""
        parts = [f"{number:,} {what}" for what, number in self.counts.items() if number]
        gone = f"; {len(self.missing)} media are missing" if self.missing else ""
        return f"“{self.name}”: {', '.join(parts) or 'nothing yet'}, {self.media} media files{gone}"


class _Shown(msgspec.Struct, forbid_unknown_fields=True):
    format: str
    schema: str
    program: str
    tables: Rows
    counters: dict[str, int] = {}


def write(
    source: Path, media: Path, target: IO[bytes], progress: Progress = lambda share: None, *, with_media: bool = True
) -> Report:
    """Save a show. source: its file, which may be in use; media: the media folder; progress: told 0…1."""
    with contextlib.closing(_snapshot(source)) as connection:
        tables, counters = rows_in(connection)
        (schema,) = connection.execute("SELECT version_num FROM alembic_version").fetchone()
    text = _as_text(_Shown(FORMAT, schema, __version__, tables, counters))
    used = sorted(set(_HASH.findall(text)))
    there = [one for one in used if (media / one).is_file()] if with_media else []
    sizes = [(media / one).stat().st_size for one in there]
    with zipfile.ZipFile(target, "w") as archive:
        _put(archive, _SHOW, text.encode(), zipfile.ZIP_DEFLATED)
        for n, one in enumerate(there):
            progress(sum(sizes[:n]) / max(sum(sizes), 1))
            info = zipfile.ZipInfo(f"media/{one}", _EARLIEST)
            with (media / one).open("rb") as file, archive.open(info, "w", force_zip64=True) as entry:
                shutil.copyfileobj(file, entry, _CHUNK)
            note = media / f"{one}{_NOTE}"
            if note.is_file():
                _put(archive, f"media/{one}{_NOTE}", note.read_bytes(), zipfile.ZIP_DEFLATED)
    progress(1.0)
    return _report(schema, __version__, tables, len(there), [one for one in used if one not in there])


def look(path: Path) -> Report:
    """What is in a file, without taking it in. ZarabandaError says what is wrong with it."""
    with _opened(path) as archive:
        return _report_of(archive, *_shown(archive))


def read(path: Path, into: Path, media: Path, progress: Progress = lambda share: None) -> Report:
    """Make a show's file of a saved one, at a path where there is none. media: the media folder, which gets what it lacks.

    ZarabandaError says what is wrong, where, and what to do; then there is no show at the path.
    """
    with _opened(path) as archive:
        found, used = _shown(archive)
        report = _report_of(archive, found, used)
        progress(0.1)
        with tempfile.TemporaryDirectory(dir=into.parent, prefix=".coming-in-") as folder:
            made = Path(folder) / opening.FILE
            _made(made, found)
            progress(0.5)
            _media_taken_in(archive, media, lambda share: progress(0.5 + share / 2))
            os.replace(made, into)
    return report


# out


def _snapshot(source: Path) -> sqlite3.Connection:
    """The show as it is at this moment, in memory: whoever edits meanwhile is not waited for."""
    held = sqlite3.connect(":memory:")
    with contextlib.closing(sqlite3.connect(f"{source.resolve().as_uri()}?mode=ro", uri=True, timeout=15)) as connection:
        connection.backup(held)
    return held


def _as_text(found: _Shown) -> str:
    """One row a line, so that two saved shows can be compared line by line."""
    tables = []
    for name, rows in found.tables.items():
        lines = ",\n".join(f"  {json.dumps(row, ensure_ascii=False, allow_nan=False)}" for row in rows)
        tables.append(f" {json.dumps(name)}: [\n{lines}\n ]" if rows else f" {json.dumps(name)}: []")
    head = ",\n".join(f'"{name}": {json.dumps(getattr(found, name))}' for name in ("format", "schema", "program", "counters"))
    return "{\n" + head + ',\n"tables": {\n' + ",\n".join(tables) + "\n}\n}\n"


def _put(archive: zipfile.ZipFile, name: str, content: bytes, how: int) -> None:
    info = zipfile.ZipInfo(name, _EARLIEST)
    info.compress_type = how
    archive.writestr(info, content)


# in


@contextlib.contextmanager
def _opened(path: Path) -> Iterator[zipfile.ZipFile]:
    """The zip, after a look at what it says is in it."""
    with archives.opened(path, called=".zarabanda file", remedy="Save it again, or take another.") as archive:
        _fits(archive)
        yield archive


def _fits(archive: zipfile.ZipFile) -> None:
    if _SHOW not in archive.namelist():
        raise ZarabandaError("There is no show.json in this file: it is no saved show. Choose a .zarabanda file.", "file")
    archives.check(archive, LARGEST_SHOW + archives.MOST_ENTRIES * LARGEST_MEDIUM)
    for one in archive.infolist():
        if one.filename != _SHOW and not _MEDIUM.match(one.filename):
            raise ZarabandaError(
                f"A saved show has nothing called {shown(one.filename)}: it was changed by something else. Save it again.", "file"
            )
        if one.file_size > (LARGEST_SHOW if not one.filename.startswith("media/") else LARGEST_MEDIUM):
            raise ZarabandaError(f"{shown(one.filename)} is too large: {one.file_size >> 20:,} MB.", "file")


def _shown(archive: zipfile.ZipFile) -> tuple[_Shown, set[str]]:
    """The show, and hashes of the media that it uses."""
    content = archives.content(archive, _SHOW, LARGEST_SHOW)
    try:
        head = msgspec.json.decode(content, type=_Head)
        if head.format != FORMAT:
            raise ZarabandaError(
                f"This file is of format {shown(head.format)}; this program reads {FORMAT}. A newer Zarabanda wrote it.",
                "format",
            )
        if head.schema not in known_versions():
            raise ZarabandaError(
                f"This show's tables are of version {shown(head.schema)}; this program knows {newest_version()}. "
                "A newer Zarabanda wrote it: use that one.", "schema",
            )  # fmt: skip
        return msgspec.json.decode(content, type=_Shown), {one.decode() for one in _HASH_IN_BYTES.findall(content)}
    except (msgspec.DecodeError, RecursionError, UnicodeError) as error:
        raise ZarabandaError(f"show.json cannot be read: {brief(str(error))}. Take another copy of the file.", _SHOW) from error


class _Head(msgspec.Struct):
    format: str
    schema: str


def _made(path: Path, found: _Shown) -> None:
    """The show's file, brought to the newest version and checked through."""
    try:
        make_at(path, found.schema)
        with contextlib.closing(sqlite3.connect(path)) as connection:
            write_rows(connection, found.tables, found.counters)
        store = Store(path)
        try:
            checks.check(store)
        finally:
            store.close()
    except (SQLAlchemyError, sqlite3.Error) as error:
        text = brief(str(getattr(error, "orig", error)))
        raise ZarabandaError(f"What is in this show does not fit together: {text}. Take another copy.", _SHOW) from error


def _media_taken_in(archive: zipfile.ZipFile, media: Path, progress: Progress) -> None:
    media.mkdir(parents=True, exist_ok=True)
    entries = [one for one in archive.infolist() if one.filename.startswith("media/")]
    for n, one in enumerate(entries):
        progress(n / len(entries))
        target = media / one.filename.removeprefix("media/")
        if not target.exists():
            checks.medium_taken_in(one.filename, archives.chunks_of(archive, one.filename), target, LARGEST_MEDIUM)
    progress(1.0)


# what is told


def _report_of(archive: zipfile.ZipFile, found: _Shown, used: set[str]) -> Report:
    media = {match[1] for one in archive.namelist() if (match := _MEDIUM.match(one)) and not match[2]}
    return _report(found.schema, found.program, found.tables, len(media), sorted(used - media))


def _report(schema: str, program: str, tables: Rows, media: int, missing: list[str]) -> Report:
    shows = tables.get("show", [])
    name = str(shows[0].get("name", "")) if shows else ""
    counts = {what: len(tables.get(table, ())) for table, what in COUNTED.items()}
    return Report(brief(name, 120), schema, brief(program, 40), counts, media, missing)
