package org.youngtally.printers;

import java.math.BigDecimal;

/**
 * What a printer is told of a document beside it.
 *
 * @param name of the job, for whoever looks at the printer
 * @param user for whom it is printed
 * @param width of its pages in hundredths of a millimetre
 * @param height of its pages
 */
public record JobTicket(String name, String user, int width, int height) {
    /** @param width of its pages in millimetres */
    public static JobTicket of(String name, String user, double width, double height) {
        return new JobTicket(name, user, hundredths(width), hundredths(height));
    }

    private static int hundredths(double millimetres) {
        return (int) Math.round(millimetres * 100);
    }

    static String millimetres(int hundredths) {
        return BigDecimal.valueOf(hundredths, 2).stripTrailingZeros().toPlainString();
    }
}
