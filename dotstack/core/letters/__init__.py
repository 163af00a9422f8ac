"""What shapes do words come to?

``read_font`` takes a file's bytes; ``set_words`` puts letters in lines, ``standing`` on a course,
and ``outline_of`` makes them one outline. Lengths are in the font's units until then.
"""

from dotstack.core.letters.courses import Along, Course, Round, Straight, usual_start
from dotstack.core.letters.files import read_font
from dotstack.core.letters.font import Axis, Font, Instance, Style
from dotstack.core.letters.setting import Alignment, Measure, Setting, set_words, unit_size
from dotstack.core.letters.words import StandingLetter, gap_between, outline_of, sample, standing

__all__ = [
    "Alignment",
    "Along",
    "Axis",
    "Course",
    "Font",
    "Instance",
    "Measure",
    "Round",
    "Setting",
    "StandingLetter",
    "Straight",
    "Style",
    "gap_between",
    "outline_of",
    "read_font",
    "sample",
    "set_words",
    "standing",
    "unit_size",
    "usual_start",
]
