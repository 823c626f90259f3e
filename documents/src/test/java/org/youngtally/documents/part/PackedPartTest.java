package org.youngtally.documents.part;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.youngtally.documents.NumberedFile.Texts;
import org.youngtally.documents.UnreadableDocument;

/** Written files are read by the JDK's own readers. */
class PackedPartTest {
    private static final Path DEMO = Path.of("..", "demo", "parts", "roller-arm.3mf");
    private static final String MODEL = "3D/3dmodel.model";
    private static final String RELATIONS =
            "<Relationships xmlns='http://schemas.openxmlformats.org/package/2006/relationships'><Relationship Id='a'"
                    + " Type='http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel' Target='/3D/3dmodel.model'/></Relationships>";

    private static Map<String, byte[]> parts(byte[] file) throws Exception {
        var parts = new LinkedHashMap<String, byte[]>();
        try (var zip = new ZipInputStream(new ByteArrayInputStream(file))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry())
                parts.put(entry.getName(), zip.readAllBytes());
        }
        return parts;
    }

    private static Document model(byte[] file) throws Exception {
        return DocumentBuilderFactory.newInstance()
                .newDocumentBuilder()
                .parse(new ByteArrayInputStream(parts(file).get(MODEL)));
    }

    private static byte[] packed(String resources) throws Exception {
        String model =
                "<model xmlns='http://schemas.microsoft.com/3dmanufacturing/core/2015/02'>" + resources + "</model>";
        return packed(Map.of("_rels/.rels", RELATIONS, MODEL, model));
    }

    private static byte[] packed(Map<String, String> parts) throws Exception {
        var out = new ByteArrayOutputStream();
        try (var zip = new ZipOutputStream(out)) {
            for (Map.Entry<String, String> part : parts.entrySet()) {
                zip.putNextEntry(new ZipEntry(part.getKey()));
                zip.write(part.getValue().getBytes(StandardCharsets.UTF_8));
            }
        }
        return out.toByteArray();
    }

    private static PackedPart read(byte[] file, String into) throws UnreadableDocument {
        return PackedPart.of(file, "arm.3mf", 1, Optional.ofNullable(into));
    }

    @Test
    void anObjectIsAnItemWithTheMetadataOfItsFile() throws Exception {
        PackedPart file = read(Files.readAllBytes(DEMO), null);
        assertThat(file.items()).singleElement().satisfies(item -> assertThat(item.attributes())
                .isEqualTo(Map.of(
                        "id", "1",
                        "name", "Roller arm",
                        "partnumber", "",
                        "uses", "0",
                        "Title", "Roller arm",
                        "group", "Action",
                        "kind", "Roller")));
    }

    @Test
    void numberNameAndMetadataAreWrittenAndEveryOtherPartStays() throws Exception {
        byte[] before = Files.readAllBytes(DEMO);
        byte[] after = read(before, null)
                .with(new Texts(
                        Map.of("1:object 1", "P-<1>"),
                        Map.of("1:object 1", Map.of("name", "Arm & roller", "Title", "Arm", "Designer", "Mara"))));
        Element object = (Element) model(after).getElementsByTagName("object").item(0);
        assertThat(object.getAttribute("partnumber")).isEqualTo("P-<1>");
        assertThat(object.getAttribute("name")).isEqualTo("Arm & roller");
        assertThat(read(after, null).items().getFirst().attributes())
                .containsEntry("Title", "Arm")
                .containsEntry("Designer", "Mara");
        Map<String, byte[]> expected = parts(before);
        expected.put(MODEL, parts(after).get(MODEL));
        assertThat(parts(after)).containsExactlyEntriesOf(expected);
    }

    /** Taken back by the same means, the model is what it was to the byte. */
    @Test
    void theRestOfTheModelStays() throws Exception {
        byte[] before = Files.readAllBytes(DEMO);
        byte[] after = read(before, "Title").with(Map.of("1:object 1", "P-1"));
        byte[] back = read(after, "Title").with(Map.of("1:object 1", "Roller arm"));
        assertThat(parts(back).get(MODEL)).isEqualTo(parts(before).get(MODEL));
    }

    @Test
    void partsOfAnotherAreComponents() throws Exception {
        PackedPart file = read(
                packed("<resources><object id='1' name='a'/><object id='2' type='support'/><object id='3'><components>"
                        + "<component objectid='1'/><component objectid='1'/></components></object></resources>"),
                null);
        assertThat(file.items())
                .extracting(item ->
                        item.attributes().get("id") + " " + item.attributes().get("uses"))
                .containsExactly("1 2", "3 0");
        assertThat(file.whole()).extracting(item -> item.attributes().get("id")).containsExactly("3");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<resources><object id='1'/><object id='1'/></resources>| the object ‘1’ twice",
                "<resources><object/></resources>| an object without an id",
                "<resources/>| has no object that is a model",
                "<resources>| is no XML that can be read"
            })
    void whatCannotBeReadIsSaid(String resources, String message) throws Exception {
        byte[] file = packed(resources);
        assertThatThrownBy(() -> read(file, null))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining(message);
    }

    @Test
    void metadataOfAFileAreNotThoseOfOneOfSeveralObjects() throws Exception {
        byte[] file = packed("<resources><object id='1'/><object id='2'/></resources>");
        assertThatThrownBy(() -> read(file, "Title")).hasMessageContaining("has 2 objects");
    }

    @Test
    void anEntityOfItsOwnIsRefused() throws Exception {
        byte[] file = packed(
                Map.of(
                        "_rels/.rels",
                        RELATIONS,
                        MODEL,
                        "<!DOCTYPE model [<!ENTITY x SYSTEM 'file:///etc/passwd'>]><model xmlns='http://schemas.microsoft.com/3dmanufacturing/core/2015/02'><metadata name='a'>&x;</metadata></model>"));
        assertThatThrownBy(() -> read(file, null))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining("entity");
    }

    /** A few kilobytes that hold gigabytes. */
    @Test
    void aFileThatHoldsTooMuchIsRefused() throws Exception {
        var out = new ByteArrayOutputStream();
        try (var zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry(MODEL));
            var zeros = new byte[1 << 20];
            for (int i = 0; i < 120; i++) zip.write(zeros);
        }
        assertThat(out.size()).isLessThan(200_000);
        assertThatThrownBy(() -> read(out.toByteArray(), null))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining("holds more than can be read");
    }

    @Test
    void whatIsNoArchiveIsSaid() {
        assertThatThrownBy(() -> read("solid".getBytes(StandardCharsets.UTF_8), null))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining("is no 3MF file that can be read");
    }
}
