"""Styles in SVG: attributes, rules and declarations, as far as they can be told from a mark.

After CSS 2.1, chapters 4 and 6, and SVG 1.1 (second edition), chapter 6: a presentation
attribute counts less than any rule, a rule less than the element's own declarations, and what
is important more than all of these.
"""

from collections.abc import Callable, Iterator
from functools import lru_cache
from typing import TypeAlias
from xml.etree.ElementTree import Element

import cssselect2
import tinycss2
from tinycss2.ast import Declaration
from tinycss2.color4 import Color, parse_color

from dotstack.core.formats.svg_shapes import local, numbers_in

INHERITED = (
    "fill", "fill-rule", "fill-opacity", "stroke", "stroke-width", "stroke-opacity",
    "stroke-dasharray", "stroke-linecap", "stroke-linejoin",
    "stroke-miterlimit", "stroke-dashoffset", "clip-rule", "color", "visibility",
)  # fmt: skip
OWN = ("opacity", "display", "clip-path", "mask", "filter", "mix-blend-mode", "stop-color",
       "stop-opacity", "transform",
       "flood-color", "flood-opacity", "isolation")  # fmt: skip

# Values that a file says over and over again.
_REMEMBERED = 1024
# Properties by their names, and whether each is important.
_Said: TypeAlias = dict[str, tuple[str, bool]]


class Styles:
    """The style sheets of a file; ``tell`` is told what of them is left out."""

    def __init__(self, root: Element, tell: Callable[[str], None]) -> None:
        self._matcher = cssselect2.Matcher()
        self._wrapped: dict[Element, cssselect2.ElementWrapper] = {}
        sheets = [element.text or "" for element in root.iter() if local(element) == "style"]
        for sheet in sheets:
            self._read(sheet, tell)
        # What no rule is about need not be looked up.
        if sheets:
            whole = cssselect2.ElementWrapper.from_xml_root(root)
            self._wrapped = {each.etree_element: each for each in whole.iter_subtree()}

    def of(self, element: Element, inherited: dict[str, str]) -> dict[str, str]:
        """All properties of an element: what it inherits, and what it says itself."""
        named = (key for key in (*INHERITED, *OWN) if key in element.attrib and key != "transform")
        own = {key: element.attrib[key].strip() for key in named}
        wrapped = self._wrapped.get(element)
        rules = () if wrapped is None else self._matcher.match(wrapped)
        found = [said for *_, said in rules]
        if "style" in element.attrib:
            found.append(_declared(element.attrib["style"]))
        for importance in (False, True):
            for said in found:
                own |= {key: value for key, (value, is_so) in said.items() if is_so is importance}
        kept = {key: value for key, value in own.items() if value != "inherit"}
        return {**{key: inherited[key] for key in INHERITED if key in inherited}, **kept}

    def _read(self, text: str, tell: Callable[[str], None]) -> None:
        rules = tinycss2.parse_stylesheet(text, skip_comments=True, skip_whitespace=True)
        for rule in rules:
            if rule.type == "at-rule":
                tell(f"@{rule.at_keyword} in a style sheet")
            elif rule.type == "qualified-rule":
                said = _declared(rule.content)
                # One by one: a selector that is not known takes the others not with it.
                for selector in _parted(rule.prelude):
                    try:
                        for compiled in cssselect2.compile_selector_list(selector):
                            self._matcher.add_selector(compiled, said)
                    except cssselect2.SelectorError:
                        tell(f"the selector {selector.strip()[:60]!r}")


def _parted(prelude: list[tinycss2.ast.Node]) -> Iterator[str]:
    """The selectors of a rule."""
    selector: list[tinycss2.ast.Node] = []
    for token in [*prelude, None]:
        if token is None or token == ",":
            text = tinycss2.serialize(selector)
            if text.strip():
                yield text
            selector = []
        else:
            selector.append(token)


def _declared(source: str | list[tinycss2.ast.Node]) -> _Said:
    """The declarations in a rule or a ``style`` attribute."""
    found: _Said = {}
    for item in tinycss2.parse_blocks_contents(source, skip_comments=True, skip_whitespace=True):
        if isinstance(item, Declaration) and (value := tinycss2.serialize(item.value).strip()):
            found[item.lower_name] = value, item.important
    return found


def reference(value: str) -> str | None:
    """The id that a value points to inside the file; None if it points nowhere there."""
    address = _url(value)
    address = value.strip() if address is None else address.strip()
    return address[1:] if address.startswith("#") else None


def is_reference(value: str) -> bool:
    """Whether a value points to something."""
    return _url(value) is not None


@lru_cache(_REMEMBERED)
def _url(value: str) -> str | None:
    """The address that a value begins with, if it begins with one."""
    tokens = tinycss2.parse_component_value_list(value.strip(), skip_comments=True)
    if not tokens:
        return None
    first = tokens[0]
    if first.type == "function" and first.lower_name == "url" and first.arguments:
        first = first.arguments[0]
    return str(first.value) if first.type in ("url", "string") else None


def fraction(text: str, name: str, key: str) -> float:
    """A number or a percentage as a part of 1, kept within 0 and 1; raises FormatError."""
    numbers = numbers_in(text.strip().rstrip("%"), name, key)
    value = numbers[0] if len(numbers) == 1 else 1.0
    return min(max(value / 100 if text.strip().endswith("%") else value, 0.0), 1.0)


@lru_cache(_REMEMBERED)
def colour(value: str) -> tuple[str, float] | None:
    """A colour as six hex digits, and its opacity; None if it is no colour.

    After CSS Color Module Level 4; what lies outside sRGB becomes the nearest in each channel.
    """
    read = parse_color(value)
    if not isinstance(read, Color):
        return None
    try:
        channels = [min(max(each or 0.0, 0.0), 1.0) for each in read.to("srgb").coordinates]
    except NotImplementedError:
        return None
    digits = "".join(f"{round(each * 255):02X}" for each in channels)
    return f"#{digits}", min(max(read.alpha, 0.0), 1.0)
