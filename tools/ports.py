"""Ports for servers that live shortly."""

import secrets
import socket

# Below those that systems lend to connections: one that is freed for a while is not taken by these.
_FIRST, _COUNT = 20_000, 12_000


def free_port() -> int:
    """A port of this machine that nobody listens on.

    One of very many by chance, for others may look for one at the same time.
    """
    while True:
        port = _FIRST + secrets.randbelow(_COUNT)
        with socket.socket() as probe:
            if probe.connect_ex(("127.0.0.1", port)):
                return port
