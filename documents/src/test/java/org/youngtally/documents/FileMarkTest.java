package org.youngtally.documents;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import javax.xml.parsers.DocumentBuilderFactory;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.encryption.AccessPermission;
import org.apache.pdfbox.pdmodel.encryption.StandardProtectionPolicy;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.w3c.dom.Document;
import org.youngtally.documents.mark.FileMark;

/** Files bear their identifier where their format has a place for it, and are what they were otherwise. */
class FileMarkTest {
    private static final String SVG = "http://www.w3.org/2000/svg";

    private static FileMark mark(String ending) throws UnreadableDocument {
        return FileMark.of("file." + ending, Optional.empty(), "number").orElseThrow();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "<svg xmlns='" + SVG + "'><title>Plan</title></svg>",
                "<?xml version='1.0'?>\n<!-- <svg> -->\n<!DOCTYPE svg [ <!ENTITY a '>'> ]>\n<s:svg xmlns:s='" + SVG
                        + "' note='a > b'>\n  <s:title>Plan</s:title>\n</s:svg>\n",
                "<svg xmlns='" + SVG + "' width='10' />"
            })
    void aDrawingBearsItsIdentifierAndKeepsTheRest(String drawing) throws Exception {
        byte[] marked = mark("svg").marked(drawing.getBytes(StandardCharsets.UTF_8), "D-<7>");
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setNamespaceAware(true);
        Document document = factory.newDocumentBuilder().parse(new ByteArrayInputStream(marked));
        assertThat(document.getElementsByTagNameNS("http://purl.org/dc/elements/1.1/", "identifier")
                        .item(0)
                        .getTextContent())
                .isEqualTo("D-<7>");
        assertThat(document.getElementsByTagNameNS(SVG, "metadata").item(0).getParentNode())
                .isEqualTo(document.getDocumentElement());
        assertThat(mark("svg").borne(marked)).contains("D-<7>");
        assertThat(new String(marked, StandardCharsets.UTF_8)
                        .replaceAll("<metadata.*</metadata>", "")
                        .replace("></svg>", "/>")
                        .replace(" />", "/>"))
                .isEqualTo(drawing.replace("></svg>", "/>").replace(" />", "/>"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"<html/>", "<svg/>", "<svg xmlns='" + SVG + "'>", "no drawing"})
    void whatIsNoDrawingIsRefused(String text) {
        assertThatThrownBy(() -> mark("svg").marked(text.getBytes(StandardCharsets.UTF_8), "D-7"))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining("no SVG drawing");
    }

    private static byte[] pdf(boolean locked) throws IOException {
        try (var document = new PDDocument()) {
            document.addPage(new PDPage());
            document.getDocumentInformation().setTitle("Plan");
            if (locked) document.protect(new StandardProtectionPolicy("owner", "", new AccessPermission()));
            var out = new ByteArrayOutputStream();
            document.save(out);
            return out.toByteArray();
        }
    }

    @Test
    void aPdfBearsItsIdentifierBehindAllThatItHeld() throws Exception {
        byte[] before = pdf(false);
        byte[] marked = mark("pdf").marked(before, "D-7");
        assertThat(mark("pdf").borne(before)).isEmpty();
        assertThat(mark("pdf").borne(marked)).contains("D-7");
        assertThat(marked).startsWith(before);
        try (PDDocument document = Loader.loadPDF(marked)) {
            assertThat(document.getDocumentInformation().getTitle()).isEqualTo("Plan");
        }
        assertThat(mark("pdf").borne(mark("pdf").marked(marked, "D-8")))
                .as("what it held before is kept and changed")
                .contains("D-8");
    }

    @Test
    void aPdfThatCannotBeWrittenIsRefused() {
        assertThatThrownBy(() -> mark("pdf").marked(pdf(true), "D-7"))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining("encrypted");
        assertThatThrownBy(() -> mark("pdf").marked(new byte[] {1, 2, 3}, "D-7"))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining("no PDF");
    }

    @Test
    void aTableBearsItInAColumn() throws Exception {
        FileMark csv = mark("csv");
        assertThat(new String(
                        csv.marked("name;note\r\nPallet;\r\n\r\nSlider\r\n".getBytes(StandardCharsets.UTF_8), "W-7"),
                        StandardCharsets.UTF_8))
                .isEqualTo("name;note;number\r\nPallet;;W-7\r\n\r\nSlider;;W-7\r\n");
        byte[] there = csv.marked("number,name\n,Pallet\n".getBytes(StandardCharsets.UTF_8), "W-7");
        assertThat(new String(there, StandardCharsets.UTF_8)).isEqualTo("number,name\nW-7,Pallet\n");
        assertThat(csv.borne(there)).contains("W-7");
        assertThat(FileMark.of("file.dxf", Optional.empty(), "number")).isEmpty();
    }
}
