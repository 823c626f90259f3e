package org.youngtally.bench;

import java.lang.reflect.Proxy;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.options.OptionsBuilder;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decider;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.act.RowReader;
import org.youngtally.core.act.StateInMemory;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.pattern.Rendering;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;

/**
 * What core does for every number, on one core: it writes the identifier, beside {@link String#format} for the same
 * text without its check digit, and decides one allocation.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.Throughput)
@OutputTimeUnit(TimeUnit.SECONDS)
@Warmup(iterations = 5, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(2)
public class CoreSpeed {
    private static final Instant NOW = Instant.parse("2026-03-02T09:00:00Z");
    private static final LocalDate TODAY = LocalDate.of(2026, 3, 2);
    /** Values come round, so that all have nine digits. */
    private static final long VALUES = 900_000_000;

    private Rendering plain;
    private Rendering gs1;
    private Rendering mod37;
    private StateInMemory state;
    private long value;
    private long seq;

    @Setup
    public void prepare() {
        plain = rendering("LW{date yy}-{count 9}");
        gs1 = rendering("09521234{count 9}{check gs1}");
        mod37 = rendering("{count 7 safe}{check mod37-36}");
        state = new StateInMemory(nothingKept());
        take(new Act.Define(List.of(draft("LW{date yy}-{count 9}")), Optional.empty()));
    }

    private static SeriesDraft draft(String pattern) {
        return SeriesDraft.of("hot", pattern)
                .with(SeriesProperties.RESTARTS, pattern.contains("{date") ? List.of("year") : null)
                .with(
                        SeriesProperties.RANGES,
                        List.of(new RangeDraft(1L, 999_999_999L, null, "2020-01-01", null, null)));
    }

    private static Rendering rendering(String pattern) {
        Series series = Sums.series("hot", pattern, 999_999_999);
        return series.pattern().on(Particulars.on(TODAY));
    }

    /** The tables of a ledger in which nothing was kept. */
    private static RowReader nothingKept() {
        return (RowReader) Proxy.newProxyInstance(
                RowReader.class.getClassLoader(),
                new Class<?>[] {RowReader.class},
                (proxy, method, arguments) -> method.getReturnType() == List.class ? List.of() : Optional.empty());
    }

    private Decision take(Act<?> act) {
        Decision decision = Decider.decide(state, act, NOW, TODAY);
        state.take(++seq, Optional.empty(), ((Decision.Done) decision).effects());
        return decision;
    }

    private long next() {
        value = (value + 1) % VALUES;
        return 100_000_000 + value;
    }

    @Benchmark
    public String identifierWithoutCheckDigit() {
        return plain.of(next());
    }

    @Benchmark
    public String identifierWithGs1CheckDigit() {
        return gs1.of(next());
    }

    @Benchmark
    public String identifierWithMod37Check() {
        return mod37.of(next());
    }

    @Benchmark
    public String stringFormat() {
        return String.format(Locale.ROOT, "09521234%09d%d", next(), 7);
    }

    @Benchmark
    public Decision decision() {
        return take(new Act.Allocate(
                "hot",
                Optional.of(TODAY),
                1,
                Act.Form.SINGLES,
                Optional.empty(),
                new RequestMark("ines", Optional.empty(), "d")));
    }

    public static void main(String[] args) throws Exception {
        new Runner(new OptionsBuilder()
                        .include(CoreSpeed.class.getName())
                        .jvmArgs("-XX:+UseSerialGC")
                        .build())
                .run();
    }
}
