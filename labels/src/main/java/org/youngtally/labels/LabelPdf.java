package org.youngtally.labels;

import java.awt.geom.AffineTransform;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.time.Instant;
import java.util.Calendar;
import java.util.IdentityHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TimeZone;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.IOUtils;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDType0Font;
import org.apache.pdfbox.pdmodel.graphics.image.PDImageXObject;
import org.apache.pdfbox.util.Matrix;
import org.youngtally.core.label.Layout;
import org.youngtally.core.label.Layout.Sheet;
import org.youngtally.labels.Drawing.Ink;
import org.youngtally.labels.Drawing.Part;

/**
 * Labels as PDF in their exact size, vectors with an embedded font: a page for each, or sheets. What is drawn waits in
 * a temporary file, so that many labels take little memory.
 */
public final class LabelPdf implements Closeable {
    private final Layout layout;
    private final PDDocument document = new PDDocument(IOUtils.createTempFileOnlyStreamCache());
    private final long most;
    private long bytes;
    private final PDType0Font font;
    private final Map<Image, PDImageXObject> pictures = new IdentityHashMap<>();
    private Optional<PDPageContentStream> page = Optional.empty();
    private long labels;

    /** That all labels together hold more than is drawn at once. */
    public static final class TooLarge extends IOException {
        private static final long serialVersionUID = 1L;

        private TooLarge(long most) {
            super("more than " + most + " bytes of drawing");
        }
    }

    /**
     * @param made when the file says that it was made
     * @param most how many bytes its drawing may have before it is compressed
     */
    public LabelPdf(Layout layout, Instant made, long most) throws IOException {
        this.layout = layout;
        this.most = most;
        try (InputStream file = Letters.file()) {
            TrueTypeFont letters = new TTFParser().parse(new RandomAccessReadBuffer(file));
            // Ligatures would make texts narrower than they were measured, and looking for them takes most of the time.
            letters.setEnableGsub(false);
            document.registerTrueTypeFontForClosing(letters);
            font = PDType0Font.load(document, letters, true);
        }
        document.getDocumentInformation().setTitle(layout.title());
        Calendar date = Calendar.getInstance(TimeZone.getTimeZone("UTC"), Locale.ROOT);
        date.setTimeInMillis(made.toEpochMilli());
        document.getDocumentInformation().setCreationDate(date);
        // The same labels are the same bytes, whenever they are written.
        document.setDocumentId(made.toEpochMilli());
    }

    /**
     * Puts a label on the next free place.
     *
     * @throws TooLarge where there is too much on all of them
     */
    public void add(Drawing label) throws IOException {
        bytes += label.size();
        if (bytes > most) throw new TooLarge(most);
        long place = layout.sheet().isPresent() ? labels % layout.sheet().get().labels() : 0;
        if (place == 0) turn();
        labels++;
        double left = 0;
        double top = 0;
        if (layout.sheet().isPresent()) {
            Sheet sheet = layout.sheet().get();
            left = sheet.left() + (place % sheet.columns()) * (layout.width() + sheet.across());
            top = sheet.top() + (place / sheet.columns()) * (layout.height() + sheet.down());
        }
        PDPageContentStream stream = page.orElseThrow();
        double height = layout.sheet().map(Sheet::height).orElse(layout.height());
        for (Part part : label.parts()) {
            // From mm downwards to points upwards.
            var whole = new AffineTransform(1 / Layout.POINT, 0, 0, -1 / Layout.POINT, 0, height / Layout.POINT);
            whole.translate(left, top);
            whole.concatenate(part.place());
            stream.saveGraphicsState();
            stream.transform(new Matrix(whole));
            stream.setNonStrokingColor(part.gray());
            for (Ink ink : part.ink()) draw(stream, ink);
            stream.restoreGraphicsState();
        }
    }

    private void draw(PDPageContentStream stream, Ink ink) throws IOException {
        switch (ink) {
            case Ink.Bar bar -> {
                stream.addRect((float) bar.x(), (float) bar.y(), (float) bar.width(), (float) bar.height());
                stream.fill();
            }
            case Ink.Line line -> {
                stream.setLineWidth((float) line.thickness());
                stream.moveTo((float) line.fromX(), (float) line.fromY());
                stream.lineTo((float) line.toX(), (float) line.toY());
                stream.stroke();
            }
            case Ink.Text text -> {
                stream.beginText();
                stream.setFont(font, (float) (text.size() * Layout.POINT));
                stream.setTextMatrix(new Matrix(1, 0, 0, -1, (float) text.x(), (float) text.y()));
                stream.showText(text.text());
                stream.endText();
            }
            case Ink.Picture picture ->
                stream.drawImage(
                        picture(picture.file()),
                        new Matrix(
                                (float) picture.width(), 0, 0, (float) -picture.height(), (float) picture.x(), (float)
                                        (picture.y() + picture.height())));
        }
    }

    private PDImageXObject picture(Image image) throws IOException {
        PDImageXObject known = pictures.get(image);
        if (known == null) {
            known = PDImageXObject.createFromByteArray(document, image.file(), "picture");
            pictures.put(image, known);
        }
        return known;
    }

    private void turn() throws IOException {
        if (page.isPresent()) page.get().close();
        double width = layout.sheet().map(Sheet::width).orElse(layout.width());
        double height = layout.sheet().map(Sheet::height).orElse(layout.height());
        var sheet = new PDPage(new PDRectangle((float) (width / Layout.POINT), (float) (height / Layout.POINT)));
        document.addPage(sheet);
        page = Optional.of(new PDPageContentStream(document, sheet));
    }

    /** How many pages there are so far. */
    public int pages() {
        return document.getNumberOfPages();
    }

    /** Writes the whole file; nothing can be added afterwards. */
    public void write(OutputStream out) throws IOException {
        if (page.isPresent()) page.get().close();
        page = Optional.empty();
        document.save(out);
    }

    @Override
    public void close() throws IOException {
        if (page.isPresent()) page.get().close();
        document.close();
    }
}
