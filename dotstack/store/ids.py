"""Ids of rows, and of the nodes that are made of what was stored."""

from uuid import uuid4


def new_id() -> str:
    """An id that nothing else has; it is safe in a document and in an address."""
    return uuid4().hex[:12]
