"""Affine maps of the plane."""

import math
from typing import NamedTuple, Self

from dotstack.core.errors import GeometryError
from dotstack.core.geometry.arrays import Points


class _Matrix(NamedTuple):
    a: float
    b: float
    c: float
    d: float
    e: float
    f: float


class Affine(_Matrix):
    """x' = a·x + c·y + e, y' = b·x + d·y + f: the six numbers of SVG's ``matrix()``.

    A tuple, for each step of a hand makes thousands. Raises GeometryError unless all are finite.
    """

    __slots__ = ()

    def __new__(
        cls,
        a: float = 1.0,
        b: float = 0.0,
        c: float = 0.0,
        d: float = 1.0,
        e: float = 0.0,
        f: float = 0.0,
    ) -> Self:
        made = tuple.__new__(cls, (a, b, c, d, e, f))
        # Of finite ones the sum is finite, or they are beyond all measure.
        if not (math.isfinite(a + b + c + d + e + f) or all(map(math.isfinite, made))):
            raise GeometryError(f"A placement needs finite numbers (got {made}).")
        return made

    @classmethod
    def translation(cls, x: float, y: float) -> Self:
        """The map that moves by (x, y)."""
        return cls(e=x, f=y)

    @classmethod
    def scaling(cls, x: float, y: float | None = None) -> Self:
        """The map that scales from the origin, by ``x`` both ways or by ``x`` and ``y``."""
        return cls(a=x, d=x if y is None else y)

    @classmethod
    def standing(cls, base: complex, way: complex) -> Self:
        """The map to axes at a point, with x along a unit vector."""
        return cls(way.real, way.imag, -way.imag, way.real, base.real, base.imag)

    @classmethod
    def rotation_deg(cls, angle: float) -> Self:
        """The map that turns by ``angle`` degrees from +x towards +y; exact at quarter turns."""
        quarter, rest = divmod(angle, 90.0)
        if rest == 0.0:
            cos, sin = ((1.0, 0.0), (0.0, 1.0), (-1.0, 0.0), (0.0, -1.0))[int(quarter) % 4]
        else:
            cos, sin = math.cos(math.radians(angle)), math.sin(math.radians(angle))
        return cls(cos, sin, -sin, cos)

    def __matmul__(self, other: "Affine") -> "Affine":
        """The map that does ``other`` first and then this one."""
        return Affine(
            self.a * other.a + self.c * other.b,
            self.b * other.a + self.d * other.b,
            self.a * other.c + self.c * other.d,
            self.b * other.c + self.d * other.d,
            self.a * other.e + self.c * other.f + self.e,
            self.b * other.e + self.d * other.f + self.f,
        )

    def about(self, x: float, y: float) -> "Affine":
        """The same map with (x, y) in the place of the origin."""
        return Affine.translation(x, y) @ self @ Affine.translation(-x, -y)

    @property
    def determinant(self) -> float:
        """The factor on signed areas: negative for a mirror, zero if the plane collapses."""
        return self.a * self.d - self.b * self.c

    @property
    def inverse(self) -> "Affine":
        """The map that undoes this one; raises GeometryError if the plane collapses."""
        det = self.determinant
        if det == 0.0:
            raise GeometryError(f"A placement that flattens the plane cannot be undone ({self}).")
        a, b, c, d = self.d / det, -self.b / det, -self.c / det, self.a / det
        return Affine(a, b, c, d, -(a * self.e + c * self.f), -(b * self.e + d * self.f))

    @property
    def is_translation(self) -> bool:
        """Whether it only moves."""
        return (self.a, self.b, self.c, self.d) == (1.0, 0.0, 0.0, 1.0)

    @property
    def angle_deg(self) -> float:
        """The angle that +x is turned to, in degrees, above −180 and up to 180."""
        return math.degrees(math.atan2(self.b, self.a))

    @property
    def complex_form(self) -> tuple[complex, complex, complex]:
        """(α, β, γ) with z' = α·z + β·conj(z) + γ for z = x + y·i."""
        alpha = complex(self.a + self.d, self.b - self.c) / 2
        beta = complex(self.a - self.d, self.b + self.c) / 2
        return alpha, beta, complex(self.e, self.f)

    def apply(self, points: Points) -> Points:
        """The images of points given as complex numbers."""
        x = self.a * points.real + self.c * points.imag + self.e
        y = self.b * points.real + self.d * points.imag + self.f
        image: Points = x + 1j * y
        return image

    def apply_to(self, x: float, y: float) -> tuple[float, float]:
        """The image of one point."""
        return self.a * x + self.c * y + self.e, self.b * x + self.d * y + self.f
