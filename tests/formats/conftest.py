"""Broken files for readers of any format."""

import io
import random
import re
import stat
import zipfile

import pytest

from tests.thoroughness import scaled

VALUE = re.compile(rb'"[^"<>]*"')
VALUES = [
    b'"%s"' % one
    for one in (b"", b"0", b"-1", b"1", b"99999999999", b"nan", b"1e400", b"255/1", b"Yes", b"Overwrite", b"{}", b"x" * 5000)
]


@pytest.fixture
def zips_to_refuse():
    """Zips that no reader may use, and words of the refusal. name: of the file that the reader looks for."""

    def of(name):
        def packed(*entries, **more):
            target = io.BytesIO()
            with zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as archive:
                for entry, content in entries:
                    archive.writestr(entry, content)
            return target.getvalue()

        link = zipfile.ZipInfo("wheels/a.png")
        link.external_attr = (stat.S_IFLNK | 0o777) << 16
        good = packed((name, "<a/>"))
        locked = bytearray(good)
        locked[locked.index(b"PK\x01\x02") + 8] |= 1
        return [
            (b"", "no whole"),
            (b"PK\x03\x04", "no whole"),
            (good[:-30], "no whole"),
            (packed(("other.xml", "")), "There is no"),
            (packed((name, ""), ("../../etc/a", "")), "out of its folder"),
            (packed((name, ""), ("/etc/a", "")), "out of its folder"),
            (packed((name, ""), (link, "/etc/passwd")), "is a link"),
            (bytes(locked), "password"),
            (packed((name, b" " * (300 << 20))), "MB"),
            (packed((name, ""), *((f"a{n}", "") for n in range(10_001))), "10,002 entries"),
        ]

    return of


@pytest.fixture
def mutated():
    """Files that went wrong: half with damaged bytes, half with damaged words inside a whole zip."""

    def of(whole, text, packed, count):
        chance = random.Random(19)
        words = [
            b"",
            b"0",
            b"-1",
            b"99999999999",
            b"nan",
            b"'",
            b'"',
            b"<",
            b">",
            b"&#0;",
            b"\xff",
            b"/",
            b"{",
            b"Overwrite",
            b"x" * 9000,
        ]
        for n in range(scaled(count)):
            kept = bytearray(text if n % 2 else whole)
            if n % 4 == 1:  # well formed, and wrong
                kept = bytearray(VALUE.sub(lambda found: found[0] if chance.random() > 0.005 else chance.choice(VALUES), text))
                yield packed(bytes(kept))
                continue
            for _ in range(chance.randint(1, 6)):
                at = chance.randrange(len(kept))
                how = chance.randrange(4)
                if how == 0:
                    kept[at] = chance.randrange(256)
                elif how == 1:
                    del kept[at : at + chance.randint(1, 200)]
                elif how == 2:
                    kept[at:at] = chance.choice(words)
                else:
                    end = chance.randrange(len(kept))
                    kept[at:at] = kept[end : end + 300]
                if not kept:
                    kept = bytearray(b" ")
            yield packed(bytes(kept)) if n % 2 else bytes(kept)

    return of
