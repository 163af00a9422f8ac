"""A studio on PostgreSQL, under gunicorn: whatever is killed, what was acknowledged is there."""

import os
import random
import signal
import time
from collections import Counter
from collections.abc import Callable
from contextlib import closing, suppress
from pathlib import Path
from threading import Event

import pytest
from sqlalchemy import select

from bench.people import Person, begin_drawing
from bench.served import by_gunicorn
from dotstack.store import Database, DrawingStore
from dotstack.store.models import StepRow
from dotstack.web.app import utc_now
from dotstack.wsgi import application

_PEOPLE, _KILLS = 20, 4


@pytest.mark.parametrize("drawings", [1, _PEOPLE])
def test_of_twenty_people_none_loses_a_step_when_processes_are_killed(
    tmp_path: Path, new_postgresql: Callable[[], str], drawings: int
) -> None:
    url, done, chance = new_postgresql(), Event(), random.Random(drawings)
    with by_gunicorn(tmp_path, url, 3) as served:
        begun = [begin_drawing(served) for _ in range(drawings)]
        people = [
            Person(served, begun[i % drawings], i, done, alone=drawings > 1, rest=0.2)
            for i in range(_PEOPLE)
        ]
        for person in people:
            person.start()
        for _ in range(_KILLS):
            before = sum(person.steps for person in people)
            with suppress(ProcessLookupError):
                os.kill(chance.choice(served.children()), signal.SIGKILL)
            # The others go on, and what was killed is begun anew.
            while sum(person.steps for person in people) < before + _PEOPLE:
                assert not [person.failure for person in people if person.failure]
                time.sleep(0.05)
        done.set()
        for person in people:
            person.join()
    assert not [person.failure for person in people if person.failure]
    assert max(told.status for person in people for told in person.told) < 500
    with closing(Database(url)) as database:
        store = DrawingStore(database, utc_now)
        for drawing in begun:
            here = [disc for each in people if each.drawing == drawing for disc in each.taken]
            kept = Counter(node.id for node in store.open(drawing).drawing.plates[0].nodes)
            # One of each; a step that nobody was told of can be there too.
            assert set(kept.values()) <= {1}
            assert kept.keys() >= set(here)
            with database.reading() as session:
                keys = session.scalars(select(StepRow.key).filter_by(drawing_id=drawing)).all()
            assert set(here) <= set(keys)


def test_without_a_phrase_nobody_is_let_in(tmp_path: Path) -> None:
    with pytest.raises(Exception, match="Set an access phrase first"):
        application(f"--folder {tmp_path}")
    with pytest.raises(ValueError, match="knows no --port 80"):
        application(f"--folder {tmp_path} --port 80")
