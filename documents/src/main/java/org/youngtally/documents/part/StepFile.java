package org.youngtally.documents.part;

import java.io.IOException;
import java.io.OutputStream;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.youngtally.documents.ByteEdits;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.part.StepReader.Instance;
import org.youngtally.documents.part.StepReader.Value;

/**
 * The products of a STEP file (ISO 10303-21 with the schemas of AP203, AP214 and AP242) as items. Their attributes are
 * {@code id}, {@code name}, {@code description}, {@code revision}, {@code category}, how often each is used in others
 * ({@code uses}), how many others it is made of ({@code components}), and the properties that are texts, by their
 * names.
 */
final class StepFile extends PartFile {
    private static final Set<String> SCHEMAS = Set.of(
            "CONFIG_CONTROL_DESIGN",
            "AP203_CONFIGURATION_CONTROLLED_3D_DESIGN_OF_MECHANICAL_PARTS_AND_ASSEMBLIES_MIM_LF",
            "AUTOMOTIVE_DESIGN",
            "AUTOMOTIVE_DESIGN_CC1",
            "AUTOMOTIVE_DESIGN_CC2",
            "AP242_MANAGED_MODEL_BASED_3D_ENGINEERING",
            "AP242_MANAGED_MODEL_BASED_3D_ENGINEERING_MIM_LF");
    static final String ID = "id";
    private static final String PRODUCT = "PRODUCT";
    private static final List<String> FORMATIONS =
            List.of("PRODUCT_DEFINITION_FORMATION", "PRODUCT_DEFINITION_FORMATION_WITH_SPECIFIED_SOURCE");
    private static final List<String> DEFINITIONS =
            List.of("PRODUCT_DEFINITION", "PRODUCT_DEFINITION_WITH_ASSOCIATED_DOCUMENTS");
    private static final String USE = "NEXT_ASSEMBLY_USAGE_OCCURRENCE";
    private static final String CATEGORY = "PRODUCT_RELATED_PRODUCT_CATEGORY";
    private static final String PROPERTY = "PROPERTY_DEFINITION";
    private static final String PROPERTY_VALUE = "PROPERTY_DEFINITION_REPRESENTATION";
    private static final String REPRESENTATION = "REPRESENTATION";
    private static final String TEXT = "DESCRIPTIVE_REPRESENTATION_ITEM";
    private static final Set<String> READ = Set.of(
            PRODUCT,
            FORMATIONS.getFirst(),
            FORMATIONS.getLast(),
            DEFINITIONS.getFirst(),
            DEFINITIONS.getLast(),
            USE,
            CATEGORY,
            PROPERTY,
            PROPERTY_VALUE,
            REPRESENTATION,
            TEXT);
    /** The properties that can be written, in their order in the entity. */
    private static final List<String> WRITTEN = List.of(ID, NAME, "description");

    private static final String COMPONENTS = "components";
    private static final int LONGEST = 32_767;

    private final byte[] bytes;
    private final StepReader reader;
    private final Map<Long, Instance> products = new LinkedHashMap<>();
    private final Map<Long, Map<String, String>> attributes = new HashMap<>();
    /** The products that definitions are of. */
    private final Map<Long, Long> defined = new HashMap<>();
    /** How often products are in others. */
    private final Map<Long, Integer> uses = new HashMap<>();

    private StepFile(byte[] bytes, String name, int number, String into) throws UnreadableDocument {
        super(name, number, into);
        this.bytes = bytes;
        this.reader = new StepReader(bytes, name, READ);
    }

    static StepFile of(byte[] bytes, String name, int number, Optional<String> into) throws UnreadableDocument {
        var file = new StepFile(bytes, name, number, into.orElse(ID));
        file.known(file.into);
        file.read();
        return file;
    }

    private int known(String property) throws UnreadableDocument {
        int place = WRITTEN.indexOf(property);
        if (place < 0)
            throw new UnreadableDocument(
                    "A product of a STEP file has no property ‘" + property + "’ to write into",
                    String.join(", ", WRITTEN));
        return place;
    }

    private void read() throws UnreadableDocument {
        if (reader.schemas().stream().map(each -> each.toUpperCase(Locale.ROOT)).noneMatch(SCHEMAS::contains))
            throw new UnreadableDocument(
                    "‘" + name + "’ is a STEP file of the schema ‘" + String.join(", ", reader.schemas())
                            + "’, whose products are not known here",
                    "a file of AP203, AP214 or AP242");
        for (Instance product : reader.instances(PRODUCT)) product(product);
        if (products.isEmpty())
            throw new UnreadableDocument("‘" + name + "’ has no product", "a file with at least one product");
        formations();
        uses();
        categories();
        properties();
        for (long product : products.keySet())
            add("#" + product, attributes.get(product), uses.getOrDefault(product, 0));
    }

    private void product(Instance product) throws UnreadableDocument {
        if (product.values().size() < WRITTEN.size())
            throw new UnreadableDocument(
                    "‘" + name + "’: the product #" + product.id() + " is not whole",
                    "products with id, name and description");
        if (products.put(product.id(), product) != null)
            throw new UnreadableDocument(
                    "‘" + name + "’: #" + product.id() + " is defined twice", "each instance once");
        var known = new TreeMap<String, String>();
        for (String property : WRITTEN) known.put(property, text(product, WRITTEN.indexOf(property)));
        known.put(COMPONENTS, "0");
        attributes.put(product.id(), known);
    }

    private String text(Instance instance, int place) throws UnreadableDocument {
        if (instance.value(place).isEmpty()) return "";
        String text = reader.text(instance.value(place).get(), instance.id());
        if (text.length() > LONGEST)
            throw new UnreadableDocument(
                    "‘" + name + "’: a string of #" + instance.id() + " has more than %,d symbols".formatted(LONGEST),
                    "shorter strings");
        return text;
    }

    private void formations() throws UnreadableDocument {
        Map<Long, Long> formed = new HashMap<>();
        for (String entity : FORMATIONS)
            for (Instance formation : reader.instances(entity)) {
                Optional<Long> product = formation.reference(2).filter(products::containsKey);
                if (product.isEmpty()) continue;
                formed.put(formation.id(), product.get());
                add(product.get(), "revision", text(formation, 0));
            }
        for (String entity : DEFINITIONS)
            for (Instance definition : reader.instances(entity))
                definition.reference(2).map(formed::get).ifPresent(product -> defined.put(definition.id(), product));
    }

    /** What a product says itself comes first. */
    private void add(long product, String attribute, String text) {
        if (!text.isBlank()) attributes.get(product).putIfAbsent(attribute, text.strip());
    }

    private void uses() {
        var components = new HashMap<Long, Integer>();
        for (Instance use : reader.instances(USE)) {
            use.reference(3).map(defined::get).ifPresent(product -> components.merge(product, 1, Integer::sum));
            use.reference(4).map(defined::get).ifPresent(product -> uses.merge(product, 1, Integer::sum));
        }
        components.forEach((product, count) -> attributes.get(product).put(COMPONENTS, count.toString()));
    }

    private void categories() throws UnreadableDocument {
        for (Instance category : reader.instances(CATEGORY)) {
            String text = text(category, 0);
            for (long product : category.references(2))
                if (products.containsKey(product)) add(product, "category", text);
        }
    }

    /** Texts that a drawing program keeps of a product, each in a representation of a property. */
    private void properties() throws UnreadableDocument {
        Map<Long, Instance> texts = byId(TEXT);
        Map<Long, Instance> representations = byId(REPRESENTATION);
        Map<Long, Instance> properties = byId(PROPERTY);
        for (Instance each : reader.instances(PROPERTY_VALUE)) {
            Optional<Instance> property = each.reference(0).map(properties::get);
            Optional<Long> product = property.flatMap(one -> one.reference(2)).map(defined::get);
            Optional<Instance> representation = each.reference(1).map(representations::get);
            if (product.isEmpty() || representation.isEmpty()) continue;
            for (long item : representation.get().references(1)) {
                Instance text = texts.get(item);
                if (text == null) continue;
                String called = text(text, 0).isBlank() ? text(property.get(), 0) : text(text, 0);
                if (!called.isBlank()) add(product.get(), called.strip(), text(text, 1));
            }
        }
    }

    private Map<Long, Instance> byId(String entity) {
        Map<Long, Instance> byId = new HashMap<>();
        reader.instances(entity).forEach(each -> byId.put(each.id(), each));
        return byId;
    }

    @Override
    public void write(Texts texts, OutputStream to) throws IOException, UnreadableDocument {
        if (reader.isSigned())
            throw new UnreadableDocument(
                    "‘" + name + "’ is signed, and its signature would no longer be that of its content",
                    "the file before it was signed");
        var edits = new ByteEdits(bytes);
        edit(texts, (id, property, text) -> edit(edits, id, property, text));
        edits.write(to);
    }

    private void edit(ByteEdits edits, String id, String property, String text) throws UnreadableDocument {
        Instance product = products.get(Long.parseLong(id.substring(1)));
        Value value = product.values().get(known(property));
        switch (value) {
            case Value.Text place -> edits.replace(place.from(), place.to(), StepText.written(text));
            case Value.Other place -> edits.replace(place.from(), place.to(), StepText.written(text));
            default ->
                throw new UnreadableDocument(
                        "‘" + name + "’: the " + property + " of #" + product.id() + " is no text", "a text, or $");
        }
    }
}
