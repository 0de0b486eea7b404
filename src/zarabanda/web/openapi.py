"""Write the OpenAPI document, from which the front end's types are generated: `python -m zarabanda.web.openapi FILE`."""

from __future__ import annotations

import json
import sys
import tempfile
from pathlib import Path

from .app import create_app


def document() -> str:
    """The document as JSON text."""
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Path(folder), connect=False)
        text: str = app.test_client().get("/api/docs/openapi.json").text
        app.extensions["zarabanda"].store.close()
    return json.dumps(json.loads(text), indent=1, sort_keys=True) + "\n"


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(document())
