"""The access phrase of a studio: kept as its hash, known again, and not to be guessed."""

import json
import secrets
from collections import deque
from collections.abc import Callable
from dataclasses import asdict, dataclass
from pathlib import Path
from time import monotonic

from werkzeug.security import check_password_hash, generate_password_hash

from dotstack.whole_file import write_whole

_FILE, _FOR_ITS_OWNER = "access.json", 0o600
_SHORTEST = 12
# So many wrong phrases are taken in so many seconds, from whomever they come: behind a proxy all
# come from one.
_TRIES, _WITHIN_S = 10, 60.0


class TooManyAttemptsError(Exception):
    """So many wrong phrases of late that none is looked at for a while."""

    def __init__(self) -> None:
        super().__init__("There were too many wrong phrases. Try again in a minute.")


@dataclass(frozen=True, slots=True)
class Access:
    """How a phrase is known again, and what cookies are signed with."""

    hashed: str
    secret: str


def keep_phrase(folder: Path, phrase: str) -> None:
    """Makes a phrase the one that lets in; whoever came in by another must say it again.

    Only its hash is kept (scrypt). Raises ValueError if it is too short.
    """
    if len(phrase.strip()) < _SHORTEST:
        raise ValueError(f"An access phrase needs {_SHORTEST} characters or more.")
    folder.mkdir(parents=True, exist_ok=True)
    kept = Access(generate_password_hash(phrase.strip()), secrets.token_hex(32))
    write_whole(folder / _FILE, json.dumps(asdict(kept)).encode(), _FOR_ITS_OWNER)


def kept_access(folder: Path) -> Access | None:
    """What ``keep_phrase`` has kept; None if there is nothing."""
    path = folder / _FILE
    return Access(**json.loads(path.read_bytes())) if path.is_file() else None


class Gate:
    """Knows the phrase again, and takes only so many wrong ones."""

    def __init__(self, access: Access, clock: Callable[[], float] = monotonic) -> None:
        self.secret = access.secret
        self._hashed = access.hashed
        self._clock = clock
        self._wrong: deque[float] = deque()

    def knows(self, phrase: str) -> bool:
        """Whether this is the phrase; raises TooManyAttemptsError.

        It takes as long whatever is said, and as a person would not notice.
        """
        while self._wrong and self._wrong[0] < self._clock() - _WITHIN_S:
            self._wrong.popleft()
        if len(self._wrong) >= _TRIES:
            raise TooManyAttemptsError
        if check_password_hash(self._hashed, phrase.strip()):
            return True
        self._wrong.append(self._clock())
        return False
