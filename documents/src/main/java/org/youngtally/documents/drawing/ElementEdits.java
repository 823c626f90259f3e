package org.youngtally.documents.drawing;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import org.youngtally.documents.ByteEdits;

/** Other texts and attributes for elements of a file; every other byte stays. */
public final class ElementEdits {
    private final byte[] bytes;
    private final ByteEdits edits;

    public ElementEdits(byte[] bytes) {
        this.bytes = bytes;
        this.edits = new ByteEdits(bytes);
    }

    private void edit(int from, int to, String text) {
        edits.replace(from, to, text.getBytes(StandardCharsets.UTF_8));
    }

    /** The whole content of an element. */
    public void text(Element element, String text) {
        String escaped = escaped(text);
        if (!element.isEmptyTag()) {
            edit(element.from(), element.to(), escaped);
            return;
        }
        // The slash in front of the end of the tag goes, and an end tag comes.
        String name = startTag(element).substring(1).split("[\\s/>]", 2)[0];
        edit(element.from() - "/>".length(), element.from(), ">" + escaped + "</" + name + ">");
    }

    /**
     * An attribute, which is added where it is not there.
     *
     * @param name as the file writes it, with its prefix
     */
    public void attribute(Element element, String name, String text) {
        String tag = startTag(element);
        int at = 1;
        while (!isBlank(tag.charAt(at)) && tag.charAt(at) != '>' && tag.charAt(at) != '/') at++;
        int behindName = element.tagFrom() + at;
        while (true) {
            while (isBlank(tag.charAt(at))) at++;
            if (tag.charAt(at) == '>' || tag.charAt(at) == '/') break;
            int nameFrom = at;
            while (tag.charAt(at) != '=' && !isBlank(tag.charAt(at))) at++;
            String found = tag.substring(nameFrom, at);
            while (tag.charAt(at) != '"' && tag.charAt(at) != '\'') at++;
            int end = tag.indexOf(tag.charAt(at), at + 1);
            if (found.equals(name)) {
                // The quotes may be single ones, which the text must not end.
                edit(element.tagFrom() + at, element.tagFrom() + end + 1, quoted(text));
                return;
            }
            at = end + 1;
        }
        edit(behindName, behindName, " " + name + "=" + quoted(text));
    }

    /** Something more at the begin of the content of an element that has any. */
    public void inFront(Element element, String markup) {
        edit(element.from(), element.from(), markup);
    }

    /** Something more at the end of the content of an element that has any. */
    void behind(Element element, String markup) {
        edit(element.to(), element.to(), markup);
    }

    /** Each byte as a symbol, so that places in it are places in the file; what it is searched for is plain. */
    private String startTag(Element element) {
        return new String(bytes, element.tagFrom(), element.from() - element.tagFrom(), StandardCharsets.ISO_8859_1);
    }

    private static boolean isBlank(char symbol) {
        return symbol == ' ' || symbol == '\t' || symbol == '\n' || symbol == '\r';
    }

    /** A text as XML writes it between tags. */
    public static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
    }

    private static String quoted(String text) {
        return '"'
                + escaped(text).replace("\"", "&quot;").replace("\n", "&#10;").replace("\t", "&#9;")
                + '"';
    }

    public byte[] applied() {
        var out = new ByteArrayOutputStream(bytes.length + 1_024);
        try {
            edits.write(out);
        } catch (IOException e) {
            throw new UncheckedIOException("memory does not fail", e);
        }
        return out.toByteArray();
    }
}
