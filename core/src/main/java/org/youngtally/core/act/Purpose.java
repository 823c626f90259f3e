package org.youngtally.core.act;

import java.util.Optional;

/** What numbers are taken for: a record of a kind, in a unit, as far as the one who asks says so. */
public record Purpose(Optional<String> kind, Optional<String> unit) {
    public static final Purpose NONE = new Purpose(Optional.empty(), Optional.empty());
}
