"""The crew: which worker answers what, and what becomes of those that are ended."""

import signal
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, field
from multiprocessing.connection import Connection
from multiprocessing.process import BaseProcess
from threading import Condition, Thread
from time import monotonic, sleep

from dotstack import ancestor
from dotstack.store.errors import BusyError
from dotstack.web.errors import SIMPLER, StoppedError
from dotstack.workers.worker import Answer, Request, Setup, work

# In seconds: for how long a request waits for the worker that knows its drawing, and for any.
_FOR_THE_SAME, _FOR_ANY = 2.0, 60.0
# How often it is asked whether somebody still waits, and from when on it pays to end a worker.
_LOOK, _WORTH_ENDING = 0.1, 1.0
# A worker that has had more than this, in bytes, gives it back by ending.
_MUCH = 2**29
# How often a worker is begun that cannot be begun.
_TRIES = 5


@dataclass(eq=False, slots=True)
class _Worker:
    """A process at work.

    Attributes:
        line: to it and back.
        knows: the drawing, or page, of which it remembers what it has computed.
        last: when it was taken or let go last.

    """

    process: BaseProcess
    line: Connection
    knows: str | None = None
    busy: bool = False
    last: float = field(default_factory=monotonic)


@dataclass(slots=True)
class Crew:
    """Up to ``size`` workers, each begun when it is needed, and ended when it is not for long.

    Attributes:
        rest: for how many seconds a worker keeps what it remembers without being asked.

    """

    setup: Setup
    size: int
    rest: float = 300.0
    _workers: list[_Worker] = field(default_factory=list)
    _change: Condition = field(default_factory=Condition)
    _is_over: bool = False

    def begin(self) -> None:
        """Begins the first worker, so that the first request need not wait for it."""
        ancestor.begin()
        with self._change:
            self._workers.append(self._begun())
        Thread(target=self._give_back, daemon=True).start()

    def end(self) -> None:
        """Ends all workers."""
        with self._change:
            workers, self._workers, self._is_over = self._workers, [], True
            self._change.notify_all()
        for worker in workers:
            _end(worker)

    def ask(
        self, about: str, request: Request, is_gone: Callable[[], bool] = lambda: False
    ) -> Answer:
        """What a worker answers, if possible the one that knows what the request is about.

        ``is_gone`` says whether nobody waits for the answer any more; then the worker is ended.
        Raises StoppedError if it was, for that or any other reason; BusyError if no worker was to
        be had.
        """
        worker = self._taken(about)
        try:
            answer = _answered(worker, request, is_gone)
        except (EOFError, OSError) as error:
            self._let_go(worker)
            raise StoppedError(self._why(worker)) from error
        except BaseException:
            self._let_go(worker)
            raise
        if answer.memory > _MUCH:
            self._let_go(worker)
        else:
            with self._change:
                worker.busy, worker.last = False, monotonic()
                self._change.notify_all()
        return answer

    def _taken(self, about: str) -> _Worker:
        """A worker for the caller alone."""
        begun = monotonic()
        with self._change:
            while True:
                waited = monotonic() - begun
                worker = self._free(about, patient=waited < _FOR_THE_SAME)
                if worker is not None:
                    worker.busy, worker.knows, worker.last = True, about, monotonic()
                    return worker
                if waited > _FOR_ANY:
                    raise BusyError
                self._change.wait(_LOOK)

    def _free(self, about: str, *, patient: bool) -> _Worker | None:
        """The best of the workers that are free, or a new one; None if it is to be waited for."""
        for worker in [each for each in self._workers if not each.busy]:
            if worker.process.exitcode is not None:
                # Something has ended it while it had nothing to do.
                self._workers.remove(worker)
        same = [worker for worker in self._workers if worker.knows == about]
        free = [worker for worker in self._workers if not worker.busy]
        for worker in same:
            if not worker.busy:
                return worker
        if same and patient:
            return None
        unused = next((worker for worker in free if worker.knows is None), None)
        if unused is not None:
            return unused
        if len(self._workers) < self.size:
            self._workers.append(self._begun())
            return self._workers[-1]
        return min(free, key=lambda worker: worker.last, default=None)

    def _give_back(self) -> None:
        """Ends workers that nobody has asked for long: the system has their memory back then."""
        with self._change:
            while not self._is_over:
                self._change.wait(self.rest / 4)
                since = monotonic() - self.rest
                for worker in [each for each in self._workers if not each.busy and each.knows]:
                    if worker.last < since:
                        self._workers.remove(worker)
                        _end(worker)
                        if not self._workers:
                            # The next request need not wait for one, if that can be.
                            with suppress(BusyError):
                                self._workers.append(self._begun())

    def _begun(self) -> _Worker:
        for _ in range(_TRIES):
            ours, its = ancestor.context.Pipe()
            process = ancestor.context.Process(target=work, args=(its, self.setup), daemon=True)
            try:
                process.start()
            except (EOFError, OSError):
                # What workers are copies of was ended; it is begun anew when the next is wanted.
                ours.close()
                sleep(_LOOK)
            else:
                return _Worker(process, ours)
            finally:
                # Else nobody would hear that the worker has closed its end.
                its.close()
        raise BusyError

    def _let_go(self, worker: _Worker) -> None:
        with self._change:
            if worker in self._workers:
                self._workers.remove(worker)
            self._change.notify_all()
        _end(worker)

    def _why(self, worker: _Worker) -> str:
        """Why a worker has ended."""
        if worker.process.exitcode == -signal.SIGPROF:
            return (
                f"This takes more than {self.setup.seconds:g} seconds of computing, and was "
                f"stopped. {SIMPLER}"
            )
        return f"This was stopped, for it takes more than this machine has to give. {SIMPLER}"


def _answered(worker: _Worker, request: Request, is_gone: Callable[[], bool]) -> Answer:
    worker.line.send(request)
    begun = monotonic()
    while not worker.line.poll(_LOOK):
        if monotonic() - begun > _WORTH_ENDING and is_gone():
            raise StoppedError("Nobody waits for this any more.")
    answer = worker.line.recv()
    assert isinstance(answer, Answer)
    return answer


def _end(worker: _Worker) -> None:
    with suppress(OSError):
        worker.line.close()
    if worker.process.exitcode is None:
        worker.process.kill()
    worker.process.join()
