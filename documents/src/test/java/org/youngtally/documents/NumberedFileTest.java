package org.youngtally.documents;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.google.gson.JsonParser;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.numbering.Item;
import org.youngtally.documents.NumberedFile.Between;
import org.youngtally.documents.NumberedFile.Reading;

class NumberedFileTest {
    private static final String ASSEMBLY =
            "<assembly name='chest'><group id='g1'><part mark='a'><name>Pallet</name><number/></part></group>"
                    + "<part id='p2' mark = \"b\"><name>Spring</name><number>9</number></part></assembly>";

    private static Reading into(String into) {
        return new Reading(Optional.of(into), Optional.empty(), Optional.empty(), Optional.empty());
    }

    private static Reading path(String path, String into) {
        return new Reading(Optional.ofNullable(into), Optional.of(path), Optional.empty(), Optional.empty());
    }

    private static NumberedFile read(String text, String name, Reading reading) throws UnreadableDocument {
        return NumberedFile.read(text.getBytes(StandardCharsets.UTF_8), name, 1, reading);
    }

    private static String written(NumberedFile file, Map<String, String> changed) throws UnreadableDocument {
        return new String(file.with(changed), StandardCharsets.UTF_8);
    }

    @Test
    void rowsOfATableAreItems() throws Exception {
        NumberedFile file = read("Rank;Division;No\r\nGamba;2;\r\n\"Flu;te\";1;7", "pipes.csv", into("No"));
        assertThat(file.items()).extracting(Item::id).containsExactly("1:line 2", "1:line 3");
        assertThat(file.items().getLast().attributes()).isEqualTo(Map.of("Rank", "Flu;te", "Division", "1", "No", "7"));
        assertThat(written(file, Map.of("1:line 2", "0251")))
                .isEqualTo("Rank;Division;No\r\nGamba;2;0251\r\n\"Flu;te\";1;7");
    }

    @Test
    void objectsOfAJsonArrayAreItems() throws Exception {
        String text = "[ {\"rank\": \"Ga\\\"}mba\",\n \"no\" : 1\n}\n,{\"rank\":\"Flute\"}, {} ]\n";
        NumberedFile file = read(text, "pipes.json", into("no"));
        assertThat(file.items()).extracting(Item::text).containsExactly("1", "", "");
        String written = written(file, Map.of("1:1", "251", "1:2", "A\"1", "1:3", "3"));
        assertThat(written)
                .isEqualTo(
                        "[ {\"rank\": \"Ga\\\"}mba\",\n \"no\" : 251\n}\n,{\"rank\":\"Flute\",\"no\":\"A\\\"1\"}, {\"no\":\"3\"} ]\n");
        assertThat(JsonParser.parseString(written)
                        .getAsJsonArray()
                        .get(1)
                        .getAsJsonObject()
                        .get("no")
                        .getAsString())
                .isEqualTo("A\"1");
    }

    @ParameterizedTest
    @CsvSource({"//part, 2", "/assembly/part, 1", "/assembly//part, 2", "/assembly/*/part, 1", "//group//part, 1"})
    void elementsAreFoundByAPath(String path, int items) throws Exception {
        assertThat(read(ASSEMBLY, "chest.xml", path(path, "number")).items()).hasSize(items);
    }

    @Test
    void xmlIsReadByAPathWhateverItsNameEndsIn() throws Exception {
        assertThat(read(ASSEMBLY, "chest.assembly", path("//part", "number")).items())
                .hasSize(2);
    }

    @Test
    void anElementHasTheTextsInItAndWhatIsAroundIt() throws Exception {
        assertThat(read(ASSEMBLY, "chest.xml", path("//part", "number"))
                        .items()
                        .getFirst()
                        .attributes())
                .isEqualTo(Map.of(
                        "mark", "a", "name", "Pallet", "number", "", "assembly-name", "chest", "group-id", "g1"));
    }

    @Test
    void aNumberGoesIntoAnElementOfTheItem() throws Exception {
        NumberedFile file = read(ASSEMBLY, "chest.xml", path("//part", "number"));
        String written = written(file, Map.of("1:item 1", "P<1", "1:id p2", "P2"));
        assertThat(written)
                .isEqualTo(
                        ASSEMBLY.replace("<number/>", "<number>P&lt;1</number>").replace(">9<", ">P2<"));
    }

    @Test
    void aNumberGoesIntoAnAttribute() throws Exception {
        NumberedFile file = read(ASSEMBLY, "chest.xml", path("//part", "@mark"));
        String written = written(file, Map.of("1:item 1", "\"<'&", "1:id p2", "c"));
        var parts = DocumentBuilderFactory.newInstance()
                .newDocumentBuilder()
                .parse(new ByteArrayInputStream(written.getBytes(StandardCharsets.UTF_8)))
                .getElementsByTagName("part");
        assertThat(parts.item(0).getAttributes().getNamedItem("mark").getNodeValue())
                .isEqualTo("\"<'&");
        assertThat(written).contains("<part id='p2' mark = \"c\">");
    }

    @Test
    void anAttributeIsAddedToATextOfADrawing() throws Exception {
        NumberedFile file = read(
                "<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'><text x='1'>a</text></svg>",
                "a.svg",
                into("@data-number"));
        assertThat(file.items().getFirst().text()).isEmpty();
        assertThat(written(file, Map.of("1:text 1", "7"))).contains("<text data-number=\"7\" x='1'>a</text>");
    }

    @Test
    void onlyThePartBetweenTheMarksIsLookedAtAndWritten() throws Exception {
        NumberedFile file = read(
                "Name,No\na,Pos. [00] left\nb,none\n",
                "parts.csv",
                new Reading(Optional.of("No"), Optional.empty(), Optional.empty(), Optional.of(new Between("[", "]"))));
        assertThat(file.items()).extracting(Item::text).containsExactly("00");
        assertThat(written(file, Map.of("1:line 2", "17"))).isEqualTo("Name,No\na,Pos. [17] left\nb,none\n");
    }

    @Test
    void itemsAreKnownByAnAttributeWhereverTheyAre() throws Exception {
        NumberedFile file = read(
                "Card,No\nW-2,\nW-1,\n",
                "list.csv",
                new Reading(Optional.of("No"), Optional.empty(), Optional.of("Card"), Optional.empty()));
        assertThat(file.items()).extracting(Item::id).containsExactly("1:W-2", "1:W-1");
        assertThat(written(file, Map.of("1:W-1", "7"))).isEqualTo("Card,No\nW-2,\nW-1,7\n");
    }

    @Test
    void twoItemsOfOneIdentityAreRefused() {
        assertThatThrownBy(() -> read(
                        "Card,No\nW-1,\nW-1,\n",
                        "list.csv",
                        new Reading(Optional.of("No"), Optional.empty(), Optional.of("Card"), Optional.empty())))
                .hasMessage("The items 1:line 2 and 1:line 3 of ‘list.csv’ have the same Card, ‘W-1’");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "a.txt | x | No | ‘a.txt’ is of no format whose items can be numbered",
                "a.csv | Name,No | Nr | The table ‘a.csv’ has no column ‘Nr’",
                "a.json | {} | no | ‘a.json’ is no JSON array of objects",
                "a.json | [ 1 ] | no | ‘a.json’ is no JSON array of objects",
                "a.svg | <svg/> | no | A drawing has no ‘no’ to write numbers into",
                "a.xml | <a/> | no | The path to the items of ‘a.xml’ is missing"
            })
    void whatCannotBeReadIsNamed(String name, String text, String into, String problem) {
        assertThatThrownBy(() -> read(text, name, into(into)))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessage(problem);
    }

    @Test
    void aPathThatIsNoneIsNamed() {
        for (String path : List.of("part", "/", "//a[1]", "/a/"))
            assertThatThrownBy(() -> read(ASSEMBLY, "a.xml", path(path, null))).hasMessage("‘" + path + "’ is no path");
    }

    @Test
    void whatSaysTooMuchOfTooManyItemsIsRefused() {
        String data =
                IntStream.range(0, 1_001).mapToObj(i -> " data-a" + i + "='1'").collect(Collectors.joining());
        assertThatThrownBy(() -> read(
                        "<svg xmlns='http://www.w3.org/2000/svg'><g" + data + "><text>a</text></g></svg>",
                        "a.svg",
                        new Reading(Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty())))
                .hasMessage("The drawing has more than 1,000 attributes at one element");
        String columns = "No" + IntStream.range(0, 99).mapToObj(i -> ",c" + i).collect(Collectors.joining()) + "\n";
        assertThatThrownBy(() -> read(columns + ("x" + ",".repeat(99) + "\n").repeat(20_001), "a.csv", into("No")))
                .isInstanceOf(UnreadableDocument.class);
    }

    @Test
    void aTransformOfBlanksEnds() {
        assertThatThrownBy(() -> read(
                        "<svg xmlns='http://www.w3.org/2000/svg'><text transform='" + " ".repeat(1_000_000)
                                + "x'>a</text></svg>",
                        "a.svg",
                        new Reading(Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty())))
                .hasMessageContaining("is no list of transforms");
    }

    @Test
    void arraysWithinArraysOfJsonAreRefused() {
        assertThatThrownBy(() -> read("[".repeat(500_000), "a.json", into("no")))
                .isInstanceOf(UnreadableDocument.class);
    }

    @Test
    void entitiesOfXmlAreRefused() {
        assertThatThrownBy(() -> read("<!DOCTYPE a [<!ENTITY e 'x'>]><a>&e;</a>", "a.xml", path("/a", null)))
                .isInstanceOf(UnreadableDocument.class);
    }
}
