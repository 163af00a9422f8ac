"""Letters against HarfBuzz called by itself, a rasteriser that is not ours, and geometry."""

import random
from collections.abc import Mapping
from contextlib import suppress
from io import BytesIO
from itertools import pairwise

import numpy as np
import pytest
import uharfbuzz as hb
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image, ImageDraw, ImageFont

from bench import peers
from dotstack.core import primitives
from dotstack.core.combine import difference, exclusion, intersection, union
from dotstack.core.errors import CoreError, FormatError, GeometryError, LimitError
from dotstack.core.geometry import Affine, Outline
from dotstack.core.letters import (
    Alignment,
    Along,
    Course,
    Font,
    Round,
    Setting,
    StandingLetter,
    Straight,
    files,
    gap_between,
    outline_of,
    read_font,
    set_words,
    standing,
    unit_size,
)
from tests.core.letters.fonts import boxes_font, curved_font, font, packed
from tests.strategies import filled_area

PLAIN = Setting(0, 0, 1.2, "start", {}, {})
_words = st.text("AVTaoefiftLl10 ,.æß", min_size=1, max_size=14)
_fonts = st.sampled_from(["Inter Variable", "EB Garamond", "Arvo", "Quicksand", "Rubik"])


def stood(
    face: Font,
    words: str,
    course: Course | None = None,
    axes: Mapping[str, float] | None = None,
    unit: float = 1.0,
    setting: Setting = PLAIN,
) -> tuple[StandingLetter, ...]:
    instance = face.at(axes or {})
    placed = set_words(instance, words, setting)
    return standing(placed, instance.drawn, unit, course or Straight())


def outline(face: Font, words: str, **how: object) -> Outline:
    return outline_of(stood(face, words, **how), face.at(how.get("axes") or {}).drawn)  # type: ignore[arg-type, attr-defined]


@given(
    st.sampled_from(["EB Garamond", "Inter Variable", "Quicksand", "Rubik", "Arvo"]),
    _words,
    st.dictionaries(
        st.sampled_from(["kern", "liga", "smcp", "tnum", "dlig", "ss01"]), st.integers(0, 1)
    ),
    st.integers(100, 900),
)
def test_letters_stand_where_harfbuzz_puts_them(
    family: str, words: str, features: dict[str, int], weight: int
) -> None:
    face = font(family, "Medium" if family == "Rubik" else "Regular")
    axes = {"wght": weight} if face.axes else {}
    shaper = hb.Font(hb.Face(face.data))
    shaper.set_variations(axes)
    buffer = hb.Buffer()
    buffer.add_str(words)
    buffer.guess_segment_properties()
    hb.shape(shaper, buffer, features)
    expected, at = [], 0
    for info, where in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
        expected.append((info.codepoint, at + where.x_offset, -where.y_offset))
        at += where.x_advance
    placed = set_words(face.at(axes), words, Setting(0, 0, 1, "start", features, {}))
    assert [
        (glyph.id, each.x + glyph.x, glyph.y)
        for each in placed.letters
        for glyph in each.letter.glyphs
    ] == expected
    assert placed.edges == ((0, at),)
    covered = [(each.start, each.end) for each in placed.letters]
    assert covered[0][0] == 0
    assert covered[-1][1] == len(words)
    assert all(one[1] == two[0] for one, two in pairwise(covered))


@pytest.mark.parametrize(
    ("family", "style", "axes"),
    [
        ("Inter Variable", "Regular", {"wght": 900.0, "opsz": 32.0}),
        # It rounds between masters, so that it is asked at one.
        ("Inter Variable", "Thin Italic", {"wght": 100.0}),
        ("EB Garamond", "Bold Italic", {}),
        ("Saira Stencil One", "Regular", {}),
        ("Limelight", "Regular", {}),
    ],
)
@pytest.mark.parametrize("char", "SRgæ&@Q8")
def test_a_letter_is_what_another_rasteriser_draws(
    family: str, style: str, axes: dict[str, float], char: str
) -> None:
    face, size, edge = font(family, style), 400, 200
    drawer = ImageFont.truetype(BytesIO(face.data), size, layout_engine=ImageFont.Layout.BASIC)
    if axes:
        drawer.set_variation_by_axes(list(face.placed(axes).values()))
    image = Image.new("L", (900, 900))
    ImageDraw.Draw(image).text((edge, 600), char, 255, font=drawer, anchor="ls")
    inked = np.asarray(image)
    unit = unit_size(face.at(axes), size, "body")
    ours = outline(face, char, axes=axes, unit=unit).transformed(Affine.translation(edge, 600))
    # It rounds to a part of a pixel: off by a tenth of one along the outline at most.
    assert ours.area == pytest.approx(inked.sum() / 255, abs=0.1 * ours.length)
    rng = random.Random(char)
    for colour, inside in ((255, True), (0, False)):
        # Pixels with no edge near them.
        around = np.lib.stride_tricks.sliding_window_view(inked == colour, (5, 5)).all((2, 3))
        places = [place for place in np.argwhere(around) + 2 if 300 < place[0] < 700]
        for y, x in rng.sample(places, 40):
            assert ours.contains(x + 0.5, y + 0.5) is inside


def test_cubics_come_through_as_they_are_in_the_font() -> None:
    sides = [((0, 300), (200, 500), (400, 400)), ((600, 300), (300, -50), (0, 0))]
    made = outline(read_font(curved_font(sides)), "o")
    assert made.node_count == 2
    drawn = Outline.from_path_data("M0 0C0 -300 200 -500 400 -400C600 -300 300 50 0 0Z")
    assert exclusion([made, drawn]).is_empty
    handles = {*made.segments.p.tolist(), *made.segments.q.tolist()}
    assert handles == {-300j, 200 - 500j, 600 - 300j, 300 + 50j}


def test_contours_over_each_other_come_to_one_outline_with_no_node_to_spare() -> None:
    made = read_font(
        boxes_font({"+": ((0, 200, 600, 400), (200, 0, 400, 600)), "l": ((0, 0, 100, 700),)})
    )
    plus = outline(made, "+")
    assert len(plus.contours) == 1
    assert plus.node_count == 12
    assert plus.area == 200_000
    # Letters that touch are one, by their sides or their ends.
    tight = Setting(-500, 0, 1.2, "start", {}, {})
    assert outline(made, "ll", setting=tight).node_count == 4
    assert len(outline(made, "ll").contours) == 2


@given(st.text("ABKMRWafgkæß48&", min_size=1, max_size=4), st.integers(100, 900))
@settings(max_examples=20)
def test_a_variable_font_leaves_no_contours_over_each_other(words: str, weight: int) -> None:
    face = font("Inter Variable")
    found = outline(face, words, axes={"wght": weight})
    # Inside counts once: the even-odd rule sees the same area, and joining it changes nothing.
    assert found.area == pytest.approx(exclusion([found]).area, rel=1e-9)
    assert union([found]).node_count == found.node_count


@given(
    _words.filter(str.strip),
    st.floats(300, 4000),
    st.floats(-360, 360),
    st.booleans(),
    st.sampled_from(["start", "middle", "end"]),
)
def test_on_a_circle_each_base_stands_on_it_and_its_head_points_straight(
    words: str, radius: float, start: float, inside: bool, alignment: Alignment
) -> None:
    face = font("Quicksand")
    setting = Setting(20, 50, 1.2, alignment, {}, {1: 30.0})
    letters = stood(face, words, Round(radius, start, inside), unit=0.05, setting=setting)
    straight = stood(face, words, unit=0.05, setting=setting)
    way = -1 if inside else 1
    for bent, plain in zip(letters, straight, strict=True):
        base = complex(*bent.affine.apply_to(bent.place.letter.advance / 2, 0))
        assert abs(base) == pytest.approx(radius, rel=1e-12, abs=1e-9)
        head = complex(*bent.affine.apply_to(bent.place.letter.advance / 2, -1000)) - base
        assert head / base == pytest.approx(way * abs(head / base), abs=1e-9)
        # As far round as it stands along its line.
        along = 0.05 * plain.place.middle / radius
        turned = base / radius / np.exp(1j * np.radians(start))
        assert turned == pytest.approx(np.exp(1j * way * along), abs=1e-9)


_LINES = {
    "ellipse": primitives.ellipse(120, 70),
    "wave": Outline.from_path_data("M0 0C40 -80 80 80 120 0S200 80 240 0"),
    "box": primitives.rectangle(200, 100, 20),
    "cusp": Outline.from_path_data("M0 0C100 100 0 100 100 0"),
}


@given(
    st.sampled_from(sorted(_LINES)), st.floats(-50, 400), st.booleans(),
    st.text("Slacktide", min_size=1, max_size=12),
)  # fmt: skip
def test_along_a_line_each_base_stands_on_it_as_far_on_as_it_is_long(
    name: str, start: float, other_side: bool, words: str
) -> None:
    line = _LINES[name]
    letters = stood(font("Arvo"), words, Along(line, start, other_side=other_side), unit=0.008)
    whole = line.length
    for each in letters:
        base = each.affine.apply_to(each.place.letter.advance / 2, 0)
        far = start + (-1 if other_side else 1) * 0.008 * each.place.middle
        off, _ = line.nearest(*base)
        beyond = 0.0 if line.closed[0] else max(-far, far - whole, 0.0)
        assert off <= beyond + 1e-8
        assert abs(complex(each.affine.a, each.affine.b)) == pytest.approx(0.008, rel=1e-12)


@pytest.mark.parametrize(
    ("words", "seen"),
    [
        ("abc", "abc"),
        ("שלום", "םולש"),
        ("שלום abc", "abc םולש"),
        ("abc שלום 12 def", "abc 12 םולש def"),
        ("سلام", "مالس"),
    ],
)
def test_letters_are_seen_in_their_scripts_direction(words: str, seen: str) -> None:
    letters = stood(font("Rubik", "Medium"), words)
    shown = "".join(words[each.place.start : each.place.end][::-1] for each in letters)
    # A ligature stands for several letters; in it they are in the order of reading.
    assert shown.replace("لا"[::-1], "ال"[::-1]).replace(" ", "") in {
        seen.replace(" ", ""), seen.replace("ال", "لا").replace(" ", "")
    }  # fmt: skip
    assert [each.place.x for each in letters] == sorted(each.place.x for each in letters)


def test_marks_stand_over_their_letter_as_one() -> None:
    letters = stood(font("Inter Variable"), "e\u0301x\u0323\u0302")
    assert [(each.place.start, each.place.end) for each in letters] == [(0, 2), (2, 5)]
    assert len(letters[0].outline.contours) == 3


def test_spacing_moves_what_follows_by_just_that() -> None:
    face = font("Arvo")
    plain = [each.place.x for each in stood(face, "Tide ok")]
    units = face.at({}).units
    wide = Setting(100, 250, 1, "start", {}, {2: -40.0})
    moved = [each.place.x for each in stood(face, "Tide ok", setting=wide)]
    steps = [now - before for before, now in zip(plain, moved, strict=True)]
    expected = [0, 100, 160, 260, 360, 710, 810]
    assert steps == pytest.approx([units * step / 1000 for step in expected])


@given(st.text("LVAToec", min_size=2, max_size=2), st.floats(-400, 400))
def test_the_gap_between_letters_is_that_of_their_outlines(pair: str, by: float) -> None:
    face = font("Quicksand", "Bold")
    letters = stood(face, pair, setting=Setting(0, 0, 1, "start", {}, {1: by}))
    one, two = letters
    found = gap_between(one, two, face.at({}).drawn)
    joined = union([one.outline, two.outline])
    if found:
        apart = filled_area(one.outline) + filled_area(two.outline)
        assert joined.area == pytest.approx(apart, rel=1e-9)
        near = one.outline.nearest(*two.outline.nearest(0, 0)[1])[0]
        assert found <= near + 1e-3
    assert outline_of(letters, face.at({}).drawn).area == pytest.approx(joined.area, rel=1e-9)


@given(_fonts, st.text("Slacktide&B", min_size=1, max_size=5))
@settings(max_examples=20)
def test_letters_are_operands_like_any_other(family: str, words: str) -> None:
    face = font(family, "Medium" if family == "Rubik" else "Regular")
    unit = unit_size(face.at({}), 100, "body")
    word = outline(face, words, unit=unit)
    panel = primitives.rectangle(150, 60, 20).transformed(Affine.translation(60, -30))
    lettering, board = peers.flattened([word, panel])
    for ours, theirs in (
        (union([word, panel]), lettering | board),
        (difference(panel, [word]), board - lettering),
        (intersection([word, panel]), lettering & board),
        (exclusion([word, panel]), lettering ^ board),
    ):
        assert ours.area == pytest.approx(theirs.area, rel=1e-5, abs=1e-6)


GOOD = boxes_font({"l": ((0, 0, 100, 700),)})


def test_a_font_is_the_same_however_it_is_packed() -> None:
    plain = read_font(GOOD)
    assert (plain.family, plain.styles[0].name, plain.axes) == ("Quay Boxes", "Regular", ())
    for flavor in ("woff", "woff2"):
        again = read_font(packed(GOOD, flavor))
        assert outline(again, "ll") == outline(plain, "ll")
        assert again.family == plain.family


@pytest.mark.parametrize(
    ("bits", "travels"),
    [
        (0, True),
        (0x2, False),
        (0x4, False),
        (0x8, True),
        (0xC, True),
        (0x200, False),
        (0x104, False),
    ],
)
def test_embedding_bits_say_whether_a_font_may_travel(bits: int, travels: bool) -> None:
    assert read_font(boxes_font({"l": ((0, 0, 1, 1),)}, bits)).may_travel is travels


def without(table: bytes) -> bytes:
    """The good font with a table that has another name."""
    return GOOD.replace(table, b"zzzz", 1)


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "neither TTF"),
        (b"<svg/>", "neither TTF"),
        (b"ttcf" + GOOD, "several fonts"),
        (GOOD[:20], "cut off in its directory"),
        (GOOD[:-20], "cut off in its table"),
        (without(b"cmap"), "no table cmap"),
        (without(b"glyf"), "no outlines"),
        (b"wOFF" + GOOD[4:], "damaged"),
        (packed(GOOD, "woff2")[:-40], "damaged"),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)
def test_what_is_no_font_is_refused_by_name(data: bytes, says: str) -> None:
    with pytest.raises(FormatError, match=says):
        read_font(data)


def test_limits_are_told(monkeypatch: pytest.MonkeyPatch) -> None:
    with pytest.raises(LimitError, match="tables of a font"):
        read_font(GOOD[:4] + b"\xff\xff" + GOOD[6:])
    large = boxes_font({"l": ((0, 0, 100, 700),) * 2000})
    for flavor in ("woff", "woff2"):
        small = packed(large, flavor)
        monkeypatch.setattr(files, "MAX_BYTES", len(large) // 2)
        assert len(small) < files.MAX_BYTES
        with pytest.raises(LimitError, match="bytes of an unpacked font"):
            read_font(small)
    with pytest.raises(LimitError, match="bytes of a font"):
        read_font(large)
    with pytest.raises(GeometryError, match="too small"):
        stood(font("Arvo"), "a\nb\nc", Round(100, 0, inside=False), unit=1)


@given(st.integers(0, 10**6), st.sampled_from(["", "woff", "woff2"]))
@settings(max_examples=150)
def test_a_damaged_font_is_refused_or_draws(seed: int, flavor: str) -> None:
    whole = packed(GOOD, flavor) if flavor else GOOD
    rng = random.Random(seed)
    damaged = bytearray(whole)
    for _ in range(rng.randint(1, 8)):
        damaged[rng.randrange(len(damaged))] = rng.randrange(256)
    with suppress(CoreError):
        outline(read_font(bytes(damaged)), "ll\nl")
