"""Where do drawings and the shelf live? In a database, journalled step by step."""

from dotstack.store.database import Database
from dotstack.store.drawings import DrawingStore, Opened, Summary
from dotstack.store.errors import GoneError, StaleRevisionError, StoreError
from dotstack.store.shelf import Asset, Collection, Section, ShelfStore

__all__ = [
    "Asset",
    "Collection",
    "Database",
    "DrawingStore",
    "GoneError",
    "Opened",
    "Section",
    "ShelfStore",
    "StaleRevisionError",
    "StoreError",
    "Summary",
]
