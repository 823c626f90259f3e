package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;

/** Reading what the service answers; a property that is absent has a stand-in. */
final class Json {
    private Json() {}

    static String text(JsonObject object, String name, String absent) {
        JsonElement value = object.get(name);
        return value == null || value.isJsonNull() ? absent : value.getAsString();
    }

    static long number(JsonObject object, String name) { return object.get(name).getAsLong(); }
}
