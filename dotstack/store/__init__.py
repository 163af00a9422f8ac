"""Where do drawings and the shelf live? In a database, journalled step by step."""

from dotstack.store.database import Database
from dotstack.store.drawings import DrawingStore, History, Opened, State, Summary
from dotstack.store.errors import GoneError, StaleRevisionError, StoreError
from dotstack.store.evaluators import Evaluators
from dotstack.store.fonts import FontStore
from dotstack.store.ids import new_id
from dotstack.store.pictures import PictureStore
from dotstack.store.shelf import Asset, Collection, Section, Shelf, ShelfStore

__all__ = [
    "Asset",
    "Collection",
    "Database",
    "DrawingStore",
    "Evaluators",
    "FontStore",
    "GoneError",
    "History",
    "Opened",
    "PictureStore",
    "Section",
    "Shelf",
    "ShelfStore",
    "StaleRevisionError",
    "State",
    "StoreError",
    "Summary",
    "new_id",
]
