package org.youngtally.service.api;

import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.youngtally.core.label.Layout;
import org.youngtally.core.text.NearestName;
import org.youngtally.printers.Printer;
import org.youngtally.printers.PrinterAddress;
import org.youngtally.printers.PrinterException;
import org.youngtally.service.printing.LabelFile;
import org.youngtally.service.printing.Printers;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/** Finds printers, and asks them whether they would print. */
final class LabelPrinters {
    private static final Logger LOG = LoggerFactory.getLogger(LabelPrinters.class);

    private static final int MOST_NAMED = 10;

    private LabelPrinters() {}

    /** @throws Problem for an address that labels may not be sent to */
    static PrinterAddress find(Printers printers, String address) {
        return printers.find(address).orElseThrow(() -> new Problem(
                        Type.UNKNOWN_PRINTER,
                        "Printer ‘" + address + "’ not found."
                                + NearestName.to(
                                                address,
                                                printers.addresses().stream()
                                                        .map(PrinterAddress::toString)
                                                        .toList())
                                        .map(near -> " Did you mean ‘" + near + "’?")
                                        .orElse(""))
                .field(
                        "printer",
                        printers.addresses().isEmpty()
                                ? "the service has no printers: its administrator starts it with --printer ADDRESS"
                                : printers.addresses().stream()
                                        .limit(MOST_NAMED)
                                        .map(PrinterAddress::toString)
                                        .collect(Collectors.joining(", "))));
    }

    /** @throws Problem where it would not print labels of a layout; nothing is sent */
    static void check(PrinterAddress printer, Layout layout, String account) {
        try {
            new Printer(printer).check(LabelFile.ticket(layout, "labels", account));
        } catch (PrinterException e) {
            LOG.debug("a printer would not print", e);
            throw new Problem(Type.PRINTER, "Printer ‘" + printer + "’ " + e.getMessage() + ". Nothing was allocated.")
                    .field("printer", "a printer that is ready");
        }
    }
}
