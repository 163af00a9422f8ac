"""Shadows as filters of SVG (Filter Effects Module Level 1), in the colours of a screen."""

from dotstack.core.formats.picture import Layer, extent
from dotstack.core.geometry.numerals import format_number
from dotstack.core.paint import Shadow

_DECIMALS = 4


def write_filter(name: str, layer: Layer, *, one_colour: bool = False) -> str:
    """The filter that lays a layer's shadows beneath it and into it, the first one topmost."""
    x0, y0, x1, y1 = extent(layer, tips=True)
    region = zip(("x", "y", "width", "height"), (x0, y0, x1 - x0, y1 - y0), strict=True)
    where = " ".join(f'{side}="{_number(value)}"' for side, value in region)
    numbered = list(enumerate(layer.shadows, start=1))
    steps = "".join(_steps(shadow, number, one_colour) for number, shadow in numbered)
    beneath = [number for number, shadow in reversed(numbered) if not shadow.inside]
    above = [number for number, shadow in reversed(numbered) if shadow.inside]
    merged = "".join(
        f'<feMergeNode in="{source}"/>'
        for source in (
            *(f"cast-{number}" for number in beneath),
            "SourceGraphic",
            *(f"cast-{number}" for number in above),
        )
    )
    return (
        f'<filter id="{name}" filterUnits="userSpaceOnUse" {where} '
        f'color-interpolation-filters="sRGB">{steps}<feMerge>{merged}</feMerge></filter>'
    )


def _steps(shadow: Shadow, number: int, one_colour: bool) -> str:
    """What makes the picture *cast-number* of a shadow."""
    source, steps = "SourceAlpha", ""
    if shadow.inside:
        # What falls in is the shadow of all that lies around.
        source = f"around-{number}"
        steps += (
            f'<feComponentTransfer in="SourceAlpha" result="{source}">'
            '<feFuncA type="table" tableValues="1 0"/></feComponentTransfer>'
        )
    if shadow.blur:
        deviation = _number(shadow.blur / 2)
        steps += f'<feGaussianBlur in="{source}" stdDeviation="{deviation}"/>'
    moved = "" if shadow.blur else f' in="{source}"'
    colour = "currentColor" if one_colour else shadow.colour
    cast = f'result="cast-{number}"'
    within = f'<feComposite in2="SourceAlpha" operator="in" {cast}/>' if shadow.inside else ""
    return (
        f'{steps}<feOffset{moved} dx="{_number(shadow.dx)}" dy="{_number(shadow.dy)}" '
        f'result="there-{number}"/>'
        f'<feFlood flood-color="{colour}" flood-opacity="{_number(shadow.opacity)}"/>'
        f'<feComposite in2="there-{number}" operator="in"{"" if within else f" {cast}"}/>{within}'
    )


def _number(value: float) -> str:
    return format_number(value, _DECIMALS)
