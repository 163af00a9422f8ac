"""How every command says that a file cannot be read or written."""

import sys
from pathlib import Path

REFUSED = 1


def refused(path: Path | str, error: Exception) -> int:
    """Says what is wrong with a file; answers the exit code."""
    reason = error.strerror if isinstance(error, OSError) and error.strerror else str(error)
    print(f"{path}: {reason}", file=sys.stderr)
    return REFUSED
