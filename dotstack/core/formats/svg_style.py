"""Styles in SVG: attributes, rules and declarations, as far as they can be told from a mark.

After CSS 2.1, chapters 4 and 6, and SVG 1.1 (second edition), chapter 6: a presentation
attribute counts less than any rule, a rule less than the element's own declarations.
"""

import re
from collections.abc import Callable
from dataclasses import dataclass
from xml.etree.ElementTree import Element

from PIL import ImageColor

from dotstack.core.formats.svg_shapes import numbers_in

# What a selector may be here: a name, a class, an id, or a name with one of these.
_SELECTOR = re.compile(r"^(\*|[a-zA-Z][\w-]*)?(?:([.#])(-?[_a-zA-Z][\w-]*))?$")
_RULE = re.compile(r"([^{}]+)\{([^{}]*)\}")
_COMMENT = re.compile(r"/\*.*?\*/|<!--|-->", re.DOTALL)
_AT_RULE = re.compile(r"@([\w-]+)[^{};]*(?:;|\{(?:[^{}]*\{[^{}]*\})*[^{}]*\})")
_URL = re.compile(r"""^url\(\s*['"]?([^'")]*)['"]?\s*\)""")
INHERITED = (
    "fill", "fill-rule", "fill-opacity", "stroke", "stroke-width", "stroke-opacity",
    "stroke-dasharray", "stroke-linecap", "stroke-linejoin", "clip-rule", "color", "visibility",
)  # fmt: skip
OWN = ("opacity", "display", "clip-path", "mask", "filter", "mix-blend-mode", "stop-color",
       "stop-opacity", "transform")  # fmt: skip


@dataclass(frozen=True, slots=True)
class Rule:
    """A rule of a style sheet for one simple selector."""

    name: str
    sign: str
    word: str
    declarations: dict[str, str]

    @property
    def weight(self) -> int:
        """How much it counts among other rules."""
        return {"#": 100, ".": 10, "": 0}[self.sign] + (self.name not in ("", "*"))

    def fits(self, element: Element, local: str) -> bool:
        """Whether it is for this element."""
        if self.name not in ("", "*", local):
            return False
        if self.sign == ".":
            return self.word in element.get("class", "").split()
        return not self.sign or element.get("id") == self.word


def read_rules(text: str, tell: Callable[[str], None]) -> list[Rule]:
    """The rules of a style sheet, the weakest first; ``tell`` is told what is left out."""
    text = _COMMENT.sub(" ", text)
    for name in _AT_RULE.findall(text):
        tell(f"@{name} in a style sheet")
    rules = []
    for selectors, body in _RULE.findall(_AT_RULE.sub(" ", text)):
        for selector in selectors.split(","):
            match = _SELECTOR.match(selector.strip())
            if match and selector.strip():
                name, sign, word = (part or "" for part in match.groups())
                rules.append(Rule(name, sign, word, declarations(body)))
            elif selector.strip():
                tell(f"the selector {selector.strip()[:60]!r}")
    return sorted(rules, key=lambda rule: rule.weight)


def declarations(text: str) -> dict[str, str]:
    """The declarations in a rule or a ``style`` attribute."""
    found = {}
    for item in text.split(";"):
        key, _, value = item.partition(":")
        if value.strip():
            found[key.strip().lower()] = value.replace("!important", "").strip()
    return found


def style_of(
    element: Element, local: str, inherited: dict[str, str], rules: list[Rule]
) -> dict[str, str]:
    """All properties of an element: what it inherits, and what it says itself."""
    own = {key: element.attrib[key].strip() for key in (*INHERITED, *OWN) if key in element.attrib}
    own.pop("transform", None)
    for rule in rules:
        if rule.fits(element, local):
            own |= rule.declarations
    own |= declarations(element.get("style", ""))
    kept = {key: value for key, value in own.items() if value != "inherit"}
    return {**{key: inherited[key] for key in INHERITED if key in inherited}, **kept}


def reference(value: str) -> str | None:
    """The id that a value points to inside the file; None if it points nowhere there."""
    match = _URL.match(value)
    address = match[1].strip() if match else value.strip()
    return address[1:] if address.startswith("#") else None


def is_reference(value: str) -> bool:
    """Whether a value points to something."""
    return bool(_URL.match(value))


def fraction(text: str, name: str, key: str) -> float:
    """A number or a percentage as a part of 1, kept within 0 and 1; raises FormatError."""
    numbers = numbers_in(text.strip().rstrip("%"), name, key)
    value = numbers[0] if len(numbers) == 1 else 1.0
    return min(max(value / 100 if text.strip().endswith("%") else value, 0.0), 1.0)


def colour(value: str) -> tuple[str, float] | None:
    """A colour as six hex digits, and its opacity; None if it is no colour."""
    try:
        parts = ImageColor.getrgb(value.strip().lower())
    except ValueError:
        return None
    red, green, blue = parts[:3]
    return f"#{red:02X}{green:02X}{blue:02X}", parts[3] / 255 if len(parts) > 3 else 1.0
