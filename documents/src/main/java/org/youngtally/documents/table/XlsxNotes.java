package org.youngtally.documents.table;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.youngtally.documents.PackedFile;
import org.youngtally.documents.UnreadableDocument;

/** What of a workbook is not read, or not as it is shown: further sheets, merged cells, formulas. */
final class XlsxNotes {
    private XlsxNotes() {}

    static List<String> of(byte[] workbook) throws IOException, UnreadableDocument {
        var notes = new ArrayList<String>();
        long sheets = elements(workbook, "xl/workbook.xml", "sheet");
        if (sheets > 1) notes.add("The workbook has %,d sheets; the first is read.".formatted(sheets));
        String first = SheetPart.first(workbook);
        long formulas = elements(workbook, first, "f");
        if (formulas > 0)
            notes.add("%,d %s; the values that were saved with them are read."
                    .formatted(formulas, formulas == 1 ? "cell has a formula" : "cells have formulas"));
        long merged = elements(workbook, first, "mergeCell");
        if (merged > 0)
            notes.add("%,d %s; only the first cell of each has a value."
                    .formatted(merged, merged == 1 ? "area is merged" : "areas are merged"));
        return List.copyOf(notes);
    }

    private static long elements(byte[] workbook, String part, String name) throws IOException, UnreadableDocument {
        return PackedFile.part(workbook, part, in -> count(in, name));
    }

    private static long count(InputStream in, String name) throws IOException {
        long count = 0;
        try {
            XMLStreamReader xml = SheetPart.input().createXMLStreamReader(in);
            while (xml.hasNext())
                if (xml.next() == XMLStreamConstants.START_ELEMENT
                        && xml.getLocalName().equals(name)) count++;
            return count;
        } catch (XMLStreamException e) {
            throw new IOException(e.getMessage(), e);
        }
    }
}
