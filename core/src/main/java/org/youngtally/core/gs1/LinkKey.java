package org.youngtally.core.gs1;

import java.util.List;
import java.util.Optional;

/**
 * A key with which the path of a GS1 Digital Link URI begins, and what may follow it in the path, in this order (GS1
 * Digital Link Standard: URI Syntax, section 4).
 */
record LinkKey(String code, List<String> qualifiers) {
    static final List<LinkKey> ALL = List.of(
            new LinkKey("01", List.of("22", "10", "21")),
            new LinkKey("8006", List.of("22", "10", "21")),
            new LinkKey("00", List.of()),
            new LinkKey("8010", List.of("8011")),
            new LinkKey("414", List.of("254")),
            new LinkKey("415", List.of("8020")),
            new LinkKey("417", List.of()),
            new LinkKey("8017", List.of()),
            new LinkKey("8018", List.of()),
            new LinkKey("253", List.of()),
            new LinkKey("401", List.of()),
            new LinkKey("402", List.of()),
            new LinkKey("8003", List.of()),
            new LinkKey("8004", List.of()));

    static Optional<LinkKey> of(String code) {
        return ALL.stream().filter(key -> key.code.equals(code)).findFirst();
    }
}
