package org.youngtally.documents.part;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.core.numbering.Item;
import org.youngtally.documents.NumberedFile.Texts;
import org.youngtally.documents.UnreadableDocument;

class StepFileTest {
    private static final Path DEMO = Path.of("..", "demo", "parts", "choir-chest.stp");
    private static final String FRAME = """
            ISO-10303-21;
            HEADER;
            FILE_DESCRIPTION((''),'2;1');
            FILE_NAME('','',(''),(''),'','','');
            FILE_SCHEMA(('AUTOMOTIVE_DESIGN { 1 0 10303 214 1 1 1 1 }'));
            ENDSEC;
            DATA;
            %s
            ENDSEC;
            END-ISO-10303-21;
            """;

    /** Products as a parser that is not ours reads them: by a regular expression, with the strings as they are. */
    private static final Pattern PRODUCT =
            Pattern.compile("#(\\d+)\\s*=\\s*PRODUCT\\s*\\(\\s*('(?:[^']|'')*')\\s*,\\s*('(?:[^']|'')*')");

    private static StepFile read(String data) throws UnreadableDocument {
        return StepFile.of(bytes(FRAME.formatted(data)), "frame.stp", 1, Optional.empty());
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.ISO_8859_1);
    }

    private static String product(String id, String name) {
        return "#10=PRODUCT('" + id + "','" + name + "','',(#3));";
    }

    private static Map<String, String> ids(byte[] file) {
        Matcher products = PRODUCT.matcher(new String(file, StandardCharsets.ISO_8859_1));
        var ids = new LinkedHashMap<String, String>();
        while (products.find()) ids.put(products.group(1), products.group(2));
        return ids;
    }

    @Test
    void theProductsOfAnAssemblyAreItems() throws Exception {
        StepFile file = StepFile.of(Files.readAllBytes(DEMO), "choir-chest.stp", 1, Optional.empty());
        assertThat(file.items()).hasSize(40);
        assertThat(file.items().get(4).attributes())
                .isEqualTo(Map.of(
                        "id", "Part5",
                        "name", "Pallet C♯",
                        "description", "cedar, leather",
                        "revision", "A",
                        "category", "part",
                        "uses", "1",
                        "components", "0",
                        "group", "Wind-chest",
                        "kind", "Pallet"));
    }

    @Test
    void theWholeIsThatWhichIsInNoOther() throws Exception {
        StepFile file = StepFile.of(Files.readAllBytes(DEMO), "choir-chest.stp", 1, Optional.empty());
        assertThat(file.whole())
                .extracting(item -> item.attributes().get("name"))
                .containsExactly("Slider chest of the choir");
    }

    @Test
    void everyOtherByteStays() throws Exception {
        byte[] before = Files.readAllBytes(DEMO);
        StepFile file = StepFile.of(before, "choir-chest.stp", 1, Optional.empty());
        var changed = new HashMap<String, String>();
        for (Item item : file.items()) changed.put(item.id(), "N" + item.id().substring(3));
        byte[] after = file.with(changed);
        Map<String, String> ids = ids(after);
        assertThat(ids).hasSize(40).allSatisfy((instance, id) -> assertThat(id).isEqualTo("'N" + instance + "'"));
        String restored = new String(after, StandardCharsets.ISO_8859_1);
        for (Map.Entry<String, String> each : ids(before).entrySet())
            restored = restored.replace(
                    "#" + each.getKey() + "=PRODUCT('N" + each.getKey() + "'",
                    "#" + each.getKey() + "=PRODUCT(" + each.getValue());
        assertThat(restored).isEqualTo(new String(before, StandardCharsets.ISO_8859_1));
    }

    @Test
    void numberAndNameAreWrittenTogether() throws Exception {
        StepFile file = read("#10 = PRODUCT ( 'a' , /* it's */ 'b' , $ , ( #3 ) ) ;");
        byte[] after = file.with(
                new Texts(Map.of("1:#10", "P-1"), Map.of("1:#10", Map.of("name", "Pallet", "description", "of oak"))));
        assertThat(new String(after, StandardCharsets.US_ASCII))
                .contains("#10 = PRODUCT ( 'P-1' , /* it's */ 'Pallet' , 'of oak' , ( #3 ) ) ;");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "it''s a \\\\| it's a \\",
                "C\\X2\\266F\\X0\\| C♯",
                "\\X\\E4\\S\\d| ää",
                "\\PE\\\\S\\T| д",
                "\\X4\\0001D11E\\X0\\ clef| 𝄞 clef",
                "a\\N\\b| a b"
            })
    void stringsAreReadInTheirEncodings(String written, String text) throws Exception {
        assertThat(read(product("x", written)).items().getFirst().attributes()).containsEntry("name", text);
    }

    /** What is written is ASCII, and read again it is the same. */
    @Test
    void anyTextComesBack() throws Exception {
        var random = new Random(22);
        for (int i = 0; i < 500; i++) {
            String text = random.ints(random.nextInt(40), 32, 0x1F600)
                    .filter(symbol -> Character.isDefined(symbol) && (symbol < 0xD800 || symbol > 0xDFFF))
                    .filter(symbol -> !Character.isISOControl(symbol))
                    .map(symbol -> random.nextBoolean() ? symbol : "'\\aé♯".charAt(random.nextInt(5)))
                    .collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append)
                    .toString();
            byte[] written = read(product("x", "y")).with(Map.of("1:#10", text));
            assertThat(new String(written, StandardCharsets.ISO_8859_1)).containsPattern("^[ -~\n]*$");
            assertThat(StepFile.of(written, "a.stp", 1, Optional.empty())
                            .items()
                            .getFirst()
                            .text())
                    .isEqualTo(text);
        }
    }

    @Test
    void aStringMayBeBrokenOverLinesAndBeInUtf8() throws Exception {
        byte[] file = FRAME.formatted("#10=PRODUCT('a','Flû\nte','',());").getBytes(StandardCharsets.UTF_8);
        assertThat(StepFile.of(file, "a.p21", 1, Optional.empty())
                        .items()
                        .getFirst()
                        .attributes())
                .containsEntry("name", "Flûte");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "#10=PRODUCT('\\X2\\26\\X0\\','','',());",
                "#10=PRODUCT('\\X2\\266F','','',());",
                "#10=PRODUCT('\\X\\zz','','',());",
                "#10=PRODUCT('\\Q\\','','',());",
                "#10=PRODUCT('\\X4\\FFFFFFFF\\X0\\','','',());"
            })
    void aStringThatIsWronglyEncodedIsNamed(String data) {
        assertThatThrownBy(() -> read(data))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining("a string of #10 is wrongly encoded");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "#10=PRODUCT('a','b','',());#10=PRODUCT('a','b','',());| #10 is defined twice",
                "#10=PRODUCT('a');| the product #10 is not whole",
                "#10=PRODUCT('a','b','',(())| where a value is expected",
                "#10=PRODUCT((((| where a value is expected",
                "#10=PRODUCT('a| begins a string that does not end",
                "#10=PRODUCT('a','b','',()); /* and| begins a comment that does not end",
                "#x=PRODUCT('a','b','',());| where digits are expected",
                "#11=DIRECTION('',(0.));| has no product"
            })
    void whatCannotBeReadIsSaid(String data, String message) {
        assertThatThrownBy(() -> read(data))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining(message);
    }

    @Test
    void listsTooDeepInOthersEndNothing() {
        assertThatThrownBy(() -> read("#10=PRODUCT(" + "(".repeat(1_000_000)))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining("too deep in others");
    }

    @Test
    void aFileOfAnotherSchemaIsNamed() {
        String building = FRAME.replace("AUTOMOTIVE_DESIGN { 1 0 10303 214 1 1 1 1 }", "IFC4");
        assertThatThrownBy(() -> StepFile.of(bytes(building.formatted("")), "hall.stp", 1, Optional.empty()))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining("of the schema ‘IFC4’");
    }

    @Test
    void aFileThatEndsTooSoonIsNotWhole() {
        String cut = FRAME.formatted(product("a", "b")).replace("END-ISO-10303-21;", "");
        assertThatThrownBy(() -> StepFile.of(bytes(cut), "a.stp", 1, Optional.empty()))
                .hasMessageContaining("it is not whole");
    }

    @Test
    void aSignedFileIsReadAndNotWritten() throws Exception {
        byte[] signed = bytes(FRAME.formatted(product("a", "b")) + "SIGNATURE;\nAAAA\nENDSEC;\n");
        StepFile file = StepFile.of(signed, "a.stp", 1, Optional.empty());
        assertThatThrownBy(() -> file.with(Map.of("1:#10", "P-1")))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining("is signed");
    }

    /** Whatever bytes are there, the answer is a file or what is wrong with it. */
    @Test
    void anyBrokenFileIsAnswered() throws Exception {
        byte[] demo = Files.readAllBytes(DEMO);
        var random = new Random(7);
        int read = 0;
        for (int i = 0; i < 300; i++) {
            byte[] broken = demo.clone();
            for (int j = 0; j < 3; j++) broken[random.nextInt(broken.length)] = (byte) random.nextInt(256);
            try {
                StepFile.of(broken, "a.stp", 1, Optional.empty());
                read++;
            } catch (UnreadableDocument e) {
                assertThat(e.getMessage()).contains("‘a.stp’");
            }
        }
        assertThat(read).isPositive();
    }
}
