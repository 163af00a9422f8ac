"""Into which regions do outlines divide the plane, and which shapes cover each?

Glossary. An *operand* is an outline that takes part, known by its place in the stack. A
*contact* is a point at which segments meet. A *vertex* is where edges end; an *edge* is a
piece of a segment between vertices, with no contact inside; a *half-edge* is an edge run
one way. A *face* is what half-edges go round, and a bounded face is called a *region*.
Its *winding* is how often each operand goes round it, and its *cover* the operands that
it lies inside, by their fill rules. A *component* is a part of the drawing that touches
no other. The *repair ladder* is what is tried when an arrangement fails its ``check``.
"""

from dotstack.core.arrangement.arrangement import Arrangement, Region
from dotstack.core.arrangement.meetings import meetings, own_meetings
from dotstack.core.arrangement.pole import inscribed_circle

__all__ = ["Arrangement", "Region", "inscribed_circle", "meetings", "own_meetings"]
