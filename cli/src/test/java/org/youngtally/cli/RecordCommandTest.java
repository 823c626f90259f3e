package org.youngtally.cli;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** Which record is meant: an identifier is never taken for an internal number, nor the other way round. */
class RecordCommandTest extends StubbedTest {
    private static final String RECORD =
            "{\"record\":7,\"identifier\":\"2\",\"kind\":\"job\",\"version\":1,\"deleted\":true,\"fixed\":false,\"units\":[],\"lines\":[],\"files\":[]}";
    private static final String SHOWN = "{\"record\":" + RECORD + ",\"state\":\"issued\"}";

    private static String found(long record, String series) {
        return "{\"identifier\":\"2\",\"series\":\"" + series + "\",\"record\":" + record + "}";
    }

    @Test
    void digitsAreAnIdentifier() {
        service.answering(200, "[" + found(7, "job") + "]")
                .answering(200, SHOWN)
                .answering(200, "{\"record\":" + RECORD + ",\"seq\":9}")
                .run("record", "delete", "2", "--reason", "gone");
        assertThat(service.asked().getLast().path()).isEqualTo("/records/7/deletions");
    }

    @Test
    void anInternalNumberIsNamedByItsOption() {
        service.answering(200, SHOWN)
                .answering(200, SHOWN)
                .answering(200, "[]")
                .run("record", "show", "--internal", "7");
        assertThat(service.asked().getFirst().path()).isEqualTo("/records/7");
    }

    @Test
    void digitsThatAreNoIdentifierAreRefusedWithTheOptionThatMayBeMeant() {
        assertThat(service.answering(
                                404, "{\"type\":\"/problems/unknown-identifier\",\"detail\":\"‘2’ was never given.\"}")
                        .run("record", "show", "2")
                        .err())
                .contains(
                        "No record has the identifier ‘2’. For the record with the internal number 2, use --internal 2.");
    }

    @Test
    void anIdentifierOfTwoRecordsIsRefusedAndBothAreNamed() {
        assertThat(service.answering(200, "[" + found(7, "job") + "," + found(8, "order") + "]")
                        .run("record", "delete", "2", "--reason", "gone")
                        .err())
                .contains("2 of job (--internal 7)", "2 of order (--internal 8)");
    }

    @Test
    void aRecordIsNamedOnce() {
        assertThat(service.run("record", "show", "2", "--internal", "7").exit()).isEqualTo(2);
    }

    @Test
    void aFileStandsBehindTheOption() {
        assertThat(service.run("record", "attach", "--internal", "7", "/nowhere/a.svg")
                        .err())
                .contains("a.svg");
    }
}
