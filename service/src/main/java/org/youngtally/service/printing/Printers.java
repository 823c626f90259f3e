package org.youngtally.service.printing;

import java.util.List;
import java.util.Optional;
import org.youngtally.printers.PrinterAddress;
import org.youngtally.printers.SimulatedPrinter;

/**
 * The printers that labels may be sent to. The service connects to no other address, whoever asks for it.
 *
 * @param simulated one that is not there, where it runs with the service
 */
public record Printers(List<PrinterAddress> addresses, Optional<SimulatedPrinter> simulated) {
    public static final Printers NONE = new Printers(List.of(), Optional.empty());

    public Printers {
        addresses = List.copyOf(addresses);
    }

    public static Printers simulated(SimulatedPrinter printer) {
        return new Printers(List.of(printer.address()), Optional.of(printer));
    }

    public Optional<PrinterAddress> find(String address) {
        return addresses.stream()
                .filter(each -> each.toString().equals(address))
                .findFirst();
    }
}
