"""Arithmetic as it is typed into fields, with names that stand for numbers; nothing else runs."""

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import lru_cache
from math import isfinite

from dotstack.core.errors import CommandError

# CSS 2.1, section 4.3.2: the pixel is 1/96 inch; a plate's unit is the pixel.
UNITS = {"px": 1.0, "mm": 96 / 25.4, "cm": 96 / 2.54, "in": 96.0, "pt": 96 / 72}
NAME = r"[^\W\d_]\w{0,39}"
LONGEST = 200
LARGEST = 1e9
# So many parentheses may lie inside each other: each takes some calls to read.
_DEEPEST = 30
_TOKEN = re.compile(rf"\d+\.?\d*(?:e[+-]?\d+)?|\.\d+(?:e[+-]?\d+)?|{NAME}|\S", re.IGNORECASE)
_SIGNS = str.maketrans({",": ".", "×": "*", "÷": "/", "−": "-"})

_Values = Mapping[str, float]
_Term = Callable[[_Values], float]


@dataclass(frozen=True)
class Expression:
    """What was typed, read.

    Attributes:
        text: as it was typed.
        names: those that it asks for.

    """

    text: str
    names: frozenset[str]
    _term: _Term

    def value(self, values: _Values) -> float:
        """What it comes to where names have these values; raises CommandError."""
        try:
            found = self._term(values)
        except ZeroDivisionError:
            raise CommandError(f"“{self.text}” divides by zero.") from None
        except OverflowError:
            found = float("inf")
        except KeyError as error:
            raise CommandError(f"There is no measure called {error.args[0]}.") from None
        if not isfinite(found) or abs(found) > LARGEST:
            raise CommandError(f"“{self.text}” comes to more than {LARGEST:g}.")
        return found


@lru_cache(2000)
def expression(text: str) -> Expression:
    """Reads numbers with . or , as the decimal sign, names, + − * / and parentheses.

    After a number or parenthesis may stand px, mm, cm, in, pt, ° or %. Raises CommandError,
    which says what cannot be read, and where.
    """
    if len(text) > LONGEST:
        raise CommandError(f"An expression has {LONGEST} characters at most.")
    return _Reader(text).whole()


def renamed(text: str, old: str, new: str) -> str:
    """The expression with another name in the place of one."""
    return re.sub(rf"(?<!\w){re.escape(old)}(?!\w)", new, text)


class _Reader:
    """Reads one expression from left to right."""

    def __init__(self, text: str) -> None:
        self._text = text
        self._found = list(_TOKEN.finditer(text.translate(_SIGNS)))
        self._at = 0
        self._names: set[str] = set()
        self._deep = 0

    def whole(self) -> Expression:
        term = self._sum()
        if self._next:
            raise self._fault()
        return Expression(self._text.strip(), frozenset(self._names), term)

    @property
    def _next(self) -> str:
        return self._found[self._at].group() if self._at < len(self._found) else ""

    def _take(self) -> str:
        token = self._next
        self._at += 1
        return token

    def _fault(self) -> CommandError:
        if not self._next:
            return CommandError(f"“{self._text.strip()}” ends where a number or name is wanted.")
        place = self._found[self._at].start() + 1
        return CommandError(f"“{self._next}”, at {place}, makes no sense there.")

    def _sum(self) -> _Term:
        term = self._product()
        while self._next in ("+", "-"):
            term = _joined(self._take(), term, self._product())
        return term

    def _product(self) -> _Term:
        term = self._signed()
        while self._next in ("*", "/"):
            term = _joined(self._take(), term, self._signed())
        return term

    def _signed(self) -> _Term:
        if self._next in ("+", "-"):
            sign = -1.0 if self._take() == "-" else 1.0
            term = self._signed()
            return lambda values: sign * term(values)
        return self._measured()

    def _measured(self) -> _Term:
        token = self._next
        term: _Term
        if token == "(":
            self._take()
            self._deep += 1
            if self._deep > _DEEPEST:
                raise CommandError("So many parentheses cannot lie inside each other.")
            term = self._sum()
            if self._next != ")":
                raise self._fault()
            self._take()
            self._deep -= 1
        elif re.match(r"[\d.]", token) and token != ".":
            number = float(self._take())
            term = lambda _: number  # noqa: E731
        elif re.fullmatch(NAME, token) and token.lower() not in UNITS:
            self._names.add(self._take())
            return lambda values: values[token]
        else:
            raise self._fault()
        return self._in_unit(term)

    def _in_unit(self, term: _Term) -> _Term:
        unit = self._next.lower()
        share = {**UNITS, "%": 0.01, "°": 1.0}.get(unit)
        if share is None:
            return term
        self._take()
        return lambda values: share * term(values)


def _joined(sign: str, one: _Term, other: _Term) -> _Term:
    if sign == "+":
        return lambda values: one(values) + other(values)
    if sign == "-":
        return lambda values: one(values) - other(values)
    if sign == "*":
        return lambda values: one(values) * other(values)
    return lambda values: one(values) / other(values)
