"""A worker: the application in a process of its own, for one request at a time."""

import gc
import os
import resource
import signal
import sys
from dataclasses import dataclass, field
from functools import partial
from io import BytesIO
from multiprocessing.connection import Connection
from typing import TypeAlias

from werkzeug.test import run_wsgi_app

from dotstack.shared import HttpSharedShelf
from dotstack.store import Database
from dotstack.web import create_app
from dotstack.web.answers import UNLIMITED

# What a request may take: its environment in WSGI's words (PEP 3333), and its body.
Request: TypeAlias = tuple[dict[str, str], bytes]


# In seconds: after so long without a request nobody is likely to wait for the next thing.
_PAUSE = 2.0
# Of smaller collections, after so many a full one is made also where somebody waits.
_AT_LAST = 1000


def _half_of_all() -> int:
    """Half of the memory that this machine has, in bytes."""
    return os.sysconf("SC_PAGE_SIZE") * os.sysconf("SC_PHYS_PAGES") // 2


@dataclass(frozen=True, slots=True)
class Setup:
    """What a worker needs to know to begin.

    Attributes:
        url: of the database.
        shared_shelf: its address, if there is one, and the access phrase that it wants.
        seconds: of computing that one request may take.
        memory: that it may take in all, in bytes.

    """

    url: str
    shared_shelf: tuple[str, str | None] | None = None
    seconds: float = 60.0
    memory: int = field(default_factory=_half_of_all)


@dataclass(frozen=True, slots=True)
class Answer:
    """What a request came to, and the most memory that the worker has had so far, in bytes."""

    status: str
    headers: list[tuple[str, str]]
    body: bytes
    memory: int


def _limit_time(seconds: float) -> None:
    """Has the system end this process when it has computed for so long; 0 for never."""
    signal.setitimer(signal.ITIMER_PROF, seconds)


def work(line: Connection, setup: Setup) -> None:
    """Answers what comes along the line until it is closed.

    Time is counted by what this process computes, not by the clock: a machine that is busy with
    other things is not at fault. Whatever it is at, the system ends it when that is too much.
    """
    # Who ends the server may tell all of its processes: it lets this one finish, and ends it.
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    signal.signal(signal.SIGTERM, signal.SIG_IGN)
    signal.signal(signal.SIGPROF, signal.SIG_DFL)
    _, most = resource.getrlimit(resource.RLIMIT_DATA)
    resource.setrlimit(resource.RLIMIT_DATA, (setup.memory, most))
    shared = HttpSharedShelf(*setup.shared_shelf) if setup.shared_shelf else None
    # Whoever hands requests over has seen to where they come from.
    app = create_app(Database(setup.url), shared=shared, is_own=lambda _: True)
    # A full collection takes a tenth of a second and more, a hitch to who drags something. What is
    # here from the start is left out of it; and it is made when nobody waits, or at long last.
    gc.freeze()
    gc.set_threshold(*gc.get_threshold()[:2], _AT_LAST)
    while True:
        if not line.poll(_PAUSE):
            gc.collect()
        try:
            environ, body = line.recv()
        except EOFError:
            return
        _limit_time(setup.seconds)
        source = {
            **environ,
            "wsgi.version": (1, 0),
            "wsgi.input": BytesIO(body),
            "wsgi.errors": sys.stderr,
            "wsgi.multithread": False,
            "wsgi.multiprocess": True,
            "wsgi.run_once": False,
            UNLIMITED: partial(_limit_time, 0.0),
        }
        chunks, status, headers = run_wsgi_app(app, source, buffered=True)
        _limit_time(0.0)
        # In kilobytes, as Linux counts it.
        memory = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss * 1024
        line.send(Answer(status, list(headers), b"".join(chunks), memory))
