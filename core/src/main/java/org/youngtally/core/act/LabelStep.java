package org.youngtally.core.act;

import java.util.List;
import java.util.Optional;
import org.youngtally.core.label.LabelState;

/** What is done with labels of a job. */
public sealed interface LabelStep {
    /**
     * Labels in a row, by their places in the job, from 0; both ends included.
     *
     * @param from the place of the first
     * @param to the place of the last
     */
    record Places(long from, long to) {}

    /**
     * They are about to be sent.
     *
     * @param printer its address; absent where they are handed out as a file
     */
    record Send(List<Places> places, Optional<String> printer) implements LabelStep {
        public Send {
            places = List.copyOf(places);
        }

        public Send(List<Places> places) {
            this(places, Optional.empty());
        }
    }

    /**
     * Something was heard of labels that were sent.
     *
     * @param now {@link LabelState#PRINTED} or {@link LabelState#UNCONFIRMED}
     * @param reason what was heard
     */
    record Note(Places places, LabelState now, Optional<String> reason) implements LabelStep {
        public Note(Places places, LabelState now) {
            this(places, now, Optional.empty());
        }
    }

    /** They are printed, as a person says. */
    record Confirm(List<Places> places) implements LabelStep {
        public Confirm {
            places = List.copyOf(places);
        }
    }

    /** Print them again with their numbers. What was unconfirmed is spoiled then. */
    record Reprint(List<Places> places, Optional<String> reason) implements LabelStep {
        public Reprint {
            places = List.copyOf(places);
        }
    }

    /**
     * They are of no use. A number that no other label bears becomes void.
     *
     * @param replace whether each is printed again, with a new number where its own became void
     */
    record Spoil(List<Places> places, Optional<String> reason, boolean replace) implements LabelStep {
        public Spoil {
            places = List.copyOf(places);
        }
    }

    /**
     * Do not print them.
     *
     * @param places empty for all that wait
     */
    record Cancel(List<Places> places, Optional<String> reason) implements LabelStep {
        public Cancel {
            places = List.copyOf(places);
        }
    }

    /** What is done, in a word for people. */
    default String word() {
        return switch (this) {
            case Send send -> "send";
            case Note note -> "note";
            case Confirm confirm -> "confirm";
            case Reprint reprint -> "reprint";
            case Spoil spoil -> "spoil";
            case Cancel cancel -> "cancel";
        };
    }
}
