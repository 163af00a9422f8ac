"""What numbers of shapes follow: expressions of measures, and the measures that these need."""

from typing import Annotated

from pydantic import AfterValidator, Field

from dotstack.core.expressions import LONGEST, NAME, expression
from dotstack.core.values import Value

MeasureName = Annotated[str, Field(pattern=rf"^{NAME}$")]
Path = Annotated[str, Field(pattern=r"^[a-z_]+(\.([a-z_]+|\d{1,4}))*$", max_length=120)]
Expressed = Annotated[str, Field(min_length=1, max_length=LONGEST, pattern=r"\S")]


def _read(text: str) -> str:
    expression(text)
    return text


# What a document says can be read; of what is typed a command says what and where it cannot.
Readable = Annotated[Expressed, AfterValidator(_read)]


class Definition(Value):
    """A measure's name, and what it is, as it was typed: a number, or made of other measures."""

    name: MeasureName
    text: Expressed


class Formula(Value):
    """The expression that a number of a shape follows, by the path of fields that leads to it.

    Attributes:
        needs: the measures that it is made of, those they are made of first, while its shape is
            on the way to another drawing.

    """

    path: Path
    text: Readable
    needs: Annotated[tuple[Definition, ...], Field(max_length=200)] = ()
