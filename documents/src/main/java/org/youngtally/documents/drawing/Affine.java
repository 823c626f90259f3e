package org.youngtally.documents.drawing;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.youngtally.core.numbering.Item.Place;

/** A map of points: {@code x' = a x + c y + e}, {@code y' = b x + d y + f} (SVG 1.1, 7.4). */
record Affine(double a, double b, double c, double d, double e, double f) {
    static final Affine NONE = new Affine(1, 0, 0, 1, 0, 0);

    /** A number as SVG writes it. */
    static final Pattern NUMBER = Pattern.compile("[+-]?([0-9]+\\.?[0-9]*|\\.[0-9]+)([eE][+-]?[0-9]+)?");

    private static final Pattern SEPARATOR = Pattern.compile("\\s*,\\s*|\\s+");
    private static final Pattern FUNCTION = Pattern.compile("\\s*+,?+\\s*+([a-zA-Z]++)\\s*+\\(([^()]*+)\\)\\s*+");

    static Affine move(double x, double y) {
        return new Affine(1, 0, 0, 1, x, y);
    }

    static Affine scale(double x, double y) {
        return new Affine(x, 0, 0, y, 0, 0);
    }

    private static Affine rotate(double degrees) {
        double turn = Math.toRadians(degrees);
        return new Affine(Math.cos(turn), Math.sin(turn), -Math.sin(turn), Math.cos(turn), 0, 0);
    }

    /** First the inner one, then this. */
    Affine of(Affine inner) {
        return new Affine(
                a * inner.a + c * inner.b,
                b * inner.a + d * inner.b,
                a * inner.c + c * inner.d,
                b * inner.c + d * inner.d,
                a * inner.e + c * inner.f + e,
                b * inner.e + d * inner.f + f);
    }

    Place of(double x, double y) {
        return new Place(a * x + c * y + e, b * x + d * y + f);
    }

    /** Whether it lays a whole area on a line or a point, or beyond all numbers. */
    boolean isSingular() {
        double area = a * d - b * c;
        return !Double.isFinite(area) || area == 0 || !Double.isFinite(e) || !Double.isFinite(f);
    }

    /** @throws IllegalArgumentException for what is no list of transforms */
    static Affine parse(String text) {
        Affine all = NONE;
        Matcher function = FUNCTION.matcher(text);
        int at = 0;
        int end = text.stripTrailing().length();
        while (at < end) {
            if (!function.region(at, text.length()).lookingAt())
                throw new IllegalArgumentException("‘" + text.strip() + "’ is no list of transforms");
            all = all.of(function(function.group(1), numbers(function.group(2))));
            at = function.end();
        }
        return all;
    }

    private static double[] numbers(String list) {
        return list.isBlank()
                ? new double[0]
                : SEPARATOR
                        .splitAsStream(list.strip())
                        .mapToDouble(Affine::number)
                        .toArray();
    }

    private static double number(String text) {
        if (!NUMBER.matcher(text).matches()) throw new IllegalArgumentException("‘" + text + "’ is no number");
        return Double.parseDouble(text);
    }

    private static Affine function(String name, double[] by) {
        return switch (name + " " + by.length) {
            case "translate 1" -> move(by[0], 0);
            case "translate 2" -> move(by[0], by[1]);
            case "scale 1" -> scale(by[0], by[0]);
            case "scale 2" -> scale(by[0], by[1]);
            case "rotate 1" -> rotate(by[0]);
            case "rotate 3" -> move(by[1], by[2]).of(rotate(by[0])).of(move(-by[1], -by[2]));
            case "skewX 1" -> new Affine(1, 0, Math.tan(Math.toRadians(by[0])), 1, 0, 0);
            case "skewY 1" -> new Affine(1, Math.tan(Math.toRadians(by[0])), 0, 1, 0, 0);
            case "matrix 6" -> new Affine(by[0], by[1], by[2], by[3], by[4], by[5]);
            default ->
                throw new IllegalArgumentException("‘" + name + "’ with " + by.length + " numbers is no transform");
        };
    }
}
