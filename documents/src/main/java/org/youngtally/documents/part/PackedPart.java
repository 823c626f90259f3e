package org.youngtally.documents.part;

import java.io.IOException;
import java.io.OutputStream;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.youngtally.documents.PackedFile;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.drawing.Element;
import org.youngtally.documents.drawing.ElementEdits;
import org.youngtally.documents.drawing.ElementReader;

/**
 * The objects of a 3MF file that are models, as items. Their attributes are {@code id}, {@code name},
 * {@code partnumber}, how often each is used in others ({@code uses}), and the metadata of the object by their names;
 * of a file with one object those of the file as well.
 */
final class PackedPart extends PartFile {
    private static final long MOST_BYTES = 100_000_000L;
    private static final String RELATIONS = "_rels/.rels";
    private static final String MODEL = "http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel";
    private static final String CORE = "http://schemas.microsoft.com/3dmanufacturing/core/2015/02";
    static final String PART_NUMBER = "partnumber";
    /** In front of the id of an object. */
    private static final String OBJECT = "object ";

    private static final String METADATA = "metadata";
    private static final String ACCEPTED = "a file that was saved as .3mf";

    private final byte[] bytes;
    /** The part of the package with the model. */
    private final String part;

    private final byte[] model;
    private final Element root;
    private final Map<String, Element> objects = new LinkedHashMap<>();

    private PackedPart(byte[] bytes, String name, int number, String into) throws IOException, UnreadableDocument {
        super(name, number, into);
        this.bytes = bytes;
        PackedFile.bounded(bytes, MOST_BYTES, "‘" + name + "’");
        this.part = modelPart();
        this.model = PackedFile.part(bytes, part, in -> in.readAllBytes());
        this.root = ElementReader.xml(model, Set.of("vertices", "triangles"));
    }

    static PackedPart of(byte[] bytes, String name, int number, Optional<String> into) throws UnreadableDocument {
        try {
            var file = new PackedPart(bytes, name, number, into.orElse(PART_NUMBER));
            file.read();
            return file;
        } catch (IOException | IllegalArgumentException e) {
            throw new UnreadableDocument(
                    "‘" + name + "’ is no 3MF file that can be read (" + e.getMessage() + ")", ACCEPTED, e);
        }
    }

    /** The package says where its model is. */
    private String modelPart() throws IOException, UnreadableDocument {
        Element relations = ElementReader.xml(PackedFile.part(bytes, RELATIONS, in -> in.readAllBytes()));
        List<String> targets = relations.children().stream()
                .filter(each -> each.attribute("Type").filter(MODEL::equals).isPresent())
                .flatMap(each -> each.attribute("Target").stream())
                .toList();
        if (targets.size() != 1)
            throw new UnreadableDocument("‘" + name + "’ names " + targets.size() + " models", "a file with one model");
        return targets.getFirst().replaceFirst("^/", "");
    }

    private void read() throws UnreadableDocument {
        if (!root.name().equals("model") || !root.space().equals(CORE))
            throw new UnreadableDocument("The model of ‘" + name + "’ is no model of 3MF", ACCEPTED);
        for (Element object : children(root, "resources")
                .flatMap(each -> children(each, "object"))
                .toList()) {
            if (!object.attribute("type").orElse("model").equals("model")) continue;
            String id = object.attribute("id").orElse("");
            if (id.isEmpty() || objects.put(id, object) != null)
                throw new UnreadableDocument(
                        "‘" + name + "’ has "
                                + (id.isEmpty() ? "an object without an id" : "the object ‘" + id + "’ twice"),
                        "objects with an id each");
        }
        if (objects.isEmpty())
            throw new UnreadableDocument("‘" + name + "’ has no object that is a model", "a file with at least one");
        if (!isAttribute(into)) single();
        Map<String, Integer> uses = uses();
        for (Map.Entry<String, Element> each : objects.entrySet())
            add(OBJECT + each.getKey(), attributes(each.getValue()), uses.getOrDefault(each.getKey(), 0));
    }

    private static boolean isAttribute(String property) {
        return property.equals(PART_NUMBER) || property.equals(NAME);
    }

    /** The metadata of a file are of all its objects. */
    private void single() throws UnreadableDocument {
        if (objects.size() > 1)
            throw new UnreadableDocument(
                    "‘" + name + "’ has " + objects.size() + " objects, and its metadata are of the file",
                    PART_NUMBER + " or " + NAME + ", which each object has");
    }

    private static Stream<Element> children(Element element, String name) {
        return element.children().stream().filter(each -> each.name().equals(name));
    }

    private Map<String, Integer> uses() {
        var uses = new HashMap<String, Integer>();
        for (Element object : objects.values())
            children(object, "components")
                    .flatMap(each -> children(each, "component"))
                    .flatMap(each -> each.attribute("objectid").stream())
                    .forEach(id -> uses.merge(id, 1, Integer::sum));
        return uses;
    }

    private Map<String, String> attributes(Element object) {
        var known = new TreeMap<String, String>();
        for (String attribute : List.of("id", NAME, PART_NUMBER))
            known.put(attribute, object.attribute(attribute).orElse(""));
        children(object, "metadatagroup").forEach(group -> metadata(group, known));
        if (objects.size() == 1) metadata(root, known);
        return known;
    }

    private static void metadata(Element around, Map<String, String> known) {
        children(around, METADATA).forEach(each -> each.attribute(NAME)
                .ifPresent(name -> known.putIfAbsent(name, each.text().strip())));
    }

    @Override
    public void write(Texts texts, OutputStream to) throws IOException, UnreadableDocument {
        var edits = new ElementEdits(model);
        var written = new HashSet<String>();
        edit(texts, (id, property, text) -> edit(edits, id, property, text, written));
        byte[] changed = edits.applied();
        to.write(PackedFile.with(bytes, part, (in, out) -> out.write(changed)));
    }

    private void edit(ElementEdits edits, String id, String property, String text, Set<String> written)
            throws UnreadableDocument {
        if (isAttribute(property)) {
            edits.attribute(objects.get(id.substring(OBJECT.length())), property, text);
            return;
        }
        single();
        if (!property.matches("[\\p{L}_][\\p{L}\\p{N}_.:-]*"))
            throw new UnreadableDocument(
                    "‘" + property + "’ is no name of metadata", "a name of letters, digits, _, - and .");
        if (!written.add(property))
            throw new UnreadableDocument("‘" + property + "’ is written twice", "each property once");
        Optional<Element> there = children(root, METADATA)
                .filter(each -> each.attribute(NAME).filter(property::equals).isPresent())
                .findFirst();
        if (there.isPresent()) edits.text(there.get(), text);
        else
            edits.inFront(
                    root,
                    "<" + METADATA + " name=\"" + property + "\">" + ElementEdits.escaped(text) + "</" + METADATA
                            + ">");
    }
}
