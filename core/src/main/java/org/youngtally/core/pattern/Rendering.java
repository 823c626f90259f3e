package org.youngtally.core.pattern;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.pattern.Part.CheckField;
import org.youngtally.core.pattern.Part.CountField;
import org.youngtally.core.pattern.Part.DateField;
import org.youngtally.core.pattern.Part.Literal;
import org.youngtally.core.pattern.Part.TextField;

/**
 * A pattern for one set of particulars: what rests on them is written once, so that many values are written fast. For
 * one thread at a time.
 */
public final class Rendering {
    private static final int USUAL_LENGTH = 32;

    /** Texts, the count and checkers in order. */
    private final Object[] pieces;

    /** How many identifiers were asked for; not counted past two. */
    private int asked;
    /** Made for the second identifier: it takes longer than writing one. */
    private Optional<FixedRendering> fixed = Optional.empty();

    private byte[] scratch = new byte[USUAL_LENGTH];

    Rendering(Pattern pattern, Particulars particulars) {
        var all = new ArrayList<>();
        var text = new StringBuilder();
        for (Part part : pattern.parts()) {
            switch (part) {
                case Literal l -> text.append(l.text());
                case DateField d -> d.format().render(particulars.date(), text);
                case TextField f -> text.append(f.written(particulars.fields().get(f.name())));
                case CountField c -> next(text, c, all);
                case CheckField c -> next(text, pattern.checker(c), all);
            }
        }
        if (!text.isEmpty()) all.add(text.toString());
        this.pieces = all.toArray();
    }

    private static void next(StringBuilder text, Object field, List<Object> all) {
        if (!text.isEmpty()) all.add(text.toString());
        text.setLength(0);
        all.add(field);
    }

    /** The identifier of a value. The value must not be wider than the count, which a {@code Series} makes sure of. */
    public String of(long value) {
        if (asked < 2 && ++asked == 2) fixed = FixedRendering.of(pieces);
        String written = fixed.isPresent() ? fixed.get().of(value) : null;
        return written != null ? written : checked(value, new StringBuilder(USUAL_LENGTH));
    }

    /** Symbols of an identifier, from the first, counted from 0, to the one behind the last. */
    public record Symbols(int from, int to) {}

    /** Where the check symbols of a value's identifier stand. */
    public List<Symbols> checks(long value) {
        var checks = new ArrayList<Symbols>();
        int at = 0;
        for (Object piece : pieces) {
            int length = piece instanceof CountField field
                    ? field.written(value).length()
                    : piece instanceof Checker check ? check.length() : ((String) piece).length();
            if (piece instanceof Checker) checks.add(new Symbols(at, at + length));
            at += length;
        }
        return checks;
    }

    /** Check symbols that stand behind what they cover are written in passing, those in front of it at the end. */
    private String checked(long value, StringBuilder to) {
        int countFrom = 0;
        int countTo = 0;
        int[] later = null;
        for (int i = 0; i < pieces.length; i++) {
            Object piece = pieces[i];
            if (piece instanceof CountField c) {
                countFrom = to.length();
                c.append(value, to);
                countTo = to.length();
            } else if (!(piece instanceof Checker check)) {
                to.append((String) piece);
            } else if (check.inFront() || (check.ofCount() && countTo == 0)) {
                if (later == null) later = new int[pieces.length];
                later[i] = to.length() + 1;
            } else {
                check.append(
                        to,
                        check.ofCount() ? countFrom : 0,
                        check.ofCount() ? countTo : to.length(),
                        room(to.length()),
                        to);
            }
        }
        if (later != null) insert(later, countFrom, countTo, to);
        return to.toString();
    }

    private byte[] room(int symbols) {
        if (scratch.length < symbols) scratch = new byte[symbols];
        return scratch;
    }

    private void insert(int[] later, int from, int end, StringBuilder to) {
        int inserted = 0;
        for (int i = pieces.length - 1; i >= 0; i--) {
            if (later[i] == 0) continue;
            var check = new StringBuilder(2);
            Checker field = (Checker) pieces[i];
            int at = later[i] - 1;
            field.append(
                    to,
                    field.ofCount() ? from + inserted : at,
                    field.ofCount() ? end + inserted : to.length(),
                    room(to.length()),
                    check);
            to.insert(at, check);
            if (at <= from) inserted += check.length();
        }
    }
}
