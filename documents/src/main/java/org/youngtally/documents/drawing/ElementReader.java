package org.youngtally.documents.drawing;

import com.fasterxml.aalto.stax.InputFactoryImpl;
import java.io.ByteArrayInputStream;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import org.codehaus.stax2.XMLStreamReader2;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.XmlLimits;

/** Reads XML as elements that know where they are in its bytes. Nothing is fetched, no entity is expanded. */
public final class ElementReader {
    static final String SVG = "http://www.w3.org/2000/svg";
    private static final String LINK = "http://www.w3.org/1999/xlink";
    private static final int MOST_ELEMENTS = 2_000_000;
    private static final long MOST_SYMBOLS = 20_000_000;

    /** What the file is called in messages. */
    private final String called;
    /** Whether elements that are not of SVG have no name. */
    private final boolean svgAlone;
    /** The names of elements whose content is not looked at. */
    private final Set<String> closed;

    private ElementReader(String called, boolean svgAlone, Set<String> closed) {
        this.called = called;
        this.svgAlone = svgAlone;
        this.closed = closed;
    }

    /** @return the outermost element, which is {@code svg}; elements that are not of SVG have no name */
    static Element svg(byte[] bytes) throws UnreadableDocument {
        Element root = new ElementReader("The drawing", true, Set.of()).read(bytes);
        if (!root.name().equals("svg"))
            throw new UnreadableDocument(
                    "The file is no SVG drawing", "a drawing whose outermost element is svg, in SVG's namespace");
        return root;
    }

    /** @return the outermost element */
    public static Element xml(byte[] bytes) throws UnreadableDocument {
        return xml(bytes, Set.of());
    }

    /** @param closed the names of elements whose content is not looked at, such as the points of a body */
    public static Element xml(byte[] bytes, Set<String> closed) throws UnreadableDocument {
        return new ElementReader("The file", false, closed).read(bytes);
    }

    private Element read(byte[] bytes) throws UnreadableDocument {
        XmlLimits.check(bytes, called);
        try {
            var factory = new InputFactoryImpl();
            factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
            factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
            var reader = (XMLStreamReader2) factory.createXMLStreamReader(new ByteArrayInputStream(bytes));
            return read(reader);
        } catch (XMLStreamException e) {
            throw new UnreadableDocument(
                    called + " is no XML that can be read: " + e.getMessage().replaceAll("\\s+", " "),
                    "well-formed XML without entities of its own",
                    e);
        }
    }

    private Element read(XMLStreamReader2 reader) throws XMLStreamException, UnreadableDocument {
        Deque<Element> open = new ArrayDeque<>();
        Element root = null;
        int elements = 0;
        long symbols = 0;
        while (reader.hasNext())
            switch (reader.next()) {
                case XMLStreamConstants.START_ELEMENT -> {
                    Element element = element(reader);
                    if (root == null) root = element;
                    else open.peek().add(element);
                    open.push(element);
                    if (closed.contains(element.name())) {
                        reader.skipElement();
                        end(open.pop(), reader);
                        continue;
                    }
                    if (++elements > MOST_ELEMENTS)
                        throw new UnreadableDocument(
                                called + " has more than %,d elements".formatted(MOST_ELEMENTS), "a smaller file");
                }
                case XMLStreamConstants.CHARACTERS, XMLStreamConstants.CDATA, XMLStreamConstants.SPACE -> {
                    symbols += reader.getTextLength();
                    if (symbols > MOST_SYMBOLS)
                        throw new UnreadableDocument(
                                called + " has texts of more than %,d symbols".formatted(MOST_SYMBOLS),
                                "shorter texts");
                    open.peek().add(reader.getText());
                }
                case XMLStreamConstants.END_ELEMENT -> end(open.pop(), reader);
                case XMLStreamConstants.ENTITY_REFERENCE ->
                    throw new UnreadableDocument(
                            called + " has the entity ‘" + reader.getLocalName() + "’ of its own",
                            "the same file with the text itself in its place");
                default -> {}
            }
        if (root == null) throw new XMLStreamException("it has no element");
        return root;
    }

    private static void end(Element element, XMLStreamReader2 reader) throws XMLStreamException {
        element.end((int) reader.getLocationInfo().getStartingByteOffset());
    }

    private Element element(XMLStreamReader2 reader) throws XMLStreamException {
        Map<String, String> attributes = new HashMap<>();
        for (int i = 0; i < reader.getAttributeCount(); i++) {
            String of = reader.getAttributeNamespace(i);
            String name = reader.getAttributeLocalName(i);
            if (of == null || of.isEmpty()) attributes.put(name, reader.getAttributeValue(i));
            else if (!svgAlone || of.equals(LINK)) attributes.putIfAbsent(name, reader.getAttributeValue(i));
        }
        String space = reader.getNamespaceURI();
        return new Element(
                space == null ? "" : space,
                !svgAlone || SVG.equals(space) ? reader.getLocalName() : "",
                attributes,
                (int) reader.getLocationInfo().getStartingByteOffset(),
                (int) reader.getLocationInfo().getEndingByteOffset());
    }
}
