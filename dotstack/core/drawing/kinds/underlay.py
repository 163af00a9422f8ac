"""The picture to build over."""

from collections.abc import Callable, Mapping
from typing import Literal, Self

from dotstack.core.drawing.kinds.node import PrimitiveNode, revised
from dotstack.core.drawing.kinds.rectangle import rectangle
from dotstack.core.drawing.kinds.refinements import Refinements
from dotstack.core.geometry import Outline
from dotstack.core.paint import Look
from dotstack.core.values import Digest, Length


class UnderlayNode(PrimitiveNode):
    """A faded picture to build over, of which nothing is ever made.

    ``picture`` is the digest of its file, which is kept beside the document.
    """

    kind: Literal["image"] = "image"
    picture: Digest
    width: Length
    height: Length
    look: Look = Look(fill=None, opacity=0.4)
    locked: bool = True

    @property
    def is_active(self) -> bool:
        return False

    def drawn(self) -> Outline:
        return rectangle(self.width, self.height, 0.0)

    def scaled(self, across: float, down: float) -> Self:
        return self.sized(self.width * across, self.height * down)

    def sized(self, width: float, height: float) -> Self:
        return revised(self, {"width": width, "height": height})

    def refined(self, change: Callable[[Refinements], Refinements]) -> Self:
        return self

    def painted(self, changes: Mapping[str, object]) -> Self:
        # A picture has no paint, but it can be faded.
        return super().painted({name: changes[name] for name in {"opacity"} & changes.keys()})
