package org.youngtally.service.closing;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Calendar;
import java.util.List;
import java.util.Locale;
import java.util.TimeZone;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDType0Font;

/** A statement as pages to be signed, A4, in PDF. */
public final class StatementPage {
    private static final float LEFT = 56;
    private static final float RIGHT = PDRectangle.A4.getWidth() - 56;
    private static final float TOP = PDRectangle.A4.getHeight() - 64;
    private static final float BOTTOM = 84;
    private static final float SIZE = 9.5f;
    private static final float LEADING = 14;
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss", Locale.ROOT);

    private final PDDocument document;
    private final PDType0Font font;
    private final Statement statement;
    private final ZoneId zone;
    private final List<PDPageContentStream> pages = new ArrayList<>();
    private PDPageContentStream page;
    private float y;
    private boolean strange;

    private StatementPage(PDDocument document, PDType0Font font, Statement statement, ZoneId zone) {
        this.document = document;
        this.font = font;
        this.statement = statement;
        this.zone = zone;
    }

    /** @param zone in which its times are told @return the file's bytes */
    public static byte[] of(Statement statement, ZoneId zone) throws IOException {
        try (var document = new PDDocument(); InputStream letters = PDDocument.class.getResourceAsStream("/org/apache/pdfbox/resources/ttf/LiberationSans-Regular.ttf")) {
            var out = new ByteArrayOutputStream();
            new StatementPage(document, PDType0Font.load(document, letters), statement, zone).write();
            document.save(out);
            return out.toByteArray();
        }
    }

    private void write() throws IOException {
        document.getDocumentInformation().setTitle("Statement of a closed period, " + statement.key() + ", " + statement.from() + " to " + statement.to());
        Calendar closed = Calendar.getInstance(TimeZone.getTimeZone("UTC"), Locale.ROOT);
        closed.setTimeInMillis(statement.at().toEpochMilli());
        document.getDocumentInformation().setCreationDate(closed);
        turn();
        line(LEFT, 17, "Statement of a closed period");
        y -= 12;
        fact("Closed", "the " + statement.scope() + " " + statement.key() + ", " + statement.from() + " to " + statement.to() + ", both included");
        fact("By", statement.by() + ", " + time(statement.at()) + ", entry " + statement.closing());
        if (statement.note() != null) fact("Note", statement.note());
        fact("Numbers", "issued " + statement.issued() + ", void " + statement.lanes().stream().mapToLong(Statement.LaneLine::voids).sum());
        fact("Head", statement.head());
        if (statement.reopened() != null) fact("Reopened", "by " + statement.reopened().by() + ", " + time(statement.reopened().at()) + ", entry " + statement.reopened().seq() + (statement.reopened().reason() == null ? "" : ": " + statement.reopened().reason()));
        lanes();
        voids();
        signatures();
        feet();
        for (PDPageContentStream each : pages) each.close();
    }

    private void lanes() throws IOException {
        heading("What was given");
        row(new float[] {0, 110, 180, 290, 400, 440}, "Series", "Lane", "First", "Last", "Issued", "Void");
        for (Statement.LaneLine lane : statement.lanes()) row(new float[] {0, 110, 180, 290, 400, 440}, lane.series(), lane.lane().isEmpty() ? "—" : lane.lane(), lane.first() == null ? "—" : lane.first(), lane.last() == null ? "—" : lane.last(), Long.toString(lane.issued()), Long.toString(lane.voids()));
        if (statement.lanes().isEmpty()) line(LEFT, SIZE, "Nothing that is dated inside the period.");
    }

    private void voids() throws IOException {
        heading("What is void, and why");
        if (statement.voids().isEmpty()) line(LEFT, SIZE, "Nothing.");
        for (Statement.VoidLine each : statement.voids()) {
            String numbers = each.first().equals(each.last()) ? each.first() : each.first() + " to " + each.last() + " (" + each.quantity() + ")";
            row(new float[] {0, 150, 205}, numbers, each.kind(), (each.reason() == null ? "no reason was given" : each.reason()) + " — " + each.by() + ", " + time(each.at()) + ", entry " + each.seq());
        }
    }

    private void signatures() throws IOException {
        if (y < BOTTOM + 90) turn();
        y -= 56;
        for (String name : List.of("Closed by (name, date, signature)", "Checked by (name, date, signature)")) {
            float x = name.startsWith("Closed") ? LEFT : LEFT + 260;
            page.setLineWidth(0.6f);
            page.moveTo(x, y);
            page.lineTo(x + 220, y);
            page.stroke();
            text(x, y - 12, 8, name);
        }
    }

    private void feet() throws IOException {
        for (int i = 0; i < pages.size(); i++) {
            page = pages.get(i);
            text(LEFT, 48, 8, "Young Tally · prove it with: youngtally audit --head " + statement.head().substring(0, Math.min(22, statement.head().length())) + "…   (the head above in full)");
            text(RIGHT - 50, 48, 8, "page " + (i + 1) + " of " + pages.size());
            if (strange && i == pages.size() - 1) text(LEFT, 60, 8, "A symbol that this page cannot show stands as ?; the JSON form of the statement has it.");
        }
    }

    private void heading(String text) throws IOException {
        if (y < BOTTOM + 60) turn();
        y -= 16;
        line(LEFT, 12, text);
        y -= 2;
    }

    private void fact(String name, String value) throws IOException {
        text(LEFT, y, SIZE, name);
        for (String part : wrapped(value, RIGHT - LEFT - 70)) {
            text(LEFT + 70, y, SIZE, part);
            y -= LEADING;
        }
    }

    /** Values at their distances from the left; the last one may take several lines. */
    private void row(float[] at, String... values) throws IOException {
        if (y < BOTTOM) turn();
        for (int i = 0; i < values.length - 1; i++) text(LEFT + at[i], y, SIZE, fitted(values[i], at[i + 1] - at[i] - 6));
        for (String part : wrapped(values[values.length - 1], RIGHT - LEFT - at[values.length - 1])) {
            text(LEFT + at[values.length - 1], y, SIZE, part);
            y -= LEADING;
        }
    }

    private void line(float x, float size, String text) throws IOException {
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

    private float width(String text, float size) throws IOException { return font.getStringWidth(shown(text)) / 1000 * size; }

    private String fitted(String text, float room) throws IOException {
        if (width(text, SIZE) <= room) return text;
        int length = text.length();
        while (length > 1 && width(text.substring(0, length) + "…", SIZE) > room) length--;
        return text.substring(0, length) + "…";
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

    private String time(Instant instant) { return TIME.format(instant.atZone(zone)) + " " + zone; }
}
