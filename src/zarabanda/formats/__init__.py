"""Open documents and files, checked at this boundary."""
