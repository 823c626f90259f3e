package org.youngtally.ledger.audit;

import java.util.List;
import java.util.Map;
import org.youngtally.core.act.PositionState;
import org.youngtally.ledger.journal.Head;

/**
 * What an audit found.
 *
 * @param entries how many journal lines were read and proved
 * @param lanes how many lanes were walked
 * @param positions how many positions lie below the counters
 * @param ahead how many positions are ahead of the counters
 * @param states how many positions there are in each state: all of them together are those below and ahead of the
 *     counters
 * @param head the newest entry that the audit covers
 * @param explained what is neither plainly issued nor a gap, lane by lane, and why; the periods that are closed
 * @param findings what is wrong, the first {@value #MOST_FINDINGS} of it; empty where the ledger is gap-free and
 *     unchanged
 * @param more how much more is wrong than the findings say
 */
public record AuditReport(
        long entries,
        long lanes,
        long positions,
        long ahead,
        Map<PositionState, Long> states,
        Head head,
        List<String> explained,
        List<String> findings,
        long more) {
    static final int MOST_FINDINGS = 50;

    /** How many positions are in a state. */
    public long in(PositionState state) {
        return states.getOrDefault(state, 0L);
    }

    public boolean passed() {
        return findings.isEmpty();
    }
}
