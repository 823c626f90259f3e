package org.youngtally.core.act;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.youngtally.core.access.AccountChange;
import org.youngtally.core.label.LabelJob;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.record.LineOrder;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;

/**
 * Something that somebody asks the ledger to do. Every change takes this road.
 *
 * @param <A> what it is answered with
 */
public sealed interface Act<A extends Answer> {

    /**
     * Take positions of a series.
     *
     * @param date the business date; absent for today, as the ledger's clock says when it decides
     * @param fields what the record gives for the fields of the series, as it was written; the unit is one of them
     * @param quantity how many, 1 or more
     * @param reference the caller's own name for what the numbers are for
     * @param purpose the kind and unit that they are for
     */
    record Allocate(
            String series,
            Optional<LocalDate> date,
            Map<String, String> fields,
            long quantity,
            Form form,
            Optional<String> reference,
            Purpose purpose,
            RequestMark mark)
            implements Act<Answer.Numbers> {
        public Allocate {
            fields = Map.copyOf(fields);
        }

        /** For no kind or unit that is known. */
        public Allocate(
                String series,
                Optional<LocalDate> date,
                Map<String, String> fields,
                long quantity,
                Form form,
                Optional<String> reference,
                RequestMark mark) {
            this(series, date, fields, quantity, form, reference, Purpose.NONE, mark);
        }

        /** Of a series that takes no fields. */
        public Allocate(
                String series,
                Optional<LocalDate> date,
                long quantity,
                Form form,
                Optional<String> reference,
                RequestMark mark) {
            this(series, date, Map.of(), quantity, form, reference, mark);
        }
    }

    /** How numbers are taken. */
    sealed interface Form {
        /** Each stands alone. */
        record Singles() implements Form {}

        /**
         * Each stands alone, and is set aside until it is confirmed.
         *
         * @param time how long, more than nothing
         */
        record Held(Duration time) implements Form {}

        /** One, which somebody typed. */
        record Typed(String text) implements Form {}

        /**
         * All together, to be used elsewhere.
         *
         * @param holder who uses them
         */
        record Block(Optional<String> holder) implements Form {}

        Form SINGLES = new Singles();
        Form BLOCK = new Block(Optional.empty());

        /** For labels: each alone, or a block where these are many and the series has blocks. */
        static Form ofLabels(Series series, long quantity) {
            boolean blocks = !series.proofWaived() && !series.order().repeats();
            return blocks && quantity > LabelDecision.MOST_SINGLES ? BLOCK : SINGLES;
        }

        default boolean isBlock() {
            return this instanceof Block;
        }
    }

    /**
     * Say what became of numbers that were given.
     *
     * @param reason why; a number is not voided without one
     */
    record Settle(String series, Selection selection, Deed deed, Optional<String> reason, RequestMark mark)
            implements Act<Answer.Settlement> {}

    /** What is done with numbers that were given. */
    enum Deed {
        /** What was held is issued. */
        CONFIRM("confirm"),
        /** What was held is given back. */
        RELEASE("release"),
        /** What was issued is given back unused. */
        RETURN("return"),
        /** It stands for nothing any more, and is never given again. */
        VOID("void"),
        /** Numbers of a block are reported as used. */
        USE("use");

        private final String word;

        Deed(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /**
     * End every hold whose time is up.
     *
     * @param now the time
     */
    record Lapse(Instant now) implements Act<Answer.Settlement> {}

    /**
     * Hand a part of a block to somebody else, as a block of its own.
     *
     * @param block by the entry that made it
     * @param quantity how many of its numbers that were not reported yet, from its first on
     */
    record Split(long block, long quantity, Optional<String> holder, RequestMark mark)
            implements Act<Answer.Settlement> {}

    /**
     * Close a period.
     *
     * @param note what the one who closes it has to say
     */
    record Close(Period period, Optional<String> note, RequestMark mark) implements Act<Answer.Settlement> {}

    /**
     * Open a closed period again.
     *
     * @param closing the entry that closed it
     */
    record Reopen(long closing, Optional<String> reason, RequestMark mark) implements Act<Answer.Settlement> {}

    /**
     * Define namespaces, codebooks, series, units, kinds and routes, all of them or none.
     *
     * @param files the files that they were written in; none where they come from elsewhere
     * @param expects the version that the one thing defined is to have now, 0 for one that is not to exist yet; absent
     *     for whichever
     */
    record Define(Drafts drafts, List<KeptFile> files, Optional<Integer> expects) implements Act<Answer.Definitions> {
        public Define {
            files = List.copyOf(files);
        }

        public Define(List<SeriesDraft> series, Optional<Integer> expects) {
            this(Drafts.of(series), List.of(), expects);
        }
    }

    /**
     * Take a route away.
     *
     * @param route by its key
     * @param expects the version that it is to have now; absent for whichever
     */
    record RemoveRoute(String route, Optional<Integer> expects) implements Act<Answer.Definitions> {}

    /**
     * Change an account.
     *
     * @param note what is done, in words, without anything secret
     */
    record ChangeAccount(String account, AccountChange change, String note, RequestMark mark)
            implements Act<Answer.AccountState> {}

    /**
     * Keep a new record and take its number; or find the one that is known by what it is known by.
     *
     * @param values of its fields, as they were written
     * @param lines in order
     * @param typed the number as somebody typed it; absent for one that is counted
     * @param date the business date; absent for that of the record, or today
     * @param series the one that the one who asks may take from; another is not taken from
     */
    record SaveRecord(
            String kind,
            String unit,
            Map<String, String> values,
            List<LineOrder.Wanted> lines,
            Optional<String> typed,
            Optional<LocalDate> date,
            String series,
            RequestMark mark)
            implements Act<Answer.Record> {
        public SaveRecord {
            values = Map.copyOf(values);
            lines = List.copyOf(lines);
        }
    }

    /**
     * Change a record that is kept.
     *
     * @param unit the one in which it is changed
     * @param expects the version that it is to have now; absent for whichever
     */
    record ChangeRecord(long record, String unit, RecordChange change, Optional<Integer> expects, RequestMark mark)
            implements Act<Answer.Record> {}

    /**
     * Take the numbers of many records that are kept elsewhere, in their order: all of them or none.
     *
     * @param rows of the fields of each, as they were written
     * @param series those that the one who asks may take from
     */
    record FillTable(
            String kind,
            String unit,
            List<Map<String, String>> rows,
            Optional<LocalDate> date,
            Set<String> series,
            RequestMark mark)
            implements Act<Answer.Table> {
        public FillTable {
            rows = List.copyOf(rows);
            series = Set.copyOf(series);
        }
    }

    /**
     * Go on behind numbers that exist elsewhere: those that the counter has not come to yet are pre-existing from now
     * on.
     *
     * @param version of the series by which the number was read
     * @param lane in which the next number lies
     * @param next its position
     * @param reason why
     */
    record Continue(
            String series,
            int version,
            LaneKey lane,
            Particulars particulars,
            long next,
            Optional<String> reason,
            RequestMark mark)
            implements Act<Answer.Settlement> {}

    /**
     * Say how far the numbers of a series may have been issued by a later state of the ledger that is lost. Those that
     * this one does not know of are in doubt from then on.
     *
     * @param version of the series by which the numbers were read
     * @param lanes those in which numbers may have been issued; in all others none was
     * @param reason where it is known from
     */
    record StateHighest(String series, int version, List<HighestIn> lanes, Optional<String> reason, RequestMark mark)
            implements Act<Answer.Settlement> {
        public StateHighest {
            lanes = List.copyOf(lanes);
        }
    }

    /** @param highest the last position that may have been issued */
    record HighestIn(LaneKey lane, Particulars particulars, long highest) {}

    /**
     * Allocate numbers again in a ledger of which a later state is lost, once that has been stated of all series.
     *
     * @param epoch that begins by it
     */
    record Resume(String epoch, Optional<String> reason, RequestMark mark) implements Act<Answer.Settlement> {}

    /** A step of carrying out a plan for the numbers of a table. */
    record CarryOut(String series, PlanStep step, RequestMark mark) implements Act<Answer.Settlement> {}

    /**
     * Number rows of a table by a plan.
     *
     * @param plan the entry that began it
     * @param from how many rows have their number already
     */
    record NumberRows(String series, long plan, long from, List<PlanRow> rows, RequestMark mark)
            implements Act<Answer.Table> {
        public NumberRows {
            rows = List.copyOf(rows);
        }
    }

    /**
     * Rows in a row that get a number each, for the same.
     *
     * @param fields as they were written
     */
    record PlanRow(LocalDate date, Map<String, String> fields, int quantity) {
        public PlanRow {
            fields = Map.copyOf(fields);
        }
    }

    /**
     * Number items of a document that is kept elsewhere, in their order: all of them or none.
     *
     * @param document the document's own name, within its series
     * @param rows each for one item
     * @param date the business date; absent for today
     * @param after the last entry that numbered items of this document; 0 for none. Another one has numbered some of
     *     them since otherwise
     */
    record NumberDocument(
            String series,
            String document,
            List<DocumentRow> rows,
            Optional<LocalDate> date,
            long after,
            RequestMark mark)
            implements Act<Answer.Table> {
        public NumberDocument {
            rows = List.copyOf(rows);
        }
    }

    /**
     * @param item by which the document knows what is numbered
     * @param fields as they were written
     */
    record DocumentRow(String item, Map<String, String> fields) {
        public DocumentRow {
            fields = Map.copyOf(fields);
        }
    }

    /**
     * Print labels with new numbers.
     *
     * @param job its date is not looked at
     * @param date the business date; absent for today
     * @param rows in the order of the numbers
     */
    record PrintLabels(LabelJob job, Optional<LocalDate> date, List<LabelRow> rows, RequestMark mark)
            implements Act<Answer.Labels> {
        public PrintLabels {
            rows = List.copyOf(rows);
            long numbers = rows.stream().mapToLong(LabelRow::quantity).sum();
            if (numbers != job.numbers()) throw new IllegalArgumentException(numbers + " numbers for " + job.numbers());
        }

        /** The kind and unit that they are for. */
        public Purpose purpose() {
            return Purpose.of(job);
        }
    }

    /**
     * Numbers of labels in a row, for the same.
     *
     * @param fields of the series, as they were written
     */
    record LabelRow(Map<String, String> fields, long quantity) {
        public LabelRow {
            fields = Map.copyOf(fields);
        }
    }

    /**
     * Do something with labels of a job.
     *
     * @param series of the job
     * @param job the entry that began it
     * @param purpose the kind and unit that they are for
     */
    record ChangeLabels(String series, long job, LabelStep step, Purpose purpose, RequestMark mark)
            implements Act<Answer.Labels> {}

    /** By what a repetition of it is known; absent where nobody asked for it, or repeating it does no harm. */
    default Optional<RequestMark> known() {
        return switch (this) {
            case Allocate act -> Optional.of(act.mark());
            case Settle act -> Optional.of(act.mark());
            case Split act -> Optional.of(act.mark());
            case Close act -> Optional.of(act.mark());
            case Reopen act -> Optional.of(act.mark());
            case Lapse act -> Optional.empty();
            case Define act -> Optional.empty();
            case RemoveRoute act -> Optional.empty();
            case ChangeAccount act -> Optional.of(act.mark());
            case SaveRecord act -> Optional.of(act.mark());
            case ChangeRecord act -> Optional.of(act.mark());
            case FillTable act -> Optional.of(act.mark());
            case Continue act -> Optional.of(act.mark());
            case StateHighest act -> Optional.of(act.mark());
            case Resume act -> Optional.of(act.mark());
            case CarryOut act -> Optional.of(act.mark());
            case NumberRows act -> Optional.of(act.mark());
            case NumberDocument act -> Optional.of(act.mark());
            case PrintLabels act -> Optional.of(act.mark());
            case ChangeLabels act -> Optional.of(act.mark());
        };
    }
}
