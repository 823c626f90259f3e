package org.youngtally.core.numbering;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.numbering.RuleDraft.AlsoDraft;
import org.youngtally.core.numbering.RuleDraft.MarkDraft;
import org.youngtally.core.numbering.RuleDraft.ValueDraft;
import org.youngtally.core.pattern.PatternException;

/**
 * What is wrong with what a rule says of programs and part files: marks, values, further properties, names of files.
 */
final class FileRuleCheck {
    private static final int MOST_MARKS = 50;
    private static final int LONGEST_MARK = 200;

    private final RuleDraft draft;
    private final List<Fault> faults = new ArrayList<>();

    FileRuleCheck(RuleDraft draft) {
        this.draft = draft;
    }

    /** Whether anything gets a number: all but programs whose values all come from elsewhere. */
    static boolean isNumbered(RuleDraft draft) {
        return draft.marks() == null
                || draft.marks().stream().anyMatch(mark -> MarkDraft.NUMBER.equals(mark.replacedBy()));
    }

    List<Fault> faults() {
        marks();
        values();
        also();
        fileName();
        return faults;
    }

    private void fault(String path, String problem, String accepted) {
        faults.add(new Fault(path, problem, accepted));
    }

    private void marks() {
        List<MarkDraft> marks = draft.marks() == null ? List.of() : draft.marks();
        if (marks.size() > MOST_MARKS) fault("marks", "are " + marks.size(), "up to " + MOST_MARKS);
        for (int i = 0; i < marks.size(); i++) {
            MarkDraft mark = marks.get(i);
            String path = "marks[" + i + "]";
            List<Fault> wrong = MarkDraft.PROPERTIES.faults(path + ".", mark);
            faults.addAll(wrong);
            if (!wrong.isEmpty()) continue;
            if (mark.text().isBlank()
                    || mark.text().length() > LONGEST_MARK
                    || mark.text().chars().anyMatch(Character::isISOControl))
                fault(path + ".text", "is no mark", "1 to " + LONGEST_MARK + " visible symbols of one line");
            if ((mark.replacedBy() == null) == (mark.begins() == null))
                fault(
                        path,
                        "is not one mark",
                        "replaced-by: for a text that is replaced, or begins: for one that stays");
            else if ((mark.replacedBy() == null ? mark.begins() : mark.replacedBy()).isBlank())
                fault(path, "has no name", "number, piece, or a name of your own");
            for (int other = 0; other < i; other++) overlap(path, mark, marks.get(other));
        }
        if (draft.marks() == null) return;
        for (String[] other : new String[][] {{"path", draft.path()}, {"into", draft.into()}})
            if (other[1] != null) fault(other[0], "is said beside marks", "remove it: the marks say where numbers go");
        if (draft.between() != null)
            fault("between", "is said beside marks", "remove it: the marks say where numbers go");
    }

    /** Of two marks one within the other both would be found at one place. */
    private void overlap(String path, MarkDraft mark, MarkDraft other) {
        if (other.text() != null
                && (mark.text().contains(other.text()) || other.text().contains(mark.text())))
            fault(
                    path + ".text",
                    "‘" + mark.text() + "’ overlaps the mark ‘" + other.text() + "’",
                    "marks of which none is a part of another");
    }

    private void values() {
        Set<String> names = new HashSet<>();
        List<ValueDraft> values = draft.values() == null ? List.of() : draft.values();
        for (int i = 0; i < values.size(); i++) {
            String path = "values[" + i + "]";
            faults.addAll(ValueDraft.PROPERTIES.faults(path + ".", values.get(i)));
            if (values.get(i).name() != null && !names.add(values.get(i).name()))
                fault(path + ".name", "‘" + values.get(i).name() + "’ occurs twice", "each name once");
        }
    }

    private void also() {
        Set<String> into = new HashSet<>();
        List<AlsoDraft> also = draft.also() == null ? List.of() : draft.also();
        for (int i = 0; i < also.size(); i++) {
            String path = "also[" + i + "]";
            faults.addAll(AlsoDraft.PROPERTIES.faults(path + ".", also.get(i)));
            writing(path + ".write", also.get(i).write());
            String name = also.get(i).into();
            if (name != null && (!into.add(name) || name.equals(draft.into())))
                fault(path + ".into", "‘" + name + "’ is written twice", "each property once");
        }
        if (!also.isEmpty() && "none".equals(draft.number()))
            fault("also", "is said where numbers are cleared", "undo the numbering, or remove it");
    }

    private void fileName() {
        writing("file-name", draft.fileName());
        if (draft.fileName() != null && draft.fileName().chars().anyMatch(symbol -> symbol == '/' || symbol == '\\'))
            fault("file-name", "has a folder in it", "a name alone; --output says the folder");
    }

    private void writing(String path, String text) {
        if (text == null) return;
        try {
            Writing.text(text);
        } catch (PatternException e) {
            fault(path, "column " + e.column() + ": " + e.problem(), e.accepted());
        }
    }
}
