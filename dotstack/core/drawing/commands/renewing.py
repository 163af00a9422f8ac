"""The command that puts another shape in the place of one."""

from typing import Literal

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import Node
from dotstack.core.drawing.places import exchanged
from dotstack.core.drawing.sound import check_fresh
from dotstack.core.values import Id


class Renew(Command):
    """Puts a shape, made anew from its asset, in the place of one; it has the same id."""

    kind: Literal["renew"] = "renew"
    id: Id
    node: Node

    @property
    def label(self) -> str:
        return f"Renew {self.node.name}"[:120]

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        fresh = self.node.model_copy(update={"id": self.id})
        check_fresh(exchanged(drawing, {self.id}, lambda _: ()), (fresh,))
        return exchanged(drawing, {self.id}, lambda _: (fresh,))
