"""Files that are written whole or not at all."""

from pathlib import Path


def write_whole(path: Path, data: bytes) -> None:
    """Writes a file beside its place, and moves it there; raises OSError, and leaves nothing."""
    part = path.with_name(f".{path.name}.part")
    try:
        part.write_bytes(data)
        part.replace(path)
    finally:
        part.unlink(missing_ok=True)
