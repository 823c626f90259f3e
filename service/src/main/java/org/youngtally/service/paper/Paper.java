package org.youngtally.service.paper;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Calendar;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TimeZone;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDType0Font;

/**
 * Pages of A4 that are written from the top to the bottom, in PDF. Lengths are in points of a 72nd of an inch, from the
 * lower left.
 */
public final class Paper {
    public static final float LEFT = 56;
    public static final float RIGHT = PDRectangle.A4.getWidth() - 56;
    /** The size of the letters of plain text. */
    public static final float SIZE = 9.5f;

    private static final float TOP = PDRectangle.A4.getHeight() - 64;
    private static final float BOTTOM = 84;
    private static final float LEADING = 14;
    /** What stays free between two columns. */
    private static final float GUTTER = 6;

    private final PDDocument document;
    private final PDType0Font font;
    private final List<PDPageContentStream> pages = new ArrayList<>();
    private PDPageContentStream page;
    private float y;
    private boolean strange;

    private Paper(PDDocument document, PDType0Font font) {
        this.document = document;
        this.font = font;
    }

    /** What is written on the pages. */
    public interface Writing {
        void on(Paper paper) throws IOException;
    }

    /**
     * @param made when the file says that it was made
     * @param foot what stands at the foot of each page
     * @return the file's bytes
     */
    public static byte[] of(String title, Instant made, String foot, Writing writing) throws IOException {
        try (var document = new PDDocument();
                InputStream letters = PDDocument.class.getResourceAsStream(
                        "/org/apache/pdfbox/resources/ttf/LiberationSans-Regular.ttf")) {
            document.getDocumentInformation().setTitle(title);
            Calendar date = Calendar.getInstance(TimeZone.getTimeZone("UTC"), Locale.ROOT);
            date.setTimeInMillis(made.toEpochMilli());
            document.getDocumentInformation().setCreationDate(date);
            var paper = new Paper(document, PDType0Font.load(document, letters));
            paper.turn();
            writing.on(paper);
            paper.feet(foot);
            for (PDPageContentStream each : paper.pages) each.close();
            var out = new ByteArrayOutputStream();
            document.save(out);
            return out.toByteArray();
        }
    }

    /** Leaves room before what follows. */
    public void space(float height) {
        y -= height;
    }

    /** Begins a new page where there is less room than this. */
    public void need(float height) throws IOException {
        if (y < BOTTOM + height) turn();
    }

    /** Lines to be signed, side by side, with what stands beneath each. */
    public void signatures(String... names) throws IOException {
        need(90);
        y -= 56;
        for (int i = 0; i < names.length; i++) {
            float x = LEFT + 260 * i;
            page.setLineWidth(0.6f);
            page.moveTo(x, y);
            page.lineTo(x + 220, y);
            page.stroke();
            text(x, y - 12, 8, names[i]);
        }
    }

    private void feet(String foot) throws IOException {
        for (int i = 0; i < pages.size(); i++) {
            page = pages.get(i);
            text(LEFT, 48, 8, foot);
            text(RIGHT - 50, 48, 8, "page " + (i + 1) + " of " + pages.size());
            if (strange && i == pages.size() - 1)
                text(LEFT, 60, 8, "Symbols that this page cannot show are printed as ?; the JSON form has them.");
        }
    }

    public void heading(String text) throws IOException {
        if (y < BOTTOM + 60) turn();
        y -= 16;
        line(LEFT, 12, text);
        y -= 2;
    }

    public void fact(String name, String value) throws IOException {
        text(LEFT, y, SIZE, name);
        for (String part : wrapped(value, RIGHT - LEFT - 70)) {
            text(LEFT + 70, y, SIZE, part);
            y -= LEADING;
        }
    }

    /** Values at their distances from the left, each in as many lines as it takes. */
    public void row(float[] at, String... values) throws IOException {
        row(at, Set.of(), values);
    }

    /** @param numbers the places of those that stand at the right of their room */
    public void row(float[] at, Set<Integer> numbers, String... values) throws IOException {
        List<List<String>> cells = new ArrayList<>();
        for (int i = 0; i < values.length; i++) cells.add(wrapped(values[i], room(at, i)));
        int height = cells.stream().mapToInt(List::size).max().orElse(0);
        need(height * LEADING);
        for (int i = 0; i < values.length; i++) {
            float down = y;
            for (String part : cells.get(i)) {
                text(LEFT + at[i] + (numbers.contains(i) ? room(at, i) - width(part, SIZE) : 0), down, SIZE, part);
                down -= LEADING;
            }
        }
        y -= height * LEADING;
    }

    private static float room(float[] at, int place) {
        return (place + 1 < at.length ? at[place + 1] - GUTTER : RIGHT - LEFT) - at[place];
    }

    public void line(float x, float size, String text) throws IOException {
        text(x, y, size, text);
        y -= size + 5;
    }

    private void turn() throws IOException {
        var sheet = new PDPage(PDRectangle.A4);
        document.addPage(sheet);
        page = new PDPageContentStream(document, sheet);
        pages.add(page);
        y = TOP;
    }

    private void text(float x, float at, float size, String text) throws IOException {
        page.beginText();
        page.setFont(font, size);
        page.newLineAtOffset(x, at);
        page.showText(shown(text));
        page.endText();
    }

    /** The text with what the font cannot draw replaced. */
    private String shown(String text) {
        var shown = new StringBuilder();
        text.codePoints().forEach(symbol -> {
            boolean known = has(symbol);
            strange |= !known;
            shown.appendCodePoint(known ? symbol : '?');
        });
        return shown.toString();
    }

    private boolean has(int symbol) {
        try {
            return font.encode(Character.toString(symbol)).length > 0;
        } catch (IOException | IllegalArgumentException e) {
            // That is how the font says that it has none.
            return false;
        }
    }

    private float width(String text, float size) throws IOException {
        return font.getStringWidth(shown(text)) / 1000 * size;
    }

    private List<String> wrapped(String text, float room) throws IOException {
        var parts = new ArrayList<String>();
        String rest = text;
        while (width(rest, SIZE) > room) {
            int length = rest.length();
            while (length > 1 && width(rest.substring(0, length), SIZE) > room) length--;
            int blank = rest.lastIndexOf(' ', length);
            int at = blank > 0 ? blank : length;
            parts.add(rest.substring(0, at));
            rest = rest.substring(at).strip();
        }
        parts.add(rest);
        return parts;
    }
}
