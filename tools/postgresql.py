"""A PostgreSQL server of one's own, for tests and measurements: on loopback, on a free port."""

import os
import shutil
import signal
import subprocess
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from itertools import count
from pathlib import Path

import psycopg

from tools.ports import free_port

# Debian keeps the programs of each version apart.
_PROGRAMS = sorted(Path("/usr/lib/postgresql").glob("*/bin"))
_FOR_A_START_S = 120


class Server:
    """A server that is running, and databases on it."""

    def __init__(self, port: int) -> None:
        self.port = port
        self._numbers = count()

    def begin_database(self, like: str = "template1") -> str:
        """A new database, perhaps a copy of another one; answers its URL."""
        name, template = f"quay_{next(self._numbers)}", like.rpartition("/")[2]
        with psycopg.connect(self.url("postgres"), autocommit=True) as connection:
            connection.execute(f"CREATE DATABASE {name} TEMPLATE {template}".encode())
        return self.url(name)

    def url(self, name: str) -> str:
        """The URL of a database."""
        return f"postgresql://dotstack@127.0.0.1:{self.port}/{name}"


@contextmanager
def server(*, safe: bool) -> Iterator[Server]:
    """A server, its databases gone at the end.

    Args:
        safe: whether it waits for the disk, as it does in use.

    """
    folder = Path(tempfile.mkdtemp(prefix="postgresql-"))
    # It refuses to run as root.
    user = "postgres" if os.geteuid() == 0 else None
    if user:
        shutil.chown(folder, user)
    programs, data = _PROGRAMS[-1], folder / "data"
    subprocess.run(
        [programs / "initdb", "--no-sync", "--auth=trust", "--encoding=UTF8", "--locale=C.UTF-8",
         "--username=dotstack", f"--pgdata={data}"],
        user=user, cwd=folder, check=True, stdout=subprocess.DEVNULL,
    )  # fmt: skip
    settings = {
        "listen_addresses": "127.0.0.1",
        "unix_socket_directories": "",
        "fsync": "on" if safe else "off",
    }
    port, log = free_port(), folder / "log"
    with log.open("w") as said:
        process = subprocess.Popen(
            [programs / "postgres", "-D", data, "-p", str(port),
             *(f"--{name}={value}" for name, value in settings.items())],
            user=user, cwd=folder, stderr=said,
        )  # fmt: skip
    try:
        begun = Server(port)
        _wait(begun, process, log)
        yield begun
    finally:
        # At once, whoever is still connected.
        process.send_signal(signal.SIGQUIT)
        process.wait()
        shutil.rmtree(folder)


def _wait(begun: Server, process: "subprocess.Popen[bytes]", log: Path) -> None:
    until = time.monotonic() + _FOR_A_START_S
    while True:
        try:
            psycopg.connect(begun.url("postgres")).close()
            return
        except psycopg.OperationalError:
            if process.poll() is not None or time.monotonic() > until:
                raise RuntimeError(f"PostgreSQL did not start:\n{log.read_text()}") from None
            time.sleep(0.05)
