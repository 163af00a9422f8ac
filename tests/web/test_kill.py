"""A server that is killed loses nothing that it has acknowledged."""

import os
import random
import signal
import time
from contextlib import closing
from pathlib import Path
from threading import Event

import pytest

from bench.people import Person, begin_drawing
from bench.served import by_itself
from dotstack.store import Database, DrawingStore
from dotstack.web.app import utc_now


@pytest.mark.parametrize("seed", [1, 2, 3])
def test_a_kill_in_the_middle_of_a_stream_of_steps_loses_nothing_that_was_saved(
    tmp_path: Path, seed: int
) -> None:
    done = Event()
    with by_itself(tmp_path) as served:
        person = Person(served, begin_drawing(served), seed, done, alone=False, tries=0)
        person.start()
        while person.steps < 20 and not person.failure:
            time.sleep(0.01)
        time.sleep(random.Random(seed).uniform(0, 0.2))
        os.kill(served.pid, signal.SIGKILL)
        done.set()
        person.join()
    assert not person.failure
    with closing(Database(f"sqlite:///{tmp_path}/dotstack.db")) as database:
        drawing = DrawingStore(database, utc_now).open(person.drawing).drawing
    kept = [node.id for node in drawing.plates[0].nodes]
    assert [disc for disc in kept if disc in person.taken] == person.taken
    # One step more may be on disk, whose answer did not get out.
    assert len(kept) <= len(person.taken) + 1
