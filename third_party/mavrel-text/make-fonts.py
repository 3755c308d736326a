#!/usr/bin/env python3
"""Makes the three Mavrel Text fonts from Debian's fonts-b612 (needs python3-fonttools).

Two changes: the family is renamed, because Debian's mono face also calls itself B612 and would be picked in its
place where fonts-b612 is installed; and the full stop, comma and colon take less room, so that 3.9 reads as one number.
"""
import pathlib
from fontTools.ttLib import TTFont

here = pathlib.Path(__file__).parent
source = pathlib.Path("/usr/share/fonts/opentype/b612")
for style in ("Regular", "Bold", "Italic"):
    font = TTFont(source / f"B612-{style}.otf")
    for record in font["name"].names:
        if record.nameID in (1, 3, 4, 6, 16):
            text = str(record).replace("B612", "Mavrel Text")
            record.string = text.replace(" ", "") if record.nameID == 6 else text
    metrics, characters = font["hmtx"], font.getBestCmap()
    for sign in ".,:":
        glyph = characters[ord(sign)]
        advance, bearing = metrics[glyph]
        metrics[glyph] = (int(advance * 0.72), bearing)
    font.save(here / f"MavrelText-{style}.otf")
