"""How large what is written may be."""

# In pixels, along the longer side.
LARGEST_PNG = 8192
LARGEST_ICON = 256
# As many as the private use area of a font's characters has from its first place on.
FIRST_GLYPH = 0xE000
MOST_GLYPHS = 0xF8FF - FIRST_GLYPH + 1
