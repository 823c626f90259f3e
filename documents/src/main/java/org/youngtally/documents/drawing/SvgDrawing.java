package org.youngtally.documents.drawing;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Pattern;
import org.youngtally.core.numbering.Grid.Sheet;
import org.youngtally.core.numbering.Item;
import org.youngtally.core.numbering.Item.Place;
import org.youngtally.documents.ItemBounds;
import org.youngtally.documents.NumberedFile;
import org.youngtally.documents.UnreadableDocument;

/**
 * The texts of an SVG drawing (SVG 1.1), each with its place on the sheet. A text is a {@code text} or {@code tspan}
 * with nothing but symbols in it; its attributes are {@code id}, {@code class}, {@code group}, the id of the nearest
 * group that has one, and the names and values of {@code data-} attributes of itself and of all around it.
 */
public final class SvgDrawing implements NumberedFile {
    private static final Pattern LIST = Pattern.compile("[\\s,]+");
    private static final String DATA = "data-";
    private static final Set<String> TEXTS = Set.of("text", "tspan", "textPath", "a");
    /** Pixels of an inch. */
    private static final double INCH = 96;
    /** Longer than any drawing. */
    private static final double MOST = 1e12;

    private final byte[] bytes;
    private final Sheet sheet;
    private final List<Item> items;
    private final Map<String, Element> texts;
    private final Optional<String> attribute;
    private final Element root;
    /** The places of texts and parts of texts among each other. */
    private final Map<Element, Integer> order = new HashMap<>();
    /** The upper left corner of the view box. */
    private final double left;

    private final double top;

    private SvgDrawing(
            byte[] bytes,
            Element root,
            double[] box,
            Sheet sheet,
            List<Item> items,
            Map<String, Element> texts,
            Optional<String> attribute) {
        this.root = root;
        this.left = box[0];
        this.top = box[1];
        this.attribute = attribute;
        order(root);
        this.bytes = bytes;
        this.sheet = sheet;
        this.items = List.copyOf(items);
        this.texts = texts;
    }

    private void order(Element element) {
        if (TEXTS.contains(element.name())) order.put(element, order.size());
        element.children().forEach(this::order);
    }

    /**
     * @param name of the file, for people
     * @param number of the sheet among those of a set, from 1
     * @param attribute of each text where the number goes; absent for the text itself
     * @throws UnreadableDocument for what is no drawing, has entities of its own, or a transform that is none
     */
    public static SvgDrawing read(byte[] bytes, String name, int number, Optional<String> attribute)
            throws UnreadableDocument {
        return new Reader(bytes, name, number, attribute).read();
    }

    /** Its size, in the units of its view box. */
    @Override
    public Sheet sheet() {
        return sheet;
    }

    /** Its texts, in their order in the file. */
    @Override
    public List<Item> items() {
        return items;
    }

    /**
     * The same file with some texts in the place of others; every other byte stays.
     *
     * @param changed new texts by the ids of the items
     */
    @Override
    public byte[] with(Map<String, String> changed) {
        var edits = new ElementEdits(bytes);
        changed.forEach((id, text) -> {
            Element element = Optional.ofNullable(texts.get(id))
                    .orElseThrow(() -> new IllegalArgumentException("the drawing has no text ‘" + id + "’"));
            if (attribute.isPresent()) edits.attribute(element, attribute.get(), text);
            else edits.text(element, text);
        });
        return edits.applied();
    }

    /** The new texts in their places, and a ring around each place. */
    @Override
    public Optional<byte[]> picture(Map<String, String> changed) {
        var edits = new ElementEdits(bytes);
        double size = Math.max(sheet.width(), sheet.height());
        var rings = new StringBuilder("<g xmlns=\"" + ElementReader.SVG
                + "\" fill=\"#facc15\" fill-opacity=\"0.3\" stroke=\"#b91c1c\" stroke-width=\"" + size / 500 + "\">");
        for (Item item : items) {
            String text = changed.get(item.id());
            if (text == null) continue;
            if (attribute.isEmpty()) edits.text(texts.get(item.id()), text);
            item.place().ifPresent(place -> rings.append("<circle cx=\"")
                    .append(place.x() + left)
                    .append("\" cy=\"")
                    .append(place.y() + top - size / 200)
                    .append("\" r=\"")
                    .append(size / 60)
                    .append("\"/>"));
        }
        edits.behind(root, rings.append("</g>").toString());
        return Optional.of(edits.applied());
    }

    @Override
    public Map<String, Integer> elements() {
        var elements = new HashMap<String, Integer>();
        texts.forEach((id, element) -> elements.put(id, order.get(element)));
        return elements;
    }

    /** Reads one drawing. */
    private static final class Reader {
        private final byte[] bytes;
        private final String name;
        private final int number;
        private final Optional<String> into;
        private final Map<String, Element> byId = new HashMap<>();
        private final Set<String> twice = new HashSet<>();
        private final Map<Element, Item> found = new LinkedHashMap<>();
        private final Map<String, Element> texts = new HashMap<>();
        /** What was used before: its texts have their places already. */
        private final Set<Element> used = new HashSet<>();

        private final ItemBounds bounds = new ItemBounds();
        private int counted;

        Reader(byte[] bytes, String name, int number, Optional<String> into) {
            this.into = into;
            this.bytes = bytes;
            this.name = name;
            this.number = number;
        }

        SvgDrawing read() throws UnreadableDocument {
            Element root = ElementReader.svg(bytes);
            index(root);
            double[] box = viewBox(root).orElseGet(() -> new double[] {
                0, 0, length(root, "width").orElse(0.0), length(root, "height").orElse(0.0)
            });
            Affine base = Affine.move(-box[0], -box[1]);
            for (Element child : root.children()) walk(child, base, data(root, Map.of()));
            var items = new ArrayList<>(found.entrySet());
            items.sort(Comparator.comparingInt(each -> each.getKey().tagFrom()));
            return new SvgDrawing(
                    bytes,
                    root,
                    box,
                    new Sheet(name, box[2], box[3]),
                    items.stream().map(Map.Entry::getValue).toList(),
                    texts,
                    into);
        }

        private void index(Element element) {
            element.attribute("id").ifPresent(id -> {
                if (byId.putIfAbsent(id, element) != null) twice.add(id);
            });
            element.children().forEach(this::index);
        }

        private void walk(Element element, Affine outer, Map<String, String> around) throws UnreadableDocument {
            if (element.name().equals("defs") || element.name().equals("symbol")) return;
            Affine here = outer.of(transform(element));
            Map<String, String> data = data(element, around);
            switch (element.name()) {
                case "use" -> use(element, here, data);
                case "svg" -> {
                    Affine inner = here.of(Affine.move(
                                    length(element, "x").orElse(0.0),
                                    length(element, "y").orElse(0.0)))
                            .of(fit(element, element));
                    for (Element child : element.children()) walk(child, inner, data);
                }
                case "text" -> text(element, here, data, point(element, Optional.empty()), true);
                case "g", "a", "switch" -> {
                    for (Element child : element.children()) walk(child, here, data);
                }
                default -> {}
            }
        }

        /** What is used in several places is written once: it has the place of its first use. */
        private void use(Element use, Affine here, Map<String, String> data) throws UnreadableDocument {
            Optional<Element> target =
                    use.attribute("href").filter(link -> link.startsWith("#")).map(link -> byId.get(link.substring(1)));
            if (target.isEmpty() || !used.add(target.get())) return;
            Affine moved = here.of(
                    Affine.move(length(use, "x").orElse(0.0), length(use, "y").orElse(0.0)));
            Element shown = target.get();
            if (!shown.name().equals("symbol")) {
                walk(shown, moved, data);
                return;
            }
            Affine inner = moved.of(fit(shown, use));
            for (Element child : shown.children()) walk(child, inner, data(shown, data));
        }

        /** How the view box of an element is laid into the size that it, or what uses it, has. */
        private Affine fit(Element boxed, Element sized) throws UnreadableDocument {
            Optional<double[]> box = viewBox(boxed);
            Optional<Double> width = length(sized, "width").or(() -> length(boxed, "width"));
            Optional<Double> height = length(sized, "height").or(() -> length(boxed, "height"));
            if (box.isEmpty()) return Affine.NONE;
            double across = width.orElse(box.get()[2]) / box.get()[2];
            double down = height.orElse(box.get()[3]) / box.get()[3];
            Affine back = Affine.move(-box.get()[0], -box.get()[1]);
            if (boxed.attribute("preserveAspectRatio").orElse("").strip().startsWith("none"))
                return Affine.scale(across, down).of(back);
            double both = Math.min(across, down);
            return Affine.move((across - both) * box.get()[2] / 2, (down - both) * box.get()[3] / 2)
                    .of(Affine.scale(both, both))
                    .of(back);
        }

        private void text(Element element, Affine here, Map<String, String> data, Optional<Place> at, boolean placed)
                throws UnreadableDocument {
            List<Element> parts = element.children();
            if (parts.isEmpty()) {
                add(element, here, data, placed ? at : Optional.empty());
                return;
            }
            for (Element part : parts) {
                boolean spans = part.name().equals("tspan") || part.name().equals("a");
                // Where a text along a path comes to lie, only who draws it knows.
                if (!spans && !part.name().equals("textPath")) continue;
                text(part, here, data(part, data), point(part, at), placed && spans);
            }
        }

        private void add(Element element, Affine here, Map<String, String> data, Optional<Place> at)
                throws UnreadableDocument {
            // Shown where it is, and used elsewhere besides: the first place is its own.
            if (found.containsKey(element)) return;
            counted++;
            if (at.isPresent() && here.isSingular())
                throw new UnreadableDocument(
                        "The text ‘" + element.text().strip() + "’ lies under a transform that leaves it no area",
                        "a transform that does not scale by 0");
            Optional<String> own = element.attribute("id").filter(id -> !twice.contains(id));
            String id = number + ":" + own.orElse("text " + counted);
            var attributes = new TreeMap<>(data);
            element.attribute("id").ifPresent(each -> attributes.put("id", each));
            element.attribute("class").ifPresent(each -> attributes.put("class", each));
            String text = into.map(each -> element.attribute(each).orElse("")).orElse(element.text());
            if (into.isPresent()) attributes.put("text", element.text().strip());
            bounds.add(attributes.size());
            found.put(element, new Item(id, number, text, Optional.empty(), attributes, place(here, at, id)));
            texts.put(id, element);
        }

        private static Optional<Place> place(Affine here, Optional<Place> at, String id) throws UnreadableDocument {
            try {
                return at.map(point -> here.of(point.x(), point.y()));
            } catch (IllegalArgumentException e) {
                throw new UnreadableDocument(
                        "The text ‘" + id + "’ lies further away than can be counted", "a smaller drawing", e);
            }
        }

        /** Where a text begins: what it does not say is as around it. */
        private static Optional<Place> point(Element element, Optional<Place> around) throws UnreadableDocument {
            Optional<Double> x = first(element, "x").or(() -> around.map(Place::x));
            Optional<Double> y = first(element, "y").or(() -> around.map(Place::y));
            return Optional.of(new Place(
                    x.orElse(0.0) + first(element, "dx").orElse(0.0),
                    y.orElse(0.0) + first(element, "dy").orElse(0.0)));
        }

        private static Optional<Double> first(Element element, String attribute) {
            return element.attribute(attribute).flatMap(list -> length(LIST.split(list.strip(), 2)[0]));
        }

        /** The data of an element, and of all around it; the nearest says more. */
        private static Map<String, String> data(Element element, Map<String, String> around) throws UnreadableDocument {
            var data = new HashMap<>(around);
            element.attributes().forEach((name, value) -> {
                if (name.startsWith(DATA)) data.put(name.substring(DATA.length()), value);
            });
            if (element.name().equals("g")) {
                element.attribute("id").ifPresent(id -> data.put("group", id));
                element.attribute("class").ifPresent(each -> data.put("group-class", each));
            }
            ItemBounds.one(data.size());
            return data;
        }

        private static Affine transform(Element element) throws UnreadableDocument {
            try {
                return Affine.parse(element.attribute("transform").orElse(""));
            } catch (IllegalArgumentException e) {
                throw new UnreadableDocument(
                        "A transform of <" + element.name() + "> cannot be read: " + e.getMessage(),
                        "translate, scale, rotate, skewX, skewY or matrix",
                        e);
            }
        }

        private static Optional<double[]> viewBox(Element element) throws UnreadableDocument {
            Optional<String> written = element.attribute("viewBox");
            if (written.isEmpty()) return Optional.empty();
            String[] parts = written.get().strip().split("[\\s,]+");
            var box = new double[4];
            for (int i = 0; i < 4; i++) {
                Optional<Double> part = parts.length == 4 ? length(parts[i]) : Optional.empty();
                if (part.isEmpty() || i > 1 && part.get() <= 0)
                    throw new UnreadableDocument(
                            "‘" + written.get() + "’ is no view box", "four numbers: left, top, width, height");
                box[i] = part.get();
            }
            return Optional.of(box);
        }

        private static Optional<Double> length(Element element, String attribute) {
            return element.attribute(attribute).flatMap(Reader::length);
        }

        /** In pixels; what follows from something else, such as a share of it, is not known. */
        private static Optional<Double> length(String text) {
            String trimmed = text.strip();
            int end = trimmed.length();
            while (end > 0 && Character.isLetter(trimmed.charAt(end - 1))) end--;
            if (!Affine.NUMBER.matcher(trimmed.substring(0, end)).matches()) return Optional.empty();
            double value = Double.parseDouble(trimmed.substring(0, end));
            if (Math.abs(value) > MOST) return Optional.empty();
            return switch (trimmed.substring(end)) {
                case "", "px" -> Optional.of(value);
                case "in" -> Optional.of(value * INCH);
                case "cm" -> Optional.of(value * INCH / 2.54);
                case "mm" -> Optional.of(value * INCH / 25.4);
                case "pt" -> Optional.of(value * INCH / 72);
                case "pc" -> Optional.of(value * INCH / 6);
                default -> Optional.empty();
            };
        }
    }
}
