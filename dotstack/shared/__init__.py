"""How does a studio share collections? Published under a version, fetched by others.

``SharedShelf`` is the one narrow interface; ``HttpSharedShelf`` speaks to the small service
that ships with Dot Stack, in whose place any other can be put.
"""

from dotstack.shared.client import (
    HttpSharedShelf,
    NoSharedShelfError,
    Published,
    SharedShelf,
    SharedShelfError,
)

__all__ = ["HttpSharedShelf", "NoSharedShelfError", "Published", "SharedShelf", "SharedShelfError"]
