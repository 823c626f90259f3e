package org.youngtally.core.act;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.label.JobLabels.Part;
import org.youngtally.core.label.KeptLayout;
import org.youngtally.core.label.LabelJob;
import org.youngtally.core.label.LabelPiece;
import org.youngtally.core.label.LabelState;
import org.youngtally.core.label.LabelStretch;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.Series;

/** Allocates the numbers of a job of labels, and says what may be done with its labels. */
final class LabelDecision {
    /** The most labels that are printed again in one act. */
    static final long MOST_REPRINTED = 10_000;

    /**
     * The most runs of labels in one state that a job may come to: what each act costs grows with them, and nobody has
     * so many who does not try to.
     */
    static final int MOST_RUNS = 20_000;

    /** Above this the numbers of a job are allocated as a block. */
    static final long MOST_SINGLES = 1_000;

    private final LedgerState state;
    private final Instant now;
    private final LocalDate today;

    LabelDecision(LedgerState state, Instant now, LocalDate today) {
        this.state = state;
        this.now = now;
        this.today = today;
    }

    Decision print(Act.PrintLabels act) {
        LabelJob job = act.job();
        KeptLayout kept = state.organisation().layouts().get(job.layout());
        if (kept == null || kept.version() != job.version()) return refused(new Refusal.LayoutChanged(job.layout()));
        StateInMemory ahead = state.ahead();
        var effects = new ArrayList<Effect>();
        int row = 0;
        for (Act.LabelRow wanted : act.rows()) {
            Decision decision = Decider.allocate(ahead, allocate(act, wanted), now, today);
            if (!(decision instanceof Decision.Done done)) {
                Refusal refusal = ((Decision.Refused) decision).refusal();
                return refused(job.table().isPresent() ? new Refusal.RowFaulty(row, refusal) : refusal);
            }
            ahead.take(0, Optional.empty(), done.effects());
            effects.addAll(done.effects());
            row += (int) wanted.quantity();
        }
        var pieces = new ArrayList<LabelPiece>();
        for (Effect effect : List.copyOf(effects))
            if (effect instanceof Effect.Issued issued)
                add(pieces, piece(pieces.isEmpty() ? 0 : pieces.getLast().to() + 1, issued, job));
        effects.add(new Effect.LabelJobBegun(job.on(date(effects)), pieces));
        return new Decision.Done(effects);
    }

    private static LabelPiece piece(long from, Effect.Issued issued, LabelJob job) {
        long each = job.eachWithCopies();
        return new LabelPiece(
                from, from + issued.quantity() * each - 1, from, issued.lane(), issued.from(), each, 0, false);
    }

    private static LocalDate date(List<Effect> effects) {
        return effects.stream()
                .filter(Effect.Issued.class::isInstance)
                .map(effect -> ((Effect.Issued) effect).particulars().date())
                .findFirst()
                .orElseThrow();
    }

    private Act.Allocate allocate(Act.PrintLabels act, Act.LabelRow row) {
        return new Act.Allocate(
                act.job().series(),
                act.date(),
                row.fields(),
                row.quantity(),
                state.series(act.job().series())
                        .map(series -> Act.Form.ofLabels(series, row.quantity()))
                        .orElse(Act.Form.SINGLES),
                Optional.empty(),
                act.purpose(),
                act.mark());
    }

    private static void add(List<LabelPiece> to, LabelPiece next) {
        Optional<LabelPiece> joined =
                to.isEmpty() ? Optional.empty() : to.getLast().and(next);
        if (joined.isPresent()) to.set(to.size() - 1, joined.get());
        else to.add(next);
    }

    Decision change(Act.ChangeLabels act) {
        Optional<JobLabels> known =
                state.labels(act.job()).filter(each -> each.job().series().equals(act.series()));
        if (known.isEmpty()) return refused(new Refusal.UnknownLabelJob(act.job()));
        return new Change(known.get(), act).decide();
    }

    private static Decision refused(Refusal refusal) {
        return new Decision.Refused(refusal);
    }

    /** One step with labels of one job; its effects so far are in {@code labels}. */
    private final class Change {
        private final Act.ChangeLabels act;
        private final List<Effect> effects = new ArrayList<>();
        private final List<LabelPiece> added = new ArrayList<>();
        private JobLabels labels;

        Change(JobLabels labels, Act.ChangeLabels act) {
            this.labels = labels;
            this.act = act;
        }

        Decision decide() {
            return switch (act.step()) {
                case LabelStep.Send send -> send(send);
                case LabelStep.Note note -> note(List.of(note.places()), note.now());
                case LabelStep.Confirm confirm -> note(confirm.places(), LabelState.PRINTED);
                case LabelStep.Reprint reprint -> reprint(reprint);
                case LabelStep.Spoil spoil -> spoil(spoil);
                case LabelStep.Cancel cancel -> cancel(cancel);
            };
        }

        private Decision done() {
            added.forEach(piece -> effects.add(new Effect.LabelsAdded(labels.seq(), piece)));
            return labels.stretches().size() > MOST_RUNS
                    ? refused(new Refusal.TooManyLabels(
                            labels.seq(), labels.stretches().size(), MOST_RUNS))
                    : new Decision.Done(effects);
        }

        private void move(List<Part> parts, LabelState to) {
            for (Part part : parts)
                effects.add(new Effect.LabelsMoved(labels.seq(), part.from(), part.to(), part.state(), to));
            labels = labels.with(parts.stream()
                    .map(part -> new LabelStretch(part.from(), part.to(), to))
                    .toList());
        }

        /** The labels at some places, each once, in order; or why there are none. */
        private Optional<Refusal> choose(List<LabelStep.Places> places, List<Part> to) {
            LabelStep.Places before = new LabelStep.Places(-1, -1);
            for (LabelStep.Places each : places) {
                if (each.from() < 0 || each.to() < each.from() || each.to() >= labels.size())
                    return Optional.of(new Refusal.NoSuchLabel(labels.seq(), each.from(), each.to(), labels.size()));
                if (each.from() <= before.to())
                    return Optional.of(new Refusal.LabelsTwice(labels.seq(), each.from(), each.to()));
                to.addAll(labels.parts(each.from(), each.to()));
                if (to.size() > Decider.MOST_SETTLED)
                    return Optional.of(new Refusal.TooManyLabels(labels.seq(), to.size(), Decider.MOST_SETTLED));
                before = each;
            }
            return to.isEmpty()
                    ? Optional.of(new Refusal.NoLabels(labels.seq(), act.step().word()))
                    : Optional.empty();
        }

        private Refusal unfit(Part part) {
            return new Refusal.LabelUnfit(
                    labels.seq(), part.from(), part.state(), act.step().word());
        }

        private Decision send(LabelStep.Send send) {
            var parts = new ArrayList<Part>();
            Optional<Refusal> refusal = choose(send.places(), parts);
            if (refusal.isPresent()) return refused(refusal.get());
            for (Part part : parts) if (part.state() != LabelState.WAITING) return refused(unfit(part));
            for (LabelStep.Places places : send.places())
                effects.add(new Effect.LabelsMoved(
                        labels.seq(), places.from(), places.to(), LabelState.WAITING, LabelState.SENT, send.printer()));
            return done();
        }

        /** Only what is on its way: somebody may have said more of a part of them since. */
        private Decision note(List<LabelStep.Places> places, LabelState to) {
            var parts = new ArrayList<Part>();
            Optional<Refusal> refusal = choose(places, parts);
            if (refusal.isPresent()) return refused(refusal.get());
            List<Part> told = parts.stream()
                    .filter(part -> part.state() == LabelState.SENT
                            || to == LabelState.PRINTED && part.state() == LabelState.UNCONFIRMED)
                    .toList();
            if (told.isEmpty()) return refused(unfit(parts.getFirst()));
            move(told, to);
            return done();
        }

        private Decision reprint(LabelStep.Reprint step) {
            var parts = new ArrayList<Part>();
            Optional<Refusal> refusal = choose(step.places(), parts);
            if (refusal.isPresent()) return refused(refusal.get());
            if (quantity(parts) > MOST_REPRINTED)
                return refused(new Refusal.TooManyLabels(labels.seq(), quantity(parts), MOST_REPRINTED));
            for (Part part : parts) {
                if (part.state() == LabelState.WAITING || part.state() == LabelState.CANCELLED)
                    return refused(unfit(part));
                Optional<Refusal> dead = dead(part);
                if (dead.isPresent()) return refused(dead.get());
                again(part.piece(), part.from(), part.to());
            }
            // Whoever prints them anew says that the others are of no use.
            move(
                    parts.stream()
                            .filter(part -> part.state() == LabelState.SENT || part.state() == LabelState.UNCONFIRMED)
                            .toList(),
                    LabelState.SPOILED);
            return done();
        }

        private void again(LabelPiece piece, long from, long to) {
            long place = added.isEmpty() ? labels.size() : added.getLast().to() + 1;
            add(added, piece.again(from, to, place));
        }

        /** A number that stands for nothing any more is not printed. */
        private Optional<Refusal> dead(Part part) {
            LabelPiece piece = part.piece();
            for (Stretch stretch :
                    state.stretches(piece.lane(), piece.positionAt(part.from()), piece.positionAt(part.to())))
                if (!stretch.state().isLive()) {
                    Series series = state.series(labels.job().series()).orElseThrow();
                    return Optional.of(new Refusal.LabelDead(
                            labels.seq(),
                            Math.max(
                                    part.from(),
                                    piece.firstOf(Math.max(stretch.from(), piece.positionAt(part.from())))),
                            Identifiers.at(series, state.laneKey(piece.lane()), stretch, stretch.from()),
                            stretch.state()));
                }
            return Optional.empty();
        }

        /** Labels that bear the same number, in the order of their places. */
        private Map<Span, List<Part>> byNumber(List<Part> parts) {
            var numbers = new LinkedHashMap<Span, List<Part>>();
            for (Part part : parts) {
                LabelPiece piece = part.piece();
                for (long at = piece.positionAt(part.from()); at <= piece.positionAt(part.to()); at++)
                    numbers.computeIfAbsent(new Span(piece.lane(), at, at), added -> new ArrayList<>())
                            .add(new Part(
                                    piece,
                                    Math.max(part.from(), piece.firstOf(at)),
                                    Math.min(part.to(), piece.lastOf(at)),
                                    part.state()));
            }
            return numbers;
        }

        private static long quantity(List<Part> parts) {
            return parts.stream().mapToLong(part -> part.to() - part.from() + 1).sum();
        }

        private List<Part> live(Span number) {
            return labels.bearing(number.lane(), number.from()).stream()
                    .filter(part -> part.state().isLive())
                    .toList();
        }

        private Decision spoil(LabelStep.Spoil step) {
            if (step.reason().isEmpty())
                return refused(new Refusal.ReasonMissing(act.step().word()));
            var parts = new ArrayList<Part>();
            Optional<Refusal> refusal = choose(step.places(), parts);
            if (refusal.isPresent()) return refused(refusal.get());
            long numbers = 0;
            for (Part part : parts) {
                if (!part.state().isOut()) return refused(unfit(part));
                numbers += part.piece().positionAt(part.to()) - part.piece().positionAt(part.from()) + 1;
            }
            if (numbers > Decider.MOST_SETTLED)
                return refused(new Refusal.TooManyLabels(labels.seq(), numbers, Decider.MOST_SETTLED));
            move(parts, LabelState.SPOILED);
            var lost = new LinkedHashMap<Span, List<Part>>();
            byNumber(parts).forEach((number, spoiled) -> {
                long left = quantity(live(number));
                if (left == 0) lost.put(number, spoiled);
                else if (step.replace()) again(spoiled, labels.job().eachWithCopies() - left);
            });
            List<Effect> voided = new SettlingDecision(state).settle(List.copyOf(lost.keySet()), Act.Deed.VOID);
            effects.addAll(voided);
            Optional<Refusal> none = step.replace() ? replace(lost) : Optional.empty();
            return none.<Decision>map(Decision.Refused::new).orElseGet(this::done);
        }

        /** As many of them as there are to be. */
        private void again(List<Part> spoiled, long wanted) {
            long left = wanted;
            for (Part part : spoiled) {
                long last = Math.min(part.to(), part.from() + left - 1);
                if (last < part.from()) return;
                again(part.piece(), part.from(), last);
                left -= last - part.from() + 1;
            }
        }

        /** Allocates a number for each that is lost, for the same, and adds its labels. */
        private Optional<Refusal> replace(Map<Span, List<Part>> lost) {
            StateInMemory ahead = state.ahead();
            ahead.take(0, Optional.empty(), effects);
            Series series = state.series(labels.job().series()).orElseThrow();
            if (!lost.isEmpty() && series.retired())
                return Optional.of(new Refusal.Retired(Refusal.What.SERIES, series.key()));
            var groups = new LinkedHashMap<Map<String, String>, List<List<Part>>>();
            lost.forEach((number, spoiled) -> groups.computeIfAbsent(fields(number), added -> new ArrayList<>())
                    .add(spoiled));
            for (Map.Entry<Map<String, String>, List<List<Part>>> group : groups.entrySet()) {
                Decision decision = Decider.take(
                        ahead,
                        series,
                        new Act.Allocate(
                                series.key(),
                                Optional.of(today),
                                group.getKey(),
                                group.getValue().size(),
                                Act.Form.SINGLES,
                                Optional.empty(),
                                act.mark()),
                        new Particulars(today, group.getKey()),
                        now);
                if (!(decision instanceof Decision.Done done))
                    return Optional.of(((Decision.Refused) decision).refusal());
                ahead.take(0, Optional.empty(), done.effects());
                effects.addAll(done.effects());
                replaced(done.effects(), group.getValue());
            }
            return Optional.empty();
        }

        private Map<String, String> fields(Span number) {
            return state.stretches(number.lane(), number.from(), number.from())
                    .getFirst()
                    .origin()
                    .particulars()
                    .fields();
        }

        private void replaced(List<Effect> taken, List<List<Part>> spoiled) {
            int next = 0;
            for (Effect effect : taken) {
                if (!(effect instanceof Effect.Issued issued)) continue;
                for (long position = issued.from(); position <= issued.to(); position++)
                    for (Part part : spoiled.get(next++)) {
                        long place = added.isEmpty()
                                ? labels.size()
                                : added.getLast().to() + 1;
                        long quantity = part.to() - part.from() + 1;
                        add(
                                added,
                                new LabelPiece(
                                        place,
                                        place + quantity - 1,
                                        part.piece().originalOf(part.from()),
                                        issued.lane(),
                                        position,
                                        quantity,
                                        0,
                                        false));
                    }
            }
        }

        private Decision cancel(LabelStep.Cancel step) {
            var parts = new ArrayList<Part>();
            List<LabelStep.Places> places = step.places().isEmpty()
                    ? labels.waiting().stream()
                            .map(each -> new LabelStep.Places(each.from(), each.to()))
                            .toList()
                    : step.places();
            Optional<Refusal> refusal = choose(places, parts);
            if (refusal.isPresent()) return refused(refusal.get());
            for (Part part : parts) if (part.state() != LabelState.WAITING) return refused(unfit(part));
            move(parts, LabelState.CANCELLED);
            var unused = new ArrayList<Span>();
            var used = new ArrayList<Span>();
            for (Part part : parts) unborne(part, unused, used);
            boolean returns =
                    state.series(labels.job().series()).orElseThrow().policy().returns();
            effects.addAll(new SettlingDecision(state).settle(unused, returns ? Act.Deed.RETURN : Act.Deed.VOID));
            effects.addAll(new SettlingDecision(state).settle(used, Act.Deed.VOID));
            return done();
        }

        /**
         * The numbers of cancelled labels that no label bears any more.
         *
         * @param unused those that never were on a label that went out
         * @param used the others
         */
        private void unborne(Part part, List<Span> unused, List<Span> used) {
            LabelPiece piece = part.piece();
            long first = piece.positionAt(part.from());
            long last = piece.positionAt(part.to());
            // At both ends labels may be left that bear the same number, and others where some were printed again.
            var apart = new TreeSet<Long>(List.of(first, last));
            for (LabelPiece other : labels.pieces())
                if (other != piece && other.lane() == piece.lane())
                    for (long at = Math.max(first, other.position()); at <= Math.min(last, other.lastPosition()); at++)
                        apart.add(at);
            long next = first;
            for (long at : apart) {
                if (at > next) unused.add(new Span(piece.lane(), next, at - 1));
                next = at + 1;
                List<Part> bearing = labels.bearing(piece.lane(), at);
                if (bearing.stream().anyMatch(each -> each.state().isLive())) continue;
                boolean out = bearing.stream().anyMatch(each -> each.state() == LabelState.SPOILED);
                (out ? used : unused).add(new Span(piece.lane(), at, at));
            }
        }
    }
}
