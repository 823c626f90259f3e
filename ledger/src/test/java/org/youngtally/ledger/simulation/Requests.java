package org.youngtally.ledger.simulation;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.function.Function;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Act.Deed;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.act.Period;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.RecordChange;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.act.Selection;
import org.youngtally.ledger.simulation.Model.Place;

/** Random requests of every sort, sensible ones mostly, and others. */
public final class Requests {
    private static final int CALLERS = 8;

    private final Random random;
    private final List<Act<?>> earlier = new ArrayList<>();
    private final PlanRequests plans;
    private final LabelRequests labels;
    private int number;

    public Requests(Random random) {
        this.random = random;
        this.plans = new PlanRequests(random, this::mark);
        this.labels = new LabelRequests(random, this::mark);
    }

    /** @return a definition without anything in it where one is to be defined anew */
    public Act<?> next(Model model, Instant now) {
        if (!earlier.isEmpty() && random.nextInt(12) == 0) return again(earlier.get(random.nextInt(earlier.size())));
        Family family = Family.ALL.get(random.nextInt(Family.ALL.size()));
        LocalDate today = LocalDate.ofInstant(now, ZoneOffset.UTC);
        int sort = random.nextInt(100);
        if (sort == 0) return new Act.Define(Drafts.of(List.of()), List.of(), Optional.empty());
        Act<?> act = random.nextInt(5) == 0
                ? labels.next(family, model, today)
                : sort < 12
                        ? record(family, model, today)
                        : sort < 14
                                ? plans.goOn(family, model, today)
                                : sort < 22
                                        ? plans.step(planned(family, model), model, today)
                                        : sort < 56
                                                ? take(family, today)
                                                : sort < 94
                                                        ? settle(family, model)
                                                        : sort < 96
                                                                ? new Act.Split(
                                                                        block(model),
                                                                        random.nextInt(6),
                                                                        Optional.of("somebody"),
                                                                        mark())
                                                                : sort < 98
                                                                        ? new Act.Close(
                                                                                period(family, today),
                                                                                Optional.empty(),
                                                                                mark())
                                                                        : new Act.Reopen(
                                                                                closing(model),
                                                                                Optional.of("a reason"),
                                                                                mark());
        earlier.add(act);
        return act;
    }

    /** A plan for a table, with the ledger as it stands. */
    public Act<?> plan(Model model, Instant now, Function<String, String> standing) {
        Family family = Family.ALL.get(random.nextInt(Family.ALL.size()));
        return plans.begin(family, model, LocalDate.ofInstant(now, ZoneOffset.UTC), standing);
    }

    /** Mostly one that a plan is open for. */
    private Family planned(Family family, Model model) {
        return random.nextInt(6) == 0
                ? family
                : Family.ALL.stream()
                        .filter(each -> model.plans.of(each.key()).isPresent())
                        .findFirst()
                        .orElse(family);
    }

    /** The same request again, or another one under its key. */
    private Act<?> again(Act<?> act) {
        RequestMark mark = act.known().orElseThrow();
        if (random.nextInt(3) > 0 || mark.key().isEmpty()) return act;
        return new Act.Split(
                1, 1, Optional.empty(), new RequestMark(mark.account(), mark.key(), "changed " + number++));
    }

    private RequestMark mark() {
        return new RequestMark(
                "caller " + random.nextInt(CALLERS),
                random.nextInt(3) == 0 ? Optional.empty() : Optional.of("key " + number),
                "request " + number++);
    }

    private Act<?> take(Family family, LocalDate today) {
        LocalDate date = today.plusDays(family.chronological() ? 0 : random.nextInt(90) - 60);
        Optional<String> reference =
                random.nextInt(3) == 0 ? Optional.of("order " + random.nextInt(60)) : Optional.empty();
        int form = random.nextInt(family.typed().equals("required") ? 30 : 100);
        if (form < 27)
            return new Act.Allocate(
                    family.key(), Optional.of(date), 1, new Act.Form.Typed(typed(family, date)), reference, mark());
        if (form < 55)
            return new Act.Allocate(
                    family.key(),
                    Optional.of(date),
                    1 + random.nextInt(3),
                    new Act.Form.Held(Duration.ofSeconds(1 + random.nextInt(600))),
                    reference,
                    mark());
        if (form < 64)
            return new Act.Allocate(
                    family.key(),
                    Optional.of(date),
                    1 + random.nextInt(30),
                    new Act.Form.Block(Optional.of("branch")),
                    reference,
                    mark());
        return new Act.Allocate(
                family.key(), Optional.of(date), random.nextInt(5), Act.Form.SINGLES, reference, mark());
    }

    /**
     * A record kept with its number, one deleted, or a table filled; of a series that restarts by year also over two
     * years.
     */
    private Act<?> record(Family family, Model model, LocalDate today) {
        LocalDate date = today.plusDays(family.chronological() ? 0 : random.nextInt(90) - 60);
        int sort = random.nextInt(10);
        if (sort < 2)
            return new Act.ChangeRecord(
                    1 + random.nextInt(model.records() + 2),
                    Family.UNIT,
                    new RecordChange.Delete(random.nextInt(4) == 0 ? Optional.empty() : Optional.of("because")),
                    Optional.empty(),
                    mark());
        if (sort < 7) {
            boolean typing = !family.typed().equals("refused") && random.nextInt(3) == 0;
            return new Act.SaveRecord(
                    family.key(),
                    Family.UNIT,
                    Map.of("dated", date.toString()),
                    List.of(),
                    typing ? Optional.of(typed(family, date)) : Optional.empty(),
                    Optional.empty(),
                    family.key(),
                    mark());
        }
        var rows = new ArrayList<Map<String, String>>();
        for (int i = 0; i < random.nextInt(6); i++) rows.add(Map.of("dated", date.toString()));
        if (family.yearly())
            for (int i = 0; i < random.nextInt(3); i++)
                rows.add(Map.of("dated", date.minusYears(1 + random.nextInt(3)).toString()));
        return new Act.FillTable(family.key(), Family.UNIT, rows, Optional.empty(), Set.of(family.key()), mark());
    }

    private String typed(Family family, LocalDate date) {
        int range = random.nextInt(family.ranges().size());
        int position = random.nextInt(Math.min(
                random.nextBoolean() ? 60 : 600, family.ranges().get(range).size()));
        String text = family.text(date, family.value(range, position));
        return random.nextInt(10) == 0 ? text + "0" : random.nextBoolean() ? text.toLowerCase() : text;
    }

    private Act<?> settle(Family family, Model model) {
        Deed deed = Deed.values()[random.nextInt(Deed.values().length)];
        Optional<String> reason = random.nextInt(8) == 0 ? Optional.empty() : Optional.of("because");
        return new Act.Settle(family.key(), selection(family, model, deed), deed, reason, mark());
    }

    private Selection selection(Family family, Model model, Deed deed) {
        List<Place> known = model.of(family);
        // Mostly such as it can be done with.
        List<Place> fit = known.stream()
                .filter(place -> switch (deed) {
                    case CONFIRM, RELEASE -> place.state == PositionState.HELD;
                    case RETURN, VOID -> place.state == PositionState.ISSUED;
                    case USE -> place.state == PositionState.ISSUED && place.block != 0;
                })
                .toList();
        List<Place> from = random.nextInt(10) == 0 || fit.isEmpty() ? known : fit;
        int way = random.nextInt(10);
        if (from.isEmpty() || way == 9) return new Selection.Reference("order " + random.nextInt(60));
        Place one = from.get(random.nextInt(from.size()));
        if (way == 8) return new Selection.Taken(one.block != 0 && random.nextBoolean() ? one.block : one.taken);
        if (way >= 6) {
            int last = Math.min(known.indexOf(one) + random.nextInt(8), known.size() - 1);
            return new Selection.Through(one.text, known.get(last).text);
        }
        var texts = new ArrayList<String>();
        texts.add(random.nextInt(40) == 0 ? "X" + one.text : one.text.toLowerCase());
        while (random.nextInt(3) == 0) texts.add(from.get(random.nextInt(from.size())).text);
        return new Selection.Identifiers(texts);
    }

    private long block(Model model) {
        List<Place> blocks =
                model.all().stream().filter(place -> place.block != 0).toList();
        return blocks.isEmpty() || random.nextInt(10) == 0
                ? random.nextInt(50)
                : blocks.get(random.nextInt(blocks.size())).block;
    }

    private Period period(Family family, LocalDate today) {
        LocalDate from = today.minusDays(40 + random.nextInt(60));
        return new Period(
                random.nextInt(3) == 0 ? Period.Scope.NAMESPACE : Period.Scope.SERIES,
                random.nextInt(3) == 0 ? "all" : family.key(),
                from,
                from.plusDays(random.nextInt(20)));
    }

    private long closing(Model model) {
        List<Long> closings = model.closings();
        return closings.isEmpty() ? 1 : closings.get(random.nextInt(closings.size()));
    }
}
