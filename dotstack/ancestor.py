"""The process that workers are copies of, as Python's *forkserver* keeps it."""

from multiprocessing import forkserver, get_context

# What every worker needs is read once, there.
_READ = ["dotstack.workers.worker"]

context = get_context("forkserver")


def begin() -> None:
    """Begins that process, unless there is one; what it reads takes as long as a server's start.

    So whoever will serve begins it first, and reads the same meanwhile.
    """
    context.set_forkserver_preload(_READ)
    forkserver.ensure_running()
