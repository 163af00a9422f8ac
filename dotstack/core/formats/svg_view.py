"""Views in SVG: how the box of an ``svg`` or ``symbol`` is fitted to where it is shown."""

from xml.etree.ElementTree import Element

from dotstack.core.formats.svg_shapes import box_in, length, measured
from dotstack.core.geometry import Affine


def view_box(element: Element, name: str) -> tuple[float, float, float, float] | None:
    """The element's view box; None if it has none, or one without extent."""
    text = element.get("viewBox")
    box = box_in(text, name) if text else None
    return box if box and box[2] > 0 and box[3] > 0 else None


def viewport(root: Element) -> Affine:
    """From the file's axes to pixels."""
    box = view_box(root, "svg")
    if box is None:
        return Affine()
    width, height = (_side(root.get(key), key, "svg") for key in ("width", "height"))
    if width is None:
        width = box[2] if height is None else box[2] * height / box[3]
    if height is None:
        height = box[3] * width / box[2]
    return _fitted(box, (width, height), root.get("preserveAspectRatio", ""))


def inner(view: Element, shown: Element, name: str) -> Affine:
    """From inside an ``svg`` or ``symbol`` to where ``shown``, itself or a ``use``, stands."""
    move = Affine()
    if view is shown:
        move = Affine.translation(length(shown, "x", name), length(shown, "y", name))
    box = view_box(view, name)
    if box is None:
        return move
    sides = [_side(shown.get(key, view.get(key)), key, name) for key in ("width", "height")]
    width, height = (box[2 + i] if side is None else side for i, side in enumerate(sides))
    return move @ _fitted(box, (width, height), view.get("preserveAspectRatio", ""))


def _side(text: str | None, key: str, name: str) -> float | None:
    if text is None or text == "auto" or text.endswith("%"):
        return None
    return measured(text, name, key)


def _fitted(
    box: tuple[float, float, float, float], sides: tuple[float, float], aspect: str
) -> Affine:
    """From a view box to where it is shown (SVG 1.1, section 7.8)."""
    x, y, width, height = box
    across, down = sides[0] / width, sides[1] / height
    if aspect.split()[:1] == ["none"]:
        return Affine.scaling(across, down) @ Affine.translation(-x, -y)
    scale = max(across, down) if aspect.endswith("slice") else min(across, down)
    free = sides[0] - width * scale, sides[1] - height * scale
    shares = {"Min": 0.0, "Mid": 0.5, "Max": 1.0}
    share = shares.get(aspect[1:4], 0.5), shares.get(aspect[5:8], 0.5)
    move = Affine.translation(free[0] * share[0], free[1] * share[1])
    return move @ Affine.scaling(scale) @ Affine.translation(-x, -y)
