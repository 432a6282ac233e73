"""Gives a font file another family name: rename_font.py IN OUT FAMILY STYLE.

The shipped faces carry a name of their own, so that no other installed face can answer in their place: the family "B612"
is also claimed by its monospaced sister."""
import sys

from fontTools.ttLib import TTFont

source, target, family, style = sys.argv[1:]
font = TTFont(source)
names = {1: family, 2: style, 3: f"{family} {style}", 4: f"{family} {style}", 6: f"{family.replace(' ', '')}-{style}"}
for record in list(font["name"].names):
    if record.nameID in (16, 17, 21, 22):
        font["name"].removeNames(nameID=record.nameID)
    elif record.nameID in names:
        record.string = names[record.nameID]
if "CFF " in font:
    font["CFF "].cff.fontNames = [names[6]]
    font["CFF "].cff[0].FamilyName = family
    font["CFF "].cff[0].FullName = names[4]
font["head"].modified = font["head"].created
font.recalcTimestamp = False
font.save(target)
