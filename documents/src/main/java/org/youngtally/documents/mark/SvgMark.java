package org.youngtally.documents.mark;

import java.io.StringReader;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.XmlLimits;

/**
 * The {@code metadata} of an SVG drawing, with the identifier as Dublin Core in RDF, as SVG 1.1, chapter 21, shows it.
 * All else of the file stays letter by letter.
 */
final class SvgMark implements FileMark {
    private static final String SVG = "http://www.w3.org/2000/svg";
    private static final String CORE = "http://purl.org/dc/elements/1.1/";

    @Override
    public String place() {
        return "its metadata (dc:identifier)";
    }

    /**
     * @param into where the drawing's own content begins
     * @param borne the identifier that it has
     */
    private record Look(String text, int into, Optional<String> borne) {}

    @Override
    public Optional<String> borne(byte[] bytes) throws UnreadableDocument {
        return look(bytes).borne();
    }

    private static Look look(byte[] bytes) throws UnreadableDocument {
        XmlLimits.check(bytes, "The drawing");
        try {
            String text = StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(bytes))
                    .toString();
            XMLInputFactory factory = XMLInputFactory.newFactory();
            // A drawing may name its type; nothing is fetched for it.
            factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
            factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
            XMLStreamReader reader = factory.createXMLStreamReader(new StringReader(text));
            Optional<String> borne = Optional.empty();
            boolean drawing = false;
            while (reader.hasNext()) {
                if (reader.next() != XMLStreamConstants.START_ELEMENT) continue;
                if (!drawing && !(reader.getLocalName().equals("svg") && SVG.equals(reader.getNamespaceURI())))
                    throw new UnreadableDocument(
                            "The file is no SVG drawing: it begins with <" + reader.getLocalName() + ">",
                            "a drawing whose outermost element is svg, in SVG's namespace");
                drawing = true;
                if (reader.getLocalName().equals("identifier") && CORE.equals(reader.getNamespaceURI()))
                    borne = Optional.of(reader.getElementText().strip());
            }
            return new Look(text, behindRoot(text), borne);
        } catch (CharacterCodingException e) {
            throw new UnreadableDocument("The drawing is not written in UTF-8", "the same drawing saved in UTF-8", e);
        } catch (XMLStreamException e) {
            throw new UnreadableDocument(
                    "The file is no SVG drawing: " + e.getMessage().replaceAll("\\s+", " "),
                    "a drawing that is well-formed XML",
                    e);
        }
    }

    /**
     * Behind the start tag of the outermost element of a text that is well-formed; a slash in front of its end stands
     * alone.
     */
    private static int behindRoot(String text) {
        int at = 0;
        while (true) {
            at = text.indexOf('<', at);
            if (text.startsWith("<!--", at)) at = text.indexOf("-->", at) + 3;
            else if (text.startsWith("<?", at)) at = text.indexOf("?>", at) + 2;
            else if (text.startsWith("<!", at)) at = behindType(text, at);
            else return tagEnd(text, at);
        }
    }

    private static int behindType(String text, int from) {
        int inside = 0;
        for (int at = from; ; at++) {
            char symbol = text.charAt(at);
            if (symbol == '[') inside++;
            if (symbol == ']') inside--;
            if (symbol == '"' || symbol == '\'') at = text.indexOf(symbol, at + 1);
            if (symbol == '>' && inside == 0) return at + 1;
        }
    }

    private static int tagEnd(String text, int from) {
        for (int at = from; ; at++) {
            char symbol = text.charAt(at);
            if (symbol == '"' || symbol == '\'') at = text.indexOf(symbol, at + 1);
            if (symbol == '>') return at + 1;
        }
    }

    @Override
    public byte[] marked(byte[] bytes, String identifier) throws UnreadableDocument {
        Look look = look(bytes);
        String text = look.text();
        String escaped = identifier.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
        // An element of SVG keeps the namespace that the drawing gives it, whatever its prefix.
        String mark = "<metadata xmlns=\"" + SVG
                + "\"><rdf:RDF xmlns:rdf=\"http://www.w3.org/1999/02/22-rdf-syntax-ns#\" xmlns:dc=\"" + CORE
                + "\"><rdf:Description rdf:about=\"\"><dc:identifier>" + escaped
                + "</dc:identifier></rdf:Description></rdf:RDF></metadata>";
        boolean empty = text.charAt(look.into() - 2) == '/';
        String root = text.substring(text.lastIndexOf('<', look.into() - 1) + 1).split("[\\s/>]", 2)[0];
        String marked = empty
                ? text.substring(0, look.into() - 2) + ">" + mark + "</" + root + ">" + text.substring(look.into())
                : text.substring(0, look.into()) + mark + text.substring(look.into());
        return marked.getBytes(StandardCharsets.UTF_8);
    }
}
