"""What shapes bring along when they leave for other places.

Texts bring their outlines and fonts, twins their source, what follows measures these.
"""

from collections.abc import Iterable, Sequence

from dotstack.core.drawing.document import Drawing, Measure
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import Node, TextNode
from dotstack.core.drawing.kinds.text import KeptLetters
from dotstack.core.drawing.links import carrying, tied
from dotstack.core.drawing.measures import with_needs
from dotstack.core.drawing.paths import PRECISION
from dotstack.core.drawing.places import with_each
from dotstack.core.drawing.tree import walk, with_each_told
from dotstack.core.letters import Font


def with_letters_kept(node: Node, evaluator: Evaluator) -> Node:
    """The node with the outline of each text in it, for where its font is missing."""

    def kept(node: Node) -> Node:
        if not isinstance(node, TextNode) or evaluator.font(node.font.digest) is None:
            return node
        outline = evaluator.base_outline(node)
        letters = None
        if not outline.is_empty:
            letters = KeptLetters(data=outline.to_path_data(PRECISION), size=node.size)
        return node.model_copy(update={"kept": letters})

    return with_each_told(node, kept)


def drawing_with_letters_kept(drawing: Drawing, evaluator: Evaluator) -> Drawing:
    """The same of a whole drawing."""
    return tied(with_each(drawing, lambda node: with_letters_kept(node, evaluator)))


def going_out(
    nodes: Iterable[Node], evaluator: Evaluator, measures: Sequence[Measure] = ()
) -> list[Node]:
    """Nodes as they leave for elsewhere, with all that they bring along.

    ``measures`` are those of the drawing that they leave.
    """
    return [with_needs(with_letters_kept(node, evaluator), measures) for node in carrying(nodes)]


def fonts_of(nodes: Iterable[Node]) -> dict[str, TextNode]:
    """The digests of the fonts of all texts among nodes and in them, each with one of these."""
    return {
        inner.font.digest: inner
        for node in nodes
        for inner in walk(node)
        if isinstance(inner, TextNode)
    }


def travelling(nodes: Iterable[Node], evaluator: Evaluator) -> list[Font]:
    """The fonts of texts that are here, and may be carried where others change them."""
    found = map(evaluator.font, fonts_of(nodes))
    return [font for font in found if font is not None and font.may_travel]
