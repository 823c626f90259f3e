package org.youngtally.core.organisation;

import java.time.ZoneId;
import java.util.List;
import java.util.Optional;

/**
 * A company, branch or workshop.
 *
 * @param below the unit that it is a part of; absent at the top of the tree
 * @param code its text in an identifier; its key where none was given
 * @param zone the time zone in which its days begin; absent for the service's own
 * @param version from 1, one more with each change
 * @param retired whether it is out of use
 * @param prefix the {@link org.youngtally.core.gs1.CompanyPrefix} with which the identifiers of its goods and crates
 *     begin; absent where it has none
 * @param prefixUsers the keys of other units that number with it, each from blocks of its own
 */
public record Unit(
        String key,
        String title,
        Optional<String> below,
        String code,
        Optional<ZoneId> zone,
        int version,
        boolean retired,
        Optional<String> prefix,
        List<String> prefixUsers) {
    public Unit {
        // Units that were kept by earlier releases have none.
        prefixUsers = prefixUsers == null ? List.of() : List.copyOf(prefixUsers);
    }

    public Unit withVersion(int newVersion) {
        return new Unit(key, title, below, code, zone, newVersion, retired, prefix, prefixUsers);
    }
}
