package org.youngtally.service.definitions;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.codebook.CodebookDraft.ChoiceDraft;
import org.youngtally.core.label.LayoutDraft;
import org.youngtally.core.numbering.RuleDraft;
import org.youngtally.core.organisation.KindDraft;
import org.youngtally.core.organisation.KindDraft.KindFieldDraft;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;
import org.youngtally.core.series.NamespaceDraft;
import org.youngtally.core.series.SeriesProperties;

/**
 * The tables of properties in the reference are the lists of properties. With {@code -Dreference.write} they are
 * written anew.
 */
class ReferenceTest {
    private static final Path REFERENCE = Path.of("../docs/reference.md");
    private static final Map<String, Group<?>> GROUPS = Map.ofEntries(
            Map.entry("namespace", NamespaceDraft.PROPERTIES),
            Map.entry("codebook", CodebookDraft.PROPERTIES),
            Map.entry("choice", ChoiceDraft.PROPERTIES),
            Map.entry("series", SeriesProperties.SERIES),
            Map.entry("range", SeriesProperties.RANGE),
            Map.entry("field of a series", SeriesProperties.FIELD),
            Map.entry("skips", SeriesProperties.SKIPPED),
            Map.entry("unit", UnitDraft.PROPERTIES),
            Map.entry("kind", KindDraft.PROPERTIES),
            Map.entry("field of a kind", KindFieldDraft.PROPERTIES),
            Map.entry("route", RouteDraft.PROPERTIES),
            Map.entry("layout", LayoutDraft.PROPERTIES),
            Map.entry("sheet", LayoutDraft.SheetDraft.PROPERTIES),
            Map.entry("item", LayoutDraft.ItemDraft.PROPERTIES),
            Map.entry("asked field", LayoutDraft.AskDraft.PROPERTIES),
            Map.entry("rule", RuleDraft.PROPERTIES),
            Map.entry("test of items", RuleDraft.ChoiceDraft.PROPERTIES),
            Map.entry("box", RuleDraft.BoxDraft.PROPERTIES),
            Map.entry("key of an order", RuleDraft.OrderDraft.PROPERTIES),
            Map.entry("grid", RuleDraft.GridDraft.PROPERTIES),
            Map.entry("mark of a program", RuleDraft.MarkDraft.PROPERTIES),
            Map.entry("value", RuleDraft.ValueDraft.PROPERTIES),
            Map.entry("further property", RuleDraft.AlsoDraft.PROPERTIES));
    private static final Pattern TABLE = Pattern.compile("<!-- properties: ([a-z ]+) -->\\n(?:\\|.*\\n)*");

    @Test
    void theReferenceTellsEveryProperty() throws IOException {
        String kept = Files.readString(REFERENCE);
        String made = TABLE.matcher(kept)
                .replaceAll(found -> Matcher.quoteReplacement(
                        "<!-- properties: " + found.group(1) + " -->\n" + table(GROUPS.get(found.group(1)))));
        if (Boolean.getBoolean("reference.write")) Files.writeString(REFERENCE, made);
        assertThat(Files.readString(REFERENCE)).isEqualTo(made);
    }

    @Test
    void eachListHasItsTable() throws IOException {
        assertThat(TABLE.matcher(Files.readString(REFERENCE)).results().map(found -> found.group(1)))
                .containsExactlyInAnyOrderElementsOf(GROUPS.keySet());
    }

    private static String table(Group<?> group) {
        return group.properties().stream()
                .map(ReferenceTest::row)
                .collect(Collectors.joining("", "| property | meaning | default |\n|---|---|---|\n", ""));
    }

    private static String row(Property<?> property) {
        return "| `" + property.name() + "` | " + property.meaning().replace("|", "\\|") + " | "
                + (property.isRequired() ? "required" : property.otherwise()) + " |\n";
    }
}
