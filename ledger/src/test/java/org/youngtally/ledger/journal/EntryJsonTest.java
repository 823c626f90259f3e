package org.youngtally.ledger.journal;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;

class EntryJsonTest {
    private static final String NUMBER =
            "{\"seq\":7,\"at\":\"2026-03-02T08:15:00Z\",\"by\":\"ines\",\"act\":\"allocate\",\"series\":\"invoice-works\",\"date\":\"2026-03-02\",\"key\":\"a-key\",\"digest\":\"abc\",\"effects\":[{\"lane\":1,\"from\":4,\"version\":1,\"texts\":[\"LW26-00005\"]}]}";
    /** As lines were written that named a quantity of one and the end of a stretch of one. */
    private static final String NUMBER_AT_LENGTH =
            NUMBER.replace("\"key\"", "\"quantity\":1,\"key\"").replace("\"version\"", "\"to\":4,\"version\"");

    private static final String TWO = NUMBER_AT_LENGTH
            .replace("\"quantity\":1", "\"quantity\":2")
            .replace("\"to\":4", "\"to\":5")
            .replace("[\"LW26-00005\"]", "[\"LW26-00005\",\"LW26-00006\"]");

    private static Entry read(String line) {
        return EntryJson.read(line.getBytes(StandardCharsets.UTF_8));
    }

    private static String written(Entry entry) {
        var line = new ByteArrayOutputStream();
        EntryJson.write(entry, line);
        return line.toString(StandardCharsets.UTF_8);
    }

    @Test
    void oneNumberIsWrittenShortly() {
        assertThat(written(read(NUMBER))).isEqualTo(NUMBER);
    }

    @Test
    void severalNumbersAreWrittenAtLength() {
        assertThat(written(read(TWO))).isEqualTo(TWO);
    }

    @Test
    void aLineThatIsLongerThanItNeedBeSaysTheSame() {
        assertThat(read(NUMBER_AT_LENGTH)).isEqualTo(read(NUMBER));
        assertThat(read(NUMBER).request().orElseThrow().quantity()).isEqualTo(1);
    }
}
