"""Pictures and films in the media folder of a show, each beside a note of what it is."""

from __future__ import annotations

import contextlib
import json
from collections.abc import Iterable
from dataclasses import asdict, dataclass
from pathlib import Path
from typing import Any

from zarabanda.errors import ZarabandaError, shown
from zarabanda.media_folder import MediaFolder

MOST_PIXELS, MOST_BYTES, MOST_SECONDS = 32_000_000, 2 << 30, 2 * 3600.0
STILLS: dict[str, str] = {"PNG": "image/png", "JPEG": "image/jpeg", "GIF": "image/gif"}
"""Formats of pictures that can be used, by their name, and what a browser calls them."""
_NOTE = ".picture.json"


@dataclass(frozen=True)
class Medium:
    """A picture or film. kind: picture or film; seconds: how long it moves, 0: it does not; frames a second, 0: none."""

    hash: str
    name: str
    kind: str
    width: int
    height: int
    seconds: float = 0.0
    rate: float = 0.0
    transparent: bool = False


class PictureMedia(MediaFolder):
    """The folder, for pictures and films."""

    what = "picture"

    def keep(self, name: str, chunks: Iterable[bytes]) -> Medium:
        """Take in a file. ZarabandaError says what is wrong with it; then nothing is kept."""

        def look(path: Path, hash_: str, name: str) -> Medium:
            found = looked_at(path, hash_, name)
            (self.folder / f"{hash_}{_NOTE}").write_text(json.dumps(asdict(found)))
            return found

        return self.take_in(name, chunks, MOST_BYTES, "Cut it, or save it smaller: it is shown on few cells.", look)

    def every(self) -> list[Medium]:
        """All that are there, by name."""
        found = []
        for note in self.folder.glob(f"*{_NOTE}") if self.folder.is_dir() else ():
            with contextlib.suppress(OSError, ValueError, TypeError):
                medium = Medium(**json.loads(note.read_text()))
                if self.has(medium.hash):
                    found.append(medium)
        return sorted(found, key=lambda one: (one.name.lower(), one.hash))

    def medium(self, hash_: str) -> Medium:
        """One of them. NotThere where it is not."""
        path = self.path(hash_)
        with contextlib.suppress(OSError, ValueError, TypeError):
            return Medium(**json.loads((self.folder / f"{hash_}{_NOTE}").read_text()))
        return looked_at(path, hash_, "the picture")

    def delete(self, hash_: str) -> None:
        """Take one out of the folder."""
        self.path(hash_).unlink()
        with contextlib.suppress(OSError):
            (self.folder / f"{hash_}{_NOTE}").unlink()


def looked_at(path: Path, hash_: str, name: str) -> Medium:
    """What a file is. Its size is looked at first; then it is decoded once, so that a broken one is refused."""
    from PIL import Image, UnidentifiedImageError

    Image.MAX_IMAGE_PIXELS = None  # our own limit is said below, in words
    try:
        with Image.open(path) as image:
            if image.format not in STILLS:
                raise ZarabandaError(f"“{name}” is {image.format}. Use PNG, JPEG, a moving GIF, or a film.", "file")
            width, height = image.size
            if width * height > MOST_PIXELS:
                raise ZarabandaError(
                    f"“{name}” has {width} × {height} points, {width * height / 1e6:.0f} megapixels; "
                    f"{MOST_PIXELS // 1_000_000} are the most. Save it smaller: it is shown on few cells.", "file",
                )  # fmt: skip
            seconds, count = 0.0, getattr(image, "n_frames", 1)
            image.load()
            for n in range(min(count, 2000) if count > 1 else 0):
                image.seek(n)
                seconds += max(float(image.info.get("duration", 100)), 20.0) / 1000
            clear = image.mode in ("RGBA", "LA", "PA") or "transparency" in image.info
            return Medium(hash_, name, "picture", width, height, seconds, count / seconds if seconds else 0.0, clear)
    except UnidentifiedImageError:
        return _film_looked_at(path, hash_, name)
    except (OSError, ValueError, SyntaxError) as error:
        raise ZarabandaError(f"“{name}” is damaged ({error}). Export it anew.", "file") from error


def _film_looked_at(path: Path, hash_: str, name: str) -> Medium:
    import av

    unreadable = f"“{name}” cannot be read as a picture or a film. Use PNG, JPEG, GIF, or a film that plays, such as MP4 or WebM."
    try:
        with av.open(str(path)) as file:
            video: Any = next(iter(file.streams.video), None)
            if video is None:
                raise ZarabandaError(f"“{name}” has no moving picture in it. Choose a film.", "file")
            seconds = float(video.duration * video.time_base) if video.duration else float(file.duration or 0) / 1e6
            if seconds > MOST_SECONDS:
                raise ZarabandaError(
                    f"“{name}” lasts {seconds / 3600:.1f} h; {MOST_SECONDS / 3600:g} h are the most. Cut it.", "file"
                )
            if video.width * video.height > MOST_PIXELS:
                raise ZarabandaError(f"“{name}” has {shown(f'{video.width} × {video.height}')} pixels. Save it smaller.", "file")
            frame = next(file.decode(video), None)
            if frame is None or seconds <= 0:
                raise ZarabandaError(f"“{name}” has no picture that can be decoded. Export it anew, as MP4.", "file")
            return Medium(hash_, name, "film", video.width, video.height, seconds, float(video.average_rate or 25))
    except (av.FFmpegError, OSError, ValueError) as error:
        raise ZarabandaError(unreadable, "file") from error
