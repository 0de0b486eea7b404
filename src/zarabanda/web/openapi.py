"""Write what the front end's types are generated from: the OpenAPI document with the messages of the live socket, and the
layout of live frames:
`python -m zarabanda.web.openapi FILE`."""

from __future__ import annotations

import json
import sys
import tempfile
from pathlib import Path
from typing import Any

import msgspec

from zarabanda import messages
from zarabanda.engine.frames import VERSION, layout

from .app import create_app


def document() -> str:
    """The document as JSON text."""
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Path(folder), connect=False)
        text: str = app.test_client().get("/api/docs/openapi.json").text
        app.extensions["zarabanda"].store.close()
    whole = json.loads(text)
    whole["components"]["schemas"] |= live_schemas()
    return json.dumps(whole, indent=1, sort_keys=True) + "\n"


def live_schemas() -> dict[str, Any]:
    """JSON schemas of what goes over the live socket, each name with `Live` before it; `LiveFromBrowser` and `LiveToBrowser`
    are all of them."""
    unions, parts = msgspec.json.schema_components(
        [messages.FromBrowser, messages.ToBrowser], ref_template="#/components/schemas/Live{name}"
    )
    schemas: dict[str, Any] = {f"Live{name}": schema for name, schema in parts.items()}
    return schemas | dict(zip(("LiveFromBrowser", "LiveToBrowser"), unions, strict=True))


def frames() -> str:
    """Where the fields of live frames are, for the front end."""
    lines = ["/** Where the fields of live frames are, in bytes. Made by `make api`. */", f"export const VERSION = {VERSION};"]
    for name, places in layout().items():
        inner = ", ".join(f"{field}: {at}" for field, at in places.items())
        lines.append(f"export const {name} = {{ {inner} }} as const;")
    return "\n".join(lines) + "\n"


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(document())
    Path(sys.argv[1]).with_name("frames.ts").write_text(frames())
