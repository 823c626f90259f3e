package org.youngtally.core.gs1;

import java.util.List;
import org.youngtally.core.fault.Fault;

/** An application identifier with its data. */
public record Element(ApplicationIdentifier identifier, String value) {

    public List<Fault> faults() {
        return identifier.faults(value);
    }

    @Override
    public String toString() {
        return "(" + identifier.code() + ")" + value;
    }
}
