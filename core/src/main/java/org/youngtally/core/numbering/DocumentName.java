package org.youngtally.core.numbering;

import java.util.Map;
import java.util.TreeMap;
import org.youngtally.core.fault.Fault;

/** What a document is called in the ledger: by it and itself an item is known, so that it is numbered once. */
public final class DocumentName {
    /** In braces: the name of the first file, without its ending. */
    public static final String FILE = "file";

    static final String ACCEPTED =
            "the name of the document in the ledger, 1 to 150 visible symbols; {file} and values in braces";
    private static final int LONGEST = 150;

    private DocumentName() {}

    static boolean isName(String text) {
        return !text.isBlank()
                && text.length() <= LONGEST
                && text.equals(text.strip())
                && text.chars().noneMatch(Character::isISOControl);
    }

    /** That a rule says no name for a document. */
    public static final class Faulty extends Exception {
        private static final long serialVersionUID = 1L;

        private final transient Fault fault;

        private Faulty(String problem) {
            super(problem);
            this.fault = new Fault("document", problem, ACCEPTED);
        }

        public Fault fault() {
            return fault;
        }
    }

    /**
     * @param said as the rule says it
     * @param values by their names
     * @param file the name of the first file
     */
    public static String of(String said, Map<String, String> values, String file) throws Faulty {
        Writing writing = Writing.text(said);
        var known = new TreeMap<>(values);
        int dot = file.lastIndexOf('.');
        known.put(FILE, dot < 1 ? file : file.substring(0, dot));
        for (String name : writing.attributes())
            if (known.getOrDefault(name, "").isBlank()) throw new Faulty("has {" + name + "}, which has no value");
        String text = writing.of("", "", known);
        if (!isName(text)) throw new Faulty("comes to ‘" + text + "’, which is not a name");
        return text;
    }
}
