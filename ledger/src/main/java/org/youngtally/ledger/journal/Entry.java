package org.youngtally.ledger.journal;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.pattern.Particulars;

/**
 * One act in the ledger.
 *
 * @param seq 1, 2, 3 … without a gap
 * @param at when the writer decided it, to the microsecond
 * @param by the account that asked
 * @param request what was asked, for an act on numbers or periods
 */
public record Entry(long seq, Instant at, String by, Kind kind, Optional<Request> request, List<Effect> effects) {
    public Entry {
        effects = List.copyOf(effects);
    }

    /** What sort of act it was; the words stand in the journal, the order in the store. */
    public enum Kind {
        DEFINE("define"),
        ALLOCATE("allocate"),
        BLOCK("block"),
        HOLD("hold"),
        TYPE("type"),
        CONFIRM("confirm"),
        RELEASE("release"),
        LAPSE("lapse"),
        RETURN("return"),
        VOID("void"),
        USE("use"),
        SPLIT("split"),
        CLOSE("close"),
        REOPEN("reopen"),
        REMOVE("remove"),
        ACCESS("access"),
        SAVE("save"),
        CHANGE("change"),
        RENUMBER("renumber"),
        DELETE("delete"),
        SHARE("share"),
        FILL("fill");

        /** Whether it takes numbers by themselves, for no record that is kept here. */
        public boolean takes() {
            return this == ALLOCATE || this == BLOCK || this == HOLD || this == TYPE;
        }

        /** Whether it keeps or changes a record. */
        public boolean keeps() {
            return this == SAVE || this == CHANGE || this == RENUMBER || this == DELETE || this == SHARE;
        }

        private final String word;

        Kind(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }

        static Kind of(String word) {
            for (Kind kind : values()) if (kind.word.equals(word)) return kind;
            throw new IllegalArgumentException("‘" + word + "’ is not an act");
        }
    }

    /**
     * What was asked.
     *
     * @param series absent for a period of a whole namespace
     * @param particulars what numbers were taken for; absent for an act that takes none
     * @param quantity how many numbers it is about
     * @param note why, or for whom
     * @param purpose the kind and unit that the numbers are for
     */
    public record Request(
            Optional<String> series,
            Optional<Particulars> particulars,
            long quantity,
            Optional<String> reference,
            Optional<String> key,
            String digest,
            Optional<String> note,
            Purpose purpose) {}
}
