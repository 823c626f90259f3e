package org.youngtally.core.gs1;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.gs1.ElementReader.Form;
import org.youngtally.core.gs1.ElementReader.Reading;

/** Element strings, written and read in every form that a bar code or a person has them in. */
class ElementStringTest {
    private static final String ITEM = "09521234543213";

    private static ElementString of(String... parts) {
        return new ElementString(Stream.iterate(0, i -> i < parts.length, i -> i + 2)
                .map(i -> new Element(ApplicationIdentifiers.of(parts[i]).orElseThrow(), parts[i + 1]))
                .toList());
    }

    private static Reading read(String text) {
        return ElementReader.read(text).orElseThrow();
    }

    private static String problems(List<Fault> faults) {
        return String.join(" | ", faults.stream().map(Fault::toString).toList());
    }

    @Test
    void fnc1StandsWhereAnElementOfVariableLengthIsNotTheLast() {
        assertThat(of("01", ITEM, "10", "A1", "17", "271231", "21", "S7").joined())
                .isEqualTo("01" + ITEM + "10A1\u001d17271231" + "21S7");
    }

    @Test
    void parenthesesAreForPeopleAlone() {
        ElementString string = of("01", ITEM, "21", "S7");
        assertThat(string.bracketed()).isEqualTo("(01)" + ITEM + "(21)S7");
        assertThat(string.joined()).doesNotContain("(");
    }

    @ParameterizedTest
    @CsvSource({
        "00, 095212340000000013",
        "01, 09521234543213",
        "253, 9521234000006DOC/17",
        "414, 9521234000006",
        "8003, 09521234000006KEG1",
        "8004, 9521234ABC",
        "8006, 095212345432130102",
        "8018, 952123400000000017"
    })
    void anIdentifierThatStandsAloneIsRight(String code, String value) {
        assertThat(problems(of(code, value).faults())).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "00 | 095212340000000016 | the check digit of ‘095212340000000016’ is wrong; for 09521234000000001 it is 3",
                "00 | 9521234000000001 | has 16 symbols; SSCC has 18 symbols",
                "01 | 0952123454321X | ‘X’ is not allowed in it; use digits",
                "11 | 261301 | ‘261301’ is not a date",
                "11 | 270229 | ‘270229’ is not a date",
                "21 | S7 | SERIAL occurs without what it belongs to; add (01) or (8006)",
                "240 | Ä | ‘Ä’ is not allowed in it",
                "8006 | 0952123454321301 | has 16 symbols; ITIP has 18 symbols"
            })
    void aFaultSaysWhatIsWrongAndWhatWouldDo(String code, String value, String problem) {
        assertThat(problems(of(code, value).faults())).contains(problem);
    }

    @Test
    void theLastDayOfAMonthCanBeLeftOpen() {
        assertThat(of("01", ITEM, "17", "280200").faults()).isEmpty();
    }

    private static Stream<ElementString> strings() {
        return Stream.of(
                of("01", ITEM, "10", "A1", "21", "S7"),
                of("01", ITEM, "21", "a(21)b/%+ +&=?"),
                of("00", "095212340000000013"),
                of("01", ITEM, "22", "V", "10", "L", "21", "S", "17", "271231", "240", "x;y"),
                of("414", "9521234000006", "254", "Hall 2".replace(" ", "-")),
                of("8006", "095212345432130102", "21", "9"));
    }

    @ParameterizedTest
    @MethodSource("strings")
    void whatIsWrittenForABarCodeIsReadAgain(ElementString string) {
        assertThat(read("]C1" + string.joined())).isEqualTo(new Reading(Form.JOINED, string, string.faults()));
    }

    @Test
    void aLinkIsReadAgainWithItsElementsInTheOrderOfTheStandard() {
        ElementString string = of("01", ITEM, "22", "V", "10", "L/1", "21", "a+b c%", "17", "271231");
        String link = string.link("https://id.larkmoor.example/t").orElseThrow();
        assertThat(link)
                .isEqualTo("https://id.larkmoor.example/t/01/" + ITEM + "/22/V/10/L%2F1/21/a%2Bb%20c%25?17=271231");
        assertThat(read(link).string()).isEqualTo(string);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "(01)09521234543213(21)S(7) | BRACKETED | (01)09521234543213(21)S(7)",
                "]d20109521234543213 | JOINED | (01)09521234543213",
                "010952123454321321S7 | JOINED | (01)09521234543213(21)S7",
                "https://id.larkmoor.example/01/9521234543213/21/S7?17=271231&lang=de | LINK | (01)09521234543213(21)S7(17)271231",
                "HTTP://id.larkmoor.example/a/b/00/095212340000000013#x | LINK | (00)095212340000000013"
            })
    void everyFormIsKnownByItself(String text, Form form, String elements) {
        Reading reading = read(text);
        assertThat(reading.form()).isEqualTo(form);
        assertThat(reading.string().bracketed()).isEqualTo(elements);
    }

    /** Plain numbers begin with the same digits, and only a check digit tells them from element strings. */
    @ParameterizedTest
    @CsvSource({"1012345", "21-00417", "00123", "095212340000000016", "8004X", "https://larkmoor.example/orders/17"})
    void aPlainTextIsNoElementString(String text) {
        assertThat(ElementReader.read(text)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "]C1017 | ‘7’ has 1 symbol; GTIN has 14 symbols",
                "]C179 | ‘79’ is not an application identifier",
                "(01)09521234543214 | for 0952123454321 it is 3",
                "(79)1 | ‘79’ is not an application identifier",
                "https://id.larkmoor.example/01/09521234543213/17/271231 | (17): cannot follow (01) in the path of a link",
                "https://id.larkmoor.example/01/09521234543213/21/%zz | ‘%zz’ is escaped wrongly",
                "]C1 | it has no element"
            })
    void aScanThatIsWrongSaysWhere(String text, String problem) {
        assertThat(problems(read(text).faults())).contains(problem);
    }

    @Test
    void noCodeIsTheBeginningOfAnother() {
        List<String> codes = ApplicationIdentifiers.all().stream()
                .map(ApplicationIdentifier::code)
                .toList();
        assertThat(codes).allSatisfy(code -> assertThat(codes.stream().filter(other -> other.startsWith(code)))
                .containsExactly(code));
    }

    @Test
    void lengthsAreFixedBeforeTheLastComponent() {
        assertThat(ApplicationIdentifiers.all()).allSatisfy(each -> assertThat(
                        each.components().subList(0, each.components().size() - 1))
                .allMatch(component -> component.shortest() == component.longest()));
    }

    @ParameterizedTest
    @CsvSource({"9521, 12", "9521234, 9", "952123400000, 4"})
    void aSerialIsAsWideAsThePrefixLeaves(String prefix, int width) {
        var company = new CompanyPrefix(prefix);
        assertThat(company.containerPattern(3)).isEqualTo("3" + prefix + "{count " + width + "}{check gs1}");
        assertThat(String.valueOf(company.containerLast())).isEqualTo("9".repeat(width));
    }

    @Test
    void aWrongPrefixIsRefused() {
        assertThat(Arrays.asList("952", "9521234567890", "95212x4"))
                .allSatisfy(
                        prefix -> org.assertj.core.api.Assertions.assertThatThrownBy(() -> new CompanyPrefix(prefix))
                                .hasMessageContaining("write 4 to 12 digits"));
    }
}
