"""The bytes of open protocols, both ways. No sockets here: `outputs` and `listening` have them."""
