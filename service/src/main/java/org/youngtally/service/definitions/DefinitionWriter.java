package org.youngtally.service.definitions;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.codebook.CodebookDraft.ChoiceDraft;
import org.youngtally.core.organisation.KindDraft;
import org.youngtally.core.organisation.KindDraft.KindFieldDraft;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.RouteDraft.TestDraft;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.series.FieldDraft;
import org.youngtally.core.series.NamespaceDraft;
import org.youngtally.core.series.Policy;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SkipsDraft;
import tools.jackson.databind.json.JsonMapper;

/** Writes definitions as YAML: each property on a line of its own, what stands in lists a line each. */
final class DefinitionWriter {
    private DefinitionWriter() {}

    /**
     * A definition to be written.
     *
     * @param values the properties in the order of the reference, those with their default left out
     */
    record Written(String key, Map<String, Value> values) {
        /**
         * A whole entry of a list.
         *
         * @param indent of its properties, two more than that of its hyphen
         */
        String entry(String indent) {
            String lines = values.entrySet().stream()
                    .map(value -> line(value.getKey(), value.getValue(), indent))
                    .collect(Collectors.joining("\n" + indent));
            return indent.substring(2) + "- " + lines + "\n";
        }

        /** An entry on one line, as it stands in braces. */
        String inBraces() {
            return values.entrySet().stream()
                    .map(value -> value.getKey() + ": " + value.getValue().flow())
                    .collect(Collectors.joining(", ", "{ ", " }"));
        }
    }

    /**
     * A property's value.
     *
     * @param flow as it stands on one line
     * @param block as it stands behind its colon in an entry of that indent
     */
    record Value(String flow, Function<String, String> block) {
        static Value of(Object value) {
            return new Value(value.toString(), indent -> value.toString());
        }
    }

    static String line(String name, Value value, String indent) {
        String block = value.block().apply(indent);
        return name + (block.startsWith("\n") ? ":" : ": ") + block;
    }

    static Written of(SeriesDraft draft) {
        var values = new LinkedHashMap<String, Value>();
        values.put("key", Value.of(draft.key()));
        if (!Objects.equals(draft.title(), draft.key())) values.put("title", Value.of(text(draft.title())));
        if (!Objects.equals(draft.namespace(), draft.key())) values.put("namespace", Value.of(draft.namespace()));
        values.put("pattern", Value.of(quoted(draft.pattern())));
        put(values, "locale", draft.locale());
        put(values, "fiscal-year-starts", draft.fiscalYearStarts());
        if (draft.fields() != null)
            values.put(
                    "fields",
                    list(draft.fields().stream().map(DefinitionWriter::field).toList()));
        if (!draft.restarts().isEmpty())
            put(values, "restarts", draft.restarts().stream().collect(Collectors.joining(", ", "[", "]")));
        if (draft.skips() != null) put(values, "skips", skips(draft.skips()));
        put(values, "order", draft.order());
        put(values, "longest", draft.longest());
        if (draft.symbols() != null) put(values, "symbols", quoted(draft.symbols()));
        if (!Policy.Typed.REFUSED.word().equals(draft.typed())) put(values, "typed", draft.typed());
        put(values, "gaps", draft.gaps());
        put(values, "returns", draft.returns());
        put(values, "chronological", draft.chronological());
        put(values, "proof", draft.proof());
        values.put(
                "ranges",
                list(draft.ranges().stream().map(DefinitionWriter::range).toList()));
        return new Written(draft.key(), values);
    }

    static Written of(CodebookDraft draft) {
        var values = new LinkedHashMap<String, Value>();
        values.put("key", Value.of(draft.key()));
        if (!Objects.equals(draft.title(), draft.key())) values.put("title", Value.of(text(draft.title())));
        values.put("choices", new Value(choices(draft.choices()), indent -> choices(draft.choices(), indent + "  ")));
        return new Written(draft.key(), values);
    }

    static Written of(NamespaceDraft draft) {
        var values = new LinkedHashMap<String, Value>();
        values.put("key", Value.of(draft.key()));
        if (!Objects.equals(draft.title(), draft.key())) values.put("title", Value.of(text(draft.title())));
        put(values, "repeats", draft.repeats());
        if (draft.comparison() != null)
            values.put("comparison", Value.of(draft.comparison().toString()));
        return new Written(draft.key(), values);
    }

    static Written of(UnitDraft draft) {
        var values = new LinkedHashMap<String, Value>();
        values.put("key", Value.of(draft.key()));
        if (draft.title() != null) values.put("title", Value.of(text(draft.title())));
        put(values, "below", draft.below());
        if (draft.code() != null) values.put("code", Value.of(text(draft.code())));
        put(values, "time-zone", draft.timeZone());
        return new Written(draft.key(), values);
    }

    static Written of(KindDraft draft) {
        var values = new LinkedHashMap<String, Value>();
        values.put("key", Value.of(draft.key()));
        if (draft.title() != null) values.put("title", Value.of(text(draft.title())));
        values.put(
                "fields",
                list(draft.fields().stream().map(DefinitionWriter::kindField).toList()));
        if (draft.lines() != null)
            values.put(
                    "lines",
                    list(draft.lines().stream().map(DefinitionWriter::kindField).toList()));
        if (draft.knownBy() != null) values.put("known-by", Value.of("[" + String.join(", ", draft.knownBy()) + "]"));
        if (draft.agree() != null) values.put("agree", Value.of("[" + String.join(", ", draft.agree()) + "]"));
        put(values, "deleting", draft.deleting());
        put(values, "dated-by", draft.datedBy());
        if (draft.lineStep() != null)
            values.put("line-step", Value.of(draft.lineStep().toString()));
        return new Written(draft.key(), values);
    }

    private static String kindField(KindFieldDraft field) {
        return braces(
                "name",
                field.name(),
                "title",
                field.title() == null ? null : text(field.title()),
                "type",
                field.type(),
                "codebook",
                field.codebook(),
                "within",
                field.within(),
                "required",
                field.required(),
                "sticky",
                field.sticky(),
                "name-of",
                field.nameOf(),
                "code-of",
                field.codeOf());
    }

    static Written of(RouteDraft draft) {
        var values = new LinkedHashMap<String, Value>();
        values.put("kind", Value.of(draft.kind()));
        values.put("unit", Value.of(draft.unit()));
        if (draft.when() != null)
            values.put(
                    "when",
                    Value.of(draft.when().entrySet().stream()
                            .map(test -> test.getKey() + ": " + test(test.getValue()))
                            .collect(Collectors.joining(", ", "{ ", " }"))));
        values.put("series", Value.of(draft.series()));
        put(values, "into", draft.into());
        return new Written(draft.key(), values);
    }

    private static String test(TestDraft test) {
        if (test.oneOf() == null)
            return braces(
                    "from",
                    test.from() == null ? null : text(test.from()),
                    "to",
                    test.to() == null ? null : text(test.to()));
        return test.oneOf().size() == 1
                ? text(test.oneOf().getFirst())
                : test.oneOf().stream().map(DefinitionWriter::text).collect(Collectors.joining(", ", "[", "]"));
    }

    private static void put(Map<String, Value> values, String name, Object value) {
        if (value != null) values.put(name, Value.of(value));
    }

    private static Value list(List<String> items) {
        return new Value(items.stream().collect(Collectors.joining(", ", "[", "]")), indent -> items.stream()
                .map(item -> "\n" + indent + "  - " + item)
                .collect(Collectors.joining()));
    }

    /** Properties in braces; those that are absent are left out. */
    private static String braces(Object... namesAndValues) {
        var written = new LinkedHashMap<String, Object>();
        for (int i = 0; i < namesAndValues.length; i += 2)
            if (namesAndValues[i + 1] != null) written.put((String) namesAndValues[i], namesAndValues[i + 1]);
        return written.entrySet().stream()
                .map(value -> value.getKey() + ": " + value.getValue())
                .collect(Collectors.joining(", ", "{ ", " }"));
    }

    private static String range(RangeDraft range) {
        return braces(
                "first",
                range.first(),
                "last",
                range.last(),
                "step",
                range.step() != null && range.step() != 1 ? range.step() : null,
                "opens",
                range.opens(),
                "closes",
                range.closes(),
                "warn-when-left",
                range.warnWhenLeft(),
                "warn-days-before",
                range.warnDaysBefore());
    }

    private static String field(FieldDraft field) {
        return braces(
                "name",
                field.name(),
                "codebook",
                field.codebook(),
                "within",
                field.within(),
                "longest",
                field.longest(),
                "symbols",
                field.symbols() == null ? null : quoted(field.symbols()));
    }

    private static String skips(SkipsDraft skips) {
        return braces(
                "values",
                skips.values() == null ? null : skips.values().stream().collect(Collectors.joining(", ", "[", "]")),
                "containing",
                skips.containing() == null
                        ? null
                        : skips.containing().stream()
                                .map(DefinitionWriter::quoted)
                                .collect(Collectors.joining(", ", "[", "]")));
    }

    private static String choices(List<ChoiceDraft> choices) {
        return choices.stream().map(DefinitionWriter::choice).collect(Collectors.joining(", ", "[", "]"));
    }

    private static String choice(ChoiceDraft choice) {
        return braces(
                "name",
                text(choice.name()),
                "code",
                text(choice.code()),
                "retired",
                choice.retired(),
                "choices",
                choice.choices() == null ? null : choices(choice.choices()));
    }

    /** A choice with others beneath it takes several lines, any other one line. */
    private static String choices(List<ChoiceDraft> choices, String indent) {
        return choices.stream()
                .map(choice -> "\n" + indent + "- "
                        + (choice.choices() == null
                                ? choice(choice)
                                : "name: " + text(choice.name()) + "\n" + indent + "  code: " + text(choice.code())
                                        + (Boolean.TRUE.equals(choice.retired())
                                                ? "\n" + indent + "  retired: true"
                                                : "")
                                        + "\n" + indent + "  choices:" + choices(choice.choices(), indent + "    ")))
                .collect(Collectors.joining());
    }

    /** A text as it is where YAML reads it so, else in quotes. */
    private static String text(String text) {
        return text.matches("[\\p{L}][\\p{L}0-9 ._/-]*[\\p{L}0-9.]|[\\p{L}]")
                        && !List.of("true", "false", "null", "yes", "no", "on", "off", "y", "n")
                                .contains(text.toLowerCase(Locale.ROOT))
                ? text
                : quoted(text);
    }

    /** YAML reads JSON's quoted strings as they are. */
    private static String quoted(String text) {
        return JsonMapper.shared().writeValueAsString(text);
    }
}
