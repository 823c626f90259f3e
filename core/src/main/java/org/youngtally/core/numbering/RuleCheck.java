package org.youngtally.core.numbering;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.numbering.Order.Axis;
import org.youngtally.core.numbering.Order.Key;
import org.youngtally.core.numbering.Rule.Which;
import org.youngtally.core.numbering.RuleDraft.ChoiceDraft;
import org.youngtally.core.numbering.RuleDraft.OrderDraft;
import org.youngtally.core.pattern.Pattern;
import org.youngtally.core.pattern.PatternException;

/** Makes a rule of its draft, or says what is wrong with it. */
public final class RuleCheck {
    private static final int MOST_CELLS = 1_000;

    private final RuleDraft draft;
    private final List<Fault> faults = new ArrayList<>();
    private Optional<Rule> rule = Optional.empty();

    private RuleCheck(RuleDraft draft) {
        this.draft = draft;
    }

    public static RuleCheck of(RuleDraft draft) {
        var check = new RuleCheck(draft);
        check.check();
        return check;
    }

    public List<Fault> faults() {
        return List.copyOf(faults);
    }

    /** Absent where there are faults. */
    public Optional<Rule> rule() {
        return rule;
    }

    private void check() {
        faults.addAll(RuleDraft.PROPERTIES.faults("", draft));
        List<Choice.Test> tests = tests();
        List<Key> keys = keys();
        Optional<Grid> grid = grid();
        Optional<Pattern> pattern = parsed("pattern", draft.pattern(), Pattern::parse);
        Sum start = parsed("start", draft.start(), Sum::parse).orElse(Sum.of(1));
        Writing writing = parsed("write", draft.write(), Writing::parse).orElse(Writing.NUMBER);
        source();
        between();
        faults.addAll(new FileRuleCheck(draft).faults());
        blanks("restarts", draft.restarts());
        if (draft.step() != null && draft.step() < 1) fault("step", "is " + draft.step(), "a whole number from 1");
        if (!faults.isEmpty()) return;
        var made = new Rule(
                new Choice(tests),
                new Order(keys),
                grid,
                draft.restarts() == null ? List.of() : draft.restarts(),
                Optional.ofNullable(draft.same()),
                Which.valueOf(
                        Optional.ofNullable(draft.number()).orElse("missing").toUpperCase(Locale.ROOT)),
                pattern.map(each -> new Rule.Count(each, start, draft.step() == null ? 1 : draft.step())),
                writing,
                Boolean.TRUE.equals(draft.repeats()));
        faults.addAll(made.faults());
        if (faults.isEmpty()) rule = Optional.of(made);
    }

    private void fault(String path, String problem, String accepted) {
        faults.add(new Fault(path, problem, accepted));
    }

    private <T> Optional<T> parsed(String path, String text, Function<String, T> parser) {
        if (text == null) return Optional.empty();
        try {
            return Optional.of(parser.apply(text));
        } catch (PatternException e) {
            fault(path, "column " + e.column() + ": " + e.problem(), e.accepted());
            return Optional.empty();
        }
    }

    /** Nothing stands in a list for a name. */
    private void blanks(String path, List<String> names) {
        if (names != null && names.stream().anyMatch(name -> name == null || name.isBlank()))
            fault(path, "holds a blank name", "names alone");
    }

    /** Where the numbers come from. */
    private void source() {
        boolean ledger = draft.series() != null || draft.kind() != null;
        if (draft.pattern() == null && !ledger && FileRuleCheck.isNumbered(draft))
            fault(
                    "",
                    "says neither a pattern nor a series",
                    "write pattern: \"{count 3}\", or series: and its key, or kind: and unit:");
        if (draft.pattern() != null && ledger)
            fault(
                    draft.series() != null ? "series" : "kind",
                    "is said beside a pattern",
                    "keep one: the series has a pattern of its own");
        if (draft.series() != null && draft.kind() != null)
            fault("kind", "is said beside a series", "keep one: the routes of the kind lead to a series");
        if ((draft.kind() == null) != (draft.unit() == null))
            fault(draft.kind() == null ? "kind" : "unit", "is missing", "kind: and unit: together");
        if (!ledger && draft.document() != null)
            fault("document", "is said without a series", "remove it, or add series:");
        if (!ledger) return;
        if (draft.document() == null || !DocumentName.isName(draft.document()))
            fault(
                    "document",
                    draft.document() == null ? "is missing" : "‘" + draft.document() + "’ is not a name",
                    DocumentName.ACCEPTED);
        else parsed("document", draft.document(), Writing::text);
        if (draft.start() != null || draft.step() != null)
            fault("start", "is that of the series", "remove start and step");
    }

    private void between() {
        if (draft.between() == null) return;
        if (draft.between().size() != 2 || draft.between().stream().anyMatch(mark -> mark == null || mark.isEmpty()))
            fault("between", "is not two marks", "write them in quotes, such as [\"[\", \"]\"]");
    }

    private Optional<Grid> grid() {
        if (draft.grid() == null) return Optional.empty();
        long columns = draft.grid().columns() == null ? 1 : draft.grid().columns();
        long rows = draft.grid().rows() == null ? 1 : draft.grid().rows();
        if (columns < 1 || rows < 1 || columns > MOST_CELLS || rows > MOST_CELLS) {
            fault("grid", "has " + columns + " columns and " + rows + " rows", "1 to " + MOST_CELLS + " of each");
            return Optional.empty();
        }
        return Optional.of(new Grid((int) columns, (int) rows));
    }

    private List<Choice.Test> tests() {
        var tests = new ArrayList<Choice.Test>();
        for (ChoiceDraft each : draft.choose() == null ? List.<ChoiceDraft>of() : draft.choose()) {
            String path = "choose[" + tests.size() + "]";
            faults.addAll(ChoiceDraft.PROPERTIES.faults(path + ".", each));
            tests.add(test(each, path));
        }
        return tests;
    }

    private Choice.Test test(ChoiceDraft each, String path) {
        int said = 0;
        for (Object part : new Object[] {each.attribute(), each.text(), each.within(), each.picked()})
            if (part != null) said++;
        if (said != 1 || each.attribute() == null != (each.values() == null))
            fault(path, "is not one test", "one of: attribute with values, text, within, picked");
        if (each.values() != null)
            return new Choice.Test.Attribute(String.valueOf(each.attribute()), set(each.values()));
        if (each.text() != null) return new Choice.Test.Text(set(each.text()));
        if (each.within() == null)
            return new Choice.Test.Picked(each.picked() == null || !faults.isEmpty() ? List.of() : each.picked());
        List<Fault> wrong = RuleDraft.BoxDraft.PROPERTIES.faults(path + ".within.", each.within());
        faults.addAll(wrong);
        RuleDraft.BoxDraft box = each.within();
        if (box.left() == null || box.top() == null || box.right() == null || box.bottom() == null)
            fault(path + ".within", "is not a box", "left, top, right and bottom");
        return wrong.isEmpty() && faults.isEmpty()
                ? new Choice.Test.Box(
                        Double.parseDouble(box.left()),
                        Double.parseDouble(box.top()),
                        Double.parseDouble(box.right()),
                        Double.parseDouble(box.bottom()))
                : new Choice.Test.Box(0, 0, 0, 0);
    }

    private static Set<String> set(List<String> values) {
        var set = new HashSet<String>();
        for (String value : values) set.add(value == null ? "" : value.strip());
        return set;
    }

    private List<Key> keys() {
        var keys = new ArrayList<Key>();
        for (OrderDraft each : draft.order() == null ? List.<OrderDraft>of() : draft.order()) {
            String path = "order[" + keys.size() + "]";
            List<Fault> wrong = OrderDraft.PROPERTIES.faults(path + ".", each);
            faults.addAll(wrong);
            if (each.by() == null == (each.attribute() == null))
                fault(path, "is not one key", "by: rows, columns, x or y; or attribute: and its name");
            boolean descending = Boolean.TRUE.equals(each.descending());
            boolean lines = "rows".equals(each.by()) || "columns".equals(each.by());
            if (!lines && (each.tolerance() != null || each.linesDescending() != null))
                fault(path, "has a tolerance or lines-descending without lines", "by: rows or columns, or remove them");
            keys.add(
                    each.by() == null
                            ? new Key.ByAttribute(String.valueOf(each.attribute()), descending)
                            : lines
                                    ? new Key.InLines(
                                            each.by().equals("rows") ? Axis.Y : Axis.X,
                                            tolerance(each, path, wrong),
                                            Boolean.TRUE.equals(each.linesDescending()),
                                            descending)
                                    : new Key.Along(each.by().equals("x") ? Axis.X : Axis.Y, descending));
        }
        return keys;
    }

    private double tolerance(OrderDraft each, String path, List<Fault> wrong) {
        if (each.tolerance() == null || !wrong.isEmpty()) return 0;
        double tolerance = Double.parseDouble(each.tolerance());
        if (tolerance >= 0) return tolerance;
        fault(path + ".tolerance", "is less than 0", "0 or more");
        return 0;
    }
}
