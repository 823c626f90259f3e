package org.youngtally.service.api;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeSet;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.service.api.RecordController.FieldChange;

/** What one version of a record holds otherwise than the one before. */
final class RecordDifferences {
    private final List<FieldChange> changes = new ArrayList<>();

    private RecordDifferences() {}

    /** @param before absent for the first version */
    static List<FieldChange> between(Optional<KeptRecord> before, KeptRecord after) {
        var differences = new RecordDifferences();
        for (KeptRecord.UnitValues standing : after.standings())
            differences.fields(
                    standing.unit(),
                    "",
                    before.flatMap(record -> record.in(standing.unit()))
                            .map(KeptRecord.UnitValues::values)
                            .orElse(Map.of()),
                    standing.values());
        var numbers = new TreeSet<Integer>();
        before.stream().flatMap(record -> record.lines().stream()).forEach(line -> numbers.add(line.number()));
        after.lines().forEach(line -> numbers.add(line.number()));
        for (int number : numbers)
            differences.fields(
                    after.home(), "line " + number + ", ", line(before, number), line(Optional.of(after), number));
        return differences.changes;
    }

    private static Map<String, String> line(Optional<KeptRecord> record, int number) {
        return record.stream()
                .flatMap(each -> each.lines().stream())
                .filter(line -> line.number() == number)
                .map(KeptRecord.Line::values)
                .findFirst()
                .orElse(Map.of());
    }

    private void fields(String unit, String where, Map<String, String> before, Map<String, String> after) {
        var names = new TreeSet<>(before.keySet());
        names.addAll(after.keySet());
        for (String name : names)
            if (!Objects.equals(before.get(name), after.get(name)))
                changes.add(new FieldChange(unit, where + name, before.get(name), after.get(name)));
    }
}
