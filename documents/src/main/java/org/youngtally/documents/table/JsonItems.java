package org.youngtally.documents.table;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import com.google.gson.JsonParseException;
import com.google.gson.JsonParser;
import com.google.gson.Strictness;
import com.google.gson.stream.JsonReader;
import java.io.StringReader;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.youngtally.core.numbering.Grid.Sheet;
import org.youngtally.core.numbering.Item;
import org.youngtally.documents.ItemBounds;
import org.youngtally.documents.NumberedFile;
import org.youngtally.documents.UnreadableDocument;

/** The objects of a JSON array as items; their texts, figures, true and false are their attributes. */
public final class JsonItems implements NumberedFile {
    private final String text;
    private final String member;
    private final Sheet sheet;
    private final List<Item> items = new ArrayList<>();
    /** Where each item's object begins and ends in the text. */
    private final Map<String, int[]> places = new HashMap<>();

    private JsonItems(String text, String name, int number, String member) throws UnreadableDocument {
        this.text = text;
        this.member = member;
        this.sheet = new Sheet(name, 0, 0);
        var bounds = new ItemBounds();
        for (int[] place : objects(text)) {
            JsonElement element = JsonParser.parseString(text.substring(place[0], place[1]));
            String id = number + ":" + (items.size() + 1);
            Map<String, String> attributes = attributes(element.getAsJsonObject());
            bounds.add(attributes.size());
            items.add(new Item(
                    id,
                    number,
                    attributes.getOrDefault(member, ""),
                    Optional.empty(),
                    new TreeMap<>(attributes),
                    Optional.empty()));
            places.put(id, place);
        }
    }

    /** @param into the member of the numbers */
    public static JsonItems read(byte[] bytes, String name, int number, String into) throws UnreadableDocument {
        try {
            String text = StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(bytes))
                    .toString();
            var strict = new JsonReader(new StringReader(text.startsWith("\uFEFF") ? text.substring(1) : text));
            strict.setStrictness(Strictness.STRICT);
            JsonElement whole = JsonParser.parseReader(strict);
            if (!whole.isJsonArray()
                    || !whole.getAsJsonArray().asList().stream().allMatch(JsonElement::isJsonObject))
                throw new UnreadableDocument("‘" + name + "’ is no JSON array of objects", "[ { … }, { … } ]");
            return new JsonItems(text, name, number, into);
        } catch (CharacterCodingException e) {
            throw new UnreadableDocument("‘" + name + "’ is not written in UTF-8", "the same file in UTF-8", e);
        } catch (JsonParseException e) {
            throw new UnreadableDocument(
                    "‘" + name + "’ is no JSON that can be read: "
                            + e.getMessage().replaceFirst("\n.*", ""),
                    "a JSON array of objects",
                    e);
        }
    }

    private static Map<String, String> attributes(JsonObject object) {
        var attributes = new TreeMap<String, String>();
        object.entrySet().forEach(each -> {
            if (each.getValue().isJsonPrimitive())
                attributes.put(each.getKey(), each.getValue().getAsString());
        });
        return attributes;
    }

    /** The objects of an array that is known to be one: from their first brace to behind their last. */
    private static List<int[]> objects(String text) {
        var objects = new ArrayList<int[]>();
        int depth = 0;
        int from = 0;
        for (int at = 0; at < text.length(); at++) {
            char symbol = text.charAt(at);
            if (symbol == '"') {
                for (at++; text.charAt(at) != '"'; at++) if (text.charAt(at) == '\\') at++;
            } else if (symbol == '{' || symbol == '[') {
                if (++depth == 2) from = at;
            } else if (symbol == '}' || symbol == ']') {
                if (depth-- == 2) objects.add(new int[] {from, at + 1});
            }
        }
        return objects;
    }

    @Override
    public Sheet sheet() {
        return sheet;
    }

    @Override
    public List<Item> items() {
        return List.copyOf(items);
    }

    @Override
    public byte[] with(Map<String, String> changed) {
        var out = new StringBuilder(text.length() + changed.size() * 16);
        int copied = 0;
        for (Item item : items) {
            String written = changed.get(item.id());
            if (written == null) continue;
            int[] place = places.get(item.id());
            var found = JsonMember.find(text.substring(place[0], place[1]), member);
            out.append(text, copied, place[0] + found.from()).append(found.with(member, written));
            copied = place[0] + found.to();
        }
        return out.append(text, copied, text.length()).toString().getBytes(StandardCharsets.UTF_8);
    }
}
