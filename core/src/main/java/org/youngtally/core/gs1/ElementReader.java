package org.youngtally.core.gs1;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.youngtally.core.fault.Fault;

/**
 * Reads what a scanner or a person enters: an element string as in the bar code, with parentheses as below it, or a GS1
 * Digital Link URI.
 */
public final class ElementReader {
    /** What scanners put in front of GS1-128, GS1 Data Matrix, GS1 QR Code and others (ISO/IEC 15424). */
    private static final List<String> SYMBOLOGIES = List.of("]C1", "]d2", "]Q3", "]e0", "]J1");

    private static final Pattern BRACKET = Pattern.compile("\\((\\d{2,4})\\)");
    private static final Pattern LINK = Pattern.compile("(?i)https?://[^/?#]+(/[^?#]*)(?:\\?([^#]*))?(?:#.*)?");
    private static final String SEPARATOR = String.valueOf(ElementString.SEPARATOR);

    private ElementReader() {}

    /** How a text is written. */
    public enum Form {
        /** As in the bar code. */
        JOINED,
        BRACKETED,
        LINK
    }

    /** @param faults what is wrong, of the text and of its elements; empty where all is right */
    public record Reading(Form form, ElementString string, List<Fault> faults) {
        public Reading {
            faults = List.copyOf(faults);
        }
    }

    /**
     * Reads a text.
     *
     * @return empty where it is none of these; without a mark of its form it is one only where a check digit says so
     */
    public static Optional<Reading> read(String text) {
        String entered = text.strip();
        for (String symbology : SYMBOLOGIES)
            if (entered.startsWith(symbology)) return Optional.of(joined(entered.substring(symbology.length())));
        Matcher link = LINK.matcher(entered);
        if (link.matches()) return link(link);
        if (BRACKET.matcher(entered).lookingAt()) return Optional.of(bracketed(entered));
        if (entered.contains(SEPARATOR)) return Optional.of(joined(entered));
        Reading guessed = joined(entered);
        return guessed.faults().isEmpty()
                        && guessed.string().elements().stream()
                                .anyMatch(each -> each.identifier().isChecked())
                ? Optional.of(guessed)
                : Optional.empty();
    }

    private static Reading joined(String text) {
        var elements = new ArrayList<Element>();
        var faults = new ArrayList<Fault>();
        int at = 0;
        while (at < text.length()) {
            if (text.charAt(at) == ElementString.SEPARATOR) {
                at++;
                continue;
            }
            Optional<ApplicationIdentifier> found = ApplicationIdentifiers.at(text, at);
            if (found.isEmpty()) {
                faults.add(unknown(text.substring(at, Math.min(text.length(), at + 4))));
                break;
            }
            int from = at + found.get().code().length();
            int end = text.indexOf(ElementString.SEPARATOR, from);
            int rest = end < 0 ? text.length() : end;
            at = found.get().isSeparated()
                    ? rest
                    : Math.min(rest, from + found.get().longest());
            elements.add(new Element(found.get(), text.substring(from, at)));
        }
        return reading(Form.JOINED, elements, faults);
    }

    private static Reading bracketed(String text) {
        var elements = new ArrayList<Element>();
        var faults = new ArrayList<Fault>();
        Matcher bracket = BRACKET.matcher(text);
        boolean found = bracket.find();
        while (found) {
            String code = bracket.group(1);
            int from = bracket.end();
            // A parenthesis can stand in the data, and begins an element only where it names one.
            found = bracket.find();
            while (found && ApplicationIdentifiers.of(bracket.group(1)).isEmpty()) found = bracket.find();
            String value = text.substring(from, found ? bracket.start() : text.length());
            Optional<ApplicationIdentifier> identifier = ApplicationIdentifiers.of(code);
            if (identifier.isPresent()) elements.add(new Element(identifier.get(), value));
            else faults.add(unknown(code));
        }
        return reading(Form.BRACKETED, elements, faults);
    }

    private static Optional<Reading> link(Matcher link) {
        String[] path = link.group(1).substring(1).split("/", -1);
        int key = path.length - 2;
        while (key >= 0 && LinkKey.of(path[key]).isEmpty()) key--;
        if (key < 0) return Optional.empty();
        var elements = new ArrayList<Element>();
        var faults = new ArrayList<Fault>();
        LinkKey begins = LinkKey.of(path[key]).orElseThrow();
        for (int i = key; i < path.length - 1; i += 2) {
            if (i > key && !begins.qualifiers().contains(path[i]))
                faults.add(new Fault(
                        "(" + path[i] + ")",
                        "cannot follow (" + begins.code() + ") in the path of a link",
                        "write it behind the question mark"));
            add(path[i], path[i + 1], elements, faults);
        }
        if (link.group(2) != null)
            for (String pair : link.group(2).split("[&;]")) {
                int equals = pair.indexOf('=');
                // Others are for the web page that the link leads to.
                if (equals > 0 && pair.substring(0, equals).matches("\\d{2,4}"))
                    add(pair.substring(0, equals), pair.substring(equals + 1), elements, faults);
            }
        return Optional.of(reading(Form.LINK, elements, faults));
    }

    private static void add(String code, String escaped, List<Element> elements, List<Fault> faults) {
        Optional<ApplicationIdentifier> identifier = ApplicationIdentifiers.of(code);
        if (identifier.isEmpty()) {
            faults.add(unknown(code));
            return;
        }
        Optional<String> value = PercentCode.read(escaped);
        if (value.isPresent()) elements.add(new Element(identifier.get(), padded(identifier.get(), value.get())));
        else
            faults.add(
                    new Fault("(" + code + ")", "‘" + escaped + "’ is escaped wrongly", "write a percent sign as %25"));
    }

    /** A link may leave out the zeros in front of a trade item's number. */
    private static String padded(ApplicationIdentifier identifier, String value) {
        boolean shorter =
                identifier.code().equals("01") && (value.length() == 8 || value.length() == 12 || value.length() == 13);
        return shorter ? "0".repeat(identifier.longest() - value.length()) + value : value;
    }

    private static Reading reading(Form form, List<Element> elements, List<Fault> faults) {
        var string = new ElementString(elements);
        faults.addAll(string.faults());
        if (elements.isEmpty() && faults.isEmpty())
            faults.add(new Fault("", "it has no element", "begin with an application identifier, e.g. (21)"));
        return new Reading(form, string, faults);
    }

    private static Fault unknown(String code) {
        return new Fault(
                "(" + code + ")",
                "‘" + code + "’ is not an application identifier that is known here",
                "use one of the GS1 General Specifications, e.g. 00, 01, 21");
    }
}
