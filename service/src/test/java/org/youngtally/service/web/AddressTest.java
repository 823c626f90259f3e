package org.youngtally.service.web;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class AddressTest {
    @ParameterizedTest
    @ValueSource(strings = {"/", "/a/b-c_d.e~f/", "/%C3%A4%20%2B", "/a:b@c!$&'()*+,=", "/...", "/.a", "/%3B"})
    void whatCannotBeWrittenMorePlainlyIsAccepted(String path) {
        assertThat(Address.fault(path)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "/a;b,‘;’",
        "/a\\b,‘\\’",
        "//a,‘//’",
        "/a/./b,a part ‘.’",
        "/a/..,a part ‘..’",
        "/%2f,‘%2f’ for ‘/’",
        "/%5C,‘%5C’ for ‘\\’",
        "/%61,‘%61’ for ‘a’",
        "/%7E,‘%7E’ for ‘~’",
        "/%2,a percent sign without a byte",
        "*,no ‘/’ at its beginning"
    })
    void whatCouldBeIsNamed(String path, String fault) {
        assertThat(Address.fault(path)).contains(fault);
    }

    /** Java takes many symbols for digits. */
    @Test
    void aByteIsWrittenInDigitsOfAscii() {
        assertThat(Address.isReadable("/%٤١")).isFalse();
    }
}
