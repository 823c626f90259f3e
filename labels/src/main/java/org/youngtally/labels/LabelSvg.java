package org.youngtally.labels;

import java.awt.geom.AffineTransform;
import java.awt.geom.Path2D;
import java.awt.geom.PathIterator;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Base64;
import org.youngtally.labels.Drawing.Ink;
import org.youngtally.labels.Drawing.Part;

/** A label as SVG in its exact size; its letters are outlines, so that it looks the same everywhere. */
public final class LabelSvg {
    private LabelSvg() {}

    public static String of(Drawing label) {
        var svg = new StringBuilder("<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"" + mm(label.width())
                + "mm\" height=\"" + mm(label.height()) + "mm\" viewBox=\"0 0 " + mm(label.width()) + " "
                + mm(label.height()) + "\">\n<rect width=\"100%\" height=\"100%\" fill=\"#fff\"/>\n");
        for (Part part : label.parts()) {
            svg.append("<g")
                    .append(transform(part.place()))
                    .append(part.gray() == 0 ? "" : " fill=\"#d9d9d9\"")
                    .append(">\n");
            var bars = new StringBuilder();
            for (Ink ink : part.ink())
                switch (ink) {
                    case Ink.Bar bar ->
                        bars.append("M" + mm(bar.x()) + " " + mm(bar.y()) + "h" + mm(bar.width()) + "v"
                                + mm(bar.height()) + "h" + mm(-bar.width()) + "z");
                    case Ink.Line line ->
                        svg.append(
                                "<path d=\"M" + mm(line.fromX()) + " " + mm(line.fromY()) + "L" + mm(line.toX()) + " "
                                        + mm(line.toY()) + "\" stroke=\"#000\" stroke-width=\"" + mm(line.thickness())
                                        + "\"/>\n");
                    case Ink.Text text ->
                        svg.append(
                                "<path role=\"img\" aria-label=\"" + escaped(text.text()) + "\" transform=\"translate("
                                        + mm(text.x()) + " " + mm(text.y()) + ")\" d=\""
                                        + path(Letters.font().outline(text.text(), text.size())) + "\"/>\n");
                    case Ink.Picture picture ->
                        svg.append("<image x=\"" + mm(picture.x()) + "\" y=\"" + mm(picture.y()) + "\" width=\""
                                + mm(picture.width()) + "\" height=\"" + mm(picture.height())
                                + "\" href=\"data:image/" + type(picture.file()) + ";base64,"
                                + Base64.getEncoder()
                                        .encodeToString(picture.file().file()) + "\"/>\n");
                }
            if (!bars.isEmpty())
                svg.append("<path shape-rendering=\"crispEdges\" d=\"")
                        .append(bars)
                        .append("\"/>\n");
            svg.append("</g>\n");
        }
        return svg.append("</svg>\n").toString();
    }

    private static String type(Image image) {
        return image.file()[0] == (byte) 0x89 ? "png" : "jpeg";
    }

    private static String transform(AffineTransform place) {
        return place.isIdentity()
                ? ""
                : " transform=\"matrix(" + mm(place.getScaleX()) + " " + mm(place.getShearY()) + " "
                        + mm(place.getShearX()) + " " + mm(place.getScaleY()) + " " + mm(place.getTranslateX()) + " "
                        + mm(place.getTranslateY()) + ")\"";
    }

    private static String path(Path2D outline) {
        var path = new StringBuilder();
        double[] points = new double[6];
        for (PathIterator at = outline.getPathIterator(null); !at.isDone(); at.next()) {
            int kind = at.currentSegment(points);
            int count =
                    switch (kind) {
                        case PathIterator.SEG_MOVETO, PathIterator.SEG_LINETO -> 2;
                        case PathIterator.SEG_QUADTO -> 4;
                        case PathIterator.SEG_CUBICTO -> 6;
                        default -> 0;
                    };
            path.append("MLQCZ".charAt(kind));
            for (int i = 0; i < count; i++) path.append(i == 0 ? "" : " ").append(mm(points[i]));
        }
        return path.toString();
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace("\"", "&quot;");
    }

    private static String mm(double length) {
        return BigDecimal.valueOf(length)
                .setScale(4, RoundingMode.HALF_UP)
                .stripTrailingZeros()
                .toPlainString();
    }
}
