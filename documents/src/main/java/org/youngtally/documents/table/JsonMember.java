package org.youngtally.documents.table;

import com.google.gson.Gson;
import com.google.gson.GsonBuilder;

/**
 * Where the value of a member is in the text of a JSON object, which is known to be one.
 *
 * @param from its first symbol; where it would stand, if it is not there
 * @param to behind its last
 * @param text the value as it is written
 * @param there whether the object has such a member
 * @param first whether it would be the first one
 */
record JsonMember(int from, int to, String written, boolean there, boolean first) {
    private static final Gson JSON = new GsonBuilder().disableHtmlEscaping().create();

    /** The last member of this name, as a reader takes it; members of objects within do not count. */
    static JsonMember find(String line, String name) {
        int depth = 0;
        boolean members = false;
        JsonMember found = null;
        for (int at = 0; at < line.length(); at++) {
            char symbol = line.charAt(at);
            if (symbol == '{' || symbol == '[') depth++;
            if (symbol == '}' || symbol == ']') depth--;
            if (symbol != '"') continue;
            int end = string(line, at);
            if (depth == 1) {
                members = true;
                int value = blanks(line, blanks(line, end) + 1);
                int behind = value(line, value);
                if (JSON.fromJson(line.substring(at, end), String.class).equals(name))
                    found = new JsonMember(value, behind, line.substring(value, behind), true, false);
                at = behind - 1;
            } else at = end - 1;
        }
        int end = end(line);
        return found == null ? new JsonMember(end, end, "", false, !members) : found;
    }

    /** Behind a string that begins here. */
    private static int string(String line, int from) {
        int at = from + 1;
        while (line.charAt(at) != '"') at += line.charAt(at) == '\\' ? 2 : 1;
        return at + 1;
    }

    private static int blanks(String line, int from) {
        int at = from;
        while (Character.isWhitespace(line.charAt(at))) at++;
        return at;
    }

    private static int value(String line, int from) {
        if (line.charAt(from) == '"') return string(line, from);
        int depth = 0;
        int at = from;
        while (depth > 0 || ",}] \t\r\n".indexOf(line.charAt(at)) < 0) {
            char symbol = line.charAt(at);
            if (symbol == '"') {
                at = string(line, at);
                continue;
            }
            if (symbol == '{' || symbol == '[') depth++;
            if (symbol == '}' || symbol == ']') depth--;
            at++;
        }
        return at;
    }

    /** The brace that ends the object. */
    static int end(String line) {
        return line.lastIndexOf('}');
    }

    /** The value as it is meant. */
    String text() {
        return written.startsWith("\"") ? JSON.fromJson(written, String.class) : written.equals("null") ? "" : written;
    }

    /** What replaces the value. */
    String with(String name, String text) {
        boolean figure = there && !written.startsWith("\"") && text.matches("0|[1-9][0-9]{0,17}");
        String value = figure ? text : JSON.toJson(text);
        return there ? value : (first ? "" : ",") + JSON.toJson(name) + ":" + value;
    }

    /** A further member, behind others. */
    static String further(String name, String text) {
        return "," + JSON.toJson(name) + ":" + JSON.toJson(text);
    }
}
