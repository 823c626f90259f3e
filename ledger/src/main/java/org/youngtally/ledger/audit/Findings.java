package org.youngtally.ledger.audit;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.youngtally.core.act.PositionState;
import org.youngtally.ledger.journal.Head;

/** Gathers findings, and counts those that are too many to tell. */
final class Findings {
    private final List<String> told = new ArrayList<>();
    private long more;

    synchronized void add(String finding) {
        if (told.size() < AuditReport.MOST_FINDINGS) told.add(finding);
        else more++;
    }

    synchronized boolean isEmpty() {
        return told.isEmpty();
    }

    synchronized AuditReport report(
            long entries,
            long lanes,
            long positions,
            long ahead,
            Map<PositionState, Long> states,
            Head head,
            List<String> explained) {
        return new AuditReport(
                entries, lanes, positions, ahead, states, head, List.copyOf(explained), List.copyOf(told), more);
    }
}
