"""Stand-ins for outside devices, which really receive and decode what is sent to them on this machine."""
