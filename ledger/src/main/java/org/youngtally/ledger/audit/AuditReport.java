package org.youngtally.ledger.audit;

import java.util.List;
import org.youngtally.ledger.journal.Head;

/**
 * What an audit found.
 *
 * @param entries how many journal lines were read and proved
 * @param lanes how many lanes were walked
 * @param positions how many positions were walked
 * @param skipped how many of them were passed over because their values are never given, as the definition said at that time
 * @param head the newest entry that the audit covers
 * @param explained of each lane that has some, the positions that are neither given nor a gap, and why
 * @param findings what is wrong, the first {@value #MOST_FINDINGS} of it; empty where the ledger is gap-free and unchanged
 * @param more how much more is wrong than the findings say
 */
public record AuditReport(long entries, long lanes, long positions, long skipped, Head head, List<String> explained, List<String> findings, long more) {
    static final int MOST_FINDINGS = 50;

    public boolean passed() { return findings.isEmpty(); }
}
