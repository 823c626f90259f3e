package org.youngtally.ledger.journal;

import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.NoSuchElementException;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.LedgerState;
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

    /** What sort of act it was; the words are in the journal, the codes in the tables. */
    public enum Kind {
        DEFINE(0, "define"),
        ALLOCATE(1, "allocate"),
        BLOCK(2, "block"),
        HOLD(3, "hold"),
        TYPE(4, "type"),
        CONFIRM(5, "confirm"),
        RELEASE(6, "release"),
        LAPSE(7, "lapse"),
        RETURN(8, "return"),
        VOID(9, "void"),
        USE(10, "use"),
        SPLIT(11, "split"),
        CLOSE(12, "close"),
        REOPEN(13, "reopen"),
        REMOVE(14, "remove"),
        ACCESS(15, "access"),
        SAVE(16, "save"),
        CHANGE(17, "change"),
        RENUMBER(18, "renumber"),
        DELETE(19, "delete"),
        SHARE(20, "share"),
        FILL(21, "fill"),
        CONTINUE(22, "continue"),
        PLAN(23, "plan"),
        RECORD(24, "record"),
        CLOSE_GAPS(25, "close-gaps"),
        CARRY_OUT(26, "carry-out"),
        ABANDON(27, "abandon"),
        PRINT(28, "print"),
        SEND(29, "send"),
        NOTE(30, "note"),
        REPRINT(31, "reprint"),
        SPOIL(32, "spoil"),
        CANCEL(33, "cancel"),
        STATE(34, "state"),
        RESUME(35, "resume");

        /** Whether it takes numbers by themselves, for no record that is kept here. */
        public boolean takes() {
            return this == ALLOCATE || this == BLOCK || this == HOLD || this == TYPE;
        }

        /** What was done by it, in a word for people. */
        public String past() {
            return switch (this) {
                case VOID -> "voided";
                case USE -> "reported as used";
                case LAPSE,
                        RELEASE,
                        CLOSE,
                        DELETE,
                        SHARE,
                        CHANGE,
                        SAVE,
                        ALLOCATE,
                        DEFINE,
                        REMOVE,
                        NOTE,
                        STATE,
                        RESUME -> word + "d";
                case RETURN, CONFIRM, REOPEN, RENUMBER, FILL, RECORD, PRINT, REPRINT, SPOIL -> word + "ed";
                case CONTINUE -> "continued";
                case SEND -> "sent";
                case CANCEL -> "cancelled";
                case PLAN -> "planned";
                case CLOSE_GAPS -> "closed as a gap";
                case CARRY_OUT -> "carried out";
                case ABANDON -> "abandoned";
                case HOLD -> "held";
                case TYPE -> "typed";
                case SPLIT -> "split";
                case BLOCK -> "allocated as a block";
                case ACCESS -> "changed";
            };
        }

        /** How it takes numbers. For one that does. */
        public LedgerState.Way way() {
            return switch (this) {
                case BLOCK -> LedgerState.Way.BLOCK;
                case HOLD -> LedgerState.Way.HELD;
                case TYPE -> LedgerState.Way.TYPED;
                default -> LedgerState.Way.SINGLES;
            };
        }

        /** Whether it says of numbers that they were in use before they came here. */
        public boolean recordsPreexisting() {
            return this == CONTINUE || this == RECORD || this == STATE;
        }

        /** Whether it keeps or changes a record. */
        public boolean keeps() {
            return this == SAVE || this == CHANGE || this == RENUMBER || this == DELETE || this == SHARE;
        }

        private static final Map<Integer, Kind> BY_CODE =
                Arrays.stream(values()).collect(Collectors.toMap(kind -> (int) kind.code, Function.identity()));

        private final byte code;
        private final String word;

        Kind(int code, String word) {
            this.code = (byte) code;
            this.word = word;
        }

        /** By this the tables know it; it never changes. */
        public byte code() {
            return code;
        }

        /** @throws NoSuchElementException for a code that stands for none */
        public static Kind of(byte code) {
            return Optional.ofNullable(BY_CODE.get((int) code)).orElseThrow();
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
