package org.youngtally.core.gs1;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.check.CheckSchemes;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.gs1.Component.Content;

/**
 * What the digits in front of an element say: which data stand behind them, GS1 General Specifications, section 3.
 *
 * @param code two to four digits
 * @param title the data title of the specifications, e.g. {@code SERIAL}
 * @param components in their order; all but the last have a fixed length
 * @param with of which other elements one must be present; empty where it stands alone (section 4.13)
 */
public record ApplicationIdentifier(String code, String title, List<Component> components, List<String> with) {
    public ApplicationIdentifier {
        components = List.copyOf(components);
        with = List.copyOf(with);
    }

    /** How many symbols its element has at the least. */
    public int shortest() {
        return components.stream().mapToInt(Component::shortest).sum();
    }

    public int longest() {
        return components.stream().mapToInt(Component::longest).sum();
    }

    /** Whether FNC1 must follow its element where another one follows: all but those of table 7.8.5-2. */
    public boolean isSeparated() {
        int prefix = Integer.parseInt(code.substring(0, 2));
        return !(prefix <= 4 || prefix >= 11 && prefix <= 20 || prefix >= 31 && prefix <= 36 || prefix == 41);
    }

    /** Whether it holds a check digit. */
    public boolean isChecked() {
        return components.getFirst().content() == Content.CHECKED;
    }

    /** What is wrong with the data of an element. */
    public List<Fault> faults(String value) {
        String path = "(" + code + ")";
        if (value.length() < shortest() || value.length() > longest())
            return List.of(new Fault(
                    path,
                    "‘" + value + "’ has " + symbols(value.length()),
                    shortest() == longest()
                            ? title + " has " + symbols(longest())
                            : title + " has " + shortest() + " to " + symbols(longest())));
        var faults = new ArrayList<Fault>();
        int from = 0;
        for (Component component : components) {
            String part = value.substring(from, Math.min(value.length(), from + component.longest()));
            from += part.length();
            fault(path, component, part).ifPresent(faults::add);
        }
        return faults;
    }

    private static String symbols(int count) {
        return count + (count == 1 ? " symbol" : " symbols");
    }

    private static Optional<Fault> fault(String path, Component component, String part) {
        Optional<Character> foreign = component.foreign(part);
        if (foreign.isPresent())
            return Optional.of(new Fault(
                    path,
                    "‘" + foreign.get() + "’ is not allowed in it",
                    "use " + component.content().words()));
        if (component.holds(part)) return Optional.empty();
        if (component.content() == Content.DATE)
            return Optional.of(new Fault(
                    path, "‘" + part + "’ is not a date", "write year, month and day in two digits each, e.g. 261128"));
        String body = part.substring(0, part.length() - 1);
        return Optional.of(new Fault(
                path,
                "the check digit of ‘" + part + "’ is wrong",
                "for " + body + " it is "
                        + CheckSchemes.of("gs1").orElseThrow().check(body).orElseThrow()));
    }

    @Override
    public String toString() {
        return "(" + code + ") " + title;
    }
}
