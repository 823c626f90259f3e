package org.youngtally.labels;

import java.awt.geom.AffineTransform;
import java.awt.geom.GeneralPath;
import java.awt.geom.Path2D;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.OptionalInt;
import org.apache.fontbox.ttf.CmapLookup;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.youngtally.core.label.Layout;

/** The font of labels: how wide a text is, what it cannot write, and the outlines of its letters. */
final class Letters {
    /** How far a line of text is from the next, by the size of its letters. */
    static final double LEADING = 1.2;
    /** From the top of a line of text to the foot of its letters, by their size. */
    static final double ASCENT = 0.905;

    private static final String FILE = "/org/apache/pdfbox/resources/ttf/LiberationSans-Regular.ttf";
    private static final Letters FONT = new Letters();

    private final TrueTypeFont font;
    private final CmapLookup glyphs;
    private final double unit;

    private Letters() {
        try (InputStream file = file()) {
            font = new TTFParser().parse(new RandomAccessReadBuffer(file));
            glyphs = font.getUnicodeCmapLookup();
            unit = font.getUnitsPerEm();
        } catch (IOException e) {
            throw new UncheckedIOException("the font of labels cannot be read", e);
        }
    }

    static Letters font() {
        return FONT;
    }

    /** The font's file. */
    static InputStream file() {
        return PDDocument.class.getResourceAsStream(FILE);
    }

    /** The first symbol that the font cannot write. */
    OptionalInt missing(String text) {
        return text.codePoints()
                .filter(symbol -> glyphs.getGlyphId(symbol) == 0)
                .findFirst();
    }

    /**
     * How wide a text on one line is, in mm.
     *
     * @param size of the letters, in points
     */
    double width(String text, double size) {
        return text.codePoints().mapToDouble(this::advance).sum() / unit * size * Layout.POINT;
    }

    private double advance(int symbol) {
        try {
            return font.getAdvanceWidth(glyphs.getGlyphId(symbol));
        } catch (IOException e) {
            throw new UncheckedIOException("the font of labels cannot be read", e);
        }
    }

    /** The outlines of a text, in mm, its foot at the height 0 and its height going up to below 0. */
    Path2D outline(String text, double size) {
        var outline = new Path2D.Double();
        double scale = size * Layout.POINT / unit;
        double at = 0;
        for (int symbol : text.codePoints().toArray()) {
            var place = new AffineTransform(scale, 0, 0, -scale, at * scale, 0);
            outline.append(letter(symbol).getPathIterator(place), false);
            at += advance(symbol);
        }
        return outline;
    }

    private GeneralPath letter(int symbol) {
        try {
            return font.getGlyph().getGlyph(glyphs.getGlyphId(symbol)) == null
                    ? new GeneralPath()
                    : font.getGlyph().getGlyph(glyphs.getGlyphId(symbol)).getPath();
        } catch (IOException e) {
            throw new UncheckedIOException("the font of labels cannot be read", e);
        }
    }
}
