package org.youngtally.labels;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.Shape;
import java.awt.geom.AffineTransform;
import java.awt.geom.Line2D;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.OutputStream;
import javax.imageio.ImageIO;
import org.youngtally.core.label.Layout;
import org.youngtally.labels.Drawing.Ink;
import org.youngtally.labels.Drawing.Part;

/** A label as PNG, dot by dot as the printer has it. */
public final class LabelPng {
    private static final long MOST_DOTS = 100_000_000;

    private LabelPng() {}

    /** That a label has more than a hundred million dots. */
    public static final class TooLarge extends IOException {
        private static final long serialVersionUID = 1L;

        private TooLarge(long width, long height) {
            super("a picture of " + width + " × " + height + " dots");
        }
    }

    /** @throws TooLarge where it would have too many dots */
    public static void write(Drawing label, OutputStream out) throws IOException {
        ImageIO.write(of(label), "png", out);
    }

    static BufferedImage of(Drawing label) throws IOException {
        double scale = label.resolution() / Layout.INCH;
        long width = Math.max(1, Math.round(label.width() * scale));
        long height = Math.max(1, Math.round(label.height() * scale));
        if (width * height > MOST_DOTS) throw new TooLarge(width, height);
        var image = new BufferedImage((int) width, (int) height, BufferedImage.TYPE_BYTE_GRAY);
        Graphics2D graphics = image.createGraphics();
        graphics.setColor(Color.WHITE);
        graphics.fillRect(0, 0, (int) width, (int) height);
        graphics.setColor(Color.BLACK);
        graphics.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BICUBIC);
        for (Part part : label.parts()) {
            AffineTransform place = AffineTransform.getScaleInstance(scale, scale);
            graphics.setColor(new Color(part.gray(), part.gray(), part.gray()));
            place.concatenate(part.place());
            for (Ink ink : part.ink()) draw(graphics, place, ink, scale);
        }
        graphics.dispose();
        return image;
    }

    private static void draw(Graphics2D graphics, AffineTransform place, Ink ink, double scale) {
        graphics.setRenderingHint(
                RenderingHints.KEY_ANTIALIASING,
                ink instanceof Ink.Bar ? RenderingHints.VALUE_ANTIALIAS_OFF : RenderingHints.VALUE_ANTIALIAS_ON);
        switch (ink) {
            case Ink.Bar bar -> {
                Rectangle2D box = place.createTransformedShape(
                                new Rectangle2D.Double(bar.x(), bar.y(), bar.width(), bar.height()))
                        .getBounds2D();
                int left = (int) Math.round(box.getMinX());
                int top = (int) Math.round(box.getMinY());
                graphics.fillRect(
                        left,
                        top,
                        Math.max(1, (int) Math.round(box.getMaxX()) - left),
                        Math.max(1, (int) Math.round(box.getMaxY()) - top));
            }
            case Ink.Line line -> {
                graphics.setStroke(new BasicStroke(
                        (float) (line.thickness() * scale), BasicStroke.CAP_BUTT, BasicStroke.JOIN_MITER));
                graphics.draw(place.createTransformedShape(
                        new Line2D.Double(line.fromX(), line.fromY(), line.toX(), line.toY())));
            }
            case Ink.Text text -> {
                Shape letters = Letters.font().outline(text.text(), text.size());
                var foot = new AffineTransform(place);
                foot.translate(text.x(), text.y());
                graphics.fill(foot.createTransformedShape(letters));
            }
            case Ink.Picture picture -> {
                var whole = new AffineTransform(place);
                whole.translate(picture.x(), picture.y());
                whole.scale(
                        picture.width() / picture.file().dots().getWidth(),
                        picture.height() / picture.file().dots().getHeight());
                graphics.drawImage(picture.file().dots(), whole, null);
            }
        }
    }
}
