"""What sends universes out. One file an output; `base` says what an output is."""
