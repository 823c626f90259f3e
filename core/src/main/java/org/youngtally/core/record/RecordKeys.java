package org.youngtally.core.record;

import java.text.Normalizer;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.KindField;
import org.youngtally.core.record.KeptRecord.UnitValues;
import org.youngtally.core.text.Comparison;

/** By what a record is found. */
public final class RecordKeys {
    private static final int LONGEST_WORD = 60;

    private RecordKeys() {}

    /**
     * The fields by which it is known again, each with its value in the form in which they are compared; none once it
     * is deleted.
     */
    public static Map<String, String> known(Kind kind, KeptRecord record) {
        var known = new LinkedHashMap<String, String>();
        if (record.deleted()) return known;
        for (String field : kind.keeping().knownBy())
            if (record.values().containsKey(field))
                known.put(field, key(record.values().get(field)));
        return known;
    }

    /** A value as it is compared: its case does not count, nor the white space around it. */
    public static String key(String value) {
        return Comparison.OF_NAMES.key(value);
    }

    /** The words of its texts, in small letters, and its identifier whole. */
    public static Set<String> words(Kind kind, KeptRecord record) {
        var words = new LinkedHashSet<String>();
        words.add(word(record.number().text()));
        for (UnitValues standing : record.standings())
            for (KindField field : kind.fields())
                if (field.type() == KindField.Type.TEXT && standing.values().containsKey(field.name()))
                    words.addAll(words(standing.values().get(field.name())));
        return words;
    }

    /** The words of a text as they are looked for. */
    public static Set<String> words(String text) {
        var words = new LinkedHashSet<String>();
        for (String each : text.split("[\\s,;]+")) if (!each.isBlank()) words.add(word(each));
        return words;
    }

    private static String word(String text) {
        // Who looks for a name seldom writes its accents.
        String word = Comparison.OF_NAMES.key(
                Normalizer.normalize(text, Normalizer.Form.NFD).replaceAll("\\p{M}", ""));
        return word.length() > LONGEST_WORD ? word.substring(0, LONGEST_WORD) : word;
    }
}
