#!/usr/bin/env python3
"""Makes the two shipped families from Debian's fonts-inter and fonts-jetbrains-mono (both SIL OFL 1.1).

Lane Sans: the sans with its tabular figures made the default glyphs in the character map, and renamed, because its
licence reserves the original name and JavaFX cannot switch font features on. Layout features are dropped and Latin,
Greek and the symbols that the program prints are kept, so the files stay small.
Run: apt-get install fonts-inter fonts-jetbrains-mono python3-fonttools; python3 tools/make-fonts.py
"""
import pathlib
from fontTools.ttLib import TTFont
from fontTools import subset

OUT = pathlib.Path(__file__).resolve().parent.parent / "picture/src/main/resources/lane/picture/fonts"
KEEP = [*range(0x20, 0x7F), *range(0xA0, 0x180), *range(0x370, 0x400), *range(0x2010, 0x2040), *range(0x2070, 0x209D),
        *range(0x2190, 0x2200), *range(0x2200, 0x2300), 0x2044, 0x2300, 0x25CB, 0x25CF, 0x25C6, 0x25B2, 0x2713]

def tabular(font):
    """Maps each single substitution of the feature tnum into the character map."""
    gsub, swap = font["GSUB"].table, {}
    for record in gsub.FeatureList.FeatureRecord:
        if record.FeatureTag == "tnum":
            for index in record.Feature.LookupListIndex:
                for sub in gsub.LookupList.Lookup[index].SubTable:
                    sub = getattr(sub, "ExtSubTable", sub)
                    swap.update(getattr(sub, "mapping", {}))
    for table in font["cmap"].tables:
        if table.isUnicode():
            for code, glyph in list(table.cmap.items()):
                if code < 0x2300 and glyph in swap and chr(code) in "0123456789+-−±.,":
                    if chr(code) in "0123456789+-−±":
                        table.cmap[code] = swap[glyph]

def rename(font, family, style, weight):
    for record in list(font["name"].names):
        if record.nameID in (1, 2, 3, 4, 6, 16, 17, 18, 21, 22, 25):
            font["name"].removeNames(nameID=record.nameID)
    plain = style == "Regular"
    face = family if plain else f"{family} {style}"
    for name_id, text in ((1, face), (2, "Regular"), (3, f"{face} 1.0"), (4, face), (6, face.replace(" ", ""))):
        font["name"].setName(text, name_id, 3, 1, 0x409)
    font["OS/2"].usWeightClass = weight
    if "CFF " in font:
        cff = font["CFF "].cff
        cff.fontNames = [face.replace(" ", "")]
        top = cff.topDictIndex[0]
        top.FamilyName, top.FullName, top.Weight = face, face, style

def make(source, family, style, weight, target, tab):
    font = TTFont(source)
    if tab:
        tabular(font)
    options = subset.Options()
    options.layout_features = ["kern", "mark", "mkmk"] if tab else []
    options.name_IDs = ["*"]
    options.hinting = not tab
    chooser = subset.Subsetter(options)
    chooser.populate(unicodes=KEEP)
    chooser.subset(font)
    rename(font, family, style, weight)
    OUT.mkdir(parents=True, exist_ok=True)
    font.save(OUT / target)
    print(target, (OUT / target).stat().st_size)

inter, mono = "/usr/share/fonts/opentype/inter/Inter-", "/usr/share/fonts/truetype/jetbrains-mono/JetBrainsMono-"
make(inter + "Regular.otf", "Lane Sans", "Regular", 400, "LaneSans-Regular.otf", True)
make(inter + "Medium.otf", "Lane Sans", "Medium", 500, "LaneSans-Medium.otf", True)
make(inter + "SemiBold.otf", "Lane Sans", "SemiBold", 600, "LaneSans-SemiBold.otf", True)
make(mono + "Regular.ttf", "Lane Mono", "Regular", 400, "LaneMono-Regular.ttf", False)


# PDF pages embed outlines as TrueType has them: the same glyphs with quadratic curves.
def quadratic(source, target):
    from fontTools.pens.cu2quPen import Cu2QuPen
    from fontTools.pens.ttGlyphPen import TTGlyphPen
    from fontTools.ttLib import newTable
    font = TTFont(OUT / source)
    glyphs, order = font.getGlyphSet(), font.getGlyphOrder()
    made = {}
    for name in order:
        pen = TTGlyphPen(glyphs)
        glyphs[name].draw(Cu2QuPen(pen, 0.6, reverse_direction=True))
        made[name] = pen.glyph()
    glyf = newTable("glyf")
    glyf.glyphOrder, glyf.glyphs = order, made
    font["loca"], font["glyf"] = newTable("loca"), glyf
    glyf.compile(font)
    metrics = font["hmtx"]
    for name in order:
        glyph = glyf[name]
        glyph.recalcBounds(glyf)
        metrics.metrics[name] = (metrics.metrics[name][0], getattr(glyph, "xMin", 0))
    maxp = newTable("maxp")
    maxp.tableVersion = 0x00010000
    maxp.maxZones, maxp.maxTwilightPoints, maxp.maxStorage, maxp.maxFunctionDefs = 1, 0, 0, 0
    maxp.maxInstructionDefs, maxp.maxStackElements, maxp.maxSizeOfInstructions = 0, 0, 0
    maxp.maxComponentElements = max((len(g.components) if hasattr(g, "components") else 0) for g in glyf.glyphs.values())
    maxp.numGlyphs = len(order)
    font["maxp"] = maxp
    maxp.compile(font)
    post = font["post"]
    post.formatType, post.extraNames, post.mapping, post.glyphOrder = 2.0, [], {}, order
    del font["CFF "]
    if "VORG" in font:
        del font["VORG"]
    font.sfntVersion = "\000\001\000\000"
    PAPER.mkdir(parents=True, exist_ok=True)
    font.save(PAPER / target)
    print(target, (PAPER / target).stat().st_size)


PAPER = pathlib.Path(__file__).resolve().parent.parent / "formats/src/main/resources/lane/formats/ledger/fonts"
for style in ("Regular", "SemiBold"):
    quadratic(f"LaneSans-{style}.otf", f"LaneSans-{style}.ttf")
