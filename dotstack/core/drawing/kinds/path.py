"""Any outline."""

from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from dotstack.core.drawing.kinds.node import LeafNode, remembered
from dotstack.core.errors import CoreError
from dotstack.core.geometry import FillRule, Outline
from dotstack.core.values import MAX_SIZE

MAX_PATH = 20_000_000

path_outline = remembered(Outline.from_path_data)


def _path_data(data: str) -> str:
    try:
        x0, y0, x1, y1 = path_outline(data, "nonzero").bounds
    except CoreError as error:
        raise ValueError(str(error)) from error
    if max(abs(x0), abs(y0), abs(x1), abs(y1)) > MAX_SIZE:
        raise ValueError("a path reaches at most a million units far")
    if x0 == x1 and y0 == y1:
        raise ValueError("a path needs two different points")
    return data


PathData = Annotated[str, Field(max_length=MAX_PATH), AfterValidator(_path_data)]


class PathNode(LeafNode):
    """Any outline, as SVG path data in its own axes."""

    kind: Literal["path"] = "path"
    data: PathData
    fill_rule: FillRule = "nonzero"

    def drawn(self) -> Outline:
        return path_outline(self.data, self.fill_rule)
