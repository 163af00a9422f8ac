"""A canvas for PDF with what its library leaves out: groups, and masks of gradients.

After ISO 32000-1, sections 11.4.7 (transparency groups) and 11.5.2 (soft masks).
"""

from collections.abc import Callable, Sequence
from itertools import count

from reportlab.lib.colors import Color, HexColor
from reportlab.pdfbase.pdfdoc import (
    PDFDictionary,
    PDFName,
    PDFObjectReference,
    PDFResourceDictionary,
    PDFStream,
    PDFZCompress,
    xObjectName,
)
from reportlab.pdfgen.canvas import Canvas

from dotstack.core.formats.picture import Box, Shading


class LayeredCanvas(Canvas):  # type: ignore[misc]
    """Pages on which things can be painted by themselves, and then be laid on the rest as one."""

    def __init__(self, *args: object, **kwargs: object) -> None:
        super().__init__(*args, **kwargs)
        self._numbers = count(1)

    def layer(self, box: Box, draw: Callable[[], None]) -> str:
        """The name of an isolated group of what ``draw`` paints within a box."""
        name = f"layer{next(self._numbers)}"
        self.beginForm(name, *box)
        draw()
        resources = PDFResourceDictionary()
        resources.basicFonts()
        resources.allProcs()
        resources.setShading(self._shadingUsed)
        if self._formsinuse:
            resources.XObject = self._doc.xobjDict(self._formsinuse)
        if states := self._extgstate.getState():
            resources.ExtGState = states
        content = PDFStream()
        content.filters = [PDFZCompress]
        content.content = "\n".join(self._code)
        content.dictionary["Group"] = PDFDictionary(
            {"S": PDFName("Transparency"), "CS": PDFName("DeviceRGB"), "I": "true"}
        )
        self.endForm(Contents=content, Resources=resources)
        return name

    def mask(self, name: str) -> None:
        """Lets through what is painted from now on as far as a grey layer is light."""
        mask = PDFDictionary(
            {
                "S": PDFName("Luminosity"),
                "G": PDFObjectReference(xObjectName(name)),
            }
        )
        state = f"mask{name}"
        self._extgstate._c["SMask", mask] = state
        self._code.append(f"/{state} gs")

    def gradient(self, shading: Shading) -> None:
        """Paints a gradient over all that is not clipped off; it may not be conic."""
        self.saveState()
        self._run(shading, [HexColor(stop.colour) for stop in shading.gradient.all_the_way])
        self.restoreState()

    def gradient_mask(self, shading: Shading, box: Box) -> None:
        """Lets through what is painted from now on as the gradient's stops are dense."""

        def draw() -> None:
            densities = [stop.opacity for stop in shading.gradient.all_the_way]
            self._run(shading, [Color(each, each, each) for each in densities])

        self.mask(self.layer(box, draw))

    def _run(self, shading: Shading, colours: Sequence[Color]) -> None:
        there, places = shading.affine, [stop.at for stop in shading.gradient.all_the_way]
        self.transform(there.a, there.b, there.c, there.d, there.e, there.f)
        if shading.gradient.shape == "linear":
            self.linearGradient(0, 0, 1, 0, colours, places, extend=True)
        else:
            self.radialGradient(0, 0, 1, colours, places, extend=True)
