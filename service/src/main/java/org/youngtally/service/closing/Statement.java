package org.youngtally.service.closing;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a closed period comes to, as it stood when it was closed; it reads the same for ever.
 *
 * @param closing the entry that closed it
 * @param scope series or namespace
 * @param head the ledger's head at the closing: SEQUENCE:HASH. An audit that is given it proves that nothing up to it
 *     was rewritten
 * @param note what the one who closed it had to say
 * @param lanes what each lane had given inside it
 * @param issued how many numbers dated inside it stand for something
 * @param voids those that stand for nothing, and why
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
        @Nullable Reopening reopened) {

    /**
     * @param lane what it counts for; empty where the count does not restart
     * @param first absent where nothing stands for anything
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
