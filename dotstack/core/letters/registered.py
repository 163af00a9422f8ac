"""OpenType features by the names that they are registered under.

The OpenType specification 1.9, *Registered features*; those that a person may want to choose.
What spells a script at all, places its marks or is of vertical lines is never turned off.
"""

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

_NAMES = {
    "kern": "Kerning",
    "liga": "Standard ligatures",
    "clig": "Contextual ligatures",
    "calt": "Contextual alternates",
    "dlig": "Discretionary ligatures",
    "hlig": "Historical ligatures",
    "hist": "Historical forms",
    "smcp": "Small capitals",
    "c2sc": "Small capitals from capitals",
    "pcap": "Petite capitals",
    "c2pc": "Petite capitals from capitals",
    "unic": "Unicase",
    "titl": "Titling",
    "case": "Case-sensitive forms",
    "cpsp": "Capital spacing",
    "swsh": "Swash",
    "cswh": "Contextual swash",
    "salt": "Stylistic alternates",
    "ornm": "Ornaments",
    "rand": "Randomize",
    "lnum": "Lining figures",
    "onum": "Oldstyle figures",
    "pnum": "Proportional figures",
    "tnum": "Tabular figures",
    "zero": "Slashed zero",
    "frac": "Fractions",
    "afrc": "Alternative fractions",
    "ordn": "Ordinals",
    "sups": "Superscript",
    "subs": "Subscript",
    "sinf": "Scientific inferiors",
    "numr": "Numerators",
    "dnom": "Denominators",
    "mgrk": "Mathematical Greek",
}
# Those that words are set with unless they are turned off.
_USUAL = {"kern", "liga", "clig", "calt"}
_NUMBERED = (
    (re.compile(r"ss(\d\d)$"), "Stylistic set {}"),
    (re.compile(r"cv(\d\d)$"), "Character variant {}"),
)


@dataclass(frozen=True, slots=True)
class Feature:
    """A feature by its tag and name, and whether words are usually set with it."""

    tag: str
    name: str
    usual: bool


def feature_names(tags: Iterable[str]) -> Iterator[Feature]:
    """The features among these that a person may choose, in the order of the list above."""
    given = set(tags)
    for tag, name in _NAMES.items():
        if tag in given:
            yield Feature(tag, name, tag in _USUAL)
    for tag in sorted(given):
        for pattern, name in _NUMBERED:
            if found := pattern.match(tag):
                yield Feature(tag, name.format(int(found[1])), usual=False)
