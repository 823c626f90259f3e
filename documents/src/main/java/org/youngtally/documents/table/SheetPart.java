package org.youngtally.documents.table;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.xml.namespace.QName;
import javax.xml.stream.XMLEventFactory;
import javax.xml.stream.XMLEventReader;
import javax.xml.stream.XMLEventWriter;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import javax.xml.stream.events.Attribute;
import javax.xml.stream.events.StartElement;
import javax.xml.stream.events.XMLEvent;
import org.youngtally.documents.PackedFile;
import org.youngtally.documents.UnreadableDocument;

/**
 * The part of a workbook that holds a sheet, passed on event by event; the cells that are filled hold their text in
 * place.
 */
final class SheetPart {
    private static final String MAIN = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
    private static final String RELATIONS = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
    private static final XMLEventFactory EVENTS = XMLEventFactory.newFactory();

    private static final int MOST_LETTERS = 3;

    private final int column;
    private final Map<Integer, String> texts;
    private int row;

    SheetPart(int column, Map<Integer, String> texts) {
        this.column = column;
        this.texts = texts;
    }

    static XMLInputFactory input() {
        XMLInputFactory factory = XMLInputFactory.newFactory();
        // A workbook needs neither, and both can be made to do harm.
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        return factory;
    }

    /** The name of the part that holds the first sheet. */
    static String first(byte[] workbook) throws IOException, UnreadableDocument {
        String relation = find(
                workbook,
                "xl/workbook.xml",
                element -> element.getName().getLocalPart().equals("sheet")
                        ? Optional.ofNullable(element.getAttributeByName(new QName(RELATIONS, "id")))
                                .map(Attribute::getValue)
                        : Optional.empty());
        String target = find(
                workbook,
                "xl/_rels/workbook.xml.rels",
                element -> element.getName().getLocalPart().equals("Relationship")
                                && value(element, "Id").equals(relation)
                        ? Optional.of(value(element, "Target"))
                        : Optional.empty());
        return target.startsWith("/") ? target.substring(1) : "xl/" + target;
    }

    private interface Look {
        Optional<String> at(StartElement element);
    }

    private static String find(byte[] workbook, String part, Look look) throws IOException, UnreadableDocument {
        return PackedFile.part(workbook, part, in -> {
            try {
                XMLEventReader events = input().createXMLEventReader(in);
                while (events.hasNext()) {
                    XMLEvent event = events.nextEvent();
                    Optional<String> found =
                            event.isStartElement() ? look.at(event.asStartElement()) : Optional.empty();
                    if (found.isPresent()) return found.get();
                }
                throw new IOException("it has no sheet");
            } catch (XMLStreamException e) {
                throw new IOException(e.getMessage(), e);
            }
        });
    }

    /** Counts the cells of a sheet before anything is made of them. */
    static void bounded(byte[] workbook, String sheet) throws IOException, UnreadableDocument {
        PackedFile.part(workbook, sheet, in -> {
            try {
                count(input().createXMLStreamReader(in));
                return null;
            } catch (XMLStreamException e) {
                throw new IOException(e.getMessage(), e);
            }
        });
    }

    private static void count(XMLStreamReader sheet) throws XMLStreamException, UnreadableDocument {
        var bounds = TableBounds.inMemory();
        int line = 0;
        int width = 0;
        int at = -1;
        long length = 0;
        while (sheet.hasNext()) {
            int event = sheet.next();
            if (event == XMLStreamConstants.CHARACTERS) TableBounds.cell(length += sheet.getTextLength(), line);
            if (event == XMLStreamConstants.START_ELEMENT
                    && sheet.getLocalName().equals("row")) {
                line = number(sheet.getAttributeValue(null, "r"), line + 1);
                width = 0;
                at = -1;
            }
            if (event == XMLStreamConstants.START_ELEMENT
                    && sheet.getLocalName().equals("c")) {
                String place = sheet.getAttributeValue(null, "r");
                at = place == null || place.isEmpty() ? at + 1 : column(place);
                TableBounds.column(at, line);
                width = Math.max(width, at + 1);
                length = 0;
            }
            if (event == XMLStreamConstants.END_ELEMENT && sheet.getLocalName().equals("row")) bounds.line(width);
        }
    }

    private static int number(String text, int otherwise) throws UnreadableDocument {
        if (text == null || text.isEmpty()) return otherwise;
        if (!text.matches("[0-9]{1,7}"))
            throw new UnreadableDocument(
                    "A row of the workbook bears the number " + text, "a workbook that was saved as .xlsx");
        return Integer.parseInt(text);
    }

    private static String value(StartElement element, String name) {
        return Optional.ofNullable(element.getAttributeByName(new QName(name)))
                .map(Attribute::getValue)
                .orElse("");
    }

    void copy(InputStream from, OutputStream to) throws IOException {
        try {
            XMLEventReader events = input().createXMLEventReader(from);
            XMLEventWriter out = XMLOutputFactory.newFactory().createXMLEventWriter(to, "UTF-8");
            while (events.hasNext()) {
                XMLEvent event = events.nextEvent();
                if (isStart(event, "row")) row(event.asStartElement(), events, out);
                else out.add(event);
            }
            out.flush();
        } catch (XMLStreamException e) {
            throw new IOException(e.getMessage(), e);
        }
    }

    private static boolean isStart(XMLEvent event, String name) {
        return event.isStartElement() && event.asStartElement().getName().equals(new QName(MAIN, name));
    }

    private static boolean isEnd(XMLEvent event, String name) {
        return event.isEndElement() && event.asEndElement().getName().equals(new QName(MAIN, name));
    }

    private void row(StartElement start, XMLEventReader events, XMLEventWriter out) throws XMLStreamException {
        String number = value(start, "r");
        row = number.isEmpty() ? row + 1 : Integer.parseInt(number);
        out.add(start);
        String text = texts.get(row);
        boolean waiting = text != null;
        int at = -1;
        while (true) {
            XMLEvent event = events.nextEvent();
            if (isStart(event, "c")) {
                String place = value(event.asStartElement(), "r");
                at = place.isEmpty() ? at + 1 : column(place);
                if (waiting && at > column) {
                    cell(List.of(), text, out);
                    waiting = false;
                }
                if (waiting && at == column) {
                    while (!isEnd(events.peek(), "c")) events.nextEvent();
                    events.nextEvent();
                    cell(kept(event.asStartElement()), text, out);
                    waiting = false;
                    continue;
                }
            }
            if (isEnd(event, "row")) {
                if (waiting) cell(List.of(), text, out);
                out.add(event);
                return;
            }
            out.add(event);
        }
    }

    /** How the cell looks stays. */
    private static List<Attribute> kept(StartElement cell) {
        var kept = new ArrayList<Attribute>();
        for (Iterator<Attribute> attributes = cell.getAttributes(); attributes.hasNext(); ) {
            Attribute attribute = attributes.next();
            if (!List.of("r", "t").contains(attribute.getName().getLocalPart())) kept.add(attribute);
        }
        return kept;
    }

    private void cell(List<Attribute> kept, String text, XMLEventWriter out) throws XMLStreamException {
        out.add(EVENTS.createStartElement("", MAIN, "c"));
        out.add(EVENTS.createAttribute("r", letters(column) + row));
        for (Attribute attribute : kept) out.add(attribute);
        out.add(EVENTS.createAttribute("t", "inlineStr"));
        out.add(EVENTS.createStartElement("", MAIN, "is"));
        out.add(EVENTS.createStartElement("", MAIN, "t"));
        out.add(EVENTS.createCharacters(text));
        for (String name : List.of("t", "is", "c")) out.add(EVENTS.createEndElement("", MAIN, name));
    }

    /** The column of a place such as {@code AB12}, from 0; one past all others where it has more letters. */
    private static int column(String place) {
        int column = 0;
        for (int i = 0; i < place.length() && Character.isLetter(place.charAt(i)); i++) {
            if (i == MOST_LETTERS) return Integer.MAX_VALUE - 1;
            column = column * 26 + Character.toUpperCase(place.charAt(i)) - 'A' + 1;
        }
        return column - 1;
    }

    private static String letters(int column) {
        var letters = new StringBuilder();
        for (int rest = column + 1; rest > 0; rest = (rest - 1) / 26) letters.insert(0, (char) ('A' + (rest - 1) % 26));
        return letters.toString();
    }
}
