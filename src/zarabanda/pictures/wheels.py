"""Pictures in slots of wheels, in the media folder of a show."""

from __future__ import annotations

import io
from pathlib import Path

from zarabanda.errors import ZarabandaError
from zarabanda.media_folder import MediaFolder

MOST_BYTES, MOST_PIXELS = 8 << 20, 16_000_000
_SIDE = 96


class WheelPictures(MediaFolder):
    """The folder, for pictures of wheels."""

    what = "picture"

    def keep(self, name: str, content: bytes) -> str:
        """Take in a picture; its SHA-256. ZarabandaError says what is wrong with it; then nothing is kept."""

        def look(path: Path, hash_: str, name: str) -> str:
            _small(path, name)
            return hash_

        return self.take_in(name, [content], MOST_BYTES, "Save it smaller.", look)

    def small(self, hash_: str) -> bytes:
        """One of them as a small PNG."""
        return _small(self.path(hash_), "the picture")


def _small(path: Path, name: str) -> bytes:
    from PIL import Image

    Image.MAX_IMAGE_PIXELS = None  # our own limit is said below, in words
    try:
        with Image.open(path, formats=["PNG", "JPEG"]) as image:
            if image.width * image.height > MOST_PIXELS:
                raise ZarabandaError(f"“{name}” has {image.width} × {image.height} points. Save it smaller.", "file")
            small = image.convert("RGBA")
            small.thumbnail((_SIDE, _SIDE))
            out = io.BytesIO()
            small.save(out, "PNG")
            return out.getvalue()
    except (OSError, ValueError, SyntaxError) as error:
        raise ZarabandaError(f"“{name}” is no PNG or JPEG that can be read ({error}).", "file") from error
