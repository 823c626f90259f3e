package org.youngtally.service.closing;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The statement of a closed period, as of its closing; what changed since stands apart.
 *
 * @param closing the entry that closed it
 * @param scope series or namespace
 * @param head the ledger's head at the closing: SEQUENCE:HASH. An audit with it proves that nothing up to it was
 *     rewritten
 * @param note what the one who closed it had to say
 * @param lanes what each lane had issued inside it
 * @param issued how many numbers dated inside it are in use
 * @param voids void numbers, with reasons
 * @param voidsSince numbers dated inside it that became void after its closing
 * @param issuedSince how many numbers dated inside it were issued after its closing
 * @param reopened the act that opened it again; absent while it is closed
 */
public record Statement(
        long closing,
        String scope,
        String key,
        LocalDate from,
        LocalDate to,
        String head,
        Instant at,
        String by,
        @Nullable String note,
        List<LaneLine> lanes,
        long issued,
        List<VoidLine> voids,
        List<VoidLine> voidsSince,
        long issuedSince,
        @Nullable Reopening reopened) {

    /**
     * @param lane what it counts for; empty where the count does not restart
     * @param first absent where no number is in use
     * @param voids how many of its numbers are void
     */
    public record LaneLine(
            String series,
            String lane,
            @Nullable String first,
            @Nullable String last,
            long issued,
            long voids) {}

    /**
     * @param kind voided, lapsed, released, unused or closed
     * @param reason what was said when it was done
     */
    public record VoidLine(
            String series,
            String first,
            String last,
            long quantity,
            String kind,
            @Nullable String reason,
            String by,
            Instant at,
            long seq) {}

    public record Reopening(
            long seq, Instant at, String by, @Nullable String reason) {}
}
