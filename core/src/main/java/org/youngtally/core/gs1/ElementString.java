package org.youngtally.core.gs1;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.youngtally.core.fault.Fault;

/** Elements that stand together in one symbol, in their order: GS1 General Specifications, sections 3 and 7.8. */
public record ElementString(List<Element> elements) {
    /** What ends an element of a variable length that another one follows: FNC1, as scanners tell it. */
    public static final char SEPARATOR = 0x1d;

    public ElementString {
        elements = List.copyOf(elements);
    }

    /** What is wrong with it: each element by itself, what one needs beside it, and what is there twice. */
    public List<Fault> faults() {
        var faults = new ArrayList<Fault>();
        Set<String> present =
                elements.stream().map(each -> each.identifier().code()).collect(Collectors.toSet());
        for (int i = 0; i < elements.size(); i++) {
            ApplicationIdentifier identifier = elements.get(i).identifier();
            String path = "(" + identifier.code() + ")";
            faults.addAll(elements.get(i).faults());
            if (elements.subList(0, i).stream()
                    .anyMatch(each -> each.identifier().equals(identifier)))
                faults.add(new Fault(path, "occurs twice", "keep one " + identifier.title()));
            if (!identifier.with().isEmpty() && identifier.with().stream().noneMatch(present::contains))
                faults.add(new Fault(
                        path,
                        identifier.title() + " occurs without what it belongs to",
                        "add "
                                + identifier.with().stream()
                                        .map(code -> "(" + code + ")")
                                        .collect(Collectors.joining(" or "))));
        }
        if (present.contains("01") && present.contains("02"))
            faults.add(new Fault("(02)", "occurs beside (01)", "keep one of the two"));
        return faults;
    }

    /** The data of an application identifier. */
    public Optional<String> value(String code) {
        return elements.stream()
                .filter(each -> each.identifier().code().equals(code))
                .map(Element::value)
                .findFirst();
    }

    /** As it is read below a bar code: the application identifiers in parentheses. */
    public String bracketed() {
        return elements.stream().map(Element::toString).collect(Collectors.joining());
    }

    /** As it is in a bar code, without the FNC1 in front: {@link #SEPARATOR} where the standard wants one. */
    public String joined() {
        var text = new StringBuilder();
        for (int i = 0; i < elements.size(); i++) {
            Element element = elements.get(i);
            text.append(element.identifier().code()).append(element.value());
            if (element.identifier().isSeparated() && i < elements.size() - 1) text.append(SEPARATOR);
        }
        return text.toString();
    }

    /**
     * The same as an uncompressed GS1 Digital Link URI: the first key of the standard with its qualifiers as the path,
     * all else as the query.
     *
     * @param base without a slash at its end, e.g. {@code https://id.larkmoor.example}
     * @return empty where there is no key that a link can begin with
     */
    public Optional<String> link(String base) {
        for (LinkKey key : LinkKey.ALL) {
            Optional<String> value = value(key.code());
            if (value.isEmpty()) continue;
            var path = new StringBuilder(base);
            var said = new ArrayList<String>();
            said.add(key.code());
            path.append('/').append(key.code()).append('/').append(PercentCode.escaped(value.get()));
            for (String qualifier : key.qualifiers())
                value(qualifier).ifPresent(each -> {
                    said.add(qualifier);
                    path.append('/').append(qualifier).append('/').append(PercentCode.escaped(each));
                });
            String query = elements.stream()
                    .filter(each -> !said.contains(each.identifier().code()))
                    .map(each -> each.identifier().code() + "=" + PercentCode.escaped(each.value()))
                    .collect(Collectors.joining("&"));
            return Optional.of(query.isEmpty() ? path.toString() : path + "?" + query);
        }
        return Optional.empty();
    }
}
