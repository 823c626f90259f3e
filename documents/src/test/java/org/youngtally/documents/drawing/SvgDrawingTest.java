package org.youngtally.documents.drawing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;
import org.youngtally.core.numbering.Item;
import org.youngtally.core.numbering.Item.Place;
import org.youngtally.documents.UnreadableDocument;

class SvgDrawingTest {
    private static byte[] svg(String content) {
        return ("<svg xmlns='http://www.w3.org/2000/svg' xmlns:x='http://www.w3.org/1999/xlink' viewBox='0 0 400 300'>"
                        + content + "</svg>")
                .getBytes(StandardCharsets.UTF_8);
    }

    private static List<Item> items(String content) throws UnreadableDocument {
        return SvgDrawing.read(svg(content), "front.svg", 1, Optional.empty()).items();
    }

    private static Place place(String content) throws UnreadableDocument {
        return items(content).getFirst().place().orElseThrow();
    }

    @Test
    void aTextHasItsWordsItsAttributesAndItsPlace() throws Exception {
        List<Item> items = items("<g id='call-outs' class='red' data-net='K1' data-wire='2'>"
                + "<text id='a' class='big' x='10' y='20' data-wire='3'>Größe &amp; €</text></g>");
        assertThat(items).hasSize(1);
        assertThat(items.getFirst().id()).isEqualTo("1:a");
        assertThat(items.getFirst().text()).isEqualTo("Größe & €");
        assertThat(items.getFirst().attributes())
                .isEqualTo(Map.of(
                        "id",
                        "a",
                        "class",
                        "big",
                        "group",
                        "call-outs",
                        "group-class",
                        "red",
                        "net",
                        "K1",
                        "wire",
                        "3"));
        assertThat(items.getFirst().place()).contains(new Place(10, 20));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<g transform='translate(5,7) scale(2)'><text x='10' y='20'>a</text></g> | 25 | 47",
                "<g transform='translate(100)'><g transform='rotate(90)'><text x='10' y='20'>a</text></g></g> | 80 | 10",
                "<text transform='rotate(180 50 50)' x='40' y='30'>a</text> | 60 | 70",
                "<text transform='matrix(1 0 0 1 3 4),skewX(45)' x='1' y='2'>a</text> | 6 | 6",
                "<svg x='100' y='50' width='200' height='100' viewBox='0 0 20 20'><text x='10' y='10'>a</text></svg> | 200 | 100",
                "<symbol id='s' viewBox='0 0 10 10'><text x='5' y='5'>a</text></symbol><use href='#s' x='20' y='30' width='100' height='100'/> | 70 | 80",
                "<defs><text id='t' x='1' y='2'>a</text></defs><use x:href='#t' transform='translate(10 10)' x='5'/> | 16 | 12",
                "<text x='1in' y='10mm'>a</text> | 96 | 37.7952",
                "<text x='10 20 30' y='5' dx='2'>a</text> | 12 | 5",
                "<text x='10' y='20'><tspan y='40'>a</tspan></text> | 10 | 40"
            })
    void placesFollowTransformsAndUses(String content, double x, double y) throws Exception {
        assertThat(place(content).x()).isCloseTo(x, within(0.001));
        assertThat(place(content).y()).isCloseTo(y, within(0.001));
    }

    @Test
    void whatIsUsedTwiceIsOneTextAtItsFirstPlace() throws Exception {
        List<Item> items = items("<defs><g id='g'><text x='0' y='0'>a</text></g></defs>"
                + "<use href='#g' x='10' y='10'/><use href='#g' x='90' y='90'/>");
        assertThat(items).hasSize(1);
        assertThat(items.getFirst().place()).contains(new Place(10, 10));
    }

    @Test
    void whatUsesItselfEnds() throws Exception {
        assertThat(items("<g id='a'><text>x</text><use href='#a'/></g>")).hasSize(1);
    }

    /** Thirty levels, each used ten times by the next: more than anybody could draw. */
    @Test
    void usesWithinUsesAreNotMultiplied() throws Exception {
        var content = new StringBuilder("<defs><g id='g0'><text>x</text></g>");
        for (int level = 1; level < 30; level++)
            content.append("<g id='g")
                    .append(level)
                    .append("'>")
                    .append(("<use href='#g" + (level - 1) + "'/>").repeat(10))
                    .append("</g>");
        assertThat(items(content + "</defs><use href='#g29'/>")).hasSize(1);
    }

    @Test
    void aTextAlongAPathHasNoPlace() throws Exception {
        assertThat(items("<text x='1' y='2'><textPath href='#p'>a</textPath></text>")
                        .getFirst()
                        .place())
                .isEmpty();
    }

    @Test
    void whatIsNotShownIsNoItem() throws Exception {
        assertThat(items("<defs><text>a</text></defs><symbol><text>b</text></symbol>"))
                .isEmpty();
    }

    @Test
    void idsThatOccurTwiceAreNotUsed() throws Exception {
        assertThat(items("<text id='a'>1</text><text id='a'>2</text><text>3</text>"))
                .extracting(Item::id)
                .containsExactly("1:text 1", "1:text 2", "1:text 3");
    }

    @Test
    void onlyTheTextsChange() throws Exception {
        byte[] before = svg("<!-- ü --><text id='a'  x='1'>?? &amp;</text><text id='b'/>\r\n<script>alert(1)</script>");
        byte[] after = SvgDrawing.read(before, "a.svg", 1, Optional.empty()).with(Map.of("1:a", "<1> & €", "1:b", "2"));
        assertThat(new String(after, StandardCharsets.UTF_8))
                .isEqualTo(new String(
                        svg(
                                "<!-- ü --><text id='a'  x='1'>&lt;1&gt; &amp; €</text><text id='b'>2</text>\r\n<script>alert(1)</script>"),
                        StandardCharsets.UTF_8));
    }

    @Test
    void aPrefixIsKept() throws Exception {
        byte[] before = "<s:svg xmlns:s='http://www.w3.org/2000/svg'><s:text id='a' /></s:svg>"
                .getBytes(StandardCharsets.UTF_8);
        assertThat(new String(
                        SvgDrawing.read(before, "a.svg", 1, Optional.empty()).with(Map.of("1:a", "7")),
                        StandardCharsets.UTF_8))
                .isEqualTo("<s:svg xmlns:s='http://www.w3.org/2000/svg'><s:text id='a' >7</s:text></s:svg>");
    }

    /** What is written is read by a parser that others wrote; and written back, it is the same to the byte. */
    @RepeatedTest(30)
    void anyTextsAreWrittenAndPutBack(RepetitionInfo repetition) throws Exception {
        var random = new Random(repetition.getCurrentRepetition());
        var content = new StringBuilder();
        for (int i = 0; i < 20; i++)
            content.append(random.nextBoolean() ? "<g transform='translate(1,2)'>" : "<g>")
                    .append("<text id='t")
                    .append(i)
                    .append("' x=\"")
                    .append(random.nextInt(100))
                    .append("\">")
                    .append(List.of("", "??", "€ ü", "&lt;x&gt;", "a]]b").get(random.nextInt(5)))
                    .append("</text></g>")
                    .append(List.of("", "\r\n", "<!-- c -->").get(random.nextInt(3)));
        byte[] before = svg(content.toString());
        SvgDrawing drawing = SvgDrawing.read(before, "a.svg", 1, Optional.empty());
        var changed = new HashMap<String, String>();
        var old = new HashMap<String, String>();
        for (Item item : drawing.items()) {
            old.put(item.id(), item.text());
            if (random.nextBoolean()) changed.put(item.id(), "<" + random.nextInt(1_000) + "> & “" + item.text() + "”");
        }
        byte[] after = drawing.with(changed);
        var read = new ArrayList<String>();
        NodeList texts = parsed(after).getElementsByTagNameNS(ElementReader.SVG, "text");
        for (int i = 0; i < texts.getLength(); i++) {
            String id = "1:" + ((Element) texts.item(i)).getAttribute("id");
            assertThat(texts.item(i).getTextContent()).isEqualTo(changed.getOrDefault(id, old.get(id)));
            read.add(id);
        }
        assertThat(read).hasSize(20);
        var back = new HashMap<String, String>();
        changed.keySet().forEach(id -> back.put(id, old.get(id)));
        assertThat(SvgDrawing.read(after, "a.svg", 1, Optional.empty()).with(back))
                .isEqualTo(before);
    }

    private static Document parsed(byte[] svg) throws Exception {
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setNamespaceAware(true);
        return factory.newDocumentBuilder().parse(new ByteArrayInputStream(svg));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<html/> | The file is no SVG drawing",
                "<svg/> | The file is no SVG drawing",
                "<svg xmlns='http://www.w3.org/2000/svg'><text></svg> | The drawing is no XML that can be read",
                "<!DOCTYPE svg [<!ENTITY a 'b'>]><svg xmlns='http://www.w3.org/2000/svg'><text>&a;</text></svg> | entit",
                "<!DOCTYPE svg [<!ENTITY a SYSTEM 'file:///etc/passwd'>]><svg xmlns='http://www.w3.org/2000/svg'><text>&a;</text></svg> | entit",
                "<svg xmlns='http://www.w3.org/2000/svg'><g transform='scale(0)'><text>a</text></g></svg> | lies under a transform that leaves it no area",
                "<svg xmlns='http://www.w3.org/2000/svg'><g transform='spin(3)'><text>a</text></g></svg> | ‘spin’ with 1 numbers is no transform",
                "<svg xmlns='http://www.w3.org/2000/svg'><g transform='rotate(3'><text>a</text></g></svg> | is no list of transforms",
                "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 0 9'/> | is no view box",
                "<?xml version='1.0' encoding='ISO-8859-1'?><svg xmlns='http://www.w3.org/2000/svg'/> | The drawing is written in ISO-8859-1"
            })
    void whatCannotBeReadSaysWhy(String text, String problem) {
        assertThatThrownBy(() -> SvgDrawing.read(text.getBytes(StandardCharsets.UTF_8), "a.svg", 1, Optional.empty()))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining(problem);
    }

    @Test
    void elementsWithinElementsAreBounded() {
        assertThatThrownBy(() -> items("<g>".repeat(300) + "</g>".repeat(300)))
                .hasMessageContaining("more than 256 elements within each other");
    }
}
