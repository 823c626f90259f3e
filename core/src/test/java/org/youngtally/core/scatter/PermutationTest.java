package org.youngtally.core.scatter;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PermutationTest {
    private static final byte[] KEY = HexFormat.of().parseHex("2b7e151628aed2a6abf7158809cf4f3c");

    /**
     * The samples that NIST publishes with SP 800-38G: FF1 with AES of 128, 192 and 256 bits over ten decimal digits.
     */
    @ParameterizedTest
    @CsvSource({
        "2B7E151628AED2A6ABF7158809CF4F3C, '', 0123456789, 2433477484",
        "2B7E151628AED2A6ABF7158809CF4F3C, 39383736353433323130, 0123456789, 6124200773",
        "2B7E151628AED2A6ABF7158809CF4F3CEF4359D8D580AA4F, '', 0123456789, 2830668132",
        "2B7E151628AED2A6ABF7158809CF4F3CEF4359D8D580AA4F, 39383736353433323130, 0123456789, 2496655549",
        "2B7E151628AED2A6ABF7158809CF4F3CEF4359D8D580AA4F7F036D6F04FC6A94, '', 0123456789, 6657667009",
        "2B7E151628AED2A6ABF7158809CF4F3CEF4359D8D580AA4F7F036D6F04FC6A94, 39383736353433323130, 0123456789, 1001623463",
    })
    void publishedSamplesComeOut(String key, String tweak, String plain, String enciphered) {
        var cipher =
                new Permutation.Ff1(HexFormat.of().parseHex(key), HexFormat.of().parseHex(tweak), 10, 10);
        assertThat(cipher.encipher(Long.parseLong(plain))).isEqualTo(Long.parseLong(enciphered));
        assertThat(cipher.decipher(Long.parseLong(enciphered))).isEqualTo(Long.parseLong(plain));
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 10, 26, 127, 128, 129, 1_000, 10_007})
    void everyNumberComesOnceAndIsTurnedBack(long size) {
        var permutation = new Permutation(KEY, "lane".getBytes(StandardCharsets.UTF_8), size);
        var seen = new HashSet<Long>();
        for (long number = 0; number < size; number++) {
            long forward = permutation.forward(number);
            assertThat(forward).isBetween(0L, size - 1);
            assertThat(permutation.back(forward)).isEqualTo(number);
            assertThat(seen.add(forward)).isTrue();
        }
    }

    @Test
    void largeSizesAreTurnedBackToo() {
        for (long size : new long[] {4_294_967_296L, 4_294_967_297L, 1_000_000_000_000_000_000L}) {
            var permutation = new Permutation(KEY, new byte[0], size);
            for (long number : new long[] {0, 1, size / 3, size - 1})
                assertThat(permutation.back(permutation.forward(number))).isEqualTo(number);
        }
    }

    @Test
    void anotherKeyOrLaneGivesAnotherOrderAndNeighboursPart() {
        byte[] other = KEY.clone();
        other[0]++;
        long[] one = numbers(new Permutation(KEY, "a".getBytes(StandardCharsets.UTF_8), 1_000_000));
        assertThat(one).isNotEqualTo(numbers(new Permutation(other, "a".getBytes(StandardCharsets.UTF_8), 1_000_000)));
        assertThat(one).isNotEqualTo(numbers(new Permutation(KEY, "b".getBytes(StandardCharsets.UTF_8), 1_000_000)));
        long near = LongStream.range(1, one.length)
                .filter(at -> Math.abs(one[(int) at] - one[(int) at - 1]) < 10_000)
                .count();
        assertThat(near)
                .as("of 1,000 steps, those that go less than a hundredth of the way")
                .isLessThan(60);
    }

    private static long[] numbers(Permutation permutation) {
        return LongStream.range(0, 1_001).map(permutation::forward).toArray();
    }

    @Test
    void aNumberOutsideIsNotTaken() {
        var permutation = new Permutation(KEY, new byte[0], 10);
        assertThatThrownBy(() -> permutation.forward(10)).isInstanceOf(IndexOutOfBoundsException.class);
        assertThatThrownBy(() -> permutation.back(-1)).isInstanceOf(IndexOutOfBoundsException.class);
    }

    @Test
    void theMarkTellsKeysApartAndShowsNothingOfThem() {
        var scatter = new Scatter(KEY);
        assertThat(scatter).isEqualTo(new Scatter(KEY.clone())).isNotEqualTo(new Scatter(new byte[16]));
        assertThat(scatter.toString()).contains(scatter.mark()).doesNotContain("2b7e");
    }
}
