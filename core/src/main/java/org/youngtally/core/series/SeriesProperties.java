package org.youngtally.core.series;

import java.lang.invoke.MethodHandles;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.youngtally.core.fault.DefinitionName;
import org.youngtally.core.pattern.DateStyle;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Shape;

/** Everything that a series can say, and that its ranges, fields and skipped values can, in the order of writing. */
public final class SeriesProperties {
    static final String ALLOWED = "allowed";
    static final String REFUSED = "refused";
    static final String REQUIRED = "required";
    static final String WAIVED = "waived";
    private static final List<String> ALLOWED_OR_REFUSED = List.of(REFUSED, ALLOWED);

    public static final Group<RangeDraft> RANGE = Group.of(
            "a range",
            MethodHandles.lookup(),
            RangeDraft.class,
            Property.whole(
                            "first",
                            "first",
                            "The first value, 0 to 999,999,999,999,999,999, in decimal digits whatever the count is written in.")
                    .required(),
            Property.whole(
                            "last",
                            "last",
                            "The last value, in decimal digits as well; the step must reach it from the first.")
                    .otherwise("last-written"),
            Property.of(
                            "last-written",
                            "lastWritten",
                            new Shape.Text("", true),
                            "Instead of last: the last value as the count writes it, such as ZZZ.")
                    .otherwise("none"),
            Property.whole("step", "step", "What is added from one value to the next; negative to count down.")
                    .usually(1L)
                    .alwaysTold(),
            Property.of("opens", "opens", new Shape.Date(), "The first business date, from 1900-01-01 on.")
                    .required(),
            Property.of("closes", "closes", new Shape.Date(), "The last business date, at the latest 2099-12-31.")
                    .otherwise("2099-12-31"),
            Property.whole("warn-when-left", "warnWhenLeft", "The range counts as low with fewer numbers left.")
                    .otherwise("no warning"),
            Property.whole(
                            "warn-days-before",
                            "warnDaysBefore",
                            "How many days before the range closes a warning is shown, if the day after would be an uncovered date.")
                    .otherwise("no warning"));

    public static final Group<FieldDraft> FIELD = Group.of(
            "a field",
            MethodHandles.lookup(),
            FieldDraft.class,
            Property.fieldName("name", "name", "As in {field NAME} in the pattern; unit for {unit}.")
                    .required(),
            Property.key("codebook", "The codebook with its choices; a choice is entered by full name or code.")
                    .otherwise("a text"),
            Property.flag(
                            "units",
                            "units",
                            "For {unit}: the choices are the units themselves, each by its key or code, instead of a codebook that repeats them.")
                    .otherwise("false"),
            Property.fieldName(
                            "within",
                            "within",
                            "An earlier field: this field has the choices within the choice of that one.")
                    .otherwise("no earlier field"),
            Property.whole("longest", "longest", "For a text: the most symbols, after all that is done to it.")
                    .usually((long) FieldRule.USUAL_LONGEST),
            Property.of(
                            "symbols",
                            "symbols",
                            new Shape.Text("", true),
                            "For a text: the symbols that it may write, after all that is done to it.")
                    .usually(FieldRule.USUAL_SYMBOLS.words()));

    public static final Group<SkipsDraft> SKIPPED = Group.of(
            "skips",
            MethodHandles.lookup(),
            SkipsDraft.class,
            Property.of(
                            "values",
                            "values",
                            new Shape.Texts("", true, false, "[13, 4000-4999]"),
                            "Single values and runs of them, such as 13 and 4000-4999.")
                    .otherwise("none"),
            Property.of(
                            "containing",
                            "containing",
                            new Shape.Texts("", true, true, "[\"13\", \"666\"]"),
                            "Texts that the written count must not contain.")
                    .otherwise("none"));

    public static final SeriesProperty<String> KEY = SeriesProperty.of(
            Property.key("key", "The name of the series: 1 to 64 small letters, digits, hyphens and dots.")
                    .required(),
            Series::key);
    public static final SeriesProperty<String> TITLE = SeriesProperty.plain(Property.title("key"));
    public static final SeriesProperty<String> NOTE =
            SeriesProperty.plain(Property.line("note", "note", 500, "What people should know about the series.")
                    .otherwise("none"));
    public static final SeriesProperty<String> NAMESPACE = SeriesProperty.of(
                    Property.key(
                                    "namespace",
                                    "The set within which identifiers are unique; several series may share one.")
                            .otherwiseAs("key")
                            .checked(DefinitionName::fault),
                    Series::namespace)
            .fixedOnceUsed();
    public static final SeriesProperty<String> PATTERN = SeriesProperty.of(
                    Property.of(
                                    "pattern",
                                    "pattern",
                                    new Shape.Text("", true),
                                    "The text of an identifier with fields in braces, such as LW{date yy}-{count 5}; exactly one count.")
                            .required(),
                    series -> series.pattern().toString())
            .fixedOnceUsed();
    public static final SeriesProperty<String> LOCALE = SeriesProperty.of(
                    Property.text(
                                    "locale",
                                    "locale",
                                    "A language tag for the names of months, such as de. The names stay as they were when the series was defined.")
                            .usually(DateStyle.PLAIN.locale()),
                    series -> series.pattern().style().locale())
            .fixedOnceUsed();
    public static final SeriesProperty<Long> FISCAL_YEAR_STARTS = SeriesProperty.of(
                    Property.whole(
                                    "fiscal-year-starts",
                                    "fiscalYearStarts",
                                    "The month in which the fiscal year begins, 1 to 12.")
                            .usually((long) DateStyle.PLAIN.fiscalStart()),
                    series -> (long) series.pattern().style().fiscalStart())
            .fixedOnceUsed()
            .keptAs("fiscal");
    public static final SeriesProperty<List<FieldDraft>> FIELDS = SeriesProperty.of(
            Property.of(
                            "fields",
                            "fields",
                            new Shape.Many<>(() -> FIELD, 0, "a list of fields"),
                            "The fields of the record that the series uses; a field that narrows another comes before it.")
                    .otherwise("none"),
            series -> series.fields().isEmpty()
                    ? null
                    : series.fields().stream().map(FieldDraft::of).toList());
    public static final SeriesProperty<List<String>> RESTARTS = SeriesProperty.of(
                    Property.<List<String>>of(
                                    "restarts",
                                    "restarts",
                                    new Shape.Texts(
                                            Stream.of(Restart.values())
                                                    .map(Restart::word)
                                                    .collect(Collectors.joining(
                                                            "|", "^(", "|unit|field " + Particulars.FIELD_NAME + ")$")),
                                            false,
                                            false,
                                            "[year]"),
                                    "Some of year, fiscal-year, quarter, month, week, day, unit and field NAME: the count starts again at the first value of each range. Each period, field or combination of them is a lane of its own, made when it is first used. A field counts by what it writes: what looks alike in the identifier counts together.")
                            .usually(List.of())
                            .otherwise("never")
                            .alwaysTold(),
                    series -> series.restarts().words())
            .fixedOnceUsed();
    public static final SeriesProperty<SkipsDraft> SKIPS = SeriesProperty.of(
            Property.of(
                            "skips",
                            "skips",
                            new Shape.One<>(SKIPPED),
                            "Values that are never issued, by value and by what the written count contains.")
                    .otherwise("none"),
            series -> series.skips().isNone() ? null : SkipsDraft.of(series.skips()));
    public static final SeriesProperty<String> ORDER = SeriesProperty.of(
                    Property.word(
                                    "order",
                                    "order",
                                    Stream.of(Order.Kind.values())
                                            .map(Order.Kind::word)
                                            .toList(),
                                    "The order in which the values of a range are issued.")
                            .usually(Order.Kind.IN_TURN.word()),
                    series -> series.order().kind().word())
            .fixedOnceUsed();
    public static final SeriesProperty<String> GAPS = SeriesProperty.of(
                    Property.word(
                                    "gaps",
                                    "gaps",
                                    ALLOWED_OR_REFUSED,
                                    "Whether gaps are allowed: where refused, a returned number is issued next; where allowed, it becomes void.")
                            .usually(REFUSED),
                    series -> series.policy().gaps() ? ALLOWED : REFUSED)
            .keptAsFlag(ALLOWED, REFUSED);
    public static final SeriesProperty<String> RETURNS = SeriesProperty.of(
                    Property.word(
                                    "returns",
                                    "returns",
                                    List.of(ALLOWED, REFUSED),
                                    "Whether an issued number can be returned.")
                            .usually(ALLOWED),
                    series -> series.policy().returns() ? ALLOWED : REFUSED)
            .keptAsFlag(ALLOWED, REFUSED);
    public static final SeriesProperty<Boolean> CHRONOLOGICAL = SeriesProperty.of(
            Property.flag(
                            "chronological",
                            "chronological",
                            "Whether no number may be dated before the newest one of its lane; a returned number then becomes void.")
                    .otherwise("false"),
            series -> series.policy().chronological() ? Boolean.TRUE : null);
    public static final SeriesProperty<String> TYPED = SeriesProperty.of(
            Property.word(
                            "typed",
                            "typed",
                            Stream.of(Policy.Typed.values())
                                    .map(Policy.Typed::word)
                                    .toList(),
                            "Whether people may type a number themselves, or must.")
                    .usually(Policy.Typed.REFUSED.word())
                    .alwaysTold(),
            series -> series.policy().typed().word());
    public static final SeriesProperty<Boolean> RETIRED = SeriesProperty.of(
            Property.flag(
                            "retired",
                            "retired",
                            "Whether the series is no longer in use: it allocates nothing and is hidden from lists. Its numbers can still be confirmed, returned, voided and found. Refused while a route leads to it; false brings it back.")
                    .otherwise("unchanged; false for a new series"),
            series -> series.retired() ? Boolean.TRUE : null);
    public static final SeriesProperty<String> PROOF = SeriesProperty.of(
            Property.word(
                            "proof",
                            "proof",
                            List.of(REQUIRED, WAIVED),
                            "Whether it must be proved that no two identifiers are ever alike; waived where it is enough that each number is looked up when it is allocated. Of two series both must be waived; such a series has no blocks.")
                    .usually(REQUIRED),
            series -> series.proofWaived() ? WAIVED : REQUIRED);
    public static final SeriesProperty<Long> LONGEST = SeriesProperty.of(
            Property.whole(
                            "longest",
                            "longest",
                            "The most symbols of an identifier that other programs or forms allow. Proved for every number up to the last.")
                    .otherwise("any length"),
            series -> series.limits().longest() == 0
                    ? null
                    : (long) series.limits().longest());
    public static final SeriesProperty<String> SYMBOLS = SeriesProperty.of(
            Property.of(
                            "symbols",
                            "symbols",
                            new Shape.Text("", true),
                            "The symbols that other programs or forms allow: letters, upper, lower, digits and single symbols, separated by blanks, such as lower digits -.")
                    .otherwise("any symbols"),
            series -> series.limits().symbols().isAny()
                    ? null
                    : series.limits().symbols().words());
    public static final SeriesProperty<List<RangeDraft>> RANGES = SeriesProperty.of(
            Property.of(
                            "ranges",
                            "ranges",
                            new Shape.Many<>(() -> RANGE, 1, "a list of ranges"),
                            "The values to issue; ranges with the same dates are used in the order of the file.")
                    .required(),
            series -> series.ranges().stream().map(RangeDraft::of).toList());

    /** All of them, in the order in which they are written and kept. */
    public static final List<SeriesProperty<?>> ALL = List.of(
            KEY,
            TITLE,
            NOTE,
            NAMESPACE,
            PATTERN,
            LOCALE,
            FISCAL_YEAR_STARTS,
            FIELDS,
            RESTARTS,
            SKIPS,
            ORDER,
            GAPS,
            RETURNS,
            CHRONOLOGICAL,
            TYPED,
            RETIRED,
            PROOF,
            LONGEST,
            SYMBOLS,
            RANGES);

    /** Those that nothing is computed from. */
    public static final List<SeriesProperty<String>> PLAIN = List.of(TITLE, NOTE);

    public static final Group<SeriesDraft> SERIES = Group.of(
            "a series", ALL.stream().map(SeriesProperty::property).toList(), SeriesDraft::new, SeriesDraft::said);

    private SeriesProperties() {}
}
