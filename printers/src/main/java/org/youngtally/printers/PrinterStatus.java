package org.youngtally.printers;

import java.util.List;

/**
 * How it is with a printer.
 *
 * @param name that it has for people
 * @param reasons for its state, as RFC 8011, 5.4.12 and its registry write them
 * @param accepts whether it accepts jobs
 * @param formats the media types of the documents that it prints
 * @param sizes of the media that it prints on; empty where it does not say
 */
public record PrinterStatus(
        String name, State state, List<String> reasons, boolean accepts, List<String> formats, List<MediaSize> sizes) {
    public PrinterStatus {
        reasons = List.copyOf(reasons);
        formats = List.copyOf(formats);
        sizes = List.copyOf(sizes);
    }

    /** RFC 8011, 5.4.11. */
    public enum State {
        IDLE,
        PROCESSING,
        STOPPED
    }

    /**
     * A size of media, or a range of sizes, in hundredths of a millimetre; both ends included.
     *
     * @param least the smallest width
     * @param most the greatest width
     * @param shortest the smallest height
     * @param longest the greatest height
     */
    public record MediaSize(int least, int most, int shortest, int longest) {
        /** Printers round: a size is another only where it is more than a millimetre apart. */
        private static final int TOLERANCE = 100;

        boolean holds(int width, int height) {
            return width >= least - TOLERANCE
                    && width <= most + TOLERANCE
                    && height >= shortest - TOLERANCE
                    && height <= longest + TOLERANCE;
        }

        /** For people, in millimetres. */
        @Override
        public String toString() {
            return millimetres(least, most) + " × " + millimetres(shortest, longest) + " mm";
        }

        private static String millimetres(int from, int to) {
            String first = JobTicket.millimetres(from);
            return from == to ? first : first + "–" + JobTicket.millimetres(to);
        }
    }
}
