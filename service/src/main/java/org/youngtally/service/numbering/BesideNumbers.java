package org.youngtally.service.numbering;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.numbering.DocumentName;
import org.youngtally.core.numbering.Grid.Sheet;
import org.youngtally.core.numbering.Item;
import org.youngtally.core.numbering.NumberPlan.Change;
import org.youngtally.core.numbering.NumberPlan.ItemFault;
import org.youngtally.core.numbering.Writing;
import org.youngtally.core.record.KeptRecord;

/** What a rule writes beside the numbers: further properties of parts, and the names of the files. */
public final class BesideNumbers {
    private static final String PATH = "file-name";
    private static final int LONGEST_NAME = 150;
    private static final int MOST_FAULTS = 100;
    private static final long MOST_WRITTEN = 50_000_000;

    private final List<Sheet> sheets;
    private final Map<String, Item> items = new HashMap<>();
    private final List<Change> changes;
    private final List<ItemFault> itemFaults = new ArrayList<>();
    private final List<Fault> faults = new ArrayList<>();
    /** How many symbols are written so far. */
    private long written;

    public BesideNumbers(DocumentSheets document, List<Change> changes) {
        this.sheets = document.sheets();
        this.changes = changes;
        for (Item item : document.items()) items.put(item.id(), item);
    }

    /** What keeps items from it. */
    public List<ItemFault> itemFaults() {
        return itemFaults;
    }

    /** What is wrong with the rule for this document. */
    public List<Fault> faults() {
        return faults;
    }

    /** The texts of further properties by their names, by the ids of the items. */
    public Map<String, Map<String, String>> also(Map<String, Writing> writings) {
        var also = new HashMap<String, Map<String, String>>();
        if (writings.isEmpty()) return also;
        for (Change change : changes) {
            Item item = items.get(change.item());
            var texts = new LinkedHashMap<String, String>();
            writings.forEach((into, writing) -> texts.put(into, written(item, change, into, writing)));
            also.put(item.id(), texts);
        }
        return also;
    }

    private String written(Item item, Change change, String into, Writing writing) {
        for (String name : writing.attributes())
            if (item.attributes().getOrDefault(name, "").isBlank() && itemFaults.size() < MOST_FAULTS)
                itemFaults.add(new ItemFault(
                        item.id(), "has no " + name + ", which is written into its " + into, "a value there"));
        String text = writing.of(
                item.attributes().getOrDefault(into, ""), change.number().orElse(""), item.attributes());
        written += text.length();
        if (written <= MOST_WRITTEN) return text;
        if (itemFaults.size() < MOST_FAULTS)
            itemFaults.add(new ItemFault(
                    item.id(), "would make the document too large, with those before it", "shorter texts"));
        return "";
    }

    /** The names of the numbered files, in their order. */
    public List<String> names(Writing writing, Map<String, String> values) {
        Map<Integer, List<Change>> bySheet = changes.stream()
                .collect(
                        Collectors.groupingBy(change -> items.get(change.item()).sheet()));
        var names = new ArrayList<String>();
        Set<String> taken = new HashSet<>();
        for (int i = 0; i < sheets.size(); i++) {
            String own = sheets.get(i).name();
            String name = name(writing, values, own, bySheet.getOrDefault(i + 1, List.of()));
            if (!taken.add(name))
                faults.add(new Fault(
                        PATH, "calls two files ‘" + name + "’", "{file} or {new} in it, which tell files apart"));
            names.add(name);
        }
        return names;
    }

    private String name(Writing writing, Map<String, String> values, String own, List<Change> numbered) {
        int dot = own.lastIndexOf('.');
        String base = dot < 1 ? own : own.substring(0, dot);
        String ending = dot < 1 ? "" : own.substring(dot + 1);
        if (numbered.isEmpty() && writing.hasNumber()) return base + "-numbered" + own.substring(base.length());
        if (writing.hasNumber() && numbered.size() > 1)
            faults.add(new Fault(
                    PATH, "has {new}, and " + numbered.size() + " items of ‘" + own + "’ get one", "values alone"));
        var known = new TreeMap<>(values);
        if (numbered.size() == 1)
            known.putAll(items.get(numbered.getFirst().item()).attributes());
        known.put(DocumentName.FILE, base);
        for (String name : writing.attributes())
            if (known.getOrDefault(name, "").isBlank())
                faults.add(
                        new Fault(PATH, "has {" + name + "}, which ‘" + own + "’ has no value for", "a value " + name));
        String number = numbered.stream()
                .findFirst()
                .flatMap(Change::number)
                // What is expected of a series that does not say it beforehand.
                .map(String::strip)
                .orElse("");
        String text = writing.of("", number, known).strip();
        if (text.isBlank() || text.length() > LONGEST_NAME)
            faults.add(new Fault(PATH, "comes to no name for ‘" + own + "’", "1 to " + LONGEST_NAME + " symbols"));
        return KeptRecord.fileName(text, "", ending);
    }
}
