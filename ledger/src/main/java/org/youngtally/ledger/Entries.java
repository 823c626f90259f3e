package org.youngtally.ledger;

import java.util.List;
import java.util.Optional;
import java.util.function.IntFunction;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.Period;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.ledger.journal.Entry;

/** What an entry says of the act that it records. */
final class Entries {
    private Entries() {}

    static Entry.Kind kind(Act act) {
        return switch (act) {
            case Act.Define define -> Entry.Kind.DEFINE;
            case Act.Allocate allocate -> switch (allocate.form()) {
                case Act.Form.Singles singles -> Entry.Kind.ALLOCATE;
                case Act.Form.Block block -> Entry.Kind.BLOCK;
                case Act.Form.Held held -> Entry.Kind.HOLD;
                case Act.Form.Typed typed -> Entry.Kind.TYPE;
            };
            case Act.Settle settle -> switch (settle.deed()) {
                case CONFIRM -> Entry.Kind.CONFIRM;
                case RELEASE -> Entry.Kind.RELEASE;
                case RETURN -> Entry.Kind.RETURN;
                case VOID -> Entry.Kind.VOID;
                case USE -> Entry.Kind.USE;
            };
            case Act.Lapse lapse -> Entry.Kind.LAPSE;
            case Act.Split split -> Entry.Kind.SPLIT;
            case Act.Close close -> Entry.Kind.CLOSE;
            case Act.Reopen reopen -> Entry.Kind.REOPEN;
            case Act.RemoveRoute remove -> Entry.Kind.REMOVE;
            case Act.ChangeAccount change -> Entry.Kind.ACCESS;
        };
    }

    /**
     * @param series of a block, by the number of its lane
     * @param effects what became of it
     */
    static Optional<Entry.Request> request(Act act, List<Effect> effects, IntFunction<LaneKey> series) {
        return switch (act) {
            case Act.Define define -> Optional.empty();
            case Act.Lapse lapse -> Optional.empty();
            case Act.RemoveRoute remove -> Optional.empty();
            case Act.ChangeAccount change -> Optional.of(request(Optional.empty(), Optional.empty(), 0, Optional.empty(), change.mark(), Optional.of(change.note())));
            case Act.Allocate a -> Optional.of(new Entry.Request(Optional.of(a.series()), Optional.of(particulars(effects)), a.quantity(), a.reference(), a.mark().key(), a.mark().digest(), a.form() instanceof Act.Form.Block block ? block.holder() : Optional.empty(), a.purpose()));
            case Act.Settle a -> Optional.of(request(Optional.of(a.series()), Optional.empty(), quantity(effects), Optional.empty(), a.mark(), a.reason()));
            case Act.Split a -> Optional.of(request(effects.stream().filter(Effect.Handed.class::isInstance).findFirst().map(effect -> series.apply(((Effect.Handed) effect).lane()).series()), Optional.empty(), a.quantity(), Optional.empty(), a.mark(), a.holder()));
            case Act.Close a -> Optional.of(request(a.period().scope() == Period.Scope.SERIES ? Optional.of(a.period().key()) : Optional.empty(), Optional.empty(), quantity(effects), Optional.empty(), a.mark(), a.note()));
            case Act.Reopen a -> Optional.of(request(Optional.empty(), Optional.empty(), 0, Optional.empty(), a.mark(), a.reason()));
        };
    }

    private static Entry.Request request(Optional<String> series, Optional<Particulars> particulars, long quantity, Optional<String> reference, RequestMark mark, Optional<String> note) {
        return new Entry.Request(series, particulars, quantity, reference, mark.key(), mark.digest(), note, Purpose.NONE);
    }

    private static long quantity(List<Effect> effects) { return effects.stream().filter(Effect.Settled.class::isInstance).mapToLong(effect -> ((Effect.Settled) effect).quantity()).sum(); }

    /** What all numbers of one act were taken for. */
    private static Particulars particulars(List<Effect> effects) {
        return effects.stream().filter(Effect.Issued.class::isInstance).map(effect -> ((Effect.Issued) effect).particulars()).findFirst().orElseThrow();
    }
}
