"""Servers to be measured or attacked: each the real command, on loopback, on a free port."""

import http.client
import os
import signal
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from urllib.parse import urlencode

from dotstack.phrase import keep_phrase
from tools.ports import free_port

_PHRASE = "the quay at low tide"
_FOR_A_START_S = 120


@dataclass(frozen=True, slots=True)
class Served:
    """A server, and the cookie that lets in, if it asks for one."""

    pid: int
    port: int
    cookie: str = ""

    def children(self) -> list[int]:
        """The processes that it has begun, and those that these have begun."""
        return _descendants(self.pid)

    def memory(self) -> int:
        """What all of its processes hold, in bytes; shared pages by their share."""
        return sum(_memory(pid) for pid in (self.pid, *self.children()))


@contextmanager
def by_itself(folder: Path) -> Iterator[Served]:
    """``dotstack serve``."""
    port = free_port()
    with _run(["dotstack", "serve", "--port", str(port), "--folder", str(folder)]) as own:
        wait_for(port, lambda: own.poll() is None)
        yield Served(own.pid, port)


@contextmanager
def by_gunicorn(folder: Path, url: str, processes: int) -> Iterator[Served]:
    """gunicorn, with a database that a server keeps."""
    folder.mkdir(parents=True, exist_ok=True)
    keep_phrase(folder, _PHRASE)
    port = free_port()
    command = [
        "gunicorn", "--workers", str(processes), "--threads", "32", "--log-level", "critical",
        "--no-control-socket", "--bind", f"127.0.0.1:{port}",
        f"dotstack.wsgi:application('--workers 1 --folder {folder}')",
    ]  # fmt: skip
    with _run(command, DOTSTACK_DATABASE_URL=url) as own:
        wait_for(port, lambda: own.poll() is None)
        yield Served(own.pid, port, _let_in(port))


@contextmanager
def _run(command: list[str], **environment: str) -> Iterator["subprocess.Popen[bytes]"]:
    program = Path(sys.executable).with_name(command[0])
    process = subprocess.Popen(
        [program, *command[1:]], env={**os.environ, **environment}, stdout=subprocess.DEVNULL
    )
    try:
        yield process
    finally:
        process.send_signal(signal.SIGTERM)
        process.wait()


def _let_in(port: int) -> str:
    connection = http.client.HTTPConnection("127.0.0.1", port, timeout=60)
    form = {"Content-Type": "application/x-www-form-urlencoded"}
    connection.request("POST", "/access", urlencode({"phrase": _PHRASE}), form)
    cookie = connection.getresponse().headers["Set-Cookie"]
    connection.close()
    return cookie.partition(";")[0]


def wait_for(port: int, is_alive: Callable[[], bool]) -> None:
    """Waits until a server answers; raises RuntimeError if it never does."""
    until = time.monotonic() + _FOR_A_START_S
    while True:
        connection = http.client.HTTPConnection("127.0.0.1", port, timeout=60)
        try:
            connection.request("GET", "/")
            connection.getresponse()
            return
        except OSError:
            if not is_alive() or time.monotonic() > until:
                raise RuntimeError("The server did not start.") from None
            time.sleep(0.05)
        finally:
            connection.close()


def _descendants(pid: int) -> list[int]:
    found = []
    for task in Path(f"/proc/{pid}/task").glob("*/children"):
        for child in map(int, task.read_text().split()):
            found += [child, *_descendants(child)]
    return found


def _memory(pid: int) -> int:
    try:
        lines = Path(f"/proc/{pid}/smaps_rollup").read_text().splitlines()
    except OSError:
        return 0
    return sum(int(line.split()[1]) * 1024 for line in lines if line.startswith("Pss:"))
