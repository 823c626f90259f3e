package org.youngtally.documents.drawing;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** An element of a file, and where in its bytes its content is. */
public final class Element {
    private final String space;
    private final String name;
    private final Map<String, String> attributes;
    private final List<Element> children = new ArrayList<>();
    private final StringBuilder text = new StringBuilder();
    private final int tagFrom;
    private final int from;
    private int to;

    /**
     * @param space the name of its namespace; empty for none
     * @param name without a prefix; empty for one that is not of SVG
     * @param tagFrom where its start tag begins
     * @param from where its start tag ends
     */
    Element(String space, String name, Map<String, String> attributes, int tagFrom, int from) {
        this.space = space;
        this.name = name;
        this.attributes = Map.copyOf(attributes);
        this.tagFrom = tagFrom;
        this.from = from;
        this.to = from;
    }

    void add(Element child) {
        children.add(child);
    }

    void add(String more) {
        text.append(more);
    }

    /** @param end where its end tag begins; where the start tag begins for an element without an end tag */
    void end(int end) {
        to = end;
    }

    /** The name of its namespace; empty for none. */
    public String space() {
        return space;
    }

    public String name() {
        return name;
    }

    public Map<String, String> attributes() {
        return attributes;
    }

    public Optional<String> attribute(String wanted) {
        return Optional.ofNullable(attributes.get(wanted));
    }

    public List<Element> children() {
        return children;
    }

    /** The characters in it, without those of its children. */
    public String text() {
        return text.toString();
    }

    int from() {
        return from;
    }

    int to() {
        return to;
    }

    int tagFrom() {
        return tagFrom;
    }

    /** Whether its start tag is its end tag. */
    boolean isEmptyTag() {
        return to == tagFrom;
    }
}
