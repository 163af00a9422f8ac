"""Files as they should not be: real ones, cut, repeated and mangled, from a seed."""

import random
import re

from bench.damage_samples import SAMPLES

_NUMBERS = ("NaN", "1e999", "-1e308", "1e-320", "", "0", "٣", "--5", "9" * 400, "1e6", "Infinity")
_WORDS = (
    "url(#a)", "url(#", "#", "inherit", "none", "rgb(1,2",
    "url(http://quay.example/x)", "}{", "&lt;",
    "matrix(1 2 3)", "rotate(1e9 0 0)", "scale(0)", "skewX(90)", "100%", "evenodd", "M", "zzz", "A",
)  # fmt: skip
_TAGS = ("svg", "g", "use", "symbol", "clipPath", "path", "text", "style", "image", "a", "switch")


def damaged_svg(seed: int) -> str:
    """An SVG file with a few faults."""
    rng = random.Random(seed)
    text = rng.choice(SAMPLES)
    for _ in range(rng.randint(1, 3)):
        text = rng.choice((_number, _value, _tag, _cut, _repeat, _sign, _nest))(rng, text)
    return text


def _spot(rng: random.Random, pattern: str, text: str) -> re.Match[str] | None:
    found = list(re.finditer(pattern, text))
    return rng.choice(found) if found else None


def _put(text: str, match: re.Match[str] | None, fresh: str) -> str:
    return text if match is None else text[: match.start()] + fresh + text[match.end() :]


def _number(rng: random.Random, text: str) -> str:
    return _put(text, _spot(rng, r"-?\d+\.?\d*", text), rng.choice(_NUMBERS))


def _value(rng: random.Random, text: str) -> str:
    return _put(text, _spot(rng, r'(?<==")[^"]*', text), rng.choice(_WORDS))


def _tag(rng: random.Random, text: str) -> str:
    found = _spot(rng, r"<(\w+)", text)
    return _put(text, found, "<" + rng.choice(_TAGS))


def _cut(rng: random.Random, text: str) -> str:
    start = rng.randrange(len(text) + 1)
    return text[:start] + text[start + rng.randint(1, 30) :]


def _repeat(rng: random.Random, text: str) -> str:
    start = rng.randrange(len(text) + 1)
    part = text[start : start + rng.randint(1, 60)]
    return text[:start] + part * rng.randint(1, 20) + text[start:]


def _sign(rng: random.Random, text: str) -> str:
    place = rng.randrange(len(text) + 1)
    return text[:place] + chr(rng.choice((0, 9, 38, 60, 62, 34, 0xE9, 0x1F600))) + text[place:]


def _nest(rng: random.Random, text: str) -> str:
    found = _spot(rng, r"<(path|circle|rect|g|use)[^<>]*/>", text)
    deep = rng.choice((3, 30, 70))
    return _put(text, found, "<g>" * deep + (found[0] if found else "") + "</g>" * deep)
