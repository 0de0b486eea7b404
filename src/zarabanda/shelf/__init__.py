"""The shows of a data folder: many of them, one open; their files, and copies that are made by themselves."""
