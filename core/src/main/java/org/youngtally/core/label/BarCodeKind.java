package org.youngtally.core.label;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * A bar code symbology, and its smallest and largest module by what it is for: GS1 General Specifications, section
 * 5.12.3 (symbol specification tables); for those outside GS1 the smallest that hand scanners read.
 */
public enum BarCodeKind {
    CODE_128("code-128", Data.TEXT, 10, 10, Size.of(0.19, 1.016, 5)),
    GS1_128("gs1-128", Data.ELEMENTS, 10, 10, Size.of(0.250, 0.495, 12.7), Size.transport(0.495, 1.016, 31.75)),
    EAN_13("ean-13", Data.ITEM_13, 11, 7, Size.of(0.264, 0.660, 18.28), Size.transport(0.495, 0.660, 34.28)),
    ITF_14("itf-14", Data.ITEM_14, 10, 10, Size.of(0.250, 0.495, 12.7), Size.transport(0.495, 1.016, 31.75)),
    DATA_MATRIX("data-matrix", Data.TEXT, 1, 1, Size.of(0.19, 1.5, 0)),
    GS1_DATA_MATRIX("gs1-data-matrix", Data.ELEMENTS, 1, 1, Size.of(0.254, 0.990, 0), Size.transport(0.743, 1.5, 0)),
    QR("qr", Data.TEXT, 4, 4, Size.of(0.254, 2, 0)),
    GS1_QR("gs1-qr", Data.ELEMENTS, 4, 4, Size.of(0.396, 0.990, 0), Size.transport(0.743, 1.5, 0));

    /** What a bar code holds. */
    public enum Data {
        TEXT,
        /** GS1 elements, written with parentheses. */
        ELEMENTS,
        /** Thirteen digits, the last of them the check digit. */
        ITEM_13,
        /** Fourteen digits, the last of them the check digit. */
        ITEM_14
    }

    /**
     * Lengths in mm.
     *
     * @param least the smallest module
     * @param most the largest module
     * @param height the least height of bars; 0 for codes of two dimensions
     */
    public record Size(boolean transport, double least, double most, double height) {
        private static Size of(double least, double most, double height) {
            return new Size(false, least, most, height);
        }

        private static Size transport(double least, double most, double height) {
            return new Size(true, least, most, height);
        }
    }

    private final String word;
    private final Data data;
    private final int quietLeft;
    private final int quietRight;
    private final List<Size> sizes;

    BarCodeKind(String word, Data data, int quietLeft, int quietRight, Size... sizes) {
        this.word = word;
        this.data = data;
        this.quietLeft = quietLeft;
        this.quietRight = quietRight;
        this.sizes = Arrays.asList(sizes);
    }

    public static Optional<BarCodeKind> of(String word) {
        return Arrays.stream(values()).filter(kind -> kind.word.equals(word)).findFirst();
    }

    public static List<String> words() {
        return Arrays.stream(values()).map(kind -> kind.word).toList();
    }

    public String word() {
        return word;
    }

    public Data data() {
        return data;
    }

    /** Modules that stay free before it; around it for codes of two dimensions. */
    public int quietLeft() {
        return quietLeft;
    }

    public int quietRight() {
        return quietRight;
    }

    /** Whether it is read along one line. */
    public boolean isLinear() {
        return sizes.getFirst().height() > 0;
    }

    /**
     * How large it must be.
     *
     * @param transport whether it is scanned in transport and warehousing, from afar
     */
    public Size size(boolean transport) {
        return sizes.stream()
                .filter(size -> size.transport() == transport)
                .findFirst()
                .orElse(sizes.getFirst());
    }
}
