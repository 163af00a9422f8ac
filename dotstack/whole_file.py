"""Files that are written whole or not at all."""

from pathlib import Path


def write_whole(path: Path, data: bytes, mode: int = 0o666) -> None:
    """Writes a file beside its place, and moves it there; raises OSError, and leaves nothing.

    ``mode`` says who may read and write it, from the first byte on.
    """
    part = path.with_name(f".{path.name}.part")
    try:
        part.unlink(missing_ok=True)
        part.touch(mode)
        part.write_bytes(data)
        part.replace(path)
    finally:
        part.unlink(missing_ok=True)
