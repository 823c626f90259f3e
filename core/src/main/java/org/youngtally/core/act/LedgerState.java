package org.youngtally.core.act;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import org.youngtally.core.access.Account;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.organisation.Organisation;
import org.youngtally.core.organisation.UnitChoices;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.RangeUse;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;

/** What a decision rests on: the ledger as it stands after every act before this one. */
public interface LedgerState extends RowReader {

    /** The series in its newest version. */
    Optional<Series> series(String key);

    Collection<Series> allSeries();

    /** The codebook in its newest version. */
    Optional<Codebook> codebook(String key);

    /** What a field takes its choices from: a codebook, or the units. */
    default Optional<Codebook> choices(String key) {
        return UnitChoices.orCodebook(key, organisation(), this::codebook);
    }

    Collection<Codebook> allCodebooks();

    /** The namespace in its newest version, if it was ever defined. */
    Optional<Namespace> namespace(String key);

    /** How the identifiers of a namespace are compared; absent for one that nothing was defined in. */
    Optional<Comparison> comparison(String namespace);

    /** Units, kinds and routes in their newest versions. */
    Organisation organisation();

    /** Every account, by name. */
    Map<String, Account> accounts();

    /** The lane, if it was ever used. */
    Optional<LaneState> lane(LaneKey key);

    /** What a lane counts for, by its number. */
    LaneKey laneKey(int lane);

    /** The number that the next new lane gets. */
    int nextLane();

    /** How far each used range of a series was used. */
    List<RangeUse> uses(String series);

    /** How far everything is counted. */
    Counters counters();

    /** The plan for a table of a series that is begun and not ended. */
    default Optional<TablePlan.Open> plan(String series) {
        return counters().plan(series);
    }

    /** The act that was done under a key of an account. */
    Optional<EarlierAct> byKey(String account, String key);

    /** The act that holds a reference of a series; perhaps absent where nobody has objected to its use yet. */
    Optional<EarlierAct> byReference(String series, String reference);

    /** Of a lane, by their first positions: all that are returned, and all that lie at or behind the next one. */
    NavigableMap<Long, Stretch> apart(int lane);

    /** How a position read before it was given anew. */
    List<Origin> retired(int lane, long position);

    /** The stretches of a lane between two positions, cut to them, in order. */
    @Override
    List<Stretch> stretches(int lane, long from, long to);

    /**
     * The entry by which it was stated what a lost state of the ledger may have issued of a series; 0 where none was
     * lost. Nobody knows of numbers from before it whether they were given back, and issued again, by what is lost.
     */
    long statedAt(String series);

    /** The number that the next new record gets. */
    long nextRecord();

    /** A state that stands as this one, and can take in effects without changing it. */
    StateInMemory ahead();

    /** The numbers that are held until this instant or less long, those first that lapse first. */
    List<Span> due(Instant now, int most);

    /**
     * A period that is closed, and concerns a date of a series.
     *
     * @return the entry that closed it
     */
    Optional<Closed> closedAt(Series series, LocalDate date);

    /** The closed periods. */
    Collection<Closed> closed();

    /**
     * @param next the lowest position that the counter has not passed
     * @param skipped how many of the positions below that one were passed over
     * @param latest the latest business date of any number given; absent before the first
     */
    record LaneState(int lane, long next, long skipped, Optional<LocalDate> latest) {}

    record EarlierAct(long seq, String digest, Optional<AskedFor> asked) {
        public EarlierAct(long seq, String digest) {
            this(seq, digest, Optional.empty());
        }
    }

    /** What an entry that took numbers was asked for, besides what its numbers keep: how, and for which unit. */
    record AskedFor(Way way, Optional<String> unit) {}

    /** How numbers are taken. */
    enum Way {
        SINGLES,
        HELD,
        TYPED,
        BLOCK;

        static Way of(Act.Form form) {
            return switch (form) {
                case Act.Form.Singles singles -> SINGLES;
                case Act.Form.Held held -> HELD;
                case Act.Form.Typed typed -> TYPED;
                case Act.Form.Block block -> BLOCK;
            };
        }
    }

    /** @param spans what was allocated, whatever its state is now */
    record Taken(String series, Optional<String> reference, List<Span> spans) {}

    /** @param closing the entry that closed it */
    record Closed(long closing, Period period) {}

    /**
     * @param lane its number
     * @param first the lowest position that stands for something, -1 where none does
     * @param last the highest one
     * @param held how many are held
     * @param returned those that are returned
     */
    record Inside(int lane, long first, long last, long issued, long held, long voids, List<Stretch> returned) {}
}
