package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.stream.Collectors;

/** Reading what the service answers; a property that is absent has a stand-in. */
final class Json {
    private Json() {}

    static String text(JsonObject object, String name, String absent) {
        JsonElement value = object.get(name);
        return value == null || value.isJsonNull() ? absent : value.getAsString();
    }

    /** The list of a property; empty where it is absent. */
    static JsonArray list(JsonObject object, String name) {
        JsonElement value = object.get(name);
        return value == null || value.isJsonNull() ? new JsonArray() : value.getAsJsonArray();
    }

    /** The fields that are in an object, NAME=VALUE behind a beginning; empty where there are none. */
    static String fields(JsonObject object, String beginning) {
        if (!object.has("fields") || object.getAsJsonObject("fields").isEmpty()) return "";
        return object.getAsJsonObject("fields").entrySet().stream()
                .map(field -> field.getKey() + "=" + field.getValue().getAsString())
                .collect(Collectors.joining(", ", beginning, ""));
    }

    /** A count for people, with its thousands grouped; nought where it is absent. */
    static String count(JsonObject object, String name) {
        return Output.grouped(object.has(name) ? number(object, name) : 0);
    }

    static long number(JsonObject object, String name) {
        return object.get(name).getAsLong();
    }
}
