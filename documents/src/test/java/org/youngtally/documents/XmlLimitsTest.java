package org.youngtally.documents;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.documents.drawing.ElementReader;

/** What is counted of XML before a parser sees it, wherever a parser sees markup. */
class XmlLimitsTest {
    private static final ThreadMXBean THREADS = ManagementFactory.getThreadMXBean();

    private static void check(String xml) throws UnreadableDocument {
        XmlLimits.check(xml.getBytes(StandardCharsets.UTF_8), "The file");
    }

    private static String many(int count, IntFunction<String> one) {
        return IntStream.range(0, count).mapToObj(one).collect(Collectors.joining());
    }

    private static String prefixes(int from, int count) {
        return many(count, i -> " xmlns:p" + (from + i) + "='u'");
    }

    static Stream<Arguments> tooMuch() {
        return Stream.of(
                Arguments.of("prefixes", "<a" + prefixes(0, 257) + "/>"),
                Arguments.of("prefixes", "<a>" + many(257, i -> "<b" + prefixes(i, 1) + "/>") + "</a>"),
                Arguments.of("attributes", "<a" + many(1_001, i -> " a" + i + "=''") + "/>"),
                Arguments.of("within each other", "<a>".repeat(257)),
                Arguments.of("different names", "<a>" + many(10_001, i -> "<b" + i + "/>") + "</a>"),
                Arguments.of("a name of", "<a" + "b".repeat(1_000) + "/>"),
                Arguments.of("a name of", "<a " + "b".repeat(1_001) + "=''/>"),
                Arguments.of("declaration of its type", "<!DOCTYPE a [<!-- " + " ".repeat(64_000) + "--> ]><a/>"));
    }

    @ParameterizedTest
    @MethodSource("tooMuch")
    void whatMakesAParserSlowIsRefused(String what, String xml) {
        assertThatThrownBy(() -> check(xml))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining(what);
    }

    /** Each of these stands before markup and ends where a parser ends it, so that nothing is hidden in it. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "<?xml version='1.0' encoding='utf-8'?>",
                "\uFEFF \n",
                "<!-- ' > -- - <![CDATA[ -->",
                "<!---->",
                "<?a ' < > <!-- ?>",
                "<!DOCTYPE r>",
                "<!DOCTYPE r SYSTEM \"'>\">",
                "<!DOCTYPE r [<!ENTITY e '\"]>'><!-- ' --><?b ' ?> <!ATTLIST r a CDATA \"]>\">]>",
                "<!DOCTYPE r [<!-- ]> ' -->]>",
            })
    void nothingIsHiddenBehindWhatStandsInFront(String front) {
        assertThatThrownBy(() -> check(front + "<r" + prefixes(0, 257) + "/>"))
                .hasMessageContaining("prefixes of namespaces");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "<b c='/'>",
                "<b c='>' d=\"'<!--\"/>",
                "<b/>",
                "<b />",
                "<![CDATA[ <b> ]] > ]]>",
                "<b\n/>",
                "<b c = '/' />",
                "-->"
            })
    void nothingIsHiddenBehindWhatStandsWithin(String within) {
        assertThatThrownBy(() -> check("<r>" + within + "<x" + prefixes(0, 257) + "/>"))
                .hasMessageContaining("prefixes of namespaces");
        assertThatCode(() -> check("<r>" + within + "<![CDATA[<x" + prefixes(0, 257) + "/>]]>"))
                .doesNotThrowAnyException();
    }

    /** Levels are counted as a parser counts them: what is closed counts no more. */
    @Test
    void elementsOneBehindAnotherAreNotWithinEachOther() {
        assertThatCode(() -> check("<a>" + "<b/><b c='/'></b><b c='>'/><b ></b >".repeat(1_000) + "</a>"))
                .doesNotThrowAnyException();
    }

    @ParameterizedTest
    @ValueSource(strings = {"UTF-16LE", "UTF-16BE", "UTF-16", "UTF-32LE", "UTF-32BE", "IBM037"})
    void otherEncodingsAreRefusedByTheirFirstBytes(String encoding) {
        byte[] bytes = "<?xml version='1.0'?><a/>".getBytes(Charset.forName(encoding));
        assertThatThrownBy(() -> XmlLimits.check(bytes, "The file")).hasMessageContaining("another encoding");
    }

    /** Some programs keep what they need in UTF-16, beside the sheets of a workbook. */
    @ParameterizedTest
    @ValueSource(strings = {"UTF-16", "UTF-16LE", "UTF-16BE"})
    void partsInPairsOfBytesAreCountedAsOthers(String encoding) {
        Charset pairs = Charset.forName(encoding);
        byte[] harmless = "<?xml version='1.0' encoding='utf-16'?><\u3C00ä>\u003E</\u3C00ä>".getBytes(pairs);
        assertThatCode(() -> XmlLimits.ofPart("The file").pass(harmless, harmless.length))
                .doesNotThrowAnyException();
        byte[] much = ("<?xml version='1.0'?><ä/><r" + prefixes(0, 257) + "/>").getBytes(pairs);
        assertThatThrownBy(() -> {
                    XmlLimits limits = XmlLimits.ofPart("The file");
                    for (byte each : much) limits.pass(new byte[] {each}, 1);
                })
                .hasMessageContaining("prefixes of namespaces");
        byte[] marked = ((encoding.equals("UTF-16") ? "" : "\uFEFF") + "<r" + prefixes(0, 257) + "/>").getBytes(pairs);
        assertThatThrownBy(() -> XmlLimits.ofPart("The file").pass(marked, marked.length))
                .hasMessageContaining("prefixes of namespaces");
    }

    @Test
    void otherEncodingsAreRefusedByTheirNames() {
        assertThatThrownBy(() -> check("<?xml version='1.0' encoding=\"UTF-7\"?><a/>"))
                .hasMessage("The file is written in UTF-7");
    }

    @Test
    void whatIsNoXmlIsNotLookedAt() {
        assertThatCode(() -> XmlLimits.check(new byte[] {(byte) 0x89, 'P', 'N', 'G', '<', 'a'}, "The picture"))
                .doesNotThrowAnyException();
    }

    static Stream<Arguments> growing() {
        return Stream.of(
                Arguments.of("prefixes again and again", (IntFunction<String>)
                        n -> "<a>" + ("<b" + prefixes(0, 250) + "/>").repeat(n / 10) + "</a>"),
                Arguments.of("attributes", (IntFunction<String>)
                        n -> "<a>" + ("<b" + many(900, i -> " a" + i + "=''") + "/>").repeat(n / 40) + "</a>"),
                Arguments.of("levels with prefixes", (IntFunction<String>) n -> "<a>"
                        + (many(100, i -> "<b" + prefixes(0, 9) + ">") + "</b>".repeat(100)).repeat(n / 40) + "</a>"),
                Arguments.of("a long value", (IntFunction<String>) n -> "<a b='" + "&amp;x".repeat(n * 100) + "'/>"),
                Arguments.of("elements", (IntFunction<String>) n -> "<a>" + "<b/>".repeat(n * 100) + "</a>"));
    }

    /** By the median of five ratios, each within one run, of the time of a processor: others may be busy beside it. */
    @ParameterizedTest
    @MethodSource("growing")
    void fourTimesAsMuchTakesAboutFourTimesAsLong(String what, IntFunction<String> made) throws Exception {
        byte[] once = made.apply(1_000).getBytes(StandardCharsets.UTF_8);
        byte[] fourTimes = made.apply(4_000).getBytes(StandardCharsets.UTF_8);
        var ratios = new double[5];
        for (int i = 0; i < ratios.length; i++) {
            nanos(fourTimes);
            ratios[i] = (double) leastOfThree(fourTimes) / leastOfThree(once);
        }
        Arrays.sort(ratios);
        assertThat(ratios[2]).as("%s: %s", what, Arrays.toString(ratios)).isLessThanOrEqualTo(2.6 * 2.6);
    }

    private static long leastOfThree(byte[] xml) throws UnreadableDocument {
        return Math.min(nanos(xml), Math.min(nanos(xml), nanos(xml)));
    }

    private static long nanos(byte[] xml) throws UnreadableDocument {
        long begin = THREADS.getCurrentThreadCpuTime();
        ElementReader.xml(xml);
        return THREADS.getCurrentThreadCpuTime() - begin;
    }
}
